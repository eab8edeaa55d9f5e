import { cutText, DeckMetadata, emptyDeck, Language, Page } from "@unitext/core/model";
import { child, childrenOf, type XmlElement, type XmlNode, attribute } from "../../../shared/xml";
import { readableColour, WHITE } from "./background";
import { points } from "../package/names";
import type { OdpStyles } from "./styles";
import { colour } from "./properties";

/**
 * What a deck's metadata are read from: the part with the masters, the file's metadata, Unitext's data in it, the
 * pages.
 */
export interface MetadataSource {
  styles: XmlNode | undefined;
  meta: XmlElement | undefined;
  kept: unknown;
  pages: readonly XmlNode[];
  /** The styles of masters. */
  looks: OdpStyles;
  masterPages: ReadonlyMap<string, XmlNode>;
  newId(): string;
}

/** Reads a presentation's page, language, properties and theme, and Unitext's stored metadata where they are valid. */
export function readMetadata({ styles, meta, kept, pages, looks, masterPages, newId }: MetadataSource): DeckMetadata {
  const said = (name: string) => child(meta, name)?.text.trim() ?? "";
  const master = child(child(styles, "master-styles"), "master-page");
  const layouts = [...childrenOf(child(styles, "automatic-styles"), "page-layout")] as XmlNode[];
  const layout = layouts.find((one) => attribute(one, "name") === attribute(master, "page-layout-name")) ?? layouts[0];
  const size = child(layout, "page-layout-properties");
  const page = Page.safeParse({
    width: points(attribute(size, "page-width")),
    height: points(attribute(size, "page-height")),
  });
  const words = childrenOf(child(styles, "styles"), "default-style")
    .map((style) => child(style, "text-properties"))
    .find((found) => attribute(found, "language"));
  const [code, country] = [attribute(words, "language"), attribute(words, "country")];
  const language = Language.safeParse(
    said("language") || (code && code !== "none" ? (country && country !== "none" ? `${code}-${country}` : code) : ""),
  );
  const { slides: _, ...fresh } = emptyDeck(newId(), "");
  const uses = new Map<string, number>();
  for (const page of pages)
    uses.set(attribute(page, "master-page-name") ?? "", (uses.get(attribute(page, "master-page-name") ?? "") ?? 0) + 1);
  const [most = ""] = [...uses].sort((a, b) => b[1] - a[1])[0] ?? [];
  const behind = looks.properties("drawing-page", attribute(masterPages.get(most) ?? master, "style-name")).graphic;
  const paper = (behind.fill === "solid" ? colour(behind["fill-color"]) : undefined) ?? WHITE;
  const base: DeckMetadata = {
    ...fresh,
    page: page.success ? page.data : fresh.page,
    language: language.success ? language.data : "en",
    properties: {
      title: cutText(said("title"), 500),
      author: cutText(said("initial-creator") || said("creator"), 500),
      event: cutText(said("subject"), 500),
      date: "",
    },
    theme: {
      ...fresh.theme,
      name: "From the file",
      design: "plain" as const,
      colours: readableColour({ ...fresh.theme.colours, paper, ink: "#000000" }),
    },
  };
  const whole = DeckMetadata.safeParse({ ...base, ...(kept && typeof kept === "object" ? kept : {}), page: base.page });
  return kept && whole.success
    ? {
        ...whole.data,
        properties: { ...whole.data.properties, title: base.properties.title || whole.data.properties.title },
      }
    : base;
}
