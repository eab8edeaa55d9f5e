import { useDeck } from "../deck/DeckContext";
import { colourOf } from "../deck/presence";
import { placeOnStage } from "./FrameButtons";
import type { RotatedFrame } from "./frames";

/** The elements that others have selected or write in, each with their name. */
export function OthersOnStage({
  slide,
  frames,
  scale,
}: {
  slide: string;
  frames: ReadonlyMap<string, RotatedFrame>;
  scale: number;
}) {
  const { others } = useDeck();
  return others.map(({ page, user, name, slide: theirs, element }) => {
    const frame = theirs === slide && element !== null ? frames.get(element) : undefined;
    if (!frame) return null;
    return (
      <div
        key={page}
        className="pointer-events-none absolute z-20 border-2"
        style={{ ...placeOnStage(frame, scale), borderColor: colourOf(user) }}
        data-person-at={element}
      >
        <span
          className="absolute -top-5 left-0 max-w-40 truncate rounded-sm px-1 text-xs text-white"
          style={{ backgroundColor: colourOf(user) }}
        >
          {name}
        </span>
      </div>
    );
  });
}
