import { slotPlaces } from "@unitext/core/layout";
import { type ArrangementName, type Deck, languageDirection } from "@unitext/core/model";

/** A sketch of an arrangement: its slots in their places on the pages of a deck. */
export function ArrangementSketch({ arrangement, deck }: { arrangement: ArrangementName; deck: Deck }) {
  const { page } = deck;
  return (
    <svg viewBox={`0 0 ${page.width} ${page.height}`} className="mb-1 block w-full" aria-hidden="true">
      <rect width={page.width} height={page.height} className="fill-base-200" />
      {[...slotPlaces(arrangement, deck)].map(([slot, { frame, role }]) => {
        const thin = role === "title" || role === "opening";
        return (
          <rect
            key={slot}
            x={thin && languageDirection(deck.language) === "rtl" ? frame.x + frame.width * 0.3 : frame.x}
            y={thin ? frame.y + frame.height * 0.45 : frame.y}
            width={frame.width * (thin ? 0.7 : 1)}
            height={frame.height * (thin ? 0.55 : 0.9)}
            rx={6}
            className={thin ? "fill-primary" : "fill-base-300"}
            opacity={thin ? 0.75 : 1}
          />
        );
      })}
    </svg>
  );
}
