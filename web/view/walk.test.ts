import { after, before, below } from "./walk";

const slide = (id: string, parent: string | null = null) => ({ id, name: id, parent });
const SLIDES = [slide("a"), slide("b"), slide("b1", "b"), slide("b2", "b"), slide("c")];

it("goes along the main line, and into details only when asked", () => {
  expect(["a", "b", "c"].map((id) => after(SLIDES, id))).toEqual(["b", "c", undefined]);
  expect(below(SLIDES, "b")).toBe("b1");
  expect(below(SLIDES, "a")).toBeUndefined();
});

it("goes from the last detail on along the main line, and from the first back to the slide above", () => {
  expect([after(SLIDES, "b1"), after(SLIDES, "b2")]).toEqual(["b2", "c"]);
  expect([before(SLIDES, "b2"), before(SLIDES, "b1"), before(SLIDES, "c"), before(SLIDES, "a")]).toEqual([
    "b1",
    "b",
    "b",
    undefined,
  ]);
});

it("goes nowhere from a slide that is gone", () => {
  expect([after(SLIDES, "x"), before(SLIDES, "x")]).toEqual([undefined, undefined]);
});
