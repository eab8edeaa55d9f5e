import {
  canonical,
  isEmptyText,
  joinRuns,
  type Mark,
  MAX_LEVEL,
  NUMBER_SIGN,
  type Paragraph,
  type ParagraphProperties,
  type RichText,
  type Run,
  run,
  must,
} from "@unitext/core/model";
import { trimmed } from "@unitext/core/text";
import { localName, type XmlNode, attribute } from "../../../shared/xml";
import { alignOf, type OdpStyles } from "./styles";
import type { Properties } from "./properties";

/** A paragraph in text order, with what the lists around it set. */
export interface Found {
  element: XmlNode;
  kind: Paragraph["kind"];
  level: number;
  start?: number;
  list?: XmlNode | string | undefined;
}

/** Returns the paragraphs of a text and its lists, in order. `style` is the list style of lists that name none. */
export function paragraphs(
  children: readonly XmlNode[],
  styles: OdpStyles,
  style: XmlNode | string | undefined,
): Found[] {
  const found: Found[] = [];
  const list = (element: XmlNode, level: number, inherited: XmlNode | string | undefined) => {
    const own = attribute(element, "style-name") ?? inherited;
    const said = styles.listLevel(own, level);
    const kind = said?.kind ?? (own === undefined ? "bullet" : "plain");
    for (const item of element.children) {
      const header = localName(item) === "list-header";
      if (!header && localName(item) !== "list-item") continue;
      let begun = header;
      const start = Number(attribute(item, "start-value"));
      for (const part of item.children) {
        if (localName(part) === "list") list(part, level + 1, own);
        else if (localName(part) === "p" || localName(part) === "h") {
          const deeper = Math.min(MAX_LEVEL, begun && !header ? level + 1 : level);
          found.push(
            begun
              ? { element: part, kind: "plain", level: deeper, list: own }
              : {
                  element: part,
                  kind,
                  level: Math.min(MAX_LEVEL, level),
                  list: own,
                  ...(kind === "number" &&
                  Number.isInteger(start) &&
                  start > 0 &&
                  attribute(item, "start-value") !== undefined
                    ? { start }
                    : {}),
                },
          );
          begun = true;
        }
      }
    }
  };
  for (const element of children) {
    const name = localName(element);
    if (name === "p" || name === "h") found.push({ element, kind: "plain", level: 0 });
    else if (name === "list") list(element, 0, style);
  }
  return found;
}

export interface TextReader {
  styles: OdpStyles;
  /** Returns a link of the file as a link of the model. */
  target(href: string): string | undefined;
  /** The number of pages. */
  count?: number;
  /** The language of the deck: text in it sets no language of its own. */
  language?: string;
  /** The default text colour where the background is dark. */
  automatic?: string | undefined;
}

/**
 * Stands for a space that the file writes as an element, until spaces that only separate words in its markup are gone.
 */
const SPACE = "\uE00A";

const plainSpaces = (text: string) => (text.includes(SPACE) ? text.replaceAll(SPACE, " ") : text);

/**
 * Returns runs without white space at the ends and around line breaks, except for what the file writes as elements:
 * spaces, tabs and line breaks (OpenDocument 1.3, 6.1.2 to 6.1.5). Empty when there is nothing else.
 */
export function spelled(runs: Run[]): Run[] {
  // Most paragraphs are a single run without a space at either end.
  const [only] = runs;
  if (only && runs.length === 1 && only.text && !/^ | $|[\n\uE00A]/.test(only.text)) return runs;
  const joined = joinRuns(runs).map((item) => ({ ...item }));
  const bare = (items: Run[], end: RegExp, inside: RegExp, put: string, stops: (text: string) => boolean) => {
    let open = true;
    for (const item of items) {
      if (item.marks?.includes("code") || item.marks?.includes("formula") || item.footnote) open = false;
      else {
        item.text = (open ? item.text.replace(end, "") : item.text).replace(inside, put);
        if (item.text) open = stops(item.text);
      }
    }
  };
  bare(joined, /^ +/, /\n +/g, "\n", (text) => text.endsWith("\n"));
  bare([...joined].reverse(), / +$/, / +\n/g, "\n", (text) => text.startsWith("\n"));
  const held = joined
    .filter(({ text }) => text !== "")
    .map((item) => (item.text.includes(SPACE) ? { ...item, text: plainSpaces(item.text) } : item));
  return held.some(({ text }) => /[^ \t]/.test(text)) ? held : trimmed(held);
}

const MONOSPACED = /mono|courier|consolas|menlo|cousine|typewriter|fixed/i;

/** Returns the runs of a paragraph, each with its style. */
export function inline<T>(
  element: XmlNode,
  reader: TextReader,
  state: T,
  span: (state: T, style: string | undefined) => T,
  link: string | undefined,
  into: { text: string; state: T; link: string | undefined }[],
): void {
  const put = (text: string) => into.push({ text, state, link });
  for (const part of element.content) {
    if (typeof part === "string") {
      // White space of the markup is these four characters; others are kept (OpenDocument 1.3, part 3, 6.1.2).
      put(part.replace(/[ \t\r\n]+/g, " "));
      continue;
    }
    switch (localName(part)) {
      case "span":
        inline(part, reader, span(state, attribute(part, "style-name")), span, link, into);
        break;
      case "a":
        inline(part, reader, state, span, reader.target(attribute(part, "href") ?? "") ?? link, into);
        break;
      case "s":
        put(SPACE.repeat(Math.min(200, Number(attribute(part, "c") ?? 1) || 1)));
        break;
      case "tab":
        put("\t");
        break;
      case "line-break":
        put("\n");
        break;
      case "page-number":
        put(NUMBER_SIGN);
        break;
      case "page-count":
        put(reader.count === undefined ? part.text : String(reader.count));
        break;
      case "annotation":
      case "bookmark":
      case "bookmark-start":
      case "bookmark-end":
        break;
      default:
        inline(part, reader, state, span, link, into);
    }
  }
}

/**
 * Reads a text for its words, levels and marks alone, as Unitext writes it in its own style; a heading is bold or
 * italic by its theme.
 */
export function readText(children: readonly XmlNode[], reader: TextReader, heading = false): RichText {
  const text = paragraphs(children, reader.styles, undefined).map(({ element, kind, level, start }): Paragraph => {
    const own = reader.styles.said("paragraph", attribute(element, "style-name"), EMPTY);
    const { "font-weight": _, "font-style": __, ...plain } = own.text;
    const base = heading ? { ...own, text: plain } : own;
    const pieces: { text: string; state: Properties; link: string | undefined }[] = [];
    inline(element, reader, base, (state, style) => reader.styles.said("text", style, state), undefined, pieces);
    const align = alignOf(base.paragraph["text-align"]);
    const runs = pieces.map(({ text: words, state, link }) =>
      run(plainSpaces(words), marksOf(state, reader.styles), link),
    );
    return {
      kind: kind === "plain" && level === 0 ? "plain" : kind,
      level,
      ...(start === undefined ? {} : { start }),
      ...(align ? { align } : {}),
      runs: trimmed(joinRuns(runs)),
    };
  });
  return closed(text);
}

const EMPTY: Properties = { graphic: {}, paragraph: {}, text: {}, cell: {}, list: undefined, columns: {}, tabs: [] };

/** Returns the marks (strong, code, …) that the properties of a span amount to. */
export function marksOf(properties: Properties, styles: OdpStyles): Mark[] {
  const { text } = properties;
  const bold = text["font-weight"] === "bold" || Number(text["font-weight"]) >= 600;
  const slanted = text["font-style"] === "italic" || text["font-style"] === "oblique";
  const struck = (text["text-line-through-style"] ?? text["text-line-through-type"] ?? "none") !== "none";
  return [
    ...(bold ? ["strong" as const] : []),
    ...(slanted ? ["emphasis" as const] : []),
    ...(struck ? ["strike" as const] : []),
    ...(MONOSPACED.test(styles.family(properties) ?? "") ? ["code" as const] : []),
  ];
}

/** Without the empty paragraphs at its end. */
function closed(text: Paragraph[]): RichText {
  while (text.length && isEmptyText([must(text.at(-1))])) text.pop();
  return text;
}

export const primary = (tag: string) => tag.split("-")[0]?.toLowerCase();

export const differing = <T extends object>(own: T, base: Partial<T> | undefined): Partial<T> =>
  Object.fromEntries(
    Object.entries(own).filter(
      ([name, value]) => canonical(value) !== canonical((base as Record<string, unknown> | undefined)?.[name]),
    ),
  ) as Partial<T>;

const STANDS: ParagraphProperties = {
  before: { points: 0 },
  after: { points: 0 },
  line: { times: 1 },
  left: 0,
  right: 0,
  first: 0,
  tabs: [],
};

/** The defaults of a paragraph whose level sets nothing. */
export function unsaid(level: ParagraphProperties | undefined, own: ParagraphProperties): ParagraphProperties {
  const open: ParagraphProperties = {};
  for (const name in level)
    if (name in STANDS && !(name in own)) Object.assign(open, { [name]: STANDS[name as keyof ParagraphProperties] });
  return open;
}

/** Returns what one level sets beyond another that it replaces; of bullets only where there are any. */
export function hasOwnProperties(
  level: ParagraphProperties | undefined,
  other: ParagraphProperties | undefined,
  kind: Paragraph["kind"],
): ParagraphProperties {
  const { bullet, ...own } = level ?? {};
  return differing({ ...unsaid(other, own), ...own, ...(bullet && kind !== "plain" ? { bullet } : {}) }, other);
}
