import { layoutSlide, linkPlaces } from "./index";
import { emptyDeck, type Element, metadataOf, plainText, run, type Slide, must } from "@unitext/core/model";
import { shippedFonts } from "@unitext/core/testing/fonts";

const fonts = shippedFonts();
const frame = { x: 300, y: 200, width: 240, height: 80 };
const text = (more: object = {}): Element =>
  ({
    kind: "text",
    id: "t",
    slot: null,
    frame,
    text: [
      {
        kind: "plain",
        level: 0,
        runs: [
          run("see "),
          run("the ", [], "https://example.org/tides"),
          run("tides", ["strong"], "https://example.org/tides"),
          run(" and "),
          run("dunes", [], "slide:two"),
        ],
      },
    ],
    ...more,
  }) as Element;
const shape = (more: object = {}): Element =>
  ({
    ...text(),
    kind: "shape",
    geometry: { preset: "roundRect" },
    fill: { kind: "solid", colour: "#f4f1e8" },
    ...more,
  }) as Element;
const places = (...elements: Element[]) => {
  const deck = {
    ...emptyDeck("d", "D"),
    slides: [
      { id: "one", parent: null, arrangement: "blank", notes: plainText(""), hidden: false, elements },
    ] as Slide[],
  };
  return linkPlaces(layoutSlide(must(deck.slides[0]), { metadata: metadataOf(deck), number: 1, fonts }));
};
const middle = { x: frame.x + frame.width / 2, y: frame.y + frame.height / 2 };

describe("links that can be pressed on a slide", () => {
  it("are as many as there are, runs that follow each other as one, called by their words", () => {
    expect(places(text()).map(({ to, words }) => [to, words])).toEqual([
      ["https://example.org/tides", "the tides"],
      ["slide:two", "dunes"],
    ]);
    expect(places(text({ text: plainText("no link") }))).toEqual([]);
  });

  it.each([
    ["a text", text],
    ["a shape", shape],
  ] as const)("stand where %s is turned to", (_, made) => {
    const [upright] = places(made());
    const turned = (rotation: number) => must(places(made({ rotation }))[0]);
    const [from, half, quarter] = [must(upright), turned(180), turned(90)];
    // A half turn about the middle of its frame, and a quarter clockwise (SVG 2, 8.5: x' = cx − (y − cy), y' = cy + (x − cx)).
    expect(half.x + half.width).toBeCloseTo(2 * middle.x - from.x, 3);
    expect(half.y + half.height).toBeCloseTo(2 * middle.y - from.y, 3);
    expect([half.width, half.height].map(Math.round)).toEqual([from.width, from.height].map(Math.round));
    expect(quarter.x + quarter.width).toBeCloseTo(middle.x - (from.y - middle.y), 3);
    expect(quarter.y).toBeCloseTo(middle.y + (from.x - middle.x), 3);
    expect([quarter.width, quarter.height].map(Math.round)).toEqual([from.height, from.width].map(Math.round));
  });

  it("stand around words that are turned by less, as a box", () => {
    const [from] = places(text());
    const [seen] = places(text({ rotation: 30 }));
    const [w, h] = [from?.width ?? 0, from?.height ?? 0];
    expect(seen?.width).toBeCloseTo(w * Math.cos(Math.PI / 6) + h * Math.sin(Math.PI / 6), 3);
    expect(seen?.height).toBeCloseTo(w * Math.sin(Math.PI / 6) + h * Math.cos(Math.PI / 6), 3);
  });

  it("of a whole shape have its place and the name of its words", () => {
    expect(places(shape({ text: plainText("To the dunes"), link: "slide:two" }))).toEqual([
      expect.objectContaining({
        to: "slide:two",
        words: "To the dunes",
        x: frame.x,
        y: frame.y,
        width: frame.width,
        height: frame.height,
      }),
    ]);
  });
});
