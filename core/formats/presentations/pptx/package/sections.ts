import { cutText, type Deck, sectionStarting, type Slide, textHash } from "@unitext/core/model";
import { child, childrenOf, xml, type XmlElement } from "../../../shared/xml";

/**
 * Runs of slides by name are no part of ECMA-376: files that have them say them in an extension of their own
 * (19.2.1.12), which is read by its names, followed where it is, and never made. Other decks have theirs in tags.
 */
const LIST = /<((?:\w+:)?)sectionLst\b([^>]*)>[\s\S]*?<\/\1sectionLst>/;
const HOLDER = /<((?:\w+:)?)ext\b[^>]*>\s*<((?:\w+:)?)sectionLst\b[\s\S]*?<\/\2sectionLst>\s*<\/\1ext>/;

interface Section {
  name: string;
  /** The numbers by which the presentation lists its slides. */
  slides: string[];
}

/** The sections that a presentation says, in order; empty where it says none. */
export function readSections(presentation: XmlElement): Section[] {
  const list = childrenOf(child(presentation, "extLst"), "ext").flatMap((extension) =>
    childrenOf(extension, "sectionLst"),
  )[0];
  return childrenOf(list, "section").map((section) => ({
    name: cutText((section.attributes.name ?? "").trim(), 300),
    slides: childrenOf(child(section, "sldIdLst"), "sldId").flatMap(({ attributes }) => attributes.id ?? []),
  }));
}

/** The slides with the sections that begin with them; one that its opener names already needs no name of its own. */
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

/** The sections of a deck over the numbers of its slides; what stands before the first is named after the deck. */
function sectionsOf(deck: Deck, numbers: readonly string[]): Section[] {
  const sections: Section[] = [];
  deck.slides.forEach((slide, nth) => {
    const name = sectionStarting(slide);
    if (name !== undefined || nth === 0) sections.push({ name: name || deck.properties.title || "1", slides: [] });
    sections.at(-1)?.slides.push(numbers[nth] as string);
  });
  return deck.slides.some((slide) => sectionStarting(slide) !== undefined) ? sections : [];
}

/** An identifier that is the same for the same section. */
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

/** A presentation part with the sections that the deck has now, where its file has a list of them; as it is where they are the same, or it has none. */
export function sectioned(text: string, presentation: XmlElement, deck: Deck, numbers: readonly string[]): string {
  const [, prefix = "", attributes = ""] = LIST.exec(text) ?? [];
  const now = sectionsOf(deck, numbers);
  const before = readSections(presentation);
  const begins = (sections: readonly Section[], from: number) =>
    JSON.stringify(sections.slice(from).map(({ name, slides }) => [name, slides]));
  // The name of what stands before the first section is the file's own.
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
