import { colourSet, mixed } from "../colours";
import type { DesignDescriptor } from "../design";
import { box } from "../shapes";

export const seawall: DesignDescriptor = {
  label: "Sea wall",
  description: "A bold index: slide numbers as large as the edge, heavy titles, black on white",
  fonts: "firm",
  colours: {
    light: colourSet("#b3261e", "#1f4e79", "light", {
      paper: "#ffffff",
      ink: "#101114",
      field: "#101114",
      onField: "#ffffff",
    }),
    dark: colourSet("#ff7d70", "#8fbce6", "dark", { paper: "#141519", field: "#000000", onField: "#ffffff" }),
  },
  mood: "light",
  scale: { title: 40, opening: 66, statement: 52, number: 180 },
  title: [168, 30, 736, 98],
  body: [168, 150, 736, 334],
  wide: { title: [168, 30, 736, 98], body: [168, 146, 736, 340] },
  titles: { anchor: "middle" },
  area: [168, 36, 736, 448],
  slots: {
    opening: { title: { at: [56, 70, 848, 290], anchor: "bottom" }, subtitle: { at: [56, 392, 760, 90] } },
    section: { title: { at: [168, 80, 736, 250], anchor: "bottom" }, subtitle: { at: [168, 350, 720, 120] } },
    statement: { body: { at: [168, 60, 736, 410], align: "start" } },
    number: {
      number: { at: [168, 60, 736, 240], align: "start" },
      caption: { at: [168, 316, 700, 140], align: "start" },
    },
  },
  onField: ["opening", "section"],
  roles: {
    title: { strong: true },
    opening: { strong: true },
    statement: { strong: true },
    body: {},
  },
  bullets: ["▪", "–"],
  table: "filled",
  regions: {
    footer: { at: [168, 502, 640, 20], align: "start", colour: "muted" },
    number: { at: [0, 28, 132, 104], align: "centre", size: 64, font: "heading", strong: true, surface: "field" },
  },
  decorate: ({ arrangement, colours: { accent, field, onField }, width, height, x, y }) => {
    if (arrangement === "blank") return { shapes: [] };
    if (arrangement === "opening")
      return { shapes: [box(x(56), y(374), x(180), 12, accent), box(0, height - y(20), width, y(20), accent)] };
    if (arrangement === "section")
      return {
        shapes: [box(0, 0, x(132), height, mixed(field, onField, 0.12)), box(x(168), y(338), x(120), 8, accent)],
      };
    return { shapes: [box(0, 0, x(132), height, field), box(x(132), 0, x(6), height, accent)] };
  },
};
