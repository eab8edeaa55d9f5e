import { colourSet, mixed } from "../colours";
import type { DesignDescriptor } from "../design";
import { border, box, polygon } from "../shapes";

export const boathouse: DesignDescriptor = {
  label: "Boathouse",
  description: "Framed and centred: a painted border, titles in the middle",
  fonts: "sturdy",
  colours: {
    light: colourSet("#5a2f5e", "#2e6b4f", "light", { paper: "#fbf8f6" }),
    dark: colourSet("#b98abf", "#86c4a4", "dark"),
  },
  mood: "light",
  scale: { title: 34, opening: 50, body: 26 },
  title: [84, 44, 792, 72],
  body: [100, 154, 760, 318],
  wide: { title: [84, 44, 792, 72], body: [64, 152, 832, 324] },
  titles: { anchor: "middle", align: "centre" },
  area: [84, 44, 792, 430],
  slots: {
    opening: {
      title: { at: [120, 90, 720, 190], align: "centre", anchor: "bottom" },
      subtitle: { at: [120, 322, 720, 120], align: "centre" },
    },
    section: {
      title: { at: [120, 110, 720, 170], align: "centre", anchor: "bottom" },
      subtitle: { at: [120, 322, 720, 120], align: "centre" },
    },
  },
  onField: ["opening", "section"],
  roles: { title: { strong: true }, opening: { strong: true } },
  bullets: ["•", "–"],
  table: "bands",
  regions: {
    header: { at: [200, 24, 560, 16], align: "centre" },
    footer: { at: [64, 484, 660, 20], align: "start", colour: "muted" },
    number: { at: [796, 484, 100, 20], align: "end", colour: "muted" },
  },
  decorate: ({ arrangement, colours: { paper, accent, field, onField, second }, width, height, y }) => {
    const knot = (at: number, colour: string, line: string) => [
      box(width / 2 - 110, at - 0.5, 90, 1, line),
      box(width / 2 + 20, at - 0.5, 90, 1, line),
      polygon(
        [
          [width / 2, at - 7],
          [width / 2 + 7, at],
          [width / 2, at + 7],
          [width / 2 - 7, at],
        ],
        colour,
      ),
    ];
    if (arrangement === "blank") return { shapes: [] };
    if (arrangement === "opening" || arrangement === "section") {
      const line = mixed(field, onField, 0.5);
      return {
        shapes: [
          border(20, 20, width - 40, height - 40, 2, line),
          border(28, 28, width - 56, height - 56, 0.75, line),
          ...knot(y(301), mixed(field, onField, 0.8), line),
        ],
      };
    }
    const hasTitle = !["statement", "number", "quotation", "card", "corner"].includes(arrangement);
    return {
      shapes: [
        border(0, 0, width, height, 14, field),
        border(20, 20, width - 40, height - 40, 0.75, mixed(accent, paper, 0.4)),
        ...(hasTitle ? knot(y(128), second, mixed(accent, paper, 0.45)) : []),
      ],
    };
  },
};
