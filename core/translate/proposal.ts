import { codeFaults, joinPieces, type Piece, wordsOf } from "./coded";
import { relocalised } from "./numbers";

const FIRST_LETTER = /\p{L}/u;

/** Returns pieces with their first letter in upper case. */
function capitalised(pieces: readonly Piece[], language: string): Piece[] {
  let done = false;
  return pieces.map((piece) => {
    if (done || typeof piece !== "string" || !FIRST_LETTER.test(piece)) return piece;
    done = true;
    return piece.replace(FIRST_LETTER, (letter) => letter.toLocaleUpperCase(language));
  });
}

/** Returns pieces without the spaces at their edges that the source does not have. */
function withEdgesOf(source: readonly Piece[], pieces: readonly Piece[]): Piece[] {
  const isSpace = (piece: Piece | undefined, edge: RegExp) => typeof piece === "string" && edge.test(piece);
  return pieces.map((piece, nth) => {
    if (typeof piece !== "string") return piece;
    const start = nth === 0 && !isSpace(source[0], /^\s/) ? piece.trimStart() : piece;
    return nth === pieces.length - 1 && !isSpace(source.at(-1), /\s$/) ? start.trimEnd() : start;
  });
}

/**
 * Returns what an engine made of a text as a proposal: numbers in the form of the target language, the capital of the
 * source at the beginning, no doubled spaces, none added at the edges. Undefined when a placeholder was lost or there are no words.
 */
export function proposalOf(
  source: readonly Piece[],
  made: readonly Piece[],
  { from, to }: { from: string; to: string },
): Piece[] | undefined {
  const { missing, wrong } = codeFaults(source, made);
  if (missing.length || wrong.length || wordsOf(made).trim() === "") return undefined;
  const isDoubled = / {2}/.test(wordsOf(source));
  const pieces = made.map((piece): Piece => {
    if (typeof piece !== "string") return piece;
    const localised = relocalised(piece, from, to);
    return isDoubled ? localised : localised.replace(/ {2,}/g, " ");
  });
  const first = FIRST_LETTER.exec(wordsOf(source))?.[0] ?? "";
  const isCapital = first !== first.toLocaleLowerCase(from);
  return withEdgesOf(source, joinPieces(isCapital ? capitalised(pieces, to) : pieces));
}
