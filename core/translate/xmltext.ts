import { Failure } from "@unitext/core/model";

/** The encoding that the declaration of an XML file names (XML 1.0, 4.3.3). */
const DECLARED = /^<\?xml[^>]*encoding\s*=\s*["']([A-Za-z][\w.-]*)["']/;

/**
 * Returns the text of an XML file in UTF-8, in UTF-16 with a byte order mark, or in the encoding that it declares. Throws
 * a Failure `not-readable` for an encoding that is not known and for bytes that are not text in it.
 */
export function xmlText(bytes: Uint8Array, file: string): string {
  const [first, second] = bytes;
  const marked =
    first === 0xff && second === 0xfe ? "utf-16le" : first === 0xfe && second === 0xff ? "utf-16be" : undefined;
  const head = new TextDecoder("latin1").decode(bytes.subarray(0, 200));
  const encoding = marked ?? DECLARED.exec(head)?.[1] ?? "utf-8";
  try {
    return new TextDecoder(encoding, { fatal: true }).decode(bytes);
  } catch {
    throw new Failure(
      "not-readable",
      file,
      `The file is not text in ${encoding}. Save it in UTF-8 and bring it in again.`,
    );
  }
}

/**
 * Returns the text of an XML file without its document type, where that has no internal subset. Many tools write one; it is not
 * needed and never loaded.
 */
export const withoutDoctype = (text: string): string => text.replace(/<!DOCTYPE\s+[\w:.-]+\b[^[>]*>/, "");
