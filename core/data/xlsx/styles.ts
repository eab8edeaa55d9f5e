import { type XmlElement, at, childrenOf } from "../../formats/shared/xml";

/** The number formats that files name by number alone (ECMA-376-1, 18.8.30, numFmt, the list for all languages). */
const BUILT_IN: Readonly<Record<number, string>> = {
  0: "General",
  1: "0",
  2: "0.00",
  3: "#,##0",
  4: "#,##0.00",
  9: "0%",
  10: "0.00%",
  11: "0.00E+00",
  12: "# ?/?",
  13: "# ??/??",
  14: "mm-dd-yy",
  15: "d-mmm-yy",
  16: "d-mmm",
  17: "mmm-yy",
  18: "h:mm AM/PM",
  19: "h:mm:ss AM/PM",
  20: "h:mm",
  21: "h:mm:ss",
  22: "m/d/yy h:mm",
  37: "#,##0 ;(#,##0)",
  38: "#,##0 ;[Red](#,##0)",
  39: "#,##0.00;(#,##0.00)",
  40: "#,##0.00;[Red](#,##0.00)",
  45: "mm:ss",
  46: "[h]:mm:ss",
  47: "mmss.0",
  48: "##0.0E+0",
  49: "@",
};

/** Returns the number formats of a styles part in the order in which cells name them (`s`); “General” where it is unknown. */
export function cellFormats(styles: XmlElement | undefined): string[] {
  const own = new Map(
    childrenOf(at(styles, "numFmts"), "numFmt").map(({ attributes }) => [
      Number(attributes.numFmtId),
      attributes.formatCode ?? "General",
    ]),
  );
  return childrenOf(at(styles, "cellXfs"), "xf").map(({ attributes }) => {
    const id = Number(attributes.numFmtId ?? 0);
    return own.get(id) ?? BUILT_IN[id] ?? "General";
  });
}
