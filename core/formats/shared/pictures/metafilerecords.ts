const EMR_COMMENT = 70;
const EMR_SETICMMODE = 98;
const EMF_PLUS_SIGNATURE = 0x2b464d45;
const EMF_PLUS_MULTI_FORMAT_SECTION = 0x4006;

/** Whether [MS-EMF] 2.1.1 defines a record type. */
const isEmfRecord = (type: number) => type >= 1 && type <= 122 && ![69, 107, 117].includes(type);

/** Whether [MS-EMFPLUS] 2.1.1.1 defines a record type. */
const isEmfPlusRecord = (type: number) => type >= 0x4001 && type <= 0x403a && type !== 0x4003;

/** Counts the records of a WMF ([MS-WMF] 2.3) after its placeable header (2.3.2.3), if it has one, and its header (2.3.2.2). */
export function countWmfRecords(bytes: Uint8Array): number {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let count = 0;
  for (let offset = view.getUint32(0, true) === 0x9ac6cdd7 ? 40 : 18; offset + 6 <= bytes.length; count++) {
    const size = view.getUint32(offset, true) * 2;
    if (size < 6) break;
    offset += size;
  }
  return count;
}

/**
 * Returns a copy of an EMF in which records of undefined types are replaced by records that draw nothing, and how many records there were, of all types and of undefined ones.
 * Bytes that are no EMF come back unchanged. A record that claims to be longer than the file ends the search.
 */
export function withoutUnknownRecords(bytes: Uint8Array): { bytes: Uint8Array; records: number; unknown: number } {
  const copy = new Uint8Array(bytes);
  const view = new DataView(copy.buffer);
  let records = 0;
  let unknown = 0;
  for (let offset = 0; offset + 8 <= copy.length; ) {
    const type = view.getUint32(offset, true);
    const size = view.getUint32(offset + 4, true);
    if (size < 8 || offset + size > copy.length) break;
    if (!isEmfRecord(type)) {
      view.setUint32(offset, EMR_SETICMMODE, true);
      unknown++;
    } else if (type === EMR_COMMENT && size >= 16 && view.getUint32(offset + 12, true) === EMF_PLUS_SIGNATURE) {
      unknown += replaceUnknownEmfPlus(
        view,
        offset + 16,
        Math.min(offset + size, offset + 12 + view.getUint32(offset + 8, true)),
      );
    }
    records++;
    offset += size;
  }
  return { bytes: copy, records, unknown };
}

/** Replaces the undefined records of one EMF+ comment ([MS-EMFPLUS] 2.3.1.2) in place and returns how many there were. */
function replaceUnknownEmfPlus(view: DataView, start: number, end: number): number {
  let unknown = 0;
  for (let offset = start; offset + 12 <= end; ) {
    const size = view.getUint32(offset + 4, true);
    if (size < 12 || offset + size > end) break;
    if (!isEmfPlusRecord(view.getUint16(offset, true))) {
      view.setUint16(offset, EMF_PLUS_MULTI_FORMAT_SECTION, true);
      unknown++;
    }
    offset += size;
  }
  return unknown;
}
