import { type Asset, Failure } from "@unitext/core/model";
import { partText } from "../../../shared/archive";
import { child, localName, type XmlElement } from "../../../shared/xml";
import { duotone, pictureInfo, pendingConversion } from "../../../shared/pictures";
import { mediaOf } from "../../shared/reading";
import type { ColourContext } from "./colour";
import type { DrawingContext } from "./drawing";
import type { Inheritance } from "./inherit";
import type { OpenedPackage } from "../package/package";

/** Parses a tree that may be damaged: older drawings need not be XML. */
function wellFormed(read: () => XmlElement): XmlElement | undefined {
  try {
    return read();
  } catch (error) {
    if (error instanceof Failure) return undefined;
    throw error;
  }
}

/** The pictures, films and sounds of a package, imported when they are asked for by relationship. */
export class PptxFiles {
  readonly blobs = new Map<string, Uint8Array>();
  readonly assets: Record<string, Asset> = {};
  /** The imported parts, with their hashes and the names by which the deck knows them. */
  readonly taken = new Map<string, { sha256: string; source: string }>();
  /** Pictures to convert, by the names under which the deck will know them; their parts stay in the file. */
  readonly pendingPictures = new Map<string, Uint8Array>();
  private readonly marks = new WeakMap<XmlElement, string>();
  private readonly legacies = new Map<string, XmlElement | undefined>();
  /** What is known of parts, by path. */
  private readonly known = new Map<string, { sha256: string; info: ReturnType<typeof pictureInfo> }>();
  constructor(
    private readonly pack: OpenedPackage,
    private readonly sha256: (bytes: Uint8Array) => string,
  ) {}

  /** Returns a part with its hash and picture type; a part that many slides show is hashed once. */
  summed(target: string): { bytes: Uint8Array; sha256: string; info: ReturnType<typeof pictureInfo> } | undefined {
    const bytes = this.pack.bytes(target);
    if (!bytes) return undefined;
    const found = this.known.get(target) ?? { sha256: this.sha256(bytes), info: pictureInfo(bytes) };
    this.known.set(target, found);
    return { bytes, ...found };
  }

  private sums: Map<string, string> | undefined;
  bySum(sha256: string): Uint8Array | undefined {
    this.sums ??= new Map(
      [...this.pack.paths]
        .filter((path) => path.startsWith("ppt/media/"))
        .map((path) => [this.summed(path)?.sha256 ?? "", path]),
    );
    const path = this.sums.get(sha256);
    return path === undefined ? undefined : this.pack.bytes(path);
  }

  /**
   * Returns the name of a relationship's picture in the deck, and what it is converted to if it must be; or why it
   * cannot be shown.
   */
  picture(path: string, id: string): { source: string; drawn?: string } | { why: string } {
    const relationship = this.pack.relationships(path).get(id);
    if (!relationship) return { why: "its file is missing" };
    if (relationship.external) return { why: "it lies outside of the file, and nothing is fetched" };
    const { target } = relationship;
    const known = this.taken.get(target);
    if (known) return { source: known.source };
    const file = this.summed(target);
    if (!file) return { why: "its file is missing" };
    const { bytes, sha256, info } = file;
    const base = target.slice(target.lastIndexOf("/") + 1);
    const pending = info ? undefined : pendingConversion(bytes);
    if (pending) {
      const source = base + pending.extension;
      this.pendingPictures.set(source, bytes);
      return { source, drawn: pending.how };
    }
    if (!info) return { why: `pictures of its kind (${/\.([^.]*)$/.exec(target)?.[1] ?? "unknown"}) are not shown` };
    const source = this.assets[base] && this.assets[base]?.sha256 !== sha256 ? `${sha256.slice(0, 16)}-${base}` : base;
    this.blobs.set(sha256, bytes);
    this.assets[source] = { sha256, ...info };
    this.taken.set(target, { sha256, source });
    return { source };
  }

  /**
   * Returns the picture by which an older drawing (VML, ECMA-376-4, 19: `v:imagedata`, `o:spid`, `o:relid`) shows an
   * embedded object; undefined when it has none.
   */
  legacy(path: string, shape: string): ReturnType<PptxFiles["picture"]> | undefined {
    const drawing = this.pack.related(path, "vml");
    if (!drawing || !this.pack.has(drawing)) return undefined;
    const tree = this.legacies.get(drawing) ?? wellFormed(() => this.pack.tree(drawing));
    this.legacies.set(drawing, tree);
    const drawn = tree?.children.find(
      (one) => localName(one) === "shape" && (one.attributes["o:spid"] ?? one.attributes.id) === shape,
    );
    const id = child(drawn, "imagedata")?.attributes["o:relid"];
    return id === undefined ? undefined : this.picture(drawing, id);
  }

  /** What reading the fills and lines of a part needs. */
  drawing(path: string, colours: ColourContext, { theme, themePath = path }: Inheritance): DrawingContext {
    const from = (part: string) => (id: string) => {
      const found = this.picture(part, id);
      return "source" in found ? found.source : undefined;
    };
    return {
      colours,
      theme,
      picture: from(path),
      themePicture: from(themePath),
      duotone: (source, two) => this.duotone(source, two),
    };
  }

  /** Returns an imported picture in two colours; the picture itself when that is not possible. */
  private duotone(source: string, colours: readonly [string, string]): string {
    const asset = this.assets[source];
    const bytes = asset && this.blobs.get(asset.sha256);
    const name = `${source}-${colours.map((colour) => colour.slice(1)).join("-")}.svg`;
    if (this.assets[name]) return name;
    const drawing = asset && bytes && duotone(bytes, asset, colours);
    if (!drawing) return source;
    const sha256 = this.sha256(drawing);
    this.blobs.set(sha256, drawing);
    this.assets[name] = { ...asset, sha256, mediaType: "image/svg+xml" };
    return name;
  }

  /** Records which picture bullets are in a part of list styles, whose relationships they use. */
  bulletsOf(part: string): void {
    const bytes = this.pack.bytes(part);
    if (!bytes || !partText(bytes).includes("buBlip")) return;
    const look = (element: XmlElement): void => {
      if (localName(element) === "buBlip") this.marks.set(element, part);
      for (const inner of element.children) look(inner);
    };
    look(this.pack.tree(part));
  }

  /** Returns a picture bullet under a name by its content; `mark` may be in another part than its text. */
  sign(path: string, id: string, mark: XmlElement): string | undefined {
    const found = this.picture(this.marks.get(mark) ?? path, id);
    const asset = "source" in found ? this.assets[found.source] : undefined;
    if (!("source" in found) || !asset) return undefined;
    const name = `sign-${asset.sha256.slice(0, 24)}${/\.[^.]*$/.exec(found.source)?.[0] ?? ""}`;
    this.assets[name] = asset;
    return name;
  }

  media(path: string, id: string): { source: string; type: "video" | "audio" } | undefined {
    const relationship = this.pack.relationships(path).get(id);
    if (!relationship || relationship.external) return undefined;
    const mediaType = mediaOf(relationship.target);
    const type = mediaType?.startsWith("audio/") ? "audio" : "video";
    const known = this.taken.get(relationship.target);
    if (known) return { source: known.source, type };
    const file = mediaType && this.summed(relationship.target);
    if (!file) return undefined;
    const { bytes, sha256 } = file;
    const source = relationship.target.slice(relationship.target.lastIndexOf("/") + 1);
    this.blobs.set(sha256, bytes);
    this.assets[source] = { sha256, mediaType, width: 1, height: 1 };
    this.taken.set(relationship.target, { sha256, source });
    return { source, type };
  }
}
