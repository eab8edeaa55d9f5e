import type { Scene, SceneNode } from "@unitext/core/layout";

/** Returns a scene whose lines are at least so thick, in points: thinner ones would vanish between the pixels of a raster. */
export function withVisibleLines(scene: Scene, least: number): Scene {
  const visible = (node: SceneNode): SceneNode => {
    if (node.kind === "group") return { ...node, nodes: node.nodes.map(visible) };
    if (node.kind === "paths")
      return {
        ...node,
        paths: node.paths.map((path) => {
          const [a, b] = path.matrix ?? [1, 0];
          const scale = Math.hypot(a, b) || 1;
          return path.stroke && (path.width ?? 1) * scale < least ? { ...path, width: least / scale } : path;
        }),
      };
    if (node.kind !== "rect" || Math.min(node.width, node.height) >= least) return node;
    return { ...node, width: Math.max(node.width, least), height: Math.max(node.height, least) };
  };
  return { ...scene, nodes: scene.nodes.map(visible) };
}
