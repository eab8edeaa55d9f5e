import {
  type Deck,
  deckLink,
  type Element,
  elementLink,
  elementTexts,
  type Fill,
  footnotesOf,
  hasNotes,
  isPlainGradient,
  linksOf,
  picturesOn,
  revealsOf,
  type RichText,
  type Run,
  bulletsOf,
  type Slide,
  slideLink,
  slideLinks,
  slideTexts,
  stepsForm,
  withSteps,
  must,
} from "@unitext/core/model";
import { noTally, type Report, type Tally, tally } from "@unitext/core/tally";
import { normalText } from "@unitext/core/text";
import {
  changedParts,
  fromOdp,
  fromPptx,
  joinWithAnd,
  usesSourceLayout,
  sameMotion,
  standIns,
} from "./shared/sourcepackage";
import { standsOnMaster } from "./presentations/shared/regions";

export type WritableFormat = "pptx" | "odp" | "pdf" | "html" | "docx" | "png" | "svg" | "md" | "txt" | "json";

/** What becomes of a feature in a format: kept, adapted (how), or left out (why). */
export type Verdict = "kept" | { how: string } | { why: string };
type Judge = Verdict | ((slide: Slide, deck: Deck) => Verdict);
type Finder = (slide: Slide, deck: Deck) => string[];

const texts = (slide: Slide) => slide.elements.flatMap(elementTexts);
/** Pictures and shapes with a link to a target that exists. */
const links = (slide: Slide) => slideTexts(slide).flatMap(linksOf);
const leading = (kind: "picture" | "shape") => (slide: Slide, deck: Deck) =>
  slide.elements.flatMap((element) => {
    const to = element.kind === kind ? slideLink(elementLink(element) ?? "") : undefined;
    const leads = element.kind === kind && element.link !== undefined && (to === undefined || known(deck, to));
    return leads ? [`the link of ${element.name ? `“${element.name}”` : `a ${kind}`}`] : [];
  });
const hasFill = (element: Element, test: (fill: Fill) => boolean) => element.fill !== undefined && test(element.fill);
const isManifold = (fill: Fill | undefined) => fill?.kind === "gradient" && !isPlainGradient(fill);
/** Returns the background fill of a slide: its own, else that of its master. */
function backgroundFill({ background, master }: Slide, { masters }: Deck): Fill | undefined {
  const behind = background ?? (master === undefined ? undefined : masters?.[master]?.background);
  return behind && "fill" in behind ? behind.fill : undefined;
}
const ofKind =
  (kind: Element["kind"], what: (element: Element) => string): Finder =>
  (slide) =>
    slide.elements.filter((element) => element.kind === kind).map(what);
const hasRuns = (text: RichText, test: (run: RichText[number]["runs"][number]) => boolean) =>
  text.some(({ runs }) => runs.some(test));
const ids = new WeakMap<readonly Slide[], Set<string>>();
function known(deck: Deck, id: string): boolean {
  const set = ids.get(deck.slides) ?? new Set(deck.slides.map((slide) => slide.id));
  ids.set(deck.slides, set);
  return set.has(id);
}
const looked = (element: Element) =>
  element.style !== undefined ||
  elementTexts(element).some(
    (text) => text.some(({ properties }) => properties) || hasRuns(text, ({ properties }) => properties !== undefined),
  );

const isFormula = ({ marks }: Run) => marks?.includes("formula") ?? false;

/** Whether the points of a text appear in groups that only a list of them can express. */
const inGroups = (element: Element): element is Extract<Element, { kind: "text" }> =>
  element.kind === "text" && element.steps === true && stepsForm(normalText(element.text)) === "own";

/** The largest line end that a .pptx has, in line widths, with tolerance for rounding. */
const LARGE_END = 5.5;

/** The features that a deck may have, each with a function that names its occurrences on a slide. */
export const FEATURES = {
  "hidden slides": ({ hidden }) => (hidden ? ["a hidden slide"] : []),
  "detail slides": ({ parent }) => (parent === null ? [] : ["a detail slide"]),
  "named sections": ({ section, parent }) =>
    section !== undefined && parent === null ? [`the section “${section}” that starts with it`] : [],
  notes: (slide) => (hasNotes(slide) ? ["its notes"] : []),
  "links to the web": (slide) =>
    links(slide).flatMap(({ text, to }) =>
      slideLink(to) === undefined && !deckLink(to) ? [`the link “${text}”`] : [],
    ),
  "links between slides": (slide, deck) =>
    links(slide).flatMap(({ text, to }) => (known(deck, slideLink(to) ?? "") ? [`the link “${text}”`] : [])),
  "broken links": (slide, deck) =>
    slideLinks(slide).flatMap(({ text, to }) =>
      slideLink(to) !== undefined && !known(deck, must(slideLink(to))) ? [`the link “${text}”`] : [],
    ),
  "links into other decks": (slide) =>
    slideLinks(slide).flatMap(({ text, to }) => (deckLink(to) ? [`the link “${text}”`] : [])),
  "links on pictures": leading("picture"),
  "links on shapes": leading("shape"),
  "linked data": (slide) =>
    slide.elements.flatMap(({ binding }) => (binding ? [`the link to ${binding.source}, ${binding.range}`] : [])),
  tables: ofKind("table", () => "a table"),
  charts: ofKind("chart", () => "a chart"),
  "chart formatting": (slide) =>
    slide.elements.flatMap((element) =>
      element.kind === "chart" &&
      (element.title ||
        element.legend ||
        element.labels ||
        element.format ||
        element.xAxis ||
        element.yAxis ||
        element.secondaryAxis ||
        element.stack ||
        element.series.some(
          ({ colour, points, smooth, joined, axis }) => colour || points || smooth || joined !== undefined || axis,
        ))
        ? ["how a chart shows its data"]
        : [],
    ),
  pictures: (slide, deck) => picturesOn(slide).flatMap((name) => (deck.assets[name] ? [`the picture ${name}`] : [])),
  "missing pictures": (slide, deck) =>
    picturesOn(slide).flatMap((name) => (deck.assets[name] ? [] : [`the picture ${name}`])),
  "vector pictures": (slide, deck) =>
    picturesOn(slide).flatMap((name) =>
      deck.assets[name]?.mediaType === "image/svg+xml" ? [`the picture ${name}`] : [],
    ),
  "animated pictures": (slide, deck) =>
    picturesOn(slide).flatMap((name) => (deck.assets[name]?.mediaType === "image/gif" ? [`the picture ${name}`] : [])),
  recolouring: (slide) =>
    slide.elements.flatMap((element) =>
      element.kind === "picture" && element.recolour ? [`the recolouring of ${element.source}`] : [],
    ),
  "pictures cropped to a shape": (slide) =>
    slide.elements.flatMap((element) =>
      element.kind === "picture" && element.shape && !("preset" in element.shape && element.shape.preset === "rect")
        ? [`the frame of ${element.source}`]
        : [],
    ),
  "films and sounds": ofKind("media", (element) =>
    element.kind === "media" && element.type === "audio" ? "a sound" : "a film",
  ),
  diagrams: ofKind("diagram", () => "a diagram"),
  formulas: (slide) => slide.elements.flatMap(({ kind }) => (kind === "formula" ? ["a formula"] : [])),
  "inline formulas": (slide) =>
    texts(slide).flatMap((text) => (hasRuns(text, isFormula) ? ["a formula in a line"] : [])),
  code: ofKind("code", () => "program code"),
  shapes: ofKind("shape", (element) => `the shape ${element.name ? `“${element.name}”` : "without a name"}`),
  // A picture without a file is reported as a picture.
  "positioned elements": (slide, deck) =>
    slide.elements.flatMap((element) =>
      element.frame && !(element.kind === "picture" && !deck.assets[element.source])
        ? [`${element.kind === "text" ? "text" : `a ${element.kind}`} in a place of its own`]
        : [],
    ),
  "gradient fills": (slide, deck) => [
    ...(isManifold(backgroundFill(slide, deck)) ? ["the fill of its background"] : []),
    ...slide.elements.flatMap((element) =>
      hasFill(element, isManifold) ? [`the fill of ${element.name ? `“${element.name}”` : `a ${element.kind}`}`] : [],
    ),
  ],
  "large line ends": (slide) =>
    slide.elements.flatMap((element) =>
      Math.max(element.stroke?.head?.size ?? 0, element.stroke?.tail?.size ?? 0) > LARGE_END
        ? [`the ends of ${element.name ? `“${element.name}”` : `a ${element.kind}`}`]
        : [],
    ),
  "soft shadows": (slide) =>
    slide.elements.flatMap((element) =>
      element.shadow?.blur ? [`the shadow of ${element.name ? `“${element.name}”` : `a ${element.kind}`}`] : [],
    ),
  groups: (slide) => [...new Set(slide.elements.flatMap(({ groups }) => groups?.[0] ?? []))].map(() => "a group"),
  "text formatting": (slide) => (slide.elements.some(looked) ? ["text with formatting of its own"] : []),
  "picture bullets": (slide, deck) =>
    slide.elements.flatMap((element) =>
      bulletsOf(element, deck.styles).length
        ? [`the pictures before items of ${element.name ? `“${element.name}”` : `a ${element.kind}`}`]
        : [],
    ),
  footnotes: (slide) => (slideTexts(slide).some((text) => footnotesOf(text).length) ? ["footnotes"] : []),
  "points one at a time": (slide) =>
    slide.elements.flatMap((element) =>
      element.kind === "text" && element.steps && !inGroups(element) ? ["points that appear one at a time"] : [],
    ),
  "points in groups": (slide) =>
    slide.elements.flatMap((element) => (inGroups(element) ? ["points that appear in groups"] : [])),
  entrances: (slide) =>
    slide.elements.flatMap((element) =>
      element.entrance ? [`the entrance of ${element.name ? `“${element.name}”` : `a ${element.kind}`}`] : [],
    ),
  "other motion": ({ unsupportedMotion = [] }) => unsupportedMotion,
  transitions: ({ transition }) => (transition ? ["its transition"] : []),
  "slide timings": ({ delay }) => (delay ? ["the time that it stands by itself"] : []),
  backgrounds: ({ background }) => (background ? ["its background"] : []),
  "masters from files": ({ master }, deck) =>
    master !== undefined && (deck.masters?.[master]?.elements.length || deck.masters?.[master]?.background)
      ? ["what its file draws behind it"]
      : [],
  "footers from files": ({ regions = [] }) => regions.map(({ region }) => `the ${region} where its file puts it`),
  comments: ({ comments }) => (comments ?? []).map(({ author }) => `a comment${author ? ` of ${author}` : ""}`),
  "foreign content": ofKind("foreign", (element) =>
    element.kind === "foreign" ? `${element.what}${element.name ? ` “${element.name}”` : ""}` : "",
  ),
  "unsupported features": (slide) =>
    slide.elements.flatMap((element) =>
      element.sourceShape?.unsupported?.length
        ? [
            `${joinWithAnd(element.sourceShape.unsupported)} of ${element.name ? `“${element.name}”` : `a ${element.kind}`}`,
          ]
        : [],
    ),
  "imported themes": ({ theme }, deck) =>
    theme !== undefined && deck.themes?.[theme] ? [`the imported theme “${theme}”`] : [],
} satisfies Record<string, Finder>;
export type FeatureName = keyof typeof FEATURES;

const NOWHERE = { why: "the slide that it leads to is not in this deck; its words stay" };
const OTHER_DECK = { why: "it leads into another deck, which is another file; its words stay" };
const GIVEN_BACK = { how: "other programs show its words; Unitext links it again" };
const MISSING = { why: "its file is not in the deck; an empty frame stands in its place" };
const PRESENT = { how: "shown with its present values; they will not change" };
const FOOT = { how: "shown as raised numbers with a text at the foot; Unitext makes footnotes of them again" };
const NO_LINKS = { why: "a picture has no links" };
const NO_LINKS_SHOWN = { why: "they stand in the picture of the slide, which has no links" };
const STAND_IN = { how: "shown by its picture or its drawing, or by its name and words" };
/**
 * Features of source shapes that Unitext does not model: kept in their own format while their appearance is as it was
 * read.
 */
const ONLY_THERE = { why: "Unitext does not draw it, and only the file that it came from can hold it" };
const asRead = (slide: Slide, deck: Deck) => {
  const partOf = (id: string) => deck.slides.find((other) => other.id === id)?.sourcePart?.part;
  return slide.elements.every(
    (element) =>
      !element.sourceShape?.unsupported ||
      element.sourceShape.appearanceHash === undefined ||
      changedParts(element, partOf) !== undefined,
  );
};
const OTHER_LOOKS = {
  how: "kept on shapes whose formatting is as it was read; lost on those reformatted here",
};
const OTHER_MOTION = { why: "only the file that it came from can hold it" };
const kept = "kept" as const;

const PRESENTATION: Record<FeatureName, Judge> = {
  "hidden slides": kept,
  "detail slides": { how: "other programs show it after its main slide; Unitext nests it again" },
  "named sections": { how: "other programs show it only in a file that has sections already; Unitext keeps it" },
  notes: kept,
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
  "missing pictures": { how: "its file is not in the deck; an empty frame with its description stands in its place" },
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
const PAGES: Record<FeatureName, Judge> = {
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

/**
 * What becomes of every feature in every format; features.test.ts checks it against what is found when a file is read
 * again.
 */
export const TABLE: Record<WritableFormat, Record<FeatureName, Judge>> = {
  pptx: {
    ...PRESENTATION,
    "large line ends": { how: "smaller: no end is more than five times as wide as its line" },
  },
  odp: {
    ...PRESENTATION,
    "named sections": { how: "other programs do not show it; Unitext keeps it" },
    "inline formulas": { how: "shown as its TeX; Unitext sets the formula again" },
    "pictures cropped to a shape": (slide) =>
      fromOdp(slide) ? kept : { how: "shown in its whole frame; Unitext cuts it again" },
    "gradient fills": { how: "runs from its first colour to its last; Unitext knows all of them" },
    "soft shadows": (slide) => (fromOdp(slide) ? kept : { how: "drawn with a hard edge; Unitext keeps it soft" }),
    "other motion": (slide) => (fromOdp(slide) && sameMotion(slide) ? kept : OTHER_MOTION),
    "masters from files": kept,
    "footers from files": (slide, deck) =>
      fromOdp(slide) || standsOnMaster(slide, deck) ? kept : { how: "drawn on the slide itself" },
    comments: kept,
    "foreign content": (slide) => (fromOdp(slide) ? kept : STAND_IN),
    "unsupported features": (slide, deck) => (!fromOdp(slide) ? ONLY_THERE : asRead(slide, deck) ? kept : OTHER_LOOKS),
    "imported themes": { how: "drawn in that theme; Unitext keeps its name" },
  },
  pdf: {
    ...PAGES,
    "named sections": kept,
    "soft shadows": { how: "drawn in layers, as pages have no soft edges" },
    "vector pictures": { how: "drawn in dots, up to 2400 in a row" },
  },
  html: {
    ...PAGES,
    notes: kept,
    "films and sounds": ({ elements }, { assets }) =>
      elements.some((element) => element.kind === "media" && !assets[element.source])
        ? { how: "shown by its picture" }
        : kept,
    "points one at a time": kept,
    "points in groups": kept,
    entrances: kept,
    "other motion": OTHER_MOTION,
    transitions: kept,
    "slide timings": { why: "the page waits for the reader" },
  },
  docx: {
    ...PAGES,
    "links on pictures": NO_LINKS_SHOWN,
    "links on shapes": NO_LINKS_SHOWN,
    notes: kept,
    "links between slides": { why: "a handout has no slides to go to; its words stay" },
  },
  png: {
    ...PAGES,
    "links on pictures": NO_LINKS,
    "links on shapes": NO_LINKS,
    "links to the web": { why: "a picture has no links; its words stay" },
    "links between slides": { why: "a picture has no links; its words stay" },
  },
  svg: {
    ...PAGES,
    "links on pictures": NO_LINKS,
    "links on shapes": NO_LINKS,
    "links to the web": { why: "a picture has no links; its words stay" },
    "links between slides": { why: "a picture has no links; its words stay" },
  },
  txt: {
    ...(Object.fromEntries(
      Object.keys(FEATURES).map((name) => [name, { why: "the file holds the notes alone" }]),
    ) as Record<FeatureName, Judge>),
    notes: kept,
    "detail slides": kept,
    "hidden slides": kept,
  },
  md: {
    ...PRESENTATION,
    "detail slides": kept,
    "named sections": kept,
    "links into other decks": kept,
    "broken links": kept,
    "links on shapes": { why: "text has no place for it" },
    "linked data": { why: "text has no place for linked data; the words stay" },
    pictures: { how: "named by its path; its file is not inside the text" },
    "missing pictures": kept,
    "vector pictures": kept,
    "animated pictures": kept,
    "chart formatting": { why: "text has only its numbers" },
    recolouring: { why: "text has no place for it" },
    "pictures cropped to a shape": { why: "text has no place for it" },
    "gradient fills": { why: "text has no place for it" },
    "large line ends": { why: "text has no place for it" },
    "soft shadows": { why: "text has no place for it" },
    code: kept,
    "films and sounds": { why: "text has no place for it; its description stays" },
    diagrams: kept,
    formulas: kept,
    shapes: { how: "its words stay, the drawing does not" },
    "positioned elements": { how: "stands with what else is on the slide" },
    groups: { why: "text has no place for it" },
    "text formatting": { how: "shown in the theme of the deck" },
    "picture bullets": { why: "text has no place for them; the items stay" },
    footnotes: kept,
    "points one at a time": kept,
    "points in groups": { how: "each comes by itself" },
    entrances: { why: "text has no place for it; everything is visible at once" },
    "other motion": OTHER_MOTION,
    backgrounds: ({ background }) => (background && "fill" in background ? { how: "named by one colour" } : kept),
    "masters from files": { why: "text has no place for it" },
    "footers from files": { why: "text has no place for them" },
    comments: { why: "text has no place for them" },
    "foreign content": { how: "its words stay" },
    "unsupported features": ONLY_THERE,
    "imported themes": { why: "a text has one theme for all its slides" },
  },
  json: Object.fromEntries(Object.keys(FEATURES).map((name) => [name, kept])) as Record<FeatureName, Judge>,
};

/** Formats without hidden slides; their content is not reported separately. */
const SHOWN_ONLY: ReadonlySet<WritableFormat> = new Set(["pdf", "html", "docx", "png", "svg"]);

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
    for (const name of SHOWN_ONLY.has(format) && slide.hidden ? names.slice(0, 1) : names) {
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

/** The counts that a feature stands for, so that what is left out is not counted as kept. */
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
  "foreign content": (to, _, found) => {
    to.foreign -= found;
  },
};
/** What a format to look at has no more once it is adapted: values that no longer follow, points that stand at once. */
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
  const slides = SHOWN_ONLY.has(format) ? deck.slides.filter(({ hidden }) => !hidden) : deck.slides;
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
          (STILL.has(name) && (SHOWN_ONLY.has(format) || name === "foreign content" || name === "films and sounds")))
      )
        COUNTS[name]?.(to, slide, found);
    }
  }
  return to;
}
