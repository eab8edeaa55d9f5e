import { sceneSvg } from "@unitext/core/draw";
import { type FontSet, layoutSlide } from "@unitext/core/layout";
import {
  counted,
  type Deck,
  deckLink,
  type Element,
  elementTexts,
  escapeXml,
  type Footnote,
  metadataOf,
  isEmptyText,
  levels,
  nameOf,
  plainText,
  readingOrder,
  type RichText,
  type Run,
  slideLink,
  titleElement,
  must,
} from "@unitext/core/model";
import { strToU8 } from "fflate";
import { zip, toBase64 } from "../../shared/archive";
import { xml, XML_HEAD } from "../../shared/xml";
import { flattenRuns, footnoteText, RAISED } from "../../shared/sourcepackage";

export interface HandoutOptions {
  fonts: FontSet;
  picture: (sha256: string) => Uint8Array | undefined;
  at: Date;
  /** Draws an SVG as a PNG of a width in pixels; without it a handout has no pictures of its slides. */
  png?: (svg: string, width: number) => Uint8Array;
}

const W = "http://schemas.openxmlformats.org/wordprocessingml/2006/main";
const OFFICE = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";
const NAMESPACES = {
  "xmlns:w": W,
  "xmlns:r": OFFICE,
  "xmlns:wp": "http://schemas.openxmlformats.org/drawingml/2006/wordprocessingDrawing",
  "xmlns:a": "http://schemas.openxmlformats.org/drawingml/2006/main",
  "xmlns:pic": "http://schemas.openxmlformats.org/drawingml/2006/picture",
};
const WML = "application/vnd.openxmlformats-officedocument.wordprocessingml";

/** The width of the text on A4 with margins of 2 cm, in points, and that of a slide's picture in pixels. */
const MEASURE = ((210 - 40) / 25.4) * 72;
const PIXELS = 1280;

/** The parts of a handout as it is written. */
class Handout {
  readonly body: string[] = [];
  readonly media = new Map<string, Uint8Array>();
  private readonly links: string[] = [];
  constructor(private readonly language: string) {}

  private link(to: string): string {
    const at = this.links.indexOf(to);
    return `rLink${at >= 0 ? at : this.links.push(to) - 1}`;
  }

  run(item: Run): string {
    const marks = new Set<string>(item.marks);
    const properties = xml(
      "w:rPr",
      {},
      marks.has("code") ? '<w:rFonts w:ascii="JetBrains Mono" w:hAnsi="JetBrains Mono" w:cs="JetBrains Mono"/>' : "",
      marks.has("strong") ? "<w:b/>" : "",
      marks.has("emphasis") ? "<w:i/>" : "",
      marks.has("strike") ? "<w:strike/>" : "",
      item.link ? '<w:color w:val="0F5C63"/><w:u w:val="single"/>' : "",
      marks.has(RAISED) ? '<w:vertAlign w:val="superscript"/>' : "",
    );
    const words = item.text
      .split("\n")
      .map((line, nth) => (nth ? "<w:br/>" : "") + (line ? `<w:t xml:space="preserve">${escapeXml(line)}</w:t>` : ""))
      .join("");
    const made = words ? xml("w:r", {}, properties, words) : "";
    const to = item.link;
    return made && to && slideLink(to) === undefined && !deckLink(to)
      ? xml("w:hyperlink", { "r:id": this.link(to) }, made)
      : made;
  }

  paragraphs(text: RichText, style?: string): string {
    const side = { start: "start", centre: "center", end: "end" } as const;
    return text
      .map(({ kind, level, align, runs }) =>
        xml(
          "w:p",
          {},
          xml(
            "w:pPr",
            {},
            style ? xml("w:pStyle", { "w:val": style }) : "",
            kind === "plain"
              ? ""
              : xml(
                  "w:numPr",
                  {},
                  xml("w:ilvl", { "w:val": level }),
                  xml("w:numId", { "w:val": kind === "bullet" ? 1 : 2 }),
                ),
            align && align !== "start" ? xml("w:jc", { "w:val": side[align] }) : "",
          ),
          ...runs.map((item) => this.run(item)),
        ),
      )
      .join("");
  }

  table(
    rows: readonly (readonly ({ text: RichText; columns?: number | undefined; rows?: number | undefined } | null)[])[],
    header: number,
  ): string {
    const columns = Math.max(...rows.map((row) => row.length));
    const below = new Map<string, number>();
    for (const [y, row] of rows.entries())
      for (const [x, cell] of row.entries()) {
        for (let down = 1; down < (cell?.rows ?? 1); down++) below.set(`${y + down}/${x}`, cell?.columns ?? 1);
      }
    const borders = (["top", "left", "bottom", "right", "insideH", "insideV"] as const)
      .map((side) => xml(`w:${side}`, { "w:val": "single", "w:sz": 4, "w:color": "B8BDBB" }))
      .join("");
    const lines = rows.map((row, y) =>
      xml(
        "w:tr",
        {},
        y < header ? "<w:trPr><w:tblHeader/></w:trPr>" : "",
        ...row.map((cell, x) => {
          const covered = below.get(`${y}/${x}`);
          if (!cell && covered === undefined) return "";
          const span = cell?.columns ?? covered;
          return xml(
            "w:tc",
            {},
            xml(
              "w:tcPr",
              {},
              span && span > 1 ? xml("w:gridSpan", { "w:val": span }) : "",
              cell?.rows ? '<w:vMerge w:val="restart"/>' : cell ? "" : "<w:vMerge/>",
            ),
            (cell &&
              this.paragraphs(
                cell.text.map((paragraph) =>
                  y < header
                    ? {
                        ...paragraph,
                        runs: paragraph.runs.map((item) => ({
                          ...item,
                          marks: [...(item.marks ?? []), "strong" as const],
                        })),
                      }
                    : paragraph,
                ),
              )) ||
              "<w:p/>",
          );
        }),
      ),
    );
    return `${xml("w:tbl", {}, xml("w:tblPr", {}, '<w:tblW w:w="0" w:type="auto"/>', xml("w:tblBorders", {}, borders)), xml("w:tblGrid", {}, ...Array.from({ length: columns }, () => xml("w:gridCol", { "w:w": Math.round((MEASURE * 20) / columns) }))), ...lines)}<w:p/>`;
  }

  image(bytes: Uint8Array, alt: string, height: number): string {
    const nth = this.media.size + 1;
    this.media.set(`media/slide${nth}.png`, bytes);
    const [cx, cy] = [Math.round(MEASURE * 12700), Math.round(height * 12700)];
    const named = { id: nth, name: `Slide ${nth}`, descr: alt };
    const picture = xml(
      "pic:pic",
      {},
      xml("pic:nvPicPr", {}, xml("pic:cNvPr", named), "<pic:cNvPicPr/>"),
      xml("pic:blipFill", {}, xml("a:blip", { "r:embed": `rImage${nth}` }), "<a:stretch><a:fillRect/></a:stretch>"),
      xml(
        "pic:spPr",
        {},
        xml("a:xfrm", {}, '<a:off x="0" y="0"/>', xml("a:ext", { cx, cy })),
        '<a:prstGeom prst="rect"><a:avLst/></a:prstGeom><a:ln w="6350"><a:solidFill><a:srgbClr val="B8BDBB"/></a:solidFill></a:ln>',
      ),
    );
    return xml(
      "w:p",
      {},
      "<w:pPr><w:keepNext/></w:pPr>",
      xml(
        "w:r",
        {},
        xml(
          "w:drawing",
          {},
          xml(
            "wp:inline",
            { distT: 0, distB: 0, distL: 0, distR: 0 },
            xml("wp:extent", { cx, cy }),
            xml("wp:docPr", named),
            xml(
              "a:graphic",
              {},
              xml("a:graphicData", { uri: "http://schemas.openxmlformats.org/drawingml/2006/picture" }, picture),
            ),
          ),
        ),
      ),
    );
  }

  file(title: string, author: string, at: Date): Uint8Array {
    const section =
      '<w:sectPr><w:pgSz w:w="11906" w:h="16838"/><w:pgMar w:top="1134" w:right="1134" w:bottom="1134" w:left="1134" w:header="567" w:footer="567" w:gutter="0"/></w:sectPr>';
    const relations = [
      ["rStyles", `${OFFICE}/styles`, "styles.xml", false],
      ["rNumbering", `${OFFICE}/numbering`, "numbering.xml", false],
      ...this.links.map((to, nth) => [`rLink${nth}`, `${OFFICE}/hyperlink`, to, true] as const),
      ...[...this.media.keys()].map((path, nth) => [`rImage${nth + 1}`, `${OFFICE}/image`, path, false] as const),
    ].map(([Id, Type, Target, external]) =>
      xml("Relationship", {
        Id: String(Id),
        Type: String(Type),
        Target: String(Target),
        TargetMode: external ? "External" : undefined,
      }),
    );
    const list = (id: number, kind: "bullet" | "decimal") =>
      xml(
        "w:abstractNum",
        { "w:abstractNumId": id },
        ...Array.from({ length: 9 }, (_, level) =>
          xml(
            "w:lvl",
            { "w:ilvl": level },
            '<w:start w:val="1"/>',
            xml("w:numFmt", { "w:val": kind }),
            xml("w:lvlText", { "w:val": kind === "bullet" ? (level % 2 ? "–" : "•") : `%${level + 1}.` }),
            xml("w:pPr", {}, xml("w:ind", { "w:left": 360 * (level + 1), "w:hanging": 360 })),
          ),
        ),
      );
    const style = (id: string, name: string, size: number, more: string, paragraph = "") =>
      xml(
        "w:style",
        { "w:type": "paragraph", "w:styleId": id },
        xml("w:name", { "w:val": name }),
        id === "Normal" ? "" : '<w:basedOn w:val="Normal"/>',
        xml("w:pPr", {}, paragraph),
        xml("w:rPr", {}, more, xml("w:sz", { "w:val": size * 2 })),
      );
    const [language] = [this.language];
    const styles = xml(
      "w:styles",
      NAMESPACES,
      xml(
        "w:docDefaults",
        {},
        xml(
          "w:rPrDefault",
          {},
          xml(
            "w:rPr",
            {},
            '<w:rFonts w:ascii="Carlito" w:hAnsi="Carlito" w:cs="Carlito"/>',
            '<w:sz w:val="22"/>',
            xml("w:lang", { "w:val": language }),
          ),
        ),
        xml("w:pPrDefault", {}, '<w:pPr><w:spacing w:after="80"/></w:pPr>'),
      ),
      style("Normal", "Normal", 11, ""),
      style("Title", "Title", 24, "<w:b/>"),
      style(
        "Heading1",
        "heading 1",
        16,
        "<w:b/>",
        '<w:keepNext/><w:spacing w:before="360" w:after="120"/><w:outlineLvl w:val="0"/>',
      ),
      style(
        "Heading2",
        "heading 2",
        13,
        "<w:b/>",
        '<w:keepNext/><w:spacing w:before="240" w:after="80"/><w:outlineLvl w:val="1"/>',
      ),
      style("Notes", "Notes", 10.5, "<w:i/>", '<w:spacing w:after="60"/>'),
      style(
        "Code",
        "Code",
        9.5,
        '<w:rFonts w:ascii="JetBrains Mono" w:hAnsi="JetBrains Mono" w:cs="JetBrains Mono"/>',
        '<w:spacing w:after="0"/>',
      ),
    );
    const types = xml(
      "Types",
      { xmlns: "http://schemas.openxmlformats.org/package/2006/content-types" },
      ...[
        ["rels", "application/vnd.openxmlformats-package.relationships+xml"],
        ["xml", "application/xml"],
        ["png", "image/png"],
      ].map(([Extension, ContentType]) => xml("Default", { Extension, ContentType })),
      ...[
        ["/word/document.xml", `${WML}.document.main+xml`],
        ["/word/styles.xml", `${WML}.styles+xml`],
        ["/word/numbering.xml", `${WML}.numbering+xml`],
        ["/docProps/core.xml", "application/vnd.openxmlformats-package.core-properties+xml"],
      ].map(([PartName, ContentType]) => xml("Override", { PartName, ContentType })),
    );
    const moment = `${at.toISOString().slice(0, 19)}Z`;
    const core = xml(
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
    const rels = (rows: readonly string[]) =>
      xml("Relationships", { xmlns: "http://schemas.openxmlformats.org/package/2006/relationships" }, ...rows);
    const parts: [string, Uint8Array][] = [
      ["[Content_Types].xml", types],
      [
        "_rels/.rels",
        rels([
          xml("Relationship", { Id: "rId1", Type: `${OFFICE}/officeDocument`, Target: "word/document.xml" }),
          xml("Relationship", {
            Id: "rId2",
            Type: "http://schemas.openxmlformats.org/package/2006/relationships/metadata/core-properties",
            Target: "docProps/core.xml",
          }),
        ]),
      ],
      ["docProps/core.xml", core],
      ["word/document.xml", xml("w:document", NAMESPACES, xml("w:body", {}, ...this.body, section))],
      ["word/styles.xml", styles],
      [
        "word/numbering.xml",
        xml(
          "w:numbering",
          NAMESPACES,
          list(1, "bullet"),
          list(2, "decimal"),
          '<w:num w:numId="1"><w:abstractNumId w:val="1"/></w:num><w:num w:numId="2"><w:abstractNumId w:val="2"/></w:num>',
        ),
      ],
      ["word/_rels/document.xml.rels", rels(relations)],
    ].map(([path, text]) => [must(path), strToU8(XML_HEAD + text)]);
    for (const [path, bytes] of this.media) parts.push([`word/${path}`, bytes]);
    return zip(new Map(parts));
  }
}

/** Returns the content of an element as paragraphs and tables of the handout. */
function contentXml(element: Element, into: Handout, notes: Footnote[]): string {
  if (element.kind === "table")
    return (
      into.table(
        element.rows.map((row) => row.map((cell) => cell && { ...cell, text: flattenRuns(cell.text, notes) })),
        element.header,
      ) + (element.caption ? into.paragraphs(plainText(element.caption), "Notes") : "")
    );
  if (element.kind === "chart") {
    const cell = (text: string) => ({ text: plainText(text) });
    return into.table(
      [
        [cell(""), ...element.series.map(({ name }) => cell(name))],
        ...element.categories.map((name, at) => [
          cell(name),
          ...element.series.map(({ values }) =>
            cell(values[at] === null || values[at] === undefined ? "" : String(values[at])),
          ),
        ]),
      ],
      1,
    );
  }
  if (element.kind === "code") return into.paragraphs(plainText(element.text), "Code");
  if (element.kind === "formula") return into.paragraphs(plainText(element.tex), "Code");
  if (element.kind === "picture") return element.caption ? into.paragraphs(plainText(element.caption), "Notes") : "";
  return elementTexts(element)
    .map((text) => (isEmptyText(text) ? "" : into.paragraphs(flattenRuns(text, notes))))
    .join("");
}

/** Writes a deck as a handout: title, picture, text and notes of each slide that is shown. */
export function writeHandout(deck: Deck, { fonts, picture, at, png }: HandoutOptions): Uint8Array {
  const metadata = metadataOf(deck);
  const into = new Handout(deck.language);
  const depth = levels(deck.slides);
  const uri = (sha256: string) => {
    const bytes = picture(sha256);
    const type = Object.values(deck.assets).find((asset) => asset.sha256 === sha256)?.mediaType ?? "image/png";
    return bytes && `data:${type};base64,${toBase64(bytes)}`;
  };
  into.body.push(into.paragraphs(plainText(deck.properties.title || "Handout"), "Title"));
  deck.slides.forEach((given, nth) => {
    if (given.hidden) return;
    const slide = counted(given, nth + 1);
    const title = titleElement(slide);
    const name = nameOf(slide) || `Slide ${nth + 1}`;
    into.body.push(
      into.paragraphs(plainText(`${nth + 1}  ${name}`), (depth.get(slide.id) ?? 0) > 0 ? "Heading2" : "Heading1"),
    );
    if (png) {
      const scene = layoutSlide(slide, { metadata, number: nth + 1, fonts });
      into.body.push(
        into.image(
          png(sceneSvg(scene, { outlines: fonts, picture: uri }), PIXELS),
          name,
          (MEASURE * metadata.page.height) / metadata.page.width,
        ),
      );
    }
    const notes: Footnote[] = [];
    for (const element of readingOrder(slide)) if (element !== title) into.body.push(contentXml(element, into, notes));
    if (!isEmptyText(slide.notes)) into.body.push(into.paragraphs(flattenRuns(slide.notes, notes), "Notes"));
    if (notes.length) into.body.push(into.paragraphs(footnoteText(notes), "Notes"));
  });
  return into.file(deck.properties.title, deck.properties.author, at);
}
