import {
  countWords,
  joinRuns,
  type RichText,
  run,
  slidePropertiesOf,
  type SlideProperties,
  must,
  textOf,
} from "@unitext/core/model";
import type { Block, Content, Lines, SlideMark, Steps } from "@unitext/core/text";

/**
 * Content of a slide in the order of the text: paragraphs with the line of each, or something other than text. A
 * subheading has its own text as `heading`, without the bold that marks it among paragraphs.
 */
export type Flow =
  | { kind: "text"; text: RichText; lines: readonly number[]; quote?: boolean; heading?: RichText; steps?: Steps }
  | { kind: "content"; content: Exclude<Content, { kind: "text" }>; line: number };

/** Returns the number of words in a flow, without those of figures. */
export const wordsInFlow = (flow: readonly Flow[]): number =>
  flow.reduce((sum, item) => sum + (item.kind === "text" ? countWords(textOf(item.text)) : 0), 0);

/** A slide's content before it has an arrangement. */
export interface Draft {
  lines: Lines | null;
  mark: SlideMark;
  title: RichText | null;
  /** 1 for a heading that opens the deck or a section, 2 for any other, null without one. */
  depth: 1 | 2 | null;
  flow: Flow[];
  slots: Map<string, { flow: Flow[]; width?: number }>;
  columns: number;
  notes: RichText;
  /** The readers' objects that it was made from: equal lists make equal slides. */
  made: object[];
  key: string;
}

/** Returns a draft without content. */
export function emptyDraft(): Draft {
  return {
    lines: null,
    mark: {},
    title: null,
    depth: null,
    flow: [],
    slots: new Map(),
    columns: 0,
    notes: [],
    made: [],
    key: "",
  };
}

/** Whether a draft has neither title nor content. */
export function isEmptyDraft({ title, flow, slots }: Draft): boolean {
  return title === null && flow.length === 0 && slots.size === 0;
}

const strong = (text: RichText): RichText =>
  text.map((paragraph) => ({
    ...paragraph,
    runs: joinRuns(
      paragraph.runs.map((item) =>
        item.footnote || item.marks?.includes("formula")
          ? item
          : run(item.text, [...(item.marks ?? []), "strong"], item.link),
      ),
    ),
  }));
const strongOnce = new WeakMap<RichText, RichText>();
/** Returns a heading inside the text of a slide. */
function subheading(text: RichText): RichText {
  const known = strongOnce.get(text) ?? strong(text);
  strongOnce.set(text, known);
  return known;
}

function flowOfBlock(block: Block): Flow[] {
  switch (block.kind) {
    case "heading":
      return [
        { kind: "text", text: subheading(block.text), lines: block.text.map(() => block.from), heading: block.text },
      ];
    case "text":
      return [{ kind: "text", text: block.text, lines: block.items ?? block.text.map(() => block.from) }];
    case "quote":
      return [{ kind: "text", text: block.text, lines: block.text.map(() => block.from), quote: true }];
    case "figure":
      return [{ kind: "content", content: block.figure, line: block.from }];
    case "picture":
      return [{ kind: "content", content: block.picture, line: block.from }];
    default:
      return [];
  }
}

const COLUMN_NAMES = ["left", "middle", "right"];

/** Returns the object that identifies a block, even when its lines shift. */
function identity(block: Block): object {
  if ("text" in block) return block.text;
  if (block.kind === "figure") return block.figure;
  if (block.kind === "picture") return block.picture;
  if (block.kind === "mark") return block.mark;
  return block;
}

/** Adds a block to a draft. */
export function addBlock(draft: Draft, block: Block, depth: 1 | 2): void {
  draft.lines = { from: draft.lines?.from ?? block.from, to: Math.max(draft.lines?.to ?? 0, block.to) };
  if (block.kind === "slot") for (const inner of block.blocks) draft.made.push(identity(inner));
  else draft.made.push(identity(block));
  draft.key += `${block.kind}${block.kind === "heading" ? depth : ""}${block.kind === "slot" ? `${block.slot}/${block.width ?? ""}/${block.steps ?? ""}/${block.blocks.map(({ kind }) => kind).join()}` : ""};`;
  switch (block.kind) {
    case "heading":
      if (draft.title === null && draft.flow.length === 0) {
        draft.title = block.text;
        draft.depth = depth;
      } else draft.flow.push(...flowOfBlock(block));
      break;
    case "notes":
      draft.notes = [...draft.notes, ...block.text];
      break;
    case "slot": {
      const name = block.slot === "column" ? must(COLUMN_NAMES[Math.min(2, draft.columns++)]) : block.slot;
      const held = draft.slots.get(name) ?? { flow: [], ...(block.width ? { width: block.width } : {}) };
      for (const inner of block.blocks) {
        if (inner.kind === "notes") draft.notes = [...draft.notes, ...inner.text];
        else
          held.flow.push(
            ...flowOfBlock(inner).map((flow) =>
              flow.kind === "text" && block.steps ? { ...flow, steps: block.steps } : flow,
            ),
          );
      }
      draft.slots.set(name, held);
      break;
    }
    case "mark":
      draft.mark = { ...draft.mark, ...block.mark };
      break;
    default:
      draft.flow.push(...flowOfBlock(block));
  }
}

/** Assigns two columns to left and right: the middle of three becomes the right of two. */
export function assignColumns(draft: Draft): Draft {
  if (draft.columns !== 2) return draft;
  const middle = draft.slots.get("middle");
  if (!middle) return draft;
  const slots = new Map([...draft.slots].map(([name, held]) => [name === "middle" ? "right" : name, held]));
  return { ...draft, slots };
}

/** Returns the slide properties of a draft: those of its mark, and the widths of its columns. */
export function slidePropertiesOfDraft({ mark, slots }: Draft): SlideProperties {
  const given = ["left", "middle", "right"].flatMap((name) => (slots.has(name) ? [slots.get(name)?.width] : []));
  const known = given.filter((width) => width !== undefined);
  const spare =
    given.length - known.length
      ? Math.max(5, (100 - known.reduce((sum, width) => sum + width, 0)) / (given.length - known.length))
      : 0;
  const widths = mark.widths ?? (known.length && given.length > 1 ? given.map((width) => width ?? spare) : undefined);
  return { ...slidePropertiesOf(mark), ...(widths ? { widths } : {}) };
}
