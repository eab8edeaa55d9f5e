export { inlineWork, ProcessPool, type Work } from "./pool";

export type { Asker } from "./workerprocess";
export { isSource, type ReadProgress, type ReadWork } from "./read";
export { type MadeDeck, parseBody } from "./tasks";
