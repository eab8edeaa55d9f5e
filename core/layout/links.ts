import type { Frame } from "@unitext/core/model";
import { linkNames, type Matrix, type Scene, type SceneNode } from "./scene";

/** The area of a link on a page in points, its target, and its name. */
export interface LinkPlace extends Frame {
  to: string;
  words: string;
}

/** Returns the lines of nodes, including those in groups, each with its transforms, the innermost first. */
const linesIn = (
  nodes: readonly SceneNode[],
  within: readonly Matrix[] = [],
): { line: Extract<SceneNode, { kind: "text" }>["lines"][number]; within: readonly Matrix[] }[] =>
  nodes.flatMap((node) =>
    node.kind === "text"
      ? node.lines.map((line) => ({ line, within }))
      : node.kind === "group"
        ? linesIn(node.nodes, node.matrix ? [node.matrix, ...within] : within)
        : [],
  );

/** Returns the upright bounding box of a transformed area. */
function seen(place: LinkPlace, within: readonly Matrix[]): LinkPlace {
  if (!within.length) return place;
  const { x, y, width, height } = place;
  const corners = [
    [x, y],
    [x + width, y],
    [x, y + height],
    [x + width, y + height],
  ].map(([px = 0, py = 0]) =>
    within.reduce(([qx, qy], [a, b, c, d, e, f]) => [a * qx + c * qy + e, b * qx + d * qy + f] as [number, number], [
      px,
      py,
    ] as [number, number]),
  );
  const [xs, ys] = [corners.map(([at]) => at), corners.map(([, at]) => at)];
  const [left, top] = [Math.min(...xs), Math.min(...ys)];
  return { ...place, x: left, y: top, width: Math.max(...xs) - left, height: Math.max(...ys) - top };
}

/** Returns the links of a scene with their areas. Runs that follow each other on a line are one area. */
export function linkPlaces(scene: Scene): LinkPlace[] {
  const names = linkNames(scene);
  const whole = scene.boxes.flatMap((box): LinkPlace[] =>
    box.link
      ? [
          {
            to: box.link,
            words: names.get(box.element ?? "") ?? "",
            x: box.x,
            y: box.y,
            width: box.width,
            height: box.height,
          },
        ]
      : [],
  );
  const words = linesIn(scene.nodes).flatMap(({ line: { y, runs }, within }) => {
    const places: LinkPlace[] = [];
    for (const run of runs) {
      const last = places.at(-1);
      if (!run.link) continue;
      if (last && last.to === run.link && Math.abs(last.x + last.width - run.x) < 2) {
        last.width = run.x + run.width - last.x;
        last.words += run.text;
      } else
        places.push({
          to: run.link,
          words: run.text,
          x: run.x,
          y: y - run.size,
          width: run.width,
          height: run.size * 1.3,
        });
    }
    return places.map((place) => seen(place, within));
  });
  return [...whole, ...words];
}
