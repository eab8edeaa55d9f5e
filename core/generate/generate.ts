import { contentHash } from "@unitext/core/diff";
import type { FontSet } from "@unitext/core/layout";
import {
  type BreakRule,
  countWords,
  type Deck,
  type DeckMetadata,
  emptyDeck,
  metadataOf,
  Id,
  type PointChoice,
  type RichText,
  run,
  type Slide,
  textHash,
  textOf,
  within,
  must,
} from "@unitext/core/model";
import type { FrontMatter, Lines, Manuscript, Problem, Reason } from "@unitext/core/text";
import { chooseArrangement, asCharts, type Composed, divideFlow, slideOf, withLeadAbove } from "./compose";
import { cutDrafts } from "./cut";
import { placeText } from "./destination";
import { type Draft, emptyDraft, type Flow, slidePropertiesOfDraft } from "./draft";
import { figureGroups, isTextWithFigure, TEXT_AND_FIGURE } from "./beside";
import { fitComposition, fitsBeside, fitsTitle, fitTitle } from "./fit";
import { atSubheadings, hasSubheadings, joinedTitle, namesOfHeadings, openingHeading } from "./subheadings";
import { continuedTitle, titleKey } from "./topics";
import { titleWithNumber } from "./titlenumbers";
import { metadataFrom } from "./metadata";
import type { Point } from "./points";

/** What generating needs beside the text: ids and, for a rule that fits slides, the deck's theme and its fonts. */
export interface GenerateContext {
  newId: () => string;
  metadata?: DeckMetadata;
  fonts?: FontSet;
  /** The document that the slides record as their source. */
  document?: string;
}

/**
 * A generated slide: the lines that made it, whether the text names its id, the reason for its arrangement, and the
 * points taken for it.
 */
export interface GeneratedSlide {
  slide: Slide;
  lines: Lines;
  named: boolean;
  reason: Reason;
  /** 0 for a slide that starts with its piece of the text, above for those that continue it. */
  part: number;
  points: Point[];
}

/** What a draft became. Cached as long as the text that made it lives, so that typing elsewhere makes nothing again. */
interface Kept {
  key: string;
  parts: readonly object[];
  composed: Composed[];
  points: Point[];
  problems: Problem[];
}

const keptDrafts = new WeakMap<object, Kept[]>();

function same(a: readonly object[], b: readonly object[]): boolean {
  return a.length === b.length && a.every((part, at) => part === b[at]);
}

const contextKeys = new WeakMap<object, string>();

/** Returns a key of everything in rule and theme that changes a composition. */
function contextKey(rule: BreakRule, { metadata, fonts }: GenerateContext): string {
  const { points, ...plain } = rule;
  const known = metadata && contextKeys.get(metadata);
  const look =
    known ??
    (metadata
      ? textHash(
          JSON.stringify([
            metadata.page,
            metadata.theme,
            metadata.regions.footer !== "",
            metadata.language,
            metadata.assets,
          ]),
        )
      : "");
  if (metadata) contextKeys.set(metadata, look);
  return `${JSON.stringify(plain)}/${points?.length ? textHash(JSON.stringify(points)) : ""}/${look}/${fonts ? 1 : 0}`;
}

const NO_CHOICES: ReadonlyMap<string, PointChoice> = new Map();

/** What composing one draft needs. */
interface DraftContext {
  draft: Draft;
  /** Whether it is the first of the deck. */
  first: boolean;
  rule: BreakRule;
  context: GenerateContext;
  problems: Problem[];
  /** The line where the draft starts. */
  line: number;
}

const fitContextOf = ({ metadata, fonts }: GenerateContext) => (metadata && fonts ? { metadata, fonts } : undefined);

/** A piece of a draft that becomes a slide of its own, with its columns where it has some. */
interface Piece {
  flow: readonly Flow[];
  opener: boolean;
  slots?: ReadonlyMap<string, readonly Flow[]>;
}

/**
 * Puts figures beside the texts before them, where each fits so at a readable size; undefined where one does not. A text that
 * has no figure, or a figure without text, is a piece of its own.
 */
function withFiguresBeside(
  { flow, title }: { flow: readonly Flow[]; title: RichText | null },
  isLater: boolean,
  { draft, context }: DraftContext,
): Piece[] | undefined {
  const fit = fitContextOf(context);
  const groups = fit && figureGroups(flow);
  if (!groups) return undefined;
  const pieces = groups.map((group): Piece => {
    if (!isTextWithFigure(group) || !group.figure)
      return { flow: group.figure ? [...group.text, group.figure] : group.text, opener: false };
    return { flow: group.text, opener: false, slots: new Map([["right", [group.figure]]]) };
  });
  const fits = pieces.every(
    (piece) =>
      !piece.slots ||
      fitsBeside(
        {
          title,
          depth: isLater ? 2 : draft.depth,
          flow: piece.flow,
          slots: piece.slots,
          notes: [],
          properties: { widths: [...TEXT_AND_FIGURE] },
          arrangement: "comparison",
          reason: "figure-beside-text",
          steps: false,
        },
        fit,
      ),
  );
  return fits ? pieces : undefined;
}

/** Composes the pieces of one text of a draft; `isLater` where slides of the draft go before, `isLast` where none come after. */
function composeText(
  work: DraftContext,
  text: { flow: readonly Flow[]; notes: RichText },
  slots: ReadonlyMap<string, readonly Flow[]>,
  { isLater, isLast }: { isLater: boolean; isLast: boolean },
): { composed: Composed[]; opened: boolean } {
  const { draft, first, rule, context, problems, line } = work;
  const continued = draft.depth === null ? null : (2 as const);
  const named = draft.mark.arrangement;
  const properties = slidePropertiesOfDraft(draft);
  const background = properties.background ? { background: properties.background } : {};
  const depth = isLater ? continued : draft.depth;
  const whole = { title: draft.title, depth, slots, flow: asCharts(text.flow, rule) };
  const isWhole = rule.overflow === "leave" || named !== undefined;
  const divided = isWhole ? [{ flow: whole.flow, opener: false }] : divideFlow(whole, rule);
  const opener = divided.filter((piece) => piece.opener);
  const beside = isWhole || slots.size ? undefined : withFiguresBeside(whole, opener.length > 0 || isLater, work);
  const pieces: Piece[] = beside ? [...opener, ...beside] : divided;
  // What is said goes with the text that it comes from, not with a figure before it.
  const withText = pieces.findIndex((piece) => !piece.opener && piece.flow.some(({ kind }) => kind === "text"));
  const spoken = withText >= 0 ? withText : pieces.findIndex((piece) => !piece.opener);
  const composed: Composed[] = [];
  for (const [at, piece] of pieces.entries()) {
    const later = isLater || composed.length > 0;
    const part = {
      title: draft.title,
      depth: later ? continued : depth,
      flow: piece.flow,
      slots: piece.slots ?? (isLast && at === pieces.length - 1 ? slots : new Map<string, readonly Flow[]>()),
    };
    const recognised = chooseArrangement(part, first && !later, named, line, problems);
    const chosen = isWhole ? recognised : withLeadAbove(recognised, part.flow);
    const own: Composed = {
      ...part,
      arrangement: piece.opener && !first ? "section" : nameArrangement(chosen.arrangement, part, rule),
      named: chosen.named ?? false,
      reason: piece.slots ? "figure-beside-text" : chosen.reason,
      notes: at === Math.max(0, spoken) ? text.notes : [],
      properties: { ...(later ? background : properties), ...(piece.slots ? { widths: [...TEXT_AND_FIGURE] } : {}) },
      steps: draft.mark.steps ?? false,
    };
    const ready = withNameLayout(own, rule);
    const fit = fitContextOf(context);
    composed.push(...(fit ? fitComposition(ready, rule, fit, line, problems) : [ready]));
  }
  return { composed, opened: pieces[0]?.opener ?? false };
}

/**
 * Composes a draft: one slide or, where it is divided, several. One that is too much for a slide is cut at its subheadings.
 */
function compose(
  draft: Draft,
  first: boolean,
  rule: BreakRule,
  context: GenerateContext,
  choices: ReadonlyMap<string, PointChoice>,
  problems: Problem[],
): { composed: Composed[]; points: Point[] } {
  const language = context.metadata?.language ?? "en";
  const wordsOnSlide = (flow: Flow[]) =>
    placeText({ ...draft, flow, notes: [] }, rule, language, choices).parts.reduce(
      (sum, part) => sum + wordsOf(part.flow),
      0,
    );
  const isWhole = rule.overflow === "leave" || draft.mark.arrangement !== undefined;
  const own: Problem[] = [];
  const whole = composePart(draft, first, rule, context, choices, own);
  const isCut = !isWhole && whole.pages.length > 1 && hasSubheadings(draft);
  if (!isCut) problems.push(...own);
  const made = isCut
    ? atSubheadings(draft, wordsOnSlide).map((part, nth) =>
        composePart(part, first && nth === 0, rule, context, choices, problems),
      )
    : [whole];
  const openers = made[0]?.openers ?? [];
  const pages = made.flatMap((one) => one.pages);
  return {
    composed: [...openers, ...titled(pages, openers[0]?.title ?? null, rule, context)],
    points: made.flatMap(({ points }) => points),
  };
}

const wordsOf = (flow: readonly Flow[]) =>
  flow.reduce((sum, item) => sum + (item.kind === "text" ? countWords(textOf(item.text)) : 0), 0);

/** Composes a part of a draft that has one title: the slide that opens its section, and those with its content. */
function composePart(
  draft: Draft,
  first: boolean,
  rule: BreakRule,
  context: GenerateContext,
  choices: ReadonlyMap<string, PointChoice>,
  problems: Problem[],
): { openers: Composed[]; pages: Composed[]; points: Point[] } {
  const work: DraftContext = { draft, first, rule, context, problems, line: draft.lines?.from ?? 1 };
  const language = context.metadata?.language ?? "en";
  const { parts: texts, points } = placeText(draft, rule, language, choices);
  const slots = new Map([...draft.slots].map(([name, held]) => [name, held.flow as readonly Flow[]]));
  const list: Composed[] = [];
  let hasOpener = false;
  for (const [nth, text] of texts.entries()) {
    const place = { isLater: list.length > 0, isLast: nth === texts.length - 1 };
    const { composed, opened } = composeText(work, text, slots, place);
    list.push(...composed);
    hasOpener ||= opened;
  }
  const count = hasOpener ? 1 : 0;
  return { openers: list.slice(0, count), pages: list.slice(count), points };
}

/** Returns a slide that continues another one with a title of its own: its subheading, or its topic. */
function withOwnTitle(one: Composed, language: string, known: Set<string>): Composed | undefined {
  const heading = openingHeading(one.flow);
  if (heading && one.title && !known.has(titleKey(heading))) {
    known.add(titleKey(heading));
    return { ...one, title: joinedTitle(one.title, heading) ?? heading, flow: one.flow.slice(1) };
  }
  const names = one.title && namesOfHeadings(one.flow);
  const named = names && one.title ? joinedTitle(one.title, names) : undefined;
  const title = named ?? continuedTitle(one, language, known);
  return title && { ...one, title };
}

/**
 * Gives the slides of one draft different titles: the first has the heading; another with the same names its topic after
 * it, and is numbered where nothing tells them apart. After a slide that opens the section, the first names its topic too.
 */
function titled(
  pages: readonly Composed[],
  opener: Composed["title"],
  rule: BreakRule,
  context: GenerateContext,
): Composed[] {
  const language = context.metadata?.language ?? "en";
  const fit = fitContextOf(context);
  const opened = opener ? titleKey(opener) : undefined;
  const known = new Set(opened === undefined ? [] : [opened]);
  const counts = new Map<string, number>();
  for (const { title } of pages) counts.set(titleKey(title), (counts.get(titleKey(title)) ?? 0) + 1);
  const given = new Map<string, number>();
  return pages.map((one) => {
    const key = titleKey(one.title);
    const nth = (given.get(key) ?? 0) + 1;
    given.set(key, nth);
    const isNew = !known.has(key);
    known.add(key);
    const count = counts.get(key) ?? 1;
    if (!one.title || isNew) return one;
    const topical = rule.overflow === "leave" ? undefined : withOwnTitle(one, language, known);
    if (topical && (!fit || fitsTitle(topical, fit))) return topical;
    if (count < 2) return one;
    const numbered = { ...one, title: titleWithNumber(one.title, nth, count, language) };
    return fit ? fitTitle(numbered, one, nth, count, fit) : numbered;
  });
}

/** A name of at most this many words gets the name layout of the rule: large in the middle, or in the corner. */
const NAME_SLIDE = 6;

function nameArrangement(
  arrangement: Composed["arrangement"],
  { title, flow }: { title: RichText | null; flow: readonly Flow[] },
  rule: BreakRule,
): Composed["arrangement"] {
  const card =
    rule.cuts.some(({ kind }) => kind === "line") &&
    arrangement === "statement" &&
    title === null &&
    flow.length === 1 &&
    flow[0]?.kind === "text" &&
    countWords(textOf(flow[0].text)) <= NAME_SLIDE;
  return card ? (rule.names === "corner" ? "corner" : "card") : arrangement;
}

function withNameLayout(composed: Composed, rule: BreakRule): Composed {
  if (
    (composed.arrangement !== "corner" && composed.arrangement !== "card") ||
    composed.title ||
    !rule.cuts.some(({ kind }) => kind === "line")
  )
    return composed;
  const [only] = composed.flow;
  return only?.kind === "text" ? { ...composed, title: only.text, flow: [], reason: "name" } : composed;
}

function openingDraft(front: FrontMatter): Draft {
  const paragraph = (text: string): RichText => [{ kind: "plain", level: 0, runs: [run(text)] }];
  const below = [front.author, front.event, front.date].filter((text): text is string => !!text).flatMap(paragraph);
  const flow: Flow[] = below.length ? [{ kind: "text", text: below, lines: below.map(() => 1) }] : [];
  return {
    ...emptyDraft(),
    lines: { from: 1, to: 1 },
    mark: { arrangement: "opening" },
    title: paragraph(front.title ?? ""),
    depth: 1,
    flow,
    made: [front],
    key: "front",
  };
}

const hashes = new WeakMap<Composed, string>();

/** Returns the hash of a generated slide, which is stored with it: a slide whose hash differs was changed by hand. */
function hashOf(composed: Composed, slide: Slide): string {
  const known = hashes.get(composed) ?? contentHash(slide);
  hashes.set(composed, known);
  return known;
}

const firstLine = ({ flow }: Composed): number | undefined => {
  const lines = flow.flatMap((item) => (item.kind === "text" ? [...item.lines.slice(0, 1)] : [item.line]));
  return lines.length ? Math.min(...lines) : undefined;
};

/** Generates the slides of drafts, in order. */
class Generation {
  private readonly used = new Set<string>();
  /** The ids of the slides that the next one may be a detail of, by level. */
  private readonly parents: string[] = [];
  private readonly choices: ReadonlyMap<string, PointChoice>;
  private readonly key: string;
  private count = 0;
  /** Whether no draft was made so far. */
  first = true;

  constructor(
    private readonly manuscript: Manuscript,
    private readonly rule: BreakRule,
    private readonly context: GenerateContext,
  ) {
    this.choices = rule.points?.length ? new Map(rule.points.map((choice) => [choice.sentence, choice])) : NO_CHOICES;
    this.key = contextKey(rule, context);
  }

  *make(draft: Draft): Generator<GeneratedSlide> {
    const { composed, points, problems } = this.composed(draft);
    this.manuscript.problems.push(...problems);
    const ranges = rangesOf(composed, draft.lines ?? { from: 1, to: 1 });
    const named = this.namedId(draft);
    for (const [at, one] of composed.entries()) {
      const id = (at === 0 ? named : undefined) ?? this.context.newId();
      this.used.add(id);
      const slide = { ...slideOf(one, id, this.context.newId), ...this.nesting(draft, id) };
      const lines = must(ranges[at]);
      const { document } = this.context;
      within("slides", ++this.count, "slides");
      yield {
        slide: document ? { ...slide, source: { document, ...lines, hash: hashOf(one, slide) } } : slide,
        lines,
        named: at === 0 && named !== undefined,
        reason: one.reason,
        part: at,
        points: at === 0 ? points : [],
      };
    }
    this.first = false;
  }

  /** Returns what a draft becomes: as it was made before, if its text and everything around it are the same. */
  private composed(draft: Draft): Omit<Kept, "key" | "parts"> {
    const from = draft.lines?.from ?? 1;
    const owner = draft.made[0];
    const key = `${this.key}/${this.first}/${draft.key}`;
    const known = owner && keptDrafts.get(owner)?.find((kept) => kept.key === key && same(kept.parts, draft.made));
    const shifted = (list: readonly Problem[], by: number) =>
      list.map((problem) => ({ ...problem, line: problem.line + by }));
    if (known) return { ...known, problems: shifted(known.problems, from) };
    const problems: Problem[] = [];
    const { composed, points } = compose(draft, this.first, this.rule, this.context, this.choices, problems);
    const kept: Kept = { key, parts: draft.made, composed, points, problems: shifted(problems, -from) };
    if (owner) keptDrafts.set(owner, [...(keptDrafts.get(owner) ?? []).slice(-3), kept]);
    return { composed, points, problems };
  }

  /** Returns the id that the text gives a slide; undefined, with a problem, when it cannot have it. */
  private namedId({ mark, lines }: Draft): string | undefined {
    if (mark.id === undefined) return undefined;
    if (Id.safeParse(mark.id).success && !this.used.has(mark.id)) return mark.id;
    this.manuscript.problems.push({
      line: lines?.from ?? 1,
      message: `The id “${mark.id}” is used twice or is not letters, digits, - and _; the slide gets a new one.`,
    });
    return undefined;
  }

  private nesting({ mark }: Draft, id: string): Pick<Slide, "parent" | "hidden"> {
    const level = Math.min(mark.level ?? 0, this.parents.length);
    this.parents.length = level;
    const parent = level === 0 ? null : must(this.parents[level - 1]);
    this.parents.push(id);
    return { parent, hidden: mark.hidden ?? false };
  }
}

/** Returns the lines of each slide of a draft: from its first line to that of the next. */
function rangesOf(composed: readonly Composed[], lines: Lines): Lines[] {
  const starts = composed.map((one, at) =>
    at === 0 ? lines.from : Math.max(lines.from, firstLine(one) ?? lines.from),
  );
  return starts.map((from, at) => {
    const next = starts[at + 1];
    return { from, to: Math.max(from, next !== undefined && next > from ? next - 1 : lines.to) };
  });
}

/**
 * Generates slides from a manuscript by a rule, one at a time as its blocks are read. A title slide is made from the
 * front matter where the text does not start with a heading of level 1. Ids come from `newId`, except those that the
 * text names. Problems are added to the manuscript's own. With fonts, no generated slide overflows unless the rule
 * leaves it so.
 */
export function* generate(
  manuscript: Manuscript,
  rule: BreakRule,
  context: GenerateContext,
): Generator<GeneratedSlide> {
  const generation = new Generation(manuscript, rule, context);
  const { front } = manuscript;
  const hasTitle = front.title && front.titleSlide !== false;
  for (const next of cutDrafts(manuscript.blocks, rule, manuscript.problems, rule.overflow === "leave")) {
    if (generation.first && hasTitle && !(next.depth === 1 && sameTitle(next.title, front.title, rule)))
      yield* generation.make(openingDraft(front));
    yield* generation.make(next);
  }
  if (generation.first && hasTitle) yield* generation.make(openingDraft(front));
}

/**
 * In a typed deck any first heading of level 1 is the title slide; in a document only the one that repeats its title.
 */
function sameTitle(title: RichText | null, wanted: string | undefined, rule: BreakRule): boolean {
  return (
    rule.overflow === "leave" ||
    textOf(title ?? [])
      .trim()
      .toLowerCase() === wanted?.trim().toLowerCase()
  );
}

/** Generates a deck from a manuscript. Its title is the front matter's, else the first slide's, else `fallback`. */
export function generateDeck(
  manuscript: Manuscript,
  rule: BreakRule,
  context: GenerateContext,
  fallback = "Untitled",
  assets: DeckMetadata["assets"] = {},
): { deck: Deck; made: GeneratedSlide[] } {
  const deck = context.metadata
    ? { ...emptyDeck(context.newId(), ""), ...context.metadata, id: context.newId(), slides: [] }
    : emptyDeck(context.newId(), manuscript.front.title ?? "");
  const metadata = {
    ...metadataFrom(manuscript.front, metadataOf(deck), manuscript.problems),
    assets: { ...deck.assets, ...assets },
  };
  const made = [...generate(manuscript, rule, { ...context, metadata })];
  const opening = made[0]?.slide.elements.find((element) => element.kind === "text" && element.slot === "title");
  const title = metadata.properties.title || (opening?.kind === "text" ? textOf(opening.text) : "") || fallback;
  return {
    deck: { ...metadata, properties: { ...metadata.properties, title }, slides: made.map(({ slide }) => slide) },
    made,
  };
}
