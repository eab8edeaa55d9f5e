import { withBoundRuns } from "@unitext/core/model";
import { BoundCells, type SourceSummary, TypedNumbers } from "@unitext/server/api";
import { useState } from "react";
import useSWR from "swr";
import { get, post } from "../api/client";
import { useDeck } from "../deck/DeckContext";
import { Dialog } from "../ui/Dialog";

type Typed = TypedNumbers["repeated"][number] & { newest?: number };

const keyOf = ({ slideId, element, text, paragraph, from }: Typed) =>
  [slideId, element, text, paragraph, from].join("/");

/** Numbers that somebody typed and that repeat cells of a source: each in its sentence, to be linked one by one. */
export function TypedNumbersDialog({ source, onClose }: { source: SourceSummary; onClose: () => void }) {
  const { deck, version, session, canEdit } = useDeck();
  const { data, error } = useSWR(`/decks/${deck.id}/typed-numbers?source=${source.id}@${version}`, () =>
    get(`/decks/${deck.id}/typed-numbers?source=${source.id}`, TypedNumbers),
  );
  const [busy, setBusy] = useState("");

  async function link(one: Typed): Promise<void> {
    setBusy(keyOf(one));
    try {
      const { range, format, slideId } = one;
      const bound = await post(
        `/decks/${deck.id}/bindings`,
        { source: source.id, range, mode: "latest", format },
        BoundCells,
      );
      const slide = deck.slides.find(({ id }) => id === slideId);
      const binding = bound.kind === "value" ? bound.run.binding : undefined;
      if (!slide || !binding) return;
      const { element, text, paragraph, from, shown } = one;
      const next = withBoundRuns(slide, [{ element, text, paragraph, from, shown, binding }]);
      session.apply(
        { kind: "setSlide", slide: slideId, as: next },
        { words: `Linked ${shown} on slide ${one.slide} to ${range}` },
      );
    } catch (reason) {
      session.notify((reason as Error).message);
    } finally {
      setBusy("");
    }
  }

  const list = (label: string, lead: string, rows: readonly Typed[]) =>
    rows.length > 0 && (
      <section className="mb-4">
        <h3 className="font-semibold">{label}</h3>
        <p className="quiet mb-1 text-sm">{lead}</p>
        <ul>
          {rows.map((one) => (
            <li
              key={keyOf(one)}
              className="hairline flex items-start gap-3 border-t py-1.5 text-sm"
              data-typed={one.range}
            >
              <span className="quiet w-24 shrink-0">
                Slide {one.slide}
                {one.element === null ? ", notes" : ""}
              </span>
              <span className="min-w-0 flex-1">
                {one.sentence.slice(0, one.from)}
                <mark className="bg-warning/30">{one.shown}</mark>
                {one.sentence.slice(one.from + one.shown.length)}
              </span>
              <span className="quiet w-40 shrink-0 text-right">
                {one.range}
                {one.newest === undefined ? "" : `, now ${one.newest}`}
              </span>
              <button
                type="button"
                className="btn btn-xs"
                disabled={!canEdit || busy !== ""}
                onClick={() => void link(one)}
              >
                Link
              </button>
            </li>
          ))}
        </ul>
      </section>
    );
  const none = data && !data.repeated.length && !data.outdated.length;
  return (
    <Dialog
      title={`Numbers in this deck that repeat ${source.name}`}
      lead="A number is listed where its sentence names its row, and the sentence or the title its column. Nothing is linked by itself."
      width="page"
      onClose={onClose}
      actions={(close) => (
        <button type="button" className="btn btn-primary" onClick={close}>
          Done
        </button>
      )}
    >
      {error && <p role="alert">{(error as Error).message}</p>}
      {!data && !error && <p className="quiet">Looking through the texts and notes …</p>}
      {none && <p>No text or note repeats a cell of this workbook by hand.</p>}
      {data && (
        <div className="max-h-[60vh] overflow-auto">
          {list(
            "Probably out of date",
            "They equal a cell of the version before, which has another value now.",
            data.outdated,
          )}
          {list("Typed by hand", "They equal a cell; linked, they follow it.", data.repeated)}
        </div>
      )}
    </Dialog>
  );
}
