/** Returns a word with soft hyphens where it may be divided. */
type Hyphenator = (word: string) => string;

interface HyphenModule {
  default?: { hyphenateSync: (text: string) => string };
  hyphenateSync?: (text: string) => string;
}

/**
 * The patterns by language (Liang 1983, “Word Hy-phen-a-tion by Com-put-er”; those of the package `hyphen`). They are
 * large, so each is loaded when a deck first needs it.
 */
const PATTERNS: Readonly<Record<string, () => Promise<unknown>>> = {
  da: () => import("hyphen/da/index.js"),
  de: () => import("hyphen/de/index.js"),
  en: () => import("hyphen/en-gb/index.js"),
  es: () => import("hyphen/es/index.js"),
  fi: () => import("hyphen/fi/index.js"),
  fr: () => import("hyphen/fr/index.js"),
  it: () => import("hyphen/it/index.js"),
  nl: () => import("hyphen/nl/index.js"),
  pl: () => import("hyphen/pl/index.js"),
  pt: () => import("hyphen/pt/index.js"),
  sv: () => import("hyphen/sv/index.js"),
};

const loaded = new Map<string, Hyphenator>();
const languageOf = (tag: string) => (tag.split("-")[0] ?? tag).toLowerCase();

/** Loads what is needed to divide words of a language; nothing for a language whose words are not divided here. */
export async function loadHyphenation(language: string): Promise<void> {
  const name = languageOf(language);
  const load = PATTERNS[name];
  if (!load || loaded.has(name)) return;
  const module = (await load()) as HyphenModule;
  const hyphenate = module.hyphenateSync ?? module.default?.hyphenateSync;
  if (hyphenate) loaded.set(name, hyphenate);
}

/** The fewest letters that stay together before and after a hyphen (common practice, no source). */
const FEWEST = { before: 2, after: 3 };

/**
 * Returns the indices in a text at which its words may be divided; none until the patterns of the language are loaded, and
 * none in words that are short, have digits or are addresses.
 */
export function hyphenations(text: string, language: string): number[] {
  const hyphenate = loaded.get(languageOf(language));
  if (!hyphenate) return [];
  return [...text.matchAll(/(?<![\p{L}\d@./_-])\p{L}{6,}(?![\p{L}\d@/_-])/gu)].flatMap(({ 0: word, index }) => {
    const parts = hyphenate(word).split("\u00AD");
    // Patterns may change nothing but put hyphens in.
    if (parts.join("") !== word) return [];
    let at = 0;
    return parts.slice(0, -1).flatMap((part) => {
      at += part.length;
      return at >= FEWEST.before && word.length - at >= FEWEST.after ? [index + at] : [];
    });
  });
}
