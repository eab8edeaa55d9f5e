export * from "./acts";
export * from "./apply";
export { Batch, Change, Place, SingleChange, singles, together } from "./change";
export * from "./frames";
export { indexAt, longestRise, placeOf } from "./order";
export * from "./replace";
