import { z } from "zod";
import { Binding } from "./binding";
import type { Slide } from "./deck";
import { type Element, kindOf } from "./elements";
import { joinRuns, type Paragraph, type RichText, type Run, run } from "./richtext";

/** Where a text of a slide is: in its notes, or the how-manyth rich text of an element, from 0. */
export interface TextPlace {
  element: string | null;
  text: number;
}

/** A binding of a slide: of an element whole (a table, a chart), or of a run in one of its texts. */
export interface PlacedBinding {
  binding: Binding;
  element: string | null;
  /** The text that a bound run shows; undefined for a whole element. */
  shown: string | undefined;
  /** The paragraph around a bound run, as plain text. */
  sentence: string | undefined;
}

/** Returns a slide with every rich text on it and in its notes changed, in order. */
export function mapSlideTexts(slide: Slide, change: (text: RichText, place: TextPlace) => RichText): Slide {
  const elements = slide.elements.map((element): Element => {
    let nth = 0;
    const { mapTexts } = kindOf(element);
    if (!mapTexts) return element;
    let changed = false;
    const next = mapTexts(element, (text) => {
      const now = change(text, { element: element.id, text: nth++ });
      changed ||= now !== text;
      return now;
    }) as Element;
    return changed ? next : element;
  });
  const notes = change(slide.notes, { element: null, text: 0 });
  return notes === slide.notes && elements.every((one, at) => one === slide.elements[at])
    ? slide
    : { ...slide, elements, notes };
}

/** Returns a text with every bound run changed, those in footnotes too; the text itself when nothing changes. */
export function mapBoundRuns(text: RichText, change: (item: Run, paragraph: Paragraph) => Run): RichText {
  let changed = false;
  const next = text.map((paragraph) => {
    if (!paragraph.runs.some((item) => item.binding || item.footnote?.some(({ binding }) => binding))) return paragraph;
    const follow = (item: Run): Run =>
      item.footnote
        ? { ...item, footnote: item.footnote.map((one) => follow(one)) }
        : item.binding
          ? change(item, paragraph)
          : item;
    const runs = joinRuns(paragraph.runs.map(follow));
    if (JSON.stringify(runs) === JSON.stringify(paragraph.runs)) return paragraph;
    changed = true;
    return { ...paragraph, runs };
  });
  return changed ? next : text;
}

/** Returns the bindings of a slide in reading order: elements with their texts, then the notes. */
export function bindingsOn(slide: Slide): PlacedBinding[] {
  const found: PlacedBinding[] = [];
  const whole = new Set<string>();
  mapSlideTexts(slide, (text, { element }) => {
    addWhole(element);
    mapBoundRuns(text, (item, { runs }) => {
      if (item.binding)
        found.push({
          binding: item.binding,
          element,
          shown: item.text,
          sentence: runs.map((one) => one.text).join(""),
        });
      return item;
    });
    return text;
  });
  for (const { id } of slide.elements) addWhole(id);
  function addWhole(id: string | null): void {
    if (id === null || whole.has(id)) return;
    whole.add(id);
    const binding = slide.elements.find((element) => element.id === id)?.binding;
    if (binding) found.push({ binding, element: id, shown: undefined, sentence: undefined });
  }
  return found;
}

/**
 * Where a bound run is, for files whose format has no place for bindings: the paragraph, the how-manyth footnote in it
 * where it is in one, the characters from the start, and the text that it showed.
 */
export const BoundRunTag = z.object({
  element: z.string().max(200).nullable(),
  text: z.number().int().nonnegative(),
  paragraph: z.number().int().nonnegative(),
  footnote: z.number().int().nonnegative().optional(),
  from: z.number().int().nonnegative(),
  shown: z.string(),
  binding: Binding,
});
export type BoundRunTag = z.infer<typeof BoundRunTag>;

/** Returns where the bound runs of a slide are. */
export function boundRunTags(slide: Slide): BoundRunTag[] {
  const tags: BoundRunTag[] = [];
  const add = (runs: readonly Run[], place: Omit<BoundRunTag, "from" | "shown" | "binding">) => {
    let from = 0;
    for (const item of runs) {
      if (item.binding) tags.push({ ...place, from, shown: item.text, binding: item.binding });
      from += item.text.length;
    }
  };
  mapSlideTexts(slide, (text, place) => {
    for (const [paragraph, { runs }] of text.entries()) {
      add(runs, { ...place, paragraph });
      for (const [footnote, item] of footnoteRuns(runs).entries())
        add(item.footnote ?? [], { ...place, paragraph, footnote });
    }
    return text;
  });
  return tags;
}

const footnoteRuns = (runs: readonly Run[]) => runs.filter((item) => item.footnote);

/** Returns the runs of a paragraph with a binding on some characters of them; undefined when they read otherwise. */
function withBinding(runs: readonly Run[], { from, shown, binding }: BoundRunTag): Run[] | undefined {
  const words = runs.map(({ text }) => text).join("");
  const at = words.startsWith(shown, from) ? from : words.indexOf(shown);
  // Where another program has changed the value, it is linked no more.
  if (shown === "" || at < 0) return undefined;
  let place = 0;
  const next = runs.flatMap((item): Run[] => {
    const [start, end] = [place, place + item.text.length];
    place = end;
    const [first, last] = [Math.max(start, at), Math.min(end, at + shown.length)];
    if (first >= last || item.footnote) return [item];
    const piece = (a: number, b: number, tie?: Binding) =>
      run(item.text.slice(a - start, b - start), item.marks, item.link, item.properties, tie ?? item.binding);
    return [piece(start, first), piece(first, last, binding), piece(last, end)];
  });
  // Another program may have split the value into several runs; they are joined again.
  const bound = next.filter((item) => item.binding === binding);
  const [first] = bound;
  if (bound.length <= 1 || !first) return joinRuns(next);
  const one = run(shown, first.marks, first.link, first.properties, binding);
  return joinRuns(next.flatMap((item) => (item === first ? [one] : item.binding === binding ? [] : [item])));
}

/** Returns the runs of a paragraph with the binding of a tag, on them or in a footnote; undefined when they read otherwise. */
function tagged(runs: readonly Run[], tag: BoundRunTag): Run[] | undefined {
  if (tag.footnote === undefined) return withBinding(runs, tag);
  const holder = footnoteRuns(runs)[tag.footnote];
  const inside = holder?.footnote && withBinding(holder.footnote, tag);
  return inside && runs.map((item) => (item === holder ? { ...item, footnote: inside } : item));
}

/**
 * Returns a slide with the bindings of tags on its runs. A tag whose text is not there any more is left out, and told to
 * `lost`.
 */
export function withBoundRuns(
  slide: Slide,
  tags: readonly BoundRunTag[],
  lost: (tag: BoundRunTag) => void = () => undefined,
): Slide {
  if (!tags.length) return slide;
  const waiting = new Set(tags);
  const next = mapSlideTexts(slide, (text, place) => {
    const own = tags.filter((tag) => tag.element === place.element && tag.text === place.text);
    if (!own.length) return text;
    return text.map((paragraph, nth) => {
      let { runs } = paragraph;
      for (const tag of own) {
        const now = tag.paragraph === nth ? tagged(runs, tag) : undefined;
        if (!now) continue;
        waiting.delete(tag);
        runs = now;
      }
      return runs === paragraph.runs ? paragraph : { ...paragraph, runs };
    });
  });
  for (const tag of waiting) lost(tag);
  return next;
}
