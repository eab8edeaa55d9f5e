import { type ArrangementName, ARRANGEMENTS, PAGES, slotsOf, THEMES, must } from "@unitext/core/model";
import { contentArea, loosePlace, pageScale, sizeOf, slotPlaces } from "./index";

const pages = [...Object.values(PAGES), { width: 540, height: 720 }, { width: 1920, height: 1080 }];
const names = Object.keys(ARRANGEMENTS) as ArrangementName[];

describe.each(names)("the arrangement %s", (arrangement) => {
  it("has a place for each of its slots and for no other", () => {
    expect([...slotPlaces(arrangement, must(pages[0]), "ltr").keys()].sort()).toEqual(
      slotsOf(arrangement)
        .map(([slot]) => slot)
        .sort(),
    );
  });

  it("keeps its slots inside the margins, above the footer, and apart from each other, on every page", () => {
    for (const [page, direction] of pages.flatMap((one) => [[one, "ltr"] as const, [one, "rtl"] as const])) {
      const area = contentArea(page);
      const frames = [...slotPlaces(arrangement, page, direction).values()].map(({ frame }) => frame);
      for (const { x, y, width, height } of frames) {
        expect(x).toBeGreaterThanOrEqual(area.x - 0.01);
        expect(y).toBeGreaterThanOrEqual(area.y - 0.01);
        expect(x + width).toBeLessThanOrEqual(area.x + area.width + 0.01);
        expect(y + height).toBeLessThanOrEqual(area.y + area.height + 0.01);
      }
      frames.forEach((a, at) => {
        for (const b of frames.slice(at + 1))
          expect(
            a.x + a.width <= b.x + 0.01 ||
              b.x + b.width <= a.x + 0.01 ||
              a.y + a.height <= b.y + 0.01 ||
              b.y + b.height <= a.y + 0.01,
          ).toBe(true);
      });
    }
  });
});

describe("sizes", () => {
  it("follow the page's height, and shrink on a narrow page so that titles keep their lines", () => {
    expect(pageScale(PAGES["16:9"])).toBe(1);
    expect(pageScale({ width: 1920, height: 1080 })).toBe(2);
    expect(pageScale({ width: 540, height: 720 })).toBe(0.75);
    expect(sizeOf("title", THEMES.saltmarsh, { width: 1920, height: 1080 })).toBe(2 * THEMES.saltmarsh.scale.title);
  });

  it("give every theme a readable smallest text: no step goes below its minimum without being held there", () => {
    for (const theme of Object.values(THEMES)) {
      expect([...theme.steps].sort((a, b) => b - a)).toEqual([...theme.steps]);
      expect(theme.steps[0]).toBe(1);
      expect(theme.minimum).toBeGreaterThanOrEqual(16);
    }
  });

  it("find a place for what an arrangement has no slot for", () => {
    const page = PAGES["4:3"];
    expect(loosePlace("title", page).frame.y).toBeLessThan(loosePlace("anything", page).frame.y);
    expect(loosePlace(null, page).role).toBe("body");
  });
});
