import type { FigurePath, FormulaShape } from "@unitext/core/figures";
import type { Frame, Page } from "@unitext/core/model";
import type { ShapedWord } from "./fonts";

/** A word where it stands in its run: pen position in points from the run's left edge. Kept for drawing glyph by glyph. */
export interface PlacedWord {
  x: number;
  text: string;
  word: ShapedWord;
}

/** A stretch of a line in one face, size, colour and direction. `x` is its left edge in points from the page's left. */
export interface SceneRun {
  x: number;
  width: number;
  text: string;
  face: string;
  size: number;
  fill: string;
  rtl: boolean;
  underline?: boolean;
  strike?: boolean;
  link?: string;
  /** A bullet or number: drawn, but no part of the text. */
  marker?: boolean;
  words?: PlacedWord[];
  /** How far its baseline stands above the line's, in points. */
  rise?: number;
  /** Drawn as these outlines, in em of `em` points from the run's left edge on the baseline; the text is then U+FFFC. */
  formula?: { paths: FormulaShape["paths"]; em: number };
}

/** A line of text: `y` is its baseline in points from the page's top. */
export interface SceneLine {
  x: number;
  y: number;
  width: number;
  height: number;
  text: string;
  paragraph: number;
  runs: SceneRun[];
}

export type SceneNode =
  | { kind: "rect"; x: number; y: number; width: number; height: number; fill: string }
  /** Outlines in points of the page. */
  | { kind: "paths"; element: string | null; paths: FigurePath[] }
  | { kind: "text"; element: string | null; role: string; lines: SceneLine[] }
  | ({ kind: "picture"; element: string; source: string; alt: string; missing: boolean } & Frame & { sha256?: string });

/** Where an element was put and how it fits: `size` is the text size taken, `overflow` what stands out below, in points. */
export interface SceneBox extends Frame {
  element: string | null;
  slot: string | null;
  size: number;
  overflow: number;
}

/** A slide laid out: what every drawing is made from. Lengths in points. */
export interface Scene {
  slide: string;
  page: Page;
  background: string;
  /** The elements whose paragraphs appear one at a time, with the number of each paragraph's step from 1. */
  steps?: { element: string; first: number; count: number }[];
  nodes: SceneNode[];
  boxes: SceneBox[];
  /** The largest overflow of any box, in points; 0 when everything fits. */
  overflow: number;
  /** Share of the text area that is filled, 0 to 1 and above when it overflows. */
  fullness: number;
  language: string;
}

/** The same scene without shaped glyphs: plain data that can be sent between threads and stored. */
export function plainScene(scene: Scene): Scene {
  const strip = ({ words: _, ...run }: SceneRun): SceneRun => run;
  return { ...scene, nodes: scene.nodes.map((node) => (node.kind === "text" ? { ...node, lines: node.lines.map((line) => ({ ...line, runs: line.runs.map(strip) })) } : node)) };
}

/** The text lines of a scene in drawing order, markers left out. */
export function sceneLines(scene: Scene): string[] {
  return scene.nodes.flatMap((node) => (node.kind === "text" ? node.lines.map((line) => line.text) : []));
}

/** A formula in a line, as outlines on the page. */
export function formulaPaths(run: SceneRun, y: number): FigurePath[] {
  const { em = 0, paths = [] } = run.formula ?? {};
  return paths.map(({ d, matrix: [a, b, c, e, f, g] }) => ({ d, fill: run.fill, matrix: [a * em, b * em, c * em, e * em, run.x + (0.05 + f) * em, y + g * em] as const }));
}
