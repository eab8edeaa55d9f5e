import { canonical } from "../hash";
import { MOODS, type Mood } from "./colours";
import { DESIGNS } from "./designs";
import { FONT_PAIRINGS } from "./fontpairings";
import { DESIGN_NAMES } from "./names";
import type { DesignName, Theme } from "./theme";

const SCALE = { opening: 56, title: 36, subtitle: 25, body: 28, statement: 44, number: 120, caption: 20, footer: 12 };
const STEPS = [1, 0.94, 0.88, 0.82, 0.76, 0.7, 0.64, 0.58];

/** Returns the theme of a design as it comes, in a mood. */
export function designTheme(design: DesignName, mood: Mood = DESIGNS[design].mood): Theme {
  const { label, colours, fonts, scale, mood: own } = DESIGNS[design];
  return {
    name: mood === own ? label : `${label}, ${mood}`,
    design,
    colours: colours[mood],
    fonts: { ...FONT_PAIRINGS[fonts].fonts },
    scale: { ...SCALE, ...scale },
    steps: STEPS,
    minimum: 16,
  };
}

/** The designs that a person can choose. */
export const OFFERED_DESIGNS = DESIGN_NAMES.filter((name): name is Exclude<DesignName, "plain"> => name !== "plain");
export type OfferedDesign = (typeof OFFERED_DESIGNS)[number];

/** The themes that come with the program: each design in its own mood. */
export const THEMES = Object.fromEntries(OFFERED_DESIGNS.map((design) => [design, designTheme(design)])) as Readonly<
  Record<OfferedDesign, Theme>
>;

/** Returns the name of the theme of a design in a mood: `nightwatch` in its own, else such as `nightwatch-light`. */
export const themeKeyOf = (design: DesignName, mood: Mood): string =>
  mood === DESIGNS[design].mood ? design : `${design}-${mood}`;

const shipped: ReadonlyMap<string, Theme> = new Map(
  OFFERED_DESIGNS.flatMap((design) =>
    MOODS.map((mood) => [themeKeyOf(design, mood), designTheme(design, mood)] as const),
  ),
);

/** Returns a shipped theme by its key or its name; undefined when there is none. */
export const themeNamed = (name: string): Theme | undefined =>
  shipped.get(name) ?? [...shipped.values()].find((theme) => theme.name.toLowerCase() === name.toLowerCase());

const byContent = new Map([...shipped].map(([key, theme]) => [canonical(theme), key]));

/** Returns the key of the shipped theme that equals this one; undefined when it was changed or imported. */
export const themeKey = (theme: Theme): string | undefined => byContent.get(canonical(theme));
