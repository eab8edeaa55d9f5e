import { type Asset, ArrangementName, Binding, type Deck, DeckHead, Element, emptyDeck, Failure, type Footnote, type Frame, Id, isEmptyText, Language, mapElementTexts, mapLinks, Origin, Page, RichText, type Slide, SlideLook, slotsOf, Source, type TableElement, textOf, titleOf } from "@unitext/core/model";
import type { Report } from "@unitext/core/tally";
import { at, child, childrenOf, localName, type XmlElement } from "../archive";
import { pictureInfo } from "../picture";
import { Inheritance, type PlaceholderRef, placeholderRef, shapesOf } from "./inherit";
import { EMU, placeholderOf, TAG } from "./names";
import { OpenedPackage } from "./package";
import { externalLink, readBody, type ReadContext } from "./readtext";
import { readTheme } from "./readtheme";
import { chartTable, figureWords, flattened, footnoteText } from "./special";
import { readTable } from "./table";

export interface ReadOptions {
  name: string;
  newId: () => string;
  sha256: (bytes: Uint8Array) => string;
}

/** A deck read from a file, the bytes of its pictures by SHA-256, and what could not be taken as it was. */
export interface ReadDeck extends Pick<Report, "adapted" | "left"> {
  deck: Deck;
  blobs: Map<string, Uint8Array>;
}

/** The tags of a part, as far as they are ours and hold JSON. */
function readTags(pack: OpenedPackage, path: string): Map<string, unknown> {
  const tags = new Map<string, unknown>();
  const part = pack.related(path, "tags");
  if (!part || !pack.has(part)) return tags;
  for (const { attributes } of childrenOf(pack.tree(part), "tag")) {
    if (!attributes.name?.startsWith("UNITEXT_")) continue;
    try {
      tags.set(attributes.name, JSON.parse(attributes.val ?? ""));
    } catch {
      // A tag that another program cut short says nothing: the file is read as any other.
    }
  }
  return tags;
}

/** What the tags keep of an element; anything that does not check is passed over. */
interface KeptElement {
  id?: string;
  slot?: string | null;
  frame?: Frame;
  binding?: Binding;
  source?: string;
  /** All of it, where the file can only show it. */
  whole?: Element;
  /** A text with what the file has no run for. */
  text?: RichText;
  /** The box that lists footnotes, which belong to their text. */
  footnotes?: boolean;
  steps?: boolean;
  caption?: string;
  width?: number;
}

/** The words of a text whatever the white space between them. */
function wordsOf(text: RichText): string {
  return textOf(text).replace(/\s+/g, " ").trim();
}

function keptElement(value: unknown): KeptElement {
  if (typeof value !== "object" || value === null) return {};
  const { id, slot, frame, binding, source, text, footnotes, steps, caption, width } = value as Record<string, unknown>;
  const whole = Element.safeParse(value);
  const rich = RichText.safeParse(text);
  return {
    ...(whole.success ? { whole: whole.data } : {}),
    ...(rich.success ? { text: rich.data } : {}),
    ...(footnotes === true ? { footnotes } : {}),
    ...(steps === true ? { steps } : {}),
    ...(typeof caption === "string" ? { caption } : {}),
    ...(typeof width === "number" && width >= 1 && width <= 100 ? { width } : {}),
    ...(Id.safeParse(id).success ? { id: id as string } : {}),
    ...(slot === null || typeof slot === "string" ? { slot } : {}),
    ...(frame && typeof frame === "object" ? { frame: frame as Frame } : {}),
    ...(Binding.safeParse(binding).success ? { binding: Binding.parse(binding) } : {}),
    ...(typeof source === "string" && source ? { source } : {}),
  };
}

class Reader {
  readonly adapted: Report["adapted"] = [];
  readonly left: Report["left"] = [];
  readonly blobs = new Map<string, Uint8Array>();
  readonly assets: Record<string, Asset> = {};
  private readonly pack: OpenedPackage;
  private readonly ids = new Map<string, string>();
  private codeFont: string | undefined;

  constructor(
    bytes: Uint8Array,
    private readonly options: ReadOptions,
  ) {
    this.pack = new OpenedPackage(bytes, options.name);
  }

  read(): ReadDeck {
    const { pack, options } = this;
    const main = pack.related("", "document") ?? "ppt/presentation.xml";
    const presentation = pack.tree(main);
    if (localName(presentation) !== "presentation") throw new Failure("not-readable", options.name, "The file is an Office Open XML document, but not a presentation.");
    const paths = this.slidePaths(main, presentation);
    const tags = readTags(pack, main);
    const head = this.head(main, presentation, tags.get(TAG.deck), paths[0]);
    const slideTags = paths.map((path) => readTags(pack, path));
    paths.forEach((path, nth) => {
      const given = (slideTags[nth]?.get(TAG.slide) as { id?: string } | undefined)?.id;
      const taken = [...this.ids.values()].includes(given ?? "");
      this.ids.set(path, Id.safeParse(given).success && !taken ? (given as string) : options.newId());
    });
    const slides = paths.map((path, nth) => this.slide(path, nth + 1, slideTags[nth] ?? new Map()));
    const deck: Deck = { ...head, assets: { ...head.assets, ...this.assets }, slides: this.nested(slides) };
    const known = new Set(slides.map(({ id }) => id));
    deck.slides = deck.slides.map((slide) => ({ ...slide, notes: this.mended(slide.notes, known), elements: slide.elements.map((element) => mapElementTexts(element, (text) => this.mended(text, known))) }));
    if (!deck.properties.title) deck.properties = { ...deck.properties, title: (deck.slides[0] && titleOf(deck.slides[0])) || options.name.replace(/\.[^.]*$/, "") };
    for (const name of Object.keys(deck.assets)) if (!this.assets[name]) delete deck.assets[name];
    return { deck, blobs: this.blobs, adapted: this.adapted, left: this.left };
  }

  private mended(text: RichText, known: ReadonlySet<string>): RichText {
    return mapLinks(text, (to) => (to.startsWith("slide:") && !known.has(to.slice(6)) ? undefined : to));
  }

  private slidePaths(main: string, presentation: XmlElement): string[] {
    const relationships = this.pack.relationships(main);
    return childrenOf(child(presentation, "sldIdLst"), "sldId").flatMap(({ attributes }) => {
      const id = Object.entries(attributes).find(([key]) => key.endsWith(":id"))?.[1] ?? "";
      const target = relationships.get(id)?.target;
      if (!target || !this.pack.has(target)) throw new Failure("not-readable", main, `The presentation lists a slide (${id}) that is missing from the file.`);
      return [target];
    });
  }

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
    return themePath && pack.has(themePath) ? { ...base, theme: readTheme(pack.tree(themePath), inheritance?.master, this) } : base;
  }

  private guessLanguage(firstSlide: string | undefined): string {
    const found = firstSlide ? /\blang="([A-Za-z]{2,3}(?:-[A-Za-z0-9]{2,8})*)"/.exec(new TextDecoder().decode(this.pack.bytes(firstSlide)))?.[1] : undefined;
    return found ?? "en";
  }

  private slide(path: string, number: number, tags: Map<string, unknown>): Slide {
    const tree = this.pack.tree(path);
    const inheritance = Inheritance.of(this.pack, path);
    const kept = (tags.get(TAG.slide) ?? {}) as Record<string, unknown>;
    const keptElements = (tags.get(TAG.elements) ?? {}) as Record<string, unknown>;
    const shapes = shapesOf(tree);
    const arrangement = this.arrangement(kept.arrangement, inheritance, shapes);
    const used = new Set<string>();
    const footnotes: Footnote[] = [];
    const elements = shapes.flatMap((shape) => this.elements(shape, { path, number, arrangement, inheritance, kept: keptElements, used, footnotes }));
    const source = Source.safeParse(kept.source);
    const origin = Origin.safeParse(kept.origin);
    const look = SlideLook.safeParse(kept);
    const parent = typeof kept.parent === "string" ? kept.parent : null;
    if (child(tree, "timing")) this.left.push({ slide: number, what: "motion", why: "steps and animations are not read yet" });
    return {
      id: this.ids.get(path) as string,
      parent,
      arrangement,
      elements,
      notes: this.keptText(RichText.safeParse(kept.notes).data, this.notes(path), [], true),
      hidden: tree.attributes.show === "0" || tree.attributes.show === "false",
      ...(source.success ? { source: source.data } : {}),
      ...(origin.success ? { origin: origin.data } : {}),
      ...(look.success ? look.data : {}),
    };
  }

  /** The text that the tags keep, as long as the file still says the same words; else what the file says. */
  private keptText(kept: RichText | undefined, read: RichText, said: Footnote[], withNotes = false): RichText {
    if (!kept) return read;
    const flat = flattened(kept, said);
    return wordsOf(read) === wordsOf(withNotes ? [...flat, ...footnoteText(said)] : flat) ? kept : read;
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

  private elements(shape: XmlElement, work: { path: string; number: number; arrangement: ArrangementName; inheritance: Inheritance; kept: Record<string, unknown>; used: Set<string>; footnotes: Footnote[] }): Element[] {
    const { number, inheritance, used } = work;
    const kind = localName(shape);
    const ref = placeholderRef(shape);
    if (ref && ["dt", "ftr", "sldNum", "hdr", "sldImg"].includes(ref.type)) return [];
    if (kind === "grpSp") return shape.children.flatMap((inner) => (["sp", "pic", "grpSp", "graphicFrame"].includes(localName(inner)) ? this.elements(inner, work) : []));
    const properties = shape.children.find((part) => localName(part).startsWith("nv"));
    const named = child(properties, "cNvPr")?.attributes ?? {};
    const kept = keptElement(work.kept[named.id ?? ""]);
    if (kept.footnotes) return [];
    const id = kept.id && !used.has(kept.id) ? kept.id : this.options.newId();
    const slot = kept.slot !== undefined ? kept.slot : this.slot(ref, work.arrangement, used);
    const placed = { id, slot, ...(kept.binding ? { binding: kept.binding } : {}) };
    const frame = kept.frame ?? (slot === null && kept.id === undefined ? this.frame(shape, ref, inheritance) : undefined);
    const base = { ...placed, ...(frame ? { frame } : {}) };
    const shown = { ...(kept.caption ? { caption: kept.caption } : {}), ...(kept.width ? { width: kept.width } : {}) };
    const add = (element: Element): Element[] => {
      used.add(id);
      if (slot !== null) used.add(`slot:${slot}`);
      return [element];
    };
    if (kind === "pic") return this.picture(shape, named, work, (source) => add({ kind: "picture", ...base, source: kept.source ?? source, alt: named.descr ?? "", ...shown }), kept.source);
    if (kind === "sp" && kept.source) return add({ kind: "picture", ...base, source: kept.source, alt: named.descr ?? "", ...shown });
    // An element that the tags keep whole stays, as long as the file still says the words that were written for it.
    const whole = kept.whole;
    if (kind === "graphicFrame") {
      const table = at(shape, "graphic", "graphicData", "tbl");
      const context: ReadContext = { styles: [], codeFont: this.codeFont, link: this.linker(work.path, number) };
      const read = table && readTable(table, (body) => readBody(body, context));
      const words = (rows: TableElement["rows"]) => JSON.stringify(rows.map((row) => row.map((cell) => (cell ? wordsOf(flattened(cell.text, work.footnotes)) : null))));
      const expected = whole?.kind === "chart" ? chartTable(whole).rows : whole?.kind === "table" ? whole.rows : undefined;
      if (read) return add(whole && expected && words(expected) === words(read.rows) ? ({ ...whole, ...base } as Element) : { kind: "table", ...base, ...read, ...(whole?.kind === "table" && whole.caption ? { caption: whole.caption } : {}) });
    }
    if (kind === "sp") {
      const context: ReadContext = { styles: inheritance.styles(ref), codeFont: this.codeFont, link: this.linker(work.path, number) };
      const read = readBody(child(shape, "txBody"), context);
      const figure = whole && figureWords(whole, work.footnotes);
      if (figure && wordsOf(figure) === wordsOf(read)) return add({ ...whole, ...base } as Element);
      const text = this.keptText(kept.text, read, work.footnotes);
      const drawn = !ref && kept.id === undefined && this.isDrawn(shape);
      if (isEmptyText(text) && kept.id === undefined) {
        if (drawn) this.left.push({ slide: number, what: `shape “${named.name ?? ""}”`, why: "drawn shapes are not read yet" });
        return [];
      }
      if (drawn) this.adapted.push({ slide: number, what: `shape “${named.name ?? ""}”`, how: "its text is kept; outline and fill are not drawn" });
      return add({ kind: "text", ...base, text, ...(kept.steps ? { steps: true } : {}) });
    }
    const what = kind === "graphicFrame" ? (/\/(table|chart|diagram)$/.exec(at(shape, "graphic", "graphicData")?.attributes.uri ?? "")?.[1] ?? "embedded object") : kind === "cxnSp" ? "connecting line" : "object";
    this.left.push({ slide: number, what: `${what} “${named.name ?? ""}”`, why: "this kind of element is not read yet" });
    return [];
  }

  /** Whether a shape shows more than its text: a geometry other than a plain box, a fill or an outline. */
  private isDrawn(shape: XmlElement): boolean {
    const properties = child(shape, "spPr");
    const outline = child(properties, "ln");
    const form = child(properties, "prstGeom")?.attributes.prst;
    const filled = properties?.children.some((part) => ["solidFill", "gradFill", "blipFill", "pattFill"].includes(localName(part))) ?? false;
    const styled = child(shape, "style") !== undefined && child(properties, "noFill") === undefined;
    return filled || styled || (form !== undefined && form !== "rect") || (outline !== undefined && child(outline, "noFill") === undefined && outline.children.length > 0) || child(properties, "custGeom") !== undefined;
  }

  private slot(ref: PlaceholderRef | undefined, arrangement: ArrangementName, used: ReadonlySet<string>): string | null {
    if (!ref) return null;
    if (ref.type === "title" || ref.type === "ctrTitle") return "title";
    const free = slotsOf(arrangement).filter(([slot, role]) => role !== "title" && role !== "opening" && !used.has(`slot:${slot}`));
    const exact = free.find(([slot, role]) => String(placeholderOf(slot, role).idx) === ref.idx && (placeholderOf(slot, role).type ?? "obj") === ref.type);
    const wanted = ref.type === "pic" ? free.find(([, role]) => role === "picture") : free.find(([, role]) => role !== "picture");
    return (exact ?? wanted)?.[0] ?? null;
  }

  private frame(shape: XmlElement, ref: PlaceholderRef | undefined, inheritance: Inheritance): Frame | undefined {
    const transform = inheritance.transform(shape, ref);
    const off = child(transform, "off")?.attributes;
    const ext = child(transform, "ext")?.attributes;
    const values = [off?.x, off?.y, ext?.cx, ext?.cy].map((value) => Number(value) / EMU);
    if (values.some((value) => !Number.isFinite(value))) return undefined;
    const [x, y, width, height] = values as [number, number, number, number];
    return { x, y, width: Math.abs(width), height: Math.abs(height) };
  }

  private picture(shape: XmlElement, named: Record<string, string>, { path, number }: { path: string; number: number }, add: (source: string) => Element[], kept: string | undefined): Element[] {
    const blip = at(shape, "blipFill", "blip");
    const embed = Object.entries(blip?.attributes ?? {}).find(([key]) => key.endsWith(":embed"))?.[1] ?? "";
    const target = this.pack.relationships(path).get(embed)?.target ?? "";
    const bytes = this.pack.bytes(target);
    const info = bytes && pictureInfo(bytes);
    if (!bytes || !info) {
      this.left.push({ slide: number, what: `picture “${named.name ?? target}”`, why: bytes ? "only PNG and JPEG pictures are read yet" : "its file is missing" });
      return [];
    }
    const sha256 = this.options.sha256(bytes);
    const source = kept ?? target.slice(target.lastIndexOf("/") + 1);
    this.blobs.set(sha256, bytes);
    this.assets[source] = { sha256, ...info };
    return add(source);
  }

  private linker(path: string, number: number): ReadContext["link"] {
    const relationships = this.pack.relationships(path);
    return (id, action) => {
      const relationship = relationships.get(id);
      if (relationship && !relationship.external && this.ids.has(relationship.target)) return `slide:${this.ids.get(relationship.target)}`;
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

  /** Details stay under their main slide where the order still allows it; else they stand on the main line. */
  private nested(slides: Slide[]): Slide[] {
    const open: string[] = [];
    return slides.map((slide) => {
      const depth = slide.parent === null ? 0 : open.lastIndexOf(slide.parent) + 1;
      open.length = depth;
      open.push(slide.id);
      return depth === 0 && slide.parent !== null ? { ...slide, parent: null } : slide;
    });
  }
}

/**
 * Reads a presentation in Office Open XML (ECMA-376, transitional or strict): title, text with levels and marks, notes,
 * links, pictures, page, theme colours and fonts, running order. Throws a Failure when the file is damaged; what is not
 * read is listed in `left`, slide by slide.
 */
export function readPptx(bytes: Uint8Array, options: ReadOptions): ReadDeck {
  return new Reader(bytes, options).read();
}
