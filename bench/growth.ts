import { generateDeck } from "@unitext/core/generate";
import { DOCUMENT_RULE, must } from "@unitext/core/model";
import { readText } from "@unitext/core/text";
import type { Row } from "./core";

/** Twice the text may take at most this many times as long. */
const TARGET = 2.3;
/** Makes a text of pieces that no earlier text had: what is read once is cached, and would take no time. */
const repeated = (piece: (nth: number) => string) => (size: number) => {
  let text = "";
  while (text.length < size) text += piece(next++);
  return text;
};
let next = 1_000_000;

/** Texts of any size, each of one kind of content repeated. */
const TEXTS: Record<string, (size: number) => string> = {
  prose: repeated(
    (nth) =>
      `The gauge at the quay is read every ten minutes, day ${nth}. Its clock is set once a week by the keeper.\n\n`,
  ),
  lists: repeated((nth) => `- item ${nth} of the list\n`),
  "nested lists": repeated((nth) => `${"  ".repeat(nth % 20)}- item ${nth}\n`),
  quotations: repeated((nth) => `> line ${nth} of what was said\n`),
  "nested quotations": (size) => `${"> ".repeat(size / 2)}end`,
  directives: repeated((nth) => `:::align{to=centre}\nwords ${nth}\n:::\n\n`),
  tables: (size) => `| a | b |\n|---|---|\n${repeated((nth) => `| ${nth} | cell |\n`)(size)}`,
  emphasis: repeated((nth) => `Some *words* are **strong ${nth}** here.\n\n`),
  "emphasis in one paragraph": repeated((nth) => `*a **b${nth} `),
  spaces: (size) => `a${" ".repeat(size)}b *x*\nc`,
  footnotes: repeated((nth) => `A word[^${nth}] of it.\n\n[^${nth}]: What is said of it.\n\n`),
  "underlined headings": repeated((nth) => `Heading ${nth}\n=\n`),
  brackets: (size) => "[".repeat(size),
};
/** Also generates slides from it. */
const MADE = ["prose", "lists", "tables", "footnotes"];
/** Three doublings apart. */
const SIZES = [125_000, 1_000_000] as const;

function least(act: () => void, runs: number): number {
  let best = Number.POSITIVE_INFINITY;
  for (let run = 0; run < runs; run++) {
    const begun = performance.now();
    act();
    best = Math.min(best, performance.now() - begun);
  }
  return best;
}

/** Returns by which factor the time grows when the text doubles: the cube root of the growth over three doublings. */
function growth(act: (text: string) => void, make: (size: number) => string): number {
  const [short = 0, long = 0] = SIZES.map((size) => least(() => act(make(size)), size > 500_000 ? 2 : 3));
  // Shorter times would only measure the clock.
  return Math.cbrt(Math.max(long, 5) / Math.max(short, 5));
}

export async function grow(): Promise<Row[]> {
  const rows: Row[] = [];
  const add = (name: string, ratio: number) =>
    rows.push({ name, ratio: Math.round(ratio * 100) / 100, target: TARGET, holds: ratio <= TARGET });
  for (const [name, make] of Object.entries(TEXTS)) {
    add(
      `growth of reading, a text twice as long, up to 1 MB: ${name}`,
      growth((text) => {
        for (const _ of readText(text).blocks) {
          // Only the time counts.
        }
      }, make),
    );
  }
  for (const name of MADE)
    add(
      `growth of making slides, a text twice as long, up to 1 MB: ${name}`,
      growth(
        (text) =>
          void generateDeck(readText(text), { ...DOCUMENT_RULE, placement: "both" }, { newId: ids() }, "Growth"),
        must(TEXTS[name]),
      ),
    );
  return rows;
}

function ids(): () => string {
  let last = 0;
  return () => `g${last++}`;
}
