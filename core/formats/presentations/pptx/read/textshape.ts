import { type Element, isEmptyText, linkWholeText } from "@unitext/core/model";
import { child, childrenOf, type XmlElement } from "../../../shared/xml";
import { readGeometry, readShadow, shapeFill } from "./drawing";
import { shapeLine } from "./line";
import type { PlaceholderRef } from "./inherit";
import { holdsDisplay } from "./text";
import type { ShapeWork, ShapeBase } from "./shapework";
import { adapted, linkOf, readShapeText } from "./shapetext";

/** Rectangles whose text area is the whole shape: with text they are text boxes. */
const WIDE_RECTS = new Set(["rect", "flowChartProcess"]);

/** Reads a shape or text box. Returns undefined when there is nothing to see. */
export function readTextShape(
  work: ShapeWork,
  shape: XmlElement,
  ref: PlaceholderRef | undefined,
  base: ShapeBase,
  named: Record<string, string>,
): Element | undefined {
  const chain = work.inheritance.chain(ref).map((other) => child(other, "spPr"));
  const properties = child(shape, "spPr");
  const style = child(shape, "style");
  const fill = shapeFill([properties, ...chain], style, work.drawing);
  const stroke = shapeLine([properties, ...chain], style, work.drawing);
  const shadow = readShadow(properties, work.drawing);
  const geometry = readGeometry(properties, base.frame ?? { x: 0, y: 0, width: 1, height: 1 }, (preset) =>
    adapted(work, `the form “${preset}”`, "drawn as a rectangle; a .pptx keeps the form"),
  ) ?? { preset: "rect" };
  const { text, style: named_, box } = readShapeText(work, shape, ref);
  const paint = { ...(fill ? { fill } : {}), ...(stroke ? { stroke } : {}), ...(shadow ? { shadow } : {}) };
  const empty = isEmptyText(text);
  const [alone, ...others] = text.flatMap(({ runs }) => runs);
  if (
    alone?.marks?.includes("formula") &&
    !others.length &&
    !ref &&
    childrenOf(child(shape, "txBody"), "p").some(holdsDisplay)
  )
    return { kind: "formula", ...base, tex: alone.text };
  const plain = "preset" in geometry && WIDE_RECTS.has(geometry.preset);
  const link = linkOf(work, shape);
  if (!empty && (plain || ref))
    return { kind: "text", ...base, style: named_, box, ...paint, text: link ? linkWholeText(text, link) : text };
  if (empty && ref) return undefined;
  if (empty && !fill && !stroke && !link) return undefined;
  return {
    kind: "shape",
    ...base,
    ...(empty ? {} : { style: named_, box }),
    ...paint,
    geometry,
    text,
    ...(named.descr ? { alt: named.descr } : {}),
    ...(link ? { link } : {}),
  };
}

/** Reads a connector as a line. */
export function readConnector(
  work: ShapeWork,
  shape: XmlElement,
  base: ShapeBase,
  named: Record<string, string>,
): Element {
  const properties = child(shape, "spPr");
  const stroke = shapeLine([properties], child(shape, "style"), work.drawing) ?? { colour: "#000000", width: 0.75 };
  const geometry = readGeometry(properties, base.frame ?? { x: 0, y: 0, width: 1, height: 1 }, (preset) =>
    adapted(work, `the connector “${preset}”`, "drawn as a rectangle; a .pptx keeps it"),
  ) ?? { preset: "line" };
  const link = linkOf(work, shape);
  return {
    kind: "shape",
    ...base,
    stroke,
    geometry,
    text: [],
    ...(named.descr ? { alt: named.descr } : {}),
    ...(link ? { link } : {}),
  };
}
