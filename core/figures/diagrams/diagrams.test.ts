import { DIAGRAM_TYPES, type Paragraph, type RichText, textOf, THEMES } from "@unitext/core/model";
import { diagram, type FigureStyle } from "../index";

const item = (text: string, level = 0): Paragraph => ({ kind: "bullet", level, runs: [{ text }] });
const LIST: RichText = [
  item("Wind"),
  item("carries sand", 1),
  item("Grass"),
  item("slows it", 1),
  item("Sand"),
  item("Dune"),
];
const frame = { x: 40, y: 120, width: 880, height: 340 };
const colours = Object.values(THEMES)[0]?.colours as FigureStyle["colours"];
const style: FigureStyle = { colours, size: 24, measure: (text, size) => text.length * size * 0.5 };

describe("diagrams", () => {
  it.each(DIAGRAM_TYPES)("%s shows every word of its list, inside its frame", (type) => {
    const { labels } = diagram(type, LIST, frame, style);
    const said = labels.map(({ text }) => textOf(text)).join("\n");
    for (const paragraph of LIST) expect(said).toContain(textOf([paragraph]).trim());
    for (const { frame: box } of labels) {
      expect(box.x).toBeGreaterThanOrEqual(frame.x - 0.5);
      expect(box.y).toBeGreaterThanOrEqual(frame.y - 0.5);
      expect(box.x + box.width).toBeLessThanOrEqual(frame.x + frame.width + 0.5);
      expect(box.y + box.height).toBeLessThanOrEqual(frame.y + frame.height + 0.5);
    }
  });

  it.each([2, 3, 4, 5, 6, 7])("a cycle of %d stands on a round ring, with words that do not overlap", (count) => {
    const list = Array.from({ length: count }, (_, nth) => item(`Step ${nth + 1}`));
    const { labels } = diagram("cycle", list, frame, style);
    const centres = labels
      .filter(({ text }) => /^\d$/.test(textOf(text)))
      .map(({ frame: box }) => ({ x: box.x + box.width / 2, y: box.y + box.height / 2 }));
    const radii = centres.map(({ x, y }) =>
      Math.hypot(x - (frame.x + frame.width / 2), y - (frame.y + frame.height / 2)),
    );
    // On a circle all points are equally far from its centre (Euclid, Elements, I, definition 15).
    for (const radius of radii) expect(radius).toBeCloseTo(radii[0] ?? 0, 6);
    const words = labels.filter(({ text }) => textOf(text).startsWith("Step")).map(({ frame: box }) => box);
    for (const [nth, one] of words.entries())
      for (const other of words.slice(nth + 1))
        expect(
          one.x + one.width <= other.x + 0.5 ||
            other.x + other.width <= one.x + 0.5 ||
            one.y + one.height <= other.y + 0.5 ||
            other.y + other.height <= one.y + 0.5,
        ).toBe(true);
  });

  it("a timeline takes what is before a colon as the moment", () => {
    const { labels } = diagram("timeline", [item("1953: the great flood"), item("Later")], frame, style);
    expect(labels.map(({ text }) => textOf(text))).toEqual(["1953", "the great flood", "Later"]);
  });

  it("an overlap of three is a triad whose circles all meet, as in the diagrams of Venn (1880)", () => {
    const { paths } = diagram("relation", [item("Sea"), item("Sand"), item("Wind")], frame, style);
    const circles = paths.map(({ d }) => {
      const [, x = "0", y = "0", r = "0"] = /^M([\d.-]+) ([\d.-]+)a([\d.-]+)/.exec(d) ?? [];
      return { x: Number(x) + Number(r), y: Number(y), r: Number(r) };
    });
    const middle = {
      x: circles.reduce((sum, one) => sum + one.x, 0) / 3,
      y: circles.reduce((sum, one) => sum + one.y, 0) / 3,
    };
    for (const { x, y, r } of circles) expect(Math.hypot(x - middle.x, y - middle.y)).toBeLessThan(r);
  });
});
