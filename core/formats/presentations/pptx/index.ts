export { pptxBatches, readPptx } from "./read/read";
export { type PptxOptions, writePptx } from "./write/write";
