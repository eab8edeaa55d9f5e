import { EXTENSIONS } from "../../../shared/pictures";
import { escapeXml } from "@unitext/core/model";
import { strToU8 } from "fflate";
import { xml } from "../../../shared/xml";
import { NS, VERSION } from "../package/names";
import { HEAD } from "./packageparts";
import type { Pages } from "./pages";

/** Writes a part with its root element. */
export const documentPart = (root: string, ...content: string[]) =>
  strToU8(`${HEAD}${xml(root, { ...NS, "office:version": VERSION }, ...content)}`);

const MEDIA_OF = new Map(Object.entries(EXTENSIONS).map(([type, extension]) => [extension, type]));

/** Returns the media type of a part by its extension; empty when it is unknown. */
export const mediaOf = (path: string) =>
  path.endsWith(".xml") ? "text/xml" : (MEDIA_OF.get(path.slice(path.lastIndexOf(".") + 1)) ?? "");

/** Writes `meta.xml`: the deck's properties and what only Unitext knows. */
export function metaPart(pages: Pages, author: string, at: Date): Uint8Array {
  const { properties, language } = pages.metadata;
  const said = (name: string, value: string) => (value ? xml(name, {}, escapeXml(value)) : "");
  const moment = at.toISOString().slice(0, 19);
  return documentPart(
    "office:document-meta",
    xml(
      "office:meta",
      {},
      "<meta:generator>Unitext</meta:generator>",
      said("dc:title", properties.title),
      said("dc:subject", properties.event),
      said("meta:initial-creator", author),
      said("dc:creator", author),
      said("dc:language", language),
      `<meta:creation-date>${moment}</meta:creation-date><dc:date>${moment}</dc:date>`,
      pages.metadataFields(),
    ),
  );
}
