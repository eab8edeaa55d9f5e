import { strToU8 } from "fflate";
import { type PackedPart, zip } from "../../../shared/archive";
import { XML_HEAD, xml } from "../../../shared/xml";
import { NS } from "./names";

/**
 * The relationships of a part being written; equal targets share one. Relationships of a source part keep their ids.
 */
export class Relationships {
  private readonly rows: { id: string; type: string; target: string; external: boolean }[];
  private next = 1;
  constructor(kept: readonly { id: string; type: string; target: string; external: boolean }[] = []) {
    this.rows = [...kept];
  }

  add(type: string, target: string, external = false): string {
    const known = this.rows.find((row) => row.type === type && row.target === target && row.external === external);
    if (known) return known.id;
    let id = `rId${this.next++}`;
    while (this.rows.some((row) => row.id === id)) id = `rId${this.next++}`;
    this.rows.push({ id, type, target, external });
    return id;
  }

  /** Rewrites each relationship, or removes it. */
  settle(as: (row: { id: string; type: string; target: string; external: boolean }) => string | undefined): void {
    const rows = this.rows.splice(0).flatMap((row) => {
      const target = as(row);
      return target === undefined ? [] : [{ ...row, target }];
    });
    this.rows.push(...rows);
  }

  get size(): number {
    return this.rows.length;
  }

  part(): string {
    return (
      XML_HEAD +
      xml(
        "Relationships",
        { xmlns: NS.rels },
        ...this.rows.map(({ id, type, target, external }) =>
          xml("Relationship", { Id: id, Type: type, Target: target, TargetMode: external ? "External" : undefined }),
        ),
      )
    );
  }
}

/** Returns the path of a part's relationships. */
export function relationshipsPath(path: string): string {
  const slash = path.lastIndexOf("/");
  return `${path.slice(0, slash + 1)}_rels/${path.slice(slash + 1)}.rels`;
}

/** Returns a target relative to the folder of a part. */
export function relativeTo(source: string, target: string): string {
  const from = source.split("/").slice(0, -1);
  const to = target.split("/");
  let same = 0;
  while (same < from.length && same < to.length - 1 && from[same] === to[same]) same++;
  return [...from.slice(same).map(() => ".."), ...to.slice(same)].join("/");
}

const DEFAULTS: Record<string, string> = {
  rels: "application/vnd.openxmlformats-package.relationships+xml",
  xml: "application/xml",
  png: "image/png",
  jpeg: "image/jpeg",
  jpg: "image/jpeg",
  gif: "image/gif",
  svg: "image/svg+xml",
  xlsx: "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
  mp4: "video/mp4",
  webm: "video/webm",
  mp3: "audio/mpeg",
  m4a: "audio/mp4",
  wav: "audio/wav",
};

/** A package being written: parts with their content types. */
export class Package {
  readonly parts = new Map<string, Uint8Array | PackedPart>();
  private readonly overrides = new Map<string, string>();
  private readonly media = new Map<string, string>();
  private readonly extensions = new Set(["rels", "xml", "png", "jpeg"]);
  private numbers = new Map<string, number>();

  constructor() {
    this.parts.set("[Content_Types].xml", new Uint8Array());
  }

  has(path: string): boolean {
    return this.parts.has(path);
  }

  /** Returns the given path, or the next free one with another number. */
  free(path: string): string {
    if (!this.parts.has(path)) return path;
    const [, stem = path, extension = ""] = /^(.*?)\d*(\.[^./]*)$/.exec(path) ?? [];
    for (let nth = this.numbers.get(stem + extension) ?? 1; ; nth++) {
      const next = `${stem}${nth}${extension}`;
      if (this.parts.has(next)) continue;
      this.numbers.set(stem + extension, nth + 1);
      return next;
    }
  }

  add(path: string, type: string, content: string, relationships?: Relationships): void {
    this.put(path, type, strToU8(content));
    if (relationships) this.parts.set(relationshipsPath(path), strToU8(relationships.part()));
  }

  /** Adds a part unchanged; without a type it has that of its extension. */
  put(path: string, type: string | undefined, part: Uint8Array | PackedPart): void {
    this.parts.set(path, part);
    const extension = /\.([^./]+)$/.exec(path)?.[1]?.toLowerCase() ?? "";
    if (type !== undefined && DEFAULTS[extension] !== type) this.overrides.set(path, type);
    else if (DEFAULTS[extension]) this.extensions.add(extension);
  }

  /** Adds the bytes of a picture, film or sound once. Returns its path. */
  picture(sha256: string, bytes: Uint8Array, extension: string): string {
    const path = this.media.get(sha256) ?? this.free(`ppt/media/image${this.media.size + 1}.${extension}`);
    this.media.set(sha256, path);
    this.put(path, undefined, bytes);
    return path;
  }

  /** Records that the bytes of a picture are at a path already. */
  holds(sha256: string, path: string): void {
    if (!this.media.has(sha256)) this.media.set(sha256, path);
  }

  finish(): Uint8Array {
    const types = [...this.extensions].map((Extension) =>
      xml("Default", { Extension, ContentType: DEFAULTS[Extension] }),
    );
    const overrides = [...this.overrides].map(([path, ContentType]) =>
      xml("Override", { PartName: `/${path}`, ContentType }),
    );
    this.parts.set(
      "[Content_Types].xml",
      strToU8(XML_HEAD + xml("Types", { xmlns: NS.types }, ...types, ...overrides)),
    );
    return zip(this.parts);
  }
}
