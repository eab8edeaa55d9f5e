import {
  type Deck,
  type RichText,
  type RoleOverride,
  type Run,
  roleOf,
  type Slide,
  type TextElement,
} from "@unitext/core/model";
import type { SingleChange } from "./change";

/** What words set of their look that a role of the theme can set too. */
function overrideOf({ properties = {}, marks = [] }: Run, scale: number): RoleOverride {
  const { font, size, colour, caps } = properties;
  return {
    ...(font ? { font } : {}),
    ...(size ? { size: Math.min(400, Math.max(6, size / scale)) } : {}),
    ...(colour ? { colour } : {}),
    ...(marks.includes("strong") ? { strong: true } : {}),
    ...(marks.includes("emphasis") ? { italic: true } : {}),
    ...(caps === "all" ? { capitals: true } : {}),
  };
}

/** Returns a text whose words set nothing of what the theme now sets for them. */
function withoutOverride(text: RichText, override: RoleOverride): RichText {
  return text.map((paragraph) => ({
    ...paragraph,
    runs: paragraph.runs.map((run): Run => {
      const { properties = {}, marks = [], ...rest } = run;
      const { font, size, colour, caps, ...others } = properties;
      const left = {
        ...others,
        ...(font && !override.font ? { font } : {}),
        ...(size && !override.size ? { size } : {}),
        ...(colour && !override.colour ? { colour } : {}),
        ...(caps && !override.capitals ? { caps } : {}),
      };
      const kept = marks.filter(
        (mark) => !(mark === "strong" && override.strong) && !(mark === "emphasis" && override.italic),
      );
      return {
        ...rest,
        ...(kept.length ? { marks: kept } : {}),
        ...(Object.keys(left).length ? { properties: left } : {}),
      };
    }),
  }));
}

/**
 * Returns the changes that give all texts of a kind – all titles, all points – the look of the first words of one of them,
 * now and later. `scale` is how much larger the sizes of the theme are on the deck's page. Returns no change for a text
 * whose place has no kind, or whose words set nothing.
 */
export function makeTextsSo({ theme }: Deck, slide: Slide, element: TextElement, scale = 1): SingleChange[] {
  const role = roleOf(slide, element);
  const first = element.text.flatMap(({ runs }) => runs).find(({ text }) => text.trim() !== "");
  const override = first ? overrideOf(first, scale) : {};
  if (!role || !Object.keys(override).length) return [];
  const roles = { ...theme.roles, [role]: { ...theme.roles?.[role], ...override } };
  return [
    { kind: "setTheme", theme: { ...theme, roles } },
    { kind: "setText", slide: slide.id, element: element.id, text: withoutOverride(element.text, override) },
  ];
}
