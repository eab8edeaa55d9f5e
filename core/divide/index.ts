export { carry, relinked } from "./carry";
export { type BrokenLink, brokenLinks, menuFor, mendLink } from "./links";
export {
  duplicates,
  type Gathered,
  gather,
  merge,
  mergeInto,
  type MergeOptions,
  type MergeResult,
  sameness,
} from "./merge";
export { byName, matchName, NAME_FIELDS, NAME_PATTERN, nameBy, type NameParts } from "./names";
export {
  PlannedPart,
  planOf,
  propose,
  readPlan,
  resolvePlan,
  type ResolvedPart,
  type ResolvedPlan,
  SplitBy,
  SplitPlan,
} from "./plan";
export { byCount, byDeal, byMinutes, bySection, type Proposed } from "./propose";
export { parseRanges, rangesOf } from "./ranges";
export { restored } from "./restore";
export { contentsNote, split, type SplitResult, type Versioned } from "./split";
export {
  differsTable,
  type DiffersTable,
  type Following,
  reviewTailored,
  tailored,
  type TailorItem,
  type TailorReview,
  takeTailored,
} from "./tailor";
