import { type Deck, type Run, type Slide, slideLink } from "@unitext/core/model";
import { joinPieces, type Piece, wordsOf } from "./coded";
import { withTranslatedComments } from "./quotes";
import { type Segment, segmentsOf, type SegmentState, type Target, translatedUnits } from "./segments";
import { mapUnits, unitsOf } from "./units";

/** A translation as it is stored, with the source that it is of. */
export interface StoredTarget {
  id: string;
  source: Piece[];
  target: Piece[];
  state: SegmentState;
}

/** A segment with its translation, for the person who translates. */
export interface SegmentPair {
  segment: Segment;
  state: SegmentState;
  target?: Piece[];
  /** What the source was when it was translated, where it is another one now. */
  before?: Piece[];
}

/** Returns a key that is the same for coded texts that are equal. */
export const sourceKey = (pieces: readonly Piece[]) =>
  JSON.stringify(joinPieces(pieces).map((piece) => (typeof piece === "string" ? piece : [piece.code, piece.at])));

/**
 * Puts stored translations beside the segments of a deck: by id; one whose source has changed is outdated. A text that was
 * moved to another place is found by its source.
 */
export function pairSegments(segments: readonly Segment[], stored: readonly StoredTarget[]): SegmentPair[] {
  const byId = new Map(stored.map((one) => [one.id, one]));
  const bySource = new Map(stored.map((one) => [sourceKey(one.source), one]));
  return segments.map((segment): SegmentPair => {
    const own = byId.get(segment.id);
    const same =
      own && sourceKey(own.source) === sourceKey(segment.source) ? own : bySource.get(sourceKey(segment.source));
    if (same) return { segment, state: same.state, target: same.target };
    if (own) return { segment, state: "outdated", target: own.target, before: own.source };
    return { segment, state: "untranslated" };
  });
}

/** Whether a pair has words that stand on the slide: an outdated translation does not. */
export const isTranslated = ({ state, target }: SegmentPair): boolean =>
  target !== undefined &&
  state !== "outdated" &&
  state !== "untranslated" &&
  (target.length === 0 || wordsOf(target).trim() !== "");

/** Returns the text to show for a segment; undefined if its source is shown. */
export function targetsOf(pairs: readonly SegmentPair[]): (segment: Segment) => Target | undefined {
  const byId = new Map(pairs.map((pair) => [pair.segment.id, pair]));
  return ({ id }) => {
    const pair = byId.get(id);
    return pair?.target && isTranslated(pair) ? { pieces: pair.target, state: pair.state } : undefined;
  };
}

/**
 * Returns the words of the units of a translated deck that are others than those of their translation, by the unit of the
 * original: somebody has changed them on the slide, or has undone a translation.
 */
export function wordsChangedOnSlides(
  original: Deck,
  own: Deck,
  targetOf: (segment: Segment) => Target | undefined,
): Map<string, string> {
  const made = translatedUnits(original, own.language, targetOf, own.original?.segmentation);
  const origins = originsOf(original, own);
  const changed = new Map<string, string>();
  for (const { id, slideId, runs } of unitsOf(own)) {
    const unit = originalUnit(id, slideId, origins);
    const expected = unit === undefined ? undefined : made.get(unit);
    const words = plainOf(runs);
    if (unit !== undefined && expected && plainOf(expected) !== words) changed.set(unit, words);
  }
  return changed;
}

const plainOf = (runs: readonly Run[]) =>
  runs
    .map(({ text }) => text)
    .join("")
    .trim();

/** Returns the slides of the original by those of a translated deck that follow them. */
function originsOf(original: Deck, own: Deck): Map<string, string | undefined> {
  return new Map(own.slides.map(({ id, origin }) => [id, origin?.deck === original.id ? origin.slide : undefined]));
}

/** Returns the id that a unit of a translated deck has in the original; undefined for one that is only here. */
function originalUnit(id: string, slideId: string | null, origins: ReadonlyMap<string, string | undefined>) {
  if (slideId === null) return id;
  const origin = origins.get(slideId);
  return origin === undefined ? undefined : `${origin}${id.slice(slideId.length)}`;
}

/**
 * Returns a slide of a translated deck as it is with one segment translated so. Only this slide is made, so that it can
 * be shown at every key.
 */
export function slideWithTarget(
  original: Deck,
  own: Deck,
  { slide, originalSlide }: { slide: Slide; originalSlide: Slide },
  typed: { id: string; target: Piece[] },
  stored: readonly StoredTarget[],
): Slide {
  const [from, to] = [
    { ...original, slides: [originalSlide] },
    { ...own, slides: [slide] },
  ];
  const segments = segmentsOf(from, own.original?.segmentation);
  const unit = segments.find(({ id }) => id === typed.id)?.unit.id;
  if (unit === undefined) return slide;
  const state = { ...typed, state: "draft" } as const;
  const all = [
    ...stored.filter(({ id }) => id !== typed.id),
    ...segments.flatMap(({ id, source }) => (id === typed.id ? [{ ...state, source }] : [])),
  ];
  return slidesWithTargets(from, to, targetsOf(pairSegments(segments, all)), new Set([unit]))[0] ?? slide;
}

/**
 * Returns the slides of a translated deck on which the words of some units change. Its slides follow those of the original
 * by their origin; everything but the words stays as it is there.
 */
export function slidesWithTargets(
  original: Deck,
  own: Deck,
  targetOf: (segment: Segment) => Target | undefined,
  units: ReadonlySet<string>,
): Slide[] {
  const made = translatedUnits(original, own.language, targetOf, own.original?.segmentation);
  const origins = originsOf(original, own);
  const followers = new Map([...origins].flatMap(([id, slide]) => (slide === undefined ? [] : [[slide, id] as const])));
  const followed = <R extends Run>(run: R): R => {
    const to = followers.get(slideLink(run.link ?? "") ?? "");
    return to === undefined ? run : { ...run, link: `slide:${to}` };
  };
  const changed = mapUnits(own, ({ id, slideId, runs }) => {
    const unit = originalUnit(id, slideId, origins);
    const next = unit === undefined || !units.has(unit) ? undefined : made.get(unit);
    return next?.map((run) => followed(run.footnote ? { ...run, footnote: run.footnote.map(followed) } : run)) ?? runs;
  });
  const before = new Map(own.slides.map((slide) => [slide.id, JSON.stringify(slide)]));
  return withTranslatedComments(own, changed).slides.filter((slide) => before.get(slide.id) !== JSON.stringify(slide));
}
