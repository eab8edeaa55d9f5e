import { createHash } from "node:crypto";
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { loadFormulas } from "@unitext/core/figures";
import { pictureInfo, WRITERS } from "@unitext/core/formats";
import type { FontSet } from "@unitext/core/layout";
import type { Asset } from "@unitext/core/model";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { bell, houseDeck } from "./house";

/**
 * Presentations in the station's house style: written by our writers, then without Unitext's tags, as another program
 * would have made them.
 */
export async function houseFiles(
  pictures: string,
  fonts: FontSet,
  png: (svg: string, width: number) => Uint8Array,
): Promise<{ name: string; bytes: Uint8Array }[]> {
  await loadFormulas();
  const sha256 = (bytes: Uint8Array) => createHash("sha256").update(bytes).digest("hex");
  const blobs = new Map<string, Uint8Array>();
  const asset = (bytes: Uint8Array): Asset => {
    blobs.set(sha256(bytes), bytes);
    return { sha256: sha256(bytes), ...(pictureInfo(bytes) ?? { mediaType: "audio/wav", width: 1, height: 1 }) };
  };
  const files = { picture: "tide-fortnight.png", profile: "dune-profile.png", gauge: "gauge.svg", sound: "bell.wav" };
  const assets = {
    [files.picture]: asset(new Uint8Array(readFileSync(join(pictures, files.picture)))),
    [files.profile]: asset(new Uint8Array(readFileSync(join(pictures, files.profile)))),
    [files.gauge]: asset(new Uint8Array(readFileSync(join(pictures, files.gauge)))),
    [files.sound]: asset(bell()),
  };
  const context = { fonts, at: new Date("2026-10-21T09:00:00Z"), picture: (sum: string) => blobs.get(sum), png };
  const written = [
    {
      name: "quay-in-autumn.pptx",
      bytes: WRITERS.pptx.write(houseDeck({ assets, ...files }, "report"), context) as Uint8Array,
    },
    {
      name: "open-day.odp",
      bytes: WRITERS.odp.write(houseDeck({ assets, ...files }, "open day"), context) as Uint8Array,
    },
  ];
  return written.map(({ name, bytes }) => ({ name, bytes: withoutTags(bytes) }));
}

function withoutTags(bytes: Uint8Array): Uint8Array {
  const bare = (text: string) =>
    text.replace(/<p:tag name="UNITEXT_[^>]*\/>/g, "").replace(/<meta:user-defined[\s\S]*<\/meta:user-defined>/, "");
  return zipSync(
    Object.fromEntries(
      Object.entries(unzipSync(bytes)).map(([path, part]) => [
        path,
        /tags\/|^meta\.xml$/.test(path) ? strToU8(bare(strFromU8(part))) : part,
      ]),
    ),
    { mtime: new Date("2026-10-21T09:00:00Z") },
  );
}
