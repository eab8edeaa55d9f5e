import { cutText, type Deck, sectionStarting, type Slide, textHash, must } from "@unitext/core/model";
import { child, childrenOf, xml, type XmlElement } from "../../../shared/xml";

/**
 * Named sections are not part of ECMA-376. Files have them in an extension (19.2.1.12), which is read by its names and
 * updated where it exists, but never created. Other decks store sections in tags.
 */
const LIST = /<((?:\w+:)?)sectionLst\b([^>]*)>[\s\S]*?<\/\1sectionLst>/;
const HOLDER = /<((?:\w+:)?)ext\b[^>]*>\s*<((?:\w+:)?)sectionLst\b[\s\S]*?<\/\2sectionLst>\s*<\/\1ext>/;

interface Section {
  name: string;
  /** The numbers by which the presentation lists its slides. */
  slides: string[];
}

/** Returns the sections of a presentation in order; empty when it has none. */
export function readSections(presentation: XmlElement): Section[] {
  const list = childrenOf(child(presentation, "extLst"), "ext").flatMap((extension) =>
    childrenOf(extension, "sectionLst"),
  )[0];
  return childrenOf(list, "section").map((section) => ({
    name: cutText((section.attributes.name ?? "").trim(), 300),
    slides: childrenOf(child(section, "sldIdLst"), "sldId").flatMap(({ attributes }) => attributes.id ?? []),
  }));
}

/**
 * Returns the slides with the sections that start with them. A section named by its opener needs no name of its own.
 */
export function withSections(
  slides: readonly Slide[],
  sections: readonly Section[],
  numberOf: (slide: string) => string | undefined,
): Slide[] {
  const begun = new Map(
    sections.flatMap(({ name, slides: [first] }) => (name && first !== undefined ? [[first, name] as const] : [])),
  );
  return slides.map((given): Slide => {
    const { section: _, ...slide } = given;
    const name = begun.get(numberOf(given.id) ?? "");
    return name === undefined || sectionStarting(slide) === name ? slide : { ...slide, section: name };
  });
}

/** Returns the sections of a deck as slide numbers; slides before the first section are named after the deck. */
function sectionsOf(deck: Deck, numbers: readonly string[]): Section[] {
  const sections: Section[] = [];
  deck.slides.forEach((slide, nth) => {
    const name = sectionStarting(slide);
    if (name !== undefined || nth === 0) sections.push({ name: name || deck.properties.title || "1", slides: [] });
    sections.at(-1)?.slides.push(must(numbers[nth]));
  });
  return deck.slides.some((slide) => sectionStarting(slide) !== undefined) ? sections : [];
}

/** Returns the same identifier for the same section. */
function guid(text: string): string {
  const digits = [0, 1, 2, 3]
    .map((nth) =>
      textHash(`${nth}${text}`)
        .replace(/[^0-9a-f]/gi, "")
        .padStart(8, "0")
        .slice(-8),
    )
    .join("")
    .toUpperCase();
  return `{${digits.slice(0, 8)}-${digits.slice(8, 12)}-${digits.slice(12, 16)}-${digits.slice(16, 20)}-${digits.slice(20, 32)}}`;
}

/**
 * Updates the sections in a presentation part that has a list of them; unchanged when they are the same or it has none.
 */
export function sectioned(text: string, presentation: XmlElement, deck: Deck, numbers: readonly string[]): string {
  const [, prefix = "", attributes = ""] = LIST.exec(text) ?? [];
  const now = sectionsOf(deck, numbers);
  const before = readSections(presentation);
  const begins = (sections: readonly Section[], from: number) =>
    JSON.stringify(sections.slice(from).map(({ name, slides }) => [name, slides]));
  // The file's own name for the slides before the first section is kept.
  const unnamed =
    deck.slides[0] !== undefined &&
    sectionStarting(deck.slides[0]) === undefined &&
    before.length === now.length &&
    before[0]?.slides.join() === now[0]?.slides.join()
      ? 1
      : 0;
  if (!before.length || begins(now, unnamed) === begins(before, unnamed)) return text;
  if (!now.length) return text.replace(HOLDER, "").replace(/<((?:\w+:)?)extLst>\s*<\/\1extLst>/, "");
  const list = now.map(({ name, slides }, nth) =>
    xml(
      `${prefix}section`,
      { name, id: guid(`${deck.id}/${nth}/${name}`) },
      xml(`${prefix}sldIdLst`, {}, ...slides.map((id) => xml(`${prefix}sldId`, { id }))),
    ),
  );
  return text.replace(LIST, () => `<${prefix}sectionLst${attributes}>${list.join("")}</${prefix}sectionLst>`);
}
