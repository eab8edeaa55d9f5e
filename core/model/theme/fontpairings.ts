import type { Theme } from "./theme";

/** Faces that go together: one for headings, one for text. All ship under open licences. */
export interface FontPairing {
  label: string;
  fonts: Theme["fonts"];
}

const code = "JetBrains Mono";
const pairing = (label: string, heading: string, body: string): FontPairing => ({
  label,
  fonts: { heading, body, code },
});

/** The pairings of fonts, in the order in which they are offered. */
export const FONT_PAIRINGS = {
  bookish: pairing("Bookish", "Literata", "Figtree"),
  clear: pairing("Clear", "Figtree", "Figtree"),
  firm: pairing("Firm", "Archivo", "Figtree"),
  printed: pairing("Printed", "Source Serif 4", "Source Serif 4"),
  warm: pairing("Warm", "Fraunces", "Nunito"),
  sturdy: pairing("Sturdy", "Bitter", "Figtree"),
  cheerful: pairing("Cheerful", "Baloo 2", "Nunito"),
  narrow: pairing("Narrow", "Barlow Condensed", "Barlow"),
  typed: pairing("Typed", "Courier Prime", "Source Serif 4"),
  handwritten: pairing("Handwritten", "Kalam", "Nunito"),
  worldwide: pairing("Many scripts", "Noto Sans", "Noto Sans"),
  reading: pairing("Reading", "Work Sans", "Literata"),
} as const satisfies Record<string, FontPairing>;

export type FontPairingName = keyof typeof FONT_PAIRINGS;
