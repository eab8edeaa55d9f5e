import {
  cutText,
  type Cell,
  MAX_LEVEL,
  MOST,
  type Paragraph,
  type RichText,
  type Run,
  run,
  textOf,
  must,
} from "@unitext/core/model";
import type {
  BlockContent,
  Code,
  Definition,
  DefinitionContent,
  FootnoteDefinition,
  List,
  Root,
  RootContent,
  Table,
} from "mdast";
import { ALIGN, type DirectiveNode, readDirective } from "./directives";
import { readFront } from "./front";
import { boundNesting, isCrowded } from "./nesting";
import { htmlBlocks } from "./html";
import { type Gathered, inlineRuns } from "./inline";
import type { Block, Figure, Manuscript, Problem } from "./manuscript";
import { type Definitions, definitions, definitionsFor, labelOf, segments } from "./segments";
import { parseMarkdown, parseStretch, type Stretch, stretches } from "./syntax";

/**
 * Reads a text (CommonMark, GFM, front matter and the directives of docs/text-format.md) into blocks. Blocks are read
 * as they are asked for, a stretch at a time, so that the first slides of a long text are there at once; `problems` is
 * complete when the last block has been taken. Never throws: what cannot be parsed stays as words. With `lines`, every
 * line of a paragraph stays a line.
 */
export function readText(text: string, { lines: hard = false }: { lines?: boolean } = {}): Manuscript {
  const plain = text.replace(/^\uFEFF/, "");
  const lines = plain.split(plain.includes("\r") ? /\r\n|\r|\n/ : "\n");
  const { front, next, problems } = readFront(lines);
  const bounded = boundNesting(lines);
  problems.push(...bounded.problems);
  let found: Definitions | undefined;
  const shared = () => (found ??= definitions(bounded.lines));
  function* blocks(): Generator<Block> {
    const used = new Set<string>();
    for (const segment of segments(bounded.lines, next))
      for (const stretch of stretches(segment)) yield* readStretch(stretch, shared, problems, used, hard);
    yield* unused(shared(), used, bounded.lines, problems);
  }
  return { front, blocks: { [Symbol.iterator]: blocks }, problems };
}

const CACHE_SIZE = 20_000;
interface ReadStretch {
  blocks: Block[];
  problems: Problem[];
  /** By how many lines the positions of its blocks are too high. */
  lead: number;
  /** The footnotes that it refers to. */
  notes: string[];
}
const cache = new Map<string, ReadStretch>();

/** Yields footnotes that nothing refers to: they go to the notes of the last slide. */
function* unused(
  shared: Definitions,
  used: ReadonlySet<string>,
  lines: readonly string[],
  problems: Problem[],
): Generator<Block> {
  const usedLabels = new Set([...used].map((identifier) => labelOf(`^${identifier}`)));
  const left = [...shared].filter(([label]) => label.startsWith("^") && !usedLabels.has(label));
  if (!left.length) return;
  const places = new Map<string, number>();
  for (const [at, line] of lines.entries()) {
    const label = /^\s*\[(\^[^\]]+)\]:/.exec(line)?.[1];
    if (label !== undefined && !places.has(labelOf(label))) places.set(labelOf(label), at + 1);
  }
  for (const [label, definition] of left) {
    const root = parseMarkdown([definition, definitionsFor(definition, shared)].join("\n\n"));
    const node = root.children.find((child) => child.type === "footnoteDefinition");
    if (node?.type !== "footnoteDefinition") continue;
    const at = places.get(label) ?? 1;
    problems.push({
      line: at,
      message: `Nothing refers to the footnote “${node.identifier}”; it is kept in the notes.`,
    });
    const text = new BlockReader(problems, root).footnote(node.identifier);
    if (text?.length) yield { kind: "notes", text: [plain(text)], from: at, to: at };
  }
}

/** Reads one stretch. Cached: equal stretches are read once and give the same objects. */
function readStretch(
  stretch: Stretch,
  definitionsOf: () => Definitions,
  problems: Problem[],
  used: Set<string>,
  hard: boolean,
): Block[] {
  const shared = !stretch.plain && stretch.text.includes("[") ? definitionsFor(stretch.text, definitionsOf()) : "";
  const key = stretch.plain ? stretch.text : `${hard ? "lines" : ""}\u0000${stretch.text}\u0000${shared}`;
  let read = cache.get(key);
  if (!read) {
    read = parsedStretch(stretch, shared, hard) ?? asWords(stretch);
    if (cache.size >= CACHE_SIZE) cache.delete(must(cache.keys().next().value));
    cache.set(key, read);
  }
  for (const note of read.notes) used.add(note);
  const shift = stretch.from - 1 - read.lead;
  for (const problem of read.problems) problems.push({ ...problem, line: problem.line + shift });
  return shift === 0 ? read.blocks : read.blocks.map((block) => shifted(block, shift));
}

/** Returns the blocks of a stretch; undefined where it nests deeper, or has more marks, than can be parsed. */
function parsedStretch(stretch: Stretch, shared: string, hard: boolean): ReadStretch | undefined {
  if (isCrowded(stretch.text)) return undefined;
  try {
    const found: Problem[] = [];
    const { root, own, lead } = parseStretch(stretch, shared);
    const reader = new BlockReader(found, root, hard);
    return { blocks: reader.read(own), problems: found, lead, notes: [...reader.referred] };
  } catch (error) {
    // Endlessly nested marks exhaust the stack of the parser.
    if (error instanceof RangeError) return undefined;
    throw error;
  }
}

/** Returns a stretch as plain lines, with a problem. */
function asWords({ text }: Stretch): ReadStretch {
  const lines = text.split("\n");
  const words: RichText = lines.map((line) => plain(line.trim() ? [run(line)] : []));
  return {
    blocks: [{ kind: "text", text: words, from: 1, to: lines.length }],
    problems: [
      { line: 1, message: "This nests deeper, or has more marks, than can be read; it is kept as it was typed." },
    ],
    lead: 0,
    notes: [],
  };
}

function shifted(block: Block, by: number): Block {
  const moved = { ...block, from: block.from + by, to: block.to + by };
  if (moved.kind === "text" && moved.items) return { ...moved, items: moved.items.map((line) => line + by) };
  return moved.kind === "slot" ? { ...moved, blocks: moved.blocks.map((inner) => shifted(inner, by)) } : moved;
}

/** Content among paragraphs that is not text, by the empty paragraph that stands in for it. */
const figureAt = new WeakMap<Paragraph, Block>();

const COVERED = { left: "{<}", above: "{^}" } as const;

class BlockReader {
  /** The footnotes that were referred to. */
  readonly referred = new Set<string>();
  private readonly noted = new Map<string, Run[]>();

  constructor(
    private readonly problems: Problem[],
    private readonly root: Root,
    private readonly lines = false,
  ) {}

  private gather(): Gathered {
    return {
      pictures: [],
      problems: this.problems,
      lines: this.lines,
      footnote: (identifier) => this.footnote(identifier),
      definition: (identifier) => this.definition(identifier),
    };
  }

  read(nodes: readonly RootContent[]): Block[] {
    return nodes.flatMap((node) => this.block(node));
  }

  private defined: Map<string, Definition> | undefined;

  /** Returns the first definition of an address by its identifier. */
  private definition(identifier: string): Definition | undefined {
    if (!this.defined) {
      this.defined = new Map();
      for (const node of this.root.children)
        if (node.type === "definition" && !this.defined.has(node.identifier)) this.defined.set(node.identifier, node);
    }
    return this.defined.get(identifier);
  }

  /** Returns the text of a footnote, its paragraphs joined. */
  footnote(identifier: string): Run[] | undefined {
    this.referred.add(identifier);
    const known = this.noted.get(identifier);
    if (known) return known;
    const found = this.root.children.find(
      (node): node is FootnoteDefinition => node.type === "footnoteDefinition" && node.identifier === identifier,
    );
    if (!found) return undefined;
    this.noted.set(identifier, []);
    const gathered = this.gather();
    const paragraphs = found.children.flatMap((child) => this.paragraphs(child, 0, gathered));
    for (const { line } of gathered.pictures)
      this.problems.push({ line, message: "A picture in a footnote is left out; footnotes hold text." });
    const runs = paragraphs
      .filter(({ runs: own }) => own.length)
      .flatMap(({ runs: own }, at) => [
        ...(at ? [run(" ")] : []),
        ...own.map(({ text, marks, link }) => run(text, marks, link)),
      ]);
    this.noted.set(identifier, runs);
    return runs;
  }

  private block(node: RootContent): Block[] {
    const at = { from: node.position?.start.line ?? 1, to: node.position?.end.line ?? 1 };
    const gathered = this.gather();
    const blocks = this.blocksOf(node, at, gathered).flatMap((block) => this.divided(block));
    for (const { picture, line } of gathered.pictures) blocks.push({ kind: "picture", picture, from: line, to: line });
    return blocks;
  }

  /** Splits a text at content that is not text. */
  private divided(block: Block): Block[] {
    if (!("text" in block) || !block.text.some((paragraph) => figureAt.has(paragraph))) return [block];
    const parts: Block[] = [];
    let from = 0;
    const items = block.kind === "text" ? block.items : undefined;
    const close = (to: number) => {
      const text = block.text.slice(from, to);
      const own = items?.slice(from, to);
      if (text.some(({ runs, kind }) => runs.length || kind !== "plain"))
        parts.push({
          ...block,
          text,
          ...(own ? { items: own, from: own[0] ?? block.from, to: own.at(-1) ?? block.to } : {}),
        } as Block);
      from = to + 1;
    };
    block.text.forEach((paragraph, nth) => {
      const figure = figureAt.get(paragraph);
      if (!figure) return;
      close(nth);
      parts.push(figure);
    });
    close(block.text.length);
    return parts;
  }

  private blocksOf(
    node: RootContent | (DirectiveNode & { type: never }),
    at: { from: number; to: number },
    gathered: Gathered,
  ): Block[] {
    const text = (paragraphs: RichText, items?: readonly number[]): Block[] =>
      paragraphs.some((paragraph) => paragraph.runs.length || figureAt.has(paragraph))
        ? [{ kind: "text", text: paragraphs, ...(items ? { items } : {}), ...at }]
        : [];
    switch (node.type as string) {
      case "heading": {
        const heading = node as Extract<RootContent, { type: "heading" }>;
        return [
          { kind: "heading", depth: heading.depth, text: [plain(inlineRuns(heading.children, gathered))], ...at },
        ];
      }
      case "thematicBreak":
        return [{ kind: "break", ...at }];
      case "leafDirective":
      case "containerDirective":
        return this.directive(node as unknown as DirectiveNode, at);
      case "definition":
      case "footnoteDefinition":
      case "yaml":
        return [];
      case "html": {
        const { value } = node as { value: string };
        return htmlBlocks(value).map((block) => ({ ...block, ...at }));
      }
      case "blockquote": {
        const blocks = this.read((node as { children: RootContent[] }).children);
        const parts: Block[] = [];
        for (const block of blocks) {
          const last = parts.at(-1);
          if (block.kind !== "text" && block.kind !== "heading" && block.kind !== "quote") parts.push(block);
          else if (last?.kind === "quote")
            parts[parts.length - 1] = { ...last, text: [...last.text, ...block.text], to: block.to };
          else parts.push({ kind: "quote", text: block.text, from: block.from, to: block.to });
        }
        const [only] = parts;
        return parts.length === 1 && only?.kind === "quote" ? [{ ...only, ...at }] : parts;
      }
      case "list": {
        const items: number[] = [];
        return text(this.list(node as List, 0, gathered, items), items);
      }
      case "table":
      case "code":
      case "math":
        return [{ kind: "figure", figure: this.figure(node as Table | Code, gathered), ...at }];
      default: {
        const paragraphs = this.paragraphs(node as BlockContent, 0, gathered);
        const [only] = paragraphs;
        // A formula alone on its line is a displayed formula.
        const [single] = only?.runs ?? [];
        const source = node.position ? (node.position.end.offset ?? 0) - (node.position.start.offset ?? 0) : 0;
        if (
          paragraphs.length === 1 &&
          only?.runs.length === 1 &&
          single?.marks?.join() === "formula" &&
          source >= single.text.length + 4
        )
          return [{ kind: "figure", figure: { kind: "formula", tex: single.text }, ...at }];
        return text(paragraphs);
      }
    }
  }

  private figure(node: Table | Code | { type: "math"; value: string }, gathered: Gathered): Figure {
    if (node.type === "code") return { kind: "code", language: cutText(node.lang ?? "", 40), text: node.value };
    if (node.type === "table") return this.table(node, gathered) ?? this.tooWide(node, gathered);
    return { kind: "formula", tex: (node as { value: string }).value };
  }

  /** Returns block content as flat paragraphs at a level. Content that is not text is collected, to follow it. */
  private paragraphs(node: BlockContent | DefinitionContent, level: number, gathered: Gathered): RichText {
    const line = node.position?.start.line ?? 1;
    switch (node.type as string) {
      case "paragraph":
      case "heading":
        return keep(plain(inlineRuns((node as unknown as { children: never[] }).children, gathered), level));
      case "list":
        return this.list(node as List, level, gathered);
      case "blockquote":
        return (node as { children: BlockContent[] }).children.flatMap((child) =>
          this.paragraphs(child, level, gathered),
        );
      case "table":
      case "code":
      case "math":
        return [
          this.holder({
            kind: "figure",
            figure: this.figure(node as Table | Code, gathered),
            from: line,
            to: node.position?.end.line ?? line,
          }),
        ];
      case "html":
        return htmlBlocks((node as { value: string }).value).flatMap((block) => ("text" in block ? block.text : []));
      case "leafDirective":
      case "containerDirective":
        return ((node as unknown as DirectiveNode).children as BlockContent[]).flatMap((child) =>
          child.type === "paragraph" || child.type === "list" ? this.paragraphs(child, level, gathered) : [],
        );
      default:
        return [];
    }
  }

  private holder(block: Block): Paragraph {
    const paragraph = plain([]);
    figureAt.set(paragraph, block);
    return paragraph;
  }

  private list(node: List, level: number, gathered: Gathered, items?: number[]): RichText {
    if (level > MAX_LEVEL)
      this.problems.push({
        line: node.position?.start.line ?? 1,
        message: `Lists nest to ${MAX_LEVEL + 1} levels; deeper items are raised to the last of them.`,
      });
    const at = Math.min(level, MAX_LEVEL);
    let number = node.start ?? 1;
    let begun = false;
    return node.children.flatMap((item) => {
      const [first, ...rest] = item.children;
      const kind = node.ordered ? "number" : "bullet";
      const start = node.ordered && !begun && number !== 1 ? { start: number } : {};
      begun = true;
      number += 1;
      const head: RichText =
        first?.type === "paragraph"
          ? [{ kind, level: at, ...start, runs: inlineRuns(first.children, gathered) }]
          : [{ kind, level: at, ...start, runs: [] }];
      const below = first?.type === "paragraph" ? rest : item.children;
      const line = item.position?.start.line ?? 1;
      items?.push(line);
      const under = below.flatMap((child): RichText => {
        // Content that is not text ends the list here; the next item repeats its number.
        if (["table", "code", "math"].includes(child.type as string)) begun = false;
        const deeper = Math.min(at + 1, MAX_LEVEL);
        if (child.type === "list") return this.list(child, at + 1, gathered, items);
        const text = this.paragraphs(child, deeper, gathered);
        for (const _ of text) items?.push(line);
        return text;
      });
      return [...head, ...under];
    });
  }

  /** Returns the words of a table with too many cells, a line for each row. */
  private tooWide(node: Table, gathered: Gathered): Figure {
    this.problems.push({
      line: node.position?.start.line ?? 1,
      message: `The table would have more than ${MOST.cells.toLocaleString("en")} cells; its words are kept as they were typed.`,
    });
    const rows = node.children.map((row) =>
      row.children
        .map((cell) =>
          inlineRuns(cell.children, gathered)
            .map(({ text }) => text)
            .join(""),
        )
        .join(" | "),
    );
    return { kind: "code", language: "", text: rows.join("\n") };
  }

  /** Returns a table; undefined where it would have too many cells. */
  private table(node: Table, gathered: Gathered): Extract<Figure, { kind: "table" }> | undefined {
    const width = node.children.reduce((most, { children }) => Math.max(most, children.length), 1);
    if (width * node.children.length > MOST.cells) return undefined;
    const rows = node.children.map((row) =>
      Array.from({ length: width }, (_, at): Cell | "left" | "above" => {
        const runs = inlineRuns(row.children[at]?.children ?? [], gathered);
        const text = runs.length ? [plain(runs)] : [];
        const words = textOf(text);
        return words === COVERED.left ? "left" : words === COVERED.above ? "above" : { text };
      }),
    );
    const bare = rows[0]?.every((cell) => typeof cell === "object" && cell.text.length === 0) && rows.length > 1;
    return {
      kind: "table",
      rows: spanned(bare ? rows.slice(1) : rows),
      header: bare ? 0 : 1,
      align: Array.from({ length: width }, (_, at) => must(ALIGN[node.align?.[at] ?? "left"])),
    };
  }

  private directive(node: DirectiveNode, at: { from: number; to: number }): Block[] {
    return readDirective(node, {
      at,
      inner: () => this.read(node.children),
      say: (message) => this.problems.push({ line: at.from, message }),
    });
  }
}

/** Returns the rows with their covered cells: each cell spans the positions to its right and below that say so. */
function spanned(rows: (Cell | "left" | "above")[][]): (Cell | null)[][] {
  return rows.map((row, y) =>
    row.map((cell, x) => {
      if (typeof cell !== "object") return null;
      let columns = 1;
      while (row[x + columns] === "left") columns++;
      let down = 1;
      while (rows[y + down]?.[x] === "above") down++;
      return { ...cell, ...(columns > 1 ? { columns } : {}), ...(down > 1 ? { rows: down } : {}) };
    }),
  );
}

function plain(runs: Paragraph["runs"], level = 0): Paragraph {
  return { kind: "plain", level, runs };
}

function keep(paragraph: Paragraph): RichText {
  return paragraph.runs.length ? [paragraph] : [];
}
