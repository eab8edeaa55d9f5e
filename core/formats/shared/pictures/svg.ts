import { type Asset, Failure } from "@unitext/core/model";
import { readXml } from "../xml";
import { decoded } from "../document/text";

/** Pixels in a CSS unit (CSS Values 3, 5.2). */
const PIXELS: Record<string, number> = {
  "": 1,
  px: 1,
  in: 96,
  cm: 96 / 2.54,
  mm: 96 / 25.4,
  q: 96 / 101.6,
  pt: 96 / 72,
  pc: 16,
  em: 16,
  ex: 8,
};
/** The size of a replaced element without one (CSS 2.2, 10.3.2). */
const USUAL = { width: 300, height: 150 };
const MOST = 16_384;

function pixels(value: string | undefined): number | undefined {
  const [, number, unit = ""] = /^\s*\+?([\d.]+(?:e[-+]?\d+)?)\s*([a-z]*)\s*$/i.exec(value ?? "") ?? [];
  const found = Number(number) * (PIXELS[unit.toLowerCase()] ?? Number.NaN);
  return found > 0 && Number.isFinite(found) ? found : undefined;
}

/**
 * Returns media type and size in CSS pixels of an SVG drawing (SVG 2, 7): from width and height of its root, else from
 * its view box. Returns undefined for XML that is not well-formed or has another root.
 */
export function svgInfo(bytes: Uint8Array): Omit<Asset, "sha256"> | undefined {
  try {
    // Documents that declare entities are refused, as in all XML; a bare document type is ignored.
    const { text } = decoded(bytes, "drawing.svg");
    const root = readXml(text.replace(/<!DOCTYPE\s[^[>]*>/i, ""), "drawing.svg");
    if ((root.local ?? root.name) !== "svg") return undefined;
    const { width, height, viewBox } = root.attributes;
    const [, , wide, tall] = (viewBox ?? "")
      .trim()
      .split(/[\s,]+/)
      .map(Number);
    const box = wide && tall && wide > 0 && tall > 0 ? { width: wide, height: tall } : undefined;
    const [w, h] = [pixels(width), pixels(height)];
    const share = box ? box.width / box.height : USUAL.width / USUAL.height;
    const size =
      w && h
        ? { width: w, height: h }
        : w
          ? { width: w, height: w / share }
          : h
            ? { width: h * share, height: h }
            : (box ?? USUAL);
    const fit = Math.min(1, MOST / Math.max(size.width, size.height));
    return {
      mediaType: "image/svg+xml",
      width: Math.max(1, Math.round(size.width * fit)),
      height: Math.max(1, Math.round(size.height * fit)),
    };
  } catch (error) {
    if (error instanceof Failure) return undefined;
    throw error;
  }
}
