import { type Deck, escapeXml, hasNotes } from "@unitext/core/model";
import { XML_HEAD, xml } from "../../../shared/xml";

/** Writes the core properties (ECMA-376-2, 11): title, author, subject, language and creation time. */
export function coreProperties(
  { properties: { title, author, event }, language }: Pick<Deck, "properties" | "language">,
  at: Date,
): string {
  const text = (name: string, value: string) => (value ? xml(name, {}, escapeXml(value)) : "");
  const moment = `${at.toISOString().slice(0, 19)}Z`;
  const core = {
    "xmlns:cp": "http://schemas.openxmlformats.org/package/2006/metadata/core-properties",
    "xmlns:dc": "http://purl.org/dc/elements/1.1/",
    "xmlns:dcterms": "http://purl.org/dc/terms/",
    "xmlns:xsi": "http://www.w3.org/2001/XMLSchema-instance",
  };
  const time = (name: string) => `<${name} xsi:type="dcterms:W3CDTF">${moment}</${name}>`;
  return (
    XML_HEAD +
    xml(
      "cp:coreProperties",
      core,
      text("dc:title", title),
      text("dc:subject", event),
      text("dc:creator", author),
      text("dc:language", language),
      time("dcterms:created"),
      time("dcterms:modified"),
    )
  );
}

/** Writes the standard's counts of a presentation (ECMA-376-1, 22.2): slides, slides with notes, and hidden slides. */
export function appProperties({ slides }: Pick<Deck, "slides">): string {
  const app = { xmlns: "http://schemas.openxmlformats.org/officeDocument/2006/extended-properties" };
  return (
    XML_HEAD +
    xml(
      "Properties",
      app,
      "<Application>Unitext</Application>",
      `<Slides>${slides.length}</Slides>`,
      `<Notes>${slides.filter(hasNotes).length}</Notes>`,
      `<HiddenSlides>${slides.filter(({ hidden }) => hidden).length}</HiddenSlides>`,
    )
  );
}
