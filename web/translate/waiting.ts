import { TargetsSent } from "@unitext/server/api";
import { useEffect, useState } from "react";

export type Sent = TargetsSent["targets"][number];

const keyOf = (deck: string) => `unitext.translations.${deck}`;

function storedOf(deck: string): readonly Sent[] {
  try {
    return TargetsSent.parse({ targets: JSON.parse(localStorage.getItem(keyOf(deck)) ?? "") }).targets;
  } catch {
    return [];
  }
}

/** How long after a failure translations are sent again, in milliseconds. */
const AGAIN = 3000;

/** Translations that the server could not be given: they stay in this browser, and `send` is tried until it has taken them. */
export function useWaiting(deck: string, send: (targets: readonly Sent[]) => Promise<void>) {
  const [waiting, setWaiting] = useState(() => storedOf(deck));
  useEffect(() => {
    if (waiting.length) localStorage.setItem(keyOf(deck), JSON.stringify(waiting));
    else localStorage.removeItem(keyOf(deck));
  }, [deck, waiting]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another list begins the wait anew.
  useEffect(() => {
    if (!waiting.length) return;
    const timer = setTimeout(() => void send(waiting), AGAIN);
    return () => clearTimeout(timer);
  }, [waiting]);
  const without = (list: readonly Sent[], targets: readonly Sent[]) =>
    list.filter((one) => !targets.some(({ id }) => id === one.id));
  return {
    waiting,
    /** Keeps translations that could not be sent, in place of older ones of the same texts. */
    keep: (targets: readonly Sent[]) => setWaiting((now) => [...without(now, targets), ...targets]),
    /** Drops translations that the server has taken or refused. */
    drop: (targets: readonly Sent[]) => setWaiting((now) => (now.length ? without(now, targets) : now)),
  };
}
