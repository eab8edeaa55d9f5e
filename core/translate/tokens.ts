import { joinPieces, type Piece } from "./coded";

/** What is known of a placeholder where coded texts are typed: whether it is one sign or a pair around words. */
export type PlaceholderKinds = Readonly<Record<string, { single: boolean }>>;

const TOKEN = /⟨(\/?)(\d+)⟩/g;

/** Returns a coded text as it is edited: placeholders are their numbers in angle brackets, a pair has two. */
export const typedText = (pieces: readonly Piece[]): string =>
  pieces
    .map((piece) => (typeof piece === "string" ? piece : piece.at === "close" ? `⟨/${piece.code}⟩` : `⟨${piece.code}⟩`))
    .join("");

/** Returns the coded text that was typed; numbers that are no placeholders of the segment stay as they were typed. */
export function piecesOf(text: string, codes: PlaceholderKinds): Piece[] {
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
  return joinPieces(pieces);
}

/** Returns the kinds of the placeholders in a coded text. */
export function placeholderKinds(pieces: readonly Piece[]): PlaceholderKinds {
  return Object.fromEntries(
    pieces.flatMap((piece) =>
      typeof piece === "string" ? [] : [[String(piece.code), { single: piece.at === "single" }]],
    ),
  );
}

/** Returns the placeholders of the source that are not in a text yet, as they are typed, in their order. */
export function missingTokens(source: readonly Piece[], text: string): string[] {
  const kinds = placeholderKinds(source);
  return (typedText(source).match(TOKEN) ?? [])
    .filter((token) => !token.startsWith("⟨/") && !text.includes(token))
    .map((token) => (kinds[token.slice(1, -1)]?.single ? token : `${token}⟨/${token.slice(1)}`));
}
