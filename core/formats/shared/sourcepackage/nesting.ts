import type { Slide } from "@unitext/core/model";

/** Details stay under their main slide where the order of a file still allows it; else they stand on the main line. */
export function repairNesting(slides: readonly Slide[]): Slide[] {
  const open: string[] = [];
  return slides.map((slide) => {
    const depth = slide.parent === null ? 0 : open.lastIndexOf(slide.parent) + 1;
    open.length = depth;
    open.push(slide.id);
    return depth === 0 && slide.parent !== null ? { ...slide, parent: null } : slide;
  });
}
