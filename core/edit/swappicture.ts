import type { Crop, Deck, PictureElement } from "@unitext/core/model";

/** Returns what is cut off a picture of a size so that it fills a frame, equally at both sides; undefined for nothing. */
function coverCrop(
  picture: { width: number; height: number },
  frame: { width: number; height: number },
): Crop | undefined {
  const [own, wanted] = [picture.width / picture.height, frame.width / frame.height];
  const sides = own > wanted ? (1 - wanted / own) / 2 : 0;
  const ends = own > wanted ? 0 : (1 - own / wanted) / 2;
  // Less than a thousandth is not visible.
  if (Math.max(sides, ends) < 0.0005) return undefined;
  return { left: sides, top: ends, right: sides, bottom: ends };
}

/**
 * Returns a picture with another file in its place: frame, shape, outline, colours, caption, link and entrance stay. In a
 * frame of its own the new one is cut so that it fills the frame and is not stretched; in a slot it is shown whole. The
 * description is that of the old picture and so is replaced by `alt`.
 */
export function swapPicture(
  { assets }: Pick<Deck, "assets">,
  picture: PictureElement,
  { source, alt }: Pick<PictureElement, "source" | "alt">,
): PictureElement {
  const { crop: _, sourceShape: __, ...kept } = picture;
  const asset = assets[source];
  const crop = asset && picture.frame && !picture.caption ? coverCrop(asset, picture.frame) : undefined;
  return { ...kept, source, alt, ...(crop ? { crop } : {}) };
}
