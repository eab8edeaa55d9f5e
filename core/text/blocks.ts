import type { RootContent } from "mdast";
import type { LeafDirective } from "mdast-util-directive";
import { frontMatterText } from "./front";
import type { Block, FrontMatter, SlideMark, Steps } from "./manuscript";
import { backgroundWord, sizeWord } from "./deck";
import { blocksOf, container, contentNodes, FootnoteList, inlineNodes, lineCount, markdownOf } from "./write";

const stepsWord = (steps: Steps) => (steps === "main" ? steps : "");

function markAttributes({
  id,
  arrangement,
  hidden,
  level,
  steps,
  background,
  transition,
  delay,
  widths,
  section,
  textSize,
  spacing,
}: SlideMark): Record<string, string> {
  return {
    ...(id ? { id } : {}),
    ...(arrangement ? { arrangement } : {}),
    ...(level ? { level: String(level) } : {}),
    ...(hidden ? { hidden: "" } : {}),
    ...(steps ? { steps: stepsWord(steps) } : {}),
    ...(background ? { background: backgroundWord(background) } : {}),
    ...(background && "picture" in background && background.veil !== undefined
      ? { veil: sizeWord(background.veil) }
      : {}),
    ...(transition ? { transition: transition.kind, seconds: String(transition.seconds) } : {}),
    ...(delay ? { delay: String(delay) } : {}),
    ...(widths ? { widths: widths.join(" ") } : {}),
    ...(section ? { section } : {}),
    ...(textSize ? { size: sizeWord(textSize) } : {}),
    ...(spacing !== undefined ? { spacing: sizeWord(spacing) } : {}),
  };
}

const leaf = (name: string, attributes: Record<string, string>): RootContent =>
  ({ type: "leafDirective", name, attributes, children: [] }) as unknown as LeafDirective & RootContent;

type Writer<B> = (block: B, notes: FootnoteList) => RootContent[];
const WRITERS: { [K in Block["kind"]]: Writer<Extract<Block, { kind: K }>> } = {
  heading: ({ depth, text }, notes) => [
    {
      type: "heading",
      depth: depth as 1,
      children: inlineNodes(
        text.flatMap(({ runs }) => runs),
        notes,
      ),
    },
  ],
  text: ({ text }, notes) => blocksOf(text, notes),
  quote: ({ text }, notes) => [{ type: "blockquote", children: blocksOf(text, notes) }],
  figure: ({ figure }, notes) => contentNodes(figure, notes),
  picture: ({ picture }, notes) => contentNodes(picture, notes),
  notes: ({ text }, notes) => [container("notes", {}, blocksOf(text, notes))],
  slot: ({ slot, steps, width, blocks }, notes) => [
    container(
      slot === "column" ? "column" : "slot",
      {
        ...(slot === "column" ? {} : { name: slot }),
        ...(width ? { width: String(width) } : {}),
        ...(steps ? { steps: stepsWord(steps) } : {}),
      },
      blocks.flatMap((block) => nodesOf(block, notes)),
    ),
  ],
  mark: ({ mark }) => [leaf("slide", markAttributes(mark))],
  break: () => [{ type: "thematicBreak" }],
  join: () => [leaf("join", {})],
};

function nodesOf(block: Block, notes: FootnoteList): RootContent[] {
  return (WRITERS[block.kind] as Writer<Block>)(block, notes);
}

/**
 * Prose, or a heading of prose, without any character that Markdown could read differently: it is written unchanged.
 */
const PLAIN = /^\p{L}[^\\`*_[\]<>#&~$|@:!=\n\t]*$/u;
function plainProse(block: Block): string | undefined {
  if ((block.kind !== "text" && block.kind !== "heading") || block.text.length !== 1) return undefined;
  const [paragraph] = block.text;
  const [only] = paragraph?.runs ?? [];
  if (
    !paragraph ||
    !only ||
    paragraph.runs.length !== 1 ||
    paragraph.kind !== "plain" ||
    paragraph.level ||
    paragraph.align ||
    only.marks ||
    only.link ||
    only.footnote
  )
    return undefined;
  if (!PLAIN.test(only.text) || /www\.|\s$|\s{2}/i.test(only.text)) return undefined;
  return block.kind === "heading" ? `${"#".repeat(block.depth)} ${only.text}` : only.text;
}

const endsInList = (block: Block | undefined) =>
  block?.kind === "text" && block.text.at(-1)?.kind !== "plain" && !block.text.at(-1)?.align;
const beginsWithList = (block: Block) =>
  block.kind === "text" && block.text[0]?.kind !== "plain" && !block.text[0]?.align;

/**
 * Writes the blocks that a reader took from a document in the text form, and gives each block its lines there. Blocks
 * are written as they are read, so that the first slides of a long document do not wait for the last; `text` is
 * complete when all have been taken. Footnotes are defined after the block that refers to them.
 */
export class ManuscriptWriter {
  private readonly notes = new FootnoteList();
  private readonly parts: string[] = [];
  private line = 1;

  constructor(front: FrontMatter) {
    const head = frontMatterText(front);
    if (!head) return;
    this.parts.push(head.trimEnd());
    this.line = head.split("\n").length + 1;
  }

  *place(blocks: Iterable<Block>): Generator<Block> {
    let before: Block | undefined;
    for (const block of blocks) {
      if (endsInList(before) && beginsWithList(block)) this.add("<!-- -->");
      const written = plainProse(block) ?? markdownOf(nodesOf(block, this.notes));
      if (!written) continue;
      const from = this.line;
      const to = this.add(written);
      const defined = markdownOf(this.notes.take());
      if (defined) this.add(defined);
      before = block;
      yield withLines(block, from, to, written);
    }
  }

  /** Adds text after a blank line. Returns its last line. */
  private add(written: string): number {
    const last = this.line + lineCount(written) - 1;
    this.parts.push(written);
    this.line = last + 2;
    return last;
  }

  get text(): string {
    return this.parts.length ? `${this.parts.join("\n\n")}\n` : "";
  }
}

/** Returns a document's blocks as a text, and the same blocks with their lines in it. */
export function manuscriptText(front: FrontMatter, blocks: Iterable<Block>): { text: string; blocks: Block[] } {
  const writer = new ManuscriptWriter(front);
  const placed = [...writer.place(blocks)];
  return { text: writer.text, blocks: placed };
}

function withLines(block: Block, from: number, to: number, written: string): Block {
  if (block.kind === "slot")
    return { ...block, blocks: block.blocks.map((inner) => ({ ...inner, from, to })), from, to };
  if (block.kind !== "text" || block.text.every(({ kind }) => kind === "plain")) return { ...block, from, to };
  // Each item is written on one line; a paragraph that continues an item shares its line.
  const items: number[] = [];
  const open: number[] = [];
  const starts = written
    .split("\n")
    .flatMap((line, nth) => (/^\s*(?:[-*+]|\d+[.)])(?:\s|$)/.test(line) ? [from + nth] : []));
  let next = 0;
  for (const { kind, level } of block.text) {
    if (kind !== "plain") open[level] = starts[next++] ?? from;
    items.push(open[kind === "plain" ? level - 1 : level] ?? from);
  }
  return { ...block, items, from, to };
}
