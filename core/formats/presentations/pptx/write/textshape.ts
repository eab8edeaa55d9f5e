import { INDENT, paragraphGap, type SceneBox, sizeOf } from "@unitext/core/layout";
import {
  type Element,
  escapeXml,
  isEmptyText,
  NUMBER_SIGN,
  plainText,
  type RegionBox,
  type SlotRole,
} from "@unitext/core/model";
import { xml } from "../../../shared/xml";
import { figureWords, flattenRuns } from "../../../shared/sourcepackage";
import { transform } from "../package/layouts";
import { emu } from "../package/names";
import { paragraphsXml } from "./text";
import { boxXml, geometryXml, shadowXml, transformXml, strokeXml } from "./drawing";
import { listStyleXml } from "./textproperties";
import { type SlideWork, type ShapeWork, paint, clickXml, textBox, textContext, styleOf } from "./slidework";

function autofit(box: SceneBox | undefined, full: number): string {
  const share = box && full > 0 ? box.size / full : 1;
  return `<a:bodyPr>${share < 0.995 ? `<a:normAutofit fontScale="${Math.round(share * 100000)}"/>` : "<a:normAutofit/>"}</a:bodyPr>`;
}

/** Writes a figure as its words in a text box. */
export function figureText(element: Element, work: ShapeWork): string {
  const size = work.box?.size || sizeOf("figure", work.metadata.theme, work.metadata.page);
  const { codeColour: _, ...context } = textContext(work, size, false);
  return textBox(work, paragraphsXml(figureWords(element, work.notes) ?? [], context), size);
}

/** Writes a shape with text in the text style of its file: geometry, fill, outline, insets, levels. */
export function formattedShape(
  element: Extract<Element, { kind: "text" | "shape" }>,
  work: ShapeWork,
  placeholder: string | undefined,
): string {
  const { id, name, frame, notes } = work;
  const style = styleOf(element, work);
  const size = style?.[0]?.run?.size ?? 18;
  const geometry = element.kind === "shape" ? element.geometry : { preset: "rect" };
  const lined =
    element.kind === "shape" &&
    "preset" in geometry &&
    /^(line|.*Connector\d)$/.test(geometry.preset) &&
    isEmptyText(element.text);
  const properties = xml(
    "p:spPr",
    {},
    transformXml(frame, element),
    geometryXml(geometry),
    lined ? strokeXml(element.stroke) + shadowXml(element.shadow) : paint(element, work),
  );
  const alt = element.kind === "shape" ? element.alt : undefined;
  const link = element.kind === "shape" ? element.link : undefined;
  const named = xml("p:cNvPr", { id, name: element.name ?? name, descr: alt }, clickXml(link, work));
  if (lined) return xml("p:cxnSp", {}, xml("p:nvCxnSpPr", {}, named, "<p:cNvCxnSpPr/><p:nvPr/>"), properties);
  const paragraphs = paragraphsXml(flattenRuns(element.text, notes), textContext(work, size, false, style));
  const body = xml(
    "p:txBody",
    {},
    boxXml(element.box, {
      insets: [7.2, 3.6, 7.2, 3.6],
      anchor: element.kind === "shape" ? "middle" : "top",
      fit: "none",
    }),
    style ? listStyleXml(style) : "<a:lstStyle/>",
    paragraphs,
  );
  return xml(
    "p:sp",
    {},
    xml(
      "p:nvSpPr",
      {},
      named,
      element.kind === "text"
        ? xml("p:cNvSpPr", { txBox: placeholder ? undefined : 1 }, placeholder ? '<a:spLocks noGrp="1"/>' : "")
        : "<p:cNvSpPr/>",
      xml("p:nvPr", {}, placeholder ?? ""),
    ),
    properties,
    body,
  );
}

const REGION: Record<RegionBox["region"], object> = {
  date: { type: "dt", sz: "half", idx: 10 },
  footer: { type: "ftr", sz: "quarter", idx: 11 },
  number: { type: "sldNum", sz: "quarter", idx: 12 },
};

/** Writes a footer, number or date where the slide's file places it; a number is a field (ECMA-376-1, 21.1.2.2.4). */
export function regionShape(
  { region, text, frame, style, box }: RegionBox,
  work: Pick<ShapeWork, keyof SlideWork | "id" | "notes">,
): string {
  const words = region === "number" && !text.includes(NUMBER_SIGN) ? NUMBER_SIGN : text;
  const element: Extract<Element, { kind: "text" }> = {
    kind: "text",
    id: "region",
    slot: null,
    frame,
    text: plainText(words),
    ...(style ? { style } : {}),
    ...(box ? { box } : {}),
  };
  return formattedShape(
    element,
    { ...work, name: `${region} ${work.id}`, frame } as ShapeWork,
    xml("p:ph", { ...REGION[region] }),
  );
}

/** Returns the list style of a placeholder whose text has another size or spacing than in its layout; indents follow. */
function sizedStyle(size: number, role: SlotRole | undefined, { layoutTheme, metadata }: ShapeWork): string {
  if (!layoutTheme || role === undefined) return "<a:lstStyle/>";
  const gap = paragraphGap(role, metadata.theme);
  if (sizeOf(role, layoutTheme, metadata.page) === size && paragraphGap(role, layoutTheme) === gap)
    return "<a:lstStyle/>";
  const step = size * INDENT;
  const levels = Array.from({ length: 9 }, (_, nth) =>
    xml(
      `a:lvl${nth + 1}pPr`,
      role === "body" ? { marL: emu((nth + 1) * step), indent: -emu(step) } : {},
      xml("a:spcBef", {}, xml("a:spcPts", { val: Math.round(gap * size * 100) })),
      xml("a:defRPr", { sz: Math.round(size * 100) }),
    ),
  );
  return xml("a:lstStyle", {}, ...levels);
}

/** Writes a text: in its placeholder where it has one and no formatting of its own. */
export function textShape(element: Extract<Element, { kind: "text" }>, work: ShapeWork): string {
  const { metadata, role, box, placeholder, notes } = work;
  if (element.style !== undefined || element.box || element.fill || element.stroke || element.rotation)
    return formattedShape(element, work, placeholder());
  const full = sizeOf(role ?? "body", metadata.theme, metadata.page);
  const held = role === undefined ? undefined : placeholder();
  const paragraphs = paragraphsXml(
    flattenRuns(element.text, notes),
    textContext(
      work,
      box?.size ?? full,
      held !== undefined && role === "body",
      undefined,
      held === undefined ? (box?.size ?? full) : full,
    ),
  );
  if (held === undefined) return textBox(work, paragraphs, box?.size ?? full);
  const own = element.frame ? `${transform(element.frame)}<a:prstGeom prst="rect"><a:avLst/></a:prstGeom>` : "";
  return xml(
    "p:sp",
    {},
    xml(
      "p:nvSpPr",
      {},
      xml("p:cNvPr", { id: work.id, name: element.name ?? work.name }),
      '<p:cNvSpPr><a:spLocks noGrp="1"/></p:cNvSpPr>',
      xml("p:nvPr", {}, held),
    ),
    xml("p:spPr", {}, own),
    xml("p:txBody", {}, autofit(box, full), sizedStyle(full, role, work), paragraphs),
  );
}

/** Writes a formula in Office Math, with its TeX where that cannot be converted. */
export function formulaShape(element: Extract<Element, { kind: "formula" }>, work: ShapeWork): string {
  const size = work.box?.size || sizeOf("figure", work.metadata.theme, work.metadata.page);
  const { math, ...bare } = work;
  const plain = xml(
    "a:r",
    {},
    xml("a:rPr", { lang: work.metadata.language }),
    `<a:t>${escapeXml(element.tex.replace(/\n/g, " "))}</a:t>`,
  );
  const set = math?.formula(element.tex, plain, true);
  return set === undefined
    ? figureText(element, bare)
    : textBox(work, xml("a:p", {}, xml("a:pPr", { algn: "ctr" }), set), size);
}
