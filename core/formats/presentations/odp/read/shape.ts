import { type Element, type Frame, isEmptyText, must } from "@unitext/core/model";
import { localName, type XmlNode, attribute } from "../../../shared/xml";
import { connectorForm } from "./connector";
import { readBox } from "./graphics";
import { transformOf, lineFrame, formOf, boxIn } from "./shapegeometry";
import { readFrame } from "./frame";
import type { Base, ShapeStyles } from "./shapestyles";

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

/** Reads a frame or shape as an element; undefined when it shows nothing. */
export function readShape(styles: ShapeStyles, shape: XmlNode, base: Base, alt: string): Element | undefined {
  const kind = localName(shape);
  const { link, ...given } = base;
  const named = {
    ...given,
    ...(attribute(shape, "name") && !given.name ? { name: must(attribute(shape, "name")).slice(0, 300) } : {}),
  };
  if (kind === "frame") return readFrame(styles, shape, named, alt, link);
  const connector = kind === "connector" ? connectorForm(shape) : undefined;
  const transform = connector
    ? { frame: connector.frame }
    : kind === "line" || kind === "connector" || kind === "measure"
      ? lineFrame(shape)
      : transformOf(shape);
  if (!transform) return undefined;
  const { properties } = styles.properties(shape);
  const { text, style } = styles.text(shape.children, properties);
  const { geometry, flip } = connector
    ? { geometry: connector.geometry, flip: undefined }
    : formOf(shape, transform.frame);
  const paint = styles.paint(properties.graphic);
  const isLine = kind === "line" || kind === "measure" || kind === "connector" || kind === "polyline";
  const straight = "preset" in geometry && geometry.preset === "line";
  const { flip: turned, ...placed } = transform as { frame: Frame; rotation?: number; flip?: Element["flip"] };
  const mirrored = flip ?? (isLine && !straight ? undefined : turned);
  if (isLine) delete paint.fill;
  if (isEmptyText(text) && !paint.fill && !paint.stroke && !link) return undefined;
  return {
    kind: "shape",
    ...named,
    ...placed,
    ...(mirrored ? { flip: mirrored } : {}),
    ...paint,
    geometry,
    text,
    style,
    box: isEmptyText(text)
      ? readBox(properties, kind === "custom-shape")
      : boxIn(shape, geometry, transform.frame, readBox(properties, kind === "custom-shape")),
    ...(alt ? { alt } : {}),
    ...(link ? { link } : {}),
  } as Element;
}
