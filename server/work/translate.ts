import { readSegments, type SegmentFile, writeSegments } from "@unitext/core/formats/segments";
import { type Deck, Failure, type Segmentation, type Slide } from "@unitext/core/model";
import {
  alignDecks,
  checkTranslation,
  type Context,
  contextsOf,
  codeFaults,
  codeLabel,
  isTranslated,
  matchTargets,
  Memory,
  type MemoryUnit,
  pairSegments,
  type Piece,
  type Proposal,
  pseudoTranslation,
  readTmx,
  sameLanguage,
  type Segment,
  type SegmentPair,
  segmentsOf,
  slidesWithTargets,
  sourceKey,
  type StoredTarget,
  targetsOf,
  type Term,
  termsIn,
  translateDeck,
  wordsChangedOnSlides,
  writeTmx,
  wordsOf,
  type XliffVersion,
  xmlText,
} from "@unitext/core/translate";
import { tally } from "@unitext/core/tally";
import { translateByService, translateLocally, type TranslationService } from "@unitext/node";
import type { ENGINES, PairedSegment, SegmentStates, TargetsSent } from "../api";
import type { NamedFile } from "./namedfile";

type Engine = (typeof ENGINES)[number];

/** A translated deck, its original as it follows it, and the translations that are stored. */
export interface TranslationState {
  original: Deck;
  own: Deck;
  stored: readonly StoredTarget[];
}

/** What an engine is given beside the texts. */
interface EngineOptions {
  from: string;
  to: string;
  terms: readonly Term[];
  service?: TranslationService | undefined;
}

/** What an engine proposes for texts, and what it says where it proposes nothing. */
interface Made {
  proposals: (Piece[] | undefined)[];
  remark: string;
}

/** The engines by name. Each throws a Failure when it cannot work at all. */
const ENGINE: Record<Engine, (sources: readonly Piece[][], options: EngineOptions) => Made | Promise<Made>> = {
  none: () => ({ proposals: [], remark: "" }),
  pseudo: (sources, { to }) => ({ proposals: sources.map((source) => pseudoTranslation(source, to)), remark: "" }),
  local: async (sources, { from, to }) => ({ proposals: await translateLocally(sources, { from, to }), remark: "" }),
  service: (sources, options) => {
    if (!options.service) throw new Failure("unavailable", "service", "No translation service is set up here.");
    return translateByService(sources, options, options.service);
  },
};

/** Says what came along into a translation, counted in both decks; a loss is said first. */
function carriedOver(deck: Deck, translated: Deck): string {
  const [before, after] = [tally(deck), tally(translated)];
  const rows = [
    ["slides", before.slides, after.slides],
    ["notes", before.notes.slides, after.notes.slides],
    ["links", before.links.external + before.links.internal, after.links.external + after.links.internal],
    ["footnotes", before.footnotes, after.footnotes],
    ["linked values", before.bindings, after.bindings],
  ] as const;
  const lost = rows.filter(([, was, is]) => was !== is).map(([what, was, is]) => `${is} of ${was} ${what}`);
  if (lost.length) return `Only ${lost.join(", ")} came along.`;
  const whole = rows.filter(([, was]) => was > 0).map(([what, was]) => `${what} ${was}`);
  return `All of it came along: ${whole.join(", ")}.`;
}

/** Makes a deck in another language with the proposals of an engine; without one its words are those of the original. */
export async function newTranslation({
  deck,
  language,
  engine,
  terms = [],
  service,
  segmentation,
}: {
  deck: Deck;
  language: string;
  engine: Engine;
  terms?: readonly Term[];
  service?: TranslationService | undefined;
  segmentation?: Segmentation | undefined;
}): Promise<{ deck: Deck; targets: StoredTarget[]; remark: string }> {
  const segments = segmentsOf(deck, segmentation);
  const sources = segments.map(({ source }) => source);
  const options = { from: deck.language, to: language, terms, service };
  let made: Made = { proposals: [], remark: "" };
  try {
    made = await ENGINE[engine](sources, options);
  } catch (error) {
    if (!(error instanceof Failure)) throw error;
    made.remark = error.message;
  }
  const targets = segments.flatMap(({ id, source }, nth): StoredTarget[] => {
    const target = made.proposals[nth];
    return target ? [{ id, source, target, state: "proposed" }] : [];
  });
  const pairs = pairSegments(segments, targets);
  const translated = translateDeck(deck, language, targetsOf(pairs), segmentation).deck;
  return { deck: translated, targets, remark: [made.remark, carriedOver(deck, translated)].filter(Boolean).join(" ") };
}

/** Returns the segments of an original as its translation divides them. */
const segmentsFor = (original: Deck, own: Deck) => segmentsOf(original, own.original?.segmentation);

const pairsOf = ({ original, own, stored }: TranslationState) => pairSegments(segmentsFor(original, own), stored);

/** Lists the segments of a translated deck beside their translations, checked. */
export function pairedSegments({
  original,
  own,
  stored,
  terms,
}: TranslationState & { terms: readonly Term[] }): PairedSegment[] {
  const followers = new Map(own.slides.map(({ id, origin }) => [origin?.slide ?? "", id]));
  const pairs = pairsOf({ original, own, stored });
  const changed = wordsChangedOnSlides(original, own, targetsOf(pairs));
  const counts = new Map<string, number>();
  for (const { segment } of pairs) counts.set(segment.unit.id, (counts.get(segment.unit.id) ?? 0) + 1);
  const onSlide = (unit: string) => {
    const words = changed.get(unit);
    return words === undefined ? null : { words, whole: counts.get(unit) === 1 };
  };
  return pairs.map((pair): PairedSegment => {
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
      onSlide: target && state !== "outdated" ? onSlide(unit.id) : null,
      codes: Object.fromEntries(
        [...codes].map(([number, code]) => [number, { single: code.kind === "single", label: codeLabel(code) }]),
      ),
      terms: termsIn(terms, wordsOf(source), original.language).filter((term) => term.target),
      findings: checked
        ? checkTranslation({ source, target: checked, from: original.language, to: own.language, terms })
        : [],
    };
  });
}

/** Counts the texts of every slide of a translated deck, and those without a translation. */
export function segmentStates({ original, own, stored }: TranslationState): SegmentStates {
  const followers = new Map(own.slides.map(({ id, origin }) => [origin?.slide ?? "", id]));
  const counts = new Map<string, { texts: number; untranslated: number }>();
  for (const pair of pairsOf({ original, own, stored })) {
    const slide = followers.get(pair.segment.unit.slideId ?? "");
    if (slide === undefined) continue;
    const count = counts.get(slide) ?? { texts: 0, untranslated: 0 };
    counts.set(slide, count);
    count.texts += 1;
    if (!isTranslated(pair)) count.untranslated += 1;
  }
  return { slides: [...counts].map(([slide, count]) => ({ slide, ...count })) };
}

/** Returns the slides that change with translations, the translations as they are stored, and what the memory keeps of them. */
export function takeTargets({ original, own, stored, targets }: TranslationState & TargetsSent): {
  slides: Slide[];
  stored: StoredTarget[];
  remarks: string[];
  remembered: MemoryUnit[];
} {
  const segments = new Map(segmentsFor(original, own).map((segment) => [segment.id, segment]));
  const remarks: string[] = [];
  const taken = targets.flatMap(({ id, target, state }): StoredTarget[] => {
    const segment = segments.get(id);
    if (!segment) remarks.push(`The original has no text “${id}” any more; its translation was not taken.`);
    return segment ? [{ id, source: segment.source, target, state }] : [];
  });
  const before = new Map(stored.map((one) => [one.id, one.target]));
  for (const { id, target, was } of targets) {
    const theirs = before.get(id);
    const wanted =
      was === undefined || !theirs || [was ?? [], target].some((one) => sourceKey(one) === sourceKey(theirs));
    if (!wanted && wordsOf(theirs).trim())
      remarks.push(
        `Meanwhile this text was translated elsewhere as “${wordsOf(theirs)}”. Yours is stored; the other one is in History.`,
      );
  }
  const all = new Map([...stored, ...taken].map((one) => [one.id, one]));
  const pairs = pairsOf({ original, own, stored: [...all.values()] });
  // A text that is repeated is translated everywhere at once, where it has no translation of its own.
  const repeated = new Set(taken.map(({ source }) => sourceKey(source)));
  const units = new Set(
    [...segments.values()].flatMap(({ source, unit }) => (repeated.has(sourceKey(source)) ? [unit.id] : [])),
  );
  const contexts = contextsOf([...segments.values()]);
  const remembered = taken.flatMap(({ id, source, target, state }): MemoryUnit[] =>
    state === "reviewed" && target.length > 0
      ? [{ from: original.language, to: own.language, source, target, context: contexts.get(id) }]
      : [],
  );
  return { slides: slidesWithTargets(original, own, targetsOf(pairs), units), stored: taken, remarks, remembered };
}

/**
 * Writes the segments of a translated deck as a file of exchange, with what is translated, and with the proposals that
 * units of a memory give for the rest.
 */
export function segmentFile({
  original,
  own,
  stored,
  units,
  as,
  version,
}: TranslationState & { units: readonly MemoryUnit[]; as: SegmentFile; version: XliffVersion }): Uint8Array {
  const pairs = new Map(pairsOf({ original, own, stored }).map((pair) => [pair.segment.id, pair]));
  const segments = [...pairs.values()].map(({ segment }) => segment);
  const targetOf = ({ id }: Segment) => {
    const pair: SegmentPair | undefined = pairs.get(id);
    return pair?.target && isTranslated(pair) ? { pieces: pair.target, state: pair.state } : undefined;
  };
  const memory = memoryOf(units, { from: original.language, to: own.language });
  const contexts = contextsOf(segments);
  const proposalsOf = (segment: Segment) =>
    targetOf(segment) ? [] : memory.proposals(segment.source, contexts.get(segment.id)).slice(0, 3);
  return writeSegments({ deck: original, to: own.language, segments, targetOf, proposalsOf }, as, version);
}

/** Returns the sources of the texts of a translated deck that are not translated yet. */
export const openSources = (state: TranslationState): Piece[][] =>
  pairsOf(state).flatMap((pair) => (isTranslated(pair) ? [] : [pair.segment.source]));

function memoryOf(units: readonly MemoryUnit[], { from, to }: { from: string; to: string }): Memory {
  const memory = new Memory(from, to);
  for (const unit of units) memory.add(unit);
  return memory;
}

/** Reads a file of exchange for a translated deck: the translations that it gives, and what of it was not used. */
export function readExchange({
  original,
  own,
  file: { bytes, name },
}: Omit<TranslationState, "stored"> & { file: NamedFile }): { targets: TargetsSent["targets"]; remarks: string[] } {
  const file = readSegments(bytes, name);
  if (file.to && !sameLanguage(file.to, own.language))
    throw new Failure("not-valid", name, `The file is in “${file.to}”, and the deck is in “${own.language}”.`);
  const { targets, remarks } = matchTargets(segmentsFor(original, own), file);
  return { targets: [...targets].map(([id, { pieces, state }]) => ({ id, target: pieces, state })), remarks };
}

/** Ranks units of a memory for a text: the same, the same with other numbers, or at least 70 % similar. */
export function rankProposals({
  source,
  context,
  units,
  from,
  to,
}: {
  source: Piece[];
  context?: Context | undefined;
  units: readonly MemoryUnit[];
  from: string;
  to: string;
}): Proposal[] {
  const memory = memoryOf(units, { from, to });
  // Placeholders of another text stand for other things: what has none of its own is proposed without them.
  return memory.proposals(source, context).map(({ pieces, ...rest }) => {
    const { wrong } = codeFaults(source, pieces);
    const own = wrong.length
      ? pieces.filter((piece) => typeof piece === "string" || !wrong.includes(piece.code))
      : pieces;
    return { pieces: own, ...rest };
  });
}

/** Reads the units of a TMX that have both languages. */
export function readMemory({
  file: { bytes, name },
  from,
  to,
}: {
  file: NamedFile;
  from: string;
  to: string;
}): MemoryUnit[] {
  const units: MemoryUnit[] = [];
  readTmx([xmlText(bytes, name)], name, { from, to }, (unit) => units.push(unit));
  return units;
}

/** Pairs the texts of a deck with those of the same deck in another language. */
export const alignedPairs = ({ source, target }: { source: Deck; target: Deck }) =>
  alignDecks(source, target).map(({ unit, slide }) => ({ slide, source: unit.source, target: unit.target }));

/** Writes units of a memory as TMX. */
export const writeMemory = ({ units, from }: { units: readonly MemoryUnit[]; from: string }): Uint8Array =>
  new TextEncoder().encode(writeTmx(units, { from }));

/** Returns a state of the original in the words of its translation, to be compared with the translated deck. */
export const inWordsOf = ({ original, own, stored }: TranslationState): Deck => ({
  ...translateDeck(original, own.language, targetsOf(pairsOf({ original, own, stored })), own.original?.segmentation)
    .deck,
  id: original.id,
});
