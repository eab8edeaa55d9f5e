import { colourSet, mixed } from "../colours";
import type { DesignDescriptor } from "../design";
import { box, disc } from "../shapes";

/** The arrangements whose title is on the panel at the side. */
const ON_PANEL = ["points", "references", "picture", "formula", "title", "message", "fact"];

export const harbour: DesignDescriptor = {
  label: "Harbour",
  description: "A magazine: the title on a panel of colour at the side",
  fonts: "bookish",
  colours: {
    light: colourSet("#1e4a5f", "#b0562a", "light", { paper: "#fdfcf9" }),
    dark: colourSet("#6aa5bf", "#e39b6c", "dark"),
  },
  mood: "light",
  scale: { title: 32, opening: 52, body: 26 },
  title: [32, 62, 240, 380],
  body: [340, 60, 572, 424],
  wide: { title: [72, 32, 836, 80], body: [72, 134, 836, 350] },
  titles: { anchor: "top", surface: "field" },
  slots: {
    opening: { title: { at: [400, 110, 500, 210], anchor: "bottom" }, subtitle: { at: [400, 342, 500, 120] } },
    section: { title: { at: [400, 110, 500, 210], anchor: "bottom" }, subtitle: { at: [400, 342, 500, 120] } },
    ...Object.fromEntries(
      (["comparison", "columns", "highlight", "table", "chart", "diagram", "code", "pictures"] as const).map((name) => [
        name,
        { title: { surface: "paper", anchor: "middle" } as const },
      ]),
    ),
  },
  onField: ["statement"],
  bullets: ["•", "–"],
  table: "bands",
  regions: {
    header: { at: [452, 14, 460, 18], align: "end" },
    footer: { at: [340, 504, 440, 20], align: "start", colour: "muted" },
    number: { at: [812, 504, 100, 20], align: "end", colour: "muted" },
  },
  decorate: ({ arrangement, colours: { paper, field, onField, second, accent }, width, height, x, y }) => {
    const rings = (cx: number, cy: number, radii: readonly number[]) =>
      radii.map((radius, at) => disc(cx, cy, radius, mixed(field, onField, 0.07 + at * 0.09)));
    if (arrangement === "opening" || arrangement === "section")
      return {
        shapes: [
          box(0, 0, x(340), height, field),
          ...rings(
            x(170),
            y(270),
            [150, 108, 66].map((radius) => Math.min(y(radius), x(radius))),
          ),
          disc(x(170), y(270), Math.min(y(30), x(30)), mixed(field, second, 0.85)),
          box(x(400), y(330), x(72), 3, second),
        ],
      };
    if (ON_PANEL.includes(arrangement))
      return {
        shapes: [box(0, 0, x(300), height, field), box(x(32), y(44), x(56), 4, mixed(second, onField, 0.35))],
      };
    if (arrangement === "statement" || arrangement === "blank") return { shapes: [] };
    const edge = box(0, 0, x(32), height, field);
    if (["number", "quotation", "card", "corner"].includes(arrangement)) return { shapes: [edge] };
    return { shapes: [edge, box(x(72), y(118), width - x(124), 0.75, mixed(accent, paper, 0.5))] };
  },
};
