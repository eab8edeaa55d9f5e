import { type Change, placeOf, type SingleChange, batch } from "@unitext/core/edit";
import {
  type Deck,
  type Element,
  linksOf,
  nameOf,
  newSlide,
  plainText,
  run,
  sections,
  type Slide,
  slideIndex,
  slideLink,
  slideLinks,
  titleOf,
  must,
} from "@unitext/core/model";
import { mapSlideLinks } from "./carry";

/** A link to a slide that this deck does not have, and slides that it could lead to instead. */
export interface BrokenLink {
  slide: string;
  number: number;
  words: string;
  to: string;
  /** The slide that it led to, as the original deck has it. */
  target: { name: string; number: number } | null;
  /** The nearest slide on the same topic that this deck has. */
  nearest: { slide: string; number: number; name: string } | null;
  /** The contents slide. */
  contents: { slide: string; number: number; name: string } | null;
}

const CONTENTS = /^(contents?|overview|agenda|menu|inhalt|übersicht|contenidos?|índice|sommaire|table des matières)$/i;

/**
 * Lists the broken links of a deck. `origins` are the decks that its slides were copied from, which tell what a link
 * led to.
 */
export function brokenLinks(deck: Deck, origins: readonly Deck[] = []): BrokenLink[] {
  const ids = new Set(deck.slides.map(({ id }) => id));
  const place = (slide: Slide | undefined) =>
    slide ? { slide: slide.id, number: slideIndex(deck, slide.id) + 1, name: nameOf(slide) } : null;
  const contents =
    deck.slides.find((slide) => CONTENTS.test(titleOf(slide))) ??
    deck.slides.find(
      (slide) =>
        slideLinks(slide).filter(({ to }) => slideLink(to) !== undefined && ids.has(must(slideLink(to)))).length >= 3,
    );
  const sectioned = origins.map((origin) => ({
    origin,
    section: sections(origin.slides),
    at: new Map(origin.slides.map(({ id }, nth) => [id, nth])),
  }));
  return deck.slides.flatMap((slide, nth) => {
    const seen = new Set<string>();
    return slideLinks(slide).flatMap(({ text, to }): BrokenLink[] => {
      const inside = slideLink(to);
      if (inside === undefined || ids.has(inside) || seen.has(`${text}${to}`)) return [];
      seen.add(`${text}${to}`);
      const home = sectioned.find(({ at }) => at.has(inside));
      const target = home?.origin.slides[must(home.at.get(inside))];
      let nearest: Slide | undefined;
      if (home && target) {
        const at = must(home.at.get(inside));
        const topic = home.section.get(inside);
        const candidates = deck.slides.flatMap((own) => {
          const from = own.origin?.deck === home.origin.id ? home.at.get(own.origin.slide) : undefined;
          return from === undefined || own.id === slide.id || home.section.get(own.origin?.slide ?? "") !== topic
            ? []
            : [{ own, far: Math.abs(from - at) }];
        });
        nearest = candidates.sort((a, b) => a.far - b.far)[0]?.own;
      }
      return [
        {
          slide: slide.id,
          number: nth + 1,
          words: text,
          to,
          target: target && home ? { name: nameOf(target), number: must(home.at.get(inside)) + 1 } : null,
          nearest: place(nearest),
          contents: contents && contents.id !== slide.id ? place(contents) : null,
        },
      ];
    });
  });
}

/** Returns the change that makes a link lead to another slide of the deck, or removes it and keeps its words (null). */
export function mendLink(deck: Deck, slide: string, to: string, next: string | null): Change | undefined {
  const before = deck.slides[slideIndex(deck, slide)];
  if (!before) return undefined;
  const after = mapSlideLinks(before, (link) => (link === to ? (next === null ? undefined : `slide:${next}`) : link));
  const changes: SingleChange[] = after.elements.flatMap((element, at): SingleChange[] => {
    const was = before.elements[at];
    if (!was || element === was || JSON.stringify(element) === JSON.stringify(was)) return [];
    return [
      element.kind === "text"
        ? { kind: "setText", slide, element: element.id, text: element.text }
        : { kind: "setElement", slide, element },
    ];
  });
  if (JSON.stringify(after.notes) !== JSON.stringify(before.notes))
    changes.push({ kind: "setNotes", slide, notes: after.notes });
  return changes.length ? batch(changes) : undefined;
}

/** Returns the frame of the link back to the contents: at the top right, clear of the title. */
function wayBackFrame(page: Deck["page"]) {
  const scale = page.height / 540;
  return { x: page.width * 0.935 - 150 * scale, y: 10 * scale, width: 150 * scale, height: 30 * scale };
}

/** Whether an element is a link to a slide. */
const linksTo = (element: Element, slide: string) =>
  element.kind === "text" &&
  element.frame !== undefined &&
  linksOf(element.text).length === 1 &&
  linksOf(element.text)[0]?.to === `slide:${slide}`;

/**
 * Returns the change that inserts a contents slide before the given slides, with a link to each, and adds a link back
 * to it on each of them. Links lead by id, so they stay right when slides move. For a contents slide that is there
 * already, its list is made again and missing links back are added.
 */
export function contentsSlideFor(
  deck: Deck,
  ids: readonly string[],
  { title, back, newId }: { title: string; back: string; newId: () => string },
): { change: Change; menu: string } | undefined {
  const chosen = new Set(ids);
  const slides = deck.slides.filter(({ id }) => chosen.has(id));
  const [first] = slides;
  if (!first) return undefined;
  const there = slides.find((slide) => titleOf(slide) === title && slide.arrangement === "points");
  const topics = slides.filter((slide) => slide !== there);
  if (!topics.length) return undefined;
  const menu = there?.id ?? newId();
  const list = topics.map((slide) => ({
    kind: "bullet" as const,
    level: 0,
    runs: [run(nameOf(slide) || "Untitled", [], `slide:${slide.id}`)],
  }));
  const changes: SingleChange[] = [];
  const body = there?.elements.find((element) => element.slot === "body" && element.kind === "text");
  if (body) changes.push({ kind: "setText", slide: menu, element: body.id, text: list });
  else if (there)
    changes.push({
      kind: "insertElement",
      slide: menu,
      element: { kind: "text", id: newId(), slot: "body", text: list },
      index: there.elements.length,
    });
  else
    changes.push({
      kind: "insertSlide",
      slide: {
        ...newSlide(menu, "points"),
        elements: [
          { kind: "text", id: newId(), slot: "title", text: plainText(title) },
          { kind: "text", id: newId(), slot: "body", text: list },
        ],
      },
      place: placeOf(deck.slides, slideIndex(deck, first.id)),
    });
  for (const slide of topics) {
    if (slide.elements.some((element) => linksTo(element, menu))) continue;
    changes.push({
      kind: "insertElement",
      slide: slide.id,
      element: {
        kind: "text",
        id: newId(),
        slot: null,
        frame: wayBackFrame(deck.page),
        text: [{ kind: "plain", level: 0, align: "end", runs: [run(back, [], `slide:${menu}`)] }],
      },
      index: slide.elements.length,
    });
  }
  return { change: batch(changes), menu };
}
