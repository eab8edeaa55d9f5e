import { type Deck, type Slide, filesOf, renamePictures, type Theme, must, cutText } from "@unitext/core/model";

/** Collects the files of several decks: one name for each file, and a new name where two files have the same. */
export class Files {
  readonly assets: Deck["assets"];
  readonly sources: { sha256: string; deck: string }[] = [];
  constructor(there: Deck["assets"]) {
    this.assets = { ...there };
  }
  /** Returns the new name of a deck's file. A name without a file stays. */
  take(name: string, deck: Deck): string {
    const asset = deck.assets[name];
    if (!asset) return name;
    const dot = name.lastIndexOf(".");
    const [stem, ending] = dot > 0 ? [name.slice(0, dot), name.slice(dot)] : [name, ""];
    let free = name;
    for (let nth = 2; this.assets[free] && this.assets[free]?.sha256 !== asset.sha256; nth++)
      free = `${stem}-${nth}${ending}`;
    if (!this.assets[free]) this.sources.push({ sha256: asset.sha256, deck: deck.id });
    this.assets[free] = asset;
    return free;
  }
  on(slide: Slide, deck: Deck): Slide {
    const names = filesOf(slide, deck);
    if (!names.length) return slide;
    // Files of masters and source packages are named by their content, so the name is the same everywhere.
    for (const name of names) this.take(name, deck);
    return renamePictures(slide, (name) => this.take(name, deck));
  }
}

/** Imports themes under names of their own; equal themes share a name. */
export class AppearanceRegistry {
  readonly themes: Record<string, Theme>;
  readonly added: Record<string, Theme> = {};
  constructor(
    private readonly place: Theme,
    there: Record<string, Theme>,
  ) {
    this.themes = { ...there };
  }
  /** Returns the name of a theme in the target; undefined for the target's own. */
  take(theme: Theme): string | undefined {
    const same = (other: Theme) => JSON.stringify(other) === JSON.stringify(theme);
    if (same(this.place)) return undefined;
    let name = theme.name;
    for (let nth = 2; this.themes[name] && !same(must(this.themes[name])); nth++)
      name = `${cutText(theme.name, 70)} ${nth}`;
    if (!this.themes[name]) this.themes[name] = this.added[name] = theme;
    return name;
  }
}
