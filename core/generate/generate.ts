import { ArrangementName, type DeckHead, type Element, emptyDeck, headOf, Id, isEmptyText, Language, pageNamed, readingOrder, type RichText, run, type Slide, THEMES, type Theme, textOf, type ThemeKey } from "@unitext/core/model";
import { type Block, type FrontMatter, type Lines, type Manuscript, mainSlot, type Problem, recognise, type SlideMark } from "@unitext/core/text";

/** Where a text is cut into slides: at its marks (thematic breaks) alone, or at headings down to a level as well. */
export type BreakRule = { kind: "mark" } | { kind: "heading"; level: number };
export const DEFAULT_RULE: BreakRule = { kind: "heading", level: 2 };

/** A slide made, the lines that made it, and whether the text itself gives the slide's id. */
export interface Made {
  slide: Slide;
  lines: Lines;
  named: boolean;
}

/** What a slide is gathered from before it has an arrangement. */
interface Draft {
  lines: Lines | null;
  mark: SlideMark;
  title: RichText | null;
  depth: number | null;
  text: RichText;
  slots: Map<string, RichText>;
  pictures: { source: string; alt: string; slot: string | null }[];
  notes: RichText;
}

function draft(): Draft {
  return { lines: null, mark: {}, title: null, depth: null, text: [], slots: new Map(), pictures: [], notes: [] };
}

function starts(block: Block, current: Draft, rule: BreakRule): boolean {
  if (block.kind === "mark") return current.lines !== null;
  if (block.kind !== "heading" || rule.kind !== "heading" || block.depth > rule.level) return false;
  return current.title !== null || current.text.length > 0 || current.pictures.length > 0 || current.slots.size > 0;
}

function add(current: Draft, block: Block): void {
  current.lines = { from: current.lines?.from ?? block.from, to: Math.max(current.lines?.to ?? 0, block.to) };
  switch (block.kind) {
    case "heading":
      if (current.title === null && current.text.length === 0) {
        current.title = block.text;
        current.depth = block.depth;
      } else current.text.push(...block.text.map((paragraph) => ({ ...paragraph, runs: paragraph.runs.map((item) => run(item.text, [...(item.marks ?? []), "strong"], item.link)) })));
      break;
    case "text":
      current.text.push(...block.text);
      break;
    case "picture":
      current.pictures.push({ source: block.source, alt: block.alt, slot: null });
      break;
    case "notes":
      current.notes.push(...block.text);
      break;
    case "slot":
      for (const inner of block.blocks) {
        if (inner.kind === "text" || inner.kind === "heading") current.slots.set(block.slot, [...(current.slots.get(block.slot) ?? []), ...inner.text]);
        else if (inner.kind === "picture") current.pictures.push({ source: inner.source, alt: inner.alt, slot: block.slot });
        else if (inner.kind === "notes") current.notes.push(...inner.text);
      }
      break;
    case "mark":
      current.mark = { ...current.mark, ...block.mark };
      break;
    default:
      break;
  }
}

function* drafts(blocks: Iterable<Block>, rule: BreakRule): Generator<Draft> {
  let current = draft();
  for (const block of blocks) {
    if (block.kind === "break" || starts(block, current, rule)) {
      if (current.lines) yield current;
      current = draft();
      if (block.kind === "break") continue;
    }
    add(current, block);
  }
  if (current.lines) yield current;
}

function arrangementOf(made: Draft, first: boolean, problems: Problem[]): ArrangementName {
  const { arrangement } = made.mark;
  if (arrangement !== undefined) {
    const known = ArrangementName.safeParse(arrangement);
    if (known.success) return known.data;
    problems.push({ line: made.lines?.from ?? 1, message: `“${arrangement}” is not an arrangement. Known are ${ArrangementName.options.join(", ")}.` });
  }
  return recognise({ first, depth: made.depth, title: made.title, text: made.text, pictures: made.pictures.length, slots: [...made.slots.keys()] });
}

function elementsOf(made: Draft, arrangement: ArrangementName, newId: () => string): Element[] {
  const elements: Element[] = [];
  const text = (slot: string, content: RichText) => elements.push({ kind: "text", id: newId(), slot, text: content });
  if (made.title && !isEmptyText(made.title)) text("title", made.title);
  if (made.text.length) text(mainSlot(arrangement), made.text);
  for (const [slot, content] of made.slots) text(slot, content);
  made.pictures.forEach(({ source, alt, slot }, index) => {
    const own = slot ?? (arrangement === "picture" && index === 0 ? "picture" : null);
    elements.push({ kind: "picture", id: newId(), slot: own, source, alt });
  });
  return elements;
}

function openingDraft(front: FrontMatter): Draft {
  const paragraph = (text: string): RichText => [{ kind: "plain", level: 0, runs: [run(text)] }];
  const below = [front.author, front.event, front.date].filter((text): text is string => !!text);
  return { ...draft(), lines: { from: 1, to: 1 }, mark: { arrangement: "opening" }, title: paragraph(front.title ?? ""), depth: 1, text: below.flatMap(paragraph) };
}

/**
 * Cuts a manuscript into slides by a rule, one at a time as its blocks are read. A title slide is made from the front
 * matter where the text does not begin with a heading of the first level. Ids come from `newId`, except those that the
 * text gives. Problems are added to the manuscript's own.
 */
export function* generate(manuscript: Manuscript, rule: BreakRule, newId: () => string): Generator<Made> {
  const used = new Set<string>();
  const line: string[] = [];
  let first = true;
  const make = (made: Draft): Made => {
    const arrangement = arrangementOf(made, first, manuscript.problems);
    const given = made.mark.id !== undefined && Id.safeParse(made.mark.id).success && !used.has(made.mark.id) ? made.mark.id : undefined;
    if (made.mark.id !== undefined && given === undefined) {
      manuscript.problems.push({ line: made.lines?.from ?? 1, message: `The id “${made.mark.id}” is used twice or is not letters, digits, - and _; the slide gets a new one.` });
    }
    const id = given ?? newId();
    used.add(id);
    const level = Math.min(made.mark.level ?? 0, line.length);
    line.length = level;
    const parent = level === 0 ? null : (line[level - 1] as string);
    line.push(id);
    first = false;
    const slide: Slide = { id, parent, arrangement, elements: elementsOf(made, arrangement, newId), notes: made.notes, hidden: made.mark.hidden ?? false };
    return {
      slide: { ...slide, elements: readingOrder(slide) },
      lines: made.lines ?? { from: 1, to: 1 },
      named: given !== undefined,
    };
  };
  for (const next of drafts(manuscript.blocks, rule)) {
    if (first && manuscript.front.title && manuscript.front.titleSlide !== false && next.depth !== 1) yield make(openingDraft(manuscript.front));
    yield make(next);
  }
  if (first && manuscript.front.title && manuscript.front.titleSlide !== false) yield make(openingDraft(manuscript.front));
}

function themeNamed(name: string): Theme | undefined {
  if (name in THEMES) return THEMES[name as ThemeKey];
  return Object.values(THEMES).find((theme) => theme.name.toLowerCase() === name.toLowerCase());
}

/** What the front matter says of the deck, put over a head; what cannot be taken is added to `problems`. */
export function headFrom(front: FrontMatter, head: DeckHead, problems: Problem[]): DeckHead {
  const theme = front.theme === undefined ? undefined : themeNamed(front.theme);
  const page = front.page === undefined ? undefined : pageNamed(front.page);
  const language = front.language === undefined ? undefined : Language.safeParse(front.language).data;
  const say = (key: string, value: unknown, hint: string) => problems.push({ line: 1, message: `“${key}: ${value}” is passed over. ${hint}` });
  if (front.theme !== undefined && !theme) say("theme", front.theme, `Themes are ${Object.keys(THEMES).join(", ")}.`);
  if (front.page !== undefined && !page) say("page", front.page, "A page is 16:9, 16:10, 4:3 or its size in points such as 960x540.");
  if (front.language !== undefined && !language) say("language", front.language, "A language is a tag such as en or pt-BR.");
  const rate = front.rate !== undefined && front.rate >= 40 && front.rate <= 400 ? front.rate : undefined;
  if (front.rate !== undefined && rate === undefined) say("rate", front.rate, "A speaking rate is 40 to 400 words a minute.");
  return {
    ...head,
    properties: {
      title: front.title ?? head.properties.title,
      author: front.author ?? head.properties.author,
      event: front.event ?? head.properties.event,
      date: front.date ?? head.properties.date,
    },
    language: language ?? head.language,
    theme: theme ?? head.theme,
    page: page ?? head.page,
    regions: { footer: front.footer ?? head.regions.footer, number: front.numbers ?? head.regions.number },
    rate: rate ?? head.rate,
  };
}

/** The deck that a manuscript makes. Its title is the front matter's, else the first slide's, else `fallback`. */
export function generateDeck(manuscript: Manuscript, rule: BreakRule, newId: () => string, fallback = "Untitled") {
  const deck = emptyDeck(newId(), manuscript.front.title ?? "");
  const made = [...generate(manuscript, rule, newId)];
  const head = headFrom(manuscript.front, headOf(deck), manuscript.problems);
  const opening = made[0]?.slide.elements.find((element) => element.kind === "text" && element.slot === "title");
  const title = head.properties.title || (opening?.kind === "text" ? textOf(opening.text) : "") || fallback;
  return { deck: { ...head, properties: { ...head.properties, title }, slides: made.map(({ slide }) => slide) }, lines: made.map(({ lines }) => lines) };
}
