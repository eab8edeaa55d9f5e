import { type Cell, type Element, type Frame, type Slide, type TableElement, must } from "@unitext/core/model";
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

const cellsAt = (rows: TableElement["rows"]) => {
  /** For each position of the grid, the position of the cell that covers it. */
  const owner = new Map<string, [number, number]>();
  for (const [y, row] of rows.entries())
    for (const [x, cell] of row.entries())
      if (cell)
        for (let dy = 0; dy < (cell.rows ?? 1); dy++)
          for (let dx = 0; dx < (cell.columns ?? 1); dx++) owner.set(`${y + dy}/${x + dx}`, [y, x]);
  return owner;
};
const coveredCells = (cell: Cell, columns: number, rows: number): Cell => {
  const { columns: _, rows: __, ...rest } = cell;
  return { ...rest, ...(columns > 1 ? { columns } : {}), ...(rows > 1 ? { rows } : {}) };
};

/** Returns an empty cell with the appearance of another cell and of its text. */
const empty = (like: Cell | null | undefined): Cell => {
  const {
    text: [first],
    columns: _,
    rows: __,
    ...appearance
  } = like ?? { text: [] };
  if (!first) return { ...appearance, text: [] };
  const words = first.runs[0]?.properties ?? first.properties?.words;
  return {
    ...appearance,
    text:
      words || first.align || first.properties
        ? [{ ...first, runs: [], ...(words ? { properties: { ...first.properties, words } } : {}) }]
        : [],
  };
};

/** Inserts a row before a position. Cells that span the position span the new row too. */
export function insertRow(table: TableElement, at: number): TableElement {
  const owner = cellsAt(table.rows);
  const width = table.rows[0]?.length ?? 0;
  const rows = table.rows.map((row) => [...row]);
  const like = table.rows[at === 0 ? 0 : at - 1];
  const fresh: (Cell | null)[] = Array.from({ length: width }, (_, x) => {
    const [above, below] = [owner.get(`${at - 1}/${x}`), owner.get(`${at}/${x}`)];
    return above && below && above[0] === below[0] && above[1] === below[1] ? null : empty(like?.[x]);
  });
  const grown = new Set<string>();
  for (let x = 0; x < width; x++) {
    const place = owner.get(`${at - 1}/${x}`);
    if (fresh[x] !== null || !place || grown.has(place.join("/"))) continue;
    grown.add(place.join("/"));
    const cell = must(rows[place[0]]?.[place[1]]);
    must(rows[place[0]])[place[1]] = coveredCells(cell, cell.columns ?? 1, (cell.rows ?? 1) + 1);
  }
  rows.splice(at, 0, fresh);
  const heights = table.heights && [...table.heights];
  heights?.splice(at, 0, heights[Math.max(0, at - 1)] ?? 0);
  return {
    ...table,
    rows,
    header: at < table.header ? table.header + 1 : table.header,
    ...(heights ? { heights } : {}),
  };
}

/**
 * Deletes a row. Returns undefined when it is the only one. Cells that span it span one row less; a cell that starts in
 * it starts in the row below.
 */
export function deleteRow(table: TableElement, at: number): TableElement | undefined {
  if (table.rows.length <= 1 || !table.rows[at]) return undefined;
  const owner = cellsAt(table.rows);
  const rows = table.rows.map((row) => [...row]);
  const shrunk = new Set<string>();
  for (let x = 0; x < (rows[at]?.length ?? 0); x++) {
    const place = owner.get(`${at}/${x}`);
    if (!place || shrunk.has(place.join("/"))) continue;
    shrunk.add(place.join("/"));
    const cell = must(table.rows[place[0]]?.[place[1]]);
    if ((cell.rows ?? 1) < 2) continue;
    const less = coveredCells(cell, cell.columns ?? 1, (cell.rows ?? 1) - 1);
    if (place[0] === at) must(rows[at + 1])[place[1]] = less;
    else must(rows[place[0]])[place[1]] = less;
  }
  rows.splice(at, 1);
  const heights = table.heights?.filter((_, nth) => nth !== at);
  return {
    ...table,
    rows,
    header: at < table.header ? table.header - 1 : table.header,
    ...(heights ? { heights } : {}),
  };
}

const transposed = (table: TableElement): TableElement => {
  const width = table.rows[0]?.length ?? 0;
  const rows = Array.from({ length: width }, (_, x) =>
    table.rows.map((row) => {
      const cell = row[x] ?? null;
      return cell && coveredCells(cell, cell.rows ?? 1, cell.columns ?? 1);
    }),
  );
  const { heights: _, widths: __, ...rest } = table;
  return {
    ...rest,
    rows,
    ...(table.heights ? { widths: table.heights } : {}),
    ...(table.widths ? { heights: table.widths } : {}),
  };
};

/**
 * Inserts a column before a position. Every other column gives up some width, so that the new one gets a fair share.
 */
export function insertColumn(table: TableElement, at: number): TableElement {
  const all = table.widths?.reduce((sum, width) => sum + width, 0);
  const made = transposed({ ...insertRow({ ...transposed(table), header: 0 }, at) });
  const align = [...table.align];
  align.splice(at, 0, table.align[Math.max(0, at - 1)] ?? "start");
  const columns = table.widths?.length ?? 0;
  const left = columns / (columns + 1);
  return {
    ...made,
    header: table.header,
    align,
    ...(made.widths && all
      ? {
          widths: made.widths.map(
            (width, nth) => Math.round((nth === at ? all * (1 - left) : width * left) * 100) / 100,
          ),
        }
      : {}),
  };
}

/** Deletes a column. Returns undefined when it is the only one. */
export function deleteColumn(table: TableElement, at: number): TableElement | undefined {
  const all = table.widths?.reduce((sum, width) => sum + width, 0);
  const less = deleteRow({ ...transposed(table), header: 0 }, at);
  if (!less) return undefined;
  const made = transposed(less);
  const sum = made.widths?.reduce((total, width) => total + width, 0);
  return {
    ...made,
    header: table.header,
    align: table.align.filter((_, nth) => nth !== at),
    ...(made.widths && all && sum
      ? { widths: made.widths.map((width) => Math.round((width / sum) * all * 100) / 100) }
      : {}),
  };
}
