import { createHash } from "node:crypto";
import { loadFormulas } from "@unitext/core/figures";
import {
  PictureConverter,
  type Entries,
  extensionOf,
  isPresentation,
  presentationBatches,
  readSource,
  type SourceKind,
  takePictures,
} from "@unitext/core/formats";
import { generate, loadGrammar, metadataFrom } from "@unitext/core/generate";
import {
  type Asset,
  countWords,
  type DeckMetadata,
  emptyDeck,
  metadataOf,
  picturesOn,
  type Slide,
  textOf,
  within,
} from "@unitext/core/model";
import type { Block, Lines } from "@unitext/core/text";
import { nanoid } from "nanoid";
import { fontsIn } from "@unitext/node";

/** A file to read. */
export interface ReadWork {
  fonts: string;
  name: string;
  bytes: Uint8Array;
  deck: string;
  document: string;
}

/**
 * The progress of reading: first the deck's metadata and pictures, then the first slides, the whole text, further
 * slides, converted pictures, and last what was changed or left out. The metadata of a presentation grow with its
 * slides.
 */
export type ReadProgress =
  | {
      kind: "head";
      metadata: DeckMetadata;
      blobs: Map<string, Uint8Array>;
      typed: boolean /** The number of slides in the file, where it says so. */;
      of?: number;
    }
  | { kind: "text"; text: string; pages: number }
  | { kind: "slides"; slides: Slide[]; page: number }
  | { kind: "pictures"; assets: Record<string, Asset>; blobs: Map<string, Uint8Array> }
  | ({ kind: "end" } & Entries);

const sha256 = (bytes: Uint8Array) => createHash("sha256").update(bytes).digest("hex");

/** Words on a page of a document, to tell how far reading is (common practice, no source). */
const PAGE = 400;

/**
 * The first slides are handed over at once, later ones in larger batches, so that each costs the server little and the
 * page takes it in without a pause.
 */
const FIRST = 6;
const LOT = { slides: 24, milliseconds: 200 };

const wordsIn = (block: Block) =>
  "text" in block
    ? countWords(textOf(block.text))
    : block.kind === "figure" && block.figure.kind === "table"
      ? block.figure.rows.length * 12
      : 0;

function slideAt(lines: readonly Lines[], line: number): number | null {
  const at = lines.findIndex(({ from, to }) => line >= from && line <= to);
  return at < 0 ? null : at + 1;
}

/** Reads a document and generates its slides, or reads a presentation. Throws a Failure for a refused file. */
export async function* readFile(work: ReadWork): AsyncGenerator<ReadProgress> {
  yield* isPresentation(work.name) ? readPresentation(work) : readDocument(work);
}

/** Copies files that are views of a larger buffer: a message to another thread would take the whole buffer along. */
const splitPages = (blobs: Map<string, Uint8Array>) =>
  new Map(
    [...blobs].map(([sum, bytes]) => [sum, bytes.byteLength === bytes.buffer.byteLength ? bytes : bytes.slice()]),
  );

async function* readPresentation({ name, bytes }: ReadWork): AsyncGenerator<ReadProgress> {
  const drawings = new PictureConverter(sha256);
  const lots = presentationBatches(bytes, { name, newId: () => nanoid(10), sha256 });
  let elements = 0;
  for (let page = 0; ; ) {
    const { done, value } = lots.next();
    if (done) return yield { kind: "end", ...value, left: [...value.left, ...drawings.left] };
    const { metadata, blobs, pendingPictures } = value;
    await drawings.into({ assets: metadata.assets, blobs, pendingPictures });
    page += value.slides.length;
    elements += value.slides.reduce((sum, slide) => sum + slide.elements.length, 0);
    within("elements", elements, name);
    yield { kind: "head", metadata, blobs: splitPages(blobs), typed: false, of: value.of };
    yield { kind: "slides", slides: value.slides, page };
  }
}

/** Blocks of a document as they are taken, with the words of those taken so far. */
class CountedBlocks implements Iterable<Block> {
  words = 0;
  private readonly coming: Iterator<Block>;
  /** Blocks that were read ahead. */
  private readonly ahead: Block[] = [];
  private at = 0;

  constructor(blocks: Iterable<Block>) {
    this.coming = blocks[Symbol.iterator]();
  }

  *[Symbol.iterator](): Generator<Block> {
    for (;;) {
      const block = this.at < this.ahead.length ? this.ahead[this.at++] : this.coming.next().value;
      if (!block) return;
      this.words += wordsIn(block);
      yield block;
    }
  }

  /** Reads all blocks, which can still be taken, and returns the words of the document. */
  readToEnd(): number {
    for (let next = this.coming.next(); !next.done; next = this.coming.next()) this.ahead.push(next.value);
    return this.words + this.ahead.slice(this.at).reduce((sum, block) => sum + wordsIn(block), 0);
  }
}

const missingPicture = (slide: number, picture: string): Entries["left"][number] => ({
  slide,
  what: `the picture ${picture}`,
  why: "its file was not found; add it to the deck to see it",
});

async function* readDocument({ fonts: folder, name, bytes, deck, document }: ReadWork): AsyncGenerator<ReadProgress> {
  const source = readSource(bytes, name, extensionOf(name) as SourceKind);
  const { front, problems } = source.manuscript;
  if (source.formulas) await loadFormulas();
  if (source.rule.placement === "both") await loadGrammar();
  const { assets, blobs, pendingPictures } = takePictures(source.pictures, sha256, problems);
  const { rule, typed } = source;
  const empty = emptyDeck(deck, front.title ?? name.replace(/\.[^.]*$/, ""));
  const metadata: DeckMetadata = {
    ...metadataFrom(front, metadataOf(empty), problems),
    assets,
    ...(typed ? {} : { manuscript: { document, rule } }),
  };
  yield { kind: "head", metadata, blobs, typed };

  // The first slides do not wait for the rest of the text.
  const blocks = new CountedBlocks(source.manuscript.blocks);
  const lines: Lines[] = [];
  const left: Entries["left"] = [];
  let lot: Slide[] = [];
  let since = performance.now();
  let whole: ReadProgress | undefined;
  const rest = (): ReadProgress => {
    const pages = Math.max(1, Math.ceil(blocks.readToEnd() / PAGE));
    return { kind: "text", text: source.text(), pages };
  };
  for (const made of generate({ front, blocks, problems }, rule, {
    newId: () => nanoid(10),
    metadata,
    fonts: fontsIn(folder),
    ...(typed ? {} : { document }),
  })) {
    lot.push(made.slide);
    lines.push(made.lines);
    for (const picture of picturesOn(made.slide))
      if (!assets[picture] && !source.pictures.has(picture)) left.push(missingPicture(lines.length, picture));
    const full =
      lines.length <= FIRST
        ? lot.length >= FIRST
        : lot.length >= LOT.slides || performance.now() - since > LOT.milliseconds;
    if (!full) continue;
    yield { kind: "slides", slides: lot, page: Math.floor(blocks.words / PAGE) + 1 };
    if (!whole) yield (whole = rest());
    lot = [];
    since = performance.now();
  }
  if (lot.length) yield { kind: "slides", slides: lot, page: Math.floor(blocks.words / PAGE) + 1 };
  if (!whole) yield rest();
  // Converting pictures takes longest: the slides are there already, and get them one by one.
  const drawings = new PictureConverter(sha256);
  for (const one of pendingPictures) {
    const drawn = { assets: {}, blobs: new Map<string, Uint8Array>(), pendingPictures: new Map([one]) };
    await drawings.into(drawn);
    if (drawn.blobs.size) yield { kind: "pictures", assets: drawn.assets, blobs: drawn.blobs };
  }
  yield {
    kind: "end",
    adapted: problems.map(({ line, message }) => ({ slide: slideAt(lines, line), what: `line ${line}`, how: message })),
    left: [...left, ...drawings.left],
  };
}
