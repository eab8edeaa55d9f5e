export { type ReadDeck, type ReadOptions, readPptx } from "./read";
export { pptxEntries, type PptxOptions, writePptx } from "./write";
