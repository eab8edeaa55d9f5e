import {
  type ArrangementName,
  ARRANGEMENTS,
  contrast,
  type DeckMetadata,
  designTheme,
  type Element,
  emptyDeck,
  metadataOf,
  MOODS,
  type Mood,
  must,
  newSlide,
  OFFERED_DESIGNS,
  plainText,
  type RichText,
  type Slide,
  slotsOf,
  TEXT_CONTRAST,
} from "@unitext/core/model";
import { sceneSvg } from "./index";
import { shippedFonts } from "@unitext/core/testing/fonts";
import { Resvg } from "@resvg/resvg-js";
import { designMaster, layoutSlide, leavesOf, type Scene, type SceneNode } from "@unitext/core/layout";

const fonts = shippedFonts();
/** The least contrast of large text. */
const LARGE_CONTRAST = 3;
const names = Object.keys(ARRANGEMENTS) as ArrangementName[];

/** What a slide is filled with: words that are few, many, or read from right to left. */
const CONTENTS = {
  little: {
    language: "en",
    title: "Two tides",
    line: "High water",
    points: ["High water comes late", "Springs follow the moon"],
  },
  much: {
    language: "en",
    title: "What the gauges of the outer harbour recorded in the storms of the last quarter",
    line: "Course team of the field station, coastal processes, week three of the winter term",
    points: Array.from({ length: 6 }, (_, at) => `Water stood ${at + 4} cm above the table for ${at + 2} hours`),
  },
  "right to left": {
    language: "ar",
    title: "ما تسجله مقاييس المد في الميناء",
    line: "محطة الساحل",
    points: ["ارتفع الماء في الليل", "يتبع المد القمر بيومين", "تدفع الرياح الماء نحو الشاطئ"],
  },
} as const;

const list = (points: readonly string[]): RichText =>
  points.map((text) => ({ kind: "bullet", level: 0, runs: [{ text }] }));

/** Returns an element for a slot, as an arrangement of that name would have it. */
function elementFor(
  slot: string,
  role: string,
  nth: number,
  content: (typeof CONTENTS)[keyof typeof CONTENTS],
): Element {
  const at = { id: `e${nth}`, slot };
  const { title, line, points } = content;
  const text = (words: RichText): Element => ({ kind: "text", ...at, text: words });
  if (slot === "table")
    return {
      kind: "table",
      ...at,
      header: 1,
      align: ["start", "end"],
      rows: [title, ...points].map((words) => [words, "4.9"].map((cell) => ({ text: plainText(cell) }))),
    };
  if (slot === "code") return { kind: "code", ...at, language: "python", text: points.join("\n") };
  if (slot === "formula") return { kind: "formula", ...at, tex: "h = h_0 + a" };
  if (slot === "diagram") return { kind: "diagram", ...at, type: "steps", text: list(points.slice(0, 3)) };
  if (slot === "chart")
    return {
      kind: "chart",
      ...at,
      type: "bar",
      categories: ["Jan", "Feb"],
      series: [{ name: "Level", values: [1, 2] }],
    } as Element;
  if (role === "picture") return { kind: "picture", ...at, source: "none.png", alt: "" };
  if (role === "number") return text(plainText("4.91 m"));
  if (role === "body" || role === "references") return text(list(points));
  return text(plainText(role === "title" || role === "opening" ? title : line));
}

function slideOf(arrangement: ArrangementName, content: (typeof CONTENTS)[keyof typeof CONTENTS]): Slide {
  const elements = slotsOf(arrangement).map(([slot, role], nth) => elementFor(slot, role, nth, content));
  return { ...newSlide("s", arrangement), elements };
}

function metadataIn(design: (typeof OFFERED_DESIGNS)[number], mood: Mood, language: string): DeckMetadata {
  const base = metadataOf(emptyDeck("d", "D"));
  return {
    ...base,
    language,
    theme: designTheme(design, mood),
    regions: { footer: "Marram Bay Field Station", header: "Coastal processes, week three", number: true },
  };
}

/** The width in pixels at which the backgrounds are drawn. */
const PIXELS = 480;

/** Returns the colour behind a place on the page, from a drawing without text. */
function backgroundOf(scene: Scene): (x: number, y: number) => string {
  const bare = (nodes: readonly SceneNode[]): SceneNode[] =>
    nodes.flatMap((node): SceneNode[] =>
      node.kind === "text" ? [] : node.kind === "group" ? [{ ...node, nodes: bare(node.nodes) }] : [node],
    );
  const svg = sceneSvg({ ...scene, nodes: bare(scene.nodes) }, { picture: () => undefined, outlines: fonts });
  const image = new Resvg(svg, { fitTo: { mode: "width", value: PIXELS } }).render();
  const { pixels, width, height } = image;
  return (x, y) => {
    const column = Math.min(width - 1, Math.max(0, Math.round((x / 960) * PIXELS)));
    const row = Math.min(height - 1, Math.max(0, Math.round((y / 960) * PIXELS)));
    const at = (row * width + column) * 4;
    return `#${[0, 1, 2]
      .map((channel) =>
        must(pixels[at + channel])
          .toString(16)
          .padStart(2, "0"),
      )
      .join("")}`;
  };
}

describe.each(OFFERED_DESIGNS)("the design %s", (design) => {
  it.each(names)(
    "shows little, much and right-to-left content on %s: nothing overlaps, is cut, or too faint",
    (name) => {
      for (const [kind, content] of Object.entries(CONTENTS))
        for (const mood of MOODS) {
          const metadata = metadataIn(design, mood, content.language);
          const scene = layoutSlide(slideOf(name, content), { metadata, number: 12, fonts });
          const lines = leavesOf(scene.nodes).flatMap((node) =>
            node.kind === "text" ? node.lines.map((line) => ({ ...line, of: node.element ?? node.role })) : [],
          );
          const where = `${kind}, ${mood}`;
          const behindAt = backgroundOf(scene);
          expect([where, scene.overflow]).toEqual([where, 0]);
          for (const { x, y, width, height, runs, text } of lines) {
            expect([where, text, x >= 0 && x + width <= 960 && y <= 540 && y - height >= -20]).toEqual([
              where,
              text,
              true,
            ]);
            for (const run of runs) {
              // Large text may have less contrast (WCAG 2.2, 1.4.3): from 18 points, 14 in bold.
              const least = run.size >= 18 ? LARGE_CONTRAST : TEXT_CONTRAST;
              for (const part of [0.1, 0.5, 0.9]) {
                const behind = behindAt(run.x + run.width * part, y - run.size * 0.3);
                const enough = contrast(run.fill, behind) >= least - 0.05;
                expect([where, run.text, run.fill, behind, enough]).toEqual([where, run.text, run.fill, behind, true]);
              }
            }
          }
          const overlapping = lines.flatMap((a, at) =>
            lines
              .slice(at + 1)
              .filter(
                (b) =>
                  a.of !== b.of &&
                  a.x < b.x + b.width - 1 &&
                  b.x < a.x + a.width - 1 &&
                  a.y - a.height * 0.6 < b.y - 1 &&
                  b.y - b.height * 0.6 < a.y - 1,
              )
              .map((b) => `${a.text} / ${b.text}`),
          );
          expect([where, overlapping]).toEqual([where, []]);
        }
    },
  );

  it("gives all titles the look that a deck sets for them, readable on whatever they are on", () => {
    const metadata = metadataIn(design, "light", "en");
    const roles = { title: { size: 30, colour: "#7a2e57", font: "Caladea", italic: true } } as const;
    const own = { ...metadata, theme: { ...metadata.theme, roles } };
    const slide = slideOf("points", CONTENTS.little);
    const scene = layoutSlide(slide, { metadata: own, number: 1, fonts });
    const line = leavesOf(scene.nodes).find((node) => node.kind === "text" && node.role === "title");
    const [run] = line?.kind === "text" ? must(line.lines[0]).runs : [];
    expect([run?.size, run?.face.startsWith("caladea"), run?.face.includes("italic")]).toEqual([30, true, true]);
    const behind = backgroundOf(scene)(must(run).x, must(line?.kind === "text" ? line.lines[0] : undefined).y - 8);
    expect(contrast(must(run).fill, behind)).toBeGreaterThanOrEqual(LARGE_CONTRAST - 0.05);
  });

  it("draws shapes that have a fill or an outline", () => {
    for (const name of names)
      for (const { fill, stroke } of designMaster(name, metadataIn(design, "light", "en")).elements)
        expect(fill !== undefined || stroke !== undefined).toBe(true);
  });
});
