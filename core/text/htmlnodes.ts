import type { Mark } from "@unitext/core/model";
import type { Element as HtmlElement, Nodes, Root } from "hast";

export const SKIPPED = new Set([
  "script",
  "style",
  "template",
  "noscript",
  "head",
  "title",
  "meta",
  "link",
  "svg",
  "canvas",
  "iframe",
  "object",
  "audio",
  "video",
  "button",
  "select",
  "textarea",
  "input",
  "nav",
]);
export const BLOCKS = new Set([
  "p",
  "div",
  "section",
  "article",
  "main",
  "header",
  "footer",
  "aside",
  "h1",
  "h2",
  "h3",
  "h4",
  "h5",
  "h6",
  "ul",
  "ol",
  "li",
  "dl",
  "dt",
  "dd",
  "table",
  "pre",
  "blockquote",
  "figure",
  "hr",
  "form",
  "fieldset",
  "address",
  "details",
  "summary",
  "body",
  "html",
  "center",
  "tr",
  "td",
  "th",
  "tbody",
  "thead",
  "tfoot",
  "caption",
]);
const MARKS: Record<string, Mark> = {
  b: "strong",
  strong: "strong",
  i: "emphasis",
  em: "emphasis",
  cite: "emphasis",
  var: "emphasis",
  s: "strike",
  del: "strike",
  strike: "strike",
  code: "code",
  kbd: "code",
  tt: "code",
  samp: "code",
};
export type Context = { marks: readonly Mark[]; link: string | undefined; pre: boolean };
export const NONE: Context = { marks: [], link: undefined, pre: false };
export const isElement = (node: Nodes): node is HtmlElement => node.type === "element";
export const classes = (node: HtmlElement): string =>
  Array.isArray(node.properties.className) ? node.properties.className.join(" ") : "";
const NAVIGATION =
  /(?:^|\s)(?:toc|nav|navbar|navigation|navheader|navfooter|table-of-contents|sphinxsidebar|sidebar|breadcrumbs?|headerlink|skip-link)(?:\s|$)/i;

/** Whether an element only leads to other places: a table of contents, a bar of links to other pages. */
export function isNavigation(node: HtmlElement): boolean {
  const { id, role } = node.properties;
  return (
    NAVIGATION.test(classes(node)) ||
    ["navigation", "doc-toc", "doc-pagelist"].includes(String(role ?? "")) ||
    /^(?:toc|table-of-contents|navigation|sidebar)$/i.test(String(id ?? ""))
  );
}

export const styleOf = (node: HtmlElement): string => String(node.properties.style ?? "").toLowerCase();

/** Returns the characters of a node and all below it. */
export function textIn(node: Nodes): string {
  if (node.type === "text") return node.value;
  return "children" in node ? node.children.map(textIn).join("") : "";
}

/** Returns the first element at or below a node that passes a test; undefined when none does. */
export function find(node: Nodes, test: (element: HtmlElement) => boolean): HtmlElement | undefined {
  if (isElement(node) && test(node)) return node;
  for (const child of "children" in node ? node.children : []) {
    const found = find(child as Nodes, test);
    if (found) return found;
  }
  return undefined;
}

/**
 * Returns the marks inside an inline element: those of its tag, or of the style that word processors put on the
 * clipboard.
 */
export function marksOf(node: HtmlElement, marks: readonly Mark[]): readonly Mark[] {
  const style = styleOf(node);
  const own = new Set(marks);
  const mark = MARKS[node.tagName];
  if (mark) own.add(mark);
  const weight = /font-weight:\s*(\w+)/.exec(style)?.[1];
  if (weight === "bold" || Number(weight) >= 600) own.add("strong");
  else if (weight && node.tagName !== "strong") own.delete("strong");
  if (/font-style:\s*(italic|oblique)/.test(style)) own.add("emphasis");
  else if (/font-style:\s*normal/.test(style)) own.delete("emphasis");
  if (/text-decoration[^;]*line-through/.test(style)) own.add("strike");
  return [...own];
}

/** The element of a formula, as a reader of formulas takes it. */
export interface MathElement {
  name: string;
  local: string;
  attributes: Record<string, string>;
  children: MathElement[];
  text: string;
}

/** Returns the TeX of a MathML formula. */
export type MathReader = (element: MathElement) => string;
export const mathElement = (node: HtmlElement): MathElement => ({
  name: node.tagName,
  local: node.tagName.slice(node.tagName.indexOf(":") + 1),
  attributes: Object.fromEntries(Object.entries(node.properties).map(([name, value]) => [name, String(value)])),
  children: node.children.flatMap((child) => (isElement(child as Nodes) ? [mathElement(child as HtmlElement)] : [])),
  text: node.children.map((child) => (child.type === "text" ? child.value : "")).join(""),
});
export const at0 = (text: string) => text.replace(/\n/g, " ");

/** Returns children without one element, wherever below them it is. */
export function without(children: HtmlElement["children"], gone: HtmlElement | undefined): HtmlElement["children"] {
  return children
    .filter((child) => child !== gone)
    .map((child) => (child.type === "element" ? { ...child, children: without(child.children, gone) } : child));
}

const NOTE_ID = /^(fn|ftn|_ftn|_edn|footnote|cite_note|user-content-fn)[-_:]?\w*/i;

/** Returns the elements of a page that are footnotes or endnotes, by their ids. */
export function footnotesIn(root: Root): Map<string, HtmlElement> {
  const notes = new Map<string, HtmlElement>();
  const look = (node: Nodes): void => {
    if (isElement(node)) {
      const id = String(node.properties.id ?? "");
      const type = String(node.properties.role ?? "");
      const isNote = type === "doc-endnote" || type === "doc-footnote" || NOTE_ID.test(id);
      if (id && isNote && !/ref/i.test(id)) notes.set(id, node);
    }
    for (const child of "children" in node ? node.children : []) look(child as Nodes);
  };
  look(root);
  return notes;
}
