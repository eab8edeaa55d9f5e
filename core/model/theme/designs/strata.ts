import { colourSet, mixed } from "../colours";
import type { DesignDescriptor } from "../design";
import { ground } from "../shapes";

export const strata: DesignDescriptor = {
  label: "Strata",
  description: "Layers of a cliff: bands of earth at the foot, high on openings",
  fonts: "clear",
  colours: {
    light: colourSet("#8a4b2a", "#2e6470", "light", { paper: "#fffdf9" }),
    dark: colourSet("#d1936a", "#7fb9c6", "dark"),
  },
  mood: "light",
  scale: { title: 36, opening: 52 },
  title: [64, 34, 832, 84],
  body: [64, 138, 832, 318],
  slots: {
    opening: { title: { at: [64, 60, 832, 140], anchor: "bottom" }, subtitle: { at: [64, 214, 800, 76] } },
    section: { title: { at: [64, 130, 832, 150], anchor: "bottom" }, subtitle: { at: [64, 296, 800, 100] } },
    statement: { body: { at: [110, 60, 740, 360] } },
    number: { number: { at: [64, 50, 832, 210] }, caption: { at: [140, 276, 680, 130] } },
    quotation: { body: { at: [110, 50, 740, 290] }, caption: { at: [110, 356, 740, 70] } },
  },
  roles: { title: { strong: true }, opening: { strong: true } },
  bullets: ["•", "–"],
  table: "bands",
  regions: {
    footer: { at: [64, 466, 680, 20], align: "start", colour: "muted" },
    number: { at: [796, 466, 100, 20], align: "end", colour: "muted" },
  },
  decorate: ({ arrangement, colours: { paper, accent, second }, width, height, y }) => {
    const layer = (top: number, colour: string, bend: number) =>
      ground(
        [0, 0.25, 0.5, 0.75, 1].map((part, at) => [width * part, y(top) + y(bend) * Math.sin(at * 1.7 + top)] as const),
        height,
        colour,
      );
    const earth = (share: number) => mixed(accent, paper, 1 - share);
    const colours = [earth(0.18), earth(0.36), mixed(second, paper, 0.45), earth(0.62), mixed(accent, "#000000", 0.35)];
    if (arrangement === "blank") return { shapes: [] };
    const [top, step, bend] =
      arrangement === "opening" ? [330, 44, 14] : arrangement === "section" ? [488, 11, 4] : [496, 10, 2.2];
    return { shapes: colours.map((colour, at) => layer(top + at * step, colour, bend)) };
  },
};
