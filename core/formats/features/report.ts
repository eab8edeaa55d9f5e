import { type Deck, type Element, hasNotes, revealsOf, type Slide, withSteps } from "@unitext/core/model";
import { noTally, type Report, type Tally, tally } from "@unitext/core/tally";
import { standIns } from "../shared/sourcepackage";
import { FORMATS, type FormatDescriptor, type WritableFormat } from "../catalogue";
import { FEATURES, type FeatureName, inGroups } from "../shared/features";
import { TABLE } from "./table";

/** Whether a format leaves out hidden slides; their content is not reported separately. */
const isForAudience = (format: WritableFormat): boolean => (FORMATS[format] as FormatDescriptor).forAudience ?? false;

/**
 * Lists what a format cannot keep of a deck, slide by slide. `kept` names features that are kept this time against the
 * table.
 */
export function entriesOf(
  deck: Deck,
  format: WritableFormat,
  besides: ReadonlySet<FeatureName> = new Set(),
): Pick<Report, "adapted" | "left"> {
  const adapted: Report["adapted"] = [];
  const left: Report["left"] = [];
  deck.slides.forEach((slide, nth) => {
    const names = Object.keys(FEATURES) as FeatureName[];
    for (const name of isForAudience(format) && slide.hidden ? names.slice(0, 1) : names) {
      const found = FEATURES[name](slide, deck);
      if (!found.length || besides.has(name)) continue;
      const judge = TABLE[format][name];
      const verdict = typeof judge === "function" ? judge(slide, deck) : judge;
      if (verdict === "kept") continue;
      for (const what of found) {
        if ("how" in verdict) adapted.push({ slide: nth + 1, what, how: verdict.how });
        else left.push({ slide: nth + 1, what, why: verdict.why });
      }
    }
  });
  return { adapted, left };
}

/** Returns how many points appear one at a time on a slide, in the texts asked for. */
function pointsIn(slide: Slide, of: (element: Element) => boolean): number {
  const wanted = new Set(slide.elements.filter(of).map(({ id }) => id));
  return revealsOf(slide).filter(({ element, paragraph }) => paragraph !== undefined && wanted.has(element)).length;
}

/** The counts that a feature represents, so that what is left out is not counted as kept. */
const COUNTS: Partial<Record<FeatureName, (to: Tally, slide: Slide, found: number) => void>> = {
  notes: (to) => {
    to.notes = noTally().notes;
  },
  "links to the web": (to, _, found) => {
    to.links.external -= found;
  },
  "links into other decks": (to, _, found) => {
    to.links.external -= found;
  },
  "links between slides": (to, _, found) => {
    to.links.internal -= found;
  },
  "broken links": (to, _, found) => {
    to.links.broken -= found;
  },
  "linked data": (to, _, found) => {
    to.bindings -= found;
  },
  "films and sounds": (to, _, found) => {
    to.media -= found;
  },
  "points one at a time": (to, slide) => {
    to.steps -= pointsIn(slide, (element) => !inGroups(element));
  },
  "points in groups": (to, slide) => {
    to.steps -= pointsIn(slide, inGroups);
  },
  entrances: (to, slide) => {
    to.steps -= revealsOf(slide).filter(({ paragraph }) => paragraph === undefined).length;
  },
  transitions: (to, _, found) => {
    to.transitions -= found;
  },
  comments: (to, _, found) => {
    to.comments -= found;
  },
  "recorded voices": (to, _, found) => {
    to.voices -= found;
  },
  "foreign content": (to, _, found) => {
    to.foreign -= found;
  },
};

/** What a format for viewing loses once it is adapted: values that no longer follow, points that all show at once. */
const STILL: ReadonlySet<FeatureName> = new Set([
  "linked data",
  "points one at a time",
  "points in groups",
  "entrances",
  "films and sounds",
  "foreign content",
]);

/** What a deck written in a format carries, as counts. */
export function carriedIn(deck: Deck, format: WritableFormat, besides: ReadonlySet<FeatureName> = new Set()): Tally {
  const slides = isForAudience(format) ? deck.slides.filter(({ hidden }) => !hidden) : deck.slides;
  if (format === "txt") {
    const { notes } = tally({ slides });
    return { ...noTally(), slides: slides.filter(hasNotes).length, notes };
  }
  const foreign = TABLE[format]["foreign content"];
  const shown = (slide: Slide): Slide =>
    format === "md" && slide.elements.some(inGroups)
      ? {
          ...slide,
          elements: slide.elements.map((element) =>
            inGroups(element) ? { ...element, text: withSteps(element.text, "each") } : element,
          ),
        }
      : slide;
  const drawn =
    format === "pptx" || format === "odp"
      ? slides.map((slide) =>
          typeof foreign === "function" && foreign(slide, deck) !== "kept"
            ? { ...slide, elements: slide.elements.flatMap(standIns) }
            : slide,
        )
      : slides.map(shown);
  const to = tally({ slides: drawn });
  // Links of notes go with the notes.
  for (const name of Object.keys(COUNTS) as FeatureName[]) {
    if (besides.has(name)) continue;
    for (const slide of drawn) {
      const found = FEATURES[name](slide, deck).length;
      if (!found) continue;
      const judge = TABLE[format][name];
      const verdict = typeof judge === "function" ? judge(slide, deck) : judge;
      if (
        verdict !== "kept" &&
        ("why" in verdict ||
          (STILL.has(name) && (isForAudience(format) || name === "foreign content" || name === "films and sounds")))
      )
        COUNTS[name]?.(to, slide, found);
    }
  }
  return to;
}
