export { type Drawn, convertPictures } from "./conversion";
export { apertiumPairs, translateLocally } from "./apertium";
export { translateByService, type TranslationService, translationServiceFrom } from "./translationservice";
export type { LanguageService } from "./languageservice";
export { pointsByService, pointServiceFrom } from "./pointservice";
export { exportDeck, type ExportWork } from "./export";
export { fontsIn } from "./fonts";
export { slidePng, svgPng } from "./rasterise";
export { readPdf } from "./readpdf";
