import { must } from "@unitext/core/model";
import { formulaMathml, loadFormulas } from "@unitext/core/figures";
import { readXml } from "../xml";
import { mathmlOmml, mathmlTex, ommlTex } from "./index";

beforeAll(loadFormulas);
const there = (tex: string) => mathmlOmml(must(formulaMathml(tex, true)));
const back = (tex: string) =>
  ommlTex(readXml(there(tex), "formula"))
    .replace(/\s+/g, " ")
    .trim();

describe("formulas as Office Math", () => {
  // ECMA-376-1, 22.1.2: the elements and the order of what is in them.
  it.each([
    ["\\frac{a}{b}", /^<m:oMath [^>]*><m:f><m:num>.*>a<.*<\/m:num><m:den>.*>b<.*<\/m:den><\/m:f><\/m:oMath>$/],
    ["x^2", /<m:sSup><m:e>.*<\/m:e><m:sup>.*>2<.*<\/m:sup><\/m:sSup>/],
    ["x_i^2", /<m:sSubSup><m:e>.*<m:sub>.*<m:sup>/],
    ["\\sqrt{x}", /<m:rad><m:radPr><m:degHide m:val="1"\/><\/m:radPr><m:deg\/><m:e>/],
    ["\\sqrt[3]{x}", /<m:rad><m:deg>.*>3<.*<\/m:deg><m:e>/],
    [
      "\\sum_{i=1}^n i",
      /<m:nary><m:naryPr><m:chr m:val="∑"\/><m:limLoc m:val="undOvr"\/><\/m:naryPr><m:sub>.*<m:sup>.*<m:e>.*>i<.*<\/m:nary>/,
    ],
    ["\\left(x\\right)", /<m:d><m:dPr><m:begChr m:val="\("\/><m:endChr m:val="\)"\/><\/m:dPr><m:e>/],
    ["\\hat{x}", /<m:acc><m:accPr><m:chr m:val="\u0302"\/><\/m:accPr><m:e>/],
    ["\\begin{pmatrix}1&2\\\\3&4\\end{pmatrix}", /<m:m><m:mr><m:e>.*>1<.*<\/m:e><m:e>.*>2<.*<\/m:mr><m:mr>/],
    ["\\text{high water}", /<m:r><m:rPr><m:nor\/><\/m:rPr>.*>high water<\/m:t>/],
  ] as [string, RegExp][])("%s", (tex, wanted) => {
    expect(there(tex)).toMatch(wanted);
  });

  it.each(["a+b", "\\frac{a+1}{b}", "x^{2}", "x_{i}", "\\sqrt{x+1}", "\\sum_{i=1}^{n} i", "\\alpha \\le \\beta "])(
    "%s is the same when it is read again, and so by way of MathML",
    (tex) => {
      const bare = (text: string) => text.replace(/\s+/g, "").replace(/\{(.)\}/g, "$1");
      expect(bare(back(tex))).toBe(bare(tex));
      expect(bare(mathmlTex(readXml(must(formulaMathml(tex, true)), "formula")))).toBe(bare(tex));
    },
  );

  it("what is no formula gives none", () => {
    expect(formulaMathml("\\frac{a}{", true)).toBeUndefined();
  });
});
