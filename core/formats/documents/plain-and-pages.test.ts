import { footnotesOf } from "@unitext/core/model";
import type { Block } from "@unitext/core/text";
import { strToU8 } from "fflate";
import { PNG } from "pngjs";
import { readDocument, shape, wordsOf } from "@unitext/core/testing/documents";

const picture = PNG.sync.write(new PNG({ width: 40, height: 30 }));

describe("plain text", () => {
  const plain = (text: string) => readDocument(strToU8(text), "txt").blocks.map(shape);
  it.each<[string, string, unknown[]]>([
    [
      "an outline by numbers",
      "6 Water\n6.4 Gauges\n6.4.1 At the quay\nIt is read every ten minutes.\n6.4.2 At the bar\n- floats\n",
      ["h1 Water", "h2 Gauges", "h3 At the quay", ["p0 It is read every ten minutes."], "h3 At the bar", ["b0 floats"]],
    ],
    [
      "an outline by tabs",
      "Water\n\tGauges\n\t\tquay\n\tTides\nSand\n\tDunes\n",
      ["h2 Water", ["b0 Gauges", "b1 quay", "b0 Tides"], "h2 Sand", ["b0 Dunes"]],
    ],
    [
      "an outline by spaces and bullets",
      "Water\n  - gauges\n    - quay\n  - tides\n\nSand\n  * dunes\n",
      ["h2 Water", ["b0 gauges", "b1 quay", "b0 tides"], "h2 Sand", ["b0 dunes"]],
    ],
    [
      "an outline in which every line is numbered",
      "1. Water\n1.1 Gauges\n1.1.1 Quay\n1.2 Tides\n2. Sand\n2.1 Dunes\n",
      ["h2 Water", ["b0 Gauges", "b1 Quay", "b0 Tides"], "h2 Sand", ["b0 Dunes"]],
    ],
    [
      "numbered titles with bullets that are not indented, under a title",
      "The storm\n1. What happened\n- Wind rose\n- Quay flooded\n2. What we measured\n- Levels\n",
      ["h1 The storm", "h2 What happened", ["b0 Wind rose", "b0 Quay flooded"], "h2 What we measured", ["b0 Levels"]],
    ],
    [
      "numbered titles with indented bullets",
      "The storm\n\n1. What happened\n   - Wind rose\n   - Quay flooded\n2. What we measured\n   - Levels\n",
      ["h1 The storm", "h2 What happened", ["b0 Wind rose", "b0 Quay flooded"], "h2 What we measured", ["b0 Levels"]],
    ],
    [
      "numbered titles with lines below them",
      "The storm\n1) What happened\nWind rose\nQuay flooded\n2) What we measured\nLevels\n",
      ["h1 The storm", "h2 What happened", ["b0 Wind rose", "b0 Quay flooded"], "h2 What we measured", ["b0 Levels"]],
    ],
    [
      "a numbered list in which one item has a list",
      "To bring\n\n1. Tents\n2. Ropes\n   - two long ones\n3. Food\n4. Maps\n",
      ["h2 To bring", ["n0 Tents", "n0 Ropes", "b1 two long ones", "n0 Food", "n0 Maps"]],
    ],
    [
      "titles in capitals",
      "WATER\nIt rises twice a day\nIt falls again\n\nSAND\nGrass holds it\n",
      ["h2 WATER", ["b0 It rises twice a day", "b0 It falls again"], "h2 SAND", ["b0 Grass holds it"]],
    ],
    [
      "a title above the first heading",
      "The coast\n\nThe gauge\n\nThe gauge at the quay is read every ten minutes by the students of the course.\n\nThe dune\n\nThe dune moves inland in winter and the grass holds the sand fast in summer.\n",
      [
        "h1 The coast",
        "h2 The gauge",
        ["p0 The gauge at the quay is read every ten minutes by the students of the course."],
        "h2 The dune",
        ["p0 The dune moves inland in winter and the grass holds the sand fast in summer."],
      ],
    ],
    ["one item a line", "Alder, M.\nBirch, T.\nCedar, O.\n", [["p0 Alder, M."], ["p0 Birch, T."], ["p0 Cedar, O."]]],
    [
      "paragraphs between empty lines",
      "The gauge at the quay is read every ten minutes, and its clock\nis set once a week by the keeper.\n\nThe second one was never read at all, because nobody could reach it.\n",
      [
        ["p0 The gauge at the quay is read every ten minutes, and its clock is set once a week by the keeper."],
        ["p0 The second one was never read at all, because nobody could reach it."],
      ],
    ],
    [
      "headings that are underlined",
      "Water\n=====\n\nIt rises and falls twice in the course of a day.\n\nGauges\n------\n\nThey are read.\n",
      ["h1 Water", ["p0 It rises and falls twice in the course of a day."], "h2 Gauges", ["p0 They are read."]],
    ],
  ])("%s", (_, text, expected) => {
    expect(plain(text)).toEqual(expected);
  });

  // The time grows with the length of the text; a reader that took the square of it would not end in time.
  it("with thousands of underlined headings is read part by part", () => {
    const text = Array.from({ length: 20_000 }, (_, nth) => `Part ${nth}\n-----\n\nIt is read.\n`).join("\n");
    expect(readDocument(strToU8(text), "txt").blocks).toHaveLength(40_000);
  });

  it.each<[string, Uint8Array, string]>([
    [
      "Windows-1252",
      new Uint8Array([
        ...strToU8("The tide at the quay of Saint-Andr"),
        0xe9,
        ...strToU8(" rises twice a day, it is said, and the caf"),
        0xe9,
        ...strToU8(" floods.\n"),
      ]),
      "The tide at the quay of Saint-André rises twice a day, it is said, and the café floods.",
    ],
    [
      "UTF-16 with its mark",
      new Uint8Array([0xff, 0xfe, ...[..."Gauge\n"].flatMap((letter) => [letter.charCodeAt(0), 0])]),
      "Gauge",
    ],
    [
      "UTF-16 without one",
      new Uint8Array([..."The gauge at the quay is read.\n"].flatMap((letter) => [letter.charCodeAt(0), 0])),
      "The gauge at the quay is read.",
    ],
    ["UTF-8 with a mark", new Uint8Array([0xef, 0xbb, 0xbf, ...strToU8("Dünen\n")]), "Dünen"],
  ])("in %s is read", (_, bytes, expected) => {
    const { blocks } = readDocument(bytes, "txt");
    expect(blocks.flatMap((block) => ("text" in block ? wordsOf(block.text) : []))).toEqual([expected]);
  });

  it("tells its language", () => {
    const { source } = readDocument(
      strToU8(
        "Die Düne wandert im Winter landeinwärts. Das Gras hält den Sand fest, bis der nächste Sturm kommt. Danach beginnt alles von vorn, und niemand hat es gezählt. So geht es Jahr um Jahr an dieser Küste weiter.\n",
      ),
      "txt",
    );
    expect(source.manuscript.front.language).toBe("de");
  });
});

describe("pages, tables and outlines", () => {
  it("reads a page: headings, lists, tables with spans, pictures inside it, links, code, quotations, footnotes; scripts show nothing", () => {
    const page = `<!doctype html><html lang="en-GB"><head><title>Field &amp; shore</title><script>x()</script></head><body><nav>Menu</nav><h1>Gauges</h1><p>The gauge is <b>read</b> <a href="https://example.org/g">often</a><sup><a href="#fn1">1</a></sup>.</p><ul><li>North<ul><li>quay</li></ul></li><li>South</li></ul><table><thead><tr><th>Gauge</th><th colspan="2">m</th></tr></thead><tbody><tr><td rowspan="2">North</td><td>2.4</td><td>0.1</td></tr><tr><td>2.1</td><td>0.3</td></tr></tbody></table><figure><img src="data:image/png;base64,${picture.toString("base64")}" alt="The quay"><figcaption>Seen from the north</figcaption></figure><pre><code class="language-js">let a = 1;</code></pre><blockquote><p>It rises.</p></blockquote><ol class="footnotes"><li id="fn1">Log book.</li></ol></body></html>`;
    const { blocks, source, problems } = readDocument(strToU8(page), "html");
    expect(source.manuscript.front).toMatchObject({ title: "Field & shore", language: "en-GB" });
    expect(blocks.map(shape)).toEqual([
      "h1 Gauges",
      ["p0 The gauge is read often."],
      ["b0 North", "b1 quay", "b0 South"],
      {
        header: 1,
        rows: [
          [["Gauge", 1, 1], ["m", 2, 1], null],
          [
            ["North", 1, 2],
            ["2.4", 1, 1],
            ["0.1", 1, 1],
          ],
          [null, ["2.1", 1, 1], ["0.3", 1, 1]],
        ],
        caption: undefined,
      },
      { alt: "The quay", caption: "Seen from the north" },
      { kind: "code", language: "js", text: "let a = 1;" },
      { quote: ["It rises."] },
    ]);
    expect(blocks[1]?.kind === "text" ? footnotesOf(blocks[1].text) : []).toEqual([[{ text: "Log book." }]]);
    expect([problems, [...source.pictures.keys()]]).toEqual([[], ["pictures/picture-1.png"]]);
  });

  // Presentation elements of MathML Core (W3C, section 3): mfrac, msqrt, msubsup, munderover.
  it("leaves out what only leads to other places: a table of contents, bars of links, marks beside headings", () => {
    const page =
      '<title>Tides</title><div class="toc"><p>Table of Contents</p><ul><li><a href="#a">Quay</a></li></ul></div><div role="navigation">Next</div><h1>Contents</h1><h1 id="a">Quay<a class="headerlink" href="#a">¶</a></h1><p>It is wet.</p>';
    expect(readDocument(strToU8(page), "html").blocks.map(shape)).toEqual(["h1 Quay", ["p0 It is wet."]]);
  });

  it("reads the formulas of a page, on a line of their own and among words", () => {
    const page = readDocument(
      strToU8(
        "<p>Half of <math><mi>x</mi><mo>≤</mo><msubsup><mi>y</mi><mn>1</mn><mn>2</mn></msubsup></math> is lost.</p><math display='block'><mfrac><mrow><mi>h</mi><mo>+</mo><mi>s</mi></mrow><msqrt><mn>2</mn></msqrt></mfrac><munderover><mo>∑</mo><mi>i</mi><mi>n</mi></munderover></math>",
      ),
      "html",
    );
    const [words, formula] = page.blocks as [Extract<Block, { kind: "text" }>, Extract<Block, { kind: "figure" }>];
    expect(words.text[0]?.runs.map(({ text, marks }) => [text, marks?.join() ?? ""])).toEqual([
      ["Half of ", ""],
      ["x\\le {y}_{1}^{2}", "formula"],
      [" is lost.", ""],
    ]);
    expect(formula.figure).toEqual({ kind: "formula", tex: "\\frac{h+s}{\\sqrt{2}}\\sum _{i}^{n}" });
  });

  it("reads what a word processor puts on the clipboard", () => {
    const html = `<html><body><!--StartFragment--><p class=MsoTitle>Handbook</p><p style='mso-outline-level:2'>Gauges</p><p class=MsoListParagraph style='mso-list:l0 level1 lfo1'><span style='mso-list:Ignore'>·<span>&nbsp;</span></span>North</p><p class=MsoListParagraph style='mso-list:l0 level2 lfo1'><span style='mso-list:Ignore'>o</span>quay</p><p><span style='font-weight:700'>Bold</span> words</p><!--EndFragment--></body></html>`;
    expect(readDocument(strToU8(html), "html").blocks.map(shape)).toEqual([
      "h1 Handbook",
      "h2 Gauges",
      ["b0 North", "b1 quay"],
      ["p0 Bold words"],
    ]);
  });

  it("reads a list and a table from .csv, whatever separates its values", () => {
    expect(readDocument(strToU8("Alder\nBirch\n"), "csv").blocks.map(shape)).toEqual([["p0 Alder"], ["p0 Birch"]]);
    const { blocks } = readDocument(strToU8('Gauge;High\n"North; quay";2,4\nSouth;2,1\n'), "csv");
    expect(blocks.map(shape)).toEqual([
      "h2 a",
      {
        header: 1,
        rows: [
          [
            ["Gauge", 1, 1],
            ["High", 1, 1],
          ],
          [
            ["North; quay", 1, 1],
            ["2,4", 1, 1],
          ],
          [
            ["South", 1, 1],
            ["2,1", 1, 1],
          ],
        ],
        caption: undefined,
      },
    ]);
    expect(blocks[1]?.kind === "figure" && blocks[1].figure.kind === "table" ? blocks[1].figure.align : []).toEqual([
      "start",
      "end",
    ]);
  });

  it("reads an outline in OPML 2.0", () => {
    const opml =
      '<?xml version="1.0"?><opml version="2.0"><head><title>Course</title><ownerName>Team</ownerName></head><body><outline text="Water"><outline text="Gauges"><outline text="quay"/><outline text="bar" url="https://example.org/"/></outline></outline><outline text="Sand"/></body></opml>';
    const { blocks, source } = readDocument(strToU8(opml), "opml");
    expect(source.manuscript.front).toEqual({ title: "Course", author: "Team" });
    expect(blocks.map(shape)).toEqual(["h1 Water", "h2 Gauges", ["b0 quay", "b0 bar"], "h1 Sand"]);
  });
});
