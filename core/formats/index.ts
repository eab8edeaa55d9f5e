import { type PdfPage, scenesPdf } from "@unitext/core/draw";
import { type FontSet, layoutSlide, type Sheets, sheetsOf } from "@unitext/core/layout";
import { type Deck, Failure, metadataOf, levels, nameOf, must, sourceNote } from "@unitext/core/model";
import { type Report, report, tally } from "@unitext/core/tally";
import { strToU8 } from "fflate";
import { readJson, writeJson } from "./presentations/json";
import { decoded } from "./shared/document/text";
import { writeHandout } from "./output/handout/write";
import {
  extensionOf,
  type FormatDescriptor,
  FORMATS,
  listExtensions,
  OFFICE_OPEN_XML,
  OPEN_DOCUMENT,
  READABLE,
  type ReadableFormat,
  WRITABLE,
  type WritableFormat,
} from "./catalogue";
import { carriedIn, entriesOf, type FeatureName } from "./features";
import { type ByItself, writeHtml } from "./output/html";
import { writeMarkdown } from "./presentations/markdown";
import { writeNotes } from "./output/notes";
import { odpBatches, odpWorkbooks, readOdp, writeOdp } from "./presentations/odp";
import { PictureConverter, pagePictures } from "./shared/pictures";
import { writePictures } from "./output/pictures";
import { pptxBatches, pptxWorkbooks, readPptx, writePptx } from "./presentations/pptx";
import type { ReadDeck, ReadBatches, ReadOptions } from "./presentations/shared/reading";
import { deckFromSource, readSource, type SourceContext, type SourceKind, SOURCES } from "./documents/source";

export type Entries = Pick<Report, "adapted" | "left">;

export type ReadContext = SourceContext;

export interface WriteContext {
  fonts: FontSet;
  picture: (sha256: string) => Uint8Array | undefined;
  at: Date;
  /** What the pages of a PDF show; slides by default. */
  sheets?: Sheets;
  /** Whether a PDF, a web page or a handout says where linked values come from. */
  sourceNotes?: boolean;
  /** Turns the slides of a web page automatically. Without it, only slides with their own delay turn. */
  byItself?: ByItself;
  /** Draws an SVG as a PNG of a width in pixels; formats with pictures of slides need it. */
  png?: (svg: string, width: number) => Uint8Array;
}

/** A deck read from a file; `text` is the source in the text form where it was a text or document. */
export interface ReadResult extends ReadDeck {
  text?: string;
}

type Reader = (bytes: Uint8Array, name: string, context: ReadContext) => ReadResult;

const sourceReaders = Object.fromEntries(
  (Object.keys(SOURCES) as SourceKind[]).map((kind): [SourceKind, Reader] => [
    kind,
    (bytes, name, context) => {
      const { deck, blobs, pendingPictures, text, adapted, left } = deckFromSource(
        readSource(bytes, name, kind, context.rule),
        name,
        context,
      );
      return { deck, blobs, pendingPictures, text, adapted, left };
    },
  ]),
) as Record<SourceKind, Reader>;

const each = <K extends string, V>(names: readonly K[], value: V) =>
  Object.fromEntries(names.map((name) => [name, value])) as Record<K, V>;

/** The readers by extension. */
export const READERS: Record<ReadableFormat, Reader> = {
  ...sourceReaders,
  ...each(OFFICE_OPEN_XML, (bytes: Uint8Array, name: string, context: ReadContext) =>
    readPptx(bytes, { name, ...context }),
  ),
  ...each(OPEN_DOCUMENT, (bytes: Uint8Array, name: string, context: ReadContext) =>
    readOdp(bytes, { name, ...context }),
  ),
  json: (bytes, name, { sha256 }) => readJson(decoded(bytes, name).text, { name, sha256 }),
};

/** The readers of presentations that return batches of slides, by extension. */
const BATCH_READERS: Record<string, (bytes: Uint8Array, options: ReadOptions) => ReadBatches> = {
  ...each(OFFICE_OPEN_XML, pptxBatches),
  ...each(OPEN_DOCUMENT, odpBatches),
};

/** Whether a file is a presentation that can be read in batches. */
export const isPresentation = (name: string): boolean => extensionOf(name) in BATCH_READERS;

/** Reads a presentation in batches of slides. Throws a Failure for refused input, even after the first batches. */
export function presentationBatches(bytes: Uint8Array, options: ReadOptions): ReadBatches {
  const batches = BATCH_READERS[extensionOf(options.name)];
  if (!batches) throw new Failure("not-supported", options.name, "This is no presentation that can be read.");
  return batches(bytes, options);
}

type Write = (deck: Deck, context: WriteContext) => Uint8Array | Promise<Uint8Array>;

/** Returns the slides that a format for an audience shows: all but hidden ones. */
export function shownSlides(deck: Deck): Deck["slides"] {
  return deck.slides.filter(({ hidden }) => !hidden);
}

/** Returns the pages of a PDF for slides given by number. */
export function pdfPages(
  deck: Deck,
  fonts: FontSet,
  sheets: Sheets,
  numbers: readonly number[],
  sourceNotes = false,
): PdfPage[] {
  const depth = levels(deck.slides);
  const metadata = metadataOf(deck);
  const items = numbers.map((number) => {
    const slide = must(deck.slides[number - 1]);
    return { slide, number, notes: slide.notes, scene: layoutSlide(slide, { metadata, number, fonts }) };
  });
  const byId = new Map(items.map((item) => [item.slide.id, item]));
  const noteOf = (ids: readonly string[]) =>
    ids.flatMap((id) => sourceNote(must(byId.get(id)).slide, deck.language) || []).join("\n");
  return sheetsOf(sheets, items, { metadata, fonts }).map(({ scene, slides }) => ({
    scene,
    ...(sourceNotes ? { note: noteOf(slides) } : {}),
    slides: slides.map((id) => {
      const { slide, number } = must(byId.get(id));
      return {
        id,
        name: nameOf(slide) || `Slide ${number}`,
        level: depth.get(id) ?? 0,
        ...(slide.section !== undefined && slide.parent === null ? { section: slide.section } : {}),
      };
    }),
  }));
}

/** Returns the numbers of the slides that an audience sees. */
const shownNumbers = (deck: Deck) => deck.slides.flatMap(({ hidden }, nth) => (hidden ? [] : [nth + 1]));

const writePdf: Write = (deck, { fonts, picture, at, sheets, sourceNotes, png }) => {
  const { title, author } = deck.properties;
  return scenesPdf(pdfPages(deck, fonts, sheets ?? "slides", shownNumbers(deck), sourceNotes), {
    fonts,
    ...pagePictures(deck.assets, picture, png),
    title,
    author,
    language: deck.language,
    at,
  });
};

/** The functions that write a deck, by the extension of the format. */
const WRITE: Record<WritableFormat, Write> = {
  pptx: writePptx,
  odp: writeOdp,
  pdf: writePdf,
  html: writeHtml,
  docx: writeHandout,
  png: (deck, context) => writePictures(deck, "png", context),
  svg: (deck, context) => writePictures(deck, "svg", context),
  md: (deck) => strToU8(writeMarkdown(deck)),
  txt: (deck) => strToU8(writeNotes(deck)),
  json: (deck, { picture }) => strToU8(writeJson(deck, picture)),
};

/** The formats with their writers, by extension. */
export const WRITERS = Object.fromEntries(
  WRITABLE.map((format) => [format, { ...FORMATS[format], write: WRITE[format] }]),
) as Record<WritableFormat, FormatDescriptor & { write: Write }>;

/** Reads a file by its extension. Throws a Failure for an unknown kind and for refused input. */
export function readDeck(bytes: Uint8Array, name: string, context: ReadContext): ReadResult {
  const extension = extensionOf(name);
  const reader = READERS[extension as keyof typeof READERS];
  if (!reader)
    throw new Failure(
      "not-supported",
      name,
      `Files of the kind “${extension || name}” are not read. Readable are ${listExtensions(READABLE)}.`,
    );
  if (bytes.length === 0) throw new Failure("not-readable", name, "The file is empty.");
  try {
    return reader(bytes, name, context);
  } catch (error) {
    throw isTooDeep(error) ? tooDeep(name) : error;
  }
}

/** Whether an error says that the stack was exhausted by endless nesting. */
export const isTooDeep = (error: unknown): boolean => error instanceof RangeError && /call stack/.test(error.message);
export const tooDeep = (name: string): Failure =>
  new Failure(
    "too-large",
    name,
    "The file nests deeper than it can be read. Lift what is deepest in it, and bring it in again.",
  );

/** Returns a deck with the pictures converted that pages cannot show. */
export async function withDrawings<Read extends ReadDeck>(
  read: Read,
  sha256: (bytes: Uint8Array) => string,
): Promise<Read> {
  const { pendingPictures, ...rest } = read;
  if (!pendingPictures?.size) return read;
  const drawings = new PictureConverter(sha256);
  const [assets, blobs] = [{ ...read.deck.assets }, new Map(read.blobs)];
  await drawings.into({ assets, blobs, pendingPictures });
  return { ...(rest as Read), deck: { ...read.deck, assets }, blobs, left: [...read.left, ...drawings.left] };
}

/** Reports what writing a deck in a format will keep, adapt and leave out, before anything is written. */
export function writeReport(
  deck: Deck,
  format: WritableFormat,
  reading: Entries = { adapted: [], left: [] },
  sheets: Sheets = "slides",
): Report {
  const besides: ReadonlySet<FeatureName> = new Set(format === "pdf" && sheets === "notes" ? ["notes"] : []);
  const { adapted, left } = entriesOf(deck, format, besides);
  return report(tally(deck), carriedIn(deck, format, besides), {
    adapted: [...reading.adapted, ...adapted],
    left: [...reading.left, ...left],
  });
}

export {
  DOCUMENTS,
  extensionOf,
  FORMATS,
  READABLE,
  type ReadableFormat,
  WRITABLE,
  type WritableFormat,
} from "./catalogue";
export { languageOf, sampleOf, suggestRule } from "./shared/document/document";
export { carriedIn, entriesOf, FEATURES, type FeatureName, TABLE, type Verdict } from "./features";
export type { ByItself } from "./output/html";
export { slidePictures } from "./output/pictures";
export { checkText } from "./shared/document/text";
export { mediaTypeOf, pagePictures, pictureInfo } from "./shared/pictures";
export { PictureConverter } from "./shared/pictures";

export type { ReadDeck, ReadBatch } from "./presentations/shared/reading";
export {
  type AskedRule,
  deckFromSource,
  readSource,
  type SourceContext,
  type SourceKind,
  type SourceRead,
  SOURCES,
  takePictures,
} from "./documents/source";
export type { EmbeddedWorkbook } from "./presentations/shared/workbooks";
import type { EmbeddedWorkbook } from "./presentations/shared/workbooks";

/**
 * Lists the workbooks of charts and embedded objects in the files that the slides of a deck were read from, in running
 * order; `picture` returns the bytes of a stored file. Workbooks outside are named and never opened.
 */
export const embeddedWorkbooks = (
  deck: Deck,
  picture: (sha256: string) => Uint8Array | undefined,
): EmbeddedWorkbook[] =>
  [...pptxWorkbooks(deck, picture), ...odpWorkbooks(deck, picture)].sort((a, b) => a.slide - b.slide);
