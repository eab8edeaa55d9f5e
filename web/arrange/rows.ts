import type { Slide } from "@unitext/core/model";

/** A slide of the main line with its details, in running order. */
export interface MapRow {
  main: Slide;
  details: Slide[];
  /** The running number of the main slide, from 1. */
  number: number;
}

export function mapRows(slides: readonly Slide[]): MapRow[] {
  const rows: MapRow[] = [];
  slides.forEach((slide, nth) => {
    if (slide.parent === null) rows.push({ main: slide, details: [], number: nth + 1 });
    else rows.at(-1)?.details.push(slide);
  });
  return rows;
}

/** How the map is laid: thumbnails of a width, rows down a column, columns to a sheet, sheets below each other. */
export interface Grid {
  thumb: number;
  rowHeight: number;
  columnWidth: number;
  rowsPerColumn: number;
  columns: number;
}

export const GAP = 16;
const CAPTION = 24;

/** The main line runs down a column; where the window has room for more columns, it goes on at the top of the next. */
export function gridFor(rows: readonly MapRow[], thumb: number, page: { width: number; height: number }, room: { width: number; height: number }): Grid {
  const most = rows.reduce((longest, { details }) => Math.max(longest, details.length), 0);
  const rowHeight = Math.round((thumb * page.height) / page.width) + CAPTION + GAP;
  const columnWidth = (thumb + GAP) * (1 + most) + GAP;
  return { thumb, rowHeight, columnWidth, rowsPerColumn: Math.max(1, Math.floor((room.height - GAP) / rowHeight)), columns: Math.max(1, Math.floor(room.width / columnWidth)) };
}

/** Where something will land, beside or under a slide. */
export interface Landing {
  target: string;
  side: "before" | "after" | "under";
}

/** The landing in words: "after 12", "before 1, at the start", "under 4, as a detail". */
export function landingWords({ target, side }: Landing, slides: readonly Slide[]): string {
  const number = slides.findIndex(({ id }) => id === target) + 1;
  if (side === "under") return `under ${number}, as a detail`;
  if (side === "before") return number === 1 ? "before 1, at the start" : `before ${number}`;
  return number === slides.length ? `after ${number}, at the end` : `after ${number}`;
}
