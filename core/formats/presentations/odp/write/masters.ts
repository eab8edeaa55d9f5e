import {
  regionWords,
  revealsOf,
  type Element,
  type Background,
  type DeckMetadata,
  type RegionBox,
  type ArrangementName,
  type Slide,
  type Master,
  type Direction,
  languageDirection,
  canonical,
  escapeXml,
  type Theme,
  themeOf,
} from "@unitext/core/model";
import { identified, type Targets, timingXml } from "../package/timing";
import { designMaster, type PlacedRegion, regionPlaces, slideTheme } from "@unitext/core/layout";
import { coverOf } from "../../../shared/sourcepackage";
import { xml } from "../../../shared/xml";
import { length } from "../package/names";
import { type Definitions, type Attributes, fillAttributes, place } from "./drawing";
import type { Work } from "./frame";
import { regionFrames, footnotesFrame } from "./regions";
import { shapeOf, groupXml } from "./shape";
import type { StyleSheet } from "./stylesheet";

/** Writes the shapes of a page, and returns what is stored of each by name. */
export function shapes(
  work: Work,
  named: Named,
  onMaster: boolean,
  foreign: (element: Element, name: string) => string | undefined,
): { xml: string; kept: Record<string, object> } {
  const kept: Record<string, object> = {};
  const taken = new Set<string>();
  const below: string[] = [];
  const written = work.slide.elements.map((element, nth) => {
    const made = shapeOf(element, nth, work, taken);
    kept[made.name] = made.kept;
    const shape = { ...made.shape, xml: named.words(element, foreign(element, made.name) ?? made.shape.xml) };
    for (const line of made.below) {
      kept[line.name] = { footnotes: true };
      below.push(named.words(element, line.xml));
    }
    return shape;
  });
  for (const region of onMaster ? [] : regionFrames(work, work.slide.regions)) {
    kept[region.name] = { footnotes: true };
    below.push(region.xml);
  }
  if (work.notes.length) {
    kept.footnotes = { footnotes: true };
    below.push(footnotesFrame(work));
  }
  return { xml: groupXml(written) + below.join(""), kept };
}

const TRANSITIONS = {
  fade: { "smil:type": "fade", "smil:subtype": "crossfade" },
  push: { "smil:type": "pushWipe", "smil:subtype": "fromRight" },
  wipe: { "smil:type": "barWipe", "smil:subtype": "leftToRight" },
} as const;

const FROM_RIGHT = {
  fade: {},
  push: { "smil:subtype": "fromLeft" },
  wipe: { "smil:direction": "reverse" },
} as const;

/**
 * Writes a background as properties of a page. A picture that covers it is centred, as large as that requires (20.155
 * to 20.158, the numbers from memory).
 */
function backgroundAttributes(
  background: Background,
  { page, assets }: DeckMetadata,
  definitions: Definitions,
  file: (source: string) => string | undefined,
): Attributes {
  if ("colour" in background) return fillAttributes({ kind: "solid", colour: background.colour }, definitions, file);
  if ("fill" in background) return fillAttributes(background.fill, definitions, file);
  const { across, down } = coverOf(assets[background.picture], page);
  const filled = fillAttributes(
    {
      kind: "picture",
      source: background.picture,
      ...(background.veil ? { opacity: 1 - background.veil } : {}),
    },
    definitions,
    file,
  );
  if (filled["draw:fill"] === "none" || (!across && !down)) return filled;
  return {
    ...filled,
    "style:repeat": "no-repeat",
    "draw:fill-image-width": length(page.width * (1 + 2 * across)),
    "draw:fill-image-height": length(page.height * (1 + 2 * down)),
    "draw:fill-image-ref-point": "center",
  };
}

/** Returns the properties of a page's style. */
export function pageProperties({ slide, metadata, theme, definitions, file }: Work, onMaster: boolean): Attributes {
  const { background, transition, delay, hidden } = slide;
  const shown =
    slide.master === undefined && !slide.regions && slide.arrangement !== "opening" && slide.arrangement !== "blank";
  const has = (region: RegionBox["region"]) =>
    onMaster && (slide.regions?.some((one) => one.region === region) ?? false);
  const fill = background
    ? backgroundAttributes(background, metadata, definitions, file)
    : themeOf(slide, metadata) !== metadata.theme
      ? { "draw:fill": "solid", "draw:fill-color": theme.colours.paper }
      : {};
  return {
    ...(fill["draw:fill"] === "none" ? {} : fill),
    "presentation:visibility": hidden ? "hidden" : undefined,
    "presentation:transition-type": delay ? "automatic" : undefined,
    "presentation:duration": delay ? `PT${delay}S` : undefined,
    ...(transition
      ? {
          ...TRANSITIONS[transition.kind],
          ...(languageDirection(metadata.language) === "rtl" ? FROM_RIGHT[transition.kind] : {}),
          "presentation:transition-speed":
            transition.seconds <= 0.5 ? "fast" : transition.seconds <= 1 ? "medium" : "slow",
        }
      : {}),
    "presentation:background-visible": "true",
    "presentation:background-objects-visible": "true",
    "presentation:display-footer": has("footer") || (shown && regionWords(metadata, "footer")) ? "true" : "false",
    "presentation:display-page-number": has("number") || (shown && metadata.regions.number) ? "true" : "false",
    "presentation:display-date-time": has("date") ? "true" : "false",
  };
}

export const pageStyle = ({ styles }: Work, properties: Attributes): string =>
  styles.style("drawing-page", { "drawing-page-properties": properties });

/**
 * A master of the theme: its name in the file, its display name, and an arrangement on which the theme draws the same.
 */
export interface StandardMaster {
  name: string;
  label?: string;
  arrangement: ArrangementName;
}

export const OPENING: StandardMaster = { name: "Opening", arrangement: "opening" };
export const CONTENT: StandardMaster = { name: "Content", arrangement: "points" };

/** Returns a text that is the same for arrangements behind which the design draws the same. */
export function designHash(arrangement: ArrangementName, metadata: DeckMetadata): string {
  const { colours } = slideTheme({ arrangement }, { theme: metadata.theme });
  return canonical([colours, designMaster(arrangement, metadata)]);
}

/** Writes the frame of a footer or page number of the theme. */
function regionFrame(
  field: string,
  className: string | undefined,
  { frame, align, size, font, strong, colour }: PlacedRegion,
  { fonts }: Theme,
  styles: StyleSheet,
): string {
  const frameStyle = styles.style("presentation", {
    "graphic-properties": {
      "draw:stroke": "none",
      "draw:fill": "none",
      "fo:padding-left": "7.2pt",
      "fo:padding-top": "3.6pt",
      "fo:padding-right": "7.2pt",
      "fo:padding-bottom": "3.6pt",
      "draw:textarea-vertical-align": "middle",
    },
  });
  const textStyle = styles.style("paragraph", {
    "paragraph-properties": { "fo:text-align": align === "centre" ? "center" : align },
    "text-properties": {
      "fo:font-size": length(size),
      "fo:color": colour,
      "style:font-name": fonts[font],
      "fo:font-weight": strong ? "bold" : undefined,
    },
  });
  return xml(
    "draw:frame",
    {
      "presentation:style-name": frameStyle,
      "draw:layer": "backgroundobjects",
      "presentation:class": className,
      ...place({ x: frame.x - 7.2, y: frame.y - 3.6, width: frame.width + 14.4, height: frame.height + 7.2 }),
    },
    xml("draw:text-box", {}, xml("text:p", { "text:style-name": textStyle }, field)),
  );
}

/** What writing a master needs beside what is on it. */
type MasterParts = Pick<Work, "styles" | "definitions" | "file" | "shown" | "link" | "object" | "fonts">;

/** Writes the shapes of a master; they are behind those of its pages. */
function masterShapes(
  elements: Element[],
  metadata: DeckMetadata,
  regions: readonly RegionBox[],
  common: MasterParts,
): string {
  const slide: Slide = { id: "", parent: null, arrangement: "blank", elements, notes: [], hidden: false };
  const work: Work = {
    ...common,
    metadata,
    slide,
    theme: metadata.theme,
    boxes: new Map(),
    notes: [],
    places: new Map(),
  };
  const taken = new Set<string>();
  const shapes = groupXml(elements.map((element, nth) => shapeOf(element, nth, work, taken).shape));
  const frames = regionFrames(work, [...regions], true).map((one) => one.xml);
  return (shapes + frames.join("")).replaceAll('draw:layer="layout"', 'draw:layer="backgroundobjects"');
}

/** Writes a master of the theme: what its design draws, footer and number. */
export function masterXml(
  prefix: string,
  { name, label, arrangement }: StandardMaster,
  metadata: DeckMetadata,
  common: MasterParts,
): string {
  const { background, elements } = designMaster(arrangement, metadata);
  const theme = slideTheme({ arrangement }, { theme: metadata.theme });
  const { footer, header, number } = regionPlaces({ ...metadata, theme });
  const shown = arrangement !== "opening" && arrangement !== "blank" && regionWords(metadata, "header");
  const fill = background
    ? backgroundAttributes(background, metadata, common.definitions, common.file)
    : { "draw:fill": "solid", "draw:fill-color": theme.colours.paper };
  return xml(
    "style:master-page",
    {
      "style:name": prefix + name,
      "style:display-name": label,
      "style:page-layout-name": prefix + LAYOUT,
      "draw:style-name": common.styles.style("drawing-page", { "drawing-page-properties": fill }),
    },
    masterShapes(elements, metadata, [], common),
    shown ? regionFrame(escapeXml(shown), undefined, header, theme, common.styles) : "",
    regionFrame("<presentation:footer/>", "footer", footer, theme, common.styles),
    regionFrame("<text:page-number>&lt;number&gt;</text:page-number>", "page-number", number, theme, common.styles),
  );
}

/** Writes a master from a source file as a master of the presentation. */
export function sourceMaster(
  prefix: string,
  name: string,
  { name: shown, background, elements }: Master,
  regions: readonly RegionBox[],
  metadata: DeckMetadata,
  common: MasterParts,
): string {
  const fill = background
    ? backgroundAttributes(background, metadata, common.definitions, common.file)
    : { "draw:fill": "solid", "draw:fill-color": metadata.theme.colours.paper };
  return xml(
    "style:master-page",
    {
      "style:name": name,
      "style:display-name": shown || undefined,
      "style:page-layout-name": prefix + LAYOUT,
      "draw:style-name": common.styles.style("drawing-page", { "drawing-page-properties": fill }),
    },
    masterShapes(elements, metadata, regions, common),
  );
}

export const LAYOUT = "Page";

/** Adds the ids by which timing refers to what appears. */
export class Named {
  private readonly targets = new Map<string, Targets>();
  private readonly coming: ReadonlyMap<string, boolean>;
  constructor(
    private readonly slide: Slide,
    private readonly prefix: string,
    private readonly direction: Direction,
  ) {
    this.coming = new Map(revealsOf(slide).map(({ element, paragraph }) => [element, paragraph !== undefined]));
  }
  /** Returns the XML of an element's shape with the ids that it needs; a line below it appears with it. */
  words(element: Element, words: string): string {
    const points = this.coming.get(element.id);
    if (points === undefined) return words;
    const before = this.targets.get(element.id);
    const id = `${this.prefix}e${this.slide.elements.indexOf(element) + 1}${before ? `b${before.shapes.length}` : ""}`;
    const made = identified(words, id, points && !before);
    this.targets.set(
      element.id,
      before ? { ...before, shapes: [...before.shapes, ...made.targets.shapes] } : made.targets,
    );
    return made.words;
  }
  timing(): string {
    return timingXml(this.slide, (element) => this.targets.get(element), this.direction);
  }
}
