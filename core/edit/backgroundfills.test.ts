import { slideTheme } from "@unitext/core/layout";
import { contrast, Fill, newSlide, TEXT_CONTRAST, THEMES } from "@unitext/core/model";
import { BACKGROUND_FILLS } from "./index";

/** The colours that a fill is drawn in. */
const coloursOf = (fill: Fill): string[] =>
  fill.kind === "solid"
    ? [fill.colour]
    : fill.kind === "gradient"
      ? fill.stops.map(({ colour }) => colour)
      : fill.kind === "pattern"
        ? [fill.fore, fill.back]
        : [];

describe("fills for backgrounds", () => {
  // WCAG 2.2, 1.4.3: the contrast of text with its background is at least 4.5:1.
  it.each(Object.entries(THEMES))("leave all text readable in the design %s", (_, theme) => {
    for (const [name, { fill }] of Object.entries(BACKGROUND_FILLS)) {
      const background = { fill: fill(theme.colours) };
      const { colours } = slideTheme({ ...newSlide("s", "points"), background }, { theme });
      for (const behind of coloursOf(background.fill))
        for (const text of [colours.ink, colours.muted, colours.link, colours.accent])
          expect({ name, text, readable: contrast(text, behind) >= TEXT_CONTRAST }).toEqual({
            name,
            text,
            readable: true,
          });
    }
  });

  it("are fills of the model, and differ from the paper and from each other in every design", () => {
    for (const { colours } of Object.values(THEMES)) {
      const fills = Object.values(BACKGROUND_FILLS).map(({ fill }) => fill(colours));
      for (const fill of fills) {
        expect(Fill.parse(fill)).toEqual(fill);
        expect(coloursOf(fill).some((colour) => colour !== colours.paper)).toBe(true);
      }
      expect(new Set(fills.map((fill) => JSON.stringify(fill))).size).toBe(fills.length);
    }
  });
});
