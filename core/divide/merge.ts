import { type Change, insertAt, type Place, PageResizer, type SingleChange, batch } from "@unitext/core/edit";
import {
  type Deck,
  deckLink,
  Failure,
  metadataOf,
  hasPositioned,
  withoutOwnAppearance,
  nameOf,
  newSlide,
  type Page,
  pageName,
  plainText,
  run,
  sharedItemsOf,
  type Slide,
  slideLink,
  type Theme,
  themeOf,
  must,
} from "@unitext/core/model";
import type { Account } from "@unitext/core/tally";
import { copySlide, mapSlideLinks } from "./carry";
import { contentFingerprint, duplicates, type MergeSource } from "./duplicates";
import { Files, AppearanceRegistry } from "./mergedfiles";

/** Options of a merge. */
export interface MergeOptions {
  /** `match`: the slides take the theme of the target; `keep`: their theme is imported with them. */
  appearance: "match" | "keep";
  /** Whether a section opener with the deck's title comes before the slides of each deck. */
  sections?: boolean;
  /** Whether a slide with links to the start of each deck comes first. */
  contents?: boolean;
  /** Whether a first slide that equals an earlier one is left out. */
  openingsOnce?: boolean;
  /** Slides to be left out as copies of others, as `deck/slide`. */
  drop?: ReadonlySet<string>;
  /** The deck whose appearance the target has: its slides keep all of it. */
  appearanceOf?: string;
}

export interface MergeResult {
  slides: Slide[];
  assets: Deck["assets"];
  themes: Record<string, Theme>;
  /** The masters and text styles that the slides need. */
  shared: Pick<Deck, "masters" | "styles">;
  accounts: Account[];
  /** For each picture file that a slide names, the deck that it comes from. */
  files: { sha256: string; deck: string }[];
}

const keyOf = (deck: string, slide: string) => `${deck}/${slide}`;

const listed = (names: readonly string[]) =>
  names.length > 1 ? `${names.slice(0, -1).join(", ")} and ${names.at(-1)}` : (names[0] ?? "");

/** Lists what a slide loses of its own appearance when it takes another theme, so that it can be reported. */
function droppedAppearance(slide: Slide, deck: Deck): string[] {
  if (slide.master === undefined) return [];
  const master = deck.masters?.[slide.master];
  const placed = slide.elements.filter(
    ({ slot, frame, style, box }) => slot !== null && (frame ?? style ?? box) !== undefined,
  ).length;
  return [
    ...(slide.background && !("picture" in slide.background)
      ? ["the background"]
      : master?.background && !slide.background
        ? ["the background of its layout"]
        : []),
    ...(master?.elements.length
      ? [`${master.elements.length === 1 ? "one drawing" : `${master.elements.length} drawings`} of its layout`]
      : []),
    ...(slide.regions?.length ? ["the places of footer, date and number"] : []),
    ...(placed
      ? [
          `the ${hasPositioned(slide) ? "letters" : "places and letters"} of ${placed === 1 ? "one text" : `${placed} texts`}`,
        ]
      : []),
  ];
}

const samePage = (a: Page, b: Page) => a.width === b.width && a.height === b.height;

/** The slides that one deck gives to a merge. */
interface MergedDeck {
  deck: Deck;
  /** The slides as they are in their deck, and their copies. */
  from: readonly Slide[];
  slides: Slide[];
  /** The slide that opens the deck's section, where sections are wanted. */
  opener: Slide | undefined;
}

const deckName = (deck: Deck) => deck.properties.title;

class Merge {
  private readonly accounts: Account[] = [];
  private readonly files: Files;
  private readonly themes: AppearanceRegistry;
  /** The first slide with each opening, by its fingerprint. */
  private readonly openings = new Map<string, string>();
  /** The new ids of slides, by deck and slide. */
  private readonly places = new Map<string, string>();
  /** The slides that replace duplicates that were left out. */
  private readonly instead = new Map<string, string>();
  /** The slides that stay, by the duplicates that are dropped. */
  private readonly copyOf = new Map<string, string>();
  private readonly resizers: PageResizer[] = [];

  constructor(
    private readonly place: Pick<Deck, "theme" | "themes" | "assets" | "page">,
    private readonly gathered: readonly MergeSource[],
    private readonly options: MergeOptions,
    private readonly newId: () => string,
  ) {
    this.files = new Files(place.assets);
    this.themes = new AppearanceRegistry(place.theme, place.themes ?? {});
    for (const group of options.drop?.size ? duplicates(gathered) : []) {
      const stays = group.find(({ deck, slide }) => !options.drop?.has(keyOf(deck, slide)));
      if (stays)
        for (const { deck, slide } of group) this.copyOf.set(keyOf(deck, slide), keyOf(stays.deck, stays.slide));
    }
  }

  result(): MergeResult {
    const ids = new Set<string>();
    const decks = this.gathered.map((source) => {
      if (ids.has(source.deck.id))
        throw new Failure(
          "not-valid",
          deckName(source.deck) || source.deck.id,
          "This deck is in the list twice. Take one of them out, or choose other slides of it in one row.",
        );
      ids.add(source.deck.id);
      return this.copied(source);
    });
    const joined = decks.flatMap((one) => [...(one.opener ? [one.opener] : []), ...this.linked(one)]);
    const slides = [...this.contents(decks), ...joined];
    const used = new Set(slides.flatMap(({ theme }) => (theme ? [theme] : [])));
    const shared = (name: "masters" | "styles") =>
      Object.assign(
        {},
        ...this.gathered.map(({ deck }) => deck[name] ?? {}),
        ...this.resizers.map((resizer) => resizer.shared[name]),
      );
    return {
      slides,
      assets: this.files.assets,
      themes: Object.fromEntries(Object.entries(this.themes.added).filter(([name]) => used.has(name))),
      shared: sharedItemsOf(joined, { masters: shared("masters"), styles: shared("styles") }),
      accounts: this.accounts,
      files: this.files.sources,
    };
  }

  private account(deck: Deck, slide: Pick<Slide, "id">, why: string, left: boolean): void {
    const nth = deck.slides.findIndex(({ id }) => id === slide.id);
    const found = must(deck.slides[nth]);
    this.accounts.push({
      kind: "slide",
      deck: deck.id,
      slide: slide.id,
      what: `slide ${nth + 1}, “${nameOf(found)}”, of “${deckName(deck)}”`,
      why,
      left,
    });
  }

  /** Copies the slides of a deck that are chosen and not dropped. */
  private copied({ deck, version, slides }: MergeSource): MergedDeck {
    const chosen = slides ? chosenSlides(deck, slides) : deck.slides;
    const wanted = new Set(chosen);
    for (const slide of deck.slides) if (!wanted.has(slide)) this.account(deck, slide, "it was not chosen", true);
    const from = chosen.filter((slide, nth) => this.isTaken(deck, slide, nth));
    const resizer = samePage(deck.page, this.place.page)
      ? undefined
      : new PageResizer(deck.page, this.place.page, deck);
    if (resizer) this.resizers.push(resizer);
    const copies = copySlide(deck, version, from, this.newId).map((slide, nth) =>
      this.adapted(deck, must(from[nth]), slide, resizer),
    );
    from.forEach(({ id }, nth) => {
      const key = keyOf(deck.id, id);
      if (!this.places.has(key)) this.places.set(key, must(copies[nth]).id);
    });
    const opener = this.options.sections && copies.length ? this.opener(deck) : undefined;
    return { deck, from, slides: copies, opener };
  }

  /** Whether a chosen slide is taken; one that is dropped or repeats an opening is not. */
  private isTaken(deck: Deck, slide: Slide, nth: number): boolean {
    const key = keyOf(deck.id, slide.id);
    const leave = (why: string, stays: string | undefined) => {
      if (stays) this.instead.set(key, stays);
      this.account(deck, slide, why, true);
      return false;
    };
    if (this.options.drop?.has(key))
      return leave("it says the same as another slide and was dropped", this.copyOf.get(key));
    if (nth > 0 || !this.options.openingsOnce || slide.id !== deck.slides[0]?.id) return true;
    const fingerprint = contentFingerprint(slide, deck.assets);
    const before = this.openings.get(fingerprint);
    if (before) return leave("another deck has the same opening", before);
    this.openings.set(fingerprint, key);
    return true;
  }

  /** Returns a copied slide on the target's page, in the appearance that is asked for, with its files. */
  private adapted(deck: Deck, from: Slide, copy: Slide, resizer: PageResizer | undefined): Slide {
    const { appearance, appearanceOf } = this.options;
    const slide = resizer?.slide(copy) ?? copy;
    if (slide !== copy)
      this.account(
        deck,
        from,
        `its page was ${pageName(deck.page)}; positioned elements were scaled to ${pageName(this.place.page)}`,
        false,
      );
    const keeps = appearance === "keep" || deck.id === appearanceOf;
    const dropped = keeps ? [] : droppedAppearance(slide, deck);
    if (dropped.length)
      this.account(deck, from, `it takes the theme of the target, without ${listed(dropped)} of its own`, false);
    const { theme: _, ...plain } = this.files.on(keeps ? slide : withoutOwnAppearance(slide, this.place.theme), deck);
    const theme = appearance === "keep" ? this.themes.take(themeOf(slide, deck)) : undefined;
    return theme === undefined ? plain : { ...plain, theme };
  }

  private opener(deck: Deck): Slide {
    const title = plainText(deckName(deck) || "Untitled");
    return {
      ...newSlide(this.newId(), "section"),
      elements: [{ kind: "text", id: this.newId(), slot: "title", text: title }],
    };
  }

  /** Returns the slides of a deck with links that follow the slides that they lead to. */
  private linked({ deck, from, slides }: MergedDeck): Slide[] {
    const ids = new Set(deck.slides.map(({ id }) => id));
    return slides.map((slide, nth) =>
      mapSlideLinks(slide, (to, words) => {
        const inside = slideLink(to);
        const other = deckLink(to);
        const key = inside !== undefined ? keyOf(deck.id, inside) : other ? keyOf(other.deck, other.slide) : undefined;
        const kept = key === undefined ? undefined : this.instead.get(key);
        const at = key === undefined ? undefined : (this.places.get(key) ?? this.places.get(kept ?? ""));
        if (at === undefined)
          // A slide that was not taken is led to in its own deck.
          return inside !== undefined && ids.has(inside) ? `deck:${deck.id}/${inside}` : to;
        if (kept !== undefined)
          this.accounts.push({
            kind: "link",
            deck: deck.id,
            slide: must(from[nth]).id,
            what: `the link “${words}”`,
            why: "it leads to the slide that says the same",
            left: false,
          });
        return `slide:${at}`;
      }),
    );
  }

  /** Returns a slide that lists the decks with links, where contents are wanted. */
  private contents(decks: readonly MergedDeck[]): Slide[] {
    const filled = decks.filter(({ slides }) => slides.length);
    if (!this.options.contents || !filled.length) return [];
    const list = filled.map(({ deck, slides, opener }) => ({
      kind: "bullet" as const,
      level: 0,
      runs: [run(deckName(deck) || "Untitled", [], `slide:${(opener ?? slides[0])?.id}`)],
    }));
    return [
      {
        ...newSlide(this.newId(), "points"),
        elements: [
          { kind: "text", id: this.newId(), slot: "title", text: plainText("Contents") },
          { kind: "text", id: this.newId(), slot: "body", text: list },
        ],
      },
    ];
  }
}

/** Returns the slides of a deck with the ids given. Throws a Failure when one is not there. */
function chosenSlides(deck: Deck, ids: readonly string[]): Slide[] {
  const byId = new Map(deck.slides.map((slide) => [slide.id, slide]));
  return ids.map((id) => {
    const found = byId.get(id);
    if (found) return found;
    throw new Failure(
      "conflict",
      deckName(deck) || deck.id,
      `A slide that was chosen is no longer in “${deckName(deck)}”. Choose its slides again.`,
    );
  });
}

/**
 * Copies the slides of several decks, in order, into one place: with new ids and their origin, files and themes under
 * free names, positioned elements fitted to the target's page, and links following their slides from deck to deck. The
 * given decks are not altered. Throws a Failure `not-valid` for a deck that is named twice or a slide that it does not
 * have.
 */
export function mergeParts(
  place: Pick<Deck, "theme" | "themes" | "assets" | "page">,
  gathered: readonly MergeSource[],
  options: MergeOptions,
  newId: () => string,
): MergeResult {
  return new Merge(place, gathered, options, newId).result();
}

/** Merges decks into a new one with the metadata of the first. Throws as `mergeParts` does, and for an empty list. */
export function merge(
  gathered: readonly MergeSource[],
  options: MergeOptions & { title?: string },
  { newId, deckId }: { newId: () => string; deckId: () => string },
): { deck: Deck } & Pick<MergeResult, "accounts" | "files"> {
  const [first] = gathered;
  if (!first) throw new Failure("not-valid", "decks", "There is no deck to merge.");
  const {
    manuscript: _,
    original: __,
    themes: ___,
    masters: ____,
    styles: _____,
    layouts: ______,
    ...metadata
  } = metadataOf(first.deck);
  const { slides, assets, themes, shared, accounts, files } = mergeParts(
    { ...metadata, assets: {} },
    gathered,
    { ...options, appearanceOf: first.deck.id },
    newId,
  );
  if (!slides.length) throw new Failure("not-valid", "slides", "No slide was chosen; there is nothing to merge.");
  const deck: Deck = {
    ...metadata,
    id: deckId(),
    properties: { ...metadata.properties, title: options.title?.trim() || `${metadata.properties.title} and others` },
    assets,
    ...(Object.keys(themes).length ? { themes } : {}),
    ...shared,
    slides,
  };
  return { deck, accounts, files };
}

/** Returns the change that inserts slides of other decks into a deck at a place. Throws as `mergeParts` does. */
export function mergeInto(
  deck: Deck,
  place: Place,
  gathered: readonly MergeSource[],
  options: MergeOptions,
  newId: () => string,
): { change: Change } & Pick<MergeResult, "slides" | "accounts" | "files"> {
  const { slides, assets, themes, shared, accounts, files } = mergeParts(deck, gathered, options, newId);
  if (!slides.length) throw new Failure("not-valid", "slides", "No slide was chosen; there is nothing to bring in.");
  const changes: SingleChange[] = [];
  for (const [name, asset] of Object.entries(assets))
    if (deck.assets[name]?.sha256 !== asset.sha256) changes.push({ kind: "setAsset", name, asset });
  for (const [name, theme] of Object.entries(themes)) changes.push({ kind: "setImportedTheme", name, theme });
  for (const [name, master] of Object.entries(shared.masters ?? {}))
    if (!deck.masters?.[name]) changes.push({ kind: "setMaster", name, master });
  for (const [name, style] of Object.entries(shared.styles ?? {}))
    if (!deck.styles?.[name]) changes.push({ kind: "setTextStyle", name, style });
  const inserted = insertAt(slides, place);
  return {
    change: batch([...changes, ...(inserted.kind === "batch" ? inserted.changes : [inserted])]),
    slides,
    accounts,
    files,
  };
}
