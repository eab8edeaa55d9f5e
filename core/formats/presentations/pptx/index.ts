export { pptxWorkbooks } from "./read/embeddedworkbooks";
export { pptxBatches, readPptx } from "./read/read";
export { type PptxOptions, writePptx } from "./write/write";
