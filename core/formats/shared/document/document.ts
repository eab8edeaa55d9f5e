import { type BreakRule, countWords, DOCUMENT_RULE, paragraphText, textOf } from "@unitext/core/model";
import type { Block, FrontMatter, Problem } from "@unitext/core/text";
import { franc } from "franc-min";

/**
 * A document that was read: its properties, its blocks in order, what was changed or left out, and its picture files by
 * the names that its blocks use.
 */
export interface DocumentRead {
  front: FrontMatter;
  blocks: Block[];
  problems: Problem[];
  pictures: Map<string, Uint8Array>;
}

/** Returns a document without content, for a reader to fill. */
export function emptyDocument(): DocumentRead {
  return { front: {}, blocks: [], problems: [], pictures: new Map() };
}

/** The tags of languages that are recognised, by their ISO 639-3 codes. */
const TAGS: Record<string, string> = {
  eng: "en",
  deu: "de",
  fra: "fr",
  spa: "es",
  por: "pt",
  ita: "it",
  nld: "nl",
  dan: "da",
  swe: "sv",
  nob: "nb",
  nno: "nn",
  fin: "fi",
  isl: "is",
  pol: "pl",
  ces: "cs",
  slk: "sk",
  slv: "sl",
  hrv: "hr",
  srp: "sr",
  bos: "bs",
  hun: "hu",
  ron: "ro",
  bul: "bg",
  ell: "el",
  rus: "ru",
  ukr: "uk",
  bel: "be",
  tur: "tr",
  arb: "ar",
  pes: "fa",
  heb: "he",
  hin: "hi",
  ben: "bn",
  urd: "ur",
  tam: "ta",
  tel: "te",
  tha: "th",
  vie: "vi",
  ind: "id",
  cmn: "zh",
  jpn: "ja",
  kor: "ko",
  cat: "ca",
  swh: "sw",
};

/** Returns the most likely language of a text; undefined where it is too short to tell. */
export function languageOf(text: string): string | undefined {
  const sample = text.slice(0, 4000);
  return sample.length < 120 ? undefined : TAGS[franc(sample, { only: Object.keys(TAGS) })];
}

function blockText(block: Block): string {
  return "text" in block ? textOf(block.text) : "";
}

/** Returns the first words of a document, by which its language is recognised. */
export function sampleOf(blocks: readonly Block[]): string {
  let sample = "";
  for (const block of blocks) {
    if (sample.length > 4000) break;
    sample += `${blockText(block)}\n`;
  }
  return sample;
}

/** The heading of a table of contents. */
export const CONTENTS =
  /^(?:(?:table of )?contents|inhalt(?:sverzeichnis)?|índice(?: general)?|contenido|sommaire|table des matières)$/i;

/** The number of texts by which a document is sampled. */
const SAMPLE = 600;

/**
 * Suggests a rule for a document: at headings where it has them, with a section level only where there is one above the
 * slides; a slide for each line of a list of short lines; else paragraphs. Text in long paragraphs becomes points.
 */
export function suggestRule(blocks: readonly Block[]): BreakRule {
  const depths = [0, 0, 0, 0, 0, 0, 0];
  let words = 0;
  let prose = 0;
  let paragraphs = 0;
  let items = 0;
  for (const block of blocks) {
    if (block.kind === "heading") depths[block.depth] = (depths[block.depth] ?? 0) + 1;
    if (block.kind !== "text" || paragraphs >= SAMPLE) continue;
    for (const paragraph of block.text) {
      const said = paragraphText(paragraph);
      const n = countWords(said);
      words += n;
      paragraphs += 1;
      if (paragraph.kind === "plain") prose += n;
      if (n <= 6 && !/[.!?]$/.test(said.trim())) items += 1;
    }
  }
  const body = prose > words * 0.3 && prose / Math.max(1, paragraphs) > 12 ? "both" : "slide";
  const used = depths.flatMap((count, depth) => (count ? [depth] : []));
  const [top, below] = used;
  if (top === undefined) {
    if (paragraphs > 2 && items > paragraphs * 0.8)
      return { ...DOCUMENT_RULE, cuts: [{ kind: "line" }], placement: "slide" };
    return paragraphs > 1 && prose > words * 0.5
      ? { ...DOCUMENT_RULE, cuts: [{ kind: "paragraph" }], placement: body }
      : { ...DOCUMENT_RULE, cuts: [{ kind: "heading", section: 1, slide: 2 }], placement: body };
  }
  if (below === undefined)
    return {
      ...DOCUMENT_RULE,
      cuts: [{ kind: "heading", section: top === 1 && depths[1] === 1 ? 1 : 0, slide: top }],
      placement: body,
    };
  return { ...DOCUMENT_RULE, cuts: [{ kind: "heading", section: top, slide: below }], placement: body };
}
