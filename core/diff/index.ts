export * from "./compare";
export * from "./content";
export { type Choice, type Conflict, isPositioned, mergedSlide, type Merged, textOfSlide } from "./merge";
export { headChanges, wholeHeadChanges } from "./metadata";
export { type FromText, match, pairSlides } from "./pair";
