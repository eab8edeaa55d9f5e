export { chartOf } from "./directives";
export * from "./manuscript";
export { readText } from "./read";
export { blocksOf, contentText, FootnoteList, inlineNodes, markdownOf, normalCell, normalText } from "./write";
export { ManuscriptWriter, manuscriptText } from "./blocks";
export { normalisedBlock } from "./normalised";
export { htmlBlocks } from "./html";
export { trimmed } from "./inline";
export { type DeckText, deckText, slideText, writeDeck } from "./deck";
export {
  flowOf,
  flowSlot,
  isKeyFigure,
  mainSlot,
  namesReferences,
  type Parts,
  partsOf,
  recognise,
  recogniseParts,
  titleDepth,
} from "./recognise";
export { REASONS, type Reason } from "./reasons";
