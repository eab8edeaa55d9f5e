import {
  type Paragraph,
  type Run,
  run,
  type RichText,
  cutText,
  MAX_LEVEL,
  MOST,
  type Cell,
  textOf,
  must,
} from "@unitext/core/model";
import type {
  Root,
  RootContent,
  Definition,
  FootnoteDefinition,
  List,
  Table,
  Code,
  BlockContent,
  DefinitionContent,
} from "mdast";
import { type DirectiveNode, ALIGN, readDirective } from "./directives";
import { htmlBlocks } from "./html";
import { type Gathered, inlineRuns } from "./inline";
import type { Block, Problem, Figure } from "./manuscript";

/** Content among paragraphs that is not text, by the empty paragraph that takes its place. */
const figureAt = new WeakMap<Paragraph, Block>();
const COVERED = { left: "{<}", above: "{^}" } as const;

/** Joins the texts of a quotation; what is no text stays beside them. */
function quoted(blocks: readonly Block[]): Block[] {
  const parts: Block[] = [];
  for (const block of blocks) {
    const last = parts.at(-1);
    if (block.kind !== "text" && block.kind !== "heading" && block.kind !== "quote") parts.push(block);
    else if (last?.kind === "quote")
      parts[parts.length - 1] = { ...last, text: [...last.text, ...block.text], to: block.to };
    else parts.push({ kind: "quote", text: block.text, from: block.from, to: block.to });
  }
  return parts;
}

/** Returns the formula of a paragraph that consists of a formula between double marks; else undefined. */
function displayedFormula(node: RootContent | DirectiveNode, paragraphs: readonly Paragraph[]): string | undefined {
  const [only, more] = paragraphs;
  const [single, other] = only?.runs ?? [];
  if (more || other || single?.marks?.join() !== "formula") return undefined;
  const length = node.position ? (node.position.end.offset ?? 0) - (node.position.start.offset ?? 0) : 0;
  return length >= single.text.length + 4 ? single.text : undefined;
}

export class BlockReader {
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
        ...own.map(({ text, marks, link, binding }) => run(text, marks, link, undefined, binding)),
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
        const parts = quoted(this.read((node as { children: RootContent[] }).children));
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
        const tex = displayedFormula(node, paragraphs);
        return tex === undefined ? text(paragraphs) : [{ kind: "figure", figure: { kind: "formula", tex }, ...at }];
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

/** Returns a plain paragraph of runs. */
export function plain(runs: Paragraph["runs"], level = 0): Paragraph {
  return { kind: "plain", level, runs };
}

function keep(paragraph: Paragraph): RichText {
  return paragraph.runs.length ? [paragraph] : [];
}
