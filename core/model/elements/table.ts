import { z } from "zod";
import { CellBorders, Fill, TextBox } from "../look";
import { plainText, RichText } from "../richtext";
import { LineValues } from "../linevalues";
import { Direction } from "../direction";
import { type ElementDescriptor, placed } from "./base";
import { withCaption } from "./picture";

/** A table cell. `columns` and `rows` are its spans. */
export const Cell = z.object({
  text: RichText,
  columns: z.number().int().min(2).max(200).optional(),
  rows: z.number().int().min(2).max(2000).optional(),
  fill: Fill.optional(),
  anchor: z.enum(["top", "middle", "bottom"]).optional(),
  insets: TextBox.shape.insets,
  borders: CellBorders.optional(),
});
export type Cell = z.infer<typeof Cell>;
export const Align = z.enum(["start", "centre", "end"]);
export type Align = z.infer<typeof Align>;

/**
 * A table. All rows have the same number of positions; those covered by another cell are null. The first `header` rows
 * are headings. A table with `widths`, in points, has an appearance of its own, like those of files; one without looks as
 * the design has it, with columns in the proportions of `shares`, or as wide as their words need. `heights`, in points,
 * are minimum row heights.
 */
export const TableElement = z.object({
  kind: z.literal("table"),
  ...placed,
  direction: Direction.optional(),
  rows: z.array(z.array(Cell.nullable())).min(1),
  header: z.number().int().nonnegative(),
  align: z.array(Align),
  caption: z.string().max(2000).optional(),
  captionValues: LineValues.optional(),
  /** What its rows are made of, again whenever that changes: the sources of the linked values. */
  lists: z.literal("sources").optional(),
  widths: z.array(z.number().nonnegative()).max(200).optional(),
  heights: z.array(z.number().nonnegative()).max(2000).optional(),
  shares: z.array(z.number().positive()).max(200).optional(),
});
export type TableElement = z.infer<typeof TableElement>;

export const tableKind: ElementDescriptor<TableElement> = {
  label: "table",
  count: "tables",
  texts: ({ rows, caption }) => {
    const texts: RichText[] = [];
    for (const row of rows) for (const cell of row) if (cell) texts.push(cell.text);
    if (caption) texts.push(plainText(caption));
    return texts;
  },
  mapTexts: (element, change) =>
    withCaption(
      {
        ...element,
        rows: element.rows.map((row) => row.map((cell) => cell && { ...cell, text: change(cell.text) })),
      },
      change,
    ),
  lines: ({ caption }) => (caption ? [caption] : []),
};
