import { type ArrangementName, isTitleRole } from "./arrangement";
import type { Deck, DeckMetadata, FileLayout, Slide } from "./deck";
import { canonical, valueHash } from "./hash";
import type { LevelStyle, TextStyle } from "./look";
import { roleOf } from "./read";
import type { RichText } from "./richtext";
import type { Page } from "./units";

type Layouts = NonNullable<DeckMetadata["layouts"]>;

/** A text style that has also what the words of a slide set themselves, level by level. */
function styleOf(text: RichText, base: TextStyle = []): TextStyle | undefined {
  const deepest = Math.min(9, Math.max(base.length, ...text.map(({ level }) => level + 1)));
  const levels = Array.from({ length: deepest }, (_, level): LevelStyle => {
    const own = base[Math.min(level, base.length - 1)] ?? {};
    const paragraph = text.find((one) => one.level === level && one.runs.some(({ text: said }) => said.trim()));
    const run = paragraph?.runs.find(({ text: said }) => said.trim());
    if (!paragraph || !run) return own;
    const { words: ofMark, ...properties } = paragraph.properties ?? {};
    const align = paragraph.align ?? own.align;
    return {
      ...own,
      run: { ...own.run, ...run.properties },
      paragraph: { ...own.paragraph, ...properties },
      ...(align ? { align } : {}),
      ...(run.marks?.includes("strong") ? { strong: true } : {}),
      ...(run.marks?.includes("emphasis") ? { emphasis: true } : {}),
    };
  });
  return levels.length && canonical(levels) !== canonical(levels.map(() => ({}))) ? levels : undefined;
}

/** Returns the layout that a slide of a file has; undefined for one that does not place its title. Adds to `styles`. */
function layoutOf(
  slide: Slide,
  known: DeckMetadata["styles"],
  styles: Record<string, TextStyle>,
): FileLayout | undefined {
  const { master, regions } = slide;
  if (master === undefined) return undefined;
  const slots: FileLayout["slots"] = {};
  for (const element of slide.elements) {
    const { slot, frame, box } = element;
    if (slot === null || !frame || slots[slot]) continue;
    // Text that is too long for its place on one slide continues on the next one.
    const { fit: _, ...own } = box ?? {};
    const isText = element.kind === "text";
    const style = isText ? styleOf(element.text, known?.[element.style ?? ""]) : undefined;
    const name = style && valueHash(style);
    if (style && name !== undefined) styles[name] = style;
    slots[slot] = {
      frame,
      ...(name === undefined ? {} : { style: name }),
      ...(isText && Object.keys(own).length ? { box: own } : {}),
    };
  }
  return slots.title ? { master, ...(regions ? { regions } : {}), slots } : undefined;
}

/** Returns how many elements of a slide are in no slot, and not of its layout. */
const ownElements = ({ elements }: Slide): number => elements.filter(({ slot }) => slot === null).length;

/** The share of the page's height that a place for text has at least, and down to which a title stands above it. */
const TEXT = 0.3;
const TITLE = 0.4;
/** The space between a title and the text below it, and above the foot, in points on a page 540 points high. */
const GAP = 16;

/**
 * Returns the arrangement of which a slide shows the layout: a first slide with a line of text below its title opens the
 * deck, whatever its file calls it; points need room for text.
 */
function shownBy(slide: Slide, nth: number, layout: FileLayout, page: Page): [ArrangementName, FileLayout] | undefined {
  const { title, body, ...slots } = layout.slots;
  const hasRoom = body !== undefined && body.frame.height >= page.height * TEXT;
  if (slide.arrangement !== "points" || hasRoom) return [slide.arrangement, layout];
  if (nth > 0 || !title || !body) return undefined;
  return ["opening", { ...layout, slots: { ...slots, title, subtitle: body } }];
}

/** Returns a layout for points made of one that has a title above room for text; undefined where none has. */
function withTextBelow(layouts: Layouts, page: Page): FileLayout | undefined {
  const { width, height } = page;
  const titled = Object.values(layouts).find(
    ({ slots: { title } }) => title && title.frame.y + title.frame.height <= height * TITLE,
  );
  const title = titled?.slots.title;
  if (!titled || !title) return undefined;
  const gap = (GAP * height) / 540;
  const { x, y, height: high } = title.frame;
  const foot = Math.min(
    height - 2 * gap,
    ...(titled.regions ?? []).flatMap(({ frame }) => (frame.y > height / 2 ? [frame.y] : [])),
  );
  const top = y + high + gap;
  const frame = { x, y: top, width: Math.max(title.frame.width, width - 2 * x), height: foot - gap - top };
  return { ...titled, slots: { title, body: { frame } } };
}

/** The layouts of a file, and the text styles of their slots, by name. */
export interface FoundLayouts {
  layouts: Layouts;
  styles: Record<string, TextStyle>;
}

/**
 * Returns the layouts of the file that the slides of a deck came from, by arrangement: each as the slide has it that has
 * least beside it. Undefined where no slide of a file has a title above room for text.
 */
export function layoutsOf(deck: Pick<Deck, "slides" | "page" | "styles">): FoundLayouts | undefined {
  const { slides, page } = deck;
  const styles: Record<string, TextStyle> = {};
  const found: Layouts = {};
  const least = new Map<ArrangementName, number>();
  slides.forEach((slide, nth) => {
    const layout = layoutOf(slide, deck.styles, styles);
    const shown = layout && shownBy(slide, nth, layout, page);
    if (!shown) return;
    const [arrangement, own] = shown;
    const beside = ownElements(slide);
    if (beside >= (least.get(arrangement) ?? Number.POSITIVE_INFINITY)) return;
    least.set(arrangement, beside);
    found[arrangement] = own;
  });
  const points = found.points ?? withTextBelow(found, page);
  return points?.slots.body ? { layouts: { ...found, points }, styles } : undefined;
}

/**
 * Returns the layout for an arrangement: its own, for a section opener that of the opening, or that of points, whose places
 * the others share.
 */
export const fileLayoutFor = (arrangement: ArrangementName, layouts: Layouts): FileLayout | undefined =>
  layouts[arrangement] ?? (arrangement === "section" ? layouts.opening : undefined) ?? layouts.points;

const inLayoutOnce = new WeakMap<Slide, { layouts: Layouts; slide: Slide }>();

/** Whether a slide was made in the layout of a file, and is not one of the file. */
export const isInFileLayout = ({ master, sourcePart }: Slide): boolean =>
  master !== undefined && sourcePart === undefined;

/** Returns a slide that was made from text in the layouts of a file; a slide of a file stays as it is. */
export function inFileLayout(slide: Slide, layouts: Layouts | undefined): Slide {
  const layout = layouts && slide.master === undefined ? fileLayoutFor(slide.arrangement, layouts) : undefined;
  if (!layout || !layouts) return slide;
  const known = inLayoutOnce.get(slide);
  if (known?.layouts === layouts) return known.slide;
  const made: Slide = {
    ...slide,
    master: layout.master,
    ...(layout.regions ? { regions: layout.regions } : {}),
    elements: slide.elements.map((element) => {
      if (element.kind !== "text" || element.style !== undefined || element.frame || element.slot === null)
        return element;
      const role = roleOf(slide, element);
      // The text of a column has the style of the body.
      const place =
        layout.slots[element.slot] ?? layout.slots[isTitleRole(role) ? "title" : role === "body" ? "body" : ""];
      if (!place) return element;
      return {
        ...element,
        ...(place.style === undefined ? {} : { style: place.style }),
        ...(place.box ? { box: isTitleRole(role) ? { ...place.box, fit: "shrink" } : place.box } : {}),
      };
    }),
  };
  inLayoutOnce.set(slide, { layouts, slide: made });
  return made;
}
