import {
  cutText,
  type ArrangementName,
  Binding,
  type Cell,
  ForeignDrawing,
  type Element,
  type Geometry,
  Id,
  isEmptyText,
  joinRuns,
  linkWholeText,
  type PictureElement,
  type RichText,
  run,
  slotsOf,
  type TableElement,
  type TextStyle,
} from "@unitext/core/model";
import type { Report } from "@unitext/core/tally";
import { at, child, childrenOf, localName, type XmlElement } from "../../../shared/xml";
import { type ColourContext, fraction } from "./colour";
import {
  chartsIn,
  type DrawingContext,
  recolouredPicture,
  pictureIds,
  relationOf,
  readFill,
  fillElement,
  readGeometry,
  readShadow,
  shapeFill,
} from "./drawing";
import { readLine, shapeLine } from "./line";
import { inGroup, type Transform, transformFields, transformOf } from "./transform";
import { parseOptional, joinWithAnd } from "../../../shared/sourcepackage";
import { alternativeOf, type Inheritance, type PlaceholderRef, placeholderRef, SHAPE_NAMES } from "./inherit";
import { EMU, placeholderOf } from "../package/names";
import { readChart } from "./chart";
import { takesData } from "../patch/updatechart";
import type { PptxFiles } from "./files";
import { splitDiagramShape } from "./diagram";
import { holdsDisplay, readBody, type ReadContext, switchesOff } from "./text";
import { numberOf, type StyleContext, textBox, textStyle } from "./styles";
import { unsupportedFeatures } from "./unsupported";

/** What a file stores of an element that Unitext wrote. */
export type TaggedIdentity = Partial<Pick<Element, "id" | "slot" | "binding">>;

/** Reads what a file stores of an element that Unitext wrote, as far as it is valid. */
export function identityOf(value: unknown): TaggedIdentity {
  const { id, slot, binding } = (typeof value === "object" && value !== null ? value : {}) as Record<string, unknown>;
  const [own, bound] = [parseOptional(Id, id), parseOptional(Binding, binding)];
  return {
    ...(own === undefined ? {} : { id: own }),
    ...(slot === null || typeof slot === "string" ? { slot } : {}),
    ...(bound ? { binding: bound } : {}),
  };
}

/** What reading the shapes of a part needs. */
export interface ShapeWork {
  /** The slide's number; null for masters. */
  number: number | null;
  inheritance: Inheritance;
  colours: ColourContext;
  styles: StyleContext;
  arrangement: ArrangementName;
  tags: ReadonlyMap<string, TaggedIdentity>;
  link: ReadContext["link"];
  newId(path: string): string;
  /** Imports a picture by its relationship; returns why when it cannot be shown. */
  picture(id: string): ReturnType<PptxFiles["picture"]>;
  /** What reading fills and lines needs. */
  drawing: DrawingContext;
  /** Returns the picture by which an older drawing shows an embedded object. */
  legacy(shape: string): ReturnType<PptxFiles["picture"]> | undefined;
  media(id: string): { source: string; type: "video" | "audio" } | undefined;
  part(id: string): XmlElement | undefined;
  /** Returns the context for the shapes of a part that this one refers to. */
  within(id: string, newId: (path: string) => string): ShapeWork | undefined;
  style(style: TextStyle): string;
  /** Returns the style of a text, made once for the same list styles. */
  styleOf(key: string, make: () => TextStyle): TextStyle;
  /** The default list style of the file. */
  defaults: XmlElement | undefined;
  tableStyle(id: string): XmlElement | undefined;
  report: Pick<Report, "adapted" | "left">;
}

const REGIONS = ["dt", "ftr", "sldNum", "hdr", "sldImg"];
const WIDE_RECTS = new Set(["rect", "flowChartProcess"]);

/** Reads the shapes of a part in drawing order, positioned on the page. */
export class ShapeReader {
  private readonly used = new Set<string>();
  /** How often a chart part is drawn, by its relationship. */
  private readonly charts = new Map<string, number>();
  constructor(private readonly work: ShapeWork) {}
  private get drawing(): DrawingContext {
    return this.work.drawing;
  }

  read(shapes: readonly XmlElement[]): Element[] {
    for (const id of shapes.flatMap(chartsIn)) this.charts.set(id, (this.charts.get(id) ?? 0) + 1);
    return shapes.flatMap((shape, nth) => this.shape(shape, String(nth), [], (standing) => standing));
  }

  private shape(
    shape: XmlElement,
    path: string,
    groups: readonly string[],
    place: (standing: Transform) => Transform,
  ): Element[] {
    const kind = localName(shape);
    if (kind === "AlternateContent") {
      return alternativeOf(shape).flatMap((inner, nth) => this.shape(inner, `${path}.${nth}`, groups, place));
    }
    if (kind === "grpSp") {
      const transform = at(shape, "grpSpPr", "xfrm");
      const id = `g${path.replace(/\./g, "-")}`;
      const inside = groups.length < 20 ? [...groups, id] : groups;
      return shape.children
        .filter((inner) => SHAPE_NAMES.has(localName(inner)))
        .flatMap((inner, nth) =>
          this.shape(inner, `${path}.${nth}`, inside, (standing) => place(inGroup(transform, standing))),
        );
    }
    const ref = placeholderRef(shape);
    if (ref && REGIONS.includes(ref.type)) return [];
    if (this.work.number === null && ref) return [];
    const properties = shape.children.find((part) => localName(part).startsWith("nv"));
    const named = child(properties, "cNvPr")?.attributes ?? {};
    if (named.hidden === "1" || named.hidden === "true") return [];
    const own = transformOf(this.work.inheritance.transform(shape, ref));
    const standing = own ? place(own) : undefined;
    // Placeholders without a position on a master are not drawn; on a slide they may not be lost.
    if (!standing && this.work.number === null) return [];
    const identity = this.work.tags.get(path) ?? {};
    const part = this.chartPart(shape);
    const unsupported = unsupportedFeatures(shape, part);
    const slot = identity.slot !== undefined ? identity.slot : ref && this.work.number !== null ? this.slot(ref) : null;
    const base = {
      id: identity.id ?? this.work.newId(path),
      slot,
      ...(named.name ? { name: cutText(named.name, 300) } : {}),
      ...(standing ? transformFields(standing) : { frame: { x: 72, y: 72, width: 240, height: 120 } }),
      ...(groups.length ? { groups: [...groups] } : {}),
      ...(identity.binding ? { binding: identity.binding } : {}),
      sourceShape: {
        shape: path,
        hash: "",
        ...(part && takesData(part) && this.charts.get(chartsIn(shape)[0] ?? "") === 1 ? { data: true } : {}),
        ...(unsupported.length ? { unsupported } : {}),
      },
    };
    const whose = named.name ? `“${named.name}”` : "a shape";
    if (this.work.number !== null && unsupported.length)
      this.adapted(
        `${joinWithAnd(unsupported)} of ${whose}`,
        "not drawn; a .pptx keeps it as long as the shape is not reformatted here",
      );
    const element = this.element(kind, shape, ref, base, named);
    if (element && slot !== null) this.used.add(slot);
    return element ? splitDiagramShape(element, shape, () => this.work.newId(`${path}.text`)) : [];
  }

  private element(
    kind: string,
    shape: XmlElement,
    ref: PlaceholderRef | undefined,
    base: Base,
    named: Record<string, string>,
  ): Element | undefined {
    if (kind === "pic") return this.picture(shape, base, named);
    if (kind === "graphicFrame") return this.graphic(shape, base, named);
    if (kind === "cxnSp") return this.connector(shape, base, named);
    if (kind === "sp") return this.text(shape, ref, base, named);
    return this.foreign(kind === "contentPart" ? "ink" : "object", base, named, []);
  }

  private slot(ref: PlaceholderRef): string | null {
    const { arrangement } = this.work;
    if (ref.type === "title" || ref.type === "ctrTitle")
      return this.used.has("title") || !slotsOf(arrangement).some(([slot]) => slot === "title")
        ? this.used.has("title")
          ? null
          : "title"
        : "title";
    const free = slotsOf(arrangement).filter(
      ([slot, role]) => role !== "title" && role !== "opening" && !this.used.has(slot),
    );
    const exact = free.find(
      ([slot, role]) =>
        String(placeholderOf(slot, role).idx) === ref.idx && (placeholderOf(slot, role).type ?? "obj") === ref.type,
    );
    const wanted =
      ref.type === "pic" ? free.find(([, role]) => role === "picture") : free.find(([, role]) => role !== "picture");
    return (exact ?? wanted)?.[0] ?? null;
  }

  /** Returns the link of a whole shape (`a:hlinkClick` of its non-visual properties). */
  private linkOf(shape: XmlElement): string | undefined {
    const properties = shape.children.find((part) => localName(part).startsWith("nv"));
    const click = at(properties, "cNvPr", "hlinkClick");
    return click ? this.work.link(relationOf(click, "id") ?? "", click.attributes.action ?? "") : undefined;
  }

  /** Reads a shape's text with the style of its levels. */
  body(
    shape: XmlElement,
    ref: PlaceholderRef | undefined,
  ): { text: RichText; style: string; box: ReturnType<typeof textBox> } {
    const { inheritance, styles, defaults, link } = this.work;
    const body = child(shape, "txBody");
    const chain = inheritance.chain(ref);
    const lists = [
      child(body, "lstStyle"),
      ...(ref ? inheritance.styles(ref) : [child(inheritance.texts, "otherStyle")]),
      defaults,
    ];
    const reference = child(child(shape, "style"), "fontRef");
    const seen = reference && this.colourOf(reference);
    const font =
      reference?.attributes.idx === "major"
        ? styles.fonts.major
        : reference?.attributes.idx === "minor"
          ? styles.fonts.minor
          : undefined;
    const made = () => textStyle(lists, styles, reference ? { colour: seen, font } : undefined);
    let style = this.work.styleOf(
      `${lists.map(numberOf).join()}/${seen ?? ""}/${reference ? (font ?? "") : "-"}`,
      made,
    );
    const weight = {
      strong: style.some(({ strong }) => strong) && switchesOff(body, "b"),
      emphasis: style.some(({ emphasis }) => emphasis) && switchesOff(body, "i"),
    };
    if (weight.strong) style = style.map(({ strong: _, ...level }) => level);
    if (weight.emphasis) style = style.map(({ emphasis: _, ...level }) => level);
    const read = readBody(body, { styles: lists, codeFont: undefined, link, looks: styles, weight });
    return {
      text: read,
      style: this.work.style(style),
      box: textBox([child(body, "bodyPr"), ...chain.map((other) => at(other, "txBody", "bodyPr"))]),
    };
  }

  private colourOf(holder: XmlElement): string | undefined {
    const fill = readFill(
      { name: "a:solidFill", local: "solidFill", attributes: {}, children: holder.children, text: "" },
      this.drawing,
    );
    return fill?.kind === "solid" ? fill.colour : undefined;
  }

  private text(
    shape: XmlElement,
    ref: PlaceholderRef | undefined,
    base: Base,
    named: Record<string, string>,
  ): Element | undefined {
    const chain = this.work.inheritance.chain(ref).map((other) => child(other, "spPr"));
    const properties = child(shape, "spPr");
    const style = child(shape, "style");
    const fill = shapeFill([properties, ...chain], style, this.drawing);
    const stroke = shapeLine([properties, ...chain], style, this.drawing);
    const shadow = readShadow(properties, this.drawing);
    const geometry = readGeometry(properties, base.frame ?? { x: 0, y: 0, width: 1, height: 1 }, (preset) =>
      this.adapted(`the form “${preset}”`, "drawn as a rectangle; a .pptx keeps the form"),
    ) ?? { preset: "rect" };
    const { text, style: named_, box } = this.body(shape, ref);
    const paint = { ...(fill ? { fill } : {}), ...(stroke ? { stroke } : {}), ...(shadow ? { shadow } : {}) };
    const empty = isEmptyText(text);
    const [alone, ...others] = text.flatMap(({ runs }) => runs);
    if (
      alone?.marks?.includes("formula") &&
      !others.length &&
      !ref &&
      childrenOf(child(shape, "txBody"), "p").some(holdsDisplay)
    )
      return { kind: "formula", ...base, tex: alone.text };
    const plain = "preset" in geometry && WIDE_RECTS.has(geometry.preset);
    const link = this.linkOf(shape);
    if (!empty && (plain || ref))
      return { kind: "text", ...base, style: named_, box, ...paint, text: link ? linkWholeText(text, link) : text };
    if (empty && ref) return undefined;
    if (empty && !fill && !stroke && !link) return undefined;
    return {
      kind: "shape",
      ...base,
      ...(empty ? {} : { style: named_, box }),
      ...paint,
      geometry,
      text,
      ...(named.descr ? { alt: named.descr } : {}),
      ...(link ? { link } : {}),
    };
  }

  private connector(shape: XmlElement, base: Base, named: Record<string, string>): Element {
    const properties = child(shape, "spPr");
    const stroke = shapeLine([properties], child(shape, "style"), this.drawing) ?? { colour: "#000000", width: 0.75 };
    const geometry = readGeometry(properties, base.frame ?? { x: 0, y: 0, width: 1, height: 1 }, (preset) =>
      this.adapted(`the connector “${preset}”`, "drawn as a rectangle; a .pptx keeps it"),
    ) ?? { preset: "line" };
    const link = this.linkOf(shape);
    return {
      kind: "shape",
      ...base,
      stroke,
      geometry,
      text: [],
      ...(named.descr ? { alt: named.descr } : {}),
      ...(link ? { link } : {}),
    };
  }

  /** Returns the first file of a picture that can be shown, or why none can. */
  private pictured(blip: XmlElement | undefined): ReturnType<PptxFiles["picture"]> {
    const ids = pictureIds(blip);
    for (const id of ids.slice(0, -1)) {
      const found = this.work.picture(id);
      if ("source" in found) return found;
    }
    return this.work.picture(ids.at(-1) ?? "");
  }

  private picture(shape: XmlElement, base: Base, named: Record<string, string>): Element {
    const nonVisual = at(shape, "nvPicPr", "nvPr");
    const blip = at(shape, "blipFill", "blip");
    const found = this.pictured(blip);
    const alt = named.descr ?? "";
    const film = nonVisual?.children.find((part) =>
      ["videoFile", "audioFile", "wavAudioFile", "quickTimeFile"].includes(localName(part)),
    );
    if (film) {
      const form = localName(film) === "videoFile" || localName(film) === "quickTimeFile" ? "video" : "audio";
      const id = relationOf(film, "link") ?? relationOf(film, "embed") ?? "";
      const media = this.work.media(id);
      if (media)
        return {
          kind: "media",
          ...base,
          source: media.source,
          type: form === "audio" ? form : media.type,
          alt,
          ...("source" in found ? { poster: found.source } : {}),
        };
      this.adapted(
        `a ${form === "video" ? "film" : "sound"} “${named.name ?? ""}”`,
        "shown by its picture; a .pptx keeps it",
      );
      return this.foreign(
        form === "video" ? "film" : "sound",
        base,
        named,
        [],
        "source" in found ? found.source : undefined,
      );
    }
    if ("why" in found) {
      this.adapted(
        `the picture “${named.name ?? ""}”`,
        `${found.why}; a frame stands in its place, and a .pptx keeps it`,
      );
      return this.foreign("picture", base, named, []);
    }
    if (found.drawn) this.adapted(`the picture “${named.name ?? ""}”`, `${found.drawn}; a .pptx keeps them`);
    const source = recolouredPicture(found.source, blip, this.drawing);
    if (child(blip, "duotone") && source === found.source)
      this.adapted(
        `the two colours of the picture “${named.name ?? ""}”`,
        "not drawn; a .pptx keeps them as long as the picture is not given other looks here",
      );
    const { l, t, r, b } = at(shape, "blipFill", "srcRect")?.attributes ?? {};
    const crop = {
      left: l ? fraction(l) : 0,
      top: t ? fraction(t) : 0,
      right: r ? fraction(r) : 0,
      bottom: b ? fraction(b) : 0,
    };
    const properties = child(shape, "spPr");
    const geometry = readGeometry(properties, base.frame ?? { x: 0, y: 0, width: 1, height: 1 }, () => {});
    const form: Geometry | undefined =
      geometry && !("preset" in geometry && geometry.preset === "rect") ? geometry : undefined;
    const opacity = child(blip, "alphaModFix");
    const recolour: PictureElement["recolour"] = child(blip, "grayscl")
      ? "grey"
      : child(blip, "biLevel")
        ? "mono"
        : child(blip, "lum")
          ? "washout"
          : undefined;
    const stroke = shapeLine([properties], child(shape, "style"), this.drawing);
    const fill = readFill(fillElement(properties), this.drawing);
    const shadow = readShadow(properties, this.drawing);
    const link = this.linkOf(shape);
    return {
      kind: "picture",
      ...base,
      source,
      alt,
      ...(crop.left || crop.top || crop.right || crop.bottom ? { crop } : {}),
      ...(form ? { shape: form } : {}),
      ...(opacity ? { opacity: Math.max(0, Math.min(1, fraction(opacity.attributes.amt))) } : {}),
      ...(recolour ? { recolour } : {}),
      ...(stroke ? { stroke } : {}),
      ...(fill ? { fill } : {}),
      ...(shadow ? { shadow } : {}),
      ...(link ? { link } : {}),
    };
  }

  /** Returns the chart part that a frame shows. */
  private chartPart(shape: XmlElement): XmlElement | undefined {
    const [id] = localName(shape) === "graphicFrame" ? chartsIn(shape) : [];
    return id === undefined ? undefined : this.work.part(id);
  }

  private graphic(shape: XmlElement, base: Base, named: Record<string, string>): Element {
    const data = at(shape, "graphic", "graphicData");
    const uri = data?.attributes.uri ?? "";
    const table = child(data, "tbl");
    if (table) return this.table(table, base);
    if (uri.endsWith("/chart")) {
      const part = this.chartPart(shape);
      const read = part && readChart(part, this.work.colours);
      if (read) {
        const { unlike, ...chart } = read;
        if (unlike)
          this.adapted(
            `the chart “${named.name ?? ""}”`,
            `drawn without ${unlike.startsWith("a ") ? "its own form" : unlike} (${unlike}); a .pptx keeps it`,
          );
        return { kind: "chart", ...base, ...chart };
      }
      this.adapted(`the chart “${named.name ?? ""}”`, "its values cannot be read; a .pptx keeps it");
      return this.foreign("chart", base, named, []);
    }
    if (uri.endsWith("/diagram")) {
      const part = this.work.part(relationOf(child(data, "relIds"), "dm") ?? "");
      const words = childrenOf(child(part, "ptLst"), "pt")
        .filter(({ attributes }) => !attributes.type || attributes.type === "node")
        .flatMap((point) => readBody(child(point, "t"), { styles: [], codeFont: undefined, link: this.work.link }));
      const drawing = this.drawn(part, base);
      this.adapted(
        `the diagram “${named.name ?? ""}”`,
        drawing
          ? "shown as its file draws it; a .pptx keeps it"
          : "its words are read, its drawing is not; a .pptx keeps it",
      );
      return { ...this.foreign("diagram", base, named, words), ...(drawing ? { drawing } : {}) } as Element;
    }
    const object =
      at(data, "oleObj") ??
      at(data, "AlternateContent", "Fallback", "oleObj") ??
      at(data, "AlternateContent", "Choice", "oleObj");
    const blip =
      at(object, "pic", "blipFill", "blip") ??
      at(data, "AlternateContent", "Fallback", "oleObj", "pic", "blipFill", "blip");
    const found = blip
      ? this.pictured(blip)
      : object?.attributes.spid === undefined
        ? undefined
        : this.work.legacy(object.attributes.spid);
    const what = object?.attributes.progId ? `embedded object (${object.attributes.progId})` : "embedded object";
    this.adapted(
      `the ${what}${named.name ? ` “${named.name}”` : ""}`,
      "shown by its picture, where the file has one that can be shown; a .pptx keeps it",
    );
    return this.foreign(what, base, named, [], found && "source" in found ? found.source : undefined);
  }

  /**
   * Returns the file's drawing of a diagram: the shapes of a part that its data name (`dataModelExt`, which programs
   * store beside the standard's own parts).
   */
  private drawn(data: XmlElement | undefined, { frame }: Base): ForeignDrawing | undefined {
    const named =
      childrenOf(child(data, "extLst"), "ext").flatMap((one) => child(one, "dataModelExt") ?? [])[0]?.attributes
        .relId ?? "";
    const tree = frame && this.work.part(named);
    const work = tree && this.work.within(named, (path) => `d${path.replace(/\./g, "-")}`);
    if (!work || !frame) return undefined;
    const shapes = child(tree, "spTree")?.children.filter((shape) => SHAPE_NAMES.has(localName(shape))) ?? [];
    const read = new ShapeReader(work).read(shapes).map(({ sourceShape: _, ...element }) => element);
    const found = ForeignDrawing.safeParse({
      width: frame.width,
      height: frame.height,
      elements: read.filter(({ kind }) => kind === "text" || kind === "shape" || kind === "picture"),
    });
    return found.success && found.data.elements.length ? found.data : undefined;
  }

  private table(table: XmlElement, base: Base): Element {
    const { work } = this;
    const rows = childrenOf(table, "tr");
    const widths = childrenOf(child(table, "tblGrid"), "gridCol").map(({ attributes }) =>
      Math.max(0, Number(attributes.w) / EMU || 0),
    );
    const width = Math.max(1, widths.length, ...rows.map((row) => childrenOf(row, "tc").length));
    const on = (value: string | undefined) => value === "1" || value === "true";
    const flags = child(table, "tblPr")?.attributes ?? {};
    const style = work.tableStyle(child(child(table, "tblPr"), "tableStyleId")?.text.trim() ?? "");
    const lists = [child(work.inheritance.texts, "otherStyle"), work.defaults];
    const read: ReadContext = { styles: lists, codeFont: undefined, link: work.link, looks: work.styles, blank: true };
    const header = on(flags.firstRow) ? 1 : 0;
    const cells = rows.map((row, y) => {
      const own = childrenOf(row, "tc");
      return Array.from({ length: width }, (_, x): Cell | null => {
        const cell = own[x];
        if (!cell) return { text: [] };
        const { gridSpan, rowSpan, hMerge, vMerge } = cell.attributes;
        if (on(hMerge) || on(vMerge)) return null;
        const parts = this.styleParts(style, flags, y, x, rows.length, width);
        const text = this.inTableStyle(readBody(child(cell, "txBody"), read), parts, cell);
        const properties = child(cell, "tcPr");
        const direct = readFill(fillElement(properties), this.drawing);
        const fill =
          direct === undefined
            ? this.first(parts, (part) =>
                readFill(fillElement(at(part, "tcStyle", "fill")) ?? at(part, "tcStyle", "fill"), this.drawing),
              )
            : (direct ?? undefined);
        const borders = Object.fromEntries(
          (["left", "top", "right", "bottom"] as const).flatMap((side) => {
            const line = readLine(
              child(properties, { left: "lnL", top: "lnT", right: "lnR", bottom: "lnB" }[side]),
              this.drawing,
            );
            const inside =
              side === "left" ? x > 0 : side === "right" ? x < width - 1 : side === "top" ? y > 0 : y < rows.length - 1;
            const named = inside ? (side === "left" || side === "right" ? "insideV" : "insideH") : side;
            const stroke =
              line === undefined
                ? this.first(parts, (part) =>
                    readLine(
                      at(part, "tcStyle", "tcBdr", named, "ln") ?? at(part, "tcStyle", "tcBdr", side, "ln"),
                      this.drawing,
                    ),
                  )
                : line;
            return stroke ? [[side, stroke]] : [];
          }),
        );
        const { marL, marT, marR, marB, anchor } = properties?.attributes ?? {};
        const inset = (value: string | undefined, usual: number) =>
          value === undefined ? usual : Math.max(0, Math.min(4032, Number(value) / EMU || 0));
        const insets: [number, number, number, number] | undefined = [marL, marT, marR, marB].some(
          (value) => value !== undefined,
        )
          ? [inset(marL, 7.2), inset(marT, 3.6), inset(marR, 7.2), inset(marB, 3.6)]
          : undefined;
        const columns = Math.min(Math.floor(Number(gridSpan ?? 1)) || 1, width - x, 200);
        const down = Math.min(Math.floor(Number(rowSpan ?? 1)) || 1, rows.length - y, 2000);
        return {
          text,
          ...(columns > 1 ? { columns } : {}),
          ...(down > 1 ? { rows: down } : {}),
          ...(fill ? { fill } : {}),
          ...(anchor === "ctr" ? { anchor: "middle" as const } : anchor === "b" ? { anchor: "bottom" as const } : {}),
          ...(insets ? { insets } : {}),
          ...(Object.keys(borders).length ? { borders } : {}),
        };
      });
    });
    const align: TableElement["align"] = Array.from({ length: width }, () => "start");
    return {
      kind: "table",
      ...base,
      style: work.style(textStyle(lists, work.styles)),
      rows: cells.length ? cells : [[{ text: [] }]],
      header: Math.min(header, cells.length),
      align,
      widths: Array.from({ length: width }, (_, x) => widths[x] ?? 0),
      heights: rows.map(({ attributes }) => Math.max(0, Number(attributes.h) / EMU || 0)),
    };
  }

  /** Returns the parts of a table style that apply to a cell, the strongest first (ECMA-376-1, 20.1.4.2.26). */
  private styleParts(
    style: XmlElement | undefined,
    flags: Record<string, string>,
    y: number,
    x: number,
    rows: number,
    columns: number,
  ): XmlElement[] {
    if (!style) return [];
    const on = (name: string) => flags[name] === "1" || flags[name] === "true";
    const names = [
      ...(on("firstRow") && y === 0 ? ["firstRow"] : []),
      ...(on("lastRow") && y === rows - 1 ? ["lastRow"] : []),
      ...(on("firstCol") && x === 0 ? ["firstCol"] : []),
      ...(on("lastCol") && x === columns - 1 ? ["lastCol"] : []),
      ...(on("bandRow") ? [(y - (on("firstRow") ? 1 : 0)) % 2 === 0 ? "band1H" : "band2H"] : []),
      ...(on("bandCol") ? [(x - (on("firstCol") ? 1 : 0)) % 2 === 0 ? "band1V" : "band2V"] : []),
      "wholeTbl",
    ];
    return names.flatMap((name) => child(style, name) ?? []);
  }

  private first<T>(parts: readonly XmlElement[], read: (part: XmlElement) => T | null | undefined): T | undefined {
    for (const part of parts) {
      const found = read(part);
      if (found !== undefined) return found ?? undefined;
    }
    return undefined;
  }

  /** Returns a cell's text with the colour and weight of its table style, where its runs set none. */
  private inTableStyle(text: RichText, parts: readonly XmlElement[], cell: XmlElement): RichText {
    const colour = this.first(parts, (part) => {
      const own = child(part, "tcTxStyle");
      return own && this.colourOf({ ...own, children: own.children.filter((inner) => localName(inner) !== "fontRef") });
    });
    const strong =
      this.first(parts, (part) => child(part, "tcTxStyle")?.attributes.b) === "on" &&
      !switchesOff(child(cell, "txBody"), "b");
    if (!colour && !strong) return text;
    return text.map((paragraph) => ({
      ...paragraph,
      runs: joinRuns(
        paragraph.runs.map((item) =>
          run(
            item.text,
            strong ? [...(item.marks ?? []), "strong"] : item.marks,
            item.link,
            colour ? { colour, ...item.properties } : item.properties,
          ),
        ),
      ),
    }));
  }

  private foreign(what: string, base: Base, named: Record<string, string>, text: RichText, picture?: string): Element {
    return {
      kind: "foreign",
      ...base,
      what: cutText(what, 200),
      text,
      ...(picture ? { picture } : {}),
      alt: named.descr ?? "",
    };
  }

  private adapted(what: string, how: string): void {
    this.work.report.adapted.push({ slide: this.work.number, what, how });
  }
}

type Base = Pick<
  Element,
  "id" | "slot" | "name" | "frame" | "rotation" | "flip" | "groups" | "binding" | "sourceShape"
>;
