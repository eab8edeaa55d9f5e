import {
  FIGURE_MINIMUM,
  type FontSet,
  layoutSlide,
  measureSlide,
  overflowOf as overflowOfSlide,
  type Scene,
} from "@unitext/core/layout";
import { type BreakRule, type DeckMetadata, type RichText, run, must } from "@unitext/core/model";
import { type Problem, recogniseParts } from "@unitext/core/text";
import { type Composed, isOpener, partsOfDraft, shortTitle, slideOf, withLeadAbove } from "./compose";
import { type Flow, wordsInFlow } from "./draft";
import { titleWithNumber } from "./titlenumbers";
import { type Atom, atomsOf, flowOfAtoms, smaller, tableText } from "./atoms";

/** What fitting needs: the deck's theme and its fonts. */
export interface FitContext {
  metadata: DeckMetadata;
  fonts: FontSet;
  /** Whether code and tables may be as small as the theme allows. */
  closely?: boolean;
}

const noId = () => "x";

/** Returns by how many points a composed slide overflows; 0 when everything fits. */
function overflowOf(composed: Composed, context: FitContext): number {
  const { metadata, fonts, closely } = context;
  const isAlone =
    !isOpener(composed) && composed.slots.size === 0 && composed.flow.every(({ kind }) => kind === "text");
  const least = isDense(composed.flow) ? "dense" : isAlone ? "alone" : "beside";
  const shown = closely && least === "dense" ? metadata : readable(metadata, least);
  return overflowOfSlide(slideOf({ ...composed, notes: [] }, "x", counter(), metadata.layouts), {
    metadata: shown,
    number: 1,
    fonts,
  });
}

/** Whether a composition fits, with everything that the answer depends on. */
type KnownFit = Pick<DeckMetadata, "theme" | "page" | "language"> & { factor: number; fits: boolean };
const fitsOnce = new WeakMap<Composed, KnownFit>();

/** Whether a slide of text whose size is a factor of the theme's fits without shrinking. Cached. */
export function fitsAtSize(composed: Composed, factor: number, { metadata, fonts }: FitContext): boolean {
  const known = fitsOnce.get(composed);
  const { theme, page, language } = metadata;
  const isKnown =
    known?.factor === factor && known.theme === theme && known.page === page && known.language === language;
  if (isKnown) return known.fits;
  const fits = measured(composed, factor, { metadata, fonts }).overflow === 0;
  fitsOnce.set(composed, { theme, page, language, factor, fits });
  return fits;
}

/** Measures a slide of text whose size is a factor of the theme's and does not shrink. */
function measured(composed: Composed, factor: number, { metadata, fonts }: FitContext) {
  const { theme } = metadata;
  const fixed = { ...metadata, theme: { ...theme, minimum: theme.scale.body * factor } };
  return measureSlide(slideOf({ ...composed, notes: [] }, "x", counter(), metadata.layouts), {
    metadata: fixed,
    number: 1,
    fonts,
  });
}

/** The height that a composition uses, with everything that the answer depends on. */
type KnownHeight = Omit<KnownFit, "fits"> & { height: number };
const heightsOnce = new WeakMap<Composed, KnownHeight>();

/**
 * Returns the share of the height of its place that a text has whose size is a factor of the theme's; above 1, it overflows.
 * Cached.
 */
export function usedHeight(composed: Composed, factor: number, context: FitContext): number {
  const { theme, page, language } = context.metadata;
  const known = heightsOnce.get(composed);
  const isKnown =
    known?.factor === factor && known.theme === theme && known.page === page && known.language === language;
  if (isKnown) return known.height;
  const { fullness, overflow } = measured(composed, factor, context);
  const height = overflow > 0 ? Math.max(fullness, 1 + overflow) : fullness;
  heightsOnce.set(composed, { theme, page, language, factor, height });
  return height;
}

/** The smallest size of cells and code, in points on a page 540 points high (common practice, no source). */
const DENSE = 16;
/** How many words beside code or a table may be as small as they are. */
const BESIDE = 25;

/** Whether a slide is read closely: one of code or a table with hardly any text. */
function isDense(flow: readonly Flow[]): boolean {
  return (
    wordsInFlow(flow) <= BESIDE &&
    flow.some((item) => item.kind === "content" && ["code", "table"].includes(item.content.kind))
  );
}

/** The smallest size of text beside a figure, in points on a page 540 points high (common practice, no source). */
const READABLE = 20;
/** The least size of text alone, as a share of the theme's: slides of a section have the same size, and continue instead. */
const ALONE = 1;
/** A deck's metadata by the least size of text: alone on a slide, beside a figure, in code and tables. */
interface Sizes {
  alone: DeckMetadata;
  beside: DeckMetadata;
  dense: DeckMetadata;
}
const readableOnce = new WeakMap<DeckMetadata, Sizes>();

/** Returns a deck's metadata with a theme whose text does not shrink below a size, for a kind of slide. */
function readable(metadata: DeckMetadata, kind: keyof Sizes): DeckMetadata {
  const { theme } = metadata;
  const least = (minimum: number) => ({ ...metadata, theme: { ...theme, minimum: Math.max(theme.minimum, minimum) } });
  const known = readableOnce.get(metadata) ?? {
    alone: least(theme.scale.body * ALONE),
    beside: least(READABLE),
    dense: least(DENSE / FIGURE_MINIMUM),
  };
  readableOnce.set(metadata, known);
  return known[kind];
}

function counter(): () => string {
  let next = 0;
  return () => `${noId()}${next++}`;
}

/** Returns a page of the flow as a slide of its own. */
function paginate(composed: Composed, flow: readonly Flow[], nth: number): Composed {
  const depth = nth ? (composed.depth === null ? null : 2) : composed.depth;
  const draft = { title: composed.title, depth, flow, slots: new Map() };
  const found = withLeadAbove(recogniseParts(partsOfDraft(draft, false)), flow);
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

/** A last page of at most so many paragraphs is filled from the one before. */
const REST = 2;
/** The penalty from which on a break is inside something that belongs together. */
const INSIDE = 50;

/** Divides the flow of a composition into pages that fit. */
class Paginator {
  private readonly pages: Composed[] = [];
  /** Where each page starts. */
  private readonly starts: number[] = [];
  private start = 0;
  /** How many atoms the next page is expected to hold. */
  private guess = 6;

  constructor(
    private readonly whole: Composed,
    private atoms: readonly Atom[],
    private readonly context: FitContext,
    private readonly say: (message: string) => void,
  ) {}

  run(): Composed[] {
    for (let round = 0; this.start < this.atoms.length && round < 5000; round++) {
      const end = this.longestFit();
      if (this.divideAt(end)) continue;
      // The rest of a page may be arranged differently and take more room: the break is put where the page fits.
      const last = end === this.start ? end + 1 : end;
      const at = breaksBefore(this.atoms, this.start, last).find((one) => one === last || this.fits(one)) ?? last;
      this.guess = Math.max(2, at - this.start);
      this.pages.push(this.page(this.start, at));
      this.starts.push(this.start);
      this.start = at;
    }
    this.balance();
    return this.pages;
  }

  /** Takes paragraphs of the last page but one to the last where that has only a line or two. */
  private balance(): void {
    const [from, middle] = this.starts.slice(-2);
    const to = this.atoms.length;
    if (from === undefined || middle === undefined || to - middle > REST || middle - from <= REST) return;
    if (this.atoms.slice(from, to).some((atom) => contentOf(atom))) return;
    this.pages.splice(-2);
    const half = from + Math.ceil((to - from) / 2);
    const isPlace = (at: number) => must(this.atoms[at]).before + must(this.atoms[at - 1]).after < INSIDE;
    const places = Array.from({ length: middle - half }, (_, nth) => half + nth);
    const at = places.find((one) => isPlace(one) && overflowOf(this.page(one, to), this.context) === 0) ?? middle;
    this.pages.push(this.page(from, at));
    this.pages.push(this.page(at, to));
  }

  private page(from: number, to: number): Composed {
    return paginate(this.whole, flowOfAtoms(this.atoms.slice(from, to)), this.pages.length);
  }

  private fits(to: number): boolean {
    return overflowOf(this.page(this.start, to), this.context) === 0;
  }

  /** Returns the end of the longest page that fits, by doubling and halving from the last page's length. */
  private longestFit(): number {
    const { start } = this;
    const { length } = this.atoms;
    let low = start;
    let high = Math.min(length, start + this.guess);
    while (high < length && this.fits(high)) {
      low = high;
      high = Math.min(length, start + (high - start) * 2);
    }
    if (high > low && this.fits(high)) return high;
    while (high - low > 1) {
      const middle = (low + high) >> 1;
      if (this.fits(middle)) low = middle;
      else high = middle;
    }
    return low;
  }

  /**
   * Divides the atom at the end of a page, where that helps: one that does not fit on a page alone, and a table or code
   * that would leave the page half empty. Returns whether it did.
   */
  private divideAt(end: number): boolean {
    const atom = this.atoms[end];
    if (!atom) return false;
    const isFirst = end === this.start;
    if (!isFirst && !(isDivisible(atom) && overflowOf(this.page(end, end + 1), this.context) > 0)) return false;
    const parts = smaller(atom, this.context.metadata.language, this.say);
    const helps = parts.length > 1 || (isFirst && parts.length === 1 && parts[0]?.flow.kind !== atom.flow.kind);
    if (helps) this.atoms = this.atoms.toSpliced(end, 1, ...parts);
    return helps;
  }
}

const contentOf = ({ flow }: Atom) => (flow.kind === "content" ? flow.content : undefined);

/** Whether an atom is code, or a table of several rows. */
function isDivisible(atom: Atom): boolean {
  const content = contentOf(atom);
  return content?.kind === "code" || (content?.kind === "table" && content.rows.length - content.header > 1);
}

/** Shortens a title that is too long for its place. Returns the composition with the whole title in its notes. */
function withShortTitle(composed: Composed, title: RichText, context: FitContext): Composed {
  const { arrangement, notes } = composed;
  const bare = (shortened: RichText | null): Composed => ({
    ...composed,
    title: shortened,
    flow: [],
    slots: new Map(),
    arrangement: arrangement === "opening" || arrangement === "section" ? arrangement : "title",
  });
  if (overflowOf(bare(title), context) === 0) return composed;
  let most = 16;
  let short = shortTitle(title, most);
  while (most > 3 && overflowOf(bare(short), context) > 0) short = shortTitle(title, (most -= 3));
  return { ...composed, title: short, notes: [...title.map((paragraph) => ({ ...paragraph })), ...notes] };
}

/** Moves the last lines of an opener that has too many to its notes: it is one slide. */
function withFewLines(opener: Composed, context: FitContext): Composed {
  const lines = opener.flow.flatMap((item) => (item.kind === "text" ? item.text.map((line) => ({ item, line })) : []));
  const having = (count: number): Composed => ({
    ...opener,
    flow: lines.slice(0, count).map(({ item, line }) => ({ ...item, text: [line], lines: item.lines.slice(0, 1) })),
    notes: [...lines.slice(count).map(({ line }) => line), ...opener.notes],
  });
  let count = lines.length;
  while (count > 0 && overflowOf(having(count), context) > 0) count -= 1;
  return having(count);
}

const isWords = (item: Flow) => item.kind === "text" || ["table", "code"].includes(item.content.kind);

/** Returns a flow item as notes say it; pictures, charts and diagrams say nothing. */
function asNotes(item: Flow, line: number): RichText {
  if (item.kind === "text") return item.text;
  const { content } = item;
  if (content.kind === "table") return (tableText(content, line) as Extract<Flow, { kind: "text" }>).text;
  if (content.kind !== "code") return [];
  return content.text
    .split("\n")
    .map((text) => ({ kind: "plain" as const, level: 0, runs: text ? [run(text, ["code"])] : [] }));
}

/** Moves the words of all pages but the first to its notes. Figures keep pages of their own. */
function restToNotes(whole: Composed, [first, ...rest]: readonly Composed[], line: number): Composed[] {
  const words = rest.flatMap(({ flow }) => flow.flatMap((item) => asNotes(item, line)));
  const figures = rest
    .map(({ flow }) => flow.filter((item) => !isWords(item)))
    .filter((flow) => flow.length)
    .map((flow, nth) => paginate(whole, flow, nth + 1));
  return [{ ...must(first), notes: [...must(first).notes, ...words] }, ...figures];
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
  const whole = composed.title ? withShortTitle(composed, composed.title, context) : composed;
  if (whole !== composed) {
    say("The heading is longer than a title can be; the title has its beginning, the notes have all of it.");
    if (overflowOf(whole, context) === 0) return [whole];
  }
  const isText = whole.slots.size === 0 && whole.flow.every(({ kind }) => kind === "text");
  if (isOpener(whole) && isText) return [withFewLines(whole, context)];
  if (whole.slots.size) say("The columns do not fit side by side; they are placed one after the other.");
  const flow = [...whole.flow, ...[...whole.slots.values()].flat()];
  const pages = paginated(whole, flow, context, line, problems);
  if (!pages.length) return [whole];
  if (rule.overflow !== "notes" || pages.length === 1) return pages;
  say("What does not fit on the slide is in its notes.");
  return restToNotes(whole, pages, line);
}

const kindsOf = (flow: readonly Flow[]) =>
  new Set(flow.flatMap((item) => (item.kind === "content" ? [item.content.kind] : [])));

/**
 * Divides a flow into pages. A table or code that would be lost for its size, as points, may be as small as the theme allows.
 */
function paginated(
  whole: Composed,
  flow: readonly Flow[],
  context: FitContext,
  line: number,
  problems: Problem[],
): Composed[] {
  const attempt = (given: FitContext) => {
    const own: Problem[] = [];
    const pages = new Paginator(whole, atomsOf(flow), given, (message) => own.push({ line, message })).run();
    return { pages, own };
  };
  const first = attempt(context);
  const left = kindsOf(first.pages.flatMap((page) => page.flow));
  const isLost = [...kindsOf(flow)].some((kind) => !left.has(kind));
  const { pages, own } = isLost ? attempt({ ...context, closely: true }) : first;
  problems.push(...own);
  return pages;
}

/** Whether a composition of text beside a figure fits, its text at a size that the last row reads. */
export const fitsBeside = (composed: Composed, { metadata, fonts }: FitContext): boolean =>
  overflowOfSlide(slideOf(composed, "x", counter(), metadata.layouts), {
    metadata: readable(metadata, "beside"),
    number: 1,
    fonts,
  }) === 0;

/** Lays out a composition with its text at a size that the last row reads. */
export const sceneOf = (composed: Composed, { metadata, fonts }: FitContext): Scene =>
  layoutSlide(slideOf({ ...composed, notes: [] }, "x", counter(), metadata.layouts), {
    metadata: readable(metadata, "beside"),
    number: 1,
    fonts,
  });

const bareTitle = (composed: Composed): Composed => ({ ...composed, flow: [], slots: new Map() });

/** Whether the title of a composition fits its place. */
export const fitsTitle = (composed: Composed, context: FitContext): boolean =>
  overflowOf(bareTitle(composed), context) === 0;

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
