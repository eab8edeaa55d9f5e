export * from "./fonts";
export type { SlideContext } from "./context";
export { boxesOf, facesNeeded, layoutSlide, overflowOf } from "./layout";
export { bidiLevels, breakLines, type LineRange, visualOrder } from "./paragraph";
export { type RoleLook, roleLook } from "./rolelook";
export { type LinkPlace, linkPlaces } from "./links";
export { type MediaPlace, mediaPlaces } from "./media";
export * from "./scene";
export { scaledNodes, type Sheet, type SheetItem, SHEETS, type Sheets, sheetsOf } from "./sheet";
export {
  contentArea,
  LINE_HEIGHT,
  loosePlace,
  PARAGRAPH_GAP,
  pageScale,
  sizeOf,
  type SlotPlace,
  slotPlaces,
} from "./slots";
export { type CellLook, type TableLook, tableLook } from "./table";
export { turning } from "./shapes";
export { isSignFont } from "./symbols";
export { CODE_SCALE, INDENT, listIndents, listNumbers, numberRooms } from "./textstyle";
