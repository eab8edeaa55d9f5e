import {
  BODY_SLOT,
  COLUMN_GAP,
  TITLE_SLOT,
  arrangementOf,
  type SlotDescriptor,
  type ArrangementName,
  type Direction,
  type Frame,
  type Page,
  type SlotRole,
  type Theme,
  must,
} from "@unitext/core/model";

/** The minimum size of cells, code and labels, as a share of the readable minimum: they are read one at a time. */
export const FIGURE_MINIMUM = 0.75;

/** A slot's place on the page, and how its content is set in it. */
export interface SlotPlace {
  frame: Frame;
  role: SlotRole;
  anchor: "top" | "middle" | "bottom";
  align: "start" | "centre" | "end";
}

/**
 * Returns the scale of lengths on a page: a page of 540 points has the theme's sizes, others in proportion to their
 * height.
 */
export function pageScale(page: Page): number {
  return Math.min(page.height / 540, page.width / 720);
}

/** The roles of slots that an arrangement lacks but an element may still name. */
const LOOSE: Record<string, SlotRole> = { title: "title", subtitle: "subtitle", caption: "caption", number: "number" };

/** Returns the area inside the margins, above the line for footer and number. */
export function contentArea(page: Page): Frame {
  const scale = pageScale(page);
  const side = page.width * 0.065;
  const top = 36 * scale;
  return { x: side, y: top, width: page.width - 2 * side, height: page.height - top - 48 * scale };
}

function placed(
  page: Page,
  { role, share: [x, y, width, height], anchor = "top", align = "start" }: SlotDescriptor,
): SlotPlace {
  const area = contentArea(page);
  const frame = {
    x: area.x + x * area.width,
    y: area.y + y * area.height,
    width: width * area.width,
    height: height * area.height,
  };
  return { frame, role, anchor, align };
}

/** Returns a frame on the other side of the page, as decks that are read from right to left have it. */
export function mirroredOnPage(frame: Frame, page: Page): Frame {
  return { ...frame, x: page.width - frame.x - frame.width };
}

const usualOn = new WeakMap<Page, Map<ArrangementName, ReadonlyMap<string, SlotPlace>>>();

/** Returns the slots of an arrangement in their usual widths. Cached for a page. */
function usualPlaces(arrangement: ArrangementName, page: Page): ReadonlyMap<string, SlotPlace> {
  const held = usualOn.get(page) ?? new Map<ArrangementName, ReadonlyMap<string, SlotPlace>>();
  usualOn.set(page, held);
  const known = held.get(arrangement);
  if (known) return known;
  const { slots } = arrangementOf(arrangement);
  const places = new Map(Object.entries(slots).map(([name, slot]) => [name, placed(page, slot)]));
  held.set(arrangement, places);
  return places;
}

/**
 * Returns the slots of an arrangement on a page, by name. In a deck that is read from right to left they are mirrored.
 * `widths` are the shares of its columns in percent, in reading order.
 */
export function slotPlaces(
  arrangement: ArrangementName,
  page: Page,
  direction: Direction,
  widths?: readonly number[],
): ReadonlyMap<string, SlotPlace> {
  const places = placesFromLeft(arrangement, page, widths);
  if (direction === "ltr") return places;
  return new Map([...places].map(([name, place]) => [name, { ...place, frame: mirroredOnPage(place.frame, page) }]));
}

function placesFromLeft(
  arrangement: ArrangementName,
  page: Page,
  widths?: readonly number[],
): ReadonlyMap<string, SlotPlace> {
  const usual = usualPlaces(arrangement, page);
  const columns = arrangementOf(arrangement).columns;
  if (!columns || widths?.length !== columns.length) return usual;
  const places = new Map(usual);
  const area = contentArea(page);
  const total = widths.reduce((sum, width) => sum + width, 0);
  const room = area.width * (1 - COLUMN_GAP * (columns.length - 1));
  let x = area.x;
  columns.forEach((slot, at) => {
    const place = must(places.get(slot));
    const width = (room * must(widths[at])) / total;
    places.set(slot, { ...place, frame: { ...place.frame, x, width } });
    x += width + area.width * COLUMN_GAP;
  });
  return places;
}

/**
 * Returns the place of an element whose slot the arrangement does not have: titles go to the title's place, everything
 * else below it.
 */
export function loosePlace(slot: string | null, page: Page): SlotPlace {
  if (slot === "title") return placed(page, TITLE_SLOT);
  return placed(page, { ...BODY_SLOT, role: LOOSE[slot ?? ""] ?? "body" });
}

export const LINE_HEIGHT: Record<SlotRole, number> = {
  opening: 1.12,
  title: 1.14,
  subtitle: 1.3,
  body: 1.3,
  statement: 1.22,
  number: 1.0,
  caption: 1.25,
  picture: 1.25,
  figure: 1.25,
  references: 1.28,
  corner: 1.2,
  name: 1.15,
};

/** Space before a paragraph that follows another, in em. */
export const PARAGRAPH_GAP: Record<SlotRole, number> = {
  opening: 0,
  title: 0,
  subtitle: 0.15,
  body: 0.38,
  statement: 0.3,
  number: 0,
  caption: 0.2,
  picture: 0.2,
  figure: 0,
  references: 0.35,
  corner: 0,
  name: 0,
};

type Scale = Theme["scale"];
const own =
  <R extends keyof Scale>(role: R) =>
  (scale: Scale) =>
    scale[role];

/** The size of each role on the theme's scale; some take it from another role. */
const SIZES: Record<SlotRole, (scale: Scale) => number> = {
  opening: own("opening"),
  title: own("title"),
  subtitle: own("subtitle"),
  body: own("body"),
  statement: own("statement"),
  number: own("number"),
  caption: own("caption"),
  picture: own("caption"),
  figure: ({ body }) => body * 0.8,
  references: own("caption"),
  corner: own("caption"),
  name: ({ number }) => number * 0.8,
};

/** Returns the text size of a role at full size, in points on this page. */
export function sizeOf(role: SlotRole, theme: Theme, page: Page): number {
  return SIZES[role](theme.scale) * pageScale(page);
}
