import { loadFormulas } from "@unitext/core/figures";
import { type PlacedSlide, slideDrawing, type ViewedSlide, viewedSlide } from "@unitext/core/formats/output/html";
import { loadHyphenation } from "@unitext/core/layout";
import { fontsIn } from "./fonts";

/** A slide to draw, with the folder of the shipped fonts. */
export interface SlideWork extends PlacedSlide {
  fonts: string;
}

const ready = ({ metadata }: PlacedSlide) => Promise.all([loadFormulas(), loadHyphenation(metadata.language)]);

/** Draws a slide as an SVG that needs no other file. */
export async function drawSlide({
  fonts,
  pictures,
  ...placed
}: SlideWork & { pictures: Map<string, Uint8Array> }): Promise<string> {
  await ready(placed);
  return slideDrawing(placed, fontsIn(fonts), (sha256) => pictures.get(sha256));
}

/** Returns what a page shows beside the drawing of a slide. */
export async function viewSlide({ fonts, shown, ...placed }: SlideWork & { shown: string[] }): Promise<ViewedSlide> {
  await ready(placed);
  return viewedSlide(placed, fontsIn(fonts), new Set(shown));
}
