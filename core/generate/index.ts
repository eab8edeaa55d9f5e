export { drafts } from "./cut";
export { bareContent, contentKey, contentSum, type Unit, unitsOf } from "./content";
export { type GenerateContext, generate, generateDeck, type Made } from "./generate";
export { headFrom } from "./head";
export { type Point, sentenceRanges, trimToPoint } from "./points";
export { OUTLINES, type Outline } from "./outlines";
export { type FromText, headChanges, match, reconcile, slideChanges, wholeHeadChanges } from "./reconcile";
export {
  type Choice,
  type Conflict,
  type RerunOptions,
  type Review,
  mergedSlide,
  type ReviewItem,
  review,
  takeReview,
} from "./rerun";
export { rankable, rankSentences, sentenceSimilarity, textRank } from "./textrank";
export { putSkeleton, removeSkeleton, SKELETONS, type SkeletonPlace } from "./skeleton";
