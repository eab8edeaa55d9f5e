import {
  bindingsOn,
  type Cell,
  type Deck,
  newSlide,
  plainText,
  type Slide,
  type TableElement,
} from "@unitext/core/model";
import { apply } from "./apply";
import { batch, type Change, type SingleChange, singles } from "./change";

/** A source of a deck: the day that its values are of at least, and the numbers of the slides that show them. */
export interface SourceRow {
  source: string;
  /** The earliest moment at which a value was taken that follows the source; undefined when none was taken. */
  takenAt: string | undefined;
  slides: number[];
}

interface Words {
  sources: string;
  source: string;
  asOf: string;
  slides: string;
}

/** The words of the list and of the stamp, by language. */
const WORDS: Readonly<Record<string, Words>> = {
  en: { sources: "Sources", source: "Source", asOf: "as of", slides: "Slides" },
  de: { sources: "Quellen", source: "Quelle", asOf: "Stand", slides: "Folien" },
  fr: { sources: "Sources", source: "Source", asOf: "au", slides: "Diapositives" },
  es: { sources: "Fuentes", source: "Fuente", asOf: "a fecha de", slides: "Diapositivas" },
  it: { sources: "Fonti", source: "Fonte", asOf: "al", slides: "Diapositive" },
  nl: { sources: "Bronnen", source: "Bron", asOf: "stand", slides: "Dia’s" },
  pt: { sources: "Fontes", source: "Fonte", asOf: "em", slides: "Diapositivos" },
};
const wordsOf = (language: string): Words => WORDS[language.slice(0, 2).toLowerCase()] ?? (WORDS.en as Words);

const day = (moment: string, language: string) =>
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

const cell = (text: string): Cell => ({ text: text ? plainText(text) : [] });

function rowsOf(deck: Pick<Deck, "slides" | "language">): Cell[][] {
  const { source, asOf, slides } = wordsOf(deck.language);
  const capital = asOf.charAt(0).toLocaleUpperCase(deck.language) + asOf.slice(1);
  return [
    [source, capital, slides].map(cell),
    ...sourceRows(deck).map((row) =>
      [row.source, row.takenAt ? day(row.takenAt, deck.language) : "–", row.slides.join(", ")].map(cell),
    ),
  ];
}

/** Returns a slide that lists the sources of a deck, and that is kept right when they change. */
export function sourcesSlide(deck: Pick<Deck, "slides" | "language">, newId: () => string): Slide {
  const table: TableElement = {
    kind: "table",
    id: newId(),
    slot: "table",
    rows: rowsOf(deck),
    header: 1,
    align: ["start", "start", "start"],
    lists: "sources",
  };
  return {
    ...newSlide(newId(), "table"),
    elements: [{ kind: "text", id: newId(), slot: "title", text: plainText(wordsOf(deck.language).sources) }, table],
  };
}

/** Returns the text of the stamp: the day that all values of a deck are of at least; empty without taken values. */
export function dataStamp(deck: Pick<Deck, "slides" | "language">): string {
  const [first] = sourceRows(deck)
    .flatMap(({ takenAt }) => takenAt ?? [])
    .sort();
  return first ? `${wordsOf(deck.language).asOf} ${day(first, deck.language)}` : "";
}

/** Returns a footer with another stamp in the place of the one that it has, or at its end. */
export function withStamp(footer: string, old: string, next: string): string {
  if (old && footer.includes(old)) return footer.replace(old, next).replace(/ · $|^ · /, "");
  return [footer, next].filter(Boolean).join(" · ");
}

const listIn = ({ elements }: Slide) =>
  elements.find((element): element is TableElement => element.kind === "table" && element.lists === "sources");

/** Returns the changes that bring the list of sources and the stamp of a deck up to date; none when they are right. */
export function sourceListChanges(deck: Deck): SingleChange[] {
  const changes: SingleChange[] = [];
  for (const slide of deck.slides) {
    const table = listIn(slide);
    if (!table) continue;
    const rows = rowsOf(deck);
    if (JSON.stringify(rows) === JSON.stringify(table.rows)) continue;
    const { heights: _, ...rest } = table;
    changes.push({ kind: "setElement", slide: slide.id, element: { ...rest, rows } });
  }
  const { stamp, footer } = deck.regions;
  if (stamp !== undefined) {
    const next = dataStamp(deck);
    if (next !== stamp)
      changes.push({
        kind: "setRegions",
        regions: { ...deck.regions, stamp: next, footer: withStamp(footer, stamp, next).slice(0, 300) },
      });
  }
  return changes;
}

const keepsList = (deck: Deck) => deck.regions.stamp !== undefined || deck.slides.some((slide) => listIn(slide));

/** Returns a change together with what keeps the list of sources and the stamp right after it. */
export function keepingSourceList(deck: Deck, change: Change): Change {
  const mentions = () => singles(change).some((one) => one.kind === "insertSlide" && listIn(one.slide));
  if (!keepsList(deck) && !mentions()) return change;
  const more = sourceListChanges(apply(deck, change).deck);
  return more.length ? batch([...singles(change), ...more]) : change;
}

/** Returns a deck whose list of sources and stamp are right. */
export function withSourceList(deck: Deck): Deck {
  const changes = keepsList(deck) ? sourceListChanges(deck) : [];
  return changes.length ? apply(deck, batch(changes)).deck : deck;
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
  const { source: label, asOf } = wordsOf(language);
  return [...bySource]
    .map(([source, { ranges, takenAt }]) => {
      const date = takenAt ? `, ${asOf} ${day(takenAt, language)}` : "";
      return `${label}: ${source}, ${[...ranges].join(", ")}${date}.`;
    })
    .join("\n");
}
