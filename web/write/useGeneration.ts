import { type BreakRule, type Deck, DEFAULT_RULE, type DeckMetadata, type Slide } from "@unitext/core/model";
import { nanoid } from "nanoid";
import { startTransition, useCallback, useRef, useState } from "react";
import { useDeck } from "../deck/DeckContext";
import { keepScenes, openFacesOf } from "../deck/scenes";
import { core, type Cutting, type Followed } from "../worker";
import { type Mapping, mappingOf, mappingOfTyped, remembered } from "./mapping";

/** How many times a text is compared when the deck changes meanwhile. */
const MOST_TRIES = 4;

/**
 * Runs of the generator on the text of the open deck; each updates the deck, or only the lines of its slides. `first`
 * returns the lines where they are known from the start.
 */
export function useGeneration(first: () => Mapping | undefined) {
  const { deck, session, metadata, canEdit } = useDeck();
  const [mapping, setMapping] = useState<Mapping>(() => first() ?? remembered(deck.slides));
  const latest = useRef({ deck, metadata });
  latest.current = { deck, metadata };
  /** The deck and text for which the mapping was made. */
  const mapped = useRef<{ deck: Deck; text: string }>(undefined);
  const map = useCallback((next: Mapping, of: { deck: Deck; text: string }) => {
    mapped.current = of;
    startTransition(() => setMapping(next));
  }, []);

  /** Shows the lines that the slides recorded, until they are found in the text. */
  const remember = useCallback((slides: readonly Slide[]) => {
    mapped.current = undefined;
    setMapping(remembered(slides));
  }, []);

  const cutting = useCallback(
    (of: string, rule?: BreakRule, own?: DeckMetadata): Cutting => ({
      text: of,
      rule: rule ?? latest.current.metadata.manuscript?.rule ?? DEFAULT_RULE,
      metadata: own ?? latest.current.metadata,
    }),
    [],
  );

  /** Updates a typed deck to its text. */
  const follow = useCallback(
    async (now: string) => {
      let result: Followed;
      let from: Deck;
      // A change that arrives meanwhile is part of what the text is compared with.
      let tries = 0;
      do {
        from = session.snapshot().deck;
        result = await core.follow(from, now, nanoid(8));
        await openFacesOf(result.drawn);
        tries += 1;
      } while (session.snapshot().deck !== from && tries < MOST_TRIES);
      if (canEdit && (result.change || session.snapshot().text !== now))
        session.apply(result.change ?? { kind: "batch", changes: [] }, { text: now, quiet: true });
      keepScenes(session.snapshot().deck, result.drawn);
      map(mappingOfTyped(result), { deck: session.snapshot().deck, text: now });
    },
    [session, canEdit, map],
  );

  /** Makes the slides of a document again from its text, its rule, or both; the user's changes stay. */
  const rerun = useCallback(
    async (base: Cutting, next: Cutting, words?: string) => {
      const result = await core.take(session.snapshot().deck, base, next, new Map(), base.rule === next.rule);
      await openFacesOf(result.drawn);
      if (canEdit && (result.change || session.snapshot().text !== next.text))
        session.apply(result.change ?? { kind: "batch", changes: [] }, {
          text: next.text,
          ...(words ? { words } : { quiet: true }),
        });
      keepScenes(session.snapshot().deck, result.drawn);
      map(mappingOf(result), { deck: session.snapshot().deck, text: next.text });
    },
    [session, canEdit, map],
  );

  /** Finds the lines of each slide in a text, unless they are known or the text is no longer `current`. */
  const locate = useCallback(
    async (text: string, current: () => boolean) => {
      const { deck: now } = latest.current;
      if (mapped.current?.deck === now && mapped.current.text === text) return;
      if (!now.manuscript) {
        const result = await core.follow(now, text, "x");
        if (current()) map(mappingOfTyped(result), { deck: now, text });
        return;
      }
      const result = await core.take(now, cutting(text), cutting(text), new Map(), true);
      if (current()) map(mappingOf(result), { deck: now, text });
    },
    [cutting, map],
  );

  return { mapping, remember, cutting, follow, rerun, locate };
}

/** Returns the metadata of a deck whose text is cut by a rule; a typed deck with another rule becomes a document. */
export function withRule({ manuscript }: Deck, metadata: DeckMetadata, rule: BreakRule): DeckMetadata {
  const { manuscript: _, ...bare } = metadata;
  if (JSON.stringify(rule) === JSON.stringify(DEFAULT_RULE)) return bare;
  return { ...bare, manuscript: { document: manuscript?.document ?? nanoid(10), rule } };
}
