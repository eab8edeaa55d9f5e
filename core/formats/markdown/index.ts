import { type BreakRule, DEFAULT_RULE, generateDeck } from "@unitext/core/generate";
import { type Asset, type Deck, Failure, linksOf } from "@unitext/core/model";
import type { Report } from "@unitext/core/tally";
import { deckText, type Lines, type Problem, readText } from "@unitext/core/text";
import { pictureInfo } from "../picture";

/** The longest line that is taken as text; a longer one is data that was given a text's name. */
const LONGEST_LINE = 1_000_000;

/** The text of bytes in UTF-8, or in UTF-16 with a byte order mark. Throws a Failure when they are in neither. */
export function decodeText(bytes: Uint8Array, name: string): string {
  if (bytes.length === 0) throw new Failure("not-readable", name, "The file is empty.");
  const encoding = bytes[0] === 0xff && bytes[1] === 0xfe ? "utf-16le" : bytes[0] === 0xfe && bytes[1] === 0xff ? "utf-16be" : "utf-8";
  let text: string;
  try {
    text = new TextDecoder(encoding, { fatal: true }).decode(bytes);
  } catch {
    throw new Failure("not-readable", name, "The text is not in UTF-8. Save it as UTF-8 and bring it in again.");
  }
  if (text.includes("\u0000")) throw new Failure("not-readable", name, "The file holds bytes that no text holds; it is not a text file.");
  if (text.trim() === "") throw new Failure("not-readable", name, "The file holds no text.");
  return text;
}

/** Refuses a text that no person wrote: a line of more than a million characters. */
export function checkText(text: string, name: string): void {
  let start = 0;
  for (let line = 1; start <= text.length; line++) {
    const end = text.indexOf("\n", start);
    const stop = end < 0 ? text.length : end;
    if (stop - start > LONGEST_LINE) throw new Failure("too-large", `${name}:${line}`, `Line ${line} has more than a million characters. Break it into paragraphs and bring it in again.`);
    start = stop + 1;
  }
}

export interface ReadMarkdownOptions {
  name: string;
  newId: () => string;
  sha256: (bytes: Uint8Array) => string;
  rule?: BreakRule;
  /** The bytes of a picture that the text names, or undefined. */
  picture?: (source: string) => Uint8Array | undefined;
}

/** Reads a text in the plain-text form (docs/text-format.md) into a deck; pictures that are not found keep their place and are listed. */
export function readMarkdown(text: string, { name, newId, sha256, rule = DEFAULT_RULE, picture }: ReadMarkdownOptions): { deck: Deck; lines: Lines[]; blobs: Map<string, Uint8Array>; problems: Problem[] } & Pick<Report, "adapted" | "left"> {
  checkText(text, name);
  const manuscript = readText(text);
  const { deck, lines } = generateDeck(manuscript, rule, newId, name.replace(/\.[^.]*$/, "") || "Untitled");
  const blobs = new Map<string, Uint8Array>();
  const assets: Record<string, Asset> = {};
  const left: Report["left"] = [];
  deck.slides.forEach((slide, nth) => {
    for (const element of slide.elements) {
      if (element.kind !== "picture" || assets[element.source]) continue;
      const bytes = picture?.(element.source);
      const info = bytes && pictureInfo(bytes);
      if (bytes && info) {
        const sum = sha256(bytes);
        blobs.set(sum, bytes);
        assets[element.source] = { sha256: sum, ...info };
      } else left.push({ slide: nth + 1, what: `the picture ${element.source}`, why: bytes ? "only PNG and JPEG pictures are read yet" : "its file was not found beside the text; add it to the deck to see it" });
    }
  });
  const adapted = manuscript.problems.map(({ line, message }) => ({ slide: slideAt(lines, line), what: `line ${line}`, how: message }));
  return { deck: { ...deck, assets: { ...deck.assets, ...assets } }, lines, blobs, problems: manuscript.problems, adapted, left };
}

function slideAt(lines: readonly Lines[], line: number): number | null {
  const at = lines.findIndex(({ from, to }) => line >= from && line <= to);
  return at < 0 ? null : at + 1;
}

export function writeMarkdown(deck: Deck): string {
  return deckText(deck, { ids: true });
}

/** What the text form cannot hold as it is. */
export function markdownEntries(deck: Deck): Pick<Report, "adapted" | "left"> {
  const adapted: Report["adapted"] = [];
  const left: Report["left"] = [];
  deck.slides.forEach((slide, nth) => {
    for (const element of slide.elements) {
      if (element.kind === "picture") adapted.push({ slide: nth + 1, what: `the picture ${element.source}`, how: "named by its path; its file is not inside the text" });
      if (element.binding) left.push({ slide: nth + 1, what: `the link to ${element.binding.source}, ${element.binding.range}`, why: "text has no place for linked data; the words stay" });
      if (element.frame) adapted.push({ slide: nth + 1, what: "text in a place of its own", how: "stands with the slide's other text" });
    }
    for (const { text, to } of linksOf(slide.notes)) if (to.startsWith("slide:") && !deck.slides.some(({ id }) => id === to.slice(6))) left.push({ slide: nth + 1, what: `the link “${text}”`, why: "the slide that it leads to is not in this deck" });
  });
  return { adapted, left };
}
