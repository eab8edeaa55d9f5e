import { createHash } from "node:crypto";
import { existsSync, readFileSync } from "node:fs";
import { basename, join } from "node:path";
import { checkBindings, openWorkbook, typedNumbers } from "@unitext/core/data";
import { readDeck } from "@unitext/core/formats";
import { layoutSlide } from "@unitext/core/layout";
import { hasNotes, metadataOf, nameOf, PAGES, THEMES } from "@unitext/core/model";
import { tally } from "@unitext/core/tally";
import { idSource } from "@unitext/core/testing";
import { shippedFonts } from "@unitext/core/testing/fonts";

import { scriptsDeck } from "./scripts";

const folder = join(import.meta.dirname, "content");
const read = (name: string) =>
  readDeck(readFileSync(join(folder, name)), name, {
    newId: idSource(),
    sha256: (bytes) => createHash("sha256").update(bytes).digest("hex"),
    picture: (source) => (existsSync(join(folder, source)) ? readFileSync(join(folder, source)) : undefined),
  });

describe("the deck in eleven languages", () => {
  it("draws every letter in a shipped face, and fits", () => {
    const deck = scriptsDeck();
    const fonts = shippedFonts();
    for (const [nth, slide] of deck.slides.entries()) {
      const scene = layoutSlide(slide, { metadata: metadataOf(deck), number: nth + 1, fonts });
      expect([nameOf(slide), scene.overflow]).toEqual([nameOf(slide), 0]);
      const lines = scene.nodes.flatMap((node) => (node.kind === "text" ? node.lines : []));
      const words = lines.flatMap(({ runs }) => runs.flatMap((item) => item.words ?? []));
      for (const { word } of words) expect([...word.glyphs]).not.toContain(0);
    }
  });
});

describe.each(["tides-dunes-storms.md", "quarterly-monitoring.md"])("the demo text %s", (name) => {
  const { deck, adapted, left } = read(name);

  it("is read without a remark, with every picture and every link whole", () => {
    expect([adapted, left]).toEqual([[], []]);
    expect(tally(deck).links.broken).toBe(0);
  });

  it("fits its slides in every theme and on every page", () => {
    const fonts = shippedFonts();
    for (const theme of Object.values(THEMES)) {
      for (const page of Object.values(PAGES)) {
        const over = deck.slides
          .filter(
            (slide, nth) =>
              layoutSlide(slide, { metadata: { ...metadataOf(deck), theme, page }, number: nth + 1, fonts }).overflow >
              0,
          )
          .map(nameOf);
        expect([theme.name, page.width, over]).toEqual([theme.name, page.width, []]);
      }
    }
  });

  it("has notes on every slide that is shown", () => {
    expect(deck.slides.filter((slide) => !slide.hidden && !hasNotes(slide)).map(nameOf)).toEqual([]);
  });
});

it("the course has about twenty slides, details under their slides, and links between them", () => {
  const { deck } = read("tides-dunes-storms.md");
  const counts = tally(deck);
  expect(counts.slides).toBeGreaterThanOrEqual(18);
  expect(deck.slides.filter(({ parent }) => parent !== null).length).toBeGreaterThanOrEqual(3);
  expect(counts.links.internal).toBeGreaterThanOrEqual(4);
  expect(counts.pictures).toBe(2);
});

describe("the documents of the demo", () => {
  const fonts = shippedFonts();
  const made = (name: string) =>
    readDeck(readFileSync(join(folder, name)), name, {
      newId: idSource(),
      sha256: (bytes) => createHash("sha256").update(bytes).digest("hex"),
      fonts,
      document: "doc",
    });

  it("the field handbook becomes a deck that could be shown: nothing stands out, tables, picture, formula and footnote are there, prose is in the notes", () => {
    const { deck, left, adapted } = made("field-handbook.docx");
    expect([left, adapted]).toEqual([[], []]);
    expect(
      deck.slides
        .filter((slide, nth) => layoutSlide(slide, { metadata: metadataOf(deck), number: nth + 1, fonts }).overflow > 0)
        .map(nameOf),
    ).toEqual([]);
    const counts = tally(deck);
    expect(counts).toMatchObject({ pictures: 1, footnotes: 1, formulas: 1, sections: 6 });
    expect(counts.tables).toBeGreaterThanOrEqual(13);
    expect(counts.notes.words).toBeGreaterThan(3000);
    expect(counts.words).toBeLessThan(counts.notes.words);
  });

  it("the class list becomes one card a name", () => {
    const { deck } = made("class-list.txt");
    const names = readFileSync(join(folder, "class-list.txt"), "utf8").trim().split("\n");
    expect(deck.slides.map(nameOf)).toEqual(names);
    expect(new Set(deck.slides.map(({ arrangement }) => arrangement))).toEqual(new Set(["card"]));
  });
});

describe("the workbooks of the demo", () => {
  const bytes = (name: string) => readFileSync(join(folder, name));
  const source = (path: string) => ({ workbook: openWorkbook(bytes(path), basename(path)), version: path });
  const { deck } = read("quarterly-monitoring.md");
  const check = (gauges: string) =>
    checkBindings(deck, {
      source: (name) => source(name === "visitors.ods" ? name : gauges),
      language: deck.language,
    });

  it("hold the values that the report shows in sentences, notes, a key figure, a table and charts", () => {
    const checks = check("station-gauges.xlsx");
    expect(checks.map(({ state }) => state)).toEqual(checks.map(() => "current"));
    expect(checks.filter(({ from }) => !from.includes("\n")).map(({ from }) => from)).toEqual([
      "2.41",
      "2.38",
      "2.36",
      "2.19",
      "11 %",
      "2,210",
      "310",
    ]);
    expect(checks.flatMap(({ binding: { use, source: name } }) => (use ? [[use, name]] : []))).toEqual([
      ["chart", "station-gauges.xlsx"],
      ["table", "station-gauges.xlsx"],
      ["chart", "visitors.ods"],
    ]);
  });

  it("have another quarter with other values", () => {
    const stale = check("next-quarter/station-gauges.xlsx").filter(({ state }) => state === "stale");
    expect(stale.filter(({ to }) => !to.includes("\n")).map(({ to }) => to)).toEqual([
      "2.33",
      "2.29",
      "2.31",
      "2.15",
      "12 %",
    ]);
    expect(stale).toHaveLength(7);
  });

  it("repeat no number of the report that was typed", () => {
    expect(typedNumbers(deck, source("station-gauges.xlsx").workbook)).toEqual([]);
  });
});
