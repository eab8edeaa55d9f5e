import { type Deck, type Element, emptyDeck, newSlide, plainText } from "@unitext/core/model";
import { apply, batch, inKind, makeAllSo, takeKindBack } from "./index";

const box = (id: string, colour: string): Element => ({
  kind: "shape",
  id,
  slot: null,
  frame: { x: 0, y: 0, width: 100, height: 50 },
  geometry: { preset: "rect" },
  text: plainText("Words"),
  fill: { kind: "solid", colour },
});
const line: Element = {
  ...box("line", "#000000"),
  geometry: { preset: "line" },
  stroke: { colour: "#123456", width: 2 },
} as Element;
const table: Element = {
  kind: "table",
  id: "t",
  slot: null,
  header: 1,
  align: ["start"],
  rows: [
    [{ text: plainText("Gauge"), fill: { kind: "solid", colour: "#00aa00" } }],
    [{ text: plainText("Quay"), borders: { bottom: { colour: "#00aa00", width: 1 } } }],
  ],
};
const plainTable: Element = {
  ...table,
  id: "u",
  rows: [[{ text: plainText("Name") }], [{ text: plainText("a") }], [{ text: plainText("b") }]],
} as Element;
const deck: Deck = {
  ...emptyDeck("d", ""),
  slides: [
    { ...newSlide("s", "blank"), elements: [box("a", "#ff0000"), line, table] },
    { ...newSlide("z", "blank"), elements: [box("b", "#0000ff"), plainTable] },
  ],
};
const elements = (of: Deck) => new Map(of.slides.flatMap((slide) => slide.elements.map((one) => [one.id, one])));

describe("making all of a kind look as one", () => {
  it("gives all boxes of the deck its fill, and leaves lines and words", () => {
    const { deck: next, inverse } = apply(deck, batch(makeAllSo(deck, box("a", "#ff0000"))));
    expect(elements(next).get("b")).toEqual({ ...box("b", "#ff0000") });
    expect(elements(next).get("line")).toEqual(line);
    expect(apply(next, inverse).deck).toEqual(deck);
  });

  it("gives header cells and other cells of all tables theirs", () => {
    const { deck: next } = apply(deck, batch(makeAllSo(deck, table)));
    const other = elements(next).get("u");
    const rows = other?.kind === "table" ? other.rows : [];
    expect(rows.map((row) => [row[0]?.fill?.kind, row[0]?.borders?.bottom?.colour])).toEqual([
      ["solid", undefined],
      [undefined, "#00aa00"],
      [undefined, "#00aa00"],
    ]);
  });

  it("holds for what is added later, until it is taken back", () => {
    const { deck: next } = apply(deck, batch(makeAllSo(deck, box("a", "#ff0000"))));
    expect(inKind(box("new", "#333333"), next.theme)).toEqual(box("new", "#ff0000"));
    const { deck: back } = apply(next, batch(takeKindBack(next, "shape")));
    expect(inKind(box("new", "#333333"), back.theme)).toEqual(box("new", "#333333"));
    expect(elements(back).get("b")?.fill).toBeUndefined();
    expect(back.theme.kinds).toBeUndefined();
  });
});
