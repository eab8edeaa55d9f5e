import { MathJaxTexFont } from "@mathjax/mathjax-tex-font/js/svg.js";
import { liteAdaptor } from "@mathjax/src/js/adaptors/liteAdaptor.js";
import { RegisterHTMLHandler } from "@mathjax/src/js/handlers/html.js";
import { STATE } from "@mathjax/src/js/core/MathItem.js";
import { SerializedMmlVisitor } from "@mathjax/src/js/core/MmlTree/SerializedMmlVisitor.js";
import { TeX } from "@mathjax/src/js/input/tex.js";
import "@mathjax/src/js/input/tex/ams/AmsConfiguration.js";
import "@mathjax/src/js/input/tex/base/BaseConfiguration.js";
import "@mathjax/src/js/input/tex/boldsymbol/BoldsymbolConfiguration.js";
import "@mathjax/src/js/input/tex/cancel/CancelConfiguration.js";
import { mathjax } from "@mathjax/src/js/mathjax.js";
import { SVG } from "@mathjax/src/js/output/svg.js";
import type { FormulaShape } from "./formulashape";

interface LiteNode {
  kind: string;
  attributes: Record<string, string>;
  children: (LiteNode & { value?: string })[];
}

const adaptor = liteAdaptor();
RegisterHTMLHandler(adaptor);
const input = new TeX({
  packages: ["base", "ams", "boldsymbol", "cancel"],
  maxBuffer: 20000,
  formatError: (_: unknown, error: Error) => {
    throw error;
  },
});
const output = new SVG({ fontCache: "none", fontData: MathJaxTexFont, linebreaks: { inline: false } });
const page = mathjax.document("", { InputJax: input, OutputJax: output });

/** Units of the engine's outlines in an em. */
const EM = 1000;
type Matrix = [number, number, number, number, number, number];
const times = ([a, b, c, d, e, f]: Matrix, [g, h, i, j, k, l]: Matrix): Matrix => [
  a * g + c * h,
  b * g + d * h,
  a * i + c * j,
  b * i + d * j,
  a * k + c * l + e,
  b * k + d * l + f,
];

function matrixOf(transform: string | undefined): Matrix {
  let matrix: Matrix = [1, 0, 0, 1, 0, 0];
  for (const [, name, list = ""] of (transform ?? "").matchAll(/(translate|scale|rotate|matrix)\(([^)]*)\)/g)) {
    const [x = 0, y] = list.split(/[\s,]+/).map(Number);
    if (name === "translate") matrix = times(matrix, [1, 0, 0, 1, x, y ?? 0]);
    else if (name === "scale") matrix = times(matrix, [x, 0, 0, y ?? x, 0, 0]);
    else if (name === "rotate")
      matrix = times(matrix, [
        Math.cos((x * Math.PI) / 180),
        Math.sin((x * Math.PI) / 180),
        -Math.sin((x * Math.PI) / 180),
        Math.cos((x * Math.PI) / 180),
        0,
        0,
      ]);
  }
  return matrix;
}

const visitor = new SerializedMmlVisitor();

/** Returns TeX (base and AMS) as MathML (W3C, MathML Core); undefined when it cannot be parsed. */
export function mathmlOf(tex: string, display: boolean): string | undefined {
  try {
    const tree = page.convert(tex, { display, end: STATE.CONVERT }) as unknown as Parameters<
      typeof visitor.visitTree
    >[0];
    return visitor
      .visitTree(tree)
      .replace(/\s(?:data-[\w-]+|class|id)="[^"]*"/g, "")
      .replace(/>\s+</g, "><");
  } catch {
    return undefined;
  }
}

/** Sets TeX (base and AMS) as outlines. A wrong command or brace is returned as the engine's message. */
export function setFormula(tex: string, display: boolean): FormulaShape | { problem: string } {
  let root: LiteNode;
  try {
    root = page.convert(tex, { display, em: 16, ex: 8, containerWidth: 1e6 }) as unknown as LiteNode;
  } catch (error) {
    return { problem: error instanceof Error ? error.message : "The formula cannot be set." };
  }
  const svg = root.children.find(({ kind }) => kind === "svg");
  const [, top = 0, width = 0, height = 0] = (svg?.attributes.viewBox ?? "0 0 0 0").split(" ").map(Number);
  const paths: { d: string; matrix: Matrix }[] = [];
  let words = false;
  const walk = (node: LiteNode, above: Matrix): void => {
    const { kind, attributes, children } = node;
    const matrix = times(above, matrixOf(attributes?.transform));
    if (kind === "path" && attributes.d) paths.push({ d: attributes.d, matrix });
    else if (kind === "rect") {
      const [x, y, w, h] = ["x", "y", "width", "height"].map((name) => Number(attributes[name] ?? 0)) as [
        number,
        number,
        number,
        number,
      ];
      paths.push({ d: `M${x} ${y}h${w}v${h}h${-w}Z`, matrix });
    } else if (kind === "text") words = true;
    else if (kind === "svg") {
      const [x, y] = [Number(attributes.x ?? 0), Number(attributes.y ?? 0)];
      for (const child of children) walk(child, times(matrix, [1, 0, 0, 1, x, y]));
      return;
    }
    for (const child of children ?? []) if (child.kind !== "#text") walk(child, matrix);
  };
  for (const child of svg?.children ?? []) walk(child, [1 / EM, 0, 0, 1 / EM, 0, 0]);
  if (words)
    return { problem: "The formula has letters that the formula face does not hold; write them as text beside it." };
  return { width: width / EM, height: -top / EM, depth: (height + top) / EM, paths };
}
