import { boxesOf, overflowOf, type SlideContext } from "@unitext/core/layout";
import {
  type Element,
  mapElementTexts,
  must,
  type RichText,
  type Slide,
  type TableElement,
  type TextElement,
  textOf,
} from "@unitext/core/model";

/** An element whose text does not fit: its overflow in points, and about how many characters are too many. */
export interface Misfit {
  element: string;
  overflow: number;
  characters: number;
}

/** A way to make a slide fit, with the slides that result; each has been laid out and fits. */
export interface Remedy {
  kind: "smaller" | "continue";
  slides: [slide: Slide, ...next: Slide[]];
}

/** How a slide fits: what overflows, and what would help beside shorter texts. */
export interface SlideFit {
  overflow: number;
  misfits: Misfit[];
  remedies: Remedy[];
}

/**
 * Returns how a slide fits and what would make it fit: smaller letters than the theme's steps, or the
 * rest on next slides. `newId` names the new slide and its elements.
 */
export function fitOf(slide: Slide, context: SlideContext, newId: () => string): SlideFit {
  const overflow = overflowOf(slide, context);
  if (overflow <= 0) return { overflow, misfits: [], remedies: [] };
  const misfits = [...boxesOf(slide, context)].flatMap(([element, box]) =>
    box.overflow > 0
      ? [{ element, overflow: box.overflow, characters: charactersTooMany(slide, element, context) }]
      : [],
  );
  const fits = (one: Slide) => overflowOf(one, context) <= 0;
  const ids = new Set(misfits.map(({ element }) => element));
  const remedies: Remedy[] = [];
  const smaller = { ...slide, elements: slide.elements.map((one) => (ids.has(one.id) ? shrinking(one) : one)) };
  if (fits(smaller)) remedies.push({ kind: "smaller", slides: [smaller] });
  const [only] = misfits.length === 1 ? misfits : [];
  const divided = only && dividedSlide(slide, only.element, fits, newId);
  if (divided) remedies.push({ kind: "continue", slides: divided });
  return { overflow, misfits, remedies };
}

const changed = (slide: Slide, id: string, change: (element: Element) => Element): Slide => ({
  ...slide,
  elements: slide.elements.map((element) => (element.id === id ? change(element) : element)),
});

/** Returns how many characters at the end of an element's last text have to go until the element fits. */
function charactersTooMany(slide: Slide, id: string, context: SlideContext): number {
  const element = must(slide.elements.find((one) => one.id === id));
  const texts: RichText[] = [];
  mapElementTexts(element, (text) => {
    texts.push(text);
    return text;
  });
  const total = texts.reduce((sum, text) => sum + textOf(text).length, 0);
  const fitsWithout = (count: number) => {
    let left = total - count;
    const shorter = changed(slide, id, (one) =>
      mapElementTexts(one, (text) => {
        const cut = beginning(text, left);
        left -= textOf(text).length;
        return cut;
      }),
    );
    return (boxesOf(shorter, context).get(id)?.overflow ?? 0) <= 0;
  };
  let [low, high] = [0, total];
  while (high - low > Math.max(1, total / 64)) {
    const middle = Math.ceil((low + high) / 2);
    if (fitsWithout(middle)) high = middle;
    else low = middle;
  }
  return high;
}

/** Returns the first characters of a text; paragraphs after them are left out. */
function beginning(text: RichText, count: number): RichText {
  let left = count;
  return text.flatMap((paragraph) => {
    if (left <= 0) return [];
    const runs = paragraph.runs.map((item) => {
      const taken = item.text.slice(0, Math.max(0, left));
      left -= item.text.length;
      return { ...item, text: taken };
    });
    return [{ ...paragraph, runs }];
  });
}

/** Lets a text shrink until it fits, below the readable minimum of the theme too. */
const shrinking = (element: Element): Element =>
  element.kind === "text" || element.kind === "shape"
    ? { ...element, box: { ...(element.box ?? (element.style ? {} : { insets: [0, 0, 0, 0] })), fit: "shrink" } }
    : element;

/** Divides a slide where the text or table that is too long has to be continued; undefined where no part fits. */
function dividedSlide(
  slide: Slide,
  id: string,
  fits: (slide: Slide) => boolean,
  newId: () => string,
): [Slide, ...Slide[]] | undefined {
  const element = slide.elements.find((one) => one.id === id);
  if (element?.kind !== "text" && element?.kind !== "table") return undefined;
  const parts = element.kind === "text" ? element.text.length : element.rows.length;
  const title = slide.elements.find(({ slot }) => slot === "title");
  // A linked table is one range of its workbook.
  if (element === title || element.binding) return undefined;
  for (let at = parts - 1; at > (element.kind === "table" ? element.header : 0); at--) {
    if (element.kind === "table" && isCut(element, at)) continue;
    const [begin, next] = dividedAt(slide, element, at, newId);
    if (!fits(begin)) continue;
    if (fits(next)) return [begin, next];
    const following = dividedSlide(next, must(next.elements.at(-1)).id, fits, newId);
    return following && [begin, ...following];
  }
  return undefined;
}

/** Divides a slide before a paragraph of its text or a row of its table; the rest is on a next slide under the same title. */
export function dividedAt(
  slide: Slide,
  element: TextElement | TableElement,
  at: number,
  newId: () => string,
): [begin: Slide, next: Slide] {
  const [first, rest] = element.kind === "text" ? dividedText(element, at) : dividedTable(element, at);
  const title = slide.elements.find(({ slot }) => slot === "title");
  const { transition: _, source: __, origin: ___, sourcePart: ____, ...same } = slide;
  const elements = [...(title ? [title] : []), rest].map(({ sourceShape: _____, ...one }) => ({ ...one, id: newId() }));
  return [changed(slide, element.id, () => first), { ...same, id: newId(), notes: [], elements }];
}

function dividedText(element: TextElement, at: number): [TextElement, TextElement] {
  return [
    { ...element, text: element.text.slice(0, at) },
    { ...element, text: element.text.slice(at) },
  ];
}

/** Divides a table between two rows; the header is repeated. */
function dividedTable(element: TableElement, at: number): [TableElement, TableElement] {
  const { rows, header, heights } = element;
  const part = (some: number[]): TableElement => ({
    ...element,
    rows: some.map((row) => must(rows[row])),
    ...(heights ? { heights: some.map((row) => heights[row] ?? 0) } : {}),
  });
  const all = [...rows.keys()];
  return [part(all.slice(0, at)), part([...all.slice(0, header), ...all.slice(at)])];
}

/** Whether a cell of a table reaches over the edge above a row. */
const isCut = ({ rows }: TableElement, at: number) =>
  rows.some((row, nth) => row.some((cell) => nth < at && nth + (cell?.rows ?? 1) > at));
