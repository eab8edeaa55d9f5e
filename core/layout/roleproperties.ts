import { DESIGNS, readableOn, type RoleStyle, type SlotRole, type Theme } from "@unitext/core/model";
import { type FontSet, faceFor, familyNamed } from "./fonts";
import { LINE_HEIGHT, paragraphGap } from "./slots";

/** How text of a role is set in a theme, with its font family and its colour. */
export interface RoleAppearance extends Required<RoleStyle> {
  family: string;
  fill: string;
  /** Whether the deck gives the role a font or a colour of its own. */
  hasOwnFont: boolean;
  hasOwnColour: boolean;
}

/**
 * The appearance of text of a role in terms that a file can express: the theme's font, a colour by its name in the
 * theme, and spacing.
 */
export interface RoleProperties extends RoleAppearance {
  /** Line height as a multiple of the font's natural one. */
  line: number;
  /** Space before a paragraph that follows another, in em. */
  gap: number;
}

const USUAL: Required<RoleStyle> = {
  font: "body",
  colour: "ink",
  strong: false,
  italic: false,
  capitals: false,
  spacing: 0,
};

/** The least contrast of a colour that a person has chosen: that of large text (WCAG 2.2, 1.4.3). */
const LARGE_CONTRAST = 3;

/** How roles are set where the design says nothing else. */
const BY_ROLE: { readonly [R in SlotRole]?: RoleStyle } = {
  opening: { font: "heading" },
  title: { font: "heading" },
  statement: { font: "heading" },
  name: { font: "heading" },
  number: { font: "heading", strong: true, colour: "accent" },
  subtitle: { colour: "muted" },
  caption: { colour: "muted" },
};

const appearances = new WeakMap<Theme, Map<SlotRole, RoleAppearance>>();

/** Returns how text of a role is set in a theme. */
export function roleAppearance(role: SlotRole, theme: Theme): RoleAppearance {
  const held = appearances.get(theme) ?? new Map<SlotRole, RoleAppearance>();
  appearances.set(theme, held);
  const known = held.get(role);
  if (known) return known;
  const { font, colour, strong, italic, capitals } = theme.roles?.[role] ?? {};
  const design: Required<RoleStyle> = { ...USUAL, ...BY_ROLE[role], ...DESIGNS[theme.design].roles?.[role] };
  const style: Required<RoleStyle> = {
    ...design,
    strong: strong ?? design.strong,
    italic: italic ?? design.italic,
    capitals: capitals ?? design.capitals,
  };
  const { colours, fonts } = theme;
  const made = {
    ...style,
    family: font ?? fonts[style.font],
    // A colour that was chosen on paper may have to be read on a field.
    fill: colour ? readableOn(colour, colours.paper, LARGE_CONTRAST) : colours[style.colour],
    hasOwnFont: font !== undefined,
    hasOwnColour: colour !== undefined,
  };
  held.set(role, made);
  return made;
}

const properties = new WeakMap<Theme, Map<SlotRole, RoleProperties>>();

/** Returns the appearance of text of a role in a theme, for programs that know nothing of roles. */
export function roleProperties(role: SlotRole, theme: Theme, fonts: FontSet): RoleProperties {
  const held = properties.get(theme) ?? new Map<SlotRole, RoleProperties>();
  properties.set(theme, held);
  const known = held.get(role);
  if (known) return known;
  const appearance = roleAppearance(role, theme);
  const family = familyNamed(appearance.family);
  const { line } = fonts.face(faceFor(family, 0x61, appearance.strong, false, "").id).metrics;
  const made = { ...appearance, line: LINE_HEIGHT[role] / line, gap: paragraphGap(role, theme) };
  held.set(role, made);
  return made;
}
