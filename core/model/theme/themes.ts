import { canonical } from "../hash";
import { colourSet, contrast, MOODS, type Mood } from "./colours";
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

/** What a person chooses of a theme: its design and mood, and fonts and colours other than those of the design. */
export interface ThemeChoice {
  design: DesignName;
  mood: Mood;
  fonts?: Theme["fonts"];
  /** One or two colours, from which the others follow. */
  seeds?: readonly [main: string, second?: string | undefined];
  /** How text of some roles looks, whatever the design says. */
  roles?: Theme["roles"];
  /** The space between paragraphs as a factor of the usual. */
  spacing?: number;
  logo?: Theme["logo"];
}

/** Returns the theme of a choice. Where fonts or colours differ from those of the design, its name says so. */
export function chosenTheme({ design, mood, fonts, seeds, roles, spacing, logo }: ThemeChoice): Theme {
  const theme = designTheme(design, mood);
  const own = [...(fonts ? ["fonts"] : []), ...(seeds ? ["colours"] : [])];
  return {
    ...theme,
    ...(own.length ? { name: `${theme.name}, own ${own.join(" and ")}` } : {}),
    ...(fonts ? { fonts } : {}),
    ...(seeds ? { colours: colourSet(seeds[0], seeds[1], mood) } : {}),
    ...(roles ? { roles } : {}),
    ...(spacing === undefined || spacing === 1 ? {} : { spacing }),
    ...(logo ? { logo } : {}),
  };
}

/** Returns the choice that a theme seems to be of. Fonts and colours that are not the design's are found again. */
export function choiceOf({ design, fonts, colours, roles, spacing, logo }: Theme): ThemeChoice {
  const mood = contrast(colours.paper, "#000000") > contrast(colours.paper, "#ffffff") ? "light" : "dark";
  const own = designTheme(design, mood);
  const is = (a: unknown, b: unknown) => canonical(a) === canonical(b);
  return {
    design,
    mood,
    ...(is(own.fonts, fonts) ? {} : { fonts }),
    ...(is(own.colours, colours) ? {} : { seeds: [colours.accent, colours.second] as const }),
    ...(roles ? { roles } : {}),
    ...(spacing === undefined ? {} : { spacing }),
    ...(logo ? { logo } : {}),
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
