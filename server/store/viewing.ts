import { type Deck, type DeckMetadata, Failure, filesOf, metadataOf, nameOf, type Slide } from "@unitext/core/model";
import { and, eq, inArray } from "drizzle-orm";
import type { ViewedDeck } from "../api";
import type { Database } from "./database";
import { blobs, deckBlobs } from "./schema";

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
