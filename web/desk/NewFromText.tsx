import { OUTLINES } from "@unitext/core/generate";
import { type FormEvent, useEffect, useState } from "react";
import { useNavigate } from "react-router";
import { z } from "zod";
import { post } from "../api/client";

const NewId = z.object({ id: z.string() });

/** The form that makes a deck of a pasted text or of an outline, and opens it in Write. */
export function NewFromText({
  first,
  onClose,
  onBusy,
  onProblem,
}: {
  /** What was pasted before the form was there. */
  first: string;
  onClose: () => void;
  /** Says what is being done; empty when it has ended. */
  onBusy: (text: string) => void;
  onProblem: (text: string) => void;
}) {
  const navigate = useNavigate();
  const [text, setText] = useState(first);
  useEffect(() => {
    if (first) setText(first);
  }, [first]);

  async function make(event: FormEvent) {
    event.preventDefault();
    onBusy("Making the deck …");
    try {
      const { id } = await post("/decks", { title: "", text }, NewId);
      navigate(`/decks/${id}/write`);
    } catch (reason) {
      onProblem((reason as Error).message);
      onBusy("");
    }
  }

  return (
    <form onSubmit={make} className="hairline bg-base-200 mb-4 border p-4">
      <label className="mb-1 block font-semibold" htmlFor="new-text">
        Paste an outline or a text
      </label>
      <p className="quiet mb-2 text-sm" id="new-text-help">
        A line that begins with # is a title slide or a section, one with ## is a slide; --- begins a new slide. Leave
        it empty for a blank title.
      </p>
      <div role="group" aria-label="Begin with an outline" className="mb-2 flex flex-wrap items-center gap-2 text-sm">
        <span className="quiet">Or start with an outline for a</span>
        {Object.entries(OUTLINES).map(([key, { label, text: outline }]) => (
          <button key={key} type="button" className="btn btn-xs" onClick={() => setText(outline)}>
            {label.toLowerCase()}
          </button>
        ))}
      </div>
      <textarea
        id="new-text"
        aria-describedby="new-text-help"
        autoFocus
        className="textarea h-48 w-full font-serif text-base"
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      <div className="mt-3 flex gap-2">
        <button type="submit" className="btn btn-primary btn-sm">
          Make the deck
        </button>
        <button type="button" className="btn btn-ghost btn-sm" onClick={() => onClose()}>
          Cancel
        </button>
      </div>
    </form>
  );
}
