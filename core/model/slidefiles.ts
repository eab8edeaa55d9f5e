import type { Background, Slide, DeckMetadata } from "./deck";
import type { Element, ForeignDrawing } from "./elements";
import { elementTexts } from "./elementtexts";
import type { Fill } from "./look";

const withBackground = (fill: Fill | undefined) => (fill?.kind === "picture" ? [fill.source] : []);
const backgroundOf = (background: Background | undefined) =>
  !background
    ? []
    : "picture" in background
      ? [background.picture]
      : "fill" in background
        ? withBackground(background.fill)
        : [];
const picturesShownBy = (element: Element): string[] => [
  ...(element.kind === "picture"
    ? [element.source]
    : element.kind === "media" && element.poster
      ? [element.poster]
      : element.kind === "foreign" && element.picture
        ? [element.picture]
        : []),
  ...withBackground(element.fill),
  ...(element.kind === "table" ? element.rows.flatMap((row) => row.flatMap((cell) => withBackground(cell?.fill))) : []),
];

/** Returns elements followed by the elements of their foreign drawings. */
export const withDrawing = (elements: readonly Element[]): Element[] =>
  elements.flatMap((element) =>
    element.kind === "foreign" && element.drawing ? [element, ...element.drawing.elements] : [element],
  );

/** Returns the names of the pictures that a slide shows, including its background. */
export function picturesOn(slide: Pick<Slide, "background" | "elements">): string[] {
  return [...backgroundOf(slide.background), ...withDrawing(slide.elements).flatMap(picturesShownBy)];
}

/** Returns the names of picture bullets. They are named by their content, so the name is the same in every deck. */
export function bulletsOf(element: Element, styles: DeckMetadata["styles"]): string[] {
  const levels = element.style === undefined ? undefined : styles?.[element.style];
  return [
    ...elementTexts(element).flatMap((text) => text.flatMap(({ properties }) => properties?.bullet?.picture ?? [])),
    ...(levels ?? []).flatMap(({ paragraph }) => paragraph?.bullet?.picture ?? []),
  ];
}

/**
 * Returns the names of all files that a slide needs: pictures, picture bullets, films, sounds, its recorded voice, those of
 * its master, the logo of its theme, and its source file.
 */
export function filesOf(
  slide: Slide,
  {
    masters,
    styles,
    theme,
    themes,
  }: Pick<DeckMetadata, "masters" | "styles"> & Partial<Pick<DeckMetadata, "theme" | "themes">>,
): string[] {
  const { logo } = (slide.theme === undefined ? undefined : themes?.[slide.theme]) ?? theme ?? {};
  const master = slide.master === undefined ? undefined : masters?.[slide.master];
  return [
    ...picturesOn(slide),
    ...(master ? picturesOn(master) : []),
    ...(logo ? [logo.source] : []),
    ...withDrawing(slide.elements).flatMap((element) => bulletsOf(element, styles)),
    ...slide.elements.flatMap((element) => (element.kind === "media" ? [element.source] : [])),
    ...(slide.voice ? [slide.voice.source] : []),
    ...(slide.sourcePart ? [slide.sourcePart.file] : []),
  ];
}

/** Returns the slide, or an element of it, with `change` applied to the name of every picture, film and sound. */
export function renamePictures<S extends Pick<Slide, "background" | "elements" | "voice">>(
  slide: S,
  change: (name: string) => string,
): S {
  const fill = (own: Fill): Fill => (own.kind === "picture" ? { ...own, source: change(own.source) } : own);
  const { background } = slide;
  const behind = !background
    ? {}
    : "picture" in background
      ? { background: { ...background, picture: change(background.picture) } }
      : "fill" in background
        ? { background: { fill: fill(background.fill) } }
        : {};
  const elements = slide.elements.map((element): Element => {
    const own = element.fill ? { ...element, fill: fill(element.fill) } : element;
    if (own.kind === "picture") return { ...own, source: change(own.source) };
    if (own.kind === "table")
      return {
        ...own,
        rows: own.rows.map((row) => row.map((cell) => (cell?.fill ? { ...cell, fill: fill(cell.fill) } : cell))),
      };
    if (own.kind === "media")
      return { ...own, source: change(own.source), ...(own.poster ? { poster: change(own.poster) } : {}) };
    if (own.kind !== "foreign") return own;
    const drawing = own.drawing && { ...own.drawing, ...renamePictures({ elements: own.drawing.elements }, change) };
    return {
      ...own,
      ...(own.picture ? { picture: change(own.picture) } : {}),
      ...(drawing ? { drawing: drawing as ForeignDrawing } : {}),
    };
  });
  const { voice } = slide;
  return { ...slide, ...behind, ...(voice ? { voice: { ...voice, source: change(voice.source) } } : {}), elements };
}

/** Returns the masters and text styles of a deck that the given slides use, or its layouts. */
export function sharedItemsOf(
  slides: readonly Slide[],
  { masters, styles, layouts = {} }: Pick<DeckMetadata, "masters" | "styles"> & Partial<Pick<DeckMetadata, "layouts">>,
): Pick<DeckMetadata, "masters" | "styles"> {
  const ofFile = Object.values(layouts);
  const masterNames = new Set(
    [...slides, ...ofFile].flatMap(({ master }) => (master !== undefined && masters?.[master] ? [master] : [])),
  );
  const own = [...masterNames].map((name) => masters?.[name]?.elements ?? []);
  const styleNames = new Set(
    [
      ...slides.flatMap(({ elements, regions }) => [...withDrawing(elements), ...(regions ?? [])]),
      ...own.flatMap(withDrawing),
      ...ofFile.flatMap(({ slots, regions = [] }) => [...Object.values(slots), ...regions]),
    ].flatMap(({ style }) => (style !== undefined && styles?.[style] ? [style] : [])),
  );
  const pick = <V>(names: ReadonlySet<string>, from: Record<string, V> | undefined) =>
    Object.fromEntries([...names].map((name) => [name, from?.[name] as V]));
  return {
    ...(masterNames.size ? { masters: pick(masterNames, masters) } : {}),
    ...(styleNames.size ? { styles: pick(styleNames, styles) } : {}),
  };
}
