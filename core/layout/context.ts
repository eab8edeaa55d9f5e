import { type DeckHead, type Element, type Slide, themeOf } from "@unitext/core/model";
import type { FontSet } from "./fonts";
import type { SlotPlace } from "./slots";

/** What a slide's layout depends on beside the slide: the deck's head and the slide's number. */
export interface SlideContext {
  head: Pick<DeckHead, "page" | "theme" | "themes" | "language" | "regions" | "assets" | "masters" | "styles">;
  number: number;
  fonts: FontSet;
}

const lookedOnce = new WeakMap<object, Map<string, SlideContext["head"]>>();

/** The context of a slide that brought a look of its own along: the head with that theme, the same object each time. */
export function inItsLook(slide: Slide, context: SlideContext): SlideContext {
  const theme = themeOf(slide, context.head);
  if (theme === context.head.theme || slide.theme === undefined) return context;
  const held = lookedOnce.get(context.head) ?? new Map<string, SlideContext["head"]>();
  lookedOnce.set(context.head, held);
  const head = held.get(slide.theme) ?? { ...context.head, theme };
  held.set(slide.theme, head);
  return { ...context, head };
}

/** Elements that share one place, which is divided among them from top to bottom. */
export interface Group {
  place: SlotPlace;
  slot: string | null;
  elements: Element[];
}
