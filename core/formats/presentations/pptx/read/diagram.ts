import { type Element, isEmptyText } from "@unitext/core/model";
import { child, type XmlElement } from "../../../shared/xml";
import { transformOf } from "./transform";

/**
 * Splits a diagram shape into its geometry and, over it, its text, where the drawing gives the text a place of its own
 * (`txXfrm`: upright, turned against its shape; the name from memory).
 */
export function splitDiagramShape(element: Element, shape: XmlElement, newId: () => string): Element[] {
  const own = transformOf(child(shape, "txXfrm"));
  if (!own || (element.kind !== "shape" && element.kind !== "text") || isEmptyText(element.text)) return [element];
  const { rotation, style, box, text, sourceShape } = element;
  const turned = ((((rotation ?? 0) + own.rotation) % 360) + 360) % 360;
  const form: Element = {
    ...element,
    kind: "shape",
    geometry: element.kind === "shape" ? element.geometry : { preset: "rect" },
    text: [],
  };
  return [
    form,
    {
      kind: "text",
      id: newId(),
      slot: null,
      frame: own.frame,
      ...(turned ? { rotation: turned } : {}),
      style,
      box,
      text,
      sourceShape,
    } as Element,
  ];
}
