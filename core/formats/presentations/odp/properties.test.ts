import { type Deck, emptyDeck, type Slide, must } from "@unitext/core/model";
import { unresolved } from "@unitext/core/testing";
import { filesBench, sha256 } from "@unitext/core/testing/files";
import { propertiesOf } from "@unitext/core/testing/formatting";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { PNG } from "pngjs";
import { WRITERS } from "../../index";

// Each row is a hand-written piece of OpenDocument 1.3, part 3 (chapters 10, 16, 19 and 20), with what must be read from it.
const photo = new Uint8Array(PNG.sync.write(new PNG({ width: 40, height: 30 })));
const bench = filesBench(photo);
const { context } = bench;
function read(bytes: Uint8Array): Deck {
  const found = bench.read(bytes, "other.odp");
  return found.deck;
}
const bare = (parts: Record<string, Uint8Array>) => ({
  ...parts,
  "meta.xml": strToU8(strFromU8(must(parts["meta.xml"])).replace(/<meta:user-defined[\s\S]*<\/meta:user-defined>/, "")),
});
const base: Record<string, Uint8Array> = {
  ...bare(
    unzipSync(
      WRITERS.odp.write(
        {
          ...emptyDeck("d", "D"),
          slides: [{ id: "s", parent: null, arrangement: "blank", notes: [], hidden: false, elements: [] }],
        },
        context,
      ) as Uint8Array,
    ),
  ),
  "Pictures/a.png": photo,
};

interface Given {
  graphic?: string;
  inGraphic?: string;
  paragraph?: string;
  inParagraph?: string;
  letters?: string;
  list?: string;
  definitions?: string;
  shape?: string;
  more?: string;
}
const FRAME = 'svg:x="2.54cm" svg:y="1in" svg:width="144pt" svg:height="25.4mm"';
const BOX = `<draw:frame draw:name="One" draw:style-name="g" draw:layer="layout" ${FRAME}><draw:text-box><text:p text:style-name="p"><text:span text:style-name="t">word</text:span></text:p></draw:text-box></draw:frame>`;
function slideOf({
  graphic = "",
  inGraphic = "",
  paragraph = "",
  inParagraph = "",
  letters = "",
  list = "",
  definitions = "",
  shape = BOX,
  more = "",
}: Given): Deck {
  const styles = `<style:style style:name="g" style:family="graphic"><style:graphic-properties ${graphic}>${inGraphic}</style:graphic-properties></style:style><style:style style:name="p" style:family="paragraph"><style:paragraph-properties ${paragraph}>${inParagraph}</style:paragraph-properties></style:style><style:style style:name="t" style:family="text"><style:text-properties ${letters}/></style:style>${list}${more}`;
  const content = strFromU8(must(base["content.xml"]))
    .replace("<office:automatic-styles>", `<office:automatic-styles>${styles}`)
    .replace("<presentation:notes>", `${shape}<presentation:notes>`);
  const defined = strFromU8(must(base["styles.xml"])).replace("<office:styles>", `<office:styles>${definitions}`);
  return read(zipSync({ ...base, "content.xml": strToU8(content), "styles.xml": strToU8(defined) }));
}
/** What another program reads of what Unitext writes, with nothing of the file that it came from. */
function rewritten(deck: Deck): Deck {
  const slides = deck.slides.map(({ sourcePart: _, ...slide }) => ({
    ...slide,
    elements: slide.elements.map(({ sourceShape: __, ...element }) => element),
  })) as Slide[];
  const assets = Object.fromEntries(Object.entries(deck.assets).filter(([name]) => !name.startsWith("kept/")));
  const parts = unzipSync(WRITERS.odp.write({ ...deck, assets, slides }, context) as Uint8Array);
  expect(unresolved(parts)).toEqual([]);
  return read(zipSync(bare(parts)));
}

type Row = [name: string, given: Given, wanted: object];
const check = (rows: Row[], part: (deck: Deck) => unknown) => {
  it.each(rows)("%s", (_, given, wanted) => {
    const deck = slideOf(given);
    expect(part(deck)).toMatchObject(wanted);
    expect(part(rewritten(deck))).toMatchObject(wanted);
  });
};

describe("characters (20.181 and after)", () => {
  const row = (name: string, letters: string, wanted: object): Row => [name, { letters }, wanted];
  check(
    [
      row("size", 'fo:font-size="24.5pt"', { properties: { size: 24.5 } }),
      row("bold", 'fo:font-weight="bold"', { marks: ["strong"] }),
      row("italic", 'fo:font-style="italic"', { marks: ["emphasis"] }),
      row("struck", 'style:text-line-through-style="solid"', { marks: ["strike"] }),
      row("underlined", 'style:text-underline-style="solid" style:text-underline-width="auto"', {
        properties: { underline: "single" },
      }),
      row("underlined twice", 'style:text-underline-style="solid" style:text-underline-type="double"', {
        properties: { underline: "double" },
      }),
      row("underlined heavily", 'style:text-underline-style="solid" style:text-underline-width="bold"', {
        properties: { underline: "heavy" },
      }),
      row("underlined in dots", 'style:text-underline-style="dotted"', { properties: { underline: "dotted" } }),
      row("underlined in dashes", 'style:text-underline-style="dash"', { properties: { underline: "dashed" } }),
      row("underlined in a wave", 'style:text-underline-style="wave"', { properties: { underline: "wavy" } }),
      row("capitals", 'fo:text-transform="uppercase"', { properties: { caps: "all" } }),
      row("small capitals", 'fo:font-variant="small-caps"', { properties: { caps: "small" } }),
      row("raised", 'style:text-position="30% 66%"', { properties: { rise: 0.3 } }),
      row("lowered", 'style:text-position="-25% 66%"', { properties: { rise: -0.25 } }),
      row("spaced", 'fo:letter-spacing="3pt"', { properties: { spacing: 3 } }),
      row("highlighted", 'fo:background-color="#fff2a8"', { properties: { highlight: "#fff2a8" } }),
      row("in a language", 'fo:language="es" fo:country="MX"', { properties: { language: "es-MX" } }),
      row("in a colour", 'fo:color="#7A2E57"', { properties: { colour: "#7a2e57" } }),
      row("in a font", 'fo:font-family="Caladea"', { properties: { font: "Caladea" } }),
    ],
    (deck) => (propertiesOf(deck).text as { runs: object[] }[])[0]?.runs[0],
  );
});

describe("paragraphs (20.216 and after)", () => {
  const row = (name: string, paragraph: string, wanted: object, inParagraph = ""): Row => [
    name,
    { paragraph, inParagraph },
    wanted,
  ];
  check(
    [
      row("in the middle", 'fo:text-align="center"', { align: "centre" }),
      row("to the end", 'fo:text-align="end"', { align: "end" }),
      row("indents", 'fo:margin-left="36pt" fo:text-indent="-0.25in"', { properties: { left: 36, first: -18 } }),
      row("the right indent", 'fo:margin-right="10pt"', { properties: { right: 10 } }),
      row("space before", 'fo:margin-top="6pt"', { properties: { before: { points: 6 } } }),
      row("space after", 'fo:margin-bottom="1cm"', {
        properties: { after: { points: expect.closeTo(28.35, 2) as unknown } },
      }),
      row("lines in a share", 'fo:line-height="150%"', { properties: { line: { times: 1.5 } } }),
      row("lines in points", 'fo:line-height="24pt"', { properties: { line: { points: 24 } } }),
      row(
        "tab stops at which text ends, stands in the middle, or has its decimal sign",
        "",
        {
          properties: {
            tabs: [
              { at: 72, align: "end" },
              { at: 144, align: "centre" },
              { at: 200, align: "decimal" },
            ],
          },
        },
        '<style:tab-stops><style:tab-stop style:position="1in" style:type="right"/><style:tab-stop style:position="144pt" style:type="center"/><style:tab-stop style:position="200pt" style:type="char" style:char="."/></style:tab-stops>',
      ),
      row(
        "tab stops",
        "",
        { properties: { tabs: [72, 144] } },
        '<style:tab-stops><style:tab-stop style:position="1in"/><style:tab-stop style:position="144pt"/></style:tab-stops>',
      ),
      row("from right to left", 'style:writing-mode="rl-tb"', { properties: { direction: "rtl" } }),
    ],
    (deck) => (propertiesOf(deck).text as { runs: object[] }[])[0],
  );

  const lines = (...inner: string[]) =>
    `<draw:frame draw:name="One" draw:style-name="g" draw:layer="layout" ${FRAME}><draw:text-box>${inner.join("")}</draw:text-box></draw:frame>`;
  const small =
    '<style:style style:name="small" style:family="paragraph"><style:text-properties fo:font-size="9pt"/></style:style>';
  check(
    [
      [
        "lines without words are as high as their style says, between words and after them",
        {
          more: small,
          shape: lines(
            "<text:p>one</text:p>",
            '<text:p text:style-name="small"/>',
            "<text:p>two</text:p>",
            '<text:p text:style-name="small"/>',
          ),
        },
        [{}, { runs: [], properties: { words: { size: 9 } } }, {}, { runs: [], properties: { words: { size: 9 } } }],
      ],
    ],
    (deck) => propertiesOf(deck).text,
  );

  const listed = (style: string): string =>
    `<draw:frame draw:name="One" draw:style-name="g" draw:layer="layout" ${FRAME}><draw:text-box><text:list text:style-name="l"><text:list-item${style}><text:p text:style-name="p">word</text:p><text:list><text:list-item><text:p text:style-name="p">deeper</text:p></text:list-item></text:list></text:list-item></text:list></draw:text-box></draw:frame>`;
  const level = (inner: string) => `<text:list-style style:name="l">${inner}</text:list-style>`;
  const properties = '<style:list-level-properties text:space-before="18pt" text:min-label-width="18pt"/>';
  check(
    [
      [
        "bullets in their colour and size",
        {
          list: level(
            `<text:list-level-style-bullet text:level="1" text:bullet-char="▪">${properties}<style:text-properties fo:color="#b23a30" fo:font-size="80%"/></text:list-level-style-bullet><text:list-level-style-bullet text:level="2" text:bullet-char="–">${properties}</text:list-level-style-bullet>`,
          ),
          shape: listed(""),
        },
        {
          text: [
            { kind: "bullet", level: 0, properties: { bullet: { character: "▪", colour: "#b23a30", size: 0.8 } } },
            { kind: "bullet", level: 1, properties: { bullet: { character: "–" } } },
          ],
        },
      ],
      ...(["1", "a", "A", "i", "I"] as const).map(
        (format): Row => [
          `numbers as ${format})`,
          {
            list: level(
              `<text:list-level-style-number text:level="1" style:num-format="${format}" style:num-suffix=")">${properties}</text:list-level-style-number>`,
            ),
            shape: listed(""),
          },
          { text: [{ kind: "number", properties: { bullet: { scheme: `${format})` } } }, {}] },
        ],
      ),
      [
        "a picture before an item",
        {
          list: level(
            `<text:list-level-style-image text:level="1" xlink:href="Pictures/a.png" xlink:type="simple">${properties}</text:list-level-style-image>`,
          ),
          shape: listed(""),
        },
        {
          text: [
            {
              kind: "bullet",
              properties: { left: 36, first: -18, bullet: { picture: `sign-${sha256(photo).slice(0, 24)}.png` } },
            },
            {},
          ],
        },
      ],
      [
        "numbers that go on",
        {
          list: level(
            `<text:list-level-style-number text:level="1" style:num-format="1" style:num-suffix=".">${properties}</text:list-level-style-number>`,
          ),
          shape: listed(' text:start-value="5"'),
        },
        { text: [{ kind: "number", start: 5 }, {}] },
      ],
    ],
    propertiesOf,
  );
});

describe("how text stands in its shape", () => {
  const row = (name: string, graphic: string, wanted: object, inGraphic = ""): Row => [
    name,
    { graphic, inGraphic },
    wanted,
  ];
  check(
    [
      row("place and size in any unit", "", { frame: { x: 72, y: 72, width: 144, height: 72 } }),
      row(
        "insets",
        'fo:padding-left="0pt" fo:padding-top="3.6pt" fo:padding-right="14.4pt" fo:padding-bottom="7.2pt"',
        { box: { insets: [0, 3.6, 14.4, 7.2] } },
      ),
      row("one inset for all", 'fo:padding="5pt"', { box: { insets: [5, 5, 5, 5] } }),
      row("in the middle of its height", 'draw:textarea-vertical-align="middle"', { box: { anchor: "middle" } }),
      row("at the bottom", 'draw:textarea-vertical-align="bottom"', { box: { anchor: "bottom" } }),
      row(
        "in columns",
        "",
        { box: { columns: 3, gap: 14.4 } },
        '<style:columns fo:column-count="3" fo:column-gap="14.4pt"/>',
      ),
      row("without breaks", 'draw:auto-grow-width="true"', { box: { wrap: false } }),
      row("made smaller to fit", 'draw:fit-to-size="shrink-to-fit"', { box: { fit: "shrink" } }),
      row("in a shape that grows", 'draw:auto-grow-height="true"', { box: { fit: "grow" } }),
    ],
    propertiesOf,
  );
});

describe("shapes (10.3)", () => {
  const rect = (attributes = FRAME, inner = "") =>
    `<draw:rect draw:name="One" draw:style-name="g" draw:layer="layout" ${attributes}>${inner}</draw:rect>`;
  const row = (name: string, graphic: string, wanted: object, definitions = "", shape = rect()): Row => [
    name,
    { graphic, definitions, shape },
    wanted,
  ];
  const FILLED = 'draw:fill="solid" draw:fill-color="#0f5c63" draw:stroke="none"';
  check(
    [
      row("a plain fill that lets through", 'draw:fill="solid" draw:fill-color="#0f5c63" draw:opacity="40%"', {
        fill: { kind: "solid", colour: "#0f5c63", opacity: 0.4 },
      }),
      // Gradients of the format turn against the clock, from the top.
      row(
        "a gradient along an angle",
        'draw:fill="gradient" draw:fill-gradient-name="shore"',
        {
          fill: {
            kind: "gradient",
            form: "linear",
            angle: 0,
            stops: [
              { at: 0, colour: "#ffffff" },
              { at: 1, colour: "#0f5c63" },
            ],
          },
        },
        '<draw:gradient draw:name="shore" draw:style="linear" draw:start-color="#ffffff" draw:end-color="#0f5c63" draw:angle="90deg"/>',
      ),
      // `draw:style` of gradients, OpenDocument 1.3, part 3 (the words from memory): from the middle outward, the first colour in the middle.
      row(
        "a gradient from the middle to both sides",
        'draw:fill="gradient" draw:fill-gradient-name="shore"',
        {
          fill: {
            kind: "gradient",
            form: "linear",
            angle: 0,
            stops: [
              { at: 0, colour: "#0f5c63" },
              { at: 0.5, colour: "#ffffff" },
              { at: 1, colour: "#0f5c63" },
            ],
          },
        },
        '<draw:gradient draw:name="shore" draw:style="axial" draw:start-color="#ffffff" draw:end-color="#0f5c63" draw:angle="90deg"/>',
      ),
      // `draw:opacity` (16.40.7, the number from memory): a gradient of opacities over a colour, or over a gradient of colours; `draw:border` is where it has not begun.
      row(
        "a colour that fades",
        'draw:fill="solid" draw:fill-color="#0f5c63" draw:opacity-name="fade"',
        {
          fill: {
            kind: "gradient",
            form: "linear",
            angle: 0,
            stops: [
              { at: 0.25, colour: "#0f5c63", opacity: 0 },
              { at: 1, colour: "#0f5c63" },
            ],
          },
        },
        '<draw:opacity draw:name="fade" draw:style="linear" draw:start="0%" draw:end="100%" draw:angle="90deg" draw:border="25%"/>',
      ),
      row(
        "a gradient that fades where it does",
        'draw:fill="gradient" draw:fill-gradient-name="shore" draw:opacity-name="fade"',
        {
          fill: {
            kind: "gradient",
            form: "radial",
            angle: 0,
            stops: [
              { at: 0, colour: "#0f5c63", opacity: 0.2 },
              { at: 0.5, colour: "#ffffff", opacity: 0.8 },
            ],
          },
        },
        '<draw:gradient draw:name="shore" draw:style="radial" draw:start-color="#ffffff" draw:end-color="#0f5c63" draw:border="50%"/><draw:opacity draw:name="fade" draw:style="radial" draw:start="80%" draw:end="20%" draw:border="50%"/>',
      ),
      row(
        "a gradient that lets through as a whole",
        'draw:fill="gradient" draw:fill-gradient-name="shore" draw:opacity="40%"',
        {
          fill: {
            kind: "gradient",
            form: "linear",
            angle: 0,
            stops: [
              { at: 0, colour: "#ffffff", opacity: 0.4 },
              { at: 1, colour: "#0f5c63", opacity: 0.4 },
            ],
          },
        },
        '<draw:gradient draw:name="shore" draw:style="linear" draw:start-color="#ffffff" draw:end-color="#0f5c63" draw:angle="90deg"/>',
      ),
      row(
        "a hatch over a colour",
        'draw:fill="hatch" draw:fill-hatch-name="lines" draw:fill-hatch-solid="true" draw:fill-color="#ffffff"',
        { fill: { kind: "pattern", pattern: "rising", fore: "#0f5c63", back: "#ffffff" } },
        '<draw:hatch draw:name="lines" draw:style="single" draw:color="#0f5c63" draw:distance="4pt" draw:rotation="450"/>',
      ),
      row(
        "a picture that is stretched",
        'draw:fill="bitmap" draw:fill-image-name="photo" style:repeat="stretch"',
        { fill: { kind: "picture" } },
        '<draw:fill-image draw:name="photo" xlink:href="Pictures/a.png" xlink:type="simple"/>',
      ),
      row(
        "a picture in tiles",
        'draw:fill="bitmap" draw:fill-image-name="photo" style:repeat="repeat"',
        { fill: { kind: "picture", tile: true } },
        '<draw:fill-image draw:name="photo" xlink:href="Pictures/a.png" xlink:type="simple"/>',
      ),
      row("an outline", 'draw:fill="none" draw:stroke="solid" svg:stroke-width="3pt" svg:stroke-color="#20302e"', {
        stroke: { colour: "#20302e", width: 3 },
      }),
      row(
        "an outline in dashes",
        'draw:fill="none" draw:stroke="dash" draw:stroke-dash="fine" svg:stroke-width="3pt" svg:stroke-color="#20302e"',
        { stroke: { dash: "dash" } },
        '<draw:stroke-dash draw:name="fine" draw:style="rect" draw:dots1="1" draw:dots1-length="400%" draw:distance="300%"/>',
      ),
      row(
        "a shadow",
        `${FILLED} draw:shadow="visible" draw:shadow-offset-x="3pt" draw:shadow-offset-y="3pt" draw:shadow-color="#000000" draw:shadow-opacity="40%"`,
        { shadow: { colour: "#000000", opacity: 0.4, direction: 45 } },
      ),
      row(
        "turned against the clock in radians about where it stands",
        FILLED,
        { rotation: 45, frame: { width: 144, height: 72 } },
        "",
        rect('svg:width="144pt" svg:height="72pt" draw:transform="rotate (-0.785398163397448) translate (144pt 72pt)"'),
      ),
      row(
        "an ellipse",
        FILLED,
        { kind: "shape" },
        "",
        `<draw:ellipse draw:name="One" draw:style-name="g" draw:layer="layout" ${FRAME}/>`,
      ),
      row("corners that are round", FILLED, { kind: "shape" }, "", rect(`${FRAME} draw:corner-radius="10pt"`)),
      row(
        "a form by its path",
        FILLED,
        { kind: "shape" },
        "",
        `<draw:path draw:name="One" draw:style-name="g" draw:layer="layout" ${FRAME} svg:viewBox="0 0 100 50" svg:d="M0 50C25 0 75 0 100 50Z"/>`,
      ),
      row(
        "a form by its corners",
        FILLED,
        { kind: "shape" },
        "",
        `<draw:polygon draw:name="One" draw:style-name="g" draw:layer="layout" ${FRAME} svg:viewBox="0 0 100 50" draw:points="0,50 50,0 100,50"/>`,
      ),
      row(
        "a line with ends",
        'draw:stroke="solid" svg:stroke-width="2pt" svg:stroke-color="#20302e" draw:marker-end="tip" draw:marker-end-width="6pt"',
        { kind: "shape", stroke: { width: 2, tail: { size: 3 } } },
        '<draw:marker draw:name="tip" svg:viewBox="0 0 20 30" svg:d="m10 0-10 30h20z"/>',
        '<draw:line draw:name="One" draw:style-name="g" draw:layer="layout" svg:x1="10pt" svg:y1="20pt" svg:x2="110pt" svg:y2="70pt"/>',
      ),
    ],
    propertiesOf,
  );
});

// Halfway between white and black the colour is a grey of 128 (CSS Color 4, 12: interpolation in sRGB); such a fill is told before it is written.
it("a gradient that fades elsewhere than it runs has stops for both", () => {
  const deck = slideOf({
    graphic: 'draw:fill="gradient" draw:fill-gradient-name="shore" draw:opacity-name="fade"',
    definitions:
      '<draw:gradient draw:name="shore" draw:style="linear" draw:start-color="#ffffff" draw:end-color="#000000" draw:angle="90deg"/><draw:opacity draw:name="fade" draw:style="linear" draw:start="50%" draw:end="100%" draw:angle="90deg" draw:border="50%"/>',
  });
  expect(propertiesOf(deck)).toMatchObject({
    fill: {
      stops: [
        { at: 0, colour: "#ffffff", opacity: 0.5 },
        { at: 0.5, colour: "#808080", opacity: 0.5 },
        { at: 1, colour: "#000000" },
      ],
    },
  });
});

it("an ellipse is the form of that name", () =>
  expect(
    propertiesOf(
      slideOf({
        graphic: 'draw:fill="solid" draw:fill-color="#0f5c63"',
        shape: `<draw:ellipse draw:name="One" draw:style-name="g" draw:layer="layout" ${FRAME}/>`,
      }),
    ),
  ).toMatchObject({ geometry: { preset: "ellipse" } }));

describe("pictures (10.4.4)", () => {
  const picture = `<draw:frame draw:name="One" draw:style-name="g" draw:layer="layout" ${FRAME}><draw:image xlink:href="Pictures/a.png" xlink:type="simple"/><svg:desc>A dune</svg:desc></draw:frame>`;
  const row = (name: string, graphic: string, wanted: object): Row => [name, { graphic, shape: picture }, wanted];
  check(
    [
      // 40 by 30 pixels at 96 to the inch are 30 by 22.5 points: 3 points off the left are a tenth.
      row("cut by lengths", 'fo:clip="rect(2.25pt, 0pt, 0pt, 3pt)"', {
        crop: { left: 0.1, top: 0.1, right: 0, bottom: 0 },
        alt: "A dune",
      }),
      row("lets through", 'draw:image-opacity="35%"', { opacity: 0.35 }),
      row("in greys", 'draw:color-mode="greyscale"', { recolour: "grey" }),
      row("in black and white", 'draw:color-mode="mono"', { recolour: "mono" }),
      row("washed out", 'draw:color-mode="watermark"', { recolour: "washout" }),
      row("in a mirror", 'style:mirror="horizontal"', { flip: "x" }),
    ],
    propertiesOf,
  );
});

describe("tables (9.1)", () => {
  const cell = (text: string, attributes = "", style = "c") =>
    `<table:table-cell table:style-name="${style}"${attributes}>${text ? `<text:p>${text}</text:p>` : "<text:p/>"}</table:table-cell>`;
  const table = (rows: string) =>
    `<draw:frame draw:name="One" draw:layer="layout" svg:x="72pt" svg:y="72pt" svg:width="288pt" svg:height="72pt"><table:table><table:table-column table:style-name="w"/><table:table-column table:style-name="w"/>${rows}</table:table></draw:frame>`;
  const styles = (properties: string, inner = "") =>
    `<style:style style:name="w" style:family="table-column"><style:table-column-properties style:column-width="144pt"/></style:style><style:style style:name="h" style:family="table-row"><style:table-row-properties style:row-height="36pt"/></style:style><style:style style:name="c" style:family="table-cell"><style:graphic-properties ${properties}/>${inner}</style:style><style:style style:name="plain" style:family="table-cell"/>`;
  const row = (...cells: string[]) => `<table:table-row table:style-name="h">${cells.join("")}</table:table-row>`;
  check(
    [
      [
        "widths, heights and a heading",
        {
          more: styles(""),
          shape: table(
            `<table:table-header-rows>${row(cell("a"), cell("b"))}</table:table-header-rows>${row(cell("c"), cell("d"))}`,
          ),
        },
        { widths: [144, 144], heights: [36, 36], header: 1 },
      ],
      [
        "a cell over two columns",
        {
          more: styles(""),
          shape: table(
            row(cell("a", ' table:number-columns-spanned="2"'), "<table:covered-table-cell/>") +
              row(cell("c"), cell("d")),
          ),
        },
        {
          rows: [
            [{ columns: 2 }, null],
            [{}, {}],
          ],
        },
      ],
      [
        "a cell over two rows",
        {
          more: styles(""),
          shape: table(
            row(cell("a", ' table:number-rows-spanned="2"'), cell("b")) + row("<table:covered-table-cell/>", cell("d")),
          ),
        },
        {
          rows: [
            [{ rows: 2 }, {}],
            [null, {}],
          ],
        },
      ],
      [
        "fill, margins and anchor",
        {
          more: styles(
            'draw:fill="solid" draw:fill-color="#0f5c63" fo:padding="0pt" draw:textarea-vertical-align="middle"',
          ),
          shape: table(row(cell("a"), cell("b", "", "plain"))),
        },
        { rows: [[{ fill: { kind: "solid", colour: "#0f5c63" }, insets: [0, 0, 0, 0], anchor: "middle" }, {}]] },
      ],
      [
        "a cell without words in small letters",
        {
          more: `${styles("")}<style:style style:name="s" style:family="table-cell"><style:text-properties fo:font-size="10pt"/></style:style>`,
          shape: table(row(cell("a"), cell("", "", "s"))),
        },
        {
          rows: [
            [{ text: [{ runs: [{ text: "a" }] }] }, { text: [{ runs: [], properties: { words: { size: 10 } } }] }],
          ],
        },
      ],
      [
        "borders",
        {
          more: styles("", '<style:paragraph-properties fo:border-bottom="2pt solid #7a2e57"/>'),
          shape: table(row(cell("a"), cell("b", "", "plain"))),
        },
        { rows: [[{ borders: { bottom: { colour: "#7a2e57", width: 2 } } }, {}]] },
      ],
    ],
    propertiesOf,
  );
});
