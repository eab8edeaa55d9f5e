import { batch } from "@unitext/core/edit";
import type { Slide } from "@unitext/core/model";
import type { Remedy } from "@unitext/core/advice";
import type { PairedSegment } from "@unitext/server/api";
import { Link } from "react-router";
import useSWR from "swr";
import { useDeck } from "../deck/DeckContext";
import { useMeasures } from "../deck/scenes";
import { core } from "../worker";

const REMEDIES: Record<Remedy["kind"], { label: string; done: string }> = {
  smaller: { label: "Set in smaller letters", done: "Set the text of slide {} in smaller letters" },
  continue: { label: "Continue on a next slide", done: "Continued slide {} on a next one" },
};

/** Whether a segment is in an element of the original. Its id begins with slide and element. */
const isIn = (segment: PairedSegment, element: string) => segment.id.startsWith(`${segment.originalSlide}:${element}:`);

/** Returns the slides of the open deck that are too full, with their overflow in points. */
export function useTooFull(): { slide: Slide; number: number; overflow: number }[] {
  const { deck, metadata } = useDeck();
  const measureOf = useMeasures(deck, metadata);
  return deck.slides.flatMap((slide, nth) => {
    const overflow = measureOf(slide)?.overflow ?? 0;
    return overflow > 0 ? [{ slide, number: nth + 1, overflow }] : [];
  });
}

/** Says what does not fit on a slide, and offers what would make it fit. */
export function Fit({
  slide,
  number,
  segments,
  onChoose,
}: {
  slide: Slide;
  number: number;
  segments: readonly PairedSegment[];
  onChoose: (segment: string) => void;
}) {
  const { deck, metadata, session, canEdit } = useDeck();
  const { data } = useSWR(["fit", slide, metadata], () => core.fit(metadata, slide, number), {
    keepPreviousData: false,
    revalidateOnFocus: false,
  });
  if (!data || data.overflow <= 0) return null;
  const here = segments.filter(({ slideId }) => slideId === slide.id);
  const apply = ({ kind, slides: [first, ...next] }: Remedy) => {
    const inserted = next.map((one, nth) => ({
      kind: "insertSlide" as const,
      slide: one,
      place: { parent: slide.parent, after: next[nth - 1]?.id ?? slide.id },
    }));
    session.apply(batch([{ kind: "setSlide", slide: slide.id, as: first }, ...inserted]), {
      words: REMEDIES[kind].done.replace("{}", String(number)),
    });
  };
  return (
    <section aria-label="What does not fit" className="border-warning w-full border-l-4 pl-2 text-sm">
      <p role="status">This slide is too full by {Math.ceil(data.overflow)} points.</p>
      <ul>
        {data.misfits.map(({ element, overflow, characters }) => {
          const texts = here.filter((segment) => isIn(segment, element));
          const longest = texts.toSorted((a, b) => grown(b) - grown(a))[0];
          return (
            <li key={element}>
              {Math.ceil(overflow)} points: shorten by about {characters} characters
              {longest && (
                <>
                  {", "}
                  <button
                    type="button"
                    className="text-primary cursor-pointer underline"
                    onClick={() => onChoose(longest.id)}
                  >
                    the text that has grown most
                  </button>
                </>
              )}
            </li>
          );
        })}
      </ul>
      <div className="flex flex-wrap gap-1 pt-1">
        {data.remedies.map((remedy) => (
          <button
            key={remedy.kind}
            type="button"
            className="btn btn-xs"
            disabled={!canEdit}
            title={
              remedy.kind === "continue" ? "The texts that move are edited on their own slide from then on" : undefined
            }
            onClick={() => apply(remedy)}
          >
            {REMEDIES[remedy.kind].label}
          </button>
        ))}
        <Link className="btn btn-ghost btn-xs" to={`/decks/${deck.id}/refine/${slide.id}`}>
          Refine it
        </Link>
      </div>
    </section>
  );
}

const lengthOf = (pieces: PairedSegment["source"]) =>
  pieces.reduce((sum, piece) => sum + (typeof piece === "string" ? piece.length : 0), 0);

/** By how many characters a translation is longer than its source. */
const grown = ({ source, target }: PairedSegment) => (target ? lengthOf(target) - lengthOf(source) : 0);
