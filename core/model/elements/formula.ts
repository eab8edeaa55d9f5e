import { z } from "zod";
import { type ElementDescriptor, placed } from "./base";

/** A displayed formula, in TeX. */
export const FormulaElement = z.object({ kind: z.literal("formula"), ...placed, tex: z.string() });
export type FormulaElement = z.infer<typeof FormulaElement>;

export const formulaKind: ElementDescriptor<FormulaElement> = {
  label: "formula",
  count: "formulas",
  texts: () => [],
  words: ({ tex }) => tex,
  lines: ({ tex }) => tex.split("\n"),
};
