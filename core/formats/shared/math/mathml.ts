import { must } from "@unitext/core/model";
import { localName, type XmlElement } from "../xml";

const OPERATORS: Record<string, string> = {
  "∑": "\\sum ",
  "∏": "\\prod ",
  "∫": "\\int ",
  "∬": "\\iint ",
  "∮": "\\oint ",
  "≤": "\\le ",
  "≥": "\\ge ",
  "≠": "\\ne ",
  "≈": "\\approx ",
  "∼": "\\sim ",
  "±": "\\pm ",
  "∓": "\\mp ",
  "×": "\\times ",
  "÷": "\\div ",
  "·": "\\cdot ",
  "⋅": "\\cdot ",
  "∞": "\\infty ",
  "→": "\\to ",
  "←": "\\leftarrow ",
  "⇒": "\\Rightarrow ",
  "∂": "\\partial ",
  "∇": "\\nabla ",
  "∈": "\\in ",
  "∉": "\\notin ",
  "⊂": "\\subset ",
  "∪": "\\cup ",
  "∩": "\\cap ",
  "∀": "\\forall ",
  "∃": "\\exists ",
  "−": "-",
  "…": "\\dots ",
  "√": "\\surd ",
  "°": "^{\\circ}",
  "′": "'",
  "&": "\\& ",
  "%": "\\% ",
  "#": "\\# ",
  $: "\\$ ",
  _: "\\_ ",
  "{": "\\{ ",
  "}": "\\} ",
  "⟨": "\\langle ",
  "⟩": "\\rangle ",
  "‖": "\\| ",
  "∝": "\\propto ",
  "≡": "\\equiv ",
  "⁡": "",
  "⁢": "",
  "⁣": "",
};
const GREEK =
  "alpha beta gamma delta epsilon zeta eta theta iota kappa lambda mu nu xi omicron pi rho sigmaf sigma tau upsilon phi chi psi omega".split(
    " ",
  );

/** Returns characters of a formula as TeX. */
export function texCharacters(text: string): string {
  return Array.from(text.normalize("NFKC"), (character) => {
    const known = OPERATORS[character];
    if (known !== undefined) return known;
    const small = GREEK[must(character.codePointAt(0)) - 0x3b1];
    if (small && small !== "omicron") return `\\${small === "sigmaf" ? "varsigma" : small} `;
    const large = GREEK[must(character.codePointAt(0)) - 0x391];
    if (large && /^[ΓΔΘΛΞΠΣΥΦΨΩ]$/.test(character))
      return `\\${(large === "sigmaf" ? "sigma" : large).replace(/^./, (first) => first.toUpperCase())} `;
    return character === "\\" ? "\\backslash " : character;
  }).join("");
}

/** Functions whose names are TeX commands (The TeXbook, 18; the list from memory). */
export const FUNCTIONS: ReadonlySet<string> = new Set(
  "arccos arcsin arctan arg cos cosh cot coth csc deg det dim exp gcd hom inf ker lg lim liminf limsup ln log max min Pr sec sin sinh sup tan tanh".split(
    " ",
  ),
);
const group = (tex: string) => `{${tex.trim()}}`;
const ACCENT: Record<string, string> = {
  "¯": "\\overline",
  "‾": "\\overline",
  "^": "\\hat",
  ˆ: "\\hat",
  "~": "\\tilde",
  "˜": "\\tilde",
  "→": "\\vec",
  "⃗": "\\vec",
  "˙": "\\dot",
  ".": "\\dot",
  "¨": "\\ddot",
};

type Writer = (children: readonly string[], element: XmlElement) => string;
const [first, second, third] = [0, 1, 2].map((at) => (list: readonly string[]) => group(list[at] ?? "")) as [
  (list: readonly string[]) => string,
  (list: readonly string[]) => string,
  (list: readonly string[]) => string,
];

/** Writers of the visible elements of MathML Core (W3C) as TeX. */
const WRITERS: Record<string, Writer> = {
  mi: (_, { text }) =>
    text.trim().length > 1 && /^[a-z]+$/i.test(text.trim())
      ? FUNCTIONS.has(text.trim())
        ? `\\${text.trim()} `
        : `\\mathrm{${text.trim()}}`
      : texCharacters(text.trim()),
  mn: (_, { text }) => texCharacters(text.trim()),
  mo: (_, { text }) => texCharacters(text.trim()),
  mtext: (_, { text }) => (text.trim() ? `\\text{${text}}` : "\\ "),
  ms: (_, { text }) => `\\text{${text}}`,
  mspace: () => "\\,",
  msup: (list) => `${first(list)}^${second(list)}`,
  msub: (list) => `${first(list)}_${second(list)}`,
  msubsup: (list) => `${first(list)}_${second(list)}^${third(list)}`,
  mfrac: (list) => `\\frac${first(list)}${second(list)}`,
  msqrt: (list) => `\\sqrt${group(list.join(""))}`,
  mroot: (list) => `\\sqrt[${(list[1] ?? "").trim()}]${first(list)}`,
  munder: (list) =>
    /^\\(sum|prod|int|lim|max|min)/.test(list[0] ?? "")
      ? `${list[0]}_${second(list)}`
      : `\\underset${second(list)}${first(list)}`,
  mover: (list) => {
    const accent = ACCENT[(list[1] ?? "").trim()] ?? (list[1]?.trim() === "\\to" ? "\\vec" : undefined);
    return accent
      ? `${accent}${first(list)}`
      : /^\\(sum|prod|int)/.test(list[0] ?? "")
        ? `${list[0]}^${second(list)}`
        : `\\overset${second(list)}${first(list)}`;
  },
  munderover: (list) =>
    /^\\(sum|prod|int|iint|oint)/.test(list[0] ?? "")
      ? `${list[0]}_${second(list)}^${third(list)}`
      : `\\overset${third(list)}{\\underset${second(list)}${first(list)}}`,
  mfenced: (list, { attributes }) =>
    `\\left${attributes.open ?? "("}${list.join(attributes.separators ?? ",")}\\right${attributes.close ?? ")"}`,
  mtable: (list) => `\\begin{matrix}${list.join(" \\\\ ")}\\end{matrix}`,
  mtr: (list) => list.join(" & "),
  // A formula that was written in TeX carries its source.
  semantics: (list, { children }) =>
    children.find((one) => localName(one) === "annotation" && one.attributes.encoding === "application/x-tex")?.text ??
    list.join(""),
  annotation: () => "",
  "annotation-xml": () => "",
  mphantom: () => "",
};

/** Returns a formula in presentation MathML as TeX. */
export function mathmlTex(element: XmlElement): string {
  const name = localName(element);
  const children = element.children.filter((child) => !localName(child).startsWith("annotation")).map(mathmlTex);
  return WRITERS[name]?.(children, element) ?? children.join("");
}
