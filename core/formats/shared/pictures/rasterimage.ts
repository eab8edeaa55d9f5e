/** A picture of dots in a form that pages do not show, with its size in pixels. */
export interface RasterImage {
  kind: "tiff" | "bmp";
  width: number;
  height: number;
}
