import { cssFamily, familyNamed, placeTheme, roleAppearance, slotPlaces } from "@unitext/core/layout";
import type { Deck, Slide } from "@unitext/core/model";

/** Returns the font and the colours of the text of a table on a slide, for editing its cells over the drawing. */
export function tableFont(
  deck: Deck,
  slide: Slide,
): { family: string; css: string; colour: string; background: string } {
  const surface = slotPlaces(slide.arrangement, deck, slide.widths).get("table")?.surface;
  const theme = placeTheme(slide, surface, deck);
  const { family, faces } = familyNamed(roleAppearance("figure", theme).family);
  const regular = faces.filter(({ slant, weight }) => slant === "normal" && (weight === 400 || weight === 700));
  return {
    family,
    css: `${regular.map(({ id }) => `"${cssFamily(id)}"`).join(", ")}, sans-serif`,
    colour: theme.colours.ink,
    background: theme.colours.paper,
  };
}
