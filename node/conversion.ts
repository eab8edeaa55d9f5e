import { createHash } from "node:crypto";
import { PictureConverter } from "@unitext/core/formats";
import type { Asset } from "@unitext/core/model";
import type { Report } from "@unitext/core/tally";

/** Converted pictures by name, and what of them could not be converted. */
export interface Drawn extends Pick<Report, "left"> {
  assets: Record<string, Asset>;
  blobs: Map<string, Uint8Array>;
}

/** Converts pictures, which may take seconds. */
export async function convertPictures(pendingPictures: ReadonlyMap<string, Uint8Array>): Promise<Drawn> {
  const drawings = new PictureConverter((bytes) => createHash("sha256").update(bytes).digest("hex"));
  const drawn = { assets: {}, blobs: new Map<string, Uint8Array>() };
  await drawings.into({ ...drawn, pendingPictures });
  return { ...drawn, left: drawings.left };
}
