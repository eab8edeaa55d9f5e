import {
  type ArrangementName,
  type Element,
  elementTexts,
  escapeXml,
  type Footnote,
  slotsOf,
  type TableElement,
  utf16Hash,
  must,
} from "@unitext/core/model";
import type { Report } from "@unitext/core/tally";
import { child, localName, type XmlNode, attribute } from "../../../shared/xml";
import {
  chartTable,
  figureWords,
  flattenRuns,
  readElementTags,
  type ElementTags,
  textTag,
  joinWithAnd,
  wordsOf,
} from "../../../shared/sourcepackage";
import type { OdpFiles } from "./files";
import type { OdpStyles } from "./styles";
import { readText, type TextReader } from "./text";
import { unsupportedFeatures } from "./unsupported";
import { readShape, SHAPES } from "./shape";
import type { Base, ShapeStyles } from "./shapestyles";

export interface PageWork {
  number: number;
  arrangement: ArrangementName;
  tags: Record<string, unknown>;
  used: Set<string>;
  footnotes: Footnote[];
  /** The styles of shapes; `ours` where Unitext wrote the page and stored its elements. */
  shapes: ShapeStyles;
  ours: boolean;
  /** The elements by the shapes that they were read from. */
  elementOf: Map<XmlNode, Element>;
}

/** Returns the hash of a shape as `xml` would write it, without writing it. */
const writtenHash = (node: XmlNode) => utf16Hash((add) => addWritten(node, add));

function addWritten({ name, attributes, content }: XmlNode, add: (text: string) => void): void {
  add(`<${name}`);
  for (const key in attributes) {
    // Ids of timing are not part of what a shape shows.
    if (key === "xml:id" || key === "draw:id") continue;
    add(` ${key}="`);
    add(escapeXml(must(attributes[key])));
    add('"');
  }
  if (content.every((part) => part === "")) return add("/>");
  add(">");
  for (const part of content) {
    if (typeof part === "string") add(escapeXml(part));
    else addWritten(part, add);
  }
  add(`</${name}>`);
}

/** What reading the elements of all pages needs. */
export interface ElementContext {
  styles: OdpStyles;
  text: TextReader;
  files: OdpFiles;
  adapted: Report["adapted"];
  /** The fonts that texts use. */
  families: Set<string>;
  newId(): string;
  /** Returns the target of an address. */
  target(href: string): string | undefined;
  /** Returns the target of an action on a page. */
  actionTarget(action: XmlNode, number: number): string | undefined;
}

/**
 * Reads the shapes of pages and masters as elements: those of other programs by their formatting, those of Unitext by
 * what is stored of them.
 */
export class ElementReader {
  constructor(private readonly context: ElementContext) {}

  elements(
    shape: XmlNode,
    place: string,
    groups: readonly string[],
    link: string | undefined,
    work: PageWork,
  ): Element[] {
    const kind = localName(shape);
    if (kind === "g") {
      const inside = groups.length < 20 ? [...groups, `g${place.replace(/\./g, "-")}`] : groups;
      return shape.children.flatMap((inner, nth) => this.elements(inner, `${place}.${nth}`, inside, link, work));
    }
    if (kind === "a")
      return shape.children.flatMap((inner, nth) =>
        this.elements(
          inner,
          `${place}.${nth}`,
          groups,
          this.context.target(attribute(shape, "href") ?? "") ?? link,
          work,
        ),
      );
    if (kind !== "frame" && !SHAPES.has(kind)) return [];
    const element = this.shapeElement(shape, place, groups, link, work);
    return element ? [element] : [];
  }

  /** Reads a shape or frame as an element; undefined for regions and for what shows nothing. */
  private shapeElement(
    shape: XmlNode,
    place: string,
    groups: readonly string[],
    link: string | undefined,
    work: PageWork,
  ): Element | undefined {
    const name = attribute(shape, "name") ?? "";
    const className = attribute(shape, "class");
    if (["header", "footer", "date-time", "page-number", "page", "notes"].includes(className ?? "")) return undefined;
    const tags = readElementTags(work.tags[name] ?? work.tags[`#${place}`]);
    if (tags.footnotes || (!work.ours && isNumber(shape))) return undefined;
    const id = tags.id && !work.used.has(tags.id) ? tags.id : this.context.newId();
    const slot = tags.slot !== undefined ? tags.slot : this.slot(className, shape, work);
    const action = child(child(shape, "event-listeners"), "event-listener");
    const to = link ?? (action ? this.context.actionTarget(action, work.number) : undefined);
    const unsupported = work.ours ? [] : this.unsupportedIn(shape, work);
    const sourceShape = { shape: place, hash: "", ...(unsupported.length ? { unsupported } : {}) };
    const base: Base = {
      id,
      slot,
      ...(groups.length ? { groups: [...groups] } : {}),
      ...(tags.binding ? { binding: tags.binding } : {}),
      ...(work.ours ? {} : { sourceShape }),
      ...(to ? { link: to } : {}),
    };
    const element = this.elementOf(shape, tags, base, work);
    if (!element) return undefined;
    if (work.number && unsupported.length)
      this.context.adapted.push({
        slide: work.number,
        what: `${joinWithAnd(unsupported)} of ${name ? `“${name}”` : "a shape"}`,
        how: "not drawn; an .odp keeps it as long as the shape is not reformatted here",
      });
    work.used.add(id);
    work.elementOf.set(shape, element);
    if (slot !== null) work.used.add(`slot:${slot}`);
    return element;
  }

  private unsupportedIn(shape: XmlNode, work: PageWork): string[] {
    const { graphic } = work.shapes.properties(shape).properties;
    return unsupportedFeatures(shape, graphic, (style) => this.context.styles.properties("text", style).text);
  }

  private elementOf(shape: XmlNode, kept: ElementTags, base: Base, work: PageWork): Element | undefined {
    const alt = ((child(shape, "desc") ?? child(shape, "title"))?.text ?? "").trim();
    const unchanged = () => kept.hash !== undefined && kept.hash === writtenHash(shape);
    const own = {
      id: base.id,
      slot: base.slot,
      ...(base.binding ? { binding: base.binding } : {}),
      ...(base.sourceShape ? { sourceShape: base.sourceShape } : {}),
    };
    const whole = kept.whole && unchanged() ? kept.whole : undefined;
    if (whole) {
      for (const text of elementTexts(whole)) flattenRuns(text, work.footnotes);
      return { ...whole, ...own } as Element;
    }
    const isFormatted =
      kept.facts !== undefined &&
      (kept.facts.style !== undefined || kept.facts.fill !== undefined || kept.facts.stroke !== undefined);
    if (!work.ours || kept.id === undefined || (isFormatted && (kept.whole || !unchanged())))
      return this.noteFonts(readShape(work.shapes, shape, base, alt));
    // Unitext wrote the shape: what it is comes from the stored data, its text from the file.
    const facts = { ...kept.facts, ...own, ...(kept.frame ? { frame: kept.frame } : {}) };
    if (child(shape, "image") || (kept.source && !child(shape, "plugin") && kept.whole?.kind !== "media"))
      return this.ourPicture(shape, kept, facts, alt);
    const table = child(shape, "table");
    if (table) return this.ourTable(shape, kept, facts, base, work);
    if (SHAPES.has(localName(shape)) || child(shape, "object") || child(shape, "plugin"))
      return this.noteFonts(readShape(work.shapes, shape, base, alt));
    const read = readText((child(shape, "text-box") ?? shape).children, this.context.text, base.slot === "title");
    const figure = kept.whole && figureWords(kept.whole, work.footnotes);
    if (kept.whole && figure && wordsOf(figure) === wordsOf(read)) return { ...kept.whole, ...facts } as Element;
    return { ...facts, kind: "text", text: textTag(kept.text, read, work.footnotes) } as Element;
  }

  private ourPicture(shape: XmlNode, kept: ElementTags, facts: object, alt: string): Element | undefined {
    const image = child(shape, "image");
    const source = image ? this.context.files.file(attribute(image, "href"), image, kept.source) : kept.source;
    return source === undefined ? undefined : ({ ...kept.facts, ...facts, kind: "picture", source, alt } as Element);
  }

  private ourTable(
    shape: XmlNode,
    { whole }: ElementTags,
    facts: object,
    base: Base,
    work: PageWork,
  ): Element | undefined {
    const read = readShape(work.shapes, shape, base, "");
    if (read?.kind !== "table") return undefined;
    const bare: TableElement["rows"] = read.rows.map((row) =>
      row.map(
        (cell) =>
          cell && {
            ...(cell.columns ? { columns: cell.columns } : {}),
            ...(cell.rows ? { rows: cell.rows } : {}),
            text: cell.text
              .filter(({ runs }) => runs.some(({ text }) => text.trim()))
              .map(({ properties: _, align: __, ...paragraph }) => ({
                ...paragraph,
                runs: paragraph.runs.map(({ properties: ___, ...item }) => item),
              })),
          },
      ),
    );
    const words = (rows: TableElement["rows"]) =>
      JSON.stringify(
        rows.map((row) => row.map((cell) => (cell ? wordsOf(flattenRuns(cell.text, work.footnotes)) : null))),
      );
    const expected =
      whole?.kind === "chart" ? chartTable(whole).rows : whole?.kind === "table" ? whole.rows : undefined;
    if (whole && expected && words(expected) === words(bare)) return { ...whole, ...facts } as Element;
    if (whole?.kind === "table" && !whole.widths)
      return { ...whole, ...facts, rows: bare, header: read.header } as Element;
    return read;
  }

  /** Counts the fonts of an element, so that each replaced font is reported once. */
  private noteFonts(element: Element | undefined): Element | undefined {
    if (element?.kind === "text" || element?.kind === "shape")
      for (const { runs } of element.text)
        for (const { properties } of runs) if (properties?.font) this.context.families.add(properties.font);
    return element;
  }

  private slot(className: string | undefined, shape: XmlNode, { arrangement, used }: PageWork): string | null {
    if (className === "title") return used.has("slot:title") ? null : "title";
    if (!className) return null;
    const free = slotsOf(arrangement).filter(
      ([slot, role]) => role !== "title" && role !== "opening" && !used.has(`slot:${slot}`),
    );
    const picture = child(shape, "image") !== undefined;
    return (free.find(([, role]) => (role === "picture") === picture) ?? free[0])?.[0] ?? null;
  }
}

/** Whether a frame contains the page number and nothing else. */
export function isNumber(shape: XmlNode): boolean {
  if (localName(shape) !== "frame") return false;
  const [only, ...more] = child(shape, "text-box")?.children ?? [];
  const field =
    only && !more.length ? (child(only, "page-number") ?? child(child(only, "span"), "page-number")) : undefined;
  return field !== undefined && only?.text.trim() === "" && only.children.length === 1;
}
