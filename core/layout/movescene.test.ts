import { type Element, emptyDeck, metadataOf, must, newSlide, plainText, type Slide } from "@unitext/core/model";
import { shippedFonts } from "@unitext/core/testing/fonts";
import { drawnPlaces, layoutSlide, moveInScene, type Scene } from "./index";

const metadata = metadataOf(emptyDeck("d", "Bay"));
const laid = (elements: Element[]): Scene =>
  layoutSlide({ ...newSlide("s", "points"), elements } satisfies Slide, {
    metadata,
    number: 1,
    fonts: shippedFonts(),
  });
const title: Element = { kind: "text", id: "t", slot: "title", text: plainText("Storms") };
const box = (id: string, x: number): Element => ({
  kind: "shape",
  id,
  slot: null,
  frame: { x, y: 300, width: 120, height: 60 },
  geometry: { preset: "rect" },
  fill: { kind: "solid", colour: "#0f5c63" },
  text: plainText(id),
});

describe("a scene in which elements are moved", () => {
  const scene = laid([title, box("a", 100), box("b", 400)]);

  it("draws them as a layout of the moved slide does, and all others as the same objects", () => {
    const moved = must(moveInScene(scene, new Map([["a", { x: 160, y: 320, width: 120, height: 60 }]])));
    const again = laid([title, { ...box("a", 160), frame: { x: 160, y: 320, width: 120, height: 60 } }, box("b", 400)]);
    const group = must(moved.nodes.find((node) => node.kind === "group"));
    expect(group).toMatchObject({ element: "a", matrix: [1, 0, 0, 1, 60, 20] });
    const words = (nodes: Scene["nodes"]) =>
      nodes.flatMap((node) => (node.kind === "text" && node.element === "a" ? node.lines : []));
    const [before, after] = [must(words(group.kind === "group" ? group.nodes : [])[0]), must(words(again.nodes)[0])];
    expect([before.x + 60, before.y + 20]).toEqual([expect.closeTo(after.x, 6), expect.closeTo(after.y, 6)]);
    const { from, to } = must(scene.positioned?.a);
    const others = scene.nodes.filter((_, at) => at < from || at >= to);
    expect(moved.nodes.filter((node) => node !== group)).toEqual(others);
    expect(moved.nodes.filter((node) => node !== group).every((node) => others.includes(node))).toBe(true);
  });

  it("is laid out instead when an element changes its size or rotation, or leaves a slot", () => {
    const frame = { x: 100, y: 300, width: 120, height: 60 };
    expect(moveInScene(scene, new Map([["a", { ...frame, width: 130 }]]))).toBeUndefined();
    expect(moveInScene(scene, new Map([["a", { ...frame, rotation: 10 }]]))).toBeUndefined();
    expect(moveInScene(scene, new Map([["t", frame]]))).toBeUndefined();
  });
});

describe("the places that elements take", () => {
  it("are those of the words in a slot, and the frames of everything else", () => {
    const table: Element = {
      kind: "table",
      id: "g",
      slot: null,
      frame: { x: 500, y: 150, width: 300, height: 120 },
      header: 1,
      align: ["start", "end"],
      rows: [
        [{ text: plainText("Gauge") }, { text: plainText("Metres") }],
        [{ text: plainText("Quay") }, { text: plainText("3.4") }],
      ],
    };
    const scene = laid([title, table, box("a", 100)]);
    const [words, grid, shape] = drawnPlaces(scene);
    const slot = must(scene.boxes.find(({ element }) => element === "t"));
    expect(must(words).width).toBeLessThan(slot.width / 2);
    expect(grid).toMatchObject({ x: 500, y: 150, width: 300 });
    expect(shape).toEqual({ x: 100, y: 300, width: 120, height: 60 });
  });
});
