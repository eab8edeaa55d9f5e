import type { Deck, DeckMetadata } from "@unitext/core/model";
import { strToU8 } from "fflate";
import { zip } from "../../../shared/archive";
import { xml } from "../../../shared/xml";
import { fromOdp, withStandIns } from "../../../shared/sourcepackage";
import { MEDIA_TYPE, VERSION } from "../package/names";
import { entry, HEAD, type OdpOptions } from "./packageparts";
import { Pages } from "./pages";
import { OdpBase } from "../patch/patchslide";
import { documentPart, mediaOf, metaPart } from "./documentparts";
import { updatePresentation } from "./update";

/** The default style of graphics: the font, colour and language of the deck. */
function defaultStyle({ language: tag }: Deck, { theme }: DeckMetadata): string {
  const [language, country] = tag.split("-");
  return xml(
    "style:default-style",
    { "style:family": "graphic" },
    xml("style:text-properties", {
      "style:font-name": theme.fonts.body,
      "fo:color": theme.colours.ink,
      "fo:language": language,
      "fo:country": country && /^[A-Z]{2}$/.test(country) ? country : "none",
    }),
  );
}

/**
 * Writes a deck as a presentation in OpenDocument 1.3: a page for each slide with its notes, text as formatted
 * paragraphs and lists, shapes, groups, tables, charts with their data, pictures, films, links, masters, backgrounds,
 * transitions. What the format has no place for is stored in user-defined metadata. Pages that came from an .odp and
 * were not touched are written unchanged.
 */
export function writeOdp(given: Deck, options: OdpOptions): Uint8Array {
  const deck = withStandIns(given, fromOdp);
  const [base, ...others] = OdpBase.all(deck, options.picture);
  if (base) return updatePresentation([base, ...others], deck, options);
  const pages = new Pages(
    deck,
    options,
    "",
    () => undefined,
    () => true,
  );
  const { metadata } = pages;
  const written = deck.slides.map((slide, nth) => pages.own(slide, nth + 1));
  const masterPages = pages.masterPages();
  const faces = xml("office:font-face-decls", {}, ...pages.faces().map((face) => face.xml));
  const defaults = defaultStyle(deck, metadata);
  const parts = new Map<string, Uint8Array>([["mimetype", strToU8(MEDIA_TYPE)]]);
  parts.set(
    "content.xml",
    documentPart(
      "office:document-content",
      faces,
      xml("office:automatic-styles", {}, pages.styles.xml()),
      xml("office:body", {}, xml("office:presentation", {}, pages.footers.xml(), ...written)),
    ),
  );
  parts.set(
    "styles.xml",
    documentPart(
      "office:document-styles",
      faces,
      xml("office:styles", {}, pages.definitions.xml(), defaults),
      xml("office:automatic-styles", {}, pages.layout(), pages.masters.xml()),
      xml("office:master-styles", {}, masterPages),
    ),
  );
  parts.set("meta.xml", metaPart(pages, metadata.properties.author, options.at));
  for (const [path, bytes] of pages.parts.all()) parts.set(path, bytes);
  const entries = [
    entry("/", MEDIA_TYPE),
    ...pages.parts.objectEntries(),
    ...[...parts.keys()].filter((path) => path !== "mimetype").map((path) => entry(path, mediaOf(path))),
  ];
  parts.set(
    "META-INF/manifest.xml",
    strToU8(
      `${HEAD}${xml("manifest:manifest", { "xmlns:manifest": "urn:oasis:names:tc:opendocument:xmlns:manifest:1.0", "manifest:version": VERSION }, ...entries)}`,
    ),
  );
  return zip(parts);
}
