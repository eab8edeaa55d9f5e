import { type Asset, Failure } from "@unitext/core/model";
import { type Parts, partText, fromBase64 } from "../../../shared/archive";
import { child, localName, readMixed, type XmlNode } from "../../../shared/xml";
import { pictureInfo, type PendingConversion, pendingConversion } from "../../../shared/pictures";
import { mediaOf } from "../../shared/reading";

/**
 * The files inside a presentation, read when they are needed: pictures, films and documents, beside its parts or
 * inline.
 */
export class OdpFiles {
  readonly blobs = new Map<string, Uint8Array>();
  readonly assets: Record<string, Asset> = {};
  /** The imported pictures by path, with their hashes. */
  readonly taken = new Map<string, string>();
  /** Pictures to convert, by the names under which the deck will know them; their files stay in the presentation. */
  readonly pendingPictures = new Map<string, Uint8Array>();
  /** What is known of the files beside the parts, by path. */
  private readonly known = new Map<string, { sha256: string; info: ReturnType<typeof pictureInfo> }>();
  constructor(
    readonly parts: Parts,
    private readonly sha256: (bytes: Uint8Array) => string,
  ) {}

  /** Returns the hash and picture type of a file; a file that many pages show is hashed once. */
  private summed(path: string | undefined, bytes: Uint8Array) {
    const found = (path === undefined ? undefined : this.known.get(path)) ?? {
      sha256: this.sha256(bytes),
      info: pictureInfo(bytes),
    };
    if (path !== undefined) this.known.set(path, found);
    return found;
  }

  private sums: Map<string, string> | undefined;
  bySum(sha256: string): Uint8Array | undefined {
    this.sums ??= new Map(
      [...this.parts.keys()]
        .filter((path) => /^(Pictures|Media)\/./.test(path))
        .map((path) => [this.summed(path, this.parts.get(path) ?? new Uint8Array()).sha256, path]),
    );
    const path = this.sums.get(sha256);
    return path === undefined ? undefined : this.parts.get(path);
  }

  media(href: string | undefined): { source: string; type: "video" | "audio" } | undefined {
    const path = decodeURIComponent((href ?? "").replace(/^\.\//, ""));
    const bytes = this.parts.get(path);
    const mediaType = mediaOf(path);
    if (!bytes || !mediaType) return undefined;
    const { sha256 } = this.summed(path, bytes);
    const source = path.slice(path.lastIndexOf("/") + 1);
    this.blobs.set(sha256, bytes);
    this.assets[source] = { sha256, mediaType, width: 1, height: 1 };
    this.taken.set(path, sha256);
    return { source, type: mediaType.startsWith("video/") ? "video" : "audio" };
  }

  /** Returns the content of an embedded document, beside the presentation or inline. */
  object(href: string | undefined, holder: XmlNode): XmlNode | undefined {
    const inside = holder.children.find((part) => ["document", "math"].includes(localName(part)));
    if (inside) return inside;
    const path = decodeURIComponent((href ?? "").replace(/^\.\//, "").replace(/\/$/, ""));
    const bytes = path ? this.parts.get(`${path}/content.xml`) : undefined;
    if (!bytes) return undefined;
    try {
      return readMixed(partText(bytes), `${path}/content.xml`);
    } catch (error) {
      if (error instanceof Failure) return undefined;
      throw error;
    }
  }

  /** Returns a picture bullet under a name by its content. */
  sign(href: string | undefined, holder: XmlNode): string | undefined {
    const source = this.file(href, holder);
    const asset = source === undefined ? undefined : this.assets[source];
    if (source === undefined || !asset) return undefined;
    const name = `sign-${asset.sha256.slice(0, 24)}${/\.[^.]*$/.exec(source)?.[0] ?? ""}`;
    this.assets[name] = asset;
    return name;
  }

  /** Returns the size of an imported picture in CSS pixels. */
  size(source: string): { width: number; height: number } | undefined {
    return this.assets[source] ?? this.pending(source);
  }
  /** Returns what a picture that must be converted becomes. */
  drawn(source: string): string | undefined {
    return this.pending(source)?.how;
  }
  private pending(source: string): PendingConversion | undefined {
    const pendingPictures = this.pendingPictures.get(source);
    return pendingPictures && pendingConversion(pendingPictures);
  }

  /** Imports a picture's file. Returns its name in the deck; undefined when it cannot be read. */
  file(href: string | undefined, holder: XmlNode, kept?: string): string | undefined {
    const path = (href ?? "").replace(/^\.\//, "");
    const data = child(holder, "binary-data")?.text.replace(/\s+/g, "");
    const bytes = data ? fromBase64(data) : this.parts.get(path);
    if (!bytes) return undefined;
    const { sha256, info } = this.summed(data ? undefined : path, bytes);
    if (!info) {
      const pending = kept === undefined ? pendingConversion(bytes) : undefined;
      if (!pending) return undefined;
      const source = (path ? path.slice(path.lastIndexOf("/") + 1) : sha256.slice(0, 16)) + pending.extension;
      this.pendingPictures.set(source, bytes);
      return source;
    }
    const base = path
      ? path.slice(path.lastIndexOf("/") + 1)
      : `${sha256.slice(0, 16)}.${info.mediaType === "image/png" ? "png" : "jpeg"}`;
    const source =
      kept ?? (this.assets[base] && this.assets[base]?.sha256 !== sha256 ? `${sha256.slice(0, 16)}-${base}` : base);
    if (path && !data) this.taken.set(path, sha256);
    this.blobs.set(sha256, bytes);
    this.assets[source] = { sha256, ...info };
    return source;
  }
}
