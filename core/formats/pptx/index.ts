export { pptxLots, readPptx } from "./read";
export { type PptxOptions, writePptx } from "./write";
