import { useDraggable, useDroppable } from "@dnd-kit/core";
import { hasNotes, nameOf, openCommentsOn, secondsOf, type Slide } from "@unitext/core/model";
import { memo } from "react";
import { useDeck } from "../deck/DeckContext";
import { PeopleOn } from "../deck/PeopleHere";
import { useScene } from "../deck/scenes";
import { SlideView } from "../deck/SlideView";
import { clock } from "../ui/time";
import type { Landing } from "../deck/landing";

interface Props {
  slide: Slide;
  number: number;
  width: number;
  detail: boolean;
  selected: boolean;
  current: boolean;
  moving: boolean;
  /** Whether linked values on it differ from their workbook. */
  outdated: boolean;
  /** Whether some of its texts are untranslated. */
  untranslated: boolean;
  landing: Landing["side"] | undefined;
  onChoose: (id: string, keys: { shiftKey: boolean; ctrlKey: boolean; metaKey: boolean }) => void;
  onOpen: (id: string) => void;
}

const LINE: Record<Landing["side"], string> = {
  before: "-top-2.5 inset-x-0 h-1",
  after: "-bottom-2.5 inset-x-0 h-1",
  under: "-right-2.5 inset-y-0 w-1",
};
const DETAIL_LINE: Record<Landing["side"], string> = {
  ...LINE,
  before: "-left-2.5 inset-y-0 w-1",
  after: "-right-2.5 inset-y-0 w-1",
};

/** A thumbnail of the map: drawn, named, marked. It can be dragged, and other slides can be dropped at its sides. */
export const Thumb = memo(function Thumb({
  slide,
  number,
  width,
  detail,
  selected,
  current,
  moving,
  outdated,
  untranslated,
  landing,
  onChoose,
  onOpen,
}: Props) {
  const { deck, metadata, advice } = useDeck();
  const scene = useScene(slide, number, metadata);
  const data = { name: `${number}. ${nameOf(slide)}` };
  const drag = useDraggable({ id: slide.id, data });
  const drop = useDroppable({ id: slide.id, data });
  const over = (scene?.overflow ?? 0) > 0;
  const advised = advice.found.some((one) => one.slide === slide.id && one.check !== "overflow");
  const comments = openCommentsOn(slide);
  const marks = [
    slide.hidden ? "hidden" : "",
    over ? "too full" : "",
    advised ? "see Check" : "",
    outdated ? "data out of date" : "",
    untranslated ? "not all translated" : "",
    !hasNotes(slide) && !slide.hidden ? "no notes" : "",
    comments === 0 ? "" : comments === 1 ? "1 comment" : `${comments} comments`,
  ].filter(Boolean);
  const name = nameOf(slide) || "(empty)";
  return (
    <div
      ref={drop.setNodeRef}
      role="presentation"
      className={`relative h-fit ${moving ? "opacity-40" : ""}`}
      style={{ width }}
    >
      <div
        className={`hairline border ${selected ? "outline-3 outline-secondary" : ""} ${slide.hidden ? "opacity-45" : ""}`}
      >
        {outdated && (
          <span
            className="bg-secondary absolute -top-1 -right-1 z-10 size-3 rounded-full"
            data-outdated
            aria-hidden="true"
          />
        )}
        <PeopleOn slide={slide.id} />
        {comments > 0 && (
          <span
            className="bg-secondary text-secondary-content absolute -top-2 left-1 z-10 rounded-full px-1.5 text-xs leading-4"
            data-comments
            aria-hidden="true"
          >
            {comments}
          </span>
        )}
        {scene ? (
          <SlideView scene={scene} deck={deck.id} />
        ) : (
          <div className="bg-base-200" style={{ aspectRatio: `${deck.page.width} / ${deck.page.height}` }} />
        )}
      </div>
      <p className="flex gap-1.5 truncate pt-0.5 text-xs leading-5" aria-hidden="true">
        <strong>{number}</strong>
        {width >= 120 && <span className="quiet min-w-0 flex-1 truncate">{name}</span>}
        {width >= 170 && marks.length > 0 && (
          <span className={over ? "text-error" : outdated ? "text-secondary" : "quiet"}>{marks.join(", ")}</span>
        )}
      </p>
      {/* biome-ignore lint/a11y/useKeyWithClickEvents: the map around it takes the keys, and moves between its options. */}
      <div
        ref={drag.setNodeRef}
        role="option"
        aria-selected={selected}
        aria-label={`${number}. ${name}${detail ? ", detail" : ""}, ${clock(secondsOf(slide, deck.rate))}${marks.length ? `, ${marks.join(", ")}` : ""}`}
        tabIndex={current ? 0 : -1}
        data-thumb={slide.id}
        className="absolute inset-0 cursor-grab select-none"
        {...drag.listeners}
        onClick={(event) => onChoose(slide.id, event)}
        onDoubleClick={() => onOpen(slide.id)}
      />
      {landing && (
        <span className={`bg-secondary absolute ${(detail ? DETAIL_LINE : LINE)[landing]}`} data-landing={landing} />
      )}
    </div>
  );
});
