import { cutText, DeckMetadata, emptyDeck, Language, Page, upgradeTags, must } from "@unitext/core/model";
import { partText } from "../../../shared/archive";
import { child, childrenOf, type XmlElement } from "../../../shared/xml";
import type { ReadOptions } from "../../shared/reading";
import { Inheritance } from "./inherit";
import { EMU, REL } from "../package/names";
import type { OpenedPackage } from "../package/package";
import { readTheme } from "./theme";

/** Whether a package has any user-defined tags (ECMA-376-1, 13.3.12). */
export const isTagged = (pack: OpenedPackage) =>
  partText(must(pack.bytes("[Content_Types].xml"))).includes("presentationml.tags+xml");

/** Returns Unitext's tags of a part, as far as they are valid JSON. */
export function readTags(pack: OpenedPackage, path: string): Map<string, unknown> {
  const tags = new Map<string, unknown>();
  const parts = [...pack.relationships(path).values()].filter(
    ({ type, external, target }) => type === REL.tags && !external && pack.has(target),
  );
  for (const { attributes } of parts.flatMap(({ target }) => childrenOf(pack.tree(target), "tag"))) {
    if (!attributes.name?.startsWith("UNITEXT_")) continue;
    try {
      tags.set(attributes.name, upgradeTags(JSON.parse(attributes.val ?? "")));
    } catch {
      // A tag that another program cut short is ignored: the file is read like any other.
    }
  }
  return tags;
}

/**
 * Reads a deck's metadata from the presentation, its first slide and Unitext's tags; `families` are the fonts of its
 * theme.
 */
export function readMetadata(
  pack: OpenedPackage,
  { newId }: ReadOptions,
  {
    main,
    presentation,
    kept,
    firstSlide,
    firstLayout,
  }: {
    main: string;
    presentation: XmlElement;
    kept: unknown;
    firstSlide: string | undefined;
    firstLayout: string | undefined;
  },
): { metadata: DeckMetadata; codeFont?: string; families: string[] } {
  const size = child(presentation, "sldSz")?.attributes ?? {};
  const page = Page.safeParse({ width: Number(size.cx) / EMU, height: Number(size.cy) / EMU });
  const { slides: _, ...fresh } = emptyDeck(newId(), "");
  const corePath = pack.related("", "core");
  const core = corePath && pack.has(corePath) ? pack.tree(corePath) : undefined;
  const said = (name: string) => child(core, name)?.text.trim() ?? "";
  const language = Language.safeParse(said("language"));
  const base: DeckMetadata = {
    ...fresh,
    page: page.success ? page.data : fresh.page,
    language: language.success ? language.data : guessLanguage(pack, firstSlide ?? firstLayout),
    properties: {
      title: cutText(said("title"), 500),
      author: cutText(said("creator"), 500),
      event: cutText(said("subject"), 500),
      date: "",
    },
  };
  const whole = DeckMetadata.safeParse({ ...base, ...(typeof kept === "object" ? kept : {}), page: base.page });
  if (kept && whole.success) {
    const title = base.properties.title || whole.data.properties.title;
    return {
      metadata: { ...whole.data, properties: { ...whole.data.properties, title } },
      codeFont: whole.data.theme.fonts.code,
      families: [],
    };
  }
  const inheritance = firstLayout ? Inheritance.ofLayout(pack, firstLayout) : undefined;
  const themePath = inheritance?.themePath ?? pack.related(main, "theme");
  if (!themePath || !pack.has(themePath)) return { metadata: base, families: [] };
  const theme = readTheme(pack.tree(themePath), inheritance?.master);
  return { metadata: { ...base, theme }, families: [theme.fonts.heading, theme.fonts.body] };
}

function guessLanguage(pack: OpenedPackage, part: string | undefined): string {
  const found = part
    ? /\blang="([A-Za-z]{2,3}(?:-[A-Za-z0-9]{2,8})*)"/.exec(new TextDecoder().decode(pack.bytes(part)))?.[1]
    : undefined;
  return found ?? "en";
}
