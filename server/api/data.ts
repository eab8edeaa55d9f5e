import {
  BINDING_MODES,
  BINDING_USES,
  Binding,
  CHART_TYPES,
  CsvRead,
  CsvReading,
  Id,
  Language,
  Slide,
} from "@unitext/core/model";
import { z } from "zod";

const Area = z.object({ sheet: z.string(), cells: z.string() });

/** What is in a workbook: `at` is null where a name leads to no cells. */
export const WorkbookContents = z.object({
  sheets: z.array(z.object({ name: z.string(), hidden: z.boolean(), rows: z.number(), columns: z.number() })),
  names: z.array(z.object({ name: z.string(), at: Area.nullable(), text: z.string() })),
  tables: z.array(z.object({ name: z.string(), at: Area })),
  /** `areas` are the cells of categories and series. */
  charts: z.array(z.object({ name: z.string(), sheet: z.string(), type: z.string(), areas: z.array(Area) })),
  remarks: z.array(z.string()),
  /** How a .csv was read. */
  csv: CsvRead.optional(),
});
export type WorkbookContents = z.infer<typeof WorkbookContents>;

/** Some cells of a sheet; rows and columns count from 0. */
export const CellsAsked = z.object({
  sheet: z.string().max(500),
  top: z.coerce.number().int().nonnegative(),
  left: z.coerce.number().int().nonnegative().default(0),
  rows: z.coerce.number().int().min(1).max(500),
  columns: z.coerce.number().int().min(1).max(200),
  language: z.string().max(40).default("en"),
});
export type CellsAsked = z.infer<typeof CellsAsked>;

/** The texts of cells, and the size of their sheet. */
export const SheetWindow = z.object({
  rows: z.number().int(),
  columns: z.number().int(),
  cells: z.array(z.array(z.object({ text: z.string(), number: z.literal(true).optional() }))),
});
export type SheetWindow = z.infer<typeof SheetWindow>;

/** A state of a source, as it arrived. */
export const SourceVersion = z.object({
  version: z.string(),
  at: z.iso.datetime(),
  from: z.string(),
  size: z.number().int(),
});
export type SourceVersion = z.infer<typeof SourceVersion>;

/** A workbook that feeds decks, with its versions, the newest first, and the decks that use it. */
export const SourceSummary = z.object({
  id: Id,
  name: z.string(),
  /** Where it is fetched from, and why that did not work the last time. */
  address: z.string().nullable(),
  problem: z.string().nullable(),
  /** How a .csv is read, where its person has said so, and whether it is typed in Unitext. */
  csv: CsvReading.nullable(),
  typed: z.boolean(),
  versions: z.array(SourceVersion),
  decks: z.array(z.object({ id: Id, title: z.string(), bindings: z.number().int(), behind: z.number().int() })),
});
export type SourceSummary = z.infer<typeof SourceSummary>;
export const SourceList = z.object({ sources: z.array(SourceSummary) });
export type SourceList = z.infer<typeof SourceList>;

/** What a workbook would change as the newest version of the source with its name. */
export const VersionPreview = z.object({
  /** The source; null when there is none of this name. */
  source: Id.nullable(),
  /** Whether it is the newest version already. */
  same: z.boolean(),
  addedSheets: z.array(z.string()),
  removedSheets: z.array(z.string()),
  addedNames: z.array(z.string()),
  removedNames: z.array(z.string()),
  count: z.number().int(),
  cells: z.array(z.object({ cell: z.string(), row: z.string(), from: z.string(), to: z.string() })),
  /** How many values follow it by themselves, and in how many decks. */
  following: z.object({ values: z.number().int(), decks: z.number().int() }),
});
export type VersionPreview = z.infer<typeof VersionPreview>;

/** Texts of a block of cells, row by row, that are looked for in a person's workbooks. */
export const CellsSought = z.object({
  rows: z
    .array(z.array(z.string().max(10_000)).max(200))
    .min(1)
    .max(2000),
  /** The languages in which numbers may be written. */
  languages: z.array(Language).min(1).max(10),
});
export type CellsSought = z.infer<typeof CellsSought>;

/** The only place with these cells; null when there is none or more than one. */
export const CellsFound = z.object({ found: z.object({ source: Id, range: z.string() }).nullable() });
export type CellsFound = z.infer<typeof CellsFound>;

/** How a .csv is to be read; null lets it be recognised. */
export const ReadingAsked = z.object({ csv: CsvReading.nullable() });

/** A sheet that is typed: its name and its rows of texts. */
export const TypedSheet = z.object({
  name: z.string().trim().min(1).max(200),
  rows: z
    .array(z.array(z.string().max(32_767)).max(200))
    .min(1)
    .max(5000),
});
export type TypedSheet = z.infer<typeof TypedSheet>;

/** Workbooks inside the file that slides were read from. */
export const WorkbooksInside = z.object({
  workbooks: z.array(
    z.object({
      slide: z.number().int(),
      slideId: Id,
      path: z.string(),
      name: z.string(),
      /** Its bytes; null for one outside the file, to which a chart or an object is linked. */
      size: z.number().int().nullable(),
    }),
  ),
});
export type WorkbooksInside = z.infer<typeof WorkbooksInside>;

/** One of them, to be taken out as a source of one's own. */
export const TakeOut = z.object({ slideId: Id, path: z.string().max(1000) });

/** An address from which a workbook is fetched. */
export const SourceAddress = z.object({ address: z.string().trim().min(1).max(2000) });

/** What became of a file that was handed in as a source. */
export const SourceTaken = z.object({
  id: Id,
  version: z.string(),
  /** Whether the source was there before, and whether these bytes are new. */
  known: z.boolean(),
  fresh: z.boolean(),
  remarks: z.array(z.string()),
});
export type SourceTaken = z.infer<typeof SourceTaken>;

/** Cells to be put on a slide of a deck. */
export const BindAsked = z.object({
  source: Id,
  range: z.string().trim().min(1).max(500),
  use: z.enum(BINDING_USES).optional(),
  chartType: z.enum(CHART_TYPES).optional(),
  mode: z.enum(BINDING_MODES),
  format: z.string().max(200).optional(),
});
export type BindAsked = z.infer<typeof BindAsked>;

/** What was made of cells: an element, or a run of text with a value. */
export const BoundCells = z.discriminatedUnion("kind", [
  z.object({ kind: z.literal("element"), element: Slide.shape.elements.element, name: z.string() }),
  z.object({
    kind: z.literal("value"),
    run: Slide.shape.notes.element.shape.runs.element,
    name: z.string(),
  }),
]);

/** A binding of a deck beside the newest version of its source. */
export const CheckedBinding = z.object({
  key: z.string(),
  slide: z.number().int(),
  slideId: Id,
  element: Id.nullable(),
  binding: Binding,
  state: z.enum(["current", "stale", "moved", "missing", "error", "fixed", "unknown"]),
  reason: z.string().optional(),
  from: z.string(),
  to: z.string(),
  numbers: z.object({ from: z.number(), to: z.number() }).optional(),
});
export type CheckedBinding = z.infer<typeof CheckedBinding>;

/** The bindings of a deck, at the version of the deck that was compared. */
export const DeckBindings = z.object({
  version: z.number().int(),
  checks: z.array(CheckedBinding),
  slides: z.array(Slide),
  unread: z.array(z.object({ source: z.string(), reason: z.string() })),
});
export type DeckBindings = z.infer<typeof DeckBindings>;

const TypedNumberFound = z.object({
  slide: z.number().int(),
  slideId: Id,
  element: Id.nullable(),
  text: z.number().int(),
  paragraph: z.number().int(),
  from: z.number().int(),
  shown: z.string(),
  sentence: z.string(),
  range: z.string(),
  format: z.string(),
  value: z.number(),
});

/** Numbers that somebody typed: those that repeat a cell, and those that repeat one of the version before. */
export const TypedNumbers = z.object({
  repeated: z.array(TypedNumberFound),
  outdated: z.array(TypedNumberFound.extend({ newest: z.number() })),
});
export type TypedNumbers = z.infer<typeof TypedNumbers>;

/** Asks for the newest values of a source in all decks that use it, or in those that follow it by themselves. */
export const RefreshRequest = z.object({
  source: Id,
  take: z.enum(["latest", "all"]),
  /** Whether decks that have taken the newest version are compared too: it is read in another way now. */
  reread: z.boolean().optional(),
});
export type RefreshRequest = z.infer<typeof RefreshRequest>;

/** The bindings whose new values are wanted, by their keys. */
export const TakeAsked = z.object({ take: z.array(z.string().max(300)).max(10_000) });
