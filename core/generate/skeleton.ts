import { type Change, insertAt, rearrange, type SingleChange, batch } from "@unitext/core/edit";
import {
  type Deck,
  familyOf,
  hasNotes,
  isEmptyText,
  newSlide,
  type Paragraph,
  paragraphText,
  type RichText,
  run,
  sectionStarting,
  type Slide,
  slideWith,
  textSlot,
  titleOf,
} from "@unitext/core/model";

/** Where the parts of a skeleton go: as headings on the slide, or as slides after it. */
export type SkeletonPlace = "slide" | "after";

const isPart = (paragraph: Paragraph, parts: ReadonlySet<string>) =>
  parts.has(paragraphText(paragraph).trim()) && paragraph.runs.every(({ marks }) => marks?.includes("strong"));
const isHeading = (paragraph: Paragraph) =>
  paragraph.kind === "plain" &&
  paragraph.runs.length > 0 &&
  paragraph.runs.every(({ marks }) => marks?.includes("strong"));
const part = (text: string): Paragraph => ({ kind: "plain", level: 0, runs: [run(text, ["strong"])] });

/** Returns the text of a slide with the missing parts; a slide with nothing else keeps what it has. */
function withParts(slide: Slide, parts: readonly string[], newId: () => string): SingleChange[] {
  const slot = textSlot(slide.arrangement);
  const roomy = slide.arrangement === "points" || slide.arrangement === "references";
  const changes: SingleChange[] = roomy ? [] : [rearrange(slide, "points")];
  const held = slide.elements.find((element) => element.kind === "text" && element.slot === (roomy ? slot : "body"));
  const text = held?.kind === "text" ? held.text : [];
  const there = new Set(text.map((paragraph) => paragraphText(paragraph).trim()));
  const missing = parts.filter((name) => !there.has(name)).map(part);
  if (!missing.length) return [];
  const next: RichText = [...text, ...missing];
  return [
    ...changes,
    held
      ? { kind: "setText", slide: slide.id, element: held.id, text: next }
      : {
          kind: "insertElement",
          slide: slide.id,
          element: { kind: "text", id: newId(), slot: "body", text: next },
          index: slide.elements.length,
        },
  ];
}

/** Returns the slides directly after a slide's details, up to the next chosen one. */
function slidesAfter(deck: Deck, id: string, chosen: ReadonlySet<string>): Slide[] {
  const slide = slideWith(deck, id);
  if (!slide) return [];
  const siblings = deck.slides.filter((other) => other.parent === slide.parent);
  const rest = siblings.slice(siblings.findIndex((other) => other.id === id) + 1);
  const end = rest.findIndex((other) => chosen.has(other.id) || sectionStarting(other) !== undefined);
  return end < 0 ? rest : rest.slice(0, end);
}

/**
 * Adds the parts of a skeleton to every chosen slide that lacks them: as headings on the slide, or as slides after it.
 * Returns undefined when nothing is missing.
 */
export function putSkeleton(
  deck: Deck,
  ids: Iterable<string>,
  parts: readonly string[],
  place: SkeletonPlace,
  newId: () => string,
): Change | undefined {
  const chosen = new Set(ids);
  const names = parts.map((name) => name.trim()).filter(Boolean);
  const changes: SingleChange[] = [];
  for (const slide of deck.slides) {
    if (!chosen.has(slide.id)) continue;
    if (place === "slide") {
      changes.push(...withParts(slide, names, newId));
      continue;
    }
    const there = new Set(slidesAfter(deck, slide.id, chosen).map(titleOf));
    const missing = names
      .filter((name) => !there.has(name))
      .map(
        (name): Slide => ({
          ...newSlide(newId(), "points"),
          elements: [
            { kind: "text", id: newId(), slot: "title", text: [{ kind: "plain", level: 0, runs: [run(name)] }] },
          ],
        }),
      );
    if (!missing.length) continue;
    const change = insertAt(missing, { parent: slide.parent, after: slide.id });
    changes.push(...(change.kind === "batch" ? change.changes : [change]));
  }
  return changes.length ? batch(changes) : undefined;
}

const isUnfilled = (slide: Slide, parts: ReadonlySet<string>) =>
  parts.has(titleOf(slide)) &&
  !hasNotes(slide) &&
  slide.elements.every((element) => element.slot === "title" || (element.kind === "text" && isEmptyText(element.text)));

/**
 * Removes the parts of a skeleton from the chosen slides where nothing was filled in. Returns undefined when there are
 * none.
 */
export function removeSkeleton(deck: Deck, ids: Iterable<string>, parts: readonly string[]): Change | undefined {
  const chosen = new Set(ids);
  const names = new Set(parts.map((name) => name.trim()).filter(Boolean));
  const changes: SingleChange[] = [];
  const gone = new Set<string>();
  for (const slide of deck.slides) {
    if (!chosen.has(slide.id)) continue;
    for (const element of slide.elements) {
      if (element.kind !== "text" || element.slot === "title") continue;
      const text = element.text.filter((paragraph, at) => {
        const next = element.text[at + 1];
        return !(isPart(paragraph, names) && (next === undefined || isHeading(next)));
      });
      if (text.length < element.text.length)
        changes.push(
          text.length
            ? { kind: "setText", slide: slide.id, element: element.id, text }
            : { kind: "deleteElement", slide: slide.id, element: element.id },
        );
    }
    for (const other of slidesAfter(deck, slide.id, chosen)) {
      if (!isUnfilled(other, names) || gone.has(other.id) || familyOf(deck.slides, other.id).length > 1) continue;
      gone.add(other.id);
      changes.push({ kind: "deleteSlide", slide: other.id });
    }
  }
  return changes.length ? batch(changes) : undefined;
}

/** The skeletons that come with the program, by name. */
export const SKELETONS: Record<string, readonly string[]> = {
  "Definition · Formula · In our data": ["Definition", "Formula", "In our data"],
  "Question · Evidence · Answer": ["Question", "Evidence", "Answer"],
  "Aim · Method · Result": ["Aim", "Method", "Result"],
};
