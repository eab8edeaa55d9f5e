import { DIAGRAM_TYPES, type DiagramElement, metadataOf, type Slide } from "@unitext/core/model";
import { useMemo } from "react";
import { useDeck } from "../deck/DeckContext";
import { SmallSlide } from "../deck/SmallSlide";
import { RichTextEditor } from "../richtext/RichTextEditor";
import { asPoints, DIAGRAM_NAMES } from "./diagrams";
import type { Acts } from "./selection";

/** A diagram as a list beside it, and its kinds, drawn with its own words. */
export function DiagramData({
  slide,
  diagram,
  acts,
  onChoose,
}: {
  slide: Slide;
  diagram: DiagramElement;
  acts: Acts;
  onChoose: (id: string) => void;
}) {
  const { deck, session, canEdit } = useDeck();
  const metadata = useMemo(() => metadataOf(deck), [deck]);
  const kinds = useMemo(
    () =>
      DIAGRAM_TYPES.map((type) => ({
        type,
        shown: {
          ...slide,
          id: `${slide.id}/${type}`,
          arrangement: "blank" as const,
          elements: [
            {
              ...diagram,
              type,
              slot: null,
              frame: { x: 60, y: 60, width: deck.page.width - 120, height: deck.page.height - 120 },
            },
          ],
        },
      })),
    [slide, diagram, deck.page],
  );
  return (
    <fieldset disabled={!canEdit} className="mb-4">
      <legend className="mb-2 font-semibold">Diagram</legend>
      <div role="radiogroup" aria-label="Kind of diagram" className="mb-3 grid grid-cols-2 gap-1">
        {kinds.map(({ type, shown }) => (
          <label
            key={type}
            title={DIAGRAM_NAMES[type].use}
            className={`cursor-pointer p-0.5 text-xs focus-within:outline-2 focus-within:outline-secondary ${type === diagram.type ? "outline-2 outline-secondary" : ""}`}
          >
            <input
              type="radio"
              name={`diagram-${diagram.id}`}
              className="sr-only"
              checked={type === diagram.type}
              onChange={() =>
                acts.set(
                  (element) => (element.kind === "diagram" ? { ...element, type } : element),
                  `Drew it as ${DIAGRAM_NAMES[type].label.toLowerCase()}`,
                )
              }
            />
            <SmallSlide slide={shown} number={1} metadata={metadata} deck={deck.id} width={106} />
            {DIAGRAM_NAMES[type].label}
          </label>
        ))}
      </div>
      <p className="quiet mb-1 text-xs">One line for each item; Tab puts it below the one before.</p>
      <div className="hairline bg-base-100 border p-2">
        <RichTextEditor
          key={diagram.id}
          text={diagram.text}
          label="Words of the diagram"
          placeholder=""
          language={deck.language}
          onChange={(text) =>
            acts.set(
              (element) => (element.kind === "diagram" ? { ...element, text } : element),
              "Changed the words of a diagram",
            )
          }
          onLeave={() => document.querySelector<HTMLElement>(`[data-frame="${diagram.id}"] button`)?.focus()}
        />
      </div>
      <button
        type="button"
        className="btn btn-xs mt-2"
        onClick={() => {
          const { id, change } = asPoints(slide, diagram);
          if (session.apply(change, { words: "Wrote the diagram as points" })) onChoose(id);
        }}
      >
        As points again
      </button>
    </fieldset>
  );
}
