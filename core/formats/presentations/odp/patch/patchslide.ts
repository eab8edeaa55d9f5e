import { type Deck, type Element, escapeXml, Failure, type Slide, must } from "@unitext/core/model";
import { strFromU8 } from "fflate";
import {
  changedParts,
  isAsRead,
  SourcePackage,
  notesHash,
  sameComments,
  sameMotion,
  isSlideAsRead,
} from "../../../shared/sourcepackage";
import { withNewIds } from "./importstyles";
import { DRAFT_NS, NS } from "../package/names";
import { updateChart } from "./updatechart";
import { type ContentRanges, contentRanges, type PageRange, type ElementRange, rangeAt } from "./elementranges";
import { attributeOf, withAttribute, withPlace, withText, unescaped } from "./patchshape";

/** A presentation that slides were read from, opened so that what was not touched can be written unchanged. */
export class OdpBase {
  readonly content: ContentRanges;
  /**
   * Returns the pages that slides were read from; those that still use a master of the file; those that are copies of
   * another slide's page.
   */
  private readonly origins = new Map<string, number>();
  private readonly places = new Map<string, number>();
  private readonly copies = new Map<string, string>();
  /** Transforms its XML as it is written. */
  words: (text: string) => string = (text) => text;

  private constructor(
    readonly file: SourcePackage,
    deck: Deck,
  ) {
    this.content = contentRanges(this.text("content.xml"), "content.xml");
    const used = new Map<number, number>();
    for (const slide of deck.slides) {
      const at = Number(/^content\.xml#(\d+)$/.exec(slide.sourcePart?.part ?? "")?.[1]) - 1;
      if (slide.sourcePart?.file !== file.name || !this.content.pages[at]) continue;
      this.origins.set(slide.id, at);
      if (slide.master === undefined) continue;
      const times = (used.get(at) ?? 0) + 1;
      used.set(at, times);
      this.places.set(slide.id, at);
      if (times > 1) this.copies.set(slide.id, `c${times}-`);
    }
  }

  /**
   * Opens the source packages of slides, the one with most slides first; not those that are missing, or that use
   * unusual namespace prefixes.
   */
  static all(deck: Deck, picture: (sha256: string) => Uint8Array | undefined): OdpBase[] {
    const counts = new Map<string, number>();
    for (const { sourcePart } of deck.slides)
      if (sourcePart?.part.startsWith("content.xml#"))
        counts.set(sourcePart.file, (counts.get(sourcePart.file) ?? 0) + 1);
    const names = [...counts].sort((a, b) => b[1] - a[1]).map(([name]) => name);
    return names.flatMap((name) => OdpBase.open(name, deck, picture) ?? []);
  }

  private static open(
    name: string,
    deck: Deck,
    picture: (sha256: string) => Uint8Array | undefined,
  ): OdpBase | undefined {
    const asset = deck.assets[name];
    const bytes = asset && picture(asset.sha256);
    if (!bytes) return undefined;
    try {
      const file = new SourcePackage(name, bytes, picture);
      if (!file.has("content.xml") || !file.has("styles.xml")) return undefined;
      const base = new OdpBase(file, deck);
      const { namespaces } = base.content;
      const usual = Object.entries(NS).every(([prefix, uri]) =>
        [undefined, uri, DRAFT_NS[prefix as keyof typeof NS]].includes(namespaces.get(prefix)),
      );
      return usual && base.content.pagesEnd > 0 && base.origins.size ? base : undefined;
    } catch (error) {
      if (error instanceof Failure || error instanceof SyntaxError) return undefined;
      throw error;
    }
  }

  text(path: string): string {
    return strFromU8(this.file.bytes(path) ?? new Uint8Array());
  }
  page(slide: Slide): PageRange | undefined {
    const at = this.places.get(slide.id);
    return at === undefined ? undefined : this.content.pages[at];
  }
  /** Returns the page that a slide was read from, whatever became of its layout. */
  origin(slide: Slide): PageRange | undefined {
    const at = this.origins.get(slide.id);
    return at === undefined ? undefined : this.content.pages[at];
  }
  /** The name that links lead to. */
  name(page: PageRange): string | undefined {
    return attributeOf(this.content.text.slice(page.from, page.open), "draw:name");
  }
  /** Whether another slide is the page that a slide is a copy of. */
  isCopy = ({ id }: Slide): boolean => this.copies.has(id);
  /** Returns the ids of slides by the names of their pages here. */
  get slidesByName(): Map<string, string> {
    return new Map(
      [...this.places].flatMap(([id, at]) =>
        this.copies.has(id) ? [] : [[this.name(must(this.content.pages[at])) ?? "", id] as const],
      ),
    );
  }
  /** Returns a range of its text as it is written; in a copy, with new ids. */
  slice({ from, to }: { from: number; to: number }, slide?: Slide): string {
    const copy = slide && this.copies.get(slide.id);
    const text = this.words(this.content.text.slice(from, to));
    return copy === undefined ? text : withNewIds(text, copy);
  }
  /** Returns a whole page unchanged, under its present name. */
  whole(page: PageRange, slide: Slide, name: string): string {
    const text = this.slice(page, slide);
    if (this.name(page) === name) return text;
    const end = text.indexOf(">");
    return withAttribute(text.slice(0, end + 1), "draw:name", name) + text.slice(end + 1);
  }
  partOf = (id: string): string | undefined => {
    const at = this.places.get(id);
    return at === undefined || this.copies.has(id) ? undefined : `content.xml#${at + 1}`;
  };

  /**
   * Tells what of a slide is as it was read: all of it, its appearance, its notes, its comments, its motion, and each of its
   * elements.
   */
  untouched(slide: Slide): {
    whole: boolean;
    look: boolean;
    notes: boolean;
    comments: boolean;
    motion: boolean;
    element: (element: Element) => boolean;
  } {
    const { sourcePart } = slide;
    const look = isSlideAsRead(slide);
    const comments = sameComments(slide);
    const notes = sourcePart !== undefined && notesHash(slide, this.partOf) === sourcePart.notesHash;
    const element = (one: Element) => isAsRead(one, this.partOf);
    const motion = sameMotion(slide);
    const places = slide.elements.map((one) => one.sourceShape?.shape ?? "");
    return {
      whole:
        look &&
        notes &&
        comments &&
        motion &&
        places.join() === sourcePart?.shapes.join() &&
        slide.elements.every(element),
      look,
      notes,
      comments,
      motion,
      element,
    };
  }

  /** Whether the deck is the whole presentation in its order. */
  inOrder(deck: Deck): boolean {
    return (
      deck.slides.length === this.content.pages.length &&
      deck.slides.every((slide, nth) => this.places.get(slide.id) === nth)
    );
  }

  /** Returns the XML of a foreign element, under a name, for a slide that no longer uses a master of the file. */
  foreign(slide: Slide, element: Element, name: string): string | undefined {
    const at = this.origins.get(slide.id);
    const slice =
      at === undefined || element.kind !== "foreign" || !element.sourceShape
        ? undefined
        : rangeAt(must(this.content.pages[at]), element.sourceShape.shape);
    if (!slice) return undefined;
    const text = this.moved(slice, element, slide);
    const end = text.indexOf(">") + 1;
    return withAttribute(text.slice(0, end), "draw:name", name) + text.slice(end);
  }

  /** Returns the XML of a foreign element, moved to its frame. */
  moved(slice: ElementRange, { frame, rotation }: Pick<Element, "frame" | "rotation">, slide: Slide): string {
    const text = this.slice(slice, slide);
    return withPlace(text, frame, rotation) ?? text;
  }

  /** Returns the opening tag of the anchor around a shape of the file. */
  anchorOf(page: PageRange, { sourceShape }: Element, slide: Slide): string | undefined {
    const above = sourceShape?.shape.includes(".")
      ? rangeAt(page, sourceShape.shape.replace(/\.[^.]*$/, ""))
      : undefined;
    if (above?.name !== "a") return undefined;
    const words = this.slice(above, slide);
    return words.slice(0, words.indexOf(">") + 1);
  }

  /**
   * Returns the file's XML of a chart with only its data changed: its document with the new data, under a path of its
   * own.
   */
  recharted(
    element: Element,
    slice: ElementRange,
    slide: Slide,
    object: (content: string, beside: ReadonlyMap<string, Uint8Array>) => string,
  ): string | undefined {
    const changed =
      element.kind === "chart" && element.sourceShape?.data ? changedParts(element, this.partOf) : undefined;
    const path = changed?.text
      ? attributeOf(
          /<draw:object\b[^>]*>/.exec(this.content.text.slice(slice.from, slice.to))?.[0] ?? "",
          "xlink:href",
        )?.replace(/^\.\//, "")
      : undefined;
    if (path === undefined || element.kind !== "chart" || !this.file.has(`${path}/content.xml`)) return undefined;
    const words = this.slice(slice, slide);
    const stood = changed?.place ? withPlace(words, element.frame, element.rotation) : words;
    if (stood === undefined) return undefined;
    const made = updateChart(this.text(`${path}/content.xml`), `${path}/content.xml`, element);
    if (made === undefined) return undefined;
    const beside = new Map(
      ["styles.xml", "settings.xml"].flatMap((name) => {
        const bytes = this.file.bytes(`${path}/${name}`);
        return bytes ? [[name, bytes] as const] : [];
      }),
    );
    const to = object(made.replace(/^\uFEFF?<\?xml[^>]*\?>\s*/, ""), beside);
    // The preview picture beside it shows the old data.
    return stood
      .replace(/<draw:object\b[^>]*>/, (tag) => withAttribute(tag, "xlink:href", `./${to}`))
      .replace(/<draw:image\b[^>]*?(?:\/>|>[\s\S]*?<\/draw:image>)/, "");
  }

  /** Returns the file's XML of an element with only its place or text changed; `text` returns the new text. */
  partly(element: Element, slice: ElementRange, slide: Slide, text: () => string | undefined): string | undefined {
    const changed = changedParts(element, this.partOf);
    const words = changed && this.slice(slice, slide);
    const stood = words !== undefined && changed?.place ? withPlace(words, element.frame, element.rotation) : words;
    return stood !== undefined && changed?.text ? withText(stood, text()) : stood;
  }

  /** Returns the names of a page's shapes. */
  namesOn(page: PageRange): Set<string> {
    return new Set(
      [...this.slice(page).matchAll(/\sdraw:name\s*=\s*(?:"([^"]*)"|'([^']*)')/g)].map(([, a, b]) =>
        unescaped(a ?? b ?? ""),
      ),
    );
  }
}

/**
 * Appends XML to an element of a part; creates the element, before the first of the given others, when it is missing.
 */
export function appendTo(text: string, element: string, content: string, before: readonly string[]): string {
  if (!content) return text;
  const end = text.indexOf(`</${element}>`);
  if (end >= 0) return text.slice(0, end) + content + text.slice(end);
  const empty = new RegExp(`<${element}(\\s[^>]*?)?/>`).exec(text);
  if (empty)
    return `${text.slice(0, empty.index)}<${element}${empty[1] ?? ""}>${content}</${element}>${text.slice(empty.index + empty[0].length)}`;
  const at = Math.min(...before.map((name) => text.indexOf(`<${name}`)).filter((place) => place >= 0));
  return Number.isFinite(at) ? `${text.slice(0, at)}<${element}>${content}</${element}>${text.slice(at)}` : text;
}

/** Returns a part with the namespaces that our XML needs, and those of imported XML. */
export function withNamespaces(text: string, others: readonly ReadonlyMap<string, string>[] = []): string {
  const root = /<[A-Za-z][\w:.-]*(?=[\s>])/g;
  root.lastIndex = text.startsWith("<?xml") ? text.indexOf("?>") : 0;
  const found = root.exec(text);
  if (!found) return text;
  const tag = text.slice(found.index, text.indexOf(">", found.index));
  const missing = Object.entries({ ...Object.fromEntries(others.flatMap((names) => [...names])), ...NS }).filter(
    ([prefix]) => !new RegExp(`\\s${prefix}\\s*=`).test(tag),
  );
  const at = found.index + found[0].length;
  return text.slice(0, at) + missing.map(([prefix, uri]) => ` ${prefix}="${escapeXml(uri)}"`).join("") + text.slice(at);
}
