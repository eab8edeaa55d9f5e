export { type ReadDeck, type ReadOptions, readPptx } from "./read";
export { type PptxOptions, writePptx } from "./write";
