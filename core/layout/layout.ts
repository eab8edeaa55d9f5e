import { type DeckHead, type Element, type Frame, isEmptyText, type PictureElement, plainText, readingOrder, type Slide, type SlotRole, type TextElement } from "@unitext/core/model";
import { faceFor, familyNamed, type FontSet } from "./fonts";
import type { Scene, SceneBox, SceneNode } from "./scene";
import { contentArea, loosePlace, pageScale, sizeOf, type SlotPlace, slotPlaces } from "./slots";
import { type Setting, setText } from "./text";

/** What a slide's layout depends on beside the slide: the deck's head and the slide's number. */
export interface SlideContext {
  head: Pick<DeckHead, "page" | "theme" | "language" | "regions" | "assets">;
  number: number;
  fonts: FontSet;
}

/** Elements that share one place, which is divided among them from top to bottom. */
interface Group {
  place: SlotPlace;
  slot: string | null;
  elements: Element[];
}

function groups(slide: Slide, context: SlideContext): Group[] {
  const { page } = context.head;
  const places = slotPlaces(slide.arrangement, page);
  const found = new Map<string, Group>();
  const side: PictureElement[] = [];
  for (const element of readingOrder(slide)) {
    if (element.kind === "text" && isEmptyText(element.text)) continue;
    if (element.frame && element.slot === null) {
      found.set(`frame:${element.id}`, { place: { frame: element.frame, role: "body", anchor: "top", align: "start" }, slot: null, elements: [element] });
      continue;
    }
    const own = element.slot === null ? undefined : places.get(element.slot);
    if (element.kind === "picture" && own?.role !== "picture") {
      side.push(element);
      continue;
    }
    const key = own ? `slot:${element.slot}` : element.slot === "title" ? "loose:title" : "loose:body";
    const group = found.get(key) ?? { place: own ?? loosePlace(element.slot, page), slot: own ? element.slot : null, elements: [] };
    group.elements.push(element);
    found.set(key, group);
  }
  const all = [...found.values()];
  return side.length ? besidePictures(all, side, slide, context) : all;
}

/** Pictures without a slot stand to the right of the text, which gives way; without text they take its place. */
function besidePictures(all: Group[], pictures: PictureElement[], slide: Slide, { head }: SlideContext): Group[] {
  const { frame } = slotPlaces(slide.arrangement, head.page).get("body") ?? loosePlace("body", head.page);
  const free = contentArea(head.page);
  const texts = all.filter(({ place, elements }) => place.role !== "title" && place.role !== "opening" && elements.every((element) => !element.frame));
  const area = slide.elements.some((element) => element.slot === "title") ? frame : free;
  if (texts.length === 0) return [...all, { place: { frame: area, role: "picture", anchor: "middle", align: "centre" }, slot: null, elements: pictures }];
  const narrow = (place: SlotPlace): SlotPlace => ({ ...place, frame: { ...place.frame, x: area.x + (place.frame.x - area.x) * 0.58, width: place.frame.width * 0.56 } });
  const right: Frame = { x: area.x + area.width * 0.6, y: area.y, width: area.width * 0.4, height: area.height };
  return [...all.map((group) => (texts.includes(group) ? { ...group, place: narrow(group.place) } : group)), { place: { frame: right, role: "picture", anchor: "middle", align: "centre" }, slot: null, elements: pictures }];
}

/** The sizes that may be tried for a role: the theme's steps, none below the readable minimum. */
function sizesFor(role: SlotRole, { head }: SlideContext): number[] {
  const full = sizeOf(role, head.theme, head.page);
  const least = Math.min(full, head.theme.minimum * pageScale(head.page));
  const sizes = head.theme.steps.map((step) => full * step).filter((size) => size >= least);
  return sizes.length ? sizes : [least];
}

function layText(element: TextElement, place: SlotPlace, sizes: readonly number[], slot: string | null, setting: Setting): { node: SceneNode; box: SceneBox; used: number } {
  const { lines, size, used, overflow } = setText(element.text, place, sizes, setting);
  return { node: { kind: "text", element: element.id, role: place.role, lines }, box: { ...place.frame, element: element.id, slot, size, overflow }, used };
}

function layPicture(element: PictureElement, place: SlotPlace, slot: string | null, { head }: SlideContext): { node: SceneNode; box: SceneBox } {
  const { frame } = place;
  const asset = head.assets[element.source];
  const scale = asset ? Math.min(frame.width / asset.width, frame.height / asset.height) : 1;
  const width = asset ? asset.width * scale : frame.width;
  const height = asset ? asset.height * scale : frame.height;
  const fitted = { x: frame.x + (frame.width - width) / 2, y: frame.y + (frame.height - height) / 2, width, height };
  return {
    node: { kind: "picture", element: element.id, source: element.source, alt: element.alt, missing: !asset, ...fitted, ...(asset ? { sha256: asset.sha256 } : {}) },
    box: { ...fitted, element: element.id, slot, size: 0, overflow: 0 },
  };
}

function layGroup(group: Group, context: SlideContext, setting: Setting): { nodes: SceneNode[]; boxes: SceneBox[]; used: number } {
  const { place, slot, elements } = group;
  const share = elements.length;
  const nodes: SceneNode[] = [];
  const boxes: SceneBox[] = [];
  let used = 0;
  elements.forEach((element, index) => {
    const height = place.frame.height / share;
    const part = share === 1 ? place : { ...place, anchor: "top" as const, frame: { ...place.frame, y: place.frame.y + index * height, height: height * 0.97 } };
    if (element.kind === "picture") {
      const { node, box } = layPicture(element, part, slot, context);
      nodes.push(node);
      boxes.push(box);
      used += part.frame.height;
    } else {
      const laid = layText(element, part, sizesFor(place.role, context), slot, setting);
      nodes.push(laid.node);
      boxes.push(laid.box);
      used += laid.used;
    }
  });
  return { nodes, boxes, used };
}

/** What the theme draws behind the text. */
function ornaments(slide: Slide, { head }: SlideContext): SceneNode[] {
  const { page, theme } = head;
  const scale = pageScale(page);
  const area = contentArea(page);
  const opens = slide.arrangement === "opening" || slide.arrangement === "section";
  const rect = (x: number, y: number, width: number, height: number, fill: string): SceneNode => ({ kind: "rect", x, y, width, height, fill });
  if (theme.ornament === "none" || slide.arrangement === "blank") return [];
  if (opens) {
    const place = slotPlaces(slide.arrangement, page).get("subtitle")?.frame.y ?? area.y;
    const rule = rect(area.x, place - 12 * scale, 72 * scale, 4 * scale, theme.colours.accent);
    return theme.ornament === "band" ? [rect(0, 0, 18 * scale, page.height, theme.colours.accent), rule] : [rule];
  }
  if (theme.ornament === "band") return [rect(0, 0, 6 * scale, page.height, theme.colours.accent)];
  const title = slotPlaces(slide.arrangement, page).get("title");
  return title ? [rect(area.x, title.frame.y + title.frame.height + 6 * scale, area.width, 1 * scale, theme.colours.accent)] : [];
}

/** Footer and number, the same on every slide but the opening one. */
function regions(slide: Slide, { head, number }: SlideContext, setting: Setting): SceneNode[] {
  const { page, theme } = head;
  if (slide.arrangement === "opening" || slide.arrangement === "blank") return [];
  const scale = pageScale(page);
  const area = contentArea(page);
  const size = theme.scale.footer * scale;
  const line = (text: string, align: "start" | "end"): SceneNode => {
    const paragraphs = plainText(text).map((paragraph) => ({ ...paragraph, align }));
    const frame = { x: area.x, y: page.height - 34 * scale, width: align === "start" ? area.width * 0.85 : area.width, height: size * 1.4 };
    const { lines } = setText(paragraphs.slice(0, 1), { frame, role: "caption", anchor: "top", align: "start" }, [size], setting);
    return { kind: "text", element: null, role: align === "start" ? "footer" : "number", lines: lines.slice(0, 1) };
  };
  return [...(head.regions.footer ? [line(head.regions.footer, "start")] : []), ...(head.regions.number ? [line(String(number), "end")] : [])];
}

/**
 * Lays a slide out. Pure: the same slide, head, number and fonts give the same scene. Text is fitted by the theme's
 * steps; what does not fit at the readable minimum is reported in `overflow`, in points.
 */
export function layoutSlide(slide: Slide, context: SlideContext): Scene {
  const { head, fonts } = context;
  const setting: Setting = { fonts, theme: head.theme, language: head.language };
  const nodes: SceneNode[] = ornaments(slide, context);
  const boxes: SceneBox[] = [];
  let used = 0;
  let room = 0;
  for (const group of groups(slide, context)) {
    const laid = layGroup(group, context, setting);
    nodes.push(...laid.nodes);
    boxes.push(...laid.boxes);
    if (group.place.role !== "title" && group.place.role !== "opening") {
      used += laid.used * group.place.frame.width;
      room += group.place.frame.height * group.place.frame.width;
    }
  }
  nodes.push(...regions(slide, context, setting));
  return {
    slide: slide.id,
    page: head.page,
    background: head.theme.colours.paper,
    nodes,
    boxes,
    overflow: Math.max(0, ...boxes.map((box) => box.overflow)),
    fullness: room ? used / room : 0,
    language: head.language,
  };
}

/** The faces that laying out these slides needs, so that they can be loaded first. */
export function facesNeeded(slides: readonly Slide[], head: SlideContext["head"]): string[] {
  const { heading, body, code } = head.theme.fonts;
  const families = [heading, body, code].map(familyNamed);
  const styles = new Map<string, Set<number>>();
  const note = (text: string, bold: boolean, italic: boolean) => {
    const key = `${bold ? 1 : 0}${italic ? 1 : 0}`;
    const points = styles.get(key) ?? styles.set(key, new Set()).get(key);
    for (const character of text) points?.add(character.codePointAt(0) as number);
  };
  note("0123456789.•–abc ", false, false);
  note(head.regions.footer, false, false);
  for (const slide of slides) {
    for (const element of slide.elements) {
      if (element.kind !== "text") continue;
      const number = element.slot === "number";
      for (const paragraph of element.text) for (const item of paragraph.runs) note(item.text, number || (item.marks?.includes("strong") ?? false), item.marks?.includes("emphasis") ?? false);
    }
  }
  const faces = new Set<string>(families.flatMap(({ faces: [first] }) => (first ? [first.id] : [])));
  for (const [key, points] of styles) {
    for (const family of families) for (const point of points) faces.add(faceFor(family, Math.max(point, 0x20), key[0] === "1", key[1] === "1").id);
  }
  return [...faces];
}

