import type { Element, Frame, Slide } from "@unitext/core/model";
import type { SingleChange } from "./change";

/** Sides by which frames can be aligned. */
export const SIDES = ["left", "centre", "right", "top", "middle", "bottom"] as const;
export type Side = (typeof SIDES)[number];

export const boundingFrame = (frames: readonly Frame[]): Frame => {
  const [x, y] = [Math.min(...frames.map((frame) => frame.x)), Math.min(...frames.map((frame) => frame.y))];
  return {
    x,
    y,
    width: Math.max(...frames.map((frame) => frame.x + frame.width)) - x,
    height: Math.max(...frames.map((frame) => frame.y + frame.height)) - y,
  };
};

/** Aligns frames by a side: a single one to its page, several to their bounding frame. */
export function alignElements(frames: readonly Frame[], side: Side, page: { width: number; height: number }): Frame[] {
  const room = frames.length > 1 ? boundingFrame(frames) : { x: 0, y: 0, ...page };
  const moved: Record<Side, (frame: Frame) => Partial<Frame>> = {
    left: () => ({ x: room.x }),
    centre: ({ width }) => ({ x: room.x + (room.width - width) / 2 }),
    right: ({ width }) => ({ x: room.x + room.width - width }),
    top: () => ({ y: room.y }),
    middle: ({ height }) => ({ y: room.y + (room.height - height) / 2 }),
    bottom: ({ height }) => ({ y: room.y + room.height - height }),
  };
  return frames.map((frame) => ({ ...frame, ...moved[side](frame) }));
}

/** Spaces frames evenly along an axis. The first and the last stay. */
export function distributeElements(frames: readonly Frame[], axis: "x" | "y"): Frame[] {
  const size = axis === "x" ? "width" : "height";
  const order = frames.map((frame, nth) => ({ frame, nth })).sort((a, b) => a.frame[axis] - b.frame[axis]);
  const [first, last] = [order[0], order.at(-1)];
  if (!first || !last || order.length < 3) return [...frames];
  const room = last.frame[axis] - first.frame[axis] - first.frame[size];
  const gap = (room - order.slice(1, -1).reduce((sum, { frame }) => sum + frame[size], 0)) / (order.length - 1);
  const made = [...frames];
  let at = first.frame[axis] + first.frame[size] + gap;
  for (const { frame, nth } of order.slice(1, -1)) {
    made[nth] = { ...frame, [axis]: at };
    at += frame[size] + gap;
  }
  return made;
}

/**
 * Returns an element with another frame or rotation. What is known of its place in a source file stays, so that the
 * change is detected.
 */
export function placed(element: Element, frame: Frame, rotation = element.rotation): Element {
  const { rotation: _, ...rest } = element;
  const round = (value: number) => Math.round(value * 100) / 100;
  return {
    ...rest,
    frame: {
      x: round(frame.x),
      y: round(frame.y),
      width: round(Math.max(1, frame.width)),
      height: round(Math.max(1, frame.height)),
    },
    ...(rotation && Math.round(rotation * 100) % 36000 ? { rotation: round(rotation) } : {}),
  } as Element;
}

/** Where in the drawing order elements go. */
export type Depth = "front" | "forward" | "backward" | "back";

/**
 * Returns the changes that bring elements in front of or behind others and keep their own order; none when they are
 * there already.
 */
export function reorderElements(slide: Slide, ids: readonly string[], depth: Depth): SingleChange[] {
  const chosen = new Set(ids);
  const order = [...slide.elements];
  const moved = order.filter(({ id }) => chosen.has(id));
  let next: Element[];
  if (depth === "front") next = [...order.filter(({ id }) => !chosen.has(id)), ...moved];
  else if (depth === "back") next = [...moved, ...order.filter(({ id }) => !chosen.has(id))];
  else {
    next = order;
    const range = depth === "forward" ? order.map((_, nth) => order.length - 1 - nth) : order.map((_, nth) => nth);
    for (const at of range) {
      const to = depth === "forward" ? at + 1 : at - 1;
      const [one, other] = [next[at], next[to]];
      if (one && other && chosen.has(one.id) && !chosen.has(other.id)) [next[at], next[to]] = [other, one];
    }
  }
  if (next.every((element, nth) => element === slide.elements[nth])) return [];
  // Taking each element out and inserting it at its index gives the new order, whatever the old one was.
  return next.flatMap((element, index): SingleChange[] => [
    { kind: "deleteElement", slide: slide.id, element: element.id },
    { kind: "insertElement", slide: slide.id, element, index },
  ]);
}

/** Groups elements, inside the groups that they share. */
export function groupElements(elements: readonly Element[], group: string): Element[] {
  const lists = elements.map(({ groups = [] }) => groups);
  let depth = 0;
  while (lists.every((groups) => groups[depth] !== undefined && groups[depth] === lists[0]?.[depth])) depth++;
  return elements.map((element) => ({
    ...element,
    groups: [...(element.groups ?? []).slice(0, depth), group, ...(element.groups ?? []).slice(depth)],
  }));
}

/** Takes elements out of their outermost group. */
export function ungroupElements(elements: readonly Element[]): Element[] {
  return elements.map((element) => {
    const { groups = [], ...rest } = element;
    return (groups.length > 1 ? { ...rest, groups: groups.slice(1) } : rest) as Element;
  });
}

/** Returns the elements that are selected along with the given ones: all that share an outermost group with them. */
export function expandToGroups(slide: Slide, ids: readonly string[]): string[] {
  const groups = new Set(
    slide.elements.filter(({ id }) => ids.includes(id)).flatMap(({ groups: own }) => own?.[0] ?? []),
  );
  return slide.elements
    .filter(({ id, groups: own }) => ids.includes(id) || (own?.[0] !== undefined && groups.has(own[0])))
    .map(({ id }) => id);
}
