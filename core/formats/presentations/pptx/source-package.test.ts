import { createHash } from "node:crypto";
import { createRequire } from "node:module";
import { readDeck, type ReadResult, WRITERS } from "@unitext/core/formats";
import { layoutSlide, leavesOf } from "@unitext/core/layout";
import { merge, split } from "@unitext/core/divide";
import { type Deck, type Element, elementWords, textOf, titleOf, must } from "@unitext/core/model";
import { tally } from "@unitext/core/tally";
import { idSource } from "@unitext/core/testing";
import { shippedFonts } from "@unitext/core/testing/fonts";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";

// The npm package pptxgenjs writes decks as another program does; what it was told is what must be read.
// biome-ignore lint/suspicious/noExplicitAny: the types of the package are those of a browser script.
const Generator = createRequire(import.meta.url)("pptxgenjs") as new () => any;
const fonts = shippedFonts();
const sha256 = (data: Uint8Array) => createHash("sha256").update(data).digest("hex");
const reading = () => ({ newId: idSource("r"), sha256 });
const DOT =
  "data:image/png;base64,iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==";

async function generated(): Promise<Uint8Array> {
  const made = new Generator();
  made.layout = "LAYOUT_WIDE";
  made.title = "Tide report";
  made.author = "Field station";
  made.theme = { headFontFace: "Cambria", bodyFontFace: "Calibri" };
  made.defineSlideMaster({
    title: "STATION",
    background: { color: "F4F1E8" },
    objects: [
      { rect: { x: 0, y: 6.9, w: "100%", h: 0.6, fill: { color: "0F5C63" } } },
      { text: { text: "Marram Bay", options: { x: 0.3, y: 6.95, w: 4, h: 0.5, color: "FFFFFF", fontSize: 14 } } },
      {
        placeholder: {
          options: {
            name: "title",
            type: "title",
            x: 0.5,
            y: 0.3,
            w: 12,
            h: 1,
            fontSize: 36,
            bold: true,
            color: "0F5C63",
          },
          text: "",
        },
      },
      { placeholder: { options: { name: "body", type: "body", x: 0.5, y: 1.5, w: 12, h: 5 }, text: "" } },
    ],
    slideNumber: { x: 12.3, y: 7.0, color: "FFFFFF" },
  });
  const points = made.addSlide({ masterName: "STATION" });
  points.addText("Levels in spring", { placeholder: "title" });
  points.addText(
    [
      { text: "First point", options: { bullet: true, breakLine: true } },
      { text: "Deeper", options: { bullet: true, indentLevel: 1, breakLine: true } },
      { text: "A link", options: { hyperlink: { url: "https://example.org/tides" }, bullet: true } },
    ],
    { placeholder: "body" },
  );
  points.addNotes("Say it slowly.");
  const drawn = made.addSlide({ masterName: "STATION" });
  drawn.addShape("roundRect", {
    x: 0.5,
    y: 1.6,
    w: 2.5,
    h: 1.4,
    fill: { color: "7A2E57" },
    line: { color: "20302E", width: 2 },
    rotate: 30,
  });
  drawn.addShape("line", {
    x: 9,
    y: 1.8,
    w: 3,
    h: 1,
    line: { color: "B23A30", width: 3, endArrowType: "triangle", dashType: "dash" },
  });
  drawn.addText(
    [
      { text: "Bold ", options: { bold: true } },
      { text: "big", options: { fontSize: 30, color: "B23A30", underline: { style: "sng" } } },
      { text: "2", options: { subscript: true } },
    ],
    { x: 0.5, y: 4, w: 6, h: 1, fontSize: 18, align: "center", valign: "middle" },
  );
  drawn.addTable(
    [
      [{ text: "Gauge", options: { bold: true, fill: { color: "0F5C63" } } }, "Level"],
      [{ text: "Both", options: { colspan: 2 } }],
    ],
    { x: 0.5, y: 5.2, w: 5, border: { type: "solid", pt: 1, color: "999999" } },
  );
  const charts = made.addSlide();
  charts.addChart(
    "bar",
    [
      { name: "North", labels: ["Jan", "Feb"], values: [1.2, 1.9] },
      { name: "South", labels: ["Jan", "Feb"], values: [0.8, 1.1] },
    ],
    {
      x: 0.5,
      y: 0.5,
      w: 6,
      h: 3,
      barGrouping: "stacked",
      showTitle: true,
      title: "Mean level",
      showLegend: true,
      legendPos: "b",
    },
  );
  charts.addChart("line", [{ name: "N", labels: ["a", "b", "c"], values: [3, 1, 2] }], { x: 6.8, y: 0.5, w: 6, h: 3 });
  charts.addChart("pie", [{ name: "Share", labels: ["Sand", "Silt"], values: [70, 30] }], { x: 0.5, y: 4, w: 4, h: 3 });
  charts.addChart(
    "scatter",
    [
      { name: "X", values: [1, 2, 3] },
      { name: "Y", values: [2, 4, 9] },
    ],
    { x: 8.8, y: 4, w: 4, h: 3 },
  );
  const last = made.addSlide();
  last.addImage({ data: DOT, x: 1, y: 1, w: 3, h: 2, altText: "A red dot" });
  last.addText([{ text: "jump", options: { hyperlink: { slide: 1 } } }], { x: 5, y: 2, w: 4, h: 0.6 });
  last.hidden = true;
  return new Uint8Array(await made.write({ outputType: "uint8array" }));
}

let bytes: Uint8Array;
let read: ReadResult;
beforeAll(async () => {
  bytes = await generated();
  read = readDeck(bytes, "report.pptx", reading());
});
const context = (result: ReadResult, extra = new Map<string, Uint8Array>()) => ({
  fonts,
  at: new Date(0),
  picture: (sha256: string) => result.blobs.get(sha256) ?? extra.get(sha256),
});
const written = (deck: Deck, result = read, extra?: Map<string, Uint8Array>) =>
  WRITERS.pptx.write(deck, context(result, extra)) as Uint8Array;
const changed = (deck: Deck, slide: number, change: (element: Element) => Element | undefined): Deck => ({
  ...deck,
  slides: deck.slides.map((own, nth) =>
    nth === slide ? { ...own, elements: own.elements.flatMap((element) => change(element) ?? []) } : own,
  ),
});

describe("a deck that pptxgenjs wrote", () => {
  it("gives page, title, author, text with levels, links, notes and hidden slides as they were put in", () => {
    const { deck } = read;
    expect(deck.page).toEqual({ width: 960, height: 540 });
    expect(deck.properties).toMatchObject({ title: "Tide report", author: "Field station" });
    expect(deck.slides.map(({ hidden }) => hidden)).toEqual([false, false, false, true]);
    const [first] = deck.slides as [Deck["slides"][number]];
    expect(titleOf(first)).toBe("Levels in spring");
    expect(first.elements[1]).toMatchObject({
      kind: "text",
      slot: "body",
      text: [
        { kind: "bullet", level: 0, runs: [{ text: "First point" }] },
        { kind: "bullet", level: 1, runs: [{ text: "Deeper" }] },
        { kind: "bullet", runs: [{ text: "A link", link: "https://example.org/tides" }] },
      ],
    });
    expect(textOf(first.notes)).toBe("Say it slowly.");
    expect(deck.slides[3]?.elements[1]).toMatchObject({
      text: [{ runs: [{ text: "jump", link: `slide:${first.id}` }] }],
    });
    expect(tally(deck)).toMatchObject({
      slides: 4,
      hidden: 1,
      tables: 1,
      charts: 4,
      pictures: 1,
      links: { external: 1, internal: 1, broken: 0 },
    });
  });

  it("gives frames in points, fills, lines, rotation and the looks of runs", () => {
    const [round, line, text, table] = (read.deck.slides[1] as { elements: Element[] }).elements as [
      Element,
      Element,
      Element,
      Element,
    ];
    expect(round).toMatchObject({
      kind: "shape",
      frame: { x: 36, y: 115.2, width: 180, height: 100.8 },
      rotation: 30,
      geometry: { preset: "roundRect" },
      fill: { kind: "solid", colour: "#7a2e57" },
      stroke: { colour: "#20302e", width: 2 },
    });
    expect(line).toMatchObject({
      kind: "shape",
      geometry: { preset: "line" },
      stroke: { colour: "#b23a30", width: 3, dash: "dash", tail: { form: "triangle" } },
    });
    expect(text).toMatchObject({
      box: { anchor: "middle" },
      text: [
        {
          align: "centre",
          runs: [
            { text: "Bold ", marks: ["strong"] },
            { text: "big", properties: { size: 30, colour: "#b23a30", underline: "single" } },
            { text: "2" },
          ],
        },
      ],
    });
    expect(text.kind === "text" && (text.text[0]?.runs[2]?.properties?.rise ?? 0) < 0).toBe(true);
    expect(table).toMatchObject({
      kind: "table",
      rows: [
        [{ fill: { colour: "#0f5c63" } }, {}],
        [{ columns: 2 }, null],
      ],
    });
    expect(table.kind === "table" && table.rows[0]?.[0]?.borders?.top).toMatchObject({ width: 1, colour: "#999999" });
  });

  it("gives charts with their kinds, categories, series and values", () => {
    const charts = read.deck.slides[2]?.elements.map((element) =>
      element.kind === "chart"
        ? {
            type: element.type,
            stack: element.stack,
            title: element.title,
            legend: element.legend,
            categories: element.categories,
            series: element.series.map(({ name, values, x }) => ({ name, values, x })),
          }
        : element.kind,
    );
    expect(charts).toEqual([
      {
        type: "column",
        stack: "sum",
        title: "Mean level",
        legend: "bottom",
        categories: ["Jan", "Feb"],
        series: [
          { name: "North", values: [1.2, 1.9], x: undefined },
          { name: "South", values: [0.8, 1.1], x: undefined },
        ],
      },
      {
        type: "line",
        stack: undefined,
        title: undefined,
        legend: "none",
        categories: ["a", "b", "c"],
        series: [{ name: "N", values: [3, 1, 2], x: undefined }],
      },
      {
        type: "pie",
        stack: undefined,
        title: undefined,
        legend: "none",
        categories: ["Sand", "Silt"],
        series: [{ name: "Share", values: [70, 30], x: undefined }],
      },
      {
        type: "scatter",
        stack: undefined,
        title: undefined,
        legend: "none",
        categories: [],
        series: [{ name: "Y", values: [2, 4, 9], x: [1, 2, 3] }],
      },
    ]);
  });

  it("draws what its master draws behind, in its colours, and tells which fonts stand in", () => {
    const { deck, adapted } = read;
    const scene = layoutSlide(must(deck.slides[0]), { metadata: deck, number: 1, fonts });
    expect(scene.background).toBe("#f4f1e8");
    const leaves = leavesOf(scene.nodes);
    expect(leaves.some((node) => node.kind === "paths" && node.paths.some(({ fill }) => fill === "#0f5c63"))).toBe(
      true,
    );
    expect(leaves.flatMap((node) => (node.kind === "text" ? node.lines.map(({ text }) => text) : []))).toEqual(
      expect.arrayContaining(["Marram Bay", "Levels in spring", "First point", "1"]),
    );
    expect(adapted.map(({ what, how }) => `${what}: ${how}`)).toEqual(
      expect.arrayContaining([
        expect.stringMatching(/font Calibri: Carlito .*as wide/),
        expect.stringMatching(/font Cambria: Caladea .*as wide/),
      ]),
    );
  });

  it("is written back with every part that was not touched as it was, byte for byte, and the same tally", () => {
    const before = unzipSync(bytes);
    const after = unzipSync(written(read.deck));
    for (const [path, part] of Object.entries(before)) {
      if (path.endsWith("/") || path.endsWith(".rels") || path === "[Content_Types].xml") continue;
      expect([
        path,
        after[path] === undefined ? "missing" : Buffer.compare(Buffer.from(part), Buffer.from(after[path])),
      ]).toEqual([path, 0]);
    }
    const again = readDeck(written(read.deck), "report.pptx", reading());
    expect(tally(again.deck)).toEqual(tally(read.deck));
    expect(again.deck.slides.map(({ id, elements }) => [id, elements.map((element) => element.id)])).toEqual(
      read.deck.slides.map(({ id, elements }) => [id, elements.map((element) => element.id)]),
    );
  });

  it("changes only the shape whose words were changed, and keeps it the placeholder that it was", () => {
    const deck = changed(read.deck, 0, (element) =>
      element.slot === "title" && element.kind === "text"
        ? { ...element, text: [{ kind: "plain", level: 0, runs: [{ text: "Levels in autumn" }] }] }
        : element,
    );
    const before = strFromU8(must(unzipSync(bytes)["ppt/slides/slide1.xml"]));
    const after = strFromU8(must(unzipSync(written(deck))["ppt/slides/slide1.xml"]));
    expect(after).toContain("Levels in autumn");
    expect(after).toMatch(/<p:ph[^>]*type="title"/);
    const body = must(/<p:sp>(?:(?!<p:sp>)[\s\S])*?First point[\s\S]*?<\/p:sp>/.exec(before)?.[0]);
    expect(after).toContain(body);
    const again = readDeck(written(deck), "report.pptx", reading()).deck;
    expect(again.slides.map(titleOf)).toEqual(["Levels in autumn", ...read.deck.slides.slice(1).map(titleOf)]);
    expect(again.slides[0]?.elements[0]).toMatchObject({ slot: "title", id: deck.slides[0]?.elements[0]?.id });
  });

  it("follows what is added, moved, taken out, hidden, put in another order and left out", () => {
    const [one, two, three, four] = read.deck.slides as [
      Deck["slides"][number],
      Deck["slides"][number],
      Deck["slides"][number],
      Deck["slides"][number],
    ];
    const added: Element = {
      kind: "shape",
      id: "new",
      slot: null,
      frame: { x: 10, y: 20, width: 100, height: 50 },
      geometry: { preset: "diamond" },
      fill: { kind: "solid", colour: "#123456" },
      text: [],
    };
    const moved = {
      ...two,
      hidden: true,
      elements: [
        ...two.elements
          .slice(1)
          .map((element, nth) => (nth === 1 ? { ...element, frame: { x: 5, y: 6, width: 300, height: 40 } } : element)),
        added,
      ],
    };
    const deck = { ...read.deck, slides: [four, moved, one] };
    const file = written(deck);
    const again = readDeck(file, "moved.pptx", reading()).deck;
    expect(again.slides.map(({ id }) => id)).toEqual([four.id, two.id, one.id]);
    expect(again.slides[1]).toMatchObject({ hidden: true });
    expect(again.slides[1]?.elements.map(({ kind, frame }) => [kind, frame?.x])).toEqual([
      ["shape", 648],
      ["text", 5],
      ["table", 36],
      ["shape", 10],
    ]);
    const paths = Object.keys(unzipSync(file));
    expect(paths.filter((path) => /slides\/slide\d+\.xml$/.test(path))).toHaveLength(3);
    expect(paths.some((path) => path.includes("charts/"))).toBe(false);
    expect(three.elements.every(({ kind }) => kind === "chart")).toBe(true);
  });

  it("keeps its slides as they are through splitting and merging, beside slides of another file", () => {
    let next = 0;
    const ids = { newId: () => `n${next++}`, deckId: () => `d${next++}` };
    const { parts } = split(
      { deck: read.deck, version: 0 },
      [{ name: "Charts", slides: [must(read.deck.slides[2])] }],
      ids,
    );
    const part = must(parts[0]);
    const own = unzipSync(written(part));
    expect(
      Buffer.compare(
        Buffer.from(must(own["ppt/slides/slide3.xml"])),
        Buffer.from(must(unzipSync(bytes)["ppt/slides/slide3.xml"])),
      ),
    ).toBe(0);
    expect(Object.keys(own).filter((path) => /charts\/chart\d+\.xml$/.test(path))).toHaveLength(4);
    const other = readDeck(bytes, "other.pptx", reading());
    const { deck: both } = merge(
      [
        { deck: part, version: 0 },
        { deck: { ...other.deck, id: "other" }, version: 0 },
      ],
      { appearance: "keep" },
      ids,
    );
    const file = written(both, read, other.blobs);
    const again = readDeck(file, "both.pptx", reading());
    expect(tally(again.deck)).toEqual(tally(both));
    expect(again.deck.slides.map((slide) => slide.elements.map(elementWords))).toEqual(
      both.slides.map((slide) => slide.elements.map(elementWords)),
    );
  });

  it("takes the deck's look where it is asked to, and foreign things come along", () => {
    const parts = unzipSync(bytes);
    const slide = strFromU8(must(parts["ppt/slides/slide1.xml"]));
    const odd =
      '<p:graphicFrame><p:nvGraphicFramePr><p:cNvPr id="77" name="Board"/><p:cNvGraphicFramePr/><p:nvPr/></p:nvGraphicFramePr><p:xfrm><a:off x="0" y="0"/><a:ext cx="914400" cy="914400"/></p:xfrm><a:graphic><a:graphicData uri="urn:station:board"><board xmlns="urn:station:board" tide="7"/></a:graphicData></a:graphic></p:graphicFrame>';
    parts["ppt/slides/slide1.xml"] = strToU8(slide.replace("</p:spTree>", `${odd}</p:spTree>`));
    const result = readDeck(zipSync(parts), "odd.pptx", reading());
    expect(tally(result.deck).foreign).toBe(1);
    let next = 0;
    const { deck } = merge(
      [
        { deck: { ...result.deck, id: "a" }, version: 0 },
        { deck: { ...result.deck, id: "b", theme: { ...result.deck.theme, name: "x" } }, version: 0 },
      ],
      { appearance: "match" },
      { newId: () => `m${next++}`, deckId: () => `d${next++}` },
    );
    const file = unzipSync(written(deck, result));
    const slides = Object.entries(file)
      .filter(([path]) => /slides\/slide\d+\.xml$/.test(path))
      .map(([, part]) => strFromU8(part));
    expect(slides.filter((text) => text.includes('tide="7"'))).toHaveLength(2);
    expect(tally(readDeck(written(deck, result), "match.pptx", reading()).deck).foreign).toBe(2);
  });
});

describe("a shape of ours that another program has moved and painted", () => {
  it("is as that program left it, and what it did not touch is ours", async () => {
    const { everything, FILES } = await import("@unitext/core/testing");
    const asset = { sha256: "0".repeat(64), mediaType: "image/png" as const, width: 40, height: 30 };
    const deck = everything({ [FILES.photo]: asset });
    const context = { fonts, at: new Date(0), picture: () => undefined };
    const parts = unzipSync(WRITERS.pptx.write(deck, context) as Uint8Array);
    const path = must(
      Object.keys(parts).find(
        (name) => /slides\/slide\d+\.xml$/.test(name) && strFromU8(must(parts[name])).includes("star5"),
      ),
    );
    const text = strFromU8(must(parts[path]));
    // The words of the star stay; its place and its colours are another's.
    const star = must(/<p:sp>(?:(?!<p:sp>)[\s\S])*?star5[\s\S]*?<\/p:sp>/.exec(text)?.[0]);
    const other = star
      .replace(/<a:off [^>]*\/>/, '<a:off x="1270000" y="2540000"/>')
      .replace(/<a:gradFill[\s\S]*?<\/a:gradFill>/, '<a:solidFill><a:srgbClr val="00AA00"/></a:solidFill>');
    const read = readDeck(zipSync({ ...parts, [path]: strToU8(text.replace(star, other)) }), "x.pptx", reading()).deck;
    const at = deck.slides.findIndex(({ id }) => id === "shapes");
    const [before, after] = [deck.slides[at]?.elements ?? [], read.slides[at]?.elements ?? []];
    expect(after[0]).toMatchObject({
      kind: "shape",
      id: "star",
      name: "Star",
      frame: { x: 100, y: 200, width: 120, height: 120 },
      rotation: 15,
      groups: ["g"],
      fill: { kind: "solid", colour: "#00aa00" },
      geometry: { preset: "star5" },
    });
    expect(after[0]?.kind === "shape" && after[0].text[0]?.runs[0]?.text).toBe("here");
    expect(after.slice(1, 4)).toEqual(before.slice(1, 4));
  });
});
