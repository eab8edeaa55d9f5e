import { type FontSet, overflowOf as overflowOfSlide } from "@unitext/core/layout";
import { type BreakRule, type DeckMetadata, type RichText, run, must } from "@unitext/core/model";
import { type Problem, recogniseParts } from "@unitext/core/text";
import { type Composed, partsOfDraft, shortTitle, slideOf } from "./compose";
import type { Flow } from "./draft";
import { titleWithNumber } from "./titlenumbers";
import { type Atom, atomsOf, flowOfAtoms, smaller, tableText } from "./atoms";

/** What fitting needs: the deck's theme and its fonts. */
export interface FitContext {
  metadata: DeckMetadata;
  fonts: FontSet;
}

const noId = () => "x";

/** Returns by how many points a composed slide overflows; 0 when everything fits. */
function overflowOf(composed: Composed, { metadata, fonts }: FitContext): number {
  return overflowOfSlide(slideOf({ ...composed, notes: [] }, "x", counter()), { metadata, number: 1, fonts });
}

function counter(): () => string {
  let next = 0;
  return () => `${noId()}${next++}`;
}

/** Returns a page of the flow as a slide of its own. */
function paginate(composed: Composed, flow: readonly Flow[], nth: number): Composed {
  const depth = nth ? (composed.depth === null ? null : 2) : composed.depth;
  const draft = { title: composed.title, depth, flow, slots: new Map() };
  const found = recogniseParts(partsOfDraft(draft, false));
  const keep = nth === 0 && composed.named === true && composed.slots.size === 0;
  return {
    ...composed,
    ...draft,
    notes: nth ? [] : composed.notes,
    arrangement: keep ? composed.arrangement : found.arrangement,
    reason: keep ? composed.reason : nth ? "continued" : found.reason,
  };
}

/**
 * Returns the places to break at or before `end`, the best first: near it, not inside a list item or after a heading,
 * with no small rest.
 */
function breaksBefore(atoms: readonly Atom[], start: number, end: number): number[] {
  if (end >= atoms.length) return [atoms.length];
  const lowest = Math.max(start + 1, start + Math.ceil((end - start) * 0.4));
  const places: { at: number; cost: number }[] = [];
  for (let at = end; at >= lowest; at--) {
    const crumb = atoms.length - at === 1 && end - start > 2 ? 15 : 0;
    places.push({ at, cost: (end - at) * 5 + must(atoms[at]).before + must(atoms[at - 1]).after + crumb });
  }
  return places.sort((a, b) => a.cost - b.cost).map(({ at }) => at);
}

/**
 * Makes a composition fit. First by the theme's steps of size and a title on two lines; then a title that is too long
 * is shortened, and all of it goes to the notes; then columns get slides of their own and the flow continues on next
 * slides, cut at the best places, with the notes on the first; or what is left goes to the notes. Titles are numbered
 * when all continuations are known.
 */
export function fitComposition(
  composed: Composed,
  rule: BreakRule,
  context: FitContext,
  line: number,
  problems: Problem[],
): Composed[] {
  if (rule.overflow === "leave" || overflowOf(composed, context) === 0) return [composed];
  const say = (message: string) => problems.push({ line, message });
  const { language } = context.metadata;
  let whole = composed;
  const bare = (title: RichText | null): Composed => ({
    ...whole,
    title,
    flow: [],
    slots: new Map(),
    arrangement: whole.arrangement === "opening" || whole.arrangement === "section" ? whole.arrangement : "title",
  });
  if (whole.title && overflowOf(bare(whole.title), context) > 0) {
    let most = 16;
    let title = shortTitle(whole.title, most);
    while (most > 3 && overflowOf(bare(title), context) > 0) title = shortTitle(whole.title, (most -= 3));
    say("The heading is longer than a title can be; the title has its beginning, the notes have all of it.");
    whole = {
      ...whole,
      title,
      notes: [...whole.title.map((paragraph) => ({ ...paragraph, runs: paragraph.runs })), ...whole.notes],
    };
    if (overflowOf(whole, context) === 0) return [whole];
  }
  let flow = whole.flow;
  if (whole.slots.size) {
    say("The columns hold more than fits side by side; they stand one after the other.");
    flow = [...flow, ...[...whole.slots.values()].flat()];
  }
  let atoms = atomsOf(flow);
  const pages: Composed[] = [];
  let start = 0;
  let guess = 6;
  const page = (from: number, to: number) => paginate(whole, flowOfAtoms(atoms.slice(from, to)), pages.length);
  const fits = (to: number) => overflowOf(page(start, to), context) === 0;
  let rounds = 0;
  while (start < atoms.length && rounds++ < 5000) {
    // Finds the largest number of atoms that fits, by doubling and halving from the last page's number.
    let low = start;
    let high = Math.min(atoms.length, start + guess);
    while (high < atoms.length && fits(high)) {
      low = high;
      high = Math.min(atoms.length, start + (high - start) * 2);
    }
    if (high > low && fits(high)) low = high;
    while (high - low > 1) {
      const middle = (low + high) >> 1;
      if (fits(middle)) low = middle;
      else high = middle;
    }
    if (low === start) {
      const parts = smaller(must(atoms[start]), language, say);
      if (parts.length > 1 || (parts.length === 1 && parts[0]?.flow.kind !== atoms[start]?.flow.kind)) {
        atoms = atoms.toSpliced(start, 1, ...parts);
        continue;
      }
      low = start + 1;
    } else if (low < atoms.length && low - start > 0) {
      // A table or piece of code that no longer fits fills the page with as much as fits.
      const next = must(atoms[low]);
      const content = next.flow.kind === "content" ? next.flow.content : undefined;
      if (
        content &&
        (content.kind === "code" || (content.kind === "table" && content.rows.length - content.header > 1)) &&
        overflowOf(page(low, low + 1), context) > 0
      ) {
        const parts = smaller(next, language, say);
        if (parts.length > 1) {
          atoms = atoms.toSpliced(low, 1, ...parts);
          continue;
        }
      }
    }
    // The rest of a page may be arranged differently and take more room: the break is put where the page fits.
    const end = breaksBefore(atoms, start, low).find((at) => at === low || fits(at)) ?? low;
    guess = Math.max(2, end - start);
    pages.push(page(start, end));
    start = end;
  }
  if (!pages.length) return [whole];
  const [first, ...rest] = pages as [Composed, ...Composed[]];
  if (rule.overflow === "notes" && rest.length) {
    const left = rest.flatMap((one) =>
      one.flow.flatMap(
        (item): RichText =>
          item.kind === "text"
            ? item.text
            : item.content.kind === "table"
              ? (tableText(item.content, line) as Extract<Flow, { kind: "text" }>).text
              : item.content.kind === "code"
                ? item.content.text
                    .split("\n")
                    .map((text) => ({ kind: "plain" as const, level: 0, runs: text ? [run(text, ["code"])] : [] }))
                : [],
      ),
    );
    const drawn = rest.filter((one) =>
      one.flow.some((item) => item.kind === "content" && !["table", "code"].includes(item.content.kind)),
    );
    const shown = drawn
      .map((one) => ({
        ...one,
        flow: one.flow.filter((item) => item.kind === "content" && !["table", "code"].includes(item.content.kind)),
      }))
      .map((one, at) => paginate(whole, one.flow, at + 1));
    say("What does not fit on the slide is in its notes.");
    return [{ ...first, notes: [...first.notes, ...left] }, ...shown];
  }
  return pages;
}

const bareTitle = (composed: Composed): Composed => ({ ...composed, flow: [], slots: new Map() });

/**
 * Shortens a numbered title that no longer fits, before its number. What is below has its place whatever the title
 * says.
 */
export function fitTitle(
  numbered: Composed,
  plain: Composed,
  nth: number,
  count: number,
  context: FitContext,
): Composed {
  if (!plain.title || overflowOf(bareTitle(numbered), context) === 0) return numbered;
  for (let most = 12; most > 2; most -= 2) {
    const shorter = {
      ...numbered,
      title: titleWithNumber(shortTitle(plain.title, most), nth, count, context.metadata.language),
    };
    if (overflowOf(bareTitle(shorter), context) === 0) return shorter;
  }
  return numbered;
}
