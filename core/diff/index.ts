export * from "./compare";
export * from "./content";
export { type Choice, type Conflict, isPositioned, mergeSlide, type MergedSlide, allWords } from "./merge";
export { metadataChanges, allMetadataChanges } from "./metadata";
export { type PairCandidate, pairByContent, pairSlides } from "./pair";
