import { loadFormulas } from "@unitext/core/figures";
import { type Deck, type Element, emptyDeck, newSlide, run, type Slide, must } from "@unitext/core/model";
import { filesBench } from "@unitext/core/testing/files";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { WRITERS } from "../../index";

beforeAll(loadFormulas);
const bench = filesBench();
const { context } = bench;
const write = (deck: Deck) => WRITERS.pptx.write(deck, context) as Uint8Array;
const slideOf = (bytes: Uint8Array) => strFromU8(must(unzipSync(bytes)["ppt/slides/slide1.xml"]));
function read(bytes: Uint8Array): Slide {
  return must(whole(bytes).slides[0]);
}
function whole(bytes: Uint8Array): Deck {
  const found = bench.read(bytes, "deck.pptx");
  return found.deck;
}
function changed(bytes: Uint8Array, { foreign = true, slide = (text: string) => text } = {}): Uint8Array {
  return zipSync(
    Object.fromEntries(
      Object.entries(unzipSync(bytes)).map(([path, part]) => [
        path,
        foreign && /tags\//.test(path)
          ? strToU8(strFromU8(part).replace(/UNITEXT_/g, "OTHER_"))
          : path === "ppt/slides/slide1.xml"
            ? strToU8(slide(strFromU8(part)))
            : part,
      ]),
    ),
  );
}

const TEX = "\\frac{a}{b}=\\sum_{i=1}^{n}x_{i}";
const elements: Element[] = [
  {
    kind: "formula",
    id: "f",
    slot: null,
    name: "Balance",
    frame: { x: 100, y: 80, width: 400, height: 120 },
    tex: TEX,
  },
  {
    kind: "text",
    id: "t",
    slot: null,
    name: "Words",
    frame: { x: 100, y: 260, width: 400, height: 120 },
    text: [
      { kind: "plain", level: 0, runs: [run("where "), run("x_i", ["formula"]), run(" is "), run("read", ["strong"])] },
    ],
  },
];
const deck: Deck = { ...emptyDeck("tides", "Tides"), slides: [{ ...newSlide("one", "blank"), elements }] };
/** What other programs put in the place of a formula for those that cannot set it: its picture. */
const withPicture = (text: string) =>
  text.replace(/<mc:Fallback>[\s\S]*?<\/mc:Fallback>/g, (fallback) =>
    fallback
      .replace(/<p:spPr>/, '<p:spPr><a:blipFill xmlns:a="http://schemas.openxmlformats.org/drawingml/2006/main"/>')
      .replace(/<a:t>[^<]*<\/a:t>/g, "<a:t> </a:t>"),
  );

describe("formulas in a .pptx", () => {
  // ECMA-376-3, 9 and 10: alternate content names the namespaces that a choice requires; ECMA-376-1, 22.1.2.77 and 78.
  it("are set for programs that can, and shown as their TeX to the others", () => {
    const text = slideOf(write(deck));
    const parts = [
      ...text.matchAll(
        /<mc:AlternateContent [^>]*>(?:<mc:Choice xmlns:a14="[^"]*" Requires="a14">)([\s\S]*?)<\/mc:Choice><mc:Fallback>([\s\S]*?)<\/mc:Fallback><\/mc:AlternateContent>/g,
      ),
    ].map(([, choice = "", fallback = ""]) => [choice, fallback] as const);
    expect(parts).toHaveLength(2);
    expect(parts[0]?.[0]).toMatch(/<a14:m><m:oMathPara [^>]*><m:oMath [^>]*>.*<m:f>.*<m:nary>/);
    expect(parts[0]?.[1]).toContain("<a:t>\\frac{a}{b}=");
    expect(parts[1]?.[0]).toMatch(/<a:t>where <\/a:t><\/a:r><a14:m><m:oMath [^>]*>.*<\/a14:m><a:r>/);
    for (const [choice, fallback] of parts)
      expect(/<p:cNvPr id="(\d+)"/.exec(choice)?.[1]).toBe(/<p:cNvPr id="(\d+)"/.exec(fallback)?.[1]);
    expect(text).not.toMatch(/[\uE000-\uF8FF]/);
  });

  it("come back as they were, also when another program has put pictures beside them", () => {
    expect(read(write(deck)).elements).toEqual(elements);
    const beside = read(changed(write(deck), { foreign: false, slide: withPicture })).elements;
    expect(beside.map((element) => (element.kind === "formula" ? element.tex : element.kind)).at(0)).toMatch(
      /^\\frac\{a\}\{b\}=/,
    );
  });

  it("of another program are formulas, stay as they are, and are rewritten where they were moved or changed", () => {
    const bytes = changed(write(deck), { slide: withPicture });
    const given = whole(bytes);
    const [formula, words] = must(given.slides[0]).elements as [Element, Element];
    expect(formula).toMatchObject({
      kind: "formula",
      name: "Balance",
      frame: { x: 100, y: 80, width: 400, height: 120 },
    });
    expect(words.kind === "text" && words.text[0]?.runs.map(({ text, marks }) => [text.trim(), marks ?? []])).toEqual([
      ["where", []],
      ["{x}_{i}", ["formula"]],
      ["is", []],
      ["read", ["strong"]],
    ]);
    expect(slideOf(write(given))).toBe(slideOf(bytes));
    const moved = write({
      ...given,
      slides: [
        {
          ...must(given.slides[0]),
          elements: [{ ...formula, frame: { x: 300, y: 80, width: 400, height: 120 } } as Element, words],
        },
      ],
    });
    expect(read(moved).elements[0]).toMatchObject({ kind: "formula", frame: { x: 300 } });
    // The other box keeps the file's own words.
    const own = [...slideOf(bytes).matchAll(/<mc:AlternateContent[\s\S]*?<\/mc:AlternateContent>/g)].map(
      ([found]) => found,
    );
    expect(slideOf(moved)).toContain(own[1]);
    expect(slideOf(moved)).not.toContain(own[0]);
  });
});
