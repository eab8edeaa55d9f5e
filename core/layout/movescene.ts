import type { Frame } from "@unitext/core/model";
import type { PositionedNodes, Scene, SceneNode } from "./scene";

/**
 * Returns a scene in which elements are drawn at other places, without laying it out again; the nodes of all others are
 * the same objects. Returns undefined when the slide has to be laid out for it: when an element has another size or
 * rotation, or when it has no frame of its own and leaves a slot. Meant for drawing: the boxes stay as they were.
 */
export function moveInScene(
  scene: Scene,
  frames: ReadonlyMap<string, Frame & { rotation?: number }>,
): Scene | undefined {
  const moves = new Map<number, { element: string; part: PositionedNodes; x: number; y: number }>();
  for (const [element, { x, y, width, height, rotation = 0 }] of frames) {
    const part = scene.positioned?.[element];
    if (!part || part.frame.width !== width || part.frame.height !== height || part.rotation !== rotation)
      return undefined;
    if (part.to > part.from) moves.set(part.from, { element, part, x: x - part.frame.x, y: y - part.frame.y });
  }
  const nodes: SceneNode[] = [];
  for (let at = 0; at < scene.nodes.length; ) {
    const move = moves.get(at);
    const to = move?.part.to ?? at + 1;
    const own = scene.nodes.slice(at, to);
    if (move) nodes.push({ kind: "group", element: move.element, matrix: [1, 0, 0, 1, move.x, move.y], nodes: own });
    else nodes.push(...own);
    at = to;
  }
  return { ...scene, nodes };
}
