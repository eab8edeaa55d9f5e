import type { Slide } from "@unitext/core/model";

/** How the talk moves: along the main line, into details only when asked; hidden slides are skipped. */
export interface Walk {
  next: string | undefined;
  previous: string | undefined;
  deeper: string | undefined;
  shallower: string | undefined;
}

/** Returns the slides that can be reached from one: next and previous on the main line, into details and back. */
export function walkFrom(slides: readonly Slide[], current: string): Walk {
  const shown = slides.filter(({ hidden }) => !hidden);
  const at = shown.findIndex(({ id }) => id === current);
  const here = shown[at];
  if (!here) return { next: shown[0]?.id, previous: undefined, deeper: undefined, shallower: undefined };
  const siblings = shown.filter(({ parent }) => parent === here.parent);
  const place = siblings.indexOf(here);
  const beyond = (slide: Slide): string | undefined => {
    const row = shown.filter(({ parent }) => parent === slide.parent);
    const after = row[row.indexOf(slide) + 1];
    if (after) return after.id;
    const above = shown.find(({ id }) => id === slide.parent);
    return above ? beyond(above) : undefined;
  };
  return {
    next: beyond(here),
    previous: place > 0 ? siblings[place - 1]?.id : (here.parent ?? undefined),
    deeper: shown.find(({ parent }) => parent === here.id)?.id,
    shallower: here.parent ?? undefined,
  };
}
