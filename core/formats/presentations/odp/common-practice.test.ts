import { type Deck, type Element, type LevelStyle, revealsOf, must } from "@unitext/core/model";
import { filesBench } from "@unitext/core/testing/files";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { PNG } from "pngjs";
import { WRITERS } from "../../index";
import { formula } from "./read/enhancedgeometry";

// Presentations written by hand, whole, by OpenDocument 1.3, part 3 (the numbers of its sections from memory), as programs write them: what the standard leaves open or to custom stands beside the check.
const NAMES = {
  office: "office:1.0",
  style: "style:1.0",
  text: "text:1.0",
  table: "table:1.0",
  draw: "drawing:1.0",
  presentation: "presentation:1.0",
  meta: "meta:1.0",
  number: "datastyle:1.0",
  anim: "animation:1.0",
};
const COMPATIBLE = { fo: "xsl-fo-compatible:1.0", svg: "svg-compatible:1.0", smil: "smil-compatible:1.0" };
const names = [
  ...Object.entries({ ...NAMES, ...COMPATIBLE }).map(
    ([prefix, name]) => `xmlns:${prefix}="urn:oasis:names:tc:opendocument:xmlns:${name}"`,
  ),
  'xmlns:xlink="http://www.w3.org/1999/xlink"',
].join(" ");
const photo = new Uint8Array(PNG.sync.write(new PNG({ width: 40, height: 30 })));
const bench = filesBench(photo);

interface Given {
  defaults?: string;
  styles?: string;
  automatic?: string;
  /** Automatic styles of the part in which masters stand. */
  behind?: string;
  /** What the page style of the master says of its ground. */
  ground?: string;
  page?: string;
  notes?: string;
}
const SIZES =
  '<style:page-layout style:name="PM0"><style:page-layout-properties fo:page-width="21cm" fo:page-height="29.7cm" style:print-orientation="portrait"/></style:page-layout><style:page-layout style:name="PM1"><style:page-layout-properties fo:page-width="28cm" fo:page-height="15.75cm" style:print-orientation="landscape"/></style:page-layout>';
const masters = (notes: string) =>
  `<office:master-styles><style:handout-master style:page-layout-name="PM0" draw:style-name="Mdp1"/><style:master-page style:name="Default" style:page-layout-name="PM1" draw:style-name="Mdp1">${notes}</style:master-page></office:master-styles>`;
const common = ({ defaults = "", styles = "" }: Given) =>
  `<office:styles><style:default-style style:family="graphic"><style:graphic-properties fo:wrap-option="no-wrap"/><style:text-properties style:use-window-font-color="true" fo:font-family="Arial" fo:font-size="18pt"${defaults}/></style:default-style>${styles}</office:styles>`;
const background = ({ ground = 'draw:fill="none"' }: Given) =>
  `<style:style style:name="Mdp1" style:family="drawing-page"><style:drawing-page-properties draw:background-size="border" ${ground}/></style:style>`;
const body = ({ page = "" }: Given) =>
  `<office:body><office:presentation><draw:page draw:name="page1" draw:master-page-name="Default">${page}</draw:page></office:presentation></office:body>`;

function flat(given: Given): Deck {
  const text = `<?xml version="1.0" encoding="UTF-8"?><office:document ${names} office:version="1.3" office:mimetype="application/vnd.oasis.opendocument.presentation"><office:meta/>${common(given)}<office:automatic-styles>${SIZES}${background(given)}${given.automatic ?? ""}</office:automatic-styles>${masters("")}${body(given)}</office:document>`;
  return bench.read(strToU8(text), "deck.fodp").deck;
}
function packed(given: Given): Uint8Array {
  const part = (root: string, inside: string) =>
    strToU8(
      `<?xml version="1.0" encoding="UTF-8"?><office:${root} ${names} office:version="1.3">${inside}</office:${root}>`,
    );
  const rows = ["content.xml", "styles.xml", "meta.xml"]
    .map((path) => `<manifest:file-entry manifest:full-path="${path}" manifest:media-type="text/xml"/>`)
    .join("");
  return zipSync({
    mimetype: [strToU8("application/vnd.oasis.opendocument.presentation"), { level: 0 }],
    "content.xml": part(
      "document-content",
      `<office:automatic-styles>${given.automatic ?? ""}</office:automatic-styles>${body(given)}`,
    ),
    "styles.xml": part(
      "document-styles",
      `${common(given)}<office:automatic-styles>${SIZES}${background(given)}${given.behind ?? ""}</office:automatic-styles>${masters(given.notes ?? "")}`,
    ),
    "meta.xml": part("document-meta", "<office:meta/>"),
    "META-INF/manifest.xml": strToU8(
      `<manifest:manifest xmlns:manifest="urn:oasis:names:tc:opendocument:xmlns:manifest:1.0" manifest:version="1.3"><manifest:file-entry manifest:full-path="/" manifest:media-type="application/vnd.oasis.opendocument.presentation"/>${rows}</manifest:manifest>`,
    ),
  });
}
const AT = 'svg:x="1in" svg:y="1in" svg:width="2in" svg:height="1in"';
const box = (style: string, words = "<text:p>word</text:p>", at = AT) =>
  `<draw:frame draw:name="One" draw:style-name="${style}" draw:layer="layout" ${at}><draw:text-box>${words}</draw:text-box></draw:frame>`;
const custom = (style: string) =>
  `<draw:custom-shape draw:name="One" draw:style-name="${style}" draw:layer="layout" ${AT}><text:p>word</text:p><draw:enhanced-geometry svg:viewBox="0 0 100 100" draw:type="rectangle" draw:enhanced-path="M 0 0 L 100 0 100 100 0 100 Z N"/></draw:custom-shape>`;
const graphic = (name: string, properties: string, letters = "") =>
  `<style:style style:name="${name}" style:family="graphic"><style:graphic-properties ${properties}/>${letters ? `<style:text-properties ${letters}/>` : ""}</style:style>`;
const first = (deck: Deck) => deck.slides[0]?.elements[0] as Element;
const level = (deck: Deck): LevelStyle => deck.styles?.[first(deck).style ?? ""]?.[0] ?? {};
/** The colour of the first run, by itself or by its level; undefined where it is the theme's. */
function colourIn(deck: Deck): string | undefined {
  const element = first(deck);
  if (element.kind !== "text" && element.kind !== "shape") return undefined;
  return element.text[0]?.runs[0]?.properties?.colour ?? level(deck).run?.colour;
}

describe("white space (OpenDocument 1.3, part 3, 6.1.2 and 6.1.3)", () => {
  const words = (inside: string) => {
    const element = first(
      flat({ page: box("gr1", `<text:p>${inside}</text:p>`), automatic: graphic("gr1", 'draw:stroke="none"') }),
    );
    return element?.kind === "text" ? element.text[0]?.runs.map(({ text }) => text).join("") : undefined;
  };
  it.each([
    // White space is the four characters of the markup; spaces that do not break, or are as wide as a letter (as Japanese paragraphs begin), are words.
    [
      "other spaces stand where they are",
      "\u3000\u3000ten\u00a0\u00a0m\u2009s\u3000",
      "\u3000\u3000ten\u00a0\u00a0m\u2009s\u3000",
    ],
    ["spaces of the markup at the ends are none", "\n  word  \n", "word"],
    ["several of them are one", "one   two\n three", "one two three"],
    ["those that are spelled out are kept, at the beginning too", '<text:s text:c="3"/>word', "   word"],
    ["and at the end", "word<text:s/>", "word "],
    ["and between", 'one <text:s text:c="2"/>two', "one   two"],
  ])("%s", (_, inside, wanted) => expect(words(inside)).toBe(wanted));

  it("a text of nothing but spaces is none", () => {
    expect(words('<text:s text:c="4"/>')).toBeUndefined();
  });
});

describe("the colour of text (style:use-window-font-color, 20.393)", () => {
  const BLUE = 'draw:fill="solid" draw:fill-color="#0b1f4b"';
  it("is that of a style over the automatic one of what it stands on", () => {
    expect(colourIn(flat({ automatic: graphic("g", "", 'fo:color="#ff0000"'), page: box("g") }))).toBe("#ff0000");
    expect(
      colourIn(
        flat({
          styles: graphic("up", "", 'fo:color="#ff0000"'),
          automatic: graphic("g", "", 'fo:font-size="20pt"').replace(
            'style:family="graphic"',
            'style:family="graphic" style:parent-style-name="up"',
          ),
          page: box("g"),
        }),
      ),
    ).toBe("#ff0000");
  });

  it("is the automatic one over a colour of what it stands on", () => {
    const span = '<text:p><text:span text:style-name="t">word</text:span></text:p>';
    const deck = flat({
      automatic: `${graphic("g", "", 'fo:color="#ff0000"')}<style:style style:name="t" style:family="text"><style:text-properties style:use-window-font-color="true"/></style:style>`,
      page: box("g", span),
      ground: BLUE,
    });
    expect(colourIn(deck)).toBe("#ffffff");
  });

  it.each([
    ["a light page", 'draw:fill="solid" draw:fill-color="#fffbe6"', "", undefined],
    ["a dark page", BLUE, "", "#ffffff"],
    ["a light shape on a dark page", BLUE, 'draw:fill="solid" draw:fill-color="#ffee88"', undefined],
    ["a dark shape on a light page", 'draw:fill="none"', BLUE, "#ffffff"],
    ["a dark shape that is hardly there", 'draw:fill="none"', `${BLUE} draw:opacity="20%"`, undefined],
  ])("is automatic: what stands out on %s", (_, ground, fill, wanted) => {
    expect(colourIn(flat({ ground, automatic: graphic("g", fill), page: box("g") }))).toBe(wanted);
  });

  it("is what stands out on the mean of a gradient", () => {
    const gradient = (from: string, to: string) =>
      flat({
        styles: `<draw:gradient draw:name="G" draw:style="linear" draw:start-color="${from}" draw:end-color="${to}"/>`,
        ground: 'draw:fill="gradient" draw:fill-gradient-name="G"',
        page: box("g"),
      });
    expect(colourIn(gradient("#000000", "#203050"))).toBe("#ffffff");
    expect(colourIn(gradient("#ffffff", "#808080"))).toBeUndefined();
  });

  // WCAG 2.2, 1.4.3 (relative luminance): grey #757575 has a contrast of 4.6 to white and of 4.56 to black; one step lighter turns it round.
  it("turns where black begins to stand out more than white", () => {
    const on = (grey: string) =>
      colourIn(flat({ ground: `draw:fill="solid" draw:fill-color="${grey}"`, page: box("g") }));
    expect([on("#757575"), on("#767676")]).toEqual(["#ffffff", undefined]);
  });
});

describe("the paper of a page", () => {
  it("is white where nothing is said of it, with black letters (common practice, no source)", () => {
    expect(flat({ page: box("g") }).theme).toMatchObject({
      design: "plain",
      colours: { paper: "#ffffff", ink: "#000000" },
    });
  });
  it("is what its master is filled with", () => {
    expect(flat({ ground: 'draw:fill="solid" draw:fill-color="#FFEE88"', page: box("g") }).theme.colours.paper).toBe(
      "#ffee88",
    );
  });
});

// Automatic styles belong to the part that they stand in: those of content.xml to pages, those of styles.xml to masters (3.15.3).
describe("automatic styles of one name in both parts", () => {
  const letters = (size: number) =>
    `<style:style style:name="T1" style:family="text"><style:text-properties fo:font-size="${size}pt"/></style:style>`;
  const frame = (words: string) => box("gr1", `<text:p><text:span text:style-name="T1">${words}</text:span></text:p>`);
  const number = `<draw:frame draw:style-name="gr1" presentation:class="page-number" ${AT}><draw:text-box><text:p><text:span text:style-name="T1"><text:page-number/></text:span></text:p></draw:text-box></draw:frame>`;
  const shown =
    '<style:style style:name="dp1" style:family="drawing-page"><style:drawing-page-properties presentation:display-page-number="true"/></style:style>';
  const { deck } = bench.read(
    packed({
      page: frame("page"),
      notes: frame("master") + number,
      automatic: letters(30) + graphic("gr1", 'draw:fill="solid" draw:fill-color="#ff0000"') + shown,
      behind: letters(10) + graphic("gr1", 'draw:fill="solid" draw:fill-color="#00ff00"'),
    }),
    "deck.odp",
  );
  const [page] = deck.slides;
  const sizeOf = (element: Element | undefined) =>
    element?.kind === "text" &&
    (element.text[0]?.runs[0]?.properties?.size ?? deck.styles?.[element.style ?? ""]?.[0]?.run?.size);
  it("are those of content.xml on a page", () => {
    expect(first(deck)).toMatchObject({ kind: "text", fill: { colour: "#ff0000" } });
    expect(sizeOf(first(deck))).toBe(30);
  });
  it("are those of styles.xml on a master, and where it puts the number", () => {
    const behind = deck.masters?.[page?.master ?? ""]?.elements[0];
    expect(behind).toMatchObject({ kind: "text", fill: { colour: "#00ff00" } });
    expect(sizeOf(behind)).toBe(10);
    expect(page?.regions?.map(({ style }) => deck.styles?.[style ?? ""]?.[0]?.run?.size)).toEqual([10]);
  });
});

describe("where lines break", () => {
  const wrap = (deck: Deck) => {
    const element = first(deck);
    return element.kind === "text" || element.kind === "shape" ? (element.box?.wrap ?? true) : undefined;
  };
  // The default style of all shapes says "no-wrap" in most files; text of boxes breaks all the same (common practice, no source).
  it.each([
    ["at the width of a box, whatever the default of all shapes says", box("g"), "", true],
    [
      "nowhere in a box that grows in width (draw:auto-grow-width, 20.154)",
      box("g"),
      'draw:auto-grow-width="true"',
      false,
    ],
    ["nowhere in a form whose style says so (fo:wrap-option, 20.263)", custom("g"), "", false],
    ["at the width of a form whose style says so", custom("g"), 'fo:wrap-option="wrap"', true],
  ])("%s", (_, page, properties, wanted) => {
    expect(wrap(flat({ automatic: graphic("g", properties), page }))).toBe(wanted);
  });
});

describe("a connector (draw:connector, 10.3.10)", () => {
  const deck = (more: string) =>
    flat({
      automatic: graphic("g", 'draw:stroke="solid" svg:stroke-width="1pt" svg:stroke-color="#000000"'),
      page: `<draw:connector draw:name="One" draw:style-name="g" svg:x1="2.54cm" svg:y1="2.54cm" svg:x2="7.62cm" svg:y2="5.08cm" ${more}/>`,
    });
  const shape = (more: string) => first(deck(more)) as Extract<Element, { kind: "shape" }>;
  const ways = ({ geometry }: Extract<Element, { kind: "shape" }>) =>
    "preset" in geometry ? geometry.preset : geometry.paths.map(({ d }) => d);

  it("stands where its way runs on the page, in hundredths of a millimetre, whatever its view box says", () => {
    const bent = shape('svg:d="M2540 2540h2540v2540h2540" svg:viewBox="0 0 5081 2541"');
    expect(bent.frame).toEqual({ x: 72, y: 72, width: 144, height: 72 });
    expect(ways(bent)).toEqual(["M0 0L72 0L72 72L144 72"]);
  });
  it("may run past its ends", () => {
    const round = shape('svg:d="M2540 2540h-1270v3810h6350v-1270" svg:viewBox="0 0 6351 3811"');
    expect(round.frame).toEqual({ x: 36, y: 72, width: 180, height: 108 });
    expect(ways(round)).toEqual(["M36 0L0 0L0 108L180 108L180 72"]);
  });
  it("may be a curve", () => {
    const curve = shape('draw:type="curve" svg:d="M2540 2540c1905 0 635 2540 5080 2540" svg:viewBox="0 0 5081 2541"');
    expect(curve.frame).toEqual({ x: 72, y: 72, width: 144, height: 72 });
    expect(ways(curve)).toEqual(["M0 0C54 0 18 72 144 72"]);
  });
  it("is stretched between its ends where its way counts in another unit", () => {
    const bent = shape('svg:d="M0 0L50 0 50 100 100 100" svg:viewBox="0 0 100 100"');
    expect(bent.frame).toEqual({ x: 72, y: 72, width: 144, height: 72 });
    expect(ways(bent)).toEqual(["M0 0L72 0L72 72L144 72"]);
  });
  it("is a straight line where it is one, or no way is written", () => {
    for (const more of [
      'draw:type="line" svg:d="M2540 2540l5080 2540" svg:viewBox="0 0 5081 2541"',
      "",
      'svg:d="M0 0"',
    ])
      expect(shape(more)).toMatchObject({
        frame: { x: 72, y: 72, width: 144, height: 72 },
        geometry: { preset: "line" },
      });
  });
});

describe("tables", () => {
  it("have cells that are bold where the first one is and they say nothing, only if they are", () => {
    const cell = (name: string, letters: string) =>
      `<style:style style:name="${name}" style:family="table-cell"><style:text-properties ${letters}/></style:style>`;
    const row = (style: string, ...words: string[]) =>
      `<table:table-row table:default-cell-style-name="${style}">${words.map((word) => `<table:table-cell><text:p>${word}</text:p></table:table-cell>`).join("")}</table:table-row>`;
    const deck = flat({
      automatic: cell("head", 'fo:font-weight="bold"') + cell("body", "") + cell("foot", 'fo:font-style="italic"'),
      page: `<draw:frame draw:name="T" ${AT}><table:table><table:table-column table:number-columns-repeated="2"/>${row("head", "Station", "Level")}${row("body", "North", "3.2")}${row("foot", "All", "3.1")}</table:table></draw:frame>`,
    });
    const table = first(deck);
    if (table.kind !== "table") throw new Error("no table");
    expect(deck.styles?.[table.style ?? ""]?.[0]).not.toHaveProperty("strong");
    expect(table.rows.map((cells) => cells.map((one) => one?.text[0]?.runs[0]?.marks ?? []))).toEqual([
      [["strong"], ["strong"]],
      [[], []],
      [["emphasis"], ["emphasis"]],
    ]);
  });
});

describe("templates of tables (OpenDocument 1.3, 16.20; letters and names common practice, no source)", () => {
  const CELLS =
    '<style:style style:name="default" style:family="table-cell"><style:graphic-properties draw:fill="solid" draw:fill-color="#ccccff"/><style:text-properties fo:font-family="Georgia" fo:font-size="13pt"/></style:style><style:style style:name="deep" style:family="table-cell" style:parent-style-name="default"><style:graphic-properties draw:fill="solid" draw:fill-color="#b3b3b3"/></style:style><style:style style:name="pale" style:family="table-cell" style:parent-style-name="default"><style:graphic-properties draw:fill="solid" draw:fill-color="#e6e6e6"/></style:style>';
  const template = (named: string) =>
    `<table:table-template ${named}><table:first-row table:style-name="deep"/><table:odd-rows table:style-name="deep"/><table:even-rows table:style-name="pale"/><table:body table:style-name="pale"/></table:table-template>`;
  const tableOf = (styles: string, attributes: string) => {
    const deck = flat({
      styles,
      page: `<draw:frame draw:name="T" ${AT}><table:table ${attributes}><table:table-column/>${["a", "b", "c"].map((word) => `<table:table-row><table:table-cell><text:p>${word}</text:p></table:table-cell></table:table-row>`).join("")}</table:table></draw:frame>`,
    });
    const table = first(deck);
    if (table.kind !== "table") throw new Error("no table");
    return {
      fills: table.rows.map(([cell]) => (cell?.fill?.kind === "solid" ? cell.fill.colour : undefined)),
      letters: deck.styles?.[table.style ?? ""]?.[0]?.run,
    };
  };
  it.each(['table:name="Bands"', 'text:style-name="Bands"'])(
    "fill rows and give letters where they are named %s",
    (named) => {
      const { fills, letters } = tableOf(
        CELLS + template(named),
        'table:template-name="Bands" table:use-first-row-styles="true" table:use-banding-rows-styles="true"',
      );
      expect(fills).toEqual(["#b3b3b3", "#b3b3b3", "#e6e6e6"]);
      expect(letters).toMatchObject({ font: "Georgia", size: 13 });
    },
  );
  it("give a table without one the letters of the usual cell, and no fill", () => {
    const { fills, letters } = tableOf(CELLS, "");
    expect(fills).toEqual([undefined, undefined, undefined]);
    expect(letters).toMatchObject({ font: "Georgia", size: 13 });
  });
});

describe("a frame with the same picture several times (10.4.2)", () => {
  const image = (inside: string) => `<draw:image>${inside}</draw:image>`;
  const data = (bytes: Uint8Array) =>
    image(`<office:binary-data>${Buffer.from(bytes).toString("base64")}</office:binary-data>`);
  it("shows the first that can be shown", () => {
    const deck = flat({
      page: `<draw:frame draw:name="P" ${AT}>${data(strToU8("VCLMTF made up"))}${data(photo)}<svg:desc>A dune</svg:desc></draw:frame>`,
    });
    expect(first(deck)).toMatchObject({ kind: "picture", alt: "A dune", name: "P" });
    expect(Object.values(deck.assets)).toMatchObject([{ mediaType: "image/png", width: 40, height: 30 }]);
  });
  it("may show a drawing in SVG", () => {
    const deck = flat({
      page: `<draw:frame ${AT}>${data(strToU8('<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 12 6"/>'))}${data(photo)}</draw:frame>`,
    });
    expect(Object.values(deck.assets)).toMatchObject([{ mediaType: "image/svg+xml", width: 12, height: 6 }]);
  });
  it("is told where none can be shown, by its name or without", () => {
    const left = (name: string) =>
      bench.read(
        strToU8(
          `<?xml version="1.0"?><office:document ${names}><office:meta/><office:automatic-styles>${SIZES}</office:automatic-styles>${masters("")}${body({ page: `<draw:frame ${name} ${AT}>${data(strToU8("VCLMTF"))}</draw:frame>` })}</office:document>`,
        ),
        "deck.fodp",
      ).left;
    expect(left('draw:name="Dune"')).toMatchObject([{ slide: 1, what: "the picture “Dune”" }]);
    expect(left("")).toMatchObject([{ slide: 1, what: "a picture without a name" }]);
  });
});

describe("points that come in by ids of OpenDocument 1.1 (text:id, 19.916)", () => {
  it("come in one press after the other", () => {
    const item = (id: string) => `<text:list-item><text:p text:id="${id}">${id}</text:p></text:list-item>`;
    const press = (id: string) =>
      `<anim:par smil:begin="next"><anim:par smil:begin="0s"><anim:par smil:begin="0s" smil:fill="hold" presentation:node-type="on-click" presentation:preset-class="entrance" presentation:preset-id="ooo-entrance-appear"><anim:set smil:begin="0s" smil:dur="0.001s" smil:fill="hold" smil:targetElement="${id}" anim:sub-item="text" smil:attributeName="visibility" smil:to="visible"/></anim:par></anim:par></anim:par>`;
    const list =
      '<text:list-style style:name="L"><text:list-level-style-bullet text:level="1" text:bullet-char="●"/></text:list-style>';
    const deck = flat({
      automatic: list,
      page: `${box("g", `<text:list text:style-name="L">${["a", "b", "c"].map(item).join("")}</text:list>`)}<anim:par presentation:node-type="timing-root"><anim:seq presentation:node-type="main-sequence">${["a", "b", "c"].map(press).join("")}</anim:seq></anim:par>`,
    });
    const [slide] = deck.slides;
    if (!slide) throw new Error("no slide");
    expect(revealsOf(slide).map(({ paragraph }) => paragraph)).toEqual([0, 1, 2]);
    expect(slide.unsupportedMotion ?? []).toEqual([]);
  });
});

describe("a packed presentation whose notes stand on other paper than its slides", () => {
  const given: Given = { page: box("g"), notes: '<presentation:notes style:page-layout-name="PM0"/>' };
  const parts = (bytes: Uint8Array) =>
    Object.fromEntries(Object.entries(unzipSync(bytes)).map(([path, part]) => [path, strFromU8(part)]));
  const size = (styles: string, name: string) =>
    /fo:page-width="([^"]*)" fo:page-height="([^"]*)"/.exec(styles.split(`style:name="${name}"`)[1] ?? "")?.slice(1);

  it("is the file again when nobody touched it", () => {
    const file = packed(given);
    const { deck } = bench.read(file, "deck.odp");
    expect(deck.page).toEqual({ width: expect.closeTo(793.7, 1), height: expect.closeTo(446.46, 1) });
    expect(parts(WRITERS.odp.write(deck, bench.context) as Uint8Array)).toEqual(parts(file));
  });

  it("keeps the paper of notes and handouts when its slides get another shape", () => {
    const { deck } = bench.read(packed(given), "deck.odp");
    const styles = must(
      parts(WRITERS.odp.write({ ...deck, page: { width: 720, height: 540 } }, bench.context) as Uint8Array)[
        "styles.xml"
      ],
    );
    expect(size(styles, "PM0")).toEqual(["21cm", "29.7cm"]);
    expect(size(styles, "PM1")).toEqual(["720pt", "540pt"]);
  });

  it("puts slides of a presentation of another size on its slides' paper, not on that of its notes", () => {
    const one = bench.read(packed(given), "one.odp", "a").deck;
    const other = bench.read(
      packed({
        ...given,
        page: box("g", "<text:p>other</text:p>"),
        ground: 'draw:fill="solid" draw:fill-color="#ffee88"',
      }).slice(),
      "two.odp",
      "b",
    ).deck;
    const small = strFromU8(
      must(unzipSync(packed({ ...given, page: box("g", "<text:p>small</text:p>") }))["styles.xml"]),
    ).replace('fo:page-width="28cm" fo:page-height="15.75cm"', 'fo:page-width="20cm" fo:page-height="15cm"');
    const resized = bench.read(
      zipSync({
        ...unzipSync(packed({ ...given, page: box("g", "<text:p>small</text:p>") })),
        "styles.xml": strToU8(small),
      }),
      "three.odp",
      "c",
    ).deck;
    const all = {
      ...one,
      slides: [...one.slides, ...one.slides.map((slide) => ({ ...slide, id: "again" })), ...resized.slides],
      assets: { ...one.assets, ...resized.assets, ...other.assets },
      styles: { ...one.styles, ...resized.styles },
      masters: { ...one.masters, ...resized.masters },
    };
    const styles = must(parts(WRITERS.odp.write(all, bench.context) as Uint8Array)["styles.xml"]);
    const layouts = [...styles.matchAll(/<style:master-page [^>]*style:page-layout-name="([^"]*)"/g)].map(
      ([, name]) => name,
    );
    expect(layouts.length).toBe(2);
    for (const name of layouts) expect(size(styles, must(name))).toEqual(["28cm", "15.75cm"]);
  });
});

describe("formulas of forms (19.171)", () => {
  it.each([
    ["?f1-?f2", 4],
    ["(?f1-?f2)*(?f1-?f2)", 16],
    ["?f1 -?f2 ", 4],
    ["-?f2+$0", 4],
    ["if(?f2-?f1,1,2)", 2],
    ["sqrt(((?f1-?f2)*(?f1-?f2))+((?f1-?f2)*(?f1-?f2)))", Math.sqrt(32)],
  ])("%s", (text, wanted) => {
    expect(formula(text, (name) => ({ "?f1": 7, "?f2": 3, $0: 7 })[name] ?? Number.NaN)).toBeCloseTo(wanted, 9);
  });
});
