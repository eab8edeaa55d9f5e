import { type DeckMetadata, type Frame, type PictureElement, type Geometry, plainText } from "@unitext/core/model";
import { FIGURE_MINIMUM, type SlotPlace, sizeOf, pageScale } from "./slots";
import type { SlideContext } from "./context";
import type { Laid } from "./figures";
import { type SceneNode, boxAt } from "./scene";
import { drawGeometry, turning } from "./shapes";
import { setText } from "./text";
import type { TextContext } from "./textstyle";

/** Makes a node of a foreign drawing part of its element. */
export function withCaption(node: SceneNode, element: string): SceneNode {
  if (node.kind === "rect") return node;
  return node.kind === "group"
    ? { ...node, element, nodes: node.nodes.map((inner) => withCaption(inner, element)) }
    : { ...node, element };
}

const NOTHING_CROPPED = { left: 0, top: 0, right: 0, bottom: 0 };

/** Returns the nodes of a picture that fills a frame: cropped, clipped to its shape, with its outline. */
function framedNodes(element: PictureElement, frame: Frame, assets: DeckMetadata["assets"]): SceneNode[] {
  const { id, fill, stroke, shadow, flip } = element;
  const form: Geometry = element.shape ?? { preset: "rect" };
  const edge = { shown: { edge: stroke?.width ?? 0 } };
  const behind = { id, ...edge, ...(fill ? { fill } : {}), ...(shadow ? { shadow } : {}) };
  const under = fill || shadow ? drawGeometry(form, frame, behind, assets).nodes : [];
  const over = stroke ? drawGeometry(form, frame, { id, stroke }, assets).nodes : [];
  const picture = croppedPicture(element, frame, assets);
  const isClipped = element.crop || element.shape || element.opacity !== undefined;
  const inside = isClipped ? clippedPicture(element, picture, form, frame, assets) : picture;
  const matrix = turning(frame, 0, flip);
  const turned: SceneNode = matrix ? { kind: "group", element: id, matrix, nodes: [inside] } : inside;
  return [...under, turned, ...over];
}

type PictureNode = Extract<SceneNode, { kind: "picture" }>;

/** Returns the whole picture, larger than its frame where it is cropped. */
function croppedPicture(element: PictureElement, frame: Frame, assets: DeckMetadata["assets"]): PictureNode {
  const asset = assets[element.source];
  const { left, top, right, bottom } = element.crop ?? NOTHING_CROPPED;
  const width = frame.width / Math.max(0.001, 1 - left - right);
  const height = frame.height / Math.max(0.001, 1 - top - bottom);
  return {
    kind: "picture",
    element: element.id,
    source: element.source,
    alt: element.alt,
    missing: !asset,
    x: frame.x - left * width,
    y: frame.y - top * height,
    width,
    height,
    ...(asset ? { sha256: asset.sha256 } : {}),
    ...(element.recolour ? { recolour: element.recolour } : {}),
  };
}

/** Clips a picture to the filled area of a geometry. */
function clippedPicture(
  { id, opacity }: PictureElement,
  picture: PictureNode,
  form: Geometry,
  frame: Frame,
  assets: DeckMetadata["assets"],
): SceneNode {
  const { outlines } = drawGeometry(form, frame, { id }, assets).form;
  return {
    kind: "group",
    element: id,
    matrix: [1, 0, 0, 1, frame.x, frame.y],
    clip: outlines.flatMap(({ d, fill }) => (fill ? [d] : [])).join(""),
    ...(opacity === undefined ? {} : { opacity }),
    nodes: [{ ...picture, x: picture.x - frame.x, y: picture.y - frame.y }],
  };
}

/** Lays a picture out in its frame: cropped, with its caption below. */
export function layPicture(
  element: PictureElement,
  place: SlotPlace,
  slot: string | null,
  context: SlideContext,
  setting: TextContext,
): Laid {
  const { metadata } = context;
  const { caption } = element;
  if (element.frame && !caption && element.width === undefined)
    return {
      nodes: framedNodes(element, place.frame, metadata.assets),
      box: boxAt(place.frame, element.id, slot, 0, 0),
      used: place.frame.height,
    };
  const nodes: SceneNode[] = [];
  let { frame } = place;
  let overflow = 0;
  if (caption) {
    const size = sizeOf("caption", metadata.theme, metadata.page) * 0.8;
    const trial = setText(
      plainText(caption),
      { frame: { ...frame, height: frame.height * 0.34 }, role: "caption", anchor: "top", align: "centre" },
      [size, size * 0.9, Math.min(size * 0.9, metadata.theme.minimum * FIGURE_MINIMUM * pageScale(metadata.page))],
      setting,
    );
    const height = Math.min(frame.height * 0.34, trial.used) + size * 0.4;
    frame = { ...frame, height: frame.height - height };
    overflow = trial.overflow;
    const drop = frame.height + size * 0.4;
    nodes.push({
      kind: "text",
      element: null,
      role: "caption",
      lines: trial.lines.map((line) => ({ ...line, y: line.y + drop })),
    });
  }
  const asset = metadata.assets[element.source];
  const share = (element.width ?? 100) / 100;
  const room = { width: frame.width * share, height: frame.height };
  // Cropped parts take no room.
  const { left, top, right, bottom } = element.crop ?? NOTHING_CROPPED;
  const [wide, high] = asset
    ? [asset.width * Math.max(0.001, 1 - left - right), asset.height * Math.max(0.001, 1 - top - bottom)]
    : [room.width, room.height];
  const scale = asset ? Math.min(room.width / wide, room.height / high) : 1;
  const [width, height] = [wide * scale, high * scale];
  const fitted = { x: frame.x + (frame.width - width) / 2, y: frame.y + (frame.height - height) / 2, width, height };
  return {
    nodes: [...framedNodes(element, fitted, metadata.assets), ...nodes],
    box: boxAt(fitted, element.id, slot, 0, overflow),
    used: place.frame.height,
  };
}
