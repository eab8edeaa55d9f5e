import { propertiesOnRange, replaceInElement, type SingleChange } from "@unitext/core/edit";
import { type Comment, elementWords, rangeOfQuote, type Slide, type TextRange } from "@unitext/core/model";

/** The colour behind the words that a comment is on. */
const HIGHLIGHT = "#f6d88a";

/** Returns where the words of a comment are in its element now; undefined when they are gone, or for a whole element. */
export function quotedRange(slide: Slide, { element, quote }: Comment): TextRange | undefined {
  const found = slide.elements.find(({ id }) => id === element);
  return found && quote && rangeOfQuote(elementWords(found), quote);
}

/** Returns the words that a comment is on as they are now. */
export function quotedWords(slide: Slide, comment: Comment): string | undefined {
  const range = quotedRange(slide, comment);
  const found = slide.elements.find(({ id }) => id === comment.element);
  return range && found && elementWords(found).slice(range.start, range.end);
}

/** Returns a slide with the words of a comment marked, to be drawn. */
export function withQuoteMarked(slide: Slide, comment: Comment | undefined): Slide {
  const range = comment && quotedRange(slide, comment);
  if (!range) return slide;
  return {
    ...slide,
    elements: slide.elements.map((element) =>
      element.id === comment.element && element.kind === "text"
        ? { ...element, text: propertiesOnRange(element.text, range, { highlight: HIGHLIGHT }) }
        : element,
    ),
  };
}

/**
 * Returns the change that takes a proposal: its words in the place of those that it was made for, wherever these are
 * now. Undefined when they are gone.
 */
export function takeProposal(slide: Slide, comment: Comment): SingleChange[] | undefined {
  const range = quotedRange(slide, comment);
  const element = slide.elements.find(({ id }) => id === comment.element);
  const next = range && element && comment.proposal !== undefined && replaceInElement(element, range, comment.proposal);
  if (!next) return undefined;
  return [
    next.kind === "text"
      ? { kind: "setText", slide: slide.id, element: next.id, text: next.text }
      : { kind: "setElement", slide: slide.id, element: next },
    { kind: "setDone", slide: slide.id, comment: comment.id, done: true },
  ];
}
