import { canonical, joinRuns, type Paragraph, type RichText, type Run } from "@unitext/core/model";
import { diff3Merge } from "node-diff3";

/** A piece of a text with a key to compare it by: a word or sign with its look, a footnote, or the end of a paragraph. */
interface Token {
  key: string;
  run?: Run;
  end?: Omit<Paragraph, "runs">;
}

const WORDS = /[\p{L}\p{M}\p{N}]+|\s+|[^\p{L}\p{M}\p{N}\s]/gu;

/** Returns the pieces of paragraphs, cut by a pattern. */
function tokensOf(text: RichText, pattern: RegExp): Token[] {
  return text.flatMap(({ runs, ...end }) => [
    ...runs.flatMap((run): Token[] => {
      const { text: words, ...look } = run;
      if (run.footnote || run.binding) return [{ key: canonical(run), run }];
      const style = canonical(look);
      return (words.match(pattern) ?? []).map((part) => ({ key: `${part}${style}`, run: { ...look, text: part } }));
    }),
    { key: `¶${canonical(end)}`, end },
  ]);
}

/** Returns the paragraphs that pieces make. Pieces after the last end of a paragraph are one more. */
function paragraphsOf(tokens: readonly Token[]): RichText {
  const text: Paragraph[] = [];
  let runs: Run[] = [];
  for (const { run, end } of tokens) {
    if (run) runs.push(run);
    if (!end) continue;
    text.push({ ...end, runs: joinRuns(runs) });
    runs = [];
  }
  return runs.length ? [...text, { kind: "plain", level: 0, runs: joinRuns(runs) }] : text;
}

/** What both sides made of the same piece of a text. */
interface Region {
  base: readonly Token[];
  mine: readonly Token[];
  theirs: readonly Token[];
}

/** Merges pieces three-way; `clash` merges what both sides changed. Undefined where it cannot. */
function mergeTokens(
  { base, mine, theirs }: Region,
  clash: (region: Region) => readonly Token[] | undefined,
): Token[] | undefined {
  const known = new Map([...base, ...theirs, ...mine].map((token) => [token.key, token]));
  const keys = (tokens: readonly Token[]) => tokens.map(({ key }) => key);
  const tokens = (list: readonly string[] = []) => list.flatMap((key) => known.get(key) ?? []);
  const merged: Token[] = [];
  for (const { ok, conflict } of diff3Merge(keys(mine), keys(base), keys(theirs), { excludeFalseConflicts: true })) {
    if (!conflict) {
      merged.push(...tokens(ok));
      continue;
    }
    const made = clash({ base: tokens(conflict.o), mine: tokens(conflict.a), theirs: tokens(conflict.b) });
    if (!made) return undefined;
    merged.push(...made);
  }
  return merged;
}

/** Two insertions at one place: both are kept, that which was committed first. */
const bothInserted = ({ base, mine, theirs }: Region) => (base.length ? undefined : [...theirs, ...mine]);

/** Words that both sides replaced: those of both, the other's first. */
const bothWritten = (region: Region) => inOneWord(region) ?? [...region.theirs, ...region.mine];

/** A word that both sides changed is merged letter by letter. */
function inOneWord(region: Region): readonly Token[] | undefined {
  const inserted = bothInserted(region);
  if (inserted) return inserted;
  const sides = [region.base, region.mine, region.theirs];
  if (sides.some((side) => side.length !== 1 || side[0]?.end)) return undefined;
  const letters = (side: readonly Token[]) =>
    side.flatMap(({ run }) =>
      run ? tokensOf([{ kind: "plain", level: 0, runs: [run] }], /[\s\S]/gu).slice(0, -1) : [],
    );
  const [base, mine, theirs] = [letters(region.base), letters(region.mine), letters(region.theirs)];
  return mergeTokens({ base, mine, theirs }, bothInserted);
}

const same = (one: RichText, other: RichText) => one === other || canonical(one) === canonical(other);

/**
 * Merges two changes of a text: what only one side changed is taken, insertions at one place are both kept, and a word
 * that both changed is merged letter by letter. Returns undefined where both have replaced the same words by different
 * ones, so that no text would say what either meant.
 */
export const mergeTexts = (base: RichText, mine: RichText, theirs: RichText): RichText | undefined =>
  mergedBy(inOneWord, base, mine, theirs);

/** Merges two changes of a text as above; where both have replaced the same words, the words of both are kept. */
export const mergeTextsWithBoth = (base: RichText, mine: RichText, theirs: RichText): RichText =>
  mergedBy(bothWritten, base, mine, theirs) ?? theirs;

function mergedBy(
  clash: (region: Region) => readonly Token[] | undefined,
  base: RichText,
  mine: RichText,
  theirs: RichText,
): RichText | undefined {
  if (same(base, theirs) || same(mine, theirs)) return mine;
  if (same(base, mine)) return theirs;
  const region = { base: tokensOf(base, WORDS), mine: tokensOf(mine, WORDS), theirs: tokensOf(theirs, WORDS) };
  const merged = mergeTokens(region, clash);
  return merged && paragraphsOf(merged);
}
