import { newSlide } from "./index";
import {
  type Element,
  type Entrance,
  orderedEntrances,
  plainText,
  pressesOf,
  revealsOf,
  stepsForm,
  withSteps,
} from "@unitext/core/model";

const box = (id: string, entrance?: Partial<Entrance>, words = id, steps = false): Element => ({
  kind: "text",
  id,
  slot: null,
  frame: { x: 0, y: 0, width: 100, height: 40 },
  text: plainText(words),
  ...(steps ? { steps } : {}),
  ...(entrance ? { entrance: { order: 0, trigger: "press", effect: "fade", seconds: 0.5, ...entrance } } : {}),
});
const slide = (...elements: Element[]) => ({ ...newSlide("s", "blank"), elements });

describe("how the elements of a slide come in", () => {
  // What runs together begins together, what follows begins when all of that has ended (SMIL 3.0, 13.3: par and seq); the times by hand.
  it("begins with what it runs with, or after all of that has ended", () => {
    const reveals = revealsOf(
      slide(
        box("a", { delay: 0.25 }),
        box("b", { order: 1, trigger: "with", seconds: 2 }),
        box("c", { order: 2, trigger: "after", delay: 1 }),
        box("d", { order: 3, trigger: "with" }),
        box("e", { order: 4 }),
      ),
    );
    expect(reveals.map(({ element, press, start }) => [element, press, start])).toEqual([
      ["a", 1, 0.25],
      ["b", 1, 0],
      ["c", 1, 3],
      ["d", 1, 2],
      ["e", 2, 0],
    ]);
  });

  it("needs no press where the first one waits for none", () => {
    const moving = slide(
      box("a", { trigger: "after", seconds: 1 }),
      box("b", { order: 1, trigger: "after" }),
      box("still"),
    );
    expect(revealsOf(moving).map(({ press, start }) => [press, start])).toEqual([
      [0, 0],
      [0, 1],
    ]);
    expect(pressesOf(moving)).toBe(0);
  });

  it("comes by its order and not by its place, points one at a time, the points of other texts last", () => {
    const moving = slide(
      box("x", undefined, "one\ntwo", true),
      box("y", { order: 5 }),
      box("z", { order: 2 }, "first\n\nsecond", true),
    );
    expect(revealsOf(moving).map(({ element, paragraph, press }) => [element, paragraph, press])).toEqual([
      ["z", 0, 1],
      ["z", 2, 2],
      ["y", undefined, 3],
      ["x", 0, 4],
      ["x", 1, 5],
    ]);
    expect(pressesOf(slide())).toBe(0);
  });

  it("lets points follow by themselves where the first one does", () => {
    expect(
      revealsOf(slide(box("x", { trigger: "after", seconds: 1 }, "one\ntwo\nthree", true))).map(({ press, start }) => [
        press,
        start,
      ]),
    ).toEqual([
      [0, 0],
      [0, 1],
      [0, 2],
    ]);
  });

  it("brings points together with those before them, and leaves what is there from the beginning", () => {
    const points = (...steps: (string | undefined)[]) =>
      ({
        ...box("x", { effect: "wipe", seconds: 1, delay: 0.5 }),
        steps: true,
        text: steps.map((step, at) => ({
          kind: "bullet" as const,
          level: 0,
          runs: [{ text: String(at) }],
          ...(step ? { step } : {}),
        })),
      }) as Element;
    expect(
      revealsOf(slide(points("shown", undefined, "with", "shown", undefined, "with"))).map(
        ({ paragraph, press, start, trigger }) => [paragraph, press, start, trigger],
      ),
    ).toEqual([
      [1, 1, 0.5, "press"],
      [2, 1, 0.5, "with"],
      [4, 2, 0.5, "press"],
      [5, 2, 0.5, "with"],
    ]);
    // What would come with nothing comes first.
    expect(
      revealsOf(slide(points("with", "with", undefined))).map(({ paragraph, press }) => [paragraph, press]),
    ).toEqual([
      [0, 1],
      [1, 1],
      [2, 2],
    ]);
    expect(revealsOf(slide(points("shown", "shown")))).toEqual([]);
  });

  it("knows the forms in which points come, and puts them into one", () => {
    const text = [0, 1, 1, 0, 2].map((level, at) => ({
      kind: "bullet" as const,
      level,
      runs: at === 2 ? [] : [{ text: String(at) }],
    }));
    expect(stepsForm(text)).toBe("each");
    const main = withSteps(text, "main");
    expect(main.map(({ step }) => step)).toEqual([undefined, "with", undefined, undefined, "with"]);
    expect(stepsForm(main)).toBe("main");
    expect(withSteps(main, "each")).toEqual(text);
    expect(
      stepsForm(main.map((paragraph, at) => (at === 3 ? { ...paragraph, step: "with" as const } : paragraph))),
    ).toBe("own");
  });

  it("has orders that count from 0, and no entrance that says no more than its steps", () => {
    const moving = slide(
      box("a", { order: 40 }),
      box("b", { order: 7 }),
      box("c", { order: 50, effect: "appear", seconds: 0 }, "one\ntwo", true),
    );
    const ordered = orderedEntrances(moving);
    expect(ordered.map(({ entrance }) => entrance?.order)).toEqual([1, 0, undefined]);
    expect(revealsOf({ ...moving, elements: ordered })).toEqual(revealsOf(moving));
  });
});
