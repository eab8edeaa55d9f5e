import { TargetsSent } from "@unitext/server/api";
import { useEffect, useState } from "react";

export type Sent = TargetsSent["targets"][number];

const keyOf = (deck: string, user: string) => `unitext.translations.${deck}.${user}`;

function storedUnder(key: string): readonly Sent[] {
  try {
    return TargetsSent.parse({ targets: JSON.parse(localStorage.getItem(key) ?? "") }).targets;
  } catch {
    return [];
  }
}

/** How long after a failure translations are sent again, in milliseconds. */
const AGAIN = 3000;

/**
 * Translations of a person that the server could not be given: they stay in this browser, and `send` is tried until it has
 * taken them.
 */
export function useWaiting(deck: string, user: string, send: (targets: readonly Sent[]) => Promise<void>) {
  const key = keyOf(deck, user);
  const [waiting, setWaiting] = useState(() => storedUnder(key));
  useEffect(() => {
    if (waiting.length) localStorage.setItem(key, JSON.stringify(waiting));
    else localStorage.removeItem(key);
  }, [key, waiting]);
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
