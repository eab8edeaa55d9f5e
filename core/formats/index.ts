import { type PdfPage, scenesPdf } from "@unitext/core/draw";
import type { BreakRule } from "@unitext/core/generate";
import { type FontSet, layoutSlide } from "@unitext/core/layout";
import { type Deck, Failure, hasNotes, headOf, levels, nameOf } from "@unitext/core/model";
import { noTally, type Report, report, type Tally, tally } from "@unitext/core/tally";
import { strToU8 } from "fflate";
import { readJson, writeJson } from "./json";
import { decodeText, markdownEntries, readMarkdown, writeMarkdown } from "./markdown";
import { pptxEntries, readPptx, writePptx } from "./pptx";

export type Entries = Pick<Report, "adapted" | "left">;

export interface ReadContext {
  newId: () => string;
  sha256: (bytes: Uint8Array) => string;
  rule?: BreakRule;
  picture?: (source: string) => Uint8Array | undefined;
}

export interface WriteContext {
  fonts: FontSet;
  picture: (sha256: string) => Uint8Array | undefined;
  at: Date;
}

/** A deck read from a file with the bytes of its pictures and what could not be taken as it was; `text` is the source where it was a text. */
export interface ReadResult extends Entries {
  deck: Deck;
  blobs: Map<string, Uint8Array>;
  text?: string;
}

type Reader = (bytes: Uint8Array, name: string, context: ReadContext) => ReadResult;

function readTextFile(bytes: Uint8Array, name: string, context: ReadContext): ReadResult {
  const text = decodeText(bytes, name);
  const { deck, blobs, adapted, left } = readMarkdown(text, { name, ...context });
  return { deck, blobs, adapted, left, text };
}

/** The readers by extension. */
export const READERS: Record<"pptx" | "md" | "txt" | "json", Reader> = {
  pptx: (bytes, name, context) => readPptx(bytes, { name, ...context }),
  md: readTextFile,
  txt: readTextFile,
  json: (bytes, name, { sha256 }) => ({ ...readJson(decodeText(bytes, name), { name, sha256 }), adapted: [], left: [] }),
};

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
      if (element.kind === "picture" && !deck.assets[element.source]) left.push({ slide: nth + 1, what: `the picture ${element.source}`, why: "its file is not in the deck; an empty frame stands in its place" });
    }
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
      return { ...noTally(), slides: shown.slides, sections: shown.sections, words: shown.words, links: { ...shown.links, broken: 0 }, pictures: shown.pictures };
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

export { checkText, decodeText } from "./markdown";
export { pictureInfo } from "./picture";
