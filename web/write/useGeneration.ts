import { reconcile } from "@unitext/core/generate";
import { type BreakRule, type Deck, DEFAULT_RULE, type DeckMetadata, type Slide } from "@unitext/core/model";
import { nanoid } from "nanoid";
import { startTransition, useCallback, useRef, useState } from "react";
import { useDeck } from "../deck/DeckContext";
import { core, type Cutting } from "../worker";
import { type Mapping, mappingOf, mappingOfTyped, remembered } from "./mapping";

/** Runs of the generator on the text of the open deck; each updates the deck, or only the lines of its slides. */
export function useGeneration() {
  const { deck, session, metadata, canEdit } = useDeck();
  const [mapping, setMapping] = useState<Mapping>(() => remembered(deck.slides));
  const latest = useRef({ deck, metadata });
  latest.current = { deck, metadata };
  /** The deck and text that the mapping belongs to. */
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
      const result = await core.read(now, latest.current.metadata, nanoid(8));
      const current = session.snapshot().deck;
      const { change, ids } = reconcile(current, { ...result.metadata, assets: current.assets }, result.made, {
        typed: true,
      });
      if (canEdit && (change || session.snapshot().text !== now))
        session.apply(change ?? { kind: "batch", changes: [] }, { text: now, quiet: true });
      map(mappingOfTyped(result, { ids }), { deck: session.snapshot().deck, text: now });
    },
    [session, canEdit, map],
  );

  /** Makes the slides of a document again from its text, its rule, or both; the user's changes stay. */
  const rerun = useCallback(
    async (base: Cutting, next: Cutting, words?: string) => {
      const result = await core.take(session.snapshot().deck, base, next, new Map(), base.rule === next.rule);
      if (canEdit && (result.change || session.snapshot().text !== next.text))
        session.apply(result.change ?? { kind: "batch", changes: [] }, {
          text: next.text,
          ...(words ? { words } : { quiet: true }),
        });
      map(mappingOf(result), { deck: session.snapshot().deck, text: next.text });
    },
    [session, canEdit, map],
  );

  /** Finds the lines of each slide in a text, unless they are known or the text is no longer `current`. */
  const locate = useCallback(
    async (text: string, current: () => boolean) => {
      const { deck: now, metadata: own } = latest.current;
      if (mapped.current?.deck === now && mapped.current.text === text) return;
      if (!now.manuscript) {
        const result = await core.read(text, own, "x");
        if (current()) map(mappingOfTyped(result, reconcile(now, own, result.made)), { deck: now, text });
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
