import { escapeXml } from "@unitext/core/model";
import { strToU8 } from "fflate";
import { zip } from "../../shared/archive";
import { xml, XML_HEAD } from "../../shared/xml";

const W = "http://schemas.openxmlformats.org/wordprocessingml/2006/main";
const OFFICE = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";
export const NAMESPACES = {
  "xmlns:w": W,
  "xmlns:r": OFFICE,
  "xmlns:wp": "http://schemas.openxmlformats.org/drawingml/2006/wordprocessingDrawing",
  "xmlns:a": "http://schemas.openxmlformats.org/drawingml/2006/main",
  "xmlns:pic": "http://schemas.openxmlformats.org/drawingml/2006/picture",
};
const WML = "application/vnd.openxmlformats-officedocument.wordprocessingml";

/** What the package of a handout is written from. */
interface HandoutContent {
  /** The paragraphs and tables, as WordprocessingML. */
  body: readonly string[];
  /** The addresses that links lead to. */
  links: readonly string[];
  /** The pictures by path. */
  media: ReadonlyMap<string, Uint8Array>;
  language: string;
  title: string;
  author: string;
  at: Date;
}

/** A4 with margins of 2 cm, in twentieths of a point. */
const SECTION =
  '<w:sectPr><w:pgSz w:w="11906" w:h="16838"/><w:pgMar w:top="1134" w:right="1134" w:bottom="1134" w:left="1134" w:header="567" w:footer="567" w:gutter="0"/></w:sectPr>';

const relationshipList = (rows: readonly string[]) =>
  xml("Relationships", { xmlns: "http://schemas.openxmlformats.org/package/2006/relationships" }, ...rows);

function documentRelationships({ links, media }: HandoutContent): string {
  const row = (Id: string, type: string, Target: string, external = false) =>
    xml("Relationship", { Id, Type: `${OFFICE}/${type}`, Target, TargetMode: external ? "External" : undefined });
  return relationshipList([
    row("rStyles", "styles", "styles.xml"),
    row("rNumbering", "numbering", "numbering.xml"),
    ...links.map((to, nth) => row(`rLink${nth}`, "hyperlink", to, true)),
    ...[...media.keys()].map((path, nth) => row(`rImage${nth + 1}`, "image", path)),
  ]);
}

function listDefinition(id: number, kind: "bullet" | "decimal"): string {
  const level = (nth: number) =>
    xml(
      "w:lvl",
      { "w:ilvl": nth },
      '<w:start w:val="1"/>',
      xml("w:numFmt", { "w:val": kind }),
      xml("w:lvlText", { "w:val": kind === "bullet" ? (nth % 2 ? "–" : "•") : `%${nth + 1}.` }),
      xml("w:pPr", {}, xml("w:ind", { "w:left": 360 * (nth + 1), "w:hanging": 360 })),
    );
  return xml("w:abstractNum", { "w:abstractNumId": id }, ...Array.from({ length: 9 }, (_, nth) => level(nth)));
}

const numberingPart = () =>
  xml(
    "w:numbering",
    NAMESPACES,
    listDefinition(1, "bullet"),
    listDefinition(2, "decimal"),
    '<w:num w:numId="1"><w:abstractNumId w:val="1"/></w:num><w:num w:numId="2"><w:abstractNumId w:val="2"/></w:num>',
  );

/** Writes a paragraph style. `size` is in points; `run` and `paragraph` are its other properties. */
function styleXml(id: string, name: string, size: number, run: string, paragraph = ""): string {
  return xml(
    "w:style",
    { "w:type": "paragraph", "w:styleId": id },
    xml("w:name", { "w:val": name }),
    id === "Normal" ? "" : '<w:basedOn w:val="Normal"/>',
    xml("w:pPr", {}, paragraph),
    xml("w:rPr", {}, run, xml("w:sz", { "w:val": size * 2 })),
  );
}

function stylesPart(language: string): string {
  const heading = (before: number, after: number, level: number) =>
    `<w:keepNext/><w:spacing w:before="${before}" w:after="${after}"/><w:outlineLvl w:val="${level}"/>`;
  const fonts = (name: string) => `<w:rFonts w:ascii="${name}" w:hAnsi="${name}" w:cs="${name}"/>`;
  const run = xml("w:rPr", {}, fonts("Carlito"), '<w:sz w:val="22"/>', xml("w:lang", { "w:val": language }));
  return xml(
    "w:styles",
    NAMESPACES,
    xml(
      "w:docDefaults",
      {},
      xml("w:rPrDefault", {}, run),
      xml("w:pPrDefault", {}, '<w:pPr><w:spacing w:after="80"/></w:pPr>'),
    ),
    styleXml("Normal", "Normal", 11, ""),
    styleXml("Title", "Title", 24, "<w:b/>"),
    styleXml("Heading1", "heading 1", 16, "<w:b/>", heading(360, 120, 0)),
    styleXml("Heading2", "heading 2", 13, "<w:b/>", heading(240, 80, 1)),
    styleXml("Notes", "Notes", 10.5, "<w:i/>", '<w:spacing w:after="60"/>'),
    styleXml("Code", "Code", 9.5, fonts("JetBrains Mono"), '<w:spacing w:after="0"/>'),
  );
}

function contentTypes(): string {
  const defaults = [
    ["rels", "application/vnd.openxmlformats-package.relationships+xml"],
    ["xml", "application/xml"],
    ["png", "image/png"],
  ];
  const overrides = [
    ["/word/document.xml", `${WML}.document.main+xml`],
    ["/word/styles.xml", `${WML}.styles+xml`],
    ["/word/numbering.xml", `${WML}.numbering+xml`],
    ["/docProps/core.xml", "application/vnd.openxmlformats-package.core-properties+xml"],
  ];
  return xml(
    "Types",
    { xmlns: "http://schemas.openxmlformats.org/package/2006/content-types" },
    ...defaults.map(([Extension, ContentType]) => xml("Default", { Extension, ContentType })),
    ...overrides.map(([PartName, ContentType]) => xml("Override", { PartName, ContentType })),
  );
}

function corePart({ title, author, language, at }: HandoutContent): string {
  const moment = `${at.toISOString().slice(0, 19)}Z`;
  return xml(
    "cp:coreProperties",
    {
      "xmlns:cp": "http://schemas.openxmlformats.org/package/2006/metadata/core-properties",
      "xmlns:dc": "http://purl.org/dc/elements/1.1/",
      "xmlns:dcterms": "http://purl.org/dc/terms/",
      "xmlns:xsi": "http://www.w3.org/2001/XMLSchema-instance",
    },
    xml("dc:title", {}, escapeXml(title)),
    author ? xml("dc:creator", {}, escapeXml(author)) : "",
    xml("dc:language", {}, language),
    `<dcterms:created xsi:type="dcterms:W3CDTF">${moment}</dcterms:created>`,
  );
}

function rootRelationships(): string {
  const core = "http://schemas.openxmlformats.org/package/2006/relationships/metadata/core-properties";
  return relationshipList([
    xml("Relationship", { Id: "rId1", Type: `${OFFICE}/officeDocument`, Target: "word/document.xml" }),
    xml("Relationship", { Id: "rId2", Type: core, Target: "docProps/core.xml" }),
  ]);
}

/** Writes the package of a handout (ECMA-376-1, 11, and part 2). */
export function handoutPackage(content: HandoutContent): Uint8Array {
  const document = xml("w:document", NAMESPACES, xml("w:body", {}, ...content.body, SECTION));
  const texts: [path: string, text: string][] = [
    ["[Content_Types].xml", contentTypes()],
    ["_rels/.rels", rootRelationships()],
    ["docProps/core.xml", corePart(content)],
    ["word/document.xml", document],
    ["word/styles.xml", stylesPart(content.language)],
    ["word/numbering.xml", numberingPart()],
    ["word/_rels/document.xml.rels", documentRelationships(content)],
  ];
  return zip(
    new Map<string, Uint8Array>([
      ...texts.map(([path, text]) => [path, strToU8(XML_HEAD + text)] as const),
      ...[...content.media].map(([path, bytes]) => [`word/${path}`, bytes] as const),
    ]),
  );
}
