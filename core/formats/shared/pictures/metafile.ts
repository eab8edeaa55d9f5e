import { shownFamily } from "@unitext/core/layout";
import { strToU8 } from "fflate";
import { countWmfRecords, withoutUnknownRecords } from "./metafilerecords";

/**
 * A picture as a list of drawing records: WMF ([MS-WMF], 2.3.2) or EMF ([MS-EMF], 2.3.4.2), with its size in CSS
 * pixels, or 0 where it has none.
 */
export interface Metafile {
  kind: "wmf" | "emf";
  width: number;
  height: number;
}

const INCH = 96;
/**
 * A metafile with more records, or a larger drawing in bytes, is shown as a frame. No page of a presentation comes
 * near.
 */
const MOST = { acts: 200_000, bytes: 25_000_000 };
/** The longer side of a converted drawing in units: lines stay sharp at every size, and raster pictures fill a page. */
const SIDE = 2048;

/**
 * Identifies a metafile by its first record; a WMF header may follow the placeable one (2.3.2.3). Returns undefined for
 * other bytes.
 */
export function metafileInfo(bytes: Uint8Array): Metafile | undefined {
  if (bytes.length < 22) return undefined;
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const sized = (kind: Metafile["kind"], width: number, height: number): Metafile => ({
    kind,
    width: Math.max(0, Math.round(width * INCH)),
    height: Math.max(0, Math.round(height * INCH)),
  });
  if (view.getUint32(0, true) === 0x9ac6cdd7) {
    const inch = view.getUint16(14, true) || 1440;
    return sized(
      "wmf",
      Math.abs(view.getInt16(10, true) - view.getInt16(6, true)) / inch,
      Math.abs(view.getInt16(12, true) - view.getInt16(8, true)) / inch,
    );
  }
  if (
    (view.getUint16(0, true) === 1 || view.getUint16(0, true) === 2) &&
    view.getUint16(2, true) === 9 &&
    [0x100, 0x300].includes(view.getUint16(4, true))
  )
    return sized("wmf", 0, 0);
  // The frame of an EMF is in hundredths of a millimetre.
  if (bytes.length >= 88 && view.getUint32(0, true) === 1 && view.getUint32(40, true) === 0x464d4520)
    return sized(
      "emf",
      (view.getInt32(32, true) - view.getInt32(24, true)) / 2540,
      (view.getInt32(36, true) - view.getInt32(28, true)) / 2540,
    );
  return undefined;
}

/** Adds a shipped family after each font name, so that text is set in a similar font wherever the drawing is shown. */
const withShown = (markup: string) =>
  markup.replace(
    /font-family="(?:&quot;)?([^"&]*)(?:&quot;)?"/g,
    (_, name: string) => `font-family="&quot;${name}&quot;, &quot;${shownFamily(name).family}&quot;, sans-serif"`,
  );

/**
 * Converts a metafile to SVG that stretches to its frame. Returns it with whether all its records were known; undefined
 * when it cannot be drawn.
 */
export async function drawMetafile(bytes: Uint8Array): Promise<{ drawing: Uint8Array; whole: boolean } | undefined> {
  // Few presentations hold a metafile: the large converter is loaded with the first.
  const { convertMetafileToSvg } = await import("emf-converter");
  // The package reports unknown records, and where it stopped counting, on the console only.
  const known =
    metafileInfo(bytes)?.kind === "emf"
      ? withoutUnknownRecords(bytes)
      : { bytes, records: countWmfRecords(bytes), unknown: 0 };
  const markup = await convertMetafileToSvg(new Uint8Array(known.bytes).buffer, {
    idPrefix: "m",
    maxRecords: MOST.acts,
    maxWidth: SIDE,
    maxHeight: SIDE,
  }).catch(() => null);
  if (
    !markup ||
    markup.length > MOST.bytes ||
    !/<(?:path|image|text|rect|ellipse|circle|polygon|polyline|line)\b/.test(markup)
  )
    return undefined;
  return {
    drawing: strToU8(withShown(markup).replace(/<svg /, '<svg preserveAspectRatio="none" ')),
    whole: known.unknown === 0 && known.records <= MOST.acts,
  };
}
