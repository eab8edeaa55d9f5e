import { Failure } from "@unitext/core/model";
import { type Parts, partText, unzip } from "../../../shared/archive";
import { readXml, type XmlElement } from "../../../shared/xml";
import { REL } from "./names";

export interface Relationship {
  type: string;
  target: string;
  external: boolean;
}

/** Resolves a relationship's target to a path, relative to the folder of its source part. */
export function resolveTarget(source: string, target: string): string {
  if (target.startsWith("/")) return target.slice(1);
  const path = source.split("/").slice(0, -1);
  for (const step of target.split("/")) {
    if (step === "..") path.pop();
    else if (step !== ".") path.push(step);
  }
  return path.join("/");
}

/** Returns the transitional form of a relationship type; those of ECMA-376 strict differ in their first part only. */
export function transitional(type: string): string {
  return type.replace(
    "http://purl.oclc.org/ooxml/officeDocument/relationships",
    "http://schemas.openxmlformats.org/officeDocument/2006/relationships",
  );
}

/** An opened package: its parts as trees, parsed once, and the relationships of each. */
export class OpenedPackage {
  private readonly trees = new Map<string, XmlElement>();
  private readonly links = new Map<string, Map<string, Relationship>>();
  private readonly parts: Parts;

  /** Throws a Failure when the bytes are not a package. */
  constructor(bytes: Uint8Array, name: string) {
    this.parts = unzip(bytes, name);
    if (!this.parts.has("[Content_Types].xml"))
      throw new Failure(
        "not-readable",
        name,
        "The file is a zip archive, but not an Office Open XML document: it has no list of content types.",
      );
  }

  /** Returns damaged parts that were not needed. */
  get damaged(): string[] {
    return this.parts.damaged();
  }

  has(path: string): boolean {
    return this.parts.has(path);
  }

  get paths(): Iterable<string> {
    return this.parts.keys();
  }

  bytes(path: string): Uint8Array | undefined {
    return this.parts.get(path);
  }

  /** Returns a part as a tree. Throws a Failure when it is missing or not well-formed. */
  tree(path: string): XmlElement {
    const known = this.trees.get(path);
    if (known) return known;
    const bytes = this.parts.get(path);
    if (!bytes)
      throw new Failure("not-readable", path, `The part ${path}, which the file refers to, is missing from it.`);
    const tree = readXml(partText(bytes), path);
    this.trees.set(path, tree);
    return tree;
  }

  /** Returns the relationships of a part by id; none when it has no list of them. */
  relationships(path: string): Map<string, Relationship> {
    const known = this.links.get(path);
    if (known) return known;
    const slash = path.lastIndexOf("/");
    const list = `${path.slice(0, slash + 1)}_rels/${path.slice(slash + 1)}.rels`;
    const found = new Map<string, Relationship>();
    if (this.parts.has(list)) {
      for (const { attributes } of this.tree(list).children) {
        const external = attributes.TargetMode === "External";
        const target = attributes.Target ?? "";
        found.set(attributes.Id ?? "", {
          type: transitional(attributes.Type ?? ""),
          target: external ? target : resolveTarget(path, target),
          external,
        });
      }
    }
    this.links.set(path, found);
    return found;
  }

  /** Returns the target of the first relationship of a type; undefined when there is none. */
  related(path: string, type: keyof typeof REL): string | undefined {
    for (const relationship of this.relationships(path).values())
      if (relationship.type === REL[type]) return relationship.target;
    return undefined;
  }
}
