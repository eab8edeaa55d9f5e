import {
  countWords,
  joinRuns,
  type Paragraph,
  paragraphText,
  type PointChoice,
  type Run,
  must,
} from "@unitext/core/model";
import { compressed, isWholeClause } from "./compression";
import type { Range } from "./grammar";
import type { PointEngine } from "./proposals";
import { rankable, rankSentences, type Sentence } from "./textrank";

/** A point, the sentence that it was taken from, and whether the method or the user chose it. */
export interface Point {
  sentence: string;
  point: string;
  chosen: boolean;
  edited: boolean;
  /** Set where a service proposed its words. */
  by?: "service";
  /** The index of its paragraph in the prose. */
  paragraph: number;
}

/** How many points a stretch of prose gives at most, and the fewest words of one (common practice, no source). */
const MOST = 6;
/** How many points a stretch of prose gives where it has so many: fewer leave a slide empty. */
const FEWEST = 3;
const SHORTEST = 3;
/** A sentence of this many words stands alone as it is, where nothing else of a slide's prose can. */
const LONGEST = 34;

const ABBREVIATION =
  /(?:^|[\s(])(?:Dr|Prof|Mr|Mrs|Ms|St|No|Nr|Fig|Figs|Eq|Ch|Sec|Vol|pp?|cf|ca|approx|e\.g|i\.e|etc|vs|al|z\.\s?B|d\.\s?h|bzw|usw|Abb|Sr|Sra|p\.\s?ej|núm|env|p\.\s?ex)\.\s*$/i;
/** An initial, or the first half of “z. B.”. */
const INITIAL = /(?:^|[\s(])(?:\p{Lu}|z|d|u)\.\s*$/u;
const segmenters = new Map<string, Intl.Segmenter>();

/** Returns the sentences of a text as ranges. A full stop after an abbreviation ends none. */
export function sentenceRanges(text: string, language: string): { from: number; to: number }[] {
  let segmenter = segmenters.get(language);
  if (!segmenter) segmenters.set(language, (segmenter = new Intl.Segmenter(language, { granularity: "sentence" })));
  const ranges: { from: number; to: number }[] = [];
  let open = 0;
  for (const { segment, index } of segmenter.segment(text)) {
    const to = index + segment.length;
    if (
      to < text.length &&
      (/[.!?][)"”’]*$/.test(text.slice(open, to)) || // No space follows: a file name, a version.
        ABBREVIATION.test(text.slice(open, to)) ||
        INITIAL.test(text.slice(open, to)) ||
        !/\p{L}|\p{N}/u.test(text.slice(open, to)))
    )
      continue;
    ranges.push({ from: open, to });
    open = to;
  }
  if (open < text.length) ranges.push({ from: open, to: text.length });
  return ranges.flatMap(({ from, to }) => {
    const held = text.slice(from, to);
    const lead = held.length - held.trimStart().length;
    return held.trim() ? [{ from: from + lead, to: from + held.trimEnd().length }] : [];
  });
}

function slice(runs: readonly Run[], from: number, to: number): Run[] {
  const found: Run[] = [];
  let at = 0;
  for (const item of runs) {
    const end = at + item.text.length;
    if (item.footnote) {
      if (at > from && at <= to) found.push(item);
    } else if (end > from && at < to) found.push({ ...item, text: item.text.slice(Math.max(0, from - at), to - at) });
    at = end;
  }
  return found;
}

/**
 * Returns a sentence's runs as a point: parts of it in their order, capitalised, without full stop, footnotes kept; undefined
 * where it cannot be one (`compressed`).
 */
export function trimToPoint(runs: readonly Run[], language: string): Run[] | undefined {
  const ranges = compressed(runs.map(({ text }) => text).join(""), language);
  return ranges && asPoint(runs, ranges, language);
}

/** Returns ranges of a sentence as a point. */
function asPoint(runs: readonly Run[], ranges: readonly Range[], language: string): Run[] {
  const kept = joinRuns(ranges.flatMap(({ from, to }) => slice(runs, from, to)).filter(({ footnote }) => !footnote));
  const last = kept.at(-1);
  if (last && !last.marks?.includes("formula"))
    kept[kept.length - 1] = { ...last, text: last.text.replace(/[\s.,;:–—-]+$/u, "") };
  const first = kept[0];
  if (first && !first.marks && !isName(first.text))
    kept[0] = { ...first, text: first.text.charAt(0).toLocaleUpperCase(language) + first.text.slice(1) };
  return joinRuns([...kept, ...runs.filter(({ footnote }) => footnote)]);
}

/** Whether a text begins with a name that keeps its small letter: an address, a command, a file, “pH”. */
const isName = (text: string) => /^[a-z]+(?:[A-Z\d_./:]|:\/\/)/.test(text);

/** Divides a paragraph into its sentences, each with its runs. */
export function sentencesOf(paragraph: Paragraph, language: string): { sentence: string; runs: Run[] }[] {
  const text = paragraphText(paragraph);
  const ranges = sentenceRanges(text, language);
  return ranges
    .map(({ from, to }, at) => ({
      sentence: text.slice(from, to),
      runs: slice(
        paragraph.runs,
        at ? from : -1,
        Math.max(to, at === ranges.length - 1 ? text.length : (ranges[at + 1]?.from ?? to)),
      ).map((item) => item),
    }))
    .map(({ sentence, runs }) => ({ sentence, runs: trimEnds(runs) }));
}

function trimEnds(runs: Run[]): Run[] {
  const kept = runs.slice();
  const last = kept.findLastIndex(({ footnote }) => !footnote);
  if (last >= 0) kept[last] = { ...must(kept[last]), text: must(kept[last]).text.trimEnd() };
  return kept.filter(({ text, footnote }) => text !== "" || footnote);
}

/** The built-in engine: points are parts of their sentences. */
export const extractPoints: PointEngine = async (paragraphs, language) =>
  paragraphs.map((sentences) =>
    sentences.map(
      (text) =>
        trimToPoint([{ text }], language)
          ?.map((run) => run.text)
          .join("") ?? null,
    ),
  );

/** A sentence of prose and the point made from it, as a paragraph for a slide. */
interface ParagraphPoints {
  sentence: Sentence;
  runs: Run[];
  words: number;
  /** Whether the sentence makes a point. If not, `point` is the whole sentence, which the user may choose. */
  isPoint: boolean;
  bullet: Paragraph;
  point: string;
}
const takenOnce = new WeakMap<Paragraph, { language: string; taken: ParagraphPoints[] }>();

/**
 * Returns the sentences of a paragraph with the point made from each. Cached, since it depends on the paragraph alone.
 */
function pointsInParagraph(paragraph: Paragraph, language: string): ParagraphPoints[] {
  const known = takenOnce.get(paragraph);
  if (known?.language === language) return known.taken;
  const taken = sentencesOf(paragraph, language).map(({ sentence, runs }): ParagraphPoints => {
    const trimmed = trimToPoint(runs, language);
    const own = trimmed ?? asPoint(runs, [{ from: 0, to: sentence.length }], language);
    return {
      sentence: rankable(sentence),
      runs,
      words: countWords(sentence),
      isPoint: trimmed !== undefined && countWords(sentence) >= SHORTEST,
      bullet: { kind: "bullet", level: 0, runs: own },
      point: own.map(({ text }) => text).join(""),
    };
  });
  takenOnce.set(paragraph, { language, taken });
  return taken;
}

/** A candidate for a point: a sentence and the index of its paragraph. */
interface Candidate {
  taken: ParagraphPoints;
  paragraph: number;
  isFirst: boolean;
}

const DEFINITION =
  /^(?:an? |the )?[\p{L}\p{N} -]{2,40}? (?:is|are|means|refers to|consists? of|ist|sind|es|son|est|sont) /iu;
const CUE =
  /\b(?:important|essential|must|should|key|main|major|result|results|conclude|conclusion|summary|recommend\w*|purpose|aim|goal|because|therefore|wichtig|ergebnis|importante|resultado|important|résultat)\b/i;

/**
 * Returns how much a sentence says for its text: its TextRank, raised where it opens its paragraph, defines, names the
 * subject of the heading, or gives numbers or results (Edmundson 1969, “New Methods in Automatic Extracting”: location,
 * title and cue words), and lowered where it is long.
 */
function worthOf({ taken, isFirst }: Candidate, rank: number, heading: ReadonlySet<string>): number {
  const { sentence, words } = taken;
  let worth = rank;
  if (isFirst) worth *= 1.25;
  if (DEFINITION.test(sentence.text)) worth *= 1.15;
  if (/\d/.test(sentence.text)) worth *= 1.1;
  if (CUE.test(sentence.text)) worth *= 1.15;
  if ([...heading].some((word) => sentence.words.has(word))) worth *= 1.15;
  return words > 20 ? worth * 0.85 : worth;
}

const numbersOf = ({ words }: Sentence) =>
  [...words]
    .filter((word) => /\d/.test(word))
    .sort()
    .join();

/** Whether two sentences say the same: most content words of the shorter one are in the other, with the same numbers. */
function isAlike(a: Sentence, b: Sentence): boolean {
  if (numbersOf(a) !== numbersOf(b)) return false;
  const least = Math.min(a.words.size, b.words.size);
  return least > 2 && [...a.words].filter((word) => b.words.has(word)).length > least * 0.7;
}

const wholeOnce = new WeakMap<ParagraphPoints, boolean>();

/** Whether a sentence can be shown whole, for texts of which no sentence can be shortened to a point. Cached. */
function isWholeSentence(taken: ParagraphPoints, language: string): boolean {
  const { text } = taken.sentence;
  const known = wholeOnce.get(taken);
  if (known !== undefined) return known;
  const isSentence = taken.words <= LONGEST && taken.words >= SHORTEST && /[.!?。！？؟][)"”’»]*$/u.test(text);
  const isWhole = isSentence && isWholeClause(text, language);
  wholeOnce.set(taken, isWhole);
  return isWhole;
}

/** Chooses the sentences that become points: the best of every paragraph, then the best of the rest, none alike. */
function chosenOf(list: readonly Candidate[], order: readonly number[], paragraphs: number): Set<number> {
  const wanted = Math.max(FEWEST, Math.min(MOST, Math.round(list.length * 0.4)), Math.min(paragraphs, MOST));
  const chosen = new Set<number>();
  const given = new Set<number>();
  const isNew = (at: number) =>
    ![...chosen].some((one) => isAlike(must(list[one]).taken.sentence, must(list[at]).taken.sentence));
  // Each paragraph gives its best sentence, however many there are: the slide then continues on a next one.
  for (const at of order) {
    const { paragraph } = must(list[at]);
    if (given.has(paragraph) || !isNew(at)) continue;
    given.add(paragraph);
    chosen.add(at);
  }
  for (const at of order) {
    if (chosen.size >= wanted) break;
    if (isNew(at)) chosen.add(at);
  }
  return chosen;
}

/**
 * Takes points from prose: every paragraph gives its best sentence that can be a point, while there is room the best of
 * the rest follow. They stay in the order of the text, and each keeps its sentence. Where no sentence can be a point, the
 * best one that is not too long is taken whole. The user's earlier choices come first. A point contains nothing that is
 * not in its sentence, unless the user wrote it.
 */
export function pointsOf(
  prose: readonly Paragraph[],
  language: string,
  choices: ReadonlyMap<string, PointChoice>,
  heading = "",
): (Point & { bullet: Paragraph })[] {
  const list = prose.flatMap((paragraph, at) =>
    pointsInParagraph(paragraph, language).map(
      (taken, nth): Candidate => ({ taken, paragraph: at, isFirst: nth === 0 }),
    ),
  );
  const ranks = rankSentences(list.map(({ taken }) => taken.sentence));
  const named = rankable(heading).words;
  const worths = list.map((one, at) => worthOf(one, must(ranks[at]), named));
  const best = list.map((_, at) => at).sort((a, b) => must(worths[b]) - must(worths[a]) || a - b);
  const order = best.filter((at) => must(list[at]).taken.isPoint);
  const whole = order.length ? undefined : best.find((at) => isWholeSentence(must(list[at]).taken, language));
  const chosen = chosenOf(list, whole === undefined ? order : [whole], prose.length);
  return list.map(({ taken, paragraph }, at) => {
    const { text: sentence } = taken.sentence;
    const choice = choices.get(sentence);
    if (choice?.point)
      return {
        sentence,
        point: choice.point,
        chosen: true,
        edited: true,
        ...(choice.by ? { by: choice.by } : {}),
        paragraph,
        bullet: {
          kind: "bullet",
          level: 0,
          runs: [{ text: choice.point }, ...taken.runs.filter(({ footnote }) => footnote)],
        },
      };
    return {
      sentence,
      point: taken.point,
      chosen: choice ? false : chosen.has(at),
      edited: choice !== undefined,
      paragraph,
      bullet: taken.bullet,
    };
  });
}
