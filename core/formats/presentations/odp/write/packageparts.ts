import type { FontSet } from "@unitext/core/layout";
import type { Deck } from "@unitext/core/model";
import { strToU8 } from "fflate";
import { xml, XML_HEAD } from "../../../shared/xml";
import { EXTENSIONS, isLines, stillPictures } from "../../../shared/pictures";
import { CHART_TYPE, FORMULA_TYPE, VERSION } from "../package/names";

export const entry = (path: string, type: string) =>
  xml("manifest:file-entry", {
    "manifest:full-path": path,
    "manifest:media-type": type,
    ...(path === "/" ? { "manifest:version": VERSION } : {}),
  });

export interface OdpOptions {
  fonts: FontSet;
  picture: (sha256: string) => Uint8Array | undefined;
  at: Date;
  /** Draws an SVG as a PNG of a width in pixels, which is written beside a drawing for programs without SVG. */
  png?: (svg: string, width: number) => Uint8Array;
}

export const HEAD = XML_HEAD.replace(' standalone="yes"', "");

/** The pictures, films and embedded documents of a presentation that is written. */
export class PackageParts {
  private readonly files = new Map<string, Uint8Array>();
  readonly objects = new Map<string, string>();

  /** `isFree` tells whether the package has no part at a path. */
  constructor(
    private readonly assets: Deck["assets"],
    private readonly options: OdpOptions,
    private readonly isFree: (path: string) => boolean,
  ) {}

  /** Adds a picture, film or sound. Returns its path; undefined when its bytes are missing. */
  readonly file = (source: string): string | undefined => {
    const asset = this.assets[source];
    const bytes = asset && this.options.picture(asset.sha256);
    if (!asset || !bytes) return undefined;
    const path = `${asset.mediaType.startsWith("image/") ? "Pictures" : "Media"}/${asset.sha256.slice(0, 32)}.${EXTENSIONS[asset.mediaType] ?? "bin"}`;
    this.files.set(path, bytes);
    return path;
  };
  /** Returns the paths of a picture in the order in which a frame offers it: a vector drawing, then its raster. */
  readonly shown = (source: string): string[] => {
    const path = this.file(source);
    const asset = this.assets[source];
    if (path === undefined || !asset) return [];
    const { picture, png } = this.options;
    const still = isLines(asset) && png ? stillPictures({ [source]: asset }, picture, png)(asset.sha256) : undefined;
    if (!still) return [path];
    const beside = path.replace(/\.[^.]*$/, ".png");
    this.files.set(beside, still);
    return [path, beside];
  };
  /** Adds an embedded document with the files beside its content. Returns its path. */
  readonly object = (content: string, beside: ReadonlyMap<string, Uint8Array> = new Map()): string => {
    let nth = this.objects.size + 1;
    while (this.objects.has(`Object ${nth}`) || !this.isFree(`Object ${nth}/content.xml`)) nth++;
    this.objects.set(`Object ${nth}`, content);
    for (const [name, bytes] of beside) this.files.set(`Object ${nth}/${name}`, bytes);
    return `Object ${nth}`;
  };

  objectEntries(): string[] {
    return [...this.objects].map(([path, content]) =>
      entry(`${path}/`, content.startsWith("<math") ? FORMULA_TYPE : CHART_TYPE),
    );
  }
  /** Returns the parts of pictures, films and charts. */
  *all(): Iterable<[string, Uint8Array]> {
    yield* this.files;
    for (const [path, content] of this.objects) yield [`${path}/content.xml`, strToU8(HEAD + content)];
  }
}
