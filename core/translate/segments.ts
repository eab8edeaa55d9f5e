import { mirrorDeck, withSourceList } from "@unitext/core/edit";
import { type Deck, languageDirection, nameOf, type Run, type Segmentation } from "@unitext/core/model";
import {
  type Code,
  codeFaults,
  codeLabel,
  type CodedText,
  decode,
  encode,
  joinPieces,
  type Piece,
  wordsOf,
} from "./coded";
import { relocalised } from "./numbers";
import { withTranslatedComments } from "./quotes";
import { translatedRate } from "./rates";
import { sentencesOf } from "./sentences";
import { mapUnits, type TextUnit, unitsOf } from "./units";

/** The states of a segment's translation. */
export const SEGMENT_STATES = ["untranslated", "proposed", "draft", "reviewed", "outdated"] as const;
export type SegmentState = (typeof SEGMENT_STATES)[number];

/** A stretch of text that is translated as one: a sentence, or a whole paragraph. */
export interface Segment {
  /** The id of its unit, with the number of the sentence where the unit has several. */
  id: string;
  unit: TextUnit;
  source: Piece[];
  /** What the placeholders of its unit stand for. */
  codes: ReadonlyMap<number, Code>;
}

/** A text unit divided into segments, with what separates them. */
interface DividedUnit {
  coded: CodedText;
  parts: { id: string; pieces: Piece[]; after: string }[];
}

function divide(unit: TextUnit, language: string, segmentation: Segmentation): DividedUnit {
  const coded = encode(unit.runs);
  const pieces = joinPieces(coded.pieces);
  const sentences = segmentation === "paragraph" ? [{ pieces, after: "" }] : sentencesOf(pieces, language);
  const parts = sentences.map((one, nth) => ({
    ...one,
    id: sentences.length > 1 ? `${unit.id}.s${nth + 1}` : unit.id,
  }));
  return { coded, parts };
}

/** Whether there is anything to translate in a text: a letter. */
const hasWords = (pieces: readonly Piece[]) => /\p{L}/u.test(wordsOf(pieces));

/** Returns the segments of a deck in reading order. Texts without a letter are left out: their numbers change by themselves. */
export function segmentsOf(deck: Deck, segmentation: Segmentation = "sentence"): Segment[] {
  return unitsOf(deck).flatMap((unit) => {
    const { coded, parts } = divide(unit, deck.language, segmentation);
    return parts
      .filter(({ pieces }) => hasWords(pieces))
      .map(({ id, pieces }) => ({ id, unit, source: pieces, codes: coded.codes }));
  });
}

/** A translation of a segment and its state. */
export interface Target {
  /** Empty where the translation of the segment before covers this one too. */
  pieces: Piece[];
  state: SegmentState;
}

/** A deck in another language, and what became of its segments. */
export interface TranslatedDeck {
  deck: Deck;
  /** How many segments there are, and how many of them have a translation. */
  segments: number;
  translated: number;
  /** Placeholders that a translation had lost and that were put at its end, others that were ignored, and recorded voices. */
  adapted: { slide: number | null; what: string; how: string }[];
}

/** Languages that are written without spaces between sentences. */
const NO_SPACES = /^(zh|ja|th|lo|km|my)\b/i;

/**
 * Returns a deck in another language: each segment is replaced by what `targetOf` gives for it, or stays. Linked values
 * and texts that hold numbers only are written in the form of the language, and the deck is mirrored where the language
 * is read in the other direction; everything else is that of the original.
 */
export function translateDeck(
  deck: Deck,
  language: string,
  targetOf: (segment: Segment) => Target | undefined,
  segmentation: Segmentation = "sentence",
): TranslatedDeck {
  const adapted: TranslatedDeck["adapted"] = [];
  let [segments, translated] = [0, 0];
  const made = mapUnits(deck, (unit) => {
    const { coded, parts } = divide(unit, deck.language, segmentation);
    const codes = localisedCodes(coded.codes, deck.language, language);
    const targets = parts.map(({ id, pieces: source }) =>
      hasWords(source) ? targetOf({ id, unit, source, codes }) : undefined,
    );
    const pieces = parts.flatMap(({ pieces: source, after }, nth): Piece[] => {
      const isCovered = targets[nth + 1]?.pieces.length === 0;
      const gap = isCovered || (nth < parts.length - 1 && NO_SPACES.test(language)) ? "" : after;
      if (!hasWords(source)) return [...source.map((piece) => localised(piece, deck.language, language)), gap];
      segments += 1;
      const target = targets[nth];
      if (!target || (target.pieces.length > 0 && wordsOf(target.pieces).trim() === "")) return [...source, gap];
      translated += 1;
      if (target.pieces.length === 0) return [gap];
      adapted.push(...faultsOf(unit, source, target.pieces, codes));
      return [...withLostLinks(source, target.pieces, codes), gap];
    });
    return decode({ codes, form: coded.form }, joinPieces(pieces));
  });
  const direction = languageDirection(language);
  const directed = direction === languageDirection(deck.language) ? made : mirrorDeck(made, direction);
  const rate = translatedRate(deck.rate, deck.language, language);
  const commented = withTranslatedComments(deck, { ...directed, language, rate });
  commented.slides = commented.slides.map(({ voice, ...slide }, nth) => {
    if (voice)
      adapted.push({
        slide: nth + 1,
        what: "the voice recorded for it",
        how: "left out: it speaks the other language",
      });
    return slide;
  });
  return { deck: withSourceList(commented), segments, translated, adapted };
}

/**
 * Returns a translation in which links that its placeholders have lost are on all of its words that are in no pair: a link
 * may be on too many words, but is never lost.
 */
function withLostLinks(
  source: readonly Piece[],
  target: readonly Piece[],
  codes: ReadonlyMap<number, Code>,
): readonly Piece[] {
  const lost = codeFaults(source, target).missing.find((number) => {
    const code = codes.get(number);
    return code?.kind === "pair" && code.form.link !== undefined;
  });
  if (lost === undefined) return target;
  let depth = 0;
  return target.flatMap((piece): Piece[] => {
    if (typeof piece !== "string") {
      depth += piece.at === "open" ? 1 : piece.at === "close" ? -1 : 0;
      return [piece];
    }
    return depth > 0 ? [piece] : [{ code: lost, at: "open" }, piece, { code: lost, at: "close" }];
  });
}

/** Returns the runs of every unit of a deck in another language, by the ids of the units. */
export function translatedUnits(
  deck: Deck,
  language: string,
  targetOf: (segment: Segment) => Target | undefined,
  segmentation: Segmentation = "sentence",
): Map<string, readonly Run[]> {
  const { deck: made } = translateDeck(deck, language, targetOf, segmentation);
  return new Map(unitsOf(made).map(({ id, runs }) => [id, runs]));
}

/** What happens to a placeholder that is missing from a translation. */
function lossOf(code: Code | undefined): string {
  if (code?.kind === "single") return "missing in the translation; put at its end";
  return code?.form.link
    ? "missing in the translation; its link is on all words"
    : "missing in the translation; its words have the form of the others";
}

function faultsOf(
  { slide }: TextUnit,
  source: readonly Piece[],
  target: readonly Piece[],
  codes: ReadonlyMap<number, Code>,
): TranslatedDeck["adapted"] {
  const { missing, wrong } = codeFaults(source, target);
  const label = (number: number) => {
    const code = codes.get(number);
    return code ? codeLabel(code) : "";
  };
  const words = wordsOf(source).slice(0, 60);
  return [
    ...missing.map((number) => ({
      slide,
      what: `placeholder ${number} (${label(number)}) of “${words}”`,
      how: lossOf(codes.get(number)),
    })),
    ...wrong.map((number) => ({
      slide,
      what: `placeholder ${number} of “${words}”`,
      how: "doubled or not in the source; ignored",
    })),
  ];
}

const localised = (piece: Piece, from: string, to: string): Piece =>
  typeof piece === "string" ? relocalised(piece, from, to) : piece;

/** Returns placeholders with linked values as the target language writes them. */
function localisedCodes(codes: ReadonlyMap<number, Code>, from: string, to: string): ReadonlyMap<number, Code> {
  return new Map(
    [...codes].map(([number, code]): [number, Code] => {
      if (code.kind === "pair" || !code.run.binding) return [number, code];
      const run: Run = { ...code.run, text: relocalised(code.run.text, from, to) };
      return [number, { kind: "single", run }];
    }),
  );
}

/** Returns the words by which a person finds the place of a segment: the slide with its title, and what the text is. */
export function placeOf({ unit }: Segment, deck: Deck): string {
  const slide = unit.slide === null ? undefined : deck.slides[unit.slide - 1];
  return slide ? `Slide ${unit.slide}, ${nameOf(slide) || "no title"}: ${unit.kind}` : `Deck: ${unit.kind}`;
}
