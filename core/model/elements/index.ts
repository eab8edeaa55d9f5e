import { z } from "zod";
import type { ElementDescriptor } from "./base";
import { TextElement, textKind } from "./text";
import { PictureElement, pictureKind } from "./picture";
import { TableElement, tableKind } from "./table";
import { CodeElement, codeKind } from "./code";
import { FormulaElement, formulaKind } from "./formula";
import { DiagramElement, diagramKind } from "./diagram";
import { ChartElement, chartKind } from "./chart";
import { ShapeElement, shapeKind } from "./shape";
import { MediaElement, mediaKind } from "./media";
import { ForeignElement, foreignKind } from "./foreign";

export * from "./base";
export * from "./text";
export * from "./picture";
export * from "./table";
export * from "./code";
export * from "./formula";
export * from "./diagram";
export * from "./chart";
export * from "./shape";
export * from "./media";
export * from "./foreign";

export const Element = z.discriminatedUnion("kind", [
  TextElement,
  PictureElement,
  TableElement,
  CodeElement,
  FormulaElement,
  DiagramElement,
  ChartElement,
  ShapeElement,
  MediaElement,
  ForeignElement,
]);
export type Element = z.infer<typeof Element>;
export type ElementKind = Element["kind"];

/** The kinds of elements. */
export const ELEMENTS: { [K in ElementKind]: ElementDescriptor<Extract<Element, { kind: K }>> } = {
  text: textKind,
  picture: pictureKind,
  table: tableKind,
  code: codeKind,
  formula: formulaKind,
  diagram: diagramKind,
  chart: chartKind,
  shape: shapeKind,
  media: mediaKind,
  foreign: foreignKind,
};

/** Returns the descriptor of an element's kind. */
export const kindOf = (element: Element) => ELEMENTS[element.kind] as ElementDescriptor<Element>;
