import {
  type Element,
  joinRuns,
  mapElementTexts,
  textAtRange,
  type Paragraph,
  paragraphText,
  type RichText,
  type Run,
  type RunProperties,
  type TextRange,
} from "@unitext/core/model";

/** Returns the runs of a paragraph between two of its characters. Footnotes at the ends stay outside. */
function runsBetween({ runs }: Paragraph, start: number, end: number): Run[] {
  let at = 0;
  return runs.flatMap((run) => {
    const from = at;
    at += run.text.length;
    if (run.footnote) return from >= start && from < end ? [run] : [];
    const text = run.text.slice(Math.max(0, start - from), Math.max(0, end - from));
    return text ? [{ ...run, text }] : [];
  });
}

/** A paragraph with the part of it that is in a range of the whole text. */
interface Part {
  paragraph: Paragraph;
  start: number;
  end: number;
  length: number;
}

function partsIn(text: RichText, { start, end }: TextRange): Part[] {
  let at = 0;
  return text.map((paragraph) => {
    const from = at;
    const { length } = paragraphText(paragraph);
    at += length + 1;
    const within = (place: number) => Math.min(length, Math.max(0, place - from));
    return { paragraph, start: within(start), end: within(end), length };
  });
}

/** Returns a text with properties on the characters of a range. */
export function propertiesOnRange(text: RichText, range: TextRange, properties: RunProperties): RichText {
  return partsIn(text, range).map(({ paragraph, start, end, length }) => {
    if (end <= start) return paragraph;
    const marked = runsBetween(paragraph, start, end).map((run) =>
      run.footnote ? run : { ...run, properties: { ...run.properties, ...properties } },
    );
    const runs = [...runsBetween(paragraph, 0, start), ...marked, ...runsBetween(paragraph, end, length)];
    return { ...paragraph, runs: joinRuns(runs) };
  });
}

/**
 * Returns a text with the characters of a range replaced. The new words look like the first of those that they replace;
 * the paragraphs of the range become one.
 */
export function replaceRange(text: RichText, range: TextRange, words: string): RichText {
  const parts = partsIn(text, range);
  const touched = parts.filter(({ start, end }) => end > start);
  const [first, last] = [touched[0], touched.at(-1)];
  if (!first || !last) return text;
  const [model] = runsBetween(first.paragraph, first.start, first.end);
  const { footnote: _, binding: __, ...look } = model ?? { text: "" };
  const runs = [
    ...runsBetween(first.paragraph, 0, first.start),
    { ...look, text: words },
    ...runsBetween(last.paragraph, last.end, last.length),
  ];
  const [from, to] = [parts.indexOf(first), parts.indexOf(last)];
  return text.toSpliced(from, to - from + 1, { ...first.paragraph, runs: joinRuns(runs) });
}

/** Returns an element with a range of its words replaced; undefined where the range is not in one of its texts. */
export function replaceInElement(element: Element, range: TextRange, words: string): Element | undefined {
  const place = textAtRange(element, range);
  if (!place) return undefined;
  let nth = 0;
  return mapElementTexts(element, (text) => (nth++ === place.nth ? replaceRange(text, place.range, words) : text));
}
