import type { Frame } from "@unitext/core/model";
import { at, child, localName, type XmlElement } from "../../../shared/xml";
import { EMU } from "../package/names";
import type { OpenedPackage } from "../package/package";

/** A shape's placeholder; without a type it is an object placeholder. */
export interface PlaceholderRef {
  type: string;
  idx: string;
}

/** Returns the placeholder that a shape fills; undefined when it is none. */
export function placeholderRef(shape: XmlElement): PlaceholderRef | undefined {
  const properties = shape.children.find((part) => /^nv(Sp|Pic|GraphicFrame|Cxn|GrpSp)Pr$/.test(localName(part)));
  const found = at(properties, "nvPr", "ph");
  return found ? { type: found.attributes.type ?? "obj", idx: found.attributes.idx ?? "0" } : undefined;
}

/** The elements that are shapes, in a shape tree or group. */
export const SHAPE_NAMES: ReadonlySet<string> = new Set([
  "sp",
  "pic",
  "graphicFrame",
  "grpSp",
  "cxnSp",
  "AlternateContent",
  "contentPart",
]);

const holdsMath = (element: XmlElement): boolean => localName(element) === "oMath" || element.children.some(holdsMath);
/** Chooses from alternate content (ECMA-376-3): a formula rather than its picture, else what every program can show. */
export function alternativeOf(element: XmlElement): XmlElement[] {
  const [choice, fallback] = [child(element, "Choice"), child(element, "Fallback")];
  return ((choice && holdsMath(choice)) || !fallback?.children.length ? choice : fallback)?.children ?? [];
}

/** Returns the shapes of a slide, layout or master, without those in groups. */
export function shapesOf(part: XmlElement | undefined): XmlElement[] {
  return (at(part, "cSld", "spTree")?.children ?? []).filter((element) => SHAPE_NAMES.has(localName(element)));
}

const isTitle = (type: string) => type === "title" || type === "ctrTitle";
const sameKind = (a: string, b: string) =>
  a === b || (isTitle(a) && isTitle(b)) || (["obj", "body", "subTitle"].includes(a) && ["obj", "body"].includes(b));

/** The layout and master behind a slide, and what placeholders inherit from them. */
export class Inheritance {
  private constructor(
    readonly layout: XmlElement | undefined,
    readonly master: XmlElement | undefined,
    readonly themePath: string | undefined,
    readonly theme: XmlElement | undefined,
    readonly layoutPath: string | undefined,
    readonly masterPath: string | undefined,
  ) {}

  static of(pack: OpenedPackage, slidePath: string): Inheritance {
    return Inheritance.ofLayout(pack, pack.related(slidePath, "layout"));
  }

  /** Returns what the slides of a layout inherit. */
  static ofLayout(pack: OpenedPackage, layoutPath: string | undefined): Inheritance {
    const layout = layoutPath && pack.has(layoutPath) ? pack.tree(layoutPath) : undefined;
    const masterPath = layoutPath && pack.related(layoutPath, "master");
    const master = masterPath && pack.has(masterPath) ? pack.tree(masterPath) : undefined;
    const themePath = masterPath ? pack.related(masterPath, "theme") : undefined;
    return new Inheritance(
      layout,
      master,
      themePath,
      themePath && pack.has(themePath) ? pack.tree(themePath) : undefined,
      layoutPath,
      masterPath,
    );
  }

  /** The text styles of the master. */
  get texts(): XmlElement | undefined {
    return child(this.master, "txStyles");
  }

  /** Returns the shapes that a placeholder inherits from, nearest first. */
  chain(ref: PlaceholderRef | undefined): XmlElement[] {
    if (!ref) return [];
    const layout = this.layoutShape(ref);
    const own = layout && placeholderRef(layout);
    const master = this.masterShape(own ?? ref) ?? this.masterShape(ref);
    return [layout, master].filter((shape): shape is XmlElement => shape !== undefined);
  }

  private layoutShape(ref: PlaceholderRef): XmlElement | undefined {
    const shapes = shapesOf(this.layout);
    // A slide's placeholder may leave out its type where its index determines it.
    return (
      shapes.find((shape) => placeholderRef(shape)?.idx === ref.idx && ref.idx !== "0") ??
      shapes.find((shape) => isTitle(ref.type) && isTitle(placeholderRef(shape)?.type ?? "")) ??
      shapes.find((shape) => placeholderRef(shape)?.type === ref.type)
    );
  }

  private masterShape(ref: PlaceholderRef): XmlElement | undefined {
    return shapesOf(this.master).find((shape) => sameKind(ref.type, placeholderRef(shape)?.type ?? ""));
  }

  /** Returns the list styles of a placeholder, nearest first. */
  styles(ref: PlaceholderRef | undefined): (XmlElement | undefined)[] {
    const texts = child(this.master, "txStyles");
    if (!ref) return [child(texts, "otherStyle")];
    const style = isTitle(ref.type)
      ? "titleStyle"
      : ["obj", "body", "subTitle"].includes(ref.type)
        ? "bodyStyle"
        : "otherStyle";
    const [layout, master] = [this.layoutShape(ref), this.masterShape(ref)];
    return [at(layout, "txBody", "lstStyle"), at(master, "txBody", "lstStyle"), child(texts, style)];
  }

  /** Returns the frame of a shape in points; undefined when neither it nor what it inherits from has one. */
  frame(shape: XmlElement, ref: PlaceholderRef | undefined): Frame | undefined {
    const transform = this.transform(shape, ref);
    const off = child(transform, "off")?.attributes;
    const ext = child(transform, "ext")?.attributes;
    const values = [off?.x, off?.y, ext?.cx, ext?.cy].map((value) => Number(value) / EMU);
    if (values.some((value) => !Number.isFinite(value))) return undefined;
    const [x, y, width, height] = values as [number, number, number, number];
    return { x, y, width: Math.abs(width), height: Math.abs(height) };
  }

  /** Returns a shape's transform, its own or inherited. */
  transform(shape: XmlElement, ref: PlaceholderRef | undefined): XmlElement | undefined {
    const own = at(shape, "spPr", "xfrm") ?? child(shape, "xfrm");
    if (own || !ref) return own;
    return at(this.layoutShape(ref), "spPr", "xfrm") ?? at(this.masterShape(ref), "spPr", "xfrm");
  }

  get layoutType(): string {
    return this.layout?.attributes.type ?? "cust";
  }

  get layoutName(): string {
    return child(this.layout, "cSld")?.attributes.name ?? "";
  }
}
