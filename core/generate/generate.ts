import { contentHash } from "@unitext/core/diff";
import {
  type BreakRule,
  type Deck,
  type DeckMetadata,
  emptyDeck,
  type Extra,
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
import { type Composed, isOpener, slideOf } from "./compose";
import { composeDraft, type GenerateContext } from "./composedraft";
import { cutDrafts } from "./cut";
import { type Draft, emptyDraft, type Flow } from "./draft";
import { metadataFrom } from "./metadata";
import { agendaDraft, closingDraft, Sources, withContents } from "./extras";
import { inForms } from "./forms";
import { withGrownText } from "./growth";
import type { Point } from "./points";

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
            metadata.layouts,
          ]),
        )
      : "");
  if (metadata) contextKeys.set(metadata, look);
  return `${JSON.stringify(plain)}/${points?.length ? textHash(JSON.stringify(points)) : ""}/${look}/${fonts ? 1 : 0}`;
}

const NO_CHOICES: ReadonlyMap<string, PointChoice> = new Map();

function openingDraft(front: FrontMatter): Draft {
  const paragraph = (text: string): RichText => [{ kind: "plain", level: 0, runs: [run(text)] }];
  const lines = [front.subtitle, front.author, front.event, front.date].filter((text): text is string => !!text);
  const below = [...new Set(lines)].flatMap(paragraph);
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

/** Slides wait for their section to be complete, but no more of them than this. */
const LONGEST_SECTION = 40;

/** Generates the slides of drafts, in order. */
class Generation {
  private readonly used = new Set<string>();
  /** The ids of the slides that the next one may be a detail of, by level. */
  private readonly parents: string[] = [];
  private readonly choices: ReadonlyMap<string, PointChoice>;
  private readonly key: string;
  private count = 0;
  /** The links and footnotes on the slides so far. */
  readonly sources = new Sources();
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

  /** The drafts of the section so far, and what they became. */
  private section: { draft: Draft; composed: Composed[]; points: Point[] }[] = [];

  /** Whether slides of this section were given out before it was complete. */
  private isDivided = false;

  /** Takes a draft; the slides of a section are given out when the next one begins. */
  *take(draft: Draft): Generator<GeneratedSlide> {
    const { composed, points, problems } = this.composed(draft);
    this.manuscript.problems.push(...problems);
    if (composed[0] && isOpener(composed[0])) {
      yield* this.finish();
      this.isDivided = false;
    }
    this.section.push({ draft, composed, points });
    this.first = false;
    if (this.section.length < LONGEST_SECTION) return;
    this.isDivided = true;
    yield* this.finish();
  }

  /** Gives out the slides that are waiting, with the size of their text. */
  *finish(): Generator<GeneratedSlide> {
    const { metadata, fonts } = this.context;
    const waiting = this.section;
    this.section = [];
    const made = waiting.flatMap(({ composed }) => composed);
    const all = this.rule.extras?.includes("contents") ? withContents(made) : made;
    const fit = metadata && fonts && this.rule.overflow !== "leave" ? { metadata, fonts } : undefined;
    const formed = fit ? inForms(all, fit) : all;
    // In the layouts of a file, text has the size that the file gives it.
    const grown = fit && !fit.metadata.layouts ? withGrownText(formed, fit, this.isDivided) : formed;
    let from = 0;
    for (const { draft, composed, points } of waiting) {
      yield* this.slides(draft, grown.slice(from, from + composed.length), points);
      from += composed.length;
    }
  }

  private *slides(draft: Draft, composed: readonly Composed[], points: Point[]): Generator<GeneratedSlide> {
    const ranges = rangesOf(composed, draft.lines ?? { from: 1, to: 1 });
    const named = this.namedId(draft);
    for (const [at, one] of composed.entries()) {
      const id = (at === 0 ? named : undefined) ?? this.context.newId();
      this.used.add(id);
      const slide = {
        ...slideOf(one, id, this.context.newId, this.context.metadata?.layouts),
        ...this.nesting(draft, id),
      };
      const lines = must(ranges[at]);
      const { document } = this.context;
      within("slides", ++this.count, "slides");
      this.sources.add(slide);
      yield {
        slide: document ? { ...slide, source: { document, ...lines, hash: hashOf(one, slide) } } : slide,
        lines,
        named: at === 0 && named !== undefined,
        reason: one.reason,
        part: at,
        points: at === 0 ? points : [],
      };
    }
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
    const { composed, points } = composeDraft(draft, this.first, {
      rule: this.rule,
      context: this.context,
      choices: this.choices,
      problems,
    });
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
  const language = context.metadata?.language ?? "en";
  const wants = (extra: Extra) => rule.extras?.includes(extra) ?? false;
  // An agenda needs all headings before the first slide.
  const blocks = wants("agenda") ? [...manuscript.blocks] : manuscript.blocks;
  let agenda = wants("agenda") ? agendaDraft(manuscript, [...blocks], language) : undefined;
  let line = 1;
  for (const next of cutDrafts(blocks, rule, manuscript.problems, rule.overflow === "leave")) {
    const isTitle = next.depth === 1 && sameTitle(next.title, front.title, rule);
    // A title page opens the deck with all of its lines; what the document has under its title follows.
    const hasTitlePage = generation.first && isTitle && front.subtitle !== undefined;
    if (generation.first && hasTitle && (!isTitle || hasTitlePage)) yield* generation.take(openingDraft(front));
    // The agenda follows the slide that opens the deck.
    if (agenda && !generation.first) {
      yield* generation.take(agenda);
      agenda = undefined;
    }
    if (hasTitlePage && next.flow.length) yield* generation.take({ ...next, depth: 2, key: `${next.key}demoted;` });
    else if (!hasTitlePage) yield* generation.take(next);
    line = next.lines?.to ?? line;
  }
  if (generation.first && hasTitle) yield* generation.take(openingDraft(front));
  yield* generation.finish();
  const sources = wants("sources") ? generation.sources.draft(manuscript, language, line) : undefined;
  if (sources) yield* generation.take(sources);
  if (wants("closing")) yield* generation.take(closingDraft(manuscript, language, line));
  yield* generation.finish();
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
