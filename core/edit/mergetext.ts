import { canonical, joinRuns, must, type Paragraph, type RichText, type Run, run } from "@unitext/core/model";
import { diff3Merge, diffIndices } from "node-diff3";

/** A piece of a text with a key to compare it by: a word or sign with its look, a footnote, or the end of a paragraph. */
interface Token {
  key: string;
  run?: Run;
  end?: Omit<Paragraph, "runs">;
}

/** Footnotes, linked values and formulas are not cut. */
const isWhole = ({ footnote, binding, marks }: Run) =>
  footnote !== undefined || binding !== undefined || marks?.includes("formula");

const WORDS = /[\p{L}\p{M}\p{N}]+|\s+|[^\p{L}\p{M}\p{N}\s]/gu;

const wordToken = (run: Run): Token => ({ key: canonical(run), run });
const endToken = (end: Omit<Paragraph, "runs">): Token => ({ key: `¶${canonical(end)}`, end });

/** Returns the pieces of paragraphs, cut by a pattern. */
function tokensOf(text: RichText, pattern: RegExp): Token[] {
  return text.flatMap(({ runs, ...end }) => [
    ...runs.flatMap((run): Token[] => {
      if (isWhole(run)) return [wordToken(run)];
      return (run.text.match(pattern) ?? []).map((text) => wordToken({ ...run, text }));
    }),
    endToken(end),
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

/** Merges two changes of properties, one by one; what both changed is as mine has it. */
function mergeProperties<T extends object>(base: T, mine: T, theirs: T): T {
  const merged = { ...theirs };
  for (const name of Object.keys({ ...base, ...mine }) as (keyof T)[]) {
    if (canonical(mine[name]) === canonical(base[name])) continue;
    if (mine[name] === undefined) delete merged[name];
    else merged[name] = mine[name];
  }
  return merged;
}

/** Merges two changes of the look of the same words, mark by mark and property by property. */
function mergeLooks(base: Run, mine: Run, theirs: Run): Run {
  const [had, own, other] = [new Set(base.marks), new Set(mine.marks), new Set(theirs.marks)];
  const marks = [...own, ...other].filter((mark) => (own.has(mark) === had.has(mark) ? other : own).has(mark));
  const properties = mergeProperties({ ...base.properties }, { ...mine.properties }, { ...theirs.properties });
  return run(base.text, marks, mine.link === base.link ? theirs.link : mine.link, properties);
}

/** Merges two changes of the look of a piece that all have; undefined for pieces that are not cut. */
function mergePieces(base: Token, mine: Token, theirs: Token): Token | undefined {
  if (base.end && mine.end && theirs.end) return endToken(mergeProperties(base.end, mine.end, theirs.end));
  if (!base.run || !mine.run || !theirs.run || isWhole(base.run)) return undefined;
  return wordToken(mergeLooks(base.run, mine.run, theirs.run));
}

/** Returns for each piece of a text which piece of another one has the same words; undefined where none has. */
function partners(one: readonly Token[], other: readonly Token[]): (number | undefined)[] {
  const words = ({ key, run, end }: Token) => (end ? "¶" : run && !isWhole(run) ? run.text : key);
  const found: (number | undefined)[] = one.map((_, nth) => nth);
  let moved = 0;
  let from = 0;
  const changes = diffIndices(one.map(words), other.map(words));
  for (const { buffer1, buffer2 } of [...changes, { buffer1: [one.length, 0], buffer2: [other.length, 0] }]) {
    const [at, count] = buffer1 as [number, number];
    for (let nth = from; nth < at; nth++) found[nth] = nth + moved;
    found.fill(undefined, at, at + count);
    from = at + count;
    moved = (buffer2 as [number, number])[0] + (buffer2 as [number, number])[1] - from;
  }
  return found;
}

/**
 * Gives the pieces that all three texts have the look that both changes make together, so that a look never stands in
 * the way of a word.
 */
function withMergedLooks({ base, mine, theirs }: Region): Region {
  const [inMine, inTheirs] = [partners(base, mine), partners(base, theirs)];
  const sides = { base: [...base], mine: [...mine], theirs: [...theirs] };
  for (const [nth, token] of base.entries()) {
    const [own, other] = [inMine[nth], inTheirs[nth]];
    // Words that one has replaced have no use for the look that the other gave them.
    const made =
      own === undefined || other === undefined ? token : mergePieces(token, must(mine[own]), must(theirs[other]));
    if (!made) continue;
    sides.base[nth] = made;
    if (own !== undefined) sides.mine[own] = made;
    if (other !== undefined) sides.theirs[other] = made;
  }
  return sides;
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
  const region = withMergedLooks({
    base: tokensOf(base, WORDS),
    mine: tokensOf(mine, WORDS),
    theirs: tokensOf(theirs, WORDS),
  });
  const merged = mergeTokens(region, clash);
  return merged && paragraphsOf(merged);
}
