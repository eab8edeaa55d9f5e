import { escapeXml, languageDirection } from "@unitext/core/model";
import { strToU8 } from "fflate";
import { partText, unzip, zip } from "../shared/archive";
import { at, childrenOf, localName, readMixed, xml, XML_HEAD, type XmlNode } from "../shared/xml";

const W = "http://schemas.openxmlformats.org/wordprocessingml/2006/main";
const WML = "application/vnd.openxmlformats-officedocument.wordprocessingml";
const PACKAGE = "http://schemas.openxmlformats.org/package/2006";
const OFFICE_DOCUMENT = "http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument";

/** The widths of place, source and translation on a page across, in twentieths of a point. */
const WIDTHS = [2200, 6100, 6100] as const;
const PAGE =
  '<w:sectPr><w:pgSz w:w="16838" w:h="11906" w:orient="landscape"/><w:pgMar w:top="1134" w:right="1134" w:bottom="1134" w:left="1134" w:header="567" w:footer="567" w:gutter="0"/></w:sectPr>';
const BORDERS = ["top", "left", "bottom", "right", "insideH", "insideV"]
  .map((side) => `<w:${side} w:val="single" w:sz="4" w:space="0" w:color="BFBFBF"/>`)
  .join("");

/** Writes a document with a table (WordprocessingML in ECMA-376-1, 17.4) for people without tools of translation. */
export function writeWordTable(
  rows: readonly (readonly string[])[],
  languages: { from: string; to: string },
): Uint8Array {
  const language = [undefined, languages.from, languages.to];
  const cell = (text: string, column: number, isHead: boolean) => {
    const tag = language[column];
    const rtl = tag !== undefined && !isHead && languageDirection(tag) === "rtl";
    const run = xml(
      "w:rPr",
      {},
      isHead ? "<w:b/>" : "",
      column === 0 ? '<w:sz w:val="16"/>' : '<w:sz w:val="20"/>',
      rtl ? "<w:rtl/>" : "",
      tag ? xml("w:lang", rtl ? { "w:bidi": tag } : { "w:val": tag }) : "",
    );
    return xml(
      "w:tc",
      {},
      xml("w:tcPr", {}, xml("w:tcW", { "w:w": WIDTHS[column], "w:type": "dxa" })),
      xml(
        "w:p",
        {},
        rtl ? "<w:pPr><w:bidi/></w:pPr>" : "",
        text ? xml("w:r", {}, run, `<w:t xml:space="preserve">${escapeXml(text)}</w:t>`) : "",
      ),
    );
  };
  const table = xml(
    "w:tbl",
    {},
    `<w:tblPr><w:tblW w:w="5000" w:type="pct"/><w:tblBorders>${BORDERS}</w:tblBorders><w:tblLayout w:type="fixed"/></w:tblPr>`,
    xml("w:tblGrid", {}, ...WIDTHS.map((width) => xml("w:gridCol", { "w:w": width }))),
    ...rows.map((row, nth) =>
      xml(
        "w:tr",
        {},
        nth ? "<w:trPr><w:cantSplit/></w:trPr>" : "<w:trPr><w:tblHeader/></w:trPr>",
        ...WIDTHS.map((_, column) => cell(row[column] ?? "", column, nth === 0)),
      ),
    ),
  );
  const parts: [string, string][] = [
    [
      "[Content_Types].xml",
      xml(
        "Types",
        { xmlns: `${PACKAGE}/content-types` },
        xml("Default", { Extension: "rels", ContentType: "application/vnd.openxmlformats-package.relationships+xml" }),
        xml("Override", { PartName: "/word/document.xml", ContentType: `${WML}.document.main+xml` }),
      ),
    ],
    [
      "_rels/.rels",
      xml(
        "Relationships",
        { xmlns: `${PACKAGE}/relationships` },
        xml("Relationship", { Id: "rId1", Type: OFFICE_DOCUMENT, Target: "word/document.xml" }),
      ),
    ],
    ["word/document.xml", xml("w:document", { "xmlns:w": W }, xml("w:body", {}, table, "<w:p/>", PAGE))],
  ];
  return zip(new Map(parts.map(([path, text]) => [path, strToU8(XML_HEAD + text)])));
}

/** Returns the words of a part; deletions that a reviewer has marked are left out, insertions taken. */
function wordsIn(node: XmlNode): string {
  const name = localName(node);
  if (name === "del" || name === "moveFrom" || name === "instrText") return "";
  if (name === "t") return node.content.filter((part) => typeof part === "string").join("");
  if (name === "tab" || name === "br" || name === "cr") return " ";
  if (name === "noBreakHyphen") return "\u2011";
  return node.children.map(wordsIn).join("");
}

/** Returns the rows of all tables of a document. Throws a Failure for what is no document. */
export function readWordTables(bytes: Uint8Array, file: string): string[][] {
  const part = unzip(bytes, file).get("word/document.xml");
  const root = part ? readMixed(partText(part), `${file}, word/document.xml`) : undefined;
  return childrenOf(at(root, "body"), "tbl").flatMap((table) =>
    childrenOf(table, "tr").map((row) =>
      childrenOf(row, "tc").map((cell) =>
        childrenOf(cell, "p")
          .map(wordsIn)
          .filter((words) => words !== "")
          .join(" "),
      ),
    ),
  );
}
