import { must } from "@unitext/core/model";
import { unsupportedChartFeatures } from "./unsupportedchart";
import { at, child, childrenOf, localName, type XmlElement } from "../../../shared/xml";
import { isNumberScheme } from "./styles";

const EFFECTS: Record<string, string> = {
  glow: "the glow",
  innerShdw: "the inner shadow",
  reflection: "the reflection",
  softEdge: "the soft edge",
  blur: "the blur",
  fillOverlay: "the overlay",
};
const BLIP: Record<string, string> = {
  clrChange: "the colour that is made clear",
  tint: "the tint",
  hsl: "the changed hues",
  biLevelThresh: "the threshold",
};

/**
 * Names the features of a shape, and of its chart, that Unitext neither draws nor models (ECMA-376-1, 20.1.8 and
 * 20.1.5), for the report.
 */
export function unsupportedFeatures(shape: XmlElement, chart: XmlElement | undefined): string[] {
  const found = new Set<string>();
  const properties = child(shape, "spPr");
  for (const effect of child(properties, "effectLst")?.children ?? [])
    if (EFFECTS[localName(effect)]) found.add(must(EFFECTS[localName(effect)]));
  if (child(properties, "effectDag")) found.add("its effects");
  if (child(properties, "scene3d") || child(properties, "sp3d")) found.add("the depth");
  for (const effect of at(shape, "blipFill", "blip")?.children ?? [])
    if (BLIP[localName(effect)]) found.add(must(BLIP[localName(effect)]));
  if (
    at(shape, "blipFill", "blip", "extLst")?.children.some((part) =>
      part.children.some((inner) => localName(inner) === "imgProps"),
    )
  )
    found.add("the artistic effect");
  const body = child(shape, "txBody");
  const warp = at(body, "bodyPr", "prstTxWarp")?.attributes.prst;
  if (warp !== undefined && warp !== "textNoShape") found.add("the bent letters");
  if (at(body, "bodyPr", "scene3d") || at(body, "bodyPr", "sp3d")) found.add("the depth of the letters");
  for (const paragraph of childrenOf(body, "p")) {
    const numbers = at(paragraph, "pPr", "buAutoNum")?.attributes.type;
    if (numbers !== undefined && !isNumberScheme(numbers)) found.add("the kind of its numbers");
    for (const run of paragraph.children) {
      const looks = child(run, "rPr");
      if (looks?.attributes.strike === "dblStrike") found.add("the second line through letters");
      if (child(looks, "effectLst")?.children.length) found.add("the effects of letters");
      const line = child(looks, "ln");
      if (line && !child(line, "noFill") && line.children.length) found.add("the outline of letters");
      if (child(looks, "gradFill") || child(looks, "blipFill") || child(looks, "pattFill"))
        found.add("the fill of letters");
    }
  }
  for (const row of childrenOf(at(shape, "graphic", "graphicData", "tbl"), "tr")) {
    for (const cell of childrenOf(row, "tc"))
      if (at(cell, "tcPr", "lnTlToBr") || at(cell, "tcPr", "lnBlToTr")) found.add("the diagonal lines");
  }
  if (shape.children.some((part) => localName(part).startsWith("nv") && at(part, "cNvPr", "hlinkHover")))
    found.add("the link that opens by pointing");
  if (chart) for (const what of unsupportedChartFeatures(chart)) found.add(what);
  return [...found];
}
