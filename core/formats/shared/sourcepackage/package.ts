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

/** Lists, in the kept file, the parts that are pictures of the deck, with their sums: they are not kept twice. */
const PICTURES = "unitext/pictures.json";

/** What is said of a presentation of another program in which no slide stands. */
export const NOTHING_STANDS = {
  slide: null,
  what: "its masters and layouts",
  why: "no slide stands on them, and Unitext keeps what stands behind slides with the slides",
};

/** Names in a sentence. */
export const joinWithAnd = (names: readonly string[]): string =>
  names.length > 1 ? `${names.slice(0, -1).join(", ")} and ${names.at(-1)}` : (names[0] ?? "");

/** What is said of a part that is damaged and that nothing shown needs. */
export const damagedPart = (path: string) => ({
  slide: null,
  what: `the part ${path}`,
  why: "it is damaged; nothing that is shown needs it",
});

/** A file as it is kept: its parts as they lay packed, without those that the deck has as pictures, `pictures` by path with their SHA-256, and without macros. */
export function storePackage(bytes: Uint8Array, pictures: ReadonlyMap<string, string>): Uint8Array {
  const parts = new Map<string, Uint8Array | PackedPart>(packedParts(bytes));
  for (const path of parts.keys()) if (pictures.has(path) || isMacro(path)) parts.delete(path);
  parts.set(PICTURES, strToU8(JSON.stringify(Object.fromEntries(pictures))));
  return zip(parts);
}

/** The name under which a file is kept, known before it has been read: files with the same parts have the same. */
export const packageName = (bytes: Uint8Array, sha256: (bytes: Uint8Array) => string): string =>
  `kept/${sha256(directoryOf(bytes)).slice(0, 24)}.zip`;

/** A kept file opened: its parts by path, packed where they can stay so. */
export class SourcePackage {
  private readonly parts: Map<string, PackedPart>;
  private readonly pictures: Record<string, string>;
  private readonly safe = new Map<string, Uint8Array | PackedPart>();
  constructor(
    readonly name: string,
    bytes: Uint8Array,
    private readonly picture: (sha256: string) => Uint8Array | undefined,
  ) {
    // A kept file may have come with a deck of any sender: what leads out of the archive or can run is not in it.
    this.parts = checkedParts(bytes, name);
    for (const path of this.parts.keys()) if (isMacro(path)) this.parts.delete(path);
    const list = this.parts.get(PICTURES);
    this.parts.delete(PICTURES);
    this.pictures = list ? (JSON.parse(strFromU8(unpacked(list))) as Record<string, string>) : {};
  }
  has(path: string): boolean {
    return this.parts.has(path) || path in this.pictures;
  }
  /** The part as it can be written again; undefined where the file lacks it or its picture is gone. */
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
  get paths(): string[] {
    return [...this.parts.keys(), ...Object.keys(this.pictures)];
  }
}

/** Whether a slide was read from a presentation in OpenDocument, or in Office Open XML, which is kept with the deck. */
export const fromOdp = ({ sourcePart }: Slide) => sourcePart?.part.startsWith("content.xml#") ?? false;
export const fromPptx = (slide: Slide) => slide.sourcePart !== undefined && !fromOdp(slide);
/** Whether a slide of a .pptx still stands on the layout that its part names, so that the part is written on. */
export const usesSourceLayout = (slide: Slide) =>
  fromPptx(slide) && slide.master !== undefined && slide.master === (slide.sourcePart?.master ?? slide.master);

/** Names a slide that a link leads to by the part of the file that it was read from, so that copies with other ids are the same. */
export type SourcePartOf = (slide: string) => string | undefined;

/** The sum of a value with the slides that it leads to by their parts. */
const hashByParts = (value: unknown, partOf: SourcePartOf) =>
  valueHash(withFormerNames(value), (text) =>
    text.startsWith("slide:") ? `slide:${partOf(text.slice(6)) ?? text.slice(6)}` : text,
  );

/** An element without what is said of its coming in, which files say apart from their shapes. */
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

/** The sum of what an element is and shows, by which those are known that were read before their parts were summed. */
function elementHash(given: Element, partOf: SourcePartOf): string {
  const { id: _, sourceShape: __, binding: ___, slot: ____, ...element } = withoutMotion(given);
  return hashByParts(element, partOf);
}

/** What an element was read from, with the sums by which is known what of it is as it was. */
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

/** A chart with its data in the place of words: what is left says how they are shown. */
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

/** What of an element is not as it was read, where its looks are; undefined where more than place and words changed, or a file was read before this was noted. */
export function changedParts(element: Element, partOf: SourcePartOf): { place: boolean; text: boolean } | undefined {
  const { sourceShape } = element;
  if (sourceShape?.appearanceHash === undefined) return undefined;
  const now = partHashes(element, partOf);
  return now.appearanceHash === sourceShape.appearanceHash
    ? { place: now.frameHash !== sourceShape.frameHash, text: now.textHash !== sourceShape.textHash }
    : undefined;
}

const STILL = valueHash([]);
/** The sum of how the elements of a slide come in, by the shapes that they are in their file. */
export function motionHash(slide: Slide): string {
  const reveals = revealsOf(slide);
  if (!reveals.length) return STILL;
  const shapes = new Map(slide.elements.map(({ id, sourceShape }) => [id, sourceShape?.shape ?? id]));
  return valueHash(reveals.map((reveal) => ({ ...reveal, element: shapes.get(reveal.element) })));
}

/** The sum of what a slide is beside its elements and notes. */
export function slideHash({ hidden, background, transition, delay, master, regions, comments }: Slide): string {
  return valueHash({ hidden, background, transition, delay, master, regions, comments });
}

export const backgroundHash = ({ background }: Slide) => valueHash(background ?? null);
export const transitionHash = ({ transition, delay }: Slide) => valueHash([transition ?? null, delay ?? null]);

/** Whether a slide's elements come in as they did in its file. */
export const sameMotion = (slide: Slide) =>
  slide.sourcePart?.motionHash === undefined || slide.sourcePart.motionHash === motionHash(slide);

export function notesHash({ notes }: Slide, partOf: SourcePartOf): string {
  return hashByParts(notes, partOf);
}
