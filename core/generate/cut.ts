import { type BreakRule, type Cut, paragraphText, type RichText } from "@unitext/core/model";
import type { Block, Problem } from "@unitext/core/text";
import { addBlock, type Draft, emptyDraft, isEmptyDraft, assignColumns } from "./draft";

/** One way to cut: whether a block starts a slide, and the blocks into which it divides one. */
interface Cutter<C extends Cut> {
  starts(block: Block, draft: Draft, cut: C): boolean;
  pieces?(block: Block): Block[];
}

const splitOnce = new WeakMap<RichText, Block[]>();

/** Returns the same pieces, by identity, as long as the block's text is the same. */
function kept(block: Block & { text: RichText }, make: () => Block[]): Block[] {
  const known = splitOnce.get(block.text);
  if (known?.[0]?.from === block.from) return known;
  const made = known
    ? known.map((piece) => ({
        ...piece,
        from: piece.from + block.from - (known[0]?.from ?? 0),
        to: piece.to + block.from - (known[0]?.from ?? 0),
      }))
    : make();
  splitOnce.set(block.text, made);
  return made;
}

/** Divides a block of several paragraphs into one block each; a list stays whole. */
function paragraphs(block: Block): Block[] {
  if (block.kind !== "text" || block.text.length < 2 || block.text.some(({ kind }) => kind !== "plain")) return [block];
  return kept(block, () =>
    block.text.map((paragraph): Block => ({ kind: "text", text: [paragraph], from: block.from, to: block.to })),
  );
}

/** Divides a block into one for each of its lines and items. */
function lines(block: Block): Block[] {
  if (block.kind !== "text") return [block];
  return kept(block, () =>
    block.text.flatMap((paragraph, nth): Block[] => {
      const from = block.items?.[nth] ?? block.from;
      const parts: RichText[number]["runs"][] = [[]];
      for (const item of paragraph.runs) {
        item.text.split("\n").forEach((text, at) => {
          if (at) parts.push([]);
          if (text || item.footnote) parts.at(-1)?.push({ ...item, text });
        });
      }
      return parts
        .filter((runs) => runs.length)
        .map(
          (runs, at): Block => ({
            kind: "text",
            text: [{ kind: "plain", level: 0, runs }],
            from: from + (block.items ? 0 : at),
            to: from + (block.items ? 0 : at),
          }),
        );
    }),
  );
}

const announces = (draft: Draft) => {
  const last = draft.flow.at(-1);
  return (
    last?.kind === "text" && /[:：]\s*$/.test(paragraphText(last.text.at(-1) ?? { kind: "plain", level: 0, runs: [] }))
  );
};
const isList = (block: Block) => block.kind === "text" && block.text[0]?.kind !== "plain";
const pictured = (draft: Draft) =>
  draft.flow.some((flow) => flow.kind === "content" && flow.content.kind === "picture");

const CUTTERS: { [K in Cut["kind"]]: Cutter<Extract<Cut, { kind: K }>> } = {
  heading: {
    starts: (block, draft, { section, slide }) =>
      block.kind === "heading" && block.depth <= Math.max(section, slide) && !isEmptyDraft(draft),
  },
  paragraph: {
    pieces: paragraphs,
    starts: (block, draft) => {
      if (block.kind === "heading") return !isEmptyDraft(draft);
      if (!["text", "quote", "figure", "picture"].includes(block.kind) || draft.flow.length === 0) return false;
      if (isList(block) || block.kind === "figure") return !announces(draft);
      return block.kind !== "picture" || pictured(draft);
    },
  },
  line: {
    pieces: lines,
    starts: (block, draft) => ["heading", "text", "quote", "figure"].includes(block.kind) && !isEmptyDraft(draft),
  },
  mark: { starts: () => false },
};
const cutterFor = (cut: Cut) => CUTTERS[cut.kind] as Cutter<Cut>;

/** Whether slides without a heading of their own take the one above them, as under the paragraph rule. */
const inheritsTitle = (rule: BreakRule) =>
  rule.cuts.some(({ kind }) => kind === "paragraph") && !rule.cuts.some(({ kind }) => kind === "line");

/**
 * A heading rule has nothing to cut at in a document without headings. From this many paragraphs on, it is cut at
 * paragraphs instead.
 */
const FEW = 9;

/** Gathers blocks into drafts. */
class DraftCutter {
  private current = emptyDraft();
  /** Whether the next block stays on the slide whatever the rule says. */
  private joined = false;
  private first = true;
  private heading: RichText | undefined;
  private readonly headings: Extract<Cut, { kind: "heading" }> | undefined;

  constructor(
    private readonly rule: BreakRule,
    /** The cuts of the rule, and one at paragraphs where a text has no headings. */
    public cuts: readonly Cut[],
  ) {
    this.headings = rule.cuts.find((cut) => cut.kind === "heading");
  }

  /** Adds a block. Yields the draft before it where it starts a new one. */
  *add(block: Block): Generator<Draft> {
    if (block.kind === "join") {
      this.joined = true;
      return;
    }
    const pieces = this.cuts.reduce<Block[]>(
      (list, cut) => list.flatMap((piece) => cutterFor(cut).pieces?.(piece) ?? [piece]),
      [block],
    );
    for (const piece of pieces) {
      if (this.startsDraft(piece)) {
        yield* this.finish();
        this.current = emptyDraft();
        if (!["break", "mark", "heading"].includes(piece.kind)) this.inheritTitle();
      }
      if (piece.kind === "break") {
        this.heading = undefined;
        continue;
      }
      if (piece.kind === "heading") this.heading = piece.text;
      this.joined = false;
      addBlock(this.current, piece, this.depthOf(piece));
    }
  }

  /** Yields the draft that is being gathered, unless it is empty. */
  *finish(): Generator<Draft> {
    if (!this.current.lines) return;
    yield assignColumns(this.current);
    this.first = false;
  }

  private startsDraft(piece: Block): boolean {
    const { current } = this;
    if (piece.kind === "break" || (piece.kind === "mark" && current.lines !== null)) return true;
    return !this.joined && this.cuts.some((cut) => cutterFor(cut).starts(piece, current, cut));
  }

  /** Gives a draft that a paragraph starts the title of its heading, where the rule says so. */
  private inheritTitle(): void {
    if (!this.heading || !inheritsTitle(this.rule)) return;
    this.current.title = this.heading;
    this.current.depth = 2;
    this.current.made.push(this.heading);
    this.current.key += "inherited;";
  }

  private depthOf(block: Block): 1 | 2 {
    if (block.kind !== "heading") return 2;
    const level = this.headings ? Math.max(this.headings.section, this.first ? 1 : 0) : 1;
    return block.depth <= level ? 1 : 2;
  }
}

/**
 * Cuts blocks into drafts by a rule, one at a time as they are read. Marks and breaks always cut; `join` keeps what
 * follows on the slide. A rule of headings alone cuts a text without headings at paragraphs, and says so.
 */
export function* cutDrafts(
  blocks: Iterable<Block>,
  rule: BreakRule,
  problems: Problem[],
  typed: boolean,
): Generator<Draft> {
  const cutter = new DraftCutter(rule, rule.cuts);
  const onlyHeadings =
    !typed &&
    rule.cuts.some(({ kind }) => kind === "heading") &&
    rule.cuts.every(({ kind }) => kind === "heading" || kind === "mark");
  /** The blocks that wait for a first heading, which decides how the text is cut. */
  let waiting: Block[] | undefined = onlyHeadings ? [] : undefined;
  for (const block of blocks) {
    if (!waiting) {
      if (block.kind === "heading") cutter.cuts = rule.cuts;
      yield* cutter.add(block);
      continue;
    }
    waiting.push(block);
    const isDecided = block.kind === "heading" || block.kind === "break";
    if (!isDecided && waiting.length < FEW) continue;
    if (!isDecided) {
      problems.push({
        line: waiting[0]?.from ?? 1,
        message:
          "The text does not begin with a heading that the rule could cut at; up to the first one each paragraph became a slide.",
      });
      cutter.cuts = [...rule.cuts, { kind: "paragraph" }];
    }
    for (const held of waiting) yield* cutter.add(held);
    waiting = undefined;
  }
  for (const held of waiting ?? []) yield* cutter.add(held);
  yield* cutter.finish();
}
