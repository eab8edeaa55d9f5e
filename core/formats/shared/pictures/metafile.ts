import { shownFamily } from "@unitext/core/layout";
import { strToU8 } from "fflate";
import { countWmfRecords, withoutUnknownRecords } from "./metafilerecords";

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

/** What programs call fonts, then what stands for them, so that words are set in letters of their kind wherever the drawing is shown. */
const withShown = (markup: string) =>
  markup.replace(
    /font-family="(?:&quot;)?([^"&]*)(?:&quot;)?"/g,
    (_, name: string) => `font-family="&quot;${name}&quot;, &quot;${shownFamily(name).family}&quot;, sans-serif"`,
  );

/** A metafile drawn anew in SVG, to be stretched over its frame, and whether all its acts were known; undefined for one that cannot be drawn. */
export async function drawMetafile(bytes: Uint8Array): Promise<{ drawing: Uint8Array; whole: boolean } | undefined> {
  // Few presentations hold one: what draws them is large, and loaded for the first.
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
