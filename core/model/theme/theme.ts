import { z } from "zod";
import { SLOT_ROLES } from "../arrangement";
import { Asset } from "../asset";
import { CellBorders, Fill, Shadow, Stroke } from "../look";
import { Colour } from "../units";
import { DESIGN_NAMES } from "./names";

/**
 * Colours by role: `paper` behind, `ink` for text, `accent` and `second` for emphasis, `muted` for what is quiet, `link`
 * for links; `field` fills openings and panels, `onField` is the text on it.
 */
export const ThemeColours = z.object({
  paper: Colour,
  ink: Colour,
  accent: Colour,
  second: Colour,
  muted: Colour,
  link: Colour,
  field: Colour,
  onField: Colour,
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
export type TextScale = z.infer<typeof TextScale>;

export const DesignName = z.enum(DESIGN_NAMES);
export type DesignName = z.infer<typeof DesignName>;

/** How all text of a role looks in a deck, where that differs from the design. The size is in points, as in `scale`. */
export const RoleOverride = z.object({
  size: z.number().min(6).max(400).optional(),
  colour: Colour.optional(),
  font: z.string().min(1).max(200).optional(),
  strong: z.boolean().optional(),
  italic: z.boolean().optional(),
  capitals: z.boolean().optional(),
});
export type RoleOverride = z.infer<typeof RoleOverride>;

export const LOGO_CORNERS = ["top-left", "top-right", "bottom-left", "bottom-right"] as const;

/**
 * A logo on every slide: the picture, named by its content, its corner, and its height in points on a page 540 points high.
 * The asset is kept here too, so that the theme can be put on other decks.
 */
export const Logo = z.object({
  source: z.string().min(1).max(1000),
  asset: Asset,
  at: z.enum(LOGO_CORNERS),
  height: z.number().min(8).max(200),
  alt: z.string().max(500),
});
export type Logo = z.infer<typeof Logo>;

/** How all boxes or pictures of a deck look: their fill, outline and shadow. */
export const ElementOverride = z.object({
  fill: Fill.optional(),
  stroke: Stroke.optional(),
  shadow: Shadow.optional(),
});
export type ElementOverride = z.infer<typeof ElementOverride>;

/** How all header cells or all other cells of a deck look. */
export const CellOverride = z.object({ fill: Fill.optional(), borders: CellBorders.optional() });
export type CellOverride = z.infer<typeof CellOverride>;

export const Theme = z.object({
  name: z.string().min(1).max(80),
  /** Where things are, how text looks, and what is drawn behind it. */
  design: DesignName,
  colours: ThemeColours,
  fonts: z.object({ heading: z.string().min(1), body: z.string().min(1), code: z.string().min(1) }),
  scale: TextScale,
  /** Factors tried in turn, largest first, until a text fits its slot. */
  steps: z.array(z.number().positive().max(1)).min(1),
  /** The smallest readable size in points on a page 540 points high; no step goes below it. */
  minimum: z.number().positive(),
  /** The space between paragraphs as a factor of the usual; 1 unless given. */
  spacing: z.number().min(0).max(5).optional(),
  logo: Logo.optional(),
  /** The lines at the foot and at the top that decks get with a saved theme. */
  lines: z.object({ footer: z.string().max(300), header: z.string().max(300) }).optional(),
  roles: z.partialRecord(z.enum(SLOT_ROLES), RoleOverride).optional(),
  /** The look that a person gave all boxes, pictures, header cells and other cells of the deck. */
  kinds: z
    .object({
      shape: ElementOverride,
      picture: ElementOverride,
      header: CellOverride,
      cell: CellOverride,
    })
    .partial()
    .optional(),
});
export type Theme = z.infer<typeof Theme>;
