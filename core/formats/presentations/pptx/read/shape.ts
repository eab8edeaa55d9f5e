import { inDeckDirection } from "../../shared/chartdirection";
import { cutText, ForeignDrawing, type Element, slotsOf } from "@unitext/core/model";
import { at, child, childrenOf, localName, type XmlElement } from "../../../shared/xml";
import { chartsIn, type DrawingContext, relationOf } from "./drawing";
import { inGroup, type Transform, transformFields, transformOf } from "./transform";
import { joinWithAnd } from "../../../shared/sourcepackage";
import { alternativeOf, type PlaceholderRef, placeholderRef, SHAPE_NAMES } from "./inherit";
import { placeholderOf } from "../package/names";
import { readChart } from "./chart";
import { takesData } from "../patch/updatechart";
import { splitDiagramShape } from "./diagram";
import { readBody } from "./text";
import { unsupportedFeatures } from "./unsupported";
import type { ShapeWork, ShapeBase } from "./shapework";
import { adapted, foreign } from "./shapetext";
import { readTable } from "./table";
import { pictured, readPicture } from "./picture";
import { readTextShape, readConnector } from "./textshape";

const REGIONS = ["dt", "ftr", "sldNum", "hdr", "sldImg"];

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
    return shapes.flatMap((shape, nth) => this.shape(shape, String(nth), [], (position) => position));
  }

  private shape(
    shape: XmlElement,
    path: string,
    groups: readonly string[],
    place: (position: Transform) => Transform,
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
          this.shape(inner, `${path}.${nth}`, inside, (position) => place(inGroup(transform, position))),
        );
    }
    const ref = placeholderRef(shape);
    if (ref && REGIONS.includes(ref.type)) return [];
    if (this.work.number === null && ref) return [];
    const properties = shape.children.find((part) => localName(part).startsWith("nv"));
    const named = child(properties, "cNvPr")?.attributes ?? {};
    if (named.hidden === "1" || named.hidden === "true") return [];
    const own = transformOf(this.work.inheritance.transform(shape, ref));
    const position = own ? place(own) : undefined;
    // Placeholders without a position on a master are not drawn; on a slide they may not be lost.
    if (!position && this.work.number === null) return [];
    const identity = this.work.tags.get(path) ?? {};
    const part = this.chartPart(shape);
    const unsupported = unsupportedFeatures(shape, part);
    const slot = identity.slot !== undefined ? identity.slot : ref && this.work.number !== null ? this.slot(ref) : null;
    const base = {
      id: identity.id ?? this.work.newId(path),
      slot,
      ...(named.name ? { name: cutText(named.name, 300) } : {}),
      ...(position ? transformFields(position) : { frame: { x: 72, y: 72, width: 240, height: 120 } }),
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
      adapted(
        this.work,
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
    base: ShapeBase,
    named: Record<string, string>,
  ): Element | undefined {
    if (kind === "pic") return readPicture(this.work, shape, base, named);
    if (kind === "graphicFrame") return this.graphic(shape, base, named);
    if (kind === "cxnSp") return readConnector(this.work, shape, base, named);
    if (kind === "sp") return readTextShape(this.work, shape, ref, base, named);
    return foreign(kind === "contentPart" ? "ink" : "object", base, named, []);
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

  /** Returns the chart part that a frame shows. */
  private chartPart(shape: XmlElement): XmlElement | undefined {
    const [id] = localName(shape) === "graphicFrame" ? chartsIn(shape) : [];
    return id === undefined ? undefined : this.work.part(id);
  }

  private graphic(shape: XmlElement, base: ShapeBase, named: Record<string, string>): Element {
    const data = at(shape, "graphic", "graphicData");
    const uri = data?.attributes.uri ?? "";
    const table = child(data, "tbl");
    if (table) return readTable(this.work, table, base);
    if (uri.endsWith("/chart")) {
      const part = this.chartPart(shape);
      const read = part && readChart(part, this.work.colours);
      if (read) {
        const { unlike } = read;
        if (unlike)
          adapted(
            this.work,
            `the chart “${named.name ?? ""}”`,
            `drawn without ${unlike.startsWith("a ") ? "its own form" : unlike} (${unlike}); a .pptx keeps it`,
          );
        return { kind: "chart", ...base, ...inDeckDirection(read, this.work.styles.language ?? "en") };
      }
      adapted(this.work, `the chart “${named.name ?? ""}”`, "its values cannot be read; a .pptx keeps it");
      return foreign("chart", base, named, []);
    }
    if (uri.endsWith("/diagram")) {
      const part = this.work.part(relationOf(child(data, "relIds"), "dm") ?? "");
      const words = childrenOf(child(part, "ptLst"), "pt")
        .filter(({ attributes }) => !attributes.type || attributes.type === "node")
        .flatMap((point) => readBody(child(point, "t"), { styles: [], codeFont: undefined, link: this.work.link }));
      const drawing = this.drawn(part, base);
      adapted(
        this.work,
        `the diagram “${named.name ?? ""}”`,
        drawing
          ? "shown as its file draws it; a .pptx keeps it"
          : "its words are read, its drawing is not; a .pptx keeps it",
      );
      return { ...foreign("diagram", base, named, words), ...(drawing ? { drawing } : {}) } as Element;
    }
    const object =
      at(data, "oleObj") ??
      at(data, "AlternateContent", "Fallback", "oleObj") ??
      at(data, "AlternateContent", "Choice", "oleObj");
    const blip =
      at(object, "pic", "blipFill", "blip") ??
      at(data, "AlternateContent", "Fallback", "oleObj", "pic", "blipFill", "blip");
    const found = blip
      ? pictured(this.work, blip)
      : object?.attributes.spid === undefined
        ? undefined
        : this.work.legacy(object.attributes.spid);
    const what = object?.attributes.progId ? `embedded object (${object.attributes.progId})` : "embedded object";
    adapted(
      this.work,
      `the ${what}${named.name ? ` “${named.name}”` : ""}`,
      "shown by its picture, where the file has one that can be shown; a .pptx keeps it",
    );
    return foreign(what, base, named, [], found && "source" in found ? found.source : undefined);
  }

  /**
   * Returns the file's drawing of a diagram: the shapes of a part that its data name (`dataModelExt`, which programs
   * store beside the standard's own parts).
   */
  private drawn(data: XmlElement | undefined, { frame }: ShapeBase): ForeignDrawing | undefined {
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
}
