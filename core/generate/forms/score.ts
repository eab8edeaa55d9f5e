import { leavesOf, type Scene } from "@unitext/core/layout";
import type { Frame, Page } from "@unitext/core/model";

/** Returns the rectangles of what is on a slide: the lines of each text, and its figures. */
export function objectsOf(scene: Scene): Frame[] {
  const objects = new Map<string, Frame>();
  const add = (key: string, { x, y, width, height }: Frame) => {
    const held = objects.get(key);
    if (!held) return objects.set(key, { x, y, width, height });
    const [left, top] = [Math.min(held.x, x), Math.min(held.y, y)];
    const [right, bottom] = [Math.max(held.x + held.width, x + width), Math.max(held.y + held.height, y + height)];
    return objects.set(key, { x: left, y: top, width: right - left, height: bottom - top });
  };
  const texts = new Set<string>();
  for (const node of leavesOf(scene.nodes)) {
    if (node.kind !== "text" || node.element === null) continue;
    texts.add(node.element);
    for (const line of node.lines)
      add(node.element, { x: line.x, y: line.y - line.height * 0.8, width: line.width, height: line.height });
  }
  for (const box of scene.boxes) if (box.element !== null && !texts.has(box.element)) add(box.element, box);
  return [...objects.values()].filter(({ width, height }) => width > 0 && height > 0);
}

const areaOf = ({ width, height }: Frame): number => width * height;
/** Returns the relative difference of two weights: 0 for equal ones, 1 or −1 where one is 0. */
const compared = (a: number, b: number): number => (a === b ? 0 : (a - b) / Math.max(Math.abs(a), Math.abs(b)));

/**
 * Balance: how alike the weights on both sides of each axis are. A weight is the area of objects times the distance of
 * their middle from the axis. 1 is balanced (Ngo, Teo and Byrne 2003, “Modelling interface aesthetics”, measure of balance,
 * formula from memory).
 */
export function balanceOf(objects: readonly Frame[], page: Page): number {
  const weigh = (side: (dx: number, dy: number) => number) =>
    objects.reduce((sum, object) => {
      const dx = object.x + object.width / 2 - page.width / 2;
      const dy = object.y + object.height / 2 - page.height / 2;
      return sum + areaOf(object) * Math.max(0, side(dx, dy));
    }, 0);
  const across = compared(
    weigh((dx) => -dx),
    weigh((dx) => dx),
  );
  const down = compared(
    weigh((_, dy) => -dy),
    weigh((_, dy) => dy),
  );
  return 1 - (Math.abs(across) + Math.abs(down)) / 2;
}

/**
 * Equilibrium: how close the middle of all objects, weighed by their areas, is to the middle of the page. 1 is the middle
 * (the same paper, measure of equilibrium, formula from memory).
 */
export function equilibriumOf(objects: readonly Frame[], page: Page): number {
  const total = objects.reduce((sum, object) => sum + areaOf(object), 0);
  if (!total) return 1;
  const mean = (middle: (object: Frame) => number) =>
    objects.reduce((sum, object) => sum + areaOf(object) * middle(object), 0) / total;
  const across = (2 * (mean(({ x, width }) => x + width / 2) - page.width / 2)) / page.width;
  const down = (2 * (mean(({ y, height }) => y + height / 2) - page.height / 2)) / page.height;
  return 1 - (Math.abs(across) + Math.abs(down)) / 2;
}

/** Edges closer than this many points count as one. */
const SAME_EDGE = 3;

/** Returns the number of different positions in a list of edges. */
function distinct(edges: readonly number[]): number {
  const sorted = [...edges].sort((a, b) => a - b);
  return sorted.filter((edge, at) => at === 0 || edge - (sorted[at - 1] ?? 0) > SAME_EDGE).length;
}

/**
 * Simplicity: few objects that share their left and top edges. At most 1 (the same paper, measure of simplicity, formula
 * from memory).
 */
export function simplicityOf(objects: readonly Frame[]): number {
  if (!objects.length) return 1;
  return 3 / (distinct(objects.map(({ x }) => x)) + distinct(objects.map(({ y }) => y)) + objects.length);
}

/** The share of the page down to which content reaches when it fills the slide well (common practice, no source). */
const USED = { least: 0.45, most: 0.88 } as const;
/** The size of text that the last row reads with ease, on a page 540 points high (common practice, no source). */
const EASY = 26;

/** The weights of the measures; their sum is 1. */
const WEIGHTS = { size: 0.35, used: 0.3, balance: 0.1, equilibrium: 0.1, simplicity: 0.15 } as const;

/** Returns how well a slide that fits is laid out, from 0 to 1: size of its text, share of the page used, and order. */
export function layoutScore(scene: Scene): number {
  const { page } = scene;
  const objects = objectsOf(scene);
  const scale = page.height / 540;
  const sizes = scene.boxes.flatMap(({ slot, size }) =>
    slot !== "title" && slot !== "caption" && size > 0 ? [size / scale] : [],
  );
  const reach = Math.max(0, ...objects.map(({ y, height }) => y + height)) / page.height;
  const measures = {
    size: Math.min(1, Math.min(EASY, ...sizes) / EASY),
    used: reach < USED.least ? reach / USED.least : Math.min(1, Math.max(0, 1 - (reach - USED.most) / 0.12)),
    balance: balanceOf(objects, page),
    equilibrium: equilibriumOf(objects, page),
    simplicity: Math.min(1, simplicityOf(objects)),
  };
  return Object.entries(WEIGHTS).reduce(
    (sum, [name, weight]) => sum + weight * measures[name as keyof typeof WEIGHTS],
    0,
  );
}
