import {
  canonical,
  type Deck,
  type Element,
  emptyDeck,
  metadataOf,
  newSlide,
  type Paragraph,
  plainText,
  type TextBox,
  textHash,
  type TextStyle,
  must,
} from "@unitext/core/model";
import { shippedFonts } from "@unitext/core/testing/fonts";
import { layoutSlide, leavesOf, linkNames, ruledPaths, type Scene, type SceneLine, type SceneNode } from "./index";

// What follows from the words of the two standards about boxes, paragraphs and tables, worked by hand: what is compared are distances, which do not depend on a face.
const fonts = shippedFonts();
const FRAME = { x: 100, y: 60, width: 300, height: 200 };
const INSETS: [number, number, number, number] = [10, 6, 14, 8];
const base: TextStyle = [{ run: { size: 20, font: "Arimo", colour: "#000000" } }];
const laid = (elements: Element[], more: Partial<Deck> = {}): Scene => {
  const metadata = metadataOf({
    ...emptyDeck("d", "D"),
    styles: { base, ...more.styles },
    ...more,
    slides: [],
  } as Deck);
  return layoutSlide(
    { ...newSlide("s", "blank"), elements },
    { metadata: { ...metadata, styles: { base, ...more.styles } }, number: 1, fonts },
  );
};
const paragraph = (text: string, more: Partial<Paragraph> = {}): Paragraph => ({
  kind: "plain",
  level: 0,
  runs: [{ text }],
  ...more,
});
const box = (text: Paragraph[], more: TextBox = {}, frame = FRAME, rest: Partial<Element> = {}) =>
  laid([
    {
      kind: "text",
      id: "b",
      slot: null,
      frame,
      style: "base",
      box: { insets: INSETS, fit: "none", ...more },
      text,
      ...rest,
    } as Element,
  ]);
const lines = (scene: Scene): SceneLine[] =>
  leavesOf(scene.nodes).flatMap((node) => (node.kind === "text" && node.element === "b" ? node.lines : []));
const inked = ({ runs }: SceneLine) => runs.filter(({ marker }) => !marker);
const start = (line: SceneLine) => Math.min(...inked(line).map(({ x }) => x));
const end = (line: SceneLine) => Math.max(...inked(line).map(({ x, width }) => x + width));
const LONG = "The tide comes in over the flats and leaves them again before the sun is high";

it("what leads somewhere as a whole is named by its words, or by what its picture shows; nothing else is", () => {
  const frame = { x: 0, y: 0, width: 100, height: 50 };
  const scene = layoutSlide(
    {
      ...newSlide("s", "blank"),
      elements: [
        {
          kind: "shape",
          id: "a",
          slot: null,
          frame,
          geometry: { preset: "rect" },
          text: plainText("To the\ntides"),
          link: "https://example.org/a",
        },
        { kind: "picture", id: "b", slot: null, frame, source: "x.png", alt: "A dune", link: "https://example.org/b" },
        { kind: "shape", id: "c", slot: null, frame, geometry: { preset: "rect" }, text: plainText("still") },
      ],
    },
    { metadata: metadataOf(emptyDeck("d", "D")), number: 1, fonts },
  );
  expect([...linkNames(scene)]).toEqual([
    ["a", "To the tides"],
    ["b", "A dune"],
  ]);
});

describe("a text in its box", () => {
  it("is placed inside its insets, on every side where they are set", () => {
    expect(start(must(lines(box([paragraph("word")]))[0]))).toBeCloseTo(110, 2);
    expect(end(must(lines(box([paragraph("word", { align: "end" })]))[0]))).toBeCloseTo(386, 2);
    const middle = must(lines(box([paragraph("word", { align: "centre" })]))[0]);
    expect((start(middle) + end(middle)) / 2).toBeCloseTo(110 + (300 - 24) / 2, 2);
  });

  it("never passes its right inset when it breaks, and goes on when it may not", () => {
    for (const line of lines(box([paragraph(LONG)]))) expect(end(line)).toBeLessThanOrEqual(386.01);
    const one = lines(box([paragraph(LONG)], { wrap: false }));
    expect(one).toHaveLength(1);
    expect(end(must(one[0]))).toBeGreaterThan(400);
  });

  it("is placed at the top, in the middle or at the bottom: the middle is half way", () => {
    const y = (anchor: "top" | "middle" | "bottom") => must(lines(box([paragraph("word")], { anchor }))[0]).y;
    expect(y("middle")).toBeCloseTo((y("top") + y("bottom")) / 2, 2);
    expect(y("bottom") - y("top")).toBeGreaterThan(100);
  });

  it("runs in columns of one width with the gap between them", () => {
    const many = Array.from({ length: 14 }, (_, nth) => paragraph(`word ${nth}`));
    const starts = [
      ...new Set(lines(box(many, { columns: 2, gap: 16 })).map((line) => Math.round(start(line) * 100) / 100)),
    ];
    // (300 − 10 − 14 − 16) / 2 = 130 wide; the second begins at 110 + 130 + 16.
    expect(starts).toEqual([110, 256]);
  });

  it("gets smaller until it fits, lets its box grow, or overflows by what is too much", () => {
    const much = Array.from({ length: 14 }, () => paragraph(LONG));
    const [shrunk, grown, out] = [box(much, { fit: "shrink" }), box(much, { fit: "grow" }), box(much, { fit: "none" })];
    const sizes = new Set(
      lines(shrunk)
        .flatMap(inked)
        .map(({ size }) => size),
    );
    expect([...sizes].every((size) => size < 20)).toBe(true);
    expect(
      Math.max(
        ...lines(out)
          .flatMap(inked)
          .map(({ size }) => size),
      ),
    ).toBe(20);
    expect(grown.overflow).toBe(0);
    // What grows is as high as its lines and its insets.
    const last = must(lines(grown).at(-1));
    const boxed = (scene: Scene) => scene.boxes.find(({ element }) => element === "b");
    expect((boxed(grown)?.y ?? 0) + (boxed(grown)?.height ?? 0)).toBeGreaterThan(last.y);
    expect(boxed(out)?.height).toBe(200);
    const shape = laid([
      {
        kind: "shape",
        id: "b",
        slot: null,
        frame: FRAME,
        style: "base",
        geometry: { preset: "rect" },
        fill: { kind: "solid", colour: "#0f5c63" },
        box: { insets: INSETS, fit: "grow" },
        text: much,
      } as Element,
    ]);
    expect((boxed(shape)?.y ?? 0) + (boxed(shape)?.height ?? 0)).toBeGreaterThan(must(lines(shape).at(-1)).y);
    expect(out.overflow).toBeGreaterThan(0);
  });

  it("is turned with its box: the middle stays where it is, and a quarter turn exchanges the sides", () => {
    const scene = box([paragraph("word")], {}, FRAME, { rotation: 90 });
    const matrices = (nodes: readonly SceneNode[]): (readonly number[])[] =>
      nodes.flatMap((node) =>
        node.kind === "group" ? [...(node.matrix ? [node.matrix] : []), ...matrices(node.nodes)] : [],
      );
    const [a = 0, b = 0, c = 0, d = 0, e = 0, f = 0] = matrices(scene.nodes)[0] ?? [];
    const at = (x: number, y: number) => [a * x + c * y + e, b * x + d * y + f];
    const [cx, cy] = [250, 160];
    expect(at(cx, cy)[0]).toBeCloseTo(cx, 6);
    expect(at(cx, cy)[1]).toBeCloseTo(cy, 6);
    // Clockwise: what was right of the middle is below it.
    expect(at(cx + 10, cy)[0]).toBeCloseTo(cx, 6);
    expect(at(cx + 10, cy)[1]).toBeCloseTo(cy + 10, 6);
  });
});

describe("paragraphs", () => {
  const gap = (more: Partial<Paragraph>, first: Partial<Paragraph> = {}) => {
    const [one, two] = lines(box([paragraph("one", first), paragraph("two", more)])) as [SceneLine, SceneLine];
    return two.y - one.y;
  };
  const usual = gap({});

  it("are spaced by points or by shares of their size, as they say", () => {
    expect(gap({ properties: { before: { points: 10 } } }) - usual).toBeCloseTo(10, 2);
    expect(gap({}, { properties: { after: { points: 7 } } }) - usual).toBeCloseTo(7, 2);
    expect(gap({ properties: { before: { times: 0.5 } } }) - gap({ properties: { before: { times: 0 } } })).toBeCloseTo(
      gap({ properties: { before: { times: 1 } } }) - gap({ properties: { before: { times: 0.5 } } }),
      2,
    );
  });

  it("have lines as far from each other as they say", () => {
    const step = (look: Paragraph["properties"]) => {
      const [one, two] = lines(box([paragraph(LONG, { ...(look ? { properties: look } : {}) })])) as [
        SceneLine,
        SceneLine,
      ];
      return two.y - one.y;
    };
    expect(step({ line: { points: 31 } })).toBeCloseTo(31, 2);
    expect(step({ line: { times: 2 } })).toBeCloseTo(2 * step({ line: { times: 1 } }), 2);
  });

  it("stand as far apart as their font asks: ascent, descent and gap of its own tables", () => {
    const step = (font: string) => {
      const [one, two] = lines(box([paragraph(LONG, { runs: [{ text: LONG, properties: { font } }] })])) as [
        SceneLine,
        SceneLine,
      ];
      return (two.y - one.y) / 20;
    };
    // The horizontal header (OpenType, hhea) of the faces that are as wide as these, in units of 2048 per em: 1854 + 434 + 67, 1825 + 443 + 87 and 1536 + 512 + 452.
    expect(step("Arimo")).toBeCloseTo(2355 / 2048, 3);
    expect(step("Tinos")).toBeCloseTo(2355 / 2048, 3);
    expect(step("Carlito")).toBeCloseTo(2500 / 2048, 3);
  });

  it("are as high as words in them would be where they have none", () => {
    const after = (size: number | undefined) => {
      const blank: Paragraph = {
        kind: "plain",
        level: 0,
        runs: [],
        ...(size ? { properties: { words: { size } } } : {}),
      };
      const [one, , two] = lines(box([paragraph("one"), blank, paragraph("two")])) as [SceneLine, SceneLine, SceneLine];
      return two.y - one.y;
    };
    expect(after(undefined)).toBeCloseTo(2 * usual, 2);
    expect(after(10)).toBeCloseTo(1.5 * usual, 2);
    expect(after(60)).toBeCloseTo(4 * usual, 2);
  });

  it("without words at the end of a text lift it from below, and overflow unseen", () => {
    const blank: Paragraph = { kind: "plain", level: 0, runs: [] };
    const y = (...more: Paragraph[]) => must(lines(box([paragraph("word"), ...more], { anchor: "bottom" }))[0]).y;
    expect(y() - y(blank)).toBeCloseTo(usual, 2);
    const many = Array.from({ length: 20 }, () => blank);
    expect(box([paragraph("word"), ...many]).overflow).toBe(0);
    expect(box([paragraph("word"), ...many, paragraph("seen")]).overflow).toBeGreaterThan(0);
    const [line] = lines(box([paragraph("word"), ...many], { fit: "shrink" })) as [SceneLine];
    expect(inked(line)[0]?.size).toBe(20);
  });

  it("begin at their indent, their first line moved against it, their sign in the room before", () => {
    const [first, second] = lines(box([paragraph(LONG, { properties: { left: 36, first: -18 } })])) as [
      SceneLine,
      SceneLine,
    ];
    expect([start(first), start(second)]).toEqual([expect.closeTo(110 + 18, 2), expect.closeTo(110 + 36, 2)]);
    const [item] = lines(
      box([paragraph("word", { kind: "bullet", properties: { left: 36, first: -18, bullet: { character: "▪" } } })]),
    ) as [SceneLine];
    const sign = item.runs.find(({ marker }) => marker);
    expect([sign?.text, sign?.x, start(item)]).toEqual(["▪", expect.closeTo(128, 2), expect.closeTo(146, 2)]);
    for (const line of lines(box([paragraph(LONG, { properties: { right: 40 } })])))
      expect(end(line)).toBeLessThanOrEqual(346.01);
  });

  it("have a picture before them where they say so, as high as their letters and in the room before", () => {
    const assets = { "sign.png": { sha256: "b".repeat(64), mediaType: "image/png" as const, width: 40, height: 20 } };
    const scene = laid(
      [
        {
          kind: "text",
          id: "b",
          slot: null,
          frame: FRAME,
          style: "base",
          box: { insets: INSETS },
          text: [
            paragraph("word", {
              kind: "bullet",
              properties: { left: 40, first: -40, bullet: { picture: "sign.png" } },
            }),
          ],
        } as Element,
      ],
      { assets },
    );
    const [sign] = leavesOf(scene.nodes).filter((node) => node.kind === "picture");
    // 0.8 of 20 points high, twice as wide.
    expect(sign).toMatchObject({
      source: "sign.png",
      x: expect.closeTo(110, 2),
      width: expect.closeTo(32, 2),
      height: expect.closeTo(16, 2),
    });
    expect(start(must(lines(scene)[0]))).toBeCloseTo(150, 2);
    // Without its file it is a round sign.
    const [line] = lines(
      laid([
        {
          kind: "text",
          id: "b",
          slot: null,
          frame: FRAME,
          style: "base",
          text: [paragraph("word", { kind: "bullet", properties: { bullet: { picture: "gone.png" } } })],
        } as Element,
      ]),
    ) as [SceneLine];
    expect(line.runs.find(({ marker }) => marker)?.text).toBe("•");
  });

  it("end, are centred or have their decimal sign at tab stops that say so", () => {
    const set = (text: string, align: "end" | "centre" | "decimal") =>
      inked((lines(box([paragraph(text, { properties: { tabs: [{ at: 160, align }] } })])) as [SceneLine])[0]).filter(
        ({ text: words }) => words.trim() !== "",
      );
    const [, last] = set("low\t3.25", "end") as [SceneLine["runs"][number], SceneLine["runs"][number]];
    expect(last.x + last.width).toBeCloseTo(110 + 160, 2);
    const [, middle] = set("low\thigh", "centre");
    expect(must(middle).x + must(middle).width / 2).toBeCloseTo(110 + 160, 2);
    // Numbers of different length stand with their signs under each other: what is before the sign ends at the stop.
    const ends = ["7.5", "123.45", "1234"].map((number) => {
      const [, run] = set(`x\t${number}`, "decimal");
      return { number, x: must(run).x, width: must(run).width };
    });
    const digit = (ends[2]?.width ?? 0) / 4;
    expect(ends.map(({ number, x }) => Math.round((x + must(number.split(".")[0]).length * digit) * 10) / 10)).toEqual([
      270, 270, 270,
    ]);
  });

  it("are not pushed back by a stop that is too near for what should end there", () => {
    const [line] = lines(
      box([paragraph("a\ta very long word", { properties: { tabs: [{ at: 40, align: "end" }] } })]),
    ) as [SceneLine];
    const [first, second] = inked(line).filter(({ text }) => text.trim() !== "");
    expect(second?.x ?? 0).toBeGreaterThanOrEqual((first?.x ?? 0) + (first?.width ?? 0) - 0.01);
  });

  it("lead to their stops one after the other, of every kind, on every line that is broken by hand", () => {
    const look = { tabs: [60, { at: 140, align: "centre" as const }, { at: 240, align: "end" as const }] };
    for (const text of ["a\tb\tc\td", "w\nA\tbb\tccc\tdddd"]) {
      const found = must(lines(box([paragraph(text, { properties: look })])).at(-1));
      const [, b, c, d] = inked(found).filter(({ text: words }) => words.trim() !== "");
      expect(b?.x).toBeCloseTo(110 + 60, 2);
      expect((c?.x ?? 0) + (c?.width ?? 0) / 2).toBeCloseTo(110 + 140, 2);
      expect((d?.x ?? 0) + (d?.width ?? 0)).toBeCloseTo(110 + 240, 2);
    }
  });

  it("go on at their tab stops", () => {
    const [line] = lines(box([paragraph("a\tb\tc", { properties: { tabs: [80, 160] } })])) as [SceneLine];
    const at = (letter: string) =>
      inked(line)
        .flatMap(({ x, words = [] }) => words.map((word) => ({ x: x + word.x, text: word.text.trim() })))
        .find(({ text }) => text === letter)?.x;
    expect([at("b"), at("c")]).toEqual([expect.closeTo(190, 1), expect.closeTo(270, 1)]);
  });

  it("count as their scheme says, from where they begin", () => {
    const signs = (scheme: "1." | "a)" | "I." | "(1)", starts?: number) =>
      lines(
        box(
          [1, 2, 3].map((nth) =>
            paragraph("x", {
              kind: "number",
              ...(nth === 1 && starts ? { start: starts } : {}),
              properties: { bullet: { scheme } },
            }),
          ),
        ),
      ).map(({ runs }) => runs.find(({ marker }) => marker)?.text);
    expect(signs("1.")).toEqual(["1.", "2.", "3."]);
    expect(signs("a)")).toEqual(["a)", "b)", "c)"]);
    expect(signs("I.", 4)).toEqual(["IV.", "V.", "VI."]);
    expect(signs("(1)", 9)).toEqual(["(9)", "(10)", "(11)"]);
  });

  it("from right to left begin at the right", () => {
    const [line] = lines(box([paragraph("مد وجزر", { properties: { direction: "rtl" } })])) as [SceneLine];
    expect(end(line)).toBeCloseTo(386, 1);
  });
});

describe("characters", () => {
  const one = (look: NonNullable<Paragraph["runs"][number]["properties"]>, text = "tides") =>
    inked(must(lines(box([{ kind: "plain", level: 0, runs: [{ text, properties: look }] }]))[0]));
  const width = (look: Parameters<typeof one>[0], text?: string) =>
    one(look, text).reduce((sum, run) => sum + run.width, 0);

  it("are as large, coloured and marked as they say", () => {
    expect(one({ size: 31, colour: "#7a2e57", highlight: "#fff2a8", underline: "double" })[0]).toMatchObject({
      size: 31,
      fill: "#7a2e57",
      highlight: "#fff2a8",
      underline: "double",
    });
  });

  it("widen with their size and by their spacing", () => {
    expect(width({ size: 40 }) / width({ size: 20 })).toBeCloseTo(2, 3);
    // Five letters, each 3 points further apart.
    expect(width({ size: 20, spacing: 3 }) - width({ size: 20 })).toBeCloseTo(15, 1);
  });

  it("are raised and lowered by a share of their size", () => {
    expect(one({ size: 20, rise: 0.3 })[0]?.rise).toBeCloseTo(6, 2);
    expect(one({ size: 20, rise: -0.25 })[0]?.rise).toBeCloseTo(-5, 2);
  });

  it("are drawn as capitals, while the text stays as it was typed", () => {
    expect(width({ caps: "all" })).toBeCloseTo(width({}, "TIDES"), 2);
    const scene = must(
      lines(box([{ kind: "plain", level: 0, runs: [{ text: "Tides", properties: { caps: "small" } }] }]))[0],
    );
    expect(new Set(inked(scene).map(({ size }) => size)).size).toBe(2);
  });

  it("of a family that does not ship are drawn in the one that is as wide", () => {
    // Carlito, Arimo and Tinos are made to the widths of the families in the table (their own release notes; from memory).
    const face = (font: string) => one({ font })[0]?.face ?? "";
    expect(face("Arimo")).toMatch(/arimo/i);
    expect(face("A family that nobody has")).not.toBe("");
  });
});

describe("pictures in their frames", () => {
  const FILE = { sha256: "a".repeat(64), mediaType: "image/png" as const, width: 400, height: 200 };
  const picture = (more: Partial<Element>) =>
    laid([{ kind: "picture", id: "p", slot: null, source: "a.png", alt: "", frame: FRAME, ...more } as Element], {
      assets: { "a.png": FILE },
    });
  const shown = (scene: Scene) => leavesOf(scene.nodes).find((node) => node.kind === "picture");

  it("show what is not cut off over all of the frame", () => {
    const node = shown(picture({ crop: { left: 0.1, top: 0.2, right: 0.3, bottom: 0 } } as Partial<Element>));
    // 60 % of the width and 80 % of the height fill 300 by 200; it is in the frame’s own points.
    expect(node).toMatchObject({
      width: expect.closeTo(500, 3),
      height: expect.closeTo(250, 3),
      x: expect.closeTo(-50, 3),
      y: expect.closeTo(-50, 3),
    });
  });

  it("are placed inside the frame where less than nothing is cut off", () => {
    const node = shown(picture({ crop: { left: -0.5, top: 0, right: -0.5, bottom: 0 } } as Partial<Element>));
    expect(node).toMatchObject({ width: expect.closeTo(150, 3), x: expect.closeTo(75, 3) });
  });
});

describe("tables", () => {
  const cell = (text: string, more: object = {}) => ({ text: text ? [paragraph(text)] : plainText(""), ...more });
  const table = (rows: (ReturnType<typeof cell> | null)[][], more: Partial<Element> = {}) =>
    laid([
      {
        kind: "table",
        id: "t",
        slot: null,
        frame: { x: 100, y: 60, width: 300, height: 80 },
        style: "base",
        header: 0,
        align: [],
        widths: [100, 200],
        heights: rows.map(() => 40),
        rows,
        ...more,
      } as Element,
    ]);
  const texts = (scene: Scene) =>
    new Map(
      leavesOf(scene.nodes).flatMap((node) =>
        node.kind === "text" ? node.lines.map((line) => [line.text, line] as const) : [],
      ),
    );
  const at = (scene: Scene, text: string) => must(texts(scene).get(text));

  it("have columns as wide as they say, and rows under each other by their heights", () => {
    const scene = table([
      [cell("a"), cell("b")],
      [cell("c"), cell("d")],
    ]);
    expect(start(at(scene, "b")) - start(at(scene, "a"))).toBeCloseTo(100, 2);
    expect(at(scene, "c").y - at(scene, "a").y).toBeCloseTo(40, 2);
    expect(start(at(scene, "c"))).toBeCloseTo(start(at(scene, "a")), 2);
  });

  it("have rows that grow with what is in them, and push down what follows", () => {
    const scene = table([
      [cell(LONG), cell("b")],
      [cell("c"), cell("d")],
    ]);
    expect(at(scene, "d").y - at(scene, "b").y).toBeGreaterThan(100);
  });

  it("have cells over several columns and rows", () => {
    const wide = table(
      [
        [cell("both", { columns: 2 }), null],
        [cell("c"), cell("d")],
      ],
      { align: [] },
    );
    const middle = table([
      [{ ...cell(""), columns: 2, text: [paragraph("both", { align: "centre" })] }, null],
      [cell("c"), cell("d")],
    ] as never);
    expect(start(at(wide, "both"))).toBeCloseTo(start(at(wide, "c")), 2);
    const line = at(middle, "both");
    expect((start(line) + end(line)) / 2).toBeCloseTo(250, 1);
    const tall = table([
      [cell("tall", { rows: 2, anchor: "middle" }), cell("b", { anchor: "middle" })],
      [null, cell("d", { anchor: "middle" })],
    ]);
    expect(at(tall, "tall").y).toBeCloseTo((at(tall, "b").y + at(tall, "d").y) / 2, 0);
  });

  it("keep text off the edges of a cell by its margins, and at its top, middle or bottom", () => {
    const scene = table([
      [cell("a", { insets: [0, 0, 0, 0] }), cell("b", { insets: [20, 0, 0, 0] })],
      [cell("c"), cell("d")],
    ]);
    expect(start(at(scene, "a"))).toBeCloseTo(100, 2);
    expect(start(at(scene, "b"))).toBeCloseTo(220, 2);
    const y = (anchor: "top" | "middle" | "bottom") =>
      at(table([[cell("a", { anchor }), cell("b")]], { heights: [80] } as Partial<Element>), "a").y;
    expect(y("middle")).toBeCloseTo((y("top") + y("bottom")) / 2, 2);
  });
});

it("a style is found by the sum of its content, as files name it", () => {
  const style: TextStyle = [{ run: { size: 33 } }];
  const name = textHash(canonical(style));
  const scene = laid(
    [{ kind: "text", id: "b", slot: null, frame: FRAME, style: name, text: [paragraph("word")] } as Element],
    { styles: { [name]: style } },
  );
  expect(inked(must(lines(scene)[0]))[0]?.size).toBe(33);
});

describe("lines under words", () => {
  const run = (underline: NonNullable<Parameters<typeof ruledPaths>[0]["underline"]>) => ({
    x: 10,
    width: 100,
    text: "word",
    face: "",
    size: 20,
    fill: "#0f5c63",
    rtl: false,
    underline,
  });

  it("are one, two, a heavy one, dots, dashes or a wave, as wide as the words and in their colour", () => {
    for (const kind of ["single", "double", "heavy", "dotted", "dashed", "wavy"] as const) {
      const paths = ruledPaths(run(kind), 50);
      expect(paths).toHaveLength(kind === "double" ? 2 : 1);
      for (const { d, stroke } of paths) {
        expect(stroke).toBe("#0f5c63");
        expect(d.startsWith("M10 ")).toBe(true);
        const steps =
          kind === "wavy"
            ? [...d.matchAll(/q[-\d.]+ [-\d.]+ ([-\d.]+) 0/g)].map(([, step]) => Number(step))
            : [Number(/h([\d.]+)/.exec(d)?.[1])];
        expect(steps.reduce((sum, step) => sum + step, 0)).toBeCloseTo(100, 1);
      }
    }
    expect(ruledPaths(run("heavy"), 50)[0]?.width).toBe(2 * (ruledPaths(run("single"), 50)[0]?.width ?? 0));
    expect(ruledPaths(run("dotted"), 50)[0]?.dash).toHaveLength(2);
  });

  it("run through words that are struck, above the baseline", () => {
    const { underline: _, ...plain } = run("single");
    const [path] = ruledPaths({ ...plain, strike: true }, 50);
    expect(Number(/M10 ([\d.]+)/.exec(path?.d ?? "")?.[1])).toBeLessThan(50);
  });
});
