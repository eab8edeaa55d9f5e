import { colourSet, mixed } from "../colours";
import type { DesignDescriptor } from "../design";
import { box, ground, wave } from "../shapes";

export const saltmarsh: DesignDescriptor = {
  label: "Salt marsh",
  description: "Editorial: serif titles on warm paper, openings under a rising tide",
  fonts: "bookish",
  colours: {
    light: colourSet("#0f5c63", "#8a2f5f", "light", { paper: "#fbf9f4" }),
    dark: colourSet("#2f8d92", "#d98ab4", "dark"),
  },
  mood: "light",
  title: [64, 40, 832, 86],
  body: [64, 146, 832, 336],
  slots: {
    opening: { title: { at: [72, 90, 760, 190] }, subtitle: { at: [72, 304, 700, 90] } },
    section: { title: { at: [72, 90, 760, 190] }, subtitle: { at: [72, 304, 760, 100] } },
    statement: { body: { at: [110, 70, 740, 380], align: "start" } },
  },
  onField: ["opening", "section", "statement"],
  bullets: ["•", "–"],
  decorate: ({ arrangement, colours, width, height, y }) => {
    const { field, onField, accent } = colours;
    const water = (top: number, high: number, share: number, shift: number) =>
      ground(wave(width, y(top), high, 4, shift), height, mixed(field, onField, share));
    if (arrangement === "opening")
      return { shapes: [water(430, 14, 0.08, 0), water(462, 12, 0.15, 1.2), water(496, 10, 0.24, 2.1)] };
    if (arrangement === "section") return { shapes: [water(478, 10, 0.08, 0.6), water(506, 8, 0.18, 1.7)] };
    if (arrangement === "statement") return { shapes: [water(512, 6, 0.16, 1)] };
    return { shapes: [box(0, 0, 14, height, field), box(14, 0, 3, height, mixed(accent, colours.paper, 0.62))] };
  },
};
