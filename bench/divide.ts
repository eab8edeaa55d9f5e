import { compareDecks } from "@unitext/core/diff";
import { byMinutes, merge, resolvePlan, split, tailorDeck } from "@unitext/core/divide";
import { apply, type Change } from "@unitext/core/edit";
import { layoutSlide } from "@unitext/core/layout";
import { type Deck, metadataOf, plainText, run, must } from "@unitext/core/model";
import { freshFonts, type Row, row } from "./core";
import { deckOf } from "./material";

const ids = (prefix: string) => {
  let next = 0;
  return () => `${prefix}${next++}`;
};

/** Returns the least time of several runs of each side, taken in turn so that both meet the same conditions. */
function least(acts: readonly (() => unknown)[], runs = 7): number[] {
  const best = acts.map(() => Number.POSITIVE_INFINITY);
  for (let nth = 0; nth < runs; nth++) {
    acts.forEach((act, at) => {
      const begin = performance.now();
      act();
      best[at] = Math.min(must(best[at]), performance.now() - begin);
    });
  }
  return best;
}

/** Makes a deck of slides, every fourth of which links to the slide ten before it. */
function linkedDeck(count: number, id: string): Deck {
  const deck = deckOf(count);
  return {
    ...deck,
    id,
    slides: deck.slides.map((slide, nth) =>
      nth % 4 === 3 && nth >= 10
        ? {
            ...slide,
            notes: [...slide.notes, { kind: "plain", level: 0, runs: [run("see", [], `slide:s${nth - 10}`)] }],
          }
        : slide,
    ),
  };
}

/** Splits, merges and compares, against copying the same decks; cuts by minutes, against laying them out. */
export function divide(): Row[] {
  const deck = linkedDeck(2000, "long");
  const { parts } = resolvePlan(deck, { by: { count: 40 } }, "");
  const makers = () => ({ newId: ids("n"), deckId: ids("d") });
  const [cut, copied] = least([() => split({ deck, version: 1 }, parts, makers()), () => structuredClone(deck)]) as [
    number,
    number,
  ];
  const many = Array.from({ length: 50 }, (_, nth) => linkedDeck(40, `m${nth}`));
  const gathered = many.map((one) => ({ deck: one, version: 1 }));
  const [joined, cloned] = least([
    () => merge(gathered, { appearance: "match", sections: true, openingsOnce: false }, makers()),
    () => structuredClone(many),
  ]) as [number, number];

  const fonts = freshFonts();
  const metadata = metadataOf(deck);
  const begin = performance.now();
  for (const [nth, slide] of deck.slides.entries()) layoutSlide(slide, { metadata, number: nth + 1, fonts });
  const laid = performance.now() - begin;
  const [minutes] = least([
    () =>
      byMinutes(
        deck.slides.map((slide) => ({ ...slide })),
        deck.rate,
        45 * 60,
      ),
  ]) as [number];

  const before = linkedDeck(1000, "v");
  const version = tailorDeck({ deck: before, version: 1 }, "w", "W", ids("w"));
  const after = version.slides
    .filter((_, nth) => nth % 20 === 0)
    .reduce(
      (state, slide): Deck =>
        apply(state, { kind: "setNotes", slide: slide.id, notes: plainText("other notes") } satisfies Change).deck,
      version,
    );
  const [compared] = least([() => compareDecks(structuredClone(before), structuredClone(after))], 3) as [number];
  return [
    row("split 2,000 slides into 50 parts / structured clone", cut / copied, 3),
    row("merge 50 decks of 40 slides / structured clone", joined / cloned, 3),
    row("cut 2,000 slides by minutes / laying them out", minutes / laid, 0.01),
    row("compare two versions of 1,000 slides, copying both included", Math.round(compared), 1000, "ms"),
  ];
}
