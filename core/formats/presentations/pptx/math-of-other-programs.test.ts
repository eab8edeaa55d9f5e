import {
  Document,
  type MathComponent,
  Math as DocxMath,
  MathFraction,
  MathFunction,
  MathIntegral,
  MathLimitLower,
  MathPreSubSuperScript,
  MathRadical,
  MathRoundBrackets,
  MathRun,
  MathSquareBrackets,
  MathSubScript,
  MathSubSuperScript,
  MathSum,
  MathSuperScript,
  Packer,
  Paragraph,
} from "docx";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { createRequire } from "node:module";
import { formulaShape, loadFormulas } from "@unitext/core/figures";
import { type Deck, must } from "@unitext/core/model";
import { filesBench, withoutTags } from "@unitext/core/testing/files";
import { WRITERS } from "../../index";

// Formulas as the npm package docx writes them (Office Math, ECMA-376-1, 22.1), on slides as the npm package pptxgenjs writes those.
const bench = filesBench();
beforeAll(loadFormulas);
// biome-ignore lint/suspicious/noExplicitAny: the types of the package are those of a browser script.
const PptxGenerator = createRequire(import.meta.url)("pptxgenjs") as new () => any;
const r = (text: string) => new MathRun(text);

async function slideWith(children: MathComponent[]): Promise<Deck> {
  const document = await Packer.toBuffer(
    new Document({ sections: [{ children: [new Paragraph({ children: [new DocxMath({ children })] })] }] }),
  );
  const set = must(
    /<m:oMath>[\s\S]*<\/m:oMath>/.exec(strFromU8(must(unzipSync(new Uint8Array(document))["word/document.xml"])))?.[0],
  );
  const file = new PptxGenerator();
  file.addSlide().addText("FORMULA", { x: 1, y: 1, w: 6, h: 1 });
  const parts = unzipSync(new Uint8Array((await file.write({ outputType: "nodebuffer" })) as Buffer));
  // 22.1 stands in a paragraph of a slide as the extension for drawings has it, with the namespace of its elements.
  const math = `<a14:m xmlns:a14="urn:made-up"><m:oMathPara xmlns:m="http://schemas.openxmlformats.org/officeDocument/2006/math">${set}</m:oMathPara></a14:m>`;
  const slide = strFromU8(must(parts["ppt/slides/slide1.xml"])).replace(
    /<a:r>(?:(?!<\/a:r>)[\s\S])*FORMULA<\/a:t><\/a:r>/,
    () => math,
  );
  expect(slide).toContain("<m:oMath>");
  return bench.read(zipSync({ ...parts, "ppt/slides/slide1.xml": strToU8(slide) }), "others.pptx").deck;
}
const texOf = ({ slides: [slide] }: Deck) =>
  slide?.elements
    .flatMap((element) =>
      element.kind === "formula"
        ? [element.tex]
        : element.kind === "text"
          ? element.text.flatMap(({ runs }) =>
              runs.flatMap(({ text, marks }) => (marks?.includes("formula") ? [text] : [])),
            )
          : [],
    )
    .map((tex) => tex.replace(/[\s{}]/g, ""));

const FORMULAS: [name: string, children: MathComponent[], tex: string][] = [
  ["a fraction", [new MathFraction({ numerator: [r("a")], denominator: [r("b")] })], "\\frac{a}{b}"],
  [
    "a power and an index",
    [
      new MathSuperScript({ children: [r("x")], superScript: [r("2")] }),
      r("+"),
      new MathSubScript({ children: [r("y")], subScript: [r("i")] }),
    ],
    "x^2+y_i",
  ],
  [
    "both at once",
    [new MathSubSuperScript({ children: [r("x")], subScript: [r("i")], superScript: [r("2")] })],
    "x_i^2",
  ],
  ["a square root", [new MathRadical({ children: [r("x")] })], "\\sqrt{x}"],
  ["a cubic root", [new MathRadical({ children: [r("x")], degree: [r("3")] })], "\\sqrt[3]{x}"],
  [
    "a sum with limits",
    [new MathSum({ children: [r("i")], subScript: [r("i=1")], superScript: [r("n")] })],
    "\\sum_{i=1}^{n}i",
  ],
  ["an integral", [new MathIntegral({ children: [r("x")], subScript: [r("0")], superScript: [r("1")] })], "\\int_0^1x"],
  [
    "brackets",
    [
      new MathRoundBrackets({ children: [new MathFraction({ numerator: [r("1")], denominator: [r("2")] })] }),
      new MathSquareBrackets({ children: [r("t")] }),
    ],
    "\\left(\\frac{1}{2}\\right)\\left[t\\right]",
  ],
  ["a function", [new MathFunction({ name: [r("sin")], children: [r("x")] })], "\\sin x"],
  [
    "a function of a name that TeX does not know",
    [new MathFunction({ name: [r("erf")], children: [r("x")] })],
    "\\operatorname{erf}x",
  ],
  [
    "the power of a function",
    [
      new MathFunction({
        name: [new MathSuperScript({ children: [r("cos")], superScript: [r("2")] })],
        children: [r("x")],
      }),
    ],
    "\\cos^2x",
  ],
  ["a limit", [new MathLimitLower({ children: [r("lim")], limit: [r("n→∞")] })], "\\lim_{n\\to\\infty}"],
  [
    "what stands before",
    [new MathPreSubSuperScript({ children: [r("C")], subScript: [r("6")], superScript: [r("14")] })],
    "{}_6^{14}C",
  ],
];

describe("formulas of other writers on a slide", () => {
  it.each(FORMULAS)("%s is read, drawn, and carried into an .odp", async (_, children, tex) => {
    const deck = await slideWith(children);
    const found = texOf(deck) ?? [];
    const bare = (text: string) => text.replace(/[\s{}]/g, "");
    expect(found).toEqual([bare(tex)]);
    const [formula] = deck.slides[0]?.elements.filter(({ kind }) => kind === "formula") ?? [];
    if (formula?.kind !== "formula") throw new Error("no formula of its own");
    expect(formulaShape(formula.tex, true)).toMatchObject({ width: expect.any(Number) });
    const other = bench.read(withoutTags(WRITERS.odp.write(deck, bench.context) as Uint8Array), "other.odp").deck;
    expect(texOf(other)).toEqual(found);
  });
});
