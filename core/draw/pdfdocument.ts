import { deckLink } from "@unitext/core/model";

/** What pdfkit stores of an embedded font, as far as drawing shaped glyphs needs it. */
export interface EmbeddedFont {
  id: string;
  scale: number;
  subset: { includeGlyph(glyph: number): number; mapping: Record<number, number | undefined> };
  widths: (number | undefined)[];
  unicode: (number[] | undefined)[];
  font: { getGlyph(glyph: number): { advanceWidth: number } };
  ref(): unknown;
}

export type Document = PDFKit.PDFDocument & {
  _font: EmbeddedFont;
  page: { fonts: Record<string, unknown>; height: number };
};

export const n = (value: number) => String(Math.round(value * 1000) / 1000);

export const hex = (value: number) => value.toString(16).padStart(4, "0");

/** Returns a colour `#rrggbb` as the operands of a PDF colour operator: red, green and blue from 0 to 1. */
export function colour(rgb: string): string {
  return [1, 3, 5].map((at) => n(Number.parseInt(rgb.slice(at, at + 2), 16) / 255)).join(" ");
}

/** Adds a link from an area to a page or to the web. */
export function lead(
  doc: Document,
  link: string | undefined,
  x: number,
  y: number,
  width: number,
  height: number,
): void {
  if (link?.startsWith("slide:")) doc.goTo(x, y, width, height, link.slice(6));
  else if (link && !deckLink(link)) doc.link(x, y, width, height, link);
}
