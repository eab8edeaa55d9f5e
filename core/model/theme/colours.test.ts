import fc from "fast-check";
import { colourSet, coloursOnField, contrast, MOODS, readableOn } from "../index";

const colour = fc
  .tuple(fc.integer({ min: 0, max: 255 }), fc.integer({ min: 0, max: 255 }), fc.integer({ min: 0, max: 255 }))
  .map((channels) => `#${channels.map((value) => value.toString(16).padStart(2, "0")).join("")}`);

describe("colours", () => {
  // The examples of WCAG 2.2 are black on white, 21 : 1; grey #777777 on white is just short of 4.5 (common practice, no source).
  it("contrast as WCAG 2.2 defines it", () => {
    expect(contrast("#000000", "#ffffff")).toBeCloseTo(21, 5);
    expect(contrast("#777777", "#ffffff")).toBeCloseTo(4.48, 2);
    expect(contrast("#ffffff", "#ffffff")).toBe(1);
  });

  it("made from any two give texts that can be read on paper and on the field, in both moods", () => {
    fc.assert(
      fc.property(colour, colour, fc.constantFrom(...MOODS), (seed, other, mood) => {
        const set = colourSet(seed, other, mood);
        for (const colours of [set, coloursOnField(set)])
          for (const role of ["ink", "accent", "second", "muted", "link"] as const)
            expect(contrast(colours[role], colours.paper)).toBeGreaterThanOrEqual(4.5);
        expect(contrast(set.onField, set.field)).toBeGreaterThanOrEqual(4.5);
      }),
      { numRuns: 300 },
    );
  });

  it("that can be read already stay as they are", () => {
    expect(readableOn("#20302e", "#ffffff")).toBe("#20302e");
  });

  it("are light on dark in the dark mood, and keep the hue that was picked", () => {
    const [light, dark] = [colourSet("#0f5c63", undefined, "light"), colourSet("#0f5c63", undefined, "dark")];
    expect(contrast(light.paper, "#000000")).toBeGreaterThan(15);
    expect(contrast(dark.paper, "#ffffff")).toBeGreaterThan(12);
    expect(light.accent).toBe("#0f5c63");
  });
});
