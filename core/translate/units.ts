import { withStamp } from "@unitext/core/edit";
import {
  type Deck,
  type Element,
  mapElementTexts,
  type Paragraph,
  type RichText,
  type Run,
  run,
  type Slide,
  textOf,
} from "@unitext/core/model";

/** What a text is for the person who reads it. */
export type UnitKind =
  | "title"
  | "text"
  | "caption"
  | "chart"
  | "description"
  | "notes"
  | "footnote"
  | "section"
  | "footer"
  | "header";

/**
 * A text that a person reads and that is translated as one: a paragraph, or a line such as a caption, the name of a
 * series or a description. Its id consists of the ids of slide and element and its place in them.
 */
export interface TextUnit {
  id: string;
  kind: UnitKind;
  /** The number of its slide, from 1; null for texts of the deck. */
  slide: number | null;
  slideId: string | null;
  runs: readonly Run[];
}

/** Returns the runs that take the place of those of a unit. */
export type ChangeUnit = (unit: TextUnit) => readonly Run[];

const plain = (runs: readonly Run[]) => runs.map(({ text }) => text).join("");

/** Changes the texts of one slide, or of the deck itself. */
class UnitMapper {
  constructor(
    private readonly change: ChangeUnit,
    private readonly slide: number | null,
    private readonly slideId: string | null,
  ) {}

  private changed(id: string, kind: UnitKind, runs: readonly Run[]): readonly Run[] {
    const { slide, slideId } = this;
    return this.change({ id, kind, slide, slideId, runs });
  }

  /** Changes a line of plain text; an empty one stays. */
  line(id: string, kind: UnitKind, words: string): string {
    return words.trim() === "" ? words : plain(this.changed(id, kind, [run(words)]));
  }

  /** Changes a text paragraph by paragraph, each footnote before the paragraph that refers to it. */
  text(text: RichText, id: string, kind: UnitKind): RichText {
    return text.map((paragraph, nth): Paragraph => {
      const own = `${id}.${nth}`;
      const runs = paragraph.runs.map((item, at) =>
        item.footnote
          ? { ...item, footnote: this.changed(`${own}.f${at}`, "footnote", item.footnote).map((one) => bare(one)) }
          : item,
      );
      if (textOf([{ ...paragraph, runs }]).trim() === "" && !runs.some(({ footnote }) => footnote)) return paragraph;
      return { ...paragraph, runs: [...this.changed(own, kind, runs)] };
    });
  }

  element(element: Element, slide: string): Element {
    // The list of sources is made again in the language of the deck.
    if (element.kind === "table" && element.lists) return element;
    const id = `${slide}:${element.id}`;
    let nth = 0;
    const kind =
      element.slot === "title" ? "title" : element.kind === "chart" || element.kind === "picture" ? "caption" : "text";
    const next = mapElementTexts(element, (text) => this.text(text, `${id}:t${nth++}`, kind));
    return this.described(this.chart(next, id), id);
  }

  private described(element: Element, id: string): Element {
    if (!("alt" in element) || !element.alt) return element;
    return { ...element, alt: this.line(`${id}:alt`, "description", element.alt) };
  }

  /** Changes the words of a chart beside its title: categories, names of series and titles of axes. */
  private chart(element: Element, id: string): Element {
    if (element.kind !== "chart") return element;
    const word = (part: string, words: string) =>
      isNumber(words) ? words : this.line(`${id}:${part}`, "chart", words);
    const axis = <A extends { title?: string | undefined }>(own: A | undefined, part: string) =>
      own?.title ? { ...own, title: word(part, own.title) } : own;
    const { xAxis, yAxis, secondaryAxis, ...rest } = element;
    return {
      ...rest,
      categories: element.categories.map((name, nth) => word(`c${nth}`, name)),
      series: element.series.map((one, nth) => ({ ...one, name: word(`s${nth}`, one.name) })),
      ...(xAxis ? { xAxis: axis(xAxis, "x") } : {}),
      ...(yAxis ? { yAxis: axis(yAxis, "y") } : {}),
      ...(secondaryAxis ? { secondaryAxis: axis(secondaryAxis, "y2") } : {}),
    } as Element;
  }
}

const isNumber = (words: string) => /^[\s\d.,%−-]*$/.test(words);

/** Returns a run of a footnote, which has none of its own. */
function bare({ text, marks, link, properties, binding }: Run): Run {
  return run(text, marks, link, properties, binding);
}

/**
 * Returns a deck with every text that a person reads changed, in reading order: titles, paragraphs, cells, captions, words
 * of charts and diagrams, descriptions, footnotes, notes, names of sections, the lines at foot and top, and the title of the deck; not
 * code, formulas and addresses.
 */
export function mapUnits(deck: Deck, change: ChangeUnit): Deck {
  const whole = new UnitMapper(change, null, null);
  const title = whole.line("deck:title", "title", deck.properties.title);
  const { stamp = "", footer, header } = deck.regions;
  const top = header === undefined ? undefined : whole.line("deck:header", "header", header);
  const words = whole.line("deck:footer", "footer", withStamp(footer, stamp, ""));
  const slides = deck.slides.map((slide, nth): Slide => {
    const mapper = new UnitMapper(change, nth + 1, slide.id);
    const section = slide.section ? mapper.line(`${slide.id}:section`, "section", slide.section) : undefined;
    const elements = slide.elements.map((element) => mapper.element(element, slide.id));
    return {
      ...slide,
      ...(section === undefined ? {} : { section }),
      elements,
      notes: mapper.text(slide.notes, `${slide.id}:notes`, "notes"),
    };
  });
  return {
    ...deck,
    properties: { ...deck.properties, title },
    regions: {
      ...deck.regions,
      footer: stamp ? withStamp(words, "", stamp) : words,
      ...(top === undefined ? {} : { header: top }),
    },
    slides,
  };
}

/** Returns the texts of a deck that are translated, in reading order. */
export function unitsOf(deck: Deck): TextUnit[] {
  const units: TextUnit[] = [];
  mapUnits(deck, (unit) => {
    units.push(unit);
    return unit.runs;
  });
  return units;
}
