import { format } from "numfmt";
import { CellProblem, type CellContent, type Sheet } from "./workbook";

/** Returns the name of a language as the number formatter knows it: `de-CH` is `de_CH`. */
const localeOf = (language: string) => language.replace("-", "_");

/**
 * Returns a value as text by a number format (ECMA-376-1, 18.8.31), with the decimal sign and month names of a language.
 * Errors are shown as they are. Serial numbers count from 1904 where `date1904` says so.
 */
export function formatContent(
  content: CellContent,
  code: string,
  { language, date1904 = false }: { language: string; date1904?: boolean },
): string {
  if (content === undefined) return "";
  if (content instanceof CellProblem) return content.code;
  if (typeof content === "boolean") return content ? "TRUE" : "FALSE";
  if (typeof content === "string" && code === "General") return content;
  const value = date1904 && typeof content === "number" && isDateCode(code) ? content + 1462 : content;
  try {
    return format(code, value, { locale: localeOf(language), throws: false, nbsp: false }).trim();
  } catch {
    return String(content);
  }
}

/** Whether a number format shows a date or a time. */
export function isDateCode(code: string): boolean {
  const plain = code.replaceAll(/"[^"]*"|\\.|\[[^\]]*\]/g, "");
  return plain !== "General" && /[ymdhs]/i.test(plain) && !/[#?]/.test(plain);
}

/** Returns the text of a cell as its author sees it, in a language. */
export function cellText(sheet: Sheet, row: number, column: number, language: string, date1904 = false): string {
  return formatContent(sheet.content(row, column), sheet.format(row, column), { language, date1904 });
}
