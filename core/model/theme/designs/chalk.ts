import { colourSet, mixed } from "../colours";
import type { DesignDescriptor } from "../design";
import { box } from "../shapes";

export const chalk: DesignDescriptor = {
  label: "Chalk",
  description: "A printed page: headings in the margin, serif text in one column",
  fonts: "printed",
  colours: {
    light: colourSet("#7d2a25", "#2d5a6b", "light", { paper: "#faf8f3", ink: "#1c1a17" }),
    dark: colourSet("#c9786f", "#8fb7c6", "dark"),
  },
  mood: "light",
  scale: { title: 29, body: 26, opening: 54 },
  title: [56, 82, 236, 370],
  body: [336, 78, 568, 404],
  wide: { title: [56, 62, 848, 60], body: [56, 140, 848, 342] },
  titles: { anchor: "top" },
  slots: {
    opening: {
      title: { at: [140, 120, 680, 190], align: "centre" },
      subtitle: { at: [140, 348, 680, 100], align: "centre" },
    },
    section: {
      title: { at: [140, 150, 680, 150], align: "centre" },
      subtitle: { at: [140, 338, 680, 110], align: "centre" },
    },
    statement: { body: { at: [150, 90, 660, 350] } },
  },
  roles: { title: { italic: true, colour: "accent" }, statement: { italic: true }, subtitle: { italic: true } },
  bullets: ["•", "–"],
  table: "rules",
  decorate: ({ arrangement, colours: { ink, paper, accent }, width, height, x, y }) => {
    const grey = mixed(ink, paper, 0.55);
    const heads = [box(x(56), y(38), width - 2 * x(56), 2, ink), box(x(56), y(43), width - 2 * x(56), 0.75, ink)];
    if (arrangement === "blank") return { shapes: [] };
    if (arrangement === "opening" || arrangement === "section") {
      const middle = y(arrangement === "opening" ? 329 : 319);
      return {
        shapes: [
          ...heads,
          box(x(56), height - y(44), width - 2 * x(56), 0.75, ink),
          box(x(56), height - y(40), width - 2 * x(56), 2, ink),
          box(width / 2 - 36, middle, 72, 1, accent),
        ],
      };
    }
    const beside = arrangement === "points" || arrangement === "references" || arrangement === "formula";
    return { shapes: beside ? [...heads, box(x(313), y(80), 0.75, y(402), grey)] : heads };
  },
};
