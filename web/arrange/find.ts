import {
  bindingsOn,
  elementWords,
  hasNotes,
  nameOf,
  type Slide,
  slideLink,
  slideLinks,
  textOf,
  must,
} from "@unitext/core/model";

/** Properties by which slides can be found, beside their words. */
export const MARKS = {
  "no notes": "without notes",
  overflow: "too full",
  hidden: "hidden",
  broken: "with broken links",
  look: "with a theme of their own",
  comments: "with comments",
  data: "with linked data",
  outdated: "with linked data out of date",
  untranslated: "not all translated",
} as const;
export type Mark = keyof typeof MARKS;

/**
 * Returns the ids of the slides with all the words, on the slide or in the notes, and the property. `full` says whether
 * a slide overflows, `outdated` has the slides whose linked data are out of date, `untranslated` those with untranslated
 * texts.
 */
export function findSlides(
  slides: readonly Slide[],
  words: string,
  mark: Mark | "",
  full: (slide: Slide) => boolean,
  outdated: ReadonlySet<string> = new Set(),
  untranslated: ReadonlySet<string> = new Set(),
): string[] {
  const wanted = words.toLowerCase().split(/\s+/).filter(Boolean);
  if (!wanted.length && !mark) return [];
  const ids = new Set(slides.map(({ id }) => id));
  const has: Record<Mark, (slide: Slide) => boolean> = {
    "no notes": (slide) => !slide.hidden && !hasNotes(slide),
    overflow: full,
    hidden: ({ hidden }) => hidden,
    broken: (slide) => slideLinks(slide).some(({ to }) => slideLink(to) !== undefined && !ids.has(must(slideLink(to)))),
    look: ({ theme }) => theme !== undefined,
    comments: ({ comments }) => (comments?.length ?? 0) > 0,
    data: (slide) => bindingsOn(slide).length > 0,
    outdated: ({ id }) => outdated.has(id),
    untranslated: ({ id }) => untranslated.has(id),
  };
  return slides.flatMap((slide) => {
    if (mark && !has[mark](slide)) return [];
    if (!wanted.length) return [slide.id];
    const text = [nameOf(slide), ...slide.elements.map(elementWords), textOf(slide.notes)].join(" ").toLowerCase();
    return wanted.every((word) => text.includes(word)) ? [slide.id] : [];
  });
}
