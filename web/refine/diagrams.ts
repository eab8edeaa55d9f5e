import { batch, putElement, type SingleChange } from "@unitext/core/edit";
import {
  type Deck,
  type DiagramElement,
  type DiagramType,
  type Frame,
  plainText,
  type Slide,
  type TextElement,
} from "@unitext/core/model";
import { nanoid } from "nanoid";

/** The kinds of diagrams, and what each is for. */
export const DIAGRAM_NAMES: Record<DiagramType, { label: string; use: string }> = {
  steps: { label: "Steps", use: "What follows what, from left to right" },
  cycle: { label: "Cycle", use: "What returns to its beginning" },
  hierarchy: { label: "Hierarchy", use: "What belongs to what, from the top down" },
  pyramid: { label: "Pyramid", use: "What rests on what" },
  relation: { label: "Overlap", use: "What sets have in common" },
  timeline: { label: "Timeline", use: "What happened when" },
  matrix: { label: "Matrix", use: "Fields in rows and columns" },
  comparison: { label: "Comparison", use: "Columns side by side" },
};

/** Returns a new diagram with words to replace. */
export const newDiagram = (): DiagramElement => ({
  kind: "diagram",
  id: nanoid(10),
  slot: null,
  frame: { x: 0, y: 0, width: 640, height: 280 },
  type: "steps",
  text: plainText("First\nSecond\nThird").map((paragraph) => ({ ...paragraph, kind: "bullet" as const })),
});

/** Returns the change that draws the points of a text as a diagram in its place, with all their words. */
export function asDiagram(deck: Deck, slide: Slide, text: TextElement, frame: Frame | undefined) {
  const { kind: _, text: words, steps: __, style: ___, ...rest } = text;
  const id = nanoid(10);
  const diagram: DiagramElement = { ...newDiagram(), id, text: words.filter(({ runs }) => runs.length > 0) };
  const remove: SingleChange = { kind: "deleteElement", slide: slide.id, element: text.id };
  // Text with a place of its own gives that place to the diagram.
  if (rest.frame && frame)
    return {
      id,
      change: batch([
        remove,
        {
          kind: "insertElement",
          slide: slide.id,
          element: { ...diagram, slot: rest.slot, frame: rest.frame },
          index: slide.elements.indexOf(text),
        },
      ]),
    };
  const without = { ...slide, elements: slide.elements.filter((element) => element !== text) };
  return { id, change: batch([remove, ...putElement(deck, without, diagram, [])]) };
}

/** Returns the change that writes the words of a diagram as points in its place. */
export function asPoints(slide: Slide, diagram: DiagramElement) {
  const id = nanoid(10);
  const { frame, slot } = diagram;
  const element: TextElement = { kind: "text", id, slot, text: diagram.text, ...(frame ? { frame } : {}) };
  const changes: SingleChange[] = [
    { kind: "deleteElement", slide: slide.id, element: diagram.id },
    { kind: "insertElement", slide: slide.id, element, index: slide.elements.indexOf(diagram) },
  ];
  if (slide.arrangement === "diagram" && slot === "diagram")
    changes.push({ kind: "setArrangement", slide: slide.id, arrangement: "points", slots: { [id]: "body" } });
  return { id, change: batch(changes) };
}
