import type { ViewedDeck } from "@unitext/server/api";

type Slides = ViewedDeck["slides"];

const row = (slides: Slides, parent: string | null) => slides.filter((slide) => slide.parent === parent);

/** Returns the slide after one along its row, else the one after the slide above; undefined at the end. */
export function after(slides: Slides, id: string): string | undefined {
  const slide = slides.find((one) => one.id === id);
  if (!slide) return undefined;
  const own = row(slides, slide.parent);
  const next = own[own.indexOf(slide) + 1];
  if (next) return next.id;
  return slide.parent === null ? undefined : after(slides, slide.parent);
}

/** Returns the slide before one along its row, else the one above; undefined at the start. */
export function before(slides: Slides, id: string): string | undefined {
  const slide = slides.find((one) => one.id === id);
  if (!slide) return undefined;
  const own = row(slides, slide.parent);
  return own[own.indexOf(slide) - 1]?.id ?? slide.parent ?? undefined;
}

/** Returns the first detail of a slide; undefined where it has none. */
export const below = (slides: Slides, id: string): string | undefined => slides.find(({ parent }) => parent === id)?.id;
