export * from "./acts";
export * from "./apply";
export { Batch, Change, Place, SingleChange, singles, batch } from "./change";
export { COMMENT_CHANGES, type CommentChange, isCommentChange } from "./comments";
export * from "./frames";
export { mergeTexts, mergeTextsWithBoth } from "./mergetext";
export { changePage, PageResizer, resizeDeck } from "./page";
export { mirrorDeck } from "./mirror";
export { indexAt, longestRise, placeOf } from "./order";
export {
  applyOwn,
  type Integrated,
  integrate,
  type LogEntry,
  rebaseOwn,
  openReplica,
  type OwnChange,
  type RefusedChange,
  type Replica,
} from "./rebase";
export { BACKGROUND_FILLS, type BackgroundFillName } from "./backgroundfills";
export { HEADING_LOOKS, type HeadingLookName, withHeadingLook } from "./headinglooks";
export { inKind, type LookKind, makeAllSo, takeKindBack } from "./kinds";
export { makeTextsSo } from "./textkinds";
export { putLook, rearrangeIn } from "./look";
export { fittedFrame, freeFrame, putElement, putPicture } from "./putelement";
export * from "./replace";
export * from "./sourcelist";
export { swapPicture } from "./swappicture";
export * from "./tables";
export { inverseNow, type TextChange, textChanges } from "./textchanges";
export { propertiesOnRange, replaceInElement, replaceRange } from "./textrange";
export { putTheme } from "./theme";
