import {
  type ArrangementName,
  DESIGNS,
  type Element,
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

/** The distance of a logo from the edges of the page, in points on a page 540 points high. */
const LOGO_MARGIN = { across: 24, down: 14 };

/** Returns the logo of a theme as an element in its corner. */
function logoOn({ page, theme: { logo }, language }: PageSetup): Element[] {
  if (!logo) return [];
  const scale = pageScale(page);
  const height = logo.height * scale;
  const width = (height * logo.asset.width) / logo.asset.height;
  const [across, down] = [LOGO_MARGIN.across * scale, LOGO_MARGIN.down * scale];
  const frame: Frame = {
    x: logo.at.endsWith("left") ? across : page.width - across - width,
    y: logo.at.startsWith("top") ? down : page.height - down - height,
    width,
    height,
  };
  const shown = languageDirection(language) === "rtl" ? mirroredOnPage(frame, page) : frame;
  return [{ kind: "picture", id: "design-logo", slot: null, frame: shown, source: logo.source, alt: logo.alt }];
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
    elements: [...shapes.map((shape, nth) => placed(shape, nth, setup)), ...logoOn(setup)],
  };
  held.set(key, master);
  return master;
}

/** Where a footer, header or number is and how it is set. `size` is in points. */
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
/** The header is above the title and starts at its left edge. */
const HEADER: RegionPlace = { at: [62, 12, 560, 18], align: "start" };

/** Returns where the design puts footer, header and number of a slide. The theme is that of the slide's surface. */
export function regionPlaces(setup: PageSetup): Record<"footer" | "header" | "number", PlacedRegion> {
  const { page, theme, language } = setup;
  const { regions, title = [HEADER.at[0], 0, 0, 0] } = DESIGNS[theme.design];
  const [, top, width, height] = HEADER.at;
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
  return {
    footer: on(regions?.footer ?? FOOTER),
    header: on(regions?.header ?? { ...HEADER, at: [title[0], top, width, height] }),
    number: on(regions?.number ?? NUMBER),
  };
}
