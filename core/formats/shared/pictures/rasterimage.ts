/** A raster picture in a format that pages cannot show, with its size in pixels. */
export interface RasterImage {
  kind: "tiff" | "bmp";
  width: number;
  height: number;
}
