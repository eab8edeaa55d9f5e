import {
  type Asset,
  checked,
  Deck,
  Failure,
  MOST,
  SCHEMA_VERSION,
  upgrade,
  wellFormed,
  within,
} from "@unitext/core/model";
import type { Report } from "@unitext/core/tally";
import { z } from "zod";
import { fromBase64, toBase64 } from "../../shared/archive";
import { mediaTypeOf, pictureInfo } from "../../shared/pictures";

/** A deck as JSON: the model, with the bytes of its pictures in base64 by their SHA-256. */
const DeckFile = z.object({
  format: z.literal("unitext-deck"),
  version: z.number().int().min(1),
  deck: z.unknown(),
  blobs: z.record(z.string(), z.string()),
});

/** Writes a deck with its pictures in Base64. Pictures that `picture` does not return are left out. */
export function writeJson(deck: Deck, picture: (sha256: string) => Uint8Array | undefined): string {
  const blobs: Record<string, string> = {};
  for (const { sha256 } of Object.values(deck.assets)) {
    const bytes = picture(sha256);
    if (bytes) blobs[sha256] = toBase64(bytes);
  }
  return JSON.stringify({ format: "unitext-deck", version: SCHEMA_VERSION, deck, blobs });
}

/**
 * Reads a deck from JSON. Throws a Failure that names the first invalid field, or a picture whose bytes do not match
 * its hash.
 */
export function readJson(
  text: string,
  { name, sha256 }: { name: string; sha256: (bytes: Uint8Array) => string },
): { deck: Deck; blobs: Map<string, Uint8Array>; adapted: Report["adapted"]; left: Report["left"] } {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new Failure("not-readable", name, "The file is not JSON; it may be cut off or of another kind.");
  }
  if ((value as { format?: unknown } | null)?.format !== "unitext-deck")
    throw new Failure("not-valid", name, "The JSON is not a deck: it has no “format”: “unitext-deck”.");
  const file = checked(DeckFile, value, "The deck");
  const blobs = new Map(Object.entries(file.blobs).map(([sum, data]) => [sum, fromBase64(data)]));
  for (const [sum, bytes] of blobs)
    if (sha256(bytes) !== sum)
      throw new Failure(
        "not-valid",
        `blobs.${sum}`,
        "The bytes of a picture do not have the sum that the file gives for them.",
      );
  const clean = wellFormed(file.deck);
  const deck = checked(Deck, upgrade(clean, file.version, name), "The deck");
  within("slides", deck.slides.length, name);
  within(
    "elements",
    deck.slides.reduce((sum, { elements }) => sum + elements.length, 0),
    name,
  );
  const left: Report["left"] = [];
  const assets: Record<string, Asset> = {};
  for (const [source, asset] of Object.entries(deck.assets)) {
    const bytes = blobs.get(asset.sha256);
    const shown = bytes ? whatItIs(asset, bytes) : asset;
    if (shown) assets[source] = shown;
    else
      left.push({
        slide: null,
        what: `the picture ${source}`,
        why: `it is none that can be shown, or has more than ${MOST.pixels / 1e6} million pixels`,
      });
  }
  const adapted =
    clean === file.deck
      ? []
      : [{ slide: null, what: "texts", how: "halves of characters and NUL in them are shown as �" }];
  return { deck: { ...deck, assets }, blobs, adapted, left };
}

/**
 * Returns an asset with the media type and size that its bytes show, whatever the file says; undefined for what cannot
 * be shown.
 */
function whatItIs(asset: Asset, bytes: Uint8Array): Asset | undefined {
  const mediaType = mediaTypeOf(bytes);
  if (!mediaType) return undefined;
  if (!mediaType.startsWith("image/")) return { ...asset, mediaType };
  const info = pictureInfo(bytes);
  return info && { sha256: asset.sha256, ...info };
}
