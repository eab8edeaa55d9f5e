import { z } from "zod";
import { Colour } from "./units";

/** Colours by role: `paper` behind, `ink` for text, `accent` and `second` for emphasis, `muted` for footers, `link` for links. */
export const ThemeColours = z.object({
  paper: Colour,
  ink: Colour,
  accent: Colour,
  second: Colour,
  muted: Colour,
  link: Colour,
});
export type ThemeColours = z.infer<typeof ThemeColours>;

/** Text sizes in points on a page 540 points high; other heights scale them. */
export const TextScale = z.object({
  opening: z.number().positive(),
  title: z.number().positive(),
  subtitle: z.number().positive(),
  body: z.number().positive(),
  statement: z.number().positive(),
  number: z.number().positive(),
  caption: z.number().positive(),
  footer: z.number().positive(),
});

export const Theme = z.object({
  name: z.string().min(1).max(80),
  colours: ThemeColours,
  fonts: z.object({ heading: z.string().min(1), body: z.string().min(1), code: z.string().min(1) }),
  scale: TextScale,
  /** Factors tried in turn, largest first, until a text fits its slot. */
  steps: z.array(z.number().positive().max(1)).min(1),
  /** The smallest readable size in points on a page 540 points high; no step goes below it. */
  minimum: z.number().positive(),
  /** What is drawn behind the text: nothing, a rule under the title, or a coloured band on opening slides. */
  ornament: z.enum(["none", "rule", "band"]),
});
export type Theme = z.infer<typeof Theme>;

const scale = { opening: 50, title: 36, subtitle: 25, body: 28, statement: 44, number: 120, caption: 20, footer: 12 };
const steps = [1, 0.94, 0.88, 0.82, 0.76, 0.7, 0.64, 0.58];
const base = { scale, steps, minimum: 16 };

/** The themes that come with the program. */
export const THEMES = {
  saltmarsh: {
    ...base,
    name: "Salt marsh",
    colours: {
      paper: "#fbf9f4",
      ink: "#20302e",
      accent: "#0f5c63",
      second: "#7a2e57",
      muted: "#5d6a66",
      link: "#0f5c63",
    },
    fonts: { heading: "Literata", body: "Atkinson Hyperlegible Next", code: "JetBrains Mono" },
    ornament: "band",
  },
  foreshore: {
    ...base,
    name: "Foreshore",
    colours: {
      paper: "#ffffff",
      ink: "#1d2733",
      accent: "#9a5b13",
      second: "#1f5f8b",
      muted: "#5f6873",
      link: "#1f5f8b",
    },
    fonts: { heading: "Atkinson Hyperlegible Next", body: "Atkinson Hyperlegible Next", code: "JetBrains Mono" },
    ornament: "rule",
  },
  nightwatch: {
    ...base,
    name: "Night watch",
    colours: {
      paper: "#13211f",
      ink: "#f1ede2",
      accent: "#7cc6c4",
      second: "#e3a7c6",
      muted: "#a3b0ab",
      link: "#9fd8d6",
    },
    fonts: { heading: "Noto Sans", body: "Noto Sans", code: "JetBrains Mono" },
    ornament: "rule",
  },
  chalk: {
    ...base,
    name: "Chalk",
    colours: {
      paper: "#f4f4f0",
      ink: "#16181a",
      accent: "#16181a",
      second: "#b23a30",
      muted: "#595d60",
      link: "#b23a30",
    },
    fonts: { heading: "Literata", body: "Literata", code: "JetBrains Mono" },
    ornament: "none",
  },
} as const satisfies Record<string, Theme>;

export type ThemeKey = keyof typeof THEMES;
export const ThemeKey = z.enum(Object.keys(THEMES) as [ThemeKey, ...ThemeKey[]]);

/** Returns the key of the shipped theme that equals this one; undefined when it was changed or imported. */
export function themeKey(theme: Theme): ThemeKey | undefined {
  const written = JSON.stringify(Theme.parse(theme));
  return (Object.keys(THEMES) as ThemeKey[]).find((key) => JSON.stringify(Theme.parse(THEMES[key])) === written);
}
