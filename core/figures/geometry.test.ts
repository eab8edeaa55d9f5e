import { formOf, guideValues, knowsPreset } from "./index";

const numbers = (preset: string, adjust?: Record<string, number>) => formOf({ preset, ...(adjust ? { adjust } : {}) }, 100, 60).outlines[0]?.d.match(/[MLZ]|-?[\d.]+/g)?.map((part) => (/[MLZ]/.test(part) ? part : Math.round(Number(part) * 100) / 100)).join(" ");

// The guide formulas of presetShapeDefinitions.xml (ECMA-376-1, annex D), worked by hand for a shape of 100 by 60: ss is 60.
describe("preset forms", () => {
  it.each([
    ["triangle", undefined, "M 0 60 L 50 0 L 100 60 Z"],
    ["triangle", { adj: 20000 }, "M 0 60 L 20 0 L 100 60 Z"],
    ["rtTriangle", undefined, "M 0 60 L 0 0 L 100 60 Z"],
    ["diamond", undefined, "M 0 30 L 50 0 L 100 30 L 50 60 Z"],
    // x2 = ss·25000/100000 = 15, x5 = 100 − 15.
    ["parallelogram", undefined, "M 0 60 L 15 0 L 100 0 L 85 60 Z"],
    // x1 = ss·25000/100000 = 15; dy1 = sin 60° of 30·1.1547 = 30, so that the corners are at top and bottom.
    ["hexagon", undefined, "M 0 30 L 15 0 L 85 0 L 100 30 L 85 60 L 15 60 Z"],
    // x1 = ss·29289/100000 = 17.57.
    ["octagon", undefined, "M 0 17.57 L 17.57 0 L 82.43 0 L 100 17.57 L 100 42.43 L 82.43 60 L 17.57 60 L 0 42.43 Z"],
    // x1 = ss·25000/100000 = 15.
    ["plus", undefined, "M 0 15 L 15 15 L 15 0 L 85 0 L 85 15 L 100 15 L 100 45 L 85 45 L 85 60 L 15 60 L 15 45 L 0 45 Z"],
    // The head is ss·50000/100000 = 30 long, the shaft 60·50000/100000 = 30 high.
    ["rightArrow", undefined, "M 0 15 L 70 15 L 70 0 L 100 30 L 70 60 L 70 45 L 0 45 Z"],
    // x1 = ss·50000/100000 = 30, x2 = 100 − 30.
    ["chevron", undefined, "M 0 0 L 70 0 L 100 30 L 70 60 L 0 60 L 30 30 Z"],
    // x1 = 60·33333/100000 = 20, g1 = 60·20/100 = 12; x2 = 100 − 20·100/60, y2 = 60 − 20·60/100.
    ["halfFrame", undefined, "M 0 0 L 100 0 L 66.67 20 L 20 20 L 20 48 L 0 60 Z"],
    // The shaft is 60·25000/100000 = 15 wide, the head twice as wide and 15 high.
    ["bentUpArrow", undefined, "M 0 45 L 77.5 45 L 77.5 15 L 70 15 L 85 0 L 100 15 L 92.5 15 L 92.5 60 L 0 60 Z"],
    ["dodecagon", undefined, "M 0 21.96 L 13.4 8.04 L 36.6 0 L 63.4 0 L 86.6 8.04 L 100 21.96 L 100 38.04 L 86.6 51.96 L 63.4 60 L 36.6 60 L 13.4 51.96 L 0 38.04 Z"],
    ["homePlate", undefined, "M 0 0 L 70 0 L 100 30 L 70 60 L 0 60 Z"],
  ] as [string, Record<string, number> | undefined, string][])("%s with %j", (preset, adjust, wanted) => {
    expect(numbers(preset, adjust)).toBe(wanted);
  });

  it("round corners by ss·16667/100000, and their text stands off by 29289 of 100000 of that", () => {
    const { outlines, text } = formOf({ preset: "roundRect" }, 100, 60);
    expect(outlines[0]?.d.startsWith("M0 10A10 10 0 0 1 10 0L90 0A10 10 0 0 1 100 10")).toBe(true);
    expect(text.x).toBeCloseTo(2.929, 2);
    expect(text.width).toBeCloseTo(100 - 2 * 2.929, 2);
  });

  it("an ellipse is one, and its text stands in the rectangle at 45°", () => {
    const { outlines, text } = formOf({ preset: "ellipse" }, 100, 60);
    expect(outlines[0]?.d).toMatch(/^M0 30A50 30 0 0 1 /);
    expect(text.x).toBeCloseTo(50 * (1 - Math.SQRT1_2), 3);
    expect(text.height).toBeCloseTo(60 * Math.SQRT1_2, 3);
  });

  it("what is not known is drawn as its rectangle, and said not to be known", () => {
    expect(knowsPreset("gear6")).toBe(false);
    expect(numbers("gear6")).toBe("M 0 0 L 100 0 L 100 60 L 0 60 Z");
  });
});

// ECMA-376-1, 20.1.9.11: the operations of guides.
describe("guide formulas", () => {
  const value = (formula: string) => guideValues([{ name: "x", formula }], { a: 25000 }, 200, 100).get("x");
  it.each([["*/ 10 6 4", 15], ["+- 7 3 2", 8], ["+/ 7 3 2", 5], ["?: -1 2 3", 3], ["?: 1 2 3", 2], ["abs -4", 4], ["max 3 9", 9], ["min 3 9", 3], ["mod 2 3 6", 7], ["pin 0 a 20000", 20000], ["pin 30000 a 50000", 30000], ["sqrt 81", 9], ["val a", 25000], ["sin 10 5400000", 10], ["cos 10 10800000", -10], ["tan 10 2700000", 10], ["at2 10 10", 2700000], ["cat2 10 3 4", 6], ["sat2 10 3 4", 8], ["*/ w 1 2", 100], ["*/ 1 1 0", 0]] as [string, number][])("%s is %d", (formula, wanted) => {
    expect(value(formula)).toBeCloseTo(wanted, 6);
  });
});

it("outlines of one's own are stretched to the frame", () => {
  expect(formOf({ width: 10, height: 10, paths: [{ d: "M0 0L10 0A5 5 0 0 1 10 10Z", fill: true, stroke: false }] }, 100, 20).outlines).toEqual([{ d: "M0 0L100 0A50 10 0 0 1 100 20Z", fill: true, stroke: false, shade: 0 }]);
});
