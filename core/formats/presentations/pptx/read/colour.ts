import { must } from "@unitext/core/model";
import { hsl, rgb } from "d3-color";
import { child, localName, type XmlElement } from "../../../shared/xml";

/** A colour as it is seen; `opacity` where it is not opaque. */
export interface SeenColour {
  colour: string;
  opacity?: number;
}
/** The colours of a theme by the names that a part uses (through the master's map), and the value of `phClr`. */
export interface ColourContext {
  named: ReadonlyMap<string, string>;
  placeholder?: SeenColour;
}

const byte = (value: number) => Math.round(Math.max(0, Math.min(255, value)));
const hex = (r: number, g: number, b: number) =>
  `#${[r, g, b].map((value) => byte(value).toString(16).padStart(2, "0")).join("")}`;
/** sRGB (IEC 61966-2-1): linear light from the signal, and back. */
const linear = (value: number) => (value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4);
const signal = (value: number) => (value <= 0.0031308 ? value * 12.92 : 1.055 * value ** (1 / 2.4) - 0.055);

/** Returns a percentage or fraction as the standards write it: 50000, or 50% in the strict form. */
export function fraction(value: string | undefined): number {
  if (value === undefined) return 1;
  return value.endsWith("%") ? Number(value.slice(0, -1)) / 100 : Number(value) / 100000;
}

function inLight(colour: string, change: (share: number) => number): string {
  const { r, g, b } = rgb(colour);
  const [x, y, z] = [r, g, b].map((value) => signal(Math.max(0, Math.min(1, change(linear(value / 255))))) * 255) as [
    number,
    number,
    number,
  ];
  return hex(x, y, z);
}

function inHsl(colour: string, change: (parts: { h: number; s: number; l: number }) => void): string {
  const parsed = hsl(colour);
  const parts = {
    h: Number.isFinite(parsed.h) ? parsed.h : 0,
    s: Number.isFinite(parsed.s) ? parsed.s : 0,
    l: parsed.l,
  };
  change(parts);
  const { r, g, b } = hsl(
    ((parts.h % 360) + 360) % 360,
    Math.max(0, Math.min(1, parts.s)),
    Math.max(0, Math.min(1, parts.l)),
  ).rgb();
  return hex(r, g, b);
}

/**
 * Colour transforms (ECMA-376-1, 20.1.2.3). Shade and tint mix with black and white in linear light, as in the
 * standard's example of 50 % of green (00BC00).
 */
const TRANSFORMS: Record<string, (seen: SeenColour, share: number) => SeenColour> = {
  alpha: (seen, share) => ({ ...seen, opacity: share }),
  alphaMod: (seen, share) => ({ ...seen, opacity: (seen.opacity ?? 1) * share }),
  alphaOff: (seen, share) => ({ ...seen, opacity: Math.max(0, Math.min(1, (seen.opacity ?? 1) + share)) }),
  shade: (seen, share) => ({ ...seen, colour: inLight(seen.colour, (value) => value * share) }),
  tint: (seen, share) => ({ ...seen, colour: inLight(seen.colour, (value) => value * share + (1 - share)) }),
  lum: (seen, share) => ({ ...seen, colour: inHsl(seen.colour, (parts) => (parts.l = share)) }),
  lumMod: (seen, share) => ({ ...seen, colour: inHsl(seen.colour, (parts) => (parts.l *= share)) }),
  lumOff: (seen, share) => ({ ...seen, colour: inHsl(seen.colour, (parts) => (parts.l += share)) }),
  sat: (seen, share) => ({ ...seen, colour: inHsl(seen.colour, (parts) => (parts.s = share)) }),
  satMod: (seen, share) => ({ ...seen, colour: inHsl(seen.colour, (parts) => (parts.s *= share)) }),
  satOff: (seen, share) => ({ ...seen, colour: inHsl(seen.colour, (parts) => (parts.s += share)) }),
  hueMod: (seen, share) => ({ ...seen, colour: inHsl(seen.colour, (parts) => (parts.h *= share)) }),
  // Angles are in 60,000ths of a degree, shares in 100,000ths.
  hue: (seen, share) => ({ ...seen, colour: inHsl(seen.colour, (parts) => (parts.h = (share * 100000) / 60000)) }),
  hueOff: (seen, share) => ({ ...seen, colour: inHsl(seen.colour, (parts) => (parts.h += (share * 100000) / 60000)) }),
  gray: (seen) => ({ ...seen, colour: inHsl(seen.colour, (parts) => (parts.s = 0)) }),
  inv: (seen) => {
    const { r, g, b } = rgb(seen.colour);
    return { ...seen, colour: hex(255 - r, 255 - g, 255 - b) };
  },
  comp: (seen) => ({ ...seen, colour: inHsl(seen.colour, (parts) => (parts.h += 180)) }),
};

const SYSTEM: Record<string, string> = { windowText: "#000000", window: "#ffffff" };
const BASES: Record<string, (element: XmlElement, context: ColourContext) => SeenColour | undefined> = {
  srgbClr: ({ attributes }) =>
    /^[0-9a-f]{6}$/i.test(attributes.val ?? "") ? { colour: `#${must(attributes.val).toLowerCase()}` } : undefined,
  schemeClr: ({ attributes: { val = "" } }, { named, placeholder }) => {
    if (val === "phClr") return placeholder;
    const colour = named.get(val);
    return colour === undefined ? undefined : { colour };
  },
  sysClr: ({ attributes: { val = "", lastClr } }) => ({
    colour: lastClr && /^[0-9a-f]{6}$/i.test(lastClr) ? `#${lastClr.toLowerCase()}` : (SYSTEM[val] ?? "#000000"),
  }),
  prstClr: ({ attributes: { val = "" } }) => {
    const name = val
      .replace(/^dk/, "dark")
      .replace(/^lt/, "light")
      .replace(/^med/, "medium")
      .replace(/mediumium/, "medium")
      .toLowerCase();
    const found = rgb(name);
    return Number.isFinite(found.r) ? { colour: hex(found.r, found.g, found.b) } : undefined;
  },
  scrgbClr: ({ attributes: { r, g, b } }) => {
    const [x, y, z] = [r, g, b].map((value) => signal(Math.max(0, Math.min(1, fraction(value)))) * 255) as [
      number,
      number,
      number,
    ];
    return { colour: hex(x, y, z) };
  },
  hslClr: ({ attributes: { hue, sat, lum } }) => {
    const { r, g, b } = hsl(Number(hue) / 60000, fraction(sat), fraction(lum)).rgb();
    return { colour: hex(r, g, b) };
  },
};

/**
 * Returns the colour in an element such as `a:solidFill`, its transforms applied; undefined when it has no known
 * colour.
 */
export function colourIn(holder: XmlElement | undefined, context: ColourContext): SeenColour | undefined {
  const element = holder?.children.find((part) => localName(part) in BASES);
  let seen = element && BASES[localName(element)]?.(element, context);
  if (!seen || !element) return undefined;
  for (const transform of element.children) {
    const change = TRANSFORMS[localName(transform)];
    if (change) seen = change(seen, fraction(transform.attributes.val));
  }
  return seen.opacity === undefined || seen.opacity >= 1 ? { colour: seen.colour } : seen;
}

/** Returns the colours of a theme by scheme name, through the map of a master or slide. */
export function schemeColours(
  theme: XmlElement | undefined,
  map: Readonly<Record<string, string>>,
): Map<string, string> {
  const scheme = theme && child(child(theme, "themeElements"), "clrScheme");
  const named = new Map<string, string>();
  for (const part of scheme?.children ?? []) {
    const seen = colourIn(part, { named });
    if (seen) named.set(localName(part), seen.colour);
  }
  for (const [name, to] of Object.entries({ bg1: "lt1", tx1: "dk1", bg2: "lt2", tx2: "dk2", ...map })) {
    const colour = named.get(to);
    if (colour) named.set(name, colour);
  }
  return named;
}
