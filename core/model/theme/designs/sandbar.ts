import { colourSet, mixed } from "../colours";
import type { DesignDescriptor } from "../design";
import { box } from "../shapes";

export const sandbar: DesignDescriptor = {
  label: "Sandbar",
  description: "A quiet gallery: much white, small capitals, hairlines",
  fonts: "reading",
  colours: {
    light: colourSet("#5b6770", "#9a6b2f", "light", { paper: "#ffffff", ink: "#23282c" }),
    dark: colourSet("#aab6bf", "#d9b27a", "dark"),
  },
  mood: "light",
  scale: { title: 22, body: 29, opening: 46, statement: 42, number: 150 },
  title: [96, 44, 768, 60],
  body: [96, 136, 768, 340],
  wide: { title: [64, 44, 832, 60], body: [64, 130, 832, 352] },
  titles: { anchor: "top" },
  area: [96, 44, 768, 440],
  slots: {
    opening: { title: { at: [96, 220, 700, 170], anchor: "bottom" }, subtitle: { at: [96, 416, 700, 70] } },
    section: { title: { at: [96, 180, 700, 150], anchor: "bottom" }, subtitle: { at: [96, 356, 700, 110] } },
    statement: { body: { at: [150, 90, 660, 350] } },
  },
  roles: {
    title: { capitals: true, spacing: 0.09, colour: "muted", strong: true },
    statement: { font: "body" },
    number: { font: "body", strong: false, colour: "ink" },
  },
  bullets: ["–", "·"],
  table: "rules",
  decorate: ({ arrangement, colours: { muted, paper, second }, width, height, x, y }) => {
    const hair = mixed(muted, paper, 0.6);
    if (arrangement === "blank") return { shapes: [] };
    if (arrangement === "opening" || arrangement === "section") {
      const at = y(arrangement === "opening" ? 403 : 343);
      return { shapes: [box(x(96), at, x(48), 1.5, second), box(x(60), y(44), 0.75, height - y(88), hair)] };
    }
    return { shapes: [box(x(96), y(506), width - 2 * x(96), 0.75, hair)] };
  },
};
