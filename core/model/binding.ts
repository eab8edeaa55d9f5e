import { z } from "zod";

/** What is made of the bound cells: one value, a table, a chart, or a number computed from all of them. */
export const BINDING_USES = [
  "value",
  "table",
  "chart",
  "sum",
  "mean",
  "min",
  "max",
  "count",
  /** The difference between the cell and its value in the version taken before. */
  "change",
  /** The same difference in percent of the earlier value. */
  "percent",
] as const;
export type BindingUse = (typeof BINDING_USES)[number];

/** How a binding follows its source: every new version by itself, when asked, or never. */
export const BINDING_MODES = ["latest", "asked", "fixed"] as const;
export type BindingMode = (typeof BINDING_MODES)[number];

/** What a cell held when it was taken; errors are kept as their text. */
export const BoundValue = z.union([z.number(), z.string().max(32_767), z.boolean(), z.null()]);
export type BoundValue = z.infer<typeof BoundValue>;

/** The texts that name the rows and columns of an address, by which it is found again when the sheet has changed. */
export const BindingHeaders = z.object({
  rows: z.array(z.string().max(500)).max(2),
  columns: z.array(z.string().max(500)).max(2),
  /** Whether no filled row followed when it was bound, so that rows added below belong to it. */
  open: z.boolean().optional(),
});
export type BindingHeaders = z.infer<typeof BindingHeaders>;

/**
 * Ties an element or a run of text to cells of a workbook. `source` is the name of the workbook's file, `range` an
 * address (`Levels!A1:C5`), a defined name, a table or a column of it (`Gauges[Level]`), or a chart (`chart:NAME`).
 */
export const Binding = z.object({
  source: z.string().min(1).max(500),
  range: z.string().min(1).max(500),
  mode: z.enum(BINDING_MODES),
  /** What is made of the cells; a value unless given. */
  use: z.enum(BINDING_USES).optional(),
  /** A number format instead of the cells' own. */
  format: z.string().max(200).optional(),
  headers: BindingHeaders.optional(),
  /** The SHA-256 of the version that was taken, when, and by whom. */
  version: z.string().max(64).optional(),
  takenAt: z.string().max(40).optional(),
  takenBy: z.string().max(200).optional(),
  /** What the cells held then, row by row; more than 10,000 are not kept. */
  values: z.array(z.array(BoundValue).max(2000)).max(10_000).optional(),
  /** The number of the version before, from which `change` and `percent` count. */
  previous: z.number().optional(),
  /** Why the values could not be taken from the newest version. */
  problem: z.object({ state: z.enum(["missing", "error"]), reason: z.string().max(1000) }).optional(),
});
export type Binding = z.infer<typeof Binding>;

/** The extensions of workbooks that values are linked to; those with macros are read without them. */
export const WORKBOOKS = ["xlsx", "xlsm", "ods", "csv", "tsv"] as const;
export type WorkbookKind = (typeof WORKBOOKS)[number];

/** Returns the kind of workbook that a file name says; undefined for other files. */
export const workbookKind = (name: string): WorkbookKind | undefined => {
  const extension = /\.([^./\\]+)$/.exec(name)?.[1]?.toLowerCase();
  return WORKBOOKS.find((kind) => kind === extension);
};

/** The encodings that a text of values can be read in, besides those that are recognised. */
export const CSV_ENCODINGS = [
  "utf-8",
  "windows-1252",
  "windows-1250",
  "windows-1251",
  "iso-8859-2",
  "iso-8859-15",
  "utf-16le",
  "utf-16be",
  "shift_jis",
  "gb18030",
] as const;

/** How a .csv or .tsv is read; what is not given is recognised from its bytes. */
export const CsvReading = z.object({
  encoding: z.string().max(40).optional(),
  /** What stands between values. */
  delimiter: z.enum([",", ";", "\t", "|"]).optional(),
  decimal: z.enum([".", ","]).optional(),
});
export type CsvReading = z.infer<typeof CsvReading>;

/** How a .csv was read: what was recognised, or what it was told. */
export const CsvRead = CsvReading.required();
export type CsvRead = z.infer<typeof CsvRead>;

/** Whether a workbook is a text of values, whose encoding and signs are recognised. */
export const isCsv = (name: string): boolean => ["csv", "tsv"].includes(workbookKind(name) ?? "");
