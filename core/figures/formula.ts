import type { FormulaShape } from "./formulashape";

type Engine = (tex: string, display: boolean) => FormulaShape | { problem: string };
let engine: Engine | undefined;
let mathml: ((tex: string, display: boolean) => string | undefined) | undefined;
let loading: Promise<void> | undefined;

/** Loads what sets formulas; until it is there, formulas show as their TeX. */
export function loadFormulas(): Promise<void> {
  loading ??= import("./engine").then((loaded) => {
    engine = loaded.setFormula;
    mathml = loaded.mathmlOf;
  });
  return loading;
}

/** TeX as MathML; undefined where it cannot be read, and while the engine is not loaded. */
export const formulaMathml = (tex: string, display: boolean): string | undefined =>
  mathml?.(tex.toWellFormed().replace(/[^\P{Cc}\t\n\r]|[\uFFFE\uFFFF]/gu, ""), display);

const KEPT = 2000;
const kept = new Map<string, FormulaShape | { problem: string }>();

/** Sets TeX as outlines. Gives what is wrong with it where it cannot be set, and undefined while the engine is not loaded. */
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
