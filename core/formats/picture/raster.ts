import type { Asset } from "@unitext/core/model";
import { toBase64 } from "../json";

/** How many pixels a picture has that is drawn from lines: enough for a page that is filled by it. */
const [LEAST, MOST] = [1200, 2400];

/** Whether a picture is drawn from lines, or moves: formats of still dots take a PNG of it. */
export const isLines = ({ mediaType }: Pick<Asset, "mediaType">) => mediaType === "image/svg+xml";
const isMoving = ({ mediaType }: Pick<Asset, "mediaType">) => mediaType === "image/gif";

const drawn = new WeakMap<Uint8Array, Uint8Array>();

/** A picture as a PNG, drawn once. It is drawn as a picture inside another, in which nothing is run or fetched (SVG Integration, 3: secure static mode). */
function asPng(bytes: Uint8Array, { mediaType, width, height }: Asset, png: (svg: string, width: number) => Uint8Array): Uint8Array {
  const known = drawn.get(bytes);
  if (known) return known;
  const image = `<image width="${width}" height="${height}" href="data:${mediaType};base64,${toBase64(bytes)}"/>`;
  const made = png(`<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}">${image}</svg>`, isMoving({ mediaType }) ? width : Math.max(1, Math.min(MOST, Math.max(LEAST, width * 2))));
  drawn.set(bytes, made);
  return made;
}

/** Gives pictures by their sums, with those of lines and those that move as PNG. */
export function stillPictures(assets: Readonly<Record<string, Asset>>, picture: (sha256: string) => Uint8Array | undefined, png: ((svg: string, width: number) => Uint8Array) | undefined): (sha256: string) => Uint8Array | undefined {
  if (!png) return picture;
  const others = new Map(Object.values(assets).filter((asset) => isLines(asset) || isMoving(asset)).map((asset) => [asset.sha256, asset]));
  return (sha256) => {
    const asset = others.get(sha256);
    const bytes = picture(sha256);
    return bytes && asset ? asPng(bytes, asset, png) : bytes;
  };
}
