import { type Deck, emptyDeck, newSlide, plainText, secondsOf, type Slide, must } from "@unitext/core/model";
import fc from "fast-check";
import {
  byCount,
  roundRobin,
  byMinutes,
  bySection,
  matchName,
  nameBy,
  parseRanges,
  planOf,
  suggestParts,
  rangesOf,
  readPlan,
  resolvePlan,
} from "./index";

/** A slide that takes so many seconds to say at 130 words a minute. */
function slide(id: string, seconds: number, options: Partial<Slide> = {}): Slide {
  const words = Math.round((seconds * 130) / 60);
  return {
    ...newSlide(id, "points"),
    elements: [{ kind: "text", id: "t", slot: "title", text: plainText(`Slide ${id}`) }],
    notes: plainText(Array.from({ length: words }, () => "word").join(" ")),
    ...options,
  };
}
const deckOf = (slides: Slide[]): Deck => ({ ...emptyDeck("d", "Tides"), slides });
const numbered = (count: number, seconds = 60) =>
  deckOf(Array.from({ length: count }, (_, nth) => slide(`s${nth + 1}`, seconds)));
const ids = (parts: readonly { slides: readonly string[] }[]) =>
  parts.map(({ slides }) => slides.map((id) => id.replace(/^s/, "")).join(" "));

describe("ranges of slides", () => {
  it("are taken in the order typed, with gaps, repeats and an open end", () => {
    expect(parseRanges("1-3, 12, 2, 40-", 42, "x")).toEqual([1, 2, 3, 12, 2, 40, 41, 42]);
    expect(parseRanges("-3", 42, "x")).toEqual([1, 2, 3]);
    expect(parseRanges(" ", 42, "x")).toEqual([]);
    expect(parseRanges("2–4;7", 42, "x")).toEqual([2, 3, 4, 7]);
  });

  it.each([
    ["0", "counted from 1"],
    ["43", "the last is 42"],
    ["40-50", "slide 50"],
    ["9-3", "runs backwards; write 3-9"],
    ["two", "neither a slide's number nor a run"],
    ["1,,2", "between two commas"],
    ["-", "neither a slide's number nor a run"],
    ["1 2", "neither a slide's number nor a run"],
    ["1.5", "neither"],
  ])("refuse %j with its place and a sentence", (list, words) => {
    expect(() => parseRanges(list, 42, "parts[0]")).toThrow(
      expect.objectContaining({ code: "not-valid", where: "parts[0]", message: expect.stringContaining(words) }),
    );
  });

  it("are written as they are read", () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 60 }), { maxLength: 30 }), (numbers) =>
        expect(parseRanges(rangesOf(numbers), 60, "x")).toEqual(numbers),
      ),
    );
  });
});

describe("plans", () => {
  it("are read from JSON and from a table, opening and closing first", () => {
    const plan = {
      opening: "1",
      closing: "42",
      parts: [
        { name: "Day one", slides: "2-8" },
        { name: "Day two", slides: "9-11, 30" },
      ],
    };
    expect(readPlan(JSON.stringify(plan), "plan.json")).toEqual(plan);
    expect(readPlan('name,slides\nopening,1\nclosing,42\nDay one,2-8\nDay two,"9-11, 30"\n', "plan.csv")).toEqual(plan);
    expect(readPlan("name,slides\nDay two,9-11,30\n", "plan.csv").parts).toEqual([
      { name: "Day two", slides: "9-11, 30" },
    ]);
  });

  it.each([
    ["", "plan.json", "The plan is empty"],
    ["{", "plan.json", "no JSON"],
    ['{"parts":[{"name":"a"}]}', "plan.json: parts[0].slides", "cannot be taken"],
    ['{"parts":[],"by":{"minutes":3}}', "plan.json", "either “parts” or “by”"],
    ['{"by":{"minutes":-1}}', "plan.json: by.minutes", "cannot be taken"],
    ["title,pages\na,1", "plan.csv: line 1", "columns name and slides"],
  ])("that cannot be taken say where: %j", (text, where, words) => {
    expect(() => readPlan(text, must(where.split(":")[0]))).toThrow(
      expect.objectContaining({ where, message: expect.stringContaining(words) }),
    );
  });

  it("put opening and closing into every part, and say what was put right", () => {
    const deck = numbered(12);
    const { parts, remarks } = resolvePlan(
      deck,
      {
        opening: "1",
        closing: "12",
        parts: [
          { name: "Day", slides: "1-4" },
          { name: "", slides: "5, 5" },
          { name: "Day", slides: "6-" },
          { name: "Empty", slides: "" },
        ],
      },
      "2026-11-25",
    );
    expect(parts.map(({ name, slides }) => [name, slides.map(({ id }) => id.slice(1)).join(" ")])).toEqual([
      ["Day", "1 2 3 4 12"],
      ["Part 2", "1 5 5 12"],
      ["Day (2)", "1 6 7 8 9 10 11 12"],
    ]);
    expect(remarks).toEqual([
      expect.stringContaining("is in every part"),
      expect.stringContaining("Part 2 has no name"),
      expect.stringContaining("it is in it once"),
      expect.stringContaining("“Empty” has no slides"),
      expect.stringContaining("Two parts are called “Day”"),
    ]);
  });

  it("name the line that has a slide which the deck does not have, and refuse plans that make nothing", () => {
    expect(() =>
      resolvePlan(
        numbered(5),
        {
          parts: [
            { name: "A", slides: "1" },
            { name: "B", slides: "4-9" },
          ],
        },
        "",
      ),
    ).toThrow(expect.objectContaining({ where: "parts[1] (B)", message: expect.stringContaining("the last is 5") }));
    expect(() => resolvePlan(numbered(5), { parts: [] }, "")).toThrow("The plan has no parts.");
    expect(() => resolvePlan(numbered(5), { opening: "1-5", parts: [{ name: "A", slides: "2" }] }, "")).toThrow(
      "No part has a slide of its own",
    );
    expect(() => resolvePlan(numbered(2), { opening: "1", closing: "2", by: { count: 3 } }, "")).toThrow(
      "nothing between opening and closing",
    );
  });

  it("name parts by a pattern with number, date and part", () => {
    expect(
      nameBy("{title} – {part}, {number} of {count}, {date} {what}", {
        number: 3,
        count: 12,
        part: "Dunes",
        title: "Tides",
        date: "2026-11-25",
      }),
    ).toBe("Tides – Dunes, 03 of 12, 2026-11-25 {what}");
    expect(
      resolvePlan(numbered(4), { by: { count: 2 }, names: "{title} {number}" }, "").parts.map(({ name }) => name),
    ).toEqual(["Tides 1", "Tides 2"]);
  });
});

describe("proposals", () => {
  it("fill a budget of minutes and keep it", () => {
    expect(ids(byMinutes(numbered(10).slides, 130, 300))).toEqual(["1 2 3 4 5", "6 7 8 9 10"]);
    // Opening and closing take two minutes of each part's five.
    expect(ids(suggestParts(numbered(8), { minutes: 5 }, [must(numbered(8).slides[0])]))).toHaveLength(2);
  });

  it("cut at a section where that costs at most a tenth of the budget, and not where it costs more", () => {
    const at = (section: number) =>
      numbered(20, 30).slides.map((one, nth) =>
        nth + 1 === section ? { ...one, arrangement: "section" as const } : one,
      );
    // 600 s hold 20 slides of 30 s; a section at 19 leaves 60 s (a tenth) unused, one at 18 leaves 90 s.
    const twenty = (section: number) => byMinutes([...at(section), slide("s21", 30)], 130, 600);
    expect(ids(twenty(20))[0]?.split(" ").length).toBe(19);
    expect(ids(twenty(19))[0]?.split(" ").length).toBe(18);
    expect(ids(twenty(17))[0]?.split(" ").length).toBe(20);
  });

  it("never part a main slide and its details, nor what continues while there is another way", () => {
    const list = [
      slide("s1", 60),
      slide("s2", 60),
      slide("s3", 60, { parent: "s2" }),
      slide("s4", 60),
      slide("s5", 60),
    ];
    expect(ids(byMinutes(list, 130, 120))).toEqual(["1", "2 3", "4 5"]);
    const titled = (id: string, title: string): Slide => ({
      ...slide(id, 60),
      elements: [{ kind: "text", id: "t", slot: "title", text: plainText(title) }],
    });
    expect(
      ids(
        byMinutes(
          [
            titled("s1", "A"),
            titled("s2", "B (1 of 2)"),
            titled("s3", "B (2 of 2)"),
            titled("s4", "C"),
            titled("s5", "D"),
          ],
          130,
          180,
        ),
      )[0],
    ).not.toBe("1 2");
  });

  /** All ways to part a list, by brute force: the least cost that the dynamic programming may find. */
  function least(lengths: readonly number[], sections: ReadonlySet<number>, budget: number): number {
    let best = Number.POSITIVE_INFINITY;
    const n = lengths.length;
    for (let cuts = 0; cuts < 1 << (n - 1); cuts++) {
      let cost = 0;
      let used = 0;
      let size = 0;
      for (let at = 0; at < n; at++) {
        used += must(lengths[at]);
        size += 1;
        if (used > budget && size > 1) cost = Number.POSITIVE_INFINITY;
        if (at < n - 1 && cuts & (1 << at)) {
          cost += Math.max(0, budget - used) + (sections.has(at + 1) ? 0 : budget * 0.1);
          used = 0;
          size = 0;
        }
      }
      best = Math.min(best, cost);
    }
    return best;
  }

  it("are the best of all ways to cut, as trying each of them tells", () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 10, max: 120 }), fc.boolean()), { minLength: 1, maxLength: 9 }),
        fc.integer({ min: 60, max: 240 }),
        (given, budget) => {
          const slides = given.map(([seconds, opens], nth) =>
            slide(`s${nth}`, seconds, opens ? { arrangement: "section" } : {}),
          );
          const lengths = slides.map((one) => secondsOf(one, 130));
          const sections = new Set(given.flatMap(([, opens], nth) => (opens ? [nth] : [])));
          const parts = byMinutes(slides, 130, budget);
          expect(parts.flatMap(({ slides: own }) => own)).toEqual(slides.map(({ id }) => id));
          let at = 0;
          let cost = 0;
          parts.forEach(({ slides: own }, nth) => {
            const used = lengths.slice(at, at + own.length).reduce((sum, length) => sum + length, 0);
            expect(used <= budget || own.length === 1).toBe(true);
            at += own.length;
            if (nth < parts.length - 1) cost += Math.max(0, budget - used) + (sections.has(at) ? 0 : budget * 0.1);
          });
          expect(cost).toBeCloseTo(least(lengths, sections, budget), 6);
        },
      ),
      { numRuns: 150 },
    );
  });

  it("follow sections, a count, or deal in turn", () => {
    const list = [
      slide("s1", 9),
      slide("s2", 9, { arrangement: "section" }),
      slide("s3", 9),
      slide("s4", 9, { arrangement: "section" }),
      slide("s5", 9, { parent: "s4" }),
    ];
    expect(bySection(list).map(({ name, slides }) => [name, slides.join(" ")])).toEqual([
      ["Part 1", "s1"],
      ["Slide s2", "s2 s3"],
      ["Slide s4", "s4 s5"],
    ]);
    expect(ids(byCount(numbered(7).slides, 3))).toEqual(["1 2 3", "4 5 6", "7"]);
    expect(ids(roundRobin(list, 2))).toEqual(["1 3", "2 4 5"]);
    expect(roundRobin(list, 9)).toHaveLength(4);
  });

  it("become plans that can be corrected by hand", () => {
    const deck = numbered(7);
    const plan = planOf(deck, byCount(deck.slides.slice(1), 3), { opening: "1" });
    expect(plan).toEqual({
      opening: "1",
      parts: [
        { name: "Part 1", slides: "2-4" },
        { name: "Part 2", slides: "5-7" },
      ],
    });
    expect(resolvePlan(deck, plan, "").parts.map(({ slides }) => slides.length)).toEqual([4, 4]);
  });
});

it("a part begins at each section, whether it has a header slide or a name alone", () => {
  const named = (id: string, section?: string): Slide => ({
    ...newSlide(id, "points"),
    ...(section ? { section } : {}),
  });
  const opener: Slide = {
    ...newSlide("o", "section"),
    elements: [{ kind: "text", id: "t", slot: "title", text: plainText("Storms") }],
  };
  expect(
    bySection([named("a", "Tides"), named("b"), named("c", "Dunes"), named("d"), opener, named("e")]).map(
      ({ name, slides }) => [name, slides.join(" ")],
    ),
  ).toEqual([
    ["Tides", "a b"],
    ["Dunes", "c d"],
    ["Storms", "o e"],
  ]);
});

it("parts have the names of what they hold, in the deck's language", () => {
  const named = (id: string, section?: string): Slide => ({
    ...newSlide(id, "points"),
    ...(section ? { section } : {}),
  });
  const list = [
    named("a", "Day 1"),
    named("b", "Day 2"),
    named("c", "Day 3"),
    named("d"),
    named("e"),
    named("f", "Day 4"),
    named("g", "Day 5"),
    named("h", "Home"),
  ];
  const names = (count: number, language = "en") => byCount(list, count, language).map(({ name }) => name);
  expect(names(1)).toEqual(["Day 1", "Day 2", "Day 3 (1)", "Day 3 (2)", "Day 3 (3)", "Day 4", "Day 5", "Home"]);
  expect(names(2)).toEqual(["Day 1 and Day 2", "Day 3", "Day 3 and Day 4", "Day 5 and Home"]);
  expect(names(4, "de")).toEqual(["Day 1 – Day 3", "Day 3 – Home"]);
  expect(names(2, "de")[0]).toBe("Day 1 und Day 2");
});

describe("names that follow a scheme", () => {
  it.each([
    ["TB2-*-*", "TB2-07-Marsh", ["07", "Marsh"]],
    ["tb2-*-*", "TB2-07-Marsh-Smith", ["07", "Marsh-Smith"]],
    ["*", "anything", ["anything"]],
    ["TB2-??", "TB2-07", []],
    ["(a) *.x", "(a) b.x", ["b"]],
  ])("%s on %s gives its parts", (pattern, name, parts) => expect(matchName(pattern, name)).toEqual(parts));

  it("and nothing where they do not", () => {
    expect(matchName("TB2-*-*", "TB3-07-Marsh")).toBeUndefined();
    expect(matchName("TB2-??", "TB2-7")).toBeUndefined();
  });
});
