const NAMES = new Intl.DisplayNames(undefined, { type: "language" });

/** Returns the name of a language in that of the reader; the tag itself where it is none. */
export function languageName(tag: string): string {
  try {
    return NAMES.of(tag) ?? tag;
  } catch {
    return tag;
  }
}

/** Returns a BCP 47 tag with its usual capitals (“pt-BR”); undefined if the text is not a tag. */
export function languageTag(typed: string): string | undefined {
  try {
    return Intl.getCanonicalLocales(typed.trim())[0];
  } catch {
    return undefined;
  }
}
