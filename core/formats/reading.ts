import type { Asset, Deck } from "@unitext/core/model";
import type { Report } from "@unitext/core/tally";

/** What reading a presentation needs of the world: its name, ids, sums. */
export interface ReadOptions {
  name: string;
  newId: () => string;
  sha256: (bytes: Uint8Array) => string;
}

/** A deck read from a file, the bytes of its pictures by SHA-256, and what could not be taken as it was. */
export interface ReadDeck extends Pick<Report, "adapted" | "left"> {
  deck: Deck;
  blobs: Map<string, Uint8Array>;
}

const MEDIA: Record<string, Asset["mediaType"]> = { mp4: "video/mp4", m4v: "video/mp4", webm: "video/webm", mp3: "audio/mpeg", m4a: "audio/mp4", wav: "audio/wav" };
/** The media type of a film or sound by the ending of its path; undefined where it is none that is played. */
export function mediaOf(path: string): Asset["mediaType"] | undefined {
  return MEDIA[/\.([^.]*)$/.exec(path)?.[1]?.toLowerCase() ?? ""];
}
