export { sceneDuring } from "./moment";
export { MOTION_CSS } from "./motion";
export { type PdfOptions, type PdfPage, scenesPdf } from "./pdf";
export {
  pathsMarkup,
  recolourMarkup,
  type PictureAddress,
  scenesMarkup,
  sceneSvg,
  type SvgOptions,
} from "./svg";
export { withEndOfPng } from "./png";
export { withVisibleLines } from "./hairlines";
