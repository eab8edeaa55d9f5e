import { writeFileSync } from "node:fs";
import { createHash } from "node:crypto";
import { join } from "node:path";
import { sceneDuring, sceneSvg, withVisibleLines } from "@unitext/core/draw";
import { loadFormulas } from "@unitext/core/figures";
import { momentsOf, type SlideTimes } from "@unitext/core/film";
import { type FontSet, layoutSlide, loadHyphenation, type Scene } from "@unitext/core/layout";
import { type DeckMetadata, filesOf, languageDirection, must, type Slide, type Transition } from "@unitext/core/model";
import { fontsIn } from "../fonts";
import { dataUri, svgRaster } from "../rasterise";

/** A slide to be drawn for a film, with its number in the deck. */
export interface FilmedSlide {
  slide: Slide;
  number: number;
}

interface Drawing {
  fonts: string;
  metadata: DeckMetadata;
}

const sceneOf = (metadata: DeckMetadata, { slide, number }: FilmedSlide, fonts: FontSet): Scene =>
  layoutSlide(slide, { metadata, number, fonts });

/** Returns for each slide a hash of everything that is seen on it: slides with the same one look and move alike. */
export async function filmHashes({
  fonts,
  metadata,
  slides,
}: Drawing & { slides: readonly FilmedSlide[] }): Promise<string[]> {
  await Promise.all([loadFormulas(), loadHyphenation(metadata.language)]);
  const set = fontsIn(fonts);
  return slides.map((filmed) => {
    const scene = sceneOf(metadata, filmed, set);
    const svg = sceneSvg(scene, { outlines: set, picture: (sha256) => sha256 });
    const { transition } = filmed.slide;
    return createHash("sha256")
      .update(JSON.stringify([svg, scene.reveals ?? [], transition ?? null, scene.page, scene.language]))
      .digest("hex");
  });
}

/** Pixels as red, green, blue and opacity. */
interface Pixels {
  width: number;
  height: number;
  data: Uint8Array;
}

/** Writes pixels as a Netpbm image (PAM), which needs no compression. */
function pam({ width, height, data }: Pixels): Uint8Array {
  const head = `P7\nWIDTH ${width}\nHEIGHT ${height}\nDEPTH 4\nMAXVAL 255\nTUPLTYPE RGB_ALPHA\nENDHDR\n`;
  return Buffer.concat([Buffer.from(head, "latin1"), data]);
}

/** How far a slide that is pushed in begins from its place, as a share of the page; as in the drawings of pages. */
const PUSHED_FROM = 0.3;

/** Returns a slide that is arriving over the one before it: `arrived` is from 0 to 1. */
function arriving(
  before: Pixels,
  { width, height, data }: Pixels,
  arrived: number,
  kind: Transition["kind"],
  rtl: boolean,
): Pixels {
  const made = new Uint8Array(before.data);
  const shift = kind === "push" ? Math.round(PUSHED_FROM * (1 - arrived) * width) * (rtl ? -1 : 1) : 0;
  const weight = kind === "wipe" ? 256 : Math.round(256 * arrived);
  const seen = kind === "wipe" ? Math.round(arrived * width) : width;
  const [left, right] = kind === "wipe" && rtl ? [width - seen, width] : [0, kind === "wipe" ? seen : width];
  const [from, to] = [Math.max(left, shift), Math.min(right, width + shift)];
  for (let y = 0; y < height; y++) {
    const row = y * width * 4;
    for (let at = row + from * 4, of = row + (from - shift) * 4; at < row + to * 4; at++, of++) {
      const old = made[at] ?? 0;
      made[at] = old + ((((data[of] ?? 0) - old) * weight) >> 8);
    }
  }
  return { width, height, data: made };
}

/** Pictures of a slide as files, each with the number of frames for which it is shown. */
export type FrameFiles = { file: string; frames: number }[];

/**
 * Draws the pictures of a slide of a film into a folder: one for each moment at which something else is seen. `before` is
 * the slide over which its transition plays.
 */
export async function filmFrames({
  fonts,
  metadata,
  filmed,
  before,
  times,
  width,
  folder,
  blobs,
}: Drawing & {
  filmed: FilmedSlide;
  before: FilmedSlide | undefined;
  times: SlideTimes;
  width: number;
  folder: string;
  blobs: ReadonlyMap<string, Uint8Array>;
}): Promise<FrameFiles> {
  await Promise.all([loadFormulas(), loadHyphenation(metadata.language)]);
  const set = fontsIn(fonts);
  const raster = svgRaster(fonts);
  const pixels = (scene: Scene): Pixels => {
    const shown = withVisibleLines(scene, (0.5 * metadata.page.width) / width);
    const svg = sceneSvg(shown, { outlines: set, picture: (sha256) => dataUri(metadata, sha256, blobs.get(sha256)) });
    const image = raster(svg, width);
    return { width: image.width, height: image.height, data: image.pixels };
  };
  const scene = sceneOf(metadata, filmed, set);
  const { transition } = filmed.slide;
  const moments = momentsOf(scene.reveals ?? [], before ? times : { ...times, transition: 0 });
  const last =
    before && transition && moments.some(({ arrived }) => arrived < 1)
      ? pixels(sceneOf(metadata, before, set))
      : undefined;
  const rtl = languageDirection(scene.language) === "rtl";
  let drawn: { key: string; pixels: Pixels } | undefined;
  return moments.map(({ frames, entered, arrived }, nth) => {
    const key = entered.join(" ");
    if (drawn?.key !== key) drawn = { key, pixels: pixels(sceneDuring(scene, entered)) };
    const shown =
      last && arrived < 1 ? arriving(last, drawn.pixels, arrived, must(transition).kind, rtl) : drawn.pixels;
    const file = `${nth}.pam`;
    writeFileSync(join(folder, file), pam(shown));
    return { file, frames };
  });
}

/** Returns the hashes of the pictures that slides need. */
export const picturesOfSlides = (metadata: DeckMetadata, slides: readonly Slide[]): string[] => [
  ...new Set(
    slides.flatMap((slide) =>
      filesOf(slide, metadata).flatMap((name) => {
        const asset = metadata.assets[name];
        return asset?.mediaType.startsWith("image/") ? [asset.sha256] : [];
      }),
    ),
  ),
];
