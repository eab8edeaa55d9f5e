import { execFileSync } from "node:child_process";
import { createHash } from "node:crypto";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { type Deck, footnotesOf, linksOf, must } from "@unitext/core/model";
import { tally } from "@unitext/core/tally";
import { readText } from "@unitext/core/text";
import { idSource } from "@unitext/core/testing";
import { readDocument, shape } from "@unitext/core/testing/documents";
import { dotsFile } from "@unitext/core/testing/raster";
import { shippedFonts } from "@unitext/core/testing/fonts";
import { emf } from "@unitext/core/testing/metafiles";
import {
  CommentRangeEnd,
  CommentRangeStart,
  CommentReference,
  DeletedTextRun,
  Document,
  ExternalHyperlink,
  FootnoteReferenceRun,
  HeadingLevel,
  ImageRun,
  InsertedTextRun,
  LevelFormat,
  Math as DocxMath,
  MathFraction,
  MathRun,
  MathSuperScript,
  Packer,
  Paragraph as DocxParagraph,
  Table,
  TableCell,
  TableRow,
  TextRun,
  VerticalMergeType,
} from "docx";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { PNG } from "pngjs";
import { deckFromSource, readDeck, readSource, type SourceKind, withDrawings } from "../index";

const fonts = shippedFonts();
const sha256 = (bytes: Uint8Array) => createHash("sha256").update(bytes).digest("hex");
const picture = PNG.sync.write(new PNG({ width: 40, height: 30 }));
const deckOf = (bytes: Uint8Array, kind: SourceKind): Deck =>
  deckFromSource(readSource(bytes, `a.${kind}`, kind), `a.${kind}`, {
    newId: idSource(),
    sha256,
    fonts,
    document: "doc",
  }).deck;

/** A document that the npm package docx writes. */
function docx(): Promise<Buffer> {
  const heading = (text: string, level: (typeof HeadingLevel)[keyof typeof HeadingLevel]) =>
    new DocxParagraph({ text, heading: level });
  const cell = (text: string, options: object = {}) =>
    new TableCell({ children: [new DocxParagraph(text)], ...options });
  const item = (text: string, reference: string, level: number) =>
    new DocxParagraph({ text, numbering: { reference, level } });
  const levels = (format: (typeof LevelFormat)[keyof typeof LevelFormat]) =>
    [0, 1, 2].map((level) => ({ level, format, text: format === LevelFormat.BULLET ? "•" : `%${level + 1}.` }));
  const document = new Document({
    title: "Field handbook",
    creator: "Course team",
    numbering: {
      config: [
        { reference: "bullets", levels: levels(LevelFormat.BULLET) },
        { reference: "numbers", levels: levels(LevelFormat.DECIMAL) },
      ],
    },
    footnotes: {
      1: { children: [new DocxParagraph("Log book, page 3.")] },
      2: { children: [new DocxParagraph("Chart of the bay.")] },
    },
    comments: {
      children: [{ id: 0, author: "Reader", date: new Date(0), children: [new DocxParagraph("Is this still so?")] }],
    },
    sections: [
      {
        children: [
          heading("Gauges", HeadingLevel.HEADING_1),
          heading("At the quay", HeadingLevel.HEADING_2),
          new DocxParagraph({
            children: [
              new TextRun("The gauge is "),
              new TextRun({ text: "read", bold: true }),
              new TextRun(" every "),
              new TextRun({ text: "ten", italics: true }),
              new TextRun(" minutes"),
              new FootnoteReferenceRun(1),
              new TextRun("; see "),
              new ExternalHyperlink({ link: "https://example.org/gauge", children: [new TextRun("the page")] }),
              new TextRun("."),
            ],
          }),
          new DocxParagraph({
            children: [
              new TextRun("It was "),
              new DeletedTextRun({ text: "never", id: 1, author: "x", date: "2026-01-01T00:00:00Z" }),
              new InsertedTextRun({ text: "often", id: 2, author: "x", date: "2026-01-01T00:00:00Z" }),
              new TextRun(" cleaned."),
            ],
          }),
          new DocxParagraph({
            children: [
              new CommentRangeStart(0),
              new TextRun("It floats"),
              new CommentRangeEnd(0),
              new TextRun({ children: [new CommentReference(0)] }),
            ],
          }),
          item("North", "bullets", 0),
          item("quay", "bullets", 1),
          item("South", "bullets", 0),
          new DocxParagraph("Then:"),
          item("Open", "numbers", 0),
          item("Read", "numbers", 0),
          heading("Levels", HeadingLevel.HEADING_2),
          new Table({
            rows: [
              new TableRow({ tableHeader: true, children: [cell("Gauge"), cell("High"), cell("Low")] }),
              new TableRow({
                children: [cell("North", { verticalMerge: VerticalMergeType.RESTART }), cell("2.4", { columnSpan: 2 })],
              }),
              new TableRow({
                children: [cell("", { verticalMerge: VerticalMergeType.CONTINUE }), cell("2.1"), cell("0.3")],
              }),
            ],
          }),
          heading("Formula", HeadingLevel.HEADING_2),
          new DocxParagraph({
            children: [
              new DocxMath({
                children: [
                  new MathFraction({
                    numerator: [new MathRun("a")],
                    denominator: [
                      new MathSuperScript({ children: [new MathRun("b")], superScript: [new MathRun("2")] }),
                    ],
                  }),
                ],
              }),
            ],
          }),
          heading("The place", HeadingLevel.HEADING_2),
          new DocxParagraph({
            children: [
              new ImageRun({
                type: "png",
                data: picture,
                transformation: { width: 200, height: 150 },
                altText: { name: "quay", title: "quay", description: "The quay" },
              }),
            ],
          }),
          new DocxParagraph({ text: "Seen from the north", style: "Caption" }),
        ],
      },
    ],
  });
  return Packer.toBuffer(document);
}

describe("a .docx of the package docx", () => {
  let bytes: Uint8Array;
  beforeAll(async () => {
    bytes = new Uint8Array(await docx());
  });

  it("gives headings, marks, lists, tables with merged cells, pictures, formulas, comments, and changes as accepted", () => {
    const { blocks, problems, source } = readDocument(bytes, "docx");
    expect(source.manuscript.front).toMatchObject({ title: "Field handbook", author: "Course team" });
    expect(blocks.map(shape)).toEqual([
      "h1 Gauges",
      "h2 At the quay",
      ["p0 The gauge is read every ten minutes; see the page."],
      ["p0 It was often cleaned."],
      ["p0 It floats"],
      { notes: ["Comment: Is this still so?"] },
      ["b0 North", "b1 quay", "b0 South"],
      ["p0 Then:"],
      ["n0 Open", "n0 Read"],
      "h2 Levels",
      {
        header: 1,
        rows: [
          [
            ["Gauge", 1, 1],
            ["High", 1, 1],
            ["Low", 1, 1],
          ],
          [["North", 1, 2], ["2.4", 2, 1], null],
          [null, ["2.1", 1, 1], ["0.3", 1, 1]],
        ],
        caption: undefined,
      },
      "h2 Formula",
      { kind: "formula", tex: "\\frac{a}{{b}^{2}}" },
      "h2 The place",
      { alt: "The quay", caption: "Seen from the north" },
    ]);
    expect(problems).toEqual([]);
  });

  it("makes a deck that carries all of it, counted", () => {
    const deck = deckOf(bytes, "docx");
    expect(tally(deck)).toMatchObject({
      tables: 1,
      pictures: 1,
      footnotes: 1,
      formulas: 1,
      links: { external: 1, internal: 0, broken: 0 },
    });
    expect(Object.keys(deck.assets)).toHaveLength(1);
    expect(
      deck.slides.flatMap(({ elements, notes }) => [
        ...elements.flatMap((element) => (element.kind === "text" ? footnotesOf(element.text) : [])),
        ...footnotesOf(notes),
      ]),
    ).toEqual([[{ text: "Log book, page 3." }]]);
  });

  it("reads the same from the text that is kept of it", () => {
    const { source, blocks } = readDocument(bytes, "docx");
    expect([...readText(source.text()).blocks]).toEqual(blocks);
  });
});

describe("pictures that pages do not show as they come", () => {
  it.each([
    [
      "a BMP, as the package docx takes it",
      "bmp",
      dotsFile("halves.bmp"),
      "image/png",
      "pixels (bmp) are stored as PNG",
    ],
    ["a TIFF", "tiff", dotsFile("halves.tiff"), "image/png", "pixels (tiff) are stored as PNG"],
    [
      "an EMF",
      "emf",
      emf(100, 50, [{ x: 0, y: 0, width: 50, height: 50, colour: [15, 92, 99] }]),
      "image/svg+xml",
      "drawing (emf) is converted to SVG",
    ],
  ])("are drawn from a .docx and a .odt, and told: %s", async (_, ending, bytes, mediaType, how) => {
    const image = new ImageRun({
      type: "bmp",
      data: dotsFile("halves.bmp"),
      transformation: { width: 200, height: 100 },
      altText: { name: "halves", title: "halves", description: "Halves" },
    });
    const parts = unzipSync(
      new Uint8Array(
        await Packer.toBuffer(
          new Document({
            sections: [
              {
                children: [
                  new DocxParagraph({ text: "Halves", heading: HeadingLevel.HEADING_1 }),
                  new DocxParagraph({ children: [image] }),
                ],
              },
            ],
          }),
        ),
      ),
    );
    const path = must(Object.keys(parts).find((name) => name.endsWith(".bmp")));
    const renamed = (text: string) => text.replaceAll(path.slice(path.lastIndexOf("/") + 1), `halves.${ending}`);
    const docx = zipSync(
      Object.fromEntries(
        Object.entries(parts).map(([name, part]): [string, Uint8Array] =>
          name === path
            ? [renamed(name), bytes]
            : [name, name.endsWith(".rels") ? strToU8(renamed(strFromU8(part))) : part],
        ),
      ),
    );
    const NS =
      'xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0" xmlns:draw="urn:oasis:names:tc:opendocument:xmlns:drawing:1.0" xmlns:svg="urn:oasis:names:tc:opendocument:xmlns:svg-compatible:1.0" xmlns:xlink="http://www.w3.org/1999/xlink"';
    const odt = zipSync({
      mimetype: strToU8("application/vnd.oasis.opendocument.text"),
      "content.xml": strToU8(
        `<office:document-content ${NS}><office:body><office:text><text:h text:outline-level="1">Halves</text:h><text:p><draw:frame><draw:image xlink:href="Pictures/halves.${ending}"/><svg:desc>Halves</svg:desc></draw:frame></text:p></office:text></office:body></office:document-content>`,
      ),
      [`Pictures/halves.${ending}`]: bytes,
    });
    for (const [kind, file] of [
      ["docx", docx],
      ["odt", odt],
    ] as const) {
      const found = await withDrawings(readDeck(file, `a.${kind}`, { newId: idSource(), sha256 }), sha256);
      const [source] = found.deck.slides.flatMap(({ elements }) =>
        elements.flatMap((element) => (element.kind === "picture" ? [element.source] : [])),
      );
      expect(source).toMatch(new RegExp(`halves\\.${ending}$`));
      const asset = found.deck.assets[must(source)];
      expect(asset).toMatchObject({ mediaType });
      expect(sha256(must(found.blobs.get(must(asset?.sha256))))).toBe(asset?.sha256);
      expect(found.left).toEqual([]);
      expect(found.adapted).toEqual([expect.objectContaining({ how: `Of the picture ${source} the ${how}.` })]);
    }
  });

  it("are drawn beside a text that names them, once, and those that cannot be are told", async () => {
    const picture = (name: string) =>
      name === "halves.tiff"
        ? dotsFile("halves.tiff")
        : name === "fax.tiff"
          ? dotsFile("other-fax.tiff")
          : name === "words.bin"
            ? strToU8("no picture")
            : undefined;
    const text =
      "## One\n\n![Halves](halves.tiff)\n\n## Two\n\n![Halves](halves.tiff)\n\n## Three\n\n![Fax](fax.tiff)\n\n## Four\n\n![Words](words.bin)\n";
    const found = await withDrawings(readDeck(strToU8(text), "a.md", { newId: idSource(), sha256, picture }), sha256);
    expect(found.deck.assets).toEqual({
      "halves.tiff": { mediaType: "image/png", width: 100, height: 50, sha256: expect.any(String) },
    });
    expect(found.adapted).toEqual([
      { slide: 1, what: "the picture halves.tiff", how: "its pixels (tiff) are stored as PNG" },
      { slide: 3, what: "the picture fax.tiff", how: "its pixels (tiff) are stored as PNG" },
    ]);
    expect(found.left).toEqual([
      { slide: 4, what: "the picture words.bin", why: expect.stringMatching(/^only PNG/) },
      { slide: null, what: "the pixels of the picture fax.tiff", why: expect.stringMatching(/^they are damaged/) },
    ]);
  });
});

describe("pictures that lead somewhere", () => {
  const linked = (deck: Deck) =>
    deck.slides.flatMap(({ elements }) =>
      elements.flatMap((element) => (element.kind === "picture" ? [element.link ?? "nowhere"] : [])),
    );
  const image = (more: object = {}) =>
    new ImageRun({
      type: "png",
      data: picture,
      transformation: { width: 200, height: 150 },
      altText: { name: "quay", title: "quay", description: "The quay" },
      ...more,
    });

  it("keep where they lead from a .docx, by the link around them or their own (ECMA-376-1, 17.16.22 and 21.1.2.3.5)", async () => {
    const document = new Document({
      sections: [
        {
          children: [
            new DocxParagraph({
              children: [new ExternalHyperlink({ link: "https://example.org/around", children: [image()] })],
            }),
            new DocxParagraph({ children: [image()] }),
          ],
        },
      ],
    });
    const parts = unzipSync(new Uint8Array(await Packer.toBuffer(document)));
    const text = strFromU8(must(parts["word/document.xml"]));
    // The second picture is given a link of its own.
    const id = /r:id="([^"]+)"/.exec(text)?.[1];
    const second = text.lastIndexOf("<wp:docPr");
    const own =
      text.slice(0, second) +
      text
        .slice(second)
        .replace(
          /<wp:docPr([^>]*?)\/?>(?:<\/wp:docPr>)?/,
          `<wp:docPr$1><a:hlinkClick xmlns:a="http://schemas.openxmlformats.org/drawingml/2006/main" r:id="${id}"/></wp:docPr>`,
        );
    expect(linked(deckOf(zipSync({ ...parts, "word/document.xml": strToU8(own) }), "docx"))).toEqual([
      "https://example.org/around",
      "https://example.org/around",
    ]);
    expect(linked(deckOf(zipSync(parts), "docx"))).toEqual(["https://example.org/around", "nowhere"]);
  });

  it("keep where they lead from a .odt (OpenDocument 1.3, part 3, 10.4.12: draw:a)", () => {
    const folder = mkdtempSync(join(tmpdir(), "unitext-odt-"));
    try {
      writeFileSync(join(folder, "quay.png"), picture);
      execFileSync("/usr/bin/python3", [
        join(import.meta.dirname, "odt/sample.py"),
        join(folder, "a.odt"),
        join(folder, "quay.png"),
      ]);
      const parts = unzipSync(new Uint8Array(readFileSync(join(folder, "a.odt"))));
      const text = strFromU8(must(parts["content.xml"]));
      const around = text.replace(
        /<draw:frame(?![\s\S]*<draw:frame)[\s\S]*?<\/draw:frame>/,
        (frame) =>
          `<draw:a xmlns:xlink="http://www.w3.org/1999/xlink" xlink:type="simple" xlink:href="https://example.org/quay">${frame}</draw:a>`,
      );
      expect(linked(deckOf(zipSync({ ...parts, "content.xml": strToU8(around) }), "odt"))).toEqual([
        "https://example.org/quay",
      ]);
    } finally {
      rmSync(folder, { recursive: true, force: true });
    }
  });
});

describe("a .odt of python3-odf", () => {
  const folder = mkdtempSync(join(tmpdir(), "unitext-odt-"));
  let bytes: Uint8Array;
  beforeAll(() => {
    writeFileSync(join(folder, "quay.png"), picture);
    execFileSync("/usr/bin/python3", [
      join(import.meta.dirname, "odt/sample.py"),
      join(folder, "a.odt"),
      join(folder, "quay.png"),
    ]);
    bytes = new Uint8Array(readFileSync(join(folder, "a.odt")));
  });
  afterAll(() => rmSync(folder, { recursive: true, force: true }));

  it("gives headings, marks, lists, tables with merged cells, pictures, footnotes, links, alignment", () => {
    const { blocks, problems, source } = readDocument(bytes, "odt");
    expect(source.manuscript.front).toMatchObject({ title: "Field handbook", language: "en-GB" });
    expect(blocks.map(shape)).toEqual([
      "h1 Gauges",
      "h2 At the quay",
      ["p0 The gauge is read every ten minutes; see the page."],
      ["p0c one line\nand another"],
      ["b0 North", "b1 quay", "b1 bar", "b0 South"],
      ["n0 Open", "n0 Read"],
      {
        header: 1,
        rows: [
          [
            ["Gauge", 1, 1],
            ["High", 1, 1],
            ["Low", 1, 1],
          ],
          [["North", 1, 2], ["2.4", 2, 1], null],
          [null, ["2.1", 1, 1], ["0.3", 1, 1]],
        ],
        caption: undefined,
      },
      { alt: "The quay", caption: undefined },
      { kind: "code", language: "", text: "read --every 10" },
    ]);
    expect(problems).toEqual([]);
    const paragraph = blocks[2]?.kind === "text" ? blocks[2].text : [];
    expect([linksOf(paragraph), footnotesOf(paragraph), paragraph[0]?.runs[1]]).toEqual([
      [{ text: "the page", to: "https://example.org/gauge" }],
      [[{ text: "Log book, page 3." }]],
      { text: "read", marks: ["strong"] },
    ]);
  });

  it("makes a deck that carries all of it, counted", () => {
    expect(tally(deckOf(bytes, "odt"))).toMatchObject({
      tables: 1,
      pictures: 1,
      footnotes: 1,
      code: 1,
      links: { external: 1 },
    });
  });
});

describe("bad documents", () => {
  const parts = async () => unzipSync(new Uint8Array(await docx()));
  const without = async (name: string) =>
    zipSync(Object.fromEntries(Object.entries(await parts()).filter(([path]) => path !== name)));
  const changed = async (name: string, change: (text: string) => string) => {
    const held = await parts();
    return zipSync({ ...held, [name]: strToU8(change(strFromU8(must(held[name])))) });
  };

  it.each(["word/styles.xml", "word/numbering.xml", "word/footnotes.xml", "word/comments.xml"])(
    "a missing %s is told, and the words are there",
    async (name) => {
      const { blocks, problems } = readDocument(await without(name), "docx");
      expect(problems.length).toBeGreaterThan(0);
      expect(JSON.stringify(blocks.map(shape))).toContain("North");
    },
  );

  it("a broken picture, a huge one and an unknown element are told, and their places kept", async () => {
    const media = must(Object.keys(await parts()).find((path) => path.startsWith("word/media/")));
    const deck = async (bytes: Uint8Array) =>
      deckFromSource(readSource(bytes, "a.docx", "docx"), "a.docx", { newId: idSource(), sha256, fonts });
    const broken = await deck(zipSync({ ...(await parts()), [media]: strToU8("no picture") }));
    expect([tally(broken.deck).pictures, broken.problems.map(({ message }) => message)]).toEqual([
      1,
      [expect.stringContaining("broken")],
    ]);
    const huge = new Uint8Array(picture);
    new DataView(huge.buffer).setUint32(16, 10000);
    new DataView(huge.buffer).setUint32(20, 10000);
    const large = await deck(zipSync({ ...(await parts()), [media]: huge }));
    expect([tally(large.deck).pictures, large.problems.map(({ message }) => message)]).toEqual([
      1,
      [expect.stringContaining("100 million pixels")],
    ]);
    const strange = await changed("word/document.xml", (text) =>
      text.replace("<w:body>", "<w:body><w:wonder><w:p><w:r><w:t>Inside</w:t></w:r></w:p></w:wonder>"),
    );
    const { blocks, problems } = readDocument(strange, "docx");
    expect([shape(must(blocks[0])), problems.map(({ message }) => message)]).toEqual([
      ["p0 Inside"],
      [expect.stringContaining("wonder")],
    ]);
  });

  it("ragged rows get empty cells, and that is said", async () => {
    const ragged = await changed("word/document.xml", (text) =>
      text.replace(/<w:tc>(?:(?!<\/w:tc>).)*Low(?:(?!<\/w:tc>).)*<\/w:tc>/, ""),
    );
    const { blocks, problems } = readDocument(ragged, "docx");
    const table = blocks.find((block) => block.kind === "figure" && block.figure.kind === "table");
    expect(
      new Set(
        table?.kind === "figure" && table.figure.kind === "table" ? table.figure.rows.map(({ length }) => length) : [],
      ),
    ).toEqual(new Set([3]));
    expect(problems.map(({ message }) => message)).toEqual([expect.stringContaining("different lengths")]);
  });

  it.each<[string, string, () => Promise<Uint8Array> | Uint8Array, RegExp]>([
    ["no main part", "docx", () => without("word/document.xml"), /main part/],
    [
      "an older or protected file",
      "docx",
      () => new Uint8Array([0xd0, 0xcf, 0x11, 0xe0, 0xa1, 0xb1]),
      /password|older/,
    ],
    [
      "a document type",
      "docx",
      () => changed("word/document.xml", (text) => text.replace("<w:document", "<!DOCTYPE x><w:document")),
      /document type/,
    ],
    ["a zip that is no document", "odt", () => zipSync({ "a.txt": strToU8("x") }), /content\.xml is missing/],
    ["XML that is no outline", "opml", () => strToU8("<a/>"), /not an outline/],
    ["a page without text", "html", () => strToU8("<html><body><script>x</script></body></html>"), /no text/],
  ])("%s is refused with a sentence", async (_, kind, make, message) => {
    const bytes = await make();
    expect(() => readDeck(bytes, `a.${kind}`, { newId: idSource(), sha256 })).toThrow(message);
  });

  it("lets nothing but a Failure out, whatever bytes are flipped", async () => {
    const good = new Uint8Array(await docx());
    let seed = 5;
    const random = () => (seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0) / 4294967296;
    for (let nth = 0; nth < 300; nth++) {
      const bytes = good.slice();
      for (let flips = 0; flips < 6; flips++) bytes[Math.floor(random() * bytes.length)] = Math.floor(random() * 256);
      try {
        readDocument(bytes, "docx");
      } catch (error) {
        expect((error as Error).name).toBe("Failure");
      }
    }
  });
});
