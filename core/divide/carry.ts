import {
  type Deck,
  type Element,
  elementLinks,
  linksOf,
  mapElementLinks,
  mapLinks,
  type Slide,
} from "@unitext/core/model";

/** Returns the ids of the slides above a slide, the nearest first. */
function ancestors(parents: ReadonlyMap<string, string | null>, id: string): string[] {
  const found: string[] = [];
  for (let next = parents.get(id); next; next = parents.get(next)) found.push(next);
  return found;
}

/**
 * Copies slides of a deck in the given order, repeats allowed, with new ids and their origin. Elements keep the ids
 * that they have on their slide, so that versions can be compared element by element. A detail stays under its nearest
 * main slide that is copied before it, or else goes to the main line. Links are copied unchanged; `mapSlideLinks`
 * redirects them.
 */
export function copySlide(
  deck: Pick<Deck, "id" | "slides">,
  version: number,
  slides: readonly Slide[],
  newId: () => string,
): Slide[] {
  const parents = new Map(deck.slides.map(({ id, parent }) => [id, parent]));
  const open: { old: string; fresh: string }[] = [];
  return slides.map((slide) => {
    const above = slide.parent === null ? [] : ancestors(parents, slide.id);
    const found = above.map((id) => open.findLastIndex(({ old }) => old === id)).find((at) => at >= 0);
    open.length = found === undefined ? 0 : found + 1;
    const id = newId();
    const parent = open.at(-1)?.fresh ?? null;
    open.push({ old: slide.id, fresh: id });
    return { ...slide, id, parent, origin: { deck: deck.id, slide: slide.id, version } };
  });
}

/**
 * Returns the slide with `follow` applied to every link; undefined removes a link and keeps its words. Returns the same
 * object when nothing changes.
 */
export function mapSlideLinks(slide: Slide, follow: (to: string, words: string) => string | undefined): Slide {
  const noted = linksOf(slide.notes).length > 0;
  if (!noted && !slide.elements.some((element) => elementLinks(element).length)) return slide;
  // Each link of a text is asked for once with all its words, whatever runs carry it.
  const asked = (links: readonly { text: string; to: string }[]) => {
    const next = new Map<string, string | undefined>();
    for (const { to, text } of links) {
      const at = follow(to, text);
      if (!next.has(to)) next.set(to, at);
    }
    return (to: string) => next.get(to);
  };
  const led = (element: Element) => {
    const links = elementLinks(element);
    return links.length ? mapElementLinks(element, asked(links)) : element;
  };
  return {
    ...slide,
    elements: slide.elements.map(led),
    notes: noted ? mapLinks(slide.notes, asked(linksOf(slide.notes))) : slide.notes,
  };
}
