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

/**
 * Reads a PDF as a deck: a slide for each page, with the page as a picture, its words as the description and the notes.
 * Throws a Failure for a file that is damaged, has no page, or is protected by a password.
 */
export async function readPdf({ bytes, name }: { bytes: Uint8Array; name: string }): Promise<ReadDeck> {
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
  try {
    if (file.numPages > MOST_PAGES)
      throw new Failure("not-supported", name, `The file has ${file.numPages} pages; up to ${MOST_PAGES} are read.`);
    const { info } = (await file.getMetadata()) as { info: { Title?: string; Author?: string; Language?: string } };
    const blobs = new Map<string, Uint8Array>();
    const assets: Record<string, Asset> = {};
    const left: Report["left"] = [];
    const slides: Slide[] = [];
    let page = { ...PAGES["16:9"] } as Deck["page"];
    for (let number = 1; number <= file.numPages; number++) {
      const one = await file.getPage(number);
      const whole = one.getViewport({ scale: 1 });
      if (number === 1)
        page = { width: 960, height: Math.max(240, Math.min(1920, Math.round((960 * whole.height) / whole.width))) };
      const viewport = one.getViewport({ scale: PIXELS / whole.width });
      const [width, height] = [
        Math.max(1, Math.round(viewport.width)),
        Math.max(1, Math.min(8000, Math.round(viewport.height))),
      ];
      const canvas = createCanvas(width, height);
      await one.render({ canvasContext: canvas.getContext("2d") as never, viewport, background: "#ffffff" }).promise;
      const picture = new Uint8Array(await canvas.encode("png"));
      const sha256 = createHash("sha256").update(picture).digest("hex");
      const source = `page-${String(number).padStart(String(file.numPages).length, "0")}.png`;
      blobs.set(sha256, picture);
      assets[source] = { sha256, mediaType: "image/png", width, height };
      const words = wordsOf((await one.getTextContent()).items);
      const scale = Math.min(page.width / width, page.height / height);
      const frame = {
        x: (page.width - width * scale) / 2,
        y: (page.height - height * scale) / 2,
        width: width * scale,
        height: height * scale,
      };
      slides.push({
        id: nanoid(10),
        parent: null,
        arrangement: "blank",
        hidden: false,
        notes: plainText(cutText(words, 100_000)),
        elements: [
          {
            kind: "picture",
            id: nanoid(10),
            slot: null,
            frame,
            source,
            alt: cutText(words, 10_000) || `Page ${number}`,
          },
        ],
      });
      if ((await one.getAnnotations()).some(({ subtype }) => subtype === "Link"))
        left.push({ slide: number, what: "the links of the page", why: "a page is one picture" });
      one.cleanup();
    }
    const title = (info.Title ?? "").trim() || name.replace(/\.[^.]*$/, "");
    const language = /^[a-z]{2,3}(-[A-Za-z0-9]{2,8})*$/i.test(info.Language ?? "") ? must(info.Language) : "en";
    const adapted = [
      {
        slide: null,
        what: slides.length === 1 ? "the page" : `the ${slides.length} pages`,
        how: "each is one picture, its words are its description and its notes",
      },
    ];
    return {
      deck: {
        ...emptyDeck(nanoid(12), title),
        language,
        page,
        properties: { title: cutText(title, 500), author: cutText(info.Author ?? "", 500), event: "", date: "" },
        assets,
        slides,
      },
      blobs,
      adapted,
      left,
    };
  } finally {
    await file.destroy();
  }
}
