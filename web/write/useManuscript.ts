import { type BreakRule, DEFAULT_RULE } from "@unitext/core/model";
import { deckText } from "@unitext/core/text";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { useDeck } from "../deck/DeckContext";
import { keepDraft, readDraft } from "./drafts";
import { remembered } from "./mapping";
import type { TextEditorHandle } from "./TextEditor";
import { useGeneration, withRule } from "./useGeneration";

/** Decks with more slides than this wait for a pause in typing, of so many milliseconds. */
const [MANY, PAUSE] = [300, 350];

/**
 * The text beside the slides. A typed deck says what its text says, and the text follows other changes. A deck
 * generated from a document keeps its text; typing makes the slides again and keeps the user's changes to them.
 * `reading` is true while a job is still making the slides.
 */
export function useManuscript(reading: boolean, editor: React.RefObject<TextEditorHandle | null>) {
  const { deck, text, session, metadata } = useDeck();
  const { mapping, setMapping, cutting, follow, rerun, locate } = useGeneration();
  const [busy, setBusy] = useState(false);
  const typed = useRef<string>(undefined);
  const wait = useRef<ReturnType<typeof setTimeout>>(undefined);
  const running = useRef(false);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the text with which this place opens; what comes later follows by the effect below.
  const first = useMemo(
    () => readDraft(deck.id) ?? text ?? (deck.manuscript ? "" : deckText(deck, { ids: false })),
    [],
  );
  const shown = useRef(first);
  const latest = useRef({ deck, metadata, text });
  latest.current = { deck, metadata, text };

  /** Takes typed text, one run at a time; text typed meanwhile is taken by the next. */
  const take = useCallback(async () => {
    if (running.current || typed.current === undefined) return;
    running.current = true;
    setBusy(true);
    try {
      while (typed.current !== undefined) {
        const now = typed.current;
        typed.current = undefined;
        if (session.snapshot().deck.manuscript) await rerun(cutting(session.snapshot().text ?? now), cutting(now));
        else await follow(now);
        if (typed.current === undefined) keepDraft(latest.current.deck.id, undefined);
      }
    } finally {
      running.current = false;
      setBusy(false);
    }
  }, [session, follow, rerun, cutting]);

  const type = useCallback(
    (value: string) => {
      shown.current = value;
      typed.current = value;
      keepDraft(latest.current.deck.id, value);
      clearTimeout(wait.current);
      const { deck: now } = latest.current;
      wait.current = setTimeout(take, now.manuscript && now.slides.length > MANY ? PAUSE : 0);
    },
    [take],
  );

  // biome-ignore lint/correctness/useExhaustiveDependencies: a draft is taken up once, when this place opens.
  useEffect(() => {
    const draft = readDraft(deck.id);
    if (draft !== null && !reading) type(draft);
    return () => clearTimeout(wait.current);
  }, []);

  /** When the deck was changed otherwise (undo, another page, a job), text and lines follow it. */
  // biome-ignore lint/correctness/useExhaustiveDependencies: the lines are found again when the deck or its text changes.
  useEffect(() => {
    if (typed.current !== undefined || running.current) return;
    const next = text ?? (deck.manuscript ? shown.current : deckText(deck, { ids: false }));
    if (next !== shown.current) {
      shown.current = next;
      editor.current?.replace(next);
    }
    if (reading) {
      setMapping(remembered(deck.slides));
      return;
    }
    const timer = setTimeout(
      () => {
        const now = shown.current;
        if (now && typed.current === undefined && !running.current) void locate(now, () => shown.current === now);
      },
      deck.manuscript ? 250 : 0,
    );
    return () => clearTimeout(timer);
  }, [deck, text, metadata, reading]);

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
