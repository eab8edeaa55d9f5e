const NAMES = new Intl.DisplayNames(undefined, { type: "language" });

/** Returns the name of a language in that of the reader; the tag itself where it is none. */
export function languageName(tag: string): string {
  try {
    return NAMES.of(tag) ?? tag;
  } catch {
    return tag;
  }
}

/** Returns a BCP 47 tag as it is usually written; undefined for what is none. */
export function languageTag(typed: string): string | undefined {
  try {
    return Intl.getCanonicalLocales(typed.trim())[0];
  } catch {
    return undefined;
  }
}
