export * from "./fonts";
export type { SlideContext } from "./context";
export { boxesOf, facesNeeded, layoutSlide, overflowOf } from "./layout";
export { bidiLevels, breakLines, type LineRange, visualOrder } from "./paragraph";
export * from "./scene";
export { scaledNodes, type Sheet, type SheetItem, SHEETS, type Sheets, sheetsOf } from "./sheet";
export { contentArea, LINE_HEIGHT, loosePlace, PARAGRAPH_GAP, pageScale, sizeOf, type SlotPlace, slotPlaces } from "./slots";
export { turning } from "./shapes";
export { listNumbers } from "./textstyle";
