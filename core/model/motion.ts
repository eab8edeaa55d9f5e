import { must } from "./must";
import type { Slide } from "./deck";
import type { Element } from "./elements";
import type { Effect, Entrance, Trigger } from "./look";
import { readingOrder } from "./read";
import { isEmptyText, type Paragraph, type RichText } from "./richtext";

/**
 * An entrance in time. It starts `start` seconds after the press with that number; press 0 is the appearance of the
 * slide.
 */
export interface Reveal {
  element: string;
  /** The paragraph, where the paragraphs of a text appear one at a time. */
  paragraph?: number;
  press: number;
  start: number;
  trigger: Trigger;
  effect: Effect;
  seconds: number;
  delay?: number;
}

const stepped = (element: Element): element is Extract<Element, { kind: "text" }> =>
  element.kind === "text" && element.steps === true && element.text.length > 0;

/**
 * How the points of a text appear: each by itself, each of the first level with those below it, or in groups of their
 * own.
 */
export type StepsForm = "each" | "main" | "own";

const notesParagraphs = (text: RichText): Paragraph[] => text.filter((paragraph) => !isEmptyText([paragraph]));
const mainStep = ({ level }: Paragraph, nth: number): Paragraph["step"] => (nth > 0 && level > 0 ? "with" : undefined);

/** Returns how the points of a text appear. */
export function stepsForm(text: RichText): StepsForm {
  const said = notesParagraphs(text);
  if (said.every(({ step }) => step === undefined)) return "each";
  return said.every((paragraph, nth) => paragraph.step === mainStep(paragraph, nth)) ? "main" : "own";
}

/** Returns the text with its points appearing one by one, or those of the first level with the ones below them. */
export function withSteps(text: RichText, form: Exclude<StepsForm, "own">): RichText {
  const said = notesParagraphs(text);
  return text.map(({ step: _, ...paragraph }, at): Paragraph => {
    const step = form === "main" ? mainStep(paragraph, said.indexOf(must(text[at]))) : undefined;
    return step ? { ...paragraph, step } : paragraph;
  });
}

/**
 * Returns the entrances of a slide in the order in which they are seen. Points that appear one at a time without an
 * entrance of their own come last, each at a press.
 */
export function revealsOf(slide: Pick<Slide, "arrangement" | "elements">): Reveal[] {
  if (!slide.elements.some((element) => element.entrance !== undefined || stepped(element))) return [];
  const last = Number.POSITIVE_INFINITY;
  const entering = readingOrder(slide)
    .filter((element) => element.entrance !== undefined || stepped(element))
    .map((element, nth) => ({ element, nth, order: element.entrance?.order ?? last }))
    .sort((a, b) => (a.order === b.order ? a.nth - b.nth : a.order - b.order));
  const reveals: Reveal[] = [];
  let press = 0;
  /** When the entrances that run together started, and when all of them have ended. */
  let [begun, ended] = [0, 0];
  for (const { element } of entering) {
    const {
      trigger,
      effect,
      seconds,
      delay = 0,
    }: Omit<Entrance, "order"> = element.entrance ?? { trigger: "press", effect: "appear", seconds: 0 };
    // Empty lines between points need no press.
    const points = stepped(element)
      ? element.text.flatMap((paragraph, at) =>
          isEmptyText([paragraph]) || paragraph.step === "shown"
            ? []
            : [{ paragraph: at, along: paragraph.step === "with" }],
        )
      : [{ paragraph: undefined, along: false }];
    for (const [nth, { paragraph, along }] of points.entries()) {
      // Later points follow by themselves where the first one does.
      const by = !nth ? trigger : along ? "with" : trigger === "after" ? "after" : "press";
      if (by === "press") {
        press += 1;
        [begun, ended] = [0, 0];
      } else if (by === "after") begun = ended;
      const start = begun + delay;
      ended = Math.max(ended, start + seconds);
      reveals.push({
        element: element.id,
        ...(paragraph === undefined ? {} : { paragraph }),
        press,
        start,
        trigger: by,
        effect,
        seconds,
        ...(delay ? { delay } : {}),
      });
    }
  }
  return reveals;
}

/** Returns how many presses the entrances of a slide need. */
export function pressesOf(slide: Pick<Slide, "arrangement" | "elements">): number {
  return revealsOf(slide).at(-1)?.press ?? 0;
}

/**
 * Returns the elements of a slide with the orders of their entrances counted from 0, and without entrances that add
 * nothing to their steps.
 */
export function orderedEntrances(slide: Pick<Slide, "arrangement" | "elements">): Element[] {
  const inOrder = [...new Set(revealsOf(slide).map(({ element }) => element))];
  const ordered = slide.elements.map(
    (element): Element =>
      element.entrance
        ? { ...element, entrance: { ...element.entrance, order: inOrder.indexOf(element.id) } }
        : element,
  );
  const describeChange = (elements: readonly Element[]) =>
    JSON.stringify(revealsOf({ ...slide, elements: [...elements] }));
  const wanted = describeChange(ordered);
  // From last to first: an entrance that comes last anyway needs no order of its own.
  return inOrder.reduceRight<Element[]>((elements, id) => {
    const without = elements.map((element): Element => {
      if (
        element.id !== id ||
        !element.entrance ||
        !stepped(element) ||
        element.entrance.trigger !== "press" ||
        element.entrance.effect !== "appear" ||
        element.entrance.seconds > 0 ||
        element.entrance.delay
      )
        return element;
      const { entrance: _, ...rest } = element;
      return rest;
    });
    return without.some((element, nth) => element !== elements[nth]) && describeChange(without) === wanted
      ? without
      : elements;
  }, ordered);
}
