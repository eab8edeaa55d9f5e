import {
  type ForeignElement,
  type MediaElement,
  type Element,
  type Frame,
  isEmptyText,
  type RichText,
  type ShapeElement,
  type SlotRole,
  type TextBox,
  type TextElement,
  type TextStyle,
  must,
} from "@unitext/core/model";
import { FIGURE_MINIMUM, pageScale, sizeOf, type SlotPlace } from "./slots";
import { withCaption, layPicture } from "./pictures";
import { type FigureElement, type Laid, layFigure } from "./figures";
import { boxAt, type SceneBox, type SceneNode, bulletNodes } from "./scene";
import { drawGeometry, turning } from "./shapes";
import { setText } from "./text";
import type { TextContext } from "./textstyle";
import type { Group, SlideContext } from "./context";

/** Further steps for key figures, which are still large in a column. */
const NUMBER_STEPS = [0.52, 0.46, 0.4, 0.34];

/** Returns the sizes to try for a role: the theme's steps, none below the readable minimum. */
export function sizesFor(role: SlotRole, { metadata }: SlideContext): number[] {
  const full = sizeOf(role, metadata.theme, metadata.page);
  const least = Math.min(
    full,
    metadata.theme.minimum * pageScale(metadata.page) * (role === "figure" ? FIGURE_MINIMUM : 1),
  );
  const steps = role === "number" ? [...metadata.theme.steps, ...NUMBER_STEPS] : metadata.theme.steps;
  const sizes = steps.map((step) => full * step).filter((size) => size >= least);
  const last = sizes.at(-1);
  if (role === "figure" && (last === undefined || last > least * 1.04)) sizes.push(least);
  return sizes.length ? sizes : [least];
}

function layText(
  element: TextElement,
  place: SlotPlace,
  sizes: readonly number[],
  slot: string | null,
  setting: TextContext,
): Laid {
  const { lines, size, used, overflow } = setText(element.text, place, sizes, setting);
  return {
    nodes: [{ kind: "text", element: element.id, role: place.role, lines }],
    box: boxAt(place.frame, element.id, slot, size, overflow),
    used,
  };
}

/** Default insets of a text box (ECMA-376-1, 21.1.2.1.1: 0.1 inch at the sides, 0.05 above and below). */
const INSETS: [number, number, number, number] = [7.2, 3.6, 7.2, 3.6];

/** Sizes below the readable minimum, as shares of it, for a text that a person has allowed to shrink. */
const BELOW_MINIMUM = [0.94, 0.88, 0.82, 0.76, 0.7, 0.64, 0.58];

/** Lays out a text in a box of its own: with its text style, insets, columns and turned lines. */
export function layBoxed(
  text: RichText,
  id: string,
  frame: Frame,
  place: SlotPlace,
  style: TextStyle | undefined,
  box: TextBox | undefined,
  sizes: readonly number[],
  setting: TextContext,
): { nodes: SceneNode[]; size: number; used: number; overflow: number } {
  const base = style?.[0]?.run?.size ?? (style ? 18 : must(sizes[0]));
  const own: TextContext = style ? { ...setting, style: { levels: style, size: base } } : setting;
  const [left, top, right, bottom] = box?.insets ?? (box || style ? INSETS : [0, 0, 0, 0]);
  const turned = box?.turn;
  const room = turned
    ? {
        ...frame,
        x: frame.x + (frame.width - frame.height) / 2,
        y: frame.y + (frame.height - frame.width) / 2,
        width: frame.height,
        height: frame.width,
      }
    : frame;
  const inner = {
    x: room.x + left,
    y: room.y + top,
    width: Math.max(1, room.width - left - right),
    height: Math.max(1, room.height - top - bottom),
  };
  const tried = !style
    ? box?.fit === "shrink"
      ? [...sizes, ...BELOW_MINIMUM.map((step) => must(sizes.at(-1)) * step)]
      : sizes
    : box?.fit === "shrink"
      ? [1, 0.94, 0.88, 0.82, 0.76, 0.7, 0.64, 0.58, 0.52, 0.46, 0.4, 0.34, 0.28].map((step) => base * step)
      : [base];
  const set = setText(
    text,
    { frame: inner, role: place.role, anchor: box?.anchor ?? place.anchor, align: place.align },
    tried,
    own,
    { columns: box?.columns ?? 1, gap: box?.gap ?? 0, wrap: box?.wrap !== false },
  );
  const node: SceneNode = { kind: "text", element: id, role: place.role, lines: set.lines };
  const signs = bulletNodes(set.lines, id, setting.assets);
  const matrix = turned && turning(room, turned);
  return {
    nodes: matrix ? [{ kind: "group", element: id, matrix, nodes: [node, ...signs] }] : [node, ...signs],
    size: set.size,
    used: set.used + top + bottom,
    overflow: box?.fit === "grow" ? 0 : Math.max(0, set.overflow - 1.5),
  };
}

function layTextBox(
  element: TextElement,
  place: SlotPlace,
  slot: string | null,
  context: SlideContext,
  setting: TextContext,
): Laid {
  const style = element.style === undefined ? undefined : context.metadata.styles?.[element.style];
  const { nodes, size, used, overflow } = layBoxed(
    element.text,
    element.id,
    place.frame,
    place,
    style,
    element.box,
    sizesFor(place.role, context),
    setting,
  );
  // A box that grows is as high as its content.
  const frame =
    element.box?.fit === "grow" && used > place.frame.height ? { ...place.frame, height: used } : place.frame;
  const back =
    element.fill || element.stroke
      ? drawGeometry({ preset: "rect" }, frame, element, context.metadata.assets).nodes
      : [];
  return { nodes: [...back, ...nodes], box: boxAt(frame, element.id, slot, size, overflow), used };
}

function layShape(
  element: ShapeElement,
  place: SlotPlace,
  slot: string | null,
  context: SlideContext,
  setting: TextContext,
): Laid {
  const { frame } = place;
  const drawn = drawGeometry(element.geometry, frame, element, context.metadata.assets);
  const matrix = turning(frame, 0, element.flip);
  const outline: SceneNode[] = matrix
    ? [{ kind: "group", element: element.id, matrix, nodes: drawn.nodes }]
    : drawn.nodes;
  if (isEmptyText(element.text))
    return { nodes: outline, box: boxAt(frame, element.id, slot, 0, 0), used: frame.height };
  const style = element.style === undefined ? undefined : context.metadata.styles?.[element.style];
  const sizes = [sizeOf("body", context.metadata.theme, context.metadata.page) * 0.7];
  const text = layBoxed(
    element.text,
    element.id,
    drawn.text,
    { ...place, anchor: "middle", align: style ? "start" : "centre" },
    style,
    element.box ?? (style ? undefined : { insets: INSETS }),
    sizes,
    setting,
  );
  // A shape that grows is drawn again, higher by as much as its text overflows.
  const more = element.box?.fit === "grow" ? text.used - drawn.text.height : 0;
  if (more > 0.5 && !setting.grown)
    return layShape(element, { ...place, frame: { ...frame, height: frame.height + more } }, slot, context, {
      ...setting,
      grown: true,
    });
  return {
    nodes: [...outline, ...text.nodes],
    box: boxAt(frame, element.id, slot, text.size, text.overflow),
    used: frame.height,
  };
}

/** Divides a place among its elements: from top to bottom, or side by side for a set of pictures. */
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
    return elements.map((_, at) => ({
      ...place,
      frame: {
        x: frame.x + (at % columns) * (width + gap),
        y: frame.y + Math.floor(at / columns) * (height + gap),
        width,
        height,
      },
    }));
  }
  const height = frame.height / count;
  return elements.map((_, at) => ({
    ...place,
    anchor: "top",
    frame: { ...frame, y: frame.y + at * height, height: height * 0.97 },
  }));
}

/** Lays an element out in its frame, as if it were not rotated. */
export function layUpright(
  element: Element,
  place: SlotPlace,
  slot: string | null,
  context: SlideContext,
  setting: TextContext,
): Laid {
  if (element.kind === "text")
    return element.style !== undefined || element.box || element.fill || element.stroke
      ? layTextBox(element, place, slot, context, setting)
      : layText(element, place, sizesFor(place.role, context), slot, setting);
  if (element.kind === "picture") return layPicture(element, place, slot, context, setting);
  if (element.kind === "shape") return layShape(element, place, slot, context, setting);
  if (element.kind === "media" || element.kind === "foreign") return layForeign(element, place, slot, context, setting);
  const style = element.style === undefined ? undefined : context.metadata.styles?.[element.style];
  const size = style?.[0]?.run?.size ?? 18;
  return style
    ? layFigure(
        element,
        place,
        slot,
        [size],
        context.metadata.theme,
        { ...setting, style: { levels: style, size } },
        context.metadata.assets,
      )
    : layFigure(
        element,
        place,
        slot,
        sizesFor("figure", context),
        context.metadata.theme,
        setting,
        context.metadata.assets,
      );
}

/** Lays an element out in its frame, rotated and mirrored. */
export function layElement(
  element: Element,
  place: SlotPlace,
  slot: string | null,
  context: SlideContext,
  setting: TextContext,
): Laid {
  const laid = layUpright(element, place, slot, context, setting);
  const { rotation } = element;
  const matrix = rotation ? turning(place.frame, rotation) : undefined;
  return matrix
    ? {
        ...laid,
        nodes: [{ kind: "group", element: element.id, matrix, nodes: laid.nodes }],
        box: { ...laid.box, rotation: must(rotation) },
      }
    : laid;
}

/** Lays out the elements that share one slot. */
export function layGroup(
  group: Group,
  context: SlideContext,
  setting: TextContext,
): { nodes: SceneNode[]; boxes: SceneBox[]; used: number } {
  const laid =
    stacked(group, context, setting) ??
    shares(group).map((place, at) => layElement(must(group.elements[at]), place, group.slot, context, setting));
  return {
    nodes: laid.flatMap(({ nodes }) => nodes),
    boxes: laid.map(({ box }) => box),
    used: laid.reduce((sum, { used }) => sum + used, 0),
  };
}

/**
 * Stacks elements, each as high as it needs, at the first size at which all fit: text above its table, code below its
 * text. Returns undefined where they have to share the place evenly.
 */
function stacked({ place, slot, elements }: Group, context: SlideContext, setting: TextContext): Laid[] | undefined {
  if (
    elements.length < 2 ||
    place.role === "picture" ||
    elements.some(({ kind }) => !["text", "table", "code", "formula"].includes(kind))
  )
    return undefined;
  const gap = sizeOf("body", context.metadata.theme, context.metadata.page) * 0.5;
  const texts = sizesFor(place.role, context);
  const figures = sizesFor("figure", context);
  const steps = Math.max(texts.length, figures.length);
  let laid: Laid[] = [];
  for (let step = 0; step < steps; step++) {
    let y = place.frame.y;
    laid = elements.map((element) => {
      const own: SlotPlace = {
        ...place,
        anchor: "top",
        frame: { ...place.frame, y, height: Math.max(1, place.frame.y + place.frame.height - y) },
      };
      const at = (sizes: readonly number[]) => [must(sizes[Math.min(step, sizes.length - 1)])];
      const made =
        element.kind === "text"
          ? layText(element, own, at(texts), slot, setting)
          : layFigure(
              element as FigureElement,
              own,
              slot,
              at(figures),
              context.metadata.theme,
              setting,
              context.metadata.assets,
            );
      y += made.used + gap;
      return made;
    });
    if (laid.every(({ box }) => box.overflow === 0)) return laid;
  }
  return laid;
}

/**
 * Lays out an element that cannot be drawn itself: the picture or drawing that represents it, or a frame with its name.
 */
export function layForeign(
  element: MediaElement | ForeignElement,
  place: SlotPlace,
  slot: string | null,
  context: SlideContext,
  setting: TextContext,
): Laid {
  const { frame } = place;
  const { id, alt } = element;
  const source = element.kind === "media" ? element.poster : element.picture;
  const asset = source === undefined ? undefined : context.metadata.assets[source];
  const laid = { box: boxAt(frame, id, slot, 0, 0), used: frame.height };
  if (source !== undefined && asset) {
    const { sha256 } = asset;
    return { nodes: [{ kind: "picture", element: id, source, alt, missing: false, sha256, ...frame }], ...laid };
  }
  const drawing = element.kind === "foreign" ? element.drawing : undefined;
  return {
    nodes: drawing
      ? [drawingNode(id, drawing, frame, context, setting)]
      : standInNodes(element, frame, context.metadata.theme.colours.muted, setting),
    ...laid,
  };
}

/** Draws the shapes of a foreign element, scaled to its frame. */
function drawingNode(
  id: string,
  drawing: NonNullable<ForeignElement["drawing"]>,
  frame: Frame,
  context: SlideContext,
  setting: TextContext,
): SceneNode {
  const nodes = drawing.elements.flatMap((one) =>
    one.frame
      ? layElement(one, { frame: one.frame, role: "body", anchor: "top", align: "start" }, null, context, setting).nodes
      : [],
  );
  const [scaleX, scaleY] = [frame.width / drawing.width, frame.height / drawing.height];
  return {
    kind: "group",
    element: id,
    matrix: [scaleX, 0, 0, scaleY, frame.x, frame.y],
    nodes: nodes.map((node) => withCaption(node, id)),
  };
}

/** Draws a dashed frame with the name of what cannot be shown. */
function standInNodes(
  element: MediaElement | ForeignElement,
  frame: Frame,
  colour: string,
  setting: TextContext,
): SceneNode[] {
  const what = element.kind === "media" ? (element.type === "video" ? "▶ Film" : "▶ Sound") : element.what;
  const text = element.alt ? `${what}: ${element.alt}` : what;
  const size = Math.min(14, Math.max(7, frame.height * 0.3));
  const { lines } = setText(
    [{ kind: "plain", level: 0, align: "centre", runs: [{ text }] }],
    { frame, role: "caption", anchor: "middle", align: "centre" },
    [size, size * 0.75, size * 0.5],
    { ...setting, fill: colour },
  );
  const d = `M${frame.x} ${frame.y}h${frame.width}v${frame.height}h${-frame.width}Z`;
  return [
    { kind: "paths", element: element.id, paths: [{ d, stroke: colour, width: 0.75, dash: [4, 3] }] },
    { kind: "text", element: element.id, role: "stand-in", lines },
  ];
}
