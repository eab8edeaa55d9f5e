import type { FontSet } from "@unitext/core/layout";
import {
  type BreakRule,
  countWords,
  type DeckMetadata,
  type PointChoice,
  type RichText,
  textOf,
} from "@unitext/core/model";
import type { Problem } from "@unitext/core/text";
import { figureGroups, isTextWithFigure, TEXT_AND_FIGURE } from "./beside";
import { asCharts, chooseArrangement, type Composed, divideFlow, withLeadAbove } from "./compose";
import { placeText } from "./destination";
import { type Draft, type Flow, slidePropertiesOfDraft, wordsInFlow } from "./draft";
import { fitComposition, fitsBeside, fitsTitle, fitTitle } from "./fit";
import { inColumns } from "./forms";
import type { Point } from "./points";
import {
  atSubheadings,
  hasSubheadings,
  joinedTitle,
  namesOfHeadings,
  openingHeading,
  withoutBareHeadings,
} from "./subheadings";
import { titleWithNumber } from "./titlenumbers";
import { continuedTitle, type OwnWord, titleKey } from "./topics";

/** What generating needs beside the text: ids and, for a rule that fits slides, the deck's theme and its fonts. */
export interface GenerateContext {
  newId: () => string;
  metadata?: DeckMetadata;
  fonts?: FontSet;
  /** The document that the slides record as their source. */
  document?: string;
}

/** What composing the drafts of a text needs. */
export interface Composing {
  rule: BreakRule;
  context: GenerateContext;
  choices: ReadonlyMap<string, PointChoice>;
  /** Problems of the text are added to it. */
  problems: Problem[];
}

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

/**
 * Returns the slides for one part of a draft's text. `isLater` says that slides of the draft come before them, `isLast` that
 * none come after.
 */
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
    const inTwo = fit && !isWhole ? inColumns(ready, fit) : undefined;
    composed.push(...(inTwo ? [inTwo] : fit ? fitComposition(ready, rule, fit, line, problems) : [ready]));
  }
  return { composed, opened: pieces[0]?.opener ?? false };
}

/**
 * Composes a draft: one slide or, where it is divided, several. One that is too much for a slide is cut at its subheadings.
 */
export function composeDraft(given: Draft, first: boolean, work: Composing): { composed: Composed[]; points: Point[] } {
  const draft = work.rule.overflow === "leave" ? given : withoutBareHeadings(given);
  const { rule, context, choices, problems } = work;
  const language = context.metadata?.language ?? "en";
  const wordsOnSlide = (flow: Flow[]) =>
    placeText({ ...draft, flow, notes: [] }, rule, language, choices).parts.reduce(
      (sum, part) => sum + wordsInFlow(part.flow),
      0,
    );
  const isWhole = rule.overflow === "leave" || draft.mark.arrangement !== undefined;
  const own: Problem[] = [];
  const whole = composePart(draft, first, { ...work, problems: own });
  const isCut = !isWhole && whole.pages.length > 1 && hasSubheadings(draft);
  if (!isCut) problems.push(...own);
  const made = isCut
    ? atSubheadings(draft, wordsOnSlide).map((part, nth) => composePart(part, first && nth === 0, work))
    : [whole];
  const openers = made[0]?.openers ?? [];
  const pages = made.flatMap((one) => one.pages);
  return {
    composed: [...openers, ...titled(pages, openers[0]?.title ?? null, rule, context)],
    points: made.flatMap(({ points }) => points),
  };
}

/** Composes a part of a draft that has one title: the slide that opens its section, and those with its content. */
function composePart(
  draft: Draft,
  first: boolean,
  { rule, context, choices, problems }: Composing,
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
function withOwnTitle(one: Composed, language: string, known: Set<string>, isOwn: OwnWord): Composed | undefined {
  const heading = openingHeading(one.flow);
  if (heading && one.title && !known.has(titleKey(heading))) {
    known.add(titleKey(heading));
    return { ...one, title: joinedTitle(one.title, heading) ?? heading, flow: one.flow.slice(1) };
  }
  const names = one.title && namesOfHeadings(one.flow);
  const named = names && one.title ? joinedTitle(one.title, names) : undefined;
  const title = named ?? continuedTitle(one, language, known, isOwn);
  return title && { ...one, title };
}

/** Returns a function that says whether a word is on only one of the slides. Counts the words at its first call. */
function ownWords(pages: readonly Composed[]): OwnWord {
  let slides: Map<string, number> | undefined;
  return (word) => {
    if (!slides) {
      slides = new Map();
      for (const { flow } of pages) {
        const texts = flow.flatMap((item) => (item.kind === "text" ? [textOf(item.text).toLowerCase()] : []));
        for (const one of new Set(texts.join(" ").match(/\p{L}+/gu))) slides.set(one, (slides.get(one) ?? 0) + 1);
      }
    }
    return slides.get(word.toLowerCase()) === 1;
  };
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
  const isOwn = ownWords(pages);
  return pages.map((one) => {
    const key = titleKey(one.title);
    const nth = (given.get(key) ?? 0) + 1;
    given.set(key, nth);
    const isNew = !known.has(key);
    known.add(key);
    const count = counts.get(key) ?? 1;
    if (!one.title || isNew) return one;
    const topical = rule.overflow === "leave" ? undefined : withOwnTitle(one, language, known, isOwn);
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
