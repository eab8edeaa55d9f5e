import type { Asset, Crop, Frame, PictureElement } from "@unitext/core/model";

const round = (value: number) => Math.round(value * 10000) / 10000;

/** The crop that shows the whole picture. */
export const NO_CROP: Crop = { left: 0, top: 0, right: 0, bottom: 0 };

/** Returns the crop by which a picture fills its frame without distortion, centred. */
export function fillingCrop(asset: Pick<Asset, "width" | "height">, frame: Pick<Frame, "width" | "height">): Crop {
  const wide = asset.width / asset.height;
  const wanted = frame.width / frame.height;
  const side = wide > wanted ? (1 - wanted / wide) / 2 : 0;
  const end = wide > wanted ? 0 : (1 - wide / wanted) / 2;
  return { left: round(side), right: round(side), top: round(end), bottom: round(end) };
}

/** Moves a crop by shares of what is shown, never past the picture's edges. */
export function movedCrop(crop: Crop, dx: number, dy: number): Crop {
  const move = (from: number, to: number, by: number): [number, number] => {
    const shown = 1 - from - to;
    const at = Math.max(Math.min(0, 1 - shown), Math.min(Math.max(0, 1 - shown), from - by * shown));
    return [round(at), round(1 - shown - at)];
  };
  const [left, right] = move(crop.left, crop.right, dx);
  const [top, bottom] = move(crop.top, crop.bottom, dy);
  return { left, right, top, bottom };
}

/** Returns the zoom of a picture: 1 just fills its frame. */
export function zoomOf(
  { crop }: Pick<PictureElement, "crop">,
  asset: Pick<Asset, "width" | "height"> | undefined,
  frame: Frame | undefined,
): number {
  if (!asset || !frame) return 1;
  const full = fillingCrop(asset, frame);
  return (1 - full.left - full.right) / Math.max(0.01, 1 - (crop ?? full).left - (crop ?? full).right);
}

/** Returns the crop at a zoom, about the middle of what is shown. */
export function zoomedCrop(
  { crop }: Pick<PictureElement, "crop">,
  asset: Pick<Asset, "width" | "height"> | undefined,
  frame: Frame | undefined,
  zoom: number,
): Crop {
  if (!asset || !frame) return crop ?? NO_CROP;
  const full = fillingCrop(asset, frame);
  const now = crop ?? full;
  const [wide, tall] = [(1 - full.left - full.right) / zoom, (1 - full.top - full.bottom) / zoom];
  const about = (from: number, to: number, shown: number): [number, number] => {
    const at = Math.max(0, Math.min(1 - shown, from + (1 - from - to - shown) / 2));
    return [round(at), round(1 - shown - at)];
  };
  const [left, right] = about(now.left, now.right, wide);
  const [top, bottom] = about(now.top, now.bottom, tall);
  return { left, right, top, bottom };
}
