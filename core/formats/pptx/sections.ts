import { type Deck, sectionBegun, type Slide, textHash } from "@unitext/core/model";
import { child, childrenOf, localName, xml, type XmlElement } from "../archive";

/** The extension of `p:presentation` that names runs of slides (its identifier and namespace are published by its maker; ECMA-376-1, 19.2.1.12 leaves room for it). */
const EXTENSION = "{521415D9-36F7-43E2-AB2F-B90AF26B5E84}";
const NAMESPACE = "http://schemas.microsoft.com/office/powerpoint/2010/main";

interface Section {
  name: string;
  /** The numbers by which the presentation lists its slides. */
  slides: string[];
}

/** The sections that a presentation says, in order; empty where it says none. */
export function readSections(presentation: XmlElement): Section[] {
  const list = childrenOf(child(presentation, "extLst"), "ext").flatMap((extension) => childrenOf(extension, "sectionLst"))[0];
  return childrenOf(list, "section").map((section) => ({
    name: (section.attributes.name ?? "").trim().slice(0, 300),
    slides: childrenOf(child(section, "sldIdLst"), "sldId").flatMap(({ attributes }) => attributes.id ?? []),
  }));
}

/** The slides with the sections that begin with them; one that its opener names already needs no name of its own. */
export function withSections(slides: readonly Slide[], sections: readonly Section[], numberOf: (slide: string) => string | undefined): Slide[] {
  const begun = new Map(sections.flatMap(({ name, slides: [first] }) => (name && first !== undefined ? [[first, name] as const] : [])));
  return slides.map((given): Slide => {
    const { section: _, ...slide } = given;
    const name = begun.get(numberOf(given.id) ?? "");
    return name === undefined || sectionBegun(slide) === name ? slide : { ...slide, section: name };
  });
}

/** The sections of a deck over the numbers of its slides; what stands before the first is named after the deck. */
function sectionsOf(deck: Deck, numbers: readonly string[]): Section[] {
  const sections: Section[] = [];
  deck.slides.forEach((slide, nth) => {
    const name = sectionBegun(slide);
    if (name !== undefined || nth === 0) sections.push({ name: name || deck.properties.title || "1", slides: [] });
    sections.at(-1)?.slides.push(numbers[nth] as string);
  });
  return deck.slides.some((slide) => sectionBegun(slide) !== undefined) ? sections : [];
}

/** An identifier that is the same for the same section. */
function guid(text: string): string {
  const digits = [0, 1, 2, 3].map((nth) => textHash(`${nth}${text}`).replace(/[^0-9a-f]/gi, "").padStart(8, "0").slice(-8)).join("").toUpperCase();
  return `{${digits.slice(0, 8)}-${digits.slice(8, 12)}-${digits.slice(12, 16)}-${digits.slice(16, 20)}-${digits.slice(20, 32)}}`;
}

function extensionXml(deck: Deck, sections: readonly Section[]): string {
  const list = sections.map(({ name, slides }, nth) => xml("p14:section", { name, id: guid(`${deck.id}/${nth}/${name}`) }, xml("p14:sldIdLst", {}, ...slides.map((id) => xml("p14:sldId", { id })))));
  return xml("p:ext", { uri: EXTENSION }, xml("p14:sectionLst", { "xmlns:p14": NAMESPACE }, ...list));
}

/** The extensions of a presentation that is written anew. */
export function sectionsXml(deck: Deck, numbers: readonly string[]): string {
  const sections = sectionsOf(deck, numbers);
  return sections.length ? xml("p:extLst", {}, extensionXml(deck, sections)) : "";
}

/** A presentation part with the sections that the deck has now; as it is where they are the same. */
export function sectioned(text: string, presentation: XmlElement, deck: Deck, numbers: readonly string[]): string {
  const now = sectionsOf(deck, numbers);
  const before = readSections(presentation);
  const begins = (sections: readonly Section[], from: number) => JSON.stringify(sections.slice(from).map(({ name, slides }) => [name, slides]));
  // The name of what stands before the first section is the file's own.
  const unnamed = deck.slides[0] !== undefined && sectionBegun(deck.slides[0]) === undefined && before.length === now.length && before[0]?.slides.join() === now[0]?.slides.join() ? 1 : 0;
  if (begins(now, unnamed) === begins(before, unnamed)) return text;
  const pattern = new RegExp(`<(\\w+:)?ext\\b[^>]*uri="\\${EXTENSION.replace("}", "\\}")}"[\\s\\S]*?</(\\w+:)?ext>`);
  const bare = text.replace(pattern, "").replace(/<((?:\w+:)?)extLst>\s*<\/\1extLst>/, "");
  if (!now.length) return bare;
  const p = presentation.name.slice(0, presentation.name.length - localName(presentation).length);
  const made = extensionXml(deck, now).replace(/<(\/?)p:/g, `<$1${p}`);
  const end = `</${p}presentation>`;
  const holder = `</${p}extLst>${end}`;
  const at = bare.replace(/>\s+</g, "><").endsWith(holder) ? bare.lastIndexOf(`</${p}extLst>`) : -1;
  return at >= 0 ? bare.slice(0, at) + made + bare.slice(at) : bare.replace(end, () => `<${p}extLst>${made}</${p}extLst>${end}`);
}
