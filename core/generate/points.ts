import {
  countWords,
  joinRuns,
  type Paragraph,
  paragraphText,
  type PointChoice,
  type Run,
  must,
} from "@unitext/core/model";
import { rankable, rankSentences, type Sentence } from "./textrank";

/** A point, the sentence that it was taken from, and whether the method or the user chose it. */
export interface Point {
  sentence: string;
  point: string;
  chosen: boolean;
  edited: boolean;
  /** The index of its paragraph in the prose. */
  paragraph: number;
}

/** The length of a point in words, and how many points a stretch of prose gives (common practice, no source). */
const BUDGET = 14;
const MOST = 6;
const SHORTEST = 4;

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
      (ABBREVIATION.test(text.slice(open, to)) ||
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

/** Words that tie a sentence to the one before it and mean nothing alone, by language. */
const CONNECTIVE: Record<string, RegExp> = {
  en: /^(?:however|moreover|furthermore|in addition|additionally|therefore|thus|hence|for example|for instance|as a result|consequently|in contrast|by contrast|on the other hand|nevertheless|nonetheless|finally|in fact|of course|in practice|in short|in other words|similarly|likewise|meanwhile|accordingly|that said|above all),\s+/i,
  de: /^(?:außerdem|zudem|ferner|dagegen|schließlich|zum beispiel|allerdings),\s+/i,
  es: /^(?:sin embargo|además|por tanto|por lo tanto|por ejemplo|en cambio|finalmente|así pues|de hecho),\s+/i,
  fr: /^(?:cependant|de plus|en outre|par exemple|par conséquent|en revanche|enfin|en effet|toutefois|ainsi),\s+/i,
};
const LEADING =
  /^(?:when|if|as|while|because|since|although|though|after|before|once|unless|where|until|wenn|weil|obwohl|während|nachdem|cuando|si|aunque|porque|mientras|quand|lorsque|si|bien que|comme)\b[^,]*,\s+/i;
const CLAUSE =
  /;|\s[–—]\s|:\s|,\s(?=(?:which|who|whose|where|when|whereas|while|although|though|because|since|so|but|and|or|as|with|including|especially|particularly|welche|die|der|das|weil|aber|und|que|donde|pero|porque|y|qui|où|mais|et|car)\b)|\s(?=(?:because|although|whereas|unless|so that|weil|obwohl|porque|aunque|parce que|afin)\b)/gi;

interface Range {
  from: number;
  to: number;
}

/**
 * Returns the ranges of a sentence that stay when it is trimmed to the length of a point, and whether its end is cut
 * off.
 */
function trimmedRanges(sentence: string, language: string): { ranges: Range[]; cut: boolean } {
  const words = (from: number, to: number) => countWords(sentence.slice(from, to));
  let from = 0;
  let to = sentence.length;
  const lead = CONNECTIVE[language.slice(0, 2)]?.exec(sentence);
  if (lead) from = lead[0].length;
  const aside: Range[] = [];
  if (words(from, to) > BUDGET) {
    for (const found of sentence.matchAll(/\s*[([][^()[\]]*[)\]]/g))
      if (found.index > from) aside.push({ from: found.index, to: found.index + found[0].length });
  }
  const left = () =>
    words(from, to) - aside.reduce((sum, range) => sum + (range.to <= to ? words(range.from, range.to) : 0), 0);
  if (left() > BUDGET) {
    const ends = [...sentence.matchAll(CLAUSE)]
      .map(({ index }) => index)
      .filter(
        (end) =>
          end > from && words(from, end) >= SHORTEST + 1 && !aside.some((range) => end > range.from && end < range.to),
      );
    const whole = to;
    const fitting = ends.filter((end) => {
      to = end;
      return left() <= BUDGET;
    });
    to = fitting.at(-1) ?? whole;
  }
  if (left() > BUDGET) {
    const subordinate = LEADING.exec(sentence.slice(from));
    if (subordinate && words(from + subordinate[0].length, to) >= SHORTEST) from += subordinate[0].length;
  }
  let cut = false;
  if (left() > BUDGET) {
    const word = /[\p{L}\p{N}]+(?:['’.,-][\p{L}\p{N}]+)*/gu;
    const ends: number[] = [];
    for (const found of sentence.matchAll(word))
      if (found.index >= from && !aside.some((range) => found.index >= range.from && found.index < range.to))
        ends.push(found.index + found[0].length);
    let last = Math.min(BUDGET, ends.length) - 1;
    while (last > SHORTEST && /(?:^|[^\p{L}\p{N}])[\p{L}]{1,3}$/u.test(sentence.slice(0, must(ends[last])))) last -= 1;
    to = ends[last] ?? to;
    cut = true;
  }
  const ranges: Range[] = [];
  let at = from;
  for (const range of aside) {
    if (range.from >= to) break;
    if (range.from > at) ranges.push({ from: at, to: range.from });
    at = Math.max(at, range.to);
  }
  if (at < to) ranges.push({ from: at, to });
  return { ranges, cut };
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

/** Trims a sentence's runs to a point: parts of it in their order, capitalised, without full stop, footnotes kept. */
export function trimToPoint(runs: readonly Run[], language: string): Run[] {
  const sentence = runs.map(({ text }) => text).join("");
  const { ranges, cut } = trimmedRanges(sentence, language);
  const kept = joinRuns(ranges.flatMap(({ from, to }) => slice(runs, from, to)).filter(({ footnote }) => !footnote));
  const last = kept.at(-1);
  if (last && !last.marks?.includes("formula"))
    kept[kept.length - 1] = { ...last, text: `${last.text.replace(/[\s.,;:–—-]+$/u, "")}${cut ? "…" : ""}` };
  const first = kept[0];
  if (first && !first.marks)
    kept[0] = { ...first, text: first.text.charAt(0).toLocaleUpperCase(language) + first.text.slice(1) };
  return joinRuns([...kept, ...runs.filter(({ footnote }) => footnote)]);
}

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

/** A sentence of prose and the point made from it, as a paragraph for a slide. */
interface ParagraphPoints {
  sentence: Sentence;
  runs: Run[];
  words: number;
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
    const own = trimToPoint(runs, language);
    return {
      sentence: rankable(sentence),
      runs,
      words: countWords(sentence),
      bullet: { kind: "bullet", level: 0, runs: own },
      point: own.map(({ text }) => text).join(""),
    };
  });
  takenOnce.set(paragraph, { language, taken });
  return taken;
}

/**
 * Takes points from prose by TextRank: every paragraph gives its best sentence while there is room, then the best of
 * the rest follow. Each is trimmed, in the order of the text, and keeps its sentence. The user's earlier choices come
 * first. A point contains nothing that is not in its sentence, unless the user wrote it.
 */
export function pointsOf(
  prose: readonly Paragraph[],
  language: string,
  choices: ReadonlyMap<string, PointChoice>,
): (Point & { bullet: Paragraph })[] {
  const list = prose.flatMap((paragraph, at) =>
    pointsInParagraph(paragraph, language).map((taken) => ({ taken, paragraph: at })),
  );
  const ranks = rankSentences(list.map(({ taken }) => taken.sentence));
  const order = list.map((_, at) => at).sort((a, b) => must(ranks[b]) - must(ranks[a]) || a - b);
  const wanted = Math.max(1, Math.min(MOST, Math.round(list.length * 0.4)), Math.min(prose.length, MOST));
  const chosen = new Set<number>();
  const wordsAt = (at: number) => must(list[at]).taken.words;
  // A text of many paragraphs still gives the best sentence of each; the slide continues.
  const given = new Set<number>();
  for (const at of order) {
    const { paragraph } = must(list[at]);
    if (given.has(paragraph) || wordsAt(at) < 3) continue;
    given.add(paragraph);
    chosen.add(at);
  }
  for (const at of order) {
    if (chosen.size >= wanted) break;
    if (wordsAt(at) >= SHORTEST) chosen.add(at);
  }
  return list.map(({ taken, paragraph }, at) => {
    const { text: sentence } = taken.sentence;
    const choice = choices.get(sentence);
    if (choice?.point)
      return {
        sentence,
        point: choice.point,
        chosen: true,
        edited: true,
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
