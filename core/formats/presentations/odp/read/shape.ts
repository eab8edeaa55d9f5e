import { knowsPreset } from "@unitext/core/figures";
import {
  type Cell,
  type Element,
  type Frame,
  type Geometry,
  isEmptyText,
  linkWholeText,
  type PictureElement,
  plainText,
  type RichText,
  type TableElement,
  type TextBox,
  type TextStyle,
  within,
  must,
} from "@unitext/core/model";
import type { Report } from "@unitext/core/tally";
import { child, childrenOf, localName, type XmlNode } from "../../../shared/xml";
import { mathmlTex } from "../../../shared/math";
import { attribute } from "../../../shared/xml";
import SvgPath from "svgpath";
import { presetNamed, readEnhancedGeometry, textMargins } from "./enhancedgeometry";
import { ellipseForm, regular } from "./basicshapes";
import { connectorForm } from "./connector";
import { backgroundColour, isDark, LIGHT } from "./background";
import { points } from "../package/names";
import { joinWithAnd } from "../../../shared/sourcepackage";
import { unsupportedChartFeatures } from "./unsupportedchart";
import { cellProperties, withTableStyle } from "./cells";
import { readChart } from "./chart";
import { takesData } from "../patch/updatechart";
import { type OdpStyles, type Properties, readBox, readShadow, readStroke, share, type Values } from "./styles";
import { readFill } from "./fill";
import { readStyledText, type TextReader } from "./text";

/** What reading the shapes of a page or master needs. */
export interface ShapeWork {
  /** The page's number; null for masters. */
  number: number | null;
  styles: OdpStyles;
  text: TextReader;
  /** Whether the page is dark behind its shapes. */
  dark: boolean;
  /** Imports a picture, film or sound; returns its name in the deck. */
  picture(href: string | undefined, holder: XmlNode): string | undefined;
  media(href: string | undefined): { source: string; type: "video" | "audio" } | undefined;
  /** Returns the content of an embedded document. */
  object(href: string | undefined, holder: XmlNode): XmlNode | undefined;
  style(style: TextStyle): string;
  styled(name: string): TextStyle | undefined;
  size(source: string): { width: number; height: number } | undefined;
  /** Returns what a picture that must be converted becomes. */
  drawn(source: string): string | undefined;
  report: Pick<Report, "adapted" | "left">;
}

/** The fields of an element before its kind is known. */
export type Base = Pick<Element, "id" | "slot" | "sourceShape" | "groups" | "binding" | "name"> & { link?: string };

export const SHAPES = new Set([
  "custom-shape",
  "rect",
  "ellipse",
  "circle",
  "line",
  "polyline",
  "polygon",
  "path",
  "connector",
  "regular-polygon",
  "caption",
  "measure",
]);

const round = (value: number) => Math.round(value * 100) / 100;
type Matrix = [number, number, number, number, number, number];

/** Reads a list of transforms (19.228); rotation is counter-clockwise, as in files. */
function matrixOf(transform: string): Matrix {
  let m: Matrix = [1, 0, 0, 1, 0, 0];
  const after = (n: Matrix) => {
    m = [
      n[0] * m[0] + n[2] * m[1],
      n[1] * m[0] + n[3] * m[1],
      n[0] * m[2] + n[2] * m[3],
      n[1] * m[2] + n[3] * m[3],
      n[0] * m[4] + n[2] * m[5] + n[4],
      n[1] * m[4] + n[3] * m[5] + n[5],
    ];
  };
  for (const [, name, list = ""] of transform.matchAll(/(\w+)\s*\(([^)]*)\)/g)) {
    const words = list.trim().split(/[\s,]+/);
    const plain = words.map((word) => Number.parseFloat(word) || 0);
    const lengths = words.map((word) => points(word) ?? (Number.parseFloat(word) || 0));
    const [a = 0, b = 0] = plain;
    if (name === "rotate") after([Math.cos(a), -Math.sin(a), Math.sin(a), Math.cos(a), 0, 0]);
    else if (name === "translate") after([1, 0, 0, 1, lengths[0] ?? 0, lengths[1] ?? 0]);
    else if (name === "scale") after([a || 1, 0, 0, words.length > 1 ? b || 1 : a || 1, 0, 0]);
    else if (name === "skewX") after([1, 0, Math.tan(-a), 1, 0, 0]);
    else if (name === "skewY") after([1, Math.tan(-a), 0, 1, 0, 0]);
    else if (name === "matrix") after([a, b, plain[2] ?? 0, plain[3] ?? 1, lengths[4] ?? 0, lengths[5] ?? 0]);
  }
  return m;
}

const inPage = (value: number) => Math.max(-40000, Math.min(40000, value));

/** Returns the frame of a shape on its page, and its rotation. */
export function transformOf(shape: XmlNode): { frame: Frame; rotation?: number; flip?: "y" } | undefined {
  const [x, y, width, height] = ["x", "y", "width", "height"].map((name) => points(attribute(shape, name)));
  const transform = attribute(shape, "transform");
  const [w, h] = [Math.max(0.1, width ?? 0), Math.max(0.1, height ?? 0)];
  if ((width === undefined || height === undefined || (width <= 0 && height <= 0)) && !transform) return undefined;
  if (!transform) return { frame: { x: inPage(x ?? 0), y: inPage(y ?? 0), width: w, height: h } };
  const [a, b, c, d, e, f] = matrixOf(transform);
  const [sx, sy] = [Math.hypot(a, b), Math.hypot(c, d)];
  const flipped = a * d - b * c < 0;
  const [cx, cy] = [
    a * ((x ?? 0) + w / 2) + c * ((y ?? 0) + h / 2) + e,
    b * ((x ?? 0) + w / 2) + d * ((y ?? 0) + h / 2) + f,
  ];
  const rotation = (round((Math.atan2(b, a) * 180) / Math.PI) + 360) % 360;
  return {
    frame: {
      x: round(inPage(cx - (w * sx) / 2)) + 0,
      y: round(inPage(cy - (h * sy) / 2)) + 0,
      width: round(Math.max(0.1, w * sx)),
      height: round(Math.max(0.1, h * sy)),
    },
    ...(rotation ? { rotation } : {}),
    ...(flipped ? { flip: "y" as const } : {}),
  };
}

function lineFrame(shape: XmlNode): { frame: Frame; flip?: "x" | "y" | "xy" } {
  const [x1, y1, x2, y2] = ["x1", "y1", "x2", "y2"].map((name) => inPage(points(attribute(shape, name)) ?? 0)) as [
    number,
    number,
    number,
    number,
  ];
  const flip = `${x2 < x1 ? "x" : ""}${y2 < y1 ? "y" : ""}` as "" | "x" | "y" | "xy";
  return {
    frame: {
      x: round(Math.min(x1, x2)),
      y: round(Math.min(y1, y2)),
      width: round(Math.max(0.01, Math.abs(x2 - x1))),
      height: round(Math.max(0.01, Math.abs(y2 - y1))),
    },
    ...(flip ? { flip } : {}),
  };
}

/** Returns path data over a view box as a geometry; `open` when it is not closed. */
function pathForm(d: string, viewBox: string | undefined): Geometry | undefined {
  const [left = 0, top = 0, width = 0, height = 0] = (viewBox ?? "")
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  if (!d.trim() || d.length > 200_000) return undefined;
  const path = new SvgPath(d);
  if (path.toString().length < 4) return undefined;
  const wide = width > 0 ? width : 1;
  const tall = height > 0 ? height : 1;
  const drawn: string[] = [];
  path
    .abs()
    .unshort()
    .translate(-left, -top)
    .round(3)
    .iterate(([name, ...values], _, x, y) => {
      if (name === "H") drawn.push(`L${values[0]} ${y}`);
      else if (name === "V") drawn.push(`L${x} ${values[0]}`);
      else drawn.push(`${name}${values.join(" ")}`);
    });
  return { width: wide, height: tall, paths: [{ d: drawn.join(""), fill: /z/i.test(d), stroke: true }] };
}

const polygon = (list: string, closed: boolean) => {
  const pairs = list
    .trim()
    .split(/\s+/)
    .filter((pair) => /^-?[\d.]+,-?[\d.]+$/.test(pair));
  return pairs.length < 2 ? "" : `M${pairs.map((pair) => pair.replace(",", " ")).join("L")}${closed ? "Z" : ""}`;
};

function formOf(shape: XmlNode, frame: Frame): { geometry: Geometry; flip?: Element["flip"] } {
  switch (localName(shape)) {
    case "rect":
    case "caption": {
      const radius = points(attribute(shape, "corner-radius")) ?? 0;
      return {
        geometry:
          radius > 0
            ? {
                preset: "roundRect",
                adjust: {
                  adj: Math.round(
                    Math.min(50000, (radius / Math.max(0.1, Math.min(frame.width, frame.height))) * 100000),
                  ),
                },
              }
            : { preset: "rect" },
      };
    }
    case "ellipse":
    case "circle":
      return { geometry: ellipseForm(shape) };
    case "regular-polygon":
      return { geometry: regular(shape) };
    case "polygon":
    case "polyline":
      return {
        geometry: pathForm(
          polygon(attribute(shape, "points") ?? "", localName(shape) === "polygon"),
          attribute(shape, "viewBox"),
        ) ?? { preset: "rect" },
      };
    case "path":
      return { geometry: pathForm(attribute(shape, "d") ?? "", attribute(shape, "viewBox")) ?? { preset: "rect" } };
    case "custom-shape": {
      const element = child(shape, "enhanced-geometry");
      if (!element) return { geometry: { preset: "rect" } };
      const preset = presetNamed(attribute(element, "type"));
      const flip =
        `${attribute(element, "mirror-horizontal") === "true" ? "x" : ""}${attribute(element, "mirror-vertical") === "true" ? "y" : ""}` as
          | ""
          | "x"
          | "y"
          | "xy";
      const modifiers = (attribute(element, "modifiers") ?? "").trim();
      const plain =
        preset === "rect" ||
        preset === "ellipse" ||
        (preset !== undefined && knowsPreset(preset) && !modifiers && !attribute(element, "enhanced-path"));
      return {
        geometry: plain
          ? { preset: must(preset) }
          : (readEnhancedGeometry(element, frame.width, frame.height) ?? {
              preset: preset && knowsPreset(preset) ? preset : "rect",
            }),
        ...(flip ? { flip } : {}),
      };
    }
    default:
      return { geometry: { preset: "line" } };
  }
}

/** Reads how text is set in a shape: where its geometry has a text area, insets extend to that area. */
function boxIn(shape: XmlNode, geometry: Geometry, { width, height }: Frame, box: TextBox): TextBox {
  const element = child(shape, "enhanced-geometry");
  const margins = element && !("preset" in geometry) ? textMargins(element, width, height) : undefined;
  if (!margins?.some((margin) => margin > 0)) return box;
  const insets = box.insets ?? [0, 0, 0, 0];
  return {
    ...box,
    insets: margins.map((margin, side) => Math.round((margin + (insets[side] ?? 0)) * 100) / 100) as TextBox["insets"],
  };
}

/** Reads shapes of other programs at their places, with the formatting of the file. */
export class ShapeReader {
  private readonly onDark: TextReader;
  constructor(private readonly work: ShapeWork) {
    this.onDark = { ...work.text, automatic: LIGHT };
  }

  /** Whether text of a shape is on something dark: the shape's fill, or else the page. */
  private darkUnder(graphic: Values): boolean {
    if (graphic.fill === undefined || graphic.fill === "none") return this.work.dark;
    const ground = backgroundColour(readFill(graphic, this.work.styles.drawn, () => undefined));
    return ground === undefined ? this.work.dark : isDark(ground);
  }

  /** Returns the properties of a shape's style; `outline` is the style name before the numbers of its levels. */
  properties(shape: XmlNode): { properties: Properties; outline?: string } {
    const { styles } = this.work;
    const presentation = attribute(shape, "presentation:style-name") ?? shape.attributes["presentation:style-name"];
    const family = presentation === undefined ? "graphic" : "presentation";
    const name = presentation ?? shape.attributes["draw:style-name"] ?? attribute(shape, "style-name");
    const properties = styles.properties(family, name);
    for (
      let next: string | undefined = name, depth = 0;
      next !== undefined && depth < 20;
      next = styles.parentOf(family, next), depth++
    ) {
      const [, base] = /^(.*outline)1$/i.exec(next) ?? [];
      if (base !== undefined) return { properties, outline: base };
    }
    return { properties };
  }

  private paint(graphic: Values): Pick<Element, "fill" | "stroke" | "shadow"> {
    const { styles, picture } = this.work;
    const fill = readFill(graphic, styles.drawn, (image) => picture(attribute(image, "href"), image));
    const stroke = readStroke(graphic, styles.drawn);
    const shadow = readShadow(graphic);
    return { ...(fill ? { fill } : {}), ...(stroke ? { stroke } : {}), ...(shadow ? { shadow } : {}) };
  }

  private looked(
    children: readonly XmlNode[],
    properties: Properties,
    outline?: string,
    blank = false,
  ): { text: RichText; style: string } {
    const { text, style } = readStyledText(
      children,
      this.darkUnder(properties.graphic) ? this.onDark : this.work.text,
      properties,
      outline,
      blank,
    );
    return { text, style: this.work.style(style) };
  }

  /** Returns a style without bold and italic: cells may differ in these. */
  private unmarked(style: string): string {
    const levels = this.work.styled(style) ?? [];
    return this.work.style(levels.map(({ strong: _, emphasis: __, ...level }) => level));
  }

  /** Reads a frame or shape as an element; undefined when it shows nothing. */
  element(shape: XmlNode, base: Base, alt: string): Element | undefined {
    const kind = localName(shape);
    const { link, ...given } = base;
    const named = {
      ...given,
      ...(attribute(shape, "name") && !given.name ? { name: must(attribute(shape, "name")).slice(0, 300) } : {}),
    };
    if (kind === "frame") return this.frame(shape, named, alt, link);
    const led = kind === "connector" ? connectorForm(shape) : undefined;
    const standing = led
      ? { frame: led.frame }
      : kind === "line" || kind === "connector" || kind === "measure"
        ? lineFrame(shape)
        : transformOf(shape);
    if (!standing) return undefined;
    const { properties } = this.properties(shape);
    const { text, style } = this.looked(shape.children, properties);
    const { geometry, flip } = led ? { geometry: led.geometry, flip: undefined } : formOf(shape, standing.frame);
    const paint = this.paint(properties.graphic);
    const lined = kind === "line" || kind === "measure" || kind === "connector" || kind === "polyline";
    const straight = "preset" in geometry && geometry.preset === "line";
    const { flip: turned, ...stands } = standing as { frame: Frame; rotation?: number; flip?: Element["flip"] };
    const mirrored = flip ?? (lined && !straight ? undefined : turned);
    if (lined) delete paint.fill;
    if (isEmptyText(text) && !paint.fill && !paint.stroke && !link) return undefined;
    return {
      kind: "shape",
      ...named,
      ...stands,
      ...(mirrored ? { flip: mirrored } : {}),
      ...paint,
      geometry,
      text,
      style,
      box: isEmptyText(text)
        ? readBox(properties, kind === "custom-shape")
        : boxIn(shape, geometry, standing.frame, readBox(properties, kind === "custom-shape")),
      ...(alt ? { alt } : {}),
      ...(link ? { link } : {}),
    } as Element;
  }

  private frame(shape: XmlNode, base: Omit<Base, "link">, alt: string, link: string | undefined): Element | undefined {
    const { work } = this;
    const standing = transformOf(shape) ?? { frame: { x: 72, y: 72, width: 240, height: 120 } };
    const { properties, outline } = this.properties(shape);
    const part = (name: string) => child(shape, name);
    // A frame may contain alternatives of one picture: the first that can be shown counts (10.4.2).
    const images = childrenOf(shape, "image");
    const shown = (): string | undefined => {
      for (const one of images) {
        const found = work.picture(attribute(one, "href"), one);
        if (found !== undefined) return found;
      }
      return undefined;
    };
    const box = part("text-box");
    if (box) {
      const { text, style } = this.looked(box.children, properties, outline);
      const paint = this.paint(properties.graphic);
      const empty = isEmptyText(text);
      if (empty && link)
        return {
          kind: "shape",
          ...base,
          ...standing,
          ...paint,
          geometry: { preset: "rect" },
          text: [],
          link,
        } as Element;
      if (empty && !paint.fill && !paint.stroke) return undefined;
      return {
        kind: "text",
        ...base,
        ...standing,
        ...paint,
        text: link ? linkWholeText(text, link) : text,
        style,
        box: readBox(properties),
      } as Element;
    }
    const table = part("table");
    if (table) {
      const read = this.table(table, standing.frame);
      return read && ({ ...base, frame: standing.frame, ...read } as Element);
    }
    const object = part("object") ?? part("object-ole");
    const plugin = part("plugin") ?? part("applet") ?? part("floating-frame");
    if (plugin) {
      const media = work.media(attribute(plugin, "href"));
      const poster = shown();
      if (media)
        return { kind: "media", ...base, ...standing, ...media, ...(poster ? { poster } : {}), alt } as Element;
    }
    if (object || plugin) return this.object((object ?? plugin) as XmlNode, base, standing, alt, shown);
    if (!images.length) return undefined;
    const source = shown();
    if (!source) {
      work.report.left.push({
        slide: work.number,
        what: alt || base.name ? `the picture “${alt || base.name}”` : "a picture without a name",
        why: "its file is missing, or of a kind that is not read (PNG, JPEG, GIF, SVG, WMF, EMF, TIFF and BMP are)",
      });
      return undefined;
    }
    const { graphic } = properties;
    const anew = work.drawn(source);
    if (anew)
      work.report.adapted.push({
        slide: work.number,
        what: alt || base.name ? `the picture “${alt || base.name}”` : "a picture without a name",
        how: `${anew}; an .odp keeps them`,
      });
    const size = work.size(source);
    const clip = /^rect\(([^)]*)\)$/
      .exec((graphic.clip ?? "").trim())?.[1]
      ?.split(/[\s,]+/)
      .map((value) => points(value) ?? 0);
    const [w, h] = [(size?.width ?? 0) * 0.75, (size?.height ?? 0) * 0.75];
    const cut = (value: number | undefined, of: number) => Math.round(((value ?? 0) / of) * 10000) / 10000;
    const crop =
      clip && clip.length === 4 && w && h
        ? { left: cut(clip[3], w), top: cut(clip[0], h), right: cut(clip[1], w), bottom: cut(clip[2], h) }
        : undefined;
    const opacity = share(graphic["image-opacity"]);
    const recolour = (
      { greyscale: "grey", mono: "mono", watermark: "washout" } as Record<string, PictureElement["recolour"]>
    )[graphic["color-mode"] ?? ""];
    const mirror = graphic.mirror ?? "none";
    const flip = `${/horizontal/.test(mirror) ? "x" : ""}${/vertical/.test(mirror) ? "y" : ""}`;
    return {
      kind: "picture",
      ...base,
      ...standing,
      ...(flip ? { flip } : {}),
      ...this.paint(graphic),
      source,
      alt,
      ...(crop &&
      Object.values(crop).some((value) => value !== 0) &&
      crop.left + crop.right < 0.99 &&
      crop.top + crop.bottom < 0.99
        ? { crop }
        : {}),
      ...(opacity !== undefined && opacity < 1 ? { opacity: Math.max(0, opacity) } : {}),
      ...(recolour ? { recolour } : {}),
      ...(link ? { link } : {}),
    } as Element;
  }

  private object(
    object: XmlNode,
    base: Omit<Base, "link">,
    standing: { frame: Frame },
    alt: string,
    shown: () => string | undefined,
  ): Element | undefined {
    const { work } = this;
    const content = work.object(attribute(object, "href"), object);
    const chart = content && readChart(content);
    if (chart) {
      const { unlike, ...shown } = chart;
      if (unlike)
        work.report.adapted.push({
          slide: work.number,
          what: `the chart ${base.name ? `“${base.name}”` : "without a name"}`,
          how: `without ${unlike}`.replace("without a ", "as a ").replace("without an ", "as an "),
        });
      const more = base.sourceShape ? unsupportedChartFeatures(content) : [];
      if (more.length && work.number !== null)
        work.report.adapted.push({
          slide: work.number,
          what: `${joinWithAnd(more)} of ${base.name ? `“${base.name}”` : "a chart"}`,
          how: "not drawn; an .odp keeps it as long as the chart is not reformatted here",
        });
      const kept = base.sourceShape && {
        ...base.sourceShape,
        ...(takesData(content) ? { data: true } : {}),
        ...(more.length ? { unsupported: [...(base.sourceShape.unsupported ?? []), ...more] } : {}),
      };
      return { kind: "chart", ...base, ...(kept ? { sourceShape: kept } : {}), ...standing, ...shown } as Element;
    }
    const math = content && (localName(content) === "math" ? content : undefined);
    const tex = math ? mathmlTex(math).trim() : "";
    if (tex) return { kind: "formula", ...base, ...standing, tex } as Element;
    const picture = shown();
    return {
      kind: "foreign",
      ...base,
      ...standing,
      what: math ? "a formula" : "an embedded object",
      text: alt ? plainText(alt) : [],
      alt,
      ...(picture ? { picture } : {}),
    } as Element;
  }

  private table(table: XmlNode, frame: Frame): Omit<TableElement, "id" | "slot" | "frame"> | undefined {
    const { styles } = this.work;
    const repeated = (element: XmlNode, name: string, most: number) =>
      Math.min(most, Math.max(1, Number(attribute(element, name) ?? 1) || 1));
    const columns = gather(table, "table-column", "table-header-columns", "table-columns")
      .flatMap(({ element }) =>
        Array.from({ length: repeated(element, "number-columns-repeated", 200) }, () => element),
      )
      .slice(0, 200);
    const rows = gather(table, "table-row", "table-header-rows", "table-rows")
      .flatMap(({ element, head }) =>
        Array.from({ length: repeated(element, "number-rows-repeated", 500) }, () => ({ element, head })),
      )
      .slice(0, 2000);
    within("cells", rows.length * columns.length, "table");
    if (!rows.length || !columns.length) return undefined;
    const flag = (name: string) => attribute(table, name) === "true";
    const template = styles.drawn.get(`table-template ${attribute(table, "template-name")}`);
    const templated = (x: number, y: number): string | undefined => {
      const part = (name: string) => attribute(child(template, name), "style-name");
      if (!template) return undefined;
      if (flag("use-first-row-styles") && y === 0) return part("first-row");
      if (flag("use-last-row-styles") && y === rows.length - 1) return part("last-row");
      if (flag("use-first-column-styles") && x === 0) return part("first-column");
      if (flag("use-last-column-styles") && x === columns.length - 1) return part("last-column");
      const band = flag("use-banding-rows-styles")
        ? part(y % 2 ? "odd-rows" : "even-rows")
        : flag("use-banding-columns-styles")
          ? part(x % 2 ? "odd-columns" : "even-columns")
          : undefined;
      return band ?? part("body");
    };
    const covered = new Set<string>();
    let first: string | undefined;
    const grid = rows.map(({ element: row }, y) => {
      const cells: (Cell | null)[] = [];
      for (const cell of row.children) {
        const kind = localName(cell);
        if (kind !== "table-cell" && kind !== "covered-table-cell") continue;
        for (
          let copy = repeated(cell, "number-columns-repeated", 200);
          copy > 0 && cells.length < columns.length;
          copy--
        ) {
          const x = cells.length;
          if (kind === "covered-table-cell" || covered.has(`${y}/${x}`)) {
            cells.push(null);
            continue;
          }
          const own =
            attribute(cell, "style-name") ??
            attribute(row, "default-cell-style-name") ??
            attribute(columns[x], "default-cell-style-name");
          const usual = templated(x, y);
          // Without a template, text has the style of the default cell, where a file has one (common practice, no
          // source).
          const base =
            usual === undefined
              ? { ...styles.properties("table-cell", undefined), text: styles.properties("table-cell", "default").text }
              : styles.properties("table-cell", usual);
          const properties = own === undefined ? base : styles.said("table-cell", own, base);
          const { text, style } = this.looked(cell.children, properties, undefined, true);
          first ??= this.unmarked(style);
          const [wide, tall] = [
            Math.min(repeated(cell, "number-columns-spanned", 200), columns.length - x),
            Math.min(repeated(cell, "number-rows-spanned", 500), rows.length - y),
          ];
          for (let dy = 0; dy < tall; dy++)
            for (let dx = 0; dx < wide; dx++) if (dx || dy) covered.add(`${y + dy}/${x + dx}`);
          const words = withTableStyle(text, style, first, this.work);
          cells.push({
            text: isEmptyText(words) && !words.some((paragraph) => paragraph.properties?.words) ? [] : words,
            ...(wide > 1 ? { columns: wide } : {}),
            ...(tall > 1 ? { rows: tall } : {}),
            ...cellProperties(properties, this.paint(properties.graphic)),
          });
        }
      }
      while (cells.length < columns.length) cells.push(covered.has(`${y}/${cells.length}`) ? null : { text: [] });
      return cells;
    });
    const said = columns.map(
      (column) => points(styles.properties("table-column", attribute(column, "style-name")).cell["column-width"]) ?? 0,
    );
    const all = said.reduce((sum, width) => sum + width, 0);
    const widths = said.map((width) => round(all > 0 ? (width / all) * frame.width : frame.width / columns.length));
    const heights = rows.map(({ element }) => {
      const { cell } = styles.properties("table-row", attribute(element, "style-name"));
      return round(points(cell["row-height"] ?? cell["min-row-height"]) ?? 0);
    });
    const header = rows.findIndex(({ head }) => !head);
    return {
      kind: "table",
      rows: grid,
      header: header > 0 ? header : flag("use-first-row-styles") ? 1 : 0,
      align: columns.map(() => "start" as const),
      widths,
      heights,
      ...(first ? { style: first } : {}),
    };
  }
}

function gather(
  holder: XmlNode,
  name: string,
  headers: string,
  body: string,
  head = false,
): { element: XmlNode; head: boolean }[] {
  return holder.children.flatMap((part) => {
    const kind = localName(part);
    if (kind === name) return [{ element: part, head }];
    if (kind === headers) return gather(part, name, headers, body, true);
    return kind === body || kind === `${name}-group` ? gather(part, name, headers, body, head) : [];
  });
}
