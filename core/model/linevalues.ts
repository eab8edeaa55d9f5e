import { z } from "zod";
import { Binding } from "./binding";
import { joinRuns, type Paragraph, type RichText, run, type Run } from "./richtext";

/**
 * Values of linked data in a line of plain text, such as a caption or the title of a chart: the characters that show
 * each, and its binding.
 */
export const LineValues = z
  .array(z.object({ from: z.number().int().nonnegative(), length: z.number().int().positive(), binding: Binding }))
  .max(100);
export type LineValues = z.infer<typeof LineValues>;

/** Returns a line with its values as a rich text of one paragraph. */
export function lineText(words: string, values: LineValues = []): RichText {
  const runs: Run[] = [];
  let at = 0;
  for (const { from, length, binding } of [...values].sort((a, b) => a.from - b.from)) {
    if (from < at || from + length > words.length) continue;
    if (from > at) runs.push(run(words.slice(at, from)));
    runs.push(run(words.slice(from, from + length), [], undefined, undefined, binding));
    at = from + length;
  }
  if (at < words.length) runs.push(run(words.slice(at)));
  return [{ kind: "plain", level: 0, runs }];
}

/** Returns the words of a rich text of one line, and its values; formatting is left out. */
export function lineOf(text: RichText): { words: string; values: LineValues } {
  const runs = text.flatMap(({ runs: own }: Paragraph, nth) => (nth ? [run(" "), ...own] : own));
  const values: LineValues = [];
  let words = "";
  for (const item of joinRuns(runs)) {
    if (item.binding && item.text) values.push({ from: words.length, length: item.text.length, binding: item.binding });
    words += item.text;
  }
  return { words, values };
}

/** Returns the values of a line after its words were edited: those that are still there, each at its new place. */
export function keptValues(before: string, values: LineValues | undefined, after: string): LineValues {
  let at = 0;
  return (values ?? []).flatMap(({ from, length, binding }) => {
    const shown = before.slice(from, from + length);
    const place = after.indexOf(shown, at);
    if (place < 0) return [];
    at = place + length;
    return [{ from: place, length, binding }];
  });
}
