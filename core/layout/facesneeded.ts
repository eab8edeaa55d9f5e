import {
  regionWords,
  DESIGNS,
  elementTexts,
  type RichText,
  roleOf,
  type Slide,
  type SlotRole,
  type TextStyle,
  themeOf,
  withDrawing,
  must,
  type Bullet,
  type Element,
} from "@unitext/core/model";
import { faceFor, familyForWord, familyNamed, type Family } from "./fonts";
import { roleAppearance } from "./roleproperties";
import { SPACE } from "./shapedparagraph";
import { drawableCharacter, symbolsAsText } from "./symbols";
import type { SlideContext } from "./context";

const LETTERS = "abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ";
const DIGITS = "0123456789";

/** Collects the families and characters of slides that share a theme. */
class FaceCollector {
  private readonly families: Set<Family>;
  private readonly styles = new Set<TextStyle>();
  /** The characters by weight and slope, two flags, and language. */
  private readonly characters = new Map<string, Set<number>>();
  /** The words by the same: one family has all letters of a word. */
  private readonly words = new Map<string, Set<string>>();

  constructor(private readonly metadata: SlideContext["metadata"]) {
    const { heading, body, code } = metadata.theme.fonts;
    const own = Object.values(metadata.theme.roles ?? {}).flatMap(({ font }) => font ?? []);
    this.families = new Set([heading, body, code, ...own].map(familyNamed));
    const { bullets = [], regions } = DESIGNS[metadata.theme.design];
    this.add(`${DIGITS}.,•–abc %·−-${bullets.join("")}`);
    this.add(regionWords(metadata, "footer"), { bold: regions?.footer?.strong ?? false });
    this.add(regionWords(metadata, "header"), { bold: regions?.header?.strong ?? false });
    if (regions?.number?.strong) this.add(DIGITS, { bold: true });
  }

  slide(slide: Slide): void {
    const { metadata } = this;
    const behind = slide.master === undefined ? [] : (metadata.masters?.[slide.master]?.elements ?? []);
    for (const { text } of slide.regions ?? []) this.add(text, { bold: true });
    for (const element of withDrawing([...behind, ...slide.elements])) this.element(element, roleOf(slide, element));
    const hasFootnote = (text: RichText) => text.some(({ runs }) => runs.some(({ footnote }) => footnote));
    if (slide.elements.some((element) => elementTexts(element).some(hasFootnote)))
      this.add(`${DIGITS}\u2002`, { bold: true });
  }

  /** Returns the ids of the faces that draw the characters, and the first face of each family. */
  faces(): string[] {
    const faces = new Set([...this.families].flatMap(({ faces: [first] }) => (first ? [first.id] : [])));
    const add = (family: Family, points: Iterable<number>, key: string) => {
      for (const point of points)
        faces.add(faceFor(family, Math.max(point, 0x20), key[0] === "1", key[1] === "1", key.slice(2)).id);
    };
    for (const family of this.families) {
      for (const [key, points] of this.characters) add(family, points, key);
      for (const [key, words] of this.words)
        for (const word of words) {
          const own = familyForWord(family, word, key.slice(2));
          if (own !== family)
            add(
              own,
              [...word].map((character) => must(character.codePointAt(0))),
              key,
            );
        }
    }
    return [...faces];
  }

  private add(text: string, { bold = false, italic = false, language = this.metadata.language } = {}): void {
    const key = `${bold ? 1 : 0}${italic ? 1 : 0}${language}`;
    const points = this.characters.get(key) ?? new Set();
    this.characters.set(key, points);
    for (const character of text) points.add(must(character.codePointAt(0)));
    const words = this.words.get(key) ?? new Set();
    this.words.set(key, words);
    for (const word of [" ", ...text.split(SPACE)]) words.add(word);
  }

  private element(element: Element, role: SlotRole | undefined): void {
    const style = element.style === undefined ? undefined : this.metadata.styles?.[element.style];
    if (style) this.style(style);
    if (element.kind === "media" || element.kind === "foreign")
      this.add(`▶ Film Sound: ${element.kind === "foreign" ? element.what : ""}${element.alt}`);
    const own = element.kind === "text" && !style ? roleAppearance(role ?? "body", this.metadata.theme) : undefined;
    const bold =
      own?.strong || element.slot === "number" || element.kind === "diagram" || style?.some(({ strong }) => strong);
    const look = { strong: bold ?? false, italic: own?.italic ?? false, capitals: own?.capitals ?? false };
    for (const text of elementTexts(element)) this.text(text, look);
    if (element.kind === "table")
      for (const row of element.rows.slice(0, element.header))
        for (const cell of row) if (cell) this.text(cell.text, { strong: true });
    if (element.kind === "diagram") this.text(element.text);
    if (element.kind === "code") this.add(element.text);
    if (element.kind === "formula") this.add(element.tex);
  }

  private style(style: TextStyle): void {
    if (this.styles.has(style)) return;
    this.styles.add(style);
    for (const { run, paragraph, emphasis } of style) {
      if (run?.font) this.families.add(familyNamed(run.font));
      this.bullet(paragraph?.bullet);
      if (emphasis) this.add(DIGITS + LETTERS, { italic: true });
      if (run?.caps) this.add(LETTERS.toUpperCase());
    }
  }

  private bullet(bullet: Bullet | undefined): void {
    if (bullet?.character) this.add(drawableCharacter(bullet.character, bullet.font));
  }

  private text(text: RichText, { strong = false, italic = false, capitals = false } = {}): void {
    for (const { runs, properties } of text) {
      this.bullet(properties?.bullet);
      for (const { text: words, marks = [], properties: own, footnote } of runs) {
        if (own?.font) this.families.add(familyNamed(own.font));
        const drawn = symbolsAsText(words, own?.font);
        const look = {
          bold: strong || marks.includes("strong"),
          italic: italic || marks.includes("emphasis"),
          ...(own?.language ? { language: own.language } : {}),
        };
        this.add(own?.caps || capitals ? drawn.toUpperCase() : drawn, look);
        if (footnote) this.text([{ kind: "plain", level: 0, runs: footnote }]);
      }
    }
  }
}

/** Returns the ids of the faces that these slides need, so that they can be loaded first. */
export function facesNeeded(slides: readonly Slide[], metadata: SlideContext["metadata"]): string[] {
  const themeName = ({ theme }: Slide) => (theme !== undefined && metadata.themes?.[theme] ? theme : undefined);
  const names = new Set([undefined, ...slides.map(themeName)]);
  const faces = [...names].flatMap((name) => {
    const theme = themeOf(name === undefined ? {} : { theme: name }, metadata);
    const collector = new FaceCollector({ ...metadata, theme });
    for (const slide of slides) if (themeName(slide) === name) collector.slide(slide);
    return collector.faces();
  });
  return [...new Set(faces)];
}
