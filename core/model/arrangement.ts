import { z } from "zod";

/** The purpose of a slot, on which the theme's text scale and the formats' placeholders depend. */
export type SlotRole =
  | "opening"
  | "title"
  | "subtitle"
  | "body"
  | "statement"
  | "number"
  | "caption"
  | "picture"
  | "figure"
  | "references"
  | "corner"
  | "name";

export const ARRANGEMENTS = {
  opening: { label: "Opening", slots: { title: "opening", subtitle: "subtitle" } },
  section: { label: "Section opener", slots: { title: "opening", subtitle: "subtitle" } },
  points: { label: "Title and points", slots: { title: "title", body: "body" } },
  comparison: { label: "Two columns", slots: { title: "title", left: "body", right: "body" } },
  columns: { label: "Three columns", slots: { title: "title", left: "body", middle: "body", right: "body" } },
  statement: { label: "One statement", slots: { body: "statement" } },
  number: { label: "Key figure", slots: { number: "number", caption: "caption" } },
  picture: { label: "Picture with caption", slots: { title: "title", picture: "picture", caption: "caption" } },
  pictures: { label: "Set of pictures", slots: { title: "title", pictures: "picture", caption: "caption" } },
  table: { label: "Table", slots: { title: "title", table: "figure", caption: "caption" } },
  chart: { label: "Chart", slots: { title: "title", chart: "figure", caption: "caption" } },
  diagram: { label: "Diagram", slots: { title: "title", diagram: "figure", caption: "caption" } },
  code: { label: "Code", slots: { title: "title", code: "figure", caption: "caption" } },
  formula: { label: "Formula", slots: { title: "title", formula: "figure", caption: "caption" } },
  quotation: { label: "Quotation", slots: { body: "statement", caption: "caption" } },
  references: { label: "References", slots: { title: "title", body: "references" } },
  card: { label: "Name in the middle", slots: { title: "name" } },
  corner: { label: "Name in the corner", slots: { title: "corner" } },
  title: { label: "Title alone", slots: { title: "title" } },
  blank: { label: "Nothing", slots: {} },
} as const satisfies Record<string, { label: string; slots: Record<string, SlotRole> }>;

export type ArrangementName = keyof typeof ARRANGEMENTS;
export const ArrangementName = z.enum(Object.keys(ARRANGEMENTS) as [ArrangementName, ...ArrangementName[]]);

/** Returns the slots of an arrangement with their roles, in reading order. */
export function slotsOf(arrangement: ArrangementName): [slot: string, role: SlotRole][] {
  return Object.entries(ARRANGEMENTS[arrangement].slots) as [string, SlotRole][];
}

export function isTitleRole(role: SlotRole | undefined): boolean {
  return role === "title" || role === "opening" || role === "corner" || role === "name";
}

/** Returns the slot for running text; undefined where the arrangement has none. */
export function textSlot(arrangement: ArrangementName): string | undefined {
  const slots = slotsOf(arrangement);
  return (slots.find(([, role]) => role === "body" || role === "statement" || role === "references") ??
    slots.find(([, role]) => role === "subtitle" || role === "caption"))?.[0];
}
