import type { Frame } from "@unitext/core/model";
import type { Scene, SceneLine } from "./scene";

/** Shares of a line's height above and below its baseline. */
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
 * Returns the places on the page that elements really take, in points: for text in a slot the box around its words, which
 * is often much smaller than the slot; for everything else its frame.
 */
export function drawnPlaces(scene: Scene): Frame[] {
  const words = new Map<string, SceneLine[]>();
  const figures = new Set<string>();
  for (const node of scene.nodes) {
    if (node.kind === "rect" || node.element === null) continue;
    if (node.kind === "text") words.set(node.element, [...(words.get(node.element) ?? []), ...node.lines]);
    else figures.add(node.element);
  }
  return scene.boxes.flatMap(({ element, grid, x, y, width, height }) => {
    if (element === null) return [];
    const lines = grid || figures.has(element) || scene.positioned?.[element] ? undefined : words.get(element);
    const place = lines ? boundsOf(lines) : { x, y, width, height };
    return place ? [place] : [];
  });
}
