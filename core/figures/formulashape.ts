import type { FigurePath } from "./figure";

/** A formula as outlines: a box in em of the text around it, its depth below the baseline, and paths in em with y downwards from the baseline. */
export interface FormulaShape {
  width: number;
  height: number;
  depth: number;
  paths: readonly Required<Pick<FigurePath, "d" | "matrix">>[];
}
