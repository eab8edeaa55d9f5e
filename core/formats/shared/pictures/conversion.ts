import type { Asset } from "@unitext/core/model";
import type { Report } from "@unitext/core/tally";
import { rasterInfo, rasterPng } from "./raster";
import type { RasterImage } from "./rasterimage";
import { pictureInfo } from "./info";
import { drawMetafile, type Metafile, metafileInfo } from "./metafile";

/** A picture that pages cannot show: its kind and size in CSS pixels, and what it is converted to. */
export interface PendingConversion {
  kind: Metafile["kind"] | RasterImage["kind"];
  width: number;
  height: number;
  extension: ".svg" | ".png";
  /** What it is converted to, as a phrase for the report. */
  how: string;
}

const isRaster = (found: Metafile | RasterImage): found is RasterImage => found.kind === "tiff" || found.kind === "bmp";

/**
 * Identifies a picture that pages cannot show and that can be converted: a metafile, TIFF or BMP. Returns undefined for
 * others.
 */
export function pendingConversion(bytes: Uint8Array): PendingConversion | undefined {
  const found = metafileInfo(bytes) ?? rasterInfo(bytes);
  if (!found) return undefined;
  return isRaster(found)
    ? { ...found, extension: ".png", how: `its pixels (${found.kind}) are stored as PNG` }
    : { ...found, extension: ".svg", how: `its drawing (${found.kind}) is converted to SVG` };
}

/** Converts a picture. Returns it with whether all of it was understood; undefined when it cannot be converted. */
async function convertPicture(bytes: Uint8Array): Promise<{ drawing: Uint8Array; whole: boolean } | undefined> {
  const raster = rasterInfo(bytes);
  if (!raster) return drawMetafile(bytes);
  const drawing = await rasterPng(bytes, raster);
  return drawing && { drawing, whole: true };
}

/** The pictures of a file that are still to be converted, by the names under which the deck knows them. */
export interface PendingConversions {
  assets: Record<string, Asset>;
  blobs: Map<string, Uint8Array>;
  pendingPictures: ReadonlyMap<string, Uint8Array>;
}

/** Converts the pictures of a file that pages cannot show, each once, and adds the results to what was read. */
export class PictureConverter {
  /** Pictures that could not be converted, or not completely. */
  readonly left: Report["left"] = [];
  private readonly made = new Map<string, Asset | undefined>();
  constructor(private readonly sha256: (bytes: Uint8Array) => string) {}

  async into({ assets, blobs, pendingPictures }: PendingConversions): Promise<void> {
    for (const [source, bytes] of pendingPictures) {
      if (!this.made.has(source)) {
        const { drawing, whole } = (await convertPicture(bytes)) ?? {};
        const info = drawing && pictureInfo(drawing);
        const asset = drawing && info && { sha256: this.sha256(drawing), ...info };
        if (drawing && asset) blobs.set(asset.sha256, drawing);
        const of = `of the picture ${source.replace(/\.(svg|png)$/, "")}`;
        if (!asset)
          this.left.push({
            slide: null,
            what: `the ${rasterInfo(bytes) ? "pixels" : "drawing records"} ${of}`,
            why: rasterInfo(bytes)
              ? "they are damaged, too many, or compressed in a way that is not read; an empty frame is shown instead"
              : "they are damaged, too many or none; an empty frame is shown instead",
          });
        else if (!whole)
          this.left.push({
            slide: null,
            what: `some drawing records ${of}`,
            why: "they are of a kind that is not known; the others are drawn",
          });
        this.made.set(source, asset);
      }
      const asset = this.made.get(source);
      if (asset) assets[source] = asset;
    }
  }
}
