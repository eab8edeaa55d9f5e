import { type Deck, linksOf, picturesOn, slideTexts } from "@unitext/core/model";
import type { Report } from "@unitext/core/tally";
import { deckText } from "@unitext/core/text";

export function writeMarkdown(deck: Deck): string {
  return deckText(deck, { ids: true });
}

/** What the text form cannot hold as it is. */
export function markdownEntries(deck: Deck): Pick<Report, "adapted" | "left"> {
  const adapted: Report["adapted"] = [];
  const left: Report["left"] = [];
  const ids = new Set(deck.slides.map(({ id }) => id));
  deck.slides.forEach((slide, nth) => {
    for (const name of picturesOn(slide)) adapted.push({ slide: nth + 1, what: `the picture ${name}`, how: "named by its path; its file is not inside the text" });
    for (const element of slide.elements) {
      if (element.binding) left.push({ slide: nth + 1, what: `the link to ${element.binding.source}, ${element.binding.range}`, why: "text has no place for linked data; the words stay" });
      if (element.frame) adapted.push({ slide: nth + 1, what: `${element.kind === "text" ? "text" : `a ${element.kind}`} in a place of its own`, how: "stands with what else is on the slide" });
    }
    for (const { text, to } of slideTexts(slide).flatMap(linksOf)) if (to.startsWith("slide:") && !ids.has(to.slice(6))) left.push({ slide: nth + 1, what: `the link “${text}”`, why: "the slide that it leads to is not in this deck" });
  });
  return { adapted, left };
}
