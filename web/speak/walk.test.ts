import { newSlide } from "@unitext/core/model";
import { walkFrom } from "./walk";

const slide = (id: string, parent: string | null = null, hidden = false) => ({
  ...newSlide(id, "points" as const),
  parent,
  hidden,
});
const talk = [
  slide("a"),
  slide("b"),
  slide("b1", "b"),
  slide("b11", "b1"),
  slide("b2", "b"),
  slide("c", null, true),
  slide("d"),
];

describe("the way of a talk", () => {
  it("goes along the main line and leaves details and hidden slides aside", () => {
    expect(walkFrom(talk, "a")).toEqual({ next: "b", previous: undefined, deeper: undefined, shallower: undefined });
    expect(walkFrom(talk, "b")).toEqual({ next: "d", previous: "a", deeper: "b1", shallower: undefined });
    expect(walkFrom(talk, "d")).toMatchObject({ next: undefined, previous: "b" });
  });

  it("goes into details when asked, along them, and back to the main line after the last", () => {
    expect(walkFrom(talk, "b1")).toEqual({ next: "b2", previous: "b", deeper: "b11", shallower: "b" });
    expect(walkFrom(talk, "b11")).toEqual({ next: "b2", previous: "b1", deeper: undefined, shallower: "b1" });
    expect(walkFrom(talk, "b2")).toMatchObject({ next: "d", previous: "b1" });
  });

  it("begins at the first slide when it stands on none that is shown", () => {
    expect(walkFrom(talk, "c").next).toBe("a");
    expect(walkFrom([], "x").next).toBeUndefined();
  });
});
