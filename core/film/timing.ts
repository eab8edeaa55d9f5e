import { type Element, must, pressesOf, revealsOf, type Slide, elementTexts, paragraphText } from "@unitext/core/model";
import { type Narration, readingSeconds, sentenceTimes, type SpokenWord, wordSpans } from "./narration";

/** Frames a second of a film. */
export const FRAME_RATE = 25;

/** Seconds of silence before and after the voice of a slide, and for which everything on it is seen at least. */
const SILENCE = { before: 0.4, after: 0.8, seen: 1.2 };

/** When things happen on a slide of a film, in seconds from its beginning. */
export interface SlideTimes {
  /** How many frames it has. */
  frames: number;
  /** How long its transition takes; 0 without one. */
  transition: number;
  /** When its voice begins. */
  voiceAt: number;
  /** When each press happens, from the first. */
  presses: number[];
}

/** What is heard on a slide; `words` are in seconds from the beginning of the sound. */
export interface Voice {
  narration: Narration;
  seconds: number;
  words: readonly SpokenWord[];
}

/** Returns the words that appear at each press of a slide, from the first. */
export function pressTexts(slide: Pick<Slide, "arrangement" | "elements">): string[] {
  const texts = Array.from({ length: pressesOf(slide) }, () => "");
  const byId = new Map(slide.elements.map((element) => [element.id, element]));
  for (const { element: id, paragraph, press } of revealsOf(slide)) {
    const element = byId.get(id);
    if (!element || press === 0) continue;
    texts[press - 1] += ` ${wordsOf(element, paragraph)}`;
  }
  return texts.map((text) => text.trim());
}

function wordsOf(element: Element, paragraph: number | undefined): string {
  const text = elementTexts(element).flat();
  if (element.kind === "picture" || element.kind === "media") return element.alt;
  if (paragraph === undefined) return text.map(paragraphText).join(" ");
  const one = text[paragraph];
  return one ? paragraphText(one) : "";
}

/** Words are alike when they begin alike: this many letters leave out most endings. */
const STEM = 5;

/** Returns the stems of the words of a text that carry meaning: numbers, and words of four letters or more. */
const stemsOf = (words: readonly string[]): string[] =>
  words.flatMap((word) =>
    /\p{N}/u.test(word) || [...word].length > 3 ? [[...word.toLowerCase()].slice(0, STEM).join("")] : [],
  );

/** The least share of the words of a press that a sentence must have to be about it. */
const LEAST_ALIKE = 0.2;

/**
 * Pairs presses with sentences so that both stay in order and as many words as possible are shared. Returns the sentence
 * of each press; undefined where none is about it.
 */
export function pairPresses(
  presses: readonly string[],
  sentences: readonly string[],
  language: string,
): (number | undefined)[] {
  const stems = (text: string) => stemsOf(wordSpans(text, language).map(({ from, to }) => text.slice(from, to)));
  const said = sentences.map((sentence) => new Set(stems(sentence)));
  const likeness = presses.map((press) => {
    const own = [...new Set(stems(press))];
    return said.map((words) => {
      const share = own.filter((stem) => words.has(stem)).length / Math.max(1, own.length);
      return share >= LEAST_ALIKE ? share : 0;
    });
  });
  // best[p][s]: the most that presses from p on gain from sentences from s on; built from the last press.
  const best: number[][] = [];
  best[presses.length] = Array<number>(sentences.length + 1).fill(0);
  for (let press = presses.length - 1; press >= 0; press--) {
    const row = Array<number>(sentences.length + 1).fill(0);
    for (let sentence = sentences.length - 1; sentence >= 0; sentence--) {
      const alike = must(likeness[press]?.[sentence]);
      const without = must(best[press + 1]?.[sentence]);
      row[sentence] = Math.max(must(row[sentence + 1]), without, alike && alike + without);
    }
    best[press] = row;
  }
  const found: (number | undefined)[] = [];
  let sentence = 0;
  for (let press = 0; press < presses.length; press++) {
    const left = must(best[press]?.[sentence]);
    const at = sentences.findIndex((_, nth) => {
      const alike = must(likeness[press]?.[nth]);
      return nth >= sentence && alike > 0 && alike + must(best[press + 1]?.[nth]) >= left - 1e-9;
    });
    const skipped = must(best[press + 1]?.[sentence]) >= left - 1e-9;
    found.push(at < 0 || skipped ? undefined : at);
    if (at >= 0 && !skipped) sentence = at;
  }
  return found;
}

/** The least time between two presses, in seconds. */
const APART = 0.4;

/**
 * Returns when each press happens while a voice is heard, in seconds of the sound: at the sentence that is about what
 * appears, or at the first word of it where that sentence has brought something before; the others are spread between.
 */
export function pressTimes(
  presses: readonly string[],
  { narration, seconds, words }: Voice,
  language: string,
): number[] {
  const sentences = narration.sentences.map(({ from, to }) => narration.text.slice(from, to));
  const times = sentenceTimes(narration, words);
  const pairs = pairPresses(presses, sentences, language);
  const known = pairs.map((sentence, nth): number | undefined => {
    if (sentence === undefined) return undefined;
    if (sentence !== pairs[nth - 1]) return times[sentence]?.start;
    const span = must(narration.sentences[sentence]);
    const stems = new Set(
      stemsOf(wordSpans(must(presses[nth]), language).map(({ from, to }) => must(presses[nth]).slice(from, to))),
    );
    const word = words.find(
      ({ from, to }) =>
        from >= span.from &&
        from < span.to &&
        stemsOf([narration.text.slice(from, to)]).some((stem) => stems.has(stem)),
    );
    return word?.start;
  });
  const spread: number[] = [];
  known.forEach((time, nth) => {
    const before = spread.at(-1) ?? 0;
    if (time !== undefined) {
      spread.push(nth === 0 ? time : Math.max(time, before + APART));
      return;
    }
    const next = known.findIndex((one, at) => at > nth && one !== undefined);
    const end = next < 0 ? seconds : Math.max(before, must(known[next]));
    const open = (next < 0 ? known.length : next) - nth;
    spread.push(before + Math.max(APART, (end - before) / (open + 1)));
  });
  return spread;
}

/** Returns when things happen on a slide: with its voice, or while it is read in silence. */
export function slideTimes(slide: Slide, voice: Voice | undefined, language: string): SlideTimes {
  const transition = slide.transition?.seconds ?? 0;
  const voiceAt = transition + SILENCE.before;
  const texts = pressTexts(slide);
  const silent = readingSeconds(slide);
  const presses = voice
    ? pressTimes(texts, voice, language).map((time) => voiceAt + time)
    : texts.map((_, nth) => voiceAt + (silent * (nth + 1)) / (texts.length + 1));
  const shown = revealsOf(slide).map(
    ({ press, start, seconds }) => (press ? must(presses[press - 1]) : transition) + start + seconds,
  );
  const end = Math.max(
    voice ? voiceAt + voice.seconds + SILENCE.after : transition + silent,
    ...shown.map((time) => time + SILENCE.seen),
  );
  return { frames: Math.ceil(end * FRAME_RATE - 1e-6), transition, voiceAt, presses };
}
