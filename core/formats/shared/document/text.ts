import { Failure, must } from "@unitext/core/model";
import { detect } from "chardet";

/** A line longer than this is data with the name of a text file. */
const LONGEST_LINE = 1_000_000;

/** Refuses a text that no person wrote: one with a line of more than a million characters. */
export function checkText(text: string, name: string): void {
  let start = 0;
  for (let line = 1; start <= text.length; line++) {
    const end = text.indexOf("\n", start);
    const stop = end < 0 ? text.length : end;
    if (stop - start > LONGEST_LINE)
      throw new Failure(
        "too-large",
        `${name}:${line}`,
        `Line ${line} has more than a million characters. Break it into paragraphs and bring it in again.`,
      );
    start = stop + 1;
  }
}

function marked(bytes: Uint8Array): string {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return "utf-16le";
  return bytes[0] === 0xfe && bytes[1] === 0xff ? "utf-16be" : "utf-8";
}

/**
 * Decodes text in UTF-8, UTF-16 or the encoding that the bytes suggest, which is returned where it had to be
 * recognised. Throws a Failure for bytes that are not text.
 */
export function decoded(bytes: Uint8Array, name: string): { text: string; encoding: string | undefined } {
  if (bytes.length === 0) throw new Failure("not-readable", name, "The file is empty.");
  let text: string | undefined;
  let encoding: string | undefined;
  try {
    text = new TextDecoder(marked(bytes), { fatal: true }).decode(bytes);
  } catch {
    text = undefined;
  }
  if (text === undefined || (text.includes("\u0000") && marked(bytes) === "utf-8")) {
    // UTF-16 without a byte order mark has a zero beside every Latin letter; other encodings are recognised by their
    // letters.
    const zeros = [0, 1].map((side) => bytes.slice(0, 4000).filter((byte, at) => byte === 0 && at % 2 === side).length);
    const half = Math.min(2000, bytes.length / 2);
    encoding =
      must(zeros[1]) > half * 0.4
        ? "utf-16le"
        : must(zeros[0]) > half * 0.4
          ? "utf-16be"
          : text === undefined
            ? (detect(bytes.subarray(0, 200_000))?.toLowerCase() ?? "windows-1252")
            : undefined;
    if (encoding === "iso-8859-1" || encoding === "ascii") encoding = "windows-1252";
    try {
      if (encoding) text = new TextDecoder(encoding).decode(bytes);
    } catch {
      text = undefined;
    }
  }
  if (text === undefined)
    throw new Failure(
      "not-readable",
      name,
      "The encoding of the text is not known. Save it as UTF-8 and bring it in again.",
    );
  const controls = text.slice(0, 10000).match(/[\u0000-\u0008\u000E-\u001A\u001C-\u001F]/g)?.length ?? 0;
  if (text.includes("\u0000") || controls > 8)
    throw new Failure("not-readable", name, "The file holds bytes that no text holds; it is not a text file.");
  if (text.replace(/^\uFEFF/, "").trim() === "") throw new Failure("not-readable", name, "The file holds no text.");
  return { text: text.replace(/^\uFEFF/, ""), encoding };
}
