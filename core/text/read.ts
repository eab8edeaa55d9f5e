import { MAX_LEVEL, type Paragraph, type RichText, run } from "@unitext/core/model";
import type { BlockContent, DefinitionContent, FootnoteDefinition, List, Nodes, Root, RootContent, Table } from "mdast";
import { fromMarkdown } from "mdast-util-from-markdown";
import { directiveFromMarkdown } from "mdast-util-directive";
import { gfmFromMarkdown } from "mdast-util-gfm";
import { directive } from "micromark-extension-directive";
import { gfm } from "micromark-extension-gfm";
import { parse } from "yaml";
import { type Gathered, inlineRuns } from "./inline";
import { type Block, FrontMatter, type Manuscript, type Problem, type SlideMark } from "./manuscript";
import { definitions, type Segment, segments } from "./segments";

/** Directives as blocks only: a colon inside a line (10:am) is a colon. */
const { flow } = directive();
const SYNTAX = { extensions: [gfm(), { flow }], mdastExtensions: [gfmFromMarkdown(), directiveFromMarkdown()] };

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
 */
export function readText(text: string): Manuscript {
  const plain = text.replace(/^\uFEFF/, "");
  const lines = plain.split(plain.includes("\r") ? /\r\n|\r|\n/ : "\n");
  const { front, next, problems } = readFront(lines);
  let found: string | undefined;
  const shared = () => (found ??= definitions(lines));
  function* blocks(): Generator<Block> {
    for (const segment of segments(lines, next)) yield* readSegment(segment, shared, problems);
  }
  return { front, blocks: { [Symbol.iterator]: blocks }, problems };
}

const CACHE_SIZE = 4000;
const cache = new Map<string, { blocks: Block[]; problems: Problem[] }>();

/** Reads one segment; equal segments are parsed once. */
function readSegment(segment: Segment, definitionsOf: () => string, problems: Problem[]): Block[] {
  const shared = segment.text.includes("[") ? definitionsOf() : "";
  const refers = shared !== "";
  const key = refers ? `${segment.text}\u0000${shared}` : segment.text;
  let read = cache.get(key);
  if (!read) {
    read = parseSegment(segment.text, refers ? shared : "");
    if (cache.size >= CACHE_SIZE) cache.delete(cache.keys().next().value as string);
    cache.set(key, read);
  }
  const shift = segment.from - 1;
  for (const problem of read.problems) problems.push({ ...problem, line: problem.line + shift });
  return shift === 0 ? read.blocks : read.blocks.map((block) => shifted(block, shift));
}

function shifted(block: Block, by: number): Block {
  const moved = { ...block, from: block.from + by, to: block.to + by };
  return moved.kind === "slot" ? { ...moved, blocks: moved.blocks.map((inner) => shifted(inner, by)) } : moved;
}

function parseSegment(text: string, shared: string): { blocks: Block[]; problems: Problem[] } {
  const problems: Problem[] = [];
  const length = text.split("\n").length;
  const root: Root = fromMarkdown(shared ? `${text}\n\n${shared}` : text, SYNTAX);
  const reader = new BlockReader(problems, root);
  const own = root.children.filter((node) => (node.position?.start.line ?? 1) <= length);
  return { blocks: reader.read(own), problems };
}

class BlockReader {
  constructor(
    private readonly problems: Problem[],
    private readonly root: Root,
  ) {}

  private gather(): Gathered {
    return { pictures: [], footnotes: [], problems: this.problems, line: (line) => line };
  }

  read(nodes: readonly RootContent[]): Block[] {
    return nodes.flatMap((node) => this.block(node));
  }

  private block(node: RootContent): Block[] {
    const at = { from: node.position?.start.line ?? 1, to: node.position?.end.line ?? 1 };
    const gathered = this.gather();
    const blocks = this.blocksOf(node, at, gathered);
    for (const { source, alt, line } of gathered.pictures) blocks.push({ kind: "picture", source, alt, from: line, to: line });
    if (gathered.footnotes.length) blocks.push({ kind: "notes", text: this.footnotes(gathered.footnotes), ...at });
    return blocks;
  }

  private blocksOf(node: RootContent | (DirectiveNode & { type: never }), at: { from: number; to: number }, gathered: Gathered): Block[] {
    const text = (paragraphs: RichText): Block[] => (paragraphs.some((paragraph) => paragraph.runs.length) ? [{ kind: "text", text: paragraphs, ...at }] : []);
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
        return [];
      default:
        return text(this.paragraphs(node as BlockContent, 0, gathered));
    }
  }

  /** Block content as flat paragraphs at a level. */
  private paragraphs(node: BlockContent | DefinitionContent, level: number, gathered: Gathered): RichText {
    const line = node.position?.start.line ?? 1;
    switch (node.type) {
      case "paragraph":
        return keep(plain(inlineRuns(node.children, gathered), level));
      case "heading":
        return keep(plain(inlineRuns(node.children, gathered), level));
      case "list":
        return this.list(node, level, gathered);
      case "code":
        return keep(plain([run(node.value, ["code"])], level));
      case "blockquote":
        return node.children.flatMap((child) => this.paragraphs(child, level, gathered));
      case "table":
        this.problems.push({ line, message: "A table is taken as one line of text a row; its cells are kept, its columns are not drawn." });
        return this.table(node, level, gathered);
      case "html":
        if (/^\s*<!--/.test(node.value)) return [];
        return keep(plain([run(node.value.trim())], level));
      default:
        return [];
    }
  }

  private list(node: List, level: number, gathered: Gathered): RichText {
    if (level > MAX_LEVEL) this.problems.push({ line: node.position?.start.line ?? 1, message: `Lists nest to ${MAX_LEVEL + 1} levels; deeper items are raised to the last of them.` });
    const at = Math.min(level, MAX_LEVEL);
    return node.children.flatMap((item) => {
      const [first, ...rest] = item.children;
      const kind = node.ordered ? "number" : "bullet";
      const head: RichText = first?.type === "paragraph" ? [{ kind, level: at, runs: inlineRuns(first.children, gathered) }] : [{ kind, level: at, runs: [] }];
      const below = first?.type === "paragraph" ? rest : item.children;
      return [...head, ...below.flatMap((child) => this.paragraphs(child, Math.min(at + 1, MAX_LEVEL), gathered))];
    });
  }

  private table(node: Table, level: number, gathered: Gathered): RichText {
    return node.children.flatMap((row, index) => {
      const cells = row.children.map((cell) => inlineRuns(cell.children, gathered));
      const runs = cells.flatMap((cell, nth) => (nth ? [run(" | "), ...cell] : cell));
      return keep(plain(index === 0 ? runs.map((item) => run(item.text, ["strong", ...(item.marks ?? [])], item.link)) : runs, level));
    });
  }

  private footnotes(identifiers: readonly string[]): RichText {
    return identifiers.flatMap((identifier, nth) => {
      const found = this.root.children.find((node): node is FootnoteDefinition => node.type === "footnoteDefinition" && node.identifier === identifier);
      const body = found?.children.flatMap((child) => this.paragraphs(child, 0, this.gather())) ?? [];
      return body.map((paragraph, index) => (index === 0 ? { ...paragraph, runs: [run(`[${nth + 1}] `), ...paragraph.runs] } : paragraph));
    });
  }

  private directive(node: DirectiveNode, at: { from: number; to: number }): Block[] {
    const attributes = node.attributes ?? {};
    switch (node.name) {
      case "slide":
        return [{ kind: "mark", mark: this.mark(attributes, at.from), ...at }];
      case "notes": {
        const gathered = this.gather();
        const text = node.children.flatMap((child) => this.paragraphs(child as BlockContent, 0, gathered));
        if (gathered.pictures.length) this.problems.push({ line: at.from, message: "A picture in the notes is left out; notes hold text." });
        return [{ kind: "notes", text: [...text, ...this.footnotes(gathered.footnotes)], ...at }];
      }
      case "slot":
        if (attributes.name) return [{ kind: "slot", slot: attributes.name, blocks: this.read(node.children), ...at }];
        this.problems.push({ line: at.from, message: "A slot needs a name, as in :::slot{name=right}; its text is kept in the body." });
        return this.read(node.children);
      default:
        this.problems.push({ line: at.from, message: `“${node.name}” is not a directive of this text form. Known are slide, notes and slot; what it holds is kept.` });
        return this.read(node.children);
    }
  }

  private mark(attributes: NonNullable<DirectiveNode["attributes"]>, line: number): SlideMark {
    const mark: SlideMark = {};
    for (const [key, value] of Object.entries(attributes)) {
      if (key === "id" && value) mark.id = value;
      else if (key === "arrangement" && value) mark.arrangement = value;
      else if (key === "hidden") mark.hidden = value !== "false";
      else if (key === "level" && /^[0-8]$/.test(value ?? "")) mark.level = Number(value);
      else this.problems.push({ line, message: `A slide has no “${key}${value ? `=${value}` : ""}”. Known are #id, arrangement, hidden and level from 0 to 8.` });
    }
    return mark;
  }
}

function plain(runs: Paragraph["runs"], level = 0): Paragraph {
  return { kind: "plain", level, runs };
}

function keep(paragraph: Paragraph): RichText {
  return paragraph.runs.length ? [paragraph] : [];
}
