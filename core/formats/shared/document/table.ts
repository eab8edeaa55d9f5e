import { type Align, type Cell, joinRuns, type Paragraph, type Run, run, within } from "@unitext/core/model";
import type { Block, Figure } from "@unitext/core/text";

/** A table as a document holds it; `undefined` marks cells missing from short rows. */
export interface TableRead {
  grid: (Cell | null | undefined)[][];
  align: readonly (Align | undefined)[];
  /** The number of rows that the document marks as header rows. */
  header: number;
  /** Whether the document formats its first row as a header. */
  first?: boolean;
}

/**
 * Returns the text of a cell from its blocks: paragraphs without lists and levels, their alignment, and blocks that
 * cannot be in a cell.
 */
export function cellOf(blocks: readonly Block[]): { text: Paragraph[]; side: Align | undefined; after: Block[] } {
  const text = blocks.flatMap((block): Paragraph[] => {
    if ("text" in block) return block.text;
    if (block.kind !== "figure") return [];
    if (block.figure.kind === "table")
      return block.figure.rows.flatMap((row) => row.flatMap((cell) => cell?.text ?? []));
    return block.figure.kind === "formula"
      ? [{ kind: "plain", level: 0, runs: [run(block.figure.tex, ["formula"])] }]
      : [];
  });
  return {
    text: text.map(({ align: _, ...paragraph }) => ({ ...paragraph, kind: "plain", level: 0 })),
    side: text.find(({ align }) => align)?.align,
    after: blocks.filter(({ kind }) => kind === "picture" || kind === "notes"),
  };
}

/** Returns runs without bold, which a heading has anyway. */
export function unbold(runs: readonly Run[]): Run[] {
  return joinRuns(
    runs.map((item) =>
      item.footnote ? item : run(item.text, item.marks?.filter((mark) => mark !== "strong") ?? [], item.link),
    ),
  );
}

const isBold = (cell: Cell | null): boolean =>
  cell === null ||
  (cell.text.length > 0 && cell.text.every(({ runs }) => runs.every(({ marks }) => marks?.includes("strong"))));

/** The alignment of the columns of a table, from that of the cells below its header. */
export class ColumnSides {
  private readonly counts: { cells: number; sides: Partial<Record<Align, number>> }[] = [];

  /** Counts a cell that has words. */
  add(column: number, side: Align | undefined): void {
    const count = (this.counts[column] ??= { cells: 0, sides: {} });
    count.cells += 1;
    if (side) count.sides[side] = (count.sides[side] ?? 0) + 1;
  }

  /** Returns the alignment that more than half of the cells of a column have, column by column. */
  columns(): Align[] {
    const columns: Align[] = [];
    this.counts.forEach(({ cells, sides }, column) => {
      const found = (["start", "centre", "end"] as const).find((side) => (sides[side] ?? 0) * 2 > cells);
      if (found) columns[column] = found;
    });
    return columns;
  }
}

/**
 * Makes a figure of a table; undefined when it has no cell. Short rows are filled, a first row that looks like a header
 * is one, and header cells lose their bold.
 */
export function tableFigure(
  { grid, align, header, first = false }: TableRead,
  say: (message: string) => void,
): Extract<Figure, { kind: "table" }> | undefined {
  const width = Math.max(0, ...grid.map(({ length }) => length));
  if (!width) return undefined;
  within("cells", width * grid.length, "table");
  if (new Set(grid.map(({ length }) => length)).size > 1)
    say("The rows of a table have different lengths; empty cells fill the shorter ones.");
  const full = grid.map((row) =>
    Array.from({ length: width }, (_, x): Cell | null => (row[x] === undefined ? { text: [] } : row[x])),
  );
  const heads = Math.min(full.length, header || (full.length > 1 && (first || (full[0] ?? []).every(isBold)) ? 1 : 0));
  const rows = full.map((row, y) =>
    y < heads
      ? row.map(
          (cell) =>
            cell && { ...cell, text: cell.text.map((paragraph) => ({ ...paragraph, runs: unbold(paragraph.runs) })) },
        )
      : row,
  );
  return { kind: "table", rows, header: heads, align: Array.from({ length: width }, (_, x) => align[x] ?? "start") };
}
