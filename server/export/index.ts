export { default as readPdf } from "./readpdf";
export { type Exporter, inlineExporter, threadExporter } from "./pool";
export { type ExportWork, fontsIn, slidePng, svgPng } from "./work";
