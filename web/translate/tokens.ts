import type { PairedSegment } from "@unitext/server/api";

type Piece = PairedSegment["source"][number];
type Codes = PairedSegment["codes"];

const TOKEN = /⟨(\/?)(\d+)⟩/g;

/** Returns a coded text as it is edited: placeholders are their numbers in angle brackets, a pair has two. */
export const tokensOf = (pieces: readonly Piece[]): string =>
  pieces
    .map((piece) => (typeof piece === "string" ? piece : piece.at === "close" ? `⟨/${piece.code}⟩` : `⟨${piece.code}⟩`))
    .join("");

/** Returns the coded text that was typed; numbers that are no placeholders of the segment stay as they were typed. */
export function piecesOf(text: string, codes: Codes): Piece[] {
  const pieces: Piece[] = [];
  let from = 0;
  const words = (to: number) => to > from && pieces.push(text.slice(from, to));
  for (const { 0: token, 1: slash, 2: number = "", index } of text.matchAll(TOKEN)) {
    const code = codes[number];
    if (!code) continue;
    words(index);
    pieces.push({ code: Number(number), at: code.single ? "single" : slash ? "close" : "open" });
    from = index + token.length;
  }
  words(text.length);
  return pieces;
}

/** Returns the placeholders of the source that are not in a text yet, as they are typed, in their order. */
export function missingTokens(source: readonly Piece[], text: string): string[] {
  const tokens = tokensOf(source).match(TOKEN) ?? [];
  const pairs = new Set(
    source.flatMap((piece) => (typeof piece !== "string" && piece.at === "close" ? [piece.code] : [])),
  );
  return tokens
    .filter((token) => !token.startsWith("⟨/") && !text.includes(token))
    .map((token) => (pairs.has(Number(token.slice(1, -1))) ? `${token}⟨/${token.slice(1)}` : token));
}
