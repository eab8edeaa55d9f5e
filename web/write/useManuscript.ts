import { reconcile } from "@unitext/core/generate";
import { type BreakRule, DEFAULT_RULE, type Deck, type DeckMetadata, type Slide, must } from "@unitext/core/model";
import { deckText, type Lines, type Problem, type Reason } from "@unitext/core/text";
import { nanoid } from "nanoid";
import { startTransition, useCallback, useEffect, useMemo, useRef, useState } from "react";
import { useDeck } from "../deck/DeckContext";
import { core, type Cutting } from "../worker";
import type { TextEditorHandle } from "./TextEditor";

/** How the slides of the deck lie along the text: the id, lines and reason of each generated slide. */
export interface Mapping {
  ids: readonly string[];
  lines: readonly Lines[];
  reasons: readonly (Reason | undefined)[];
  problems: readonly Problem[];
  /** The slides that the user changed since the text made them. */
  hand: ReadonlySet<string>;
}
const NOTHING: Mapping = { ids: [], lines: [], reasons: [], problems: [], hand: new Set() };

const draftKey = (deck: string) => `unitext:draft:${deck}`;
/** Returns what was typed and is not yet part of the deck; it outlives the page. */
function readDraft(deck: string): string | null {
  try {
    return localStorage.getItem(draftKey(deck));
  } catch {
    return null;
  }
}
function keepDraft(deck: string, text: string | undefined): void {
  try {
    if (text === undefined) localStorage.removeItem(draftKey(deck));
    else localStorage.setItem(draftKey(deck), text);
  } catch {
    // The browser's storage is full: the text is still on its way to the server.
  }
}

/** Returns the lines that the slides recorded, before the text was read again. */
function remembered(slides: readonly Slide[]): Mapping {
  const known = slides.filter(({ source }) => source);
  return {
    ...NOTHING,
    ids: known.map(({ id }) => id),
    lines: known.map(({ source }) => ({ from: source?.from ?? 1, to: source?.to ?? 1 })),
  };
}

/** Returns the lines of the slides that a run of the rule found or made. */
function mappingOf({ ids, lines, reasons, problems, hand }: Awaited<ReturnType<typeof core.take>>): Mapping {
  const made = ids.flatMap((id, nth) => (id === null ? [] : [{ id, lines: must(lines[nth]), reason: reasons[nth] }]));
  return {
    ids: made.map(({ id }) => id),
    lines: made.map((one) => one.lines),
    reasons: made.map(({ reason }) => reason),
    problems,
    hand: new Set(hand),
  };
}

/** Decks with more slides than this wait for a pause in typing. */
const MANY = 300;

/**
 * The text beside the slides. A typed deck says what its text says, and the text follows other changes. A deck
 * generated from a document keeps its text; typing makes the slides again and keeps the user's changes to them.
 * `reading` is true while a job is still making the slides.
 */
export function useManuscript(reading: boolean, editor: React.RefObject<TextEditorHandle | null>) {
  const { deck, text, session, metadata, canEdit } = useDeck();
  const [mapping, setMapping] = useState<Mapping>(() => remembered(deck.slides));
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
      const current: Deck = session.snapshot().deck;
      const { change, ids } = reconcile(current, { ...result.metadata, assets: current.assets }, result.made, {
        typed: true,
      });
      if (canEdit && (change || session.snapshot().text !== now))
        session.apply(change ?? { kind: "batch", changes: [] }, { text: now, quiet: true });
      startTransition(() =>
        setMapping({
          ids,
          lines: result.made.map(({ lines }) => lines),
          reasons: result.made.map(({ reason }) => reason),
          problems: result.problems,
          hand: new Set(),
        }),
      );
    },
    [session, canEdit],
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
      startTransition(() => setMapping(mappingOf(result)));
    },
    [session, canEdit],
  );

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
      wait.current = setTimeout(take, now.manuscript && now.slides.length > MANY ? 350 : 0);
    },
    [take],
  );

  /** Reads the present text, to find the lines of each slide. */
  const locate = useCallback(async () => {
    const now = shown.current;
    if (!now || typed.current !== undefined || running.current) return;
    const { deck: current, metadata: own } = latest.current;
    if (current.manuscript) {
      const result = await core.take(current, cutting(now), cutting(now), new Map(), true);
      // Text typed meanwhile has other lines.
      if (shown.current === now) startTransition(() => setMapping(mappingOf(result)));
      return;
    }
    const { made, problems } = await core.read(now, own, "x");
    const { ids } = reconcile(current, own, made);
    setMapping({
      ids,
      lines: made.map(({ lines }) => lines),
      reasons: made.map(({ reason }) => reason),
      problems,
      hand: new Set(),
    });
  }, [cutting]);

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
    const timer = setTimeout(locate, deck.manuscript ? 250 : 0);
    return () => clearTimeout(timer);
  }, [deck, text, metadata, reading]);

  /** Cuts the text by another rule; from then on, a typed deck with a rule of its own keeps its text as a document. */
  const setRule = useCallback(
    async (rule: BreakRule) => {
      const { deck: now, metadata: own } = latest.current;
      const asTyped = JSON.stringify(rule) === JSON.stringify(DEFAULT_RULE);
      const document = now.manuscript?.document ?? nanoid(10);
      const { manuscript: _, ...bare } = own;
      const next: DeckMetadata = asTyped ? bare : { ...bare, manuscript: { document, rule } };
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
  return { mapping, busy, first, shown, type, rule, setRule, cutting, rerun, setMapping };
}
