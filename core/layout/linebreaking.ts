import { must } from "@unitext/core/model";
import LineBreaker from "linebreak";
import { SPACE, type ShapedParagraph } from "./shapedparagraph";

/** Scripts without spaces between words. Their lines break between words, found by a dictionary (UAX #14, class SA). */
const UNSPACED = /[\u0E00-\u0EFF\u1000-\u109F\u1780-\u17FF]+/g;

/** Returns where words begin inside the stretches of Thai, Lao, Khmer and Myanmar of a text. */
function wordStarts(text: string): number[] {
  return [...text.matchAll(UNSPACED)].flatMap(({ 0: stretch, index }) => {
    const words = [...new Intl.Segmenter("th", { granularity: "word" }).segment(stretch)];
    // Marks and punctuation never begin a line by a rule of their own (UAX #14, LB9 and LB13).
    return words.flatMap(({ index: at }) =>
      LETTER.test(stretch[at] ?? "") && /[\p{L}\p{M}\p{N}]/u.test(stretch[at - 1] ?? "") ? [index + at] : [],
    );
  });
}

/**
 * A number and its unit, between which no line breaks (SI Brochure, 9th edition, 5.4.3, has a space there; that it does
 * not break is common practice, no source).
 */
const QUANTITY =
  /\d[ \u2009]((?:[kcdhmnµGM]?(?:m|g|s|l|L|W|V|A|J|N|Pa|Hz|B|bit|Wh|mol)|min|h|d|t|ha|K|°C|°F|°|%|‰|kn|dB|bar|rpm)[²³]?(?:\/(?:s|h|d|a|m|km|kg|l|min)[²³]?)?)(?![\p{L}\p{N}])/gu;

/** Returns the indices inside quantities at which lines do not break. */
function insideQuantities(text: string): number[] {
  return [...text.matchAll(QUANTITY)].flatMap(({ 0: whole, index }) =>
    Array.from({ length: whole.length - 1 }, (_, at) => index + 1 + at),
  );
}

/** In Chinese, small kana and the prolonged sound mark may begin a line (UAX #14, class CJ as ID). */
const SMALL_KANA = /[ぁぃぅぇぉっゃゅょゎゕゖァィゥェォッャュョヮヵヶー]/;
const HAN_LANGUAGE = /^(zh|ja|yue)\b/i;
const OPENING_QUOTE = /[\u2018\u201C]/;
const CLOSING_QUOTE = /[\u2019\u201D]/;
const IDEOGRAPH = /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\u3001-\u303F\uFF00-\uFFEF]/u;
const HANGUL = /\p{Script=Hangul}/u;
const LETTER = /[\p{L}\p{N}]/u;

/**
 * Whether a language allows a break at an index; `allowed` is what UAX #14 says without tailoring. Chinese and Japanese
 * break outside of quotation marks, which are then opening and closing (OP and CL instead of QU). Korean breaks at
 * spaces only, which is the other of the two styles that UAX #14 names for it.
 */
function tailored(text: string, at: number, allowed: boolean, language: string): boolean {
  const [before, after] = [text[at - 1] ?? "", text[at] ?? ""];
  if (HAN_LANGUAGE.test(language)) {
    if (OPENING_QUOTE.test(before) || CLOSING_QUOTE.test(after)) return false;
    if (OPENING_QUOTE.test(after) && IDEOGRAPH.test(before)) return !OPENING_BRACKET.test(before);
    if (CLOSING_QUOTE.test(before) && IDEOGRAPH.test(after)) return !CLOSING_BRACKET.test(after);
    if (/^(zh|yue)/i.test(language) && SMALL_KANA.test(after) && IDEOGRAPH.test(before))
      return !OPENING_BRACKET.test(before);
  }
  if (/^ko\b/i.test(language) && HANGUL.test(before + after) && LETTER.test(before) && LETTER.test(after)) return false;
  return allowed;
}
const OPENING_BRACKET = /[\p{Ps}]/u;
const CLOSING_BRACKET = /[\p{Pe}、。，．：；？！]/u;
/** What a text must have for the tailoring to change anything: quotation marks, small kana or Hangul. */
const ASKS_TAILORING = /[\u2018\u2019\u201C\u201D\u3041-\u30FC\u1100-\u11FF\uAC00-\uD7AF]/;
const TAILORED = /^(zh|ja|yue|ko)\b/i;

/**
 * Returns where lines may break by UAX #14 with the tailoring of the language, and where the visible text of such a line
 * ends.
 */
export function lineBreaks(text: string, language: string): ShapedParagraph["breaks"] {
  const breaks: ShapedParagraph["breaks"] = [];
  if (text === "") return breaks;
  const breaker = new LineBreaker(text);
  const required = new Map<number, boolean>();
  for (let next = breaker.nextBreak(); next; next = breaker.nextBreak())
    required.set(next.position, next.required === true && text[next.position - 1] === "\n");
  for (const at of wordStarts(text)) required.set(at, required.get(at) ?? false);
  if (TAILORED.test(language) && ASKS_TAILORING.test(text))
    for (let at = 1; at < text.length; at++) {
      const allowed = required.has(at);
      if (tailored(text, at, allowed, language) === allowed || required.get(at)) continue;
      if (allowed) required.delete(at);
      else required.set(at, false);
    }
  for (const at of insideQuantities(text)) if (!required.get(at)) required.delete(at);
  for (const at of [...required.keys()].sort((a, b) => a - b)) {
    let visible = at;
    while (visible > 0 && SPACE.test(must(text[visible - 1])) && text[visible - 1] !== "\u00A0") visible--;
    breaks.push({ at, visible, required: required.get(at) ?? false });
  }
  if (breaks.at(-1)?.at !== text.length) breaks.push({ at: text.length, visible: text.length, required: false });
  if (text.endsWith("\n")) breaks.push({ at: text.length, visible: text.length, required: false });
  return breaks;
}

/** A line as a range of the paragraph's text; `visible` leaves out the spaces at its end. */
export interface LineRange {
  start: number;
  end: number;
  visible: number;
  /** Whether it ends in a hyphen that is not in the text. */
  hyphen?: true;
}

/** Returns the last place at which a word may be divided so that the part from `start` fits; undefined when there is none. */
function hyphenFrom({ hyphens, upTo }: ShapedParagraph, start: number, end: number, room: number): number | undefined {
  if (!hyphens) return undefined;
  const fits = (at: number) => (upTo[at] ?? 0) - (upTo[start] ?? 0) + hyphens.width <= room;
  return hyphens.at.findLast((at) => at > start && at < end && fits(at));
}

/**
 * Breaks a paragraph into lines of at most `width` em, first fit. A word that is wider than the line is divided by a
 * hyphen where that is known, and else broken between characters, so nothing overflows at the side. The first line starts `first` em further in.
 */
export function breakLines(paragraph: ShapedParagraph, width: number, first = 0): LineRange[] {
  const { breaks, upTo, text } = paragraph;
  const lines: LineRange[] = [];
  let start = 0;
  let last: LineRange | undefined;
  const room = width + 1e-4;
  for (const next of breaks) {
    const fits = () => (upTo[next.visible] ?? 0) - (upTo[start] ?? 0) <= (first && start === 0 ? room - first : room);
    if (!fits() && last) {
      lines.push(last);
      start = last.end;
      last = undefined;
    }
    while (!fits()) {
      const divided = hyphenFrom(paragraph, start, next.visible, room);
      if (divided !== undefined) {
        lines.push({ start, end: divided, visible: divided, hyphen: true });
        start = divided;
        continue;
      }
      let end = start + 1;
      while (end < next.visible && (upTo[end + 1] ?? 0) - (upTo[start] ?? 0) <= room) end++;
      while (end < text.length && /[\uDC00-\uDFFF]/.test(must(text[end]))) end++;
      if (end >= next.visible) break;
      lines.push({ start, end, visible: end });
      start = end;
    }
    last = { start, end: next.at, visible: Math.max(start, next.visible) };
    if (next.required) {
      lines.push(last);
      start = next.at;
      last = undefined;
    }
  }
  if (last) lines.push(last);
  return lines.length ? lines : [{ start: 0, end: 0, visible: 0 }];
}

/** Returns the items of a line in visual order, from their levels (rule L2 of UAX #9). */
export function visualOrder<T extends { level: number }>(items: readonly T[]): T[] {
  const ordered = [...items];
  const highest = Math.max(0, ...ordered.map((item) => item.level));
  const odd = ordered.filter((item) => item.level % 2 === 1).map((item) => item.level);
  const lowest = odd.length ? Math.min(...odd) : highest + 1;
  for (let level = highest; level >= lowest; level--) {
    let at = 0;
    while (at < ordered.length) {
      if (must(ordered[at]).level < level) {
        at++;
        continue;
      }
      let end = at;
      while (end < ordered.length && must(ordered[end]).level >= level) end++;
      ordered.splice(at, end - at, ...ordered.slice(at, end).reverse());
      at = end;
    }
  }
  return ordered;
}
