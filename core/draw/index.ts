export { type PdfOptions, type PdfPage, scenesPdf } from "./pdf";
export { escapeXml, type PictureAddress, sceneSvg, type SvgOptions } from "./svg";
