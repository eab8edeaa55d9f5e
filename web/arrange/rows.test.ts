import { newSlide } from "@unitext/core/model";
import { landingWords } from "../deck/landing";
import { gridFor, mapRows } from "./rows";

const slide = (id: string, parent: string | null = null) => ({ ...newSlide(id, "points" as const), parent });
const slides = [slide("a"), slide("b"), slide("b1", "b"), slide("b2", "b"), slide("c")];
const page = { width: 960, height: 540 };

describe("the map", () => {
  it("has a row a slide of the main line, with its details to the right", () => {
    expect(mapRows(slides).map(({ main, details, number }) => [number, main.id, details.map(({ id }) => id)])).toEqual([
      [1, "a", []],
      [2, "b", ["b1", "b2"]],
      [5, "c", []],
    ]);
  });

  it("tells where a section begins, with its slides and its time, and leaves room for its header", () => {
    const list = [
      slide("a"),
      { ...slide("s"), arrangement: "section" as const },
      slide("t"),
      slide("t1", "t"),
      { ...slide("u"), arrangement: "section" as const },
    ];
    const rows = mapRows(list);
    expect(rows.map(({ section, opens }) => [section, opens?.slides, opens?.seconds])).toEqual([
      [0, undefined, undefined],
      [1, 3, 30],
      [1, undefined, undefined],
      [2, 1, 10],
    ]);
    expect(
      gridFor(rows, 96, page, { width: 1000, height: 600 }).rowHeight -
        gridFor(mapRows(slides), 96, page, { width: 1000, height: 600 }).rowHeight,
    ).toBe(30);
  });

  it("leaves room for the longest row of details, and runs on in further columns where the window has them", () => {
    const rows = mapRows(slides);
    const small = gridFor(rows, 96, page, { width: 1000, height: 600 });
    expect(small.columnWidth).toBeGreaterThanOrEqual(3 * 96);
    expect(small.columns).toBe(Math.floor(1000 / small.columnWidth));
    expect(small.rowsPerColumn).toBe(Math.floor((600 - 16) / small.rowHeight));
    expect(gridFor(rows, 880, page, { width: 1000, height: 300 })).toMatchObject({ columns: 1, rowsPerColumn: 1 });
  });

  it("says a landing in words before it happens", () => {
    expect(landingWords({ target: "a", side: "before" }, slides)).toBe("before 1, at the start");
    expect(landingWords({ target: "b", side: "before" }, slides)).toBe("before 2");
    expect(landingWords({ target: "b1", side: "after" }, slides)).toBe("after 3");
    expect(landingWords({ target: "c", side: "after" }, slides)).toBe("after 5, at the end");
    expect(landingWords({ target: "b", side: "under" }, slides)).toBe("under 2, as a detail");
  });
});
