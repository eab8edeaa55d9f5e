import { type Deck, isEmptyText, levels, linksOf, pageName, type RichText, type Slide, themeKey } from "@unitext/core/model";
import type { RootContent } from "mdast";
import { stringify } from "yaml";
import type { FrontMatter } from "./manuscript";
import { mainSlot, partsOf, recognise, titleDepth } from "./recognise";
import { blocksOf, inlineNodes, markdownOf } from "./write";

function frontMatter(deck: Deck, opens: boolean): string {
  const { title, author, event, date } = deck.properties;
  const front: FrontMatter = {
    ...(title ? { title } : {}),
    ...(author ? { author } : {}),
    ...(event ? { event } : {}),
    ...(date ? { date } : {}),
    language: deck.language,
    ...(themeKey(deck.theme) ? { theme: themeKey(deck.theme) as string } : {}),
    page: pageName(deck.page),
    ...(deck.regions.footer ? { footer: deck.regions.footer } : {}),
    ...(deck.regions.number ? {} : { numbers: false }),
    ...(deck.rate === 130 ? {} : { rate: deck.rate }),
    ...(title && !opens ? { titleSlide: false } : {}),
  };
  return `---\n${stringify(front, { lineWidth: 0 }).trimEnd()}\n---\n`;
}

interface Marks {
  id: boolean;
  first: boolean;
  level: number;
}

/** The `::slide` line, or undefined where the text alone says all. */
function markOf(slide: Slide, empty: boolean, { id, first, level }: Marks): string | undefined {
  const parts: string[] = [];
  if (id) parts.push(`#${slide.id}`);
  if (empty || recognise(partsOf(slide, first)) !== slide.arrangement) parts.push(`arrangement=${slide.arrangement}`);
  if (level) parts.push(`level=${level}`);
  if (slide.hidden) parts.push("hidden");
  return parts.length ? `::slide{${parts.join(" ")}}` : undefined;
}

function slideBlocks(slide: Slide): { title: RootContent[]; body: RootContent[]; slots: [string, RootContent[]][] } {
  const main = mainSlot(slide.arrangement);
  const title: RootContent[] = [];
  const body: RootContent[] = [];
  const slots = new Map<string, RootContent[]>();
  const parts = partsOf(slide, false);
  for (const element of slide.elements) {
    if (element.kind === "picture") body.push({ type: "paragraph", children: [{ type: "image", url: element.source, alt: element.alt }] });
    else if (isEmptyText(element.text)) continue;
    else if (element.text === parts.title) {
      const [head, ...rest] = element.text.filter((paragraph) => paragraph.runs.length);
      const runs = [...(head?.runs ?? []), ...rest.flatMap((paragraph) => [{ text: "\n" }, ...paragraph.runs])];
      title.push({ type: "heading", depth: titleDepth(slide) as 1 | 2, children: inlineNodes(runs.map((item) => ({ ...item, text: item.text.replace(/\n/g, " ") }))) });
    } else if (element.slot && element.slot !== main && parts.slots.includes(element.slot)) {
      slots.set(element.slot, [...(slots.get(element.slot) ?? []), ...blocksOf(element.text)]);
    } else body.push(...blocksOf(element.text));
  }
  return { title, body, slots: [...slots] };
}

function container(opening: string, blocks: readonly RootContent[]): string {
  return `:::${opening}\n${markdownOf([...blocks])}\n:::`;
}

/** One slide in the text form. */
export function slideText(slide: Slide, marks: Marks): string {
  const { title, body, slots } = slideBlocks(slide);
  const empty = title.length === 0 && body.length === 0 && slots.length === 0;
  const notes: RichText = slide.notes;
  const parts = [
    markOf(slide, empty, marks),
    markdownOf(title),
    markdownOf(body),
    ...slots.map(([name, blocks]) => container(`slot{name=${name}}`, blocks)),
    isEmptyText(notes) ? undefined : container("notes", blocksOf(notes)),
  ];
  return parts.filter((part) => part).join("\n\n");
}

/**
 * The deck in its text form (docs/text-format.md). With `ids`, each slide carries its id, so that reading the text
 * gives the same slides again; without, the text is as a person would type it.
 */
export function deckText(deck: Deck, { ids }: { ids: boolean }): string {
  const depth = levels(deck.slides);
  const first = deck.slides[0];
  const opens = first !== undefined && partsOf(first, true).depth === 1;
  const linked = ids ? new Set(deck.slides.map((slide) => slide.id)) : linkedSlides(deck);
  const slides = deck.slides.map((slide, index) => slideText(slide, { id: linked.has(slide.id), first: index === 0, level: depth.get(slide.id) ?? 0 }));
  return `${frontMatter(deck, opens)}\n${slides.join("\n\n---\n\n")}${slides.length ? "\n" : ""}`;
}

/** Slides that a link leads to must be known by id in the text. */
function linkedSlides(deck: Deck): Set<string> {
  const ids = new Set<string>();
  const look = (text: RichText) => {
    for (const { to } of linksOf(text)) if (to.startsWith("slide:")) ids.add(to.slice(6));
  };
  for (const slide of deck.slides) {
    look(slide.notes);
    for (const element of slide.elements) if (element.kind === "text") look(element.text);
  }
  return ids;
}
