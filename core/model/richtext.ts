import { z } from "zod";
import { Binding } from "./binding";
import { canonical } from "./hash";
import { ParagraphProperties, RunProperties } from "./look";

/** The marks that a run of text can carry, in the order in which they nest. The text of a formula is TeX. */
export const MARKS = ["strong", "emphasis", "strike", "code", "formula"] as const;
export const Mark = z.enum(MARKS);
export type Mark = z.infer<typeof Mark>;

/** A link target: a web or mail address, `slide:ID` inside the deck, or `deck:DECK/SLIDE` into another one. */
export const LinkTarget = z
  .string()
  .max(4000)
  .regex(
    /^(?:(https?:\/\/|mailto:|slide:)\S+|deck:[\w-]+\/[\w-]+)$/i,
    "a link starts with https://, http://, mailto:, slide: or deck:",
  );

/** Returns the slide id of a link inside the deck; undefined for other links. */
export function slideLink(to: string): string | undefined {
  return to.startsWith("slide:") ? to.slice(6) : undefined;
}

/** Returns the deck and slide of a link into another deck; undefined for other links. */
export function deckLink(to: string): { deck: string; slide: string } | undefined {
  const [, deck, slide] = /^deck:([\w-]+)\/([\w-]+)$/.exec(to) ?? [];
  return deck && slide ? { deck, slide } : undefined;
}

const words = {
  text: z.string(),
  marks: z.array(Mark).optional(),
  link: LinkTarget.optional(),
  properties: RunProperties.optional(),
  /** The cells whose value the run shows; such a run is not edited word by word. */
  binding: Binding.optional(),
};

/** The text of a footnote: runs without footnotes of their own. */
export const Footnote = z.array(z.object(words));
export type Footnote = z.infer<typeof Footnote>;

/**
 * A run: text with the same marks and link throughout. A line break is `\n` in the text. A run with a footnote has no
 * text of its own; its number is counted when the slide is shown.
 */
export const Run = z.object({ ...words, footnote: Footnote.optional() });
export type Run = z.infer<typeof Run>;

/** The slide number field in a text. */
export const NUMBER_SIGN = "‹#›";

/** Whether a text contains the slide number field. */
export const countsSlide = (text: readonly Pick<Paragraph, "runs">[]): boolean =>
  text.some(({ runs }) => runs.some((item) => item.text.includes(NUMBER_SIGN)));

/** Returns a text with the slide number field replaced by a number. */
export function onSlide(text: RichText, number: number): RichText {
  return countsSlide(text)
    ? text.map((paragraph) => ({
        ...paragraph,
        runs: paragraph.runs.map((item) => ({ ...item, text: item.text.replaceAll(NUMBER_SIGN, String(number)) })),
      }))
    : text;
}

export const MAX_LEVEL = 8;

/** A paragraph: plain, or an item of a bulleted or numbered list. A plain paragraph with a level above 0 continues the item above it. */
export const Paragraph = z.object({
  kind: z.enum(["plain", "bullet", "number"]),
  level: z.number().int().min(0).max(MAX_LEVEL),
  align: z.enum(["start", "centre", "end"]).optional(),
  /** The number that a numbered item starts with, if it does not continue. */
  start: z.number().int().min(0).max(1_000_000).optional(),
  properties: ParagraphProperties.optional(),
  /**
   * In a text that appears paragraph by paragraph: the paragraph appears together with the one before, or is visible
   * from the start.
   */
  step: z.enum(["with", "shown"]).optional(),
  runs: z.array(Run),
});
export type Paragraph = z.infer<typeof Paragraph>;

export const RichText = z.array(Paragraph);
export type RichText = z.infer<typeof RichText>;

/** Returns a rich text with one plain paragraph for each line of a string. */
export function plainText(text: string): RichText {
  return text === ""
    ? []
    : text.split("\n").map((line) => ({ kind: "plain", level: 0, runs: line ? [{ text: line }] : [] }));
}

/** Returns the characters of a paragraph. */
export function paragraphText({ runs }: Paragraph): string {
  let words = "";
  for (const { text } of runs) words += text;
  return words;
}

/** Returns the words alone, with `\n` between paragraphs. */
export function textOf(text: RichText): string {
  return text.map(paragraphText).join("\n");
}

/** Whether a text has no characters but white space. */
export function isEmptyText(text: RichText): boolean {
  return text.every((paragraph) => paragraph.runs.every((run) => run.text === "" && !run.footnote));
}

function sameStyle(a: Run, b: Run): boolean {
  return (
    a.link === b.link &&
    !a.marks?.includes("formula") &&
    a.binding === undefined &&
    b.binding === undefined &&
    (a.marks ?? []).join() === (b.marks ?? []).join() &&
    (a.properties === b.properties || canonical(a.properties) === canonical(b.properties))
  );
}

/** Returns a run with its marks in their fixed order and no empty properties. */
export function run(
  text: string,
  marks: Iterable<Mark> = [],
  link?: string,
  look?: RunProperties,
  binding?: Binding,
): Run {
  const held = new Set(marks);
  const ordered = MARKS.filter((mark) => held.has(mark));
  return {
    text,
    ...(ordered.length ? { marks: ordered } : {}),
    ...(link ? { link } : {}),
    ...(look && Object.keys(look).length ? { properties: look } : {}),
    ...(binding ? { binding } : {}),
  };
}

/** Joins neighbouring runs of one style and removes empty ones. */
export function joinRuns(runs: readonly Run[]): Run[] {
  const joined: Run[] = [];
  for (const next of runs) {
    if (next.footnote) joined.push(next);
    if (next.text === "" || next.footnote) continue;
    const last = joined.at(-1);
    if (last && !last.footnote && sameStyle(last, next))
      joined[joined.length - 1] = { ...last, text: last.text + next.text };
    else joined.push(run(next.text, next.marks, next.link, next.properties, next.binding));
  }
  return joined;
}

/** Returns every link of a text with its words; neighbouring runs with the same link count once. */
export function linksOf(text: RichText): { text: string; to: string }[] {
  const links: { text: string; to: string }[] = [];
  for (const paragraph of text) {
    let open: { text: string; to: string } | undefined;
    for (const { text: words, link, footnote } of paragraph.runs) {
      for (const noted of footnote ?? []) if (noted.link) links.push({ text: noted.text, to: noted.link });
      if (link && open?.to === link) open.text += words;
      else if (link) links.push((open = { text: words, to: link }));
      else open = undefined;
    }
  }
  return links;
}

/** Returns the text with its links changed; undefined removes a link and keeps its words. */
export function mapLinks(text: RichText, change: (to: string) => string | undefined): RichText {
  return text.map((paragraph) => {
    if (!paragraph.runs.some((item) => item.link || item.footnote)) return paragraph;
    const follow = (item: Run): Run =>
      item.footnote
        ? { ...item, footnote: item.footnote.map(follow) }
        : item.link
          ? run(item.text, item.marks, change(item.link), item.properties, item.binding)
          : item;
    return { ...paragraph, runs: joinRuns(paragraph.runs.map(follow)) };
  });
}

/** Returns a text with a link on every run that has words and no link. */
export function linkWholeText(text: RichText, link: string): RichText {
  return text.map((paragraph) => ({
    ...paragraph,
    runs: paragraph.runs.map((item) =>
      item.link || item.footnote || item.text.trim() === ""
        ? item
        : run(item.text, item.marks, link, item.properties, item.binding),
    ),
  }));
}

/** Returns a run that carries a footnote. */
export function footnote(runs: readonly Run[]): Run {
  return {
    text: "",
    footnote: runs.map(({ text, marks, link, properties, binding }) => run(text, marks, link, properties, binding)),
  };
}

/** Returns the footnotes of a text in order. */
export function footnotesOf(text: RichText): Footnote[] {
  return text.flatMap((paragraph) => paragraph.runs.flatMap((item) => (item.footnote ? [item.footnote] : [])));
}

/** Returns a text of one paragraph with the given runs. */
export function paragraphOf(runs: readonly Run[], kind: Paragraph["kind"] = "plain", level = 0): Paragraph {
  return { kind, level, runs: joinRuns(runs) };
}

const WORD = /[\p{L}\p{N}]+(?:['’.,:-][\p{L}\p{N}]+)*/gu;
const UNSPACED =
  /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}\p{Script=Lao}\p{Script=Khmer}]/gu;

/** Scripts without spaces start here; text below has none of them. */
const FAR = /[\u0E00-\uFFFF]/;

/** Counts words; in scripts written without spaces each two characters count as one (common practice, no source). */
export function countWords(text: string): number {
  const unspaced = FAR.test(text) ? (text.match(UNSPACED)?.length ?? 0) : 0;
  const spaced = (unspaced ? text.replace(UNSPACED, " ") : text).match(WORD)?.length ?? 0;
  return spaced + Math.ceil(unspaced / 2);
}

const countedOnce = new WeakMap<RichText, number>();

/** Returns how many words a rich text has. Cached, since texts are never changed in place. */
export function wordsIn(text: RichText): number {
  let words = countedOnce.get(text);
  if (words === undefined) countedOnce.set(text, (words = countWords(textOf(text))));
  return words;
}

/** Returns the paragraphs of a text that are not empty, as plain text. */
export const paragraphsOf = (text: RichText): string[] => text.map(paragraphText).filter((words) => words !== "");
