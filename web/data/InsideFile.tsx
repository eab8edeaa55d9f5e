import { SourceTaken, WorkbooksInside } from "@unitext/server/api";
import { useState } from "react";
import useSWR, { mutate } from "swr";
import { get, post } from "../api/client";
import { useDeck } from "../deck/DeckContext";

/** The workbooks inside the file that the deck was read from: each can be taken out and becomes a source. */
export function InsideFile({ onTaken }: { onTaken: (line: string) => void }) {
  const { deck } = useDeck();
  const fromFile = deck.slides.some(({ sourcePart }) => sourcePart);
  const { data } = useSWR(fromFile ? `/decks/${deck.id}/workbooks` : null, () =>
    get(`/decks/${deck.id}/workbooks`, WorkbooksInside),
  );
  const [busy, setBusy] = useState("");
  if (!data?.workbooks.length) return null;
  async function takeOut(slideId: string, path: string, name: string) {
    setBusy(`${slideId} ${path}`);
    try {
      await post(`/decks/${deck.id}/workbooks`, { slideId, path }, SourceTaken);
      await mutate("/sources");
      onTaken(`${name} is a source now.`);
    } catch (reason) {
      onTaken(`${name}: ${(reason as Error).message}`);
    } finally {
      setBusy("");
    }
  }
  return (
    <section aria-label="Inside the file" className="mt-4">
      <h3 className="font-semibold">Inside the file</h3>
      <p className="quiet mb-1 text-xs">
        Workbooks of charts and objects, as they came with the slides. One outside is not followed: bring it in, and
        link the chart to its cells in Refine.
      </p>
      <ul className="space-y-1">
        {data.workbooks.map(({ slide, slideId, path, name, size }) => (
          <li key={`${slideId} ${path}`} className="flex items-center gap-2" data-inside={name}>
            <span className="min-w-0 flex-1 truncate" title={path}>
              Slide {slide}: {name}
              <span className="quiet text-xs">
                {" "}
                {size === null ? "outside the file" : `${Math.max(1, Math.round(size / 1000))} kB`}
              </span>
            </span>
            <button
              type="button"
              className={`btn btn-xs ${size === null ? "hidden" : ""}`}
              disabled={busy !== ""}
              onClick={() => void takeOut(slideId, path, name)}
            >
              Take it out
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
