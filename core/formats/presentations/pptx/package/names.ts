import type { ArrangementName, SlotRole } from "@unitext/core/model";

/** Namespaces, relationship types and content types of Office Open XML (ECMA-376, parts 1 and 2, transitional). */
export const NS = {
  a: "http://schemas.openxmlformats.org/drawingml/2006/main",
  p: "http://schemas.openxmlformats.org/presentationml/2006/main",
  r: "http://schemas.openxmlformats.org/officeDocument/2006/relationships",
  types: "http://schemas.openxmlformats.org/package/2006/content-types",
  rels: "http://schemas.openxmlformats.org/package/2006/relationships",
};

const office = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";
export const REL = {
  document: `${office}/officeDocument`,
  app: `${office}/extended-properties`,
  core: "http://schemas.openxmlformats.org/package/2006/relationships/metadata/core-properties",
  master: `${office}/slideMaster`,
  layout: `${office}/slideLayout`,
  notesMaster: `${office}/notesMaster`,
  slide: `${office}/slide`,
  notes: `${office}/notesSlide`,
  theme: `${office}/theme`,
  presProps: `${office}/presProps`,
  viewProps: `${office}/viewProps`,
  tableStyles: `${office}/tableStyles`,
  tags: `${office}/tags`,
  link: `${office}/hyperlink`,
  image: `${office}/image`,
  vml: `${office}/vmlDrawing`,
  chart: `${office}/chart`,
  workbook: `${office}/package`,
  video: `${office}/video`,
  audio: `${office}/audio`,
  comments: `${office}/comments`,
  commentAuthors: `${office}/commentAuthors`,
} as const;

const pml = "application/vnd.openxmlformats-officedocument.presentationml";
export const TYPE = {
  presentation: `${pml}.presentation.main+xml`,
  master: `${pml}.slideMaster+xml`,
  layout: `${pml}.slideLayout+xml`,
  slide: `${pml}.slide+xml`,
  notesMaster: `${pml}.notesMaster+xml`,
  notes: `${pml}.notesSlide+xml`,
  presProps: `${pml}.presProps+xml`,
  viewProps: `${pml}.viewProps+xml`,
  tableStyles: `${pml}.tableStyles+xml`,
  tags: `${pml}.tags+xml`,
  comments: `${pml}.comments+xml`,
  commentAuthors: `${pml}.commentAuthors+xml`,
  theme: "application/vnd.openxmlformats-officedocument.theme+xml",
  core: "application/vnd.openxmlformats-package.core-properties+xml",
  app: "application/vnd.openxmlformats-officedocument.extended-properties+xml",
  chart: "application/vnd.openxmlformats-officedocument.drawingml.chart+xml",
  workbook: "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
} as const;

/** Places of comments are in eighths of a point (what several programs write; from memory, the standard names no unit). */
export const POINT_IN_COMMENTS = 8;

/** English Metric Units: 12,700 to a point (ECMA-376-1, 20.1.2.1). */
export const EMU = 12700;
export const emu = (points: number) => Math.round(points * EMU);

/** User-defined tags (ECMA-376-1, 19.3.3) that store what the format has no place for. */
export const TAG = { deck: "UNITEXT_DECK", slide: "UNITEXT_SLIDE", elements: "UNITEXT_ELEMENTS", kept: "UNITEXT_KEPT" };

/** The layout types of arrangements that have one (ECMA-376-1, 19.7.15). */
const LAYOUT_TYPES: Partial<Record<ArrangementName, string>> = {
  opening: "title",
  section: "secHead",
  points: "obj",
  comparison: "twoObj",
  picture: "picTx",
  title: "titleOnly",
  blank: "blank",
};

/** Returns the layout type of an arrangement; undefined for those without one. */
export const layoutType = (arrangement: ArrangementName): string | undefined => LAYOUT_TYPES[arrangement];

export interface Placeholder {
  type?: string;
  sz?: string;
  idx?: number;
}

/** Returns the placeholder of a slot. Title types have no index, all others have one. */
export function placeholderOf(slot: string, role: SlotRole): Placeholder {
  const indexes: Record<string, number> = {
    body: 1,
    subtitle: 1,
    left: 1,
    right: 2,
    middle: 13,
    number: 14,
    caption: 15,
    picture: 16,
    pictures: 17,
    table: 18,
    chart: 19,
    diagram: 20,
    code: 21,
    formula: 22,
  };
  const idx = indexes[slot] ?? 1;
  if (role === "opening") return { type: "ctrTitle" };
  if (role === "title" || role === "corner" || role === "name") return { type: "title" };
  if (role === "subtitle") return { type: "subTitle", idx };
  if (role === "picture") return { type: "pic", idx };
  return role === "body" || role === "figure" ? { idx } : { type: "body", idx };
}

/** The id of slide number fields. */
export const NUMBER_FIELD = "{5C3B7E1A-6D0F-4C59-9C1E-2B1E8B5D7A10}";
