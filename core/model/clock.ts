/** Returns seconds as minutes and seconds: “3:05”; negative ones with a minus sign. */
export function clock(seconds: number): string {
  const whole = Math.round(Math.abs(seconds));
  return `${seconds < 0 ? "−" : ""}${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, "0")}`;
}
