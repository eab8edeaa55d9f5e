import { inDeckDirection } from "../../shared/chartdirection";
import {
  type ArrangementName,
  type Asset,
  canonical,
  type Element,
  type Footnote,
  isEmptyText,
  slotsOf,
  type TableElement,
} from "@unitext/core/model";
import type { Report } from "@unitext/core/tally";
import { at, child, localName, type XmlElement } from "../../../shared/xml";
import {
  chartTable,
  figureWords,
  flattenRuns,
  type ElementTags,
  textTag,
  wordsOf,
} from "../../../shared/sourcepackage";
import { mediaOf, type ReadOptions } from "../../shared/reading";
import { pictureIds } from "./drawing";
import { type Inheritance, type PlaceholderRef, placeholderRef, SHAPE_NAMES } from "./inherit";
import { placeholderOf } from "../package/names";
import type { OpenedPackage } from "../package/package";
import { readChart } from "./chart";
import type { TaggedIdentity } from "./shapework";
import { readBody, type ReadContext } from "./text";
import { readTiming } from "./timing";
import { readTable } from "../write/table";
import type { PptxFiles } from "./files";

/** The file, and what is imported from it, for slides that Unitext wrote. */
export interface OwnFile {
  pack: OpenedPackage;
  options: ReadOptions;
  files: PptxFiles;
  left: Report["left"];
  readonly codeFont: string | undefined;
  /** The language of the deck. */
  readonly language: string;
  linker(path: string, number: number): ReadContext["link"];
  /** A shape written by Unitext that another program changed. */
  repainted(shape: XmlElement, slide: OwnSlide, identity: TaggedIdentity & { id: string }): Element | undefined;
}

/** A slide written by Unitext: the tags of its elements, and what is imported already. */
export interface OwnSlide {
  path: string;
  number: number;
  arrangement: ArrangementName;
  inheritance: Inheritance;
  tags: (shape: string) => ElementTags;
  used: Set<string>;
  footnotes: Footnote[];
  hashes: ReadonlyMap<string, string>;
}

/** A shape with what its tags say of it. */
interface TaggedShape {
  shape: XmlElement;
  kind: string;
  ref: PlaceholderRef | undefined;
  /** The attributes of its non-visual properties. */
  named: Record<string, string>;
  tags: ElementTags;
  id: string;
  slot: string | null;
  /** Whether another program changed it. */
  touched: boolean;
  base: object;
}

/** Returns the names and values of a chart's series, without missing values at the end. */
const valuesOf = ({ series, categories }: Pick<Extract<Element, { kind: "chart" }>, "series" | "categories">) =>
  series.map(({ name, values, x }) => [
    name,
    Array.from({ length: Math.max(values.length, categories.length) }, (_, at) => values[at] ?? null),
    x ?? null,
  ]);

/** Reads slides that Unitext wrote: elements come from the tags as long as the file still says the same. */
export class OwnSlideReader {
  constructor(private readonly file: OwnFile) {}

  /** Whether everything on a slide was written by Unitext for its elements. */
  isOurs(
    tree: XmlElement,
    shapes: readonly XmlElement[],
    kept: Record<string, unknown>,
    known: OwnSlide["tags"],
  ): boolean {
    if (kept.id === undefined || kept.foreign === true) return false;
    // Motion that belongs to no element was added by another program.
    if (
      readTiming(child(tree, "timing")).some(
        (one) => "motion" in one || one.otherwise || (known(one.shape).id === undefined && !known(one.shape).footnotes),
      )
    )
      return false;
    return shapes.every((shape) => {
      if (localName(shape) === "grpSp")
        return this.isOurs(
          tree,
          shape.children.filter((inner) => SHAPE_NAMES.has(localName(inner))),
          kept,
          known,
        );
      const ref = placeholderRef(shape);
      if (ref && ["dt", "ftr", "sldNum"].includes(ref.type)) return true;
      const properties = shape.children.find((part) => localName(part).startsWith("nv"));
      const found = known(child(properties, "cNvPr")?.attributes.id ?? "");
      return found.id !== undefined || found.footnotes === true;
    });
  }

  /** Chooses the shape of a formula whose text Unitext wrote, as long as no other program replaced it by a picture. */
  alternative(shape: XmlElement, kept: OwnSlide["tags"]): XmlElement {
    if (localName(shape) === "grpSp")
      return { ...shape, children: shape.children.map((inner) => this.alternative(inner, kept)) };
    const fallback = localName(shape) === "AlternateContent" ? child(shape, "Fallback")?.children : undefined;
    const [only] = fallback?.length === 1 ? fallback : [];
    const id = child(child(only, "nvSpPr"), "cNvPr")?.attributes.id;
    const known = only && id !== undefined && kept(id).id !== undefined;
    return known && !child(child(only, "spPr"), "blipFill") ? only : shape;
  }

  /** Reads a shape, and the shapes inside a group, as the elements that their tags say they are. */
  elements(shape: XmlElement, work: OwnSlide): Element[] {
    const ref = placeholderRef(shape);
    if (ref && ["dt", "ftr", "sldNum", "hdr", "sldImg"].includes(ref.type)) return [];
    if (localName(shape) === "grpSp")
      return shape.children.flatMap((inner) => (SHAPE_NAMES.has(localName(inner)) ? this.elements(inner, work) : []));
    const tagged = this.tagged(shape, ref, work);
    if (tagged.tags.footnotes) return [];
    const element = this.element(tagged, work);
    if (!element) return [];
    work.used.add(tagged.id);
    if (tagged.slot !== null) work.used.add(`slot:${tagged.slot}`);
    return [element];
  }

  private tagged(shape: XmlElement, ref: PlaceholderRef | undefined, work: OwnSlide): TaggedShape {
    const { inheritance, used } = work;
    const properties = shape.children.find((part) => localName(part).startsWith("nv"));
    const named = child(properties, "cNvPr")?.attributes ?? {};
    const tags = work.tags(named.id ?? "");
    const id = tags.id && !used.has(tags.id) ? tags.id : this.file.options.newId();
    const slot = tags.slot !== undefined ? tags.slot : this.slot(ref, work.arrangement, used);
    const binding = tags.binding ? { binding: tags.binding } : {};
    // A shape that another program moved or formatted is read as that program left it.
    const touched = tags.hash !== undefined && work.hashes.get(named.id ?? "") !== tags.hash;
    const frame = touched
      ? (inheritance.frame(shape, ref) ?? tags.frame)
      : (tags.frame ?? (slot === null && tags.id === undefined ? inheritance.frame(shape, ref) : undefined));
    const base = { ...tags.facts, id, slot, ...binding, ...(frame ? { frame } : {}) };
    return { shape, kind: localName(shape), ref, named, tags, id, slot, touched, base };
  }

  private element(tagged: TaggedShape, work: OwnSlide): Element | undefined {
    const { shape, kind, named, tags, id, slot, base } = tagged;
    const { whole } = tags;
    const reformatted = this.reformatted(tagged, work);
    if (reformatted) return reformatted;
    // An element stored whole in the tags is used as long as the file still has the words written for it.
    if (whole?.kind === "media") {
      this.takeFiles(shape, work.path, whole);
      return { ...whole, id, slot };
    }
    if (kind === "pic") {
      const source = this.picture(shape, named, work, tags.source);
      return source === undefined
        ? undefined
        : ({ ...base, kind: "picture", source: tags.source ?? source, alt: named.descr ?? "" } as Element);
    }
    if (kind === "sp" && tags.source)
      return { ...base, kind: "picture", source: tags.source, alt: named.descr ?? "" } as Element;
    if (
      whole?.kind === "shape" &&
      wordsOf(flattenRuns(whole.text, work.footnotes)) ===
        wordsOf(readBody(child(shape, "txBody"), { styles: [], codeFont: this.file.codeFont, link: () => undefined }))
    )
      return { ...whole, id, slot };
    if (kind === "sp") return this.textElement(tagged, work);
    const figure = kind === "graphicFrame" ? (this.chart(tagged, work) ?? this.table(tagged, work)) : undefined;
    if (!figure) this.reportUnread(tagged, work.number);
    return figure;
  }

  /**
   * Reads a shape that another program reformatted, where its tags alone would not show it. Returns undefined for
   * shapes that were not, and for those whose words alone matter.
   */
  private reformatted({ shape, kind, tags, id, slot, touched }: TaggedShape, work: OwnSlide): Element | undefined {
    const { whole, facts, source, binding } = tags;
    const hasFormatting =
      whole?.kind === "shape" ||
      facts?.style !== undefined ||
      facts?.fill !== undefined ||
      facts?.stroke !== undefined ||
      (kind === "pic" && slot === null);
    if (!touched || !hasFormatting) return undefined;
    const found = this.file.repainted(shape, work, { id, slot, ...(binding ? { binding } : {}) });
    if (!found) return undefined;
    const groups = whole?.groups ?? facts?.groups;
    return {
      ...found,
      ...(groups ? { groups } : {}),
      ...(source && found.kind === "picture" ? this.renamed(found.source, source) : {}),
    } as Element;
  }

  private textElement({ shape, ref, tags, base }: TaggedShape, work: OwnSlide): Element | undefined {
    const { whole } = tags;
    const read = readBody(child(shape, "txBody"), {
      styles: work.inheritance.styles(ref),
      codeFont: this.file.codeFont,
      link: this.file.linker(work.path, work.number),
    });
    const figure = whole && figureWords(whole, work.footnotes);
    if (figure && wordsOf(figure) === wordsOf(read)) return { ...whole, ...base } as Element;
    const text = textTag(tags.text, read, work.footnotes);
    if (isEmptyText(text) && tags.id === undefined) return undefined;
    return { ...base, kind: "text", text } as Element;
  }

  /** Reads the chart of a graphic frame: that of its tags, unless another program changed its data. */
  private chart({ shape, tags: { whole }, base }: TaggedShape, work: OwnSlide): Element | undefined {
    const drawn = at(shape, "graphic", "graphicData", "chart");
    if (!drawn) return undefined;
    const part = Object.entries(drawn.attributes).find(([key]) => key.endsWith(":id"))?.[1] ?? "";
    const target = this.file.pack.relationships(work.path).get(part)?.target ?? "";
    if (!this.file.pack.has(target)) return undefined;
    const chart = readChart(this.file.pack.tree(target), { named: new Map() });
    if (!chart) return undefined;
    if (
      whole?.kind === "chart" &&
      canonical([chart.type, chart.categories, valuesOf(chart)]) ===
        canonical([whole.type, whole.categories, valuesOf(whole)])
    )
      return { ...whole, ...base } as Element;
    const facts = inDeckDirection(chart, this.file.language);
    const series = facts.series.map(({ colour: __, ...values }) => values);
    return { ...base, kind: "chart", ...facts, series } as Element;
  }

  /** Reads the table of a graphic frame, which may show a chart that the tags describe. */
  private table({ shape, tags: { whole }, base }: TaggedShape, work: OwnSlide): Element | undefined {
    const table = at(shape, "graphic", "graphicData", "tbl");
    if (!table) return undefined;
    const context: ReadContext = {
      styles: [],
      codeFont: this.file.codeFont,
      link: this.file.linker(work.path, work.number),
    };
    const read = readTable(table, (body) => readBody(body, context));
    if (!read) return undefined;
    const words = (rows: TableElement["rows"]) =>
      JSON.stringify(
        rows.map((row) => row.map((cell) => (cell ? wordsOf(flattenRuns(cell.text, work.footnotes)) : null))),
      );
    const expected =
      whole?.kind === "chart" ? chartTable(whole).rows : whole?.kind === "table" ? whole.rows : undefined;
    if (whole && expected && words(expected) === words(read.rows)) return { ...whole, ...base } as Element;
    const caption = whole?.kind === "table" && whole.caption ? { caption: whole.caption } : {};
    return { ...base, kind: "table", ...read, ...caption } as Element;
  }

  private reportUnread({ shape, kind, named }: TaggedShape, slide: number): void {
    const what =
      kind === "graphicFrame"
        ? (/\/(table|chart|diagram)$/.exec(at(shape, "graphic", "graphicData")?.attributes.uri ?? "")?.[1] ??
          "embedded object")
        : kind === "cxnSp"
          ? "connecting line"
          : "object";
    this.file.left.push({
      slide,
      what: `${what} “${named.name ?? ""}”`,
      why: "this kind of element is not read yet",
    });
  }

  /** Returns a picture under its former name. */
  private renamed(found: string, source: string): { source: string } {
    const asset = this.file.files.assets[found];
    if (asset) this.file.files.assets[source] = asset;
    return { source };
  }

  /** Imports the files of a film or sound under the names that its element has for them. */
  private takeFiles(shape: XmlElement, path: string, element: Extract<Element, { kind: "media" }>): void {
    const take = (id: string | undefined, source: string | undefined, mediaType?: Asset["mediaType"]) => {
      const target = id === undefined ? undefined : this.file.pack.relationships(path).get(id);
      const file = target && !target.external ? this.file.files.summed(target.target) : undefined;
      if (!file || source === undefined) return;
      const { bytes, sha256 } = file;
      const info = file.info ?? (mediaType ? { mediaType, width: 1, height: 1 } : undefined);
      if (!info) return;
      this.file.files.blobs.set(sha256, bytes);
      this.file.files.assets[source] = { sha256, ...info };
    };
    const idOf = (found: XmlElement | undefined, name: string) =>
      Object.entries(found?.attributes ?? {}).find(([key]) => key.endsWith(`:${name}`))?.[1];
    const properties = at(shape, "nvPicPr", "nvPr");
    const film = properties?.children.find((part) => /^(video|audio)File$/.test(localName(part)));
    take(pictureIds(at(shape, "blipFill", "blip"))[0], element.poster);
    if (film) {
      const id = idOf(film, "link");
      const target = id === undefined ? "" : (this.file.pack.relationships(path).get(id)?.target ?? "");
      take(id, element.source, mediaOf(target));
    }
  }

  private slot(
    ref: PlaceholderRef | undefined,
    arrangement: ArrangementName,
    used: ReadonlySet<string>,
  ): string | null {
    if (!ref) return null;
    if (ref.type === "title" || ref.type === "ctrTitle") return "title";
    const free = slotsOf(arrangement).filter(
      ([slot, role]) => role !== "title" && role !== "opening" && !used.has(`slot:${slot}`),
    );
    const exact = free.find(
      ([slot, role]) =>
        String(placeholderOf(slot, role).idx) === ref.idx && (placeholderOf(slot, role).type ?? "obj") === ref.type,
    );
    const wanted =
      ref.type === "pic" ? free.find(([, role]) => role === "picture") : free.find(([, role]) => role !== "picture");
    return (exact ?? wanted)?.[0] ?? null;
  }

  /** Imports the file of a picture. Returns its name; undefined, with a report, when it cannot be shown. */
  private picture(
    shape: XmlElement,
    named: Record<string, string>,
    { path, number }: { path: string; number: number },
    kept: string | undefined,
  ): string | undefined {
    const blip = at(shape, "blipFill", "blip");
    const targets = pictureIds(blip).map((id) => this.file.pack.relationships(path).get(id)?.target ?? "");
    const target = targets.find((one) => this.file.files.summed(one)?.info) ?? targets[0] ?? "";
    const file = this.file.files.summed(target);
    if (!file?.info) {
      this.file.left.push({
        slide: number,
        what: `picture “${named.name ?? target}”`,
        why: file ? "pictures of its kind are not shown" : "its file is missing",
      });
      return undefined;
    }
    const { bytes, sha256, info } = file;
    const source = kept ?? target.slice(target.lastIndexOf("/") + 1);
    this.file.files.blobs.set(sha256, bytes);
    this.file.files.assets[source] = { sha256, ...info };
    return source;
  }
}
