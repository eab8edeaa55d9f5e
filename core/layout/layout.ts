import { type DeckHead, type Element, elementTexts, type Footnote, type ForeignElement, type Frame, type Geometry, isEmptyText, mapElementTexts, type Master, type MediaElement, type PictureElement, plainText, readingOrder, type RegionBox, revealsOf, type RichText, roleOf, type ShapeElement, type Slide, type SlotRole, type TextBox, type TextElement, type TextStyle, themeOf } from "@unitext/core/model";
import { type FigureElement, type Laid, layFigure } from "./figures";
import { faceFor, familyNamed, type FontSet } from "./fonts";
import type { Scene, SceneBox, SceneNode } from "./scene";
import { drawFill, drawForm, turning } from "./shapes";
import { contentArea, loosePlace, pageScale, sizeOf, type SlotPlace, slotPlaces } from "./slots";
import { NOTE_MARK, type Setting, setText } from "./text";

/** What a slide's layout depends on beside the slide: the deck's head and the slide's number. */
export interface SlideContext {
  head: Pick<DeckHead, "page" | "theme" | "themes" | "language" | "regions" | "assets" | "masters" | "styles">;
  number: number;
  fonts: FontSet;
}

const lookedOnce = new WeakMap<object, Map<string, SlideContext["head"]>>();

/** The context of a slide that brought a look of its own along: the head with that theme, the same object each time. */
function inItsLook(slide: Slide, context: SlideContext): SlideContext {
  const theme = themeOf(slide, context.head);
  if (theme === context.head.theme || slide.theme === undefined) return context;
  const held = lookedOnce.get(context.head) ?? new Map<string, SlideContext["head"]>();
  lookedOnce.set(context.head, held);
  const head = held.get(slide.theme) ?? { ...context.head, theme };
  held.set(slide.theme, head);
  return { ...context, head };
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
  // Where everything has a place of its own, what comes later stands before what comes first.
  const ordered = slide.elements.every(({ frame }) => frame) ? slide.elements : readingOrder(slide);
  for (const element of ordered) {
    if (element.kind === "text" && isEmptyText(element.text) && !element.fill && !element.stroke) continue;
    if (element.frame) {
      const role = (element.slot === null ? undefined : roleOf(slide, element)) ?? "body";
      found.set(`frame:${element.id}`, { place: { frame: element.frame, role, anchor: "top", align: "start" }, slot: element.slot, elements: [element] });
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

/** The insets of a text box where a file does not say them (ECMA-376-1, 21.1.2.1.1: 0.1 inch at the sides, 0.05 above and below). */
const INSETS: [number, number, number, number] = [7.2, 3.6, 7.2, 3.6];

/** A text in a box of its own: the style that its file gives it, its insets, columns and turned lines. */
function layBoxed(text: RichText, id: string, frame: Frame, place: SlotPlace, style: TextStyle | undefined, box: TextBox | undefined, sizes: readonly number[], setting: Setting): { nodes: SceneNode[]; size: number; used: number; overflow: number } {
  const base = style?.[0]?.run?.size ?? (style ? 18 : (sizes[0] as number));
  const own: Setting = style ? { ...setting, style: { levels: style, size: base } } : setting;
  const [left, top, right, bottom] = box?.insets ?? (box || style ? INSETS : [0, 0, 0, 0]);
  const turned = box?.turn;
  const room = turned ? { ...frame, x: frame.x + (frame.width - frame.height) / 2, y: frame.y + (frame.height - frame.width) / 2, width: frame.height, height: frame.width } : frame;
  const inner = { x: room.x + left, y: room.y + top, width: Math.max(1, room.width - left - right), height: Math.max(1, room.height - top - bottom) };
  const tried = !style ? sizes : box?.fit === "shrink" ? [1, 0.94, 0.88, 0.82, 0.76, 0.7, 0.64, 0.58, 0.52, 0.46, 0.4, 0.34, 0.28].map((step) => base * step) : [base];
  const set = setText(text, { frame: inner, role: place.role, anchor: box?.anchor ?? place.anchor, align: place.align }, tried, own, { columns: box?.columns ?? 1, gap: box?.gap ?? 0, wrap: box?.wrap !== false });
  const node: SceneNode = { kind: "text", element: id, role: place.role, lines: set.lines };
  const matrix = turned && turning(room, turned);
  return { nodes: [matrix ? { kind: "group", element: id, matrix, nodes: [node] } : node], size: set.size, used: set.used + top + bottom, overflow: box?.fit === "grow" ? 0 : Math.max(0, set.overflow - 1.5) };
}

function layTextBox(element: TextElement, place: SlotPlace, slot: string | null, context: SlideContext, setting: Setting): Laid {
  const { frame } = place;
  const style = element.style === undefined ? undefined : context.head.styles?.[element.style];
  const { nodes, size, used, overflow } = layBoxed(element.text, element.id, frame, place, style, element.box, sizesFor(place.role, context), setting);
  const back = element.fill || element.stroke ? drawForm({ preset: "rect" }, frame, element, context.head.assets).nodes : [];
  return { nodes: [...back, ...nodes], box: { ...frame, element: element.id, slot, size, overflow }, used };
}

function layShape(element: ShapeElement, place: SlotPlace, slot: string | null, context: SlideContext, setting: Setting): Laid {
  const { frame } = place;
  const drawn = drawForm(element.geometry, frame, element, context.head.assets);
  const matrix = turning(frame, 0, element.flip);
  const outline: SceneNode[] = matrix ? [{ kind: "group", element: element.id, matrix, nodes: drawn.nodes }] : drawn.nodes;
  if (isEmptyText(element.text)) return { nodes: outline, box: { ...frame, element: element.id, slot, size: 0, overflow: 0 }, used: frame.height };
  const style = element.style === undefined ? undefined : context.head.styles?.[element.style];
  const sizes = [sizeOf("body", context.head.theme, context.head.page) * 0.7];
  const text = layBoxed(element.text, element.id, drawn.text, { ...place, anchor: "middle", align: style ? "start" : "centre" }, style, element.box ?? (style ? undefined : { insets: INSETS }), sizes, setting);
  return { nodes: [...outline, ...text.nodes], box: { ...frame, element: element.id, slot, size: text.size, overflow: text.overflow }, used: frame.height };
}

/** A thing that is not drawn from what it is: the picture that stands for it, or a frame with its name. */
function layStandIn(element: MediaElement | ForeignElement, place: SlotPlace, slot: string | null, { head }: SlideContext, setting: Setting): Laid {
  const { frame } = place;
  const source = element.kind === "media" ? element.poster : element.picture;
  const asset = source === undefined ? undefined : head.assets[source];
  const box = { ...frame, element: element.id, slot, size: 0, overflow: 0 };
  if (source !== undefined && asset) return { nodes: [{ kind: "picture", element: element.id, source, alt: element.alt, missing: false, sha256: asset.sha256, ...frame }], box, used: frame.height };
  const what = element.kind === "media" ? (element.form === "video" ? "▶ Film" : "▶ Sound") : element.what;
  const size = Math.min(14, Math.max(7, frame.height * 0.3));
  const words: RichText = [{ kind: "plain", level: 0, align: "centre", runs: [{ text: element.alt ? `${what}: ${element.alt}` : what }] }];
  const { lines } = setText(words, { frame, role: "caption", anchor: "middle", align: "centre" }, [size, size * 0.75, size * 0.5], { ...setting, fill: head.theme.colours.muted });
  const outline: SceneNode = { kind: "paths", element: element.id, paths: [{ d: `M${frame.x} ${frame.y}h${frame.width}v${frame.height}h${-frame.width}Z`, stroke: head.theme.colours.muted, width: 0.75, dash: [4, 3] }] };
  return { nodes: [outline, { kind: "text", element: element.id, role: "stand-in", lines }], box, used: frame.height };
}

/** A picture in a frame of its own, which it fills: cut to its crop and its form, with its outline. */
function layFramed(element: PictureElement, place: SlotPlace, slot: string | null, { head }: SlideContext): Laid {
  const { frame } = place;
  const asset = head.assets[element.source];
  const { left, top, right, bottom } = element.crop ?? { left: 0, top: 0, right: 0, bottom: 0 };
  const [shownX, shownY] = [Math.max(0.001, 1 - left - right), Math.max(0.001, 1 - top - bottom)];
  const whole = { width: frame.width / shownX, height: frame.height / shownY };
  const picture: SceneNode = { kind: "picture", element: element.id, source: element.source, alt: element.alt, missing: !asset, x: frame.x - left * whole.width, y: frame.y - top * whole.height, ...whole, ...(asset ? { sha256: asset.sha256 } : {}), ...(element.recolour ? { recolour: element.recolour } : {}) };
  const form: Geometry = element.shape ?? { preset: "rect" };
  const cut = element.crop || element.shape || element.opacity !== undefined;
  const under = element.fill || element.shadow ? drawForm(form, frame, { id: element.id, ...(element.fill ? { fill: element.fill } : {}), ...(element.shadow ? { shadow: element.shadow } : {}) }, head.assets).nodes : [];
  const over = element.stroke ? drawForm(form, frame, { id: element.id, stroke: element.stroke }, head.assets).nodes : [];
  const d = cut ? drawForm(form, frame, { id: element.id }, head.assets).form.outlines.filter(({ fill }) => fill).map((outline) => outline.d).join("") : "";
  const inside: SceneNode = cut
    ? { kind: "group", element: element.id, matrix: [1, 0, 0, 1, frame.x, frame.y], clip: d, ...(element.opacity === undefined ? {} : { opacity: element.opacity }), nodes: [{ ...picture, x: picture.x - frame.x, y: picture.y - frame.y }] }
    : picture;
  const matrix = turning(frame, 0, element.flip);
  const nodes = [...under, matrix ? ({ kind: "group", element: element.id, matrix, nodes: [inside] } satisfies SceneNode) : inside, ...over];
  return { nodes, box: { ...frame, element: element.id, slot, size: 0, overflow: 0 }, used: frame.height };
}

function layPicture(element: PictureElement, place: SlotPlace, slot: string | null, context: SlideContext, setting: Setting): Laid {
  const { head } = context;
  const { caption } = element;
  if (element.frame && !caption && element.width === undefined) return layFramed(element, place, slot, context);
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

function layUpright(element: Element, place: SlotPlace, slot: string | null, context: SlideContext, setting: Setting): Laid {
  if (element.kind === "text") return element.style !== undefined || element.box || element.fill || element.stroke ? layTextBox(element, place, slot, context, setting) : layText(element, place, sizesFor(place.role, context), slot, setting);
  if (element.kind === "picture") return layPicture(element, place, slot, context, setting);
  if (element.kind === "shape") return layShape(element, place, slot, context, setting);
  if (element.kind === "media" || element.kind === "foreign") return layStandIn(element, place, slot, context, setting);
  const style = element.style === undefined ? undefined : context.head.styles?.[element.style];
  const size = style?.[0]?.run?.size ?? 18;
  return style ? layFigure(element, place, slot, [size], context.head.theme, { ...setting, style: { levels: style, size } }, context.head.assets) : layFigure(element, place, slot, sizesFor("figure", context), context.head.theme, setting, context.head.assets);
}

function layElement(element: Element, place: SlotPlace, slot: string | null, context: SlideContext, setting: Setting): Laid {
  const laid = layUpright(element, place, slot, context, setting);
  const { rotation } = element;
  const matrix = rotation ? turning(place.frame, rotation) : undefined;
  return matrix ? { ...laid, nodes: [{ kind: "group", element: element.id, matrix, nodes: laid.nodes }], box: { ...laid.box, rotation: rotation as number } } : laid;
}

function layGroup(group: Group, context: SlideContext, setting: Setting): { nodes: SceneNode[]; boxes: SceneBox[]; used: number } {
  const laid = stacked(group, context, setting) ?? shares(group).map((place, at) => layElement(group.elements[at] as Element, place, group.slot, context, setting));
  return { nodes: laid.flatMap(({ nodes }) => nodes), boxes: laid.map(({ box }) => box), used: laid.reduce((sum, { used }) => sum + used, 0) };
}

/** Elements one under the other, each as high as it is, at the first size at which all fit: text above its table, code under its text. Undefined where they have to share evenly. */
function stacked({ place, slot, elements }: Group, context: SlideContext, setting: Setting): Laid[] | undefined {
  if (elements.length < 2 || place.role === "picture" || elements.some(({ kind }) => !["text", "table", "code", "formula"].includes(kind))) return undefined;
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
      const made = element.kind === "text" ? layText(element, own, at(texts), slot, setting) : layFigure(element as FigureElement, own, slot, at(figures), context.head.theme, setting, context.head.assets);
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
  if (theme.ornament === "none" || slide.arrangement === "blank" || slide.background || slide.master !== undefined) return [];
  if (opens) {
    const place = slotPlaces(slide.arrangement, page).get("subtitle")?.frame.y ?? area.y;
    const rule = rect(area.x, place - 12 * scale, 72 * scale, 4 * scale, theme.colours.accent);
    return theme.ornament === "band" ? [rect(0, 0, 18 * scale, page.height, theme.colours.accent), rule] : [rule];
  }
  if (theme.ornament === "band") return [rect(0, 0, 6 * scale, page.height, theme.colours.accent)];
  const title = slotPlaces(slide.arrangement, page).get("title");
  return title ? [rect(area.x, title.frame.y + title.frame.height + 6 * scale, area.width, 1 * scale, theme.colours.accent)] : [];
}

/** What a file draws behind its slides, laid out once. */
const drawnMasters = new WeakMap<Master, { head: SlideContext["head"]; nodes: SceneNode[] }>();

/** What stands behind all: the theme's paper, a colour, a fill, or a picture that fills the page with a plate of paper under the text; then what the file of the slide draws on all of its slides. */
function behind(slide: Slide, context: SlideContext, setting: Setting): { colour: string; nodes: SceneNode[]; plates: boolean } {
  const { head } = context;
  const { paper } = head.theme.colours;
  const master = slide.master === undefined ? undefined : head.masters?.[slide.master];
  const background = slide.background ?? master?.background;
  const known = master && drawnMasters.get(master);
  const shared = known?.head === head ? known.nodes : master ? master.elements.flatMap((element) => (element.frame ? layElement(element, { frame: element.frame, role: "body", anchor: "top", align: "start" }, null, context, setting).nodes : [])) : [];
  if (master && known?.head !== head) drawnMasters.set(master, { head, nodes: shared });
  if (!background) return { colour: paper, nodes: shared, plates: false };
  if ("colour" in background) return { colour: background.colour, nodes: shared, plates: false };
  const page = { x: 0, y: 0, ...head.page };
  if ("fill" in background) return { colour: paper, nodes: [...drawFill(background.fill, page, "", head.assets), ...shared], plates: false };
  const asset = head.assets[background.picture];
  const { width, height } = head.page;
  const scale = asset ? Math.max(width / asset.width, height / asset.height) : 1;
  const size = asset ? { width: asset.width * scale, height: asset.height * scale } : { width, height };
  return { colour: paper, nodes: [{ kind: "picture", element: "", source: background.picture, alt: "", missing: !asset, x: (width - size.width) / 2, y: (height - size.height) / 2, ...size, ...(asset ? { sha256: asset.sha256 } : {}) }, ...shared], plates: !master };
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

/** A footer, number or date where the slide's file puts it. */
function ownRegion({ region, text, frame, style, box }: RegionBox, { head, number }: SlideContext, setting: Setting): SceneNode[] {
  const levels = style === undefined ? undefined : head.styles?.[style];
  const words = region === "number" ? plainText(text.includes("‹#›") ? text.replace("‹#›", String(number)) : String(number)) : plainText(text);
  const role: SlotRole = "caption";
  return layBoxed(words, "", frame, { frame, role, anchor: "middle", align: "start" }, levels, box, [head.theme.scale.footer * pageScale(head.page)], setting).nodes.map((node) => (node.kind === "text" ? { ...node, element: null, role: region } : node));
}

/** Footer and number, the same on every slide but the opening one. */
function regions(slide: Slide, { head, number }: SlideContext, setting: Setting): SceneNode[] {
  const { page, theme } = head;
  if (slide.regions || slide.master !== undefined) return (slide.regions ?? []).flatMap((region) => ownRegion(region, { head, number, fonts: setting.fonts }, setting));
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

/** The parts of a slide in their places, footnotes numbered and given their room at the foot. */
function placedParts(given: Slide, context: SlideContext, setting: Setting): { slide: Slide; groups: Group[]; foot: ReturnType<typeof footnotes> } {
  const { slide, notes } = numbered(given);
  const foot = footnotes(notes, context, setting);
  const area = contentArea(context.head.page);
  const bottom = area.y + area.height - foot.height;
  const all = groups(slide, context);
  return { slide, groups: foot.height ? all.map((group) => ({ ...group, place: above(group.place, bottom) })) : all, foot };
}

/** How much stands out on a slide, in points: what `layoutSlide` says of it, at a part of the work. */
export function overflowOf(given: Slide, plain: SlideContext): number {
  const context = inItsLook(given, plain);
  const setting: Setting = { fonts: context.fonts, theme: context.head.theme, language: context.head.language, measure: true };
  const { groups: all, foot } = placedParts(given, context, setting);
  return Math.max(0, foot.overflow, ...all.flatMap((group) => layGroup(group, context, setting).boxes.map((box) => box.overflow)));
}

/** Where the elements of a slide stand, and at which size, by their ids: the boxes that `layoutSlide` gives, at a part of the work. */
export function boxesOf(given: Slide, plain: SlideContext): Map<string, SceneBox> {
  const context = inItsLook(given, plain);
  const setting: Setting = { fonts: context.fonts, theme: context.head.theme, language: context.head.language, measure: true, places: true };
  return new Map(placedParts(given, context, setting).groups.flatMap((group) => layGroup(group, context, setting).boxes.flatMap((box) => (box.element === null ? [] : [[box.element, box] as const]))));
}

/**
 * Lays a slide out. Pure: the same slide, head, number and fonts give the same scene. Text is fitted by the theme's
 * steps; what does not fit at the readable minimum is reported in `overflow`, in points.
 */
export function layoutSlide(given: Slide, plain: SlideContext): Scene {
  const context = inItsLook(given, plain);
  const { head, fonts } = context;
  const setting: Setting = { fonts, theme: head.theme, language: head.language };
  const { slide, groups: all, foot } = placedParts(given, context, setting);
  const { colour, nodes: back, plates: plated } = behind(slide, context, setting);
  const nodes: SceneNode[] = [...back, ...ornaments(slide, context)];
  const boxes: SceneBox[] = [];
  let used = 0;
  let room = 0;
  for (const group of all) {
    const laid = layGroup(group, context, setting);
    if (plated) nodes.push(...plates(laid.nodes, head.theme.colours.paper, pageScale(head.page)));
    nodes.push(...laid.nodes);
    boxes.push(...laid.boxes);
    if (group.place.role !== "title" && group.place.role !== "opening") {
      used += laid.used * group.place.frame.width;
      room += group.place.frame.height * group.place.frame.width;
    }
  }
  nodes.push(...foot.node, ...regions(slide, context, setting));
  const links = new Map(slide.elements.flatMap((element) => ("link" in element && element.link ? [[element.id, element.link] as const] : [])));
  for (const [at, box] of boxes.entries()) {
    const link = links.get(box.element ?? "");
    if (link !== undefined) boxes[at] = { ...box, link };
  }
  const reveals = revealsOf(slide);
  return {
    slide: slide.id,
    page: head.page,
    background: colour,
    ...(reveals.length ? { reveals } : {}),
    nodes,
    boxes,
    overflow: Math.max(0, foot.overflow, ...boxes.map((box) => box.overflow)),
    fullness: room ? used / room : 0,
    language: head.language,
  };
}

/** The faces that laying out these slides needs, so that they can be loaded first. */
export function facesNeeded(slides: readonly Slide[], head: SlideContext["head"]): string[] {
  const brought = [...new Set(slides.flatMap(({ theme }) => (theme !== undefined && head.themes?.[theme] ? [theme] : [])))];
  if (brought.length) {
    const own = (name: string | undefined) => slides.filter(({ theme }) => (theme !== undefined && head.themes?.[theme] ? theme : undefined) === name).map(({ theme: _, ...slide }) => slide);
    return [...new Set([undefined, ...brought].flatMap((name) => facesNeeded(own(name), { ...head, theme: themeOf(name === undefined ? {} : { theme: name }, head) })))];
  }
  const { heading, body, code } = head.theme.fonts;
  const families = new Set([heading, body, code].map(familyNamed));
  const seenStyles = new Set<TextStyle>();
  const styled = (style: TextStyle) => {
    if (seenStyles.has(style)) return;
    seenStyles.add(style);
    for (const { run: own, paragraph, emphasis } of style) {
      if (own?.font) families.add(familyNamed(own.font));
      if (paragraph?.bullet?.sign) note(paragraph.bullet.sign, false, false);
      if (emphasis) note("0123456789abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ", false, true);
      if (own?.caps) note("ABCDEFGHIJKLMNOPQRSTUVWXYZ", false, false);
    }
  };
  const styles = new Map<string, Set<number>>();
  const note = (text: string, bold: boolean, italic: boolean) => {
    const key = `${bold ? 1 : 0}${italic ? 1 : 0}`;
    const points = styles.get(key) ?? styles.set(key, new Set()).get(key);
    for (const character of text) points?.add(character.codePointAt(0) as number);
  };
  note("0123456789.,•–abc %·−-", false, false);
  note(head.regions.footer, false, false);
  const look = (text: RichText, strong: boolean): void => {
    for (const { runs, look: own } of text) {
      if (own?.bullet?.sign) note(own.bullet.sign, false, false);
      for (const item of runs) {
        const bold = strong || (item.marks?.includes("strong") ?? false);
        if (item.look?.font) families.add(familyNamed(item.look.font));
        note(item.look?.caps ? item.text.toUpperCase() : item.text, bold, item.marks?.includes("emphasis") ?? false);
        if (item.footnote) look([{ kind: "plain", level: 0, runs: item.footnote }], false);
      }
    }
  };
  for (const slide of slides) {
    const drawn = slide.master === undefined ? [] : (head.masters?.[slide.master]?.elements ?? []);
    for (const { text } of slide.regions ?? []) note(text, true, false);
    for (const element of [...drawn, ...slide.elements]) {
      const style = element.style === undefined ? undefined : head.styles?.[element.style];
      if (style) styled(style);
      if (element.kind === "media" || element.kind === "foreign") note(`▶ Film Sound: ${element.kind === "foreign" ? element.what : ""}${element.alt}`, false, false);
      const bold = element.slot === "number" || element.kind === "diagram" || (style?.some(({ strong }) => strong) ?? false);
      for (const text of elementTexts(element)) look(text, bold);
      if (element.kind === "table") for (const row of element.rows.slice(0, element.header)) for (const cell of row) if (cell) look(cell.text, true);
      if (bold && element.kind === "diagram") look(element.text, false);
      if (element.kind === "code") note(element.text, false, false);
      if (element.kind === "formula") note(element.tex, false, false);
    }
    if (slide.elements.some((element) => elementTexts(element).some((text) => text.some(({ runs }) => runs.some(({ footnote }) => footnote))))) note("0123456789\u2002", true, false);
  }
  const faces = new Set<string>([...families].flatMap(({ faces: [first] }) => (first ? [first.id] : [])));
  for (const [key, points] of styles) {
    for (const family of families) for (const point of points) faces.add(faceFor(family, Math.max(point, 0x20), key[0] === "1", key[1] === "1").id);
  }
  return [...faces];
}

