import type { Deck, Slide } from "./deck";
import { bindingsOn } from "./boundtexts";

/** A source of a deck: the day that its values are of at least, and the numbers of the slides that show them. */
export interface SourceRow {
  source: string;
  /** The earliest moment at which a value was taken that follows the source; undefined when none was taken. */
  takenAt: string | undefined;
  slides: number[];
}

/** The words with which sources are listed. */
export interface SourceWords {
  sources: string;
  source: string;
  asOf: string;
  slides: string;
}

/** The words of the list and of the stamp, by language. */
const WORDS: Readonly<Record<string, SourceWords>> = {
  en: { sources: "Sources", source: "Source", asOf: "as of", slides: "Slides" },
  de: { sources: "Quellen", source: "Quelle", asOf: "Stand", slides: "Folien" },
  fr: { sources: "Sources", source: "Source", asOf: "au", slides: "Diapositives" },
  es: { sources: "Fuentes", source: "Fuente", asOf: "a fecha de", slides: "Diapositivas" },
  it: { sources: "Fonti", source: "Fonte", asOf: "al", slides: "Diapositive" },
  nl: { sources: "Bronnen", source: "Bron", asOf: "stand", slides: "Dia’s" },
  pt: { sources: "Fontes", source: "Fonte", asOf: "em", slides: "Diapositivos" },
};
/** Returns the words with which sources are listed in a language; English where it has none. */
export const sourceWords = (language: string): SourceWords =>
  WORDS[language.slice(0, 2).toLowerCase()] ?? (WORDS.en as SourceWords);

/** Returns the day of a moment as a language writes it. */
export const dayText = (moment: string, language: string) =>
  new Intl.DateTimeFormat(language, { dateStyle: "medium", timeZone: "UTC" }).format(new Date(moment));

/** Bindings by slide. Slides are never changed in place. */
const cached = new WeakMap<Slide, { source: string; takenAt: string | undefined; fixed: boolean }[]>();
function sourcesOn(slide: Slide) {
  let found = cached.get(slide);
  if (!found) {
    found = bindingsOn(slide).map(({ binding: { source, takenAt, mode } }) => ({
      source,
      takenAt,
      fixed: mode === "fixed",
    }));
    cached.set(slide, found);
  }
  return found;
}

/** Returns the sources of a deck by name. */
export function sourceRows({ slides }: Pick<Deck, "slides">): SourceRow[] {
  const rows = new Map<string, SourceRow>();
  slides.forEach((slide, nth) => {
    for (const { source, takenAt, fixed } of sourcesOn(slide)) {
      let row = rows.get(source);
      if (!row) rows.set(source, (row = { source, takenAt: undefined, slides: [] }));
      if (row.slides.at(-1) !== nth + 1) row.slides.push(nth + 1);
      if (takenAt && !fixed && (!row.takenAt || takenAt < row.takenAt)) row.takenAt = takenAt;
    }
  });
  return [...rows.values()].sort((a, b) => (a.source < b.source ? -1 : 1));
}

/** Returns the text of the stamp: the day that all values of a deck are of at least; empty without taken values. */
export function dataStamp(deck: Pick<Deck, "slides" | "language">): string {
  const [first] = sourceRows(deck)
    .flatMap(({ takenAt }) => takenAt ?? [])
    .sort();
  return first ? `${sourceWords(deck.language).asOf} ${dayText(first, deck.language)}` : "";
}

/**
 * Returns where the values of a slide come from, in a sentence a source: the workbook, its cells, and the day that they
 * are of; empty for a slide without linked values.
 */
export function sourceNote(slide: Slide, language: string): string {
  const bySource = new Map<string, { ranges: Set<string>; takenAt: string | undefined }>();
  for (const { binding } of bindingsOn(slide)) {
    const known = bySource.get(binding.source) ?? { ranges: new Set(), takenAt: undefined };
    known.ranges.add(binding.range);
    if (binding.takenAt && (!known.takenAt || binding.takenAt < known.takenAt)) known.takenAt = binding.takenAt;
    bySource.set(binding.source, known);
  }
  const { source: label, asOf } = sourceWords(language);
  return [...bySource]
    .map(([source, { ranges, takenAt }]) => {
      const date = takenAt ? `, ${asOf} ${dayText(takenAt, language)}` : "";
      return `${label}: ${source}, ${[...ranges].join(", ")}${date}.`;
    })
    .join("\n");
}
