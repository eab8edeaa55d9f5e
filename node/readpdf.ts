import type { PDFDocumentProxy, PDFPageProxy } from "pdfjs-dist";
import { createHash } from "node:crypto";
import { createRequire } from "node:module";
import { dirname, join } from "node:path";
import { createCanvas } from "@napi-rs/canvas";
import type { ReadDeck } from "@unitext/core/formats";
import {
  cutText,
  type Asset,
  type Deck,
  emptyDeck,
  Failure,
  PAGES,
  plainText,
  type Slide,
  must,
} from "@unitext/core/model";
import type { Report } from "@unitext/core/tally";
import { nanoid } from "nanoid";

const PIXELS = 1600;
const MOST_PAGES = 1000;
const folder = dirname(createRequire(import.meta.url).resolve("pdfjs-dist/package.json"));

interface TextItem {
  str: string;
  hasEOL: boolean;
}

/** Returns the words of a page, a line each. */
function wordsOf(items: readonly unknown[]): string {
  const lines = items
    .filter((item): item is TextItem => typeof (item as TextItem).str === "string")
    .map(({ str, hasEOL }) => str + (hasEOL ? "\n" : ""))
    .join("");
  return lines
    .split("\n")
    .map((line) => line.replace(/\s+/g, " ").trim())
    .filter(Boolean)
    .join("\n");
}

/** Opens a PDF. Throws a Failure for a file that is damaged, protected, or has too many pages. */
async function openPdf(bytes: Uint8Array, name: string): Promise<PDFDocumentProxy> {
  const { getDocument } = await import("pdfjs-dist/legacy/build/pdf.mjs");
  const file = await getDocument({
    data: new Uint8Array(bytes),
    isEvalSupported: false,
    useSystemFonts: false,
    disableFontFace: true,
    verbosity: 0,
    cMapUrl: join(folder, "cmaps/"),
    cMapPacked: true,
    standardFontDataUrl: join(folder, "standard_fonts/"),
  }).promise.catch((error: Error) => {
    throw new Failure(
      "not-readable",
      name,
      error.name === "PasswordException"
        ? "The file is protected by a password. Save it without one and bring it in again."
        : "The file is no PDF, or it is damaged.",
    );
  });
  if (file.numPages <= MOST_PAGES) return file;
  await file.destroy();
  throw new Failure("not-supported", name, `The file has ${file.numPages} pages; up to ${MOST_PAGES} are read.`);
}

/** Draws a page as a PNG of `PIXELS` width. */
async function drawPage(page: PDFPageProxy): Promise<{ picture: Uint8Array; width: number; height: number }> {
  const viewport = page.getViewport({ scale: PIXELS / page.getViewport({ scale: 1 }).width });
  const width = Math.max(1, Math.round(viewport.width));
  const height = Math.max(1, Math.min(8000, Math.round(viewport.height)));
  const canvas = createCanvas(width, height);
  await page.render({ canvasContext: canvas.getContext("2d") as never, viewport, background: "#ffffff" }).promise;
  return { picture: new Uint8Array(await canvas.encode("png")), width, height };
}

/** Returns a slide that shows a picture as large as the page allows. */
function pageSlide(source: string, size: Deck["page"], page: Deck["page"], words: string, number: number): Slide {
  const scale = Math.min(page.width / size.width, page.height / size.height);
  const [width, height] = [size.width * scale, size.height * scale];
  const frame = { x: (page.width - width) / 2, y: (page.height - height) / 2, width, height };
  const alt = cutText(words, 10_000) || `Page ${number}`;
  return {
    id: nanoid(10),
    parent: null,
    arrangement: "blank",
    hidden: false,
    notes: plainText(cutText(words, 100_000)),
    elements: [{ kind: "picture", id: nanoid(10), slot: null, frame, source, alt }],
  };
}

/** Returns the page of a deck with the proportions of a PDF page. */
function deckPage(page: PDFPageProxy): Deck["page"] {
  const { width, height } = page.getViewport({ scale: 1 });
  return { width: 960, height: Math.max(240, Math.min(1920, Math.round((960 * height) / width))) };
}

/**
 * Reads a PDF as a deck: a slide for each page, with the page as a picture, its words as the description and the notes.
 * Throws a Failure for a file that is damaged, has no page, or is protected by a password.
 */
export async function readPdf({ bytes, name }: { bytes: Uint8Array; name: string }): Promise<ReadDeck> {
  const file = await openPdf(bytes, name);
  try {
    const { info } = (await file.getMetadata()) as { info: { Title?: string; Author?: string; Language?: string } };
    const blobs = new Map<string, Uint8Array>();
    const assets: Record<string, Asset> = {};
    const left: Report["left"] = [];
    const slides: Slide[] = [];
    let page: Deck["page"] = { ...PAGES["16:9"] };
    for (let number = 1; number <= file.numPages; number++) {
      const one = await file.getPage(number);
      if (number === 1) page = deckPage(one);
      const { picture, ...size } = await drawPage(one);
      const sha256 = createHash("sha256").update(picture).digest("hex");
      const source = `page-${String(number).padStart(String(file.numPages).length, "0")}.png`;
      blobs.set(sha256, picture);
      assets[source] = { sha256, mediaType: "image/png", ...size };
      slides.push(pageSlide(source, size, page, wordsOf((await one.getTextContent()).items), number));
      if ((await one.getAnnotations()).some(({ subtype }) => subtype === "Link"))
        left.push({ slide: number, what: "the links of the page", why: "a page is one picture" });
      one.cleanup();
    }
    const title = (info.Title ?? "").trim() || name.replace(/\.[^.]*$/, "");
    const language = /^[a-z]{2,3}(-[A-Za-z0-9]{2,8})*$/i.test(info.Language ?? "") ? must(info.Language) : "en";
    const properties = { title: cutText(title, 500), author: cutText(info.Author ?? "", 500), event: "", date: "" };
    const what = slides.length === 1 ? "the page" : `the ${slides.length} pages`;
    const how = "each is one picture, its words are its description and its notes";
    return {
      deck: { ...emptyDeck(nanoid(12), title), language, page, properties, assets, slides },
      blobs,
      adapted: [{ slide: null, what, how }],
      left,
    };
  } finally {
    await file.destroy();
  }
}
