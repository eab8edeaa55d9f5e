export * from "./manuscript";
export { readText } from "./read";
export { blocksOf, inlineNodes, markdownOf, normalText } from "./write";
export { deckText, slideText } from "./deck";
export { mainSlot, type Parts, recognise, titleDepth } from "./recognise";
