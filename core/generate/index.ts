export { cutDrafts } from "./cut";
export type { GenerateContext } from "./composedraft";
export { generate, generateDeck, type GeneratedSlide } from "./generate";
export { metadataFrom } from "./metadata";
export { isWholeClause } from "./compression";
export { loadGrammar } from "./grammar";
export { type PointEngine, pointFaults } from "./proposals";
export { extractPoints, type Point, sentenceRanges, trimToPoint } from "./points";
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
