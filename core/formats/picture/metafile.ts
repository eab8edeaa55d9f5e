import type { Asset } from "@unitext/core/model";
import type { Report } from "@unitext/core/tally";
import { shownFamily } from "@unitext/core/layout";
import { strToU8 } from "fflate";
import { svgInfo } from "./svg";

/** A picture as a list of drawing acts: WMF ([MS-WMF], 2.3.2) or EMF ([MS-EMF], 2.3.4.2), with its own size in CSS pixels, 0 where it says none. */
export interface Metafile {
  kind: "wmf" | "emf";
  width: number;
  height: number;
}

const INCH = 96;
/** Acts of a file and bytes of its drawing beyond which it is shown as a frame: no page of a presentation comes near. */
const MOST = { acts: 200_000, bytes: 25_000_000 };
/** Units of the longer side of a drawing: lines stay sharp at every size, its pictures of dots fill a page. */
const SIDE = 2048;

/** What metafile bytes are: by their first record, a WMF's header also after the one that places it (2.3.2.3). */
export function metafileInfo(bytes: Uint8Array): Metafile | undefined {
  if (bytes.length < 22) return undefined;
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const sized = (kind: Metafile["kind"], width: number, height: number): Metafile => ({ kind, width: Math.max(0, Math.round(width * INCH)), height: Math.max(0, Math.round(height * INCH)) });
  if (view.getUint32(0, true) === 0x9ac6cdd7) {
    const inch = view.getUint16(14, true) || 1440;
    return sized("wmf", Math.abs(view.getInt16(10, true) - view.getInt16(6, true)) / inch, Math.abs(view.getInt16(12, true) - view.getInt16(8, true)) / inch);
  }
  if ((view.getUint16(0, true) === 1 || view.getUint16(0, true) === 2) && view.getUint16(2, true) === 9 && [0x100, 0x300].includes(view.getUint16(4, true))) return sized("wmf", 0, 0);
  // The frame of an EMF is in hundredths of a millimetre.
  if (bytes.length >= 88 && view.getUint32(0, true) === 1 && view.getUint32(40, true) === 0x464d4520) return sized("emf", (view.getInt32(32, true) - view.getInt32(24, true)) / 2540, (view.getInt32(36, true) - view.getInt32(28, true)) / 2540);
  return undefined;
}

/** What programs call fonts, then what stands for them, so that words are set in letters of their kind wherever the drawing is shown. */
const withShown = (markup: string) => markup.replace(/font-family="(?:&quot;)?([^"&]*)(?:&quot;)?"/g, (_, name: string) => `font-family="&quot;${name}&quot;, &quot;${shownFamily(name).family}&quot;, sans-serif"`);

/** A metafile drawn anew in SVG, to be stretched over its frame, and whether all its acts were known; undefined for one that cannot be drawn. */
async function drawMetafile(bytes: Uint8Array): Promise<{ drawing: Uint8Array; whole: boolean } | undefined> {
  // Few presentations hold one: what draws them is large, and loaded for the first.
  const { convertMetafileToSvg } = await import("emf-converter");
  // What the package does not know it says on the console alone.
  const { warn } = console;
  let whole = true;
  console.warn = () => {
    whole = false;
  };
  const markup = await convertMetafileToSvg(new Uint8Array(bytes).buffer, { idPrefix: "m", maxRecords: MOST.acts, maxWidth: SIDE, maxHeight: SIDE })
    .catch(() => null)
    .finally(() => {
      console.warn = warn;
    });
  if (!markup || markup.length > MOST.bytes || !/<(?:path|image|text|rect|ellipse|circle|polygon|polyline|line)\b/.test(markup)) return undefined;
  return { drawing: strToU8(withShown(markup).replace(/<svg /, '<svg preserveAspectRatio="none" ')), whole };
}

/** What is still to be drawn of the pictures of a file that was read: metafiles, by the names under which the deck will know them. */
export interface Undrawn {
  assets: Record<string, Asset>;
  blobs: Map<string, Uint8Array>;
  undrawn: ReadonlyMap<string, Uint8Array>;
}

/** Draws the metafiles of a file that is read, each once, and gives their drawings to what was read of it. */
export class Drawings {
  /** What could not be drawn at all, or not whole. */
  readonly left: Report["left"] = [];
  private readonly made = new Map<string, Asset | undefined>();
  constructor(private readonly sha256: (bytes: Uint8Array) => string) {}

  async into({ assets, blobs, undrawn }: Undrawn): Promise<void> {
    for (const [source, bytes] of undrawn) {
      if (!this.made.has(source)) {
        const { drawing, whole } = (await drawMetafile(bytes)) ?? {};
        const info = drawing && svgInfo(drawing);
        const asset = drawing && info && { sha256: this.sha256(drawing), ...info };
        if (drawing && asset) blobs.set(asset.sha256, drawing);
        const what = `drawing acts of the picture ${source.replace(/\.svg$/, "")}`;
        if (!asset) this.left.push({ slide: null, what: `the ${what}`, why: "they are damaged, too many or none; a frame stands in its place" });
        else if (!whole) this.left.push({ slide: null, what: `some ${what}`, why: "they are of a kind that is not known; the others are drawn" });
        this.made.set(source, asset);
      }
      const asset = this.made.get(source);
      if (asset) assets[source] = asset;
    }
  }
}
