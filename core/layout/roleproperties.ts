import type { SlotRole, Theme, ThemeColours } from "@unitext/core/model";
import { type FontSet, faceFor, familyNamed } from "./fonts";
import { LINE_HEIGHT, PARAGRAPH_GAP } from "./slots";
import { HEADING } from "./textstyle";

/** How text of a role looks, as a file can say it: the font of the theme, the colour by its name there, and the room around lines. */
export interface RoleProperties {
  font: "heading" | "body";
  colour: keyof ThemeColours & ("ink" | "muted" | "accent");
  strong: boolean;
  /** The height of a line as a multiple of what the font asks for. */
  line: number;
  /** Room before a paragraph that follows another, in em. */
  gap: number;
}

const COLOUR: Partial<Record<SlotRole, RoleProperties["colour"]>> = {
  number: "accent",
  subtitle: "muted",
  caption: "muted",
};

/** The colour that the words of a role have where nothing else says one. */
export const roleColour = (role: SlotRole): RoleProperties["colour"] => COLOUR[role] ?? "ink";

const looks = new WeakMap<Theme, Map<SlotRole, RoleProperties>>();

/** How text of a role looks in a theme: for programs that know nothing of roles. */
export function roleProperties(role: SlotRole, theme: Theme, fonts: FontSet): RoleProperties {
  const held = looks.get(theme) ?? new Map<SlotRole, RoleProperties>();
  looks.set(theme, held);
  const known = held.get(role);
  if (known) return known;
  const font = HEADING.has(role) ? "heading" : "body";
  const strong = role === "number";
  const { line } = fonts.face(faceFor(familyNamed(theme.fonts[font]), 0x61, strong, false).id).metrics;
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
