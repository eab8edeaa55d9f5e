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
import { chooseArrangement, asCharts, type Composed, divideFlow, slideOf } from "./compose";
import { cutDrafts } from "./cut";
import { placeText } from "./destination";
import { type Draft, emptyDraft, type Flow, slidePropertiesOfDraft } from "./draft";
import { fitComposition, fitTitle } from "./fit";
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

function compose(
  draft: Draft,
  first: boolean,
  rule: BreakRule,
  context: GenerateContext,
  choices: ReadonlyMap<string, PointChoice>,
  problems: Problem[],
): { composed: Composed[]; points: Point[] } {
  const line = draft.lines?.from ?? 1;
  const language = context.metadata?.language ?? "en";
  const { parts: texts, points } = placeText(draft, rule, language, choices);
  const slots = new Map([...draft.slots].map(([name, held]) => [name, held.flow as readonly Flow[]]));
  const look = slidePropertiesOfDraft(draft);
  const named = draft.mark.arrangement;
  const whole = { title: draft.title, depth: draft.depth, slots };
  const list: Composed[] = [];
  let opened = false;
  for (const [nth, text] of texts.entries()) {
    const begun = {
      ...whole,
      depth: nth ? (draft.depth === null ? null : (2 as const)) : draft.depth,
      flow: asCharts(text.flow, rule),
    };
    const pieces =
      rule.overflow === "leave" || named !== undefined
        ? [{ flow: begun.flow, opener: false }]
        : divideFlow(begun, rule);
    opened ||= pieces[0]?.opener ?? false;
    // What is said goes with the text that it comes from, not with a figure before it.
    const texted = pieces.findIndex(({ opener, flow }) => !opener && flow.some(({ kind }) => kind === "text"));
    const spoken = texted >= 0 ? texted : pieces.findIndex(({ opener }) => !opener);
    for (const [at, { flow, opener }] of pieces.entries()) {
      const later = list.length > 0;
      const piece = {
        title: draft.title,
        depth: !later ? begun.depth : draft.depth === null ? null : (2 as const),
        flow,
        slots: nth === texts.length - 1 && at === pieces.length - 1 ? slots : new Map<string, readonly Flow[]>(),
      };
      const {
        arrangement,
        named: isNamed = false,
        reason,
      } = chooseArrangement(piece, first && !later, named, line, problems);
      const own: Composed = {
        ...piece,
        arrangement: opener && !first ? "section" : nameArrangement(arrangement, piece, rule),
        named: isNamed,
        reason,
        notes: at === Math.max(0, spoken) ? text.notes : [],
        properties: !later ? look : look.background ? { background: look.background } : {},
        steps: draft.mark.steps ?? false,
      };
      const ready = withNameLayout(own, rule);
      list.push(
        ...(context.fonts && context.metadata
          ? fitComposition(ready, rule, { metadata: context.metadata, fonts: context.fonts }, line, problems)
          : [ready]),
      );
    }
  }
  const numbered = list.slice(opened ? 1 : 0);
  const pages = numbered.map((one, at) => {
    const titled = { ...one, title: titleWithNumber(one.title, at + 1, numbered.length, language) };
    return context.fonts && context.metadata && numbered.length > 1
      ? fitTitle(titled, one, at + 1, numbered.length, { metadata: context.metadata, fonts: context.fonts })
      : titled;
  });
  return { composed: [...list.slice(0, opened ? 1 : 0), ...pages], points };
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
  const { newId, document } = context;
  const used = new Set<string>();
  const line: string[] = [];
  let first = true;
  let count = 0;
  const choices = rule.points?.length ? new Map(rule.points.map((choice) => [choice.sentence, choice])) : NO_CHOICES;
  const key = contextKey(rule, context);

  const composedOf = (draft: Draft): Omit<Kept, "key" | "parts"> => {
    const from = draft.lines?.from ?? 1;
    const owner = draft.made[0];
    const own = `${key}/${first}/${draft.key}`;
    const known = owner
      ? keptDrafts.get(owner)?.find((kept) => kept.key === own && same(kept.parts, draft.made))
      : undefined;
    if (known)
      return { ...known, problems: known.problems.map((problem) => ({ ...problem, line: problem.line + from })) };
    const problems: Problem[] = [];
    const { composed, points } = compose(draft, first, rule, context, choices, problems);
    const kept: Kept = {
      key: own,
      parts: draft.made,
      composed,
      points,
      problems: problems.map((problem) => ({ ...problem, line: problem.line - from })),
    };
    if (owner) keptDrafts.set(owner, [...(keptDrafts.get(owner) ?? []).slice(-3), kept]);
    return { composed, points, problems };
  };

  function* make(draft: Draft): Generator<GeneratedSlide> {
    const { composed, points, problems } = composedOf(draft);
    manuscript.problems.push(...problems);
    const { mark } = draft;
    const lines = draft.lines ?? { from: 1, to: 1 };
    const starts = composed.map((one, at) =>
      at === 0 ? lines.from : Math.max(lines.from, firstLine(one) ?? lines.from),
    );
    for (const [at, one] of composed.entries()) {
      const given =
        at === 0 && mark.id !== undefined && Id.safeParse(mark.id).success && !used.has(mark.id) ? mark.id : undefined;
      if (at === 0 && mark.id !== undefined && given === undefined)
        manuscript.problems.push({
          line: lines.from,
          message: `The id “${mark.id}” is used twice or is not letters, digits, - and _; the slide gets a new one.`,
        });
      const id = given ?? newId();
      used.add(id);
      const level = Math.min(mark.level ?? 0, line.length);
      line.length = level;
      const parent = level === 0 ? null : must(line[level - 1]);
      line.push(id);
      const slide = { ...slideOf(one, id, newId), parent, hidden: mark.hidden ?? false };
      const range = {
        from: must(starts[at]),
        to: Math.max(
          must(starts[at]),
          at + 1 < composed.length && must(starts[at + 1]) > must(starts[at]) ? must(starts[at + 1]) - 1 : lines.to,
        ),
      };
      within("slides", ++count, "slides");
      yield {
        slide: document ? { ...slide, source: { document, ...range, hash: hashOf(one, slide) } } : slide,
        lines: range,
        named: given !== undefined,
        reason: one.reason,
        part: at,
        points: at === 0 ? points : [],
      };
    }
    first = false;
  }

  const titled = manuscript.front.title && manuscript.front.titleSlide !== false;
  for (const next of cutDrafts(manuscript.blocks, rule, manuscript.problems, rule.overflow === "leave")) {
    if (first && titled && !(next.depth === 1 && sameTitle(next.title, manuscript.front.title, rule)))
      yield* make(openingDraft(manuscript.front));
    yield* make(next);
  }
  if (first && titled) yield* make(openingDraft(manuscript.front));
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
