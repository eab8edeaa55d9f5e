import type { ChartElement, TableElement } from "@unitext/core/model";
import { newDiagram } from "./diagrams";

/** Returns a table without words, with one row of headings. */
export const emptyTable = (rows: number, columns: number): TableElement => ({
  kind: "table",
  id: "",
  slot: null,
  frame: { x: 0, y: 0, width: 480, height: 36 * rows },
  header: 1,
  align: Array.from({ length: columns }, () => "start"),
  rows: Array.from({ length: rows }, () => Array.from({ length: columns }, () => ({ text: [] }))),
});

const newChart: ChartElement = {
  kind: "chart",
  id: "",
  slot: null,
  frame: { x: 0, y: 0, width: 480, height: 280 },
  type: "column",
  categories: ["First", "Second", "Third"],
  series: [{ name: "Series", values: [1, 3, 2] }],
};

/** New tables, charts and diagrams, without an id, and what adding one is called. */
export const NEW_FIGURES = {
  table: { element: emptyTable(3, 3), words: "Added a table" },
  chart: { element: newChart, words: "Added a chart" },
  diagram: { element: newDiagram(), words: "Added a diagram" },
} as const;
