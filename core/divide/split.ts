import {
  clock,
  type Deck,
  metadataOf,
  nameOf,
  filesOf,
  picturesOn,
  sharedItemsOf,
  type Slide,
  slideLink,
  must,
} from "@unitext/core/model";
import type { Account } from "@unitext/core/tally";
import { copySlide, mapSlideLinks } from "./carry";
import type { ResolvedPart } from "./plan";

/** A deck at a version. */
export interface Versioned {
  deck: Deck;
  version: number;
}

export interface SplitResult {
  parts: Deck[];
  /** What the parts have lost or changed. */
  accounts: Account[];
  /** The slides that are in no part. */
  unplaced: Slide[];
}

/** Returns the metadata of a part: the deck's, with only the files and themes that its slides need. */
export function metadataFor(metadata: Omit<Deck, "slides">, slides: readonly Slide[]): Omit<Deck, "slides" | "id"> {
  const { manuscript: _, original: __, themes, masters: ____, styles: _____, assets, id: ___, ...rest } = metadata;
  const ofLayouts = Object.values(metadata.layouts ?? {}).flatMap(({ master }) => metadata.masters?.[master] ?? []);
  const pictures = new Set([...slides.flatMap((slide) => filesOf(slide, metadata)), ...ofLayouts.flatMap(picturesOn)]);
  const looks = new Set(slides.flatMap(({ theme }) => (theme ? [theme] : [])));
  const kept = Object.entries(themes ?? {}).filter(([name]) => looks.has(name));
  return {
    ...rest,
    assets: Object.fromEntries(Object.entries(assets).filter(([name]) => pictures.has(name))),
    ...(kept.length ? { themes: Object.fromEntries(kept) } : {}),
    ...sharedItemsOf(slides, metadata),
  };
}

/** A part with its copied slides; `from` are the slides that they were copied from. */
interface MadePart {
  id: string;
  name: string;
  from: readonly Slide[];
  slides: Slide[];
}

/** Follows links across the parts of a split. */
class SplitLinks {
  /** The copies of each slide: at most one for each part. */
  readonly places = new Map<string, { part: number; slide: string }[]>();
  readonly accounts: Account[] = [];
  private readonly numbers: ReadonlyMap<string, number>;
  private readonly reported = new Set<string>();

  constructor(
    private readonly deck: Deck,
    private readonly parts: readonly MadePart[],
  ) {
    this.numbers = new Map(deck.slides.map(({ id }, nth) => [id, nth + 1]));
    parts.forEach(({ from, slides }, part) => {
      from.forEach(({ id }, nth) => {
        const list = this.places.get(id) ?? [];
        if (list.at(-1)?.part !== part) list.push({ part, slide: must(slides[nth]).id });
        this.places.set(id, list);
      });
    });
  }

  /** Returns a copied slide with links that follow their slides: inside the part, or into the nearest part. */
  followed(copy: Slide, from: Slide, part: number): Slide {
    let nth = 0;
    return mapSlideLinks(copy, (to, words) => {
      const old = slideLink(to);
      nth += 1;
      if (old === undefined || !this.numbers.has(old)) return to;
      const all = this.places.get(old) ?? [];
      const own = all.find((place) => place.part === part);
      if (own) return `slide:${own.slide}`;
      const nearest = all.reduce<(typeof all)[number] | undefined>(
        (best, place) => (best && Math.abs(best.part - part) <= Math.abs(place.part - part) ? best : place),
        undefined,
      );
      if (nearest) return `deck:${this.parts[nearest.part]?.id}/${nearest.slide}`;
      this.reportBroken(from, old, words, nth);
      return to;
    });
  }

  /** Reports a link to a slide in no part, once for a slide that is in several parts. */
  private reportBroken(slide: Slide, old: string, words: string, nth: number): void {
    const key = `${slide.id}/${nth}`;
    if (this.reported.has(key)) return;
    this.reported.add(key);
    this.accounts.push({
      kind: "link",
      deck: this.deck.id,
      slide: slide.id,
      what: `the link “${words}”`,
      why: `slide ${this.numbers.get(old)}, to which it leads, is in no part; its words stay and the link can be mended`,
      left: false,
    });
  }
}

/**
 * Makes a deck of each part; the given deck is not altered. A link to a slide follows it: inside the part, or else into
 * the nearest part before or after that has the slide. A link to a slide in no part stays as it is and is listed in the
 * accounts. `deckId` names the new decks, `newId` slides and elements.
 */
export function split(
  { deck, version }: Versioned,
  parts: readonly ResolvedPart[],
  { newId, deckId }: { newId: () => string; deckId: () => string },
): SplitResult {
  const made = parts.map(({ name, slides }): MadePart => {
    const id = deckId();
    return { id, name, from: slides, slides: copySlide(deck, version, slides, newId) };
  });
  const links = new SplitLinks(deck, made);
  const decks = made.map(({ id, name, from, slides }, part): Deck => {
    const own = slides.map((slide, nth) => links.followed(slide, must(from[nth]), part));
    return { ...metadataFor(metadataOf(deck), own), id, properties: { ...deck.properties, title: name }, slides: own };
  });
  const unplaced = deck.slides.filter(({ id }) => !links.places.has(id));
  const left = unplaced.map(
    (slide): Account => ({
      kind: "slide",
      deck: deck.id,
      slide: slide.id,
      what: `slide ${deck.slides.indexOf(slide) + 1}, “${nameOf(slide)}”`,
      why: "the plan puts it into no part",
      left: true,
    }),
  );
  return { parts: decks, accounts: [...links.accounts, ...left], unplaced };
}

/**
 * Lists the parts as a message to send: a line each, with its slides, its time and, where `address` gives one, its
 * link.
 */
export function contentsNote(
  title: string,
  parts: readonly { name: string; slides: number; seconds: number; address?: string }[],
): string {
  return [
    title,
    "",
    ...parts.map(
      ({ name, slides, seconds, address }, nth) =>
        `${nth + 1}. ${name} – ${slides} ${slides === 1 ? "slide" : "slides"}, ${clock(seconds)}${address ? ` – ${address}` : ""}`,
    ),
  ].join("\n");
}
