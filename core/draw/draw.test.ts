import { layoutSlide, sceneLines } from "@unitext/core/layout";
import { designTheme, emptyDeck, metadataOf, newSlide, plainText, must } from "@unitext/core/model";
import { deckArbitrary } from "@unitext/core/testing";
import { shippedFonts } from "@unitext/core/testing/fonts";
import { Resvg } from "@resvg/resvg-js";
import fc from "fast-check";
import { PNG } from "pngjs";
import { SaxesParser } from "saxes";
import { scenesMarkup, sceneSvg } from "./index";

const fonts = shippedFonts();
const none = () => undefined;

/** The text elements of an SVG by their baseline, in document order. */
function svgTexts(svg: string): { y: number; text: string }[] {
  const texts: { y: number; text: string }[] = [];
  const parser = new SaxesParser();
  parser.on("opentag", ({ name, attributes }) => name === "text" && texts.push({ y: Number(attributes.y), text: "" }));
  parser.on("text", (text) => {
    const last = texts.at(-1);
    if (last) last.text += text;
  });
  parser.write(svg).close();
  return texts;
}

describe("a scene drawn as SVG", () => {
  it("has the scene's lines, character for character, at their baselines", () => {
    fc.assert(
      fc.property(deckArbitrary({ minLength: 1, maxLength: 2 }), (deck) => {
        for (const slide of deck.slides) {
          const scene = layoutSlide(slide, { metadata: metadataOf(deck), number: 1, fonts });
          const expected = scene.nodes.flatMap((node) =>
            node.kind === "text"
              ? node.lines.flatMap((line) =>
                  line.runs
                    .filter((run) => !run.formula)
                    .map((run) => ({ y: Math.round((line.y - (run.rise ?? 0)) * 1000) / 1000, text: run.text })),
                )
              : [],
          );
          expect(svgTexts(sceneSvg(scene, { picture: none })).filter(({ text }) => text.trim())).toEqual(
            expected.filter(({ text }) => text.trim()),
          );
          const letters = (text: string) => [...text.replace(/\s/g, "")].sort().join("");
          for (const node of scene.nodes)
            if (node.kind === "text")
              for (const line of node.lines)
                expect(
                  letters(
                    line.runs
                      .filter(({ marker }) => !marker)
                      .map(({ text }) => text)
                      .join(""),
                  ),
                ).toBe(letters(line.text));
        }
      }),
      { numRuns: 60 },
    );
  });

  it("is well-formed whatever the words hold", () => {
    fc.assert(
      fc.property(fc.string({ unit: "binary", maxLength: 30 }), (words) => {
        const slide = {
          ...newSlide("s", "points"),
          elements: [{ kind: "text" as const, id: "t", slot: "body", text: plainText(words) }],
        };
        const scene = layoutSlide(slide, { metadata: metadataOf(emptyDeck("d", "D")), number: 1, fonts });
        expect(() => svgTexts(sceneSvg(scene, { picture: none, title: words }))).not.toThrow();
      }),
    );
  });

  it("as outlines shows ink where each line of the scene stands, and nowhere below it", () => {
    const slide = {
      ...newSlide("s", "points"),
      elements: [
        { kind: "text" as const, id: "t", slot: "body", text: plainText("The height of the water\nمدّ وجزر\nПрилив") },
      ],
    };
    const metadata = { ...metadataOf(emptyDeck("d", "D")), regions: { footer: "", number: false } };
    const scene = layoutSlide(slide, {
      metadata: { ...metadata, theme: designTheme("plain") },
      number: 1,
      fonts,
    });
    const png = PNG.sync.read(
      Buffer.from(new Resvg(sceneSvg(scene, { picture: none, outlines: fonts })).render().asPng()),
    );
    const ink = (from: number, to: number) => {
      for (let y = Math.round(from); y < to; y++)
        for (let x = 0; x < png.width; x++) if (must(png.data[(y * png.width + x) * 4]) < 120) return true;
      return false;
    };
    const lines = scene.nodes.flatMap((node) => (node.kind === "text" ? node.lines : []));
    expect(sceneLines(scene)).toHaveLength(3);
    for (const { y, height } of lines) expect(ink(y - height * 0.6, y)).toBe(true);
    expect(ink((lines.at(-1)?.y ?? 0) + 15, png.height)).toBe(false);
  });
});

describe("what a drawing refers to", () => {
  const shape = (id: string, more: object) => ({
    kind: "shape" as const,
    id,
    slot: null,
    frame: { x: 100, y: 100, width: 200, height: 100 },
    geometry: { preset: "rect" },
    text: [],
    ...more,
  });
  const gradient = {
    kind: "gradient" as const,
    form: "linear" as const,
    angle: 0,
    stops: [
      { at: 0, colour: "#112233" },
      { at: 1, colour: "#445566" },
    ],
  };
  const shadow = { colour: "#000000", opacity: 0.8, blur: 20, distance: 0, direction: 0 };
  const sceneOf = (...elements: object[]) => {
    const slide = { ...newSlide("s", "blank"), elements: elements as never };
    return layoutSlide(slide, { metadata: metadataOf({ ...emptyDeck("d", "D"), slides: [slide] }), number: 1, fonts });
  };

  it("is defined in the drawing itself: on a page of several none is painted by what another one defines, which may not be shown", () => {
    const { drawings } = scenesMarkup(
      [sceneOf(shape("a", { fill: gradient, shadow })), sceneOf(shape("a", { fill: gradient, shadow }))],
      { picture: none, outlines: fonts },
    );
    const ids = drawings.map((drawing) => [...drawing.matchAll(/\sid="([^"]+)"/g)].map(([, id]) => must(id)));
    expect(ids[0]?.length).toBeGreaterThanOrEqual(2);
    expect(ids.flat().length).toBe(new Set(ids.flat()).size);
    drawings.forEach((drawing, nth) => {
      for (const [, id] of drawing.matchAll(/url\(#([^)]+)\)/g)) expect(ids[nth]).toContain(id);
    });
  });

  it("spreads a soft shadow over its distance: half as dark at the edge, and nothing a distance and a half away (SVG 1.1, 15.17)", () => {
    // The shape itself is white on white, so that its shadow alone is seen.
    const svg = sceneSvg(sceneOf(shape("a", { fill: { kind: "solid", colour: "#000000", opacity: 0.001 }, shadow })), {
      picture: none,
      outlines: fonts,
    });
    const { width, data } = PNG.sync.read(
      Buffer.from(new Resvg(svg, { fitTo: { mode: "original" } }).render().asPng()),
    );
    const paper = must(data[(20 * width + 900) * 4]);
    const dark = (x: number) => (paper - must(data[(150 * width + x) * 4])) / paper;
    expect(dark(200)).toBeGreaterThan(0.75);
    expect(Math.abs(dark(100) - 0.4)).toBeLessThan(0.06);
    expect(dark(90)).toBeLessThan(dark(100));
    expect(dark(110)).toBeGreaterThan(dark(100));
    expect(dark(68)).toBeLessThan(0.01);
  });

  it("is level in a line whose file gives it a height that nobody sees", () => {
    const svg = sceneSvg(
      sceneOf(
        shape("l", {
          frame: { x: 56, y: 92, width: 848, height: 0.1 },
          geometry: { preset: "line" },
          stroke: { colour: "#000000", width: 2 },
        }),
      ),
      { picture: none },
    );
    expect(svg).toMatch(/d="M0 0L848 0"/);
  });
});
