import { must } from "./must";
import { deckArbitrary } from "@unitext/core/testing";
import fc from "fast-check";
import {
  checked,
  countWords,
  Deck,
  emptyDeck,
  Failure,
  joinRuns,
  LinkTarget,
  linksOf,
  mapLinks,
  orderProblems,
  pageName,
  pageNamed,
  plainText,
  run,
  secondsOf,
  sections,
  type Slide,
  textOf,
  THEMES,
  themeKey,
  titleOf,
  deckLink,
  slideLink,
} from "./index";

const slide = (id: string, parent: string | null = null): Slide => ({
  id,
  parent,
  arrangement: "points",
  elements: [],
  notes: [],
  hidden: false,
});

describe("the order of slides", () => {
  it.each<[string, Slide[], number]>([
    ["a line", [slide("a"), slide("b")], 0],
    ["details after their slide", [slide("a"), slide("b", "a"), slide("c", "b"), slide("d", "a"), slide("e")], 0],
    ["an id used twice", [slide("a"), slide("a")], 1],
    ["a detail before its slide", [slide("b", "a"), slide("a")], 1],
    ["a detail apart from its slide", [slide("a"), slide("b"), slide("c", "a")], 1],
    ["a slide under itself", [slide("a", "a")], 1],
  ])("%s", (_, slides, problems) => {
    expect(orderProblems(slides)).toHaveLength(problems);
  });

  it("is checked wherever a deck comes in", () => {
    expect(() => checked(Deck, { ...emptyDeck("d", "D"), slides: [slide("b", "a")] }, "The deck")).toThrow(
      /The deck at slides\.0: slide b does not follow its main slide a/,
    );
    expect(() => checked(Deck, { ...emptyDeck("d", "D"), language: "not a language" }, "The deck")).toThrow(Failure);
  });

  it("passes through JSON unchanged", () => {
    fc.assert(
      fc.property(deckArbitrary(), (deck) =>
        expect(checked(Deck, JSON.parse(JSON.stringify(deck)), "The deck")).toEqual(deck),
      ),
      { numRuns: 60 },
    );
  });
});

describe("rich text", () => {
  it("joins runs of one style and orders their marks", () => {
    expect(
      joinRuns([run("a"), run(""), run("b"), run("c", ["emphasis", "strong"]), run("d", ["strong", "emphasis"])]),
    ).toEqual([{ text: "ab" }, { text: "cd", marks: ["strong", "emphasis"] }]);
  });

  it("lists links with all their words, and sends them elsewhere or takes them off", () => {
    const text = [
      {
        kind: "plain" as const,
        level: 0,
        runs: [
          run("see "),
          run("the ", [], "slide:a"),
          run("gauge", ["strong"], "slide:a"),
          run(" and "),
          run("web", [], "https://example.org/"),
        ],
      },
    ];
    expect(linksOf(text)).toEqual([
      { text: "the gauge", to: "slide:a" },
      { text: "web", to: "https://example.org/" },
    ]);
    const moved = mapLinks(text, (to) => (to === "slide:a" ? "slide:b" : undefined));
    expect(linksOf(moved)).toEqual([{ text: "the gauge", to: "slide:b" }]);
    expect(textOf(moved)).toBe(textOf(text));
  });

  it.each([
    ["", 0],
    ["High water at 12:50", 4],
    ["the station's north-west gauge, 2.4 m", 6],
    ["— … !", 0],
    ["παλίρροια και ρεύμα", 3],
    ["潮汐与海岸", 3],
  ])("counts the words of %j as %i", (text, count) => {
    expect(countWords(text)).toBe(count);
  });

  it("lets links lead to the web, to mail, to slides here and in other decks, and nowhere else", () => {
    for (const good of ["https://example.org/a?b#c", "mailto:a@b.org", "slide:menu", "deck:a-1/b_2"])
      expect(LinkTarget.safeParse(good).success).toBe(true);
    for (const bad of [
      "javascript:alert(1)",
      "data:text/html,x",
      "file:///etc/passwd",
      "a b",
      "//example.org",
      "",
      "deck:a",
      "deck:a/b/c",
      "deck:a b/c",
    ])
      expect(LinkTarget.safeParse(bad).success).toBe(false);
  });
});

describe("links to slides", () => {
  it("are told from links to other decks and to the web", () => {
    expect([slideLink("slide:a"), slideLink("deck:d/a"), slideLink("https://example.org")]).toEqual([
      "a",
      undefined,
      undefined,
    ]);
    expect([deckLink("deck:d/a"), deckLink("slide:a"), deckLink("deck:d")]).toEqual([
      { deck: "d", slide: "a" },
      undefined,
      undefined,
    ]);
  });
});

describe("time and sections", () => {
  it("takes notes at the speaking rate, words on the slide where there are none, never under ten seconds, and nothing for hidden slides", () => {
    const noted = { ...slide("a"), notes: plainText(Array(130).fill("word").join(" ")) };
    expect(secondsOf(noted, 130)).toBe(60);
    expect(secondsOf(noted, 65)).toBe(120);
    expect(
      secondsOf(
        {
          ...slide("b"),
          elements: [{ kind: "text", id: "t", slot: "body", text: plainText(Array(65).fill("word").join(" ")) }],
        },
        130,
      ),
    ).toBe(30);
    expect(secondsOf(slide("c"), 130)).toBe(10);
    expect(secondsOf({ ...noted, hidden: true }, 130)).toBe(0);
  });

  it("begins a section at each section opener of the main line", () => {
    const opener = (id: string, title: string): Slide => ({
      ...slide(id),
      arrangement: "section",
      elements: [{ kind: "text", id: `${id}t`, slot: "title", text: plainText(title) }],
    });
    const list = [slide("a"), opener("s", "Tides"), slide("b"), slide("c", "b"), opener("t", "Dunes"), slide("d")];
    expect([...sections(list)]).toEqual([
      ["s", "Tides"],
      ["b", "Tides"],
      ["c", "Tides"],
      ["t", "Dunes"],
      ["d", "Dunes"],
    ]);
    expect(titleOf(must(list[1]))).toBe("Tides");
  });
});

describe("pages and themes", () => {
  it("names pages and reads their names", () => {
    // Common practice, no source: 16:9, 16:10 and 4:3 on a height that makes 72 points an inch.
    expect(["16:9", "16:10", "4:3"].map((name) => pageNamed(name))).toEqual([
      { width: 960, height: 540 },
      { width: 960, height: 600 },
      { width: 720, height: 540 },
    ]);
    expect(pageName({ width: 800, height: 400 })).toBe("800x400");
    expect(pageNamed("800x400")).toEqual({ width: 800, height: 400 });
    expect(pageNamed("9x9")).toBeUndefined();
  });

  it("knows its own themes again after they went through a database that orders keys its own way", () => {
    for (const [key, theme] of Object.entries(THEMES))
      expect(
        themeKey(
          JSON.parse(
            JSON.stringify(
              theme,
              Object.keys(theme)
                .sort()
                .concat(Object.keys(theme.colours), Object.keys(theme.fonts), Object.keys(theme.scale)),
            ),
          ),
        ),
      ).toBe(key);
  });

  /** Relative luminance and contrast ratio as WCAG 2.2 defines them. */
  const luminance = (colour: string) => {
    const [r = 0, g = 0, b = 0] = [1, 3, 5]
      .map((at) => Number.parseInt(colour.slice(at, at + 2), 16) / 255)
      .map((value) => (value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4));
    return 0.2126 * r + 0.7152 * g + 0.0722 * b;
  };
  const contrast = (a: string, b: string) =>
    (Math.max(luminance(a), luminance(b)) + 0.05) / (Math.min(luminance(a), luminance(b)) + 0.05);

  it.each(Object.entries(THEMES))(
    "%s is readable: every text colour has a contrast of 4.5 on its paper (WCAG 2.2, 1.4.3)",
    (_, { colours }) => {
      for (const role of ["ink", "accent", "second", "muted", "link"] as const)
        expect(contrast(colours[role], colours.paper)).toBeGreaterThanOrEqual(4.5);
    },
  );
});
