import { useCallback, useEffect, useState } from "react";

/** A stopwatch that can be paused; `elapsed` is in seconds. */
export function useTimer() {
  /** When the time began, less what had elapsed then; undefined while it stands still. */
  const [since, setSince] = useState<number>();
  const [elapsed, setElapsed] = useState(0);
  useEffect(() => {
    if (since === undefined) return;
    const timer = setInterval(() => setElapsed((Date.now() - since) / 1000), 250);
    return () => clearInterval(timer);
  }, [since]);
  const start = useCallback(() => setSince((now) => now ?? Date.now() - elapsed * 1000), [elapsed]);
  const pause = () => setSince(undefined);
  const reset = () => {
    setElapsed(0);
    setSince((now) => (now === undefined ? undefined : Date.now()));
  };
  return { elapsed, running: since !== undefined, start, pause, reset };
}
