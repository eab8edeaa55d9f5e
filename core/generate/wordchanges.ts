import { bareContent, contentKey } from "@unitext/core/diff";
import type { SingleChange } from "@unitext/core/edit";
import {
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
  if (slide.master !== undefined || slide.regions) return true;
  const known = free.get(slide.elements);
  if (known !== undefined) return known;
  const more = ({ frame, style, box, rotation, flip, groups, fill, stroke, shadow, ...element }: Element) =>
    Boolean(
      KINDS.has(element.kind) ||
        frame ||
        style ||
        box ||
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
  const id = old.id;
  const changes: SingleChange[] = [];
  if (
    echo &&
    contentKey({ ...echo, notes: made.notes }) === contentKey(made) &&
    JSON.stringify(normalText(echo.notes)) === JSON.stringify(normalText(made.notes))
  )
    return changes;
  if (!echo || JSON.stringify(normalText(echo.notes)) !== JSON.stringify(normalText(made.notes)))
    changes.push({ kind: "setNotes", slide: id, notes: made.notes });
  if (echo && JSON.stringify(slidePropertiesOf(echo)) !== JSON.stringify(slidePropertiesOf(made)))
    changes.push({
      kind: "setSlideProperties",
      slide: id,
      properties: { ...slidePropertiesOf(old), ...slidePropertiesOf(made) },
    });
  if (!echo) return changes;

  // Words: what was typed since the base is applied to the paragraphs of the slide that say the same as the base.
  const [before, after] = [paragraphs(echo, false), paragraphs(made, false)];
  const own = paragraphs(old, true);
  const unused = new Set(own);
  const find = (test: (one: Said) => boolean) => [...unused].find(test);
  const place = before.map(({ words }) => {
    const found = find((one) => one.words === words) ?? find((one) => bareWords(one.words) === bareWords(words));
    if (found) unused.delete(found);
    return found;
  });
  const texts = new Map<Element, (Paragraph | null)[][]>();
  const slotsOfText = (element: Element) => {
    const known =
      texts.get(element) ??
      ("text" in element && Array.isArray(element.text)
        ? element.text.map((paragraph): (Paragraph | null)[] => [paragraph])
        : []);
    texts.set(element, known);
    return known;
  };
  const fresh: Paragraph[] = [];
  for (const {
    buffer1: [from, gone],
    buffer2: [start, come],
  } of diffIndices(
    before.map(({ words }) => words),
    after.map(({ words }) => words),
  ).map(({ buffer1, buffer2 }) => ({ buffer1, buffer2 }))) {
    for (let nth = 0; nth < Math.max(gone, come); nth++) {
      const held = nth < gone ? place[from + nth] : undefined;
      const typed = nth < come ? after[start + nth]?.paragraph : undefined;
      if (held && nth < gone) {
        const list = slotsOfText(held.element);
        list[held.at] = [
          typed ? withPropertiesOf(held.paragraph, typed) : null,
          ...(list[held.at] as Paragraph[]).slice(1),
        ];
      } else if (typed) {
        const beside =
          place
            .slice(0, from + Math.min(nth, gone))
            .findLast((one) => one !== undefined && one.element.slot !== "title") ??
          place.slice(from).find((one) => one !== undefined && one.element.slot !== "title");
        if (beside)
          must(slotsOfText(beside.element)[beside.at]).push({
            ...withPropertiesOf(beside.paragraph, typed),
            kind: typed.kind,
            level: typed.level,
          });
        else fresh.push(typed);
      }
    }
  }
  for (const [element, lists] of texts) {
    const text: RichText = lists.flat().filter((paragraph): paragraph is Paragraph => paragraph !== null);
    changes.push(
      element.kind === "text"
        ? { kind: "setText", slide: id, element: element.id, text }
        : { kind: "setElement", slide: id, element: { ...element, text } as Element },
    );
  }
  if (fresh.length)
    changes.push({
      kind: "insertElement",
      slide: id,
      element: { kind: "text", id: `${made.id}-more`, slot: null, text: fresh },
      index: old.elements.length,
    });

  // Figures, kind by kind: those that are equal in base and text are not touched.
  for (const kind of FIGURES) {
    const of = (slide: Slide) => slide.elements.filter((element) => element.kind === kind);
    const [was, is, has] = [of(echo), of(made), of(old)];
    const same = new Set<number>();
    const paired = is.map((element) => {
      const at = was.findIndex((one, nth) => !same.has(nth) && keyOf(one) === keyOf(element));
      if (at >= 0) same.add(at);
      return at;
    });
    let next = 0;
    paired.forEach((at, nth) => {
      if (at >= 0) return;
      while (same.has(next)) next++;
      const held = next < was.length ? has[next] : undefined;
      if (held) {
        same.add(next);
        changes.push({ kind: "setElement", slide: id, element: withTypedWords(held, must(is[nth])) });
      } else
        changes.push({
          kind: "insertElement",
          slide: id,
          element: { ...must(is[nth]), slot: null },
          index: old.elements.length,
        });
    });
    was.forEach((_, nth) => {
      const held = has[nth];
      if (!same.has(nth) && held) changes.push({ kind: "deleteElement", slide: id, element: held.id });
    });
  }
  return changes;
}
