import type { RasterImage } from "./rasterimage";
import { bmpInfo, bmpPixels } from "./bmp";
import { tiffInfo, tiffPixels } from "./tiff";

/** Larger pictures are shown as a frame. No page of a presentation has so many pixels. */
const MOST_PIXELS = 25_000_000;

export const rasterInfo = (bytes: Uint8Array): RasterImage | undefined => tiffInfo(bytes) ?? bmpInfo(bytes);

/**
 * Converts a raster picture to PNG. Returns undefined when it is damaged, too large, or compressed in an unknown way.
 */
export async function rasterPng(
  bytes: Uint8Array,
  { kind, width, height }: RasterImage,
): Promise<Uint8Array | undefined> {
  if (width * height > MOST_PIXELS) return undefined;
  const { encode } = await import("fast-png");
  try {
    const pixels = kind === "tiff" ? tiffPixels(bytes) : bmpPixels(bytes);
    return pixels && encode({ width, height, data: pixels, channels: 4, depth: 8 });
  } catch {
    return undefined;
  }
}
