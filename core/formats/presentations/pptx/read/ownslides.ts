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

  elements(shape: XmlElement, work: OwnSlide): Element[] {
    const { number, inheritance, used } = work;
    const kind = localName(shape);
    const ref = placeholderRef(shape);
    if (ref && ["dt", "ftr", "sldNum", "hdr", "sldImg"].includes(ref.type)) return [];
    if (kind === "grpSp")
      return shape.children.flatMap((inner) => (SHAPE_NAMES.has(localName(inner)) ? this.elements(inner, work) : []));
    const properties = shape.children.find((part) => localName(part).startsWith("nv"));
    const named = child(properties, "cNvPr")?.attributes ?? {};
    const kept = work.tags(named.id ?? "");
    if (kept.footnotes) return [];
    const id = kept.id && !used.has(kept.id) ? kept.id : this.file.options.newId();
    const slot = kept.slot !== undefined ? kept.slot : this.slot(ref, work.arrangement, used);
    const placed = { id, slot, ...(kept.binding ? { binding: kept.binding } : {}) };
    // A shape that another program moved or formatted is read as that program left it.
    const touched = kept.hash !== undefined && work.hashes.get(named.id ?? "") !== kept.hash;
    const frame = touched
      ? (inheritance.frame(shape, ref) ?? kept.frame)
      : (kept.frame ?? (slot === null && kept.id === undefined ? inheritance.frame(shape, ref) : undefined));
    const base = { ...kept.facts, ...placed, ...(frame ? { frame } : {}) };
    const add = (element: Element): Element[] => {
      used.add(id);
      if (slot !== null) used.add(`slot:${slot}`);
      return [element];
    };
    if (
      touched &&
      (kept.whole?.kind === "shape" ||
        kept.facts?.style !== undefined ||
        kept.facts?.fill !== undefined ||
        kept.facts?.stroke !== undefined ||
        (kind === "pic" && slot === null))
    ) {
      const found = this.file.repainted(shape, work, { id, slot, ...(kept.binding ? { binding: kept.binding } : {}) });
      const groups = kept.whole?.groups ?? kept.facts?.groups;
      if (found)
        return add({
          ...found,
          ...(groups ? { groups } : {}),
          ...(kept.source && found.kind === "picture" ? this.renamed(found.source, kept.source) : {}),
        } as Element);
    }
    // An element stored whole in the tags is used as long as the file still has the words written for it.
    const whole = kept.whole;
    if (whole?.kind === "media") {
      this.takeFiles(shape, work.path, whole);
      return add({ ...whole, id, slot });
    }
    if (kind === "pic")
      return this.picture(
        shape,
        named,
        work,
        (source) => add({ ...base, kind: "picture", source: kept.source ?? source, alt: named.descr ?? "" } as Element),
        kept.source,
      );
    if (kind === "sp" && kept.source)
      return add({ ...base, kind: "picture", source: kept.source, alt: named.descr ?? "" } as Element);
    if (
      whole?.kind === "shape" &&
      wordsOf(flattenRuns(whole.text, work.footnotes)) ===
        wordsOf(readBody(child(shape, "txBody"), { styles: [], codeFont: this.file.codeFont, link: () => undefined }))
    )
      return add({ ...whole, id, slot });
    if (kind === "graphicFrame") {
      const table = at(shape, "graphic", "graphicData", "tbl");
      const context: ReadContext = {
        styles: [],
        codeFont: this.file.codeFont,
        link: this.file.linker(work.path, number),
      };
      const read = table && readTable(table, (body) => readBody(body, context));
      const words = (rows: TableElement["rows"]) =>
        JSON.stringify(
          rows.map((row) => row.map((cell) => (cell ? wordsOf(flattenRuns(cell.text, work.footnotes)) : null))),
        );
      const expected =
        whole?.kind === "chart" ? chartTable(whole).rows : whole?.kind === "table" ? whole.rows : undefined;
      const drawn = at(shape, "graphic", "graphicData", "chart");
      if (drawn) {
        const part = Object.entries(drawn.attributes).find(([key]) => key.endsWith(":id"))?.[1] ?? "";
        const target = this.file.pack.relationships(work.path).get(part)?.target ?? "";
        const chart = this.file.pack.has(target)
          ? readChart(this.file.pack.tree(target), { named: new Map() })
          : undefined;
        const same =
          chart &&
          whole?.kind === "chart" &&
          canonical([chart.type, chart.categories, valuesOf(chart)]) ===
            canonical([whole.type, whole.categories, valuesOf(whole)]);
        if (same && whole) return add({ ...whole, ...base } as Element);
        if (chart) {
          const { unlike: _, ...facts } = chart;
          return add({
            ...base,
            kind: "chart",
            ...facts,
            series: facts.series.map(({ colour: __, ...series }) => series),
          } as Element);
        }
      }
      if (read)
        return add(
          whole && expected && words(expected) === words(read.rows)
            ? ({ ...whole, ...base } as Element)
            : ({
                ...base,
                kind: "table",
                ...read,
                ...(whole?.kind === "table" && whole.caption ? { caption: whole.caption } : {}),
              } as Element),
        );
    }
    if (kind === "sp") {
      const context: ReadContext = {
        styles: inheritance.styles(ref),
        codeFont: this.file.codeFont,
        link: this.file.linker(work.path, number),
      };
      const read = readBody(child(shape, "txBody"), context);
      const figure = whole && figureWords(whole, work.footnotes);
      if (figure && wordsOf(figure) === wordsOf(read)) return add({ ...whole, ...base } as Element);
      const text = textTag(kept.text, read, work.footnotes);
      if (isEmptyText(text) && kept.id === undefined) return [];
      return add({ ...base, kind: "text", text } as Element);
    }
    const what =
      kind === "graphicFrame"
        ? (/\/(table|chart|diagram)$/.exec(at(shape, "graphic", "graphicData")?.attributes.uri ?? "")?.[1] ??
          "embedded object")
        : kind === "cxnSp"
          ? "connecting line"
          : "object";
    this.file.left.push({
      slide: number,
      what: `${what} “${named.name ?? ""}”`,
      why: "this kind of element is not read yet",
    });
    return [];
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

  private picture(
    shape: XmlElement,
    named: Record<string, string>,
    { path, number }: { path: string; number: number },
    add: (source: string) => Element[],
    kept: string | undefined,
  ): Element[] {
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
      return [];
    }
    const { bytes, sha256, info } = file;
    const source = kept ?? target.slice(target.lastIndexOf("/") + 1);
    this.file.files.blobs.set(sha256, bytes);
    this.file.files.assets[source] = { sha256, ...info };
    return add(source);
  }
}
