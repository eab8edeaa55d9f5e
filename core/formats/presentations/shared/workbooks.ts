/** A workbook inside the file that slides were read from: of a chart, or embedded as an object. */
export interface EmbeddedWorkbook {
  /** The number of the slide, from 1. */
  slide: number;
  slideId: string;
  /** Its path in the file, or the address outside that the file links to. */
  path: string;
  /** The name of its file. */
  name: string;
  /** Undefined for a workbook outside the file, which is never opened. */
  bytes: Uint8Array | undefined;
}

/** Returns the name of a file at the end of an address as presentations write it, with slashes of both kinds. */
export function nameInAddress(address: string): string {
  const last = address.replace(/[#?].*$/, "").replace(/^.*[/\\]/, "");
  try {
    return decodeURIComponent(last) || address;
  } catch {
    return last || address;
  }
}
