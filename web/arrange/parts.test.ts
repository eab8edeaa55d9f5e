import { type Deck, emptyDeck, newSlide, plainText, run, type Slide } from "@unitext/core/model";
import { idSource } from "@unitext/core/testing";
import { byCount } from "@unitext/core/divide";
import { clip, clippedDeck, unclip } from "../insert/slideclipboard";
import { findSlides } from "./find";
import { columnsOf, foreseen, marked, measured, planFrom, typedNumbers } from "./parts";

const slide = (id: string, options: Partial<Slide> = {}): Slide => ({
  ...newSlide(id, "points"),
  elements: [{ kind: "text", id: "t", slot: "title", text: plainText(`Title ${id}`) }],
  ...options,
});
const deck: Deck = { ...emptyDeck("d", "Course"), slides: ["a", "b", "c", "d", "e"].map((id) => slide(id)) };

describe("the split table", () => {
  it("puts a mark where the slide stands, and at the end of a part with an order of its own", () => {
    expect(marked([2, 5], 3, true)).toEqual([2, 3, 5]);
    expect(marked([2, 5], 9, true)).toEqual([2, 5, 9]);
    expect(marked([5, 2], 3, true)).toEqual([5, 2, 3]);
    expect(marked([2, 3, 2], 2, false)).toEqual([3]);
    expect(marked([2], 2, true)).toEqual([2]);
  });

  it("reads what is typed, or says why it cannot", () => {
    expect(typedNumbers("1-3, 5", 5)).toEqual({ numbers: [1, 2, 3, 5] });
    expect(typedNumbers("7", 5)).toEqual({ problem: expect.stringContaining("the last is 5") });
  });

  it("turns proposals into columns and columns into a plan", () => {
    const columns = columnsOf(deck, byCount(deck.slides.slice(1), 2), idSource("k"));
    expect(columns).toEqual([
      { key: "k1", name: "Part 1", numbers: [2, 3] },
      { key: "k2", name: "Part 2", numbers: [4, 5] },
    ]);
    expect(planFrom(columns, "1", " ", "{part}")).toEqual({
      opening: "1",
      names: "{part}",
      parts: [
        { name: "Part 1", slides: "2-3" },
        { name: "Part 2", slides: "4-5" },
      ],
    });
  });

  it("measures a part with its opening and closing, each once", () => {
    const long = {
      ...deck,
      slides: deck.slides.map((one, nth) => ({ ...one, notes: plainText("word ".repeat(65 * (nth + 1)).trim()) })),
    };
    expect(measured(long, [2, 3, 1], [1])).toEqual({ slides: 3, seconds: 30 + 60 + 90, words: 65 * 6 + 6 });
    expect(measured(long, [], [])).toEqual({ slides: 0, seconds: 0, words: 0 });
  });

  it("foresees what will be put right, and what will be refused", () => {
    expect(foreseen(deck, { parts: [{ name: "", slides: "1" }] })).toEqual({
      remarks: [expect.stringContaining("has no name")],
      problem: undefined,
    });
    expect(foreseen(deck, { parts: [{ name: "A", slides: "" }] }).problem).toContain("nothing to make");
  });
});

describe("looking for slides", () => {
  const slides = [
    slide("a", { notes: plainText("Say it slowly"), hidden: true }),
    slide("b", { notes: [{ kind: "plain", level: 0, runs: [run("see", [], "slide:gone")] }] }),
    slide("c", { theme: "Chalk", elements: [{ kind: "code", id: "k", slot: "code", language: "js", text: "tide()" }] }),
  ];
  const find = (words: string, mark: Parameters<typeof findSlides>[2] = "") =>
    findSlides(slides, words, mark, ({ id }) => id === "b").join();

  it("finds words on the slide, in its notes and in code, all of them at once", () => {
    expect([
      find("SLOWLY"),
      find("title a"),
      find("tide()"),
      find("slowly title"),
      find("slowly tide"),
      find(""),
    ]).toEqual(["a", "a", "c", "a", "", ""]);
  });

  it("finds marks, alone and with words", () => {
    expect([
      find("", "hidden"),
      find("", "no notes"),
      find("", "overflow"),
      find("", "broken"),
      find("", "look"),
      find("title", "look"),
    ]).toEqual(["a", "c", "b", "b", "c", ""]);
  });
});

describe("slides on the clipboard", () => {
  const rich: Deck = {
    ...deck,
    assets: {
      "pictures/a.png": { sha256: "a".repeat(64), mediaType: "image/png", width: 1, height: 1 },
      "pictures/b.png": { sha256: "b".repeat(64), mediaType: "image/png", width: 1, height: 1 },
    },
    slides: [
      slide("a"),
      slide("b", { elements: [{ kind: "picture", id: "p", slot: null, source: "pictures/a.png", alt: "" }] }),
      slide("b1", { parent: "b" }),
      slide("c"),
    ],
  };

  it("come with their details and with the pictures and the look that they need", () => {
    const { data, words } = clip(rich, 7, ["b", "b1"]);
    expect(words.split("\n")).toHaveLength(2);
    const back = unclip(data);
    expect(back?.slides.map(({ id, parent }) => [id, parent])).toEqual([
      ["b", null],
      ["b1", "b"],
    ]);
    expect([Object.keys(back?.assets ?? {}), back?.version, back?.theme.name]).toEqual([
      ["pictures/a.png"],
      7,
      rich.theme.name,
    ]);
    expect(clippedDeck(back as never, emptyDeck("other", "Other"))).toMatchObject({
      id: "d",
      properties: { title: "Course" },
      slides: [{ id: "b" }, { id: "b1" }],
    });
  });

  it("that are none are told apart", () => {
    expect([unclip(""), unclip("{}"), unclip('{"slides":[]}'), unclip("words")]).toEqual([
      undefined,
      undefined,
      undefined,
      undefined,
    ]);
  });
});
