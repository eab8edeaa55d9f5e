import { type DeckHead, type Element, elementTexts, type Footnote, type Frame, isEmptyText, mapElementTexts, type PictureElement, plainText, readingOrder, type RichText, type Slide, type SlotRole, type TextElement } from "@unitext/core/model";
import { type Laid, layFigure } from "./figures";
import { faceFor, familyNamed, type FontSet } from "./fonts";
import type { Scene, SceneBox, SceneNode } from "./scene";
import { contentArea, loosePlace, pageScale, sizeOf, type SlotPlace, slotPlaces } from "./slots";
import { NOTE_MARK, type Setting, setText } from "./text";

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
  const places = slotPlaces(slide.arrangement, page, slide.widths);
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
  const { frame } = slotPlaces(slide.arrangement, head.page, slide.widths).get("body") ?? loosePlace("body", head.page);
  const free = contentArea(head.page);
  const texts = all.filter(({ place, elements }) => place.role !== "title" && place.role !== "opening" && elements.every((element) => !element.frame));
  const area = slide.elements.some((element) => element.slot === "title") ? frame : free;
  if (texts.length === 0) return [...all, { place: { frame: area, role: "picture", anchor: "middle", align: "centre" }, slot: null, elements: pictures }];
  const narrow = (place: SlotPlace): SlotPlace => ({ ...place, frame: { ...place.frame, x: area.x + (place.frame.x - area.x) * 0.58, width: place.frame.width * 0.56 } });
  const right: Frame = { x: area.x + area.width * 0.6, y: area.y, width: area.width * 0.4, height: area.height };
  return [...all.map((group) => (texts.includes(group) ? { ...group, place: narrow(group.place) } : group)), { place: { frame: right, role: "picture", anchor: "middle", align: "centre" }, slot: null, elements: pictures }];
}

/** What may stand smaller than running text, as a share of the readable minimum: cells, code and labels are read one at a time. */
const FIGURE_MINIMUM = 0.75;

/** The sizes that may be tried for a role: the theme's steps, none below the readable minimum. */
function sizesFor(role: SlotRole, { head }: SlideContext): number[] {
  const full = sizeOf(role, head.theme, head.page);
  const least = Math.min(full, head.theme.minimum * pageScale(head.page) * (role === "figure" ? FIGURE_MINIMUM : 1));
  const sizes = head.theme.steps.map((step) => full * step).filter((size) => size >= least);
  const last = sizes.at(-1);
  if (role === "figure" && (last === undefined || last > least * 1.04)) sizes.push(least);
  return sizes.length ? sizes : [least];
}

function layText(element: TextElement, place: SlotPlace, sizes: readonly number[], slot: string | null, setting: Setting): Laid {
  const { lines, size, used, overflow } = setText(element.text, place, sizes, setting);
  return { nodes: [{ kind: "text", element: element.id, role: place.role, lines }], box: { ...place.frame, element: element.id, slot, size, overflow }, used };
}

function layPicture(element: PictureElement, place: SlotPlace, slot: string | null, { head }: SlideContext, setting: Setting): Laid {
  const { caption } = element;
  const nodes: SceneNode[] = [];
  let { frame } = place;
  let overflow = 0;
  if (caption) {
    const size = sizeOf("caption", head.theme, head.page) * 0.8;
    const trial = setText(plainText(caption), { frame: { ...frame, height: frame.height * 0.34 }, role: "caption", anchor: "top", align: "centre" }, [size, size * 0.9, Math.min(size * 0.9, head.theme.minimum * FIGURE_MINIMUM * pageScale(head.page))], setting);
    const height = Math.min(frame.height * 0.34, trial.used) + size * 0.4;
    frame = { ...frame, height: frame.height - height };
    overflow = trial.overflow;
    const drop = frame.height + size * 0.4;
    nodes.push({ kind: "text", element: null, role: "caption", lines: trial.lines.map((line) => ({ ...line, y: line.y + drop })) });
  }
  const asset = head.assets[element.source];
  const share = (element.width ?? 100) / 100;
  const room = { width: frame.width * share, height: share < 1 ? frame.height : frame.height };
  const scale = asset ? Math.min(room.width / asset.width, room.height / asset.height) : 1;
  const width = asset ? asset.width * scale : room.width;
  const height = asset ? asset.height * scale : room.height;
  const fitted = { x: frame.x + (frame.width - width) / 2, y: frame.y + (frame.height - height) / 2, width, height };
  return {
    nodes: [{ kind: "picture", element: element.id, source: element.source, alt: element.alt, missing: !asset, ...fitted, ...(asset ? { sha256: asset.sha256 } : {}) }, ...nodes],
    box: { ...fitted, element: element.id, slot, size: 0, overflow },
    used: place.frame.height,
  };
}

/** The parts of a place that its elements get: from top to bottom, pictures of a set side by side. */
function shares({ place, elements }: Group): SlotPlace[] {
  const count = elements.length;
  if (count === 1) return [place];
  const { frame } = place;
  if (place.role === "picture" && frame.width > frame.height) {
    const columns = count <= 3 ? count : Math.ceil(count / 2);
    const rows = Math.ceil(count / columns);
    const gap = frame.width * 0.02;
    const width = (frame.width - gap * (columns - 1)) / columns;
    const height = (frame.height - gap * (rows - 1)) / rows;
    return elements.map((_, at) => ({ ...place, frame: { x: frame.x + (at % columns) * (width + gap), y: frame.y + Math.floor(at / columns) * (height + gap), width, height } }));
  }
  const height = frame.height / count;
  return elements.map((_, at) => ({ ...place, anchor: "top", frame: { ...frame, y: frame.y + at * height, height: height * 0.97 } }));
}

function layElement(element: Element, place: SlotPlace, slot: string | null, context: SlideContext, setting: Setting): Laid {
  if (element.kind === "text") return layText(element, place, sizesFor(place.role, context), slot, setting);
  if (element.kind === "picture") return layPicture(element, place, slot, context, setting);
  return layFigure(element, place, slot, sizesFor("figure", context), context.head.theme, setting);
}

function layGroup(group: Group, context: SlideContext, setting: Setting): { nodes: SceneNode[]; boxes: SceneBox[]; used: number } {
  const laid = stacked(group, context, setting) ?? shares(group).map((place, at) => layElement(group.elements[at] as Element, place, group.slot, context, setting));
  return { nodes: laid.flatMap(({ nodes }) => nodes), boxes: laid.map(({ box }) => box), used: laid.reduce((sum, { used }) => sum + used, 0) };
}

/** Elements one under the other, each as high as it is, at the first size at which all fit: text above its table, code under its text. Undefined where they have to share evenly. */
function stacked({ place, slot, elements }: Group, context: SlideContext, setting: Setting): Laid[] | undefined {
  if (elements.length < 2 || place.role === "picture" || elements.some(({ kind }) => kind === "picture" || kind === "chart" || kind === "diagram")) return undefined;
  const gap = sizeOf("body", context.head.theme, context.head.page) * 0.5;
  const texts = sizesFor(place.role, context);
  const figures = sizesFor("figure", context);
  const steps = Math.max(texts.length, figures.length);
  let laid: Laid[] = [];
  for (let step = 0; step < steps; step++) {
    let y = place.frame.y;
    laid = elements.map((element) => {
      const own: SlotPlace = { ...place, anchor: "top", frame: { ...place.frame, y, height: Math.max(1, place.frame.y + place.frame.height - y) } };
      const at = (sizes: readonly number[]) => [sizes[Math.min(step, sizes.length - 1)] as number];
      const made = element.kind === "text" ? layText(element, own, at(texts), slot, setting) : layFigure(element as Exclude<Element, TextElement | PictureElement>, own, slot, at(figures), context.head.theme, setting);
      y += made.used + gap;
      return made;
    });
    if (laid.every(({ box }) => box.overflow === 0)) return laid;
  }
  return laid;
}

/** What the theme draws behind the text. */
function ornaments(slide: Slide, { head }: SlideContext): SceneNode[] {
  const { page, theme } = head;
  const scale = pageScale(page);
  const area = contentArea(page);
  const opens = slide.arrangement === "opening" || slide.arrangement === "section";
  const rect = (x: number, y: number, width: number, height: number, fill: string): SceneNode => ({ kind: "rect", x, y, width, height, fill });
  if (theme.ornament === "none" || slide.arrangement === "blank" || slide.background) return [];
  if (opens) {
    const place = slotPlaces(slide.arrangement, page).get("subtitle")?.frame.y ?? area.y;
    const rule = rect(area.x, place - 12 * scale, 72 * scale, 4 * scale, theme.colours.accent);
    return theme.ornament === "band" ? [rect(0, 0, 18 * scale, page.height, theme.colours.accent), rule] : [rule];
  }
  if (theme.ornament === "band") return [rect(0, 0, 6 * scale, page.height, theme.colours.accent)];
  const title = slotPlaces(slide.arrangement, page).get("title");
  return title ? [rect(area.x, title.frame.y + title.frame.height + 6 * scale, area.width, 1 * scale, theme.colours.accent)] : [];
}

/** What stands behind all: the theme's paper, a colour, or a picture that fills the page with a plate of paper under the text. */
function behind(slide: Slide, { head }: SlideContext): { colour: string; nodes: SceneNode[] } {
  const { paper } = head.theme.colours;
  const { background } = slide;
  if (!background) return { colour: paper, nodes: [] };
  if ("colour" in background) return { colour: background.colour, nodes: [] };
  const asset = head.assets[background.picture];
  const { width, height } = head.page;
  const scale = asset ? Math.max(width / asset.width, height / asset.height) : 1;
  const size = asset ? { width: asset.width * scale, height: asset.height * scale } : { width, height };
  return { colour: paper, nodes: [{ kind: "picture", element: "", source: background.picture, alt: "", missing: !asset, x: (width - size.width) / 2, y: (height - size.height) / 2, ...size, ...(asset ? { sha256: asset.sha256 } : {}) }] };
}

/** Plates of paper under the lines of text that stand on a picture, so that they can be read. */
function plates(nodes: readonly SceneNode[], fill: string, scale: number): SceneNode[] {
  return nodes.flatMap((node): SceneNode[] => {
    if (node.kind !== "text" || !node.lines.length) return [];
    const left = Math.min(...node.lines.map(({ x }) => x)) - 26 * scale;
    const right = Math.max(...node.lines.map(({ x, width }) => x + width)) + 12 * scale;
    const top = Math.min(...node.lines.map(({ y, height }) => y - height * 0.8)) - 6 * scale;
    const bottom = Math.max(...node.lines.map(({ y, height }) => y + height * 0.3)) + 4 * scale;
    return [{ kind: "rect", x: left, y: top, width: right - left, height: bottom - top, fill }];
  });
}

/** The slide with a number in the place of each footnote, and the footnotes in the order of their numbers. */
function numbered(slide: Slide): { slide: Slide; notes: Footnote[] } {
  const notes: Footnote[] = [];
  if (!slide.elements.some((element) => elementTexts(element).some((text) => text.some(({ runs }) => runs.some(({ footnote }) => footnote))))) return { slide, notes };
  const change = (text: RichText): RichText => text.map((paragraph) => (paragraph.runs.some(({ footnote }) => footnote) ? { ...paragraph, runs: paragraph.runs.map((run) => (run.footnote ? { text: String(notes.push(run.footnote)), marks: [NOTE_MARK as never] } : run)) } : paragraph));
  const order = new Map(readingOrder(slide).map((element) => [element.id, mapElementTexts(element, change)]));
  return { slide: { ...slide, elements: slide.elements.map((element) => order.get(element.id) ?? element) }, notes };
}

/** The footnotes at the foot of the content area, and the height that they take from it. */
function footnotes(notes: readonly Footnote[], { head }: SlideContext, setting: Setting): { node: SceneNode[]; height: number; overflow: number } {
  if (!notes.length) return { node: [], height: 0, overflow: 0 };
  const { page, theme } = head;
  const area = contentArea(page);
  const scale = pageScale(page);
  const size = Math.max(theme.scale.footer, theme.minimum * FIGURE_MINIMUM) * scale;
  const text: RichText = notes.map((runs, at) => ({ kind: "plain", level: 0, runs: [{ text: `${at + 1}\u2002`, marks: ["strong"] }, ...runs] }));
  const room = { x: area.x, y: area.y, width: area.width, height: area.height * 0.4 };
  const { lines, used, overflow } = setText(text, { frame: room, role: "references", anchor: "bottom", align: "start" }, [size, size * 0.9], { ...setting, fill: theme.colours.muted });
  const drop = area.height - room.height;
  const rule: SceneNode = { kind: "rect", x: area.x, y: area.y + area.height - used - 5 * scale, width: 90 * scale, height: 0.75 * scale, fill: theme.colours.muted };
  return { node: [rule, { kind: "text", element: null, role: "footnotes", lines: lines.map((line) => ({ ...line, y: line.y + drop })) }], height: used + 12 * scale, overflow };
}

/** A place with what the footnotes take cut off its foot. */
function above(place: SlotPlace, bottom: number): SlotPlace {
  const { frame } = place;
  if (place.role === "title" || frame.y + frame.height <= bottom) return place;
  const height = Math.max(1, bottom - Math.min(frame.y, bottom - 1));
  return { ...place, frame: frame.y < bottom - 24 ? { ...frame, height } : { ...frame, y: Math.max(0, bottom - frame.height) } };
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
export function layoutSlide(given: Slide, context: SlideContext): Scene {
  const { head, fonts } = context;
  const setting: Setting = { fonts, theme: head.theme, language: head.language };
  const { slide, notes } = numbered(given);
  const { colour, nodes: back } = behind(slide, context);
  const nodes: SceneNode[] = [...back, ...ornaments(slide, context)];
  const boxes: SceneBox[] = [];
  const foot = footnotes(notes, context, setting);
  const area = contentArea(head.page);
  const bottom = area.y + area.height - foot.height;
  let used = 0;
  let room = 0;
  for (const whole of groups(slide, context)) {
    const group = foot.height ? { ...whole, place: above(whole.place, bottom) } : whole;
    const laid = layGroup(group, context, setting);
    if (back.length) nodes.push(...plates(laid.nodes, head.theme.colours.paper, pageScale(head.page)));
    nodes.push(...laid.nodes);
    boxes.push(...laid.boxes);
    if (group.place.role !== "title" && group.place.role !== "opening") {
      used += laid.used * group.place.frame.width;
      room += group.place.frame.height * group.place.frame.width;
    }
  }
  nodes.push(...foot.node, ...regions(slide, context, setting));
  const steps: NonNullable<Scene["steps"]> = [];
  let step = 1;
  for (const element of readingOrder(slide)) {
    if (element.kind !== "text" || !element.steps) continue;
    steps.push({ element: element.id, first: step, count: element.text.length });
    step += element.text.length;
  }
  return {
    slide: slide.id,
    page: head.page,
    background: colour,
    ...(steps.length ? { steps } : {}),
    nodes,
    boxes,
    overflow: Math.max(0, foot.overflow, ...boxes.map((box) => box.overflow)),
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
  note("0123456789.,•–abc %·−-", false, false);
  note(head.regions.footer, false, false);
  const look = (text: RichText, strong: boolean): void => {
    for (const { runs } of text) {
      for (const item of runs) {
        const bold = strong || (item.marks?.includes("strong") ?? false);
        note(item.text, bold, item.marks?.includes("emphasis") ?? false);
        if (item.footnote) look([{ kind: "plain", level: 0, runs: item.footnote }], false);
      }
    }
  };
  for (const slide of slides) {
    for (const element of slide.elements) {
      const bold = element.slot === "number" || element.kind === "diagram";
      for (const text of elementTexts(element)) look(text, bold);
      if (element.kind === "table") for (const row of element.rows.slice(0, element.header)) for (const cell of row) if (cell) look(cell.text, true);
      if (bold && element.kind === "diagram") look(element.text, false);
      if (element.kind === "code") note(element.text, false, false);
      if (element.kind === "formula") note(element.tex, false, false);
    }
    if (slide.elements.some((element) => elementTexts(element).some((text) => text.some(({ runs }) => runs.some(({ footnote }) => footnote))))) note("0123456789\u2002", true, false);
  }
  const faces = new Set<string>(families.flatMap(({ faces: [first] }) => (first ? [first.id] : [])));
  for (const [key, points] of styles) {
    for (const family of families) for (const point of points) faces.add(faceFor(family, Math.max(point, 0x20), key[0] === "1", key[1] === "1").id);
  }
  return [...faces];
}

