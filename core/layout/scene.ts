import type { FigurePath, FormulaShape } from "@unitext/core/figures";
import type { DeckMetadata, Frame, Page, PictureElement, Reveal, RunProperties } from "@unitext/core/model";
import type { ShapedWord } from "./fonts";

/** A word in its run: its pen position in points from the run's left edge. Used to draw glyph by glyph. */
export interface PlacedWord {
  x: number;
  text: string;
  word: ShapedWord;
}

/** A piece of a line in one face, size, colour and direction. `x` is its left edge in points from the page's left. */
export interface SceneRun {
  x: number;
  width: number;
  text: string;
  face: string;
  size: number;
  fill: string;
  rtl: boolean;
  underline?: NonNullable<RunProperties["underline"]>;
  strike?: boolean;
  /** The highlight colour. */
  highlight?: string;
  link?: string;
  /** A bullet or number: drawn, but not part of the text. */
  marker?: boolean;
  words?: PlacedWord[];
  /** How far its baseline is above the line's, in points. */
  rise?: number;
  /**
   * Drawn as these outlines, in em of `em` points from the run's left edge on the baseline; the text is then U+FFFC.
   */
  formula?: { paths: FormulaShape["paths"]; em: number };
}

/** How a picture is recoloured. */
export type Recolour = NonNullable<PictureElement["recolour"]>;

/** A line of text: `y` is its baseline in points from the page's top. */
export interface SceneLine {
  x: number;
  y: number;
  width: number;
  height: number;
  text: string;
  paragraph: number;
  runs: SceneRun[];
  /** The picture bullet of the line. */
  sign?: { source: string } & Frame;
}

export type SceneNode =
  | { kind: "rect"; x: number; y: number; width: number; height: number; fill: string }
  /** Outlines in points of the page. */
  | { kind: "paths"; element: string | null; paths: FigurePath[] }
  | { kind: "text"; element: string | null; role: string; lines: SceneLine[] }
  | ({ kind: "picture"; element: string; source: string; alt: string; missing: boolean } & Frame & {
        sha256?: string;
        recolour?: Recolour;
      })
  /**
   * Nodes drawn together: transformed by a matrix, clipped by an outline (in the nodes' own points), or translucent.
   */
  | { kind: "group"; element: string | null; matrix?: Matrix; clip?: string; opacity?: number; nodes: SceneNode[] };

/** a b c d e f: x' = a·x + c·y + e, y' = b·x + d·y + f. */
export type Matrix = readonly [number, number, number, number, number, number];

/** The column widths and row heights of a table, in points. */
export interface TableGrid {
  widths: number[];
  heights: number[];
}

/** The box of an element and how it fits: `size` is the text size taken, `overflow` what does not fit, in points. */
export interface SceneBox extends Frame {
  element: string | null;
  slot: string | null;
  size: number;
  overflow: number;
  /** Rotation about its middle, clockwise in degrees. */
  rotation?: number;
  /** The link of the whole element. */
  link?: string;
  /** The grid of its table. */
  grid?: TableGrid;
}

/** Returns the box of an element with a frame. */
export const boxAt = (
  { x, y, width, height }: Frame,
  element: string,
  slot: string | null,
  size: number,
  overflow: number,
): SceneBox => ({ x, y, width, height, element, slot, size, overflow });

/** Returns all nodes of a list and of its groups that are not groups themselves, in drawing order. */
export function leavesOf(nodes: readonly SceneNode[]): Exclude<SceneNode, { kind: "group" }>[] {
  return nodes.flatMap((node) => (node.kind === "group" ? leavesOf(node.nodes) : [node]));
}

/** An element's own frame, and its nodes in the scene: those from index `from` to before `to`. */
export interface PositionedNodes {
  frame: Frame;
  rotation: number;
  from: number;
  to: number;
}

/** A slide laid out, from which every drawing is made. Lengths in points. */
export interface Scene {
  slide: string;
  page: Page;
  background: string;
  /** The entrances of its elements and points, in order. */
  reveals?: Reveal[];
  nodes: SceneNode[];
  boxes: SceneBox[];
  /** The elements with a frame of their own, by id. */
  positioned?: Record<string, PositionedNodes>;
  /** The largest overflow of any box, in points; 0 when everything fits. */
  overflow: number;
  /** The share of the text area that is filled; above 1 when it overflows. */
  fullness: number;
  language: string;
}

/** Returns the scene without shaped glyphs: plain data that can be sent between threads and stored. */
export function plainScene(scene: Scene): Scene {
  const strip = ({ words: _, ...run }: SceneRun): SceneRun => run;
  const plain = (node: SceneNode): SceneNode =>
    node.kind === "text"
      ? { ...node, lines: node.lines.map((line) => ({ ...line, runs: line.runs.map(strip) })) }
      : node.kind === "group"
        ? { ...node, nodes: node.nodes.map(plain) }
        : node;
  return { ...scene, nodes: scene.nodes.map(plain) };
}

/** Returns the text lines of a scene in drawing order, without bullets. */
export function sceneLines(scene: Scene): string[] {
  return leavesOf(scene.nodes).flatMap((node) => (node.kind === "text" ? node.lines.map((line) => line.text) : []));
}

/** Returns names for elements that are links as a whole, by id: their words, or the description of their picture. */
export function linkNames({ nodes, boxes }: Pick<Scene, "nodes" | "boxes">): ReadonlyMap<string, string> {
  const said = new Map(
    boxes.flatMap(({ element, link }) => (element !== null && link !== undefined ? [[element, [] as string[]]] : [])),
  );
  if (!said.size) return new Map();
  for (const node of leavesOf(nodes)) {
    const words =
      node.kind === "picture"
        ? node.alt
        : node.kind === "text"
          ? node.lines.map(({ runs }) => runs.map(({ text }) => text).join("")).join(" ")
          : "";
    if (words && "element" in node && node.element !== null) said.get(node.element)?.push(words);
  }
  return new Map([...said].map(([element, words]) => [element, words.join(" ").trim()]));
}

/** Returns the picture bullets of a text as nodes of an element. */
export function bulletNodes(
  lines: readonly SceneLine[],
  element: string,
  assets: DeckMetadata["assets"] | undefined,
): SceneNode[] {
  return lines.flatMap(({ sign }): SceneNode[] => {
    const asset = sign && assets?.[sign.source];
    return sign && asset ? [{ kind: "picture", element, alt: "", missing: false, sha256: asset.sha256, ...sign }] : [];
  });
}

/**
 * The thickness of underlines and strikethrough, and their positions below the baseline, as shares of the text size.
 */
const RULE = { width: 0.05, under: 0.145, through: -0.255 } as const;

/** Returns the lines under and through a run whose baseline is at `y`, as outlines on the page. */
export function ruledPaths({ x, width, size, fill, underline, strike }: SceneRun, y: number): FigurePath[] {
  const round = (value: number) => Math.round(value * 1000) / 1000;
  const straight = (at: number, thick: number, dash?: readonly number[]): FigurePath => ({
    d: `M${round(x)} ${round(y + at * size)}h${round(width)}`,
    stroke: fill,
    width: round(thick * size),
    ...(dash ? { dash: dash.map((part) => round(part * size)) } : {}),
  });
  const wave = (): FigurePath => {
    const [length, high] = [size * 0.12, size * 0.05];
    const turns = Math.max(1, Math.round(width / length));
    const step = width / turns;
    return {
      d: `M${round(x)} ${round(y + RULE.under * size)}${Array.from({ length: turns }, (_, nth) => `q${round(step / 2)} ${round(nth % 2 ? high : -high)} ${round(step)} 0`).join("")}`,
      stroke: fill,
      width: round(size * 0.04),
    };
  };
  const under: Record<NonNullable<SceneRun["underline"]>, () => FigurePath[]> = {
    single: () => [straight(RULE.under, RULE.width)],
    double: () => [straight(RULE.under - 0.035, RULE.width * 0.7), straight(RULE.under + 0.055, RULE.width * 0.7)],
    heavy: () => [straight(RULE.under + 0.02, RULE.width * 2)],
    dotted: () => [straight(RULE.under, RULE.width, [0.05, 0.08])],
    dashed: () => [straight(RULE.under, RULE.width, [0.25, 0.12])],
    wavy: () => [wave()],
  };
  return [...(underline ? under[underline]() : []), ...(strike ? [straight(RULE.through, RULE.width)] : [])];
}

/** Returns an inline formula as outlines on the page. */
export function formulaPaths(run: SceneRun, y: number): FigurePath[] {
  const { em = 0, paths = [] } = run.formula ?? {};
  return paths.map(({ d, matrix: [a, b, c, e, f, g] }) => ({
    d,
    fill: run.fill,
    matrix: [a * em, b * em, c * em, e * em, run.x + (0.05 + f) * em, y + g * em] as const,
  }));
}
