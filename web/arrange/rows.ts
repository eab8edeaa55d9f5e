import { secondsOf, sectionStarting, type Slide } from "@unitext/core/model";

/** The band of a section: title, slides, seconds; `named` when its name is its own and not the title of its opener. */
export interface SectionBand {
  title: string;
  named: boolean;
  slides: number;
  seconds: number;
}

/** A slide of the main line with its details, in running order. */
export interface MapRow {
  main: Slide;
  details: Slide[];
  /** The running number of the main slide, from 1. */
  number: number;
  /** The number of its section, from 1; 0 before the first. */
  section: number;
  /** Its section, where one starts with this row. */
  opens?: SectionBand;
}

/** Returns the rows of the map: section headers, and main slides with their details. `rate` is in words a minute. */
export function mapRows(slides: readonly Slide[], rate = 130): MapRow[] {
  const rows: MapRow[] = [];
  let section = 0;
  let band: SectionBand | undefined;
  slides.forEach((slide, nth) => {
    const main = slide.parent === null;
    const title = sectionStarting(slide);
    const opens = title !== undefined;
    if (opens) {
      section += 1;
      band = { title, slides: 0, seconds: 0, named: slide.section !== undefined };
    }
    if (band) {
      band.slides += 1;
      band.seconds += secondsOf(slide, rate);
    }
    if (main)
      rows.push({ main: slide, details: [], number: nth + 1, section, ...(opens && band ? { opens: band } : {}) });
    else rows.at(-1)?.details.push(slide);
  });
  return rows;
}

/** The layout of the map: thumbnails of a width, rows in a column, columns on a sheet, sheets below each other. */
export interface Grid {
  thumb: number;
  rowHeight: number;
  columnWidth: number;
  rowsPerColumn: number;
  columns: number;
}

export const GAP = 16;
const CAPTION = 24;
/** The height of a section's band; every row leaves room for it as soon as one has it. */
export const HEADER = 30;

/** Returns the height of the band that names sections, in pixels; 0 when no row opens one. */
export function headerOf(rows: readonly MapRow[]): number {
  return rows.some(({ opens }) => opens) ? HEADER : 0;
}

/**
 * The main line runs down a column; where the window has room for more columns, it continues at the top of the next.
 */
export function gridFor(
  rows: readonly MapRow[],
  thumb: number,
  page: { width: number; height: number },
  room: { width: number; height: number },
): Grid {
  const most = rows.reduce((longest, { details }) => Math.max(longest, details.length), 0);
  const rowHeight = Math.round((thumb * page.height) / page.width) + CAPTION + GAP + headerOf(rows);
  const columnWidth = (thumb + GAP) * (1 + most) + GAP;
  const rowsPerColumn = Math.max(1, Math.floor((room.height - GAP) / rowHeight));
  // Where a column has only a row or two, continuing in the next one would hide the order rather than show it.
  const columns = rowsPerColumn < 3 ? 1 : Math.max(1, Math.floor(room.width / columnWidth));
  return { thumb, rowHeight, columnWidth, rowsPerColumn, columns };
}

/** How much larger than asked for thumbnails may be, to fill the width of the window. */
const STRETCH = 1.4;

/** Returns the grid of thumbnails of at least a width that fills the width of the window as well as it can. */
export function filledGrid(
  rows: readonly MapRow[],
  thumb: number,
  page: { width: number; height: number },
  room: { width: number; height: number },
): Grid {
  const asked = gridFor(rows, thumb, page, room);
  const needed = Math.min(asked.columns, Math.ceil(rows.length / asked.rowsPerColumn));
  for (let larger = Math.floor(thumb * STRETCH); larger > thumb; larger -= 4) {
    const grid = gridFor(rows, larger, page, room);
    const used = Math.min(grid.columns, Math.ceil(rows.length / grid.rowsPerColumn));
    if (
      used >= needed &&
      used * grid.columnWidth <= room.width &&
      grid.columns * grid.rowsPerColumn >= Math.min(rows.length, asked.columns * asked.rowsPerColumn)
    )
      return grid;
  }
  return asked;
}
