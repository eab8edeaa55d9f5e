/** Codes of ISO 639-3 for languages of BCP 47 that have one of two letters. */
const CODES: Readonly<Record<string, string>> = {
  ar: "ara",
  br: "bre",
  ca: "cat",
  cs: "ces",
  cy: "cym",
  da: "dan",
  de: "deu",
  el: "ell",
  en: "eng",
  eo: "epo",
  es: "spa",
  eu: "eus",
  fa: "fas",
  fi: "fin",
  fr: "fra",
  gl: "glg",
  he: "heb",
  hi: "hin",
  hu: "hun",
  id: "ind",
  is: "isl",
  it: "ita",
  ja: "jpn",
  ko: "kor",
  nb: "nob",
  nl: "nld",
  nn: "nno",
  pl: "pol",
  pt: "por",
  ro: "ron",
  ru: "rus",
  sv: "swe",
  th: "tha",
  tr: "tur",
  uk: "ukr",
  vi: "vie",
  zh: "zho",
};

/** Returns the three-letter code of a language given as a BCP 47 tag; undefined where it is not known. */
export function languageCode(tag: string): string | undefined {
  const [short = tag] = tag.toLowerCase().split("-");
  return CODES[short] ?? (/^[a-z]{3}$/.test(short) ? short : undefined);
}
