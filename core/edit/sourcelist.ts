import {
  type Cell,
  dataStamp,
  dayText,
  type Deck,
  newSlide,
  plainText,
  type Slide,
  sourceRows,
  sourceWords,
  type TableElement,
} from "@unitext/core/model";
import { apply } from "./apply";
import { batch, type Change, type SingleChange, singles } from "./change";

const cell = (text: string): Cell => ({ text: text ? plainText(text) : [] });

function rowsOf(deck: Pick<Deck, "slides" | "language">): Cell[][] {
  const { source, asOf, slides } = sourceWords(deck.language);
  const capital = asOf.charAt(0).toLocaleUpperCase(deck.language) + asOf.slice(1);
  return [
    [source, capital, slides].map(cell),
    ...sourceRows(deck).map((row) =>
      [row.source, row.takenAt ? dayText(row.takenAt, deck.language) : "–", row.slides.join(", ")].map(cell),
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
    elements: [
      { kind: "text", id: newId(), slot: "title", text: plainText(sourceWords(deck.language).sources) },
      table,
    ],
  };
}

/** Returns a footer with another stamp in the place of the one that it has, or at its end. */
export function withStamp(footer: string, old: string, next: string): string {
  if (old && footer.includes(old)) return footer.replace(old, next).replace(/ · $|^ · /, "");
  return [footer, next].filter(Boolean).join(" · ");
}

const listIn = ({ elements }: Slide) =>
  elements.find((element): element is TableElement => element.kind === "table" && element.lists === "sources");

/** Returns the changes that update the deck's list of sources and the date in its footer; none if both are current. */
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
