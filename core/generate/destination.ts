import {
  type BreakRule,
  countWords,
  isEmptyText,
  joinRuns,
  type Paragraph,
  paragraphText,
  type PointChoice,
  type RichText,
  run,
  type Run,
  textOf,
  must,
} from "@unitext/core/model";
import { namesReferences } from "@unitext/core/text";
import type { Draft, Flow } from "./draft";
import { type Point, pointsOf, sentencesOf, trimToPoint } from "./points";
import { subjectIn } from "./topics";

/**
 * The text of a draft as it is placed: for each slide, what stays in its flow and what goes to its notes, and the
 * points taken.
 */
export interface PlacedText {
  parts: { flow: Flow[]; notes: RichText }[];
  points: Point[];
}

/** Prose of at most this many words is as short as a point: it is not shortened, nor copied to the notes. */
const SHORT = 14;

const isProse = ({ kind, level, runs }: Paragraph) =>
  kind === "plain" && level === 0 && !runs.every(({ marks }) => marks?.includes("strong"));

/** Returns the paragraph without the footnotes that are already on the slide. */
function without(paragraph: Paragraph, shown: ReadonlySet<object>): Paragraph {
  return paragraph.runs.some(({ footnote }) => footnote && shown.has(footnote))
    ? { ...paragraph, runs: paragraph.runs.filter(({ footnote }) => !footnote || !shown.has(footnote)) }
    : paragraph;
}

/** Whether paragraphs have more than this many words. */
function hasMoreWords(text: RichText, most: number): boolean {
  let words = 0;
  return text.some((paragraph) => (words += countWords(paragraphText(paragraph))) > most);
}

const LEADS = /[:：]\s*$/;

/**
 * Returns the paragraphs that lead into a list or figure after them, and what of them stays on the slide: all, or the last
 * sentence of a long one.
 */
function leadIns(flow: readonly Flow[], language: string): Map<Paragraph, Paragraph> {
  const leads = new Map<Paragraph, Paragraph>();
  /** The paragraphs in order; undefined for a figure. */
  const all = flow.flatMap((item): (Paragraph | undefined)[] =>
    item.kind === "text" && !item.quote ? item.text : [undefined],
  );
  all.forEach((one, nth) => {
    if (!one || nth === all.length - 1 || !isProse(one) || !LEADS.test(paragraphText(one))) return;
    const next = all[nth + 1];
    if (next && next.kind === "plain") return;
    const last = sentencesOf(one, language).at(-1);
    const isLong = countWords(paragraphText(one)) > SHORT * 1.5;
    leads.set(one, isLong && last ? { ...one, runs: last.runs } : one);
  });
  return leads;
}

/** An item of more words is shortened where it can be. */
const LONG_ITEM = 16;
/** A term at the beginning of an item, such as “Still reachable.”, has at most so many words. */
const TERM = 6;
/** A sentence of so many words stands in a list as it is. */
const LONG_SENTENCE = 34;

/**
 * Returns a long item of a list as a point: its first sentence, shortened where it can be, or the term that it explains; the
 * item where its only sentence is not too long.
 */
function shortItem(paragraph: Paragraph, language: string): Paragraph {
  const [first, ...rest] = sentencesOf(paragraph, language);
  if (!first) return paragraph;
  const words = countWords(first.sentence);
  const isTerm = rest.length > 0 && words <= TERM;
  const runs = isTerm ? withoutStop(first.runs) : trimToPoint(first.runs, language);
  if (runs) return { ...paragraph, runs };
  return rest.length > 0 && words <= LONG_SENTENCE ? { ...paragraph, runs: first.runs } : paragraph;
}

const isMarked = ({ runs }: Paragraph) =>
  runs.length > 0 && runs.every(({ marks, text }) => marks?.includes("strong") || text.trim() === "");

/** Whether an item of a list is a bold term with one explanation below it. */
function isExplained(text: RichText, at: number): boolean {
  const [term, explanation, next] = [text[at], text[at + 1], text[at + 2]];
  if (!term || !explanation || term.kind === "plain" || explanation.kind === "plain") return false;
  if (!isMarked(term) || countWords(paragraphText(term)) > TERM || explanation.level !== term.level + 1) return false;
  return !next || next.level <= term.level || (next.kind === "plain" && countWords(paragraphText(explanation)) > TERM);
}

/** Returns a term followed by its explanation, as one item. */
function withExplanation(term: Paragraph, explanation: Paragraph): Paragraph {
  const named = joinRuns(withoutStop(term.runs));
  return { ...term, runs: joinRuns([...named, run(": "), ...explanation.runs]) };
}

/**
 * Whether a paragraph of a list goes on explaining an item of which a sentence is on the slide already. What leads into a
 * list below it stays.
 */
function explainsMore(text: RichText, at: number): boolean {
  const [before, paragraph, next] = [text[at - 1], text[at], text[at + 1]];
  if (!before || !paragraph || paragraph.kind !== "plain" || paragraph.level === 0) return false;
  if (next && next.kind !== "plain" && next.level > paragraph.level) return false;
  return before.level >= paragraph.level - 1 && countWords(paragraphText(before)) > TERM;
}

/** Returns runs without the full stop or colon at their end. */
const withoutStop = (runs: readonly Run[]): Run[] =>
  runs.map((item, nth) => (nth === runs.length - 1 ? { ...item, text: item.text.replace(/[\s.:]+$/u, "") } : item));

type Destination = (draft: Draft, language: string, choices: ReadonlyMap<string, PointChoice>) => PlacedText;

const toSlide: Destination = ({ flow }) => ({ parts: [{ flow, notes: [] }], points: [] });

/**
 * Returns what stands for a text on a slide that has its text in the notes and no title: its best point, else its first
 * sentence where that is not too long, else what it is about.
 */
function bestPoint(flow: readonly Flow[], language: string): Flow[] {
  const texts = flow.filter((item) => item.kind === "text");
  const prose = texts.flatMap(({ text }) => text.filter(isProse));
  const best = pointsOf(prose, language, new Map()).find(({ chosen }) => chosen);
  const [first] = prose;
  const [sentence] = first ? sentencesOf(first, language) : [];
  const isShort = sentence !== undefined && countWords(sentence.sentence) <= LONG_SENTENCE;
  const about = first && subjectIn(first, language);
  const runs = best?.bullet.runs ?? (isShort ? sentence.runs : about ? [run(about)] : undefined);
  return runs
    ? [{ kind: "text", text: [{ kind: "plain", level: 0, runs }], lines: texts[0]?.lines.slice(0, 1) ?? [] }]
    : [];
}

const toNotes: Destination = ({ flow, title }, language) => {
  const figures = flow.filter(({ kind }) => kind !== "text");
  const notes = flow.flatMap((item) => (item.kind === "text" ? item.text : []));
  const shown = title || figures.length ? figures : bestPoint(flow, language);
  return { parts: [{ flow: shown, notes }], points: [] };
};

/** More points than these are too many for one slide (common practice, no source); they are distributed evenly. */
const MOST_POINTS = 6;

/** Puts points on the slide, and the whole text of what was shortened in the notes. */
const toBoth: Destination = (draft, language, choices) => {
  // Sources are listed, not shortened.
  if (namesReferences(draft.title)) return toSlide(draft, language, choices);
  const { flow, title } = draft;
  const leads = leadIns(flow, language);
  const isPointed = (paragraph: Paragraph) => isProse(paragraph) && !leads.has(paragraph);
  const prose = flow.flatMap((item) => (item.kind === "text" && !item.quote ? item.text.filter(isPointed) : []));
  const short =
    !hasMoreWords(prose, SHORT) && !prose.some((paragraph) => paragraph.runs.some(({ text }) => choices.has(text)));
  const taken = short ? [] : pointsOf(prose, language, choices, textOf(title ?? []));
  const byParagraph = prose.map((): typeof taken => []);
  for (const point of taken) byParagraph[point.paragraph]?.push(point);
  let nth = 0;
  const chosen = taken.filter((point) => point.chosen).length;
  const most = Math.ceil(chosen / Math.ceil(chosen / MOST_POINTS));
  const shown = new Set<object>();
  const parts: PlacedText["parts"] = [{ flow: [], notes: [] }];
  let count = 0;
  for (const item of flow) {
    let part = must(parts.at(-1));
    if (item.kind !== "text" || item.quote) {
      part.flow.push(item);
      continue;
    }
    let text: Paragraph[] = [];
    let lines: number[] = [];
    const close = () => {
      if (text.length) part.flow.push({ ...item, text, lines });
      text = [];
      lines = [];
    };
    item.text.forEach((paragraph, at) => {
      const line = item.lines[at] ?? item.lines[0] ?? 1;
      const put = (next: Paragraph) => {
        for (const { footnote } of next.runs) if (footnote) shown.add(footnote);
        text.push(next);
        lines.push(line);
      };
      // A term is on one line with its explanation.
      if (isExplained(item.text, at)) return;
      const term = isExplained(item.text, at - 1) ? item.text[at - 1] : undefined;
      const lead = leads.get(paragraph);
      if (term) {
        const explanation = shortItem(paragraph, language);
        put(withExplanation(term, explanation));
        if (explanation !== paragraph) part.notes.push({ ...paragraph, kind: "plain", level: 0 });
      } else if (lead) {
        put(lead);
        if (lead !== paragraph) part.notes.push(paragraph);
      } else if (isProse(paragraph) && !short) {
        const own = (byParagraph[nth++] ?? []).filter((point) => point.chosen);
        if (own.length && count + own.length > most && count > 0) {
          close();
          part = { flow: [], notes: [] };
          parts.push(part);
          count = 0;
        }
        for (const point of own) put(point.bullet);
        count += own.length;
        part.notes.push(paragraph);
      } else if (explainsMore(item.text, at)) {
        part.notes.push({ ...paragraph, level: 0 });
      } else if (
        (paragraph.kind !== "plain" || paragraph.level > 0) &&
        countWords(paragraphText(paragraph)) > LONG_ITEM
      ) {
        const item = shortItem(paragraph, language);
        put(item);
        if (item !== paragraph) part.notes.push({ ...paragraph, kind: "plain", level: 0 });
      } else put(paragraph);
    });
    close();
  }
  const [only] = parts;
  if (!title && only && parts.length === 1 && !only.flow.length) only.flow.push(...bestPoint(flow, language));
  return {
    parts: parts.map((part) => ({ ...part, notes: part.notes.map((paragraph) => without(paragraph, shown)) })),
    points: taken.map(({ bullet: _, ...point }) => point),
  };
};

const DESTINATIONS: Record<BreakRule["placement"], Destination> = { slide: toSlide, notes: toNotes, both: toBoth };

/** Places the text of a draft as the rule says. Notes in the text follow those that come from its prose. */
export function placeText(
  draft: Draft,
  rule: BreakRule,
  language: string,
  choices: ReadonlyMap<string, PointChoice>,
): PlacedText {
  // The lines of the title page are shown as they are.
  const placement = draft.mark.arrangement === "opening" ? "slide" : rule.placement;
  const { parts, points } = DESTINATIONS[placement](draft, language, choices);
  const [first, ...rest] = parts as [PlacedText["parts"][number], ...PlacedText["parts"]];
  return {
    parts: isEmptyText(draft.notes) ? parts : [{ ...first, notes: [...first.notes, ...draft.notes] }, ...rest],
    points,
  };
}
