import {
  type Deck,
  type Element,
  type Frame,
  isEmptyText,
  type PictureElement,
  type Slide,
  slidePropertiesOf,
  slotsOf,
  type SlotRole,
} from "@unitext/core/model";
import type { SingleChange } from "./change";
import { rearrangeIn } from "./look";

/** How many pictures share the slot of a set of pictures. */
const MOST_IN_SET = 6;
/** The widths of text and the picture beside it, in parts. */
const BESIDE = [42, 58];

/** Returns the free slot for a picture of the arrangement that a slide has; undefined where there is none. */
function freeSlot({ arrangement, elements }: Slide): string | undefined {
  return slotsOf(arrangement).find(([slot, role]) => {
    const taken = elements.filter((element) => element.slot === slot).length;
    return role === "picture" && taken < (slot === "pictures" ? MOST_IN_SET : 1);
  })?.[0];
}

type Room = { arrangement: "comparison" | "picture" | "pictures" | "table" | "chart" | "diagram"; slot: string };

/** Whether an element is words in a slot, of which there may be none yet. */
const isText = (element: Element) => element.kind === "text" && element.slot !== null;
const isEmpty = (element: Element) => element.kind === "text" && isEmptyText(element.text);

/**
 * Returns the arrangement and slot that give something room beside what is on a slide, or below its title where there is
 * nothing else; undefined where none does. `alone` is the arrangement for it below a title.
 */
function roomBeside(
  { arrangement, elements, master }: Slide,
  alone: Exclude<Room["arrangement"], "comparison" | "pictures">,
): Room | undefined {
  if (master !== undefined || !elements.every(isText)) return undefined;
  const said = elements.filter((element) => !isEmpty(element));
  if (arrangement === "points" && said.some(({ slot }) => slot === "body"))
    return { arrangement: "comparison", slot: "right" };
  return arrangement === "title" || arrangement === "points" ? { arrangement: alone, slot: alone } : undefined;
}

/** Returns the room of a set, where a slide has one picture in its place and nothing but text beside it. */
function asSet({ arrangement, elements, master }: Slide): Room | undefined {
  const rest = elements.filter((element) => !(element.kind === "picture" && element.slot === "picture"));
  return arrangement === "picture" && master === undefined && rest.length < elements.length && rest.every(isText)
    ? { arrangement: "pictures", slot: "pictures" }
    : undefined;
}

/** Returns the changes that give a slide an arrangement with room, without the empty text that would be in the way. */
function makeRoom(deck: Deck, slide: Slide, { arrangement }: Room): SingleChange[] {
  const empty = slide.elements.filter((element) => isEmpty(element) && element.slot !== "title");
  const bare = { ...slide, elements: slide.elements.filter((element) => !empty.includes(element)) };
  return [
    ...empty.map(({ id }): SingleChange => ({ kind: "deleteElement", slide: slide.id, element: id })),
    ...rearrangeIn(deck, bare, arrangement),
    ...(arrangement === "comparison"
      ? [
          {
            kind: "setSlideProperties" as const,
            slide: slide.id,
            properties: { ...slidePropertiesOf(slide), widths: BESIDE },
          },
        ]
      : []),
  ];
}

/** Returns the size of a picture on the page: at most half its width, and six tenths of its height. */
function sizeOnPage({ page, assets }: Deck, source: string): { width: number; height: number } {
  const asset = assets[source] ?? { width: 400, height: 300 };
  const share = Math.min(1, (page.width * 0.5) / asset.width, (page.height * 0.6) / asset.height);
  return { width: Math.round(asset.width * share), height: Math.round(asset.height * share) };
}

/**
 * Returns the changes that put a picture on a slide: into the free slot of its arrangement; else beside its text, where a
 * slide has nothing but text in its slots; else where the page is free. `occupied` are the places of what is on the
 * slide, in points.
 */
export function putPicture(
  deck: Deck,
  slide: Slide,
  picture: Omit<PictureElement, "slot" | "frame">,
  occupied: readonly Frame[] = [],
): SingleChange[] {
  const insert = (own: Pick<PictureElement, "slot" | "frame">): SingleChange => ({
    kind: "insertElement",
    slide: slide.id,
    element: { ...picture, ...own },
    index: slide.elements.length,
  });
  const slot = freeSlot(slide);
  if (slot !== undefined) return [insert({ slot })];
  const room = asSet(slide) ?? roomBeside(slide, "picture");
  if (!room) return [insert({ slot: null, frame: fittedFrame(deck.page, sizeOnPage(deck, picture.source), occupied) })];
  return [...makeRoom(deck, slide, room), insert({ slot: room.slot })];
}

/** The margin that new elements keep from the edges of the page, and the step of the places that are tried, in points. */
const [MARGIN, STEP] = [36, 12];

/** Returns the area in which two frames overlap. */
function overlap(one: Frame, other: Frame): number {
  const width = Math.min(one.x + one.width, other.x + other.width) - Math.max(one.x, other.x);
  const height = Math.min(one.y + one.height, other.y + other.height) - Math.max(one.y, other.y);
  return width > 0 && height > 0 ? width * height : 0;
}

/**
 * Returns a frame of a size on the page that covers as little as possible of the occupied ones; of several, the one
 * nearest to the middle.
 */
export function freeFrame(
  page: { width: number; height: number },
  { width, height }: { width: number; height: number },
  occupied: readonly Frame[],
): Frame {
  const [middleX, middleY] = [(page.width - width) / 2, (page.height - height) / 2];
  let best = { x: Math.round(middleX), y: Math.round(middleY), width, height };
  const cost = (frame: Frame) => {
    const covered = occupied.reduce((sum, other) => sum + overlap(frame, other), 0);
    return covered * 1000 + Math.hypot(frame.x - middleX, frame.y - middleY);
  };
  let least = cost(best);
  for (let y = MARGIN; y <= page.height - MARGIN - height; y += STEP)
    for (let x = MARGIN; x <= page.width - MARGIN - width; x += STEP) {
      const next = cost({ x, y, width, height });
      if (next < least) [best, least] = [{ x, y, width, height }, next];
    }
  return best;
}

/** The sizes that are tried for a new element, as shares of the one that it would have on an empty page. */
const SHARES = [1, 0.85, 0.7, 0.55, 0.45, 0.35];

/**
 * Returns a frame that covers none of the occupied ones: of the size where there is room for it, else smaller in the same
 * proportions. Where even a third of it covers something, the one of the full size that covers the least.
 */
export function fittedFrame(
  page: { width: number; height: number },
  { width, height }: { width: number; height: number },
  occupied: readonly Frame[],
): Frame {
  for (const share of SHARES) {
    const size = { width: Math.round(width * share), height: Math.round(height * share) };
    const frame = freeFrame(page, size, occupied);
    if (occupied.every((other) => overlap(frame, other) === 0)) return frame;
  }
  return freeFrame(page, { width, height }, occupied);
}

/** Returns the slot that an element fills by its kind, where the slide has it empty. */
function slotFor({ arrangement, elements, master }: Slide, { kind }: Element): string | undefined {
  if (master !== undefined) return undefined;
  const isFree = (slot: string) => !elements.some((element) => element.slot === slot && !isEmpty(element));
  const TEXT: readonly SlotRole[] = ["body", "statement"];
  return slotsOf(arrangement).find(
    ([slot, role]) =>
      isFree(slot) &&
      (kind === "text" ? TEXT.includes(role) : role === "figure" && (slot === kind || slot === "diagram")),
  )?.[0];
}

/**
 * Returns the changes that put a new element on a slide, not over its words: into a free slot of its kind; tables, charts
 * and diagrams beside the text or below the title; anything else where the page is free, at most as large as its frame.
 * `occupied` are the places of what is on the slide, in points.
 */
export function putElement(deck: Deck, slide: Slide, element: Element, occupied: readonly Frame[]): SingleChange[] {
  if (element.kind === "picture") return putPicture(deck, slide, element, occupied);
  const insert = (own: Pick<Element, "slot" | "frame">): SingleChange => {
    const { frame: _, ...rest } = element;
    return {
      kind: "insertElement",
      slide: slide.id,
      element: { ...rest, ...own } as Element,
      index: slide.elements.length,
    };
  };
  const isFigure = element.kind === "table" || element.kind === "chart" || element.kind === "diagram";
  const slot = isFigure || element.kind === "text" ? slotFor(slide, element) : undefined;
  if (slot !== undefined) {
    const empty = slide.elements.filter((other) => other.slot === slot);
    return [
      ...empty.map(({ id }): SingleChange => ({ kind: "deleteElement", slide: slide.id, element: id })),
      { ...insert({ slot }), index: slide.elements.length - empty.length } as SingleChange,
    ];
  }
  const room = isFigure ? roomBeside(slide, element.kind as "table") : undefined;
  if (room) return [...makeRoom(deck, slide, room), insert({ slot: room.slot })];
  const size = element.frame ?? { width: deck.page.width / 2, height: deck.page.height / 3 };
  return [insert({ slot: null, frame: fittedFrame(deck.page, size, occupied) })];
}
