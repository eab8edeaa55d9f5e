import type { Slide } from "@unitext/core/model";

/** Moves details to the main line where the order of a file no longer keeps them under their main slide. */
export function repairNesting(slides: readonly Slide[]): Slide[] {
  const open: string[] = [];
  return slides.map((slide) => {
    const depth = slide.parent === null ? 0 : open.lastIndexOf(slide.parent) + 1;
    open.length = depth;
    open.push(slide.id);
    return depth === 0 && slide.parent !== null ? { ...slide, parent: null } : slide;
  });
}
