import type { FormulaShape } from "./formulashape";

type Engine = (tex: string, display: boolean) => FormulaShape | { problem: string };
let engine: Engine | undefined;
let mathml: ((tex: string, display: boolean) => string | undefined) | undefined;
let loading: Promise<void> | undefined;

/** Loads the formula engine; until then, formulas are shown as their TeX. */
export function loadFormulas(): Promise<void> {
  loading ??= import("./engine").then((loaded) => {
    engine = loaded.setFormula;
    mathml = loaded.mathmlOf;
  });
  return loading;
}

/** Returns TeX as MathML; undefined when it cannot be parsed, and while the engine is not loaded. */
export const formulaMathml = (tex: string, display: boolean): string | undefined =>
  mathml?.(tex.toWellFormed().replace(/[^\P{Cc}\t\n\r]|[\uFFFE\uFFFF]/gu, ""), display);

const KEPT = 2000;
const kept = new Map<string, FormulaShape | { problem: string }>();

/**
 * Sets TeX as outlines. Returns what is wrong with it when it cannot be set, and undefined while the engine is not
 * loaded.
 */
export function formulaShape(tex: string, display: boolean): FormulaShape | { problem: string } | undefined {
  if (!engine) return undefined;
  const key = `${display ? "d" : "i"}${tex}`;
  const known = kept.get(key);
  if (known) return known;
  if (kept.size >= KEPT) kept.clear();
  const made = engine(tex, display);
  kept.set(key, made);
  return made;
}
