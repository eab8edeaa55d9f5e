import { scanXml } from "../../../shared/xml";

/** An element of a page as a range of its part's text; `inner` are its members, where it is a group or an anchor. */
export interface ElementRange {
  name: string;
  from: number;
  to: number;
  inner: ElementRange[];
}
export interface PageRange extends ElementRange {
  /** Where its opening tag ends. */
  open: number;
}
/** The content part of a presentation as text, with the ranges of its pieces. */
export interface ContentRanges {
  text: string;
  /** The end of the root element's name, where namespaces go. */
  root: number;
  namespaces: ReadonlyMap<string, string>;
  /** Where the automatic styles end, before their closing tag; undefined when they are missing or empty. */
  styles: number | undefined;
  body: number;
  pages: PageRange[];
  pagesEnd: number;
}

const local = (name: string) => name.slice(name.indexOf(":") + 1);
const HOLDERS = new Set(["g", "a"]);

/**
 * Finds the pages of a content part in its text, and their elements in reading order. Throws a Failure when it is not
 * well-formed.
 */
export function contentRanges(text: string, where: string): ContentRanges {
  const namespaces = new Map<string, string>();
  const found: ContentRanges = { text, root: 0, namespaces, styles: undefined, body: 0, pages: [], pagesEnd: 0 };
  const stack: { name: string; from: number; slice?: ElementRange }[] = [];
  const opened = (tag: string, attributes: Record<string, string>, from: number, open: number) => {
    const name = local(tag);
    const above = stack.at(-1);
    const entry: (typeof stack)[number] = { name, from };
    if (stack.length === 0) {
      found.root = from + 1 + tag.length;
      for (const [key, value] of Object.entries(attributes)) if (key.startsWith("xmlns:")) namespaces.set(key, value);
    }
    if (stack.length === 1 && name === "body") found.body = from;
    if (name === "page" && above?.name === "presentation") {
      const page: PageRange = { name, from, to: open, open, inner: [] };
      found.pages.push(page);
      entry.slice = page;
    } else if (above?.slice && (above.name === "page" || HOLDERS.has(above.name))) {
      const slice: ElementRange = { name, from, to: open, inner: [] };
      above.slice.inner.push(slice);
      entry.slice = slice;
    }
    stack.push(entry);
  };
  const close = (closing: number, to: number) => {
    const entry = stack.pop();
    if (!entry) return;
    if (entry.slice) entry.slice.to = to;
    if (stack.length === 1 && entry.name === "automatic-styles" && closing > entry.from) found.styles = closing;
    if (entry.name === "presentation" && stack.length === 2) found.pagesEnd = closing;
  };
  scanXml(text, where, { open: opened, close });
  return found;
}

/** Returns the range of an element by its path, such as `3.1`. */
export function rangeAt(page: PageRange, place: string): ElementRange | undefined {
  return place.split(".").reduce<ElementRange | undefined>((slice, nth) => slice?.inner[Number(nth)], page);
}
