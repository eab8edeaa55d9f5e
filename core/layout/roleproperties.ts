import type { SlotRole, Theme, ThemeColours } from "@unitext/core/model";
import { type FontSet, faceFor, familyNamed } from "./fonts";
import { LINE_HEIGHT, PARAGRAPH_GAP } from "./slots";
import { HEADING } from "./textstyle";

/**
 * The appearance of text of a role in terms that a file can express: the theme's font, a colour by its name in the
 * theme, and spacing.
 */
export interface RoleProperties {
  font: "heading" | "body";
  colour: keyof ThemeColours & ("ink" | "muted" | "accent");
  strong: boolean;
  /** Line height as a multiple of the font's natural one. */
  line: number;
  /** Space before a paragraph that follows another, in em. */
  gap: number;
}

const COLOUR: Partial<Record<SlotRole, RoleProperties["colour"]>> = {
  number: "accent",
  subtitle: "muted",
  caption: "muted",
};

/** Returns the default text colour of a role. */
export const roleColour = (role: SlotRole): RoleProperties["colour"] => COLOUR[role] ?? "ink";

const looks = new WeakMap<Theme, Map<SlotRole, RoleProperties>>();

/** Returns the appearance of text of a role in a theme, for programs that know nothing of roles. */
export function roleProperties(role: SlotRole, theme: Theme, fonts: FontSet): RoleProperties {
  const held = looks.get(theme) ?? new Map<SlotRole, RoleProperties>();
  looks.set(theme, held);
  const known = held.get(role);
  if (known) return known;
  const font = HEADING.has(role) ? "heading" : "body";
  const strong = role === "number";
  const { line } = fonts.face(faceFor(familyNamed(theme.fonts[font]), 0x61, strong, false, "").id).metrics;
  const look: RoleProperties = {
    font,
    colour: roleColour(role),
    strong,
    line: LINE_HEIGHT[role] / line,
    gap: PARAGRAPH_GAP[role],
  };
  held.set(role, look);
  return look;
}
