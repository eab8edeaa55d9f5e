import { readFileSync } from "node:fs";
import { join } from "node:path";
import { FontSet } from "@unitext/core/layout";

const opened = new Map<string, FontSet>();

/** Returns the shipped fonts in a folder, opened once in each process. */
export function fontsIn(folder: string): FontSet {
  const known = opened.get(folder) ?? new FontSet((id) => readFileSync(join(folder, `${id}.ttf`)));
  opened.set(folder, known);
  return known;
}
