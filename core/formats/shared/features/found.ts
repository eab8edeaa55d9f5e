import {
  bindingsOn,
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
  type RichText,
  type Run,
  bulletsOf,
  type Slide,
  slideLink,
  slideLinks,
  slideTexts,
  stepsForm,
  must,
} from "@unitext/core/model";
import { normalText } from "@unitext/core/text";
import { joinWithAnd } from "../sourcepackage";

/** Returns what a slide has of a feature, each as words for a report. */
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

const hasOwnFormatting = (element: Element) =>
  element.style !== undefined ||
  elementTexts(element).some(
    (text) => text.some(({ properties }) => properties) || hasRuns(text, ({ properties }) => properties !== undefined),
  );

const isFormula = ({ marks }: Run) => marks?.includes("formula") ?? false;

/** Whether the points of a text appear in groups that only a list of them can express. */
export const inGroups = (element: Element): element is Extract<Element, { kind: "text" }> =>
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
  "recorded voices": ({ voice }) => (voice ? ["the voice recorded for it"] : []),
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
  "linked data": (slide) => bindingsOn(slide).map(({ binding }) => `the link to ${binding.source}, ${binding.range}`),
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
  "text formatting": (slide) => (slide.elements.some(hasOwnFormatting) ? ["text with formatting of its own"] : []),
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
  "slide timings": ({ delay }) => (delay ? ["its time on screen"] : []),
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
