export { copySlide, mapSlideLinks } from "./carry";
export { type BrokenLink, brokenLinks, contentsSlideFor, mendLink } from "./links";
export { type Entry, entryGroups, entryLines, reportLines } from "./entries";
export { contentFingerprint, duplicates, type MergeSource } from "./duplicates";
export { merge, mergeInto, type MergeOptions, mergeParts, type MergeResult } from "./merge";
export { groupByName, matchName, NAME_FIELDS, NAME_PATTERN, nameBy, type NameParts } from "./names";
export {
  PlannedPart,
  planOf,
  suggestParts,
  readPlan,
  resolvePlan,
  type ResolvedPart,
  type ResolvedPlan,
  SplitBy,
  SplitPlan,
} from "./plan";
export { byCount, roundRobin, byMinutes, bySection, type SuggestedPart } from "./propose";
export { parseRanges, rangesOf } from "./ranges";
export { restoreChange, takeSlideChange } from "./restore";
export { contentsNote, split, type SplitResult, type Versioned } from "./split";
export {
  differsTable,
  type DiffersTable,
  type Following,
  reviewTailored,
  tailorDeck,
  type TailorItem,
  type TailorReview,
  takeTailored,
} from "./tailor";
