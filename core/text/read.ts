import { type RichText, run, must } from "@unitext/core/model";
import { readFront } from "./front";
import { boundNesting, isCrowded } from "./nesting";
import type { Block, Manuscript, Problem } from "./manuscript";
import { type Definitions, definitions, definitionsFor, labelOf, segments } from "./segments";
import { parseMarkdown, parseStretch, type Stretch, stretches } from "./syntax";
import { BlockReader, plain } from "./blockreader";

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
