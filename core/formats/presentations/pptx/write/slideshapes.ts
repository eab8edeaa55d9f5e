import { boxesOf, contentArea, sizeOf, slotPlaces } from "@unitext/core/layout";
import { type Element, type Footnote, type Frame, plainText, type Slide, slotsOf, must } from "@unitext/core/model";
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

/**
 * Writes the shapes of a slide in reading order. Returns them with the tags of each by shape id, and the shapes of each
 * element.
 */
export function slideShapes(
  work: SlideWork,
  slide: Slide,
  number: number,
  kept: ShapeWork["sourceXml"],
): { shapes: string; facts: Record<number, object>; shapesOf: ShapesOf } {
  const { metadata, options } = work;
  const roles = new Map(slotsOf(slide.arrangement));
  const places = slotPlaces(slide.arrangement, metadata.page, slide.widths);
  const boxes = boxesOf(slide, { metadata, number, fonts: options.fonts });
  const taken = new Set<string>();
  const facts: Record<number, object> = {};
  const standing = new Map<string, number[]>();
  const notes: Footnote[] = [];
  let next = 2;
  const regionTexts = (slide.regions ?? []).map((box) => {
    const id = next++;
    return regionShape(box, { ...work, id, notes });
  });
  const written = slide.elements.map((element: Element) => {
    const id = next++;
    facts[id] = tagsOf(element);
    const own = [id];
    standing.set(element.id, own);
    const box = boxes.get(element.id);
    const frame = element.frame ??
      box ??
      places.get(element.slot ?? "")?.frame ?? { x: 72, y: 144, width: 400, height: 240 };
    const role = element.slot === null ? undefined : roles.get(element.slot);
    const placeholder = () => {
      if (element.slot === null || role === undefined || taken.has(element.slot)) return undefined;
      taken.add(element.slot);
      return placeholderXml(element.slot, role);
    };
    const line = (text: string, at: Frame) => {
      const line = next++;
      own.push(line);
      facts[line] = { footnotes: true };
      const size = sizeOf("caption", metadata.theme, metadata.page) * 0.8;
      return textBox(
        { id: line, name: `caption ${line}`, frame: at },
        paragraphsXml(plainText(text), textContext(work, size, false)),
        size,
      );
    };
    const shape: ShapeWork = {
      ...work,
      line,
      id,
      name: element.name ?? `${element.slot ?? element.kind} ${id}`,
      frame,
      box,
      role,
      placeholder,
      notes,
      sourceXml: kept,
    };
    const made = shapeXml(element, shape);
    const hash = shapeHashes(made).get(String(id));
    if (hash !== undefined) facts[id] = { ...facts[id], hash };
    return { element: element.id, groups: element.groups ?? [], frame, xml: made };
  });
  const groups: ShapeGroup[] = [];
  const tree = regionTexts.join("") + grouped(written, () => next++, groups);
  const below: string[] = [];
  if (notes.length) {
    const id = next++;
    facts[id] = { footnotes: true };
    const area = contentArea(metadata.page);
    const size = metadata.theme.scale.footer * 1.1;
    const height = notes.length * size * 1.5;
    below.push(
      textBox(
        {
          id,
          name: `footnotes ${id}`,
          frame: { x: area.x, y: area.y + area.height - height, width: area.width, height },
        },
        paragraphsXml(footnoteText(notes), textContext(work, size, false)),
        size,
      ),
    );
  }
  const shown =
    slide.arrangement !== "opening" && slide.arrangement !== "blank" && slide.master === undefined && !slide.regions;
  const regions = regionShapes(metadata, next, false, {
    footer: shown && metadata.regions.footer !== "",
    number: shown && metadata.regions.number,
  });
  return {
    shapes: tree + below.join("") + regions,
    facts,
    shapesOf: withGroups(slide, (element) => standing.get(element), groups),
  };
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
