import { formulaMathml } from "@unitext/core/figures";
import { xml } from "../../../shared/xml";
import { mathmlOmml } from "../../../shared/math";
import { namespaces } from "../package/layouts";

const COMPATIBILITY = "http://schemas.openxmlformats.org/markup-compatibility/2006";
/** The extension in which text holds Office Math (its namespace is published by its maker). */
const EXTENSION = "http://schemas.microsoft.com/office/drawing/2010/main";
/** Stands for a formula until its shape is written: no text contains it. */
const MARK = "\uE020";

/** The formulas of a shape: Office Math for programs that can set it, and TeX for the others. */
export class ShapeMath {
  private readonly formulas: { set: string; plain: string }[] = [];

  /** Returns the place of a formula in a paragraph; `plain` is its TeX as runs. Undefined when it cannot be set. */
  formula(tex: string, plain: string, display = false): string | undefined {
    const mathml = formulaMathml(tex, display);
    if (mathml === undefined) return undefined;
    const made = mathmlOmml(mathml);
    this.formulas.push({
      set: xml(
        "a14:m",
        {},
        display
          ? xml("m:oMathPara", { "xmlns:m": "http://schemas.openxmlformats.org/officeDocument/2006/math" }, made)
          : made,
      ),
      plain,
    });
    return `${MARK}${this.formulas.length - 1}${MARK}`;
  }

  /**
   * Returns the shape with its formulas, and beside it the shape with their TeX (alternate content, ECMA-376-3);
   * unchanged when it has none.
   */
  shape(words: string): string {
    if (!this.formulas.length) return words;
    const filled = (which: "set" | "plain") =>
      words.replace(
        new RegExp(`${MARK}(\\d+)${MARK}`, "g"),
        (_, nth: string) => this.formulas[Number(nth)]?.[which] ?? "",
      );
    const declared = Object.fromEntries(Object.entries(namespaces));
    return xml(
      "mc:AlternateContent",
      { ...declared, "xmlns:mc": COMPATIBILITY },
      xml("mc:Choice", { "xmlns:a14": EXTENSION, Requires: "a14" }, filled("set")),
      xml("mc:Fallback", {}, filled("plain")),
    );
  }
}
