import {
  type Element,
  emptyDeck,
  metadataOf,
  must,
  newSlide,
  type RichText,
  run,
  type Slide,
} from "@unitext/core/model";
import { shippedFonts } from "@unitext/core/testing/fonts";
import { facesNeeded, faceFor, familyNamed, layoutSlide, type Scene, type SlideContext } from "./index";
import { lineBreaks } from "./linebreaking";

const fonts = shippedFonts();
const metadata = metadataOf(emptyDeck("d", "Deck"));
const contextIn = (language: string): SlideContext => ({ metadata: { ...metadata, language }, number: 1, fonts });
const paragraphs = (...texts: string[]): RichText =>
  texts.map((text) => ({ kind: "plain", level: 0, runs: [run(text)] }));
const slideOf = (...elements: Element[]): Slide => ({ ...newSlide("one", "points"), elements });
const body = (...texts: string[]): Element => ({ kind: "text", id: "a", slot: "body", text: paragraphs(...texts) });
const layout = (slide: Slide, language: string) => layoutSlide(slide, contextIn(language));
const linesOf = ({ nodes }: Scene) => nodes.flatMap((node) => (node.kind === "text" ? node.lines : []));

/** Sentences of our own in each script. */
const SCRIPTS: readonly [language: string, family: string, text: string][] = [
  ["zh-Hans", "noto-sans-sc", "沙丘草的根抓住沙子"],
  ["zh-TW", "noto-sans-tc", "沙丘草的根抓住沙子"],
  ["ja", "noto-sans-jp", "砂丘の草の根は砂をつかむ"],
  ["ko", "noto-sans-kr", "모래 언덕의 풀뿌리는 모래를 붙잡는다"],
  ["hi", "noto-sans-devanagari", "घास की जड़ें रेत को पकड़ती हैं"],
  ["bn", "noto-sans-bengali", "ঘাসের শিকড় বালি ধরে রাখে"],
  ["ta", "noto-sans-tamil", "புல்லின் வேர்கள் மணலைப் பிடிக்கின்றன"],
  ["th", "noto-sans-thai", "รากหญ้าจับทรายไว้"],
  ["ar", "noto-sans-arabic", "جذور العشب تمسك الرمل"],
];

describe("text in the scripts of other languages", () => {
  it.each(SCRIPTS)("in %s is drawn in a face of %s, without missing glyphs", (language, family, text) => {
    const slide = slideOf(body(text));
    const runs = linesOf(layout(slide, language)).flatMap((line) => line.runs);
    const letters = runs.filter((item) => /\p{L}/u.test(item.text));
    expect(letters.length).toBeGreaterThan(0);
    for (const { face, words } of letters) {
      expect(face).toMatch(new RegExp(`^${family}-`));
      for (const { word } of words ?? []) expect([...word.glyphs]).not.toContain(0);
    }
    const needed = new Set(facesNeeded([slide], contextIn(language).metadata));
    for (const { face } of runs) expect(needed).toContain(face);
  });

  it("draws all letters of a Vietnamese word in one family, though the wanted one has some of them", () => {
    const scene = layout(slideOf(body("mỗi ngày chậm")), "vi");
    expect(new Set(linesOf(scene).flatMap(({ runs }) => runs.map(({ face }) => face.split("-")[0]))).size).toBe(1);
  });

  it("draws a character that languages share as each of them does", () => {
    const faces = ["zh", "zh-Hant", "ja", "ko"].map(
      (language) => faceFor(familyNamed("Literata"), 0x9aa8, false, false, language).id,
    );
    expect(new Set(faces).size).toBe(4);
    // Regions and scripts as CLDR's likely subtags have them; a tag that is none is no reason to fail.
    const familyIn = (language: string) =>
      faceFor(familyNamed("Literata"), 0x9aa8, false, false, language).id.slice(0, 12);
    expect(["zh-TW", "zh-HK", "yue", "zh-SG", "zh-Hans-HK", "zh-x"].map(familyIn)).toEqual(
      ["tc", "tc", "tc", "sc", "sc", "sc"].map((name) => `noto-sans-${name}`),
    );
  });
});

describe("line breaks as languages tailor them", () => {
  const breaksOf = (text: string, language: string) =>
    lineBreaks(text, language)
      .map(({ at }) => at)
      .filter((at) => at < text.length);

  // UAX #14, classes CL, NS and OP: no line begins with a closing mark or small kana, or ends with an opening mark.
  it("begins no line with a closing mark and ends none with an opening one", () => {
    const text = "これは「砂丘」です。ちょっと（待って）、ウォーター。";
    for (const at of breaksOf(text, "ja")) {
      expect(text[at]).not.toMatch(/[」。、）ょっォー]/);
      expect(text[at - 1]).not.toMatch(/[「（]/);
    }
  });

  it("takes quotation marks in Chinese as opening and closing, and lets small kana begin a line there", () => {
    const text = "要多转“五十分钟”才能";
    expect(breaksOf(text, "zh")).toContain(text.indexOf("“"));
    expect(breaksOf(text, "zh")).toContain(text.indexOf("”") + 1);
    expect(breaksOf(text, "zh")).not.toContain(text.indexOf("“") + 1);
    expect(breaksOf(text, "en")).not.toContain(text.indexOf("“"));
  });

  it("breaks Korean at spaces only", () => {
    const text = "달은 하루 동안";
    expect(breaksOf(text, "ko")).toEqual([3, 6]);
  });

  it("breaks Thai between words and nowhere else", () => {
    // “Cats eat fish”, three words (common practice, no source).
    const text = "แมวกินปลา";
    expect(breaksOf(text, "th")).toEqual(["แมว".length, "แมวกิน".length]);
  });
});

describe("a deck that is read from right to left", () => {
  const table: Element = {
    kind: "table",
    id: "t",
    slot: "body",
    rows: [["المحطة", "4.6 m"].map((text) => ({ text: paragraphs(text) }))],
    header: 0,
    align: ["start", "start"],
  };

  it("has every slot at the other side of the page", () => {
    const texts = (language: string) =>
      layout({ ...newSlide("one", "comparison"), elements: [{ ...body("قبل"), slot: "left" } as Element] }, language);
    const [left] = texts("en").boxes;
    const [right] = texts("ar").boxes;
    expect(must(right).x).toBeCloseTo(960 - must(left).x - must(left).width, 5);
  });

  it("starts lines and bullets at the right, words of another script too", () => {
    const item = { kind: "bullet" as const, level: 0, runs: [run("Storm surge")] };
    const [line] = linesOf(layout(slideOf({ ...body(), text: [item] } as Element), "ar"));
    const words = must(line).runs.filter(({ marker }) => !marker);
    const marker = must(must(line).runs.find((one) => one.marker));
    expect(words.map(({ text }) => text).join("")).toBe("Storm surge");
    expect(marker.x).toBeGreaterThan(must(words.at(-1)).x + must(words.at(-1)).width);
  });

  it("has the first column of a table at the right, and keeps a number and its unit in order", () => {
    const cells = layout(slideOf(table), "ar").nodes.filter((node) => node.kind === "text");
    const [first, second] = cells.map((node) => must((node.kind === "text" && node.lines[0]) || undefined));
    expect(must(first).x).toBeGreaterThan(must(second).x);
    expect(
      must(second)
        .runs.map(({ text }) => text)
        .join(""),
    ).toBe("4.6 m");
    const fixed = layout(slideOf({ ...table, direction: "ltr" } as Element), "ar").nodes;
    const lines = fixed.flatMap((node) => (node.kind === "text" ? node.lines : []));
    expect(must(lines[0]).x).toBeLessThan(must(lines[1]).x);
  });

  it("has the bars of a chart from right to left, and its labels readable", () => {
    const chart: Element = {
      kind: "chart",
      id: "c",
      slot: "body",
      type: "column",
      categories: ["one", "two"],
      series: [{ name: "s", values: [1, 2] }],
    };
    const places = (language: string) => {
      const found = new Map<string, number>();
      for (const line of linesOf(layout(slideOf(chart), language))) found.set(line.text, line.x);
      return found;
    };
    const [ltr, rtl] = [places("en"), places("ar")];
    expect(must(ltr.get("one"))).toBeLessThan(must(ltr.get("two")));
    expect(must(rtl.get("one"))).toBeGreaterThan(must(rtl.get("two")));
  });
});
