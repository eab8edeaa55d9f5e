import { sceneSvg } from "@unitext/core/draw";
import { type FontSet, layoutSlide } from "@unitext/core/layout";
import { type Deck, Failure, metadataOf, must } from "@unitext/core/model";
import { strToU8 } from "fflate";
import { zip, toBase64 } from "../../shared/archive";

export interface PicturesOptions {
  fonts: FontSet;
  picture: (sha256: string) => Uint8Array | undefined;
  /** Draws an SVG as a PNG of a width in pixels. */
  png?: (svg: string, width: number) => Uint8Array;
}

const PIXELS = 1920;

/**
 * Returns the slides that are shown as pictures, by file name: `01.svg` or `01.png`, with as many digits as the deck
 * needs.
 */
export function slidePictures(
  deck: Deck,
  kind: "png" | "svg",
  { fonts, picture, png }: PicturesOptions,
): Map<string, Uint8Array> {
  if (kind === "png" && !png) throw new Failure("not-supported", "png", "Pictures of slides are not drawn here.");
  const metadata = metadataOf(deck);
  const digits = String(deck.slides.length).length;
  const uri = (sha256: string) => {
    const bytes = picture(sha256);
    const type = Object.values(deck.assets).find((asset) => asset.sha256 === sha256)?.mediaType ?? "image/png";
    return bytes && `data:${type};base64,${toBase64(bytes)}`;
  };
  return new Map(
    deck.slides.flatMap((slide, nth) => {
      if (slide.hidden) return [];
      const svg = sceneSvg(layoutSlide(slide, { metadata, number: nth + 1, fonts }), { outlines: fonts, picture: uri });
      return [
        [
          `${String(nth + 1).padStart(digits, "0")}.${kind}`,
          kind === "svg" ? strToU8(svg) : must(png)(svg, PIXELS),
        ] as const,
      ];
    }),
  );
}

/** Writes the pictures of the slides as an archive. */
export function writePictures(deck: Deck, kind: "png" | "svg", options: PicturesOptions): Uint8Array {
  return zip(slidePictures(deck, kind, options));
}
