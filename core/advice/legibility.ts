import { leavesOf, type Scene, type SceneRun } from "@unitext/core/layout";
import { contrast, TEXT_CONTRAST } from "@unitext/core/model";

/** The pixels of a picture as it covers the page: red, green, blue and alpha of each, from the top left. */
export interface PagePixels {
  width: number;
  height: number;
  data: Uint8ClampedArray;
}

/** The least contrast of large text, and from which size in points text is large (WCAG 2.2, 1.4.3). */
const LARGE = { contrast: 3, size: 24 } as const;
/** The share of pixels behind text that may have less contrast. */
const STRAY = 0.03;
/** The veils that are tried, lightest first. A heavier one would hide the picture. */
const VEILS = [0, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7] as const;

const hex = (value: number): string => Math.round(value).toString(16).padStart(2, "0");

/** Returns the colour of a pixel under a veil of paper. */
function underVeil({ data, width }: PagePixels, x: number, y: number, paper: readonly number[], veil: number): string {
  const at = (y * width + x) * 4;
  const mixed = [0, 1, 2].map((channel) => (data[at + channel] ?? 0) * (1 - veil) + (paper[channel] ?? 0) * veil);
  return `#${mixed.map(hex).join("")}`;
}

const channelsOf = (colour: string): number[] => [1, 3, 5].map((at) => Number.parseInt(colour.slice(at, at + 2), 16));

/** A run, and the top and height of its line in points. */
interface PlacedRun {
  run: SceneRun;
  top: number;
  height: number;
}

/** Returns the runs of all texts of a slide but its number and footer. */
const runsOn = (scene: Scene): PlacedRun[] =>
  leavesOf(scene.nodes).flatMap((node) =>
    node.kind === "text" && node.element !== null
      ? node.lines.flatMap((line) =>
          line.runs
            .filter(({ text }) => text.trim())
            .map((run) => ({ run, top: line.y - line.height * 0.75, height: line.height })),
        )
      : [],
  );

/** Whether all text of a slide can be read on the pixels behind it, under a veil of paper. */
function isLegible(runs: readonly PlacedRun[], scene: Scene, pixels: PagePixels, paper: string, veil: number): boolean {
  const [across, down] = [pixels.width / scene.page.width, pixels.height / scene.page.height];
  const channels = channelsOf(paper);
  const known = new Map<string, number>();
  return runs.every(({ run, top, height }) => {
    const least = run.size >= LARGE.size ? LARGE.contrast : TEXT_CONTRAST;
    const [left, right] = [Math.floor(run.x * across), Math.ceil((run.x + run.width) * across)];
    let [all, faint] = [0, 0];
    for (let y = Math.max(0, Math.floor(top * down)); y < Math.min(pixels.height, (top + height) * down); y++)
      for (let x = Math.max(0, left); x < Math.min(pixels.width, right); x++) {
        const behind = underVeil(pixels, x, y, channels, veil);
        const key = `${behind}${run.fill}`;
        const ratio = known.get(key) ?? contrast(run.fill, behind);
        known.set(key, ratio);
        all++;
        if (ratio < least) faint++;
      }
    return all === 0 || faint / all <= STRAY;
  });
}

/**
 * Returns the lightest veil of paper over a background picture under which all text of a slide can be read, measured on
 * the pixels behind it; undefined where none is enough, and the text needs plates. `scene` is the slide as it is laid out
 * without plates.
 */
export function legibleVeil(scene: Scene, pixels: PagePixels, paper: string): number | undefined {
  const runs = runsOn(scene);
  return VEILS.find((veil) => isLegible(runs, scene, pixels, paper, veil));
}
