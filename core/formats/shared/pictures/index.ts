export { PictureConverter, type PendingConversion, pendingConversion } from "./conversion";
export { duotone } from "./duotone";
export { pictureInfo, pictureSize } from "./info";
export { EXTENSIONS, mediaTypeOf } from "./mediatype";
export { isLines, pagePictures, stillPictures } from "./still";
