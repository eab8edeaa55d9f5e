import { layoutSlide, leavesOf } from "@unitext/core/layout";
import {
  counted,
  type Deck,
  type Element,
  emptyDeck,
  metadataOf,
  newSlide,
  NUMBER_SIGN,
  onSlide,
  plainText,
  textOf,
  must,
} from "@unitext/core/model";
import { filesBench, withoutTags } from "@unitext/core/testing/files";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { readDeck, WRITERS } from "./index";

const bench = filesBench();
const { context } = bench;
const FORMATS = ["pptx", "odp"] as const;
type Format = (typeof FORMATS)[number];
const frame = (y: number) => ({ x: 40, y, width: 300, height: 40 });
const text = (id: string, words: string, y: number): Element => ({
  kind: "text",
  id,
  slot: null,
  frame: frame(y),
  text: plainText(words),
  box: { insets: [0, 0, 0, 0] },
});
/** Three slides that count themselves: in a box of their own, where their file puts the number, and in what is drawn behind them. */
const deck: Deck = {
  ...emptyDeck("numbers", "Numbers"),
  masters: { strip: { name: "Strip", elements: [text("m", `Sheet ${NUMBER_SIGN}, front`, 20)] } },
  slides: [1, 2, 3].map((nth) => ({
    ...newSlide(`s${nth}`, "blank"),
    master: "strip",
    regions: [{ region: "number" as const, text: `Slide ${NUMBER_SIGN} of 3`, frame: frame(480) }],
    elements: [text("e", `here is ${NUMBER_SIGN}.`, 200)],
  })),
};
const bytes = (format: Format) => WRITERS[format].write(deck, context) as Uint8Array;
const read = (file: Uint8Array, format: Format) => bench.read(file, `numbers.${format}`);
/** The words on a slide as they are drawn, a line for each text, from top to bottom. */
const drawn = (of: Deck, nth: number): string[] => {
  const scene = layoutSlide(must(of.slides[nth]), {
    metadata: metadataOf(of),
    number: nth + 1,
    fonts: context.fonts,
  });
  return leavesOf(scene.nodes)
    .flatMap((node) => (node.kind === "text" ? node.lines : []))
    .sort((a, b) => a.y - b.y)
    .map(({ runs }) =>
      runs
        .map((run) => run.text)
        .join("")
        .trim(),
    );
};
/** The file with a part of it changed by hand, as another program has written it. */
const changed = (file: Uint8Array, path: RegExp, change: (words: string) => string) =>
  zipSync(
    Object.fromEntries(
      Object.entries(unzipSync(withoutTags(file))).map(([name, part]) => [
        name,
        path.test(name) ? strToU8(change(strFromU8(part))) : part,
      ]),
    ),
  );

it("a text says the number of its slide, as often as it asks for it, and others stay what they are", () => {
  expect(textOf(onSlide(plainText(`${NUMBER_SIGN} and ${NUMBER_SIGN}`), 12))).toBe("12 and 12");
  const still = plainText("none");
  expect(onSlide(still, 12)).toBe(still);
});

describe.each(FORMATS)("the number of a slide in .%s", (format) => {
  it("is counted among its words, in what stands behind and at the foot, for Unitext and for another program", () => {
    for (const file of [bytes(format), withoutTags(bytes(format))]) {
      const found = read(file, format).deck;
      for (const nth of [0, 1, 2])
        expect(drawn(found, nth)).toEqual([`Sheet ${nth + 1}, front`, `here is ${nth + 1}.`, `Slide ${nth + 1} of 3`]);
      // A slide that is moved has the number of its new place.
      expect(drawn({ ...found, slides: [...found.slides].reverse() }, 0)).toEqual([
        "Sheet 1, front",
        "here is 1.",
        "Slide 1 of 3",
      ]);
    }
  });

  // ECMA-376-1, 21.1.2.2.4 (`a:fld`, slidenum) and OpenDocument 1.3, 7.3.3 (`text:page-number`), numbers of sections from memory.
  it("is the field of the standard, with the words around it outside", () => {
    const parts = unzipSync(bytes(format));
    const words = Object.entries(parts)
      .filter(([path]) => /slides\/slide2\.xml$|slideMasters|slideLayouts|content\.xml$|styles\.xml$/.test(path))
      .map(([, part]) => strFromU8(part))
      .join("");
    expect(words).not.toContain(`here is ${NUMBER_SIGN}`);
    const field =
      format === "pptx"
        ? String.raw`<a:fld id="\{[^"]*\}" type="slidenum"><a:rPr[^>]*(?:/>|>.*?</a:rPr>)<a:t>[^<]*</a:t></a:fld>`
        : "<text:page-number>&lt;number&gt;</text:page-number>";
    const run = format === "pptx" ? `(?:</a:t></a:r>|<a:r><a:rPr[^>]*(?:/>|>.*?</a:rPr>)<a:t>)?` : "";
    for (const [before, after] of [
      ["here is ", "."],
      ["Sheet ", ", front"],
      ["Slide ", " of 3"],
    ])
      expect(words).toMatch(new RegExp(`${before}${run}${field}${run}${after}`));
    if (format === "pptx")
      expect(
        strFromU8(must(parts["ppt/slides/slide2.xml"]))
          .match(/type="slidenum">.*?<a:t>(.*?)<\/a:t>/g)
          ?.every((one) => one.endsWith("<a:t>2</a:t>")),
      ).toBe(true);
  });

  it("stays a field when the words around it are changed, and when the slide is rewritten in another file", () => {
    const found = read(withoutTags(bytes(format)), format).deck;
    const slides = found.slides.map((slide) => ({
      ...slide,
      elements: slide.elements.map((element) =>
        element.kind === "text" ? { ...element, text: plainText(`now at ${NUMBER_SIGN}!`) } : element,
      ),
    }));
    for (const target of FORMATS) {
      const again = read(withoutTags(WRITERS[target].write({ ...found, slides }, context) as Uint8Array), target).deck;
      expect(drawn(again, 2)).toEqual(["Sheet 3, front", "now at 3!", "Slide 3 of 3"]);
    }
  });
});

it("the words around the number at the foot of an .odp, and how many pages there are, are read from its master", () => {
  const file = changed(bytes("odp"), /styles\.xml$/, (words) =>
    words.replace(/Slide (<text:page-number>.*?<\/text:page-number>) of 3/, "$1/<text:page-count>99</text:page-count>"),
  );
  expect(drawn(read(file, "odp").deck, 1)).toEqual(["Sheet 2, front", "here is 2.", "2/3"]);
});

it("a place for the number in a .pptx without the field counts all the same", () => {
  const file = changed(bytes("pptx"), /slides\/slide2\.xml$/, (words) =>
    words.replace(/(<p:ph type="sldNum".*?<a:p>).*?<\/a:p>/, "$1<a:r><a:t>7</a:t></a:r></a:p>"),
  );
  expect(drawn(read(file, "pptx").deck, 1).at(-1)).toBe("2");
});

// OpenDocument 1.3, 9.11.3: a date that is declared as the current one has no words in the file.
it("the date of the day is told, and stays in its own file", () => {
  const dated: Deck = {
    ...deck,
    slides: deck.slides.map((slide) => ({
      ...slide,
      regions: [...(slide.regions ?? []), { region: "date" as const, text: "October", frame: frame(440) }],
    })),
  };
  const file = changed(WRITERS.odp.write(dated, context) as Uint8Array, /content\.xml$/, (words) =>
    words.replace(
      /(<presentation:date-time-decl [^>]*)presentation:source="fixed">[^<]*<\/presentation:date-time-decl>/,
      '$1presentation:source="current-date"/>',
    ),
  );
  const { deck: found, adapted } = read(file, "odp");
  expect(drawn(found, 0)).toEqual(["Sheet 1, front", "here is 1.", "Slide 1 of 3"]);
  expect(adapted.filter(({ what }) => what === "the date of the day").map(({ slide }) => slide)).toEqual([1, 2, 3]);
  // A page that names no date shows none, whatever stands on its master.
  const dateless = changed(file, /content\.xml$/, (words) =>
    words.replace(/ presentation:use-date-time-name="[^"]*"/g, ""),
  );
  expect(read(dateless, "odp").adapted.filter(({ what }) => what === "the date of the day")).toEqual([]);
  expect(unzipSync(WRITERS.odp.write(found, context) as Uint8Array)["content.xml"]).toEqual(
    unzipSync(file)["content.xml"],
  );
});

it("a handout and a text say the number too", async () => {
  const handout = strFromU8(must(unzipSync(await WRITERS.docx.write(deck, context))["word/document.xml"]));
  expect(handout).toContain("here is 3.");
  expect(
    counted(must(deck.slides[2]), 3).elements.map((element) => (element.kind === "text" ? textOf(element.text) : "")),
  ).toEqual(["here is 3."]);
  const md = readDeck(WRITERS.md.write(deck, context) as Uint8Array, "numbers.md", {
    newId: () => "n",
    sha256: () => "",
  }).deck;
  expect(drawn(md, 1).join(" ")).toContain("here is 2.");
});

it("the number is one in the place of the date too, as files have it, and in a line at the foot", () => {
  const dated = changed(bytes("pptx"), /slides\/slide2\.xml$/, (words) =>
    words
      .replace('type="sldNum"', 'type="dt"')
      .replace("<a:t>Slide </a:t>", "<a:t></a:t>")
      .replace("<a:t> of 3</a:t>", "<a:t></a:t>"),
  );
  const found = read(dated, "pptx").deck;
  expect(found.slides[1]?.regions).toMatchObject([{ region: "number", text: NUMBER_SIGN }]);
  expect(drawn(found, 1)).toContain("2");
  const footed: Deck = {
    ...deck,
    slides: deck.slides.map((slide) => ({
      ...slide,
      regions: [{ region: "footer" as const, text: `Marram Bay, ${NUMBER_SIGN}`, frame: frame(480) }],
    })),
  };
  expect(drawn(footed, 2)).toContain("Marram Bay, 3");
});
