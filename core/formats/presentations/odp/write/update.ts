import { type Deck, escapeXml, type Slide, must } from "@unitext/core/model";
import { strToU8 } from "fflate";
import { type PackedPart, zip } from "../../../shared/archive";
import { xml } from "../../../shared/xml";
import { isMacro } from "../../../shared/sourcepackage";
import { StyleImporter, type ImportedList } from "../patch/importstyles";
import { MEDIA_TYPE } from "../package/names";
import { entry, type OdpOptions } from "./packageparts";
import { Pages } from "./pages";
import { hasSize, resized, slideLayouts } from "../package/pagelayouts";
import { appendTo, type OdpBase, withNamespaces } from "../patch/patchslide";
import { mediaOf, metaPart } from "./documentparts";

/** Returns a prefix that is in none of the texts. */
function freePrefix(texts: readonly string[], start: string): string {
  let prefix = start;
  for (let nth = 1; texts.some((text) => text.includes(`="${prefix}`)); nth++) prefix = `${start}${nth}_`;
  return prefix;
}

/**
 * Returns distinct names for pages to which several files may have given the same; those of the updated file are kept.
 */
function pageNames(deck: Deck, bases: readonly OdpBase[]): (slide: Slide) => string | undefined {
  const names = new Map<string, string>();
  const taken = new Set<string>();
  for (const base of bases) {
    for (const slide of deck.slides) {
      const page = base.page(slide);
      const name = page && !base.isCopy(slide) ? base.name(page) : undefined;
      if (name === undefined || taken.has(name)) continue;
      taken.add(name);
      names.set(slide.id, name);
    }
  }
  return ({ id }) => names.get(id);
}

/** The presentation that most of a deck came from, being updated from the deck. */
class PackageUpdate {
  private readonly base: OdpBase;
  private readonly others: readonly OdpBase[];
  private readonly parts = new Map<string, Uint8Array | PackedPart>();
  private readonly pages: Pages;
  private readonly imports: StyleImporter[];
  private readonly stylesText: string;
  private readonly metaText: string;
  private readonly manifest: string;

  constructor(
    private readonly bases: readonly [OdpBase, ...OdpBase[]],
    private readonly deck: Deck,
    private readonly options: OdpOptions,
  ) {
    [this.base, ...this.others] = bases;
    const { file } = this.base;
    // A template becomes a presentation.
    this.parts.set("mimetype", strToU8(MEDIA_TYPE));
    this.stylesText = this.base.text("styles.xml");
    this.metaText = this.base.text("meta.xml");
    this.manifest = this.base.text("META-INF/manifest.xml");
    const texts = bases.flatMap((one) => [one.content.text, one.text("styles.xml")]);
    this.pages = new Pages(
      deck,
      options,
      freePrefix(texts, "U"),
      pageNames(deck, bases),
      (path) => !file.has(path) && !this.parts.has(path),
    );
    this.imports = this.others.map((other, nth) => this.importer(other, freePrefix(texts, `B${nth + 1}`)));
  }

  bytes(): Uint8Array {
    const { base, bases, deck, pages } = this;
    const written = deck.slides.map((slide, nth) => {
      for (const one of bases) {
        const page = one.page(slide);
        if (page) return pages.patched(one, page, slide, nth + 1);
      }
      return pages.own(slide, nth + 1, bases);
    });
    const properties = this.changedProperties();
    const styles = resized(this.stylesText, deck.page);
    if (!properties.length && styles === this.stylesText && this.isUnchanged()) {
      for (const path of base.file.paths) this.copy(path);
      return zip(this.parts);
    }
    const needsMasters = pages.plain || pages.ownMasters.size > 0;
    const content = this.content(written, needsMasters);
    this.parts.set("content.xml", strToU8(content));
    const mastered = this.styles(styles, needsMasters);
    if (mastered !== this.stylesText) this.parts.set("styles.xml", strToU8(this.namespaced(mastered)));
    else this.copy("styles.xml");
    this.parts.set("meta.xml", this.meta(properties));
    for (const [path, bytes] of pages.parts.all()) this.parts.set(path, bytes);
    const isUnused = unusedParts([content, mastered]);
    for (const path of base.file.paths)
      if (!this.parts.has(path) && !isUnused(path) && path !== "META-INF/manifest.xml") this.copy(path);
    this.parts.set("META-INF/manifest.xml", strToU8(this.manifestText(isUnused)));
    return zip(this.parts);
  }

  private importer(other: OdpBase, prefix: string): StyleImporter {
    const { base, parts, pages, deck } = this;
    const { file } = base;
    const names = other.slidesByName;
    const isFree = (folder: string) => !file.has(`${folder}/content.xml`) && !parts.has(`${folder}/content.xml`);
    const target = {
      at: (path: string) => parts.get(path) ?? file.part(path),
      put: (path: string, one: Uint8Array | PackedPart) => void parts.set(path, one),
      free: (folder: string) => isFree(folder) && !pages.parts.objects.has(folder),
      pageLayout: hasSize(other.text("styles.xml"), deck.page) ? undefined : [...slideLayouts(this.stylesText)][0],
    };
    const importer = new StyleImporter(
      other.file,
      other.content.text,
      other.text("styles.xml"),
      other.text("META-INF/manifest.xml"),
      prefix,
      target,
      (name) => pages.names.get(names.get(name) ?? ""),
    );
    other.words = importer.words;
    return importer;
  }

  private copy(path: string): void {
    const part = this.base.file.part(path);
    if (part !== undefined) this.parts.set(path, part);
  }

  private namespaced(text: string): string {
    return withNamespaces(
      text,
      this.others.map((one) => one.content.namespaces),
    );
  }

  /** Returns what the imported pages add to a list of the file. */
  private imported(name: ImportedList): string {
    return this.imports.flatMap(({ lists }) => lists[name]).join("");
  }

  /** Returns the properties of the deck that differ from those in the file, as elements with their values. */
  private changedProperties(): [name: string, value: string][] {
    const stated = (name: string) =>
      /[^>]*/.exec(this.metaText.split(`<${name}>`)[1] ?? "")?.[0].replace(/<\/.*/, "") ?? "";
    const { title, event } = this.deck.properties;
    const all: [string, string][] = [
      ["dc:title", title],
      ["dc:subject", event],
    ];
    return all.filter(([name, value]) => value !== "" && stated(name) !== "" && stated(name) !== escapeXml(value));
  }

  /** Whether no slide was changed, and the file is a presentation without programs. */
  private isUnchanged(): boolean {
    const { base, deck } = this;
    return (
      base.inOrder(deck) &&
      deck.slides.every((slide) => base.untouched(slide).whole) &&
      base.text("mimetype").trim() === MEDIA_TYPE &&
      !base.content.text.includes("<office:script ") &&
      ![...this.manifest.matchAll(/full-path="([^"]*)"/g)].some(([, path = ""]) => isMacro(path))
    );
  }

  /** Returns the declarations of fonts that a part lacks; `withOwn` adds those of the deck's themes. */
  private faces(text: string, withOwn: boolean): string {
    const nameOf = (face: string) => /style:name="[^"]*"/.exec(face)?.[0];
    const wanted = [
      ...(withOwn ? this.pages.faces().map((face) => face.xml) : []),
      ...this.imports.flatMap(({ lists }) => lists.faces),
    ];
    const missing = wanted.filter((face) => !text.includes(nameOf(face) ?? face));
    return [...new Map(missing.map((face) => [nameOf(face), face])).values()].join("");
  }

  private content(written: readonly string[], needsMasters: boolean): string {
    const { text, pages: ranges } = this.base.content;
    const styles = this.pages.styles.xml();
    const [first, last] = [must(ranges[0]), must(ranges.at(-1))];
    const body =
      text.slice(0, first.from).replace(/<office:scripts>[\s\S]*?<\/office:scripts>/, "") +
      (needsMasters ? this.pages.footers.xml() : "") +
      this.imported("declared") +
      written.join("") +
      text.slice(last.to);
    const styled = appendTo(body, "office:automatic-styles", styles + this.imported("content"), ["office:body"]);
    const before = ["office:automatic-styles", "office:body"];
    return this.namespaced(appendTo(styled, "office:font-face-decls", this.faces(text, styles !== ""), before));
  }

  private styles(text: string, needsMasters: boolean): string {
    const { pages } = this;
    const masterPages = needsMasters ? pages.masterPages() : "";
    const layouts = needsMasters ? pages.layout() + pages.masters.xml() : "";
    const faces = needsMasters || this.others.length ? this.faces(text, needsMasters) : "";
    const additions = [
      [
        "office:styles",
        pages.definitions.xml() + this.imported("common"),
        ["office:automatic-styles", "office:master-styles"],
      ],
      ["office:automatic-styles", layouts + this.imported("automatic"), ["office:master-styles"]],
      ["office:master-styles", masterPages + this.imported("masters"), []],
      ["office:font-face-decls", faces, ["office:styles", "office:automatic-styles", "office:master-styles"]],
    ] as const;
    return additions.reduce((whole, [element, words, before]) => appendTo(whole, element, words, before), text);
  }

  private meta(properties: readonly [name: string, value: string][]): Uint8Array {
    const { pages, metaText } = this;
    if (!metaText) return metaPart(pages, this.deck.properties.author, this.options.at);
    const bare = metaText.replace(/<meta:user-defined\s[^>]*meta:name="unitext:[\s\S]*?<\/meta:user-defined>/g, "");
    const renamed = properties.reduce(
      (text, [name, value]) =>
        text.replace(new RegExp(`<${name}>[\\s\\S]*?</${name}>`), () => xml(name, {}, escapeXml(value))),
      bare,
    );
    return strToU8(this.namespaced(appendTo(renamed, "office:meta", pages.metadataFields(), [])));
  }

  private manifestText(isUnused: (path: string) => boolean): string {
    const { pages } = this;
    const left = this.manifest
      .replaceAll(`"${MEDIA_TYPE}-template"`, `"${MEDIA_TYPE}"`)
      .replace(
        /<manifest:file-entry\s[^>]*manifest:full-path="([^"]*)"[^>]*?(?:\/>|>\s*<\/manifest:file-entry>)\s*/g,
        (whole, path: string) => (isUnused(path) ? "" : whole),
      );
    const rows = [
      ...pages.parts.objectEntries(),
      ...[...pages.parts.all()].map(([path]) => entry(path, mediaOf(path))),
      ...this.imports.flatMap(({ entries }) => [...entries].map(([path, type]) => entry(path, type || mediaOf(path)))),
      ...(this.metaText ? [] : [entry("meta.xml", "text/xml")]),
    ];
    const added = [...new Set(rows)].filter((one) => !left.includes(must(/full-path="[^"]*"/.exec(one)?.[0])));
    return left.replace("</manifest:manifest>", () => `${added.join("")}</manifest:manifest>`);
  }
}

/**
 * Returns a test for parts to leave out: those that only deleted pages showed, programs, and signatures, which are no
 * longer valid. `texts` are the parts that refer to others.
 */
function unusedParts(texts: readonly string[]): (path: string) => boolean {
  const isShown = (path: string) =>
    texts.some((text) => text.includes(escapeXml(path)) || text.includes(encodeURI(path)));
  // One object's name may start another's.
  const isHeld = (object: string) =>
    texts.some((text) =>
      [escapeXml(object), encodeURI(object)].some((name) => ['"', "'", "/"].some((end) => text.includes(name + end))),
    );
  return (path) => {
    if (path === "META-INF/documentsignatures.xml" || isMacro(path)) return true;
    if (/^(Pictures|Media)\//.test(path)) return !isShown(path);
    if (/^ObjectReplacements\//.test(path)) return !isHeld(path);
    return /^Object [^/]+\//.test(path) && !isHeld(must(path.split("/")[0]));
  };
}

/**
 * Writes the deck into the presentation that most of it came from: unchanged pages and parts are those of the file;
 * pages of other presentations are imported with everything that they refer to.
 */
export function updatePresentation(
  bases: readonly [OdpBase, ...OdpBase[]],
  deck: Deck,
  options: OdpOptions,
): Uint8Array {
  return new PackageUpdate(bases, deck, options).bytes();
}
