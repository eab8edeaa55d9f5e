import { type ChartOfFile, inDeckDirection } from "../../shared/chartdirection";
import {
  type Element,
  type Frame,
  isEmptyText,
  linkWholeText,
  type PictureElement,
  plainText,
} from "@unitext/core/model";
import { child, childrenOf, localName, type XmlNode, attribute } from "../../../shared/xml";
import { mathmlTex } from "../../../shared/math";
import { points } from "../package/names";
import { joinWithAnd } from "../../../shared/sourcepackage";
import { unsupportedChartFeatures } from "./unsupportedchart";
import { readChart } from "./chart";
import { takesData } from "../patch/updatechart";
import { readBox } from "./graphics";
import { share } from "./properties";
import { transformOf } from "./shapegeometry";
import type { Base, ShapeStyles } from "./shapestyles";
import { readTable } from "./table";

/** A frame with what every element that is read from it has. */
interface FrameParts {
  styles: ShapeStyles;
  base: Omit<Base, "link">;
  alt: string;
  link: string | undefined;
  /** Its position, rotation and reflection. */
  transform: { frame: Frame };
  /** Returns the first of its pictures that can be shown: they are alternatives of one another (10.4.2). */
  picture(): string | undefined;
}

/** Reads a `draw:frame` as the element that it contains; undefined when it shows nothing. */
export function readFrame(
  styles: ShapeStyles,
  shape: XmlNode,
  base: Omit<Base, "link">,
  alt: string,
  link: string | undefined,
): Element | undefined {
  const { work } = styles;
  const transform = transformOf(shape) ?? { frame: { x: 72, y: 72, width: 240, height: 120 } };
  const images = childrenOf(shape, "image");
  const picture = () => {
    for (const one of images) {
      const found = work.picture(attribute(one, "href"), one);
      if (found !== undefined) return found;
    }
    return undefined;
  };
  const parts: FrameParts = { styles, base, alt, link, transform, picture };
  const part = (name: string) => child(shape, name);
  const box = part("text-box");
  if (box) return readTextBox(parts, shape, box);
  const table = part("table");
  if (table) {
    const read = readTable(styles, table, transform.frame);
    return read && ({ ...base, frame: transform.frame, ...read } as Element);
  }
  const plugin = part("plugin") ?? part("applet") ?? part("floating-frame");
  if (plugin) {
    const media = work.media(attribute(plugin, "href"));
    const poster = picture();
    if (media) return { kind: "media", ...base, ...transform, ...media, ...(poster ? { poster } : {}), alt } as Element;
  }
  const object = part("object") ?? part("object-ole") ?? plugin;
  if (object) return readObject(parts, object);
  return images.length ? readPicture(parts, shape) : undefined;
}

function readTextBox({ styles, base, link, transform }: FrameParts, shape: XmlNode, box: XmlNode): Element | undefined {
  const { properties, outline } = styles.properties(shape);
  const { text, style } = styles.text(box.children, properties, outline);
  const paint = styles.paint(properties.graphic);
  const empty = isEmptyText(text);
  if (empty && link)
    return { kind: "shape", ...base, ...transform, ...paint, geometry: { preset: "rect" }, text: [], link } as Element;
  if (empty && !paint.fill && !paint.stroke) return undefined;
  return {
    kind: "text",
    ...base,
    ...transform,
    ...paint,
    text: link ? linkWholeText(text, link) : text,
    style,
    box: readBox(properties),
  } as Element;
}

const RECOLOUR: Record<string, PictureElement["recolour"]> = { greyscale: "grey", mono: "mono", watermark: "washout" };

function readPicture(parts: FrameParts, shape: XmlNode): Element | undefined {
  const { styles, base, alt, link, transform } = parts;
  const { work } = styles;
  const what = alt || base.name ? `the picture “${alt || base.name}”` : "a picture without a name";
  const source = parts.picture();
  if (!source) {
    const why = "its file is missing, or of a kind that is not read (PNG, JPEG, GIF, SVG, WMF, EMF, TIFF and BMP are)";
    work.report.left.push({ slide: work.number, what, why });
    return undefined;
  }
  const { graphic } = styles.properties(shape).properties;
  const converted = work.drawn(source);
  if (converted) work.report.adapted.push({ slide: work.number, what, how: `${converted}; an .odp keeps them` });
  const crop = cropOf(graphic.clip, work.size(source));
  const opacity = share(graphic["image-opacity"]);
  const recolour = RECOLOUR[graphic["color-mode"] ?? ""];
  const mirror = graphic.mirror ?? "none";
  const flip = `${/horizontal/.test(mirror) ? "x" : ""}${/vertical/.test(mirror) ? "y" : ""}`;
  return {
    kind: "picture",
    ...base,
    ...transform,
    ...(flip ? { flip } : {}),
    ...styles.paint(graphic),
    source,
    alt,
    ...(crop ? { crop } : {}),
    ...(opacity !== undefined && opacity < 1 ? { opacity: Math.max(0, opacity) } : {}),
    ...(recolour ? { recolour } : {}),
    ...(link ? { link } : {}),
  } as Element;
}

/** Returns the shares of a picture that `fo:clip` cuts off; undefined when nothing or nearly all is cut off. */
function cropOf(
  value: string | undefined,
  size: { width: number; height: number } | undefined,
): PictureElement["crop"] {
  const clip = /^rect\(([^)]*)\)$/
    .exec((value ?? "").trim())?.[1]
    ?.split(/[\s,]+/)
    .map((side) => points(side) ?? 0);
  // Pixels as points, at 96 per inch.
  const [width, height] = [(size?.width ?? 0) * 0.75, (size?.height ?? 0) * 0.75];
  if (clip?.length !== 4 || !width || !height) return undefined;
  const part = (side: number | undefined, of: number) => Math.round(((side ?? 0) / of) * 10000) / 10000;
  const crop = {
    left: part(clip[3], width),
    top: part(clip[0], height),
    right: part(clip[1], width),
    bottom: part(clip[2], height),
  };
  const isUsable =
    Object.values(crop).some((side) => side !== 0) && crop.left + crop.right < 0.99 && crop.top + crop.bottom < 0.99;
  return isUsable ? crop : undefined;
}

/** Reads an embedded object: a chart, a formula, or something shown by its picture. */
function readObject(parts: FrameParts, object: XmlNode): Element | undefined {
  const { styles, base, alt, transform } = parts;
  const content = styles.work.object(attribute(object, "href"), object);
  const chart = content && readChart(content);
  if (chart) return chartElement(parts, content, chart);
  const math = content && (localName(content) === "math" ? content : undefined);
  const tex = math ? mathmlTex(math).trim() : "";
  if (tex) return { kind: "formula", ...base, ...transform, tex } as Element;
  const picture = parts.picture();
  return {
    kind: "foreign",
    ...base,
    ...transform,
    what: math ? "a formula" : "an embedded object",
    text: alt ? plainText(alt) : [],
    alt,
    ...(picture ? { picture } : {}),
  } as Element;
}

/** Returns a chart as an element, and reports what of it is not drawn. */
function chartElement(
  { styles: { work }, base, transform }: FrameParts,
  content: XmlNode,
  chart: ChartOfFile,
): Element {
  const { number: slide, report } = work;
  const { unlike } = chart;
  if (unlike)
    report.adapted.push({
      slide,
      what: `the chart ${base.name ? `“${base.name}”` : "without a name"}`,
      how: `without ${unlike}`.replace("without a ", "as a ").replace("without an ", "as an "),
    });
  const unsupported = base.sourceShape ? unsupportedChartFeatures(content) : [];
  if (unsupported.length && slide !== null)
    report.adapted.push({
      slide,
      what: `${joinWithAnd(unsupported)} of ${base.name ? `“${base.name}”` : "a chart"}`,
      how: "not drawn; an .odp keeps it as long as the chart is not reformatted here",
    });
  const sourceShape = base.sourceShape && {
    ...base.sourceShape,
    ...(takesData(content) ? { data: true } : {}),
    ...(unsupported.length ? { unsupported: [...(base.sourceShape.unsupported ?? []), ...unsupported] } : {}),
  };
  return {
    kind: "chart",
    ...base,
    ...(sourceShape ? { sourceShape } : {}),
    ...transform,
    ...inDeckDirection(chart, work.text.language ?? "en"),
  } as Element;
}
