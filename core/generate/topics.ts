import { countWords, type Paragraph, paragraphText, plainText, type RichText, textOf } from "@unitext/core/model";
import type { Composed } from "./compose";
import { tokensOf } from "./grammar";
import { joinedTitle, TITLE_LENGTH } from "./subheadings";

const MOST_WORDS = 5;
/** Most characters of a term. */
const TERM = 36;

/** Returns the subject of a clause where it is a noun phrase: “block size” in “The block size is read …”. */
function subjectOf(paragraph: Paragraph, language: string): string | undefined {
  const text = paragraphText(paragraph);
  const tokens = tokensOf(text, language);
  if (!tokens) return undefined;
  const verb = tokens.findIndex(({ tag, text: word }) => (tag === "VERB" || tag === "AUX") && !/ing$/i.test(word));
  const subject = tokens.slice(0, Math.max(verb, 0));
  while (subject[0] && /^(?:DET|ADV|PUNCT|CCONJ)$/.test(subject[0].tag)) subject.shift();
  while (/^(?:ADV|PUNCT|PRON)$/.test(subject.at(-1)?.tag ?? "")) subject.pop();
  const [first, last] = [subject[0], subject.at(-1)];
  const isThing = subject.every(({ tag }) => /^(?:NOUN|PROPN|ADJ|ADP|NUM|CCONJ|DET|PART|X)$/.test(tag));
  if (!first || !last || !isThing || subject.length > MOST_WORDS || !/^(?:NOUN|PROPN)$/.test(last.tag))
    return undefined;
  if (/^(?:ADP|NUM|PART)$/.test(first.tag)) return undefined;
  // A single common noun says too little.
  if (subject.length === 1 && first.tag !== "PROPN") return undefined;
  const words = text.slice(first.from, last.to);
  return words.length > 3 ? words : undefined;
}

/** Returns the term with which an item begins: its bold or code words, the words before a colon or dash, or all of a short item. */
function termOf(paragraph: Paragraph): string | undefined {
  const text = paragraphText(paragraph).trim();
  const [first] = paragraph.runs;
  const isMarked = first?.marks?.some((mark) => mark === "strong" || mark === "code");
  const whole = isMarked ? first?.text.trim().replace(/[.:,;]+$/, "") : undefined;
  // Of an option with its values, “--level=<n> [default: 1]”, only its name.
  const marked = whole !== undefined && whole.length > TERM ? /^[^\s=<[(,]{3,}/.exec(whole)?.[0] : whole;
  const before = /^(.{3,36}?)(?::\s|\s[–—-]{1,2}\s)/.exec(text)?.[1];
  const term = marked ?? before ?? (countWords(text) <= 4 && !/[.:]$/.test(text) ? text : undefined);
  return term && term.length > 2 && term.length <= TERM && countWords(term) <= MOST_WORDS ? term : undefined;
}

/** Returns the words of a title in lower case without punctuation, to tell whether two titles are the same. */
const keyOf = (words: string) =>
  words
    .toLowerCase()
    .replace(/[^\p{L}\d_-]+/gu, " ")
    .trim();

/** Beginnings of what names nothing: “In summary”, “the same idea”. */
const EMPTY =
  /^(?:in|on|at|for|of|by|with|to|note|notes?|example|same|last|first|next|other|another|some|many|most|several|such)\b/i;

/** Returns what a slide is about that continues another one: the subject of its first points, or the caption of its figure. */
function topicOf({ flow }: Composed, language: string, known: ReadonlySet<string>): string | undefined {
  const topics = flow.flatMap((item) => {
    if (item.kind === "text" && item.heading) return [];
    if (item.kind === "text")
      return item.text
        .filter(({ level }) => level === 0)
        .slice(0, 5)
        .flatMap((paragraph) => termOf(paragraph) ?? subjectOf(paragraph, language) ?? []);
    // A name with an underscore or a capital inside, before its bracket, is what code defines or calls.
    if (item.content.kind === "code")
      return /\b((?=\w*[a-z\d](?:_|[A-Z]))[A-Za-z]\w{3,40})\s*\(/.exec(item.content.text)?.[1] ?? [];
    const caption = "caption" in item.content ? (item.content.caption ?? "") : "";
    const words = caption.replace(/^\p{L}+\.?\s*\d+[.:]\s*/u, "").replace(/[.\s]+$/, "");
    return words && words.length <= TITLE_LENGTH ? [words] : [];
  });
  return topics.find((topic) => !EMPTY.test(topic) && !known.has(keyOf(topic)));
}

/**
 * Returns the title of a slide that continues another one: the heading with the topic of this slide, or the topic alone
 * where both are too long; undefined where nothing tells them apart. `known` are the titles that are taken.
 */
export function continuedTitle(composed: Composed, language: string, known: Set<string>): RichText | undefined {
  const { title } = composed;
  const topic = title && topicOf(composed, language, known);
  if (!title || !topic) return undefined;
  known.add(keyOf(topic));
  const named = keyOf(textOf(title));
  const capital = plainText(topic.charAt(0).toLocaleUpperCase(language) + topic.slice(1));
  if (named.includes(keyOf(topic))) return undefined;
  return joinedTitle(title, plainText(topic)) ?? joinedTitle(lastPart(title), plainText(topic)) ?? capital;
}

/** Returns what stands after the last colon of a title that was joined of two; the title where there is none. */
function lastPart(title: RichText): RichText {
  const words = textOf(title);
  const at = words.lastIndexOf(": ");
  return at > 0 ? plainText(words.slice(at + 2)) : title;
}

export const titleKey = (title: RichText | null): string => keyOf(textOf(title ?? []));
