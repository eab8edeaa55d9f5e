import { type Cell, isEmptyText, must, plainText, type TableElement } from "@unitext/core/model";

/** Returns, for each position of the grid as `row/column`, the position of the cell that covers it. */
const cellsAt = (rows: TableElement["rows"]) => {
  const owner = new Map<string, [number, number]>();
  for (const [y, row] of rows.entries())
    for (const [x, cell] of row.entries())
      if (cell)
        for (let dy = 0; dy < (cell.rows ?? 1); dy++)
          for (let dx = 0; dx < (cell.columns ?? 1); dx++) owner.set(`${y + dy}/${x + dx}`, [y, x]);
  return owner;
};

/** Returns a cell that spans so many columns and rows. */
const spanning = (cell: Cell, columns: number, rows: number): Cell => {
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
    must(rows[place[0]])[place[1]] = spanning(cell, cell.columns ?? 1, (cell.rows ?? 1) + 1);
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
    const less = spanning(cell, cell.columns ?? 1, (cell.rows ?? 1) - 1);
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
      return cell && spanning(cell, cell.rows ?? 1, cell.columns ?? 1);
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
  const shares = table.shares && [...table.shares];
  shares?.splice(at, 0, shares.reduce((sum, share) => sum + share, 0) / shares.length);
  return {
    ...made,
    header: table.header,
    align,
    ...(shares ? { shares } : {}),
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
    ...(table.shares ? { shares: table.shares.filter((_, nth) => nth !== at) } : {}),
    ...(made.widths && all && sum
      ? { widths: made.widths.map((width) => Math.round((width / sum) * all * 100) / 100) }
      : {}),
  };
}

/** A range of cells: its first and last row and column, both included. */
export interface CellRange {
  top: number;
  left: number;
  bottom: number;
  right: number;
}

/** Returns the smallest range that holds a range and cuts through no cell. */
export function wholeRange({ rows }: TableElement, range: CellRange): CellRange {
  const owner = cellsAt(rows);
  let { top, left, bottom, right } = range;
  for (let again = true; again; ) {
    again = false;
    for (let y = top; y <= bottom; y++)
      for (let x = left; x <= right; x++) {
        const [row, column] = owner.get(`${y}/${x}`) ?? [y, x];
        const cell = rows[row]?.[column];
        const next = {
          top: Math.min(top, row),
          left: Math.min(left, column),
          bottom: Math.max(bottom, row + (cell?.rows ?? 1) - 1),
          right: Math.max(right, column + (cell?.columns ?? 1) - 1),
        };
        if (next.top < top || next.left < left || next.bottom > bottom || next.right > right) again = true;
        ({ top, left, bottom, right } = next);
      }
  }
  return { top, left, bottom, right };
}

/** Makes one cell of a range; the texts of its cells come one below the other. */
export function mergeCells(table: TableElement, range: CellRange): TableElement {
  const { top, left, bottom, right } = wholeRange(table, range);
  const inside = table.rows.slice(top, bottom + 1).flatMap((row) => row.slice(left, right + 1));
  const text = inside.flatMap((cell) => (cell && !isEmptyText(cell.text) ? cell.text : []));
  const rows = table.rows.map((row, y) =>
    row.map((cell, x) => {
      if (y < top || y > bottom || x < left || x > right) return cell;
      return y === top && x === left
        ? spanning({ ...must(cell ?? undefined), text }, right - left + 1, bottom - top + 1)
        : null;
    }),
  );
  return { ...table, rows };
}

/** Takes a cell that spans several positions apart; its text stays in the first. Other cells stay as they are. */
export function splitCell(table: TableElement, row: number, column: number): TableElement {
  const cell = table.rows[row]?.[column];
  if (!cell || ((cell.columns ?? 1) === 1 && (cell.rows ?? 1) === 1)) return table;
  const rows = table.rows.map((cells, y) =>
    cells.map((one, x) => {
      const covered = y >= row && y < row + (cell.rows ?? 1) && x >= column && x < column + (cell.columns ?? 1);
      if (!covered) return one;
      return y === row && x === column ? spanning(cell, 1, 1) : empty(cell);
    }),
  );
  return { ...table, rows };
}

/** Returns a list with the item at one index moved to another. */
function moved<T>(list: readonly T[], from: number, to: number): T[] {
  const next = [...list];
  next.splice(to, 0, ...next.splice(from, 1));
  return next;
}

/**
 * Moves a row to another index. Returns undefined where a cell spans it and a neighbour, or the place where it would land,
 * since that cell would be torn.
 */
export function moveRow(table: TableElement, from: number, to: number): TableElement | undefined {
  if (from === to || !table.rows[from] || !table.rows[to]) return undefined;
  const [first, last] = [Math.min(from, to), Math.max(from, to)];
  const spans = table.rows.some((row, y) =>
    row.some((cell) => cell && (cell.rows ?? 1) > 1 && y <= last && y + (cell.rows ?? 1) - 1 >= first),
  );
  if (spans) return undefined;
  return {
    ...table,
    rows: moved(table.rows, from, to),
    ...(table.heights ? { heights: moved(table.heights, from, to) } : {}),
  };
}

/** Moves a column to another index. Returns undefined where that would tear a cell. */
export function moveColumn(table: TableElement, from: number, to: number): TableElement | undefined {
  const made = moveRow(transposed(table), from, to);
  if (!made) return undefined;
  return {
    ...transposed(made),
    align: moved(table.align, from, to),
    ...(table.shares ? { shares: moved(table.shares, from, to) } : {}),
  };
}

/**
 * Moves the edge between a column and the next by some points; `widths` are those of all columns as they are laid out. No
 * column gets narrower than `least`.
 */
export function moveColumnEdge(
  table: TableElement,
  widths: readonly number[],
  column: number,
  by: number,
  least = 24,
): TableElement {
  const [one, next] = [widths[column], widths[column + 1]];
  if (one === undefined || next === undefined) return table;
  const distance = Math.max(Math.min(0, least - one), Math.min(by, Math.max(0, next - least)));
  const sized = widths.with(column, one + distance).with(column + 1, next - distance);
  const rounded = sized.map((width) => Math.round(width * 100) / 100);
  return table.widths ? { ...table, widths: rounded } : { ...table, shares: rounded };
}

/** Sets the height that a row has at least, in points; `heights` are those of all rows as they are laid out. */
export function setRowHeight(
  table: TableElement,
  heights: readonly number[],
  row: number,
  height: number,
): TableElement {
  const given = table.heights ?? heights.map(() => 0);
  return { ...table, heights: given.with(row, Math.max(0, Math.round(height * 100) / 100)) };
}

/** Returns a cell with other words, in the look of its first ones. */
export function rewordCell(cell: Cell, words: string): Cell {
  const [first] = cell.text;
  const { properties: { words: look, ...paragraph } = {}, ...like } = first ?? {};
  const run = first?.runs[0] ?? (look ? { properties: look } : {});
  const text = plainText(words).map((one) => ({
    ...like,
    ...one,
    ...(Object.keys(paragraph).length ? { properties: paragraph } : {}),
    runs: one.runs.map(({ text: said }) => ({ ...run, text: said })),
  }));
  return { ...cell, text };
}

/** Writes texts into cells, from a place on. Rows and columns are added where the texts reach beyond the table. */
export function fillCells(
  table: TableElement,
  row: number,
  column: number,
  texts: readonly (readonly string[])[],
): TableElement {
  let next = table;
  while (next.rows.length < row + texts.length) next = insertRow(next, next.rows.length);
  const wide = column + Math.max(0, ...texts.map((line) => line.length));
  while ((next.rows[0]?.length ?? 0) < wide) next = insertColumn(next, next.rows[0]?.length ?? 0);
  const rows = next.rows.map((cells, y) =>
    cells.map((cell, x) => {
      const words = texts[y - row]?.[x - column];
      return cell && words !== undefined ? rewordCell(cell, words) : cell;
    }),
  );
  return { ...next, rows };
}

/** Changes the cells of a range; covered positions are left out. */
export function changeCells(table: TableElement, range: CellRange, change: (cell: Cell) => Cell): TableElement {
  const rows = table.rows.map((row, y) =>
    row.map((cell, x) =>
      cell && y >= range.top && y <= range.bottom && x >= range.left && x <= range.right ? change(cell) : cell,
    ),
  );
  return { ...table, rows };
}
