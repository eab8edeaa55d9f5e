import { MemoryTaken, SegmentList, TargetsTaken, TermsTaken } from "@unitext/server/api";
import { useEffect, useMemo, useState } from "react";
import useSWR, { mutate as mutateAll } from "swr";
import type { z } from "zod";
import { get, post, Unreachable } from "../api/client";
import { useDeck } from "../deck/DeckContext";
import { statesAddress } from "../deck/useUntranslated";
import { type Sent, useWaiting } from "./waiting";

/** Returns the list with translations that are being stored. */
function withTargets(list: SegmentList, targets: readonly Sent[]): SegmentList {
  if (!targets.length) return list;
  const byId = new Map(targets.map((one) => [one.id, one]));
  const segments = list.segments.map((one) => {
    const next = byId.get(one.id);
    return next ? { ...one, target: next.target, state: next.state, before: null, onSlide: null } : one;
  });
  return { ...list, segments };
}

/** How long after a change of the deck its segments are read again, in milliseconds. */
const AFTER_CHANGE = 600;

/** The segments of the open deck beside their translations, and the acts that store translations. */
export function useSegments() {
  const { deck, session, version } = useDeck();
  const key = `/decks/${deck.id}/segments`;
  const { data, error, mutate } = useSWR(key, () => get(key, SegmentList), { revalidateOnFocus: false });
  const [saving, setSaving] = useState(0);
  const { waiting, keep, drop } = useWaiting(deck.id, session.user ?? "", save);
  // Words may also be changed on the slides, or a translation undone.
  // biome-ignore lint/correctness/useExhaustiveDependencies: the list is read again when the deck has changed.
  useEffect(() => {
    if (saving) return;
    const timer = setTimeout(() => void mutate(), AFTER_CHANGE);
    return () => clearTimeout(timer);
  }, [version]);

  /** Stores translations; the list shows them at once, and is read again afterwards with its checks. */
  async function save(targets: readonly Sent[]): Promise<void> {
    setSaving((count) => count + 1);
    try {
      await mutate((now) => now && withTargets(now, targets), { revalidate: false });
      const { remarks } = await post(key, { targets }, TargetsTaken);
      drop(targets);
      if (remarks[0]) session.notify(remarks[0]);
      void mutateAll((known) => Array.isArray(known) && known[0] === statesAddress(deck.id));
      await mutate();
    } catch (reason) {
      if (reason instanceof Unreachable) keep(targets);
      else {
        drop(targets);
        session.notify((reason as Error).message);
        await mutate();
      }
    } finally {
      setSaving((count) => count - 1);
    }
  }

  /** Brings a memory in, for the languages of the deck. */
  async function takeTmx(file: File): Promise<number> {
    const query = new URLSearchParams({ from: data?.from ?? "", to: data?.to ?? "", name: file.name });
    return (await post(`/memory?${query}`, file, MemoryTaken)).units;
  }

  /** Brings a list of terms in, in place of the one before; the checks follow it. */
  async function takeTerms(file: File): Promise<z.infer<typeof TermsTaken>> {
    const query = new URLSearchParams({ from: data?.from ?? "", to: data?.to ?? "", name: file.name });
    const taken = await post(`/terms?${query}`, file, TermsTaken);
    await mutate();
    return taken;
  }

  /** Takes a file that a translator sent back. */
  async function takeTranslations(file: File): Promise<TargetsTaken> {
    const taken = await post(
      `/decks/${deck.id}/segments/file?name=${encodeURIComponent(file.name)}`,
      file,
      TargetsTaken,
    );
    await session.takeServerChange();
    await mutate();
    return taken;
  }
  const list = useMemo(() => data && withTargets(data, waiting), [data, waiting]);
  return {
    list,
    /** Whether translations could not be stored yet; they are sent again. */
    isWaiting: waiting.length > 0,
    reload: () => mutate(),
    error: error as Error | undefined,
    saving: saving > 0,
    save,
    takeTranslations,
    takeTmx,
    takeTerms,
  };
}
