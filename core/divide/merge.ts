import { contentKey } from "@unitext/core/diff";
import { type Change, insertAt, type Place, PageResizer, type SingleChange, batch } from "@unitext/core/edit";
import {
  type Deck,
  deckLink,
  Failure,
  metadataOf,
  withoutOwnAppearance,
  nameOf,
  newSlide,
  type Page,
  pageName,
  picturesOn,
  plainText,
  run,
  sharedItemsOf,
  type Slide,
  slideLink,
  textHash,
  type Theme,
  themeOf,
  must,
} from "@unitext/core/model";
import type { Account } from "@unitext/core/tally";
import { copySlide, mapSlideLinks } from "./carry";
import type { Versioned } from "./split";
import { Files, AppearanceRegistry } from "./mergedfiles";

/** A deck to merge: all of its slides, or those chosen by id, in the given order. */
export interface MergeSource extends Versioned {
  slides?: readonly string[];
}

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

/** Returns a string that is equal for slides with the same words and the same pictures, compared by their bytes. */
export function contentFingerprint(slide: Slide, assets: Deck["assets"]): string {
  const files = picturesOn(slide).map((name) => assets[name]?.sha256 ?? name);
  return textHash(
    `${contentKey({ ...slide, notes: [], elements: slide.elements.map((element) => (element.kind === "picture" ? { ...element, source: assets[element.source]?.sha256 ?? element.source } : element)) })} ${files.join()}`,
  );
}

/** Lists groups of two or more slides with the same words and pictures. */
export function duplicates(
  gathered: readonly MergeSource[],
): { deck: string; slide: string; number: number; name: string }[][] {
  const groups = new Map<string, { deck: string; slide: string; number: number; name: string }[]>();
  for (const { deck, slides } of gathered) {
    const chosen = slides ? new Set(slides) : undefined;
    deck.slides.forEach((slide, nth) => {
      if (chosen && !chosen.has(slide.id)) return;
      if (slide.elements.length === 0) return;
      const key = contentFingerprint(slide, deck.assets);
      groups.set(key, [
        ...(groups.get(key) ?? []),
        { deck: deck.id, slide: slide.id, number: nth + 1, name: nameOf(slide) },
      ]);
    });
  }
  return [...groups.values()].filter((group) => group.length > 1);
}

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
    ...(placed ? [`the places and letters of ${placed === 1 ? "one text" : `${placed} texts`}`] : []),
  ];
}

const samePage = (a: Page, b: Page) => a.width === b.width && a.height === b.height;

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
  const accounts: Account[] = [];
  const files = new Files(place.assets);
  const looks = new AppearanceRegistry(place.theme, place.themes ?? {});
  const seenOpenings = new Map<string, string>();
  const places = new Map<string, string>();
  const known = new Set<string>();
  /** Links to a slide that was left out as a duplicate lead to the slide that it duplicates. */
  const instead = new Map<string, string>();
  const copyOf = new Map<string, string>();
  const refits: PageResizer[] = [];
  for (const group of options.drop?.size ? duplicates(gathered) : []) {
    const stays = group.find(({ deck, slide }) => !options.drop?.has(keyOf(deck, slide)));
    if (stays) for (const { deck, slide } of group) copyOf.set(keyOf(deck, slide), keyOf(stays.deck, stays.slide));
  }
  const blocks = gathered.map(({ deck, version, slides }) => {
    if (known.has(deck.id))
      throw new Failure(
        "not-valid",
        deck.properties.title || deck.id,
        "This deck is in the list twice. Take one of them out, or choose other slides of it in one row.",
      );
    known.add(deck.id);
    const byId = new Map(deck.slides.map((slide, nth) => [slide.id, { slide, number: nth + 1 }]));
    const chosen = slides
      ? slides.map((id) => {
          const found = byId.get(id);
          if (!found)
            throw new Failure(
              "conflict",
              deck.properties.title || deck.id,
              `A slide that was chosen is no longer in “${deck.properties.title}”. Choose its slides again.`,
            );
          return found.slide;
        })
      : deck.slides;
    const wanted = new Set(chosen);
    for (const slide of deck.slides)
      if (!wanted.has(slide))
        accounts.push({
          kind: "slide",
          deck: deck.id,
          slide: slide.id,
          what: `slide ${byId.get(slide.id)?.number}, “${nameOf(slide)}”, of “${deck.properties.title}”`,
          why: "it was not chosen",
          left: true,
        });
    const taken = chosen.filter((slide, nth) => {
      const key = keyOf(deck.id, slide.id);
      const leave = (why: string, stays: string | undefined) => {
        if (stays) instead.set(key, stays);
        accounts.push({
          kind: "slide",
          deck: deck.id,
          slide: slide.id,
          what: `slide ${byId.get(slide.id)?.number}, “${nameOf(slide)}”, of “${deck.properties.title}”`,
          why,
          left: true,
        });
        return false;
      };
      if (options.drop?.has(key)) return leave("it says the same as another slide and was dropped", copyOf.get(key));
      if (nth > 0 || !options.openingsOnce || slide.id !== deck.slides[0]?.id) return true;
      const likeness = contentFingerprint(slide, deck.assets);
      const before = seenOpenings.get(likeness);
      if (before) return leave("the same opening stands already", before);
      seenOpenings.set(likeness, key);
      return true;
    });
    const refit = samePage(deck.page, place.page) ? undefined : new PageResizer(deck.page, place.page, deck);
    const made = copySlide(deck, version, taken, newId).map((carried) => {
      const slide = refit?.slide(carried) ?? carried;
      const from = carried.origin?.slide ?? "";
      if (slide !== carried)
        accounts.push({
          kind: "slide",
          deck: deck.id,
          slide: from,
          what: `slide ${byId.get(from)?.number}, “${nameOf(slide)}”, of “${deck.properties.title}”`,
          why: `its page was ${pageName(deck.page)}; what stands freely on it was fitted to ${pageName(place.page)}`,
          left: false,
        });
      const keeps = options.appearance === "keep" || deck.id === options.appearanceOf;
      const dropped = keeps ? [] : droppedAppearance(slide, deck);
      if (dropped.length)
        accounts.push({
          kind: "slide",
          deck: deck.id,
          slide: from,
          what: `slide ${byId.get(from)?.number}, “${nameOf(slide)}”, of “${deck.properties.title}”`,
          why: `it takes the theme of the target, without ${listed(dropped)} of its own`,
          left: false,
        });
      const own = files.on(keeps ? slide : withoutOwnAppearance(slide), deck);
      const look = options.appearance === "keep" ? looks.take(themeOf(slide, deck)) : undefined;
      const { theme: _, ...plain } = own;
      return look === undefined ? plain : { ...plain, theme: look };
    });
    taken.forEach(({ id }, nth) => {
      const key = keyOf(deck.id, id);
      if (!places.has(key)) places.set(key, must(made[nth]).id);
    });
    if (refit) refits.push(refit);
    const opener: Slide | undefined =
      options.sections && made.length
        ? {
            ...newSlide(newId(), "section"),
            elements: [
              { kind: "text", id: newId(), slot: "title", text: plainText(deck.properties.title || "Untitled") },
            ],
          }
        : undefined;
    return { deck, from: taken, slides: made, opener, numbers: byId };
  });
  const whereIs = (key: string): string | undefined =>
    places.get(key) ?? (instead.has(key) ? places.get(must(instead.get(key))) : undefined);
  const joined = blocks.flatMap(({ deck, from, slides, opener, numbers }) => [
    ...(opener ? [opener] : []),
    ...slides.map((slide, nth) =>
      mapSlideLinks(slide, (to, words) => {
        const inside = slideLink(to);
        const other = deckLink(to);
        const key = inside !== undefined ? keyOf(deck.id, inside) : other ? keyOf(other.deck, other.slide) : undefined;
        const at = key === undefined ? undefined : whereIs(key);
        const source = must(from[nth]).id;
        if (at !== undefined) {
          if (key !== undefined && instead.has(key))
            accounts.push({
              kind: "link",
              deck: deck.id,
              slide: source,
              what: `the link “${words}”`,
              why: "it leads to the slide that says the same",
              left: false,
            });
          return `slide:${at}`;
        }
        if (inside === undefined || !numbers.has(inside)) return to;
        // The slide was not taken: the link keeps leading to it in its own deck.
        return `deck:${deck.id}/${inside}`;
      }),
    ),
  ]);
  const filled = blocks.filter(({ slides }) => slides.length);
  const contents: Slide[] =
    options.contents && filled.length
      ? [
          {
            ...newSlide(newId(), "points"),
            elements: [
              { kind: "text", id: newId(), slot: "title", text: plainText("Contents") },
              {
                kind: "text",
                id: newId(),
                slot: "body",
                text: filled.map(({ deck, slides, opener }) => ({
                  kind: "bullet" as const,
                  level: 0,
                  runs: [run(deck.properties.title || "Untitled", [], `slide:${(opener ?? slides[0])?.id}`)],
                })),
              },
            ],
          },
        ]
      : [];
  const used = new Set([...contents, ...joined].flatMap(({ theme }) => (theme ? [theme] : [])));
  const added = Object.fromEntries(Object.entries(looks.added).filter(([name]) => used.has(name)));
  const masters = Object.assign(
    {},
    ...gathered.map(({ deck }) => deck.masters ?? {}),
    ...refits.map(({ shared }) => shared.masters),
  );
  const styles = Object.assign(
    {},
    ...gathered.map(({ deck }) => deck.styles ?? {}),
    ...refits.map(({ shared }) => shared.styles),
  );
  return {
    slides: [...contents, ...joined],
    assets: files.assets,
    themes: added,
    shared: sharedItemsOf(joined, { masters, styles }),
    accounts,
    files: files.sources,
  };
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
