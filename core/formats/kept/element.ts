import { Binding, Element, type Footnote, type Frame, Id, PictureElement, RichText, TextElement, textOf } from "@unitext/core/model";
import { still } from "./file";
import { flattened, footnoteText, isSpecial } from "./special";

/** What the tags keep of an element; anything that does not check is passed over. */
export interface KeptElement {
  id?: string;
  slot?: string | null;
  frame?: Frame;
  binding?: Binding;
  source?: string;
  /** All of it, where the file can only show it. */
  whole?: Element;
  /** What it is beside its text or its file: style, box, fill, turn, crop. */
  facts?: Partial<Element>;
  /** A text with what the file has no run for. */
  text?: RichText;
  /** The box that lists footnotes, which belong to their text. */
  footnotes?: boolean;
  /** The sum of the shape as it was written, or of how it stands and looks. */
  sum?: string;
  caption?: string;
  width?: number;
}

/** The words of a text whatever the white space between them. */
export function wordsOf(text: RichText): string {
  return textOf(text).replace(/\s+/g, " ").trim();
}

function factsOf(element: Element, without: readonly string[]): Partial<Element> {
  return Object.fromEntries(Object.entries(element).filter(([name]) => !without.includes(name))) as Partial<Element>;
}

/** A kept value as far as it checks. What is not there is not tried: a check that fails costs more than all that hold. */
export function held<T>(schema: { safeParse(value: unknown): { success: boolean; data?: T | undefined } }, value: unknown): T | undefined {
  return value === undefined ? undefined : schema.safeParse(value).data;
}

export function keptElement(value: unknown): KeptElement {
  if (typeof value !== "object" || value === null) return {};
  const { id, slot, frame, binding, source, text, footnotes, caption, width, sum } = value as Record<string, unknown>;
  const whole = "kind" in value ? Element.safeParse(value) : { success: false as const };
  const rich = text === undefined ? { success: false as const } : RichText.safeParse(text);
  const asPicture = typeof source === "string" && !whole.success ? PictureElement.safeParse({ ...value, kind: "picture", alt: "" }) : { success: false as const };
  const asText = asPicture.success ? { success: false as const } : TextElement.safeParse({ ...value, kind: "text", text: rich.success ? rich.data : [] });
  const [ownId, bound] = [held(Id, id), held(Binding, binding)];
  const facts = asPicture.success ? factsOf(asPicture.data, ["kind", "alt", "source"]) : asText.success ? factsOf(asText.data, ["kind", "text"]) : undefined;
  return {
    ...(whole.success ? { whole: whole.data } : {}),
    ...(facts ? { facts } : {}),
    ...(rich.success ? { text: rich.data } : {}),
    ...(footnotes === true ? { footnotes } : {}),
    ...(typeof sum === "string" ? { sum } : {}),
    ...(typeof caption === "string" ? { caption } : {}),
    ...(typeof width === "number" && width >= 1 && width <= 100 ? { width } : {}),
    ...(ownId === undefined ? {} : { id: ownId }),
    ...(slot === null || typeof slot === "string" ? { slot } : {}),
    ...(frame && typeof frame === "object" ? { frame: frame as Frame } : {}),
    ...(bound ? { binding: bound } : {}),
    ...(typeof source === "string" && source ? { source } : {}),
  };
}

/** The text that the tags keep, as long as the file still says the same words; else what the file says. */
export function keptText(kept: RichText | undefined, read: RichText, said: Footnote[], withNotes = false): RichText {
  if (!kept) return read;
  const flat = flattened(kept, said);
  return wordsOf(read) === wordsOf(withNotes ? [...flat, ...footnoteText(said)] : flat) ? kept : read;
}

/** What the tags keep of an element beside what the file itself says; all of it where the file can only show it. */
export function keptOf(given: Element): object {
  const { kept: _, ...own } = still(given);
  const element = own as Element;
  if (element.kind === "text") {
    const { kind: __, text, ...facts } = element;
    return isSpecial(text) ? { ...facts, text } : facts;
  }
  if (element.kind === "picture") {
    const { kind: __, alt: ___, ...facts } = element;
    return facts;
  }
  return element;
}
