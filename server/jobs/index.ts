export { Jobs } from "./queue";
export { isSource } from "./read";
export { inlineReader, type Reader, threadReader } from "./reader";
