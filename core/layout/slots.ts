import {
  type ArrangementName,
  arrangementOf,
  BODY_SLOT,
  COLUMN_GAP,
  DESIGNS,
  type DeckMetadata,
  fileLayoutFor,
  type DesignDescriptor,
  type DesignSlot,
  type Frame,
  languageDirection,
  must,
  type Page,
  type PageRectangle,
  type SlotDescriptor,
  type SlotRole,
  type Surface,
  type Theme,
  TITLE_SLOT,
} from "@unitext/core/model";

/** The minimum size of cells, code and labels, as a share of the readable minimum: they are read one at a time. */
export const FIGURE_MINIMUM = 0.75;

/** What the places on a page follow from. */
export type PageSetup = Pick<DeckMetadata, "page" | "theme" | "language"> & Partial<Pick<DeckMetadata, "layouts">>;

/** A slot's place on the page, and how its content is set in it. */
export interface SlotPlace {
  frame: Frame;
  role: SlotRole;
  anchor: "top" | "middle" | "bottom";
  align: "start" | "centre" | "end";
  /** What it is on, where that differs from the slide. */
  surface?: Surface;
}

/**
 * Returns the scale of lengths on a page: a page of 540 points has the theme's sizes, others in proportion to their
 * height.
 */
export function pageScale(page: Page): number {
  return Math.min(page.height / 540, page.width / 720);
}

/** The roles of slots that an arrangement lacks but an element may still name. */
const LOOSE: Record<string, SlotRole> = { title: "title", subtitle: "subtitle", caption: "caption", number: "number" };

/** The page on which designs give their places. */
const DESIGN_PAGE = { width: 960, height: 540 };
const TITLE: PageRectangle = [62, 36, 836, 92];
const BODY: PageRectangle = [62, 150, 836, 342];

/** Returns a rectangle of a design on a page. */
export function onPage([x, y, width, height]: PageRectangle, page: Page): Frame {
  const [across, down] = [page.width / DESIGN_PAGE.width, page.height / DESIGN_PAGE.height];
  return { x: x * across, y: y * down, width: width * across, height: height * down };
}

/** The arrangements that need the whole width. */
const WIDE: ReadonlySet<ArrangementName> = new Set([
  "comparison",
  "columns",
  "highlight",
  "pictures",
  "table",
  "chart",
  "diagram",
  "code",
]);

const rectanglesOf = (design: DesignDescriptor, arrangement: ArrangementName) => ({
  title: (WIDE.has(arrangement) ? design.wide?.title : undefined) ?? design.title ?? TITLE,
  body: (WIDE.has(arrangement) ? design.wide?.body : undefined) ?? design.body ?? BODY,
});

/** Returns the area that a design gives to the content of arrangements without a title. */
function areaOf({ title = TITLE, body = BODY, area }: DesignDescriptor): PageRectangle {
  if (area) return area;
  const [left, top] = [Math.min(title[0], body[0]), Math.min(title[1], body[1])];
  return [left, top, Math.max(title[0] + title[2], body[0] + body[2]) - left, body[1] + body[3] - top];
}

/** Returns the area of a page for content, inside the margins of the design and above its footer. */
export function contentArea({ page, theme }: Pick<PageSetup, "page" | "theme">): Frame {
  return onPage(areaOf(DESIGNS[theme.design]), page);
}

/** Returns the part of a rectangle that shares of it describe. */
const partOf = ([left, top, across, down]: PageRectangle, [x, y, width, height]: PageRectangle): PageRectangle => [
  left + x * across,
  top + y * down,
  width * across,
  height * down,
];

const [, BODY_TOP, , BODY_HEIGHT] = BODY_SLOT.share;

/** Returns the place of a slot in a design: the design's own, else the arrangement's share of the design's areas. */
function placeIn(
  design: DesignDescriptor,
  arrangement: ArrangementName,
  { role, share, anchor, align }: SlotDescriptor,
  own: DesignSlot,
  page: Page,
): SlotPlace {
  const areas = rectanglesOf(design, arrangement);
  const [x, y, width, height] = share;
  const isTitle = role === "title";
  const titled = Object.values(arrangementOf(arrangement).slots).some((slot) => slot.role === "title");
  const rectangle =
    own.at ??
    (isTitle
      ? areas.title
      : titled
        ? partOf(areas.body, [x, (y - BODY_TOP) / BODY_HEIGHT, width, height / BODY_HEIGHT])
        : partOf(areaOf(design), share));
  const usual = isTitle ? design.titles : undefined;
  const surface = own.surface ?? usual?.surface;
  return {
    frame: onPage(rectangle, page),
    role,
    anchor: own.anchor ?? usual?.anchor ?? anchor ?? "top",
    align: own.align ?? usual?.align ?? align ?? "start",
    ...(surface ? { surface } : {}),
  };
}

/** Returns a frame on the other side of the page, as decks that are read from right to left have it. */
export function mirroredOnPage(frame: Frame, page: Page): Frame {
  return { ...frame, x: page.width - frame.x - frame.width };
}

type Places = ReadonlyMap<string, SlotPlace>;
type FileLayouts = NonNullable<DeckMetadata["layouts"]>;
const usualOn = new WeakMap<Page, Map<string, Places>>();

const fileOnce = new WeakMap<FileLayouts, Map<ArrangementName, Places>>();

/** Returns the slots of an arrangement in the layouts of a file; those that it does not have share the place of its body. */
function filePlaces(arrangement: ArrangementName, layouts: FileLayouts): Places | undefined {
  const held = fileOnce.get(layouts) ?? new Map<ArrangementName, Places>();
  fileOnce.set(layouts, held);
  const known = held.get(arrangement);
  if (known) return known;
  const layout = fileLayoutFor(arrangement, layouts);
  const own = layout?.slots;
  const isShared = layout === layouts.points && arrangement !== "points";
  const [title, body] = [own?.title ?? layouts.points?.slots.title, layouts.points?.slots.body];
  if (!own || !title || !body) return undefined;
  const { frame: over } = title;
  const { frame: under } = body;
  const all = {
    ...under,
    y: Math.min(over.y, under.y),
    height: Math.max(under.y + under.height, over.y + over.height) - Math.min(over.y, under.y),
  };
  const slots = Object.entries(arrangementOf(arrangement).slots);
  const titled = slots.some(([, { role }]) => role === "title");
  const places = new Map(
    slots.map(([name, { role, share, anchor, align }]): [string, SlotPlace] => {
      const [x, y, width, height] = titled
        ? [share[0], (share[1] - BODY_TOP) / BODY_HEIGHT, share[2], share[3] / BODY_HEIGHT]
        : share;
      const area = titled ? under : all;
      const given = isShared ? undefined : own[name];
      const place = given ?? (role === "title" ? title : undefined);
      const shared = {
        x: area.x + x * area.width,
        y: area.y + y * area.height,
        width: width * area.width,
        height: height * area.height,
      };
      return [
        name,
        {
          frame: place?.frame ?? shared,
          role,
          anchor: place?.box?.anchor ?? (place ? "top" : (anchor ?? "top")),
          align: place ? "start" : (align ?? "start"),
        },
      ];
    }),
  );
  held.set(arrangement, places);
  return places;
}

/** Returns the slots of an arrangement in their usual widths. Cached for a page. */
function usualPlaces(arrangement: ArrangementName, { page, theme, layouts }: PageSetup): Places {
  const ofFile = layouts && filePlaces(arrangement, layouts);
  if (ofFile) return ofFile;
  const held = usualOn.get(page) ?? new Map<string, Places>();
  usualOn.set(page, held);
  const key = `${theme.design}/${arrangement}`;
  const known = held.get(key);
  if (known) return known;
  const design = DESIGNS[theme.design];
  const own = design.slots?.[arrangement];
  const places = new Map(
    Object.entries(arrangementOf(arrangement).slots).map(([name, slot]) => [
      name,
      placeIn(design, arrangement, slot, own?.[name] ?? {}, page),
    ]),
  );
  held.set(key, places);
  return places;
}

/**
 * Returns the slots of an arrangement on a page, by name. In a deck that is read from right to left they are mirrored.
 * `widths` are the shares of its columns in percent, in reading order.
 */
export function slotPlaces(arrangement: ArrangementName, setup: PageSetup, widths?: readonly number[]): Places {
  const places = placesFromLeft(arrangement, setup, widths);
  if (languageDirection(setup.language) === "ltr") return places;
  return new Map(
    [...places].map(([name, place]) => [name, { ...place, frame: mirroredOnPage(place.frame, setup.page) }]),
  );
}

function placesFromLeft(arrangement: ArrangementName, setup: PageSetup, widths?: readonly number[]): Places {
  const usual = usualPlaces(arrangement, setup);
  const columns = arrangementOf(arrangement).columns;
  if (!columns || widths?.length !== columns.length) return usual;
  const places = new Map(usual);
  const [first, last] = [must(usual.get(must(columns[0]))).frame, must(usual.get(must(columns.at(-1)))).frame];
  const whole = last.x + last.width - first.x;
  const total = widths.reduce((sum, width) => sum + width, 0);
  const room = whole * (1 - COLUMN_GAP * (columns.length - 1));
  let { x } = first;
  columns.forEach((slot, at) => {
    const place = must(places.get(slot));
    const width = (room * must(widths[at])) / total;
    places.set(slot, { ...place, frame: { ...place.frame, x, width } });
    x += width + whole * COLUMN_GAP;
  });
  return places;
}

/**
 * Returns the place of an element whose slot the arrangement does not have: titles go to the title's place, everything
 * else below it.
 */
export function loosePlace(slot: string | null, arrangement: ArrangementName, setup: PageSetup): SlotPlace {
  const design = DESIGNS[setup.theme.design];
  const descriptor = slot === "title" ? TITLE_SLOT : { ...BODY_SLOT, role: LOOSE[slot ?? ""] ?? "body" };
  const { title, body } = rectanglesOf(design, arrangement);
  return placeIn(design, "points", descriptor, { at: descriptor.role === "title" ? title : body }, setup.page);
}

export const LINE_HEIGHT: Record<SlotRole, number> = {
  opening: 1.12,
  title: 1.14,
  subtitle: 1.3,
  body: 1.3,
  statement: 1.22,
  number: 1.0,
  caption: 1.25,
  picture: 1.25,
  figure: 1.25,
  references: 1.28,
  corner: 1.2,
  name: 1.15,
};

/** Space before a paragraph that follows another, in em, where the theme says nothing else. */
const PARAGRAPH_GAP: Record<SlotRole, number> = {
  opening: 0,
  title: 0,
  subtitle: 0.15,
  body: 0.38,
  statement: 0.3,
  number: 0,
  caption: 0.2,
  picture: 0.2,
  figure: 0,
  references: 0.35,
  corner: 0,
  name: 0,
};

/** The roles of running text, whose paragraphs may stand further apart. */
const SPACED: ReadonlySet<SlotRole> = new Set(["body", "references"]);

/** Returns the space before a paragraph that follows another in a theme, in em. */
export const paragraphGap = (role: SlotRole, { spacing = 1 }: Theme): number =>
  PARAGRAPH_GAP[role] * (SPACED.has(role) ? spacing : 1);

type Scale = Theme["scale"];
const own =
  <R extends keyof Scale>(role: R) =>
  (scale: Scale) =>
    scale[role];

/** The largest size of a name on its card, in points: key figures may be larger. */
const LARGEST_NAME = 96;

/** The size of each role on the theme's scale; some take it from another role. */
const SIZES: Record<SlotRole, (scale: Scale) => number> = {
  opening: own("opening"),
  title: own("title"),
  subtitle: own("subtitle"),
  body: own("body"),
  statement: own("statement"),
  number: own("number"),
  caption: own("caption"),
  picture: own("caption"),
  figure: ({ body }) => body * 0.8,
  references: own("caption"),
  corner: own("caption"),
  name: ({ number }) => Math.min(number * 0.8, LARGEST_NAME),
};

/** Returns the text size of a role at full size, in points on this page. */
export function sizeOf(role: SlotRole, theme: Theme, page: Page): number {
  return (theme.roles?.[role]?.size ?? SIZES[role](theme.scale)) * pageScale(page);
}
