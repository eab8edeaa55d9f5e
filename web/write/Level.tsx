import { REASONS, type Reason } from "@unitext/core/text";
import { ARRANGEMENTS, type Slide } from "@unitext/core/model";
import { type Ref, useCallback, useImperativeHandle, useMemo, useRef, useState } from "react";
import { useDeck } from "../deck/DeckContext";
import { useScene } from "../deck/scenes";
import { SlideView } from "../deck/SlideView";

/** Where the lines of each slide start, in pixels of the text's height, and how far the text is scrolled. */
export interface Placement {
  tops: readonly number[];
  scroll: number;
  height: number;
}
export interface LevelHandle {
  place(placement: Placement): void;
}

/** Returns the height of a slide beside its lines, in pixels; the editor leaves that much room. */
export const SLIDE_WIDTH = 272;
/** Returns the height of a slide beside its lines, in pixels. */
export function slideHeight(page: { width: number; height: number }): number {
  return Math.round((SLIDE_WIDTH * page.height) / page.width) + 46;
}

interface DrawnProps {
  slide: Slide;
  number: number;
  top: number;
  reason: Reason | undefined;
  hand: boolean;
  onChoose: (id: string) => void;
  onHand: (id: string) => void;
}

function Drawn({ slide, number, top, reason, hand, onChoose, onHand }: DrawnProps) {
  const { deck, metadata, selected } = useDeck();
  const scene = useScene(slide, number, metadata);
  const over = (scene?.overflow ?? 0) > 0;
  const name = ARRANGEMENTS[slide.arrangement].label;
  const why = reason && REASONS[reason];
  return (
    <div className="absolute left-4" style={{ top, width: SLIDE_WIDTH }} data-level-slide={slide.id}>
      <div
        className={`hairline relative border ${selected.includes(slide.id) ? "outline-2 outline-secondary" : ""} ${slide.hidden ? "opacity-50" : ""}`}
      >
        {scene ? <SlideView scene={scene} deck={deck.id} /> : <div className="bg-base-200 aspect-video" />}
        <button
          type="button"
          tabIndex={-1}
          aria-label={`Slide ${number}: go to its lines`}
          onClick={() => onChoose(slide.id)}
          className="absolute inset-0 cursor-pointer"
        />
      </div>
      <p className={`flex items-start justify-between gap-2 text-xs ${over ? "text-error" : "quiet"}`}>
        <span>{number}</span>
        {hand && (
          <button
            type="button"
            tabIndex={-1}
            className="text-secondary min-h-6 shrink-0 underline"
            onClick={() => onHand(slide.id)}
          >
            changed by hand
          </button>
        )}
        <span className="line-clamp-2 text-right" title={why ? `${name}, because ${why}` : name}>
          {over
            ? `${Math.max(1, Math.round(scene?.overflow ?? 0))} pt too much`
            : slide.hidden
              ? "hidden"
              : `${name}${why && !hand ? `: ${why}` : ""}`}
        </span>
      </p>
    </div>
  );
}

interface Props {
  ref: Ref<LevelHandle>;
  ids: readonly string[];
  reasons: readonly (Reason | undefined)[];
  hand: ReadonlySet<string>;
  onChoose: (id: string) => void;
  onHand: (id: string) => void;
}

/** The slides level with the lines that make them; only visible ones are drawn. */
export function Level({ ref, ids, reasons, hand, onChoose, onHand }: Props) {
  const { deck } = useDeck();
  const [placement, setPlacement] = useState<Placement>({ tops: [], scroll: 0, height: 800 });
  const strip = useRef<HTMLDivElement>(null);
  const drawn = useRef(placement);
  useImperativeHandle(ref, () => ({
    place(next) {
      if (strip.current) strip.current.style.transform = `translateY(${-next.scroll}px)`;
      const moved =
        Math.abs(next.scroll - drawn.current.scroll) > 120 ||
        next.height !== drawn.current.height ||
        next.tops.length !== drawn.current.tops.length ||
        next.tops.some((top, nth) => top !== drawn.current.tops[nth]);
      if (!moved) return;
      drawn.current = next;
      setPlacement(next);
    },
  }));
  const byId = useMemo(() => new Map(deck.slides.map((slide, nth) => [slide.id, { slide, number: nth + 1 }])), [deck]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: one function as long as the slides are the same, so that rows are not drawn again.
  const choose = useCallback(onChoose, [ids]);
  const room = slideHeight(deck.page);
  const near = placement.height + room;
  return (
    <aside
      aria-label="Slides"
      className="hairline bg-base-200 relative w-[304px] shrink-0 overflow-hidden border-l max-md:hidden"
      data-level
    >
      <div ref={strip} className="absolute inset-x-0 top-0">
        {ids.map((id, nth) => {
          const top = placement.tops[nth];
          const found = byId.get(id);
          if (
            !found ||
            top === undefined ||
            top < placement.scroll - near ||
            top > placement.scroll + near + placement.height
          )
            return null;
          return (
            <Drawn
              key={id}
              slide={found.slide}
              number={found.number}
              top={top}
              reason={reasons[nth]}
              hand={hand.has(id)}
              onChoose={choose}
              onHand={onHand}
            />
          );
        })}
      </div>
    </aside>
  );
}
