/** Returns seconds as m:ss. */
export function clock(seconds: number): string {
  const whole = Math.round(Math.abs(seconds));
  return `${seconds < 0 ? "−" : ""}${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, "0")}`;
}

/** Resolves in a later task, after a wait in milliseconds, so that the page can draw and respond meanwhile. */
export const nextTask = (wait = 0) => new Promise<void>((resolve) => setTimeout(resolve, wait));
