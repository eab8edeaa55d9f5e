import {
  cutText,
  type ArrangementName,
  type Background,
  Comment,
  type Element,
  Failure,
  filesOf,
  type Footnote,
  Id,
  mapElementLinks,
  mapLinks,
  type Master,
  Origin,
  RegionBox,
  RichText,
  type Slide,
  Source,
  type TextStyle,
  titleOf,
  valueHash,
  within,
  must,
} from "@unitext/core/model";
import type { Report } from "@unitext/core/tally";
import { partText } from "../../../shared/archive";
import { at, child, childrenOf, localName, type XmlElement } from "../../../shared/xml";
import {
  backgroundHash,
  damagedPart,
  parseOptional,
  isMacro,
  storePackage,
  packageName,
  elementTags,
  matchSourceShape,
  textTag,
  MACROS_LEFT,
  unsafeContent,
  motionHash,
  repairNesting,
  NOTHING_STANDS,
  notesHash,
  type SourcePartOf,
  slideHash,
  transitionHash,
  mergeAppearance,
} from "../../../shared/sourcepackage";
import { standInFonts } from "../../shared/fonts";
import { withMotion } from "../../shared/motion";
import {
  collectBatches,
  isBatch,
  sourceNames,
  type ReadDeck,
  type ReadBatch,
  type ReadBatches,
  type ReadOptions,
} from "../../shared/reading";
import { schemeColours } from "./colour";
import { Inheritance, placeholderRef, shapesOf } from "./inherit";
import { TAG } from "../package/names";
import { OpenedPackage } from "../package/package";
import { externalLink, readBody, type ReadContext } from "./text";
import { identityOf, type TaggedIdentity, ShapeReader, type ShapeWork } from "./shape";
import { commentReader } from "./comments";
import { type OwnFile, type OwnSlide, OwnSlideReader } from "./ownslides";
import { isTagged, readMetadata, readTags } from "./metadata";
import { readTiming, shapePaths } from "./timing";
import { PptxFiles } from "./files";
import { arrangementOf, backgroundOf, regionsOf, transitionOf } from "./slide";
import { readSections, withSections } from "../package/sections";
import { schemeFonts, styleName } from "./styles";
import { shapeHashes, appearanceHashes } from "../patch/appearance";

/** What reading a slide of another program needs. */
interface Look {
  inheritance: Inheritance;
  map: Record<string, string>;
}

const [RegionBoxes, Comments] = [RegionBox.array(), Comment.array()];

class Reader implements OwnFile {
  readonly adapted: Report["adapted"] = [];
  readonly left: Report["left"] = [];
  readonly pack: OpenedPackage;
  readonly files: PptxFiles;
  private readonly ours = new OwnSlideReader(this);
  private readonly comments: (path: string, number: number) => Comment[];
  private readonly ids = new Map<string, string>();
  /** The slide numbers of the presentation by path. */
  private readonly listed = new Map<string, string>();
  private readonly styles: Record<string, TextStyle> = {};
  private readonly masters: Record<string, Master> = {};
  private readonly looks = new Map<string, Look>();
  private readonly families = new Set<string>();
  /** Colours and text styles by colour map. */
  private readonly schemes = new Map<
    Record<string, string>,
    { colours: { named: Map<string, string> }; styles: Map<string, TextStyle> }
  >();
  private readonly styleNames = new WeakMap<TextStyle, string>();
  codeFont: string | undefined;
  private main = "";
  private kept = false;

  constructor(
    private readonly bytes: Uint8Array,
    readonly options: ReadOptions,
  ) {
    this.pack = new OpenedPackage(bytes, options.name);
    this.files = new PptxFiles(this.pack, options.sha256);
    this.comments = commentReader(this.pack, () => this.main, this.left);
  }

  *lots(): ReadBatches {
    const { pack, options } = this;
    const main = pack.related("", "document") ?? "ppt/presentation.xml";
    this.main = main;
    const presentation = pack.tree(main);
    if (localName(presentation) !== "presentation")
      throw new Failure(
        "not-readable",
        options.name,
        "The file is an Office Open XML document, but not a presentation.",
      );
    if ([...pack.paths].some(isMacro)) this.left.push(MACROS_LEFT);
    this.left.push(...unsafeContent(pack.paths, (path) => pack.bytes(path)));
    const paths = this.slidePaths(main, presentation);
    within("slides", paths.length, options.name);
    const tagsOf = isTagged(pack) ? (path: string) => readTags(pack, path) : () => new Map<string, unknown>();
    const tags = tagsOf(main);
    const found = readMetadata(pack, options, { main, presentation, kept: tags.get(TAG.deck), firstSlide: paths[0] });
    let { metadata } = found;
    this.codeFont = found.codeFont;
    for (const family of found.families) this.families.add(family);
    this.language = metadata.language;
    const own = tags.has(TAG.deck) ? metadata.properties.title || "1" : undefined;
    const slideTags = paths.map(tagsOf);
    const taken = new Set<string>();
    paths.forEach((path, nth) => {
      const given = Id.safeParse((slideTags[nth]?.get(TAG.slide) as { id?: string } | undefined)?.id);
      const id = given.success && !taken.has(given.data) ? given.data : options.newId();
      taken.add(id);
      this.ids.set(path, id);
    });
    const parts = new Map(paths.map((path) => [must(this.ids.get(path)), path]));
    const there = (to: string) => (to.startsWith("slide:") && !taken.has(to.slice(6)) ? undefined : to);
    const sections = this.sections(presentation, own);
    // The name of the source package is known before it is read.
    const file = packageName(this.bytes, options.sha256);
    const takeNamed =
      own === undefined
        ? undefined
        : sourceNames(this.files, (tags.get(TAG.deck) as { assets?: unknown } | null)?.assets);
    const read: Slide[] = [];
    let handed = 0;
    let seen = 0;
    const lot = (last: boolean): ReadBatch => {
      if (last && this.kept) this.keepAs(file);
      // Details are nested by the slides before them.
      const slides = repairNesting(read).slice(handed);
      handed = read.length;
      if (!metadata.properties.title)
        metadata = {
          ...metadata,
          properties: {
            ...metadata.properties,
            title: (read[0] && titleOf(read[0])) || options.name.replace(/\.[^.]*$/, ""),
          },
        };
      const [masters, styles] = [
        { ...metadata.masters, ...this.masters },
        { ...metadata.styles, ...this.styles },
      ];
      takeNamed?.(() => slides.flatMap((slide) => filesOf(slide, { masters, styles })));
      const fresh = [...this.files.blobs].slice(seen);
      seen = this.files.blobs.size;
      return {
        metadata: {
          ...metadata,
          assets: { ...this.files.assets },
          ...(Object.keys(masters).length ? { masters } : {}),
          ...(Object.keys(styles).length ? { styles } : {}),
        },
        slides,
        blobs: new Map(fresh),
        undrawn: this.files.undrawn,
        of: paths.length,
      };
    };
    for (const [nth, path] of paths.entries()) {
      const slide = sections(path, this.slide(path, nth + 1, slideTags[nth] ?? new Map()));
      const whole = {
        ...slide,
        notes: mapLinks(slide.notes, there),
        elements: slide.elements.map((element) => mapElementLinks(element, there)),
      };
      read.push(this.summed(whole, file, path, (id) => parts.get(id)));
      if (nth + 1 < paths.length && isBatch(read.length - handed, read.length)) yield lot(false);
    }
    yield lot(true);
    if (own === undefined && !paths.length) this.left.push(NOTHING_STANDS);
    this.left.push(...pack.damaged.map(damagedPart));
    this.adapted.push(...standInFonts(this.families));
    return { adapted: this.adapted, left: this.left };
  }

  /** Stores the file with the deck. */
  private keepAs(name: string): void {
    const bytes = storePackage(this.bytes, new Map([...this.files.taken].map(([path, { sha256 }]) => [path, sha256])));
    const sha256 = this.options.sha256(bytes);
    this.files.blobs.set(sha256, bytes);
    this.files.assets[name] = { sha256, mediaType: "application/zip", width: 1, height: 1 };
  }

  /** Returns a slide with hashes by which unchanged parts are recognised. */
  private summed(slide: Slide, file: string, part: string, partOf: SourcePartOf): Slide {
    if (!slide.sourcePart) return slide;
    return {
      ...slide,
      elements: slide.elements.map((element) => {
        const kept = matchSourceShape(element, partOf);
        return kept ? { ...element, sourceShape: kept } : element;
      }),
      sourcePart: {
        file,
        part,
        hash: slideHash(slide),
        notesHash: notesHash(slide, partOf),
        backgroundHash: backgroundHash(slide),
        transitionHash: transitionHash(slide),
        motionHash: motionHash(slide),
        ...(slide.master === undefined ? {} : { master: slide.master }),
        shapes: slide.elements.flatMap((element) => (element.sourceShape ? [element.sourceShape.shape] : [])),
      },
    };
  }

  /** Gives slides the sections of the presentation; `own` is Unitext's name for the slides before the first section. */
  private sections(presentation: XmlElement, own: string | undefined): (path: string, slide: Slide) => Slide {
    const list = readSections(presentation);
    const given = list[0]?.name === own ? list.slice(1) : list;
    return list.length
      ? (path, slide) => must(withSections([slide], given, () => this.listed.get(path))[0])
      : (_, slide) => slide;
  }

  private slidePaths(main: string, presentation: XmlElement): string[] {
    const relationships = this.pack.relationships(main);
    const listed = new Set<string>();
    return childrenOf(child(presentation, "sldIdLst"), "sldId").flatMap(({ attributes }) => {
      const id = Object.entries(attributes).find(([key]) => key.endsWith(":id"))?.[1] ?? "";
      const target = relationships.get(id)?.target;
      if (!target || !this.pack.has(target))
        throw new Failure(
          "not-readable",
          main,
          `The presentation lists a slide (${id}) that is missing from the file.`,
        );
      if (listed.has(target)) {
        this.left.push({
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

  /** The language of the deck, known with its metadata. */
  private language = "en";

  private slide(path: string, number: number, tags: Map<string, unknown>): Slide {
    const tree = this.pack.tree(path);
    const inheritance = this.inheritance(path);
    const kept = (tags.get(TAG.slide) ?? {}) as Record<string, unknown>;
    const known = elementTags((tags.get(TAG.elements) ?? {}) as Record<string, unknown>);
    const shapes = shapesOf(tree).map((shape) => this.ours.alternative(shape, known));
    const arrangement = arrangementOf(kept.arrangement, inheritance, shapes);
    const [source, origin] = [parseOptional(Source, kept.source), parseOptional(Origin, kept.origin)];
    const notes = textTag(parseOptional(RichText, kept.notes), this.notes(path), [], true);
    const common = {
      id: must(this.ids.get(path)),
      parent: typeof kept.parent === "string" ? kept.parent : null,
      arrangement,
      notes,
      hidden: tree.attributes.show === "0" || tree.attributes.show === "false",
      ...(source ? { source } : {}),
      ...(origin ? { origin } : {}),
      ...(typeof kept.theme === "string" ? { theme: kept.theme } : {}),
      ...(typeof kept.section === "string" && kept.section ? { section: cutText(kept.section, 300) } : {}),
    };
    if (this.ours.isOurs(tree, shapes, kept, known)) {
      const used = new Set<string>();
      const footnotes: Footnote[] = [];
      const text = partText(must(this.pack.bytes(path)));
      const own: OwnSlide = {
        path,
        number,
        arrangement,
        inheritance,
        tags: known,
        used,
        footnotes,
        hashes: shapeHashes(text),
      };
      const elements = shapes.flatMap((shape) => this.ours.elements(shape, own));
      const said = this.comments(path, number);
      const named = new Map(elements.map((element) => [element.id, element]));
      const moved = withMotion(
        { arrangement, elements },
        readTiming(child(tree, "timing")),
        (id) => [named.get(known(id).id ?? "") ?? []].flat(),
        () => {},
      );
      const wears = mergeAppearance(kept, appearanceHashes(text), () =>
        this.worn(path, number, tree, inheritance, common.arrangement),
      );
      return {
        ...common,
        elements: moved.elements,
        ...wears,
        ...this.shared(kept),
        ...(said.length ? { comments: said } : {}),
      };
    }
    this.kept = true;
    return this.foreignSlide(
      path,
      number,
      tree,
      shapes,
      inheritance,
      common,
      (tags.get(TAG.kept) ?? {}) as Record<string, unknown>,
    );
  }

  /** Returns background and transition of a slide as its part has them. */
  private worn(
    path: string,
    number: number,
    tree: XmlElement,
    inheritance: Inheritance,
    arrangement: ArrangementName,
  ): Pick<Slide, "background" | "transition" | "delay"> {
    const map = this.looks.get(inheritance.layoutPath ?? "")?.map ?? {};
    const background = backgroundOf(
      tree,
      this.shapeWork(path, number, inheritance, map, arrangement, new Map(), this.options.newId).drawing,
    );
    return {
      ...(background ? { background } : {}),
      ...transitionOf(tree, (what, how) => this.adapted.push({ slide: number, what, how })),
    };
  }

  /** Returns what a slide written by Unitext inherits from its earlier source file. */
  private shared({
    master,
    regions,
    comments,
  }: Record<string, unknown>): Pick<Slide, "comments" | "master" | "regions"> {
    const [boxes, said] = [parseOptional(RegionBoxes, regions), parseOptional(Comments, comments)];
    return {
      ...(typeof master === "string" ? { master } : {}),
      ...(boxes ? { regions: boxes } : {}),
      ...(said ? { comments: said } : {}),
    };
  }

  private inheritance(path: string): Inheritance {
    const layout = this.pack.related(path, "layout") ?? "";
    const known = this.looks.get(layout)?.inheritance;
    if (known) return known;
    const inheritance = Inheritance.of(this.pack, path);
    const map = {
      ...(child(inheritance.master, "clrMap")?.attributes ?? {}),
      ...(at(inheritance.layout, "clrMapOvr", "overrideClrMapping")?.attributes ?? {}),
    };
    this.looks.set(layout, { inheritance, map });
    for (const part of [inheritance.layoutPath, inheritance.masterPath])
      if (part !== undefined) this.files.bulletsOf(part);
    return inheritance;
  }

  /** Reads a slide of another program: its elements in place, in the styles of its layout and master. */
  private foreignSlide(
    path: string,
    number: number,
    tree: XmlElement,
    shapes: readonly XmlElement[],
    inheritance: Inheritance,
    common: Omit<Slide, "elements">,
    keptShapes: Record<string, unknown>,
  ): Slide {
    const look = must(this.looks.get(inheritance.layoutPath ?? ""));
    const own = at(tree, "clrMapOvr", "overrideClrMapping")?.attributes;
    const map = own ? { ...look.map, ...own } : look.map;
    const identities = new Map(Object.entries(keptShapes).map(([shape, value]) => [shape, identityOf(value)]));
    const seen = new Set<string>();
    const work = this.shapeWork(path, number, inheritance, map, common.arrangement, identities, (shape) => {
      const wanted = identities.get(shape)?.id;
      const id = wanted && !seen.has(wanted) ? wanted : this.options.newId();
      seen.add(id);
      return id;
    });
    const elements = new ShapeReader(work).read(shapes).map((element) => this.unlike(element));
    const timing = child(tree, "timing");
    const paths = timing ? shapePaths(shapes) : new Map<string, string[]>();
    const standing = new Map(elements.map((element) => [element.sourceShape?.shape ?? "", element]));
    const moved = withMotion(
      { arrangement: common.arrangement, elements },
      readTiming(timing),
      (id) => (paths.get(id) ?? []).flatMap((shape) => standing.get(shape) ?? []),
      (entry) => this.adapted.push({ slide: number, ...entry }),
    );
    for (const what of moved.moves)
      this.adapted.push({
        slide: number,
        what,
        how: "not played; a .pptx keeps it while the entrances of its slide stay as they are",
      });
    const background = backgroundOf(tree, work.drawing);
    const master = tree.attributes.showMasterSp === "0" ? undefined : this.master(inheritance, look);
    const regions = regionsOf(shapes, work);
    const comments = this.comments(path, number);
    const transition = transitionOf(tree, (what, how) => this.adapted.push({ slide: number, what, how }));
    return {
      ...common,
      elements: moved.elements,
      ...(moved.moves.length ? { unsupportedMotion: moved.moves } : {}),
      ...transition,
      ...(background ? { background } : {}),
      master: master ?? this.emptyMaster(inheritance, look),
      ...(regions.length ? { regions } : {}),
      ...(comments.length ? { comments } : {}),
      sourcePart: { file: "", part: path, hash: "", notesHash: "", backgroundHash: "", transitionHash: "", shapes: [] },
    };
  }

  /** Counts the fonts of an element, so that each replaced font is reported once. */
  private unlike(element: Element): Element {
    if (element.kind === "text" || element.kind === "shape")
      for (const { runs } of element.text)
        for (const { properties } of runs) if (properties?.font) this.families.add(properties.font);
    return element;
  }

  private shapeWork(
    path: string,
    number: number | null,
    inheritance: Inheritance,
    map: Record<string, string>,
    arrangement: ArrangementName,
    kept: ReadonlyMap<string, TaggedIdentity>,
    newId: (shape: string) => string,
  ): ShapeWork {
    const scheme = this.schemes.get(map) ?? {
      colours: { named: schemeColours(inheritance.theme, map) },
      styles: new Map<string, TextStyle>(),
    };
    this.schemes.set(map, scheme);
    const { colours } = scheme;
    const picture = (id: string) => this.files.picture(path, id);
    return {
      number,
      inheritance,
      colours,
      styles: {
        colours,
        fonts: schemeFonts(inheritance.theme),
        sign: (id, mark) => this.files.sign(path, id, mark),
        language: this.language,
      },
      arrangement,
      tags: kept,
      link: this.linker(path, number ?? 0),
      newId,
      picture,
      drawing: this.files.drawing(path, colours, inheritance),
      media: (id) => this.files.media(path, id),
      legacy: (shape) => this.files.legacy(path, shape),
      part: (id) => {
        const target = this.pack.relationships(path).get(id);
        return target && !target.external && this.pack.has(target.target) ? this.pack.tree(target.target) : undefined;
      },
      within: (id, own) => {
        const target = this.pack.relationships(path).get(id);
        return target && !target.external && this.pack.has(target.target)
          ? this.shapeWork(target.target, null, inheritance, map, "blank", new Map(), own)
          : undefined;
      },
      styleOf: (key, make) => {
        const known = scheme.styles.get(key) ?? make();
        scheme.styles.set(key, known);
        return known;
      },
      style: (style) => {
        const name = this.styleNames.get(style) ?? styleName(style);
        this.styleNames.set(style, name);
        if (!this.styles[name]) for (const { run } of style) if (run?.font) this.families.add(run.font);
        this.styles[name] = style;
        return name;
      },
      defaults: child(this.pack.tree(this.main), "defaultTextStyle"),
      tableStyle: (id) => this.tableStyle(id),
      report: this,
    };
  }

  private tableStyle(id: string): XmlElement | undefined {
    const path = this.pack.related(this.main, "tableStyles");
    return path && this.pack.has(path)
      ? childrenOf(this.pack.tree(path), "tblStyle").find(({ attributes }) => attributes.styleId === id)
      : undefined;
  }

  /** Returns the master that a layout and its master draw behind a slide, by name. */
  private master(inheritance: Inheritance, look: Look): string {
    const drawn: Element[] = [];
    let background: Background | undefined;
    const part = (path: string | undefined, tree: XmlElement | undefined, which: string) => {
      if (!path || !tree) return;
      const work = this.shapeWork(
        path,
        null,
        inheritance,
        look.map,
        "blank",
        new Map(),
        (shape) => `${which}${shape.replace(/\./g, "-")}`,
      );
      background = backgroundOf(tree, work.drawing) ?? background;
      drawn.push(
        ...new ShapeReader(work)
          .read(shapesOf(tree))
          .map(({ sourceShape: _, ...element }) => this.unlike(element as Element)),
      );
    };
    const hides = inheritance.layout?.attributes.showMasterSp === "0";
    part(inheritance.masterPath, inheritance.master, "m");
    if (hides) drawn.length = 0;
    part(inheritance.layoutPath, inheritance.layout, "l");
    return this.named({
      name: cutText(inheritance.layoutName, 300),
      ...(background ? { background } : {}),
      elements: drawn,
    });
  }

  private emptyMaster(inheritance: Inheritance, look: Look): string {
    const { background } = must(this.masters[this.master(inheritance, look)]);
    return this.named({
      name: cutText(inheritance.layoutName, 300),
      ...(background ? { background } : {}),
      elements: [],
    });
  }

  private named(master: Master): string {
    const name = valueHash(master);
    this.masters[name] = master;
    return name;
  }

  /** Reads a shape written by Unitext as another program left it. */
  repainted(
    shape: XmlElement,
    { path, number, arrangement, inheritance }: OwnSlide,
    identity: TaggedIdentity & { id: string },
  ): Element | undefined {
    const look = must(this.looks.get(inheritance.layoutPath ?? ""));
    const work = this.shapeWork(
      path,
      number,
      inheritance,
      look.map,
      arrangement,
      new Map([["0", identity]]),
      () => identity.id,
    );
    const [found] = new ShapeReader(work).read([shape]);
    if (!found) return undefined;
    const { sourceShape: _, ...element } = found;
    return this.unlike(element as Element);
  }

  linker(path: string, number: number): ReadContext["link"] {
    return (id, action) => {
      const relationship = this.pack.relationships(path).get(id);
      if (relationship && !relationship.external && this.ids.has(relationship.target))
        return `slide:${this.ids.get(relationship.target)}`;
      const step = /hlinkshowjump\?jump=(next|previous|first|last)slide/.exec(action)?.[1];
      const ids = [...this.ids.values()];
      const there =
        step && number > 0
          ? { next: ids[number], previous: ids[number - 2], first: ids[0], last: ids.at(-1) }[step]
          : undefined;
      if (there !== undefined) {
        if (step === "next" || step === "previous")
          this.adapted.push({
            slide: number,
            what: `a link to the ${step} slide`,
            how: `it leads to the slide that is ${step} now, wherever it goes`,
          });
        return `slide:${there}`;
      }
      const link = relationship?.external ? externalLink(relationship.target) : undefined;
      if (!link)
        this.left.push({
          slide: number,
          what: "a link",
          why: /hlinkfile|hlinkpres|program|macro|ole/.test(action)
            ? "it opens a file, a program or a macro of the computer on which it was made; its words stay, and a .pptx keeps it as long as they stay as they are"
            : "it leads nowhere that a slide can open; its words stay",
        });
      return link;
    };
  }

  private notes(path: string): RichText {
    const part = this.pack.related(path, "notes");
    if (!part || !this.pack.has(part)) return [];
    const body = shapesOf(this.pack.tree(part)).find((shape) => placeholderRef(shape)?.type === "body");
    return readBody(child(body, "txBody"), { styles: [], codeFont: this.codeFont, link: this.linker(part, 0) });
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
  return new Reader(bytes, options).lots();
}
