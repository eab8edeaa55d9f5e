export * from "./fonts";
export { facesNeeded, layoutSlide, type SlideContext } from "./layout";
export { bidiLevels, breakLines, type LineRange, visualOrder } from "./paragraph";
export * from "./scene";
export { contentArea, LINE_HEIGHT, loosePlace, PARAGRAPH_GAP, pageScale, sizeOf, type SlotPlace, slotPlaces } from "./slots";
export { listNumbers } from "./text";
