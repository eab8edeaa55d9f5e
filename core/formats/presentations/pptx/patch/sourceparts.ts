import { Failure, must } from "@unitext/core/model";
import { strToU8 } from "fflate";
import { partText } from "../../../shared/archive";
import { childrenOf, readXml } from "../../../shared/xml";
import { SourcePackage } from "../../../shared/sourcepackage";
import { resolveTarget, transitional } from "../package/package";
import { REL } from "../package/names";
import { type Package, relationshipsPath, relativeTo } from "../package/parts";

export interface SourceRelationship {
  id: string;
  type: string;
  target: string;
  external: boolean;
}

/** Parts of a source package as they are written again: each once, with everything that it needs, under free paths. */
export class SourceParts {
  private readonly types = new Map<string, string>();
  private readonly defaults = new Map<string, string>();
  private readonly paths = new Map<string, string>();
  private readonly lists = new Map<string, SourceRelationship[]>();
  /** Parts that are replaced: slides, and parts that a presentation has once. */
  readonly instead = new Map<string, string>();
  /** Parts that are left out: slides that were deleted. */
  readonly dropped = new Set<string>();

  constructor(
    readonly file: SourcePackage,
    private readonly pack: Package,
  ) {
    const types = file.bytes("[Content_Types].xml");
    for (const { name, attributes } of types ? readXml(partText(types), "[Content_Types].xml").children : []) {
      if (name.endsWith("Override"))
        this.types.set((attributes.PartName ?? "").replace(/^\//, ""), attributes.ContentType ?? "");
      else this.defaults.set((attributes.Extension ?? "").toLowerCase(), attributes.ContentType ?? "");
    }
  }

  typeOf(path: string): string | undefined {
    return this.types.get(path) ?? this.defaults.get(/\.([^./]+)$/.exec(path)?.[1]?.toLowerCase() ?? "");
  }

  text(path: string): string | undefined {
    const bytes = this.file.bytes(path);
    return bytes && partText(bytes);
  }

  relationships(path: string): SourceRelationship[] {
    const known = this.lists.get(path);
    if (known) return known;
    const bytes = this.file.bytes(relationshipsPath(path));
    const list = bytes
      ? childrenOf(readXml(partText(bytes), relationshipsPath(path)), "Relationship").map(({ attributes }) => {
          const external = attributes.TargetMode === "External";
          return {
            id: attributes.Id ?? "",
            type: attributes.Type ?? "",
            target: external ? (attributes.Target ?? "") : resolveTarget(path, attributes.Target ?? ""),
            external,
          };
        })
      : [];
    this.lists.set(path, list);
    return list;
  }

  related(path: string, type: keyof typeof REL): string | undefined {
    return this.relationships(path).find((row) => transitional(row.type) === REL[type])?.target;
  }

  /**
   * Returns the path under which a part is written, with everything that it needs; undefined when the file lacks it.
   */
  take(path: string): string | undefined {
    const known = this.instead.get(path) ?? this.paths.get(path);
    if (known !== undefined || this.dropped.has(path)) return known;
    const part = this.file.part(path);
    if (part === undefined) return undefined;
    const to = this.pack.free(path);
    this.paths.set(path, to);
    this.pack.put(to, this.typeOf(path), part);
    this.writeRelationships(path, to, this.carried(path, to));
    return to;
  }

  /** Returns the path of a part that was written; undefined when nothing needed it. */
  takenAt(path: string): string | undefined {
    return this.paths.get(path);
  }

  /** Returns the relationships of a part under its new path, without those to missing parts. */
  carried(path: string, to: string): SourceRelationship[] {
    return this.relationships(path).flatMap((row) => {
      if (row.external) return [row];
      const target = this.take(row.target);
      return target === undefined ? [] : [{ ...row, target: relativeTo(to, target) }];
    });
  }

  /** Writes the relationships of a part; as they were compressed in the file when none changed. */
  writeRelationships(path: string, to: string, rows: readonly SourceRelationship[]): void {
    const before = this.relationships(path);
    if (!before.length) return;
    const same =
      path === to &&
      rows.length === before.length &&
      rows.every((row, nth) => row.external || row.target === relativeTo(path, must(before[nth]).target));
    const own = same ? this.file.part(relationshipsPath(path)) : undefined;
    this.pack.parts.set(relationshipsPath(to), own ?? strToU8(relationshipsXml(rows)));
  }
}

/** Returns a relationships part. */
export function relationshipsXml(rows: readonly SourceRelationship[]): string {
  const escaped = (value: string) => value.replace(/&/g, "&amp;").replace(/</g, "&lt;").replace(/"/g, "&quot;");
  return `<?xml version="1.0" encoding="UTF-8" standalone="yes"?>\n<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">${rows.map(({ id, type, target, external }) => `<Relationship Id="${escaped(id)}" Type="${escaped(type)}" Target="${escaped(target)}"${external ? ' TargetMode="External"' : ""}/>`).join("")}</Relationships>`;
}

/** Opens a source package; undefined when its bytes are missing or damaged. */
export function openSourceParts(
  name: string,
  bytes: Uint8Array | undefined,
  picture: (sha256: string) => Uint8Array | undefined,
): SourcePackage | undefined {
  if (!bytes) return undefined;
  try {
    const file = new SourcePackage(name, bytes, picture);
    return file.has("[Content_Types].xml") ? file : undefined;
  } catch (error) {
    if (error instanceof Failure || error instanceof SyntaxError) return undefined;
    throw error;
  }
}
