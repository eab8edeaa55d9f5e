import { type Element, isEmptyText, type RichText, type Slide, stepsForm, withSteps } from "@unitext/core/model";
import { nanoid } from "nanoid";
import { useState } from "react";
import { useDeck } from "../deck/DeckContext";
import type { TextTarget } from "./InPlaceText";

/** The text of a slide that is being edited, and the changes that typing in it makes. */
export function useTextTarget(slide: Slide) {
  const { session } = useDeck();
  const [target, setTarget] = useState<TextTarget>();

  const setText = (id: string, text: RichText) => {
    const element = slide.elements.find((candidate) => candidate.id === id);
    if (element?.kind === "shape") {
      session.apply(
        { kind: "setElement", slide: slide.id, element: { ...element, text } },
        { words: "Changed the words of a shape" },
      );
      return;
    }
    // Points that appear with those above them still do, whatever their level now.
    const stepped = element?.kind === "text" && element.steps && stepsForm(element.text) === "main";
    session.apply({
      kind: "setText",
      slide: slide.id,
      element: id,
      text: stepped ? withSteps(text, "main") : text,
    });
  };

  /** The first words in an empty slot make its element, or fill the empty one that it has. */
  const fillSlot = (slot: string, text: RichText) => {
    const held = slide.elements.find((element) => element.slot === slot && element.kind === "text");
    const element: Element = { kind: "text", id: held?.id ?? nanoid(10), slot, text };
    const index = slot === "title" ? 0 : slide.elements.length;
    session.apply(
      held
        ? { kind: "setText", slide: slide.id, element: held.id, text }
        : { kind: "insertElement", slide: slide.id, element, index },
      { words: "Added text" },
    );
    setTarget({ element: element.id });
  };

  const write = (text: RichText) => {
    if (!target || "table" in target) return;
    if ("element" in target) setText(target.element, text);
    else if (!isEmptyText(text)) fillSlot(target.slot, text);
  };
  return { target, setTarget, write };
}
