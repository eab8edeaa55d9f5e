import { Failure, must } from "@unitext/core/model";
import type { Problem } from "@unitext/core/text";
import { partText, type Parts, unzip } from "../../shared/archive";
import { readXml, type XmlElement } from "../../shared/xml";

export interface Relationship {
  target: string;
  external: boolean;
}

/** The parts of a document (ECMA-376-2): the main part, the parts that it is related to, and their problems. */
export class DocumentPackage {
  readonly main: string;
  readonly relationships: Map<string, Relationship>;
  private readonly parts: Parts;

  /** Throws a Failure for a file that is not such a package. */
  constructor(
    bytes: Uint8Array,
    private readonly name: string,
    private readonly problems: Problem[],
  ) {
    if (bytes[0] === 0xd0 && bytes[1] === 0xcf)
      throw new Failure(
        "not-readable",
        name,
        "The document is protected by a password, or of an older kind (.doc). Save it as .docx without a password and bring it in again.",
      );
    this.parts = unzip(bytes, name);
    this.main =
      [...this.related("").values()].find(({ target }) => /(^|\/)document\.xml$/.test(target))?.target ??
      "word/document.xml";
    this.relationships = this.related(this.main);
  }

  /** Returns the relationships of a part, with targets as paths in the archive. */
  private related(part: string): Map<string, Relationship> {
    const slash = part.lastIndexOf("/");
    const folder = part.slice(0, slash + 1);
    const bytes = this.parts.get(`${folder}_rels/${part.slice(slash + 1)}.rels`);
    const found = new Map<string, Relationship>();
    if (!bytes) return found;
    for (const { attributes } of readXml(partText(bytes), `${part} relationships`).children) {
      const target = attributes.Target ?? "";
      const external = attributes.TargetMode === "External";
      const path = external
        ? target
        : target.startsWith("/")
          ? target.slice(1)
          : `${folder}${target}`.replace(/[^/]+\/\.\.\//g, "");
      found.set(attributes.Id ?? "", { target: path, external });
    }
    return found;
  }

  /** Returns the bytes of a part inside the package. */
  bytes(path: string): Uint8Array | undefined {
    return this.parts.get(path);
  }

  /** Returns the main part. Throws a Failure when there is none. */
  document(): XmlElement {
    const bytes = this.parts.get(this.main);
    if (!bytes)
      throw new Failure(
        "not-readable",
        this.name,
        this.parts.has("content.xml")
          ? "The file is an OpenDocument text with the ending .docx; rename it to .odt."
          : "The document has no main part (word/document.xml); it is damaged or of another kind.",
      );
    return readXml(partText(bytes), this.main);
  }

  /**
   * Returns a part beside the main one, by its relationship or its usual name. A missing or damaged part is reported
   * and skipped.
   */
  besides(name: string): XmlElement | undefined {
    const named = [...this.relationships.values()].find(
      ({ target, external }) => !external && target.endsWith(`/${name}.xml`),
    )?.target;
    const path = named ?? `word/${name}.xml`;
    if (!this.parts.has(path)) {
      if (named)
        this.problems.push({ line: 1, message: `The document's part “${name}” is missing; it was read without.` });
      return undefined;
    }
    try {
      return readXml(partText(must(this.parts.get(path))), path);
    } catch (error) {
      this.problems.push({
        line: 1,
        message: `The document's part “${name}” is damaged and was passed over: ${(error as Error).message}`,
      });
      return undefined;
    }
  }
}
