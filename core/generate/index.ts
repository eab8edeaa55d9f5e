export { drafts } from "./cut";
export { type GenerateContext, generate, generateDeck, type Made } from "./generate";
export { headFrom } from "./head";
export { type Point, sentenceRanges, trimToPoint } from "./points";
export { OUTLINES, type Outline } from "./outlines";
export { reconcile, slideChanges } from "./reconcile";
export {
  type RerunOptions,
  type Review,
  type ReviewItem,
  review,
  takeReview,
} from "./rerun";
export { rankable, rankSentences, sentenceSimilarity, textRank } from "./textrank";
export { putSkeleton, removeSkeleton, SKELETONS, type SkeletonPlace } from "./skeleton";
