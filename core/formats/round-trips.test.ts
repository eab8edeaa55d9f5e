import { createHash } from "node:crypto";
import {
  type Deck,
  emptyDeck,
  newSlide,
  plainText,
  type RichText,
  run,
  type Slide,
  textOf,
  THEMES,
  must,
} from "@unitext/core/model";
import { layoutSlide } from "@unitext/core/layout";
import { normalText } from "@unitext/core/text";
import { tally } from "@unitext/core/tally";
import { deckArbitrary, idSource, linked } from "@unitext/core/testing";
import { shippedFonts } from "@unitext/core/testing/fonts";
import fc from "fast-check";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { PNG } from "pngjs";
import { SaxesParser } from "saxes";
import { readDeck, type WritableFormat, WRITERS, writeReport } from "./index";

const fonts = shippedFonts();
const sha256 = (bytes: Uint8Array) => createHash("sha256").update(bytes).digest("hex");
const at = new Date("2026-03-01T09:00:00Z");
const image = new Uint8Array(PNG.sync.write(new PNG({ width: 40, height: 30 })));
const blobs = new Map([[sha256(image), image]]);
const context = { fonts, at, picture: (sum: string) => blobs.get(sum) };
const reading = () => ({ newId: idSource("r"), sha256 });
const assets = {
  "pictures/dune.png": { sha256: sha256(image), mediaType: "image/png" as const, width: 40, height: 30 },
};

const facts = (slide: Slide) => ({
  ...slide,
  notes: normalText(slide.notes),
  elements: slide.elements.map((element) =>
    element.kind === "text" ? { ...element, text: normalText(element.text) } : element,
  ),
});

/** One slide for each kind of figure that a file has as its words. */
function figures(): Deck {
  const line = (text: string): RichText[number] => ({ kind: "bullet", level: 0, runs: [run(text)] });
  return {
    ...emptyDeck("figures", "Figures"),
    slides: [
      {
        ...newSlide("a", "diagram"),
        elements: [
          {
            kind: "diagram",
            id: "da",
            slot: "diagram",
            type: "steps",
            text: [
              { ...line(" flood"), runs: [{ text: "", footnote: [run("seen twice")] }, run(" flood")] },
              line("ebb"),
            ],
          },
          { kind: "text", id: "ca", slot: "caption", text: plainText("the caption") },
        ],
      },
      {
        ...newSlide("b", "code"),
        elements: [{ kind: "code", id: "cb", slot: "code", language: "ts", text: "level(3)" }],
      },
      { ...newSlide("c", "formula"), elements: [{ kind: "formula", id: "fc", slot: "formula", tex: "x^2" }] },
      {
        ...newSlide("d", "chart"),
        elements: [
          {
            kind: "chart",
            id: "cd",
            slot: "chart",
            type: "column",
            categories: ["Jan"],
            series: [{ name: "Quay", values: [4.5] }],
          },
        ],
      },
    ],
  };
}

/** Formats that hold a deck and are read again. */
const DECKS = ["pptx", "odp", "md", "json"] as const satisfies readonly WritableFormat[];

describe.each(DECKS)("%s", (format) => {
  it("keeps order, ids, nesting, words, marks, links and notes of any deck", async () => {
    await fc.assert(
      fc.asyncProperty(deckArbitrary({ maxLength: 5 }), async (given) => {
        const deck = { ...given, assets };
        const bytes = await WRITERS[format].write(deck, context);
        const read = readDeck(bytes, `deck.${format}`, { ...reading(), picture: () => image });
        const strip = (slide: Slide) =>
          format === "md"
            ? { ...facts(slide), elements: facts(slide).elements.map(({ id: _, ...rest }) => rest) }
            : facts(slide);
        expect(read.deck.slides.map(strip)).toEqual(deck.slides.map(strip));
        expect(tally(read.deck)).toEqual(writeReport(deck, format).to);
        expect(read.deck.theme).toEqual(deck.theme);
      }),
      { numRuns: 40 },
    );
  });

  it("keeps links between slides, bindings where it says so, properties, page and language", async () => {
    const deck = linked();
    const { deck: read } = readDeck(await WRITERS[format].write(deck, context), `deck.${format}`, reading());
    expect(read.properties).toEqual(deck.properties);
    expect([read.page, read.language, read.theme]).toEqual([deck.page, deck.language, deck.theme]);
    expect(tally(read)).toEqual(writeReport(deck, format).to);
    expect(JSON.stringify(read.slides[1]?.elements)).toContain('"link":"slide:three"');
    expect(JSON.stringify(read.slides[1]?.notes)).toBe(JSON.stringify(deck.slides[1]?.notes));
    expect(read.slides[2]).toMatchObject({ id: "three", parent: "two", hidden: true });
  });
});

describe("pptx", () => {
  it("has the parts, content types and relationships that ECMA-376 asks of a presentation", () => {
    const parts = unzipSync(WRITERS.pptx.write(linked(), context) as Uint8Array);
    const names = Object.keys(parts);
    // ECMA-376-1, 13.3: presentation, properties, master with layouts and theme, notes master with a theme of its own.
    for (const part of [
      "[Content_Types].xml",
      "_rels/.rels",
      "docProps/core.xml",
      "docProps/app.xml",
      "ppt/presentation.xml",
      "ppt/slideMasters/slideMaster1.xml",
      "ppt/slideLayouts/slideLayout1.xml",
      "ppt/theme/theme1.xml",
      "ppt/notesMasters/notesMaster1.xml",
      "ppt/theme/theme2.xml",
      "ppt/slides/slide1.xml",
      "ppt/notesSlides/notesSlide2.xml",
    ])
      expect(names).toContain(part);
    expect(names[0]).toBe("[Content_Types].xml");
    const types = strFromU8(must(parts["[Content_Types].xml"]));
    for (const name of names) {
      if (name.endsWith(".xml") && name !== "[Content_Types].xml") expect(types).toContain(`PartName="/${name}"`);
      if (!name.endsWith(".rels")) continue;
      const folder = name.replace(/_rels\/[^/]*$/, "");
      for (const [, target, mode] of strFromU8(must(parts[name])).matchAll(
        /Target="([^"]*)"( TargetMode="External")?/g,
      )) {
        if (!mode) expect(names).toContain(new URL(must(target), `http://x/${folder}`).pathname.slice(1));
      }
    }
    for (const name of names.filter((path) => /\.(xml|rels)$/.test(path)))
      expect(() => new SaxesParser({ xmlns: true }).write(strFromU8(must(parts[name]))).close()).not.toThrow();
  });

  it("puts the children of presentation, slide and master in the schema's order", () => {
    const parts = unzipSync(WRITERS.pptx.write(linked(), context) as Uint8Array);
    const order = (part: string, parent: string) => childNames(strFromU8(must(parts[part])), parent);
    // ECMA-376-1, A.3 (CT_Presentation, CT_Slide, CT_CommonSlideData, CT_SlideMaster).
    expect(order("ppt/presentation.xml", "p:presentation")).toEqual([
      "p:sldMasterIdLst",
      "p:notesMasterIdLst",
      "p:sldIdLst",
      "p:sldSz",
      "p:notesSz",
      "p:custDataLst",
      "p:defaultTextStyle",
    ]);
    expect(order("ppt/slides/slide2.xml", "p:sld")).toEqual(["p:cSld", "p:clrMapOvr"]);
    expect(order("ppt/slides/slide2.xml", "p:cSld")).toEqual(["p:spTree", "p:custDataLst"]);
    expect(order("ppt/slideMasters/slideMaster1.xml", "p:sldMaster")).toEqual([
      "p:cSld",
      "p:clrMap",
      "p:sldLayoutIdLst",
      "p:txStyles",
    ]);
    expect(order("ppt/theme/theme1.xml", "a:themeElements")).toEqual(["a:clrScheme", "a:fontScheme", "a:fmtScheme"]);
    expect(order("ppt/theme/theme1.xml", "a:clrScheme")).toEqual([
      "a:dk1",
      "a:lt1",
      "a:dk2",
      "a:lt2",
      "a:accent1",
      "a:accent2",
      "a:accent3",
      "a:accent4",
      "a:accent5",
      "a:accent6",
      "a:hlink",
      "a:folHlink",
    ]);
  });

  it("reads a file without Unitext's own data by its placeholders, layouts and theme", () => {
    const parts = unzipSync(WRITERS.pptx.write(linked(), context) as Uint8Array);
    for (const name of Object.keys(parts))
      if (name.includes("/tags/"))
        parts[name] = strToU8('<p:tagLst xmlns:p="http://schemas.openxmlformats.org/presentationml/2006/main"/>');
    const { deck } = readDeck(zipSync(parts), "course.pptx", reading());
    expect(deck.slides.map(({ arrangement }) => arrangement)).toEqual(["opening", "points", "points"]);
    expect(
      deck.slides.map((slide) =>
        slide.elements.map((element) => (element.kind === "text" ? [element.slot, textOf(element.text)] : [])),
      ),
    ).toEqual([
      [
        ["title", "Tides"],
        ["subtitle", "Course team"],
      ],
      [
        ["title", "Menu"],
        ["body", "To the gauge or the web"],
      ],
      [
        ["title", "مقياس المدّ"],
        ["body", "Back"],
      ],
    ]);
    expect(deck.slides[1]?.elements[1]).toMatchObject({
      text: [{ kind: "bullet", runs: [{ link: `slide:${deck.slides[2]?.id}` }, {}, { marks: ["strong"] }] }],
    });
    const { field: _, onField: __, ...colours } = THEMES.nightwatch.colours;
    expect(deck.theme.colours).toMatchObject(colours);
    expect(deck.theme.fonts).toMatchObject({ heading: "Figtree", body: "Figtree" });
    expect(deck.properties).toMatchObject({ title: "Tides", author: "Course team" });
  });
});

describe("pptx of another hand", () => {
  const shape = (id: number, name: string, properties: string, text: string) =>
    `<p:sp><p:nvSpPr><p:cNvPr id="${id}" name="${name}"/><p:cNvSpPr/><p:nvPr/></p:nvSpPr><p:spPr><a:xfrm><a:off x="914400" y="914400"/><a:ext cx="1828800" cy="914400"/></a:xfrm>${properties}</p:spPr><p:txBody><a:bodyPr/>${text}</p:txBody></p:sp>`;
  const words = (text: string, properties = "") => `<a:p>${properties}<a:r><a:t>${text}</a:t></a:r></a:p>`;
  const table =
    '<p:graphicFrame><p:nvGraphicFramePr><p:cNvPr id="9" name="Levels"/><p:cNvGraphicFramePr/><p:nvPr/></p:nvGraphicFramePr><a:graphic><a:graphicData uri="http://schemas.openxmlformats.org/drawingml/2006/table"/></a:graphic></p:graphicFrame>';
  const read = (...shapes: string[]) => {
    const parts = unzipSync(
      WRITERS.pptx.write({ ...linked(), slides: linked().slides.slice(0, 1) }, context) as Uint8Array,
    );
    for (const name of Object.keys(parts)) if (name.includes("/tags/")) delete parts[name];
    const head =
      '<p:sld xmlns:a="http://schemas.openxmlformats.org/drawingml/2006/main" xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships" xmlns:p="http://schemas.openxmlformats.org/presentationml/2006/main"><p:cSld><p:spTree>';
    parts["ppt/slides/slide1.xml"] = strToU8(`${head}${shapes.join("")}</p:spTree></p:cSld></p:sld>`);
    return readDeck(zipSync(parts), "other.pptx", reading());
  };

  it("gives text boxes their place and their words, bullets by paragraph, breaks, marks and right-to-left text", () => {
    const { deck } = read(
      shape(
        2,
        "Box",
        '<a:prstGeom prst="rect"/>',
        `${words("One", '<a:pPr lvl="1"><a:buChar char="*"/></a:pPr>') + words("Two", '<a:pPr><a:buAutoNum type="arabicPeriod"/></a:pPr>')}<a:p><a:r><a:rPr b="1"/><a:t>a</a:t></a:r><a:br/><a:r><a:rPr i="1" strike="sngStrike"/><a:t>b</a:t></a:r></a:p>${words("مدّ", '<a:pPr algn="r" rtl="1"/>')}`,
      ),
    );
    expect(deck.slides[0]?.elements).toMatchObject([
      {
        slot: null,
        frame: { x: 72, y: 72, width: 144, height: 72 },
        text: [
          { kind: "bullet", level: 1, runs: [{ text: "One" }] },
          { kind: "number", level: 0, runs: [{ text: "Two" }] },
          {
            kind: "plain",
            runs: [{ text: "a", marks: ["strong"] }, { text: "\n" }, { text: "b", marks: ["emphasis", "strike"] }],
          },
          { kind: "plain", runs: [{ text: "مدّ" }] },
        ],
      },
    ]);
    expect(deck.slides[0]?.elements[0]).toHaveProperty("text.3.align", "start");
  });

  it("takes drawn forms as shapes, filled boxes as text, what it does not know as itself, and says so", () => {
    const { deck, left, adapted } = read(
      shape(2, "Arrow", '<a:prstGeom prst="rightArrow"/><a:solidFill><a:srgbClr val="7A2E57"/></a:solidFill>', ""),
      shape(
        3,
        "Card",
        '<a:prstGeom prst="rect"/><a:solidFill><a:schemeClr val="accent1"/></a:solidFill>',
        words("kept"),
      ),
      shape(4, "Empty", "", ""),
      table,
      shape(5, "Odd", '<a:prstGeom prst="gear7"/><a:solidFill><a:srgbClr val="102030"/></a:solidFill>', ""),
    );
    expect(deck.slides[0]?.elements.map((element) => [element.kind, element.name, element.fill])).toEqual([
      ["shape", "Arrow", { kind: "solid", colour: "#7a2e57" }],
      ["text", "Card", { kind: "solid", colour: THEMES.nightwatch.colours.accent }],
      ["foreign", "Levels", undefined],
      ["shape", "Odd", { kind: "solid", colour: "#102030" }],
    ]);
    expect(left).toEqual([]);
    expect(adapted.filter(({ slide }) => slide !== null).map(({ what }) => what)).toEqual([
      "the embedded object “Levels”",
      "the form “gear7”",
    ]);
  });

  it("reads strict relationship types as the transitional ones", () => {
    const parts = unzipSync(WRITERS.pptx.write(linked(), context) as Uint8Array);
    for (const [name, bytes] of Object.entries(parts))
      if (name.endsWith(".rels"))
        parts[name] = strToU8(
          strFromU8(bytes).replaceAll(
            "http://schemas.openxmlformats.org/officeDocument/2006/relationships/",
            "http://purl.oclc.org/ooxml/officeDocument/relationships/",
          ),
        );
    expect(readDeck(zipSync(parts), "strict.pptx", reading()).deck.slides.map(({ id }) => id)).toEqual([
      "one",
      "two",
      "three",
    ]);
  });

  it("keeps ids and nesting when another program has put the slides in another order", () => {
    const parts = unzipSync(WRITERS.pptx.write(linked(), context) as Uint8Array);
    const presentation = strFromU8(must(parts["ppt/presentation.xml"]));
    const ids = [...presentation.matchAll(/<p:sldId [^>]*\/>/g)].map(([id]) => id);
    parts["ppt/presentation.xml"] = strToU8(presentation.replace(ids.join(""), [...ids].reverse().join("")));
    const { deck } = readDeck(zipSync(parts), "moved.pptx", reading());
    expect(deck.slides.map(({ id, parent }) => [id, parent])).toEqual([
      ["three", null],
      ["two", null],
      ["one", null],
    ]);
    expect(JSON.stringify(deck.slides[1]?.elements)).toContain("slide:three");
  });

  it("reads our own words back after another program has changed them", () => {
    const parts = unzipSync(WRITERS.pptx.write(linked(), context) as Uint8Array);
    parts["ppt/slides/slide2.xml"] = strToU8(
      strFromU8(must(parts["ppt/slides/slide2.xml"])).replace("<a:t>Menu</a:t>", "<a:t>Topics</a:t>"),
    );
    const { deck } = readDeck(zipSync(parts), "edited.pptx", reading());
    expect(deck.slides[1]?.elements[0]).toMatchObject({
      id: "c",
      slot: "title",
      text: [{ runs: [{ text: "Topics" }] }],
    });
    expect(deck.slides[1]?.elements[1]?.binding).toEqual({
      source: "gauges.xlsx",
      range: "Levels!A1:C13",
      mode: "latest",
    });
  });

  it("keeps figures whole, their footnotes counted on, until another program has changed their words", async () => {
    const deck = figures();
    const parts = unzipSync(WRITERS.pptx.write(deck, context) as Uint8Array);
    expect(readDeck(zipSync(parts), "figures.pptx", reading()).deck.slides).toEqual(deck.slides);
    for (const [nth, [was, now]] of [
      ["flood", "surge"],
      ["level(", "height("],
      ["x^2", "x^3"],
      ["4.5", "5.5"],
    ].entries()) {
      const name = nth === 3 ? "ppt/charts/chart1.xml" : `ppt/slides/slide${nth + 1}.xml`;
      const slide = strFromU8(must(parts[name]));
      expect(slide).toContain(was);
      parts[name] = strToU8(slide.replace(must(was), must(now)));
    }
    const { slides } = readDeck(zipSync(parts), "figures.pptx", reading()).deck;
    const words = slides.map(({ elements }) =>
      elements.map((element) =>
        element.kind === "text"
          ? textOf(element.text)
          : element.kind === "chart"
            ? [element.categories, element.series.map(({ values }) => values)]
            : element.kind,
      ),
    );
    expect(words).toEqual([["1 surge\nebb", "the caption"], ["height(3)"], ["x^3"], [[["Jan"], [[5.5]]]]]);
    expect(slides.map(({ elements }) => elements[0]?.id)).toEqual(deck.slides.map(({ elements }) => elements[0]?.id));
    for (const slide of slides)
      expect(
        layoutSlide(slide, { metadata: deck, number: 1, fonts }).boxes.every(({ overflow }) => overflow === 0),
      ).toBe(true);
  });
});

describe("bad input", () => {
  const pptx = WRITERS.pptx.write(linked(), context) as Uint8Array;
  const withPart = (name: string, content: string) => zipSync({ ...unzipSync(pptx), [name]: strToU8(content) });
  const bomb = () =>
    zipSync({ "[Content_Types].xml": strToU8("<x/>"), big: new Uint8Array(60 * 1024 * 1024) }, { level: 6 });
  it.each<[string, string, () => Uint8Array, RegExp]>([
    ["an empty file", "a.pptx", () => new Uint8Array(), /empty/],
    ["not a zip", "a.pptx", () => strToU8("hello"), /not a zip/],
    ["a truncated zip", "a.pptx", () => pptx.slice(0, pptx.length / 2), /damaged/],
    ["a zip bomb", "a.pptx", bomb, /unpack to far more/],
    ["a zip that is no document", "a.pptx", () => zipSync({ "a.txt": strToU8("x") }), /not an Office Open XML/],
    [
      "XML with a DTD",
      "a.pptx",
      () => withPart("ppt/slides/slide1.xml", '<!DOCTYPE x [<!ENTITY a "b">]><p:sld/>'),
      /document type/,
    ],
    ["XML that is not well-formed", "a.pptx", () => withPart("ppt/slides/slide1.xml", "<p:sld>"), /not well-formed/],
    ["a path that climbs out", "a.pptx", () => withPart("../../evil.xml", "<x/>"), /leads out/],
    [
      "a missing slide",
      "a.pptx",
      () =>
        zipSync(
          Object.fromEntries(Object.entries(unzipSync(pptx)).filter(([name]) => name !== "ppt/slides/slide2.xml")),
        ),
      /missing from the file/,
    ],
    [
      "bytes that are no text",
      "a.txt",
      () => new Uint8Array([0x54, 1, 2, 3, 4, 5, 6, 7, 8, 14, 15, 0, 0, 0, 0x64]),
      /no text holds/,
    ],
    ["a line of 5 MB", "a.md", () => strToU8(`# A\n\n${"x".repeat(5_000_000)}`), /a\.md:3|million/],
    ["JSON that is not JSON", "a.json", () => strToU8("{"), /not JSON/],
    ["JSON that is no deck", "a.json", () => strToU8("[1]"), /not a deck/],
    [
      "a deck with a wrong field",
      "a.json",
      () =>
        strToU8(JSON.stringify({ format: "unitext-deck", version: 1, blobs: {}, deck: { ...linked(), rate: "fast" } })),
      /rate/,
    ],
    [
      "a deck with a broken order",
      "a.json",
      () =>
        strToU8(
          JSON.stringify({
            format: "unitext-deck",
            version: 1,
            blobs: {},
            deck: { ...linked(), slides: [...linked().slides].reverse() },
          }),
        ),
      /main slide/,
    ],
    ["a kind that is not read", "a.exe", () => strToU8("x"), /not read/],
  ])("refuses %s with a sentence", (_, name, make, message) => {
    expect(() => readDeck(make(), name, reading())).toThrow(message);
  });
});

function childNames(text: string, parent: string): string[] {
  const names: string[] = [];
  const open: string[] = [];
  const parser = new SaxesParser();
  parser.on("opentag", ({ name }) => {
    if (open.at(-1) === parent) names.push(name);
    open.push(name);
  });
  parser.on("closetag", () => open.pop());
  parser.write(text).close();
  return names;
}

describe("what decks bring along from other decks", () => {
  const deck: Deck = {
    ...emptyDeck("d", "Merged"),
    themes: { Chalk: THEMES.chalk },
    original: { deck: "o", version: 3 },
    slides: [
      {
        ...newSlide("a", "points"),
        elements: [
          { kind: "text", id: "t", slot: "title", text: plainText("One") },
          {
            kind: "text",
            id: "b",
            slot: "body",
            text: [
              {
                kind: "plain",
                level: 0,
                runs: [run("day two", [], "deck:other/x"), run(" and "), run("the web", [], "https://example.org")],
              },
            ],
          },
        ],
      },
      {
        ...newSlide("b", "points"),
        theme: "Chalk",
        origin: { deck: "o", slide: "s", version: 1 },
        elements: [{ kind: "text", id: "t", slot: "title", text: plainText("Two") }],
      },
    ],
  };

  it("is whole in the deck's own format", async () => {
    const read = readDeck(await WRITERS.json.write(deck, context), "deck.json", reading());
    expect(read.deck).toEqual(deck);
  });

  it("is told before it is written where a file cannot hold it, and the file says no more than that", async () => {
    const told = (format: "pptx" | "odp" | "pdf" | "html" | "md") => {
      const { adapted, left, to } = writeReport(deck, format);
      return [
        adapted.map(({ slide, what }) => `${slide} ${what}`),
        left.map(({ slide, what }) => `${slide} ${what}`),
        to.links.external,
      ];
    };
    expect(told("pptx")).toEqual([["1 the link “day two”", "2 the imported theme “Chalk”"], [], 2]);
    expect(told("odp")).toEqual([["1 the link “day two”", "2 the imported theme “Chalk”"], [], 2]);
    expect(told("html")).toEqual([[], ["1 the link “day two”"], 1]);
    expect(told("pdf")).toEqual([[], ["1 the link “day two”"], 1]);
    expect(told("md")).toEqual([[], ["2 the imported theme “Chalk”"], 2]);
    const read = readDeck(await WRITERS.pptx.write(deck, context), "deck.pptx", reading()).deck;
    expect(tally(read).links).toEqual({ external: 2, internal: 0, broken: 0 });
    const said = read.slides[0]?.elements[1];
    expect(said?.kind === "text" && textOf(said.text)).toBe("day two and the web");
    expect(read.slides[1]?.origin).toEqual({ deck: "o", slide: "s", version: 1 });
    const text = strFromU8(await WRITERS.md.write(deck, context));
    expect(tally(readDeck(strToU8(text), "deck.md", reading()).deck).links.external).toBe(2);
  });
});

describe("pages of paper", () => {
  const long = Array.from(
    { length: 90 },
    (_, nth) => `Sentence ${nth} of what is said to this slide and goes on for a while.`,
  ).join(" ");
  const deck: Deck = {
    ...emptyDeck("d", "Tides"),
    assets,
    slides: Array.from({ length: 7 }, (_, nth) => ({
      ...newSlide(`s${nth}`, "points"),
      parent: nth === 4 ? "s3" : null,
      hidden: nth === 6,
      elements: [
        { kind: "text" as const, id: "t", slot: "title", text: plainText(`Title ${nth}`) },
        {
          kind: "text" as const,
          id: "b",
          slot: "body",
          text: [
            { kind: "bullet" as const, level: 0, runs: [run(`to the next of ${nth}`, [], `slide:s${(nth + 1) % 6}`)] },
          ],
        },
        ...(nth === 2 ? [{ kind: "picture" as const, id: "p", slot: null, source: "pictures/dune.png", alt: "" }] : []),
      ],
      notes: plainText(nth === 1 ? long : `Notes of ${nth}`),
    })),
  };
  const open = async (sheets: "slides" | "notes" | "handout-2" | "handout-3" | "handout-6" | "handout-9") => {
    const { getDocument } = await import("pdfjs-dist/legacy/build/pdf.mjs");
    const bytes = await WRITERS.pdf.write(deck, { ...context, sheets });
    const file = await getDocument({ data: bytes.slice(), verbosity: 0 }).promise;
    const pages = await Promise.all(Array.from({ length: file.numPages }, (_, nth) => file.getPage(nth + 1)));
    const words = await Promise.all(
      pages.map(async (page) =>
        (await page.getTextContent()).items
          .map((item) => ("str" in item ? item.str : ""))
          .join(" ")
          .replace(/\s+/g, " "),
      ),
    );
    const links = await Promise.all(pages.map(async (page) => (await page.getAnnotations()).length));
    return { file, pages, words, links };
  };

  it("show each slide above its notes on A4, which go on over as many as they need", async () => {
    const { file, pages, words, links } = await open("notes");
    // ISO 216: A4 is 210 by 297 mm.
    expect(pages.map(({ view }) => view.map((value: number) => Math.round((value / 72) * 25.4)))).toEqual(
      pages.map(() => [0, 0, 210, 297]),
    );
    const numbers = words.map((text) => /Title (\d)/.exec(text)?.[1] ?? "on");
    expect(numbers.filter((number) => number !== "on")).toEqual(["0", "1", "2", "3", "4", "5"]);
    expect(numbers[2]).toBe("on");
    expect(words.join(" ").replace(/ Tides \d+/g, "")).toContain("Sentence 89 of what");
    for (let nth = 0; nth < 90; nth++) expect(words.join(" ")).toContain(`Sentence ${nth} of`);
    expect(words[0]).toContain("Notes of 0");
    expect(words.join(" ")).not.toContain("Notes of 6");
    expect(links[0]).toBe(1);
    const outline = await file.getOutline();
    expect(outline.map(({ title, items }) => [title, items.length])).toEqual([
      ["Title 0", 0],
      ["Title 1", 0],
      ["Title 2", 0],
      ["Title 3", 1],
      ["Title 5", 0],
    ]);
    expect(await file.getDestination("s5")).not.toBeNull();
  });

  it.each([
    ["handout-2", 2],
    ["handout-3", 3],
    ["handout-6", 6],
    ["handout-9", 9],
  ] as const)("show slides as a %s, in order, links and outline whole", async (sheets, count) => {
    const { file, pages, words, links } = await open(sheets);
    expect(pages.length).toBe(Math.ceil(6 / count));
    expect([...words.join(" ").matchAll(/Title (\d)/g)].map(([, number]) => number)).toEqual([
      "0",
      "1",
      "2",
      "3",
      "4",
      "5",
    ]);
    expect(words.join(" ")).not.toContain("Notes of");
    expect(links.reduce((sum, number) => sum + number, 0)).toBe(6);
    for (let nth = 0; nth < 6; nth++) expect(await file.getDestination(`s${nth}`)).not.toBeNull();
  });

  it("are told before they are written: notes are left out but where they are shown", () => {
    const left = (sheets: "slides" | "notes" | "handout-3") =>
      writeReport(deck, "pdf", undefined, sheets).left.filter(({ what }) => what === "its notes").length;
    expect([left("slides"), left("notes"), left("handout-3")]).toEqual([6, 0, 6]);
    expect([
      writeReport(deck, "pdf", undefined, "notes").to.notes.slides,
      writeReport(deck, "pdf").to.notes.slides,
    ]).toEqual([6, 0]);
  });
});
