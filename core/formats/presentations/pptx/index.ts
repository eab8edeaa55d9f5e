export { type EmbeddedWorkbook, embeddedWorkbooks } from "./read/embeddedworkbooks";
export { pptxBatches, readPptx } from "./read/read";
export { type PptxOptions, writePptx } from "./write/write";
