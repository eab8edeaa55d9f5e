import type { FontSet, SceneBox } from "@unitext/core/layout";
import {
  type Deck,
  type DeckMetadata,
  deckLink,
  type Element,
  type Footnote,
  type Frame,
  plainText,
  type SlotRole,
  type TextStyle,
  type Theme,
} from "@unitext/core/model";
import { xml } from "../../../shared/xml";
import { EXTENSIONS, isLines, stillPictures } from "../../../shared/pictures";
import type { ShapeMath } from "./math";
import { transform } from "../package/layouts";
import { REL } from "../package/names";
import { type Package, type Relationships, relativeTo } from "../package/parts";
import { paragraphsXml, type PartTextContext } from "./text";
import { type Embedded, fillXml, shadowXml, strokeXml } from "./drawing";

export interface PptxOptions {
  fonts: FontSet;
  /** Returns the bytes of a picture by its SHA-256; undefined when they are missing. */
  picture: (sha256: string) => Uint8Array | undefined;
  /** The creation time that the file names. */
  at: Date;
  /** Draws an SVG as a PNG of a width in pixels, which is written beside a drawing for programs without SVG. */
  png?: (svg: string, width: number) => Uint8Array;
}

/** What writing the shapes of one slide needs. */
export interface SlideWork {
  deck: Deck;
  metadata: DeckMetadata;
  /** The theme of the layouts, where that of the slide has other sizes. */
  layoutTheme?: Theme;
  /** The number of the slide; none for masters. */
  number?: number;
  /** The path of the slide part, and those of all slides by id. */
  path: string;
  paths: ReadonlyMap<string, string>;
  pack: Package;
  options: PptxOptions;
  relationships: Relationships;
}

export interface ShapeWork extends SlideWork {
  id: number;
  name: string;
  frame: Frame;
  box: SceneBox | undefined;
  role: SlotRole | undefined;
  /** Returns the placeholder that it fills, as XML; asked for once. */
  placeholder: () => string | undefined;
  notes: Footnote[];
  /** Writes a line of text that belongs to the element: when it is read again, it is not an element. */
  line: (text: string, frame: Frame) => string;
  /** Returns the file's own XML of a foreign element, moved to its frame; undefined when the file is missing. */
  sourceXml: (element: Element) => string | undefined;
  /** Sets the formulas of the shape. */
  math?: ShapeMath;
}

/** Returns a function that gives links relationship ids in a part. */
export function linker(
  relationships: Relationships,
  paths: ReadonlyMap<string, string>,
  from: string,
): PartTextContext["link"] {
  return (to) => {
    if (deckLink(to)) return undefined;
    if (!to.startsWith("slide:")) return { id: relationships.add(REL.link, to, true), slide: false };
    const path = paths.get(to.slice(6));
    return path === undefined ? undefined : { id: relationships.add(REL.slide, relativeTo(from, path)), slide: true };
  };
}

/** Returns the relationships of a picture, film or sound; undefined when its file is missing. */
export function embedded(
  { metadata, options, pack, relationships, path }: SlideWork,
  source: string,
  type: keyof typeof REL = "image",
): Embedded | undefined {
  const asset = metadata.assets[source];
  const bytes = asset && options.picture(asset.sha256);
  if (!asset || !bytes) return undefined;
  const id = relationships.add(
    REL[type],
    relativeTo(path, pack.picture(asset.sha256, bytes, EXTENSIONS[asset.mediaType] ?? "bin")),
  );
  if (!isLines(asset) || !options.png) return { id };
  const raster = stillPictures({ [source]: asset }, options.picture, options.png)(asset.sha256);
  return raster
    ? {
        id: relationships.add(REL[type], relativeTo(path, pack.picture(`${asset.sha256} as dots`, raster, "png"))),
        lines: id,
      }
    : { id };
}

export const paint = (element: Pick<Element, "fill" | "stroke" | "shadow">, work: SlideWork) =>
  (element.fill ? fillXml(element.fill, (source) => embedded(work, source)) : "<a:noFill/>") +
  (element.stroke ? strokeXml(element.stroke) : "") +
  shadowXml(element.shadow);

/** Returns the hyperlink of a shape or run; empty without one. */
export function clickXml(link: string | undefined, work: SlideWork): string {
  const found = link ? linker(work.relationships, work.paths, work.path)(link) : undefined;
  return found
    ? xml("a:hlinkClick", { "r:id": found.id, action: found.slide ? "ppaction://hlinksldjump" : undefined })
    : "";
}

/** Writes a shape with text. */
export function textBox(
  { id, name, frame }: Pick<ShapeWork, "id" | "name" | "frame">,
  paragraphs: string,
  size: number,
): string {
  const style = `<a:lstStyle>${Array.from({ length: 9 }, (_, nth) => `<a:lvl${nth + 1}pPr><a:defRPr sz="${Math.round(size * 100)}"/></a:lvl${nth + 1}pPr>`).join("")}</a:lstStyle>`;
  return xml(
    "p:sp",
    {},
    xml("p:nvSpPr", {}, xml("p:cNvPr", { id, name }), '<p:cNvSpPr txBox="1"/>', "<p:nvPr/>"),
    xml("p:spPr", {}, transform(frame), '<a:prstGeom prst="rect"><a:avLst/></a:prstGeom><a:noFill/>'),
    xml(
      "p:txBody",
      {},
      '<a:bodyPr wrap="square" lIns="0" tIns="0" rIns="0" bIns="0"><a:normAutofit/></a:bodyPr>',
      style,
      paragraphs,
    ),
  );
}

/** Returns how text is set in a slot or a shape: its theme, role and levels. */
export function textContext(
  work: SlideWork & Pick<ShapeWork, "math">,
  size: number,
  bulleted: boolean,
  style?: TextStyle,
  full = size,
): PartTextContext {
  const { metadata, number, relationships, paths, path, math } = work;
  return {
    picture: (source) => embedded(work, source),
    language: metadata.language,
    number,
    codeFont: metadata.theme.fonts.code,
    codeColour: metadata.theme.colours.second,
    linkColour: metadata.theme.colours.link,
    size: full,
    em: size,
    bulleted,
    ...(style ? { style } : {}),
    ...(math ? { math } : {}),
    link: linker(relationships, paths, path),
  };
}

export const styleOf = ({ style }: Pick<Element, "style">, { metadata }: SlideWork) =>
  style === undefined ? undefined : metadata.styles?.[style];

/** Writes a text box that names what cannot be written. */
export function standIn(words: string, work: ShapeWork): string {
  return textBox(work, paragraphsXml(plainText(words), textContext(work, 12, false)), 12);
}
