import { addPackage, inBatches, slideIds, withExistingLinks, withHashes } from "../../shared/slides";
import { Failure, type Slide, within, must } from "@unitext/core/model";
import { PartContexts } from "./partcontexts";
import { SlideReader } from "./slidereader";
import { child, childrenOf, localName, type XmlElement } from "../../../shared/xml";
import {
  damagedPart,
  isMacro,
  packageName,
  MACROS_LEFT,
  unsafeContent,
  LAYOUTS_SHOWN,
  NOTHING_STANDS,
} from "../../../shared/sourcepackage";
import { standInFonts } from "../../shared/fonts";
import { collectBatches, sourceNames, type ReadDeck, type ReadBatches, type ReadOptions } from "../../shared/reading";
import { TAG } from "../package/names";
import { OpenedPackage } from "../package/package";
import { isTagged, readMetadata, readTags } from "./metadata";
import { PptxFiles } from "./files";
import { readSections, withSections } from "../package/sections";

class Reader {
  private readonly pack: OpenedPackage;
  private readonly files: PptxFiles;
  private readonly parts: PartContexts;
  private readonly main: string;
  /** The slide ids that the presentation part gives, by path. */
  private readonly listed = new Map<string, string>();

  constructor(
    private readonly bytes: Uint8Array,
    private readonly options: ReadOptions,
  ) {
    this.pack = new OpenedPackage(bytes, options.name);
    this.files = new PptxFiles(this.pack, options.sha256);
    this.main = this.pack.related("", "document") ?? "ppt/presentation.xml";
    this.parts = new PartContexts(this.pack, this.files, this.main);
  }

  *batches(): ReadBatches {
    const { pack, options, parts } = this;
    const presentation = pack.tree(this.main);
    if (localName(presentation) !== "presentation")
      throw new Failure(
        "not-readable",
        options.name,
        "The file is an Office Open XML document, but not a presentation.",
      );
    if ([...pack.paths].some(isMacro)) parts.left.push(MACROS_LEFT);
    parts.left.push(...unsafeContent(pack.paths, (path) => pack.bytes(path)));
    const paths = this.slidePaths(presentation);
    within("slides", paths.length, options.name);
    const tagsOf = isTagged(pack) ? (path: string) => readTags(pack, path) : () => new Map<string, unknown>();
    const tags = tagsOf(this.main);
    const layouts = !tags.has(TAG.deck) && !paths.length ? this.layoutPaths(presentation) : [];
    const { metadata, codeFont, families } = readMetadata(pack, options, {
      main: this.main,
      presentation,
      kept: tags.get(TAG.deck),
      firstSlide: paths[0],
      firstLayout: paths[0] === undefined ? layouts[0] : pack.related(paths[0], "layout"),
    });
    for (const family of families) parts.families.add(family);
    parts.language = metadata.language;
    /** Unitext's name for the slides before the first section; undefined in a file of another program. */
    const own = tags.has(TAG.deck) ? metadata.properties.title || "1" : undefined;
    const slideTags = paths.map(tagsOf);
    const tagged = slideTags.map((one) => (one.get(TAG.slide) as { id?: string } | undefined)?.id);
    const ids = slideIds(tagged, options.newId);
    paths.forEach((path, nth) => {
      parts.ids.set(path, must(ids[nth]));
    });
    for (const path of layouts) parts.ids.set(path, options.newId());
    const slides = layouts.length
      ? this.layoutSlides(layouts)
      : this.slides(paths, slideTags, this.sections(presentation, own), codeFont);
    const named = own === undefined ? undefined : (tags.get(TAG.deck) as { assets?: unknown } | null)?.assets;
    yield* inBatches(slides, {
      name: options.name,
      count: layouts.length || paths.length,
      metadata,
      files: this.files,
      masters: () => parts.masters,
      styles: () => ({ ...metadata.styles, ...parts.styles }),
      importNamed: own === undefined ? undefined : sourceNames(this.files, named),
    });
    if (layouts.length) parts.adapted.push(LAYOUTS_SHOWN);
    else if (own === undefined && !paths.length) parts.left.push(NOTHING_STANDS);
    parts.left.push(...pack.damaged.map(damagedPart));
    parts.adapted.push(...standInFonts(parts.families));
    return { adapted: parts.adapted, left: parts.left };
  }

  /** Reads the slides one by one, without links to slides that are not there. */
  private *slides(
    paths: readonly string[],
    slideTags: readonly Map<string, unknown>[],
    withSection: (path: string, slide: Slide) => Slide,
    codeFont: string | undefined,
  ): Generator<Slide> {
    // The name of the source package is known before it is read.
    const file = packageName(this.bytes, this.options.sha256);
    const reader = new SlideReader(this.parts, this.options, codeFont);
    const pathOf = new Map([...this.parts.ids].map(([path, id]) => [id, path]));
    let hasSource = false;
    for (const [nth, path] of paths.entries()) {
      const slide = withSection(path, reader.slide(path, nth + 1, slideTags[nth] ?? new Map()));
      hasSource ||= slide.sourcePart !== undefined;
      if (hasSource && nth === paths.length - 1) this.addPackage(file);
      yield withHashes(withExistingLinks(slide, pathOf), file, (id) => pathOf.get(id));
    }
  }

  /** Reads the layouts of a template as slides, one by one. */
  private *layoutSlides(paths: readonly string[]): Generator<Slide> {
    const reader = new SlideReader(this.parts, this.options, undefined);
    for (const [nth, path] of paths.entries()) yield reader.layoutSlide(path, nth + 1);
  }

  /** Returns the paths of the layouts of all masters, in their order. */
  private layoutPaths(presentation: XmlElement): string[] {
    const targets = (path: string, list: XmlElement | undefined): string[] => {
      const relationships = this.pack.relationships(path);
      return (list?.children ?? []).flatMap(({ attributes }) => {
        const id = Object.entries(attributes).find(([key]) => key.endsWith(":id"))?.[1] ?? "";
        const target = relationships.get(id)?.target;
        return target && this.pack.has(target) ? [target] : [];
      });
    };
    return targets(this.main, child(presentation, "sldMasterIdLst")).flatMap((master) =>
      targets(master, child(this.pack.tree(master), "sldLayoutIdLst")),
    );
  }

  /** Stores the file with the deck. */
  private addPackage(name: string): void {
    const taken = new Map([...this.files.taken].map(([path, { sha256 }]) => [path, sha256]));
    addPackage(name, this.bytes, taken, this.files, this.options.sha256);
  }

  /** Gives slides the sections of the presentation; `own` is Unitext's name for the slides before the first section. */
  private sections(presentation: XmlElement, own: string | undefined): (path: string, slide: Slide) => Slide {
    const list = readSections(presentation);
    const given = list[0]?.name === own ? list.slice(1) : list;
    return list.length
      ? (path, slide) => must(withSections([slide], given, () => this.listed.get(path))[0])
      : (_, slide) => slide;
  }

  private slidePaths(presentation: XmlElement): string[] {
    const relationships = this.pack.relationships(this.main);
    const listed = new Set<string>();
    return childrenOf(child(presentation, "sldIdLst"), "sldId").flatMap(({ attributes }) => {
      const id = Object.entries(attributes).find(([key]) => key.endsWith(":id"))?.[1] ?? "";
      const target = relationships.get(id)?.target;
      if (!target || !this.pack.has(target))
        throw new Failure(
          "not-readable",
          this.main,
          `The presentation lists a slide (${id}) that is missing from the file.`,
        );
      if (listed.has(target)) {
        this.parts.left.push({
          slide: null,
          what: `a second entry of the slide ${target}`,
          why: "a file may list a slide once; it is read once",
        });
        return [];
      }
      listed.add(target);
      this.listed.set(target, attributes.id ?? "");
      return [target];
    });
  }
}

/**
 * Reads a presentation in Office Open XML (ECMA-376, transitional or strict): title, text with levels and marks, notes,
 * links, pictures, page, theme colours and fonts, running order. Throws a Failure when the file is damaged; what is not
 * read is listed in `left`, slide by slide.
 */
export function readPptx(bytes: Uint8Array, options: ReadOptions): ReadDeck {
  return collectBatches(pptxBatches(bytes, options));
}

/** Reads a presentation in batches of slides. */
export function pptxBatches(bytes: Uint8Array, options: ReadOptions): ReadBatches {
  return new Reader(bytes, options).batches();
}
