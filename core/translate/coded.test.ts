import { type Footnote, joinRuns, type Run } from "@unitext/core/model";
import fc from "fast-check";
import { codeFaults, decode, encode, joinPieces, type Piece } from "./index";

const binding = { source: "gauges.xlsx", range: "Levels!D2", mode: "latest" as const };
const note: Footnote = [{ text: "measured twice" }];
const words = fc.stringMatching(/^[a-zäß ]{1,6}$/);
const anyRun: fc.Arbitrary<Run> = fc.oneof(
  words.map((text): Run => ({ text })),
  words.map((text): Run => ({ text, marks: ["strong"] })),
  words.map((text): Run => ({ text, link: "https://example.org/a" })),
  words.map((text): Run => ({ text, marks: ["emphasis"], link: "slide:menu" })),
  words.map((text): Run => ({ text: `${text}\n${text}` })),
  fc.constant<Run>({ text: "", footnote: note }),
  fc.constant<Run>({ text: "4.6", binding }),
  fc.constant<Run>({ text: "x^2", marks: ["formula"] }),
);
const anyText = fc.array(anyRun, { minLength: 1, maxLength: 8 }).map((runs) => joinRuns(runs));

/** What a text carries besides its words. */
const carried = (runs: readonly Run[]) => ({
  links: new Set(runs.flatMap(({ link }) => link ?? [])),
  singles: runs.filter((item) => item.footnote || item.binding || item.marks?.includes("formula")).length,
  breaks: runs.map(({ text }) => text.split("\n").length - 1).reduce((sum, count) => sum + count, 0),
});

/** Reorders a coded text at random; each pair of placeholders moves together with its content. */
function permuted(pieces: readonly Piece[], order: readonly number[]): Piece[] {
  const units: Piece[][] = [];
  let open: Piece[] | undefined;
  for (const piece of pieces) {
    if (open) open.push(piece);
    if (typeof piece !== "string" && piece.at === "open") units.push((open = [piece]));
    else if (typeof piece !== "string" && piece.at === "close") open = undefined;
    else if (!open) units.push([piece]);
  }
  return units
    .map((unit, nth) => ({ unit, place: order[nth % order.length] ?? nth }))
    .sort((a, b) => a.place - b.place)
    .flatMap(({ unit }) => unit);
}

describe("a text with placeholders", () => {
  it("is the same text again, whatever it carries", () => {
    fc.assert(
      fc.property(anyText, (runs) => {
        const coded = encode(runs);
        expect(decode(coded, coded.pieces)).toEqual(runs);
      }),
    );
  });

  it("carries the same links, footnotes, values and breaks in whatever order its placeholders are put", () => {
    fc.assert(
      fc.property(anyText, fc.array(fc.nat(20), { minLength: 1, maxLength: 8 }), (runs, order) => {
        const coded = encode(runs);
        const moved = joinPieces(permuted(coded.pieces, order));
        expect(codeFaults(coded.pieces, moved)).toEqual({ missing: [], wrong: [] });
        expect(carried(decode(coded, moved))).toEqual(carried(runs));
      }),
    );
  });

  it("loses no footnote, value or formula where a translation has lost its placeholder", () => {
    fc.assert(
      fc.property(anyText, (runs) => {
        const coded = encode(runs);
        expect(carried(decode(coded, ["words only"])).singles).toBe(carried(runs).singles);
      }),
    );
  });

  it("says which placeholders are missing, doubled, unknown or crossed", () => {
    const source: Piece[] = [{ code: 1, at: "open" }, "a", { code: 1, at: "close" }, { code: 2, at: "single" }];
    const faults = (target: Piece[]) => codeFaults(source, target);
    expect(faults([{ code: 2, at: "single" }, "b"])).toEqual({ missing: [1], wrong: [] });
    expect(faults([...source, { code: 2, at: "single" }])).toEqual({ missing: [], wrong: [2] });
    expect(faults([...source, { code: 7, at: "single" }])).toEqual({ missing: [], wrong: [7] });
    expect(faults([{ code: 1, at: "close" }, "a", { code: 1, at: "open" }, { code: 2, at: "single" }])).toEqual({
      missing: [],
      wrong: [1],
    });
  });
});
