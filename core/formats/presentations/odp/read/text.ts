import {
  canonical,
  isEmptyText,
  joinRuns,
  type LevelStyle,
  type Mark,
  MAX_LEVEL,
  NUMBER_SIGN,
  type Paragraph,
  type ParagraphProperties,
  type RichText,
  type Run,
  run,
  type RunProperties,
  type TextStyle,
  must,
} from "@unitext/core/model";
import { trimmed } from "@unitext/core/text";
import { localName, type XmlNode, attribute } from "../../../shared/xml";
import { alignOf, levelStyle, type OdpStyles } from "./styles";
import type { Properties } from "./properties";

/** A paragraph in text order, with what the lists around it set. */
interface Found {
  element: XmlNode;
  kind: Paragraph["kind"];
  level: number;
  start?: number;
  list?: XmlNode | string | undefined;
}

/** Returns the paragraphs of a text and its lists, in order. `style` is the list style of lists that name none. */
function paragraphs(children: readonly XmlNode[], styles: OdpStyles, style: XmlNode | string | undefined): Found[] {
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
function spelled(runs: Run[]): Run[] {
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
function inline<T>(
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

function marksOf(properties: Properties, styles: OdpStyles): Mark[] {
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

const primary = (tag: string) => tag.split("-")[0]?.toLowerCase();
const differing = <T extends object>(own: T, base: Partial<T> | undefined): Partial<T> =>
  Object.fromEntries(
    Object.entries(own).filter(
      ([name, value]) => canonical(value) !== canonical((base as Record<string, unknown> | undefined)?.[name]),
    ),
  ) as Partial<T>;

const LASTING = ["underline", "caps", "highlight", "rise"] as const;
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
function unsaid(level: ParagraphProperties | undefined, own: ParagraphProperties): ParagraphProperties {
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

/**
 * Reads a text with the formatting of its file: the style of its levels, from `shape` and, for outlines, the styles
 * named `outline` with a number after; and what its paragraphs and runs set beyond that. A text without words is empty,
 * unless it is wanted for its paragraph properties (`blank`).
 */
export function readStyledText(
  children: readonly XmlNode[],
  reader: TextReader,
  shape: Properties,
  outline?: string,
  blank = false,
): { text: RichText; style: TextStyle } {
  const { styles } = reader;
  const runPropertiesOf = (properties: Properties): RunProperties => {
    const { language, ...look } = styles.runLook(properties, reader.automatic);
    return language !== undefined && reader.language !== undefined && primary(language) === primary(reader.language)
      ? look
      : { ...look, ...(language === undefined ? {} : { language }) };
  };
  const found = paragraphs(children, styles, shape.list);
  const byLevel = Array.from({ length: 9 }, (_, level) =>
    outline !== undefined && styles.has("presentation", `${outline}${level + 1}`)
      ? level === 0
        ? shape
        : styles.properties("presentation", `${outline}${level + 1}`)
      : shape,
  );
  const paragraphOf = (
    properties: Properties,
    kind: Paragraph["kind"],
    list: Found["list"],
    level: number,
  ): ParagraphProperties => ({
    ...styles.paragraphLook(properties),
    ...(list === undefined ? styles.indents(properties) : (styles.listLevel(list, level)?.properties ?? {})),
    ...(kind === "plain" && list !== undefined ? { first: 0 } : {}),
  });
  const firstList = found.find(({ list }) => list !== undefined)?.list ?? shape.list;
  const isRtl = ({ paragraph }: Properties) => /^rl/.test(paragraph["writing-mode"] ?? "");
  const levels = byLevel.map(
    (properties, level): LevelStyle =>
      levelStyle(
        runPropertiesOf(properties),
        {
          ...styles.paragraphLook(properties),
          ...(firstList === undefined
            ? styles.indents(properties)
            : (styles.listLevel(firstList, level)?.properties ?? {})),
        },
        alignOf(properties.paragraph["text-align"], isRtl(properties)),
      ),
  );
  const stated = found.map((one) => {
    const own = styles.said("paragraph", attribute(one.element, "style-name"), must(byLevel[one.level]));
    const pieces: { text: string; state: Properties; link: string | undefined }[] = [];
    inline(one.element, reader, own, (state, style) => styles.said("text", style, state), undefined, pieces);
    return { ...one, own, pieces: pieces.map((piece) => ({ ...piece, look: runPropertiesOf(piece.state) })) };
  });
  // What a run cannot switch off is not set on its level.
  for (const { level, pieces } of stated)
    for (const { look } of pieces)
      for (const name of LASTING)
        if (look[name] === undefined && levels[level]?.run?.[name] !== undefined)
          levels[level] = {
            ...levels[level],
            run: Object.fromEntries(Object.entries(levels[level]?.run ?? {}).filter(([key]) => key !== name)),
          };
  const text = stated.map(({ kind, level, start, list, own, pieces }): Paragraph => {
    const runs = spelled(
      pieces.map(({ text: words, state, link, look }) =>
        run(words, marksOf(state, styles), link, differing(look, levels[level]?.run) as RunProperties),
      ),
    );
    // A line without words is as high as its last spaces, or else its paragraph, say.
    const wordless = runs.length
      ? {}
      : (differing(pieces.at(-1)?.look ?? runPropertiesOf(own), levels[level]?.run) as RunProperties);
    const align = alignOf(own.paragraph["text-align"], isRtl(own)) ?? "start";
    const stands: ParagraphProperties = {
      ...paragraphOf(own, kind, list, level),
      ...(levels[level]?.paragraph?.direction === "rtl" && !isRtl(own) ? { direction: "ltr" } : {}),
    };
    const look: ParagraphProperties = {
      ...differing({ ...unsaid(levels[level]?.paragraph, stands), ...stands }, levels[level]?.paragraph),
      ...(Object.keys(wordless).length ? { words: wordless } : {}),
    };
    return {
      kind,
      level,
      ...(start === undefined ? {} : { start }),
      ...(align === (levels[level]?.align ?? "start") ? {} : { align }),
      ...(Object.keys(look).length ? { properties: look } : {}),
      runs,
    };
  });
  const words: RichText = isEmptyText(text) && !blank ? [] : text;
  // Where all text of a level is bold or italic as its style is, the style sets it.
  const whole = (mark: Mark, name: "strong" | "emphasis", test: (properties: Properties) => boolean) => {
    for (const [level, properties] of byLevel.entries()) {
      const said = words.filter((paragraph) => paragraph.level === level).flatMap(({ runs }) => runs);
      if (!test(properties) || said.some(({ marks }) => !marks?.includes(mark))) continue;
      levels[level] = { ...levels[level], [name]: true };
      for (const [at, paragraph] of words.entries())
        if (paragraph.level === level)
          words[at] = {
            ...paragraph,
            runs: paragraph.runs.map((item) =>
              run(
                item.text,
                (item.marks ?? []).filter((one) => one !== mark),
                item.link,
                item.properties,
              ),
            ),
          };
    }
  };
  whole("strong", "strong", ({ text: said }) => said["font-weight"] === "bold" || Number(said["font-weight"]) >= 600);
  whole(
    "emphasis",
    "emphasis",
    ({ text: said }) => said["font-style"] === "italic" || said["font-style"] === "oblique",
  );
  while (levels.length > 1 && canonical(levels.at(-1)) === canonical(levels.at(-2))) levels.pop();
  return { text: words, style: levels };
}
