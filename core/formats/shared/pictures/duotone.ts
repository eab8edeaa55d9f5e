import type { Asset } from "@unitext/core/model";
import { strToU8 } from "fflate";
import { toBase64 } from "../archive";

/** Larger pictures are shown in their own colours. */
const MOST = 12_000_000;
/** The share of each channel in lightness (ITU-R BT.709, 3.2). */
const LIGHTNESS = "0.2126 0.7152 0.0722 0 0";

/**
 * Returns a raster picture in two colours as an SVG drawing around it: each pixel is mixed by its lightness from the
 * first colour, for black, and the second, for white (ECMA-376-1, 20.1.8.23). Returns undefined for other pictures and
 * for very large ones.
 */
export function duotone(
  bytes: Uint8Array,
  { mediaType, width, height }: Asset,
  [dark, light]: readonly [string, string],
): Uint8Array | undefined {
  if (!["image/png", "image/jpeg", "image/gif"].includes(mediaType) || bytes.length > MOST) return undefined;
  // Rounded up a little, so that a program that truncates still gets the wanted step.
  const channel = (colour: string, at: number) =>
    Math.ceil((Number.parseInt(colour.slice(at, at + 2), 16) / 255) * 1e6) / 1e6;
  const transfer = ["R", "G", "B"]
    .map(
      (name, nth) =>
        `<feFunc${name} type="table" tableValues="${channel(dark, 1 + nth * 2)} ${channel(light, 1 + nth * 2)}"/>`,
    )
    .join("");
  const filter = `<filter id="two" x="0" y="0" width="1" height="1" color-interpolation-filters="sRGB"><feColorMatrix values="${LIGHTNESS} ${LIGHTNESS} ${LIGHTNESS} 0 0 0 1 0"/><feComponentTransfer>${transfer}</feComponentTransfer></filter>`;
  return strToU8(
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}" preserveAspectRatio="none">${filter}<image width="${width}" height="${height}" filter="url(#two)" href="data:${mediaType};base64,${toBase64(bytes)}"/></svg>`,
  );
}
