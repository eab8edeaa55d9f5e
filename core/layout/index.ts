export * from "./fonts";

export type { SlideContext } from "./context";
export { facesNeeded } from "./facesneeded";
export { isMirrored } from "./figures";
export { loadHyphenation } from "./hyphenation";
export { boxesOf, layoutSlide, overflowOf } from "./layout";
export { breakLines, type LineRange, visualOrder } from "./linebreaking";
export { bidiLevels, isRightToLeft } from "./paragraph";
export { type RoleProperties, roleProperties } from "./roleproperties";
export { type LinkPlace, linkPlaces } from "./links";
export { type MediaPlace, mediaPlaces } from "./media";
export * from "./scene";
export { scaledNodes, type Sheet, type SheetItem, SHEETS, type Sheets, sheetsOf } from "./sheet";
export {
  contentArea,
  FIGURE_MINIMUM,
  LINE_HEIGHT,
  loosePlace,
  mirroredOnPage,
  PARAGRAPH_GAP,
  pageScale,
  sizeOf,
  type SlotPlace,
  slotPlaces,
} from "./slots";
export { type CellAppearance, type TableAppearance, tableAppearance } from "./table";
export { turning } from "./shapes";
export { isSymbolFont } from "./symbols";
export { CODE_SCALE, INDENT, listIndents, listNumbers, numberWidths } from "./textstyle";
