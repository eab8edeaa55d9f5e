export { type Asker, inlineWork, ProcessPool, type Work } from "./pool";
export { isSource, type ReadProgress, type ReadWork } from "./read";
export { type MadeDeck, parseBody } from "./tasks";
