import {
  type Deck,
  type Frame,
  type PictureElement,
  type Slide,
  slidePropertiesOf,
  slotsOf,
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

/** Returns the arrangement and slot that give a picture room beside what is on a slide; undefined where none does. */
function roomBeside({
  arrangement,
  elements,
}: Slide): { arrangement: "comparison" | "picture"; slot: string } | undefined {
  const inSlots = elements.every(({ kind, slot }) => kind === "text" && slot !== null);
  if (!inSlots) return undefined;
  if (arrangement === "points" && elements.some(({ slot }) => slot === "body"))
    return { arrangement: "comparison", slot: "right" };
  return arrangement === "title" ? { arrangement: "picture", slot: "picture" } : undefined;
}

/** Returns a frame in the middle of the page for a picture, of at most half its width. */
function middleOf({ page, assets }: Deck, source: string): Frame {
  const asset = assets[source] ?? { width: 400, height: 300 };
  const share = Math.min(1, (page.width * 0.5) / asset.width, (page.height * 0.6) / asset.height);
  const [width, height] = [Math.round(asset.width * share), Math.round(asset.height * share)];
  return { x: Math.round((page.width - width) / 2), y: Math.round((page.height - height) / 2), width, height };
}

/**
 * Returns the changes that put a picture on a slide: into the free slot of its arrangement; else beside its text, where a
 * slide has nothing but text in its slots; else in the middle of the page, on top.
 */
export function putPicture(deck: Deck, slide: Slide, picture: Omit<PictureElement, "slot" | "frame">): SingleChange[] {
  const insert = (own: Pick<PictureElement, "slot" | "frame">): SingleChange => ({
    kind: "insertElement",
    slide: slide.id,
    element: { ...picture, ...own },
    index: slide.elements.length,
  });
  const slot = freeSlot(slide);
  if (slot !== undefined) return [insert({ slot })];
  const room = slide.master === undefined ? roomBeside(slide) : undefined;
  if (!room) return [insert({ slot: null, frame: middleOf(deck, picture.source) })];
  const widths: SingleChange[] =
    room.slot === "right"
      ? [{ kind: "setSlideProperties", slide: slide.id, properties: { ...slidePropertiesOf(slide), widths: BESIDE } }]
      : [];
  return [...rearrangeIn(deck, slide, room.arrangement), ...widths, insert({ slot: room.slot })];
}
