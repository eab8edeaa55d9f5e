import {
  type ArrangementName,
  ARRANGEMENTS,
  DESIGN_NAMES,
  type DesignName,
  designTheme,
  must,
  type Page,
  PAGES,
  slotsOf,
  THEMES,
} from "@unitext/core/model";
import { contentArea, loosePlace, pageScale, regionPlaces, sizeOf, slotPlaces } from "./index";

const pages: Page[] = [...Object.values(PAGES), { width: 540, height: 720 }, { width: 1920, height: 1080 }];
const names = Object.keys(ARRANGEMENTS) as ArrangementName[];
const setup = (page: Page, language = "en", design: DesignName = "plain") => ({
  page,
  language,
  theme: designTheme(design),
});

describe.each(names)("the arrangement %s", (arrangement) => {
  it("has a place for each of its slots and for no other", () => {
    expect([...slotPlaces(arrangement, setup(must(pages[0]))).keys()].sort()).toEqual(
      slotsOf(arrangement)
        .map(([slot]) => slot)
        .sort(),
    );
  });

  it.each(DESIGN_NAMES)("keeps its slots on the page and apart from each other and from the footer in %s", (design) => {
    for (const [page, language] of pages.flatMap((one) => [[one, "en"] as const, [one, "ar"] as const])) {
      const own = setup(page, language, design);
      const hasRegions = arrangement !== "opening" && arrangement !== "blank";
      const frames = [
        ...[...slotPlaces(arrangement, own).values()].map(({ frame }) => frame),
        ...(hasRegions ? Object.values(regionPlaces(own)).map(({ frame }) => frame) : []),
      ];
      for (const { x, y, width, height } of frames) {
        expect(x).toBeGreaterThanOrEqual(-0.01);
        expect(y).toBeGreaterThanOrEqual(-0.01);
        expect(x + width).toBeLessThanOrEqual(page.width + 0.01);
        expect(y + height).toBeLessThanOrEqual(page.height + 0.01);
      }
      const area = contentArea(own);
      if (design === "plain")
        for (const { frame } of slotPlaces(arrangement, own).values()) {
          expect(frame.x).toBeGreaterThanOrEqual(area.x - 0.01);
          expect(frame.y).toBeGreaterThanOrEqual(area.y - 0.01);
          expect(frame.x + frame.width).toBeLessThanOrEqual(area.x + area.width + 0.01);
          expect(frame.y + frame.height).toBeLessThanOrEqual(area.y + area.height + 0.01);
        }
      const apart = frames.every((a, at) =>
        frames
          .slice(at + 1)
          .every(
            (b) =>
              a.x + a.width <= b.x + 0.01 ||
              b.x + b.width <= a.x + 0.01 ||
              a.y + a.height <= b.y + 0.01 ||
              b.y + b.height <= a.y + 0.01,
          ),
      );
      expect([page, language, apart]).toEqual([page, language, true]);
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
    const page = setup(PAGES["4:3"]);
    expect(loosePlace("title", "points", page).frame.y).toBeLessThan(loosePlace("anything", "points", page).frame.y);
    expect(loosePlace(null, "points", page).role).toBe("body");
  });
});
