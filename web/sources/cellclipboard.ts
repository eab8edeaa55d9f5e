import { Id } from "@unitext/core/model";
import { z } from "zod";

/** The clipboard type of cells of a source, beside their text: pasted on a slide, they stay linked. */
export const CELLS_TYPE = "application/x-unitext-cells";

const ClippedCells = z.object({ source: Id, range: z.string().min(1).max(1000) });

/** Returns the clipboard content of a range of a source. */
export const cellsData = (source: string, range: string): string =>
  JSON.stringify({ source, range } satisfies z.infer<typeof ClippedCells>);

/** Returns which cells are on the clipboard; undefined when there are none. */
export function clippedCells(data: string): z.infer<typeof ClippedCells> | undefined {
  try {
    return data ? ClippedCells.safeParse(JSON.parse(data)).data : undefined;
  } catch {
    return undefined;
  }
}
