import { type DeckMetadata, type Element, type Slide, themeOf } from "@unitext/core/model";
import type { FontSet } from "./fonts";
import type { SlotPlace } from "./slots";

/** What a slide's layout depends on beside the slide: the deck's metadata and the slide's number. */
export interface SlideContext {
  metadata: Pick<DeckMetadata, "page" | "theme" | "themes" | "language" | "regions" | "assets" | "masters" | "styles">;
  number: number;
  fonts: FontSet;
}

const lookedOnce = new WeakMap<object, Map<string, SlideContext["metadata"]>>();

/** Returns the context of a slide with an imported theme: the metadata with that theme, the same object each time. */
export function withSlideTheme(slide: Slide, context: SlideContext): SlideContext {
  const theme = themeOf(slide, context.metadata);
  if (theme === context.metadata.theme || slide.theme === undefined) return context;
  const held = lookedOnce.get(context.metadata) ?? new Map<string, SlideContext["metadata"]>();
  lookedOnce.set(context.metadata, held);
  const metadata = held.get(slide.theme) ?? { ...context.metadata, theme };
  held.set(slide.theme, metadata);
  return { ...context, metadata };
}

/** Elements that share one place, which is divided among them from top to bottom. */
export interface Group {
  place: SlotPlace;
  slot: string | null;
  elements: Element[];
}
