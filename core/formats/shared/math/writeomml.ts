import { escapeXml, must } from "@unitext/core/model";
import { child, localName, readXml, xml, type XmlElement } from "../xml";

const NAMESPACE = "http://schemas.openxmlformats.org/officeDocument/2006/math";
/** Operators that are set with limits. */
const LARGE = /^[∑∏∐∫∬∭∮⋃⋂⋁⋀⨁⨂]$/;
const OPENING = /^[([{|‖⟨⌊⌈]$/;
const CLOSING = /^[)\]}|‖⟩⌋⌉]$/;
const ACCENTS: Record<string, string> = {
  "^": "\u0302",
  ˆ: "\u0302",
  "~": "\u0303",
  "˜": "\u0303",
  "¯": "\u0304",
  "→": "\u20d7",
  "˙": "\u0307",
  "¨": "\u0308",
};

const wordsOf = (element: XmlElement | undefined): string =>
  element ? element.text.trim() + element.children.map(wordsOf).join("") : "";
const holders = new Set(["mrow", "mstyle", "mpadded", "math", "semantics", "TeXAtom", "menclose", "mphantom"]);
/** Returns an element without rows that only wrap it. */
function bare(element: XmlElement | undefined): XmlElement | undefined {
  const only =
    element && holders.has(localName(element)) && localName(element) !== "menclose"
      ? element.children.filter((one) => !localName(one).startsWith("annotation"))
      : [];
  return only.length === 1 ? bare(only[0]) : element;
}

function run(text: string, properties = ""): string {
  if (!text) return "";
  return xml(
    "m:r",
    {},
    properties ? xml("m:rPr", {}, properties) : "",
    '<a:rPr><a:latin typeface="Cambria Math"/></a:rPr>',
    xml("m:t", /^\s|\s$/.test(text) ? { "xml:space": "preserve" } : {}, escapeXml(text)),
  );
}

const part = (name: string, element: XmlElement | undefined) => xml(`m:${name}`, {}, element ? written([element]) : "");
const parts = (name: string, list: readonly XmlElement[]) => xml(`m:${name}`, {}, written(list));
const chosen = (name: string, value: string) => xml(`m:${name}`, { "m:val": value });

function scripted(element: XmlElement, operand: XmlElement | undefined): { made: string; took: boolean } {
  const kind = localName(element);
  const [base, first, second] = element.children;
  const under =
    kind === "msub" || kind === "munder" ? first : kind === "msubsup" || kind === "munderover" ? first : undefined;
  const over =
    kind === "msup" || kind === "mover" ? first : kind === "msubsup" || kind === "munderover" ? second : undefined;
  const sign = wordsOf(bare(base));
  if (LARGE.test(sign) && (under || over)) {
    const properties = xml(
      "m:naryPr",
      {},
      chosen("chr", sign),
      chosen("limLoc", /^m(under|over)/.test(kind) ? "undOvr" : "subSup"),
      under ? "" : chosen("subHide", "1"),
      over ? "" : chosen("supHide", "1"),
    );
    return {
      made: xml("m:nary", {}, properties, part("sub", under), part("sup", over), part("e", operand)),
      took: operand !== undefined,
    };
  }
  const made = (): string => {
    if (kind === "msup") return xml("m:sSup", {}, part("e", base), part("sup", over));
    if (kind === "msub") return xml("m:sSub", {}, part("e", base), part("sub", under));
    if (kind === "msubsup") return xml("m:sSubSup", {}, part("e", base), part("sub", under), part("sup", over));
    const mark = wordsOf(bare(over));
    if (kind === "mover" && ACCENTS[mark])
      return /^(¯)$/.test(mark) && wordsOf(base).length > 1
        ? xml("m:bar", {}, xml("m:barPr", {}, chosen("pos", "top")), part("e", base))
        : xml("m:acc", {}, xml("m:accPr", {}, chosen("chr", ACCENTS[mark])), part("e", base));
    if (kind === "mover" && /^[―─_‾]$/.test(mark))
      return xml("m:bar", {}, xml("m:barPr", {}, chosen("pos", "top")), part("e", base));
    const low = under ? xml("m:limLow", {}, part("e", base), part("lim", under)) : undefined;
    if (!over) return low ?? "";
    return xml("m:limUpp", {}, low === undefined ? part("e", base) : xml("m:e", {}, low), part("lim", over));
  };
  return { made: made(), took: false };
}

function fenced(list: readonly XmlElement[]): string | undefined {
  const [first, last] = [list[0], list.at(-1)];
  if (!first || !last || first === last || localName(first) !== "mo" || localName(last) !== "mo") return undefined;
  const [open, close] = [first.text.trim(), last.text.trim()];
  if (!(OPENING.test(open) || open === "") || !(CLOSING.test(close) || close === "") || open + close === "")
    return undefined;
  return xml(
    "m:d",
    {},
    xml("m:dPr", {}, chosen("begChr", open), chosen("endChr", close)),
    parts("e", list.slice(1, -1)),
  );
}

type Writer = (element: XmlElement) => string;
const row: Writer = ({ children }) => fenced(children) ?? written(children);
const WRITERS: Record<string, Writer> = {
  math: row,
  mrow: row,
  mstyle: row,
  mpadded: row,
  TeXAtom: row,
  menclose: row,
  semantics: ({ children }) => written(children.slice(0, 1)),
  mi: ({ text, attributes }) =>
    run(
      text.trim(),
      attributes.mathvariant === "normal" || text.trim().length > 1
        ? chosen("sty", "p")
        : attributes.mathvariant === "bold"
          ? chosen("sty", "b")
          : "",
    ),
  mn: ({ text }) => run(text.trim()),
  mo: ({ text }) => run(text.trim().replace(/[\u2061-\u2064]/g, "")),
  mtext: ({ text }) => run(text.replace(/\u00a0/g, " "), "<m:nor/>"),
  ms: ({ text }) => run(text, "<m:nor/>"),
  mspace: ({ attributes }) => (Number.parseFloat(attributes.width ?? "0") >= 0.5 ? run(" ") : ""),
  mphantom: ({ children }) => xml("m:phant", {}, xml("m:phantPr", {}, chosen("show", "0")), parts("e", children)),
  mfrac: ({ children: [top, bottom], attributes }) =>
    xml(
      "m:f",
      {},
      attributes.linethickness?.startsWith("0") ? xml("m:fPr", {}, chosen("type", "noBar")) : "",
      part("num", top),
      part("den", bottom),
    ),
  msqrt: ({ children }) =>
    xml("m:rad", {}, xml("m:radPr", {}, chosen("degHide", "1")), "<m:deg/>", parts("e", children)),
  mroot: ({ children: [base, degree] }) => xml("m:rad", {}, part("deg", degree), part("e", base)),
  mtable: ({ children }) =>
    xml(
      "m:m",
      {},
      ...children.map((line) => xml("m:mr", {}, ...line.children.map((cell) => parts("e", cell.children)))),
    ),
};

function written(list: readonly XmlElement[]): string {
  let out = "";
  for (let at = 0; at < list.length; at++) {
    const element = must(list[at]);
    const kind = localName(element);
    if (/^(msub|msup|msubsup|munder|mover|munderover)$/.test(kind)) {
      const { made, took } = scripted(element, list[at + 1]);
      out += made;
      if (took) at++;
    } else out += WRITERS[kind]?.(element) ?? written(element.children);
  }
  return out;
}

/** Returns a formula in MathML (W3C) as Office Math (`m:oMath`, ECMA-376-1, 22.1.2.77). */
export function mathmlOmml(mathml: string): string {
  const root = readXml(mathml, "formula");
  return xml(
    "m:oMath",
    { "xmlns:m": NAMESPACE },
    written(child(root, "semantics") ? [must(child(root, "semantics"))] : root.children),
  );
}
