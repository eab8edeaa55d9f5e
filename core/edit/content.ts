import {
  type Element,
  Failure,
  slidePropertiesOf,
  withoutSlideProperties,
  type RichText,
  type Slide,
  slideWith,
  must,
} from "@unitext/core/model";
import type { Handler, SingleChange } from "./change";
import { notFound, type Of, onSlide } from "./order";

function requireSlide(slide: Slide | undefined, id: string): Slide {
  if (!slide) throw notFound("slide", id);
  return slide;
}

function elementOf(slide: Slide, id: string): { element: Element; index: number } {
  const index = slide.elements.findIndex((element) => element.id === id);
  if (index < 0) throw notFound("element", id);
  return { element: must(slide.elements[index]), index };
}

export const setHidden: Handler<Of<"setHidden">> = {
  apply(deck, { slide: id, hidden }) {
    const before = requireSlide(slideWith(deck, id), id);
    return {
      deck: onSlide(deck, id, (slide) => ({ ...slide, hidden })),
      inverse: [{ kind: "setHidden", slide: id, hidden: before.hidden }],
    };
  },
  writeSet: ({ slide }) => [`slide:${slide}/hidden`],
  describe: ({ hidden }) => (hidden ? "Hid a slide" : "Showed a slide"),
};

export const setNotes: Handler<Of<"setNotes">> = {
  apply(deck, { slide: id, notes }) {
    const before = requireSlide(slideWith(deck, id), id);
    return {
      deck: onSlide(deck, id, (slide) => ({ ...slide, notes })),
      inverse: [{ kind: "setNotes", slide: id, notes: before.notes }],
    };
  },
  writeSet: ({ slide }) => [`slide:${slide}/notes`],
  describe: () => "Changed notes",
};

export const setArrangement: Handler<Of<"setArrangement">> = {
  apply(deck, { slide: id, arrangement, slots }) {
    const before = requireSlide(slideWith(deck, id), id);
    for (const element of Object.keys(slots)) elementOf(before, element);
    const back: Record<string, string | null> = {};
    const elements = before.elements.map((element) => {
      if (!(element.id in slots)) return element;
      back[element.id] = element.slot;
      return { ...element, slot: slots[element.id] as string | null };
    });
    return {
      deck: onSlide(deck, id, (slide) => ({ ...slide, arrangement, elements })),
      inverse: [{ kind: "setArrangement", slide: id, arrangement: before.arrangement, slots: back }],
    };
  },
  writeSet: ({ slide, slots }) => [
    `slide:${slide}/arrangement`,
    ...Object.keys(slots).map((element) => `slide:${slide}/element:${element}/slot`),
  ],
  describe: () => "Changed the arrangement",
};

/** Replaces the element with the same id. */
export const setElement: Handler<Of<"setElement">> = {
  apply(deck, { slide: id, element: next }) {
    const { element, index } = elementOf(requireSlide(slideWith(deck, id), id), next.id);
    return {
      deck: onSlide(deck, id, (slide) => ({ ...slide, elements: slide.elements.with(index, next) })),
      inverse: [{ kind: "setElement", slide: id, element }],
    };
  },
  writeSet: ({ slide, element }) => [`slide:${slide}/element:${element.id}`],
  describe: ({ element }) => `Changed ${element.kind === "text" ? "text" : `a ${element.kind}`}`,
};

export const setSlideProperties: Handler<Of<"setSlideProperties">> = {
  apply(deck, { slide: id, properties }) {
    const before = requireSlide(slideWith(deck, id), id);
    const bare = (slide: Slide): Slide => ({ ...withoutSlideProperties(slide), ...properties });
    return {
      deck: onSlide(deck, id, bare),
      inverse: [{ kind: "setSlideProperties", slide: id, properties: slidePropertiesOf(before) }],
    };
  },
  writeSet: ({ slide }) => [`slide:${slide}/look`],
  describe: () => "Changed the appearance of a slide",
};

export const setVoice: Handler<Of<"setVoice">> = {
  apply(deck, { slide: id, voice }) {
    const before = requireSlide(slideWith(deck, id), id);
    const spoken = ({ voice: _, ...slide }: Slide): Slide => (voice ? { ...slide, voice } : slide);
    return {
      deck: onSlide(deck, id, spoken),
      inverse: [{ kind: "setVoice", slide: id, voice: before.voice ?? null }],
    };
  },
  writeSet: ({ slide }) => [`slide:${slide}/voice`],
  describe: ({ voice }) => (voice ? "Recorded a voice for a slide" : "Removed the voice of a slide"),
};

export const setSource: Handler<Of<"setSource">> = {
  apply(deck, { slide: id, source }) {
    const before = requireSlide(slideWith(deck, id), id);
    const sourced = ({ source: _, ...slide }: Slide): Slide => (source ? { ...slide, source } : slide);
    return {
      deck: onSlide(deck, id, sourced),
      inverse: [{ kind: "setSource", slide: id, source: before.source ?? null }],
    };
  },
  writeSet: ({ slide }) => [`slide:${slide}/source`],
  describe: () => "Recorded the source of a slide",
};

function withText(element: Element, text: RichText): Element {
  if (element.kind !== "text") throw new Failure("not-valid", element.id, `The element ${element.id} holds no text.`);
  return { ...element, text };
}

export const setText: Handler<Of<"setText">> = {
  apply(deck, { slide: id, element: elementId, text }) {
    const { element, index } = elementOf(requireSlide(slideWith(deck, id), id), elementId);
    const changed = withText(element, text);
    const back: SingleChange = {
      kind: "setText",
      slide: id,
      element: elementId,
      text: element.kind === "text" ? element.text : [],
    };
    return {
      deck: onSlide(deck, id, (slide) => ({ ...slide, elements: slide.elements.with(index, changed) })),
      inverse: [back],
    };
  },
  writeSet: ({ slide, element }) => [`slide:${slide}/element:${element}/text`],
  describe: () => "Changed text",
};

export const insertElement: Handler<Of<"insertElement">> = {
  apply(deck, { slide: id, element, index }) {
    const before = requireSlide(slideWith(deck, id), id);
    if (before.elements.some((other) => other.id === element.id))
      throw new Failure("conflict", element.id, `The element id ${element.id} is taken.`);
    const at = Math.min(index, before.elements.length);
    return {
      deck: onSlide(deck, id, (slide) => ({ ...slide, elements: slide.elements.toSpliced(at, 0, element) })),
      inverse: [{ kind: "deleteElement", slide: id, element: element.id }],
    };
  },
  writeSet: ({ slide, element }) => [`slide:${slide}/element:${element.id}`],
  describe: ({ element }) => (element.kind === "text" ? "Added text" : `Added a ${element.kind}`),
};

export const deleteElement: Handler<Of<"deleteElement">> = {
  apply(deck, { slide: id, element: elementId }) {
    const { element, index } = elementOf(requireSlide(slideWith(deck, id), id), elementId);
    return {
      deck: onSlide(deck, id, (slide) => ({ ...slide, elements: slide.elements.toSpliced(index, 1) })),
      inverse: [{ kind: "insertElement", slide: id, element, index }],
    };
  },
  writeSet: ({ slide, element }) => [`slide:${slide}/element:${element}`],
  describe: () => "Removed an element",
};

/** Replaces the slide with this id. Its place in the running order stays. */
export const setSlide: Handler<Of<"setSlide">> = {
  apply(deck, { slide: id, as }) {
    const before = requireSlide(slideWith(deck, id), id);
    return {
      deck: onSlide(deck, id, () => ({ ...as, id, parent: before.parent })),
      inverse: [{ kind: "setSlide", slide: id, as: before }],
    };
  },
  writeSet: ({ slide }) => [`slide:${slide}`],
  describe: () => "Restored a slide",
};

export const setSlideTheme: Handler<Of<"setSlideTheme">> = {
  apply(deck, { slide: id, theme }) {
    const before = requireSlide(slideWith(deck, id), id);
    const themed = ({ theme: _, ...slide }: Slide): Slide => (theme ? { ...slide, theme } : slide);
    return {
      deck: onSlide(deck, id, themed),
      inverse: [{ kind: "setSlideTheme", slide: id, theme: before.theme ?? null }],
    };
  },
  writeSet: ({ slide }) => [`slide:${slide}/theme`],
  describe: ({ theme }) => (theme ? "Gave a slide a theme of its own" : "Gave a slide the theme of the deck"),
};
