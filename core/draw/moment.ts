import { type Effect, type Frame, languageDirection, type Reveal } from "@unitext/core/model";
import { leavesOf, type Matrix, type Scene, type SceneLine, type SceneNode } from "@unitext/core/layout";

/** How far beyond what it shows a wipe reaches, in points, so that it cuts off no edge. */
const MARGIN = 20;

type Group = Extract<SceneNode, { kind: "group" }>;

/** How nodes in a box look while they enter, by how far they are (0 to 1). `rtl` mirrors what comes from the side. */
const ENTERING: Record<
  Effect,
  (progress: number, box: Frame, page: Scene["page"], rtl: boolean) => Pick<Group, "matrix" | "clip" | "opacity">
> = {
  appear: () => ({}),
  fade: (progress) => ({ opacity: progress }),
  wipe: (progress, { x, y, width, height }, _, rtl) => {
    const seen = (width + 2 * MARGIN) * progress;
    const left = rtl ? x + width + MARGIN - seen : x - MARGIN;
    return { clip: `M${left} ${y - MARGIN}h${seen}v${height + 2 * MARGIN}h${-seen}Z` };
  },
  slide: (progress, _, page) => ({ matrix: [1, 0, 0, 1, 0, page.height * (1 - progress)] }),
  grow: (progress, { x, y, width, height }) => {
    const rest = 1 - progress;
    const matrix: Matrix = [progress, 0, 0, progress, (x + width / 2) * rest, (y + height / 2) * rest];
    return { matrix };
  },
};

/** Returns the box around lines of text. */
function boxAround(lines: readonly SceneLine[]): Frame {
  const left = Math.min(...lines.map(({ x }) => x));
  const top = Math.min(...lines.map(({ y, height }) => y - height));
  const right = Math.max(...lines.map(({ x, width }) => x + width));
  return { x: left, y: top, width: right - left, height: Math.max(...lines.map(({ y }) => y)) - top };
}

/**
 * Returns a scene as it is seen during its entrances: `entered` says for each of its reveals how far it is, from 0 (not yet
 * there) to 1 (there).
 */
export function sceneDuring(scene: Scene, entered: readonly number[]): Scene {
  const { reveals = [], page } = scene;
  const rtl = languageDirection(scene.language) === "rtl";
  const reveal = (element: string | null, paragraph?: number) => {
    const at = reveals.findIndex((one) => one.element === element && one.paragraph === paragraph);
    const found = reveals[at];
    return found && { ...found, progress: entered[at] ?? 1 };
  };
  const entering = (
    nodes: SceneNode[],
    { effect, progress }: Reveal & { progress: number },
    box: Frame,
  ): SceneNode[] =>
    progress <= 0
      ? []
      : progress >= 1
        ? nodes
        : [{ kind: "group", element: null, nodes, ...ENTERING[effect](progress, box, page, rtl) }];
  const boxOf = (element: string | null, node: SceneNode): Frame => {
    const box = scene.boxes.find((one) => one.element === element);
    const lines = leavesOf([node]).flatMap((leaf) => (leaf.kind === "text" ? leaf.lines : []));
    return box ?? (lines.length ? boxAround(lines) : { x: 0, y: 0, ...page });
  };
  const during = (node: SceneNode): SceneNode[] => {
    const whole = "element" in node && node.element !== null ? reveal(node.element) : undefined;
    if (whole) return entering([node], whole, boxOf(whole.element, node));
    if (node.kind === "group") return [{ ...node, nodes: node.nodes.flatMap(during) }];
    if (node.kind !== "text") return [node];
    const parts: SceneNode[] = [];
    for (const paragraph of new Set(node.lines.map((line) => line.paragraph))) {
      const lines = node.lines.filter((line) => line.paragraph === paragraph);
      const own = reveal(node.element, paragraph);
      const part: SceneNode = { ...node, lines };
      parts.push(...(own ? entering([part], own, boxAround(lines)) : [part]));
    }
    return parts;
  };
  return { ...scene, nodes: scene.nodes.flatMap(during) };
}
