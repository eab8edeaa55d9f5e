import { canonical, joinRuns, NUMBER_SIGN, run, type Run } from "@unitext/core/model";

/**
 * A part of a coded text: words, or a placeholder by its number. A pair holds the words that have a form of their own, a
 * single placeholder stands for a footnote, a line break, a formula, code, the slide number or a linked value.
 */
export type Piece = string | { code: number; at: "open" | "close" | "single" };

/** What a placeholder stands for: the form of the words in a pair, or the run of a single one. */
export type Code = { kind: "pair"; form: Form } | { kind: "single"; run: Run };

/** A run without its words. */
export type Form = Omit<Run, "text">;

/** A text with placeholders, what they stand for, and the form of the words outside of pairs. */
export interface CodedText {
  pieces: Piece[];
  codes: ReadonlyMap<number, Code>;
  form: Form;
}

const formOf = ({ text: _, ...form }: Run): Form => form;
const isWhole = ({ footnote, binding, marks }: Run) =>
  footnote !== undefined || binding !== undefined || marks?.includes("formula") || marks?.includes("code");

/** Returns the formatting that most characters of the runs have. */
function mainForm(runs: readonly Run[]): Form {
  const lengths = new Map<string, { form: Form; length: number }>();
  for (const item of runs) {
    if (isWhole(item)) continue;
    const key = canonical(formOf(item));
    const known = lengths.get(key);
    lengths.set(key, { form: formOf(item), length: (known?.length ?? 0) + item.text.length });
  }
  return [...lengths.values()].reduce<{ form: Form; length: number }>(
    (most, one) => (one.length > most.length ? one : most),
    { form: {}, length: 0 },
  ).form;
}

/** Line breaks and the slide number, which are placeholders inside a run. */
const INSIDE = new RegExp(`(\\n|${NUMBER_SIGN})`);

/** Returns runs as words with placeholders, which are numbered from 1 in their order. */
export function encode(runs: readonly Run[]): CodedText {
  const form = mainForm(runs);
  const base = canonical(form);
  const codes = new Map<number, Code>();
  const pieces: Piece[] = [];
  const add = (code: Code): number => {
    codes.set(codes.size + 1, code);
    return codes.size;
  };
  for (const item of runs) {
    if (isWhole(item)) {
      pieces.push({ code: add({ kind: "single", run: item }), at: "single" });
      continue;
    }
    const own = formOf(item);
    const pair = canonical(own) === base ? undefined : add({ kind: "pair", form: own });
    if (pair !== undefined) pieces.push({ code: pair, at: "open" });
    for (const part of item.text.split(INSIDE)) {
      if (part === "") continue;
      if (part === "\n" || part === NUMBER_SIGN)
        pieces.push({ code: add({ kind: "single", run: { ...own, text: part } }), at: "single" });
      else pieces.push(part);
    }
    if (pair !== undefined) pieces.push({ code: pair, at: "close" });
  }
  return { pieces, codes, form };
}

/** The placeholders that a translation does not have as its source does. */
export interface CodeFaults {
  missing: number[];
  /** Doubled, unknown, or a pair that is not closed or not opened. */
  wrong: number[];
}

/** Compares the placeholders of a translation with those of its source. The order is free. */
export function codeFaults(source: readonly Piece[], target: readonly Piece[]): CodeFaults {
  const tokens = (pieces: readonly Piece[]) =>
    pieces.flatMap((piece) => (typeof piece === "string" ? [] : [`${piece.code} ${piece.at}`]));
  const [wanted, found] = [tokens(source), tokens(target)];
  const numbers = (list: readonly string[]) => [...new Set(list.map((token) => Number(token.split(" ")[0])))];
  const seen = new Set<string>();
  const doubled = found.filter((token) => seen.size === seen.add(token).size);
  const open = new Set<number>();
  const crossed: string[] = [];
  for (const piece of target) {
    if (typeof piece === "string") continue;
    if (piece.at === "open") open.add(piece.code);
    else if (piece.at === "close" && !open.delete(piece.code)) crossed.push(`${piece.code} close`);
  }
  return {
    missing: numbers(wanted.filter((token) => !found.includes(token))),
    wrong: numbers([...found.filter((token) => !wanted.includes(token)), ...doubled, ...crossed]),
  };
}

/**
 * Returns the runs of a coded text. Placeholders that it does not know are ignored, a pair that is not closed reaches to
 * the end, and single ones that are missing are put at the end, so that no footnote, formula or value is lost.
 */
export function decode({ codes, form }: Pick<CodedText, "codes" | "form">, pieces: readonly Piece[]): Run[] {
  const runs: Run[] = [];
  const open: number[] = [];
  const used = new Set<number>();
  const current = (): Form => {
    const code = codes.get(open.at(-1) ?? 0);
    return code?.kind === "pair" ? code.form : form;
  };
  for (const piece of pieces) {
    if (typeof piece === "string") {
      runs.push({ ...current(), text: piece });
      continue;
    }
    const code = codes.get(piece.code);
    if (piece.at === "single" && code?.kind === "single" && !used.has(piece.code)) {
      used.add(piece.code);
      runs.push(code.run);
    } else if (piece.at === "open" && code?.kind === "pair") open.push(piece.code);
    else if (piece.at === "close" && open.includes(piece.code)) open.splice(open.lastIndexOf(piece.code), 1);
  }
  for (const [number, code] of codes) if (code.kind === "single" && !used.has(number)) runs.push(code.run);
  return joinRuns(runs);
}

/** Returns a coded text as plain words; placeholders are left out, line breaks become spaces. */
export const wordsOf = (pieces: readonly Piece[]): string =>
  pieces.map((piece) => (typeof piece === "string" ? piece : piece.at === "single" ? " " : "")).join("");

/** Returns pieces with neighbouring words joined and empty ones left out. */
export function joinPieces(pieces: readonly Piece[]): Piece[] {
  const joined: Piece[] = [];
  for (const piece of pieces) {
    const last = joined.at(-1);
    if (piece === "") continue;
    if (typeof piece === "string" && typeof last === "string") joined[joined.length - 1] = last + piece;
    else joined.push(piece);
  }
  return joined;
}

/** Returns the description of a placeholder, which is otherwise shown only by its number. */
export function codeLabel(code: Code): string {
  if (code.kind === "pair") {
    const marks = (code.form.marks ?? []).join(", ");
    return [marks, code.form.link ? `link to ${code.form.link}` : ""].filter(Boolean).join(", ") || "form";
  }
  const { footnote, binding, text, marks } = code.run;
  if (footnote) return "footnote";
  if (binding) return `${text} (${binding.source}, ${binding.range})`;
  if (text === "\n") return "line break";
  if (text === NUMBER_SIGN) return "slide number";
  return marks?.includes("formula") ? `formula ${text}` : `code ${text}`;
}

/** Returns a run with other words in the form of a coded text. */
export const inForm = (form: Form, text: string): Run => ({ ...run(text), ...form });
