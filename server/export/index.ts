export { default as readPdf } from "./readpdf";
export { type ExportWork, fontsIn, slidePng, svgPng } from "./work";
