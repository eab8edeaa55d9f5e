import type { Element, ElementKind, SlotRole } from "@unitext/core/model";
import { xml } from "../../../shared/xml";
import { ShapeMath } from "./math";
import { type Placeholder, placeholderOf } from "../package/names";
import type { ShapeWork } from "./slidework";
import { pictureShape, mediaShape, foreignShape } from "./pictures";
import { chartShape, tableShape } from "./graphicframe";
import { figureText, formattedShape, textShape, formulaShape } from "./textshape";

/** The writers of element kinds. */
const SHAPES: { [K in ElementKind]: (element: Extract<Element, { kind: K }>, work: ShapeWork) => string } = {
  text: textShape,
  picture: pictureShape,
  table: tableShape,
  chart: chartShape,
  diagram: figureText,
  code: figureText,
  formula: formulaShape,
  shape: (element, work) => formattedShape(element, work, undefined),
  media: mediaShape,
  foreign: foreignShape,
};

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
