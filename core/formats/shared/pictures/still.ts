import { type PdfOptions, recolourMarkup } from "@unitext/core/draw";
import type { Asset, PictureElement } from "@unitext/core/model";
import { toBase64 } from "../archive";

/** The pixel width at which a vector picture is rasterised: enough to fill a page. */
const [LEAST, MOST] = [1200, 2400];

/** Whether a picture is a vector drawing or animated: formats with still pictures get a PNG of it. */
export const isLines = ({ mediaType }: Pick<Asset, "mediaType">) => mediaType === "image/svg+xml";
const isMoving = ({ mediaType }: Pick<Asset, "mediaType">) => mediaType === "image/gif";

type Draws = (svg: string, width: number) => Uint8Array;
type Recolour = NonNullable<PictureElement["recolour"]>;
const drawn = new WeakMap<Uint8Array, Map<string, Uint8Array>>();

/**
 * Rasterises a picture to PNG, once. It is drawn as a picture inside another, in which nothing is run or fetched (SVG
 * Integration, 3: secure static mode).
 */
function asPng(bytes: Uint8Array, { mediaType, width, height }: Asset, png: Draws, recolour?: Recolour): Uint8Array {
  const made = drawn.get(bytes) ?? new Map<string, Uint8Array>();
  drawn.set(bytes, made);
  const known = made.get(recolour ?? "");
  if (known) return known;
  const image = `<image width="${width}" height="${height}" href="data:${mediaType};base64,${toBase64(bytes)}"/>`;
  const shown = recolour ? `${recolourMarkup(recolour)}<g filter="url(#recolour-${recolour})">${image}</g>` : image;
  const raster = png(
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}">${shown}</svg>`,
    isLines({ mediaType }) ? Math.max(LEAST, Math.min(MOST, width * 2)) : Math.min(MOST, width),
  );
  made.set(recolour ?? "", raster);
  return raster;
}

/** Returns a lookup of pictures by hash, with vector and animated ones as PNG. */
export function stillPictures(
  assets: Readonly<Record<string, Asset>>,
  picture: (sha256: string) => Uint8Array | undefined,
  png: Draws | undefined,
): (sha256: string) => Uint8Array | undefined {
  if (!png) return picture;
  const others = new Map(
    Object.values(assets)
      .filter((asset) => isLines(asset) || isMoving(asset))
      .map((asset) => [asset.sha256, asset]),
  );
  return (sha256) => {
    const asset = others.get(sha256);
    const bytes = picture(sha256);
    return bytes && asset ? asPng(bytes, asset, png) : bytes;
  };
}

/**
 * Whether a PNG is cut off before its end (IEND: PNG, third edition, 11.2.5): programs show what there is of it, but a
 * PDF cannot hold it.
 */
function isCut(bytes: Uint8Array): boolean {
  if (bytes[0] !== 0x89 || bytes[1] !== 0x50) return false;
  for (let at = bytes.length - 8; at >= Math.max(0, bytes.length - 1000); at--)
    if (bytes[at] === 0x49 && bytes[at + 1] === 0x45 && bytes[at + 2] === 0x4e && bytes[at + 3] === 0x44) return false;
  return true;
}

/** Returns the pictures for a PDF: still ones, and the same recoloured. */
export function pagePictures(
  assets: Readonly<Record<string, Asset>>,
  picture: (sha256: string) => Uint8Array | undefined,
  png: Draws | undefined,
): Pick<PdfOptions, "picture" | "recoloured"> {
  const known = new Map(Object.values(assets).map((asset) => [asset.sha256, asset]));
  const recoloured = (sha256: string, recolour: Recolour) => {
    const [bytes, asset] = [picture(sha256), known.get(sha256)];
    return bytes && asset && png ? asPng(bytes, asset, png, recolour) : undefined;
  };
  const still = stillPictures(assets, picture, png);
  const whole = (sha256: string) => {
    const [bytes, asset] = [still(sha256), known.get(sha256)];
    return bytes && asset && png && isCut(bytes) ? asPng(bytes, asset, png) : bytes;
  };
  return { picture: whole, recoloured };
}
