import { contrast } from "./colours";
import type { DesignName } from "./theme";
import { designTheme } from "./themes";

/** The fonts of the themes that came with the program up to version 4 of stored data, by the name of the theme. */
const FORMER: Readonly<Record<string, { design: DesignName; fonts: string }>> = {
  "Salt marsh": { design: "saltmarsh", fonts: "Literata/Atkinson Hyperlegible Next" },
  Foreshore: { design: "foreshore", fonts: "Atkinson Hyperlegible Next/Atkinson Hyperlegible Next" },
  "Night watch": { design: "nightwatch", fonts: "Noto Sans/Noto Sans" },
  Chalk: { design: "chalk", fonts: "Literata/Literata" },
};

/** The designs that take the place of former ornaments. */
const BY_ORNAMENT: Readonly<Record<string, DesignName>> = { band: "saltmarsh", rule: "foreshore", none: "plain" };

/**
 * Gives former themes a design in place of their ornament, and the colours of fields. Themes that came with the program
 * become the present ones; those from files keep their fonts, colours and sizes. Everything else stays as it is.
 */
export function withDesigns(value: unknown): unknown {
  if (typeof value !== "object" || value === null) return value;
  if (Array.isArray(value)) {
    const list = value.map(withDesigns);
    return list.some((one, at) => one !== value[at]) ? list : value;
  }
  const held = value as Record<string, unknown>;
  if (typeof held.ornament === "string" && "colours" in held && "scale" in held) return withDesign(held);
  const entries = Object.entries(held).map(([key, one]) => [key, withDesigns(one)] as const);
  return entries.some(([key, one]) => one !== held[key]) ? Object.fromEntries(entries) : value;
}

function withDesign({ ornament, ...theme }: Record<string, unknown>): unknown {
  const { name, fonts, colours } = theme as {
    name: string;
    fonts: Record<string, string>;
    colours: Record<string, string>;
  };
  const former = FORMER[name];
  if (former && former.fonts === `${fonts.heading}/${fonts.body}`) return designTheme(former.design);
  const { accent = "", paper = "", ink = "" } = colours;
  const onField = contrast(paper, accent) > contrast(ink, accent) ? paper : ink;
  return {
    ...theme,
    design: former?.design ?? BY_ORNAMENT[String(ornament)] ?? "plain",
    colours: { ...colours, field: accent, onField },
  };
}
