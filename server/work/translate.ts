import { type Deck, Failure, type Slide } from "@unitext/core/model";
import {
  checkTranslation,
  codeLabel,
  isTranslated,
  matchTargets,
  pairSegments,
  type Piece,
  pseudoTranslation,
  readXliff,
  type Segment,
  type SegmentPair,
  segmentsOf,
  slidesWithTargets,
  type StoredTarget,
  targetsOf,
  translateDeck,
  writeXliff,
  type XliffVersion,
  xmlText,
} from "@unitext/core/translate";
import { translateLocally } from "@unitext/node";
import type { ENGINES, PairedSegment, TargetsSent } from "../api";
import type { NamedFile } from "./namedfile";

type Engine = (typeof ENGINES)[number];

/** A translated deck, its original as it follows it, and the translations that are stored. */
export interface TranslationState {
  original: Deck;
  own: Deck;
  stored: readonly StoredTarget[];
}

async function proposals(
  engine: Engine,
  segments: readonly Segment[],
  { from, to }: { from: string; to: string },
): Promise<(Piece[] | undefined)[]> {
  if (engine === "none") return [];
  const sources = segments.map(({ source }) => source);
  return engine === "pseudo"
    ? sources.map((source) => pseudoTranslation(source, to))
    : translateLocally(sources, { from, to });
}

/** Makes a deck in another language with the proposals of an engine; without one its words are those of the original. */
export async function newTranslation({
  deck,
  language,
  engine,
}: {
  deck: Deck;
  language: string;
  engine: Engine;
}): Promise<{ deck: Deck; targets: StoredTarget[]; remark: string }> {
  const segments = segmentsOf(deck);
  let made: (Piece[] | undefined)[] = [];
  let remark = "";
  try {
    made = await proposals(engine, segments, { from: deck.language, to: language });
  } catch (error) {
    if (!(error instanceof Failure)) throw error;
    remark = error.message;
  }
  const targets = segments.flatMap(({ id, source }, nth): StoredTarget[] => {
    const target = made[nth];
    return target ? [{ id, source, target, state: "proposed" }] : [];
  });
  const pairs = pairSegments(segments, targets);
  return { deck: translateDeck(deck, language, targetsOf(pairs)).deck, targets, remark };
}

const pairsOf = ({ original, stored }: Omit<TranslationState, "own">) => pairSegments(segmentsOf(original), stored);

/** Lists the segments of a translated deck beside their translations, checked. */
export function pairedSegments({ original, own, stored }: TranslationState): PairedSegment[] {
  const followers = new Map(own.slides.map(({ id, origin }) => [origin?.slide ?? "", id]));
  return pairsOf({ original, stored }).map((pair): PairedSegment => {
    const { segment, target, before, state } = pair;
    const { unit, source, codes } = segment;
    const checked = target?.length ? target : undefined;
    return {
      id: segment.id,
      kind: unit.kind,
      slide: unit.slide,
      slideId: followers.get(unit.slideId ?? "") ?? null,
      originalSlide: unit.slideId,
      source,
      target: target ?? null,
      before: before ?? null,
      state,
      codes: Object.fromEntries(
        [...codes].map(([number, code]) => [number, { single: code.kind === "single", label: codeLabel(code) }]),
      ),
      findings: checked ? checkTranslation({ source, target: checked, from: original.language, to: own.language }) : [],
    };
  });
}

/** Returns the slides that change with translations, and the translations as they are stored. */
export function takeTargets({ original, own, stored, targets }: TranslationState & TargetsSent): {
  slides: Slide[];
  stored: StoredTarget[];
  remarks: string[];
} {
  const segments = new Map(segmentsOf(original).map((segment) => [segment.id, segment]));
  const remarks: string[] = [];
  const taken = targets.flatMap(({ id, target, state }): StoredTarget[] => {
    const segment = segments.get(id);
    if (!segment) remarks.push(`The original has no text “${id}” any more; its translation was not taken.`);
    return segment ? [{ id, source: segment.source, target, state }] : [];
  });
  const all = new Map([...stored, ...taken].map((one) => [one.id, one]));
  const pairs = pairsOf({ original, stored: [...all.values()] });
  const units = new Set(taken.flatMap(({ id }) => segments.get(id)?.unit.id ?? []));
  return { slides: slidesWithTargets(original, own, targetsOf(pairs), units), stored: taken, remarks };
}

/** Writes the segments of a translated deck as XLIFF, with what is translated. */
export function xliffOf({ original, own, stored, version }: TranslationState & { version: XliffVersion }): Uint8Array {
  const pairs = new Map(pairsOf({ original, stored }).map((pair) => [pair.segment.id, pair]));
  const segments = [...pairs.values()].map(({ segment }) => segment);
  const targetOf = ({ id }: Segment) => {
    const pair: SegmentPair | undefined = pairs.get(id);
    return pair?.target && isTranslated(pair) ? { pieces: pair.target, state: pair.state } : undefined;
  };
  return new TextEncoder().encode(writeXliff({ deck: original, to: own.language, segments, targetOf }, version));
}

/** Reads a file of exchange for a translated deck: the translations that it gives, and what of it was not used. */
export function readExchange({
  original,
  own,
  file: { bytes, name },
}: Omit<TranslationState, "stored"> & { file: NamedFile }): { targets: TargetsSent["targets"]; remarks: string[] } {
  const file = readXliff(xmlText(bytes, name), name);
  const same = (a: string, b: string) => a.toLowerCase().split("-")[0] === b.toLowerCase().split("-")[0];
  if (file.to && !same(file.to, own.language))
    throw new Failure("not-valid", name, `The file is in “${file.to}”, and the deck is in “${own.language}”.`);
  const { targets, remarks } = matchTargets(segmentsOf(original), file);
  return { targets: [...targets].map(([id, { pieces, state }]) => ({ id, target: pieces, state })), remarks };
}

/** Returns a state of the original in the words of its translation, to be compared with the translated deck. */
export const inWordsOf = ({ original, own, stored }: TranslationState): Deck => ({
  ...translateDeck(original, own.language, targetsOf(pairsOf({ original, stored }))).deck,
  id: original.id,
});
