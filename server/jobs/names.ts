import { cutText } from "@unitext/core/model";
/** Names that some systems reserve for devices, whatever the extension. */
const RESERVED = /^(con|prn|aux|nul|com\d|lpt\d)$/i;

/**
 * Returns a title as a file name without extension that every system accepts: at most 120 characters, none cut in half.
 */
export function fileNameOf(title: string): string {
  const clean = title
    .toWellFormed()
    .normalize("NFC")
    .replace(/[\\/:*?"<>|\p{Cc}\p{Cf}\p{Cs}]+/gu, "-")
    .replace(/\s+/gu, " ")
    .trim();
  const cut = cutText(clean, 120);
  const name = cut.replace(/^[.\s]+|[.\s]+$/gu, "");
  return name && !RESERVED.test(name) ? name : name ? `${name} deck` : "Untitled";
}

/** Gives files names that also differ where a system ignores case; `taken` are names in use. */
export class FileNames {
  private readonly used: Set<string>;

  constructor(taken: readonly string[] = []) {
    this.used = new Set(taken.map((name) => name.toLowerCase()));
  }

  /** Returns the name for a title with an extension. */
  next(title: string, ending: string): string {
    const base = fileNameOf(title);
    let name = `${base}.${ending}`;
    for (let copy = 2; this.used.has(name.toLowerCase()); copy++) name = `${base} (${copy}).${ending}`;
    this.used.add(name.toLowerCase());
    return name;
  }
}
