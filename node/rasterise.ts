import { join } from "node:path";
import { sceneSvg, withEndOfPng, withVisibleLines } from "@unitext/core/draw";
import { type FontSet, layoutSlide } from "@unitext/core/layout";
import { type Deck, metadataOf } from "@unitext/core/model";
import { type RenderedImage, Resvg } from "@resvg/resvg-js";

/** Draws a slide as a PNG of a width in pixels. */
export function slidePng(
  deck: Deck,
  number: number,
  width: number,
  fonts: FontSet,
  png: (svg: string, width: number) => Uint8Array,
  picture: (sha256: string) => Uint8Array | undefined,
): Uint8Array {
  const slide = deck.slides[number - 1];
  if (!slide) return new Uint8Array();
  const scene = layoutSlide(slide, { metadata: metadataOf(deck), number, fonts });
  const shown = withVisibleLines(scene, (0.5 * deck.page.width) / width);
  const svg = sceneSvg(shown, { outlines: fonts, picture: (sha256) => dataUri(deck, sha256, picture(sha256)) });
  return png(svg, width);
}

/** The pixel width at which a vector picture is rasterised. */
const DOTS = 1600;

/** The faces for text in SVG pictures; such text is not shaped by Unitext. */
const FACES = [
  "noto-sans-latin",
  "noto-sans-latin-ext",
  "noto-sans-greek",
  "noto-sans-cyrillic",
  "arimo-latin",
  "tinos-latin",
  "cousine-latin",
].flatMap((name) => [
  `${name}-400-normal`,
  `${name}-700-normal`,
  ...(name === "noto-sans-latin" ? [`${name}-400-italic`] : []),
]);

/** Returns a function that draws SVG as a PNG of a width in pixels. */
export function svgPng(fonts: string): (svg: string, width: number) => Uint8Array {
  const raster = svgRaster(fonts);
  return (svg, width) => raster(svg, width).asPng();
}

/**
 * Returns a function that draws SVG as pixels, of a width given in them. Drawings of Unitext need no fonts; text in an SVG
 * picture uses those of a folder.
 */
export function svgRaster(fonts: string): (svg: string, width: number) => RenderedImage {
  const flat = new Map<string, string>();
  const faces = {
    loadSystemFonts: false,
    fontFiles: FACES.map((id) => join(fonts, `${id}.ttf`)),
    defaultFontFamily: "Noto Sans",
    sansSerifFamily: "Arimo",
    serifFamily: "Tinos",
    monospaceFamily: "Cousine",
  };
  const drawn = (svg: string, width: number, font: object) =>
    new Resvg(svg, { fitTo: { mode: "width", value: width }, font }).render();
  /**
   * Rasterises an SVG picture that contains raster pictures or words, because the renderer shows neither inside a
   * picture. Cached; nothing is fetched.
   */
  const flattened = (uri: string): string => {
    const known = flat.get(uri);
    if (known !== undefined) return known;
    const svg = Buffer.from(uri.slice(uri.indexOf(",") + 1), "base64").toString("utf8");
    const alone = svg.replace(/\s(?:xlink:)?href\s*=\s*("|')(?!#|data:image\/(?:png|jpeg|gif)[;,])[^"']*\1/g, "");
    const made = /<(?:\w+:)?(?:image|text)\b/.test(svg)
      ? `data:image/png;base64,${Buffer.from(drawn(alone, DOTS, faces).asPng()).toString("base64")}`
      : uri;
    if (flat.size >= 16) flat.clear();
    flat.set(uri, made);
    return made;
  };
  return (svg, width) => {
    if (!svg.includes("data:image/svg+xml")) return drawn(svg, width, { loadSystemFonts: false });
    return drawn(svg.replace(/data:image\/svg\+xml;base64,[A-Za-z0-9+/=]+/g, flattened), width, faces);
  };
}

export function dataUri(deck: Pick<Deck, "assets">, sha256: string, bytes: Uint8Array | undefined): string | undefined {
  const type = Object.values(deck.assets).find((asset) => asset.sha256 === sha256)?.mediaType ?? "image/png";
  return bytes && `data:${type};base64,${Buffer.from(withEndOfPng(bytes)).toString("base64")}`;
}
