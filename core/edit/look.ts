import {
  type ArrangementName,
  type Deck,
  emptyDeck,
  inFileLayout,
  isInFileLayout,
  layoutsOf,
  must,
  picturesOn,
  sharedItemsOf,
  type Slide,
  withoutOwnAppearance,
} from "@unitext/core/model";
import type { SingleChange } from "./change";
import { rearrange } from "./acts";
import { apply } from "./apply";
import { putTheme } from "./theme";

/**
 * Returns the changes that give a deck the look of another one: its theme, and where its slides come from a file, the
 * layouts of that file, in which this deck's slides are then made. Slides of a file keep theirs unless `restyled`.
 */
export function putLook(deck: Deck, other: Deck, restyled: boolean): SingleChange[] {
  const found = other.layouts ? { layouts: other.layouts, styles: {} } : layoutsOf(other);
  const layouts = found?.layouts;
  const shown = found ? { ...other, layouts: found.layouts, styles: { ...other.styles, ...found.styles } } : other;
  const { masters = {}, styles = {} } = sharedItemsOf([], shown);
  const files = new Set(Object.values(masters).flatMap(picturesOn));
  const { lines: _, ...theme } = other.theme;
  return [
    ...[...files].flatMap((name): SingleChange[] => {
      const asset = other.assets[name];
      return asset && deck.assets[name]?.sha256 !== asset.sha256 ? [{ kind: "setAsset", name, asset }] : [];
    }),
    ...Object.entries(masters).flatMap(([name, master]): SingleChange[] =>
      deck.masters?.[name] ? [] : [{ kind: "setMaster", name, master }],
    ),
    ...Object.entries(styles).flatMap(([name, style]): SingleChange[] =>
      deck.styles?.[name] ? [] : [{ kind: "setTextStyle", name, style }],
    ),
    ...putTheme(deck, theme),
    ...(layouts || deck.layouts ? [{ kind: "setLayouts" as const, layouts: layouts ?? null }] : []),
    ...slidesIn(deck, layouts, theme, restyled),
  ];
}

/** Returns the changes that give a slide another arrangement; one that was made in a layout takes that of the arrangement. */
export function rearrangeIn(deck: Deck, slide: Slide, arrangement: ArrangementName): SingleChange[] {
  const change = rearrange(slide, arrangement);
  if (!deck.layouts || !isInFileLayout(slide)) return [change];
  const alone = { ...emptyDeck("layout", ""), slides: [{ ...slide, parent: null }] };
  const next = must(apply(alone, change).deck.slides[0]);
  const as = inFileLayout(withoutOwnAppearance(next, deck.theme), deck.layouts);
  return [change, { kind: "setSlide", slide: slide.id, as: { ...as, parent: slide.parent } }];
}

/** Returns the changes that put the slides of a deck into layouts, or take them out of layouts. */
function slidesIn(deck: Deck, layouts: Deck["layouts"], theme: Deck["theme"], restyled: boolean): SingleChange[] {
  const before = new Set(Object.values(deck.layouts ?? {}).map(({ master }) => master));
  const isMade = (slide: Slide) => isInFileLayout(slide) && before.has(slide.master ?? "");
  return deck.slides.flatMap((slide): SingleChange[] => {
    const plain = isMade(slide) || restyled ? withoutOwnAppearance(slide, theme) : slide;
    const as = inFileLayout(plain, layouts);
    return as === slide ? [] : [{ kind: "setSlide", slide: slide.id, as }];
  });
}
