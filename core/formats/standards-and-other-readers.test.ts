import { createHash } from "node:crypto";
import { createRequire } from "node:module";
import { type Deck, emptyDeck, footnote, newSlide, plainText, run, textOf, must, Failure } from "@unitext/core/model";

import { everything, FILES, idSource } from "@unitext/core/testing";
import { shippedFonts } from "@unitext/core/testing/fonts";
import fc from "fast-check";
import { strFromU8, unzipSync, zipSync } from "fflate";
import { Resvg } from "@resvg/resvg-js";
import { PNG } from "pngjs";
import { readXml } from "./shared/xml";
import { readDeck, WRITERS, writeReport } from "./index";

const sha256 = (bytes: Uint8Array) => createHash("sha256").update(bytes).digest("hex");
const photo = new Uint8Array(PNG.sync.write(new PNG({ width: 40, height: 30 })));
const png = (svg: string, width: number) =>
  new Uint8Array(new Resvg(svg, { fitTo: { mode: "width", value: width } }).render().asPng());
const context = { fonts: shippedFonts(), at: new Date("2026-03-01T09:00:00Z"), picture: () => photo, png };
const deck: Deck = {
  ...emptyDeck("d", "Gauges"),
  language: "en-GB",
  properties: { title: "Gauges", author: "Station", event: "", date: "" },
  slides: [
    {
      ...newSlide("one", "points"),
      elements: [
        { kind: "text", id: "t", slot: "title", text: plainText("First & foremost") },
        {
          kind: "text",
          id: "b",
          slot: "body",
          text: [
            {
              kind: "bullet",
              level: 0,
              runs: [
                run("see "),
                run("the page", ["strong"], "https://example.org/a?b=1&c=2"),
                footnote([run("Read at noon.")]),
              ],
            },
            { kind: "number", level: 1, runs: [run("deeper")] },
          ],
        },
      ],
      notes: plainText("Speak slowly.\nWait."),
    },
    {
      ...newSlide("two", "table"),
      parent: "one",
      elements: [
        { kind: "text", id: "t", slot: "title", text: plainText("Levels") },
        {
          kind: "table",
          id: "x",
          slot: "table",
          header: 1,
          align: ["start", "end"],
          rows: [
            [{ text: plainText("Gauge") }, { text: plainText("m") }],
            [{ text: plainText("both"), columns: 2 }, null],
          ],
        },
      ],
    },
    {
      ...newSlide("three", "title"),
      hidden: true,
      elements: [{ kind: "text", id: "t", slot: "title", text: plainText("Kept back") }],
    },
  ],
};

describe("the handout", () => {
  const bytes = WRITERS.docx.write(deck, context) as Uint8Array;
  const parts = unzipSync(bytes);

  it("has every part that it names, and names every part (ECMA-376-2, 9)", () => {
    const types = readXml(strFromU8(must(parts["[Content_Types].xml"])), "types").children;
    const covered = (path: string) =>
      types.some(({ attributes }) => attributes.PartName === `/${path}` || path.endsWith(`.${attributes.Extension}`));
    for (const path of Object.keys(parts))
      if (path !== "[Content_Types].xml") expect([path, covered(path)]).toEqual([path, true]);
    for (const [path, base] of [
      ["_rels/.rels", ""],
      ["word/_rels/document.xml.rels", "word/"],
    ] as const)
      for (const { attributes } of readXml(strFromU8(must(parts[path])), path).children)
        if (attributes.TargetMode !== "External") expect(Object.keys(parts)).toContain(base + attributes.Target);
    const text = strFromU8(must(parts["word/document.xml"]));
    const ids = [...text.matchAll(/r:(?:embed|id)="([^"]+)"/g)].map(([, id]) => id);
    const named = readXml(strFromU8(must(parts["word/_rels/document.xml.rels"])), "rels").children.map(
      ({ attributes }) => attributes.Id,
    );
    for (const id of ids) expect(named).toContain(id);
  });

  it("shows each slide that an audience sees as a picture with its words and notes", () => {
    expect(Object.keys(parts).filter((path) => /media\/.*\.png$/.test(path))).toHaveLength(2);
    const read = readDeck(bytes, "handout.docx", {
      newId: idSource(),
      sha256,
      rule: { kind: "heading", levels: [1, 2, 3] },
    } as never);
    const words = JSON.stringify(read.deck.slides);
    for (const said of [
      "First & foremost",
      "the page",
      "deeper",
      "Speak slowly.",
      "Levels",
      "Gauge",
      "both",
      "Read at noon.",
      "https://example.org/a?b=1&c=2",
    ])
      expect(words).toContain(said);
    expect(words).not.toContain("Kept back");
  });

  it("is what the report says before it is written", () => {
    const { to, left } = writeReport(deck, "docx");
    expect(to).toMatchObject({ slides: 2, notes: { slides: 1, words: 3 }, tables: 1, links: { external: 1 } });
    expect(left).toEqual([{ slide: 3, what: "a hidden slide", why: expect.any(String) }]);
  });
});

describe("pictures of slides", () => {
  it("are PNG of 1,920 pixels and SVG, numbered, without hidden slides", async () => {
    const drawn = unzipSync(await WRITERS.png.write(deck, context));
    const names = Object.keys(drawn);
    expect(names).toHaveLength(2);
    for (const bytes of Object.values(drawn))
      expect(PNG.sync.read(Buffer.from(bytes))).toMatchObject({ width: 1920, height: 1080 });
    const lines = unzipSync(await WRITERS.svg.write(deck, context));
    expect(Object.keys(lines).map((name) => name.replace(/\.svg$/, ""))).toEqual(
      names.map((name) => name.replace(/\.png$/, "")),
    );
    for (const [name, bytes] of Object.entries(lines)) expect(readXml(strFromU8(bytes), name).name).toBe("svg");
  });
});

describe("notes as text", () => {
  it("say each slide by its number and name, then what is said to it", () => {
    const text = strFromU8(WRITERS.txt.write(deck, context) as Uint8Array);
    expect(text).toContain("First & foremost");
    expect(text).toContain("Speak slowly.\nWait.");
    expect(text.indexOf("First & foremost")).toBeLessThan(text.indexOf("Speak slowly."));
  });
});

// ECMA-376-1, 19.5: a timing's nodes have ids that are unique on their slide, and name shapes that are there.
it("points that appear one at a time are written as entrances at a press", () => {
  const { slides } = everything({});
  const nth = slides.findIndex(({ id }) => id === "words");
  const text = strFromU8(
    must(unzipSync(WRITERS.pptx.write({ ...everything({}) }, context) as Uint8Array)[`ppt/slides/slide${nth + 1}.xml`]),
  );
  const ids = [...text.matchAll(/<p:cTn id="(\d+)"/g)].map(([, id]) => Number(id));
  expect(new Set(ids).size).toBe(ids.length);
  expect(ids).toEqual([...ids].sort((a, b) => a - b));
  expect([...text.matchAll(/nodeType="clickEffect"/g)]).toHaveLength(3);
  const shapes = new Set([...text.matchAll(/<p:cNvPr id="(\d+)"/g)].map(([, id]) => id));
  for (const [, shape] of text.matchAll(/spid="(\d+)"/g)) expect(shapes.has(must(shape))).toBe(true);
  expect([...text.matchAll(/<p:pRg st="(\d)" end="(\d)"\/>/g)].map(([, from, to]) => [from, to])).toEqual([
    ["0", "0"],
    ["1", "1"],
    ["2", "2"],
  ]);
  expect(text.indexOf("<p:timing>")).toBeGreaterThan(text.indexOf("</p:clrMapOvr>"));
});

// Two thousand damaged files, half of them of each standard. Parts that are not packed let every flip reach the XML.
describe.each(["pptx", "odp"] as const)("a .%s with flipped bytes", (format) => {
  const assets = { [FILES.photo]: { sha256: "0".repeat(64), mediaType: "image/png" as const, width: 40, height: 30 } };
  const good = zipSync(unzipSync(WRITERS[format].write(everything(assets), context) as Uint8Array), { level: 0 });
  it("gives a deck or a sentence, never anything else", () => {
    let read = 0;
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat(good.length - 1), fc.nat(255)), { minLength: 1, maxLength: 6 }), (flips) => {
        const bytes = good.slice();
        for (const [place, value] of flips) bytes[place] = value;
        try {
          const found = readDeck(bytes, `x.${format}`, { newId: idSource(), sha256 });
          expect(found.deck.slides.length).toBeGreaterThan(0);
          for (const slide of found.deck.slides)
            for (const element of slide.elements)
              if (element.kind === "text") expect(typeof textOf(element.text)).toBe("string");
          read++;
        } catch (error) {
          expect(error).toBeInstanceOf(Failure);
        }
      }),
      { numRuns: 1000 },
    );
    expect(read).toBeGreaterThan(0);
  }, 120_000);
});

describe("files as the standards and other readers see them", () => {
  const assets = {
    [FILES.photo]: { sha256: sha256(photo), mediaType: "image/png" as const, width: 40, height: 30 },
    [FILES.moving]: { sha256: sha256(photo), mediaType: "image/png" as const, width: 40, height: 30 },
  };
  const whole = everything(assets);
  const pptx = unzipSync(WRITERS.pptx.write(whole, context) as Uint8Array);

  /** The children of every element of a name, in order. */
  function childrenOf(text: string, parent: string): string[][] {
    const found: string[][] = [];
    const walk = ({ name, children }: ReturnType<typeof readXml>) => {
      if (name === parent) found.push(children.map((one) => one.name.replace(/^\w+:/, "")));
      for (const one of children) walk(one);
    };
    walk(readXml(text, "part"));
    return found;
  }
  const FILLS = ["noFill", "solidFill", "gradFill", "blipFill", "pattFill", "grpFill"];
  // The sequences of ECMA-376-1: 20.1.2.2.35 CT_ShapeProperties, 20.1.2.2.24 CT_LineProperties, 21.1.2.3.9 CT_TextCharacterProperties,
  // 21.1.2.2.7 CT_TextParagraphProperties, 21.1.3.13 CT_Table, 21.1.3.17 CT_TableCellProperties, 21.2.2.145 CT_PlotArea, 21.2.2.27 CT_Chart, 19.3.1.38 CT_Slide.
  it.each<[string, RegExp, readonly string[]]>([
    ["p:sld", /slides\/slide\d+\.xml$/, ["cSld", "clrMapOvr", "transition", "timing", "extLst"]],
    [
      "p:spPr",
      /slides\/slide\d+\.xml$/,
      ["xfrm", "custGeom", "prstGeom", ...FILLS, "ln", "effectLst", "effectDag", "scene3d", "sp3d"],
    ],
    [
      "a:ln",
      /slides\/slide\d+\.xml$/,
      [...FILLS, "prstDash", "custDash", "round", "bevel", "miter", "headEnd", "tailEnd"],
    ],
    [
      "a:rPr",
      /slides\/slide\d+\.xml$/,
      [
        "ln",
        ...FILLS,
        "effectLst",
        "highlight",
        "uLnTx",
        "uLn",
        "uFillTx",
        "uFill",
        "latin",
        "ea",
        "cs",
        "sym",
        "hlinkClick",
        "hlinkMouseOver",
        "rtl",
      ],
    ],
    [
      "a:pPr",
      /slides\/slide\d+\.xml$/,
      [
        "lnSpc",
        "spcBef",
        "spcAft",
        "buClrTx",
        "buClr",
        "buSzTx",
        "buSzPct",
        "buSzPts",
        "buFontTx",
        "buFont",
        "buNone",
        "buAutoNum",
        "buChar",
        "buBlip",
        "tabLst",
        "defRPr",
      ],
    ],
    ["a:tbl", /slides\/slide\d+\.xml$/, ["tblPr", "tblGrid", "tr"]],
    ["a:tcPr", /slides\/slide\d+\.xml$/, ["lnL", "lnR", "lnT", "lnB", "lnTlToBr", "lnBlToTr", "cell3D", ...FILLS]],
    [
      "c:chart",
      /charts\/chart\d+\.xml$/,
      [
        "title",
        "autoTitleDeleted",
        "pivotFmts",
        "view3D",
        "floor",
        "sideWall",
        "backWall",
        "plotArea",
        "legend",
        "plotVisOnly",
        "dispBlanksAs",
      ],
    ],
    [
      "c:plotArea",
      /charts\/chart\d+\.xml$/,
      [
        "layout",
        "areaChart",
        "lineChart",
        "scatterChart",
        "barChart",
        "pieChart",
        "doughnutChart",
        "valAx",
        "catAx",
        "dateAx",
        "serAx",
        "dTable",
        "spPr",
      ],
    ],
    ["p:cm", /comments\/comment\d+\.xml$/, ["pos", "text", "extLst"]],
  ])("%s has its children in the order of its type", (name, path, order) => {
    const all = Object.keys(pptx)
      .filter((part) => path.test(part))
      .flatMap((part) => childrenOf(strFromU8(must(pptx[part])), name));
    expect(all.length).toBeGreaterThan(0);
    // In a plot area charts and axes may each come in any order among themselves.
    const rank = (child: string) =>
      name === "c:plotArea"
        ? child === "layout"
          ? 0
          : /Chart$/.test(child)
            ? 1
            : /Ax$/.test(child)
              ? 2
              : 3
        : order.indexOf(child);
    for (const children of all) {
      for (const child of children)
        expect([name, order.includes(child) ? child : `${child} is not of the type`]).toEqual([name, child]);
      const ranks = children.map(rank);
      expect([name, children, ranks]).toEqual([name, children, [...ranks].sort((a, b) => a - b)]);
    }
  });

  it("has ids of shapes that are unique on their slide, and relationships that lead to parts that are there", () => {
    for (const [path, part] of Object.entries(pptx)) {
      if (/slides\/slide\d+\.xml$/.test(path)) {
        const ids = [...strFromU8(part).matchAll(/<p:cNvPr id="(\d+)"/g)].map(([, id]) => id);
        expect([path, new Set(ids).size]).toEqual([path, ids.length]);
      }
      if (!path.endsWith(".rels")) continue;
      const base = path.replace(/_rels\/[^/]*$/, "");
      for (const { attributes } of readXml(strFromU8(part), path).children) {
        if (attributes.TargetMode === "External") continue;
        const target = new URL(attributes.Target ?? "", `file:///${base}`).pathname.slice(1);
        expect([path, target, Object.keys(pptx).includes(decodeURI(target))]).toEqual([path, target, true]);
      }
    }
  });

  it.each(["pptx", "odp"] as const)("has all its words for the npm package officeparser, as .%s", async (format) => {
    const { parseOffice } = createRequire(import.meta.url)("officeparser") as {
      parseOffice(file: Buffer): Promise<unknown>;
    };
    const found = await parseOffice(Buffer.from(WRITERS[format].write(whole, context) as Uint8Array));
    // Its tree holds the notes too, which its text leaves out.
    const text = `${(found as { toText(): string }).toText()} ${JSON.stringify(found)}`;
    for (const said of [
      "Gauges",
      "What they tell",
      "the page",
      "with a note",
      "Speak slowly here.",
      "North",
      "both",
      "loud",
      "here",
      "def tide(hour):",
    ])
      expect([format, said, text.includes(said)]).toEqual([format, said, true]);
  });
});

// ISO 32000-1, 11.3.5.3: with the blend mode Saturation a grey takes the colours off what lies under it, and a white seen through lightens it.
it("pictures in other colours are drawn so in a .pdf, also where nothing can recolour them", async () => {
  const { getDocument, OPS } = await import("pdfjs-dist/legacy/build/pdf.mjs");
  const drawn = async (recolour: "grey" | "washout" | undefined) => {
    const given = everything({
      [FILES.photo]: { sha256: sha256(photo), mediaType: "image/png", width: 40, height: 30 },
    });
    const element = {
      kind: "picture" as const,
      id: "p",
      slot: null,
      frame: { x: 100, y: 100, width: 200, height: 150 },
      source: FILES.photo,
      alt: "A dune",
      ...(recolour ? { recolour } : {}),
    };
    const bytes = await WRITERS.pdf.write(
      {
        ...given,
        regions: { footer: "", number: false },
        slides: [{ id: "one", parent: null, arrangement: "blank", notes: [], hidden: false, elements: [element] }],
      },
      { fonts: context.fonts, picture: context.picture, at: context.at },
    );
    const list = await (
      await (await getDocument({ data: bytes.slice(), useSystemFonts: false, verbosity: 0 }).promise).getPage(1)
    ).getOperatorList();
    const after = list.fnArray.findLastIndex(
      (operator) => operator === OPS.paintImageXObject || operator === OPS.paintInlineImageXObject,
    );
    return list.fnArray.flatMap((operator, nth) =>
      nth > after && operator === OPS.setGState ? (list.argsArray[nth] as [string, unknown][][]).flat() : [],
    );
  };
  expect(await drawn(undefined)).toEqual([]);
  expect(await drawn("grey")).toContainEqual(["BM", "saturation"]);
  expect(await drawn("washout")).toContainEqual(["ca", 0.7]);
});
