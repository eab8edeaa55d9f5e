import {
  type Background,
  canonical,
  type Deck,
  type Element,
  isEmptyText,
  levels,
  pageName,
  paragraphText,
  type RichText,
  type Run,
  type Slide,
  slideLinks,
  stepsForm,
  themeKey,
  withSteps,
  must,
} from "@unitext/core/model";
import type { RootContent } from "mdast";
import type { LeafDirective } from "mdast-util-directive";
import { frontMatterText } from "./front";
import type { Content, FrontMatter, Lines } from "./manuscript";
import { flowOf, isKeyFigure, mainSlot, partsOf, recognise, titleDepth } from "./recognise";
import { blocksOf, container, lineCount, contentNodes, FootnoteList, lineNodes, markdownOf, normalText } from "./write";

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
    ...(deck.regions.header ? { header: deck.regions.header } : {}),
    ...(deck.regions.stamp === undefined ? {} : { stamp: deck.regions.stamp }),
    ...(deck.regions.number ? {} : { numbers: false }),
    ...(deck.rate === 130 ? {} : { rate: deck.rate }),
    ...(title && !opens ? { titleSlide: false } : {}),
  };
  return frontMatterText(front);
}

interface Marks {
  id: boolean;
  first: boolean;
  level: number;
}

/** Returns a background as the text form writes it: a colour or a picture, or the first colour of any other fill. */
export function backgroundWord(background: Background): string {
  if ("colour" in background) return background.colour;
  if ("picture" in background) return background.picture;
  const { fill } = background;
  return fill.kind === "solid"
    ? fill.colour
    : fill.kind === "gradient"
      ? must(fill.stops[0]?.colour)
      : fill.kind === "pattern"
        ? fill.back
        : fill.source;
}

/** Returns a text size or a spacing as a percentage. */
export const sizeWord = (factor: number): string => `${Math.round(factor * 1000) / 10}%`;

/** Returns the attributes of a slide's `::slide` line; none where the text alone says everything. */
function markOf(
  slide: Slide,
  empty: boolean,
  steps: StepsWord | undefined,
  { id, first, level }: Marks,
): Record<string, string> {
  const { background, transition, delay, widths, section, textSize, spacing } = slide;
  const attributes: Record<string, string> = {};
  if (id) attributes.id = slide.id;
  if (empty || recognise(partsOf(slide, first)) !== slide.arrangement) attributes.arrangement = slide.arrangement;
  if (level) attributes.level = String(level);
  if (slide.hidden) attributes.hidden = "";
  if (steps !== undefined) attributes.steps = steps;
  if (background) attributes.background = backgroundWord(background);
  if (background && "picture" in background && background.veil !== undefined)
    attributes.veil = sizeWord(background.veil);
  if (transition) attributes.transition = transition.kind;
  if (transition && transition.seconds !== 0.5) attributes.seconds = String(transition.seconds);
  if (delay) attributes.delay = String(delay);
  if (widths) attributes.widths = widths.join(" ");
  if (section) attributes.section = section;
  if (textSize) attributes.size = sizeWord(textSize);
  if (spacing !== undefined) attributes.spacing = sizeWord(spacing);
  return attributes;
}

const bare = ({ id: _, slot: __, frame: ___, ...content }: Element): Content => content as Content;

/** Joins the paragraphs of a title into one heading. */
function titleNodes(slide: Slide, text: RichText, notes: FootnoteList): RootContent[] {
  const runs = text
    .filter((paragraph) => paragraph.runs.length)
    .flatMap((paragraph, at): Run[] => [...(at ? [{ text: " " }] : []), ...paragraph.runs]);
  const align = text[0]?.align;
  const heading: RootContent = {
    type: "heading",
    depth: titleDepth(slide) as 1 | 2,
    children: lineNodes(
      runs.map((item) => ({ ...item, text: item.text.replace(/\n/g, " ") })),
      notes,
    ),
  };
  return align ? [container("align", { to: align }, [heading])] : [heading];
}

/** The value of the `steps` attribute: each point by itself, or the main points with those below them. */
type StepsWord = "" | "main";

/** Returns how the text of a slot appears point by point; undefined where it does not, or not all of it does so. */
function stepsOf(elements: readonly Element[]): StepsWord | undefined {
  const texts = elements.flatMap((element) => (element.kind === "text" ? [element] : []));
  if (!texts.length || texts.some(({ steps }) => !steps)) return undefined;
  const forms = texts.map(({ text }) => stepsForm(normalText(text)));
  if (!forms.includes("main")) return "";
  return texts.every(({ text }) => canonical(withSteps(normalText(text), "main")) === canonical(normalText(text)))
    ? "main"
    : undefined;
}
/** Returns the same as a slot attribute; where parts of it differ, each point appears by itself. */
const stepsAttribute = (elements: readonly Element[]) => {
  const texts = elements.filter(({ kind }) => kind === "text");
  const word =
    stepsOf(elements) ??
    (texts.length && texts.every((element) => element.kind === "text" && element.steps) ? "" : undefined);
  return word === undefined ? {} : { steps: word };
};

/** Returns one slide in the text form. */
export function slideText(slide: Slide, marks: Marks, notes: FootnoteList): string {
  const { title, flow, slots } = flowOf(slide);
  const quoted = (element: Element) => slide.arrangement === "quotation" && element.slot === "body";
  const steps = stepsOf(flow);
  // A line without a number of its own that looks like a key figure is marked, so that it is not read as one.
  const [opening] = flow;
  const unnumbered =
    slide.arrangement === "number" &&
    !slots.has("number") &&
    opening?.kind === "text" &&
    isKeyFigure(paragraphText(must(opening.text[0])).trim())
      ? opening
      : undefined;
  const body: RootContent[] = [];
  for (const element of flow) {
    if (quoted(element) && element.kind === "text")
      body.push({ type: "blockquote", children: blocksOf(element.text, notes) });
    else if (element === unnumbered)
      body.push(
        container(
          "slot",
          { name: mainSlot(slide.arrangement), ...stepsAttribute([unnumbered]) },
          blocksOf(unnumbered.text, notes),
        ),
      );
    else if (element.kind === "text" && element.steps && steps === undefined)
      body.push(
        container(
          "slot",
          { name: mainSlot(slide.arrangement), ...stepsAttribute([element]) },
          blocksOf(element.text, notes),
        ),
      );
    else body.push(...contentNodes(bare(element), notes));
  }
  const named = [...slots].map(([name, elements]) =>
    container(
      "slot",
      { name, ...stepsAttribute(elements) },
      elements.flatMap((element) => contentNodes(bare(element), notes)),
    ),
  );
  const heading = title ? titleNodes(slide, title.text, notes) : [];
  const attributes = markOf(
    slide,
    unnumbered !== undefined || (!heading.length && !body.length && !named.length),
    steps,
    marks,
  );
  const mark: RootContent[] = Object.keys(attributes).length
    ? [{ type: "leafDirective", name: "slide", attributes, children: [] } as unknown as LeafDirective & RootContent]
    : [];
  const spoken = isEmptyText(slide.notes) ? [] : [container("notes", {}, blocksOf(slide.notes, notes))];
  const written = [...mark, ...heading, ...body, ...named, ...spoken];
  return markdownOf([...written, ...notes.take()]);
}

/** Texts by slide and marks. Slides with footnotes are not kept: their numbers depend on the slides before. */
const written = new WeakMap<Slide, Map<string, string>>();

/** Returns one slide in the text form, kept for as long as the slide is. */
function keptText(slide: Slide, marks: Marks, notes: FootnoteList): string {
  const key = JSON.stringify(marks);
  const known = written.get(slide)?.get(key);
  if (known !== undefined) return known;
  const before = notes.count;
  const text = slideText(slide, marks, notes);
  if (notes.count === before) written.set(slide, (written.get(slide) ?? new Map()).set(key, text));
  return text;
}

/** A deck in its text form, and the lines of each slide in it, in running order. */
export interface DeckText {
  text: string;
  lines: Lines[];
}

/**
 * Returns the deck in its text form (docs/text-format.md). With `ids`, each slide carries its id, so that reading the
 * text gives the same slides again; without, the text is as a person would type it.
 */
export const deckText = (deck: Deck, options: { ids: boolean }): string => writeDeck(deck, options).text;

/** Returns the deck in its text form, as `deckText` does, with the lines of each slide. */
export function writeDeck(deck: Deck, { ids }: { ids: boolean }): DeckText {
  const depth = levels(deck.slides);
  const first = deck.slides[0];
  const opens = first !== undefined && partsOf(first, true).depth === 1;
  const linked = ids ? new Set(deck.slides.map((slide) => slide.id)) : linkedSlides(deck);
  const notes = new FootnoteList();
  const slides = deck.slides.map((slide, index) =>
    keptText(slide, { id: linked.has(slide.id), first: index === 0, level: depth.get(slide.id) ?? 0 }, notes),
  );
  const front = `${frontMatter(deck, opens)}\n`;
  const lines: Lines[] = [];
  let from = lineCount(front);
  for (const text of slides) {
    const to = from + lineCount(text) - 1;
    lines.push({ from, to });
    // A blank line, the break and another blank line are between two slides.
    from = to + 4;
  }
  return { text: `${front}${slides.join("\n\n---\n\n")}${slides.length ? "\n" : ""}`, lines };
}

/** Returns the slides that a link leads to: the text must carry their ids. */
function linkedSlides(deck: Deck): Set<string> {
  const ids = new Set<string>();
  for (const slide of deck.slides)
    for (const { to } of slideLinks(slide)) if (to.startsWith("slide:")) ids.add(to.slice(6));
  return ids;
}
