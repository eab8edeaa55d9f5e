const NAMES = new Intl.DisplayNames(undefined, { type: "language" });

/** Returns the name of a language in that of the reader; the tag itself where it is none. */
export function languageName(tag: string): string {
  try {
    return NAMES.of(tag) ?? tag;
  } catch {
    return tag;
  }
}
