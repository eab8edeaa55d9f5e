import { cutText, type Element, type RichText } from "@unitext/core/model";
import { at, child, localName, type XmlElement } from "../../../shared/xml";
import { relationOf, readFill } from "./drawing";
import type { PlaceholderRef } from "./inherit";
import { readBody, switchesOff } from "./text";
import { numberOf, textBox, textStyle } from "./styles";
import type { ShapeWork, ShapeBase } from "./shapework";

/** Returns the link of a whole shape (`a:hlinkClick` of its non-visual properties). */
export function linkOf(work: ShapeWork, shape: XmlElement): string | undefined {
  const properties = shape.children.find((part) => localName(part).startsWith("nv"));
  const click = at(properties, "cNvPr", "hlinkClick");
  return click ? work.link(relationOf(click, "id") ?? "", click.attributes.action ?? "") : undefined;
}

/** Reads a shape's text with the style of its levels. */
export function readShapeText(
  work: ShapeWork,
  shape: XmlElement,
  ref: PlaceholderRef | undefined,
): { text: RichText; style: string; box: ReturnType<typeof textBox> } {
  const { inheritance, styles, defaults, link } = work;
  const body = child(shape, "txBody");
  const chain = inheritance.chain(ref);
  const lists = [
    child(body, "lstStyle"),
    ...(ref ? inheritance.styles(ref) : [child(inheritance.texts, "otherStyle")]),
    defaults,
  ];
  const reference = child(child(shape, "style"), "fontRef");
  const seen = reference && colourOf(work, reference);
  const font =
    reference?.attributes.idx === "major"
      ? styles.fonts.major
      : reference?.attributes.idx === "minor"
        ? styles.fonts.minor
        : undefined;
  const made = () => textStyle(lists, styles, reference ? { colour: seen, font } : undefined);
  let style = work.styleOf(`${lists.map(numberOf).join()}/${seen ?? ""}/${reference ? (font ?? "") : "-"}`, made);
  const weight = {
    strong: style.some(({ strong }) => strong) && switchesOff(body, "b"),
    emphasis: style.some(({ emphasis }) => emphasis) && switchesOff(body, "i"),
  };
  if (weight.strong) style = style.map(({ strong: _, ...level }) => level);
  if (weight.emphasis) style = style.map(({ emphasis: _, ...level }) => level);
  const read = readBody(body, { styles: lists, codeFont: undefined, link, looks: styles, weight });
  return {
    text: read,
    style: work.style(style),
    box: textBox([child(body, "bodyPr"), ...chain.map((other) => at(other, "txBody", "bodyPr"))]),
  };
}

/** Returns the colour inside an element such as `a:fontRef`. Returns undefined when it is not a plain colour. */
export function colourOf(work: ShapeWork, holder: XmlElement): string | undefined {
  const fill = readFill(
    { name: "a:solidFill", local: "solidFill", attributes: {}, children: holder.children, text: "" },
    work.drawing,
  );
  return fill?.kind === "solid" ? fill.colour : undefined;
}

/** Returns an element for something that the model has no kind for, shown by its picture or its words. */
export function foreign(
  what: string,
  base: ShapeBase,
  named: Record<string, string>,
  text: RichText,
  picture?: string,
): Element {
  return {
    kind: "foreign",
    ...base,
    what: cutText(what, 200),
    text,
    ...(picture ? { picture } : {}),
    alt: named.descr ?? "",
  };
}

/** Reports that the reader shows something differently, and how. */
export function adapted(work: ShapeWork, what: string, how: string): void {
  work.report.adapted.push({ slide: work.number, what, how });
}
