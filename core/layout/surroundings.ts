import {
  regionWords,
  countsSlide,
  type Element,
  elementTexts,
  languageDirection,
  type Footnote,
  mapElementTexts,
  type Master,
  NUMBER_SIGN,
  onSlide,
  plainText,
  type RegionBox,
  type RichText,
  type Slide,
  type SlotRole,
  type Theme,
} from "@unitext/core/model";
import type { SceneNode } from "./scene";
import { drawFill } from "./shapes";
import { contentArea, FIGURE_MINIMUM, mirroredOnPage, pageScale } from "./slots";
import { setText } from "./text";
import type { TextContext } from "./textstyle";
import { hasDesign, type SlideContext } from "./context";
import { designMaster, regionPlaces } from "./design";
import { layBoxed, layElement } from "./elements";

/** Masters laid out, without what counts the slides. Cached. */
const drawnMasters = new WeakMap<Master, { metadata: SlideContext["metadata"]; drawn: (SceneNode[] | Element)[] }>();

function masterNodes(master: Master, context: SlideContext, setting: TextContext): SceneNode[] {
  const { metadata, number } = context;
  const lay = (element: Element) =>
    element.frame
      ? layElement(
          element,
          { frame: element.frame, role: "body", anchor: "top", align: "start" },
          null,
          context,
          setting,
        ).nodes
      : [];
  const known = drawnMasters.get(master);
  const drawn =
    known?.metadata === metadata
      ? known.drawn
      : master.elements.map((element) => (elementTexts(element).some(countsSlide) ? element : lay(element)));
  if (known?.metadata !== metadata) drawnMasters.set(master, { metadata, drawn });
  return drawn.flatMap((one) =>
    Array.isArray(one) ? one : lay(mapElementTexts(one, (text) => onSlide(text, number))),
  );
}

/**
 * Returns the background: what the theme is on, a colour, a fill, or a picture that fills the page with a veil of paper
 * over it or a plate of paper under the text; then what the slide's master or the design of its theme draws. `theme` is that of the slide before
 * it took the colours of its surface.
 */
export function backgroundNodes(
  slide: Slide,
  context: SlideContext,
  theme: Theme,
  setting: TextContext,
): { colour: string; nodes: SceneNode[]; plates: boolean } {
  const { metadata } = context;
  const { paper } = metadata.theme.colours;
  const ofFile = slide.master === undefined ? undefined : metadata.masters?.[slide.master];
  const master = hasDesign(slide) ? designMaster(slide.arrangement, { ...metadata, theme }) : ofFile;
  const background = slide.background ?? master?.background;
  const shared = master ? masterNodes(master, context, setting) : [];
  if (!background) return { colour: paper, nodes: shared, plates: false };
  if ("colour" in background) return { colour: background.colour, nodes: shared, plates: false };
  const page = { x: 0, y: 0, ...metadata.page };
  if ("fill" in background)
    return {
      colour: paper,
      nodes: [...drawFill(background.fill, page, "", metadata.assets), ...shared],
      plates: false,
    };
  const asset = metadata.assets[background.picture];
  const { width, height } = metadata.page;
  const scale = asset ? Math.max(width / asset.width, height / asset.height) : 1;
  const { veil } = background;
  const size = asset ? { width: asset.width * scale, height: asset.height * scale } : { width, height };
  return {
    colour: paper,
    nodes: [
      {
        kind: "picture",
        element: "",
        source: background.picture,
        alt: "",
        missing: !asset,
        x: (width - size.width) / 2,
        y: (height - size.height) / 2,
        ...size,
        ...(asset ? { sha256: asset.sha256 } : {}),
      },
      ...(veil ? drawFill({ kind: "solid", colour: paper, opacity: veil }, page, "", metadata.assets) : []),
      ...shared,
    ],
    plates: !master && veil === undefined,
  };
}

/** Returns plates of paper under lines of text on a picture, so that they can be read. */
export function plates(nodes: readonly SceneNode[], fill: string, scale: number): SceneNode[] {
  return nodes.flatMap((node): SceneNode[] => {
    if (node.kind !== "text" || !node.lines.length) return [];
    const left = Math.min(...node.lines.map(({ x }) => x)) - 26 * scale;
    const right = Math.max(...node.lines.map(({ x, width }) => x + width)) + 12 * scale;
    const top = Math.min(...node.lines.map(({ y, height }) => y - height * 0.8)) - 6 * scale;
    const bottom = Math.max(...node.lines.map(({ y, height }) => y + height * 0.3)) + 4 * scale;
    return [{ kind: "rect", x: left, y: top, width: right - left, height: bottom - top, fill }];
  });
}

/** Sets the footnotes at the foot of the content area. Returns them with the height that they take. */
export function footnotes(
  notes: readonly Footnote[],
  { metadata }: SlideContext,
  setting: TextContext,
): { node: SceneNode[]; height: number; overflow: number } {
  if (!notes.length) return { node: [], height: 0, overflow: 0 };
  const { page, theme } = metadata;
  const area = contentArea(metadata);
  const scale = pageScale(page);
  const size = Math.max(theme.scale.footer, theme.minimum * FIGURE_MINIMUM) * scale;
  const text: RichText = notes.map((runs, at) => ({
    kind: "plain",
    level: 0,
    runs: [{ text: `${at + 1}\u2002`, marks: ["strong"] }, ...runs],
  }));
  const room = { x: area.x, y: area.y, width: area.width, height: area.height * 0.4 };
  const { lines, used, overflow } = setText(
    text,
    { frame: room, role: "references", anchor: "bottom", align: "start" },
    [size, size * 0.9],
    { ...setting, fill: theme.colours.muted },
  );
  const drop = area.height - room.height;
  const place = { x: area.x, y: area.y + area.height - used - 5 * scale, width: 90 * scale, height: 0.75 * scale };
  const rule: SceneNode = {
    kind: "rect",
    ...(languageDirection(metadata.language) === "rtl" ? mirroredOnPage(place, page) : place),
    fill: theme.colours.muted,
  };
  return {
    node: [
      rule,
      { kind: "text", element: null, role: "footnotes", lines: lines.map((line) => ({ ...line, y: line.y + drop })) },
    ],
    height: used + 12 * scale,
    overflow,
  };
}

/** A box lower than this, in em, was made for one line. */
const ONE_LINE = 2.4;

/**
 * Sets a footer, number or date where the slide's file puts it. One that was on a line stays on it, even where our letters
 * are a little wider than those of the file.
 */
function ownRegion(
  { region, text, frame, style, box }: RegionBox,
  { metadata, number }: SlideContext,
  setting: TextContext,
): SceneNode[] {
  const levels = style === undefined ? undefined : metadata.styles?.[style];
  const words = onSlide(plainText(region === "number" && !text.includes(NUMBER_SIGN) ? NUMBER_SIGN : text), number);
  const role: SlotRole = "caption";
  const size = metadata.theme.scale.footer * pageScale(metadata.page);
  const isOneLine = frame.height < (levels?.[0]?.run?.size ?? size) * ONE_LINE && box?.wrap === undefined;
  return layBoxed(
    words,
    "",
    frame,
    { frame, role, anchor: "middle", align: "start" },
    levels,
    isOneLine ? { ...box, wrap: false } : box,
    [size],
    setting,
  ).nodes.map((node) => (node.kind === "text" ? { ...node, element: null, role: region } : node));
}

/** Sets footer, header and number, the same on every slide but the opening one. */
export function regions(slide: Slide, { metadata, number }: SlideContext, setting: TextContext): SceneNode[] {
  if (slide.regions || slide.master !== undefined)
    return (slide.regions ?? []).flatMap((region) =>
      ownRegion(region, { metadata, number, fonts: setting.fonts }, setting),
    );
  if (slide.arrangement === "opening" || slide.arrangement === "blank") return [];
  const places = regionPlaces(metadata);
  const line = (text: string, region: "footer" | "header" | "number"): SceneNode => {
    const { frame, align, size, font, strong, colour } = places[region];
    const paragraphs = plainText(text).map((paragraph) => ({
      ...paragraph,
      align,
      runs: strong ? paragraph.runs.map((run) => ({ ...run, marks: ["strong" as const] })) : paragraph.runs,
    }));
    const { lines } = setText(
      paragraphs.slice(0, 1),
      { frame, role: font === "heading" ? "name" : "caption", anchor: "middle", align },
      [size],
      { ...setting, fill: colour },
    );
    return { kind: "text", element: null, role: region, lines: lines.slice(0, 1) };
  };
  return [
    ...(["footer", "header"] as const).flatMap((region) => {
      const words = regionWords(metadata, region);
      return words ? [line(words, region)] : [];
    }),
    ...(metadata.regions.number ? [line(String(number), "number")] : []),
  ];
}
