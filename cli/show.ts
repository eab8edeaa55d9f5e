import {
  elementLines,
  counted,
  clock,
  type Deck,
  metadataOf,
  levels,
  readingOrder,
  secondsOf,
  sections,
  type Slide,
  slideLinks,
  textOf,
  titleElement,
  titleOf,
} from "@unitext/core/model";
import { shownBindings } from "./data";
import { type FontSet, layoutSlide } from "@unitext/core/layout";

/** The contract of `show --json`. */
export function show(deck: Deck, fonts: FontSet) {
  const level = levels(deck.slides);
  const section = sections(deck.slides);
  const numbers = new Map(deck.slides.map((slide, nth) => [slide.id, nth + 1]));
  const target = (to: string) => (to.startsWith("slide:") ? `slide:${numbers.get(to.slice(6)) ?? "?"}` : to);
  const metadata = metadataOf(deck);
  return {
    title: deck.properties.title,
    language: deck.language,
    page: deck.page,
    slides: deck.slides
      .map((given, nth) => [counted(given, nth + 1), nth] as const)
      .map(([slide, nth]) => ({
        number: nth + 1,
        id: slide.id,
        level: level.get(slide.id) ?? 0,
        section: section.get(slide.id) ?? null,
        hidden: slide.hidden,
        arrangement: slide.arrangement,
        title: titleOf(slide),
        text: textsOf(slide),
        notes: textOf(slide.notes),
        links: slideLinks({ elements: readingOrder(slide), notes: slide.notes }).map(({ text, to }) => ({
          text,
          to: target(to),
        })),
        tables: readingOrder(slide).flatMap((element) =>
          element.kind === "table"
            ? [element.rows.map((row) => row.map((cell) => (cell ? textOf(cell.text) : "")))]
            : [],
        ),
        charts: readingOrder(slide).flatMap((element) =>
          element.kind === "chart"
            ? [{ kind: element.type, categories: element.categories, series: element.series }]
            : [],
        ),
        pictures: slide.elements.flatMap((element) =>
          element.kind === "picture"
            ? [{ alt: element.alt, mediaType: deck.assets[element.source]?.mediaType ?? null }]
            : [],
        ),
        bindings: shownBindings(slide),
        overflow: layoutSlide(slide, { metadata, number: nth + 1, fonts }).overflow > 0,
        seconds: secondsOf(slide, deck.rate),
      })),
  };
}

/** Each paragraph but the title; tables, charts and pictures have lists of their own. */
function textsOf(slide: Slide): string[] {
  const title = titleElement(slide);
  return readingOrder(slide).flatMap((element) => (element === title ? [] : elementLines(element)));
}

/** The same as text for a person. */
export function showText({ title, slides }: ReturnType<typeof show>): string {
  const rows = slides.map((slide) => {
    const marks = [slide.hidden ? "hidden" : "", slide.overflow ? "overflow" : "", slide.notes ? "" : "no notes"]
      .filter(Boolean)
      .join(", ");
    const lines = [
      `${"  ".repeat(slide.level)}${slide.number}. ${slide.title || "(no title)"}  [${slide.arrangement}, ${clock(slide.seconds)}${marks ? `, ${marks}` : ""}]`,
    ];
    return [...lines, ...slide.text.map((text) => `${"  ".repeat(slide.level)}     ${text}`)].join("\n");
  });
  return `${title}\n\n${rows.join("\n")}`;
}
