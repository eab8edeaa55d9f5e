export * from "./fonts";

export { placeTheme, type SlideContext, slideTheme, themeOnField, withTheme } from "./context";
export { designMaster, type PlacedRegion, regionPlaces } from "./design";
export { drawnPlaces } from "./drawnplaces";
export { facesNeeded } from "./facesneeded";
export { isMirrored } from "./figures";
export { loadHyphenation } from "./hyphenation";
export { boxesOf, layoutSlide, measureSlide, overflowOf } from "./layout";
export { breakLines, type LineRange, visualOrder } from "./linebreaking";
export { bidiLevels, isRightToLeft } from "./paragraph";
export { roleAppearance, type RoleProperties, roleProperties } from "./roleproperties";
export { type LinkPlace, linkPlaces } from "./links";
export { moveInScene } from "./movescene";
export { type MediaPlace, mediaPlaces } from "./media";
export * from "./scene";
export { scaledNodes, type Sheet, type SheetItem, SHEETS, type Sheets, sheetsOf } from "./sheet";
export {
  contentArea,
  FIGURE_MINIMUM,
  LINE_HEIGHT,
  loosePlace,
  mirroredOnPage,
  paragraphGap,
  type PageSetup,
  pageScale,
  sizeOf,
  type SlotPlace,
  slotPlaces,
} from "./slots";
export { type CellAppearance, type TableAppearance, tableAppearance, withCell } from "./table";
export { turning } from "./shapes";
export { isSymbolFont } from "./symbols";
export { bulletAt, CODE_SCALE, INDENT, listIndents, listNumbers, numberWidths } from "./textstyle";
