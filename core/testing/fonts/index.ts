import { readFileSync } from "node:fs";
import { join } from "node:path";
import { FontSet } from "@unitext/core/layout";

const folder = join(import.meta.dirname, "../../../dist/fonts");
let opened: FontSet | undefined;

/** The shipped fonts, read from the build. */
export function shippedFonts(): FontSet {
  opened ??= new FontSet((id) => readFileSync(join(folder, `${id}.ttf`)));
  return opened;
}
