import {
  type Deck,
  type Direction,
  type Element,
  type Frame,
  mapElementTexts,
  type Paragraph,
  type RegionBox,
  type Slide,
  type TextBox,
} from "@unitext/core/model";

const FLIPPED = { none: "x", x: "none", y: "xy", xy: "y" } as const;

/**
 * Returns a deck as in a mirror, for a language that is read in the other direction: elements with a frame of their own
 * change sides, shapes are flipped, rotations turn the other way, and the columns of tables and the axes of charts run
 * the other way. Pictures and letters are not mirrored. Slots need nothing: they follow the language of the deck.
 */
export function mirrorDeck(deck: Deck, direction: Direction): Deck {
  const frame = (given: Frame): Frame => ({ ...given, x: deck.page.width - given.x - given.width });
  const region = (given: RegionBox): RegionBox => ({ ...given, frame: frame(given.frame) });
  const slide = (given: Slide): Slide => ({
    ...given,
    elements: given.elements.map((element) => mirrorElement(element, frame, direction)),
    ...(given.regions ? { regions: given.regions.map(region) } : {}),
  });
  return { ...deck, slides: deck.slides.map(slide) };
}

function mirrorElement(element: Element, frame: (given: Frame) => Frame, direction: Direction): Element {
  const directed = mapElementTexts(element, (text) =>
    text.map((paragraph) => mirrorParagraph(paragraph, element.style === undefined ? undefined : direction)),
  );
  if (!directed.frame) return directed;
  const { flip: _, ...rest } = directed;
  const flip = element.kind === "shape" ? FLIPPED[element.flip ?? "none"] : (element.flip ?? "none");
  const moved = {
    ...rest,
    frame: frame(directed.frame),
    ...(flip === "none" ? {} : { flip }),
    ...(element.rotation ? { rotation: -element.rotation } : {}),
    ...(element.box ? { box: mirrorBox(element.box) } : {}),
  } as Element;
  return moved.kind === "table" || moved.kind === "chart" || moved.kind === "diagram" ? { ...moved, direction } : moved;
}

/** Gives a paragraph in the style of a file the direction; others lose theirs and follow the language. */
function mirrorParagraph(paragraph: Paragraph, direction: Direction | undefined): Paragraph {
  const { direction: own, ...properties } = paragraph.properties ?? {};
  if (direction) return { ...paragraph, properties: { ...properties, direction } };
  return own ? { ...paragraph, properties } : paragraph;
}

function mirrorBox(box: TextBox): TextBox {
  if (!box.insets) return box;
  const [left, top, right, bottom] = box.insets;
  return { ...box, insets: [right, top, left, bottom] };
}
