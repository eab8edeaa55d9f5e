import { formatContent } from "./index";

const shown = (content: number | string | boolean, code: string, language = "en", date1904 = false) =>
  formatContent(content, code, { language, date1904 });

describe("a number format", () => {
  // ECMA-376-1, 18.8.31, the tables of digit placeholders and thousands (examples from memory).
  it.each([
    [1234.59, "####.#", "1234.6"],
    [8.9, "#.000", "8.900"],
    [0.631, "0.#", "0.6"],
    [12, "#.0#", "12.0"],
    [1234.568, "#.0#", "1234.57"],
    [12000, "#,###", "12,000"],
    [12000, "#,", "12"],
    [12200000, "0.0,,", "12.2"],
    [5.25, "# ??/??", "5  1/4"],
  ])("shows %d by “%s” as the standard does: %s", (value, code, wanted) => {
    expect(shown(value, code).replace(/\s+$/, "")).toBe(wanted.replace(/\s+$/, ""));
  });

  // The examples of python3-xlsxwriter's documentation of `set_num_format` (from memory).
  it.each([
    // biome-ignore lint/suspicious/noApproximativeNumericConstant: the number of the example.
    [3.1415926, "0.000", "3.142"],
    [1234.56, "#,##0", "1,235"],
    [1234.56, "#,##0.00", "1,234.56"],
    [0.23456, "0.00%", "23.46%"],
    [36892.521, "mm/dd/yy", "01/01/01"],
    [36892.521, "mmm d yyyy", "Jan 1 2001"],
    [36892.521, "d mmmm yyyy", "1 January 2001"],
    [36892.521, "dd/mm/yyyy hh:mm AM/PM", "01/01/2001 12:30 PM"],
    [1.87, '0 "dollar and" .00 "cents"', "1 dollar and .87 cents"],
  ])("shows %d by “%s” as its documentation says: %s", (value, code, wanted) => {
    expect(shown(value, code)).toBe(wanted);
  });

  it("has the decimal sign and the month names of the deck's language", () => {
    expect(shown(1234.5, "#,##0.00", "de")).toBe("1.234,50");
    expect(shown(46090, "d mmmm yyyy", "de")).toBe("9 März 2026");
    expect(shown(46090, "d mmmm yyyy", "fr")).toBe("9 mars 2026");
  });

  it("counts dates from 1904 where the workbook does", () => {
    // 1 January 1904 is day 0 there, and 1462 in the other system (ECMA-376-1, 18.17.4.1).
    expect(shown(0, "yyyy-mm-dd", "en", true)).toBe("1904-01-01");
    expect(shown(1462, "yyyy-mm-dd")).toBe("1904-01-01");
  });
});
