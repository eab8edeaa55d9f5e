import { must } from "./must";
/**
 * Returns the number that a table cell shows, or undefined when it shows none: digits with `,` `.` space or apostrophe
 * between the thousands, one decimal mark, a sign, and a unit of up to four letters or % after it.
 */
export function numberIn(text: string): number | undefined {
  const found = /^([-+−–]?)\s*(\d[\d.,'’\u00A0\u202F ]*)\s*(?:[%‰°]|[\p{L}µ³²/]{1,6}\.?)?$/u.exec(text.trim());
  if (!found) return undefined;
  const digits = must(found[2])
    .replace(/['’\u00A0\u202F ]/g, "")
    .replace(/[.,]+$/, "");
  const last = Math.max(digits.lastIndexOf("."), digits.lastIndexOf(","));
  const mark = last >= 0 ? must(digits[last]) : "";
  const both = digits.includes(".") && digits.includes(",");
  const many = mark !== "" && digits.split(mark).length > 2;
  const thousands = many || (!both && mark === "," && /^[1-9]\d{0,2},\d{3}$/.test(digits));
  const whole =
    thousands || last < 0
      ? digits.replace(/[.,]/g, "")
      : `${digits.slice(0, last).replace(/[.,]/g, "")}.${digits.slice(last + 1)}`;
  const value = Number(whole);
  return Number.isFinite(value) ? (/[-−–]/.test(must(found[1])) ? -value : value) : undefined;
}
