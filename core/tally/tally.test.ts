import { newSlide, plainText, run } from "@unitext/core/model";
import { deckArbitrary } from "@unitext/core/testing";
import fc from "fast-check";
import { differences, noTally, report, Tally, tally } from "./index";

describe("the tally", () => {
  it("counts by walking the deck", () => {
    const slides = [
      {
        ...newSlide("a", "section"),
        elements: [{ kind: "text" as const, id: "t", slot: "title", text: plainText("Two words") }],
        notes: plainText("say it slowly"),
      },
      {
        ...newSlide("b", "points"),
        hidden: true,
        elements: [
          {
            kind: "text" as const,
            id: "u",
            slot: "body",
            text: [
              {
                kind: "plain" as const,
                level: 0,
                runs: [
                  run("out", [], "https://example.org/"),
                  run(" in ", []),
                  run("in", [], "slide:a"),
                  run("gone", [], "slide:z"),
                ],
              },
            ],
            binding: { source: "a.xlsx", range: "A1", mode: "latest" as const },
          },
          { kind: "picture" as const, id: "p", slot: null, source: "x.png", alt: "" },
        ],
      },
    ];
    expect(tally({ slides })).toEqual({
      ...noTally(),
      slides: 2,
      hidden: 1,
      sections: 1,
      words: 5,
      notes: { slides: 1, words: 3 },
      links: { external: 1, internal: 1, broken: 1 },
      bindings: 1,
      pictures: 1,
    });
  });

  it("of two decks put together is the sum of their tallies", () => {
    fc.assert(
      fc.property(deckArbitrary(), deckArbitrary(), (one, two) => {
        const [a, b, both] = [tally(one), tally(two), tally({ slides: [...one.slides, ...two.slides] })];
        expect([both.slides, both.words, both.notes.words, both.pictures, both.links.external]).toEqual([
          a.slides + b.slides,
          a.words + b.words,
          a.notes.words + b.notes.words,
          a.pictures + b.pictures,
          a.links.external + b.links.external,
        ]);
        expect(Tally.safeParse(both).success).toBe(true);
      }),
    );
  });

  it("names what is missing after an operation", () => {
    const before = { ...noTally(), slides: 3, notes: { slides: 2, words: 9 } };
    const after = { ...noTally(), slides: 3, notes: { slides: 1, words: 4 } };
    expect(differences(before, after)).toEqual([
      { what: "notes.slides", before: 2, after: 1 },
      { what: "notes.words", before: 9, after: 4 },
    ]);
    expect(report(before, after, { adapted: [], left: [] }).kept).toBe(4);
  });
});
