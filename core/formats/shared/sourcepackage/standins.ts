import { type Deck, type Element, plainText, type Slide } from "@unitext/core/model";

/**
 * Returns what other formats show for a foreign element: its picture; the elements of its drawing as one group; else
 * its name and words. Other elements are returned unchanged.
 */
export function standIns(element: Element): Element[] {
  if (element.kind !== "foreign") return [element];
  const { id, slot, frame, drawing, groups = [], picture } = element;
  const at = { id, slot, ...(frame ? { frame } : {}) };
  if (picture !== undefined) return [{ kind: "picture", ...at, source: picture, alt: element.alt || element.what }];
  if (!drawing || !frame) return [{ kind: "text", ...at, text: [...plainText(element.what), ...element.text] }];
  const [wide, high] = [frame.width / drawing.width, frame.height / drawing.height];
  return drawing.elements.flatMap((one, nth): Element[] =>
    one.frame
      ? [
          {
            ...one,
            id: `${id}-${nth + 1}`,
            slot: null,
            frame: {
              x: frame.x + one.frame.x * wide,
              y: frame.y + one.frame.y * high,
              width: one.frame.width * wide,
              height: one.frame.height * high,
            },
            groups: [...groups, `${id}-drawing`, ...(one.groups ?? [])],
          },
        ]
      : [],
  );
}

/** Replaces foreign drawings by their elements, for a format that cannot hold the originals on some slides. */
export function withStandIns(deck: Deck, holds: (slide: Slide) => boolean): Deck {
  const drawn = ({ elements }: Slide) => elements.some((element) => element.kind === "foreign" && element.drawing);
  return deck.slides.some((slide) => drawn(slide) && !holds(slide))
    ? {
        ...deck,
        slides: deck.slides.map((slide) =>
          drawn(slide) && !holds(slide)
            ? {
                ...slide,
                elements: slide.elements.flatMap((element) =>
                  element.kind === "foreign" && element.drawing ? standIns(element) : [element],
                ),
              }
            : slide,
        ),
      }
    : deck;
}
