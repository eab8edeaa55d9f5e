import { designMaster, layoutSlide, leavesOf, type SceneRun } from "@unitext/core/layout";
import {
  type ArrangementName,
  ARRANGEMENTS,
  type Deck,
  type Element,
  emptyDeck,
  metadataOf,
  newSlide,
  OFFERED_DESIGNS,
  plainText,
  type RichText,
  run,
  slotsOf,
  THEMES,
  must,
} from "@unitext/core/model";
import { filesBench, withoutTags } from "@unitext/core/testing/files";
import { shippedFonts } from "@unitext/core/testing/fonts";
import { PNG } from "pngjs";
import { WRITERS } from "./index";

// What people type is in arrangements and roles, which no file format has: what is written says all that they mean for size, colour, face, side, anchor and lines.
const bench = filesBench(new Uint8Array(PNG.sync.write(new PNG({ width: 40, height: 30 }))));
const fonts = shippedFonts();

const LIST: RichText = [
  { kind: "bullet", level: 0, runs: [run("point with "), run("weight", ["strong"])] },
  { kind: "bullet", level: 1, runs: [run("what comes below")] },
  { kind: "number", level: 0, runs: [run("second point")] },
];
const wordsFor = (slot: string, role: string): RichText =>
  role === "body"
    ? [...LIST, { kind: "plain", level: 0, runs: [run(`words in ${slot}`)] }]
    : plainText(`words of the ${slot}`);
const deck: Deck = {
  ...emptyDeck("d", "Typed"),
  slides: (Object.keys(ARRANGEMENTS) as ArrangementName[]).map((arrangement, nth) => ({
    ...newSlide(`s${nth}`, arrangement),
    elements: slotsOf(arrangement).flatMap(([slot, role]) =>
      role === "picture" || role === "figure"
        ? []
        : [{ kind: "text" as const, id: `${nth}${slot}`, slot, text: wordsFor(slot, role) }],
    ),
  })),
};

/** Code and a list as figures, and code between words. */
const figures: Deck = {
  ...emptyDeck("d", "Figures"),
  slides: [
    {
      ...newSlide("f0", "code"),
      elements: [
        {
          kind: "code",
          id: "c",
          slot: "code",
          language: "python",
          text: "levels = [2.41, 2.58]\nmean = sum(levels) / 2",
        },
      ],
    },
    {
      ...newSlide("f1", "points"),
      elements: [
        {
          kind: "text",
          id: "b",
          slot: "body",
          text: [
            {
              kind: "bullet",
              level: 0,
              runs: [
                run("call "),
                run("mean()", ["code"]),
                run(" once a day, see "),
                run("the page", [], "https://example.org/mean"),
              ],
            },
          ],
        },
      ],
    },
    {
      ...newSlide("f2", "table"),
      elements: [
        {
          kind: "table",
          id: "t",
          slot: "table",
          header: 1,
          align: ["start", "end", "end"],
          rows: [
            ["Month", "Mean", "Highest"],
            ["January of this year and what came before", "2.41", "4.12"],
            ["February", "2.38", "3.90"],
          ].map((row) => row.map((text) => ({ text: plainText(text) }))),
        },
      ],
    },
  ],
};

/** Lists with numbers of two digits, so long that their letters are made smaller. */
const counted: Deck = {
  ...emptyDeck("d", "Counted"),
  slides: [11, 12].map((count, nth) => ({
    ...newSlide(`n${nth}`, "points"),
    elements: [
      {
        kind: "text" as const,
        id: "b",
        slot: "body",
        text: Array.from({ length: count }, (_, at) => ({
          kind: at % 5 === 4 ? ("bullet" as const) : ("number" as const),
          level: at % 5 === 4 ? 1 : 0,
          runs: [run(`step ${at} of them`)],
        })),
      },
    ],
  })),
};

/** The words of a slide where they are drawn: each with its size, colour, face and place. */
function drawn(of: Deck, nth: number): Map<string, { size: number; fill: string; face: string; x: number; y: number }> {
  const { nodes } = layoutSlide(must(of.slides[nth]), {
    metadata: metadataOf(of),
    number: nth + 1,
    fonts,
  });
  const found = new Map<string, { size: number; fill: string; face: string; x: number; y: number }>();
  const at = (item: SceneRun, y: number) =>
    found.set(item.text.trim(), { size: item.size, fill: item.fill, face: item.face, x: item.x, y });
  for (const node of leavesOf(nodes))
    if (node.kind === "text")
      for (const line of node.lines) for (const item of line.runs) if (item.text.trim()) at(item, line.y);
  return found;
}

const asAnother = (of: Deck, format: "pptx" | "odp"): Deck =>
  bench.read(withoutTags(WRITERS[format].write(of, bench.context) as Uint8Array), `deck.${format}`).deck;

describe.each(["pptx", "odp"] as const)("a deck that was typed, in a .%s as another program reads it", (format) => {
  const read = asAnother(deck, format);

  it("keeps the size of code against the words around it", () => {
    const there = asAnother(figures, format);
    for (const nth of [0, 1]) {
      const sizes = new Map([...drawn(there, nth)].map(([text, { size }]) => [text, size]));
      // Words of a figure are coloured by what they mean here, one run each; in the file a line is one.
      for (const [text, { size, face }] of drawn(figures, nth)) {
        const found = [...sizes].find(([other]) => other.includes(text));
        if (face.startsWith("jetbrains") || nth === 1)
          expect([text, found?.[1]]).toEqual([text, expect.closeTo(size, 1)]);
      }
    }
    for (const text of ["mean()", "the page", "call"])
      expect([text, drawn(there, 1).get(text)?.fill]).toEqual([text, drawn(figures, 1).get(text)?.fill]);
    expect(drawn(there, 1).get("mean()")?.size).toBeLessThan(drawn(there, 1).get("call")?.size ?? 0);
  });

  it("gives numbers of several digits the room that they have here, and letters that are made smaller their edges", () => {
    const there = asAnother(counted, format);
    for (const nth of [0, 1]) {
      const [here, other] = [drawn(counted, nth), drawn(there, nth)];
      for (const [text, { x, size }] of here)
        if (text.startsWith("step"))
          expect([text, other.get(text)?.x, other.get(text)?.size]).toEqual([
            text,
            expect.closeTo(x, 0),
            expect.closeTo(size, 0),
          ]);
      expect(here.get("step 0 of them")?.x).toBeCloseTo(must(here.get("step 10 of them")?.x), 3);
    }
  });

  it("gives a table the widths, the rows, the fills and the lines that the theme draws", () => {
    const there = asAnother(figures, format);
    const [here, other] = [drawn(figures, 2), drawn(there, 2)];
    for (const [text, { size, fill, face, x, y }] of here) {
      expect([text, other.get(text)?.fill, other.get(text)?.face]).toEqual([text, fill, face]);
      expect([text, other.get(text)?.size, other.get(text)?.x]).toEqual([
        text,
        expect.closeTo(size, 1),
        expect.closeTo(x, 0),
      ]);
      expect(Math.abs((other.get(text)?.y ?? 0) - y)).toBeLessThan(size / 2);
    }
    const table = there.slides[2]?.elements.find(({ kind }) => kind === "table");
    const rows = table?.kind === "table" ? table.rows : [];
    const { colours } = figures.theme;
    // The design has a filled header, every second row in a band, and lines under the header and the last row.
    expect(
      rows.map((row) =>
        row.map((cell) => [cell?.fill !== undefined, cell?.borders?.bottom?.colour === colours.accent]),
      ),
    ).toEqual(
      [
        [true, true],
        [false, false],
        [true, true],
      ].map((cell) => [cell, cell, cell]),
    );
  });

  it.each(OFFERED_DESIGNS)("has what the design %s draws behind each arrangement", (design) => {
    const themed = { ...deck, theme: THEMES[design] };
    const there = asAnother(themed, format);
    const shown = (elements: readonly Element[]) =>
      elements.map(({ frame, fill, stroke }) => [
        [frame?.x, frame?.y, frame?.width, frame?.height].map((value) => value ?? 0),
        fill?.kind === "solid" ? fill.colour : fill?.kind,
        stroke?.colour,
      ]);
    themed.slides.forEach((slide, nth) => {
      const master = there.masters?.[there.slides[nth]?.master ?? ""];
      const shapes = master?.elements.filter(({ kind }) => kind === "shape") ?? [];
      const here = designMaster(slide.arrangement, metadataOf(themed));
      expect([slide.arrangement, shown(shapes)]).toEqual([
        slide.arrangement,
        shown(here.elements).map(([frame, ...look]) => [
          (frame as number[]).map((value) => expect.closeTo(value, 0)),
          ...look,
        ]),
      ]);
    });
  });

  it.each(deck.slides.map(({ arrangement }, nth) => [arrangement, nth] as const))("%s", (_, nth) => {
    const [here, there] = [drawn(deck, nth), drawn(read, nth)];
    for (const [text, { size, fill, face, x, y }] of here) {
      const other = there.get(text);
      expect([text, other?.fill, other?.size]).toEqual([text, fill, expect.closeTo(size, 1)]);
      // Signs before items are of a font that every program has.
      if (!/^[•–]$/.test(text)) expect(other?.face).toBe(face);
      expect(other?.x).toBeCloseTo(x, 0);
      // A line lower than its font asks is cut above its letters in other programs, in the middle here.
      expect(Math.abs((other?.y ?? 0) - y)).toBeLessThan(size * 0.26);
    }
    expect(there.size).toBe(here.size);
  });
});

describe("a presentation without slides", () => {
  const empty: Deck = {
    ...emptyDeck("d", "House style"),
    page: { width: 720, height: 540 },
    theme: THEMES.nightwatch,
  };
  const written = (format: "pptx" | "odp") => WRITERS[format].write(empty, bench.context) as Uint8Array;

  it.each(["pptx", "odp"] as const)("of our own stays empty in a .%s", (format) => {
    const { deck, left } = bench.read(written(format), `deck.${format}`);
    expect([deck.slides, left]).toEqual([[], []]);
  });

  it("in a .pptx gives its page and its colours, and shows its layouts", () => {
    const { deck, adapted, left } = bench.read(withoutTags(written("pptx")), "deck.pptx");
    expect(deck.page).toEqual({ width: 720, height: 540 });
    expect(deck.theme.colours.paper).toBe(THEMES.nightwatch.colours.paper);
    expect(deck.slides.slice(0, 3).map(({ arrangement }) => arrangement)).toEqual(["opening", "section", "points"]);
    expect([left, adapted]).toEqual([
      [],
      [
        {
          slide: null,
          what: "a template without slides",
          how: expect.stringContaining("each of its layouts is a slide"),
        },
      ],
    ]);
  });

  it("in an .odp gives its page, and says that its layouts are left out", () => {
    const { deck, left } = bench.read(withoutTags(written("odp")), "deck.odp");
    expect([deck.slides, deck.page]).toEqual([[], { width: 720, height: 540 }]);
    expect(left).toContainEqual({
      slide: null,
      what: "its masters and layouts",
      why: expect.stringContaining("no slide uses them"),
    });
  });
});

describe("spaces that are more than space between words (The Unicode Standard, 6.2: U+00A0, U+2009, U+3000)", () => {
  const spaced = ["\u3000A paragraph as Japanese ones begin", "10\u00a0m at 5\u2009%", "ends wide\u3000"];
  const deck: Deck = {
    ...emptyDeck("d", "Spaced"),
    slides: [
      {
        ...newSlide("one", "points"),
        elements: [
          {
            kind: "text",
            id: "b",
            slot: "body",
            text: spaced.map((text) => ({ kind: "bullet", level: 0, runs: [run(text)] })),
          },
        ],
        notes: spaced.map((text) => ({ kind: "plain", level: 0, runs: [run(text)] })),
      },
    ],
  };
  it.each(["pptx", "odp", "md", "json"] as const)("stay where they are in a .%s", async (format) => {
    const bytes = await WRITERS[format].write(deck, bench.context);
    const [slide] = bench.read(bytes, `deck.${format}`).deck.slides;
    const body = slide?.elements.find(({ kind }) => kind === "text");
    expect(body?.kind === "text" && body.text.map(({ runs }) => runs.map(({ text }) => text).join(""))).toEqual(spaced);
    expect(slide?.notes.map(({ runs }) => runs.map(({ text }) => text).join(""))).toEqual(spaced);
  });
});
