import { bareContent, contentKey } from "@unitext/core/diff";
import type { SingleChange } from "@unitext/core/edit";
import {
  isInFileLayout,
  DEFAULT_RULE,
  type Element,
  emptyDeck,
  slidePropertiesOf,
  type Paragraph,
  paragraphText,
  type RichText,
  type Slide,
  stepsForm,
  type TableElement,
  must,
} from "@unitext/core/model";
import { deckText, normalText, readText } from "@unitext/core/text";
import { diffIndices } from "node-diff3";
import { generate } from "./generate";

const free = new WeakMap<readonly Element[], boolean>();
const KINDS: ReadonlySet<Element["kind"]> = new Set(["shape", "media", "foreign"]);

/**
 * Whether a slide holds more than the text form can say: frames, own properties, drawings. Its text is updated word by
 * word, and nothing else of it is touched.
 */
export function holdsMoreThanText(slide: Slide): boolean {
  // Master and text styles of a generated slide follow from the layouts of the deck.
  const inLayout = isInFileLayout(slide);
  if (!inLayout && (slide.master !== undefined || slide.regions)) return true;
  const known = free.get(slide.elements);
  if (known !== undefined) return known;
  const more = ({ frame, style, box, rotation, flip, groups, fill, stroke, shadow, ...element }: Element) =>
    Boolean(
      KINDS.has(element.kind) ||
        frame ||
        (!inLayout && (style || box)) ||
        rotation ||
        flip ||
        groups ||
        fill ||
        stroke ||
        shadow ||
        (element.kind === "text" && element.steps && stepsForm(element.text) === "own") ||
        (element.kind === "picture" &&
          (element.crop || element.opacity !== undefined || element.recolour || element.shape)) ||
        (element.kind === "chart" &&
          (element.title ||
            element.legend ||
            element.labels ||
            element.format ||
            element.xAxis ||
            element.yAxis ||
            element.stack ||
            element.series.some(({ colour }) => colour))),
    );
  const found = slide.elements.some(more);
  free.set(slide.elements, found);
  return found;
}

const echoedSlides = new WeakMap<Slide, { first: boolean; echo: Slide | undefined }>();

/** Returns the slide that the deck's own text makes when it is read, as the base for what was typed. */
function echoedSlide(slide: Slide, first: boolean): Slide | undefined {
  const known = echoedSlides.get(slide);
  if (known && known.first === first) return known.echo;
  const opening: Slide = {
    id: "echo-opening",
    parent: null,
    arrangement: "opening",
    elements: [{ kind: "text", id: "t", slot: "title", text: [{ kind: "plain", level: 0, runs: [{ text: "Echo" }] }] }],
    notes: [],
    hidden: false,
  };
  const own: Slide = { ...slide, parent: null };
  const text = deckText({ ...emptyDeck("echo", "Echo"), slides: first ? [own] : [opening, own] }, { ids: false });
  let next = 0;
  const made = [...generate(readText(text), DEFAULT_RULE, { newId: () => `echo${++next}` })].map((item) => item.slide);
  const echo = first ? made[0] : made[1];
  echoedSlides.set(slide, { first, echo });
  return echo;
}

interface Said {
  words: string;
  paragraph: Paragraph;
  element: Element;
  at: number;
}

/** Returns the paragraphs of a slide in order, with their places. */
function paragraphs(slide: Slide, shapes: boolean): Said[] {
  return slide.elements.flatMap((element) =>
    element.kind === "text" || (shapes && element.kind === "shape")
      ? element.text.flatMap((paragraph, at) =>
          paragraphText(paragraph).trim() || paragraph.runs.some(({ footnote }) => footnote)
            ? [
                {
                  words: JSON.stringify(
                    normalText([
                      {
                        ...paragraph,
                        properties: undefined,
                        step: undefined,
                        align: undefined,
                        level: 0,
                        kind: "plain",
                        runs: paragraph.runs.map(({ properties: _, ...run }) => run),
                      } as Paragraph,
                    ]),
                  ),
                  paragraph,
                  element,
                  at,
                },
              ]
            : [],
        )
      : [],
  );
}

const bareWords = (words: string) => words.replace(/"marks":\[[^\]]*\],?/g, "");

/** Returns a paragraph with other words and the properties of the one that it replaces. */
function withPropertiesOf(before: Paragraph, made: Paragraph): Paragraph {
  const spoken = before.runs.filter(({ text }) => text.trim());
  const marksOf = ({ marks }: Paragraph["runs"][number]) => (marks ?? []).join();
  // A run gets the properties of the run with the same words, at the same place, or with the same marks.
  const propertiesAt = (run: Paragraph["runs"][number], nth: number) =>
    (
      spoken.find(({ text }) => text.trim() === run.text.trim()) ??
      (before.runs.length === made.runs.length ? before.runs[nth] : undefined) ??
      spoken.find((one) => marksOf(one) === marksOf(run)) ??
      spoken[0]
    )?.properties;
  return {
    ...before,
    runs: made.runs.map((run, nth) => ({
      ...run,
      ...(propertiesAt(run, nth) ? { properties: propertiesAt(run, nth) } : {}),
    })) as Paragraph["runs"],
  };
}

const FIGURES: readonly Element["kind"][] = ["table", "chart", "code", "formula", "diagram", "picture"];
const keyOf = (element: Element) => JSON.stringify(bareContent(element));

/** Returns a typed figure with the properties of the deck's figure. */
function withTypedWords(old: Element, made: Element): Element {
  if (old.kind === "table" && made.kind === "table") {
    const same =
      old.rows.length === made.rows.length &&
      old.rows.every(
        (row, y) =>
          row.length === made.rows[y]?.length &&
          row.every((cell, x) => (cell === null) === (made.rows[y]?.[x] === null)),
      );
    const { widths: _, heights: __, ...bare } = old;
    if (!same) return { ...bare, rows: made.rows, header: made.header, align: made.align } as TableElement;
    return {
      ...old,
      rows: old.rows.map((row, y) =>
        row.map((cell, x) => {
          const typed = made.rows[y]?.[x];
          if (!cell || !typed) return cell;
          return {
            ...cell,
            text: typed.text.map((paragraph, nth) =>
              cell.text[nth] ? withPropertiesOf(cell.text[nth], paragraph) : paragraph,
            ),
          };
        }),
      ),
    };
  }
  if (old.kind === "chart" && made.kind === "chart")
    return {
      ...old,
      type: made.type,
      categories: made.categories,
      series: made.series.map((series, nth) => ({ ...old.series[nth], ...series })),
    };
  const { id: _, slot: __, frame: ___, binding: ____, ...content } = made;
  return { ...old, ...content } as Element;
}

/**
 * Returns the changes that update the words of a slide with more content than the text can say. Everything that the
 * text does not mention stays.
 */
export function wordChanges(old: Slide, made: Slide, first: boolean): SingleChange[] {
  const echo = echoedSlide(old, first);
  const sameNotes = echo && JSON.stringify(normalText(echo.notes)) === JSON.stringify(normalText(made.notes));
  if (echo && sameNotes && contentKey({ ...echo, notes: made.notes }) === contentKey(made)) return [];
  const changes: SingleChange[] = [];
  if (!sameNotes) changes.push({ kind: "setNotes", slide: old.id, notes: made.notes });
  if (!echo) return changes;
  if (JSON.stringify(slidePropertiesOf(echo)) !== JSON.stringify(slidePropertiesOf(made)))
    changes.push({
      kind: "setSlideProperties",
      slide: old.id,
      properties: { ...slidePropertiesOf(old), ...slidePropertiesOf(made) },
    });
  return [...changes, ...textChanges(old, echo, made), ...figureChanges(old, echo, made)];
}

/** Pairs each paragraph of `base` with one of `own` that says the same, with the same marks if there is one. */
function pairParagraphs(base: readonly Said[], own: readonly Said[]): (Said | undefined)[] {
  const unused = new Set(own);
  return base.map(({ words }) => {
    const find = (test: (one: Said) => boolean) => [...unused].find(test);
    const found = find((one) => one.words === words) ?? find((one) => bareWords(one.words) === bareWords(words));
    if (found) unused.delete(found);
    return found;
  });
}

/** The paragraphs of a slide's texts, each with what replaces it and what follows it. */
class EditedTexts {
  private readonly texts = new Map<Element, (Paragraph | null)[][]>();
  /** Typed paragraphs that belong to no text of the slide. */
  readonly unplaced: Paragraph[] = [];

  private listsOf(element: Element): (Paragraph | null)[][] {
    const text = "text" in element && Array.isArray(element.text) ? element.text : [];
    const known = this.texts.get(element) ?? text.map((paragraph): (Paragraph | null)[] => [paragraph]);
    this.texts.set(element, known);
    return known;
  }

  /** Replaces a paragraph by a typed one, in its formatting, or removes it. */
  replace(held: Said, typed: Paragraph | undefined): void {
    const lists = this.listsOf(held.element);
    const following = must(lists[held.at]).slice(1);
    lists[held.at] = [typed ? withPropertiesOf(held.paragraph, typed) : null, ...following];
  }

  insertAfter(beside: Said | undefined, typed: Paragraph): void {
    if (!beside) {
      this.unplaced.push(typed);
      return;
    }
    const paragraph = withPropertiesOf(beside.paragraph, typed);
    must(this.listsOf(beside.element)[beside.at]).push({ ...paragraph, kind: typed.kind, level: typed.level });
  }

  *[Symbol.iterator](): Generator<[Element, RichText]> {
    for (const [element, lists] of this.texts)
      yield [element, lists.flat().filter((paragraph): paragraph is Paragraph => paragraph !== null)];
  }
}

/** Applies what was typed since the base to the paragraphs of the slide that say the same as the base. */
function textChanges(old: Slide, echo: Slide, made: Slide): SingleChange[] {
  const [before, after] = [paragraphs(echo, false), paragraphs(made, false)];
  const place = pairParagraphs(before, paragraphs(old, true));
  const isBody = (one: Said | undefined) => one !== undefined && one.element.slot !== "title";
  const edited = new EditedTexts();
  const wordsOf = (list: readonly Said[]) => list.map(({ words }) => words);
  for (const { buffer1, buffer2 } of diffIndices(wordsOf(before), wordsOf(after))) {
    const [from, removed] = buffer1;
    const [start, added] = buffer2;
    for (let nth = 0; nth < Math.max(removed, added); nth++) {
      const held = nth < removed ? place[from + nth] : undefined;
      const typed = nth < added ? after[start + nth]?.paragraph : undefined;
      if (held) edited.replace(held, typed);
      else if (typed) {
        const above = place.slice(0, from + Math.min(nth, removed)).findLast(isBody);
        edited.insertAfter(above ?? place.slice(from).find(isBody), typed);
      }
    }
  }
  const changes = [...edited].map(
    ([element, text]): SingleChange =>
      element.kind === "text"
        ? { kind: "setText", slide: old.id, element: element.id, text }
        : { kind: "setElement", slide: old.id, element: { ...element, text } as Element },
  );
  if (edited.unplaced.length)
    changes.push({
      kind: "insertElement",
      slide: old.id,
      element: { kind: "text", id: `${made.id}-more`, slot: null, text: edited.unplaced },
      index: old.elements.length,
    });
  return changes;
}

/** Updates figures, kind by kind; those that are equal in base and text are not touched. */
function figureChanges(old: Slide, echo: Slide, made: Slide): SingleChange[] {
  return FIGURES.flatMap((kind) => {
    const of = (slide: Slide) => slide.elements.filter((element) => element.kind === kind);
    const [was, is, has] = [of(echo), of(made), of(old)];
    const same = new Set<number>();
    const paired = is.map((element) => {
      const at = was.findIndex((one, nth) => !same.has(nth) && keyOf(one) === keyOf(element));
      if (at >= 0) same.add(at);
      return at;
    });
    const changes: SingleChange[] = [];
    let next = 0;
    paired.forEach((at, nth) => {
      if (at >= 0) return;
      while (same.has(next)) next++;
      const held = next < was.length ? has[next] : undefined;
      const typed = must(is[nth]);
      if (held) {
        same.add(next);
        changes.push({ kind: "setElement", slide: old.id, element: withTypedWords(held, typed) });
      } else
        changes.push({
          kind: "insertElement",
          slide: old.id,
          element: { ...typed, slot: null },
          index: old.elements.length,
        });
    });
    was.forEach((_, nth) => {
      const held = has[nth];
      if (!same.has(nth) && held) changes.push({ kind: "deleteElement", slide: old.id, element: held.id });
    });
    return changes;
  });
}
