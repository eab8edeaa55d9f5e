import {
  type ChartElement,
  type Element,
  revealsOf,
  type Slide,
  valueHash,
  withSteps,
  withFormerNames,
} from "@unitext/core/model";
import { strFromU8, strToU8 } from "fflate";
import { checkedParts, directoryOf, type PackedPart, packedParts, unpacked, zip } from "../archive";
import { isMacro } from "./macros";
import { isChecked, safePart } from "./safe";

/**
 * Lists, in the source package, the parts that are pictures of the deck, with their hashes: they are not stored twice.
 */
const PICTURES = "unitext/pictures.json";

/** The report entry for a presentation of another program without slides. */
export const NOTHING_STANDS = {
  slide: null,
  what: "its masters and layouts",
  why: "no slide uses them, and Unitext keeps a layout with the slides that use it",
};

/** What the report says of a template without slides. */
export const LAYOUTS_SHOWN = {
  slide: null,
  what: "a template without slides",
  how: "each of its layouts is a slide; under “Design” a deck takes its look from here",
};

/** Joins names for a sentence. */
export const joinWithAnd = (names: readonly string[]): string =>
  names.length > 1 ? `${names.slice(0, -1).join(", ")} and ${names.at(-1)}` : (names[0] ?? "");

/** Returns the report entry for a damaged part that nothing visible needs. */
export const damagedPart = (path: string) => ({
  slide: null,
  what: `the part ${path}`,
  why: "it is damaged; nothing that is shown needs it",
});

/**
 * Stores a file: its parts as they are compressed, without macros and without those that the deck has as pictures,
 * which are listed in `pictures` by path with their SHA-256.
 */
export function storePackage(bytes: Uint8Array, pictures: ReadonlyMap<string, string>): Uint8Array {
  const parts = new Map<string, Uint8Array | PackedPart>(packedParts(bytes));
  for (const path of parts.keys()) if (pictures.has(path) || isMacro(path)) parts.delete(path);
  parts.set(PICTURES, strToU8(JSON.stringify(Object.fromEntries(pictures))));
  return zip(parts);
}

/**
 * Returns the name of a source package, known before the file is read: files with the same parts have the same name.
 */
export const packageName = (bytes: Uint8Array, sha256: (bytes: Uint8Array) => string): string =>
  `kept/${sha256(directoryOf(bytes)).slice(0, 24)}.zip`;

/** A source package: its parts by path, left compressed where possible. */
export class SourcePackage {
  private readonly parts: Map<string, PackedPart>;
  private readonly pictures: Record<string, string>;
  private readonly safe = new Map<string, Uint8Array | PackedPart>();
  constructor(
    readonly name: string,
    bytes: Uint8Array,
    private readonly picture: (sha256: string) => Uint8Array | undefined,
  ) {
    // A package may come with a deck from anyone: parts that lead out of the archive or can run are not used.
    this.parts = checkedParts(bytes, name);
    for (const path of this.parts.keys()) if (isMacro(path)) this.parts.delete(path);
    const list = this.parts.get(PICTURES);
    this.parts.delete(PICTURES);
    this.pictures = list ? (JSON.parse(strFromU8(unpacked(list))) as Record<string, string>) : {};
  }
  has(path: string): boolean {
    return this.parts.has(path) || path in this.pictures;
  }
  /** Returns the part as it can be written again; undefined when it is missing. */
  part(path: string): Uint8Array | PackedPart | undefined {
    const part = this.parts.get(path);
    if (!part) return this.pictures[path] === undefined ? undefined : this.picture(this.pictures[path]);
    if (!isChecked(path)) return part;
    const known = this.safe.get(path);
    if (known) return known;
    const bytes = unpacked(part);
    const safe = safePart(path, bytes);
    const shown = safe === bytes ? part : safe;
    this.safe.set(path, shown);
    return shown;
  }
  bytes(path: string): Uint8Array | undefined {
    const part = this.part(path);
    return part === undefined || part instanceof Uint8Array ? part : unpacked(part);
  }
  /** Returns a part as it came, with addresses that are never written again: to be looked at, not to be passed on. */
  original(path: string): Uint8Array | undefined {
    const part = this.parts.get(path);
    return part && unpacked(part);
  }
  get paths(): string[] {
    return [...this.parts.keys(), ...Object.keys(this.pictures)];
  }
}

/**
 * Whether a slide was read from a presentation in OpenDocument, or in Office Open XML, whose package is stored with the
 * deck.
 */
export const fromOdp = ({ sourcePart }: Slide) => sourcePart?.part.startsWith("content.xml#") ?? false;
export const fromPptx = (slide: Slide) => slide.sourcePart !== undefined && !fromOdp(slide);

/** Whether a slide of a .pptx still uses the layout of its source part, so that the part can be updated. */
export const usesSourceLayout = (slide: Slide) =>
  fromPptx(slide) && slide.master !== undefined && slide.master === (slide.sourcePart?.master ?? slide.master);

/** Returns the source part of a slide that a link leads to, so that copies with other ids have the same hash. */
export type SourcePartOf = (slide: string) => string | undefined;

/** Returns the hash of a value with the slides that it links to replaced by their source parts. */
const hashByParts = (value: unknown, partOf: SourcePartOf) =>
  valueHash(withFormerNames(value), (text) =>
    text.startsWith("slide:") ? `slide:${partOf(text.slice(6)) ?? text.slice(6)}` : text,
  );

/** Returns an element without its entrance, which files store apart from shapes. */
export function withoutMotion<E extends Element>(element: E): E {
  if (
    element.entrance === undefined &&
    (element.kind !== "text" || (element.steps === undefined && !element.text.some(({ step }) => step)))
  )
    return element;
  const { entrance: _, steps: __, ...rest } = element as Element & { steps?: boolean };
  return (
    rest.kind === "text" && rest.text.some(({ step }) => step) ? { ...rest, text: withSteps(rest.text, "each") } : rest
  ) as E;
}

/** Returns the hash of a whole element, for elements read before parts were hashed separately. */
function elementHash(given: Element, partOf: SourcePartOf): string {
  const { id: _, sourceShape: __, binding: ___, slot: ____, ...element } = withoutMotion(given);
  return hashByParts(element, partOf);
}

/** Returns the source shape of an element with the hashes of its present state. */
export function matchSourceShape(element: Element, partOf: SourcePartOf): Element["sourceShape"] {
  return element.sourceShape && { ...element.sourceShape, hash: "", ...partHashes(element, partOf) };
}

/** Whether an element is as it was read. */
export function isAsRead(element: Element, partOf: SourcePartOf): boolean {
  const { sourceShape } = element;
  if (!sourceShape) return false;
  if (sourceShape.appearanceHash === undefined) return sourceShape.hash === elementHash(element, partOf);
  const now = partHashes(element, partOf);
  return (
    now.appearanceHash === sourceShape.appearanceHash &&
    now.frameHash === sourceShape.frameHash &&
    now.textHash === sourceShape.textHash
  );
}

/** Returns a chart with its data as its text; the rest says how they are shown. */
function dataApart({ categories, series, ...looks }: Pick<ChartElement, "categories" | "series">): {
  text: unknown;
  series: unknown;
} {
  return {
    ...looks,
    text: { categories, series: series.map(({ name, values, x }) => ({ name, values, x })) },
    series: series.map(({ name: _, values: __, x: ___, ...look }) => look),
  };
}

/** Hashes of where an element is, of its text (of a chart: its data), and of everything else. */
interface PartHashes {
  frameHash: string;
  textHash: string;
  appearanceHash: string;
}

function partHashes(given: Element, partOf: SourcePartOf): PartHashes {
  const { id: _, sourceShape: __, binding: ___, slot: ____, frame, rotation, ...element } = withoutMotion(given);
  const { text, ...appearance } =
    given.sourceShape?.data && element.kind === "chart"
      ? dataApart(element)
      : (element as typeof element & { text?: unknown });
  const hash = (value: unknown) => hashByParts(value ?? null, partOf);
  return { frameHash: hash([frame, rotation]), textHash: hash(text), appearanceHash: hash(appearance) };
}

/**
 * Tells whether frame or text of an element changed since it was read; undefined where more than these changed, or
 * where it was read before parts were hashed separately.
 */
export function changedParts(element: Element, partOf: SourcePartOf): { place: boolean; text: boolean } | undefined {
  const { sourceShape } = element;
  if (sourceShape?.appearanceHash === undefined) return undefined;
  const now = partHashes(element, partOf);
  return now.appearanceHash === sourceShape.appearanceHash
    ? { place: now.frameHash !== sourceShape.frameHash, text: now.textHash !== sourceShape.textHash }
    : undefined;
}

const STILL = valueHash([]);

/** Returns the hash of how the elements of a slide appear, by their source shapes. */
export function motionHash(slide: Slide): string {
  const reveals = revealsOf(slide);
  if (!reveals.length) return STILL;
  const shapes = new Map(slide.elements.map(({ id, sourceShape }) => [id, sourceShape?.shape ?? id]));
  return valueHash(reveals.map((reveal) => ({ ...reveal, element: shapes.get(reveal.element) })));
}

/** Returns the hash of a slide without its elements, notes and comments. */
export function slideHash({ hidden, background, transition, delay, master, regions }: Slide): string {
  return valueHash({ hidden, background, transition, delay, master, regions });
}

/** Returns the hash that earlier versions stored for a slide, which had its comments in it. */
function slideHashWithComments({ hidden, background, transition, delay, master, regions, comments }: Slide): string {
  const plain = comments?.map(({ author, text, date }) => ({ author, text, ...(date ? { date } : {}) }));
  return valueHash({ hidden, background, transition, delay, master, regions, comments: plain });
}

/** Whether a slide, its elements, notes and comments aside, is as it was read from its file. */
export function isSlideAsRead(slide: Slide): boolean {
  const { sourcePart } = slide;
  if (!sourcePart) return false;
  const hash = sourcePart.commentsHash === undefined ? slideHashWithComments(slide) : slideHash(slide);
  return hash === sourcePart.hash;
}

export const commentsHash = ({ comments }: Slide) => valueHash(comments ?? []);

/** Whether the comments of a slide are those that its file has. */
export const sameComments = (slide: Slide) =>
  slide.sourcePart?.commentsHash === undefined || slide.sourcePart.commentsHash === commentsHash(slide);

export const backgroundHash = ({ background }: Slide) => valueHash(background ?? null);
export const transitionHash = ({ transition, delay }: Slide) => valueHash([transition ?? null, delay ?? null]);

/** Whether a slide's elements appear as they did in its file. */
export const sameMotion = (slide: Slide) =>
  slide.sourcePart?.motionHash === undefined || slide.sourcePart.motionHash === motionHash(slide);

/** Returns the hash of a slide's notes, with links as the parts that they lead to. */
export function notesHash({ notes }: Slide, partOf: SourcePartOf): string {
  return hashByParts(notes, partOf);
}
