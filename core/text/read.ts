import { type Align, type Cell, CHART_FORMS, type ChartForm, DIAGRAM_FORMS, type DiagramForm, MAX_LEVEL, numberIn, type Paragraph, type RichText, type Run, run, textOf, TRANSITIONS, type Transition } from "@unitext/core/model";
import type { BlockContent, Code, DefinitionContent, FootnoteDefinition, List, Nodes, Root, RootContent, Table } from "mdast";
import { parse } from "yaml";
import { htmlBlocks } from "./html";
import { type Gathered, inlineRuns } from "./inline";
import { type Block, type Figure, FrontMatter, type Manuscript, type Problem, type SlideMark } from "./manuscript";
import { definitions, type Segment, segments } from "./segments";
import { parseMarkdown, parseStretch } from "./syntax";

interface DirectiveNode {
  type: "leafDirective" | "containerDirective";
  name: string;
  attributes?: Record<string, string | null | undefined> | null;
  children: RootContent[];
  position?: Nodes["position"];
}

const KEYS = Object.keys(FrontMatter.shape).join(", ");

/** Reads the front matter: what it says, the index of the first line after it, and what is wrong with it. */
function readFront(lines: readonly string[]): { front: FrontMatter; next: number; problems: Problem[] } {
  const end = lines[0]?.trimEnd() === "---" ? lines.findIndex((line, index) => index > 0 && line.trimEnd() === "---") : -1;
  if (end < 0) return { front: {}, next: 0, problems: [] };
  const problems: Problem[] = [];
  let value: unknown;
  try {
    value = parse(lines.slice(1, end).join("\n")) ?? {};
  } catch (error) {
    const line = 2 + (((error as { linePos?: { line: number }[] }).linePos?.[0]?.line ?? 1) - 1);
    return { front: {}, next: end + 1, problems: [{ line, message: "The properties at the top are not in the form “key: value”; they are passed over." }] };
  }
  if (typeof value !== "object" || value === null || Array.isArray(value)) {
    if (lines.slice(1, end).every((line) => line.trim() === "")) return { front: {}, next: end + 1, problems };
    return { front: {}, next: 0, problems };
  }
  const front: Record<string, unknown> = {};
  for (const [key, given] of Object.entries(value)) {
    const line = lines.findIndex((text) => text.startsWith(`${key}:`)) + 1;
    const schema = FrontMatter.shape[key as keyof FrontMatter];
    const plain = typeof given === "number" && key !== "rate" ? String(given) : given instanceof Date ? given.toISOString().slice(0, 10) : given;
    if (!schema) problems.push({ line, message: `“${key}” is not a property of a deck. Known are ${KEYS}.` });
    else if (schema.safeParse(plain).success) front[key] = plain;
    else problems.push({ line, message: `“${key}” cannot be ${JSON.stringify(given)}; it is passed over.` });
  }
  return { front: front as FrontMatter, next: end + 1, problems };
}

/**
 * Reads a text (CommonMark, GFM, front matter and the directives of docs/text-format.md) into blocks. The blocks are
 * read as they are asked for, a stretch at a time, so that the first slides of a long text are there at once;
 * `problems` is complete when the last block has been taken. Never throws: what cannot be understood stays as words.
 * With `lines`, every line of a paragraph stays one.
 */
export function readText(text: string, { lines: hard = false }: { lines?: boolean } = {}): Manuscript {
  const plain = text.replace(/^\uFEFF/, "");
  const lines = plain.split(plain.includes("\r") ? /\r\n|\r|\n/ : "\n");
  const { front, next, problems } = readFront(lines);
  let found: string | undefined;
  const shared = () => (found ??= definitions(lines));
  function* blocks(): Generator<Block> {
    const used = new Set<string>();
    for (const segment of segments(lines, next)) yield* readSegment(segment, shared, problems, used, hard);
    yield* unused(shared(), used, lines, problems);
  }
  return { front, blocks: { [Symbol.iterator]: blocks }, problems };
}

const CACHE_SIZE = 4000;
interface ReadSegment {
  blocks: Block[];
  problems: Problem[];
  /** The footnotes that it refers to. */
  notes: string[];
}
const cache = new Map<string, ReadSegment>();

/** Footnotes that nothing refers to go to the notes of the last slide, so that they are not lost. */
function* unused(shared: string, used: ReadonlySet<string>, lines: readonly string[], problems: Problem[]): Generator<Block> {
  if (!shared.includes("[^")) return;
  const root = parseMarkdown(shared);
  const reader = new BlockReader(problems, root);
  for (const node of root.children) {
    if (node.type !== "footnoteDefinition" || used.has(node.identifier)) continue;
    const at = Math.max(1, lines.findIndex((line) => line.trimStart().startsWith(`[^${node.label ?? node.identifier}]:`)) + 1);
    problems.push({ line: at, message: `Nothing refers to the footnote “${node.identifier}”; it is kept in the notes.` });
    const text = reader.footnote(node.identifier);
    if (text?.length) yield { kind: "notes", text: [plain(text)], from: at, to: at };
  }
}

/** Reads one segment; equal segments are parsed once. */
function readSegment(segment: Segment, definitionsOf: () => string, problems: Problem[], used: Set<string>, hard: boolean): Block[] {
  const shared = segment.text.includes("[") ? definitionsOf() : "";
  const refers = shared !== "";
  const key = `${hard ? "lines" : ""}\u0000${segment.text}${refers ? `\u0000${shared}` : ""}`;
  let read = cache.get(key);
  if (!read) {
    read = parseSegment(segment.text, refers ? shared : "", hard);
    if (cache.size >= CACHE_SIZE) cache.delete(cache.keys().next().value as string);
    cache.set(key, read);
  }
  for (const note of read.notes) used.add(note);
  const shift = segment.from - 1;
  for (const problem of read.problems) problems.push({ ...problem, line: problem.line + shift });
  return shift === 0 ? read.blocks : read.blocks.map((block) => shifted(block, shift));
}

function shifted(block: Block, by: number): Block {
  const moved = { ...block, from: block.from + by, to: block.to + by };
  if (moved.kind === "text" && moved.items) return { ...moved, items: moved.items.map((line) => line + by) };
  return moved.kind === "slot" ? { ...moved, blocks: moved.blocks.map((inner) => shifted(inner, by)) } : moved;
}

function parseSegment(text: string, shared: string, hard: boolean): ReadSegment {
  const problems: Problem[] = [];
  const { root, own } = parseStretch(text, shared);
  const reader = new BlockReader(problems, root, hard);
  return { blocks: reader.read(own), problems, notes: [...reader.referred] };
}

/** What stands among the paragraphs of a text and is none: in its place stands an empty one, which knows it. */
const figureAt = new WeakMap<Paragraph, Block>();

const ALIGN: Record<string, Align> = { left: "start", right: "end", center: "centre", start: "start", end: "end", centre: "centre" };
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
    return { pictures: [], problems: this.problems, lines: this.lines, footnote: (identifier) => this.footnote(identifier) };
  }

  read(nodes: readonly RootContent[]): Block[] {
    return nodes.flatMap((node) => this.block(node));
  }

  /** What a footnote says, its paragraphs joined. */
  footnote(identifier: string): Run[] | undefined {
    this.referred.add(identifier);
    const known = this.noted.get(identifier);
    if (known) return known;
    const found = this.root.children.find((node): node is FootnoteDefinition => node.type === "footnoteDefinition" && node.identifier === identifier);
    if (!found) return undefined;
    this.noted.set(identifier, []);
    const gathered = this.gather();
    const paragraphs = found.children.flatMap((child) => this.paragraphs(child, 0, gathered));
    for (const { line } of gathered.pictures) this.problems.push({ line, message: "A picture in a footnote is left out; footnotes hold text." });
    const runs = paragraphs.filter(({ runs: own }) => own.length).flatMap(({ runs: own }, at) => [...(at ? [run(" ")] : []), ...own.map(({ text, marks, link }) => run(text, marks, link))]);
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

  /** A text that holds something else as the texts around it. */
  private divided(block: Block): Block[] {
    if (!("text" in block) || !block.text.some((paragraph) => figureAt.has(paragraph))) return [block];
    const parts: Block[] = [];
    let from = 0;
    const items = block.kind === "text" ? block.items : undefined;
    const close = (to: number) => {
      const text = block.text.slice(from, to);
      const own = items?.slice(from, to);
      if (text.some(({ runs, kind }) => runs.length || kind !== "plain")) parts.push({ ...block, text, ...(own ? { items: own, from: own[0] ?? block.from, to: own.at(-1) ?? block.to } : {}) } as Block);
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

  private blocksOf(node: RootContent | (DirectiveNode & { type: never }), at: { from: number; to: number }, gathered: Gathered): Block[] {
    const text = (paragraphs: RichText, items?: readonly number[]): Block[] => (paragraphs.some((paragraph) => paragraph.runs.length || figureAt.has(paragraph)) ? [{ kind: "text", text: paragraphs, ...(items ? { items } : {}), ...at }] : []);
    switch (node.type as string) {
      case "heading": {
        const heading = node as Extract<RootContent, { type: "heading" }>;
        return [{ kind: "heading", depth: heading.depth, text: [plain(inlineRuns(heading.children, gathered))], ...at }];
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
          else if (last?.kind === "quote") parts[parts.length - 1] = { ...last, text: [...last.text, ...block.text], to: block.to };
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
        // A formula that stands alone on its line is set on a line of its own.
        const [single] = only?.runs ?? [];
        const source = node.position ? (node.position.end.offset ?? 0) - (node.position.start.offset ?? 0) : 0;
        if (paragraphs.length === 1 && only?.runs.length === 1 && single?.marks?.join() === "formula" && source >= single.text.length + 4) return [{ kind: "figure", figure: { kind: "formula", tex: single.text }, ...at }];
        return text(paragraphs);
      }
    }
  }

  private figure(node: Table | Code | { type: "math"; value: string }, gathered: Gathered): Figure {
    if (node.type === "code") return { kind: "code", language: node.lang?.slice(0, 40) ?? "", text: node.value };
    if (node.type === "table") return this.table(node, gathered);
    return { kind: "formula", tex: (node as { value: string }).value };
  }

  /** Block content as flat paragraphs at a level. What is no text is gathered, to stand after it. */
  private paragraphs(node: BlockContent | DefinitionContent, level: number, gathered: Gathered): RichText {
    const line = node.position?.start.line ?? 1;
    switch (node.type as string) {
      case "paragraph":
      case "heading":
        return keep(plain(inlineRuns((node as unknown as { children: never[] }).children, gathered), level));
      case "list":
        return this.list(node as List, level, gathered);
      case "blockquote":
        return (node as { children: BlockContent[] }).children.flatMap((child) => this.paragraphs(child, level, gathered));
      case "table":
      case "code":
      case "math":
        return [this.holder({ kind: "figure", figure: this.figure(node as Table | Code, gathered), from: line, to: node.position?.end.line ?? line })];
      case "html":
        return htmlBlocks((node as { value: string }).value).flatMap((block) => ("text" in block ? block.text : []));
      case "leafDirective":
      case "containerDirective":
        return ((node as unknown as DirectiveNode).children as BlockContent[]).flatMap((child) => (child.type === "paragraph" || child.type === "list" ? this.paragraphs(child, level, gathered) : []));
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
    if (level > MAX_LEVEL) this.problems.push({ line: node.position?.start.line ?? 1, message: `Lists nest to ${MAX_LEVEL + 1} levels; deeper items are raised to the last of them.` });
    const at = Math.min(level, MAX_LEVEL);
    let number = node.start ?? 1;
    let begun = false;
    return node.children.flatMap((item) => {
      const [first, ...rest] = item.children;
      const kind = node.ordered ? "number" : "bullet";
      const start = node.ordered && !begun && number !== 1 ? { start: number } : {};
      begun = true;
      number += 1;
      const head: RichText = first?.type === "paragraph" ? [{ kind, level: at, ...start, runs: inlineRuns(first.children, gathered) }] : [{ kind, level: at, ...start, runs: [] }];
      const below = first?.type === "paragraph" ? rest : item.children;
      const line = item.position?.start.line ?? 1;
      items?.push(line);
      const under = below.flatMap((child): RichText => {
        // What is no text ends the list here; the next item says its number again.
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

  private table(node: Table, gathered: Gathered): Extract<Figure, { kind: "table" }> {
    const width = Math.max(1, ...node.children.map(({ children }) => children.length));
    const rows = node.children.map((row) => Array.from({ length: width }, (_, at): Cell | "left" | "above" => {
      const runs = inlineRuns(row.children[at]?.children ?? [], gathered);
      const text = runs.length ? [plain(runs)] : [];
      const words = textOf(text);
      return words === COVERED.left ? "left" : words === COVERED.above ? "above" : { text };
    }));
    const bare = rows[0]?.every((cell) => typeof cell === "object" && cell.text.length === 0) && rows.length > 1;
    return { kind: "table", rows: spanned(bare ? rows.slice(1) : rows), header: bare ? 0 : 1, align: Array.from({ length: width }, (_, at) => ALIGN[node.align?.[at] ?? "left"] as Align) };
  }

  private directive(node: DirectiveNode, at: { from: number; to: number }): Block[] {
    const attributes = node.attributes ?? {};
    const inner = () => this.read(node.children);
    const say = (message: string) => this.problems.push({ line: at.from, message });
    switch (node.name) {
      case "slide":
        return [{ kind: "mark", mark: this.mark(attributes, at.from), ...at }];
      case "join":
        return [{ kind: "join", ...at }];
      case "notes": {
        const blocks = inner();
        const text = blocks.flatMap((block): RichText => {
          if (block.kind === "text" || block.kind === "heading" || block.kind === "quote") return block.text;
          if (block.kind === "figure" && block.figure.kind === "code") return block.figure.text.split("\n").map((line) => plain(line ? [run(line, ["code"])] : []));
          return [];
        });
        if (blocks.some(({ kind }) => kind === "picture")) say("A picture in the notes is left out; notes hold text.");
        if (blocks.some((block) => block.kind === "figure" && block.figure.kind !== "code")) say("A table or formula in the notes is left out; notes hold text.");
        return [{ kind: "notes", text, ...at }];
      }
      case "slot":
      case "column": {
        const width = Number(attributes.width?.replace(/%$/, "") ?? Number.NaN);
        const slot = attributes.name ?? (node.name === "column" ? "column" : undefined);
        if (slot) return [{ kind: "slot", slot, ...("steps" in attributes ? { steps: true } : {}), ...(width >= 5 && width <= 95 ? { width } : {}), blocks: inner(), ...at }];
        say("A slot needs a name, as in :::slot{name=right}; its text is kept in the body.");
        return inner();
      }
      case "align": {
        const to = ALIGN[attributes.to ?? ""];
        if (!to) say("An alignment is start, centre or end, as in :::align{to=centre}.");
        const blocks = inner();
        return blocks.map((block, nth) => {
          const lines = { from: nth ? block.from : at.from, to: nth < blocks.length - 1 ? block.to : at.to };
          return to && (block.kind === "text" || block.kind === "quote" || block.kind === "heading") ? { ...block, ...lines, text: block.text.map((paragraph) => ({ ...paragraph, align: to })) } : { ...block, ...lines };
        });
      }
      case "table": {
        const header = Number(attributes.header ?? 1);
        const rows = inner();
        return rows.map((block) => {
          if (block.kind !== "figure" || block.figure.kind !== "table") return block;
          const { figure } = block;
          return { ...block, ...at, figure: { ...figure, header: Number.isInteger(header) && header >= 0 && figure.header ? Math.min(header, figure.rows.length) : figure.header, ...(attributes.caption ? { caption: attributes.caption } : {}) } };
        });
      }
      case "diagram": {
        const form = DIAGRAM_FORMS.find((name) => name === (attributes.kind ?? "steps"));
        const blocks = inner();
        const text = blocks.flatMap((block) => (block.kind === "text" ? block.text : []));
        if (!form || !text.length || blocks.some(({ kind }) => kind !== "text")) {
          say(`A diagram is drawn from a list and its kind is one of ${DIAGRAM_FORMS.join(", ")}; what it holds is kept as text.`);
          return blocks;
        }
        return [{ kind: "figure", figure: { kind: "diagram", form: form as DiagramForm, text }, ...at }];
      }
      case "chart": {
        const form = CHART_FORMS.find((name) => name === (attributes.kind ?? "column"));
        const blocks = inner();
        const table = blocks.find((block) => block.kind === "figure" && block.figure.kind === "table");
        const figure = form && table?.kind === "figure" && table.figure.kind === "table" ? chartOf(table.figure, form) : undefined;
        if (!figure) say(`A chart is drawn from a table with a row of names and columns of numbers, and its kind is one of ${CHART_FORMS.join(", ")}; what it holds is kept.`);
        return figure ? [{ kind: "figure", figure, ...at }, ...blocks.filter((block) => block !== table)] : blocks;
      }
      default:
        say(`“${node.name}” is not a directive of this text form. Known are slide, notes, slot, column, align, table, diagram, chart and join; what it holds is kept.`);
        return inner();
    }
  }

  private mark(attributes: NonNullable<DirectiveNode["attributes"]>, line: number): SlideMark {
    const mark: SlideMark = {};
    let seconds = 0.5;
    let kind: Transition["kind"] | undefined;
    for (const [key, value] of Object.entries(attributes)) {
      const said = value ?? "";
      const transition = TRANSITIONS.find((name) => name === said);
      const numbers = said.split(/[\s,]+/).map(Number);
      if (key === "id" && said) mark.id = said;
      else if (key === "arrangement" && said) mark.arrangement = said;
      else if (key === "hidden") mark.hidden = said !== "false";
      else if (key === "steps") mark.steps = said !== "false";
      else if (key === "level" && /^[0-8]$/.test(said)) mark.level = Number(said);
      else if (key === "background" && /^#[0-9a-f]{6}$/i.test(said)) mark.background = { colour: said.toLowerCase() };
      else if (key === "background" && said && !said.startsWith("#")) mark.background = { picture: said };
      else if (key === "transition" && transition) kind = transition;
      else if (key === "seconds" && Number(said) >= 0.1 && Number(said) <= 10) seconds = Number(said);
      else if (key === "delay" && Number(said) >= 0.5 && Number(said) <= 3600) mark.delay = Number(said);
      else if (key === "widths" && (numbers.length === 2 || numbers.length === 3) && numbers.every((width) => width >= 5 && width <= 95)) mark.widths = numbers;
      else this.problems.push({ line, message: `A slide has no “${key}${said ? `=${said}` : ""}”. Known are #id, arrangement, hidden, level from 0 to 8, steps, background, transition (${TRANSITIONS.join(", ")}), seconds, delay and widths.` });
    }
    return kind ? { ...mark, transition: { kind, seconds } } : mark;
  }
}

/** The rows with their covered places: each cell reaches over the places to its right, and below it, that say so. */
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

/** A chart from a table whose first row names the series and whose first column names the categories, or undefined when its other cells are not numbers. */
export function chartOf(table: Extract<Figure, { kind: "table" }>, form: ChartForm): Extract<Figure, { kind: "chart" }> | undefined {
  const words = table.rows.map((row) => row.map((cell) => (cell ? textOf(cell.text).replace(/\s+/g, " ").trim() : "")));
  const [head, ...body] = table.header ? words : [[], ...words];
  if (!body.length || table.header > 1) return undefined;
  const columns = Math.max(...words.map(({ length }) => length));
  const series = Array.from({ length: columns - 1 }, (_, at) => ({ name: head?.[at + 1] ?? "", values: body.map((row) => (row[at + 1] ? (numberIn(row[at + 1] as string) ?? Number.NaN) : null)) }));
  const valid = series.length > 0 && series.every(({ values }) => values.every((value) => value === null || !Number.isNaN(value)) && values.some((value) => value !== null));
  return valid ? { kind: "chart", form, categories: body.map(([name]) => name ?? ""), series } : undefined;
}

function plain(runs: Paragraph["runs"], level = 0): Paragraph {
  return { kind: "plain", level, runs };
}

function keep(paragraph: Paragraph): RichText {
  return paragraph.runs.length ? [paragraph] : [];
}
