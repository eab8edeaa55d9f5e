import { type Align, ArrangementName, type Asset, type Background, type Deck, DeckHead, type Element, emptyDeck, Failure, type Footnote, type Frame, Id, isEmptyText, joinRuns, Language, mapElementTexts, mapLinks, type Mark, MAX_LEVEL, Origin, Page, type Paragraph, RichText, type Run, run, type Slide, SlideLook, slotsOf, Source, type TableElement, titleOf, type Transition } from "@unitext/core/model";
import type { Report } from "@unitext/core/tally";
import { type Block, linkTarget, trimmed } from "@unitext/core/text";
import { at, child, childrenOf, localName, partText, type Parts, readMixed, unzip, type XmlElement, type XmlNode } from "../archive";
import { fromBase64 } from "../json";
import { chartTable, figureWords, flattened, keptElement, type KeptElement, keptText, nested, wordsOf } from "../kept";
import { attribute, Styles } from "../odt/styles";
import { readTable } from "../odt/table";
import { pictureInfo } from "../picture";
import { KEPT, points } from "./names";

export interface OdpReadOptions {
  name: string;
  newId: () => string;
  sha256: (bytes: Uint8Array) => string;
}
export interface OdpRead extends Pick<Report, "adapted" | "left"> {
  deck: Deck;
  blobs: Map<string, Uint8Array>;
}

const SHAPES = new Set(["custom-shape", "rect", "ellipse", "circle", "line", "polyline", "polygon", "path", "connector", "regular-polygon", "caption", "measure"]);
const WIPES: Record<string, Transition["kind"]> = { fade: "fade", pushWipe: "push", barWipe: "wipe" };

interface PageWork {
  number: number;
  arrangement: ArrangementName;
  kept: Record<string, unknown>;
  used: Set<string>;
  footnotes: Footnote[];
}

class OdpReader {
  private readonly adapted: Report["adapted"] = [];
  private readonly left: Report["left"] = [];
  private readonly blobs = new Map<string, Uint8Array>();
  private readonly assets: Record<string, Asset> = {};
  private readonly parts: Parts;
  private readonly flat: XmlNode | undefined;
  private readonly styles = new Styles();
  /** The properties of pages by the names of their styles, and the pictures of fills by their names. */
  private readonly pageStyles = new Map<string, XmlElement>();
  private readonly fills = new Map<string, XmlElement>();
  private readonly ids = new Map<string, string>();
  private number = 0;

  constructor(
    bytes: Uint8Array,
    private readonly options: OdpReadOptions,
  ) {
    const begins = partText(bytes.subarray(0, 200)).trimStart();
    if (begins.startsWith("<")) {
      this.parts = new Map();
      this.flat = readMixed(partText(bytes), options.name);
      return;
    }
    this.parts = unzip(bytes, options.name);
    const manifest = this.parts.get("META-INF/manifest.xml");
    if (manifest && /encryption-data/.test(partText(manifest))) throw new Failure("not-readable", options.name, "The presentation is protected by a password. Save it without one and bring it in again.");
  }

  private part(path: string, needed: boolean): XmlNode | undefined {
    if (this.flat) return this.flat;
    const bytes = this.parts.get(path);
    if (!bytes) {
      if (needed) throw new Failure("not-readable", this.options.name, `The presentation's part ${path} is missing; it is damaged or of another kind.`);
      return undefined;
    }
    try {
      return readMixed(partText(bytes), path);
    } catch (error) {
      if (needed) throw error;
      this.left.push({ slide: null, what: `the part ${path}`, why: "it is damaged" });
      return undefined;
    }
  }

  read(): OdpRead {
    const { options } = this;
    const content = this.part("content.xml", true) as XmlNode;
    const body = at(content, "body", "presentation") as XmlNode | undefined;
    if (!body) throw new Failure("not-readable", options.name, at(content, "body", "text") ? "The file is a text document, not a presentation; rename it to .odt." : "The file holds no presentation.");
    const styles = this.part("styles.xml", false);
    for (const holder of [child(styles, "styles"), child(styles, "automatic-styles"), child(content, "automatic-styles")]) this.takeStyles(holder as XmlNode | undefined);
    const kept = this.kept();
    const head = this.head(styles, kept.deck);
    const pages = childrenOf(body, "page") as XmlNode[];
    const slidesKept = pages.map((page) => (kept.slides[attribute(page, "name") ?? ""] ?? {}) as Record<string, unknown>);
    const taken = new Set<string>();
    pages.forEach((page, nth) => {
      const given = Id.safeParse(slidesKept[nth]?.id);
      const id = given.success && !taken.has(given.data) ? given.data : options.newId();
      taken.add(id);
      this.ids.set(attribute(page, "name") ?? `page${nth + 1}`, id);
      // Links of other programs lead to a page by its number as well.
      if (!this.ids.has(`page${nth + 1}`)) this.ids.set(`page${nth + 1}`, id);
    });
    const ids = [...taken];
    const slides = pages.map((page, nth) => this.slide(page, nth + 1, ids[nth] as string, slidesKept[nth] ?? {}));
    const known = new Set(ids);
    const mended = (text: RichText) => mapLinks(text, (to) => (to.startsWith("slide:") && !known.has(to.slice(6)) ? undefined : to));
    const deck: Deck = { ...head, assets: { ...head.assets, ...this.assets }, slides: nested(slides).map((slide) => ({ ...slide, notes: mended(slide.notes), elements: slide.elements.map((element) => mapElementTexts(element, mended)) })) };
    if (!deck.properties.title) deck.properties = { ...deck.properties, title: (deck.slides[0] && titleOf(deck.slides[0])) || options.name.replace(/\.[^.]*$/, "") };
    for (const name of Object.keys(deck.assets)) if (!this.assets[name]) delete deck.assets[name];
    return { deck, blobs: this.blobs, adapted: this.adapted, left: this.left };
  }

  private takeStyles(holder: XmlNode | undefined): void {
    this.styles.add(holder);
    for (const element of holder?.children ?? []) {
      const name = attribute(element, "name") ?? "";
      if (localName(element) === "fill-image") this.fills.set(name, element);
      const properties = child(element, "drawing-page-properties");
      if (properties) this.pageStyles.set(name, properties);
    }
  }

  /** What Unitext keeps in the file; what another program cut short says nothing. */
  private kept(): { deck: unknown; slides: Record<string, unknown> } {
    const fields = new Map(childrenOf(child(this.part("meta.xml", false), "meta"), "user-defined").map((field) => [attribute(field as XmlNode, "name"), field.text]));
    const parse = (name: string): unknown => {
      try {
        return JSON.parse(fields.get(name) ?? "null");
      } catch {
        return null;
      }
    };
    const slides = parse(KEPT.slides);
    return { deck: parse(KEPT.deck), slides: slides && typeof slides === "object" ? (slides as Record<string, unknown>) : {} };
  }

  private head(styles: XmlNode | undefined, kept: unknown): DeckHead {
    const meta = child(this.part("meta.xml", false), "meta");
    const said = (name: string) => child(meta, name)?.text.trim() ?? "";
    const master = child(child(styles, "master-styles"), "master-page") as XmlNode | undefined;
    const layouts = [...childrenOf(child(styles, "automatic-styles"), "page-layout")] as XmlNode[];
    const layout = layouts.find((one) => attribute(one, "name") === attribute(master, "page-layout-name")) ?? layouts[0];
    const size = child(layout, "page-layout-properties") as XmlNode | undefined;
    const page = Page.safeParse({ width: points(attribute(size, "page-width")), height: points(attribute(size, "page-height")) });
    const words = childrenOf(child(styles, "styles"), "default-style").map((style) => child(style, "text-properties") as XmlNode | undefined).find((found) => attribute(found, "language"));
    const [code, country] = [attribute(words, "language"), attribute(words, "country")];
    const language = Language.safeParse(said("language") || (code && code !== "none" ? (country && country !== "none" ? `${code}-${country}` : code) : ""));
    const { slides: _, ...fresh } = emptyDeck(this.options.newId(), "");
    const paper = attribute(this.pageStyles.get(attribute(master, "style-name") ?? "") as XmlNode | undefined, "fill-color");
    const base: DeckHead = {
      ...fresh,
      page: page.success ? page.data : fresh.page,
      language: language.success ? language.data : "en",
      properties: { title: said("title").slice(0, 500), author: (said("initial-creator") || said("creator")).slice(0, 500), event: said("subject").slice(0, 500), date: "" },
      theme: { ...fresh.theme, ...(paper && /^#[0-9a-f]{6}$/i.test(paper) ? { name: "From the file", ornament: "none" as const, colours: readable({ ...fresh.theme.colours, paper: paper.toLowerCase() }) } : {}) },
    };
    const whole = DeckHead.safeParse({ ...base, ...(kept && typeof kept === "object" ? kept : {}), page: base.page });
    return kept && whole.success ? { ...whole.data, properties: { ...whole.data.properties, title: base.properties.title || whole.data.properties.title } } : base;
  }

  private slide(page: XmlNode, number: number, id: string, kept: Record<string, unknown>): Slide {
    const own = ArrangementName.safeParse(kept.arrangement);
    const classes = page.children.map((shape) => attribute(shape, "class")).filter((name): name is string => name !== undefined);
    const bodies = classes.filter((name) => name === "outline" || name === "text").length;
    const arrangement: ArrangementName = own.success ? own.data : classes.includes("title") ? (classes.includes("subtitle") ? "opening" : bodies >= 2 ? "comparison" : bodies === 1 ? "points" : "title") : bodies ? "points" : "blank";
    const work: PageWork = { number, arrangement, kept: (kept.elements ?? {}) as Record<string, unknown>, used: new Set(), footnotes: [] };
    const elements = page.children.flatMap((shape) => this.elements(shape, work));
    const properties = this.pageStyles.get(attribute(page, "style-name") ?? "") as XmlNode | undefined;
    const look = SlideLook.safeParse(kept);
    const source = Source.safeParse(kept.source);
    const origin = Origin.safeParse(kept.origin);
    const notes = childrenOf(child(page, "notes"), "frame").find((frame) => attribute(frame as XmlNode, "class") === "notes") as XmlNode | undefined;
    if (page.children.some((part) => localName(part) === "par" && /<|animate|set/.test(names(part)))) this.left.push({ slide: number, what: "motion", why: "steps and animations are not read yet" });
    return {
      id,
      parent: typeof kept.parent === "string" ? kept.parent : null,
      arrangement,
      elements,
      notes: keptText(RichText.safeParse(kept.notes).data, this.text((child(notes, "text-box") as XmlNode | undefined)?.children ?? []), [], true),
      hidden: attribute(properties, "visibility") === "hidden",
      ...(source.success ? { source: source.data } : {}),
      ...(origin.success ? { origin: origin.data } : {}),
      ...(typeof kept.theme === "string" ? { theme: kept.theme } : {}),
      ...(Object.keys(kept).length ? (look.success ? look.data : {}) : this.look(properties)),
    };
  }

  /** What a page of another program looks like behind its shapes, and how it comes in. */
  private look(properties: XmlNode | undefined): Pick<Slide, "background" | "transition" | "delay"> {
    const fill = attribute(properties, "fill");
    const colour = attribute(properties, "fill-color")?.toLowerCase();
    const image = fill === "bitmap" ? this.fills.get(attribute(properties, "fill-image-name") ?? "") : undefined;
    const picture = image && this.file(attribute(image as XmlNode, "href"), image as XmlNode);
    const background: Background | undefined = picture ? { picture } : fill === "solid" && colour && /^#[0-9a-f]{6}$/.test(colour) ? { colour } : undefined;
    const kind = WIPES[attribute(properties, "type") ?? ""];
    const seconds = { slow: 1.5, medium: 1, fast: 0.5 }[attribute(properties, "transition-speed") ?? "fast"] ?? 0.5;
    const waits = /^PT(?:(\d+)H)?(?:(\d+)M)?([\d.]+)S$/.exec(attribute(properties, "duration") ?? "");
    const delay = attribute(properties, "transition-type") === "automatic" && waits ? Number(waits[1] ?? 0) * 3600 + Number(waits[2] ?? 0) * 60 + Number(waits[3]) : 0;
    return { ...(background ? { background } : {}), ...(kind ? { transition: { kind, seconds } } : {}), ...(delay >= 0.5 && delay <= 3600 ? { delay } : {}) };
  }

  private elements(shape: XmlNode, work: PageWork): Element[] {
    const kind = localName(shape);
    if (kind === "g") return shape.children.flatMap((inner) => this.elements(inner, work));
    if (kind === "a") return shape.children.flatMap((inner) => this.elements(inner, work));
    if (kind !== "frame" && !SHAPES.has(kind)) return [];
    const name = attribute(shape, "name") ?? "";
    const className = attribute(shape, "class");
    if (["header", "footer", "date-time", "page-number", "page", "notes"].includes(className ?? "")) return [];
    const kept = keptElement(work.kept[name]);
    if (kept.footnotes) return [];
    const id = kept.id && !work.used.has(kept.id) ? kept.id : this.options.newId();
    const slot = kept.slot !== undefined ? kept.slot : this.slot(className, shape, work);
    const frame = kept.frame ?? (slot === null && kept.id === undefined ? frameOf(shape) : undefined);
    const base = { ...kept.facts, id, slot, ...(kept.binding ? { binding: kept.binding } : {}), ...(frame ? { frame } : {}) };
    const add = (element: Element): Element[] => {
      work.used.add(id);
      if (slot !== null) work.used.add(`slot:${slot}`);
      return [element];
    };
    return add0(this.content(shape, kind, name, kept, base, work), add);
  }

  private content(shape: XmlNode, kind: string, name: string, kept: KeptElement, base: { id: string; slot: string | null }, work: PageWork): Element | undefined {
    const alt = ((child(shape, "desc") ?? child(shape, "title"))?.text ?? "").trim();
    const image = child(shape, "image") as XmlNode | undefined;
    const object = child(shape, "object") ?? child(shape, "object-ole") ?? child(shape, "plugin");
    if (object) {
      this.left.push({ slide: work.number, what: `object “${name || alt}”`, why: "charts and embedded objects are not read yet" });
      return undefined;
    }
    if (image || kept.source) {
      const source = image && this.file(attribute(image, "href"), image, kept.source);
      if (!source && image) {
        this.left.push({ slide: work.number, what: `picture “${alt || name}”`, why: "its file is missing, or of a kind that is not read yet (PNG and JPEG are)" });
        return undefined;
      }
      return { ...base, kind: "picture", source: source ?? (kept.source as string), alt } as Element;
    }
    const table = child(shape, "table") as XmlNode | undefined;
    const { whole } = kept;
    if (table) {
      const read = readTable(table, { blocks: (children, into: Block[]) => into.push({ kind: "text", text: this.text(children), from: 1, to: 1 }), say: (message) => this.adapted.push({ slide: work.number, what: "a table", how: message }) });
      if (read?.figure.kind !== "table") return undefined;
      const bare: TableElement["rows"] = read.figure.rows.map((row) => row.map((cell) => cell && { ...cell, text: cell.text.filter(({ runs }) => runs.some(({ text }) => text.trim())) }));
      const words = (rows: TableElement["rows"]) => JSON.stringify(rows.map((row) => row.map((cell) => (cell ? wordsOf(flattened(cell.text, work.footnotes)) : null))));
      const expected = whole?.kind === "chart" ? chartTable(whole).rows : whole?.kind === "table" ? whole.rows : undefined;
      if (whole && expected && words(expected) === words(bare)) return { ...whole, ...base } as Element;
      return { kind: "table", ...base, rows: bare, header: read.figure.header, align: read.figure.align, ...(whole?.kind === "table" && whole.caption ? { caption: whole.caption } : {}) };
    }
    const box = (child(shape, "text-box") as XmlNode | undefined) ?? shape;
    const heading = base.slot === "title";
    const read = this.text(box.children, heading);
    const figure = whole && figureWords(whole, work.footnotes);
    if (figure && wordsOf(figure) === wordsOf(read)) return { ...whole, ...base } as Element;
    const text = keptText(kept.text, read, work.footnotes);
    if (isEmptyText(text) && kept.id === undefined) {
      if (SHAPES.has(kind)) this.left.push({ slide: work.number, what: `shape “${name || kind}”`, why: "drawn shapes are not read yet" });
      return undefined;
    }
    if (SHAPES.has(kind)) this.adapted.push({ slide: work.number, what: `shape “${name || kind}”`, how: "its text is kept; outline and fill are not drawn" });
    return { ...base, kind: "text", text } as Element;
  }

  private slot(className: string | undefined, shape: XmlNode, { arrangement, used }: PageWork): string | null {
    if (className === "title") return used.has("slot:title") ? null : "title";
    if (!className) return null;
    const free = slotsOf(arrangement).filter(([slot, role]) => role !== "title" && role !== "opening" && !used.has(`slot:${slot}`));
    const picture = child(shape, "image") !== undefined;
    return (free.find(([, role]) => (role === "picture") === picture) ?? free[0])?.[0] ?? null;
  }

  /** Takes a picture's file; returns the name by which the deck knows it, or undefined where it cannot be read. */
  private file(href: string | undefined, holder: XmlNode, kept?: string): string | undefined {
    const path = (href ?? "").replace(/^\.\//, "");
    const data = child(holder, "binary-data")?.text.replace(/\s+/g, "");
    const bytes = data ? fromBase64(data) : this.parts.get(path);
    const info = bytes && pictureInfo(bytes);
    if (!bytes || !info) return undefined;
    const sha256 = this.options.sha256(bytes);
    const source = kept ?? (path ? path.slice(path.lastIndexOf("/") + 1) : `${sha256.slice(0, 16)}.${info.mediaType === "image/png" ? "png" : "jpeg"}`);
    this.blobs.set(sha256, bytes);
    this.assets[source] = { sha256, ...info };
    return source;
  }

  private text(children: readonly XmlNode[], heading = false): RichText {
    const text: Paragraph[] = [];
    for (const element of children) {
      const name = localName(element);
      if (name === "p" || name === "h") text.push(this.paragraph(element, { kind: "plain", level: 0 }, heading));
      else if (name === "list") this.list(element, 0, undefined, text, heading);
    }
    // What ends a text with nothing says nothing.
    while (text.length && isEmptyText([text.at(-1) as Paragraph])) text.pop();
    return text;
  }

  private list(list: XmlNode, level: number, inherited: string | undefined, into: Paragraph[], heading: boolean): void {
    const style = attribute(list, "style-name") ?? inherited;
    const kind = this.styles.listKind(style, level);
    for (const item of list.children) {
      if (!["list-item", "list-header"].includes(localName(item))) continue;
      let begun = localName(item) === "list-header";
      const start = Number(attribute(item, "start-value"));
      for (const part of item.children) {
        if (localName(part) === "list") this.list(part, level + 1, style, into, heading);
        else if (localName(part) === "p" || localName(part) === "h") {
          const deeper = begun && localName(item) !== "list-header" ? level + 1 : level;
          into.push(this.paragraph(part, begun ? { kind: "plain", level: Math.min(MAX_LEVEL, deeper) } : { kind, level: Math.min(MAX_LEVEL, level), ...(kind === "number" && Number.isInteger(start) && attribute(item, "start-value") !== undefined ? { start } : {}) }, heading));
          begun = true;
        }
      }
    }
  }

  private paragraph(element: XmlNode, shape: Omit<Paragraph, "runs">, heading: boolean): Paragraph {
    const chain = this.styles.chain(attribute(element, "style-name"));
    const align: Align | undefined = chain.find(({ align: own }) => own)?.align;
    const runs = trimmed(joinRuns(this.inline(element, this.styles.marks(chain, [], heading), undefined)));
    return { ...shape, ...(align ? { align } : {}), runs };
  }

  private inline(element: XmlNode, marks: readonly Mark[], link: string | undefined): Run[] {
    return element.content.flatMap((part): Run[] => {
      if (typeof part === "string") return [run(part.replace(/\s+/g, " "), marks, link)];
      switch (localName(part)) {
        case "span":
          return this.inline(part, this.styles.marks(this.styles.chain(attribute(part, "style-name")), marks), link);
        case "a":
          return this.inline(part, marks, this.target(attribute(part, "href") ?? "") ?? link);
        case "s":
          return [run(" ".repeat(Math.min(200, Number(attribute(part, "c") ?? 1) || 1)), marks, link)];
        case "tab":
          return [run("\t", marks, link)];
        case "line-break":
          return [run("\n", marks, link)];
        case "annotation":
        case "bookmark":
        case "bookmark-start":
        case "bookmark-end":
          return [];
        default:
          return this.inline(part, marks, link);
      }
    });
  }

  private target(href: string): string | undefined {
    if (!href.startsWith("#")) return linkTarget(href);
    const page = this.ids.get(decodeURIComponent(href.slice(1)));
    return page === undefined ? undefined : `slide:${page}`;
  }
}

const add0 = (element: Element | undefined, add: (element: Element) => Element[]): Element[] => (element ? add(element) : []);
const names = (element: XmlNode): string => element.children.map((inner) => `${localName(inner)} ${names(inner)}`).join(" ");

function frameOf(shape: XmlNode): Frame | undefined {
  const [x, y, width, height] = ["x", "y", "width", "height"].map((name) => points(attribute(shape, name)));
  return width === undefined || height === undefined || width <= 0 || height <= 0 ? undefined : { x: x ?? 0, y: y ?? 0, width, height };
}

/** Ink that can be read on a paper that came with a file. */
function readable(colours: Deck["theme"]["colours"]): Deck["theme"]["colours"] {
  const [r, g, b] = [1, 3, 5].map((from) => Number.parseInt(colours.paper.slice(from, from + 2), 16) / 255) as [number, number, number];
  const light = 0.2126 * r + 0.7152 * g + 0.0722 * b > 0.4;
  return light ? colours : { ...colours, ink: "#f4f4f0", muted: "#c9cfcb", link: "#9fd8d6", accent: "#7cc6c4" };
}

/**
 * Reads a presentation in OpenDocument 1.2 or 1.3, packed or flat: titles, outlines and text boxes with levels and marks,
 * tables, notes, links, pictures, backgrounds, page, order. Throws a Failure when the file is damaged; what is not read
 * is listed in `left`, slide by slide.
 */
export function readOdp(bytes: Uint8Array, options: OdpReadOptions): OdpRead {
  return new OdpReader(bytes, options).read();
}
