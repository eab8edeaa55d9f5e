import { palette } from "@unitext/core/figures";
import { type FontSet, type SceneBox, sizeOf, type TableGrid, tableAppearance } from "@unitext/core/layout";
import {
  type Background,
  type Deck,
  type DeckMetadata,
  deckLink,
  type Element,
  type ElementKind,
  escapeXml,
  type Footnote,
  type Frame,
  isEmptyText,
  type LevelStyle,
  NUMBER_SIGN,
  type Paragraph,
  plainText,
  type RegionBox,
  type RichText,
  type SlotRole,
  type TableElement,
  type TextStyle,
} from "@unitext/core/model";
import { xml } from "../../../shared/xml";
import { chartTable, coverOf, figureWords, flattenRuns } from "../../../shared/sourcepackage";
import { fromBase64 } from "../../../shared/archive";
import { EXTENSIONS, isLines, stillPictures } from "../../../shared/pictures";
import { ShapeMath } from "./math";
import { transform } from "../package/layouts";
import { type Placeholder, placeholderOf, REL, TYPE } from "../package/names";
import { type Package, Relationships, relativeTo } from "../package/parts";
import { type TableMetrics, tableXml } from "./table";
import { paragraphsXml, type PartTextContext } from "./text";
import { chartPart } from "./chart";
import { workbook } from "./workbook";
import { blipXml, boxXml, type Embedded, fillXml, geometryXml, shadowXml, transformXml, strokeXml } from "./drawing";
import { listStyleXml } from "./textproperties";

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
  const dots = stillPictures({ [source]: asset }, options.picture, options.png)(asset.sha256);
  return dots
    ? {
        id: relationships.add(REL[type], relativeTo(path, pack.picture(`${asset.sha256} as dots`, dots, "png"))),
        lines: id,
      }
    : { id };
}

/**
 * A dark picture, 16 to 9, as the poster of films and sounds without one: their element requires a picture (CT_Picture,
 * ECMA-376-1, 19.3.1.37).
 */
const DARK = fromBase64(
  "iVBORw0KGgoAAAANSUhEUgAAABAAAAAJCAMAAAAM9FwAAAAAA1BMVEUgMC6cp0AGAAAADElEQVR42mNgGKQAAACZAAF6xvHnAAAAAElFTkSuQmCC",
);

const paint = (element: Pick<Element, "fill" | "stroke" | "shadow">, work: SlideWork) =>
  (element.fill ? fillXml(element.fill, (source) => embedded(work, source)) : "<a:noFill/>") +
  (element.stroke ? strokeXml(element.stroke) : "") +
  shadowXml(element.shadow);

function clickXml(link: string | undefined, work: SlideWork): string {
  const found = link ? linker(work.relationships, work.paths, work.path)(link) : undefined;
  return found
    ? xml("a:hlinkClick", { "r:id": found.id, action: found.slide ? "ppaction://hlinksldjump" : undefined })
    : "";
}

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

function autofit(box: SceneBox | undefined, full: number): string {
  const share = box && full > 0 ? box.size / full : 1;
  return `<a:bodyPr>${share < 0.995 ? `<a:normAutofit fontScale="${Math.round(share * 100000)}"/>` : "<a:normAutofit/>"}</a:bodyPr>`;
}

/** Writes a figure as its words in a text box. */
function figureText(element: Element, work: ShapeWork): string {
  const size = work.box?.size || sizeOf("figure", work.metadata.theme, work.metadata.page);
  const { codeColour: _, ...context } = textContext(work, size, false);
  return textBox(work, paragraphsXml(figureWords(element, work.notes) ?? [], context), size);
}

const styleOf = ({ style }: Pick<Element, "style">, { metadata }: SlideWork) =>
  style === undefined ? undefined : metadata.styles?.[style];

/** Writes a shape with text in the text style of its file: geometry, fill, outline, insets, levels. */
function lookedShape(
  element: Extract<Element, { kind: "text" | "shape" }>,
  work: ShapeWork,
  placeholder: string | undefined,
): string {
  const { id, name, frame, notes } = work;
  const style = styleOf(element, work);
  const size = style?.[0]?.run?.size ?? 18;
  const geometry = element.kind === "shape" ? element.geometry : { preset: "rect" };
  const lined =
    element.kind === "shape" &&
    "preset" in geometry &&
    /^(line|.*Connector\d)$/.test(geometry.preset) &&
    isEmptyText(element.text);
  const properties = xml(
    "p:spPr",
    {},
    transformXml(frame, element),
    geometryXml(geometry),
    lined ? strokeXml(element.stroke) + shadowXml(element.shadow) : paint(element, work),
  );
  const alt = element.kind === "shape" ? element.alt : undefined;
  const link = element.kind === "shape" ? element.link : undefined;
  const named = xml("p:cNvPr", { id, name: element.name ?? name, descr: alt }, clickXml(link, work));
  if (lined) return xml("p:cxnSp", {}, xml("p:nvCxnSpPr", {}, named, "<p:cNvCxnSpPr/><p:nvPr/>"), properties);
  const paragraphs = paragraphsXml(flattenRuns(element.text, notes), textContext(work, size, false, style));
  const body = xml(
    "p:txBody",
    {},
    boxXml(element.box, {
      insets: [7.2, 3.6, 7.2, 3.6],
      anchor: element.kind === "shape" ? "middle" : "top",
      fit: "none",
    }),
    style ? listStyleXml(style) : "<a:lstStyle/>",
    paragraphs,
  );
  return xml(
    "p:sp",
    {},
    xml(
      "p:nvSpPr",
      {},
      named,
      element.kind === "text"
        ? xml("p:cNvSpPr", { txBox: placeholder ? undefined : 1 }, placeholder ? '<a:spLocks noGrp="1"/>' : "")
        : "<p:cNvSpPr/>",
      xml("p:nvPr", {}, placeholder ?? ""),
    ),
    properties,
    body,
  );
}

const REGION: Record<RegionBox["region"], object> = {
  date: { type: "dt", sz: "half", idx: 10 },
  footer: { type: "ftr", sz: "quarter", idx: 11 },
  number: { type: "sldNum", sz: "quarter", idx: 12 },
};

/** Writes a footer, number or date where the slide's file places it; a number is a field (ECMA-376-1, 21.1.2.2.4). */
export function regionShape(
  { region, text, frame, style, box }: RegionBox,
  work: Pick<ShapeWork, keyof SlideWork | "id" | "notes">,
): string {
  const words = region === "number" && !text.includes(NUMBER_SIGN) ? NUMBER_SIGN : text;
  const element: Extract<Element, { kind: "text" }> = {
    kind: "text",
    id: "region",
    slot: null,
    frame,
    text: plainText(words),
    ...(style ? { style } : {}),
    ...(box ? { box } : {}),
  };
  return lookedShape(
    element,
    { ...work, name: `${region} ${work.id}`, frame } as ShapeWork,
    xml("p:ph", { ...REGION[region] }),
  );
}

function graphicFrame(
  { id, name, frame }: Pick<ShapeWork, "id" | "name" | "frame">,
  element: Pick<Element, "name">,
  uri: string,
  content: string,
): string {
  return xml(
    "p:graphicFrame",
    {},
    xml(
      "p:nvGraphicFramePr",
      {},
      xml("p:cNvPr", { id, name: element.name ?? name }),
      '<p:cNvGraphicFramePr><a:graphicFrameLocks noGrp="1"/></p:cNvGraphicFramePr>',
      "<p:nvPr/>",
    ),
    transform(frame).replace(/a:xfrm/g, "p:xfrm"),
    xml(
      "a:graphic",
      {},
      xml("a:graphicData", { uri: `http://schemas.openxmlformats.org/drawingml/2006/${uri}` }, content),
    ),
  );
}

/** Returns a paragraph with the properties of its level, because table cells have no levels. */
function inLevel({ align, properties, ...paragraph }: Paragraph, level: LevelStyle): Paragraph {
  const side = align ?? level.align;
  const stands = {
    ...level.paragraph,
    ...properties,
    ...(paragraph.runs.length || !level.run ? {} : { words: { ...level.run, ...properties?.words } }),
  };
  const marks = [...(level.strong ? ["strong" as const] : []), ...(level.emphasis ? ["emphasis" as const] : [])];
  return {
    ...paragraph,
    ...(side ? { align: side } : {}),
    ...(Object.keys(stands).length ? { properties: stands } : {}),
    runs: paragraph.runs.map((run) => ({
      ...run,
      ...(marks.length ? { marks: [...new Set([...marks, ...(run.marks ?? [])])] } : {}),
      properties: { ...level.run, ...run.properties },
    })),
  };
}

/** Writes a table with its own appearance, or with that of the theme where it has none. */
function tableFrame(
  element: Pick<TableElement, "rows" | "header" | "align" | "widths" | "heights" | "style" | "name">,
  work: ShapeWork,
  laid?: TableGrid,
): string {
  const { frame, box, metadata, notes, options } = work;
  const { rows, widths, heights } = element;
  const style = styleOf(element, work);
  const size = widths ? (style?.[0]?.run?.size ?? 18) : box?.size || sizeOf("figure", metadata.theme, metadata.page);
  const { codeColour, ...plain } = textContext(work, size, false);
  const context: PartTextContext = {
    ...plain,
    sized: !widths,
    ...(widths || codeColour === undefined ? {} : { codeColour }),
  };
  const level = widths ? style?.[0] : undefined;
  const dressed = (text: RichText): RichText => (level ? text.map((paragraph) => inLevel(paragraph, level)) : text);
  const columns = Math.max(...rows.map((row) => row.length));
  const standing = (): TableMetrics => {
    if (widths)
      return {
        widths: Array.from({ length: columns }, (_, x) => widths[x] || frame.width / columns),
        heights: rows.map((_, y) => heights?.[y] || frame.height / rows.length),
        worn: (cell) => cell,
        bold: false,
      };
    const look = tableAppearance(
      element,
      frame.width,
      size,
      { fonts: options.fonts, theme: metadata.theme, language: metadata.language },
      laid,
    );
    return {
      ...look,
      worn: (cell, row) => look.worn(row, Math.min(row + (cell.rows ?? 1), rows.length) - 1),
      bold: true,
    };
  };
  return graphicFrame(
    work,
    element,
    "table",
    tableXml(
      element,
      standing(),
      (text) => paragraphsXml(flattenRuns(dressed(text), notes), context),
      (fill) => fillXml(fill, (source) => embedded(work, source)),
    ),
  );
}

/** Writers of element kinds. */
const SHAPES: { [K in ElementKind]: (element: Extract<Element, { kind: K }>, work: ShapeWork) => string } = {
  picture: (element, work) => {
    const { id, name, frame, role, placeholder, line } = work;
    const caption = element.caption
      ? line(element.caption, { x: frame.x, y: frame.y + frame.height + 4, width: frame.width, height: 24 })
      : "";
    const base = xml("p:cNvPr", { id, name: element.name ?? name, descr: element.alt }, clickXml(element.link, work));
    const embed = embedded(work, element.source);
    if (embed === undefined) {
      return (
        xml(
          "p:sp",
          {},
          xml("p:nvSpPr", {}, base, "<p:cNvSpPr/><p:nvPr/>"),
          xml(
            "p:spPr",
            {},
            transformXml(frame, element),
            '<a:prstGeom prst="rect"><a:avLst/></a:prstGeom><a:noFill/><a:ln w="9525"><a:solidFill><a:schemeClr val="tx2"/></a:solidFill><a:prstDash val="dash"/></a:ln>',
          ),
          '<p:txBody><a:bodyPr/><a:lstStyle/><a:p><a:endParaRPr lang="en"/></a:p></p:txBody>',
        ) + caption
      );
    }
    const held = role === "picture" ? (placeholder() ?? "") : "";
    const recolour =
      element.recolour === "grey"
        ? "<a:grayscl/>"
        : element.recolour === "mono"
          ? '<a:biLevel thresh="50000"/>'
          : element.recolour === "washout"
            ? '<a:lum bright="70000" contrast="-70000"/>'
            : "";
    const crop = element.crop
      ? xml(
          "a:srcRect",
          Object.fromEntries(
            Object.entries({
              l: element.crop.left,
              t: element.crop.top,
              r: element.crop.right,
              b: element.crop.bottom,
            }).map(([side, share]) => [side, Math.round(share * 100000)]),
          ),
        )
      : "";
    const effects =
      (element.fill ? fillXml(element.fill, (source) => embedded(work, source)) : "") +
      (element.stroke ? strokeXml(element.stroke) : "") +
      shadowXml(element.shadow);
    return (
      xml(
        "p:pic",
        {},
        xml(
          "p:nvPicPr",
          {},
          base,
          '<p:cNvPicPr><a:picLocks noChangeAspect="1"/></p:cNvPicPr>',
          xml("p:nvPr", {}, held),
        ),
        xml(
          "p:blipFill",
          {},
          blipXml(
            embed,
            (element.opacity === undefined ? "" : xml("a:alphaModFix", { amt: Math.round(element.opacity * 100000) })) +
              recolour,
          ),
          crop,
          "<a:stretch><a:fillRect/></a:stretch>",
        ),
        xml("p:spPr", {}, transformXml(frame, element), geometryXml(element.shape ?? { preset: "rect" }), effects),
      ) + caption
    );
  },
  text: (element, work) => {
    const { metadata, role, box, placeholder, notes } = work;
    if (element.style !== undefined || element.box || element.fill || element.stroke || element.rotation)
      return lookedShape(element, work, placeholder());
    const full = sizeOf(role ?? "body", metadata.theme, metadata.page);
    const held = role === undefined ? undefined : placeholder();
    const paragraphs = paragraphsXml(
      flattenRuns(element.text, notes),
      textContext(
        work,
        box?.size ?? full,
        held !== undefined && role === "body",
        undefined,
        held === undefined ? (box?.size ?? full) : full,
      ),
    );
    if (held === undefined) return textBox(work, paragraphs, box?.size ?? full);
    const own = element.frame ? `${transform(element.frame)}<a:prstGeom prst="rect"><a:avLst/></a:prstGeom>` : "";
    return xml(
      "p:sp",
      {},
      xml(
        "p:nvSpPr",
        {},
        xml("p:cNvPr", { id: work.id, name: element.name ?? work.name }),
        '<p:cNvSpPr><a:spLocks noGrp="1"/></p:cNvSpPr>',
        xml("p:nvPr", {}, held),
      ),
      xml("p:spPr", {}, own),
      xml("p:txBody", {}, autofit(box, full), "<a:lstStyle/>", paragraphs),
    );
  },
  table: (element, work) =>
    tableFrame(element, work, work.box?.grid) +
    (element.caption
      ? work.line(element.caption, { ...work.frame, y: work.frame.y + work.frame.height + 4, height: 24 })
      : ""),
  chart: (element, work) => {
    const { pack, relationships, path } = work;
    if (!element.series.some(({ values }) => values.length)) return tableFrame(chartTable(element), work);
    const own = new Relationships();
    const chart = pack.free("ppt/charts/chart1.xml");
    pack.put(chart, TYPE.chart, new Uint8Array());
    const book = pack.free("ppt/embeddings/workbook1.xlsx");
    pack.put(book, undefined, workbook(element));
    const id = own.add(REL.workbook, relativeTo(chart, book));
    pack.add(chart, TYPE.chart, chartPart(element, palette(work.metadata.theme.colours), id), own);
    return graphicFrame(
      work,
      element,
      "chart",
      xml("c:chart", {
        "xmlns:c": "http://schemas.openxmlformats.org/drawingml/2006/chart",
        "r:id": relationships.add(REL.chart, relativeTo(path, chart)),
      }),
    );
  },
  code: figureText,
  formula: (element, work) => {
    const size = work.box?.size || sizeOf("figure", work.metadata.theme, work.metadata.page);
    const { math, ...bare } = work;
    const plain = xml(
      "a:r",
      {},
      xml("a:rPr", { lang: work.metadata.language }),
      `<a:t>${escapeXml(element.tex.replace(/\n/g, " "))}</a:t>`,
    );
    const set = math?.formula(element.tex, plain, true);
    return set === undefined
      ? figureText(element, bare)
      : textBox(work, xml("a:p", {}, xml("a:pPr", { algn: "ctr" }), set), size);
  },
  diagram: figureText,
  shape: (element, work) => lookedShape(element, work, undefined),
  media: (element, work) => {
    const kept = work.sourceXml(element);
    if (kept !== undefined) return kept;
    const { id, name, frame, pack, relationships, path } = work;
    const file = embedded(work, element.source, element.type);
    if (file === undefined) return standIn(element.alt || (element.type === "video" ? "Film" : "Sound"), work);
    const poster = (element.poster === undefined ? undefined : embedded(work, element.poster)) ?? {
      id: relationships.add(REL.image, relativeTo(path, pack.picture("a film without a picture", DARK, "png"))),
    };
    const film = xml(element.type === "video" ? "a:videoFile" : "a:audioFile", { "r:link": file.id });
    return xml(
      "p:pic",
      {},
      xml(
        "p:nvPicPr",
        {},
        xml(
          "p:cNvPr",
          { id, name: element.name ?? name, descr: element.alt },
          '<a:hlinkClick r:id="" action="ppaction://media"/>',
        ),
        '<p:cNvPicPr><a:picLocks noChangeAspect="1"/></p:cNvPicPr>',
        xml("p:nvPr", {}, film),
      ),
      xml("p:blipFill", {}, blipXml(poster), "<a:stretch><a:fillRect/></a:stretch>"),
      xml("p:spPr", {}, transformXml(frame, element), '<a:prstGeom prst="rect"><a:avLst/></a:prstGeom>'),
    );
  },
  foreign: (element, work) => {
    const kept = work.sourceXml(element);
    if (kept !== undefined) return kept;
    const picture = element.picture === undefined ? undefined : embedded(work, element.picture);
    if (picture === undefined)
      return standIn(
        [element.what, ...element.text.map(({ runs }) => runs.map(({ text }) => text).join(""))].join("\n"),
        work,
      );
    return xml(
      "p:pic",
      {},
      xml(
        "p:nvPicPr",
        {},
        xml("p:cNvPr", { id: work.id, name: element.name ?? work.name, descr: element.alt || element.what }),
        "<p:cNvPicPr/><p:nvPr/>",
      ),
      xml("p:blipFill", {}, blipXml(picture), "<a:stretch><a:fillRect/></a:stretch>"),
      xml("p:spPr", {}, transformXml(work.frame, element), '<a:prstGeom prst="rect"><a:avLst/></a:prstGeom>'),
    );
  },
};

/** Writes a text box that names what cannot be written. */
function standIn(words: string, work: ShapeWork): string {
  return textBox(work, paragraphsXml(plainText(words), textContext(work, 12, false)), 12);
}

const out = (share: number) => (share ? -Math.round(share * 100000) : undefined);

/** Writes the background of a slide that has its own. */
export function backgroundXml(background: Background | undefined, work: SlideWork): string {
  if (!background) return "";
  const fill = (inner: string) => `<p:bg><p:bgPr>${inner}<a:effectLst/></p:bgPr></p:bg>`;
  if ("colour" in background)
    return fill(xml("a:solidFill", {}, xml("a:srgbClr", { val: background.colour.slice(1).toUpperCase() })));
  const whole = "fill" in background ? background.fill : { kind: "picture" as const, source: background.picture };
  if (whole.kind === "picture" && embedded(work, whole.source) === undefined) return "";
  const drawn = fillXml(whole, (source) => embedded(work, source));
  // A picture that covers the page extends beyond it on two sides (ECMA-376-1, 20.1.8.30: negative values are outside).
  const { across, down } =
    "picture" in background
      ? coverOf(work.metadata.assets[background.picture], work.metadata.page)
      : { across: 0, down: 0 };
  return fill(
    across || down
      ? drawn.replace(
          "<a:fillRect/>",
          xml("a:fillRect", { l: out(across), t: out(down), r: out(across), b: out(down) }),
        )
      : drawn,
  );
}

/** Writes the placeholder of a slot. */
export function placeholderXml(slot: string, role: SlotRole): string {
  const placeholder: Placeholder = placeholderOf(slot, role);
  return xml("p:ph", { ...placeholder });
}

/** Writes an element as a shape of the slide; one with formulas becomes alternate content. */
export function shapeXml(element: Element, work: ShapeWork): string {
  const write = SHAPES[element.kind] as (element: Element, work: ShapeWork) => string;
  if (!["text", "shape", "formula"].includes(element.kind)) return write(element, work);
  const math = new ShapeMath();
  return math.shape(write(element, { ...work, math }));
}
