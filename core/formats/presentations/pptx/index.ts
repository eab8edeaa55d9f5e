export { pptxLots, readPptx } from "./read/read";
export { type PptxOptions, writePptx } from "./write/write";
