import { handoutPackage } from "./package";
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
  sourceNote,
} from "@unitext/core/model";
import { toBase64 } from "../../shared/archive";
import { xml } from "../../shared/xml";
import { flattenRuns, footnoteText, RAISED } from "../../shared/sourcepackage";

export interface HandoutOptions {
  fonts: FontSet;
  picture: (sha256: string) => Uint8Array | undefined;
  at: Date;
  /** Whether each slide says where its linked values come from. */
  sourceNotes?: boolean;
  /** Draws an SVG as a PNG of a width in pixels; without it a handout has no pictures of its slides. */
  png?: (svg: string, width: number) => Uint8Array;
}

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
    const { body, links, media, language } = this;
    return handoutPackage({ body, links, media, language, title, author, at });
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
export function writeHandout(deck: Deck, { fonts, picture, at, png, sourceNotes }: HandoutOptions): Uint8Array {
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
    const sources = sourceNotes ? sourceNote(slide, deck.language) : "";
    if (sources) into.body.push(into.paragraphs(plainText(sources), "Notes"));
    if (notes.length) into.body.push(into.paragraphs(footnoteText(notes), "Notes"));
  });
  return into.file(deck.properties.title, deck.properties.author, at);
}
