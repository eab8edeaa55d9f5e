import {
  coloursOnField,
  DESIGNS,
  type DeckMetadata,
  type Element,
  type Fill,
  readableOn,
  type Slide,
  type Surface,
  type Theme,
  themeOf,
} from "@unitext/core/model";
import type { FontSet } from "./fonts";
import type { SlotPlace } from "./slots";

/** What a slide's layout depends on beside the slide: the deck's metadata and the slide's number. */
export interface SlideContext {
  metadata: Pick<
    DeckMetadata,
    "page" | "theme" | "themes" | "language" | "regions" | "properties" | "assets" | "masters" | "styles"
  >;
  number: number;
  fonts: FontSet;
}

const fieldThemes = new WeakMap<Theme, Theme>();

/** Returns a theme in the colours of what is on its field, the same object each time; itself where it has them. */
export function themeOnField(theme: Theme): Theme {
  const made = fieldThemes.get(theme) ?? { ...theme, colours: coloursOnField(theme.colours) };
  fieldThemes.set(theme, made);
  fieldThemes.set(made, made);
  return made;
}

/** Whether a theme has the colours of what is on its field. */
export const isOnField = (theme: Theme): boolean => fieldThemes.get(theme) === theme;

const sizedThemes = new WeakMap<Theme, Map<string, Theme>>();

/** Returns a theme with larger or smaller body text and space between paragraphs, the same object each time. */
function themeInSize(theme: Theme, size: number, spacing: number): Theme {
  const held = sizedThemes.get(theme) ?? new Map<string, Theme>();
  sizedThemes.set(theme, held);
  const { scale, roles } = theme;
  const body = roles?.body?.size;
  const key = `${size}/${spacing}`;
  const made = held.get(key) ?? {
    ...theme,
    scale: { ...scale, body: scale.body * size },
    spacing: (theme.spacing ?? 1) * spacing,
    ...(body ? { roles: { ...roles, body: { ...roles.body, size: body * size } } } : {}),
  };
  held.set(key, made);
  return made;
}

/** The colours of a theme in which text is set. */
const TEXTS = ["ink", "muted", "link", "accent", "second"] as const;

/** Returns the colours that a fill is drawn in; none for a picture. */
function coloursOf(fill: Fill): string[] {
  if (fill.kind === "solid") return [fill.colour];
  if (fill.kind === "gradient") return fill.stops.map(({ colour }) => colour);
  return fill.kind === "pattern" ? [fill.fore, fill.back] : [];
}

const filledThemes = new WeakMap<Theme, Map<string, Theme>>();

/**
 * Returns a theme whose text can be read on a fill, the same object each time: a colour that contrasts too little with it
 * is made darker or lighter (WCAG 2.2, 1.4.3).
 */
function themeOnFill(theme: Theme, fill: Fill): Theme {
  const behind = coloursOf(fill);
  const held = filledThemes.get(theme) ?? new Map<string, Theme>();
  filledThemes.set(theme, held);
  const known = held.get(behind.join());
  if (known) return known;
  const colours = { ...theme.colours };
  for (const name of TEXTS)
    colours[name] = behind.reduce((colour, background) => readableOn(colour, background), colours[name]);
  const made = { ...theme, colours };
  held.set(behind.join(), made);
  return made;
}

/** Whether the design of the theme is drawn behind a slide: it has no background or master of its own. */
export const hasDesign = ({ background, master }: Pick<Slide, "background" | "master">): boolean =>
  background === undefined && master === undefined;

/** Returns what a slide is on. */
export function surfaceOf(slide: Pick<Slide, "arrangement" | "background" | "master">, theme: Theme): Surface {
  return hasDesign(slide) && DESIGNS[theme.design].onField?.includes(slide.arrangement) ? "field" : "paper";
}

/** Returns the theme of a slide in its text size, and in the colours of what the slide is on. */
export function slideTheme(
  slide: Pick<Slide, "arrangement" | "background" | "master" | "theme" | "textSize" | "spacing">,
  metadata: Pick<DeckMetadata, "theme" | "themes">,
): Theme {
  const plain = themeOf(slide, metadata);
  const { textSize, spacing } = slide;
  const theme = textSize || spacing !== undefined ? themeInSize(plain, textSize ?? 1, spacing ?? 1) : plain;
  const { background } = slide;
  // A master page has colours of its own.
  if (background && "fill" in background && slide.master === undefined) return themeOnFill(theme, background.fill);
  return surfaceOf(slide, theme) === "field" ? themeOnField(theme) : theme;
}

/** Returns the theme of what is in a place of a slide, in the colours of what it is on. */
export function placeTheme(
  slide: Parameters<typeof slideTheme>[0],
  surface: Surface | undefined,
  metadata: Pick<DeckMetadata, "theme" | "themes">,
): Theme {
  const theme = slideTheme(slide, metadata);
  return surface === "field" && hasDesign(slide) ? themeOnField(theme) : theme;
}

const metadataInTheme = new WeakMap<object, Map<Theme, unknown>>();

/** Returns metadata with another theme, the same object each time. */
export function withTheme<M extends Pick<DeckMetadata, "theme">>(metadata: M, theme: Theme): M {
  if (metadata.theme === theme) return metadata;
  const held = metadataInTheme.get(metadata) ?? new Map<Theme, unknown>();
  metadataInTheme.set(metadata, held);
  const made = (held.get(theme) as M | undefined) ?? { ...metadata, theme };
  held.set(theme, made);
  return made;
}

/** Returns the context of a slide with its own theme, in the colours of what the slide is on. */
export function withSlideTheme(slide: Slide, context: SlideContext): SlideContext {
  const metadata = withTheme(context.metadata, slideTheme(slide, context.metadata));
  return metadata === context.metadata ? context : { ...context, metadata };
}

/** Returns the context of a slide for what is on a surface of its design; the context itself where that is the same. */
export function onSurface(surface: Surface | undefined, slide: Slide, context: SlideContext): SlideContext {
  const { metadata } = context;
  if (surface !== "field" || !hasDesign(slide)) return context;
  return { ...context, metadata: withTheme(metadata, themeOnField(metadata.theme)) };
}

/** Elements that share one place, which is divided among them from top to bottom. */
export interface Group {
  place: SlotPlace;
  slot: string | null;
  elements: Element[];
}
