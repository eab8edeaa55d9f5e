import { cutText } from "@unitext/core/model";
/** Names that some systems keep for devices, whatever the ending. */
const RESERVED = /^(con|prn|aux|nul|com\d|lpt\d)$/i;

/** A title as the name of a file that every system takes, without an ending: at most 120 characters, none of them cut in half. */
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

/** Gives files names that differ from each other also where a system does not tell capitals apart; `taken` are names that are used already. */
export class FileNames {
  private readonly used: Set<string>;

  constructor(taken: readonly string[] = []) {
    this.used = new Set(taken.map((name) => name.toLowerCase()));
  }

  /** The name for a title with an ending. */
  next(title: string, ending: string): string {
    const base = fileNameOf(title);
    let name = `${base}.${ending}`;
    for (let copy = 2; this.used.has(name.toLowerCase()); copy++) name = `${base} (${copy}).${ending}`;
    this.used.add(name.toLowerCase());
    return name;
  }
}
