export { Drawings, type Unshown, unshownInfo } from "./drawings";
export { duotone } from "./duotone";
export { pictureInfo, pictureSize } from "./info";
export { mediaTypeOf } from "./media";
export { isLines, pagePictures, stillPictures } from "./raster";
