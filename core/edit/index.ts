export * from "./acts";
export * from "./apply";
export { Batch, Change, Place, SingleChange, singles, together } from "./change";
export * from "./frames";
export { changePage, Refit, refitDeck } from "./page";
export { indexAt, longestRise, placeOf } from "./order";
export * from "./replace";
