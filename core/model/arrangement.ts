import { z } from "zod";

/** The purposes of slots, on which the theme's text scale and the formats' placeholders depend. */
export const SLOT_ROLES = [
  "opening",
  "title",
  "subtitle",
  "body",
  "statement",
  "number",
  "caption",
  "picture",
  "figure",
  "references",
  "corner",
  "name",
] as const;
export type SlotRole = (typeof SLOT_ROLES)[number];

/** A slot: what it is for, and where it is. */
export interface SlotDescriptor {
  role: SlotRole;
  /** Its frame as shares of the area inside the margins: x, y, width, height. */
  share: readonly [x: number, y: number, width: number, height: number];
  /** Where its content is when it does not fill the slot; at the top unless given. */
  anchor?: "top" | "middle" | "bottom";
  /** At the start unless given. */
  align?: "start" | "centre" | "end";
}

/** Everything about an arrangement; the list of arrangements is all that a new one needs. */
export interface ArrangementDescriptor {
  label: string;
  /** The slots by name, in reading order. */
  slots: Readonly<Record<string, SlotDescriptor>>;
  /** The slot for text without a slot of its own; `body` unless given. */
  textSlot?: string;
  /** The slots that are columns, from left to right; the widths of a slide's columns apply to them. */
  columns?: readonly string[];
}

export const TITLE_SLOT: SlotDescriptor = { role: "title", share: [0, 0, 1, 0.2], anchor: "bottom" };
export const BODY_SLOT: SlotDescriptor = { role: "body", share: [0, 0.25, 1, 0.75] };

/** The space between columns, as a share of the width. */
export const COLUMN_GAP = 0.04;
const FIGURE: SlotDescriptor = { role: "figure", share: [0, 0.25, 1, 0.61] };
const FIGURE_CAPTION: SlotDescriptor = { role: "caption", share: [0, 0.88, 1, 0.12], anchor: "middle" };

/** A title, one figure in a slot of this name, and its caption. */
const figure = <N extends string>(label: string, name: N, place: SlotDescriptor = FIGURE) => ({
  label,
  slots: { title: TITLE_SLOT, [name]: place, caption: FIGURE_CAPTION },
  textSlot: "caption",
});

/** The arrangements, in the order in which they are offered. */
export const ARRANGEMENTS = {
  opening: {
    label: "Opening",
    slots: {
      title: { role: "opening", share: [0, 0.14, 0.92, 0.42], anchor: "bottom" },
      subtitle: { role: "subtitle", share: [0, 0.61, 0.92, 0.3] },
    },
    textSlot: "subtitle",
  },
  section: {
    label: "Section opener",
    slots: {
      title: { role: "opening", share: [0, 0.22, 0.92, 0.36], anchor: "bottom" },
      subtitle: { role: "subtitle", share: [0, 0.63, 0.92, 0.28] },
    },
    textSlot: "subtitle",
  },
  points: { label: "Title and points", slots: { title: TITLE_SLOT, body: BODY_SLOT } },
  comparison: {
    label: "Two columns",
    slots: {
      title: TITLE_SLOT,
      left: { role: "body", share: [0, 0.25, 0.5 - COLUMN_GAP / 2, 0.75] },
      right: { role: "body", share: [0.5 + COLUMN_GAP / 2, 0.25, 0.5 - COLUMN_GAP / 2, 0.75] },
    },
    textSlot: "left",
    columns: ["left", "right"],
  },
  columns: {
    label: "Three columns",
    slots: {
      title: TITLE_SLOT,
      left: { role: "body", share: [0, 0.25, (1 - 2 * COLUMN_GAP) / 3, 0.75] },
      middle: { role: "body", share: [(1 + COLUMN_GAP) / 3, 0.25, (1 - 2 * COLUMN_GAP) / 3, 0.75] },
      right: { role: "body", share: [(2 + 2 * COLUMN_GAP) / 3, 0.25, (1 - 2 * COLUMN_GAP) / 3, 0.75] },
    },
    textSlot: "left",
    columns: ["left", "middle", "right"],
  },
  statement: {
    label: "One statement",
    slots: { body: { role: "statement", share: [0.06, 0.08, 0.88, 0.84], anchor: "middle", align: "centre" } },
  },
  message: {
    label: "Title and statement",
    slots: {
      title: TITLE_SLOT,
      body: { role: "statement", share: [0, 0.25, 0.94, 0.58], anchor: "middle" },
      caption: { role: "caption", share: [0, 0.86, 0.94, 0.14] },
    },
  },
  fact: {
    label: "Title and key figure",
    slots: {
      title: TITLE_SLOT,
      number: { role: "number", share: [0, 0.25, 1, 0.4], anchor: "middle" },
      caption: { role: "caption", share: [0, 0.69, 0.8, 0.31] },
    },
    textSlot: "caption",
  },
  highlight: {
    label: "Points and key figure",
    slots: {
      title: TITLE_SLOT,
      body: { role: "body", share: [0, 0.25, 0.54, 0.75] },
      number: { role: "number", share: [0.6, 0.25, 0.4, 0.36], anchor: "bottom" },
      caption: { role: "caption", share: [0.6, 0.65, 0.4, 0.35] },
    },
  },
  number: {
    label: "Key figure",
    slots: {
      number: { role: "number", share: [0, 0.1, 1, 0.5], anchor: "bottom", align: "centre" },
      caption: { role: "caption", share: [0.1, 0.64, 0.8, 0.3], align: "centre" },
    },
    textSlot: "caption",
  },
  picture: {
    label: "Picture with caption",
    slots: {
      title: TITLE_SLOT,
      picture: { role: "picture", share: [0, 0.25, 1, 0.62] },
      caption: { role: "caption", share: [0, 0.89, 1, 0.11], anchor: "middle", align: "centre" },
    },
    textSlot: "caption",
  },
  pictures: {
    label: "Set of pictures",
    slots: {
      title: TITLE_SLOT,
      pictures: { role: "picture", share: [0, 0.25, 1, 0.64] },
      caption: { role: "caption", share: [0, 0.9, 1, 0.1], anchor: "middle", align: "centre" },
    },
    textSlot: "caption",
  },
  table: figure("Table", "table"),
  chart: figure("Chart", "chart"),
  diagram: figure("Diagram", "diagram"),
  code: figure("Code", "code"),
  formula: figure("Formula", "formula", { ...FIGURE, anchor: "middle" }),
  quotation: {
    label: "Quotation",
    slots: {
      body: { role: "statement", share: [0.08, 0.08, 0.84, 0.66], anchor: "middle" },
      caption: { role: "caption", share: [0.08, 0.78, 0.84, 0.18], align: "end" },
    },
    textSlot: "caption",
  },
  references: { label: "References", slots: { title: TITLE_SLOT, body: { ...BODY_SLOT, role: "references" } } },
  card: {
    label: "Name in the middle",
    slots: { title: { role: "name", share: [0.03, 0.1, 0.94, 0.8], anchor: "middle", align: "centre" } },
  },
  corner: {
    label: "Name in the corner",
    slots: { title: { role: "corner", share: [0, 0.86, 0.5, 0.14], anchor: "bottom" } },
  },
  title: { label: "Title alone", slots: { title: TITLE_SLOT } },
  blank: { label: "Nothing", slots: {} },
} satisfies Record<string, ArrangementDescriptor>;

export type ArrangementName = keyof typeof ARRANGEMENTS;

/** Returns the descriptor of an arrangement. */
export const arrangementOf = (name: ArrangementName): ArrangementDescriptor => ARRANGEMENTS[name];

export const ArrangementName = z.enum(Object.keys(ARRANGEMENTS) as [ArrangementName, ...ArrangementName[]]);

/** Returns the slots of an arrangement with their roles, in reading order. */
export function slotsOf(arrangement: ArrangementName): [slot: string, role: SlotRole][] {
  return Object.entries(arrangementOf(arrangement).slots).map(([slot, { role }]) => [slot, role]);
}

/** Whether a slot of this role names its slide. */
export function isTitleRole(role: SlotRole | undefined): boolean {
  return role === "title" || role === "opening" || role === "corner" || role === "name";
}

/** Returns the slot for running text; undefined where the arrangement has none. */
export function textSlot(arrangement: ArrangementName): string | undefined {
  const slots = slotsOf(arrangement);
  return (slots.find(([, role]) => role === "body" || role === "statement" || role === "references") ??
    slots.find(([, role]) => role === "subtitle" || role === "caption"))?.[0];
}
