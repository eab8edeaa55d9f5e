import type { Opened } from "@unitext/server/api";
import { Copy } from "lucide-react";
import { type ReactNode, useState } from "react";
import { z } from "zod";
import { post } from "../api/client";
import { useMe } from "../api/entrance";
import { DownloadMenu } from "./DownloadMenu";

/** The page of a link by which a deck may be taken, and not looked at here. */
export function CopyOnly({ deck, choice }: { deck: Opened["decks"][number]; choice: ReactNode }) {
  const me = useMe();
  const [problem, setProblem] = useState("");
  const hasDesk = me !== undefined && me.role !== "guest";
  const copy = async () => {
    try {
      const { id } = await post(`/decks/${deck.id}/copies`, {}, z.object({ id: z.string() }));
      window.location.assign(`/decks/${id}/arrange`);
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  return (
    <main className="grid min-h-full place-items-center p-4">
      <div className="hairline w-full max-w-md border p-6">
        <h1 className="mb-1 font-serif text-xl">{deck.title || "Untitled"}</h1>
        <p className="quiet mb-4 text-sm">
          {deck.slides} slides, shared with you as a copy to take. What you change in it stays in your copy.
        </p>
        {choice}
        {problem && (
          <p role="alert" className="border-error my-3 border-l-4 pl-2">
            {problem}
          </p>
        )}
        <div className="mt-3 flex flex-wrap gap-2">
          {hasDesk ? (
            <button type="button" className="btn btn-primary" onClick={() => void copy()}>
              <Copy size={16} aria-hidden="true" /> Take a copy
            </button>
          ) : (
            <a className="btn btn-primary" href={`/sign-in?to=${encodeURIComponent(window.location.pathname)}`}>
              Sign in to take a copy
            </a>
          )}
          <DownloadMenu deck={deck.id} onProblem={setProblem} />
        </div>
      </div>
    </main>
  );
}
