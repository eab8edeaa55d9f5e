import type { MergeSource } from "@unitext/core/divide";
import {
  type Deck,
  type DeckMetadata,
  metadataOf,
  type Slide,
  type Theme,
  withoutOwnAppearance,
} from "@unitext/core/model";
import { useEffect, useMemo, useState } from "react";
import { core } from "../worker";

/** A slide in its own look, and in the theme of the merge. */
export interface LookPair {
  deck: Deck;
  number: number;
  keep: Slide;
  match: Slide;
  /** The metadata with which each is drawn. */
  metadata: { keep: DeckMetadata; match: DeckMetadata };
  /** By how many points its text overflows in the theme of the merge. */
  overflow: number;
}

/** How many pairs are shown, and how many slides of a list are laid out to find them. */
const SHOWN = 3;
const MEASURED = 40;

/** Returns how much of its look a slide would lose: what its master draws, and what its elements have of their own. */
function lossOf(slide: Slide, { masters }: Deck): number {
  const drawn = slide.master === undefined ? 0 : 1 + (masters?.[slide.master]?.elements.length ?? 0);
  const own = slide.elements.filter(({ frame, fill, stroke }) => frame || fill || stroke).length;
  return drawn * 2 + own + (slide.background ? 2 : 0);
}

function pairsOf(gathered: readonly MergeSource[], theme: Theme): LookPair[] {
  const wanted = JSON.stringify(theme);
  return gathered
    .flatMap(({ deck, slides }) => {
      const chosen = slides && new Set(slides);
      const isSame = JSON.stringify(deck.theme) === wanted;
      const own = metadataOf(deck);
      const metadata = { keep: own, match: { ...own, theme } };
      return deck.slides.flatMap((slide, at) =>
        (chosen && !chosen.has(slide.id)) || (isSame && slide.master === undefined)
          ? []
          : [
              {
                deck,
                number: at + 1,
                // A slide that is drawn in two looks counts as two for the drawing.
                keep: { ...slide },
                match: { ...withoutOwnAppearance(slide, theme) },
                metadata,
                overflow: 0,
                loss: lossOf(slide, deck),
              },
            ],
      );
    })
    .sort((a, b) => b.loss - a.loss);
}

/**
 * Returns the slides that a merge changes most, in both looks: those whose text overflows in the theme of the merge, then
 * those that lose most of their own. `changed` counts all slides that look different.
 */
export function useLookPreview(
  gathered: readonly MergeSource[] | undefined,
  theme: Theme | undefined,
): { pairs: LookPair[]; changed: number; overflowing: number } {
  const place = theme ?? gathered?.[0]?.deck.theme;
  const all = useMemo(() => (gathered && place ? pairsOf(gathered, place) : []), [gathered, place]);
  const [measured, setMeasured] = useState<{ of: readonly LookPair[]; pairs: LookPair[] }>();
  useEffect(() => {
    let isOver = false;
    const measure = async () => {
      const pairs: LookPair[] = [];
      for (const pair of all.slice(0, MEASURED)) {
        const [found] = await core.measure(pair.metadata.match, [pair.match]);
        if (isOver) return;
        pairs.push({ ...pair, overflow: found?.overflow ?? 0 });
      }
      setMeasured({ of: all, pairs: pairs.sort((a, b) => b.overflow - a.overflow) });
    };
    void measure().catch(() => undefined);
    return () => {
      isOver = true;
    };
  }, [all]);
  const pairs = measured?.of === all ? measured.pairs : all;
  return {
    pairs: pairs.slice(0, SHOWN),
    changed: all.length,
    overflowing: pairs.filter(({ overflow }) => overflow > 0).length,
  };
}
