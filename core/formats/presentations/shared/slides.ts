import {
  type DeckMetadata,
  filesOf,
  Id,
  type Master,
  mapElementLinks,
  mapLinks,
  type Slide,
  type TextStyle,
  titleOf,
} from "@unitext/core/model";
import {
  backgroundHash,
  matchSourceShape,
  motionHash,
  notesHash,
  repairNesting,
  slideHash,
  commentsHash,
  type SourcePartOf,
  storePackage,
  transitionHash,
} from "../../shared/sourcepackage";
import { type ImportedFiles, isBatch, type ReadBatch } from "./reading";

/** Returns an id for each slide: that in its tags, or a new one where it has none or another slide has the same. */
export function slideIds(tagged: readonly unknown[], newId: () => string): string[] {
  const taken = new Set<string>();
  return tagged.map((value) => {
    const given = Id.safeParse(value);
    const id = given.success && !taken.has(given.data) ? given.data : newId();
    taken.add(id);
    return id;
  });
}

/** Returns a slide without links to slides that are not among `ids`; their words stay. */
export function withExistingLinks(slide: Slide, ids: { has(id: string): boolean }): Slide {
  const existing = (to: string) => (to.startsWith("slide:") && !ids.has(to.slice(6)) ? undefined : to);
  return {
    ...slide,
    notes: mapLinks(slide.notes, existing),
    elements: slide.elements.map((element) => mapElementLinks(element, existing)),
  };
}

/** Returns a slide with hashes by which unchanged parts of its source package are recognised when it is written. */
export function withHashes(slide: Slide, file: string, partOf: SourcePartOf): Slide {
  if (!slide.sourcePart) return slide;
  return {
    ...slide,
    elements: slide.elements.map((element) => {
      const sourceShape = matchSourceShape(element, partOf);
      return sourceShape ? { ...element, sourceShape } : element;
    }),
    sourcePart: {
      file,
      part: slide.sourcePart.part,
      hash: slideHash(slide),
      notesHash: notesHash(slide, partOf),
      backgroundHash: backgroundHash(slide),
      transitionHash: transitionHash(slide),
      motionHash: motionHash(slide),
      commentsHash: commentsHash(slide),
      ...(slide.master === undefined ? {} : { master: slide.master }),
      shapes: slide.elements.flatMap((element) => (element.sourceShape ? [element.sourceShape.shape] : [])),
    },
  };
}

/** Stores a file with its deck, without the parts in `taken` (by path, with their hashes), which are stored already. */
export function addPackage(
  name: string,
  bytes: Uint8Array,
  taken: ReadonlyMap<string, string>,
  files: ImportedFiles,
  sha256: (bytes: Uint8Array) => string,
): void {
  const stored = storePackage(bytes, taken);
  const hash = sha256(stored);
  files.blobs.set(hash, stored);
  files.assets[name] = { sha256: hash, mediaType: "application/zip", width: 1, height: 1 };
}

/** A file whose slides are returned in batches. */
export interface BatchSource {
  /** The file's name, which stands in for a missing title. */
  name: string;
  /** The number of slides in the file. */
  count: number;
  metadata: DeckMetadata;
  files: ImportedFiles & Pick<ReadBatch, "pendingPictures">;
  /** Returns the masters found so far. */
  masters(): Record<string, Master>;
  /** Returns the text styles that the slides read so far use. */
  styles(read: readonly Slide[]): Record<string, TextStyle>;
  /** Imports files that only the names on slides lead to. */
  importNamed?: ((names: () => Iterable<string>) => void) | undefined;
}

/** Returns slides in batches, each with the metadata as far as it is known and the files that it is the first to need. */
export function* inBatches(slides: Iterable<Slide>, source: BatchSource): Generator<ReadBatch> {
  const { count, metadata, files } = source;
  const read: Slide[] = [];
  let returned = 0;
  let seen = 0;
  let { title } = metadata.properties;
  const next = (): ReadBatch => {
    // Details are nested by the slides before them.
    const batch = repairNesting(read).slice(returned);
    returned = read.length;
    title ||= (read[0] && titleOf(read[0])) || source.name.replace(/\.[^.]*$/, "");
    const masters = { ...metadata.masters, ...source.masters() };
    const styles = source.styles(read);
    source.importNamed?.(() => batch.flatMap((slide) => filesOf(slide, { masters, styles })));
    const blobs = new Map([...files.blobs].slice(seen));
    seen = files.blobs.size;
    const { styles: _, ...rest } = metadata;
    return {
      metadata: {
        ...rest,
        properties: { ...metadata.properties, title },
        assets: { ...files.assets },
        ...(Object.keys(masters).length ? { masters } : {}),
        ...(Object.keys(styles).length ? { styles } : {}),
      },
      slides: batch,
      blobs,
      pendingPictures: files.pendingPictures,
      of: count,
    };
  };
  for (const slide of slides) {
    read.push(slide);
    if (read.length < count && isBatch(read.length - returned, read.length)) yield next();
  }
  yield next();
}

/** Returns the slide to which a link to the next, previous, first or last slide leads from slide `number`. */
export function stepTarget(step: string, number: number, ids: readonly string[]): string | undefined {
  return { next: ids[number], previous: ids[number - 2], first: ids[0], last: ids.at(-1) }[step];
}
