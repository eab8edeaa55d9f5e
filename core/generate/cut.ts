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
  const headings = rule.cuts.find((cut) => cut.kind === "heading");
  const alone = !typed && rule.cuts.every(({ kind }) => kind === "heading" || kind === "mark");
  let cuts: readonly Cut[] = rule.cuts;
  let waiting: Block[] | undefined = alone && headings ? [] : undefined;
  let current = emptyDraft();
  let joined = false;
  let first = true;
  let heading: { text: RichText; block: Block } | undefined;

  function* take(block: Block): Generator<Draft> {
    if (block.kind === "join") {
      joined = true;
      return;
    }
    const pieces = cuts.reduce<Block[]>(
      (list, cut) => list.flatMap((piece) => cutterFor(cut).pieces?.(piece) ?? [piece]),
      [block],
    );
    for (const piece of pieces) {
      const marked = piece.kind === "break" || (piece.kind === "mark" && current.lines !== null);
      const cut = marked || (!joined && cuts.some((one) => cutterFor(one).starts(piece, current, one)));
      if (cut) {
        if (current.lines) {
          yield assignColumns(current);
          first = false;
        }
        current = emptyDraft();
        if (
          piece.kind !== "break" &&
          piece.kind !== "mark" &&
          piece.kind !== "heading" &&
          heading &&
          inheritsTitle(rule)
        )
          addHeading(heading.text);
      }
      if (piece.kind === "break") {
        heading = undefined;
        continue;
      }
      if (piece.kind === "heading") heading = { text: piece.text, block: piece };
      joined = false;
      addBlock(current, piece, depthOf(piece));
    }
  }
  function addHeading(text: RichText): void {
    current.title = text;
    current.depth = 2;
    current.made.push(text);
    current.key += "inherited;";
  }
  function depthOf(block: Block): 1 | 2 {
    if (block.kind !== "heading") return 2;
    const level = headings ? Math.max(headings.section, first ? 1 : 0) : 1;
    return block.depth <= level ? 1 : 2;
  }

  for (const block of blocks) {
    if (!waiting) {
      if (block.kind === "heading") cuts = rule.cuts;
      yield* take(block);
      continue;
    }
    waiting.push(block);
    if (block.kind === "heading" || block.kind === "break") {
      for (const held of waiting.splice(0)) yield* take(held);
      waiting = undefined;
    } else if (waiting.length === FEW) {
      // No heading so far: whether one comes decides how the text is cut.
      problems.push({
        line: waiting[0]?.from ?? 1,
        message:
          "The text does not begin with a heading that the rule could cut at; up to the first one each paragraph became a slide.",
      });
      cuts = [...rule.cuts, { kind: "paragraph" }];
      for (const held of waiting.splice(0)) yield* take(held);
      waiting = undefined;
    }
  }
  for (const held of waiting ?? []) yield* take(held);
  if (current.lines) yield assignColumns(current);
}
