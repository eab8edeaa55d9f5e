export * from "./acts";
export * from "./apply";
export { Batch, Change, Place, SingleChange, singles, together } from "./change";
export * from "./frames";
export { changePage, Refit, refitDeck } from "./page";
export { indexAt, longestRise, placeOf } from "./order";
export {
  applyOwn,
  type Integrated,
  integrate,
  type LogEntry,
  onTop,
  openReplica,
  type OwnChange,
  type RefusedChange,
  type Replica,
} from "./rebase";
export * from "./replace";
