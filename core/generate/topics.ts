import {
  countWords,
  must,
  type Paragraph,
  paragraphText,
  plainText,
  type RichText,
  type TableElement,
  textOf,
} from "@unitext/core/model";
import type { Composed } from "./compose";
import { type Token, tokensOf } from "./grammar";
import { joinedTitle, TITLE_LENGTH } from "./subheadings";

const MOST_WORDS = 5;
/** Most characters of a term. */
const TERM = 36;

/** Returns a noun phrase without what follows its head, where it is long: “small changes” of “small changes to the code to reduce …”. */
function headOf(phrase: readonly Token[]): Token[] {
  if (phrase.length <= MOST_WORDS) return [...phrase];
  const end = phrase.findIndex(
    ({ tag, text }, at) => at > 1 && (tag === "ADP" || tag === "PART" || /^(?:that|which|who)$/i.test(text)),
  );
  return end > 0 ? phrase.slice(0, end) : [...phrase];
}

/** Returns the subject of a clause where it is a noun phrase: “block size” in “The block size is read …”. */
function subjectOf(paragraph: Paragraph, language: string): string | undefined {
  const text = paragraphText(paragraph);
  const tokens = tokensOf(text, language);
  if (!tokens) return undefined;
  const verb = tokens.findIndex(({ tag, text: word }) => (tag === "VERB" || tag === "AUX") && !/ing$/i.test(word));
  const subject = headOf(tokens.slice(0, Math.max(verb, 0)));
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

/** Returns the words of a line that leads into what follows: “Possible return values” of “Possible return values:”. */
function leadOf(paragraph: Paragraph): string | undefined {
  const words = /^(.{3,36}):$/.exec(paragraphText(paragraph).trim())?.[1];
  return words && countWords(words) <= MOST_WORDS && !/[.;!?]/.test(words) ? words : undefined;
}

/** Returns the option of a command that a text begins with, without its values: “--level” of “--level=<n> [default: 1]”. */
const optionOf = (paragraph: Paragraph): string | undefined =>
  /^--?[A-Za-z][\w-]+(?=[\s=<[,]|$)/.exec(paragraphText(paragraph).trim())?.[0];

/** Returns the first name in code of a paragraph. */
function codeIn({ runs }: Paragraph): string | undefined {
  const words = runs
    .find(({ marks, text }) => marks?.includes("code") && /^(?=.*[^a-z])[\w./:*-]{4,}$/.test(text.trim()))
    ?.text.trim();
  return words && words.length <= TERM ? words : undefined;
}

/** Returns the first noun compound of a paragraph, with an adjective before it: “error return value”. */
function compoundIn(paragraph: Paragraph, language: string): string | undefined {
  const text = paragraphText(paragraph);
  const tokens = tokensOf(text, language) ?? [];
  for (let at = 0; at < tokens.length - 1; at++) {
    let end = at;
    while (tokens[end]?.tag === "NOUN" || tokens[end]?.tag === "PROPN" || (end === at && tokens[end]?.tag === "ADJ"))
      end += 1;
    const [first, last] = [tokens[at], tokens[end - 1]];
    const isCompound = end - at >= 2 && end - at <= 4 && last?.tag !== "ADJ";
    if (first && last && isCompound && !EMPTY.test(first.text)) return text.slice(first.from, last.to);
    at = Math.max(at, end - 1);
  }
  return undefined;
}

/** Returns the nouns of a paragraph, names first, without those that are short. */
function nounsOf(paragraph: Paragraph, language: string): string[] {
  const words = (tokensOf(paragraphText(paragraph), language) ?? []).filter(({ text }) => /^\p{L}{5,}$/u.test(text));
  return ["PROPN", "NOUN"].flatMap((wanted) => words.filter(({ tag }) => tag === wanted).map(({ text }) => text));
}

/** Returns what a paragraph is about, in a word or a few. */
export const subjectIn = (paragraph: Paragraph, language: string): string | undefined =>
  subjectOf(paragraph, language) ?? compoundIn(paragraph, language) ?? nounsOf(paragraph, language)[0];

/** Returns the first line of code where it is a label, such as “IDLE/any”, and no statement. */
const labelOf = (code: string): string | undefined =>
  /^(?!\s)(?=.*[A-Za-z]{2})([\w/ -]{3,30}):?$/.exec(code.split("\n")[0]?.trimEnd() ?? "")?.[1];

/** Returns the first and the last name in the first column of a table: “browse – deps”; undefined where they are long. */
function rowsTopic({ rows, header }: Omit<TableElement, "id" | "slot">): string | undefined {
  const names = rows.slice(header).map(([cell]) => (cell ? textOf(cell.text).trim() : ""));
  const [first, last] = [names[0], names.at(-1)];
  if (!first || !last || first === last || /\n/.test(first + last)) return undefined;
  const range = `${first} – ${last}`;
  return /\p{L}/u.test(range) && range.length <= TERM ? range : undefined;
}

/** Patterns of names by which a piece of code is known, the best first; the first group is the name. */
const NAMES_IN_CODE = [
  // A function that is defined or called: a name with an underscore or an inner capital before a parenthesis.
  /\b((?=\w*[a-z\d](?:_|[A-Z]))[A-Za-z]\w{3,40})\s*\(/,
  // An option of a command at the start of a line.
  /^[ \t]*(?:-\w,[ \t]*)?(--?[A-Za-z][\w-]{2,30})/m,
  // A definition of a programming language.
  /^[ \t]*(?:[a-z]+[ \t]+){0,3}?(?:class|def|enum|fn|func|function|interface|procedure|struct|type)[ \t]+([A-Za-z_]\w{2,30})(?=[ \t]*(?:[({:<;=,]|$))/im,
  // A setting, a field or a rule of a grammar.
  /^[ \t]*([A-Za-z_][\w.-]{2,30})[ \t]*(?::|::|:=)?=/m,
  /^[ \t]*(<[A-Za-z][\w-]{2,30}>?)/m,
  // A name of several words joined by underscores, dots or capitals.
  /\b([A-Za-z][a-z\d]*(?:_[A-Za-z\d]+|\.[a-z]{2,}|[A-Z][a-z\d]+)\w{0,24})\b/,
  // The first line, where it is short and has words.
  /^[ \t]*(?=.*[A-Za-z]{3})(\S.{2,34}\S)[ \t]*(?:\n|$)/,
];

/** Returns the names that may stand for a piece of code. */
const codeTopics = (code: string): string[] => [
  ...(labelOf(code) ? [must(labelOf(code))] : []),
  ...NAMES_IN_CODE.flatMap((name) => {
    const found = name.exec(code)?.[1];
    return found ? [/^<.*[^>]$/.test(found) ? `${found}>` : found] : [];
  }),
];

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
  /^(?:in|on|at|for|of|by|with|to|note|notes?|example|same|last|first|next|other|another|some|many|most|several|such|following|subsequent|above|below|consider|see)\b/i;

/** Returns the paragraphs of a slide that may name its topic. */
const firstPoints = (flow: Composed["flow"]): Paragraph[] =>
  flow.flatMap((item) =>
    item.kind === "text" && !item.heading ? item.text.filter(({ level }) => level === 0).slice(0, 5) : [],
  );

/** Whether no other slide of the same text has a word. */
export type OwnWord = (word: string) => boolean;

/**
 * Returns what a slide is about that continues another one: what leads into its list, the subject of its first points, or
 * the caption of its figure; else a name or a compound of its points.
 */
function topicOf({ flow }: Composed, language: string, known: ReadonlySet<string>, isOwn: OwnWord): string | undefined {
  const isNew = (topic: string) => !EMPTY.test(topic) && !known.has(keyOf(topic));
  const named = topicsOf(flow, language).find(isNew);
  if (named !== undefined) return named;
  const points = firstPoints(flow);
  return (
    points.flatMap((paragraph) => codeIn(paragraph) ?? []).find(isNew) ??
    points.flatMap((paragraph) => compoundIn(paragraph, language) ?? []).find(isNew) ??
    points.flatMap((paragraph) => nounsOf(paragraph, language)).find((noun) => isNew(noun) && isOwn(noun))
  );
}

/** Returns what the parts of a slide name, in their order. */
function topicsOf(flow: Composed["flow"], language: string): string[] {
  return flow.flatMap((item) => {
    if (item.kind === "text" && item.heading) return [];
    if (item.kind === "text")
      return firstPoints([item]).flatMap(
        (paragraph) =>
          leadOf(paragraph) ?? optionOf(paragraph) ?? termOf(paragraph) ?? subjectOf(paragraph, language) ?? [],
      );
    if (item.content.kind === "code") return codeTopics(item.content.text);
    const rows = item.content.kind === "table" ? rowsTopic(item.content) : undefined;
    if (rows !== undefined) return [rows];
    const caption = "caption" in item.content ? (item.content.caption ?? "") : "";
    const words = caption.replace(/^\p{L}+\.?\s*\d+[.:]\s*/u, "").replace(/[.\s]+$/, "");
    return words && words.length <= TITLE_LENGTH ? [words] : [];
  });
}

/**
 * Returns the title of a slide that continues another one: the heading with the topic of this slide, or the topic alone
 * where both are too long; undefined where nothing tells them apart. `known` are the titles that are taken.
 */
export function continuedTitle(
  composed: Composed,
  language: string,
  known: Set<string>,
  isOwn: OwnWord,
): RichText | undefined {
  const { title } = composed;
  const topic = title && topicOf(composed, language, known, isOwn);
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
