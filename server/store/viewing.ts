import { type Deck, type DeckMetadata, Failure, filesOf, metadataOf, nameOf, type Slide } from "@unitext/core/model";
import { and, asc, eq, inArray } from "drizzle-orm";
import type { ViewedDeck } from "../api";
import type { Database } from "./database";
import { loadDeck } from "./decks";
import { metadataIn, runningOrder, slideOf } from "./rows";
import { blobs, deckBlobs, decks, slides } from "./schema";

const noDeck = (id: string) =>
  new Failure("not-found", id, "There is no deck at this address. It may have been deleted.");

/** Returns the nearest slide above one that is shown; null for a slide of the main line. */
function shownParent(slide: Slide, byId: ReadonlyMap<string, Slide>): string | null {
  let { parent } = slide;
  while (parent !== null && byId.get(parent)?.hidden) parent = byId.get(parent)?.parent ?? null;
  return parent;
}

/** Returns what a viewer's page lists of a deck: its slides that are not hidden, by name. */
export function viewedOf(deck: Deck, version: number): Omit<ViewedDeck, "right" | "notes"> {
  const { id, properties, language, page, slides: list } = deck;
  const byId = new Map(list.map((slide) => [slide.id, slide]));
  return {
    id,
    version,
    title: properties.title,
    language,
    page: { width: page.width, height: page.height },
    slides: list
      .filter(({ hidden }) => !hidden)
      .map((slide) => ({ id: slide.id, name: nameOf(slide), parent: shownParent(slide, byId) })),
  };
}

/** Returns what a viewer's page lists of a stored deck. Throws a Failure `not-found`. */
export async function viewedDeck(db: Database, id: string): Promise<Omit<ViewedDeck, "right" | "notes">> {
  const { deck, version } = await loadDeck(db, id);
  return viewedOf(deck, version);
}

/** A slide with what is needed to draw it. */
export interface SlideToDraw {
  metadata: DeckMetadata;
  slide: Slide;
  number: number;
  version: number;
  /** The slides that are shown, to which links may lead. */
  shown: string[];
}

const notShown = (id: string) => new Failure("not-found", id, "This slide is not in the deck any more, or is hidden.");

/** Returns a slide of a deck for a viewer's page. Throws a Failure `not-found` for one that is hidden or gone. */
export function slideToDrawOf(deck: Deck, version: number, id: string): SlideToDraw {
  const at = deck.slides.findIndex((slide) => slide.id === id);
  const slide = deck.slides[at];
  if (!slide || slide.hidden) throw notShown(id);
  const shown = deck.slides.filter(({ hidden }) => !hidden).map((one) => one.id);
  return { metadata: metadataOf(deck), slide, number: at + 1, version, shown };
}

/** Loads a slide for a viewer's page. Throws a Failure `not-found` for one that is hidden or gone. */
export async function slideToDraw(db: Database, deck: string, id: string): Promise<SlideToDraw> {
  const [row] = await db.select().from(decks).where(eq(decks.id, deck));
  if (!row) throw noDeck(deck);
  const list = await db
    .select({ id: slides.id, body: slides.body })
    .from(slides)
    .where(eq(slides.deck, deck))
    .orderBy(asc(runningOrder));
  const [found] = await db
    .select()
    .from(slides)
    .where(and(eq(slides.deck, deck), eq(slides.id, id)));
  const slide = found && slideOf(found);
  if (!slide || slide.hidden) throw notShown(id);
  return {
    metadata: metadataIn(row),
    slide,
    number: list.findIndex((one) => one.id === id) + 1,
    version: row.version,
    shown: list.filter(({ body }) => !body.hidden).map((one) => one.id),
  };
}

/** Returns the picture files of a slide by their SHA-256. */
export async function picturesOfSlide(
  db: Database,
  { metadata, slide }: Pick<SlideToDraw, "metadata" | "slide">,
): Promise<Map<string, Uint8Array>> {
  const names = filesOf(slide, metadata);
  const sums = names.flatMap((name) => {
    const asset = metadata.assets[name];
    return asset?.mediaType.startsWith("image/") ? [asset.sha256] : [];
  });
  if (!sums.length) return new Map();
  const rows = await db
    .select({ sha256: blobs.sha256, bytes: blobs.bytes })
    .from(deckBlobs)
    .innerJoin(blobs, eq(blobs.sha256, deckBlobs.sha256))
    .where(and(eq(deckBlobs.deck, metadata.id), inArray(deckBlobs.sha256, sums)));
  return new Map(rows.map(({ sha256, bytes }) => [sha256, bytes]));
}
