/** Milliseconds of a day. */
const DAY = 86_400_000;
/**
 * Day 0 of the 1900 date system. The system counts a 29 February 1900 that never was, so this is right for dates from
 * 1 March 1900 on (ECMA-376-1, 18.17.4.1).
 */
const EPOCH = Date.UTC(1899, 11, 30);

/** Returns the serial number of a date in the 1900 date system; undefined when it is not an ISO 8601 date. */
export function serialOf(iso: string): number | undefined {
  const [, year, month, day, hours = "0", minutes = "0", seconds = "0"] =
    /^(\d{4})-(\d{2})-(\d{2})(?:[T ](\d{2}):(\d{2})(?::(\d{2}(?:\.\d+)?))?)?Z?$/.exec(iso.trim()) ?? [];
  if (year === undefined) return undefined;
  const date = Date.UTC(Number(year), Number(month) - 1, Number(day));
  if (new Date(date).getUTCDate() !== Number(day)) return undefined;
  return (date - EPOCH) / DAY + (Number(hours) * 3600 + Number(minutes) * 60 + Number(seconds)) / 86_400;
}

/** Returns the part of a day of an ISO 8601 duration such as `PT08H30M00S`; undefined for anything else. */
export function dayShareOf(duration: string): number | undefined {
  const [, sign, hours, minutes = "0", seconds = "0"] =
    /^(-?)PT(?:(\d+)H)?(?:(\d+)M)?(?:(\d+(?:[.,]\d+)?)S)?$/.exec(duration.trim()) ?? [];
  if (hours === undefined && minutes === "0" && seconds === "0") return duration.trim() === "PT0S" ? 0 : undefined;
  const total = Number(hours ?? 0) * 3600 + Number(minutes) * 60 + Number(seconds.replace(",", "."));
  return ((sign ? -1 : 1) * total) / 86_400;
}

/** Returns the date of a serial number as ISO 8601, without a time at midnight. */
export function isoOf(serial: number, date1904 = false): string {
  const date = new Date(Math.round((serial + (date1904 ? 1462 : 0)) * 86_400) * 1000 + EPOCH).toISOString();
  return date.endsWith("T00:00:00.000Z") ? date.slice(0, 10) : date.slice(0, 19);
}
