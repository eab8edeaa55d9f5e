import { ChevronDown, ChevronRight } from "lucide-react";
import { useState } from "react";
import { bindingsOn, countWords, secondsOf, type Slide, textOf } from "@unitext/core/model";
import { useDeck } from "../deck/DeckContext";
import { NOTES } from "../deck/presence";
import { useCarets } from "../deck/useCarets";
import { clock } from "../ui/time";
import { RichTextEditor } from "../richtext/RichTextEditor";
import { LinkedValues } from "./LinkedData";

/** The notes of a slide, under it. */
export function Notes({ slide }: { slide: Slide }) {
  const { deck, session, canEdit } = useDeck();
  const { carets, onCaret } = useCarets(slide.id, NOTES);
  const [folded, setFolded] = useState(() => localStorage.getItem("fold/notes") === "closed");
  const fold = () => {
    setFolded(!folded);
    localStorage.setItem("fold/notes", folded ? "open" : "closed");
  };
  const Mark = folded ? ChevronRight : ChevronDown;
  const words = countWords(textOf(slide.notes));
  const linked = bindingsOn(slide).filter(({ element }) => element === null);
  if (!canEdit) return <p className="whitespace-pre-wrap">{textOf(slide.notes)}</p>;
  return (
    <section aria-label="Notes" className="hairline mx-auto mt-2 w-full border">
      <header className="bg-base-200 flex items-baseline justify-between px-3 py-1 text-sm">
        <h2 className="font-semibold">
          <button type="button" className="flex items-center gap-1" aria-expanded={!folded} onClick={fold}>
            <Mark size={16} aria-hidden="true" />
            Notes
          </button>
        </h2>
        <span className="quiet">
          {words} words · {clock(secondsOf(slide, deck.rate))} to say
        </span>
      </header>
      {!folded && (
        <RichTextEditor
          key={slide.id}
          text={slide.notes}
          label="Notes"
          placeholder=""
          language={deck.language}
          className="notes px-3 py-2 font-serif"
          onChange={(notes) => session.apply({ kind: "setNotes", slide: slide.id, notes })}
          carets={carets}
          onCaret={onCaret}
          onLeave={() => document.querySelector<HTMLElement>("[data-spine][tabindex='0']")?.focus()}
        />
      )}
      {linked.length > 0 && (
        <details className="hairline border-t px-3 py-1 text-sm">
          <summary className="cursor-pointer">
            {linked.length === 1 ? "One linked value" : `${linked.length} linked values`}
          </summary>
          <LinkedValues values={linked} />
        </details>
      )}
    </section>
  );
}
