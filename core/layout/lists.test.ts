import {
  emptyDeck,
  metadataOf,
  type LevelStyle,
  newSlide,
  type Paragraph,
  type RichText,
  type Slide,
  type TextBox,
  THEMES,
  must,
} from "@unitext/core/model";
import { shippedFonts } from "@unitext/core/testing/fonts";
import fc from "fast-check";
import { INDENT, layoutSlide, leavesOf, listIndents, numberWidths } from "./index";

const fonts = shippedFonts();
const item = (kind: Paragraph["kind"], level: number, text: string, more: Partial<Paragraph> = {}): Paragraph => ({
  kind,
  level,
  runs: text ? [{ text }] : [],
  ...more,
});
const numbered = (count: number, start?: number): RichText =>
  Array.from({ length: count }, (_, nth) =>
    item("number", 0, `item ${nth}`, nth || start === undefined ? {} : { start }),
  );

interface Line {
  sign: { x: number; end: number } | undefined;
  x: number;
  end: number;
  paragraph: number;
  size: number;
}
/** The lines of a text with their signs apart from their words, in points. */
function linesOf(slide: Slide, given: Partial<ReturnType<typeof metadataOf>> = {}): Line[] {
  const { nodes } = layoutSlide(slide, {
    metadata: { ...metadataOf(emptyDeck("d", "D")), ...given },
    number: 1,
    fonts,
  });
  return leavesOf(nodes)
    .flatMap((node) => (node.kind === "text" && node.element === "e" ? node.lines : []))
    .map(({ runs, paragraph }) => {
      const [signs, words] = [runs.filter((run) => run.marker), runs.filter((run) => !run.marker)];
      const ends = (list: typeof runs) => ({
        x: Math.min(...list.map(({ x }) => x)),
        end: Math.max(...list.map(({ x, width }) => x + width)),
      });
      return { sign: signs.length ? ends(signs) : undefined, ...ends(words), paragraph, size: words[0]?.size ?? 0 };
    });
}
const typed = (text: RichText, theme: keyof typeof THEMES = "saltmarsh") =>
  linesOf(
    { ...newSlide("s", "points"), elements: [{ kind: "text", id: "e", slot: "body", text }] },
    { theme: THEMES[theme] },
  );
/** A text in a box of a file, in levels that the file gives. */
const styled = (text: RichText, levels: LevelStyle[], width = 400, box: TextBox = {}, height = 400) =>
  linesOf(
    {
      ...newSlide("s", "blank"),
      elements: [
        {
          kind: "text",
          id: "e",
          slot: null,
          style: "st",
          frame: { x: 100, y: 40, width, height },
          box: { insets: [0, 0, 0, 0], ...box },
          text,
        },
      ],
    },
    { styles: { st: levels } },
  );

describe("a bullet that is smaller than its text", () => {
  const riseOf = (size: number) => {
    const { nodes } = layoutSlide(
      {
        ...newSlide("s", "blank"),
        elements: [
          {
            kind: "text",
            id: "e",
            slot: null,
            style: "st",
            frame: { x: 100, y: 40, width: 400, height: 400 },
            text: [item("bullet", 0, "sand")],
          },
        ],
      },
      {
        metadata: {
          ...metadataOf(emptyDeck("d", "D")),
          styles: { st: [{ run: { size: 40 }, paragraph: { bullet: { size } } }] },
        },
        number: 1,
        fonts,
      },
    );
    const runs = leavesOf(nodes).flatMap((node) =>
      node.kind === "text" ? node.lines.flatMap((line) => line.runs) : [],
    );
    const marker = must(runs.find((run) => run.marker));
    return { rise: marker.rise ?? 0, size: marker.size };
  };

  it("sits on the middle of the small letters, not below it", () => {
    const small = riseOf(0.4);
    expect(small.size).toBeCloseTo(16);
    // The middle of small letters is about 0.26 em above the line, that of the bullet 0.37 of its own size.
    expect(small.rise + 0.37 * small.size).toBeCloseTo(0.26 * 40, 1);
    expect(riseOf(1).rise).toBe(0);
  });
});

describe("numbers of a list that was typed", () => {
  it("stand before their words with room between, in every theme, however many there are", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 14 }),
        fc.constantFrom(1, 3, 95, 992),
        fc.constantFrom("saltmarsh" as const, "foreshore" as const, "nightwatch" as const, "chalk" as const),
        (count, start, theme) => {
          const lines = typed(numbered(count, start), theme);
          expect(lines).toHaveLength(count);
          for (const { sign, x, size } of lines) expect(x - (sign?.end ?? Number.NaN)).toBeGreaterThan(size * 0.1);
          expect(new Set(lines.map(({ x }) => x.toFixed(3))).size).toBe(1);
        },
      ),
      { numRuns: 40 },
    );
  });

  it("have as much room as the longest of their level, and no other level has", () => {
    const text = [
      item("number", 0, "a", { start: 9 }),
      item("bullet", 1, "b"),
      item("number", 0, "c"),
      item("number", 1, "d"),
    ];
    const rooms = numberWidths(text);
    expect(must(rooms[0])).toBeGreaterThan(INDENT);
    expect(rooms.slice(1).every((room) => room === INDENT)).toBe(true);
    expect(listIndents(text).map(({ hang }) => hang)).toEqual([rooms[0], INDENT, rooms[0], INDENT]);
    expect(listIndents([item("bullet", 2, "x")])).toEqual([{ left: 3 * INDENT, hang: INDENT }]);
  });

  it("have under their words what goes on in their item", () => {
    const lines = typed([
      item("number", 0, "ten", { start: 10 }),
      item("plain", 1, "and more of it"),
      item("plain", 0, "outside"),
    ]);
    expect(lines[1]?.x).toBeCloseTo(must(lines[0]?.x), 3);
    expect(lines[2]?.x).toBeCloseTo(must(lines[0]?.sign?.x), 3);
  });
});

describe("signs before items of a file", () => {
  const level = (left: number, first: number, sign = "•"): LevelStyle[] => [
    { run: { size: 20, font: "Arimo" }, paragraph: { left, first, bullet: { character: sign } } },
  ];
  const LONG = "words that go on for more than a line of this box and then for another one";

  it("are placed in their indent, words and further lines after it", () => {
    const lines = styled([item("bullet", 0, LONG)], level(40, -30));
    expect(lines.length).toBeGreaterThan(1);
    expect(lines[0]?.sign?.x).toBeCloseTo(110, 1);
    for (const { x } of lines) expect(x).toBeCloseTo(140, 1);
  });

  // Common practice, no source: what follows a sign that is wider than its room follows it at once, and only on its line.
  it("move the words of their line, and no other, where they need more room", () => {
    const [one, two] = styled(
      [item("number", 0, LONG, { properties: { bullet: { scheme: "(1)" } } })],
      [{ run: { size: 20, font: "Arimo" }, paragraph: { left: 20, first: -10 } }],
    );
    expect(one?.sign?.x).toBeCloseTo(110, 1);
    expect(one?.x).toBeCloseTo(must(one?.sign?.end), 1);
    expect(one?.x).toBeGreaterThan(120);
    expect(two?.x).toBeCloseTo(120, 1);
    // Without any room, and where the first line begins further in.
    const [none] = styled([item("bullet", 0, "word")], level(20, 0));
    expect([none?.sign?.x, none?.x]).toEqual([expect.closeTo(120, 1), expect.closeTo(must(none?.sign?.end), 1)]);
    const [inward] = styled([item("bullet", 0, "word")], level(20, 15));
    expect([inward?.sign?.x, inward?.x]).toEqual([expect.closeTo(135, 1), expect.closeTo(must(inward?.sign?.end), 1)]);
  });

  it("leave a line that much less for its words", () => {
    // As wide as the box without the sign: with it, the last word goes down.
    const text = (label: string) => [
      item("bullet", 0, "seven words that fill all of this line", { properties: { bullet: { character: label } } }),
    ];
    const [free] = styled(text("•"), level(0, 0), 2000);
    const width = must(free?.end) - must(free?.x) + 14;
    expect(styled(text("•"), level(0, 0), width)).toHaveLength(1);
    expect(styled(text("•••••"), level(0, 0), width).length).toBeGreaterThan(1);
  });

  it("are on the other side of text that runs to the left", () => {
    const [line] = styled(
      [item("number", 0, "שלום", { properties: { bullet: { scheme: "(1)" }, direction: "rtl" } })],
      [{ run: { size: 20 }, paragraph: { left: 20, first: -10 } }],
    );
    expect(line?.sign?.end).toBeCloseTo(490, 0);
    expect(line?.end).toBeCloseTo(must(line?.sign?.x), 0);
  });

  // ECMA-376-1, 21.1.2.1.3 (`a:normAutofit`, fontScale): the size of the font is scaled; edges are lengths of their own.
  it("stand as far in when letters are made smaller", () => {
    const many = Array.from({ length: 30 }, () => item("bullet", 0, "a line of the list"));
    const [small] = styled(many, level(40, -30), 400, { fit: "shrink" }, 200);
    expect(must(small?.size)).toBeLessThan(16);
    expect([small?.sign?.x, small?.x]).toEqual([expect.closeTo(110, 1), expect.closeTo(140, 1)]);
  });
});
