import {
  type SceneBox,
  type SlotPlace,
  type FontSet,
  bulletAt,
  placeTheme,
  roleProperties,
} from "@unitext/core/layout";
import {
  type DeckMetadata,
  type Slide,
  type Theme,
  type Footnote,
  type Frame,
  type TextStyle,
  type Element,
  escapeXml,
  type Stroke,
} from "@unitext/core/model";
import { figureWords } from "../../../shared/sourcepackage";
import { xml } from "../../../shared/xml";
import { length } from "../package/names";
import {
  type Definitions,
  type Attributes,
  boxAttributes,
  strokeAttributes,
  fillAttributes,
  shadowAttributes,
  transformAttributes,
} from "./drawing";
import { textXml } from "./text";
import type { PartTextContext, StyleSheet } from "./stylesheet";

/** What writing the shapes of one page or master needs. */
export interface Work {
  metadata: DeckMetadata;
  slide: Slide;
  theme: Theme;
  boxes: ReadonlyMap<string, SceneBox>;
  styles: StyleSheet;
  definitions: Definitions;
  /** Returns the paths at which a frame shows a picture, the best first; none when its file is missing. */
  shown(source: string): string[];
  /** Returns the path of a picture's or film's file in the package; undefined when it is missing. */
  file(source: string): string | undefined;
  link(to: string): string | undefined;
  /** Adds an embedded document to the package. Returns its path. */
  object(content: string): string;
  notes: Footnote[];
  /** The places of the slots of the slide's arrangement. */
  places: ReadonlyMap<string, SlotPlace>;
  fonts: FontSet;
}

export interface Shape {
  name: string;
  frame: Frame;
  size: number;
  /** The layer and class of a shape. */
  presentation?: string | undefined;
  /** Its slot's place and role, for text that looks as its role does. */
  place?: SlotPlace;
}

export const CLASS: Record<string, string> = {
  title: "title",
  opening: "title",
  subtitle: "subtitle",
  body: "outline",
  picture: "graphic",
};
export const BARE = {
  "draw:stroke": "none",
  "draw:fill": "none",
  "fo:padding": "0pt",
  "draw:auto-grow-height": "false",
  "draw:textarea-vertical-align": "top",
};
export const inLevels = (levels: TextStyle | undefined) => (levels ? { levels } : {});
export const levelsOf = ({ style }: Pick<Element, "style">, { metadata }: Work): TextStyle | undefined =>
  style === undefined ? undefined : metadata.styles?.[style];

/** What determines how a text is written beside its theme. */
interface TextOptions extends Pick<PartTextContext, "bold" | "said" | "align" | "levels"> {
  heading?: boolean;
}

/** Returns how text is set in a slot or a shape: its theme, role and levels. */
export function contextFor(
  { styles, metadata, theme, link, file }: Work,
  size: number,
  { heading = false, bold = false, said = false, align, levels }: TextOptions = {},
): PartTextContext {
  const make = (): PartTextContext => ({
    styles,
    language: metadata.language,
    size: levels?.[0]?.run?.size ?? size,
    colour: theme.colours.ink,
    font: heading ? theme.fonts.heading : theme.fonts.body,
    codeFont: theme.fonts.code,
    codeColour: theme.colours.second,
    linkColour: theme.colours.link,
    signs: theme.colours.accent,
    bullets: [bulletAt(0, theme), bulletAt(1, theme)],
    bold,
    said,
    link,
    picture: file,
    ...(align ? { align } : {}),
    ...(levels ? { levels } : {}),
  });
  return styles.context(`${size}/${heading}/${bold}/${said}/${align}`, theme, levels, make);
}

export const named = ({ name, presentation }: Shape, style: string): Attributes => ({
  [presentation ? "presentation:style-name" : "draw:style-name"]: style,
  "draw:name": name,
  "draw:layer": "layout",
  "presentation:class": presentation,
  "presentation:user-transformed": presentation ? "true" : undefined,
});
export const styledAttributes = (element: Element) =>
  Boolean(
    element.style !== undefined || element.box || element.fill || element.stroke || element.shadow || element.rotation,
  );
export const withDescription = (alt: string | undefined) => (alt ? xml("svg:desc", {}, escapeXml(alt)) : "");

/** Adds the link of a whole shape: to the web by an anchor around it, to a page by an action inside. */
export function linked(link: string | undefined, work: Work): { inside: string; around: (shape: string) => string } {
  const to = link === undefined ? undefined : work.link(link);
  if (to === undefined) return { inside: "", around: (shape) => shape };
  if (!to.startsWith("#"))
    return { inside: "", around: (shape) => xml("draw:a", { "xlink:href": to, "xlink:type": "simple" }, shape) };
  return {
    inside: xml(
      "office:event-listeners",
      {},
      xml("presentation:event-listener", {
        "script:event-name": "dom:click",
        "presentation:action": "show",
        "xlink:href": to,
        "xlink:type": "simple",
      }),
    ),
    around: (shape) => shape,
  };
}

/** Returns the name of the automatic style that has an element's fill, outline, shadow and text box. */
export function graphic(
  element: Element,
  work: Work,
  presentation: string | undefined,
  usual: Parameters<typeof boxAttributes>[1],
): string {
  const { styles, definitions, file } = work;
  const { box } = element;
  const columns = box?.columns
    ? xml("style:columns", { "fo:column-count": box.columns, "fo:column-gap": length(box.gap ?? 0) })
    : "";
  return styles.style(
    presentation ? "presentation" : "graphic",
    {
      "graphic-properties": {
        ...strokeAttributes(element.stroke, definitions),
        ...fillAttributes(element.fill, definitions, file),
        ...shadowAttributes(element.shadow),
        ...boxAttributes(box, usual),
      },
      "paragraph-properties": box?.turn === 90 ? { "style:writing-mode": "tb-rl" } : {},
    },
    columns ? { "graphic-properties": columns } : {},
  );
}

const SIDE = { start: "start", centre: "center", end: "end" } as const;

/** Returns the style of a box whose text looks as its role does: place, text and line properties. */
function roleStyle({ presentation, size }: Shape, place: SlotPlace, { styles, theme, fonts }: Work): string {
  return styles.remember(
    `role/${presentation !== undefined}/${size}/${place.role}/${place.anchor}/${place.align}`,
    theme,
    () => {
      const { family, fill, strong, italic, capitals, spacing, line, gap } = roleProperties(place.role, theme, fonts);
      return styles.style(presentation ? "presentation" : "graphic", {
        "graphic-properties": { ...BARE, "draw:textarea-vertical-align": place.anchor },
        "paragraph-properties": {
          "fo:text-align": SIDE[place.align],
          "fo:line-height": `${Math.round(line * 100)}%`,
          "fo:margin-top": gap ? length(gap * size) : undefined,
        },
        "text-properties": {
          "fo:font-size": length(size),
          "fo:color": fill,
          "style:font-name": family,
          "fo:font-weight": strong ? "bold" : undefined,
          "fo:font-style": italic ? "italic" : undefined,
          "fo:text-transform": capitals ? "uppercase" : undefined,
          "fo:letter-spacing": spacing ? length(spacing * size) : undefined,
        },
      });
    },
  );
}

/** Returns the work with the theme in the colours of what a place is on. */
export const onPlace = (work: Work, place: SlotPlace | undefined): Work =>
  place?.surface ? { ...work, theme: placeTheme(work.slide, place.surface, work.metadata) } : work;

/** Returns a frame turned about its middle by a quarter, so that it covers the same area when it is rotated. */
const quarterTurned = ({ x, y, width, height }: Frame): Frame => ({
  x: x + (width - height) / 2,
  y: y + (height - width) / 2,
  width: height,
  height: width,
});

/** Writes a frame with a text box. Text that runs upwards, which the format does not know, is a rotated frame. */
export function textFrame(text: string, shape: Shape, work: Work, element?: Element): string {
  const style =
    element && styledAttributes(element)
      ? graphic(element, work, shape.presentation, { insets: [7.2, 3.6, 7.2, 3.6], anchor: "top", fit: "none" })
      : shape.place
        ? roleStyle(shape, shape.place, onPlace(work, shape.place))
        : work.styles.remember(`bare/${shape.presentation !== undefined}`, undefined, () =>
            work.styles.style(shape.presentation ? "presentation" : "graphic", { "graphic-properties": BARE }),
          );
  return xml(
    "draw:frame",
    Object.assign(
      named(shape, style),
      element?.box?.turn === 270
        ? transformAttributes(quarterTurned(shape.frame), ((element.rotation ?? 0) + 270) % 360)
        : transformAttributes(shape.frame, element?.rotation),
    ),
    xml("draw:text-box", {}, text || "<text:p/>"),
  );
}

/** Writes an element that the format has no form for as the drawing that the layout makes of it. */
export function figureFrame(element: Element, shape: Shape, work: Work): string {
  const { codeColour: _, ...context } = contextFor(work, shape.size);
  return textFrame(textXml(figureWords(element, work.notes) ?? [], context), shape, work);
}

export const borderOf = (stroke: Stroke | null | undefined) =>
  stroke
    ? `${length(Math.max(stroke.width, 0.05))} ${stroke.dash === "dot" ? "dotted" : stroke.dash ? "dashed" : "solid"} ${stroke.colour}`
    : "none";
