import { countWords, type Paragraph, paragraphText, textOf } from "@unitext/core/model";
import type { Reason } from "@unitext/core/text";
import type { Composed } from "../compose";
import type { Flow } from "../draft";

/** Another form for the content of a slide of points. A kind of form is one file, listed in `FORMS`. */
export interface Form {
  reason: Reason;
  /** How well the form suits content that can have it, from 0 to 1; points have 0.5. */
  suits: number;
  /** Returns the slide in this form; undefined where its content has another one. */
  of(page: Composed, language: string): Composed | undefined;
}

export type TextFlow = Extract<Flow, { kind: "text" }>;

/** Whether a slide has a title and points, and the text names no arrangement for it. */
const isOpenToForms = ({ arrangement, named, steps, title, slots, properties }: Composed): boolean =>
  arrangement === "points" && !named && !steps && title !== null && slots.size === 0 && !properties.widths;

/** Returns the text of a slide that has a title and one list; undefined for any other. */
export function listOf(page: Composed): TextFlow | undefined {
  const [only, ...more] = page.flow;
  if (!isOpenToForms(page) || more.length || only?.kind !== "text" || only.quote || only.heading || only.steps)
    return undefined;
  return textOf(only.text).trim() ? only : undefined;
}

/** Returns the texts of a slide that has a title and nothing but texts; undefined for any other. */
export function textsOf(page: Composed): TextFlow[] | undefined {
  const texts = page.flow.filter((item): item is TextFlow => item.kind === "text");
  const isPlain = isOpenToForms(page) && texts.length === page.flow.length && texts.every(({ steps }) => !steps);
  return isPlain && texts.length ? texts : undefined;
}

/** Returns the paragraphs of a slide of points that follow each other; undefined where it has subheadings or quotations. */
export function pointsOfPage(page: Composed): { paragraph: Paragraph; line: number }[] | undefined {
  const texts = textsOf(page);
  if (!texts || texts.some(({ quote, heading }) => quote || heading)) return undefined;
  return texts.flatMap(({ text, lines }) =>
    text.map((paragraph, at) => ({ paragraph, line: lines[at] ?? lines[0] ?? 1 })),
  );
}

/** Whether a count is within limits. */
export const isWithin = (count: number, { least, most }: { least: number; most: number }): boolean =>
  count >= least && count <= most;

/** Whether a paragraph has neither links nor footnotes, which the words of a figure do not carry. */
export const isPlain = ({ runs }: Paragraph): boolean =>
  runs.every(({ link, footnote, binding }) => !link && !footnote && !binding);

export const wordsOf = (paragraph: Paragraph): number => countWords(paragraphText(paragraph));
