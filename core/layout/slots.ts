import {
  type ArrangementName,
  type Frame,
  type Page,
  type SlotRole,
  slotsOf,
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

/** Frames as shares of the area inside the margins: x, y, width, height. */
type Share = readonly [number, number, number, number];
interface Rule {
  share: Share;
  anchor?: SlotPlace["anchor"];
  align?: SlotPlace["align"];
}

const TITLE: Rule = { share: [0, 0, 1, 0.2], anchor: "bottom" };
const BODY: Rule = { share: [0, 0.25, 1, 0.75] };
const GAP = 0.04;
const FIGURE: Record<string, Rule> = { title: TITLE, caption: { share: [0, 0.88, 1, 0.12], anchor: "middle" } };
const FIGURE_PLACE: Rule = { share: [0, 0.25, 1, 0.61], anchor: "top" };

const RULES: Record<ArrangementName, Record<string, Rule>> = {
  opening: { title: { share: [0, 0.14, 0.92, 0.42], anchor: "bottom" }, subtitle: { share: [0, 0.61, 0.92, 0.3] } },
  section: { title: { share: [0, 0.22, 0.92, 0.36], anchor: "bottom" }, subtitle: { share: [0, 0.63, 0.92, 0.28] } },
  points: { title: TITLE, body: BODY },
  comparison: {
    title: TITLE,
    left: { share: [0, 0.25, 0.5 - GAP / 2, 0.75] },
    right: { share: [0.5 + GAP / 2, 0.25, 0.5 - GAP / 2, 0.75] },
  },
  columns: {
    title: TITLE,
    left: { share: [0, 0.25, (1 - 2 * GAP) / 3, 0.75] },
    middle: { share: [(1 + GAP) / 3, 0.25, (1 - 2 * GAP) / 3, 0.75] },
    right: { share: [(2 + 2 * GAP) / 3, 0.25, (1 - 2 * GAP) / 3, 0.75] },
  },
  statement: { body: { share: [0.06, 0.08, 0.88, 0.84], anchor: "middle", align: "centre" } },
  number: {
    number: { share: [0, 0.1, 1, 0.5], anchor: "bottom", align: "centre" },
    caption: { share: [0.1, 0.64, 0.8, 0.3], align: "centre" },
  },
  picture: {
    title: TITLE,
    picture: { share: [0, 0.25, 1, 0.62] },
    caption: { share: [0, 0.89, 1, 0.11], anchor: "middle", align: "centre" },
  },
  pictures: {
    title: TITLE,
    pictures: { share: [0, 0.25, 1, 0.64] },
    caption: { share: [0, 0.9, 1, 0.1], anchor: "middle", align: "centre" },
  },
  table: { ...FIGURE, table: FIGURE_PLACE },
  chart: { ...FIGURE, chart: FIGURE_PLACE },
  diagram: { ...FIGURE, diagram: FIGURE_PLACE },
  code: { ...FIGURE, code: FIGURE_PLACE },
  formula: { ...FIGURE, formula: { ...FIGURE_PLACE, anchor: "middle" } },
  quotation: {
    body: { share: [0.08, 0.08, 0.84, 0.66], anchor: "middle" },
    caption: { share: [0.08, 0.78, 0.84, 0.18], align: "end" },
  },
  references: { title: TITLE, body: BODY },
  card: { title: { share: [0.03, 0.1, 0.94, 0.8], anchor: "middle", align: "centre" } },
  corner: { title: { share: [0, 0.86, 0.5, 0.14], anchor: "bottom" } },
  title: { title: { share: [0, 0, 1, 0.2], anchor: "bottom" } },
  blank: {},
};

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
  { share: [x, y, width, height], anchor = "top", align = "start" }: Rule,
  role: SlotRole,
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

/** The columns of an arrangement from left to right, to which widths apply. */
const COLUMNS: Partial<Record<ArrangementName, readonly string[]>> = {
  comparison: ["left", "right"],
  columns: ["left", "middle", "right"],
};

const usualOn = new WeakMap<Page, Map<ArrangementName, ReadonlyMap<string, SlotPlace>>>();
/** Returns the slots of an arrangement in their usual widths. Cached for a page. */
function usualPlaces(arrangement: ArrangementName, page: Page): ReadonlyMap<string, SlotPlace> {
  const held = usualOn.get(page) ?? new Map<ArrangementName, ReadonlyMap<string, SlotPlace>>();
  usualOn.set(page, held);
  const known = held.get(arrangement);
  if (known) return known;
  const roles = new Map(slotsOf(arrangement));
  const places = new Map(
    Object.entries(RULES[arrangement]).map(([slot, rule]) => [slot, placed(page, rule, roles.get(slot) ?? "body")]),
  );
  held.set(arrangement, places);
  return places;
}

/** Returns the slots of an arrangement on a page, by name. `widths` are the shares of its columns in percent. */
export function slotPlaces(
  arrangement: ArrangementName,
  page: Page,
  widths?: readonly number[],
): ReadonlyMap<string, SlotPlace> {
  const usual = usualPlaces(arrangement, page);
  const columns = COLUMNS[arrangement];
  if (!columns || widths?.length !== columns.length) return usual;
  const places = new Map(usual);
  const area = contentArea(page);
  const total = widths.reduce((sum, width) => sum + width, 0);
  const room = area.width * (1 - GAP * (columns.length - 1));
  let x = area.x;
  columns.forEach((slot, at) => {
    const place = must(places.get(slot));
    const width = (room * must(widths[at])) / total;
    places.set(slot, { ...place, frame: { ...place.frame, x, width } });
    x += width + area.width * GAP;
  });
  return places;
}

/**
 * Returns the place of an element whose slot the arrangement does not have: titles go to the title's place, everything
 * else below it.
 */
export function loosePlace(slot: string | null, page: Page): SlotPlace {
  if (slot === "title") return placed(page, TITLE, "title");
  return placed(page, BODY, LOOSE[slot ?? ""] ?? "body");
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
