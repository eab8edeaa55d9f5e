/** Returns seconds as m:ss. */
export function clock(seconds: number): string {
  const whole = Math.round(Math.abs(seconds));
  return `${seconds < 0 ? "−" : ""}${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, "0")}`;
}
