import { SheetWindow } from "@unitext/server/api";
import { useEffect, useRef, useState } from "react";
import { get } from "../api/client";

/** Rows and columns that are loaded at a time. */
export const BLOCK = { rows: 100, columns: 40 } as const;

export type GridCell = SheetWindow["cells"][number][number];

const keyOf = (row: number, column: number) => `${Math.floor(row / BLOCK.rows)}/${Math.floor(column / BLOCK.columns)}`;

/** Loads blocks of the cells of a sheet as they come into view. */
export function useCells({
  source,
  state,
  sheet,
  language,
}: {
  source: string;
  /** Names the version and the reading; cells are loaded again when it changes. */
  state: string;
  sheet: string;
  language: string;
}) {
  const [blocks, setBlocks] = useState<ReadonlyMap<string, SheetWindow["cells"]>>(new Map());
  const asked = useRef(new Set<string>());
  const [problem, setProblem] = useState("");
  // biome-ignore lint/correctness/useExhaustiveDependencies: another sheet or version starts with no blocks.
  useEffect(() => {
    asked.current = new Set();
    setBlocks(new Map());
    setProblem("");
  }, [source, state, sheet]);

  /** Loads the block of a cell. */
  const load = (row: number, column: number) => {
    const key = keyOf(row, column);
    if (asked.current.has(key)) return;
    const own = asked.current;
    own.add(key);
    const query = new URLSearchParams({
      sheet,
      top: String(Math.floor(row / BLOCK.rows) * BLOCK.rows),
      left: String(Math.floor(column / BLOCK.columns) * BLOCK.columns),
      rows: String(BLOCK.rows),
      columns: String(BLOCK.columns),
      language,
    });
    get(`/sources/${source}/cells?${query}`, SheetWindow).then(
      ({ cells }) => asked.current === own && setBlocks((now) => new Map(now).set(key, cells)),
      (error: Error) => asked.current === own && setProblem(error.message),
    );
  };
  /** Returns the block of a cell, once it is loaded. */
  const blockAt = (row: number, column: number) => blocks.get(keyOf(row, column));
  return { blockAt, load, problem };
}
