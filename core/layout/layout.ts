import {
  counted,
  elementTexts,
  type Footnote,
  type Frame,
  isEmptyText,
  languageDirection,
  mapElementTexts,
  type PictureElement,
  readingOrder,
  revealsOf,
  type RichText,
  roleOf,
  type Slide,
  themeOf,
} from "@unitext/core/model";
import type { PositionedNodes, Scene, SceneBox, SceneNode } from "./scene";
import { contentArea, loosePlace, mirroredOnPage, pageScale, type SlotPlace, slotPlaces } from "./slots";
import { NOTE_MARK, type TextContext } from "./textstyle";
import { type Group, onSurface, withSlideTheme, type SlideContext } from "./context";
import { layGroup } from "./elements";
import { backgroundNodes, footnotes, plates, regions } from "./surroundings";

function groups(slide: Slide, context: SlideContext): Group[] {
  const { metadata } = context;
  const places = slotPlaces(slide.arrangement, metadata, slide.widths);
  const found = new Map<string, Group>();
  const side: PictureElement[] = [];
  // Where every element has a frame, later ones are drawn in front of earlier ones.
  const ordered = slide.elements.every(({ frame }) => frame) ? slide.elements : readingOrder(slide);
  for (const element of ordered) {
    if (element.kind === "text" && isEmptyText(element.text) && !element.fill && !element.stroke) continue;
    if (element.frame) {
      const role = (element.slot === null ? undefined : roleOf(slide, element)) ?? "body";
      found.set(`frame:${element.id}`, {
        place: { frame: element.frame, role, anchor: "top", align: "start" },
        slot: element.slot,
        elements: [element],
      });
      continue;
    }
    const own = element.slot === null ? undefined : places.get(element.slot);
    if (element.kind === "picture" && own?.role !== "picture") {
      side.push(element);
      continue;
    }
    const key = own ? `slot:${element.slot}` : element.slot === "title" ? "loose:title" : "loose:body";
    const group = found.get(key) ?? {
      place: own ?? loosePlace(element.slot, slide.arrangement, metadata),
      slot: own ? element.slot : null,
      elements: [],
    };
    group.elements.push(element);
    found.set(key, group);
  }
  const all = [...found.values()];
  return side.length ? besidePictures(all, side, slide, context) : all;
}

/** Puts pictures without a slot beside the end of the lines of text, which gives way; without text they take its place. */
function besidePictures(all: Group[], pictures: PictureElement[], slide: Slide, { metadata }: SlideContext): Group[] {
  const { page } = metadata;
  const direction = languageDirection(metadata.language);
  const { frame } =
    slotPlaces(slide.arrangement, metadata, slide.widths).get("body") ??
    loosePlace("body", slide.arrangement, metadata);
  const free = contentArea(metadata);
  const texts = all.filter(
    ({ place, elements }) =>
      place.role !== "title" && place.role !== "opening" && elements.every((element) => !element.frame),
  );
  const area = slide.elements.some((element) => element.slot === "title") ? frame : free;
  if (texts.length === 0)
    return [
      ...all,
      { place: { frame: area, role: "picture", anchor: "middle", align: "centre" }, slot: null, elements: pictures },
    ];
  // From right to left, the narrower places are computed on the mirrored page and mirrored back.
  const fromLeft = (given: Frame) => (direction === "rtl" ? mirroredOnPage(given, page) : given);
  const base = fromLeft(area);
  const narrow = (place: SlotPlace): SlotPlace => {
    const own = fromLeft(place.frame);
    return { ...place, frame: fromLeft({ ...own, x: base.x + (own.x - base.x) * 0.58, width: own.width * 0.56 }) };
  };
  const side = fromLeft({ x: base.x + base.width * 0.6, y: base.y, width: base.width * 0.4, height: base.height });
  return [
    ...all.map((group) => (texts.includes(group) ? { ...group, place: narrow(group.place) } : group)),
    { place: { frame: side, role: "picture", anchor: "middle", align: "centre" }, slot: null, elements: pictures },
  ];
}

/** Returns the slide with numbers in place of its footnotes, and the footnotes in order. */
function numbered(slide: Slide): { slide: Slide; notes: Footnote[] } {
  const notes: Footnote[] = [];
  if (
    !slide.elements.some((element) =>
      elementTexts(element).some((text) => text.some(({ runs }) => runs.some(({ footnote }) => footnote))),
    )
  )
    return { slide, notes };
  const change = (text: RichText): RichText =>
    text.map((paragraph) =>
      paragraph.runs.some(({ footnote }) => footnote)
        ? {
            ...paragraph,
            runs: paragraph.runs.map((run) =>
              run.footnote ? { text: String(notes.push(run.footnote)), marks: [NOTE_MARK as never] } : run,
            ),
          }
        : paragraph,
    );
  const order = new Map(readingOrder(slide).map((element) => [element.id, mapElementTexts(element, change)]));
  return { slide: { ...slide, elements: slide.elements.map((element) => order.get(element.id) ?? element) }, notes };
}

/** Returns a place without the height that the footnotes take at its foot. */
function above(place: SlotPlace, bottom: number): SlotPlace {
  const { frame } = place;
  if (place.role === "title" || frame.y + frame.height <= bottom) return place;
  const height = Math.max(1, bottom - Math.min(frame.y, bottom - 1));
  return {
    ...place,
    frame: frame.y < bottom - 24 ? { ...frame, height } : { ...frame, y: Math.max(0, bottom - frame.height) },
  };
}

/** Places the parts of a slide, with footnotes numbered and given their room at the foot. */
function placedParts(
  given: Slide,
  context: SlideContext,
  setting: TextContext,
): { slide: Slide; groups: Group[]; foot: ReturnType<typeof footnotes> } {
  const { slide, notes } = numbered(counted(given, context.number));
  const foot = footnotes(notes, context, setting);
  const area = contentArea(context.metadata);
  const bottom = area.y + area.height - foot.height;
  const all = groups(slide, context);
  return {
    slide,
    groups: foot.height ? all.map((group) => ({ ...group, place: above(group.place, bottom) })) : all,
    foot,
  };
}

/** Lays out a group in the colours of what it is on. */
function layOn(group: Group, slide: Slide, context: SlideContext, setting: TextContext): ReturnType<typeof layGroup> {
  const own = onSurface(group.place.surface, slide, context);
  return own === context
    ? layGroup(group, context, setting)
    : layGroup(group, own, { ...setting, theme: own.metadata.theme });
}

const isTitle = ({ place: { role } }: Group): boolean => role === "title" || role === "opening";

/** Returns by how many points a slide overflows and how full it is, as `layoutSlide` does, at a fraction of the work. */
export function measureSlide(given: Slide, plain: SlideContext): Pick<Scene, "overflow" | "fullness"> {
  const context = withSlideTheme(given, plain);
  const setting: TextContext = {
    fonts: context.fonts,
    theme: context.metadata.theme,
    language: context.metadata.language,
    assets: context.metadata.assets,
    measure: true,
  };
  const { groups: all, foot } = placedParts(given, context, setting);
  let [overflow, used, room] = [foot.overflow, 0, 0];
  for (const group of all) {
    const laid = layOn(group, given, context, setting);
    for (const box of laid.boxes) overflow = Math.max(overflow, box.overflow);
    if (isTitle(group)) continue;
    used += laid.used * group.place.frame.width;
    room += group.place.frame.height * group.place.frame.width;
  }
  return { overflow: Math.max(0, overflow), fullness: room ? used / room : 0 };
}

/** Returns by how many points a slide overflows. */
export const overflowOf = (slide: Slide, context: SlideContext): number => measureSlide(slide, context).overflow;

/** Returns the boxes of a slide's elements by id, as `layoutSlide` does, at a fraction of the work. */
export function boxesOf(given: Slide, plain: SlideContext): Map<string, SceneBox> {
  const context = withSlideTheme(given, plain);
  const setting: TextContext = {
    fonts: context.fonts,
    theme: context.metadata.theme,
    language: context.metadata.language,
    assets: context.metadata.assets,
    measure: true,
    places: true,
  };
  const boxes = new Map<string, SceneBox>();
  for (const group of placedParts(given, context, setting).groups)
    for (const box of layOn(group, given, context, setting).boxes)
      if (box.element !== null) boxes.set(box.element, box);
  return boxes;
}

/**
 * Lays out a slide. Pure: the same slide, metadata, number and fonts give the same scene. Text is fitted by the theme's
 * steps; what does not fit at the readable minimum is reported as `overflow`, in points.
 */
export function layoutSlide(given: Slide, plain: SlideContext): Scene {
  const context = withSlideTheme(given, plain);
  const { metadata, fonts } = context;
  const setting: TextContext = { fonts, theme: metadata.theme, language: metadata.language, assets: metadata.assets };
  const { slide, groups: all, foot } = placedParts(given, context, setting);
  const {
    colour,
    nodes: back,
    plates: plated,
  } = backgroundNodes(slide, context, themeOf(given, plain.metadata), setting);
  const nodes: SceneNode[] = [...back];
  const boxes: SceneBox[] = [];
  const positioned: Record<string, PositionedNodes> = {};
  let used = 0;
  let room = 0;
  for (const group of all) {
    const laid = layOn(group, slide, context, setting);
    const from = nodes.length;
    if (plated) nodes.push(...plates(laid.nodes, metadata.theme.colours.paper, pageScale(metadata.page)));
    nodes.push(...laid.nodes);
    boxes.push(...laid.boxes);
    for (const { id, frame, rotation = 0 } of group.elements)
      if (frame) positioned[id] = { frame, rotation, from, to: nodes.length };
    if (isTitle(group)) continue;
    used += laid.used * group.place.frame.width;
    room += group.place.frame.height * group.place.frame.width;
  }
  nodes.push(...foot.node, ...regions(slide, context, setting));
  const links = new Map(
    slide.elements.flatMap((element) =>
      "link" in element && element.link ? [[element.id, element.link] as const] : [],
    ),
  );
  for (const [at, box] of boxes.entries()) {
    const link = links.get(box.element ?? "");
    if (link !== undefined) boxes[at] = { ...box, link };
  }
  const reveals = revealsOf(slide);
  return {
    slide: slide.id,
    page: metadata.page,
    background: colour,
    ...(reveals.length ? { reveals } : {}),
    nodes,
    boxes,
    ...(Object.keys(positioned).length ? { positioned } : {}),
    overflow: Math.max(0, foot.overflow, ...boxes.map((box) => box.overflow)),
    fullness: room ? used / room : 0,
    language: metadata.language,
  };
}
