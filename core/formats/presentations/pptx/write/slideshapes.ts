import {
  regionWords,
  type SlotRole,
  type Element,
  type Footnote,
  type Frame,
  plainText,
  type Slide,
  slotsOf,
  must,
} from "@unitext/core/model";
import { boxesOf, contentArea, sizeOf, slideTheme, slotPlaces, withTheme } from "@unitext/core/layout";
import { xml } from "../../../shared/xml";
import { footnoteText, tagsOf } from "../../../shared/sourcepackage";
import { regionShapes } from "../package/layouts";
import { emu } from "../package/names";
import { shapeHashes } from "../patch/appearance";
import { paragraphsXml } from "./text";
import { type ShapeGroup, type ShapesOf, withGroups } from "./timing";
import { placeholderXml, shapeXml } from "./shape";
import { regionShape } from "./textshape";
import { textContext, textBox, type ShapeWork, type SlideWork } from "./slidework";

/** The shapes of one slide, numbered as they are written. */
class SlideShapes {
  /** The tags of each shape by its id. */
  readonly tags: Record<number, object> = {};
  /** The ids of the shapes of each element. */
  readonly shapeIds = new Map<string, number[]>();
  private readonly notes: Footnote[] = [];
  /** The slots whose placeholder is used. */
  private readonly taken = new Set<string>();
  private readonly boxes: ReturnType<typeof boxesOf>;
  private readonly places: ReturnType<typeof slotPlaces>;
  private readonly roles: ReadonlyMap<string, SlotRole>;
  private next = 2;

  /** What writing needs, with the theme of the slide in the colours of what the slide is on. */
  private readonly work: SlideWork;

  constructor(
    work: SlideWork,
    private readonly slide: Slide,
    number: number,
    private readonly sourceXml: ShapeWork["sourceXml"],
  ) {
    this.work = {
      ...work,
      metadata: withTheme(work.metadata, slideTheme(slide, work.metadata)),
      ...(slide.textSize || slide.spacing !== undefined ? { layoutTheme: work.metadata.theme } : {}),
    };
    this.boxes = boxesOf(slide, { metadata: work.metadata, number, fonts: work.options.fonts });
    this.places = slotPlaces(slide.arrangement, work.metadata, slide.widths);
    this.roles = new Map(slotsOf(slide.arrangement));
  }

  /** Writes the shapes in reading order; the outermost groups are added to `groups`. */
  xml(groups: ShapeGroup[]): string {
    const { work, slide, notes } = this;
    const { metadata } = work;
    const regions = (slide.regions ?? []).map((box) => regionShape(box, { ...work, id: this.next++, notes }));
    const written = slide.elements.map((element) => this.element(element));
    const tree = regions.join("") + grouped(written, () => this.next++, groups);
    const footnotes = this.footnotes();
    const hasRegions =
      slide.arrangement !== "opening" && slide.arrangement !== "blank" && slide.master === undefined && !slide.regions;
    const deckRegions = regionShapes(metadata, this.next, {
      footer: hasRegions && regionWords(metadata, "footer") !== "",
      number: hasRegions && metadata.regions.number,
    });
    return tree + footnotes + deckRegions;
  }

  private element(element: Element): { element: string; groups: readonly string[]; frame: Frame; xml: string } {
    const { work } = this;
    const id = this.next++;
    this.tags[id] = tagsOf(element);
    const ids = [id];
    this.shapeIds.set(element.id, ids);
    const box = this.boxes.get(element.id);
    const slot = this.places.get(element.slot ?? "");
    const frame = element.frame ?? box ?? slot?.frame ?? { x: 72, y: 144, width: 400, height: 240 };
    const role = this.roles.get(element.slot ?? "");
    const made = shapeXml(element, {
      ...work,
      line: (text, at) => this.line(text, at, ids),
      id,
      name: element.name ?? `${element.slot ?? element.kind} ${id}`,
      frame,
      box,
      role,
      placeholder: () => this.placeholder(element.slot, role),
      notes: this.notes,
      sourceXml: this.sourceXml,
    });
    const hash = shapeHashes(made).get(String(id));
    if (hash !== undefined) this.tags[id] = { ...this.tags[id], hash };
    return { element: element.id, groups: element.groups ?? [], frame, xml: made };
  }

  /** Writes a caption; its shape belongs to the element whose ids are given. */
  private line(text: string, frame: Frame, ids: number[]): string {
    const { metadata } = this.work;
    const id = this.next++;
    ids.push(id);
    this.tags[id] = { footnotes: true };
    const size = sizeOf("caption", metadata.theme, metadata.page) * 0.8;
    const paragraphs = paragraphsXml(plainText(text), textContext(this.work, size, false));
    return textBox({ id, name: `caption ${id}`, frame }, paragraphs, size);
  }

  /** Returns the placeholder of a slot; undefined when another element has it. */
  private placeholder(slot: string | null, role: SlotRole | undefined): string | undefined {
    if (slot === null || role === undefined || this.taken.has(slot)) return undefined;
    this.taken.add(slot);
    return placeholderXml(slot, role);
  }

  private footnotes(): string {
    const { notes, work } = this;
    if (!notes.length) return "";
    const { metadata } = work;
    const id = this.next++;
    this.tags[id] = { footnotes: true };
    const { x, y, width, height } = contentArea(metadata);
    const size = metadata.theme.scale.footer * 1.1;
    const high = notes.length * size * 1.5;
    const frame = { x, y: y + height - high, width, height: high };
    const paragraphs = paragraphsXml(footnoteText(notes), textContext(work, size, false));
    return textBox({ id, name: `footnotes ${id}`, frame }, paragraphs, size);
  }
}

/**
 * Writes the shapes of a slide in reading order. Returns them with the tags of each by shape id, and the shapes of each
 * element.
 */
export function slideShapes(
  work: SlideWork,
  slide: Slide,
  number: number,
  sourceXml: ShapeWork["sourceXml"],
): { shapes: string; facts: Record<number, object>; shapesOf: ShapesOf } {
  const writer = new SlideShapes(work, slide, number, sourceXml);
  const groups: ShapeGroup[] = [];
  const shapes = writer.xml(groups);
  return { shapes, facts: writer.tags, shapesOf: withGroups(slide, (element) => writer.shapeIds.get(element), groups) };
}

/**
 * Writes groups (`p:grpSp`): neighbours with a group in common, in page coordinates. The outermost groups are added to
 * `outer`.
 */
function grouped(
  shapes: readonly { element: string; groups: readonly string[]; frame: Frame; xml: string }[],
  nextId: () => number,
  outer: ShapeGroup[],
  depth = 0,
): string {
  let out = "";
  for (let at = 0; at < shapes.length; ) {
    const first = must(shapes[at]);
    const group = first.groups[depth];
    let to = at + 1;
    if (group === undefined) out += first.xml;
    else {
      while (shapes[to]?.groups[depth] === group) to++;
      const inside = shapes.slice(at, to);
      const [left, top] = [
        Math.min(...inside.map(({ frame }) => frame.x)),
        Math.min(...inside.map(({ frame }) => frame.y)),
      ];
      const size = {
        x: left,
        y: top,
        width: Math.max(...inside.map(({ frame }) => frame.x + frame.width)) - left,
        height: Math.max(...inside.map(({ frame }) => frame.y + frame.height)) - top,
      };
      const id = nextId();
      if (depth === 0) outer.push({ id, members: inside.map(({ element }) => element) });
      const ext = { cx: emu(size.width), cy: emu(size.height) };
      const off = { x: emu(left), y: emu(top) };
      out += xml(
        "p:grpSp",
        {},
        xml("p:nvGrpSpPr", {}, xml("p:cNvPr", { id, name: `Group ${id}` }), "<p:cNvGrpSpPr/><p:nvPr/>"),
        xml(
          "p:grpSpPr",
          {},
          xml("a:xfrm", {}, xml("a:off", off), xml("a:ext", ext), xml("a:chOff", off), xml("a:chExt", ext)),
        ),
        grouped(inside, nextId, outer, depth + 1),
      );
    }
    at = to;
  }
  return out;
}
