import {
  cutText,
  ArrangementName,
  type Background,
  type Comment,
  Comment as CommentSchema,
  type Element,
  Failure,
  filesOf,
  Id,
  mapElementLinks,
  mapLinks,
  type Master,
  Origin,
  type Page,
  RegionBox,
  RichText,
  type Slide,
  SlideProperties,
  Source,
  type TextStyle,
  titleOf,
  type Transition,
  valueHash,
  withDrawing,
  within,
  withCurrentNames,
  must,
} from "@unitext/core/model";
import type { Report } from "@unitext/core/tally";
import { linkTarget } from "@unitext/core/text";
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
  backgroundHash,
  damagedPart,
  NOTHING_STANDS,
  parseOptional,
  isMacro,
  storePackage,
  packageName,
  matchSourceShape,
  textTag,
  MACROS_LEFT,
  unsafeContent,
  motionHash,
  repairNesting,
  notesHash,
  type SourcePartOf,
  slideHash,
  transitionHash,
  type AppearanceHashes,
  mergeAppearance,
} from "../../../shared/sourcepackage";
import { standInFonts } from "../../shared/fonts";
import { nearTransition, withMotion } from "../../shared/motion";
import {
  collectBatches,
  isBatch,
  sourceNames,
  type ReadDeck,
  type ReadBatch,
  type ReadBatches,
  type ReadOptions,
} from "../../shared/reading";
import { TAGS, points, appearanceHashes } from "../package/names";
import { readMetadata } from "./metadata";
import { readRegions } from "./regions";
import { ElementReader, type PageWork } from "./elements";
import { OdpFiles } from "./files";
import { backgroundColour, isDark } from "./background";
import { OdpStyles } from "./styles";
import { readFill } from "./fill";
import { readText, type TextReader } from "./text";
import { readTiming } from "../package/timing";
import { ShapeReader, type ShapeWork } from "./shape";

const WIPES: Record<string, Transition["kind"]> = { fade: "fade", pushWipe: "push", barWipe: "wipe" };
const [RegionBoxes, Comments] = [RegionBox.array(), CommentSchema.array()];

/** What reading the shapes of one part needs. */
interface Side {
  styles: OdpStyles;
  text: TextReader;
  shapes: ElementReader;
}

/**
 * The style of a page: its properties, whether it is dark behind its shapes, and the hashes of its background and
 * transition.
 */
interface PageStyle {
  graphic: Record<string, string>;
  dark: boolean;
  sums: AppearanceHashes;
}

class OdpReader {
  readonly adapted: Report["adapted"] = [];
  readonly left: Report["left"] = [];
  private readonly files: OdpFiles;
  private readonly parts: Parts;
  private readonly flat: XmlNode | undefined;
  /**
   * Pages and masters have automatic styles in their own parts, and a name may mean different things in each
   * (OpenDocument 1.3, part 3, 3.15.3, the number from memory).
   */
  private readonly content: Side;
  private readonly behind: Side;
  private readonly ids = new Map<string, string>();
  private readonly looks: Record<string, TextStyle> = {};
  private readonly masters: Record<string, Master> = {};
  private readonly masterPages = new Map<string, XmlNode>();
  private readonly drawnBehind = new Map<string, Master>();
  private readonly families = new Set<string>();
  private readonly footers = new Map<string, string>();
  private readonly pageStyles = new Map<string, PageStyle>();
  private foreign = false;
  private page: Page = { width: 0, height: 0 };

  constructor(
    private readonly bytes: Uint8Array,
    private readonly options: ReadOptions,
  ) {
    const begins = partText(bytes.subarray(0, 200)).trimStart();
    const packed = !begins.startsWith("<");
    this.parts = packed ? unzip(bytes, options.name) : NO_PARTS;
    if (!packed) this.flat = readMixed(partText(bytes), options.name);
    this.files = new OdpFiles(this.parts, options.sha256);
    [this.content, this.behind] = [this.side(), this.side()];
    const manifest = this.parts.get("META-INF/manifest.xml");
    if (manifest && /encryption-data/.test(partText(manifest)))
      throw new Failure(
        "not-readable",
        options.name,
        "The presentation is protected by a password. Save it without one and bring it in again.",
      );
  }

  private side(): Side {
    const styles = new OdpStyles();
    styles.sign = (level) => this.files.sign(attribute(level, "href"), level);
    const text: TextReader = { styles, target: (href) => this.target(href) };
    const shapes = new ElementReader({
      styles,
      text,
      files: this.files,
      adapted: this.adapted,
      families: this.families,
      newId: this.options.newId,
      target: (href) => this.target(href),
      led: (action, number) => this.led(action, number),
    });
    return { styles, text, shapes };
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
      this.left.push({ slide: null, what: `the part ${path}`, why: "it is damaged" });
      return undefined;
    }
  }

  *lots(): ReadBatches {
    const { options } = this;
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
    if ([...this.parts.keys()].some(isMacro) || scripts?.children.length) this.left.push(MACROS_LEFT);
    this.left.push(...unsafeContent(this.parts.keys(), (path) => this.parts.get(path)));
    const styles = this.part("styles.xml", false);
    const [ofMasters, ofPages] = [child(styles, "automatic-styles"), child(content, "automatic-styles")];
    const shared = [child(styles, "font-face-decls"), child(content, "font-face-decls"), child(styles, "styles")];
    for (const holder of [...shared, ofMasters, ofPages]) this.content.styles.add(holder);
    for (const holder of [...shared, ofPages, ofMasters]) this.behind.styles.add(holder);
    for (const master of childrenOf(child(styles, "master-styles"), "master-page"))
      this.masterPages.set(attribute(master, "name") ?? "", master);
    for (const part of body.children)
      if (/^(footer|date-time)-decl$/.test(localName(part)))
        this.footers.set(`${localName(part)} ${attribute(part, "name") ?? ""}`, part.text.trim());
    const meta = child(this.part("meta.xml", false), "meta");
    const kept = this.kept(meta);
    const pages = childrenOf(body, "page");
    within("slides", pages.length, options.name);
    const metadata = readMetadata({
      styles,
      meta,
      kept: kept.deck,
      pages,
      looks: this.behind.styles,
      masterPages: this.masterPages,
      newId: options.newId,
    });
    this.page = metadata.page;
    for (const { text } of [this.content, this.behind])
      Object.assign(text, { language: metadata.language, count: pages.length });
    const slidesKept = pages.map(
      (page) => (kept.slides[attribute(page, "name") ?? ""] ?? {}) as Record<string, unknown>,
    );
    const taken = new Set<string>();
    pages.forEach((page, nth) => {
      const given = Id.safeParse(slidesKept[nth]?.id);
      const id = given.success && !taken.has(given.data) ? given.data : options.newId();
      taken.add(id);
      this.ids.set(attribute(page, "name") ?? `page${nth + 1}`, id);
      // Links of other programs may lead to a page by its number.
      if (!this.ids.has(`page${nth + 1}`)) this.ids.set(`page${nth + 1}`, id);
    });
    const ids = [...taken];
    const parts = new Map(ids.map((id, nth) => [id, `content.xml#${nth + 1}`]));
    const known = (to: string) => (to.startsWith("slide:") && !taken.has(to.slice(6)) ? undefined : to);
    // The name of the source package is known before it is read.
    const file = this.flat ? undefined : packageName(this.bytes, options.sha256);
    const takeNamed =
      kept.deck && typeof kept.deck === "object"
        ? sourceNames(this.files, (kept.deck as { assets?: unknown }).assets)
        : undefined;
    const read: Slide[] = [];
    let handed = 0;
    let seen = 0;
    const lot = (last: boolean): ReadBatch => {
      if (last && this.foreign && file !== undefined) this.keepAs(file);
      // Details are nested by the slides before them.
      const slides = repairNesting(read).slice(handed);
      handed = read.length;
      const masters = { ...metadata.masters, ...this.masters };
      const all = { ...metadata.styles, ...this.looks };
      takeNamed?.(() => slides.flatMap((slide) => filesOf(slide, { masters, styles: all })));
      const fresh = [...this.files.blobs].slice(seen);
      seen = this.files.blobs.size;
      const named = [
        ...read.flatMap(({ elements, regions = [] }) => [...withDrawing(elements), ...regions]),
        ...Object.values(masters).flatMap(({ elements }) => elements),
      ].flatMap(({ style }) => style ?? []);
      const styles = Object.fromEntries([...new Set(named)].flatMap((name) => (all[name] ? [[name, all[name]]] : [])));
      const title = metadata.properties.title || (read[0] && titleOf(read[0])) || options.name.replace(/\.[^.]*$/, "");
      const { styles: _, ...rest } = metadata;
      return {
        metadata: {
          ...rest,
          properties: { ...metadata.properties, title },
          assets: { ...this.files.assets },
          ...(Object.keys(masters).length ? { masters } : {}),
          ...(Object.keys(styles).length ? { styles } : {}),
        },
        slides,
        blobs: new Map(fresh),
        undrawn: this.files.undrawn,
        of: pages.length,
      };
    };
    for (const [nth, page] of pages.entries()) {
      const slide = this.slide(page, nth + 1, must(ids[nth]), slidesKept[nth] ?? {});
      const whole = {
        ...slide,
        notes: mapLinks(slide.notes, known),
        elements: slide.elements.map((element) => mapElementLinks(element, known)),
      };
      read.push(this.summed(whole, file, (id) => parts.get(id)));
      if (nth + 1 < pages.length && isBatch(read.length - handed, read.length)) yield lot(false);
    }
    yield lot(true);
    if (!kept.deck && !pages.length) this.left.push(NOTHING_STANDS);
    this.left.push(...this.parts.damaged().map(damagedPart));
    this.adapted.push(...standInFonts(this.families));
    return { adapted: this.adapted, left: this.left };
  }

  /** Stores the file with the deck. */
  private keepAs(name: string): void {
    const bytes = storePackage(this.bytes, this.files.taken);
    const sha256 = this.options.sha256(bytes);
    this.files.blobs.set(sha256, bytes);
    this.files.assets[name] = { sha256, mediaType: "application/zip", width: 1, height: 1 };
  }

  /**
   * Returns a slide with hashes by which unchanged parts are recognised. A flat file is read but not stored; it is
   * written as a packed one.
   */
  private summed(slide: Slide, file: string | undefined, partOf: SourcePartOf): Slide {
    if (file === undefined) {
      const { sourcePart: _, ...rest } = slide;
      return { ...rest, elements: slide.elements.map(({ sourceShape: __, ...element }) => element as Element) };
    }
    if (!slide.sourcePart) return slide;
    return {
      ...slide,
      elements: slide.elements.map((element) => {
        const kept = matchSourceShape(element, partOf);
        return kept ? { ...element, sourceShape: kept } : element;
      }),
      sourcePart: {
        file,
        part: slide.sourcePart.part,
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

  /** Returns Unitext's data in the file; what another program cut short is ignored. */
  private kept(meta: XmlElement | undefined): { deck: unknown; slides: Record<string, unknown> } {
    const fields = new Map(
      childrenOf(meta, "user-defined").map((field) => [attribute(field as XmlNode, "name"), field.text]),
    );
    const parse = (name: string): unknown => {
      try {
        return withCurrentNames(JSON.parse(fields.get(name) ?? "null"));
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

  private slide(page: XmlNode, number: number, id: string, kept: Record<string, unknown>): Slide {
    const own = parseOptional(ArrangementName, kept.arrangement);
    const classes = page.children
      .map((shape) => attribute(shape, "class"))
      .filter((name): name is string => name !== undefined);
    const bodies = classes.filter((name) => name === "outline" || name === "text").length;
    const arrangement: ArrangementName =
      own ??
      (classes.includes("title")
        ? classes.includes("subtitle")
          ? "opening"
          : bodies >= 2
            ? "comparison"
            : bodies === 1
              ? "points"
              : "title"
        : bodies
          ? "points"
          : "blank");
    const ours = kept.id !== undefined && kept.foreign !== true;
    const worn = this.worn(page);
    const work: PageWork = {
      number,
      arrangement,
      tags: (kept.elements ?? {}) as Record<string, unknown>,
      used: new Set(),
      footnotes: [],
      reader: new ShapeReader(this.shapeWork(this.content, number, worn.dark)),
      ours,
      standing: new Map(),
    };
    const elements = page.children.flatMap((shape, nth) =>
      this.content.shapes.elements(shape, String(nth), [], undefined, work),
    );
    const { graphic } = worn;
    const look = SlideProperties.safeParse(kept);
    const [source, origin] = [parseOptional(Source, kept.source), parseOptional(Origin, kept.origin)];
    const notes = childrenOf(child(page, "notes"), "frame").find((frame) => attribute(frame, "class") === "notes");
    const spoken = readText(child(notes, "text-box")?.children ?? [], this.content.text);
    const moved = this.motion(page, { arrangement, elements }, work);
    const common = {
      id,
      parent: typeof kept.parent === "string" ? kept.parent : null,
      arrangement,
      elements: moved.elements,
      notes: textTag(parseOptional(RichText, kept.notes), spoken, [], true),
      hidden: graphic.visibility === "hidden",
      ...(source ? { source } : {}),
      ...(origin ? { origin } : {}),
      ...(typeof kept.theme === "string" ? { theme: kept.theme } : {}),
      ...(look.success && look.data.section ? { section: look.data.section } : {}),
    };
    if (ours) {
      const regions = parseOptional(RegionBoxes, kept.regions);
      // A comment with the same text keeps the fields that the file has no place for.
      const noted = parseOptional(Comments, kept.comments) ?? [];
      const said = this.comments(page).map(
        (one) => noted.find(({ author, text }) => author === one.author && text === one.text) ?? one,
      );
      const wears = mergeAppearance(kept, worn.sums, () => this.look(graphic, number));
      return {
        ...common,
        ...wears,
        ...(typeof kept.master === "string" ? { master: kept.master } : {}),
        ...(regions ? { regions } : {}),
        ...(said.length ? { comments: said } : {}),
      };
    }
    this.foreign = true;
    const master = this.master(attribute(page, "master-page-name"), graphic);
    const regions = readRegions(page, graphic, {
      master: this.masterPages.get(attribute(page, "master-page-name") ?? ""),
      declared: this.footers,
      onPage: { text: this.content.text, work: this.shapeWork(this.content, null) },
      onMaster: { text: this.behind.text, work: this.shapeWork(this.behind, null) },
      told: (what, how) => this.adapted.push({ slide: number, what, how }),
    });
    const comments = this.comments(page);
    return {
      ...common,
      ...(moved.moves.length ? { unsupportedMotion: moved.moves } : {}),
      ...this.look(graphic, number),
      master,
      ...(regions.length ? { regions } : {}),
      ...(comments.length ? { comments } : {}),
      sourcePart: {
        file: "",
        part: `content.xml#${number}`,
        hash: "",
        notesHash: "",
        backgroundHash: "",
        transitionHash: "",
        shapes: [],
      },
    };
  }

  /** Reads how the elements of a page appear. */
  private motion(
    page: XmlNode,
    slide: Pick<Slide, "arrangement" | "elements">,
    { standing, number, ours }: PageWork,
  ): { elements: Element[]; moves: string[] } {
    if (!page.children.some((part) => /^(par|seq|animations)$/.test(localName(part))))
      return { elements: slide.elements, moves: [] };
    const targets = new Map<string, { shape: string; point?: number }>();
    const found = new Map<string, Element[]>();
    const walk = (node: XmlNode, within: { shape: string; points: number } | undefined): Element[] => {
      const own = standing.get(node);
      const here = own ? { shape: own.id, points: 0 } : within;
      if (own) found.set(own.id, [own]);
      const point = here && /^(p|h)$/.test(localName(node)) ? here.points++ : undefined;
      const inside = node.children.flatMap((inner) => walk(inner, here));
      const all = own ? [own] : inside;
      const shape = here?.shape ?? all.map(({ id }) => id).join(" ");
      if (!here && all.length) found.set(shape, all);
      for (const id of [node.attributes["xml:id"], node.attributes["draw:id"], node.attributes["text:id"]])
        if (id !== undefined && shape) targets.set(id, { shape, ...(point === undefined ? {} : { point }) });
      return all;
    };
    for (const shape of page.children)
      if (!/^(par|seq|animations|notes)$/.test(localName(shape))) walk(shape, undefined);
    const { elements, moves } = withMotion(
      slide,
      readTiming(page, (id) => targets.get(id)),
      (shape) => found.get(shape) ?? [],
      (entry) => this.adapted.push({ slide: number, ...entry }),
    );
    if (!ours)
      for (const what of moves)
        this.adapted.push({
          slide: number,
          what,
          how: "not played; an .odp keeps it while the entrances of its slide stay as they are",
        });
    return { elements, moves };
  }

  /** Reads the background and transition of another program's page. */
  private look(graphic: Record<string, string>, number: number): Pick<Slide, "background" | "transition" | "delay"> {
    const background = this.background(graphic);
    const near = graphic.type === undefined || WIPES[graphic.type] ? undefined : nearTransition(graphic.type);
    const kind = WIPES[graphic.type ?? ""] ?? near?.kind;
    if (near) this.adapted.push({ slide: number, what: `the transition “${graphic.type}”`, how: near.how });
    const seconds = { slow: 1.5, medium: 1, fast: 0.5 }[graphic["transition-speed"] ?? "fast"] ?? 0.5;
    const waits = /^PT(?:(\d+)H)?(?:(\d+)M)?([\d.]+)S$/.exec(graphic.duration ?? "");
    const delay =
      graphic["transition-type"] === "automatic" && waits
        ? Number(waits[1] ?? 0) * 3600 + Number(waits[2] ?? 0) * 60 + Number(waits[3])
        : 0;
    return {
      ...(background ? { background } : {}),
      ...(kind ? { transition: { kind, seconds } } : {}),
      ...(delay >= 0.5 && delay <= 3600 ? { delay } : {}),
    };
  }

  private background(graphic: Record<string, string>): Background | undefined {
    const fill = readFill(graphic, this.content.styles.drawn, (image) =>
      this.files.file(attribute(image, "href"), image),
    );
    if (fill?.kind === "solid" && fill.opacity === undefined) return { colour: fill.colour };
    // A picture that is not repeated has the size that it says; one larger than the page covers it.
    const covers =
      fill?.kind === "picture" &&
      fill.opacity === undefined &&
      graphic.repeat === "no-repeat" &&
      (points(graphic["fill-image-width"]) ?? 0) >= this.page.width - 1 &&
      (points(graphic["fill-image-height"]) ?? 0) >= this.page.height - 1;
    return covers ? { picture: fill.source } : fill && { fill };
  }

  /** Reads the style of a page and its master, once for all pages with the same ones. */
  private worn(page: XmlNode): PageStyle {
    const [style, master] = [attribute(page, "style-name"), attribute(page, "master-page-name")];
    const key = JSON.stringify([style, master]);
    const known = this.pageStyles.get(key);
    if (known) return known;
    const { graphic } = this.content.styles.properties("drawing-page", style);
    const own = (given: Record<string, string>) =>
      given.fill === undefined || given.fill === "none"
        ? undefined
        : readFill(given, this.content.styles.drawn, () => undefined);
    const behind = this.behind.styles.properties(
      "drawing-page",
      attribute(this.masterPages.get(master ?? ""), "style-name"),
    ).graphic;
    const dark = isDark(
      backgroundColour(own(graphic) ?? (graphic["background-visible"] === "false" ? undefined : own(behind))),
    );
    const made = { graphic, dark, sums: appearanceHashes(graphic) };
    this.pageStyles.set(key, made);
    return made;
  }

  private shapeWork({ styles, text }: Side, number: number | null, dark = false): ShapeWork {
    return {
      number,
      dark,
      styles,
      text,
      picture: (href, holder) => this.files.file(href, holder),
      media: (href) => this.files.media(href),
      object: (href, holder) => this.files.object(href, holder),
      style: (style) => {
        const name = valueHash(style);
        if (!this.looks[name]) for (const { run } of style) if (run?.font) this.families.add(run.font);
        this.looks[name] = style;
        return name;
      },
      styled: (name) => this.looks[name],
      size: (source) => this.files.size(source),
      drawn: (source) => this.files.drawn(source),
      report: this,
    };
  }

  /** Returns the master that a file draws behind a page, by name. */
  private master(name: string | undefined, page: Record<string, string>): string {
    const element = this.masterPages.get(name ?? "");
    let drawn = this.drawnBehind.get(name ?? "");
    if (!drawn) {
      const { styles, shapes } = this.behind;
      const { graphic } = styles.properties("drawing-page", attribute(element, "style-name"));
      const dark = isDark(backgroundColour(readFill(graphic, styles.drawn, () => undefined)));
      const work: PageWork = {
        number: 0,
        arrangement: "blank",
        tags: {},
        used: new Set(),
        footnotes: [],
        reader: new ShapeReader(this.shapeWork(this.behind, null, dark)),
        ours: false,
        standing: new Map(),
      };
      const elements = (element?.children ?? [])
        .flatMap((shape, nth) =>
          attribute(shape, "class") ? [] : shapes.elements(shape, String(nth), [], undefined, work),
        )
        .map(({ sourceShape: _, ...one }, nth) => ({ ...one, id: `m${nth + 1}` }) as Element);
      const background = this.background(graphic);
      drawn = {
        name: cutText(attribute(element, "display-name") ?? name ?? "", 300),
        ...(background ? { background } : {}),
        elements,
      };
      this.drawnBehind.set(name ?? "", drawn);
    }
    const { background, ...rest } = drawn;
    const shown: Master = {
      ...rest,
      ...(background && page["background-visible"] !== "false" ? { background } : {}),
      elements: page["background-objects-visible"] === "false" ? [] : drawn.elements,
    };
    const sum = valueHash(shown);
    this.masters[sum] = shown;
    return sum;
  }

  private comments(page: XmlNode): Comment[] {
    return childrenOf(page, "annotation")
      .slice(0, 2000)
      .map((note) => {
        const date = child(note, "date")?.text.slice(0, 40);
        const text = childrenOf(note, "p")
          .map((paragraph) => plainWords(paragraph))
          .join("\n");
        return {
          author: cutText(child(note, "creator")?.text ?? "", 300),
          text: cutText(text, 20000),
          ...(date ? { date } : {}),
        };
      });
  }

  /** Returns the target of an action: a page by name, or the next, previous, first or last. */
  private led(action: XmlNode, number: number): string | undefined {
    const step = /^(next|previous|first|last)-page$/.exec(attribute(action, "action") ?? "")?.[1];
    if (!step || number < 1) return this.target(attribute(action, "href") ?? "");
    const ids = [...new Set(this.ids.values())];
    const there = { next: ids[number], previous: ids[number - 2], first: ids[0], last: ids.at(-1) }[step];
    if (there !== undefined && (step === "next" || step === "previous"))
      this.adapted.push({
        slide: number,
        what: `a link to the ${step} slide`,
        how: `it leads to the slide that is ${step} now, wherever it goes`,
      });
    return there === undefined ? undefined : `slide:${there}`;
  }

  private target(href: string): string | undefined {
    if (!href.startsWith("#")) return linkTarget(href);
    const page = this.ids.get(decodeURIComponent(href.slice(1)));
    return page === undefined ? undefined : `slide:${page}`;
  }
}

const plainWords = (element: XmlNode): string =>
  element.content.map((part) => (typeof part === "string" ? part : plainWords(part))).join("");

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
  return new OdpReader(bytes, options).lots();
}
