import { entryLines, reportLines } from "./entries";

describe("what a report says, in lines", () => {
  it("says once what holds of several slides, with their numbers as runs", () => {
    const notes = (slide: number) => ({ slide, what: "its notes", said: "not shown" });
    expect(entryLines([notes(3), notes(1), notes(2), notes(5)])).toEqual(["Slides 1–3, 5: its notes: not shown"]);
  });

  it("names several things of a slide in one line where one reason holds for all, and keeps other reasons apart", () => {
    const entrance = (what: string) => ({ slide: 6, what, said: "shown at once" });
    expect(
      entryLines([
        entrance("the entrance of “A”"),
        { slide: 6, what: "a sound", said: "shown by its picture" },
        entrance("the entrance of “B”"),
      ]),
    ).toEqual([
      "Slide 6: the entrance of “A”, the entrance of “B”: shown at once",
      "Slide 6: a sound: shown by its picture",
    ]);
  });

  it("puts what holds of the whole deck first, then goes along the slides", () => {
    expect(
      entryLines([
        { slide: 4, what: "b", said: "y" },
        { slide: 2, what: "a", said: "x" },
        { slide: null, what: "its macros", said: "z" },
      ]),
    ).toEqual(["its macros: z", "Slide 2: a: x", "Slide 4: b: y"]);
  });

  it("loses no entry, however they are joined", () => {
    const entries = Array.from({ length: 60 }, (_, nth) => ({
      slide: (nth % 7) + 1,
      what: `thing ${nth % 5}`,
      said: `reason ${nth % 3}`,
    }));
    const lines = entryLines(entries).join("\n");
    for (const { what, said } of entries) expect(lines).toMatch(new RegExp(`${what}.*: ${said}`));
  });

  it("tells what is left out before what is adapted", () => {
    expect(
      reportLines({
        left: [{ slide: 1, what: "a comment", why: "pages have none" }],
        adapted: [{ slide: 1, what: "a film", how: "shown by its picture" }],
      }),
    ).toEqual(["Slide 1: a comment: left out, pages have none", "Slide 1: a film: shown by its picture"]);
  });
});
