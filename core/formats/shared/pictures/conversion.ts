import type { Asset } from "@unitext/core/model";
import type { Report } from "@unitext/core/tally";
import { rasterInfo, rasterPng } from "./raster";
import type { RasterImage } from "./rasterimage";
import { pictureInfo } from "./info";
import { drawMetafile, type Metafile, metafileInfo } from "./metafile";

/** A picture of a kind that pages do not show: its kind and size in CSS pixels, and what is made of it. */
export interface PendingConversion {
  kind: Metafile["kind"] | RasterImage["kind"];
  width: number;
  height: number;
  extension: ".svg" | ".png";
  /** What becomes of it, for the person. */
  how: string;
}

const isRaster = (found: Metafile | RasterImage): found is RasterImage => found.kind === "tiff" || found.kind === "bmp";

/** What a picture is that pages do not show as it comes, and that can be drawn anew: metafiles, TIFF and BMP. */
export function pendingConversion(bytes: Uint8Array): PendingConversion | undefined {
  const found = metafileInfo(bytes) ?? rasterInfo(bytes);
  if (!found) return undefined;
  return isRaster(found)
    ? { ...found, extension: ".png", how: `its dots (${found.kind}) are packed anew as PNG` }
    : { ...found, extension: ".svg", how: `its drawing acts (${found.kind}) are drawn anew as lines` };
}

/** A picture drawn anew, and whether all of it was known; undefined for one that cannot be. */
async function convertPicture(bytes: Uint8Array): Promise<{ drawing: Uint8Array; whole: boolean } | undefined> {
  const dots = rasterInfo(bytes);
  if (!dots) return drawMetafile(bytes);
  const drawing = await rasterPng(bytes, dots);
  return drawing && { drawing, whole: true };
}

/** What is still to be drawn of the pictures of a file that was read, by the names under which the deck will know them. */
export interface PendingConversions {
  assets: Record<string, Asset>;
  blobs: Map<string, Uint8Array>;
  undrawn: ReadonlyMap<string, Uint8Array>;
}

/** Draws the pictures of a file that is read that pages do not show, each once, and gives the drawings to what was read of it. */
export class PictureConverter {
  /** What could not be drawn at all, or not whole. */
  readonly left: Report["left"] = [];
  private readonly made = new Map<string, Asset | undefined>();
  constructor(private readonly sha256: (bytes: Uint8Array) => string) {}

  async into({ assets, blobs, undrawn }: PendingConversions): Promise<void> {
    for (const [source, bytes] of undrawn) {
      if (!this.made.has(source)) {
        const { drawing, whole } = (await convertPicture(bytes)) ?? {};
        const info = drawing && pictureInfo(drawing);
        const asset = drawing && info && { sha256: this.sha256(drawing), ...info };
        if (drawing && asset) blobs.set(asset.sha256, drawing);
        const of = `of the picture ${source.replace(/\.(svg|png)$/, "")}`;
        if (!asset)
          this.left.push({
            slide: null,
            what: `the ${rasterInfo(bytes) ? "dots" : "drawing acts"} ${of}`,
            why: rasterInfo(bytes)
              ? "they are damaged, too many, or packed in a way that is not read; a frame stands in its place"
              : "they are damaged, too many or none; a frame stands in its place",
          });
        else if (!whole)
          this.left.push({
            slide: null,
            what: `some drawing acts ${of}`,
            why: "they are of a kind that is not known; the others are drawn",
          });
        this.made.set(source, asset);
      }
      const asset = this.made.get(source);
      if (asset) assets[source] = asset;
    }
  }
}
