import { type PdfPage, scenesPdf } from "@unitext/core/draw";
import { type FontSet, layoutSlide } from "@unitext/core/layout";
import { type Deck, Failure, hasNotes, headOf, levels, nameOf, picturesOn } from "@unitext/core/model";
import { noTally, type Report, report, type Tally, tally } from "@unitext/core/tally";
import { strToU8 } from "fflate";
import { readJson, writeJson } from "./json";
import { decoded } from "./document/text";
import { markdownEntries, writeMarkdown } from "./markdown";
import { pptxEntries, readPptx, writePptx } from "./pptx";
import { deckFromSource, readSource, type SourceContext, type SourceKind, SOURCES } from "./source";

export type Entries = Pick<Report, "adapted" | "left">;

export type ReadContext = SourceContext;

export interface WriteContext {
  fonts: FontSet;
  picture: (sha256: string) => Uint8Array | undefined;
  at: Date;
}

/** A deck read from a file with the bytes of its pictures and what could not be taken as it was; `text` is the source in the text form where it was a text or document. */
export interface ReadResult extends Entries {
  deck: Deck;
  blobs: Map<string, Uint8Array>;
  text?: string;
}

type Reader = (bytes: Uint8Array, name: string, context: ReadContext) => ReadResult;

const sourceReaders = Object.fromEntries((Object.keys(SOURCES) as SourceKind[]).map((kind): [SourceKind, Reader] => [kind, (bytes, name, context) => {
  const { deck, blobs, text, adapted, left } = deckFromSource(readSource(bytes, name, kind, context.rule), name, context);
  return { deck, blobs, text, adapted, left };
}])) as Record<SourceKind, Reader>;

/** The readers by extension. */
export const READERS: Record<"pptx" | "json" | SourceKind, Reader> = {
  ...sourceReaders,
  pptx: (bytes, name, context) => readPptx(bytes, { name, ...context }),
  json: (bytes, name, { sha256 }) => ({ ...readJson(decoded(bytes, name).text, { name, sha256 }), adapted: [], left: [] }),
};
export const READABLE = Object.keys(READERS) as (keyof typeof READERS)[];

export type WritableFormat = "pptx" | "pdf" | "md" | "json";
interface Writer {
  label: string;
  mediaType: string;
  write(deck: Deck, context: WriteContext): Uint8Array | Promise<Uint8Array>;
  /** What it cannot keep as it is, slide by slide. */
  entries(deck: Deck): Entries;
  /** What a deck written in it carries, from what the deck carries. */
  carries(from: Tally, deck: Deck): Tally;
}

/** The slides that a format for an audience shows: all but the hidden ones. */
export function shownSlides(deck: Deck): Deck["slides"] {
  return deck.slides.filter(({ hidden }) => !hidden);
}

function pdfPages(deck: Deck, fonts: FontSet): PdfPage[] {
  const depth = levels(deck.slides);
  const head = headOf(deck);
  const shown = new Set(shownSlides(deck));
  return deck.slides.flatMap((slide, nth) => {
    if (!shown.has(slide)) return [];
    return [{ scene: layoutSlide(slide, { head, number: nth + 1, fonts }), name: nameOf(slide) || `Slide ${nth + 1}`, level: depth.get(slide.id) ?? 0 }];
  });
}

function pdfEntries(deck: Deck): Entries {
  const left: Report["left"] = [];
  const adapted: Report["adapted"] = [];
  deck.slides.forEach((slide, nth) => {
    if (slide.hidden) left.push({ slide: nth + 1, what: "a hidden slide", why: "hidden slides are not shown to the audience" });
    else if (hasNotes(slide)) left.push({ slide: nth + 1, what: "its notes", why: "the pages are for the audience, who do not see the notes" });
    for (const element of slide.elements) {
      if (slide.hidden) continue;
      if (element.binding) adapted.push({ slide: nth + 1, what: `the link to ${element.binding.source}, ${element.binding.range}`, how: "shown with its present values; they will not change" });
      if (element.kind === "text" && element.steps) adapted.push({ slide: nth + 1, what: "points that appear one at a time", how: "shown at once" });
    }
    if (slide.hidden) return;
    for (const name of picturesOn(slide)) if (!deck.assets[name]) left.push({ slide: nth + 1, what: `the picture ${name}`, why: "its file is not in the deck; an empty frame stands in its place" });
    if (slide.transition) left.push({ slide: nth + 1, what: "its transition", why: "pages do not move" });
  });
  return { adapted, left };
}

/** The writers by extension, in the order in which they are offered. */
export const WRITERS: Record<WritableFormat, Writer> = {
  pptx: {
    label: "Presentation (.pptx)",
    mediaType: "application/vnd.openxmlformats-officedocument.presentationml.presentation",
    write: writePptx,
    entries: pptxEntries,
    carries: (from, deck) => ({ ...from, links: { ...from.links, broken: 0 }, pictures: from.pictures, bindings: from.bindings, slides: deck.slides.length }),
  },
  pdf: {
    label: "Pages (.pdf)",
    mediaType: "application/pdf",
    write: (deck, { fonts, picture, at }) => {
      const { title, author } = deck.properties;
      return scenesPdf(pdfPages(deck, fonts), { fonts, picture, title, author, language: deck.language, at });
    },
    entries: pdfEntries,
    carries: (_, deck) => {
      const shown = tally({ slides: shownSlides(deck).map((slide) => ({ ...slide, notes: [] })) });
      return { ...shown, hidden: 0, notes: noTally().notes, links: { ...shown.links, broken: 0 }, bindings: 0, steps: 0, transitions: 0 };
    },
  },
  md: {
    label: "Text (.md)",
    mediaType: "text/markdown; charset=utf-8",
    write: (deck) => strToU8(writeMarkdown(deck)),
    entries: markdownEntries,
    carries: (from) => ({ ...from, bindings: 0 }),
  },
  json: {
    label: "Unitext deck (.json)",
    mediaType: "application/json",
    write: (deck, { picture }) => strToU8(writeJson(deck, picture)),
    entries: () => ({ adapted: [], left: [] }),
    carries: (from) => from,
  },
};

export const WRITABLE = Object.keys(WRITERS) as WritableFormat[];

/** The extension of a file's name, in lower case. */
export function extensionOf(name: string): string {
  return /\.([^./\\]+)$/.exec(name)?.[1]?.toLowerCase() ?? "";
}

/** Reads a file by its extension. Throws a Failure for a kind that is not read and for every input that is refused. */
export function readDeck(bytes: Uint8Array, name: string, context: ReadContext): ReadResult {
  const extension = extensionOf(name);
  const reader = READERS[extension as keyof typeof READERS];
  if (!reader) throw new Failure("not-supported", name, `Files of the kind “${extension || name}” are not read. Readable are ${Object.keys(READERS).map((key) => `.${key}`).join(", ")}.`);
  if (bytes.length === 0) throw new Failure("not-readable", name, "The file is empty.");
  return reader(bytes, name, context);
}

/** What writing a deck in a format will keep, adapt and leave out; computed before anything is written. */
export function writeReport(deck: Deck, format: WritableFormat, reading: Entries = { adapted: [], left: [] }): Report {
  const writer = WRITERS[format];
  const { adapted, left } = writer.entries(deck);
  const from = tally(deck);
  return report(from, writer.carries(from, deck), { adapted: [...reading.adapted, ...adapted], left: [...reading.left, ...left] });
}

export { languageOf, sampleOf, suggestRule } from "./document/document";
export { checkText } from "./document/text";
export { pictureInfo } from "./picture";
export { type AskedRule, deckFromSource, readSource, type SourceContext, type SourceKind, type SourceRead, SOURCES, takePictures } from "./source";
