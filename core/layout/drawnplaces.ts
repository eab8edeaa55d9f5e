import type { Frame } from "@unitext/core/model";
import type { Scene, SceneLine } from "./scene";

/** The parts of a line's height above and below its baseline. */
const [ABOVE, BELOW] = [0.8, 0.3];

/** Returns the box around lines of text; undefined for none. */
function boundsOf(lines: readonly SceneLine[]): Frame | undefined {
  if (!lines.length) return undefined;
  const left = Math.min(...lines.map(({ x }) => x));
  const top = Math.min(...lines.map(({ y, height }) => y - height * ABOVE));
  const right = Math.max(...lines.map(({ x, width }) => x + width));
  const bottom = Math.max(...lines.map(({ y, height }) => y + height * BELOW));
  return { x: left, y: top, width: right - left, height: bottom - top };
}

/**
 * Returns the places on the page that elements really take, in points: for text the box around its words, which is often
 * much smaller than its slot; for everything else its frame.
 */
export function drawnPlaces(scene: Scene): Frame[] {
  const words = new Map<string, Frame | undefined>();
  for (const node of scene.nodes)
    if (node.kind === "text" && node.element !== null) words.set(node.element, boundsOf(node.lines));
  return scene.boxes.flatMap(({ element, x, y, width, height }) => {
    if (element === null) return [];
    const place = words.has(element) ? words.get(element) : { x, y, width, height };
    return place ? [place] : [];
  });
}
