import { useMode as addColourSpace, formatHex, modeLrgb, modeOklab, modeOklch, modeRgb, wcagContrast } from "culori/fn";
import { must } from "../must";
import type { ThemeColours } from "./theme";

for (const mode of [modeRgb, modeLrgb, modeOklab]) addColourSpace(mode as never);
const oklch = addColourSpace(modeOklch);

/** Whether text is dark on a light background, or light on a dark one. */
export const MOODS = ["light", "dark"] as const;
export type Mood = (typeof MOODS)[number];

/** The least contrast of text with its background (WCAG 2.2, 1.4.3). */
export const TEXT_CONTRAST = 4.5;

/** Returns the contrast ratio of two colours, from 1 to 21 (WCAG 2.2, "contrast ratio"). */
export const contrast = (a: string, b: string): number => wcagContrast(a, b);

/** Mixes two colours channel by channel; `share` is the share of the second. */
export function mixed(a: string, b: string, share: number): string {
  const channels = (colour: string) => [1, 3, 5].map((at) => Number.parseInt(colour.slice(at, at + 2), 16));
  const [one, two] = [channels(a), channels(b)];
  return `#${one
    .map((value, at) =>
      Math.round(value + (must(two[at]) - value) * share)
        .toString(16)
        .padStart(2, "0"),
    )
    .join("")}`;
}

/** Returns a colour of a lightness (0 to 1), chroma (0 to about 0.4) and hue (in degrees) in OKLCH. */
const fromOklch = (l: number, c: number, h: number): string => formatHex({ mode: "oklch", l, c, h });

/**
 * Returns a colour that contrasts with a background at least by `least`: itself where it does, else one of the same hue
 * that is as much darker or lighter as needed.
 */
export function readableOn(colour: string, background: string, least = TEXT_CONTRAST): string {
  if (contrast(colour, background) >= least) return colour;
  const { l, c, h = 0 } = must(oklch(colour));
  const up = contrast("#ffffff", background) > contrast("#000000", background);
  for (let step = 1; step <= 100; step++) {
    const lightness = l + ((up ? 1 : 0) - l) * (step / 100);
    // Near black and white there is little room for colour.
    const next = fromOklch(lightness, c * (1 - step / 200), h);
    if (contrast(next, background) >= least) return next;
  }
  return up ? "#ffffff" : "#000000";
}

/** Colours of a set that are not to be derived. */
type Given = Partial<Pick<ThemeColours, "paper" | "ink" | "field" | "onField">>;

/**
 * Returns the colours of a theme from one or two that a person picks, in OKLCH. Every text colour contrasts with its
 * background by at least 4.5, also with a paper or field that is given.
 */
export function colourSet(seed: string, other: string | undefined, mood: Mood, given: Given = {}): ThemeColours {
  const { l, c, h = 0 } = must(oklch(seed));
  const light = mood === "light";
  const paper =
    given.paper ?? (light ? fromOklch(0.985, Math.min(c, 0.008), h) : fromOklch(0.21, Math.min(c * 0.35, 0.035), h));
  const dark = fromOklch(0.25, Math.min(c * 0.4, 0.03), h);
  const bright = fromOklch(0.95, Math.min(c * 0.15, 0.015), h);
  const ink = readableOn(given.ink ?? (light ? dark : bright), paper);
  const contrary = other ?? fromOklch(l, Math.max(c, 0.1), (h + 150) % 360);
  const accent = readableOn(light ? seed : fromOklch(Math.max(l, 0.76), c, h), paper);
  const field = given.field ?? (light ? fromOklch(Math.min(l, 0.45), c, h) : fromOklch(0.33, Math.min(c, 0.09), h));
  return {
    paper,
    ink,
    accent,
    second: readableOn(contrary, paper),
    muted: readableOn(mixed(ink, paper, 0.38), paper),
    link: accent,
    field,
    onField: readableOn(given.onField ?? fromOklch(0.98, Math.min(c * 0.15, 0.012), h), field, 7),
  };
}

/** Returns the colours of what is on a field of colour: the field is their paper, and every text can be read on it. */
export function coloursOnField({ field, onField, accent, second, paper, ink }: ThemeColours): ThemeColours {
  return {
    paper: field,
    ink: onField,
    accent: readableOn(accent, field),
    second: readableOn(second, field),
    muted: readableOn(mixed(onField, field, 0.25), field),
    link: onField,
    field: paper,
    onField: readableOn(ink, paper),
  };
}
