import { createHash } from "node:crypto";
import {
  type AskedRule,
  checkText,
  extensionOf,
  readDeck,
  type ReadResult,
  readSource,
  type SourceKind,
  takePictures,
  withDrawings,
  writeReport,
  type WritableFormat,
} from "@unitext/core/formats";
import { unzip } from "@unitext/core/formats/shared/archive";
import { generateDeck } from "@unitext/core/generate";
import type { Sheets } from "@unitext/core/layout";
import { checked, type Deck, DEFAULT_RULE, Failure, newSlide, plainText, wellFormed } from "@unitext/core/model";
import { type Report, report, tally } from "@unitext/core/tally";
import { readText } from "@unitext/core/text";
import { zipSync } from "fflate";
import { nanoid } from "nanoid";
import { ChangeRequest, type DocumentText, NewDeck } from "../api";
import {
  convertPictures,
  type Drawn,
  drawSlide,
  exportDeck,
  type ExportWork,
  ffmpegVersion,
  filmFrames,
  filmHashes,
  hasLocalVoice,
  type LanguageService,
  readPdf,
  speakByService,
  type Speech,
  type SpeechAsked,
  speakLocally,
  viewSlide,
} from "@unitext/node";
import {
  bindRange,
  cellsLike,
  compareBindings,
  compareDecks,
  findTyped,
  sheetCells,
  workbookChanges,
  workbookContents,
  workbooksInside,
} from "./data";
import type { NamedFile } from "./namedfile";
import { proposePoints } from "./points";
import { readFile, type ReadProgress, type ReadWork } from "./read";
import {
  inWordsOf,
  newTranslation,
  pairedSegments,
  rankProposals,
  readExchange,
  readMemory,
  takeTargets,
  writeMemory,
  alignedPairs,
  openSources,
  segmentFile,
  segmentStates,
} from "./translate";

const sha256 = (bytes: Uint8Array) => createHash("sha256").update(bytes).digest("hex");
const newId = () => nanoid(10);

/** A deck made from a text or file, before it is stored; `text` is what Write shows for it. */
export interface MadeDeck {
  deck: Deck;
  blobs: Map<string, Uint8Array>;
  text: string | null;
  report: Report | null;
}

/** A document read for an existing deck, with its picture files. */
export interface ReadDocument {
  document: DocumentText;
  blobs: Map<string, Uint8Array>;
}

function deckFromText({ title, text = "" }: NewDeck): MadeDeck {
  checkText(text, "text");
  const { deck } = generateDeck(readText(text), DEFAULT_RULE, { newId }, title || "Untitled");
  if (!text.trim()) {
    deck.properties.title = title || "Untitled";
    deck.slides = [
      {
        ...newSlide(newId(), "opening"),
        elements: [{ kind: "text", id: newId(), slot: "title", text: plainText(deck.properties.title) }],
      },
    ];
  }
  return { deck: { ...deck, id: nanoid(12) }, blobs: new Map(), text: text.trim() ? text : null, report: null };
}

function deckFrom({ deck, blobs, text, adapted, left }: ReadResult): MadeDeck {
  const counts = tally(deck);
  return { deck, blobs, text: text ?? null, report: report(counts, counts, { adapted, left }) };
}

async function readDocument({ bytes, name, rule }: NamedFile & { rule?: AskedRule }): Promise<ReadDocument> {
  const source = readSource(bytes, name, extensionOf(name) as SourceKind, rule);
  for (const _ of source.manuscript.blocks) {
    // Read to the end, so that text and problems are complete.
  }
  const { problems } = source.manuscript;
  const taken = takePictures(source.pictures, sha256, problems);
  const drawn = await convertPictures(taken.pendingPictures);
  for (const { what, why } of drawn.left) problems.push({ line: 1, message: `Not shown: ${what}; ${why}.` });
  const assets = { ...taken.assets, ...drawn.assets };
  return {
    document: { name, text: source.text(), typed: source.typed, rule: source.rule, assets, problems },
    blobs: new Map([...taken.blobs, ...drawn.blobs]),
  };
}

async function readPicture({ bytes, name }: NamedFile): Promise<Drawn> {
  const taken = takePictures(new Map([[name, bytes]]), sha256, []);
  return taken.pendingPictures.size
    ? convertPictures(taken.pendingPictures)
    : { assets: taken.assets, blobs: taken.blobs, left: [] };
}

/** Speaks a text with a service, or with the voice of this machine. */
const speak = async ({ service, ...asked }: SpeechAsked & { service: LanguageService | undefined }): Promise<Speech> =>
  service ? speakByService(asked, service) : speakLocally(asked);

/** Returns what films can be made with on this machine. */
const filmTools = async () => ({ ffmpeg: (await ffmpegVersion()) !== undefined, local: await hasLocalVoice() });

/** The request bodies that are checked in a worker, by name. */
const BODIES = { changes: ChangeRequest, deck: NewDeck } as const;
type BodyName = keyof typeof BODIES;

/** Parses the body of a request and checks it. Throws a Failure `not-valid` that names the field. */
export function parseBody({ bytes, schema }: { bytes: Uint8Array; schema: BodyName }): unknown {
  let value: unknown;
  try {
    value = JSON.parse(new TextDecoder("utf-8", { fatal: true }).decode(bytes));
  } catch {
    throw new Failure("not-valid", "body", "The request could not be read: its body is not JSON in UTF-8.");
  }
  return checked(BODIES[schema], wellFormed(value), "The request");
}

/** Presentations, pages and archives do not get smaller by being compressed again. */
const PACKED = /\.(pptx|odp|docx|zip|pdf)$/;

function archive(files: ReadonlyMap<string, Uint8Array>): Uint8Array {
  return zipSync(
    Object.fromEntries([...files].map(([name, bytes]) => [name, [bytes, { level: PACKED.test(name) ? 0 : 6 }]])),
  );
}

/** Unpacks an archive. Throws a Failure for one that is damaged, or that would unpack beyond the limits. */
function unpack({ bytes, name }: NamedFile): Map<string, Uint8Array> {
  const parts = unzip(bytes, name);
  return new Map([...parts.keys()].flatMap((path) => [[path, parts.take(path) ?? new Uint8Array()] as const]));
}

/**
 * Everything that is done with users' input: each task runs in a process of its own, never in the server's. A task
 * returns its result, or yields progress when it is a generator.
 */
export const TASKS = {
  /** Makes a deck of a text that was typed or pasted. */
  text: deckFromText,
  /** Reads a short text or a `.json` deck. */
  file: async ({ bytes, name }: NamedFile): Promise<MadeDeck> =>
    deckFrom(await withDrawings(readDeck(bytes, name, { newId, sha256 }), sha256)),
  /** Reads the pages of a PDF as pictures. */
  pages: async (file: NamedFile): Promise<MadeDeck> => deckFrom(await readPdf(file)),
  /** Whether a text was typed as a deck, so that it needs no rule to cut it. */
  typed: ({ bytes, name }: NamedFile): boolean => readSource(bytes, name, extensionOf(name) as SourceKind).typed,
  /** Reads a document for a deck that was made from an earlier version of it. */
  document: readDocument,
  /** Reads a picture, converting those that browsers do not show. */
  picture: readPicture,
  /** Writes a deck in a format. */
  write: (work: ExportWork): Promise<Uint8Array> => exportDeck(work),
  /** Draws a slide for a viewer's page. */
  drawSlide,
  /** Returns what a viewer's page shows beside the drawing of a slide. */
  viewSlide,
  speak,
  filmTools,
  /** Returns a hash of what is seen on each slide of a film. */
  filmHashes,
  /** Draws the pictures of a slide of a film as files. */
  filmFrames,
  /** Reports what writing a deck in a format keeps, adapts and leaves out. */
  report: ({ deck, format, sheets }: { deck: Deck; format: WritableFormat; sheets: Sheets }): Report =>
    writeReport(deck, format, undefined, sheets),
  /** Packs files into an archive. */
  archive,
  unpack,
  /** Parses a large request body and checks it. */
  body: parseBody,
  /** Lists what is in a workbook. */
  workbook: workbookContents,
  /** Returns what differs between two versions of a workbook. */
  differences: workbookChanges,
  /** Returns some cells of a sheet as texts. */
  cells: sheetCells,
  /** Finds the cells that have given texts. */
  cellsLike,
  /** Takes cells of a workbook for a slide. */
  bind: bindRange,
  /** Compares the bindings of a deck with their sources, and takes new values. */
  refresh: compareBindings,
  /** The same for several decks with the same sources. */
  refreshDecks: compareDecks,
  /** Finds numbers in the texts of a deck that repeat cells of a workbook. */
  repeated: findTyped,
  /** Makes a deck in another language. */
  newTranslation,
  /** Makes points from paragraphs. */
  proposePoints,
  /** Lists the segments of a translated deck beside their translations. */
  pairedSegments,
  /** Puts translations into a translated deck. */
  takeTargets,
  /** Writes the segments of a translated deck as XLIFF. */
  alignDecks: alignedPairs,
  segmentStates,
  openSources,
  segmentFile,
  /** Reads an XLIFF for a translated deck. */
  readExchange,
  /** Ranks units of a memory for a text. */
  rankProposals,
  /** Reads and writes a memory as TMX. */
  readMemory,
  writeMemory,
  /** Returns a state of the original in the words of its translation. */
  inWordsOf,
  /** Lists the workbooks inside the file of a deck. */
  inside: workbooksInside,
} as const;

export type TaskName = keyof typeof TASKS;
export type TaskInput<T extends TaskName> = Parameters<(typeof TASKS)[T]>[0];
export type TaskOutput<T extends TaskName> = Awaited<ReturnType<(typeof TASKS)[T]>>;

/** An order for a worker process: to prepare, to carry out a task, or to read a file with progress. */
export type Order =
  | { kind: "task"; name: TaskName; input: unknown }
  | { kind: "read"; work: ReadWork }
  | { kind: "warm"; fonts: string };

/** A reply of a worker process: progress, a result, or why it failed. */
export type Reply =
  | { kind: "progress"; progress: ReadProgress }
  | { kind: "done"; result?: unknown }
  | { kind: "failed"; failure?: { code: Failure["code"]; where: string; message: string }; message: string }
  | { kind: "ready" };

/** Carries out an order; progress goes to `tell`. Throws what the task throws. */
export async function carryOut(
  order: Exclude<Order, { kind: "warm" }>,
  tell: (progress: ReadProgress) => void,
): Promise<unknown> {
  if (order.kind === "task") return (TASKS[order.name] as (input: unknown) => unknown)(order.input);
  for await (const progress of readFile(order.work)) tell(progress);
  return undefined;
}
