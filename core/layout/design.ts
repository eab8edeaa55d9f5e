import {
  type ArrangementName,
  DESIGNS,
  type Frame,
  languageDirection,
  type Master,
  type Page,
  type RegionPlace,
  type ShapeElement,
  type Theme,
} from "@unitext/core/model";
import { isOnField, themeOnField } from "./context";
import { mirroredOnPage, onPage, pageScale, type PageSetup } from "./slots";

/** Returns a shape of a design on a page; from right to left it is mirrored. */
function placed(shape: ShapeElement, nth: number, { page, language }: PageSetup): ShapeElement {
  const scale = pageScale(page);
  const { x = 0, y = 0, width = 0, height = 0 } = shape.frame ?? {};
  const frame: Frame = { x: x * scale, y: y * scale, width: width * scale, height: height * scale };
  const rtl = languageDirection(language) === "rtl";
  return {
    ...shape,
    id: `design-${nth + 1}`,
    frame: rtl ? mirroredOnPage(frame, page) : frame,
    ...(rtl && "paths" in shape.geometry ? { flip: "x" as const } : {}),
    ...(shape.stroke ? { stroke: { ...shape.stroke, width: shape.stroke.width * scale } } : {}),
  };
}

const masters = new WeakMap<Page, WeakMap<Theme, Map<string, Master>>>();

/**
 * Returns what the design of a theme draws behind slides of an arrangement, as a master: the same object each time. Its
 * background is undefined where that is the paper or field of the theme.
 */
export function designMaster(arrangement: ArrangementName, setup: PageSetup): Master {
  const { page, theme, language } = setup;
  const byTheme = masters.get(page) ?? new WeakMap<Theme, Map<string, Master>>();
  masters.set(page, byTheme);
  const held = byTheme.get(theme) ?? new Map<string, Master>();
  byTheme.set(theme, held);
  const key = `${arrangement}/${languageDirection(language)}`;
  const known = held.get(key);
  if (known) return known;
  const scale = pageScale(page);
  const [width, height] = [page.width / scale, page.height / scale];
  const { fill, shapes } = DESIGNS[theme.design].decorate?.({
    arrangement,
    colours: theme.colours,
    width,
    height,
    x: (distance) => (distance * width) / 960,
    y: (distance) => (distance * height) / 540,
  }) ?? { shapes: [] };
  const master: Master = {
    name: "",
    ...(fill ? { background: { fill } } : {}),
    elements: shapes.map((shape, nth) => placed(shape, nth, setup)),
  };
  held.set(key, master);
  return master;
}

/** Where a footer or number is and how it is set. `size` is in points. */
export interface PlacedRegion {
  frame: Frame;
  align: "start" | "centre" | "end";
  size: number;
  font: "heading" | "body";
  strong: boolean;
  colour: string;
}

const FOOTER: RegionPlace = { at: [62, 504, 710, 20], align: "start" };
const NUMBER: RegionPlace = { at: [798, 504, 100, 20], align: "end" };

/** Returns where the design puts the footer and the number of a slide. The theme is that of the slide's surface. */
export function regionPlaces(setup: PageSetup): Record<"footer" | "number", PlacedRegion> {
  const { page, theme, language } = setup;
  const { regions } = DESIGNS[theme.design];
  const on = ({ at, align, size, font, strong, colour, surface }: RegionPlace): PlacedRegion => {
    const frame = onPage(at, page);
    // What a field shows beside its colour leaves little contrast to quiet text.
    const onField = surface === "field" || isOnField(theme);
    const { colours } = onField ? themeOnField(theme) : theme;
    return {
      frame: languageDirection(language) === "rtl" ? mirroredOnPage(frame, page) : frame,
      align,
      size: (size ?? theme.scale.footer) * pageScale(page),
      font: font ?? "body",
      strong: strong ?? false,
      colour: colours[onField ? "ink" : (colour ?? "muted")],
    };
  };
  return { footer: on(regions?.footer ?? FOOTER), number: on(regions?.number ?? NUMBER) };
}
