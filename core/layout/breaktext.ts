import { type Frame, must, type SlotRole } from "@unitext/core/model";
import { breakLines, type LineRange } from "./linebreaking";
import { type Broken, edgesOf, lineOf } from "./placelines";
import { LINE_HEIGHT } from "./slots";
import type { ParagraphLayout } from "./textstyle";

/** Breaks paragraphs into lines at a size in points and a width in points. `gap` is the space between them in em. */
export function breakText(
  blocks: readonly ParagraphLayout[],
  role: SlotRole,
  size: number,
  width: number,
  gap = 0,
): Broken {
  const lines: Broken["lines"] = [];
  let height = 0;
  blocks.forEach((block, index) => {
    const { left, right, first } = edgesOf(block, size);
    const ranges = breakLines(block.shaped, Math.max(1, (width - left - right) / size), first / size);
    for (const range of ranges) lines.push({ block: index, range });
    if (block.metrics) for (const range of ranges) height += lineOf(block, range).height * size;
    else height += ranges.length * LINE_HEIGHT[role] * size;
    height += (block.metrics ? block.metrics.before + block.metrics.after : index ? gap : 0) * size;
  });
  return { lines, height };
}

/** The roles whose lines are balanced. */
export const BALANCED: ReadonlySet<SlotRole> = new Set(["title", "opening", "name", "statement"]);

/** Balances the lines of a heading over two or three lines: the narrowest width that needs no further line. */
export function balanced(
  blocks: readonly ParagraphLayout[],
  role: SlotRole,
  size: number,
  frame: Frame,
  broken: Broken,
): Broken {
  if (broken.lines.length < 2 || broken.lines.length > 3 || blocks.length !== 1) return broken;
  let [low, high] = [frame.width / broken.lines.length, frame.width];
  let best = broken;
  for (let turn = 0; turn < 7; turn++) {
    const middle = (low + high) / 2;
    const tried = breakText(blocks, role, size, middle);
    const whole = tried.lines.every(
      ({ range }) =>
        (must(blocks[0]).shaped.upTo[range.visible] ?? 0) - (must(blocks[0]).shaped.upTo[range.start] ?? 0) <=
        middle / size + 1e-3,
    );
    if (tried.lines.length <= broken.lines.length && whole && !splitsWord(tried, must(blocks[0])))
      [best, high] = [tried, middle];
    else low = middle;
  }
  return best;
}

/** A single word on the last line of a paragraph that is narrower than this, in em, gets the word before it for company. */
const LONE_WORD = 5;

/** Returns lines none of which is the last of its paragraph with a single short word: the word before comes down to it. */
export function withoutLoneWords(
  blocks: readonly ParagraphLayout[],
  broken: Broken,
  size: number,
  width: number,
): Broken {
  let lines = broken.lines;
  broken.lines.forEach(({ block: index, range: last }, at) => {
    const before = broken.lines[at - 1];
    if (before?.block !== index || broken.lines[at + 1]?.block === index || before.range.hyphen) return;
    const block = must(blocks[index]);
    const { breaks, upTo } = block.shaped;
    const inside = (range: LineRange) => breaks.filter((one) => one.at > range.start && one.at < range.end);
    const wide = (from: number, to: number) => (upTo[to] ?? 0) - (upTo[from] ?? 0);
    if (inside(last).length || wide(last.start, last.visible) > LONE_WORD) return;
    const cut = inside(before.range).at(-1);
    const { left, right } = edgesOf(block, size);
    const isFirst = broken.lines[at - 2]?.block !== index;
    // The line above keeps at least two words, and the last line has to hold both.
    if (!cut || (isFirst && inside(before.range).length < 2)) return;
    if (wide(cut.at, last.visible) * size > width - left - right) return;
    if (lines === broken.lines) lines = [...broken.lines];
    lines[at - 1] = { block: index, range: { start: before.range.start, end: cut.at, visible: cut.visible } };
    lines[at] = { block: index, range: { ...last, start: cut.at } };
  });
  return { ...broken, lines };
}

/** Whether a line ends inside a word, which happens where a word is wider than the line. */
function splitsWord({ lines }: Broken, { shaped }: ParagraphLayout): boolean {
  const ends = new Set(shaped.breaks.map(({ at }) => at));
  return lines.some(({ range }) => !ends.has(range.end));
}
