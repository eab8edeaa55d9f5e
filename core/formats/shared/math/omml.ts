import { child, childrenOf, localName, type XmlElement } from "../xml";
import { FUNCTIONS, texCharacters } from "./mathml";

/** Returns the value of a property such as `m:chr`, or the standard's default (ECMA-376-1, 22.1.2). */
function property(element: XmlElement, name: string, missing: string): string {
  const found = child(
    element.children.find((part) => localName(part).endsWith("Pr")),
    name,
  );
  return found ? (Object.entries(found.attributes).find(([key]) => key.endsWith("val"))?.[1] ?? missing) : missing;
}

const inside = (element: XmlElement | undefined) => (element ? element.children.map(ommlTex).join("") : "");
const part = (element: XmlElement, name: string) => `{${inside(child(element, name)).trim()}}`;
const BRACKETS: Record<string, string> = {
  "{": "\\{",
  "}": "\\}",
  "⟨": "\\langle ",
  "⟩": "\\rangle ",
  "‖": "\\|",
  "⌊": "\\lfloor ",
  "⌋": "\\rfloor ",
  "⌈": "\\lceil ",
  "⌉": "\\rceil ",
  "": ".",
};
const bracket = (sign: string) => BRACKETS[sign] ?? sign;
const ACCENTS: Record<string, string> = {
  "\u0302": "\\hat",
  "\u0303": "\\tilde",
  "\u0304": "\\bar",
  "\u0305": "\\overline",
  "\u0307": "\\dot",
  "\u0308": "\\ddot",
  "\u20d7": "\\vec",
  "^": "\\hat",
  "~": "\\tilde",
  "→": "\\vec",
};

/**
 * Returns a function name as TeX, with its power or limit if it has one (22.1.2.39): runs of letters are names,
 * whatever their style.
 */
function nameTex(element: XmlElement): string {
  if (localName(element) !== "r")
    return (
      WRITERS[localName(element)]?.({ ...element, children: element.children.map(named) }) ??
      element.children.map(nameTex).join("")
    );
  const text = childrenOf(element, "t")
    .map(({ text: letters }) => letters)
    .join("")
    .trim();
  return FUNCTIONS.has(text) ? `\\${text} ` : /^\p{L}{2,}$/u.test(text) ? `\\operatorname{${text}}` : ommlTex(element);
}
/** Returns a part in which superscripts and subscripts stay, and the rest is a name. */
const named = (element: XmlElement): XmlElement =>
  localName(element) === "e" ? { ...element, children: [{ ...element, name: "name", local: "name" }] } : element;

/** Writers of the elements of Office Math (ECMA-376-1, 22.1) as TeX. */
const WRITERS: Record<string, (element: XmlElement) => string> = {
  r: (element) => {
    const text = childrenOf(element, "t")
      .map(({ text: characters }) => characters)
      .join("");
    const plain = property(element, "sty", "i") === "p" || child(child(element, "rPr"), "nor") !== undefined;
    return plain && /^[\p{L} ]{2,}$/u.test(text)
      ? FUNCTIONS.has(text)
        ? `\\${text} `
        : `\\text{${text}}`
      : texCharacters(text);
  },
  f: (element) =>
    property(element, "type", "bar") === "lin"
      ? `${part(element, "num")}/${part(element, "den")}`
      : `\\frac${part(element, "num")}${part(element, "den")}`,
  sSup: (element) => `${part(element, "e")}^${part(element, "sup")}`,
  sSub: (element) => `${part(element, "e")}_${part(element, "sub")}`,
  sSubSup: (element) => `${part(element, "e")}_${part(element, "sub")}^${part(element, "sup")}`,
  sPre: (element) => `{}_${part(element, "sub")}^${part(element, "sup")}${part(element, "e")}`,
  rad: (element) => {
    const degree = inside(child(element, "deg")).trim();
    return `\\sqrt${degree ? `[${degree}]` : ""}${part(element, "e")}`;
  },
  nary: (element) => {
    const sign = texCharacters(property(element, "chr", "∫")).trim();
    const [low, high] = [inside(child(element, "sub")).trim(), inside(child(element, "sup")).trim()];
    return `${sign}${low ? `_{${low}}` : ""}${high ? `^{${high}}` : ""} ${inside(child(element, "e"))}`;
  },
  d: (element) =>
    `\\left${bracket(property(element, "begChr", "("))}${childrenOf(element, "e")
      .map(inside)
      .join(texCharacters(property(element, "sepChr", "|")))}\\right${bracket(property(element, "endChr", ")"))}`,
  name: (element) => element.children.map(nameTex).join(""),
  func: (element) => `${child(element, "fName")?.children.map(nameTex).join("") ?? ""}${part(element, "e")}`,
  limLow: (element) => `${limited(element)}_${part(element, "lim")}`,
  limUpp: (element) => `${limited(element)}^${part(element, "lim")}`,
  acc: (element) => `${ACCENTS[property(element, "chr", "\u0302")] ?? "\\hat"}${part(element, "e")}`,
  bar: (element) => `${property(element, "pos", "bot") === "top" ? "\\overline" : "\\underline"}${part(element, "e")}`,
  groupChr: (element) =>
    `${property(element, "pos", "bot") === "top" ? "\\overbrace" : "\\underbrace"}${part(element, "e")}`,
  m: (element) =>
    `\\begin{matrix}${childrenOf(element, "mr")
      .map((row) => childrenOf(row, "e").map(inside).join(" & "))
      .join(" \\\\ ")}\\end{matrix}`,
  eqArr: (element) => `\\begin{aligned}${childrenOf(element, "e").map(inside).join(" \\\\ ")}\\end{aligned}`,
};

/** Returns what a limit is under or over: the name of a function where it is one. */
function limited(element: XmlElement): string {
  const base = child(element, "e");
  const name = base && nameTex({ ...base, name: "name", local: "name" }).trim();
  return name && FUNCTIONS.has(name.slice(1)) ? name : inside(base).trim();
}

/** Returns a formula in Office Math as TeX; properties are not shown. */
export function ommlTex(element: XmlElement): string {
  const name = localName(element);
  if (name.endsWith("Pr")) return "";
  return WRITERS[name]?.(element) ?? inside(element);
}
