import {
  type Cell,
  type Crop,
  type Deck,
  type DeckMetadata,
  type Element,
  type Frame,
  type LevelStyle,
  mapElementTexts,
  type Master,
  type Page,
  type ParagraphProperties,
  type RegionBox,
  type RichText,
  type RunProperties,
  sharedItemsOf,
  type Shadow,
  type Slide,
  type Stroke,
  tabParts,
  tabStop,
  type TextBox,
  type TextStyle,
  valueHash,
} from "@unitext/core/model";
import { type Change, type SingleChange, batch } from "./change";
import { boundingFrame } from "./frames";

/** An element within this many points of a page edge counts as touching it. */
const AT_EDGE = 1;
const round = (value: number) => Math.round(value * 1000) / 1000;

type Shared = Pick<DeckMetadata, "masters" | "styles">;

/**
 * Maps one direction of a frame to another page: frames that span the page span the new one, frames at an edge stay at
 * that edge, all others move by an offset.
 */
function along(at: number, size: number, from: number, to: number, scale: number, offset: number): [number, number] {
  const [first, last] = [at <= AT_EDGE, at + size >= from - AT_EDGE];
  if (first && last) return [round(at * scale), round(to - at * scale + (at + size - from) * scale)];
  if (first) return [round(at * scale), round(size * scale)];
  if (last) return [round(to - (from - at) * scale), round(size * scale)];
  return [round(offset + at * scale), round(size * scale)];
}

const writeSet = ({ x, y, width, height }: Frame, page: Page) =>
  x <= AT_EDGE || y <= AT_EDGE || x + width >= page.width - AT_EDGE || y + height >= page.height - AT_EDGE;

/** Returns the bounding box of the positioned elements that do not touch a page edge; undefined when there are none. */
function contentOf(slides: readonly Slide[], page: Page): Frame | undefined {
  const frames = slides
    .flatMap(({ elements, regions = [] }) => [...elements, ...regions])
    .flatMap((one) => (one.frame && !writeSet(one.frame, page) ? [one.frame] : []));
  return frames.length ? boundingFrame(frames) : undefined;
}

/**
 * How much larger content is drawn when wide margins surround it, as after a change of page. No margin gets narrower
 * than the narrowest one was.
 */
const ROOM = 1.1;

function scaleOf(content: Frame | undefined, from: Page, to: Page): number {
  const whole = Math.min(to.width / from.width, to.height / from.height);
  if (!content) return whole;
  const margin =
    Math.min(content.x, content.y, from.width - content.x - content.width, from.height - content.y - content.height) *
    whole;
  const room = Math.min((to.width - 2 * margin) / content.width, (to.height - 2 * margin) / content.height);
  return Number.isFinite(room) && room > whole * ROOM ? room : whole;
}

/** Returns where a page starts on another in one direction: centred, but shifted so that its content is visible. */
function offsetOf(at: number, size: number, from: number, to: number, scale: number): number {
  const middle = (to - from * scale) / 2;
  return Math.max(Math.min(middle, to - (at + size) * scale), -at * scale);
}

/**
 * Fits the positioned elements of slides to a page of another shape, as large as possible and centred. Type, indents,
 * insets, lines and tables scale along; elements that filled the page or touched an edge do so again. Elements in slots
 * take their places from the arrangement. Masters and text styles are named by their content, so changed ones get new
 * names, collected in `shared`.
 */
export class PageResizer {
  readonly shared: { masters: Record<string, Master>; styles: Record<string, TextStyle> } = { masters: {}, styles: {} };
  private readonly scale: number;
  private readonly left: number;
  private readonly top: number;
  private readonly named = new Map<string, string>();

  constructor(
    private readonly from: Page,
    private readonly to: Page,
    private readonly given: Shared & Pick<Deck, "slides">,
  ) {
    const content = contentOf(given.slides, from);
    this.scale = scaleOf(content, from, to);
    const { x, y, width, height } = content ?? { x: 0, y: 0, ...from };
    this.left = offsetOf(x, width, from.width, to.width, this.scale);
    this.top = offsetOf(y, height, from.height, to.height, this.scale);
  }

  slide(slide: Slide): Slide {
    const elements = slide.elements.map((element) => this.element(element));
    const master = this.master(slide.master);
    const regions = slide.regions?.map((region) => this.region(region));
    if (elements.every((element, nth) => element === slide.elements[nth]) && master === slide.master && !regions)
      return slide;
    return { ...slide, elements, ...(master === undefined ? {} : { master }), ...(regions ? { regions } : {}) };
  }

  frame({ x, y, width, height }: Frame, turned = false): Frame {
    const { from, to, scale } = this;
    if (turned)
      return {
        x: round(this.left + x * scale),
        y: round(this.top + y * scale),
        width: round(width * scale),
        height: round(height * scale),
      };
    const [left, wide] = along(x, width, from.width, to.width, scale, this.left);
    const [top, high] = along(y, height, from.height, to.height, scale, this.top);
    return { x: left, y: top, width: Math.max(0, wide), height: Math.max(0, high) };
  }

  private element(element: Element): Element {
    if (!element.frame)
      return element.style === undefined && !element.box
        ? element
        : {
            ...element,
            ...(element.style === undefined ? {} : { style: this.style(element.style) }),
            ...(element.box ? { box: this.box(element.box) } : {}),
          };
    const { scale } = this;
    const frame = this.frame(element.frame, Boolean(element.rotation));
    const { style, box, stroke, shadow } = element;
    const sized: Element = {
      ...mapElementTexts(element, (text) => this.text(text)),
      frame,
      ...(style === undefined ? {} : { style: this.style(style) }),
      ...(box ? { box: this.box(box) } : {}),
      ...(stroke ? { stroke: this.stroke(stroke) } : {}),
      ...(shadow ? { shadow: this.shadow(shadow) } : {}),
    };
    if (sized.kind === "picture") return { ...sized, ...cropped(element.frame, frame, sized.crop) };
    if (sized.kind !== "table") return sized;
    const wide = frame.width / (element.frame.width || 1);
    return {
      ...sized,
      ...(sized.widths ? { widths: sized.widths.map((width) => round(width * wide)) } : {}),
      ...(sized.heights ? { heights: sized.heights.map((height) => round(height * scale)) } : {}),
      rows: sized.rows.map((row) => row.map((cell) => cell && this.cell(cell))),
    };
  }

  private cell(cell: Cell): Cell {
    const { insets, borders } = cell;
    return {
      ...cell,
      ...(insets ? { insets: this.four(insets) } : {}),
      ...(borders
        ? {
            borders: Object.fromEntries(
              Object.entries(borders).map(([side, stroke]) => [side, stroke && this.stroke(stroke)]),
            ),
          }
        : {}),
    };
  }

  /** Returns the layouts of a file on the other page. */
  layouts(layouts: NonNullable<DeckMetadata["layouts"]>): NonNullable<DeckMetadata["layouts"]> {
    const resized = Object.entries(layouts).map(([arrangement, { master, regions, slots }]) => [
      arrangement,
      {
        master: this.master(master) ?? master,
        ...(regions ? { regions: regions.map((region) => this.region(region)) } : {}),
        slots: Object.fromEntries(
          Object.entries(slots).map(([slot, { frame, style, box }]) => [
            slot,
            {
              frame: this.frame(frame),
              ...(style === undefined ? {} : { style: this.style(style) }),
              ...(box ? { box: this.box(box) } : {}),
            },
          ]),
        ),
      },
    ]);
    return Object.fromEntries(resized);
  }

  private region(region: RegionBox): RegionBox {
    const { style, box } = region;
    return {
      ...region,
      frame: this.frame(region.frame),
      ...(style === undefined ? {} : { style: this.style(style) }),
      ...(box ? { box: this.box(box) } : {}),
    };
  }

  private master(name: string | undefined): string | undefined {
    const master = name === undefined ? undefined : this.given.masters?.[name];
    if (name === undefined || !master) return name;
    const known = this.named.get(name);
    if (known !== undefined) return known;
    const made: Master = { ...master, elements: master.elements.map((element) => this.element(element)) };
    const own = valueHash(made);
    this.named.set(name, own);
    this.shared.masters[own] = made;
    return own;
  }

  private style(name: string): string {
    const style = this.given.styles?.[name];
    if (!style) return name;
    const known = this.named.get(`style ${name}`);
    if (known !== undefined) return known;
    const made: TextStyle = style.map(
      (level): LevelStyle => ({
        ...level,
        ...(level.run ? { run: this.run(level.run) } : {}),
        ...(level.paragraph ? { paragraph: this.paragraph(level.paragraph) } : {}),
      }),
    );
    const own = valueHash(made);
    this.named.set(`style ${name}`, own);
    this.shared.styles[own] = made;
    return own;
  }

  private text(text: RichText): RichText {
    return text.map(({ properties, runs, ...paragraph }) => ({
      ...paragraph,
      ...(properties ? { properties: this.paragraph(properties) } : {}),
      runs: runs.map((run) => (run.properties ? { ...run, properties: this.run(run.properties) } : run)),
    }));
  }

  private run(look: RunProperties): RunProperties {
    const { size, spacing } = look;
    return {
      ...look,
      ...(size === undefined ? {} : { size: Math.max(1, round(size * this.scale)) }),
      ...(spacing === undefined ? {} : { spacing: round(spacing * this.scale) }),
    };
  }

  private paragraph(look: ParagraphProperties): ParagraphProperties {
    const points = (name: "before" | "after" | "line") => {
      const given = look[name];
      return given && "points" in given
        ? { [name]: { points: Math.max(name === "line" ? 1 : 0, round(given.points * this.scale)) } }
        : {};
    };
    const length = (name: "left" | "right" | "first") =>
      look[name] === undefined ? {} : { [name]: round(look[name] * this.scale) };
    return {
      ...look,
      ...(look.words ? { words: this.run(look.words) } : {}),
      ...points("before"),
      ...points("after"),
      ...points("line"),
      ...length("left"),
      ...length("right"),
      ...length("first"),
      ...(look.tabs
        ? { tabs: look.tabs.map(tabParts).map(({ at, align }) => tabStop(round(at * this.scale), align)) }
        : {}),
    };
  }

  private four([left, top, right, bottom]: readonly [number, number, number, number]): [
    number,
    number,
    number,
    number,
  ] {
    return [round(left * this.scale), round(top * this.scale), round(right * this.scale), round(bottom * this.scale)];
  }
  private box(box: TextBox): TextBox {
    return {
      ...box,
      ...(box.insets ? { insets: this.four(box.insets) } : {}),
      ...(box.gap === undefined ? {} : { gap: round(box.gap * this.scale) }),
    };
  }
  private stroke(stroke: Stroke): Stroke {
    return { ...stroke, width: round(stroke.width * this.scale) };
  }
  private shadow(shadow: Shadow): Shadow {
    return { ...shadow, blur: round(shadow.blur * this.scale), distance: round(shadow.distance * this.scale) };
  }
}

/** Crops a picture whose frame changes shape on its longer sides, so that it is not distorted. */
function cropped(before: Frame, after: Frame, crop: Crop = { left: 0, top: 0, right: 0, bottom: 0 }): { crop?: Crop } {
  const [was, is] = [before.width / before.height, after.width / after.height];
  if (!Number.isFinite(was) || !Number.isFinite(is) || Math.abs(is / was - 1) < 0.001) return {};
  const share = 1 - (is < was ? is / was : was / is);
  const [first, last] = is < was ? (["left", "right"] as const) : (["top", "bottom"] as const);
  const more = ((1 - crop[first] - crop[last]) * share) / 2;
  return { crop: { ...crop, [first]: crop[first] + more, [last]: crop[last] + more } };
}

/** Returns the deck on a page of another shape. */
export function resizeDeck(deck: Deck, page: Page): Deck {
  if (page.width === deck.page.width && page.height === deck.page.height) return deck;
  const { masters: _, styles: __, ...rest } = deck;
  const refit = new PageResizer(deck.page, page, deck);
  const slides = deck.slides.map((slide) => refit.slide(slide));
  const layouts = deck.layouts && refit.layouts(deck.layouts);
  return {
    ...rest,
    page,
    ...(layouts ? { layouts } : {}),
    ...sharedItemsOf(slides, {
      masters: refit.shared.masters,
      styles: { ...deck.styles, ...refit.shared.styles },
      ...(layouts ? { layouts } : {}),
    }),
    slides,
  };
}

/**
 * Returns the change that gives a deck another page shape and fits positioned elements to it; an empty batch when the
 * deck has this page already.
 */
export function changePage(deck: Deck, page: Page): Change {
  const next = resizeDeck(deck, page);
  if (next === deck) return batch([]);
  const sharedChanges = (before: Deck, after: Deck): SingleChange[] => [
    ...Object.entries(after.masters ?? {}).flatMap(([name, master]): SingleChange[] =>
      before.masters?.[name] ? [] : [{ kind: "setMaster", name, master }],
    ),
    ...Object.entries(after.styles ?? {}).flatMap(([name, style]): SingleChange[] =>
      before.styles?.[name] ? [] : [{ kind: "setTextStyle", name, style }],
    ),
  ];
  const gone: SingleChange[] = [
    ...Object.keys(deck.masters ?? {}).flatMap((name): SingleChange[] =>
      next.masters?.[name] ? [] : [{ kind: "setMaster", name, master: null }],
    ),
    ...Object.keys(deck.styles ?? {}).flatMap((name): SingleChange[] =>
      next.styles?.[name] ? [] : [{ kind: "setTextStyle", name, style: null }],
    ),
  ];
  const slides = next.slides.flatMap((slide, nth): SingleChange[] =>
    slide === deck.slides[nth] ? [] : [{ kind: "setSlide", slide: slide.id, as: slide }],
  );
  const layouts: SingleChange[] = next.layouts ? [{ kind: "setLayouts", layouts: next.layouts }] : [];
  return batch([{ kind: "setPage", page }, ...sharedChanges(deck, next), ...layouts, ...slides, ...gone]);
}
