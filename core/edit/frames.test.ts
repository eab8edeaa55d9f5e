import { type Element, newSlide, type Slide, emptyDeck, plainText } from "@unitext/core/model";
import {
  alignElements,
  apply,
  groupElements,
  placed,
  reorderElements,
  distributeElements,
  batch,
  ungroupElements,
  expandToGroups,
} from "./index";

const page = { width: 960, height: 540 };
const at = (x: number, y: number, width: number, height: number) => ({ x, y, width, height });
const box = (id: string, more: Partial<Element> = {}): Element =>
  ({ kind: "text", id, slot: null, frame: at(0, 0, 10, 10), text: plainText(id), ...more }) as Element;

describe("frames", () => {
  it("line up by the page alone, and by what is around them together", () => {
    expect(alignElements([at(10, 10, 100, 40)], "centre", page)).toEqual([at(430, 10, 100, 40)]);
    expect(alignElements([at(10, 10, 100, 40)], "bottom", page)).toEqual([at(10, 500, 100, 40)]);
    const two = [at(10, 10, 100, 40), at(200, 90, 40, 20)];
    expect(alignElements(two, "left", page).map(({ x }) => x)).toEqual([10, 10]);
    expect(alignElements(two, "right", page).map(({ x }) => x)).toEqual([140, 200]);
    expect(alignElements(two, "middle", page).map(({ y }) => y)).toEqual([40, 50]);
    expect(alignElements(two, "top", page).map(({ y }) => y)).toEqual([10, 10]);
  });

  it("stand with the same space between them, the outer two where they were", () => {
    expect(distributeElements([at(0, 0, 10, 10), at(90, 0, 10, 10), at(12, 0, 20, 10)], "x").map(({ x }) => x)).toEqual(
      [0, 90, 40],
    );
    expect(distributeElements([at(0, 0, 10, 10), at(0, 50, 10, 10)], "y").map(({ y }) => y)).toEqual([0, 50]);
  });

  it("are written in hundredths of points, and a whole turn is none", () => {
    expect(placed(box("a", { rotation: 20 }), at(1.23456, 2, 0, 5), 360)).toEqual(
      box("a", { frame: at(1.23, 2, 1, 5) }),
    );
    expect(placed(box("a"), at(0, 0, 10, 10), 12.345).rotation).toBe(12.35);
  });
});

describe("the order of drawing", () => {
  const slide: Slide = { ...newSlide("s", "blank"), elements: ["a", "b", "c", "d"].map((id) => box(id)) };
  const order = (ids: string[], depth: Parameters<typeof reorderElements>[2]) => {
    const changes = reorderElements(slide, ids, depth);
    const deck = { ...emptyDeck("d", "D"), slides: [slide] };
    return changes.length
      ? apply(deck, batch(changes))
          .deck.slides[0]?.elements.map(({ id }) => id)
          .join("")
      : "same";
  };
  it("brings elements to the front, the back, or a step, and keeps their own order", () => {
    expect(order(["a", "c"], "front")).toBe("bdac");
    expect(order(["d", "b"], "back")).toBe("bdac");
    expect(order(["a", "b"], "forward")).toBe("cabd");
    expect(order(["c", "d"], "backward")).toBe("acdb");
    expect(order(["d"], "front")).toBe("same");
  });
  it("is undone in one step", () => {
    const deck = { ...emptyDeck("d", "D"), slides: [slide] };
    const { deck: changed, inverse } = apply(deck, batch(reorderElements(slide, ["a"], "front")));
    expect(apply(changed, inverse).deck).toEqual(deck);
  });
});

describe("groups", () => {
  it("are made inside those that are shared, selected whole, and taken apart from outside in", () => {
    const [a, b] = groupElements([box("a", { groups: ["o", "x"] }), box("b", { groups: ["o"] })], "n") as [
      Element,
      Element,
    ];
    expect([a.groups, b.groups]).toEqual([
      ["o", "n", "x"],
      ["o", "n"],
    ]);
    expect(ungroupElements([a, box("c", { groups: ["z"] })]).map(({ groups }) => groups)).toEqual([
      ["n", "x"],
      undefined,
    ]);
    const slide = { ...newSlide("s", "blank"), elements: [a, box("c"), b] };
    expect(expandToGroups(slide, ["a"])).toEqual(["a", "b"]);
    expect(expandToGroups(slide, ["c"])).toEqual(["c"]);
  });
});
