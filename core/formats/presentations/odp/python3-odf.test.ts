import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { type Deck, type Element, revealsOf, type Slide, textOf, must } from "@unitext/core/model";
import { filesBench, withoutTags } from "@unitext/core/testing/files";
import { propertiesOf } from "@unitext/core/testing/formatting";
import { type ReadResult, WRITERS } from "../../index";

// Each row is a page that Debian's python3-odf writes, which takes only elements and attributes that OpenDocument 1.2 has; beside it, what the standard says that it means (part 1, chapters 9, 10, 19 and 20; numbers of sections from memory).
type Node = [name: string, attributes: Record<string, string>, ...children: (Node | string)[]];
interface Page {
  common?: Node[];
  styles?: Node[];
  page?: Record<string, string>;
  shapes: Node[];
}
type Row = [name: string, page: Page, wanted: object];

const AT = { x: "1in", y: "1in", width: "4in", height: "2in" };
let names = 0;
/** A style of a family with properties by their elements. */
function styled(
  family: string,
  properties: Record<string, Record<string, string>>,
  more: Record<string, string> = {},
  inside: Node[] = [],
): { name: string; node: Node } {
  const name = `${family.slice(0, 1)}${++names}`;
  return {
    name,
    node: [
      "style.Style",
      { name, family, ...more },
      ...Object.entries(properties).map(
        ([element, attributes]): Node => [
          `style.${element}`,
          attributes,
          ...(element === "ParagraphProperties" ? inside : []),
        ],
      ),
    ],
  };
}
const words = (text: string, style?: string): Node => ["text.P", style ? { stylename: style } : {}, text];
const box = (style: string | undefined, ...content: Node[]): Node => [
  "draw.Frame",
  { ...AT, layer: "layout", ...(style ? { stylename: style } : {}) },
  ["draw.TextBox", {}, ...content],
];

const character = (properties: Record<string, string>): Page => {
  const letters = styled("text", { TextProperties: properties });
  return {
    styles: [letters.node],
    shapes: [box(undefined, ["text.P", {}, ["text.Span", { stylename: letters.name }, "word"]])],
  };
};
const paragraph = (properties: Record<string, string>, inside: Node[] = []): Page => {
  const stands = styled("paragraph", { ParagraphProperties: properties }, {}, inside);
  return { styles: [stands.node], shapes: [box(undefined, words("word", stands.name))] };
};
const shape = (
  element: string,
  attributes: Record<string, string>,
  graphic: Record<string, string> = { fill: "solid", fillcolor: "#5e7b35" },
  ...content: Node[]
): Page => {
  const looks = styled("graphic", { GraphicProperties: graphic });
  return {
    styles: [looks.node],
    shapes: [[element, { layer: "layout", stylename: looks.name, ...attributes }, ...content]],
  };
};
const frame = (graphic: Record<string, string>): Page => {
  const looks = styled("graphic", { GraphicProperties: graphic });
  return { styles: [looks.node], shapes: [box(looks.name, words("word"))] };
};
const look = (wanted: object) => ({ text: [{ runs: [{ text: "word", properties: wanted }] }] });
const standing = (wanted: object) => ({ text: [{ properties: wanted }] });

const CHARACTERS: Row[] = [
  ["a size in points", character({ fontsize: "27pt" }), look({ size: 27 })],
  ["a colour", character({ color: "#7a2e57" }), look({ colour: "#7a2e57" })],
  ["a family", character({ fontfamily: "Georgia" }), look({ font: "Georgia" })],
  [
    "bold and slanted",
    character({ fontweight: "bold", fontstyle: "italic" }),
    { text: [{ runs: [{ marks: ["strong", "emphasis"] }] }] },
  ],
  ["a line through", character({ textlinethroughstyle: "solid" }), { text: [{ runs: [{ marks: ["strike"] }] }] }],
  ["a line below", character({ textunderlinestyle: "solid" }), look({ underline: "single" })],
  [
    "two lines below",
    character({ textunderlinestyle: "solid", textunderlinetype: "double" }),
    look({ underline: "double" }),
  ],
  ["a wave below", character({ textunderlinestyle: "wave" }), look({ underline: "wavy" })],
  ["dots below", character({ textunderlinestyle: "dotted" }), look({ underline: "dotted" })],
  ["capitals", character({ texttransform: "uppercase" }), look({ caps: "all" })],
  ["small capitals", character({ fontvariant: "small-caps" }), look({ caps: "small" })],
  ["room between letters", character({ letterspacing: "3pt" }), look({ spacing: 3 })],
  ["a colour behind", character({ backgroundcolor: "#ffff00" }), look({ highlight: "#ffff00" })],
  ["above the line", character({ textposition: "super 58%" }), look({ rise: expect.any(Number) })],
  ["another language", character({ language: "es", country: "ES" }), look({ language: "es-ES" })],
  [
    "a link",
    {
      shapes: [
        box(undefined, ["text.P", {}, ["text.A", { href: "https://example.org/tides", type: "simple" }, "word"]]),
      ],
    },
    { text: [{ runs: [{ text: "word", link: "https://example.org/tides" }] }] },
  ],
  [
    "a break in a line and a tab",
    { shapes: [box(undefined, ["text.P", {}, "one", ["text.LineBreak", {}], "two", ["text.Tab", {}], "three"])] },
    { text: [{ runs: [{ text: "one\ntwo\tthree" }] }] },
  ],
];

const PARAGRAPHS: Row[] = [
  ["in the middle", paragraph({ textalign: "center" }), { text: [{ align: "centre" }] }],
  ["at the end", paragraph({ textalign: "end" }), { text: [{ align: "end" }] }],
  [
    "room before and after",
    paragraph({ margintop: "12pt", marginbottom: "6pt" }),
    standing({ before: { points: 12 }, after: { points: 6 } }),
  ],
  ["lines by percent", paragraph({ lineheight: "150%" }), standing({ line: { times: 1.5 } })],
  ["lines so many points apart", paragraph({ lineheight: "30pt" }), standing({ line: { points: 30 } })],
  [
    "edges and a first line",
    paragraph({ marginleft: "40pt", marginright: "20pt", textindent: "-10pt" }),
    standing({ left: 40, right: 20, first: -10 }),
  ],
  ["from right to left", paragraph({ writingmode: "rl-tb" }), standing({ direction: "rtl" })],
  [
    "tab stops",
    paragraph({}, [
      [
        "style.TabStops",
        {},
        ["style.TabStop", { position: "72pt" }],
        ["style.TabStop", { position: "216pt", type: "right" }],
      ],
    ]),
    standing({ tabs: [72, { at: 216, align: "end" }] }),
  ],
  [
    "items with a sign of their own, and what is below them",
    {
      styles: [
        [
          "text.ListStyle",
          { name: "L1" },
          [
            "text.ListLevelStyleBullet",
            { level: "1", bulletchar: "►" },
            ["style.ListLevelProperties", { spacebefore: "10pt", minlabelwidth: "20pt" }],
          ],
          [
            "text.ListLevelStyleBullet",
            { level: "2", bulletchar: "–" },
            ["style.ListLevelProperties", { spacebefore: "30pt", minlabelwidth: "20pt" }],
          ],
        ],
      ],
      shapes: [
        box(undefined, [
          "text.List",
          { stylename: "L1" },
          ["text.ListItem", {}, words("one"), ["text.List", {}, ["text.ListItem", {}, words("two")]]],
        ]),
      ],
    },
    {
      text: [
        { kind: "bullet", level: 0, properties: { left: 30, first: -20, bullet: { character: "►" } } },
        { kind: "bullet", level: 1, properties: { left: 50, first: -20, bullet: { character: "–" } } },
      ],
    },
  ],
  [
    "letters in brackets, from the third",
    {
      styles: [
        [
          "text.ListStyle",
          { name: "L2" },
          [
            "text.ListLevelStyleNumber",
            { level: "1", numformat: "a", numprefix: "(", numsuffix: ")" },
            ["style.ListLevelProperties", { minlabelwidth: "24pt" }],
          ],
        ],
      ],
      shapes: [
        box(undefined, [
          "text.List",
          { stylename: "L2" },
          ["text.ListItem", { startvalue: "3" }, words("one")],
          ["text.ListItem", {}, words("two")],
        ]),
      ],
    },
    { text: [{ kind: "number", start: 3, properties: { bullet: { scheme: "(a)" } } }, { kind: "number" }] },
  ],
];

const BOXES: Row[] = [
  [
    "a place",
    { shapes: [box(undefined, words("word"))] },
    { kind: "text", frame: { x: 72, y: 72, width: 288, height: 144 } },
  ],
  ["words in the middle", frame({ textareaverticalalign: "middle" }), { box: { anchor: "middle" } }],
  ["words at the bottom", frame({ textareaverticalalign: "bottom" }), { box: { anchor: "bottom" } }],
  [
    "paddings",
    frame({ paddingleft: "4pt", paddingtop: "5pt", paddingright: "6pt", paddingbottom: "7pt" }),
    { box: { insets: [4, 5, 6, 7] } },
  ],
  ["a box that grows", frame({ autogrowheight: "true" }), { box: { fit: "grow" } }],
  [
    "a fill seen through",
    frame({ fill: "solid", fillcolor: "#0f5c63", opacity: "60%" }),
    { fill: { kind: "solid", colour: "#0f5c63", opacity: 0.6 } },
  ],
  [
    "a line around it",
    frame({ stroke: "solid", strokewidth: "2.5pt", strokecolor: "#b23a30" }),
    { stroke: { width: 2.5, colour: "#b23a30" } },
  ],
];

const GREEN = styled("graphic", { GraphicProperties: { fill: "solid", fillcolor: "#5e7b35" } });
const SHAPES: Row[] = [
  [
    "a rectangle with words",
    shape("draw.Rect", AT, undefined, words("word")),
    {
      kind: "shape",
      geometry: { preset: "rect" },
      frame: { x: 72, width: 288 },
      fill: { colour: "#5e7b35" },
      text: [{ runs: [{ text: "word" }] }],
    },
  ],
  ["round corners", shape("draw.Rect", { ...AT, cornerradius: "36pt" }), { geometry: { preset: "roundRect" } }],
  ["an ellipse", shape("draw.Ellipse", AT), { geometry: { preset: "ellipse" } }],
  [
    "a circle",
    shape("draw.Circle", { ...AT, width: "2in" }),
    { geometry: { preset: "ellipse" }, frame: { width: 144, height: 144 } },
  ],
  [
    "a line between two ends",
    shape(
      "draw.Line",
      { x1: "1in", y1: "2in", x2: "3in", y2: "1in" },
      { stroke: "solid", strokecolor: "#20302e", strokewidth: "2pt" },
    ),
    {
      kind: "shape",
      geometry: { preset: "line" },
      frame: { x: 72, y: 72, width: 144, height: 72 },
      flip: "y",
      stroke: { colour: "#20302e", width: 2 },
    },
  ],
  [
    "a polygon",
    shape("draw.Polygon", { ...AT, viewbox: "0 0 100 100", points: "0,0 100,0 50,100" }),
    { kind: "shape", geometry: { paths: [{ d: expect.stringMatching(/^M ?0 0 ?L/), fill: true }] } },
  ],
  [
    "a form of its own",
    shape("draw.Path", { ...AT, viewbox: "0 0 100 100", d: "M0 0L100 0C100 50 50 100 0 100Z" }),
    { geometry: { paths: [{ d: expect.stringContaining("C") }] } },
  ],
  [
    "a turned one",
    shape("draw.Rect", { width: "4in", height: "2in", transform: "rotate(-0.7853981634) translate(3in 1in)" }),
    { rotation: expect.closeTo(45, 0) },
  ],
  [
    "a star by its formulas",
    shape("draw.CustomShape", AT, undefined, words("word"), [
      "draw.EnhancedGeometry",
      { viewbox: "0 0 100 100", type: "non-primitive", enhancedpath: "M 0 ?f0 L 50 0 100 ?f0 Z N" },
      ["draw.Equation", { name: "f0", formula: "50+50" }],
    ]),
    {
      kind: "shape",
      geometry: { paths: [{ d: expect.stringMatching(/^M ?0 (100|144)/) }] },
      text: [{ runs: [{ text: "word" }] }],
    },
  ],
  [
    "a shadow with a hard edge",
    shape("draw.Rect", AT, {
      fill: "solid",
      fillcolor: "#ffffff",
      shadow: "visible",
      shadowcolor: "#336699",
      shadowopacity: "50%",
      shadowoffsetx: "3pt",
      shadowoffsety: "4pt",
    }),
    { shadow: { colour: "#336699", opacity: 0.5, distance: 5, blur: 0 } },
  ],
  [
    "a run of two colours",
    {
      common: [
        ["draw.Gradient", { name: "Dusk", style: "linear", startcolor: "#0b1f4b", endcolor: "#b9771f", angle: "900" }],
      ],
      ...shape("draw.Rect", AT, { fill: "gradient", fillgradientname: "Dusk" }),
    },
    {
      fill: {
        kind: "gradient",
        form: "linear",
        stops: [{ colour: expect.any(String) }, { colour: expect.any(String) }],
      },
    },
  ],
  [
    "dashes",
    {
      common: [["draw.StrokeDash", { name: "Long", style: "rect", dots1: "1", dots1length: "800%", distance: "300%" }]],
      ...shape("draw.Rect", AT, { stroke: "dash", strokedash: "Long", strokecolor: "#20302e", strokewidth: "1pt" }),
    },
    { stroke: { dash: expect.any(String) } },
  ],
  [
    "a group",
    {
      styles: [GREEN.node],
      shapes: [
        [
          "draw.G",
          {},
          ["draw.Rect", { ...AT, layer: "layout", stylename: GREEN.name }],
          ["draw.Ellipse", { ...AT, x: "6in", layer: "layout", stylename: GREEN.name }],
        ],
      ],
    },
    { kind: "shape", groups: [expect.any(String)] },
  ],
];

const cell = (text: string, attributes: Record<string, string> = {}): Node => [
  "table.TableCell",
  attributes,
  words(text),
];
const TABLES: Row[] = [
  [
    "rows and cells",
    {
      shapes: [
        [
          "draw.Frame",
          AT,
          [
            "table.Table",
            {},
            ["table.TableColumn", {}],
            ["table.TableColumn", {}],
            ["table.TableRow", {}, cell("a"), cell("b")],
            ["table.TableRow", {}, cell("c"), cell("d")],
          ],
        ],
      ],
    },
    {
      kind: "table",
      rows: [
        [{ text: [{ runs: [{ text: "a" }] }] }, {}],
        [{}, { text: [{ runs: [{ text: "d" }] }] }],
      ],
    },
  ],
  [
    "a cell over two columns",
    {
      shapes: [
        [
          "draw.Frame",
          AT,
          [
            "table.Table",
            {},
            ["table.TableColumn", {}],
            ["table.TableColumn", {}],
            ["table.TableRow", {}, cell("a", { numbercolumnsspanned: "2" }), ["table.CoveredTableCell", {}]],
            ["table.TableRow", {}, cell("c"), cell("d")],
          ],
        ],
      ],
    },
    {
      rows: [
        [{ columns: 2 }, null],
        [{}, {}],
      ],
    },
  ],
];

const ALL: readonly (readonly [string, readonly Row[]])[] = [
  ["characters", CHARACTERS],
  ["paragraphs", PARAGRAPHS],
  ["boxes", BOXES],
  ["shapes", SHAPES],
  ["tables", TABLES],
];
const rows = ALL.flatMap(([, list]) => list);
const bench = filesBench();

/** The presentation that python3-odf makes of pages. */
function presentation(pages: readonly Page[]): ReadResult {
  const folder = mkdtempSync(join(tmpdir(), "unitext-odf-"));
  try {
    execFileSync("/usr/bin/python3", [join(import.meta.dirname, "generated.py"), join(folder, "a.odp")], {
      input: JSON.stringify(pages),
      encoding: "utf8",
    });
    return bench.read(new Uint8Array(readFileSync(join(folder, "a.odp"))), "generated.odp");
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
const only = (deck: Deck, name: string): Deck => ({
  ...deck,
  slides: [must(deck.slides[rows.findIndex(([one]) => one === name)])],
});
let found: ReadResult;
let again: ReadResult;
beforeAll(() => {
  found = presentation(rows.map(([, page]) => page));
  const { deck } = found;
  const bare = ({ sourceShape: _, ...element }: Element): Element => element as Element;
  const alone: Deck = {
    ...deck,
    assets: Object.fromEntries(Object.entries(deck.assets).filter(([name]) => !name.startsWith("kept/"))),
    slides: deck.slides.map(({ sourcePart: _, ...slide }) => ({ ...slide, elements: slide.elements.map(bare) })),
  };
  again = bench.read(withoutTags(WRITERS.odp.write(alone, bench.context) as Uint8Array), "again.odp");
});

describe.each(ALL)("%s of a deck that python3-odf wrote", (_, list) => {
  it.each(list)("%s", (name, _page, wanted) => {
    expect(propertiesOf(only(found.deck, name))).toMatchObject(wanted);
    // A form by its name is written by its formulas, which are the same outline.
    const { geometry, ...others } = wanted as { geometry?: { preset?: string } };
    expect(propertiesOf(only(again.deck, name))).toMatchObject(
      geometry?.preset && geometry.preset !== "line" ? others : wanted,
    );
  });
});

it("a deck that python3-odf wrote has its notes, its transition, what is hidden and what comes in", () => {
  const quiet = styled("drawing-page", {
    DrawingPageProperties: { visibility: "hidden", transitiontype: "automatic", duration: "PT12S" },
  });
  const moving = styled("drawing-page", {
    DrawingPageProperties: { type: "fade", subtype: "crossfade", transitionspeed: "slow" },
  });
  const set = (target: string): Node => [
    "anim.Par",
    { begin: "0s", fill: "hold", nodetype: "on-click", presetclass: "entrance" },
    ["anim.Set", { begin: "0s", fill: "hold", targetelement: target, attributename: "visibility", to: "visible" }],
  ];
  const { deck } = presentation([
    {
      styles: [quiet.node],
      page: { stylename: quiet.name },
      shapes: [
        box(undefined, words("first")),
        [
          "presentation.Notes",
          {},
          ["draw.Frame", { ...AT, class: "notes" }, ["draw.TextBox", {}, words("Say it slowly."), words("Then wait.")]],
        ],
      ],
    },
    {
      styles: [moving.node],
      page: { stylename: moving.name },
      shapes: [
        ["draw.Rect", { ...AT, id: "one", layer: "layout" }, words("now")],
        ["draw.Rect", { ...AT, id: "two", layer: "layout" }, words("then")],
        [
          "anim.Par",
          { nodetype: "timing-root" },
          [
            "anim.Seq",
            { nodetype: "main-sequence" },
            ...["two", "one"].map(
              (target): Node => ["anim.Par", { begin: "next" }, ["anim.Par", { begin: "0s" }, set(target)]],
            ),
          ],
        ],
      ],
    },
  ]);
  const [first, second] = deck.slides as [Slide, Slide];
  expect(first).toMatchObject({ hidden: true, delay: 12 });
  expect(textOf(first.notes)).toBe("Say it slowly.\nThen wait.");
  expect(second.transition).toMatchObject({ kind: "fade" });
  const saying = (id: string) =>
    second.elements.flatMap((element) => (element.id === id && element.kind === "shape" ? [textOf(element.text)] : []));
  expect(revealsOf(second).map(({ element, press }) => [saying(element), press])).toEqual([
    [["then"], 1],
    [["now"], 2],
  ]);
});
