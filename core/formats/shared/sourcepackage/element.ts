import {
  Binding,
  Element,
  type Footnote,
  Frame,
  Id,
  PictureElement,
  RichText,
  TextElement,
  textOf,
} from "@unitext/core/model";
import { withoutMotion } from "./package";
import { flattenRuns, footnoteText, needsExtendedRuns } from "./flatten";

/** An element as stored in a file's tags; invalid parts are ignored. */
export interface ElementTags {
  readonly id?: string | undefined;
  readonly slot?: string | null | undefined;
  readonly frame?: Frame | undefined;
  readonly binding?: Binding | undefined;
  readonly source?: string | undefined;
  /** All of the element, where the file can only show it. */
  readonly whole?: Element | undefined;
  /** Fields beside its text or file: style, box, fill, rotation, crop. */
  readonly facts?: Partial<Element> | undefined;
  /** A text with content for which the file has no runs. */
  readonly text?: RichText | undefined;
  /** Whether this is the box that lists footnotes, which belong to their text. */
  readonly footnotes?: boolean | undefined;
  /** The hash of the shape as it was written, or of its place and appearance. */
  readonly hash?: string | undefined;
  readonly caption?: string | undefined;
  readonly width?: number | undefined;
}

/** Returns the words of a text with white space normalised. */
export function wordsOf(text: RichText): string {
  return textOf(text).replace(/\s+/g, " ").trim();
}

function factsOf(element: Element, without: readonly string[]): Partial<Element> {
  return Object.fromEntries(Object.entries(element).filter(([name]) => !without.includes(name))) as Partial<Element>;
}

/**
 * Returns a stored value as far as it is valid. Missing values are not checked: a failing check costs more than all
 * that pass.
 */
export function parseOptional<T>(
  schema: { safeParse(value: unknown): { success: boolean; data?: T | undefined } },
  value: unknown,
): T | undefined {
  return value === undefined ? undefined : schema.safeParse(value).data;
}

/** Returns a lookup of the elements in a slide's tags, each read once, when it is first asked for. */
export function elementTags(values: Record<string, unknown>): (name: string) => ElementTags {
  const read = new Map<string, ElementTags>();
  return (name) => {
    const known = read.get(name) ?? readElementTags(Object.hasOwn(values, name) ? values[name] : undefined);
    read.set(name, known);
    return known;
  };
}

/** The fields that every kind of element has, and those that are read separately. */
const LOOKS = Object.keys(TextElement.shape).filter((name) => !["kind", "text"].includes(name));
const APART = new Set([
  "kind",
  "id",
  "slot",
  "frame",
  "binding",
  "source",
  "text",
  "footnotes",
  "caption",
  "width",
  "hash",
]);

/**
 * Returns the fields of an element beside its text or file. Checking a schema costs more than everything else, so
 * elements without such fields are not checked.
 */
function taggedFields(value: object, whole: Element | undefined, source: unknown): Partial<Element> | undefined {
  if (whole)
    return Object.fromEntries(
      LOOKS.filter((name) => name in whole).map((name) => [name, whole[name as keyof Element]]),
    );
  const picture =
    typeof source === "string" ? PictureElement.safeParse({ ...value, kind: "picture", alt: "" }).data : undefined;
  if (picture) return factsOf(picture, ["kind", "alt", "source"]);
  if (Object.keys(value).every((name) => APART.has(name))) return {};
  const text = TextElement.safeParse({ ...value, kind: "text", text: [] }).data;
  return text && factsOf(text, ["kind", "text"]);
}

/**
 * One element of the tags, each part checked when it is asked for; what was checked with the whole is not checked
 * again.
 */
class Kept implements ElementTags {
  readonly whole: Element | undefined;
  readonly id: string | undefined;
  private cachedFacts: { facts: Partial<Element> | undefined } | undefined;
  constructor(private readonly value: Record<string, unknown>) {
    this.whole = "kind" in value ? Element.safeParse(value).data : undefined;
    this.id = this.whole?.id ?? parseOptional(Id, value.id);
  }
  get slot() {
    const { slot } = this.value;
    return slot === null || typeof slot === "string" ? slot : undefined;
  }
  get frame() {
    return this.whole ? this.whole.frame : parseOptional(Frame, this.value.frame);
  }
  get binding() {
    return this.whole ? this.whole.binding : parseOptional(Binding, this.value.binding);
  }
  get source() {
    const { source } = this.value;
    return typeof source === "string" && source ? source : undefined;
  }
  get facts() {
    this.cachedFacts ??= { facts: taggedFields(this.value, this.whole, this.value.source) };
    return this.cachedFacts.facts;
  }
  get text() {
    return parseOptional(RichText, this.value.text);
  }
  get footnotes() {
    return this.value.footnotes === true;
  }
  get hash() {
    const { hash } = this.value;
    return typeof hash === "string" ? hash : undefined;
  }
  get caption() {
    const { caption } = this.value;
    return typeof caption === "string" ? caption : undefined;
  }
  get width() {
    const { width } = this.value;
    return typeof width === "number" && width >= 1 && width <= 100 ? width : undefined;
  }
}

/** Reads an element from the tags; an invalid value gives an empty one. */
export function readElementTags(value: unknown): ElementTags {
  return typeof value === "object" && value !== null ? new Kept(value as Record<string, unknown>) : {};
}

/** Returns the text of the tags as long as the file still has the same words; else the text of the file. */
export function textTag(kept: RichText | undefined, read: RichText, said: Footnote[], withNotes = false): RichText {
  if (!kept) return read;
  const flat = flattenRuns(kept, said);
  return wordsOf(read) === wordsOf(withNotes ? [...flat, ...footnoteText(said)] : flat) ? kept : read;
}

/**
 * Returns what is stored in the tags of an element beside what the file itself says; all of it where the file can only
 * show it.
 */
export function tagsOf(given: Element): object {
  const own = withoutMotion(given);
  if (own.kind === "text") {
    const { sourceShape: _, kind: __, text, ...facts } = own;
    return needsExtendedRuns(text) ? { ...facts, text } : facts;
  }
  if (own.kind === "picture") {
    const { sourceShape: _, kind: __, alt: ___, ...facts } = own;
    return facts;
  }
  const { sourceShape: _, ...element } = own;
  return element;
}
