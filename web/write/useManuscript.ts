import { type BreakRule, DEFAULT_RULE } from "@unitext/core/model";
import { deckText, writeDeck } from "@unitext/core/text";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { useDeck } from "../deck/DeckContext";
import { readDraft } from "./drafts";
import { mappingOfWritten } from "./mapping";
import type { TextEditorHandle } from "./TextEditor";
import { useGeneration, withRule } from "./useGeneration";
import { useTypedText } from "./useTypedText";

/**
 * The text beside the slides. A typed deck says what its text says, and the text follows other changes. A deck
 * generated from a document keeps its text; typing makes the slides again and keeps the user's changes to them.
 * `arriving` is true while slides may still arrive from a job.
 */
export function useManuscript(arriving: boolean, editor: React.RefObject<TextEditorHandle | null>) {
  const { deck, text, metadata } = useDeck();
  // biome-ignore lint/correctness/useExhaustiveDependencies: the text with which this place opens; what comes later follows by the effect below.
  const { first, written } = useMemo(() => {
    const stored = readDraft(deck.id) ?? text ?? (deck.manuscript ? "" : null);
    if (stored !== null) return { first: stored, written: undefined };
    const { text: own, lines } = writeDeck(deck, { ids: false });
    return { first: own, written: mappingOfWritten(deck.slides, lines) };
  }, []);
  const generation = useGeneration(() => written);
  const { mapping, remember, cutting, rerun, locate } = generation;
  const shown = useRef(first);
  const latest = useRef({ deck, metadata });
  latest.current = { deck, metadata };
  /** Whether the text is being cut by another rule. */
  const [busy, setBusy] = useState(false);
  const { pending, type: take, stop } = useTypedText(generation);
  const type = useCallback(
    (value: string) => {
      shown.current = value;
      take(value);
    },
    [take],
  );

  const takenUp = useRef(false);
  useEffect(() => stop, [stop]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: a draft is taken up once, when all slides are here.
  useEffect(() => {
    if (arriving || takenUp.current) return;
    takenUp.current = true;
    const draft = readDraft(deck.id);
    if (draft === null) return;
    editor.current?.replace(draft);
    type(draft);
  }, [arriving]);

  /** When the deck was changed otherwise (undo, another page, a job), text and lines follow it. */
  // biome-ignore lint/correctness/useExhaustiveDependencies: the lines are found again when the deck or its text changes.
  useEffect(() => {
    if (pending()) return;
    const next = text ?? (deck.manuscript ? shown.current : deckText(deck, { ids: false }));
    if (next !== shown.current) {
      shown.current = next;
      editor.current?.replace(next);
    }
    if (arriving) {
      remember(deck.slides);
      return;
    }
    const timer = setTimeout(
      () => {
        const now = shown.current;
        if (now && !pending()) void locate(now, () => shown.current === now);
      },
      // Where the lines are known, the slides are drawn first.
      mapping === written ? 2000 : deck.manuscript ? 250 : 0,
    );
    return () => clearTimeout(timer);
  }, [deck, text, metadata, arriving]);

  /** Cuts the text by another rule; from then on, a typed deck with a rule of its own keeps its text as a document. */
  const setRule = useCallback(
    async (rule: BreakRule) => {
      const next = withRule(latest.current.deck, latest.current.metadata, rule);
      setBusy(true);
      try {
        await rerun(cutting(shown.current), cutting(shown.current, rule, next), "Cut the text by another rule");
      } finally {
        setBusy(false);
      }
    },
    [rerun, cutting],
  );

  const rule = deck.manuscript?.rule ?? DEFAULT_RULE;
  return { mapping, busy, first, shown, type, rule, setRule, cutting, rerun };
}
