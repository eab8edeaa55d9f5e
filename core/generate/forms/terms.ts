import { countWords, joinRuns, type Paragraph, type RichText, type Run } from "@unitext/core/model";
import type { Flow } from "../draft";
import { type Form, isWithin, listOf } from "./form";

/** How many terms a slide has, how long one is, and how many words explain it at least (common practice, no source). */
const TERMS = { least: 3, most: 7, words: 4, explanation: 3 } as const;

/** Where a term ends and its explanation begins. */
const COLON = /^([^.:!?]{2,40}):\s+(?=\S)/u;

/** Returns the runs before and after a place in their text. */
function dividedRuns(runs: readonly Run[], at: number): [Run[], Run[]] {
  const [before, after]: [Run[], Run[]] = [[], []];
  let from = 0;
  for (const run of runs) {
    const cut = Math.min(Math.max(at - from, 0), run.text.length);
    if (cut > 0) before.push({ ...run, text: run.text.slice(0, cut) });
    if (cut < run.text.length) after.push({ ...run, text: run.text.slice(cut) });
    from += run.text.length;
  }
  return [before, after];
}

/** Returns an item's term, without its colon, and its explanation; undefined where it has none. */
function termOf({ runs }: Paragraph): { term: Run[]; explanation: Run[] } | undefined {
  const words = runs.map(({ text }) => text).join("");
  const [lead = "", name = ""] = COLON.exec(words) ?? [];
  if (!lead || countWords(name) > TERMS.words) return undefined;
  const [, explanation] = dividedRuns(runs, lead.length);
  return { term: dividedRuns(runs, name.length)[0], explanation };
}

/** A list of terms with their explanations as two columns: terms in bold, explanations beside them. */
export const terms: Form = {
  reason: "terms-explained",
  suits: 0.85,
  of(page) {
    const list = listOf(page);
    if (!list?.text.every(({ kind, level }) => kind === "bullet" && level === 0)) return undefined;
    if (!isWithin(list.text.length, TERMS)) return undefined;
    const pairs = list.text.flatMap((item) => termOf(item) ?? []);
    const isExplained = pairs.every(
      ({ explanation }) => countWords(explanation.map(({ text }) => text).join("")) >= TERMS.explanation,
    );
    if (pairs.length !== list.text.length || !isExplained) return undefined;
    const paragraph = (runs: Run[]): RichText => [{ kind: "plain", level: 0, runs: joinRuns(runs) }];
    const strong = (run: Run): Run => ({ ...run, marks: [...new Set([...(run.marks ?? []), "strong" as const])] });
    const rows = pairs.map(({ term, explanation }) => [
      { text: paragraph(term.map(strong)) },
      { text: paragraph(explanation) },
    ]);
    const content: Flow = {
      kind: "content",
      content: { kind: "table", header: 0, align: ["start", "start"], rows },
      line: list.lines[0] ?? 1,
    };
    return { ...page, flow: [content], arrangement: "table" };
  },
};
