import { bindingAddress, bindingAttributes } from "./boundlinks";
import {
  type Cell,
  type Footnote,
  joinRuns,
  type Paragraph,
  type RichText,
  type Run,
  run,
  must,
} from "@unitext/core/model";
import type {
  BlockContent,
  FootnoteDefinition,
  List,
  ListItem,
  PhrasingContent,
  Root,
  RootContent,
  Table,
} from "mdast";
import { type ContainerDirective, directiveToMarkdown } from "mdast-util-directive";
import { gfmToMarkdown } from "mdast-util-gfm";
import { mathToMarkdown } from "mdast-util-math";
import { type Options, toMarkdown } from "mdast-util-to-markdown";
import { trimmed } from "./inline";
import type { Content } from "./manuscript";

/**
 * Colons inside a line are only colons, so only those that would start a directive block are escaped. An address may
 * begin at “www.” whatever follows.
 */
const directives = {
  ...directiveToMarkdown({ preferUnquoted: true }),
  unsafe: [
    { atBreak: true, character: ":", after: ":" },
    { before: "[Ww]", character: ".", after: "\\S", inConstruct: "phrasing" },
  ],
};

const OPTIONS: Options = {
  bullet: "-",
  emphasis: "*",
  fences: true,
  listItemIndent: "one",
  rule: "-",
  extensions: [gfmToMarkdown({ tablePipeAlign: false }), mathToMarkdown(), directives as Options],
};

/** Returns blocks of Markdown as text. */
export function markdownOf(children: RootContent[]): string {
  if (!children.length) return "";
  const root: Root = { type: "root", children };
  return toMarkdown(root, OPTIONS).trimEnd();
}

export function lineCount(text: string): number {
  let lines = 1;
  for (let at = text.indexOf("\n"); at >= 0; at = text.indexOf("\n", at + 1)) lines += 1;
  return lines;
}

/** The footnotes of a text being written, numbered in order. */
export class FootnoteList {
  private added = 0;
  private waiting: FootnoteDefinition[] = [];

  add(runs: Footnote): string {
    const identifier = String(++this.added);
    this.waiting.push({
      type: "footnoteDefinition",
      identifier,
      label: identifier,
      children: [{ type: "paragraph", children: inlineNodes(trimmed(joinRuns(runs)), this) }],
    });
    return identifier;
  }

  /** How many footnotes have been added. */
  get count(): number {
    return this.added;
  }

  /** Returns the definitions added since the last call. */
  take(): FootnoteDefinition[] {
    return this.waiting.splice(0);
  }
}

const WRAP = { strong: "strong", emphasis: "emphasis", strike: "delete" } as const;
interface Inline {
  /** Whether it is in a table cell, where a line cannot end. */
  cell?: boolean;
}

const isUnlinked = (item: Run | undefined) => !item?.link && !item?.footnote && !item?.binding;

/**
 * A line that Markdown reads as it is: it begins with a letter and has no character that can be read otherwise. A full
 * stop or colon is followed by a space or ends it, so that there is no address.
 */
const PLAIN_LINE = /^\p{L}(?:[\p{L}\p{M}\p{N} ,;()?%/'"‘’“”„«»–—…-]|[.:](?= |$))*$/u;
const SIGNS: Record<string, string> = { strong: "**", emphasis: "*" };

/**
 * Returns runs as a line of Markdown where nothing in them has to be escaped, which is true of nearly all lines and much
 * faster than escaping: plain words, with whole words in bold or italic. Otherwise returns undefined.
 */
function plainLine(runs: readonly Run[]): string | undefined {
  let [line, text, closed] = ["", "", false];
  for (const { text: words, marks = [], ...others } of runs) {
    if (others.link !== undefined || others.footnote || others.binding || marks.length > 1) return undefined;
    const sign = marks[0] === undefined ? "" : SIGNS[marks[0]];
    if (sign === undefined || (closed && !/^[ ,.;:)?]/.test(words))) return undefined;
    if (sign && (!/^[\p{L}\p{N}](?:.*[\p{L}\p{N}])?$/u.test(words) || (text && !text.endsWith(" ")))) return undefined;
    line += sign + words + sign;
    text += words;
    closed = sign !== "";
  }
  return PLAIN_LINE.test(text) && !text.endsWith(" ") ? line : undefined;
}

/** Returns the runs of a whole line as inline Markdown. */
export function lineNodes(runs: readonly Run[], notes: FootnoteList): PhrasingContent[] {
  const line = plainLine(runs);
  return line === undefined ? inlineNodes(runs, notes) : [{ type: "html", value: line }];
}

/** Returns runs as inline Markdown. Neighbours with the same link or mark are wrapped once. */
export function inlineNodes(runs: readonly Run[], notes: FootnoteList, place: Inline = {}): PhrasingContent[] {
  const nodes: PhrasingContent[] = [];
  let at = 0;
  while (at < runs.length) {
    const first = must(runs[at]);
    let end = at + 1;
    if (first.footnote) {
      const identifier = notes.add(first.footnote);
      nodes.push({ type: "footnoteReference", identifier, label: identifier });
    } else if (first.binding) {
      // The words of such a link are the value of a cell.
      const { binding, link: _, ...shown } = first;
      nodes.push({ type: "link", url: bindingAddress(binding), children: inlineNodes([shown], notes, place) as never });
    } else if (first.link) {
      while (end < runs.length && runs[end]?.link === first.link && !runs[end]?.footnote && !runs[end]?.binding) end++;
      const url = urlOf(first.link);
      nodes.push({
        type: "link",
        url,
        children: inlineNodes(
          runs.slice(at, end).map(({ link: _, ...rest }) => rest),
          notes,
          place,
        ) as never,
      });
    } else {
      const mark = (Object.keys(WRAP) as (keyof typeof WRAP)[]).find((name) => first.marks?.includes(name));
      if (mark) {
        while (end < runs.length && isUnlinked(runs[end]) && runs[end]?.marks?.includes(mark)) end++;
        const inner = runs
          .slice(at, end)
          .map((item) => ({ ...item, marks: item.marks?.filter((name) => name !== mark) }));
        nodes.push({ type: WRAP[mark], children: inlineNodes(inner, notes, place) } as PhrasingContent);
      } else if (first.marks?.includes("formula")) {
        // A digit after a dollar sign makes it an amount; two signs never are.
        if (/^\d/.test(runs[end]?.text ?? "") && runs[end]?.text)
          nodes.push({ type: "html", value: `$$${first.text}$$` });
        else nodes.push({ type: "inlineMath", value: first.text } as never);
      } else if (first.marks?.includes("code")) nodes.push({ type: "inlineCode", value: first.text });
      else nodes.push(...textNodes(first.text, place));
    }
    at = end;
  }
  return nodes;
}

function textNodes(text: string, { cell }: Inline): PhrasingContent[] {
  return text
    .split("\n")
    .flatMap((line, index): PhrasingContent[] => [
      ...(index ? [cell ? { type: "html" as const, value: "<br>" } : { type: "break" as const }] : []),
      ...(line ? [{ type: "text" as const, value: line }] : []),
    ]);
}

/** Returns runs as Markdown can hold them: no white space at the ends, code and formulas on one line. */
function normalRuns(runs: readonly Run[]): Run[] {
  const held = runs.map((item): Run => {
    if (item.footnote)
      return {
        text: "",
        footnote: normalRuns(item.footnote).map(({ text, marks, link, binding }) =>
          run(text, marks, link, undefined, binding),
        ),
      };
    if (item.marks?.includes("formula"))
      return run(item.text.replace(/\$/g, "").replace(/\s+/g, " ").trim(), ["formula"], item.link);
    return item.marks?.includes("code") && item.text.includes("\n")
      ? { ...item, text: item.text.replace(/\n/g, " ") }
      : item;
  });
  return trimmed(joinRuns(held));
}

const normal = new WeakMap<RichText, RichText>();

/**
 * Returns a text as Markdown can hold it: levels without gaps, no empty paragraphs, no white space at the ends, text
 * below an item aligned like it.
 */
export function normalText(text: RichText): RichText {
  const known = normal.get(text);
  if (known) return known;
  const result: Paragraph[] = [];
  let open = -1;
  let side: Paragraph["align"];
  for (const paragraph of text) {
    const runs = normalRuns(paragraph.runs);
    if (!runs.length && paragraph.kind === "plain") continue;
    const { align, start, ...rest } = paragraph;
    const level = Math.min(paragraph.level, open + 1);
    if (level === 0) side = align;
    result.push({
      ...rest,
      level,
      ...(side ? { align: side } : {}),
      ...(start !== undefined && start !== 1 && paragraph.kind === "number" ? { start } : {}),
      runs,
    });
    open = paragraph.kind === "plain" ? level - 1 : level;
  }
  normal.set(text, result);
  normal.set(result, result);
  return result;
}

/** Returns the blocks of a rich text: levels become nested lists, aligned paragraphs go in a container. */
export function blocksOf(text: RichText, notes: FootnoteList): BlockContent[] {
  const groups: { align: Paragraph["align"]; paragraphs: Paragraph[] }[] = [];
  for (const paragraph of normalText(text)) {
    const last = groups.at(-1);
    if (last && last.align === paragraph.align) last.paragraphs.push(paragraph);
    else groups.push({ align: paragraph.align, paragraphs: [paragraph] });
  }
  return groups.flatMap(({ align, paragraphs }): BlockContent[] => {
    const blocks = listBlocks(paragraphs, notes);
    return align ? [container("align", { to: align }, blocks) as unknown as BlockContent] : blocks;
  });
}

function listBlocks(text: readonly Paragraph[], notes: FootnoteList): BlockContent[] {
  const blocks: BlockContent[] = [];
  const items: ListItem[] = [];
  for (const paragraph of text) {
    items.length = Math.min(items.length, paragraph.kind === "plain" ? paragraph.level : paragraph.level + 1);
    const holder = paragraph.level === 0 ? blocks : must(items[paragraph.level - 1]).children;
    if (paragraph.kind === "plain") {
      holder.push({ type: "paragraph", children: lineNodes(paragraph.runs, notes) });
      items.length = paragraph.level;
      continue;
    }
    const ordered = paragraph.kind === "number";
    const last = holder.at(-1) as List | undefined;
    const item: ListItem = {
      type: "listItem",
      spread: false,
      children: paragraph.runs.length ? [{ type: "paragraph", children: lineNodes(paragraph.runs, notes) }] : [],
    };
    if (
      last?.type === "list" &&
      last.ordered === ordered &&
      items.length > paragraph.level &&
      paragraph.start === undefined
    )
      last.children.push(item);
    else
      holder.push({
        type: "list",
        ordered,
        spread: false,
        children: [item],
        ...(ordered ? { start: paragraph.start ?? 1 } : {}),
      } as never);
    items[paragraph.level] = item;
    items.length = paragraph.level + 1;
  }
  return blocks;
}

/**
 * Returns a container of the text form with its attributes; an attribute with an empty value is written as its name
 * alone.
 */
export function container(
  name: string,
  attributes: Record<string, string>,
  children: readonly RootContent[],
): RootContent {
  return { type: "containerDirective", name, attributes, children } as unknown as ContainerDirective & RootContent;
}

/** Returns a cell's text on one line, as Markdown can hold it. */
export function normalCell(text: RichText): RichText {
  const runs = text.flatMap((paragraph, at): Run[] => (at ? [run("\n"), ...paragraph.runs] : paragraph.runs));
  const held = normalRuns(runs);
  return held.length ? [{ kind: "plain", level: 0, runs: held }] : [];
}

const SIDE = { start: "left", centre: "center", end: "right" } as const;

function tableNodes(
  { rows, header, align, caption, binding, lists }: Extract<Content, { kind: "table" }>,
  notes: FootnoteList,
): RootContent[] {
  const width = rows[0]?.length ?? 0;
  // Where a covered cell's text is: in the cell to its left, or above.
  const covered: ("{<}" | "{^}" | undefined)[][] = rows.map(() => []);
  rows.forEach((row, y) => {
    row.forEach((cell, x) => {
      if (!cell) return;
      for (let dy = 0; dy < (cell.rows ?? 1); dy++)
        for (let dx = 0; dx < (cell.columns ?? 1); dx++)
          if (dx || dy) (covered[y + dy] ?? [])[x + dx] = dx ? "{<}" : "{^}";
    });
  });
  const content = (cell: Cell | null, y: number, x: number): PhrasingContent[] =>
    cell
      ? inlineNodes(normalCell(cell.text)[0]?.runs ?? [], notes, { cell: true })
      : [{ type: "html", value: covered[y]?.[x] ?? "{<}" }];
  const body = rows.map((row, y): Table["children"][number] => ({
    type: "tableRow",
    children: row.map((cell, x) => ({ type: "tableCell", children: content(cell, y, x) })),
  }));
  const empty: Table["children"][number] = {
    type: "tableRow",
    children: Array.from({ length: width }, () => ({ type: "tableCell", children: [] })),
  };
  const table: Table = {
    type: "table",
    align: Array.from({ length: width }, (_, at) => (align[at] && align[at] !== "start" ? SIDE[align[at]] : null)),
    children: header ? body : [empty, ...body],
  };
  const attributes = {
    ...(header > 1 ? { header: String(header) } : {}),
    ...(caption ? { caption } : {}),
    ...(lists ? { lists } : {}),
    ...bindingAttributes(binding),
  };
  return Object.keys(attributes).length ? [container("table", attributes, [table])] : [table];
}

function cellText(text: string): Cell {
  return { text: text ? [{ kind: "plain", level: 0, runs: [run(text)] }] : [] };
}

type Writer<C> = (content: C, notes: FootnoteList) => RootContent[];
const words = (text: RichText): RichText =>
  text.map(({ properties: _, ...paragraph }) => ({
    ...paragraph,
    runs: paragraph.runs.map(({ properties: __, ...item }) => item),
  }));
const urlOf = (link: string) => (link.startsWith("slide:") ? `#${link.slice(6)}` : link);
const linked = (node: PhrasingContent, link: string | undefined): PhrasingContent =>
  link === undefined ? node : { type: "link", url: urlOf(link), children: [node] };
const WRITERS: { [K in Content["kind"]]: Writer<Extract<Content, { kind: K }>> } = {
  text: ({ text }, notes) => blocksOf(text, notes),
  picture: ({ source, alt, caption, width, link }) => [
    {
      type: "paragraph",
      children: [
        linked({ type: "image", url: source, alt, ...(caption ? { title: caption } : {}) }, link),
        ...(width ? [{ type: "html" as const, value: `{width=${Math.round(width)}%}` }] : []),
      ],
    },
  ],
  table: tableNodes,
  code: ({ language, text }) => [{ type: "code", lang: language || null, value: text }],
  formula: ({ tex }) => [{ type: "math", value: tex } as never],
  diagram: ({ type, text }, notes) => [container("diagram", { kind: type }, blocksOf(text, notes))],
  chart: ({ type, categories: named, series, binding }, notes) => {
    // A scatter chart lists its horizontal values in the first column; series with different ones are joined over all
    // of them.
    const places =
      type === "scatter"
        ? [...new Set(series.flatMap(({ values, x }) => values.map((_, at) => x?.[at] ?? at + 1)))].sort(
            (a, b) => a - b,
          )
        : undefined;
    const categories = places?.map(String) ?? named;
    const valueAt = ({ values, x }: (typeof series)[number], at: number) =>
      places ? values[values.findIndex((_, nth) => (x?.[nth] ?? nth + 1) === places[at])] : values[at];
    const rows = [
      [cellText(""), ...series.map(({ name }) => cellText(name))],
      ...categories.map((name, at) => [
        cellText(name),
        ...series.map((one) => cellText(String(valueAt(one, at) ?? ""))),
      ]),
    ];
    const table = tableNodes(
      { kind: "table", rows, header: 1, align: ["start", ...series.map(() => "end" as const)] },
      notes,
    );
    return [container("chart", { kind: type, ...bindingAttributes(binding) }, table)];
  },
  // The text form holds only the words of shapes, films and foreign elements.
  shape: ({ text }, notes) => blocksOf(words(text), notes),
  media: ({ alt }, notes) => (alt ? blocksOf(cellText(alt).text, notes) : []),
  foreign: ({ text }, notes) => blocksOf(words(text), notes),
};

/** Returns what an element shows in the text form. */
export function contentNodes(content: Content, notes: FootnoteList): RootContent[] {
  return (WRITERS[content.kind] as Writer<Content>)(content, notes);
}

/** Returns an element's content as text, to be inserted where a text is typed. */
export const contentText = (content: Content): string => markdownOf(contentNodes(content, new FootnoteList()));
