import { type Narration, type Span, type SpokenWord, wordSpans } from "./narration";

/** A caption: its lines, and when it is shown, in seconds of the film. */
export interface Cue {
  start: number;
  end: number;
  lines: string[];
}

/** The most signs in a line of a caption, lines in a caption (common practice, no source). A wide sign counts as two. */
const [MOST_SIGNS, MOST_LINES] = [42, 2];

/** How long a caption is shown at least, and how long it stays when nothing follows it, in seconds (common practice). */
const [SHORTEST, STAYS] = [1, 0.6];

/** Signs as wide as two: those of East Asian writing (UAX #11, wide and full-width). */
const WIDE = /[\u1100-\u115f\u2e80-\ua4cf\uac00-\ud7a3\uf900-\ufaff\ufe30-\ufe6f\uff00-\uff60\uffe0-\uffe6]/u;

const widthOf = (text: string): number => [...text].reduce((sum, sign) => sum + (WIDE.test(sign) ? 2 : 1), 0);

/** Returns the pieces between which a sentence may be broken: each word with the punctuation around it. */
function piecesOf(text: string, sentence: Span, language: string): Span[] {
  const words = wordSpans(text, language, sentence);
  return words.flatMap((word, nth) => {
    const from = nth === 0 ? sentence.from : word.from;
    const next = words[nth + 1];
    return [{ from, to: next ? next.from : sentence.to }];
  });
}

/** How bad it is to break after a piece: best after a sentence's comma or semicolon, bad within a word's neighbours. */
const breakCost = (piece: string): number => (/[,;:.!?…—–，、；：。！？]["”’»)]?\s*$/u.test(piece) ? 0 : 1);

/**
 * Divides pieces into parts that are at most so wide, in as few parts as possible, as even as possible, and after
 * punctuation where that costs little.
 */
function divided(text: string, pieces: readonly Span[], most: number): Span[][] {
  const width = (from: number, to: number) => {
    const [first, last] = [pieces[from], pieces[to - 1]];
    return first && last ? widthOf(text.slice(first.from, last.to).trim()) : 0;
  };
  const whole = width(0, pieces.length);
  if (whole <= most) return [[...pieces]];
  const even = whole / Math.ceil(whole / most);
  const best: { cost: number; from: number }[] = [{ cost: 0, from: 0 }];
  for (let to = 1; to <= pieces.length; to++) {
    let found = { cost: Number.POSITIVE_INFINITY, from: to - 1 };
    for (let from = to - 1; from >= 0; from--) {
      const wide = width(from, to);
      if (wide > most && from < to - 1) break;
      const piece = pieces[to - 1];
      const cost =
        (best[from]?.cost ?? 0) +
        1 +
        ((wide - even) / most) ** 2 +
        (to < pieces.length && piece ? 0.25 * breakCost(text.slice(piece.from, piece.to)) : 0);
      if (cost < found.cost) found = { cost, from };
    }
    best.push(found);
  }
  const parts: Span[][] = [];
  for (let to = pieces.length; to > 0; ) {
    const { from } = best[to] ?? { from: 0 };
    parts.unshift(pieces.slice(from, to));
    to = from;
  }
  return parts;
}

/** Divides a sentence into captions, none of which needs more than the lines that a caption has. */
function captionParts(text: string, pieces: readonly Span[], most = MOST_SIGNS * MOST_LINES): Span[][] {
  return divided(text, pieces, most).flatMap((part) =>
    part.length < 2 || divided(text, part, MOST_SIGNS).length <= MOST_LINES
      ? [part]
      : captionParts(text, part, Math.min(most, widthOf(said(text, part))) - 4),
  );
}

const said = (text: string, part: readonly Span[]): string =>
  text.slice(part[0]?.from ?? 0, part.at(-1)?.to ?? 0).trim();

/**
 * Returns the captions of a slide: each sentence in one or more of them, of at most two lines, shown while their words are
 * heard. `at` is the second of the film at which the voice begins.
 */
export function cuesOf(
  { text, sentences }: Narration,
  words: readonly SpokenWord[],
  at: number,
  language: string,
): Cue[] {
  const cues: Cue[] = [];
  for (const sentence of sentences) {
    for (const part of captionParts(text, piecesOf(text, sentence, language))) {
      const [from, to] = [part[0]?.from ?? 0, part.at(-1)?.to ?? 0];
      const own = words.filter((word) => word.from >= from && word.from < to);
      const [first, last] = [own[0], own.at(-1)];
      if (!first || !last) continue;
      const lines = divided(text, part, MOST_SIGNS).map((line) => said(text, line));
      cues.push({ start: at + first.start, end: at + last.end, lines });
    }
  }
  return cues.map(({ start, end, lines }, nth) => {
    const next = cues[nth + 1]?.start ?? Number.POSITIVE_INFINITY;
    return { start, end: Math.min(next, Math.max(end + STAYS, start + SHORTEST)), lines };
  });
}

/** Returns seconds as a time stamp of WebVTT. */
function stamp(seconds: number): string {
  const all = Math.max(0, Math.round(seconds * 1000));
  const two = (value: number) => String(value).padStart(2, "0");
  const [hours, minutes, rest] = [Math.floor(all / 3_600_000), Math.floor(all / 60_000) % 60, all % 60_000];
  return `${two(hours)}:${two(minutes)}:${two(Math.floor(rest / 1000))}.${String(rest % 1000).padStart(3, "0")}`;
}

/** Returns words for the payload of a cue. */
const escaped = (text: string) => text.replace(/&/g, "&amp;").replace(/</g, "&lt;").replace(/>/g, "&gt;");

/** Returns captions as a WebVTT file (W3C WebVTT, section 4). Captions without time or words are left out. */
export function webVtt(cues: readonly Cue[]): string {
  const blocks = cues
    .map(({ start, end, lines }) => ({ start, end, lines: lines.filter((line) => line.trim() !== "") }))
    .filter(({ start, end, lines }) => lines.length > 0 && Math.round(end * 1000) > Math.round(start * 1000))
    .map(
      ({ start, end, lines }, nth) =>
        `${nth + 1}\n${stamp(start)} --> ${stamp(end)}\n${lines.map(escaped).join("\n")}\n`,
    );
  return `WEBVTT\n\n${blocks.join("\n")}`;
}
