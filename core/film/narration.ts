import { type RichText, wordsOn, type Slide } from "@unitext/core/model";
import { sentencesOf } from "@unitext/core/translate";

/** A part of a text as offsets in UTF-16 code units; `to` is exclusive. */
export interface Span {
  from: number;
  to: number;
}

/** What is said on a slide: the text to speak, and its sentences in order. */
export interface Narration {
  text: string;
  sentences: Span[];
}

/** A spoken word: its place in the text, and when it is heard, in seconds from the beginning of the sound. */
export interface SpokenWord extends Span {
  start: number;
  end: number;
}

/** A blank line between paragraphs, at which a voice pauses. */
const PAUSE = "\n\n";

/** Returns what is said of notes: their paragraphs, without formulas, which no voice reads. */
export function narrationOf(notes: RichText, language: string): Narration {
  const sentences: Span[] = [];
  let text = "";
  for (const { runs } of notes) {
    const said = runs
      .flatMap((run) => (run.marks?.includes("formula") ? [] : [run.text]))
      .join("")
      .replace(/\s+/gu, " ")
      .trim();
    if (!/[\p{L}\p{N}]/u.test(said)) continue;
    if (text) text += PAUSE;
    for (const { pieces, after } of sentencesOf([said], language)) {
      const sentence = pieces.join("");
      sentences.push({ from: text.length, to: text.length + sentence.length });
      text += sentence + after;
    }
  }
  return { text, sentences };
}

/** Returns the words of a text, or of a part of it. */
export function wordSpans(text: string, language: string, { from, to }: Span = { from: 0, to: text.length }): Span[] {
  return [...new Intl.Segmenter(language, { granularity: "word" }).segment(text.slice(from, to))].flatMap(
    ({ segment, index, isWordLike }) => (isWordLike ? [{ from: from + index, to: from + index + segment.length }] : []),
  );
}

/** How many letters a pause at the end of a sentence is worth. */
const PAUSE_LETTERS = 6;

/**
 * Returns the words of a narration with estimated times, for a sound of which only the length is known: each word has
 * the share of its letters, and every sentence ends with a pause.
 */
export function estimatedWords({ text, sentences }: Narration, seconds: number, language: string): SpokenWord[] {
  const spans = sentences.map((sentence) => wordSpans(text, language, sentence));
  const weight = ({ from, to }: Span) => to - from + 1;
  const total = spans.flat().reduce((sum, word) => sum + weight(word), 0) + PAUSE_LETTERS * (spans.length - 1);
  let at = 0;
  return spans.flatMap((words) => {
    const spoken = words.map((word): SpokenWord => {
      const start = at;
      at += (weight(word) / total) * seconds;
      return { ...word, start, end: at };
    });
    at += (PAUSE_LETTERS / total) * seconds;
    return spoken;
  });
}

/** Returns when each sentence of a narration is heard; undefined for one that has no word. */
export const sentenceTimes = (
  { sentences }: Narration,
  words: readonly SpokenWord[],
): ({ start: number; end: number } | undefined)[] =>
  sentences.map(({ from, to }) => {
    const own = words.filter((word) => word.from >= from && word.from < to);
    const [first, last] = [own[0], own.at(-1)];
    return first && last ? { start: first.start, end: last.end } : undefined;
  });

/**
 * Returns the words of a narration in another language, in the time of the one that is heard: sentence by sentence where
 * both have as many, else each with the share of its letters.
 */
export function wordsInTimeOf(
  other: { narration: Narration; language: string },
  heard: { narration: Narration; words: readonly SpokenWord[] },
): SpokenWord[] {
  const { narration, language } = other;
  const last = heard.words.at(-1);
  const first = heard.words[0];
  if (!first || !last) return [];
  const times = sentenceTimes(heard.narration, heard.words);
  if (narration.sentences.length !== heard.narration.sentences.length)
    return estimatedWords(narration, last.end - first.start, language).map((word) => moved(word, first.start));
  return narration.sentences.flatMap((sentence, nth) => {
    const time = times[nth];
    if (!time) return [];
    const alone = { text: narration.text, sentences: [sentence] };
    return estimatedWords(alone, time.end - time.start, language).map((word) => moved(word, time.start));
  });
}

const moved = ({ start, end, ...span }: SpokenWord, by: number): SpokenWord => ({
  ...span,
  start: start + by,
  end: end + by,
});

/** Words a minute at which a slide is read, and the seconds in which it is looked at first (common practice, no source). */
const READING = { rate: 180, look: 3, shortest: 4, longest: 30 };

/** Returns how long a slide that nobody speaks to stays, in seconds: its own delay, or as long as it takes to be read. */
export function readingSeconds(slide: Slide): number {
  const read = READING.look + (wordsOn(slide) * 60) / READING.rate;
  return slide.delay ?? Math.min(READING.longest, Math.max(READING.shortest, read));
}

/** Notes with fewer words than this say too little to be heard as a talk. */
const FEWEST_WORDS = 8;

/** How a slide is spoken: by a recording, by the notes, by notes that are thin for what is on it, or not at all. */
export type Spoken = "recorded" | "notes" | "thin" | "silent";

/**
 * Returns how a slide is spoken. Notes are thin when they have a few words only, or when they end before half of what is on
 * the slide has been read.
 */
export function spokenBy(slide: Slide, rate: number, language: string): Spoken {
  if (slide.voice) return "recorded";
  const { text } = narrationOf(slide.notes, language);
  if (!text) return "silent";
  const words = wordSpans(text, language).length;
  return words < FEWEST_WORDS || (words * 60) / rate < readingSeconds({ ...slide, delay: undefined }) / 2
    ? "thin"
    : "notes";
}

/** Returns how long a slide takes in a film, in seconds, before a voice has spoken it. */
export function expectedSeconds(slide: Slide, rate: number, language: string): number {
  if (slide.voice) return slide.voice.seconds;
  const words = wordSpans(narrationOf(slide.notes, language).text, language).length;
  return words ? (words * 60) / rate : readingSeconds(slide);
}
