import { formatAddress } from "@unitext/core/model";
import { cellText } from "./format";
import type { Sheet, Workbook } from "./workbook";

/** Sheets with more cells than this are not searched: what is pasted from them is linked by hand. */
const MOST_CELLS = 2_000_000;

/** Fewer cells than this are found in many workbooks by chance. */
const LEAST_CELLS = 4;

/** Returns a number as a spreadsheet puts it on the clipboard, with either decimal sign; undefined for words. */
function numberIn(text: string): number | undefined {
  const plain = text.trim().replace(/[  ']/g, "").replace("−", "-");
  if (!/\d/.test(plain)) return undefined;
  const value = Number(/^-?\d+,\d+$/.test(plain) ? plain.replace(",", ".") : plain.replaceAll(",", ""));
  return Number.isFinite(value) ? value : undefined;
}

/** Whether a cell says what a text says: as it is shown in one of the languages, or as the number that it is. */
function says(
  sheet: Sheet,
  row: number,
  column: number,
  text: string,
  languages: readonly string[],
  date1904: boolean,
) {
  const content = sheet.content(row, column);
  const wanted = text.trim();
  if (wanted === "") return content === undefined || content === null || content === "";
  if (typeof content === "string") return content.trim() === wanted;
  if (typeof content === "number" && numberIn(wanted) === content) return true;
  return languages.some((language) => cellText(sheet, row, column, language, date1904).trim() === wanted);
}

/**
 * Finds the cells of a workbook that have the texts of a block, row by row, as they are shown in one of the languages
 * or as plain numbers. Returns their range; undefined where there are none, where several blocks have these texts, and
 * for blocks of fewer than four cells.
 */
export function findCells(
  workbook: Workbook,
  rows: readonly (readonly string[])[],
  languages: readonly string[],
): string | undefined {
  const width = rows[0]?.length ?? 0;
  if (width * rows.length < LEAST_CELLS || rows.some((row) => row.length !== width)) return undefined;
  // Look up text first: comparing a number may require formatting it.
  const places = rows.flatMap((row, down) => row.map((text, across) => ({ text, down, across })));
  const anchor =
    places.find(({ text }) => text.trim() !== "" && numberIn(text) === undefined) ??
    places.find(({ text }) => text.trim() !== "");
  if (!anchor) return undefined;
  const found: string[] = [];
  for (const { name } of workbook.sheets) {
    const sheet = workbook.sheet(name);
    if (sheet.size.rows * sheet.size.columns > MOST_CELLS) continue;
    for (let top = 0; top + rows.length <= sheet.size.rows; top++)
      for (let left = 0; left + width <= sheet.size.columns; left++) {
        const has = (text: string, down: number, across: number) =>
          says(sheet, top + down, left + across, text, languages, workbook.date1904);
        if (!has(anchor.text, anchor.down, anchor.across)) continue;
        if (!places.every(({ text, down, across }) => has(text, down, across))) continue;
        found.push(formatAddress({ sheet: name, top, left, bottom: top + rows.length - 1, right: left + width - 1 }));
        if (found.length > 1) return undefined;
      }
  }
  return found[0];
}
