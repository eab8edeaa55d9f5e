import fc from "fast-check";
import { canonical, textHash, utf16Hash, valueHash } from "./index";

describe("sums by which values are known again", () => {
  // FNV-1a in 32 bits of "", "a" and "foobar": draft-eastlake-fnv, test vectors (published there as 811c9dc5, e40c292c, bf9cf968).
  it.each([
    ["", "811c9dc5"],
    ["a", "e40c292c"],
    ["foobar", "bf9cf968"],
  ])("of %j begins with its FNV-1a", (text, expected) => {
    expect(textHash(text).slice(0, 8)).toBe(expected);
  });

  const value = fc.anything({
    maxDepth: 4,
    withNullPrototype: false,
    values: [
      fc.string({ unit: "binary" }),
      fc.constantFrom("slide:a", "\ud800", 'a"\\\n', "é𝄞"),
      fc.double(),
      fc.integer(),
      fc.boolean(),
      fc.constant(null),
      fc.constant(undefined),
    ],
  });

  it("are those of the canonical text, without its being made", () => {
    fc.assert(
      fc.property(value, (given) => expect(valueHash(given)).toBe(textHash(canonical(given)))),
      { numRuns: 2000 },
    );
  });

  it("are those of a whole text when it is told in pieces", () => {
    fc.assert(
      fc.property(fc.array(fc.string({ unit: "binary" })), (pieces) =>
        expect(
          utf16Hash((add) => {
            for (const piece of pieces) add(piece);
          }),
        ).toBe(textHash(pieces.join(""))),
      ),
    );
  });

  it("are the same whatever the order of fields, and others when a word is another", () => {
    const turned = (given: unknown): unknown =>
      Array.isArray(given)
        ? given.map(turned)
        : typeof given === "object" && given !== null
          ? Object.fromEntries(
              Object.entries(given)
                .reverse()
                .map(([key, inner]) => [key, turned(inner)]),
            )
          : given;
    fc.assert(fc.property(value, (given) => expect(valueHash(turned(given))).toBe(valueHash(given))));
    expect(valueHash({ a: "slide:x" })).not.toBe(valueHash({ a: "slide:y" }));
    expect(valueHash({ a: ["slide:x"] }, (text) => (text === "slide:x" ? "slide:y" : text))).toBe(
      valueHash({ a: ["slide:y"] }),
    );
  });
});
