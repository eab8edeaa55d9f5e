import type { Deck } from "@unitext/core/model";
import { strToU8 } from "fflate";
import { partText, zip } from "../../../shared/archive";
import type { SourcePackage } from "../../../shared/sourcepackage";
import { scanXml } from "../../../shared/xml";
import { type EmbeddedWorkbook, nameInAddress } from "../../shared/workbooks";
import { OdpBase } from "../patch/patchslide";

const SPREADSHEET = "application/vnd.oasis.opendocument.spreadsheet";
const MANIFEST = `<?xml version="1.0" encoding="UTF-8"?><manifest:manifest xmlns:manifest="urn:oasis:names:tc:opendocument:xmlns:manifest:1.0" manifest:version="1.3"><manifest:file-entry manifest:full-path="/" manifest:media-type="${SPREADSHEET}"/><manifest:file-entry manifest:full-path="content.xml" manifest:media-type="text/xml"/></manifest:manifest>`;

/** An object on a page: the name of its frame, and where it is. */
interface PageObject {
  name: string;
  href: string;
}

/** Lists the embedded objects in the XML of a page. */
function objectsOn(page: string): PageObject[] {
  const objects: PageObject[] = [];
  let name = "";
  scanXml(page, "a page", {
    open(tag, attributes) {
      if (tag === "draw:frame") name = attributes["draw:name"] ?? "";
      const href = attributes["xlink:href"];
      if ((tag === "draw:object" || tag === "draw:object-ole") && href) objects.push({ name, href });
    },
    close: () => undefined,
  });
  return objects;
}

/** Returns the parts of a document inside a package as a file of its own, with another content if given. */
function packed(file: SourcePackage, folder: string, content?: string): Uint8Array {
  const parts = new Map<string, Uint8Array>([
    ["mimetype", strToU8(SPREADSHEET)],
    ["META-INF/manifest.xml", strToU8(MANIFEST)],
  ]);
  for (const path of file.paths)
    if (path.startsWith(`${folder}/`)) {
      const bytes = file.bytes(path);
      if (bytes) parts.set(path.slice(folder.length + 1), bytes);
    }
  if (content !== undefined) parts.set("content.xml", strToU8(content));
  return zip(parts);
}

/**
 * Returns the content of a spreadsheet with the table of a chart (OpenDocument 1.3, part 3, 11.1), which holds its data;
 * undefined for other objects.
 */
function tableOfChart(content: string): string | undefined {
  const root = /<(office:document-content)\b[^>]*>/.exec(content);
  const table = /<table:table\b[\s\S]*<\/table:table>/.exec(content);
  if (!root || !table || !content.includes("<chart:chart")) return undefined;
  return `${root[0]}<office:body><office:spreadsheet>${table[0]}</office:spreadsheet></office:body></office:document-content>`;
}

/** Returns the workbook of an object: a spreadsheet, the data of a chart, or one outside; undefined for other objects. */
function workbookOf(
  file: SourcePackage,
  { name, href }: PageObject,
): Omit<EmbeddedWorkbook, "slide" | "slideId"> | undefined {
  const folder = href.replace(/^\.\//, "").replace(/\/$/, "");
  const bytes = file.bytes(`${folder}/content.xml`);
  const own = name || folder;
  if (bytes) {
    const content = partText(bytes);
    if (content.includes("<office:spreadsheet"))
      return { path: folder, name: `${own}.ods`, bytes: packed(file, folder) };
    const data = tableOfChart(content);
    return data === undefined ? undefined : { path: folder, name: `${own}.ods`, bytes: packed(file, folder, data) };
  }
  if (file.has(folder)) {
    // Another program's file as it is, such as an .xlsx.
    const whole = file.bytes(folder);
    return whole?.[0] === 0x50 && whole[1] === 0x4b ? { path: folder, name: `${own}.xlsx`, bytes: whole } : undefined;
  }
  const outside = /^(?:[a-z]+:|\.\.|\/)/i.test(href) && /\.(?:ods|xls[xm]?|csv|tsv)$/i.test(nameInAddress(href));
  return outside ? { path: href, name: nameInAddress(href), bytes: undefined } : undefined;
}

/** Lists the workbooks of charts and embedded objects on the slides of a deck that came from an .odp. */
export function odpWorkbooks(deck: Deck, picture: (sha256: string) => Uint8Array | undefined): EmbeddedWorkbook[] {
  const bases = OdpBase.all(deck, picture);
  return deck.slides.flatMap((slide, nth) => {
    const base = bases.find(({ file }) => file.name === slide.sourcePart?.file);
    const page = base?.origin(slide);
    if (!base || !page) return [];
    return objectsOn(base.content.text.slice(page.from, page.to)).flatMap((object) => {
      const found = workbookOf(base.file, object);
      return found ? [{ slide: nth + 1, slideId: slide.id, ...found }] : [];
    });
  });
}
