import type { Deck, Slide } from "@unitext/core/model";
import { changedParts, fromPptx, usesSourceLayout, sameMotion } from "../sourcepackage";
import { FEATURES, type FeatureName } from "./found";

/** What becomes of a feature in a format: kept, adapted (how), or left out (why). */
export type Verdict = "kept" | { how: string } | { why: string };
export type Judge = Verdict | ((slide: Slide, deck: Deck) => Verdict);

/** What becomes of every feature in one format. */
export type Verdicts = Record<FeatureName, Judge>;

/** Returns verdicts that are the same for every feature. */
export const allFeatures = (verdict: Verdict): Verdicts =>
  Object.fromEntries(Object.keys(FEATURES).map((name) => [name, verdict])) as Verdicts;

export const NOWHERE = { why: "the slide that it leads to is not in this deck; its words stay" };
export const OTHER_DECK = { why: "it leads into another deck, which is another file; its words stay" };
export const GIVEN_BACK = { how: "other programs show its words; Unitext links it again" };
export const MISSING = { why: "its file is not in the deck; an empty frame is shown instead" };
export const PRESENT = { how: "shown with its present values; they will not change" };
export const FOOT = { how: "shown as raised numbers with a text at the foot; Unitext makes footnotes of them again" };
export const NO_LINKS = { why: "a picture has no links" };
export const NO_LINKS_SHOWN = { why: "a picture of the slide has no links" };
export const STAND_IN = { how: "shown by its picture or its drawing, or by its name and words" };

/**
 * Features of source shapes that Unitext does not model: kept in their own format while their appearance is as it was
 * read.
 */
export const ONLY_THERE = { why: "Unitext does not draw it, and only the file that it came from can hold it" };
export const asRead = (slide: Slide, deck: Deck) => {
  const partOf = (id: string) => deck.slides.find((other) => other.id === id)?.sourcePart?.part;
  return slide.elements.every(
    (element) =>
      !element.sourceShape?.unsupported ||
      element.sourceShape.appearanceHash === undefined ||
      changedParts(element, partOf) !== undefined,
  );
};
export const OTHER_LOOKS = {
  how: "kept on shapes whose formatting is as it was read; lost on those reformatted here",
};
export const OTHER_MOTION = { why: "only the file that it came from can hold it" };
export const kept = "kept" as const;

/** Presentations that other programs edit: the verdicts that hold unless a format says otherwise. */
export const PRESENTATION: Verdicts = {
  "hidden slides": kept,
  "detail slides": { how: "other programs show it after its main slide; Unitext nests it again" },
  "named sections": { how: "other programs show it only in a file that has sections already; Unitext keeps it" },
  notes: kept,
  "recorded voices": { why: "only a film, and a deck of Unitext, hold it" },
  "links to the web": kept,
  "links between slides": kept,
  "broken links": NOWHERE,
  "links into other decks": GIVEN_BACK,
  "links on pictures": kept,
  "links on shapes": kept,
  "linked data": { how: "other programs show its present values; Unitext keeps the link" },
  tables: kept,
  charts: kept,
  "chart formatting": kept,
  pictures: kept,
  "missing pictures": { how: "its file is not in the deck; an empty frame with its description is shown instead" },
  // A raster picture is written beside the drawing, for programs that cannot show SVG.
  "vector pictures": kept,
  "animated pictures": kept,
  recolouring: kept,
  "pictures cropped to a shape": kept,
  "films and sounds": kept,
  diagrams: { how: "shown as its list; Unitext draws the diagram again" },
  formulas: kept,
  "inline formulas": kept,
  code: { how: "shown as its lines in the font for code; Unitext knows it as code" },
  shapes: kept,
  "positioned elements": kept,
  "gradient fills": kept,
  "large line ends": kept,
  "soft shadows": kept,
  groups: kept,
  "text formatting": kept,
  "picture bullets": kept,
  footnotes: FOOT,
  "points one at a time": kept,
  "points in groups": kept,
  entrances: kept,
  "other motion": (slide) => (usesSourceLayout(slide) && sameMotion(slide) ? kept : OTHER_MOTION),
  transitions: kept,
  "slide timings": kept,
  backgrounds: kept,
  "masters from files": kept,
  "footers from files": kept,
  comments: (slide, deck) =>
    usesSourceLayout(slide) || !deck.slides.some(fromPptx)
      ? kept
      : { how: "other programs do not show them; Unitext keeps them" },
  "foreign content": (slide) => (fromPptx(slide) ? kept : STAND_IN),
  "unsupported features": (slide, deck) => (!fromPptx(slide) ? ONLY_THERE : asRead(slide, deck) ? kept : OTHER_LOOKS),
  "imported themes": { how: "shown in the theme of the deck; Unitext restores it" },
};

/** Pages for an audience: without motion, and without what belongs to the speaker. */
export const PAGES: Verdicts = {
  ...PRESENTATION,
  "hidden slides": { why: "hidden slides are not shown to the audience" },
  "detail slides": kept,
  "named sections": { why: "the pages follow each other without names between them" },
  notes: { why: "the pages are for the audience, who do not see the notes" },
  "links into other decks": OTHER_DECK,
  "linked data": PRESENT,
  "missing pictures": MISSING,
  "animated pictures": { how: "shown standing still" },
  "films and sounds": { how: "shown by its picture" },
  diagrams: kept,
  formulas: kept,
  "inline formulas": kept,
  code: kept,
  "large line ends": kept,
  "soft shadows": kept,
  footnotes: kept,
  groups: kept,
  "points one at a time": { how: "shown at once" },
  "points in groups": { how: "shown at once" },
  entrances: { how: "shown at once" },
  "other motion": { why: "pages do not move" },
  transitions: { why: "pages do not move" },
  "slide timings": { why: "pages do not move" },
  "masters from files": kept,
  "footers from files": kept,
  comments: { why: "the pages are for the audience, who do not see comments" },
  "foreign content": STAND_IN,
  "unsupported features": ONLY_THERE,
  "imported themes": kept,
};
