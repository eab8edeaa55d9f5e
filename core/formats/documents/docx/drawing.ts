import { child, localName, type XmlElement } from "../../shared/xml";
import { attributeOf } from "./styles";

/** Returns the first descendant with a name, text boxes left out. */
export function found(element: XmlElement, name: string): XmlElement | undefined {
  for (const inner of element.children) {
    if (localName(inner) === name) return inner;
    const deeper = localName(inner) === "txbxContent" ? undefined : found(inner, name);
    if (deeper) return deeper;
  }
  return undefined;
}

/** Returns all descendants with a name. Text boxes that are written twice, for older programs too, are taken once. */
export function foundAll(element: XmlElement, name: string): XmlElement[] {
  return element.children.flatMap((inner) =>
    localName(inner) === name
      ? [inner]
      : localName(inner) === "Fallback" && name === "txbxContent"
        ? []
        : foundAll(inner, name),
  );
}

/** Returns the content of an alternative: the newer form when it can be read, else the fallback. */
export function alternative(element: XmlElement): XmlElement[] {
  const choice = child(element, "Choice");
  const readable = choice && (found(choice, "blip") || foundAll(choice, "txbxContent").length > 0);
  return (readable ? choice : (child(element, "Fallback") ?? choice))?.children ?? [];
}

/**
 * Reads a drawing (ECMA-376-1, 20.4, or VML): the relationship of its picture, its description, the relationship of its
 * link, its text boxes, and whether it is a chart.
 */
export function drawingOf(element: XmlElement): {
  picture: string | undefined;
  alt: string;
  link: string | undefined;
  boxes: XmlElement[];
  chart: boolean;
} {
  const blip = found(element, "blip") ?? found(element, "imagedata");
  return {
    picture: blip ? (attributeOf(blip, "embed") ?? attributeOf(blip, "id")) : undefined,
    alt: found(element, "docPr")?.attributes.descr || attributeOf(found(element, "shape"), "alt") || "",
    link: attributeOf(found(element, "hlinkClick"), "id"),
    boxes: foundAll(element, "txbxContent"),
    chart: found(element, "chart") !== undefined,
  };
}
