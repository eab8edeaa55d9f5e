/** Returns the language of a BCP 47 tag without script and region, in lower case: British and American English are one. */
export const languageOfTag = (tag: string): string => (tag.split("-")[0] ?? tag).toLowerCase();

/** Whether two tags name one language. */
export const sameLanguage = (a: string, b: string): boolean => a === b || languageOfTag(a) === languageOfTag(b);
