import {
  type DeckMetadata,
  type Element,
  Failure,
  type Slide,
  type TextStyle,
  withDrawing,
  within,
  upgradeTags,
  must,
} from "@unitext/core/model";
import { NO_PARTS, partText, type Parts, unzip } from "../../../shared/archive";
import {
  at,
  child,
  childrenOf,
  localName,
  readMixed,
  type XmlElement,
  type XmlNode,
  attribute,
} from "../../../shared/xml";
import {
  damagedPart,
  NOTHING_STANDS,
  isMacro,
  packageName,
  MACROS_LEFT,
  unsafeContent,
} from "../../../shared/sourcepackage";
import { standInFonts } from "../../shared/fonts";
import { collectBatches, sourceNames, type ReadDeck, type ReadBatches, type ReadOptions } from "../../shared/reading";
import { TAGS } from "../package/names";
import { readMetadata } from "./metadata";
import { OdpFiles } from "./files";
import { OdpContext } from "./context";
import { SlideReader } from "./slidereader";
import { addPackage, inBatches, slideIds, withExistingLinks, withHashes } from "../../shared/slides";

class OdpReader {
  private readonly parts: Parts;
  private readonly files: OdpFiles;
  private readonly context: OdpContext;
  /** The whole of a flat file; undefined for a packed one. */
  private readonly flat: XmlNode | undefined;

  constructor(
    private readonly bytes: Uint8Array,
    private readonly options: ReadOptions,
  ) {
    const packed = !partText(bytes.subarray(0, 200)).trimStart().startsWith("<");
    this.parts = packed ? unzip(bytes, options.name) : NO_PARTS;
    if (!packed) this.flat = readMixed(partText(bytes), options.name);
    this.files = new OdpFiles(this.parts, options.sha256);
    this.context = new OdpContext(this.files, options.newId);
    const manifest = this.parts.get("META-INF/manifest.xml");
    if (manifest && /encryption-data/.test(partText(manifest)))
      throw new Failure(
        "not-readable",
        options.name,
        "The presentation is protected by a password. Save it without one and bring it in again.",
      );
  }

  private part(path: string, needed: boolean): XmlNode | undefined {
    if (this.flat) return this.flat;
    if (!this.parts.has(path)) {
      if (needed)
        throw new Failure(
          "not-readable",
          this.options.name,
          `The presentation's part ${path} is missing; it is damaged or of another kind.`,
        );
      return undefined;
    }
    try {
      return readMixed(partText(must(this.parts.get(path))), path);
    } catch (error) {
      if (needed) throw error;
      this.context.left.push({ slide: null, what: `the part ${path}`, why: "it is damaged" });
      return undefined;
    }
  }

  *batches(): ReadBatches {
    const { options, context } = this;
    const content = must(this.part("content.xml", true));
    const body = at(content, "body", "presentation");
    if (!body)
      throw new Failure(
        "not-readable",
        options.name,
        at(content, "body", "text")
          ? "The file is a text document, not a presentation; rename it to .odt."
          : "The file holds no presentation.",
      );
    const scripts = child(content, "scripts");
    if ([...this.parts.keys()].some(isMacro) || scripts?.children.length) context.left.push(MACROS_LEFT);
    context.left.push(...unsafeContent(this.parts.keys(), (path) => this.parts.get(path)));
    const styles = this.part("styles.xml", false);
    context.addStyles(styles, content);
    const meta = child(this.part("meta.xml", false), "meta");
    const tags = readTags(meta);
    const pages = childrenOf(body, "page");
    within("slides", pages.length, options.name);
    const metadata = readMetadata({
      styles,
      meta,
      kept: tags.deck,
      pages,
      looks: context.masterSide.styles,
      masterPages: context.masterPages,
      newId: options.newId,
    });
    context.page = metadata.page;
    for (const { text } of [context.pages, context.masterSide])
      Object.assign(text, { language: metadata.language, count: pages.length });
    const named = tags.deck && typeof tags.deck === "object" ? (tags.deck as { assets?: unknown }).assets : undefined;
    yield* inBatches(this.slides(pages, tags.slides, footersOf(body)), {
      name: options.name,
      count: pages.length,
      metadata,
      files: this.files,
      masters: () => context.masters,
      styles: (read) => this.usedStyles(read, metadata),
      importNamed: tags.deck && typeof tags.deck === "object" ? sourceNames(this.files, named) : undefined,
    });
    if (!tags.deck && !pages.length) context.left.push(NOTHING_STANDS);
    context.left.push(...this.parts.damaged().map(damagedPart));
    context.adapted.push(...standInFonts(context.families));
    return { adapted: context.adapted, left: context.left };
  }

  /** Reads the slides one by one, without links to slides that are not there. */
  private *slides(
    pages: readonly XmlNode[],
    tags: Record<string, unknown>,
    footers: ReadonlyMap<string, string>,
  ): Generator<Slide> {
    const { context } = this;
    const tagged = pages.map((page) => (tags[attribute(page, "name") ?? ""] ?? {}) as Record<string, unknown>);
    const ids = slideIds(
      tagged.map(({ id }) => id),
      this.options.newId,
    );
    pages.forEach((page, nth) => {
      const id = must(ids[nth]);
      context.ids.set(attribute(page, "name") ?? `page${nth + 1}`, id);
      // Links of other programs may lead to a page by its number.
      if (!context.ids.has(`page${nth + 1}`)) context.ids.set(`page${nth + 1}`, id);
    });
    const partOf = new Map(ids.map((id, nth) => [id, `content.xml#${nth + 1}`]));
    // The name of the source package is known before it is read.
    const file = this.flat ? undefined : packageName(this.bytes, this.options.sha256);
    const reader = new SlideReader(context, footers);
    let hasSource = false;
    for (const [nth, page] of pages.entries()) {
      const slide = reader.slide(page, nth + 1, must(ids[nth]), must(tagged[nth]));
      hasSource ||= slide.sourcePart !== undefined;
      if (hasSource && file !== undefined && nth === pages.length - 1)
        addPackage(file, this.bytes, this.files.taken, this.files, this.options.sha256);
      const linked = withExistingLinks(slide, partOf);
      yield file === undefined ? withoutSource(linked) : withHashes(linked, file, (id) => partOf.get(id));
    }
  }

  /** Returns the text styles that slides and masters use. */
  private usedStyles(read: readonly Slide[], metadata: DeckMetadata): Record<string, TextStyle> {
    const all = { ...metadata.styles, ...this.context.textStyles };
    const masters = Object.values({ ...metadata.masters, ...this.context.masters });
    const used = [
      ...read.flatMap(({ elements, regions = [] }) => [...withDrawing(elements), ...regions]),
      ...masters.flatMap(({ elements }) => elements),
    ].flatMap(({ style }) => style ?? []);
    return Object.fromEntries([...new Set(used)].flatMap((name) => (all[name] ? [[name, all[name]]] : [])));
  }
}

/** Returns a slide of a flat file, which is not stored: it is written as a packed one. */
function withoutSource({ sourcePart: _, ...slide }: Slide): Slide {
  return { ...slide, elements: slide.elements.map(({ sourceShape: __, ...element }) => element as Element) };
}

/** Returns the declared texts of footers and dates, by kind and name. */
function footersOf(body: XmlNode): Map<string, string> {
  const declared = body.children.filter((part) => /^(footer|date-time)-decl$/.test(localName(part)));
  return new Map(
    declared.map((part) => [`${localName(part)} ${attribute(part, "name") ?? ""}`, part.text.trim()] as const),
  );
}

/** Returns Unitext's data in the file; what another program cut short is ignored. */
function readTags(meta: XmlElement | undefined): { deck: unknown; slides: Record<string, unknown> } {
  const fields = new Map(
    childrenOf(meta, "user-defined").map((field) => [attribute(field as XmlNode, "name"), field.text]),
  );
  const parse = (name: string): unknown => {
    try {
      return upgradeTags(JSON.parse(fields.get(name) ?? "null"));
    } catch {
      return null;
    }
  };
  const slides = parse(TAGS.slides);
  return {
    deck: parse(TAGS.deck),
    slides: slides && typeof slides === "object" ? (slides as Record<string, unknown>) : {},
  };
}

/**
 * Reads a presentation in OpenDocument 1.2 or 1.3, packed or flat: texts in their levels and looks, shapes, groups, tables,
 * charts, pictures, films, notes, links, masters, backgrounds, page, order. Throws a Failure when the file is damaged;
 * what is not read is listed in `left`, slide by slide. A packed file of another program is kept with the deck.
 */
export function readOdp(bytes: Uint8Array, options: ReadOptions): ReadDeck {
  return collectBatches(odpBatches(bytes, options));
}

/** Reads a presentation in batches of slides. */
export function odpBatches(bytes: Uint8Array, options: ReadOptions): ReadBatches {
  return new OdpReader(bytes, options).batches();
}
