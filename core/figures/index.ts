export { chart } from "./chart";
export { formatted, stacked } from "./chartframe";
export { codeLines, codeRuns, type CodeTone } from "./code";
export { diagram } from "./diagrams";

export type { Figure, FigureLabel, FigurePath, FigureStyle } from "./figure";
export { legible, palette } from "./figure";
export { formulaMathml, formulaShape, loadFormulas } from "./formula";

export type { FormulaShape } from "./formulashape";
export { type ResolvedGeometry, resolveGeometry, guideValues, knowsPreset, type Outline, PathWriter } from "./geometry";
