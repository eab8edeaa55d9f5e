import type { Frame } from "@unitext/core/model";
import { balanceOf, equilibriumOf, simplicityOf } from "./score";

// The values follow from the formulas of Ngo, Teo and Byrne 2003 (“Modelling interface aesthetics for the World Wide Web”);
// the formulas are from memory.
const page = { width: 960, height: 540 };
const box = (x: number, y: number, width: number, height: number): Frame => ({ x, y, width, height });

describe("measures of a layout", () => {
  it("are 1 where everything is the same on both sides of the middle", () => {
    const even = [box(100, 100, 200, 100), box(660, 100, 200, 100), box(100, 340, 200, 100), box(660, 340, 200, 100)];
    expect(balanceOf(even, page)).toBeCloseTo(1);
    expect(equilibriumOf(even, page)).toBeCloseTo(1);
  });

  it("weigh an object by its area and its distance from the middle", () => {
    // Twice the area at half the distance has the same weight on the left as on the right.
    const weighed = [box(280, 245, 200, 50), box(630, 245, 100, 50)];
    // Left: 10,000 × 100; right: 5,000 × 200; both are on the middle line.
    expect(balanceOf(weighed, page)).toBeCloseTo(1);
    const left = [box(0, 245, 200, 50)];
    expect(balanceOf(left, page)).toBeCloseTo(0.5);
  });

  it("fall with the distance of the middle of all objects from that of the page", () => {
    // The object is centred 240 points left of the middle of the page and on its middle line: 1 − (2 × 240 / 960 + 0) / 2.
    expect(equilibriumOf([box(190, 220, 100, 100)], page)).toBeCloseTo(0.75);
  });

  it("are higher where objects share edges", () => {
    const aligned = [box(60, 40, 400, 50), box(60, 150, 800, 300)];
    const loose = [box(60, 40, 400, 50), box(90, 150, 800, 300)];
    // Three divided by left edges, top edges and objects: 3 / (1 + 2 + 2) and 3 / (2 + 2 + 2).
    expect(simplicityOf(aligned)).toBeCloseTo(0.6);
    expect(simplicityOf(loose)).toBeCloseTo(0.5);
  });
});
