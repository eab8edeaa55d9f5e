import { ArrangementName, type Asset, type Background, Binding, canonical, Comment, DeckHead, type Element, emptyDeck, Failure, type Fill, type Footnote, Id, Language, mapElementLinks, mapLinks, type Master, Origin, Page, RegionBox, RichText, type Slide, SlideLook, Source, textHash, type TextStyle, titleOf, type Transition } from "@unitext/core/model";
import type { Report } from "@unitext/core/tally";
import { at, child, childrenOf, localName, type XmlElement } from "../archive";
import { backgroundSum, isMacro, keepFile, keptName, keptShape, keptElement, keptText, MACROS_LEFT, motionSum, nested, notesSum, type PartOf, slideSum, transitionSum, } from "../kept";
import { standInFonts } from "../fonts";
import { pictureInfo } from "../picture";
import { nearTransition, withMotion } from "../motion";
import { collected, isLot, mediaOf, type ReadDeck, type ReadLot, type ReadLots, type ReadOptions } from "../reading";
import { schemeColours } from "./colour";
import { type DrawingContext, fillElement, readFill, referredFill } from "./drawing";
import { Inheritance, type PlaceholderRef, placeholderRef, shapesOf } from "./inherit";
import { EMU, REL, TAG } from "./names";
import { OpenedPackage } from "./package";
import { externalLink, readBody, type ReadContext } from "./readtext";
import { type KeptIdentity, ShapeReader, type ShapeWork } from "./readshape";
import { commentReader } from "./readcomments";
import { type OwnFile, type OwnSlide, OwnSlides } from "./readours";
import { readTheme } from "./readtheme";
import { readTiming, shapePaths } from "./readtiming";
import { readSections, withSections } from "./sections";
import { schemeFonts, styleName } from "./styles";
import { standingSums } from "./standing";

/** The tags of a part, as far as they are ours and hold JSON. */
function readTags(pack: OpenedPackage, path: string): Map<string, unknown> {
  const tags = new Map<string, unknown>();
  const parts = [...pack.relationships(path).values()].filter(({ type, external, target }) => type === REL.tags && !external && pack.has(target));
  for (const { attributes } of parts.flatMap(({ target }) => childrenOf(pack.tree(target), "tag"))) {
    if (!attributes.name?.startsWith("UNITEXT_")) continue;
    try {
      tags.set(attributes.name, JSON.parse(attributes.val ?? ""));
    } catch {
      // A tag that another program cut short says nothing: the file is read as any other.
    }
  }
  return tags;
}

/** Everything that a slide of another program's is read with. */
interface Look {
  inheritance: Inheritance;
  map: Record<string, string>;
}

const WIPES: Record<string, Transition["kind"]> = { fade: "fade", push: "push", wipe: "wipe" };

class Reader implements OwnFile {
  readonly adapted: Report["adapted"] = [];
  readonly left: Report["left"] = [];
  readonly blobs = new Map<string, Uint8Array>();
  readonly assets: Record<string, Asset> = {};
  readonly pack: OpenedPackage;
  private readonly ours = new OwnSlides(this);
  private readonly comments: (path: string, number: number) => Comment[];
  private readonly ids = new Map<string, string>();
  /** The numbers by which the presentation lists its slides, by their paths. */
  private readonly listed = new Map<string, string>();
  private readonly styles: Record<string, TextStyle> = {};
  private readonly masters: Record<string, Master> = {};
  /** The pictures that were taken in, by the path of their part, with their sums and names. */
  private readonly taken = new Map<string, { sha256: string; source: string }>();
  private readonly looks = new Map<string, Look>();
  private readonly families = new Set<string>();
  /** Colours and text styles by the colour map under which they hold. */
  private readonly schemes = new Map<Record<string, string>, { colours: { named: Map<string, string> }; styles: Map<string, TextStyle> }>();
  private readonly styleNames = new WeakMap<TextStyle, string>();
  codeFont: string | undefined;
  private main = "";
  private kept = false;

  constructor(
    private readonly bytes: Uint8Array,
    readonly options: ReadOptions,
  ) {
    this.pack = new OpenedPackage(bytes, options.name);
    this.comments = commentReader(this.pack, () => this.main, this.left);
  }

  *lots(): ReadLots {
    const { pack, options } = this;
    const main = pack.related("", "document") ?? "ppt/presentation.xml";
    this.main = main;
    const presentation = pack.tree(main);
    if (localName(presentation) !== "presentation") throw new Failure("not-readable", options.name, "The file is an Office Open XML document, but not a presentation.");
    if ([...pack.paths].some(isMacro)) this.left.push(MACROS_LEFT);
    const paths = this.slidePaths(main, presentation);
    const tags = readTags(pack, main);
    let head = this.head(main, presentation, tags.get(TAG.deck), paths[0]);
    this.language = head.language;
    const own = tags.has(TAG.deck) ? head.properties.title || "1" : undefined;
    const slideTags = paths.map((path) => readTags(pack, path));
    const taken = new Set<string>();
    paths.forEach((path, nth) => {
      const given = Id.safeParse((slideTags[nth]?.get(TAG.slide) as { id?: string } | undefined)?.id);
      const id = given.success && !taken.has(given.data) ? given.data : options.newId();
      taken.add(id);
      this.ids.set(path, id);
    });
    const parts = new Map(paths.map((path) => [this.ids.get(path) as string, path]));
    const there = (to: string) => (to.startsWith("slide:") && !taken.has(to.slice(6)) ? undefined : to);
    const sections = this.sections(presentation, own);
    // The file is kept under a name that is known before it has been read.
    const file = keptName(this.bytes, options.sha256);
    const read: Slide[] = [];
    let handed = 0;
    let seen = 0;
    const lot = (last: boolean): ReadLot => {
      if (last && this.kept) this.keepAs(file);
      // Details are nested by what stands before them.
      const slides = nested(read).slice(handed);
      handed = read.length;
      const fresh = [...this.blobs].slice(seen);
      seen = this.blobs.size;
      if (!head.properties.title) head = { ...head, properties: { ...head.properties, title: (read[0] && titleOf(read[0])) || options.name.replace(/\.[^.]*$/, "") } };
      const [masters, styles] = [{ ...head.masters, ...this.masters }, { ...head.styles, ...this.styles }];
      return { head: { ...head, assets: { ...this.assets }, ...(Object.keys(masters).length ? { masters } : {}), ...(Object.keys(styles).length ? { styles } : {}) }, slides, blobs: new Map(fresh), of: paths.length };
    };
    for (const [nth, path] of paths.entries()) {
      const slide = sections(path, this.slide(path, nth + 1, slideTags[nth] ?? new Map()));
      const whole = { ...slide, notes: mapLinks(slide.notes, there), elements: slide.elements.map((element) => mapElementLinks(element, there)) };
      read.push(this.summed(whole, file, path, (id) => parts.get(id)));
      if (nth + 1 < paths.length && isLot(read.length - handed, read.length)) yield lot(false);
    }
    yield lot(true);
    this.adapted.push(...standInFonts(this.families));
    return { adapted: this.adapted, left: this.left };
  }

  /** Keeps the file with the deck. */
  private keepAs(name: string): void {
    const bytes = keepFile(this.bytes, new Map([...this.taken].map(([path, { sha256 }]) => [path, sha256])));
    const sha256 = this.options.sha256(bytes);
    this.blobs.set(sha256, bytes);
    this.assets[name] = { sha256, mediaType: "application/zip", width: 1, height: 1 };
  }

  /** A slide of a kept file with the sums by which what was not touched is known. */
  private summed(slide: Slide, file: string, part: string, partOf: PartOf): Slide {
    if (!slide.kept) return slide;
    return {
      ...slide,
      elements: slide.elements.map((element) => {
        const kept = keptShape(element, partOf);
        return kept ? { ...element, kept } : element;
      }),
      kept: { file, part, sum: slideSum(slide), notes: notesSum(slide, partOf), background: backgroundSum(slide), transition: transitionSum(slide), motion: motionSum(slide), ...(slide.master === undefined ? {} : { master: slide.master }), shapes: slide.elements.flatMap((element) => (element.kept ? [element.kept.shape] : [])) },
    };
  }

  /** Gives slides the sections that the presentation lists; `own` is what Unitext calls the slides before the first of a deck. */
  private sections(presentation: XmlElement, own: string | undefined): (path: string, slide: Slide) => Slide {
    const list = readSections(presentation);
    const given = list[0]?.name === own ? list.slice(1) : list;
    return list.length ? (path, slide) => withSections([slide], given, () => this.listed.get(path))[0] as Slide : (_, slide) => slide;
  }

  private slidePaths(main: string, presentation: XmlElement): string[] {
    const relationships = this.pack.relationships(main);
    const listed = new Set<string>();
    return childrenOf(child(presentation, "sldIdLst"), "sldId").flatMap(({ attributes }) => {
      const id = Object.entries(attributes).find(([key]) => key.endsWith(":id"))?.[1] ?? "";
      const target = relationships.get(id)?.target;
      if (!target || !this.pack.has(target)) throw new Failure("not-readable", main, `The presentation lists a slide (${id}) that is missing from the file.`);
      if (listed.has(target)) {
        this.left.push({ slide: null, what: `a second entry of the slide ${target}`, why: "a file may list a slide once; it is read once" });
        return [];
      }
      listed.add(target);
      this.listed.set(target, attributes.id ?? "");
      return [target];
    });
  }

  /** The language of the deck, known with its head. */
  private language = "en";

  private head(main: string, presentation: XmlElement, kept: unknown, firstSlide: string | undefined): DeckHead {
    const { pack, options } = this;
    const size = child(presentation, "sldSz")?.attributes ?? {};
    const page = Page.safeParse({ width: Number(size.cx) / EMU, height: Number(size.cy) / EMU });
    const { slides: _, ...fresh } = emptyDeck(options.newId(), "");
    const corePath = pack.related("", "core");
    const core = corePath && pack.has(corePath) ? pack.tree(corePath) : undefined;
    const said = (name: string) => child(core, name)?.text.trim() ?? "";
    const language = Language.safeParse(said("language"));
    const base: DeckHead = {
      ...fresh,
      page: page.success ? page.data : fresh.page,
      language: language.success ? language.data : this.guessLanguage(firstSlide),
      properties: { title: said("title").slice(0, 500), author: said("creator").slice(0, 500), event: said("subject").slice(0, 500), date: "" },
    };
    const whole = DeckHead.safeParse({ ...base, ...(typeof kept === "object" ? kept : {}), page: base.page });
    if (kept && whole.success) {
      this.codeFont = whole.data.theme.fonts.code;
      const title = base.properties.title || whole.data.properties.title;
      return { ...whole.data, properties: { ...whole.data.properties, title } };
    }
    const inheritance = firstSlide ? Inheritance.of(pack, firstSlide) : undefined;
    const themePath = inheritance?.themePath ?? pack.related(main, "theme");
    if (!themePath || !pack.has(themePath)) return base;
    const theme = readTheme(pack.tree(themePath), inheritance?.master);
    this.families.add(theme.fonts.heading).add(theme.fonts.body);
    return { ...base, theme };
  }

  private guessLanguage(firstSlide: string | undefined): string {
    const found = firstSlide ? /\blang="([A-Za-z]{2,3}(?:-[A-Za-z0-9]{2,8})*)"/.exec(new TextDecoder().decode(this.pack.bytes(firstSlide)))?.[1] : undefined;
    return found ?? "en";
  }

  private slide(path: string, number: number, tags: Map<string, unknown>): Slide {
    const tree = this.pack.tree(path);
    const inheritance = this.inheritance(path);
    const kept = (tags.get(TAG.slide) ?? {}) as Record<string, unknown>;
    const keptElements = (tags.get(TAG.elements) ?? {}) as Record<string, unknown>;
    const shapes = shapesOf(tree).map((shape) => this.ours.alternative(shape, keptElements));
    const arrangement = this.arrangement(kept.arrangement, inheritance, shapes);
    const source = Source.safeParse(kept.source);
    const origin = Origin.safeParse(kept.origin);
    const notes = keptText(RichText.safeParse(kept.notes).data, this.notes(path), [], true);
    const common = {
      id: this.ids.get(path) as string,
      parent: typeof kept.parent === "string" ? kept.parent : null,
      arrangement,
      notes,
      hidden: tree.attributes.show === "0" || tree.attributes.show === "false",
      ...(source.success ? { source: source.data } : {}),
      ...(origin.success ? { origin: origin.data } : {}),
      ...(typeof kept.theme === "string" ? { theme: kept.theme } : {}),
    };
    if (this.ours.isOurs(tree, shapes, kept, keptElements)) {
      const used = new Set<string>();
      const footnotes: Footnote[] = [];
      const elements = shapes.flatMap((shape) => this.ours.elements(shape, { path, number, arrangement, inheritance, kept: keptElements, used, footnotes, sums: standingSums(new TextDecoder().decode(this.pack.bytes(path))) }));
      const look = SlideLook.safeParse(kept);
      const said = this.comments(path, number);
      const named = new Map(elements.map((element) => [element.id, element]));
      const moved = withMotion({ arrangement, elements }, readTiming(child(tree, "timing")), (id) => [named.get(keptElement(keptElements[id]).id ?? "") ?? []].flat(), () => {});
      return { ...common, elements: moved.elements, ...(look.success ? look.data : {}), ...this.shared(kept), ...(said.length ? { comments: said } : {}) };
    }
    this.kept = true;
    return this.foreignSlide(path, number, tree, shapes, inheritance, common, (tags.get(TAG.kept) ?? {}) as Record<string, unknown>);
  }

  /** What a slide of ours keeps of the file that it came from before. */
  private shared({ master, regions, comments }: Record<string, unknown>): Pick<Slide, "comments" | "master" | "regions"> {
    const boxes = RegionBox.array().safeParse(regions);
    const said = Comment.array().safeParse(comments);
    return { ...(typeof master === "string" ? { master } : {}), ...(boxes.success ? { regions: boxes.data } : {}), ...(said.success ? { comments: said.data } : {}) };
  }

  private inheritance(path: string): Inheritance {
    const layout = this.pack.related(path, "layout") ?? "";
    const known = this.looks.get(layout)?.inheritance;
    if (known) return known;
    const inheritance = Inheritance.of(this.pack, path);
    const map = { ...(child(inheritance.master, "clrMap")?.attributes ?? {}), ...(at(inheritance.layout, "clrMapOvr", "overrideClrMapping")?.attributes ?? {}) };
    this.looks.set(layout, { inheritance, map });
    return inheritance;
  }

  /** A slide of another program's: its elements where they stand, in the styles that its layout and master give them. */
  private foreignSlide(path: string, number: number, tree: XmlElement, shapes: readonly XmlElement[], inheritance: Inheritance, common: Omit<Slide, "elements">, keptShapes: Record<string, unknown>): Slide {
    const look = this.looks.get(inheritance.layoutPath ?? "") as Look;
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
    const standing = new Map(elements.map((element) => [element.kept?.shape ?? "", element]));
    const moved = withMotion({ arrangement: common.arrangement, elements }, readTiming(timing), (id) => (paths.get(id) ?? []).flatMap((shape) => standing.get(shape) ?? []), (entry) => this.adapted.push({ slide: number, ...entry }));
    for (const what of moved.moves) this.adapted.push({ slide: number, what, how: "not played; a .pptx keeps it while the entrances of its slide stay as they are" });
    const background = this.background(tree, this.drawing(work));
    const master = tree.attributes.showMasterSp === "0" ? undefined : this.master(inheritance, look);
    const regions = this.regions(shapes, work);
    const comments = this.comments(path, number);
    const transition = this.transition(tree, number);
    return {
      ...common,
      elements: moved.elements,
      ...(moved.moves.length ? { moves: moved.moves } : {}),
      ...transition,
      ...(background ? { background } : {}),
      master: master ?? this.emptyMaster(inheritance, look),
      ...(regions.length ? { regions } : {}),
      ...(comments.length ? { comments } : {}),
      kept: { file: "", part: path, sum: "", notes: "", background: "", transition: "", shapes: [] },
    };
  }

  /** Fonts that an element names are counted, so that what stands in for them is told once. */
  private unlike(element: Element): Element {
    if (element.kind === "text" || element.kind === "shape") for (const { runs } of element.text) for (const { look } of runs) if (look?.font) this.families.add(look.font);
    return element;
  }

  private drawing({ colours, inheritance, picture }: ShapeWork): DrawingContext {
    return { colours, theme: inheritance.theme, picture: (id) => { const found = picture(id); return "source" in found ? found.source : undefined; } };
  }

  private shapeWork(path: string, number: number | null, inheritance: Inheritance, map: Record<string, string>, arrangement: ArrangementName, kept: ReadonlyMap<string, KeptIdentity>, newId: (shape: string) => string): ShapeWork {
    const scheme = this.schemes.get(map) ?? { colours: { named: schemeColours(inheritance.theme, map) }, styles: new Map<string, TextStyle>() };
    this.schemes.set(map, scheme);
    const { colours } = scheme;
    const picture = (id: string) => this.pictureAt(path, id);
    const named = (id: string) => { const found = picture(id); return "source" in found ? found.source : undefined; };
    return {
      number,
      inheritance,
      colours,
      styles: { colours, fonts: schemeFonts(inheritance.theme), picture: named, language: this.language },
      arrangement,
      kept,
      link: this.linker(path, number ?? 0),
      newId,
      picture,
      media: (id) => this.mediaAt(path, id),
      part: (id) => {
        const target = this.pack.relationships(path).get(id);
        return target && !target.external && this.pack.has(target.target) ? this.pack.tree(target.target) : undefined;
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
    return path && this.pack.has(path) ? childrenOf(this.pack.tree(path), "tblStyle").find(({ attributes }) => attributes.styleId === id) : undefined;
  }

  private pictureAt(path: string, id: string): { source: string } | { why: string } {
    const relationship = this.pack.relationships(path).get(id);
    if (!relationship) return { why: "its file is missing" };
    if (relationship.external) return { why: "it lies outside of the file, and nothing is fetched" };
    const { target } = relationship;
    const known = this.taken.get(target);
    if (known) return { source: known.source };
    const bytes = this.pack.bytes(target);
    if (!bytes) return { why: "its file is missing" };
    const info = pictureInfo(bytes);
    if (!info) return { why: `pictures of its kind (${/\.([^.]*)$/.exec(target)?.[1] ?? "unknown"}) are not shown` };
    const sha256 = this.options.sha256(bytes);
    const base = target.slice(target.lastIndexOf("/") + 1);
    const source = this.assets[base] && this.assets[base]?.sha256 !== sha256 ? `${sha256.slice(0, 16)}-${base}` : base;
    this.blobs.set(sha256, bytes);
    this.assets[source] = { sha256, ...info };
    this.taken.set(target, { sha256, source });
    return { source };
  }

  private mediaAt(path: string, id: string): { source: string } | undefined {
    const relationship = this.pack.relationships(path).get(id);
    if (!relationship || relationship.external) return undefined;
    const known = this.taken.get(relationship.target);
    if (known) return { source: known.source };
    const bytes = this.pack.bytes(relationship.target);
    const mediaType = mediaOf(relationship.target);
    if (!bytes || !mediaType) return undefined;
    const sha256 = this.options.sha256(bytes);
    const source = relationship.target.slice(relationship.target.lastIndexOf("/") + 1);
    this.blobs.set(sha256, bytes);
    this.assets[source] = { sha256, mediaType, width: 1, height: 1 };
    this.taken.set(relationship.target, { sha256, source });
    return { source };
  }

  /** The background that a slide, layout or master says itself. */
  private background(tree: XmlElement | undefined, context: DrawingContext): Background | undefined {
    const own = at(tree, "cSld", "bg");
    const reference = child(own, "bgRef");
    const fill: Fill | null | undefined = reference ? referredFill(reference, context) : readFill(fillElement(child(own, "bgPr")), context);
    if (!fill) return undefined;
    return fill.kind === "solid" && fill.opacity === undefined ? { colour: fill.colour } : { fill };
  }

  /** What a layout and its master draw behind a slide, by name. */
  private master(inheritance: Inheritance, look: Look): string {
    const drawn: Element[] = [];
    let background: Background | undefined;
    const part = (path: string | undefined, tree: XmlElement | undefined, which: string) => {
      if (!path || !tree) return;
      const work = this.shapeWork(path, null, inheritance, look.map, "blank", new Map(), (shape) => `${which}${shape.replace(/\./g, "-")}`);
      background = this.background(tree, this.drawing(work)) ?? background;
      drawn.push(...new ShapeReader(work).read(shapesOf(tree)).map(({ kept: _, ...element }) => this.unlike(element as Element)));
    };
    const hides = inheritance.layout?.attributes.showMasterSp === "0";
    part(inheritance.masterPath, inheritance.master, "m");
    if (hides) drawn.length = 0;
    part(inheritance.layoutPath, inheritance.layout, "l");
    return this.named({ name: inheritance.layoutName.slice(0, 300), ...(background ? { background } : {}), elements: drawn });
  }

  private emptyMaster(inheritance: Inheritance, look: Look): string {
    const { background } = this.masters[this.master(inheritance, look)] as Master;
    return this.named({ name: inheritance.layoutName.slice(0, 300), ...(background ? { background } : {}), elements: [] });
  }

  private named(master: Master): string {
    const name = textHash(canonical(master));
    this.masters[name] = master;
    return name;
  }

  /** Footer, number and date where the slide has them. */
  private regions(shapes: readonly XmlElement[], work: ShapeWork): RegionBox[] {
    const reader = new ShapeReader(work);
    return shapes.flatMap((shape): RegionBox[] => {
      const ref = placeholderRef(shape);
      const region = ref && ({ ftr: "footer", sldNum: "number", dt: "date" } as Record<string, RegionBox["region"]>)[ref.type];
      const frame = ref && work.inheritance.frame(shape, ref);
      if (!ref || !region || !frame) return [];
      const { text, style, box } = reader.body(shape, ref);
      const words = text.map(({ runs }) => runs.map((item) => item.text).join("")).join("\n").slice(0, 500);
      if (words === "" && region !== "number") return [];
      return [{ region, text: region === "number" ? "‹#›" : words, frame, style, box }];
    }).slice(0, 10);
  }

  private transition(tree: XmlElement, number: number): Pick<Slide, "transition" | "delay"> {
    const found = child(tree, "transition") ?? at(tree, "AlternateContent", "Choice", "transition") ?? at(tree, "AlternateContent", "Fallback", "transition");
    if (!found) return {};
    const kind = found.children.map(localName).find((name) => name !== "sndAc" && name !== "extLst");
    const { spd, advTm } = found.attributes;
    const exact = Number(Object.entries(found.attributes).find(([key]) => key.endsWith(":dur"))?.[1]) / 1000;
    const seconds = exact > 0 ? Math.min(10, Math.max(0.1, exact)) : spd === "slow" ? 1.5 : spd === "med" ? 0.75 : 0.5;
    const delay = Number(advTm) / 1000;
    const near = kind === undefined || WIPES[kind] ? undefined : nearTransition(kind);
    const ours = kind === undefined ? undefined : (WIPES[kind] ?? near?.kind);
    if (near) this.adapted.push({ slide: number, what: `the transition “${kind}”`, how: near.how });
    return { ...(ours ? { transition: { kind: ours, seconds } } : {}), ...(delay >= 0.5 && delay <= 3600 ? { delay } : {}) };
  }

  private arrangement(kept: unknown, inheritance: Inheritance, shapes: readonly XmlElement[]): ArrangementName {
    const own = ArrangementName.safeParse(kept);
    const refs = shapes.map(placeholderRef).filter((ref): ref is PlaceholderRef => ref !== undefined);
    if (own.success) return own.data;
    const types: Record<string, ArrangementName> = { title: "opening", secHead: "section", obj: "points", tx: "points", twoObj: "comparison", twoTxTwoObj: "comparison", titleOnly: "title", blank: "blank", picTx: "picture" };
    const known = types[inheritance.layoutType];
    if (known) return known;
    const titled = refs.some(({ type }) => type === "title" || type === "ctrTitle");
    const bodies = refs.filter(({ type }) => ["obj", "body", "subTitle"].includes(type)).length;
    return bodies >= 2 && titled ? "comparison" : bodies === 1 ? "points" : titled ? "title" : "blank";
  }

  /** A shape of ours as another program has left it. */
  repainted(shape: XmlElement, { path, number, arrangement, inheritance }: OwnSlide, identity: KeptIdentity & { id: string }): Element | undefined {
    const look = this.looks.get(inheritance.layoutPath ?? "") as Look;
    const work = this.shapeWork(path, number, inheritance, look.map, arrangement, new Map([["0", identity]]), () => identity.id);
    const [found] = new ShapeReader(work).read([shape]);
    if (!found) return undefined;
    const { kept: _, ...element } = found;
    return this.unlike(element as Element);
  }

  linker(path: string, number: number): ReadContext["link"] {
    const relationships = this.pack.relationships(path);
    return (id, action) => {
      const relationship = relationships.get(id);
      if (relationship && !relationship.external && this.ids.has(relationship.target)) return `slide:${this.ids.get(relationship.target)}`;
      const step = /hlinkshowjump\?jump=(next|previous|first|last)slide/.exec(action)?.[1];
      const ids = [...this.ids.values()];
      const there = step && number > 0 ? { next: ids[number], previous: ids[number - 2], first: ids[0], last: ids.at(-1) }[step] : undefined;
      if (there !== undefined) {
        if (step === "next" || step === "previous") this.adapted.push({ slide: number, what: `a link to the ${step} slide`, how: `it leads to the slide that is ${step} now, wherever it goes` });
        return `slide:${there}`;
      }
      const link = relationship?.external ? externalLink(relationship.target) : undefined;
      if (!link) this.left.push({ slide: number, what: "a link", why: action ? `its action (${action}) is not read yet; its words stay` : "it leads nowhere that a slide can open; its words stay" });
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

function identityOf(value: unknown): KeptIdentity {
  const { id, slot, binding } = (typeof value === "object" && value !== null ? value : {}) as Record<string, unknown>;
  const bound = Binding.safeParse(binding);
  return { ...(Id.safeParse(id).success ? { id: id as string } : {}), ...(slot === null || typeof slot === "string" ? { slot } : {}), ...(bound.success ? { binding: bound.data } : {}) };
}

/**
 * Reads a presentation in Office Open XML (ECMA-376, transitional or strict): title, text with levels and marks, notes,
 * links, pictures, page, theme colours and fonts, running order. Throws a Failure when the file is damaged; what is not
 * read is listed in `left`, slide by slide.
 */
export function readPptx(bytes: Uint8Array, options: ReadOptions): ReadDeck {
  return collected(pptxLots(bytes, options));
}

/** The same, some slides at a time. */
export function pptxLots(bytes: Uint8Array, options: ReadOptions): ReadLots {
  return new Reader(bytes, options).lots();
}
