import {
  type Cell,
  type Element,
  type Frame,
  isEmptyText,
  linkWholeText,
  type PictureElement,
  plainText,
  type RichText,
  type TableElement,
  type TextStyle,
  within,
  must,
} from "@unitext/core/model";
import type { Report } from "@unitext/core/tally";
import { child, childrenOf, localName, type XmlNode, attribute } from "../../../shared/xml";
import { mathmlTex } from "../../../shared/math";
import { connectorForm } from "./connector";
import { backgroundColour, isDark, LIGHT } from "./background";
import { points } from "../package/names";
import { joinWithAnd } from "../../../shared/sourcepackage";
import { unsupportedChartFeatures } from "./unsupportedchart";
import { cellProperties, withTableStyle } from "./cells";
import { readChart } from "./chart";
import { takesData } from "../patch/updatechart";
import type { OdpStyles } from "./styles";
import { readBox, readShadow, readStroke } from "./graphics";
import { type Properties, share, type Values } from "./properties";
import { readFill } from "./fill";
import { readStyledText, type TextReader } from "./text";
import { round, transformOf, lineFrame, formOf, boxIn } from "./shapegeometry";

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
