import { colourSet, mixed } from "../colours";
import type { DesignDescriptor } from "../design";
import { polygon } from "../shapes";

export const regatta: DesignDescriptor = {
  label: "Regatta",
  description: "On the move: slanting fields, narrow capitals",
  fonts: "narrow",
  colours: {
    light: colourSet("#12508a", "#b8460e", "light", { paper: "#ffffff" }),
    dark: colourSet("#6fb1ea", "#ffa566", "dark"),
  },
  mood: "light",
  scale: { title: 42, opening: 68, statement: 54, number: 170, body: 28 },
  title: [64, 36, 740, 84],
  body: [64, 144, 832, 340],
  titles: { anchor: "middle" },
  slots: {
    opening: { title: { at: [64, 80, 560, 250], anchor: "bottom" }, subtitle: { at: [64, 346, 500, 120] } },
    section: { title: { at: [64, 80, 560, 250], anchor: "bottom" }, subtitle: { at: [64, 346, 520, 120] } },
    statement: { body: { at: [100, 70, 760, 390], align: "start" } },
  },
  onField: ["opening", "section", "statement"],
  roles: {
    title: { strong: true, capitals: true },
    opening: { strong: true, capitals: true },
    statement: { strong: true },
  },
  bullets: ["›", "–"],
  table: "filled",
  regions: {
    number: { at: [64, 504, 40, 20], align: "start", strong: true, colour: "accent" },
    footer: { at: [108, 504, 400, 20], align: "start", colour: "muted" },
  },
  decorate: ({ arrangement, colours: { paper, accent, second, field, onField }, width, height, x, y }) => {
    const on = (share: number) => mixed(field, onField, share);
    if (arrangement === "opening" || arrangement === "section")
      return {
        shapes: [
          polygon(
            [
              [x(690), 0],
              [width, 0],
              [width, height],
              [x(560), height],
            ],
            on(0.1),
          ),
          polygon(
            [
              [x(800), 0],
              [width, 0],
              [width, height],
              [x(670), height],
            ],
            mixed(field, second, 0.8),
          ),
          polygon(
            [
              [x(880), 0],
              [width, 0],
              [width, height],
              [x(750), height],
            ],
            on(0.88),
          ),
        ],
      };
    if (arrangement === "statement")
      return {
        shapes: [
          polygon(
            [
              [x(880), 0],
              [width, 0],
              [width, height],
              [x(750), height],
            ],
            on(0.07),
          ),
        ],
      };
    if (arrangement === "blank") return { shapes: [] };
    return {
      shapes: [
        polygon(
          [
            [x(846), 0],
            [x(884), 0],
            [x(852), y(120)],
            [x(814), y(120)],
          ],
          mixed(accent, paper, 0.72),
        ),
        polygon(
          [
            [x(894), 0],
            [x(932), 0],
            [x(900), y(120)],
            [x(862), y(120)],
          ],
          accent,
        ),
        polygon(
          [
            [x(942), 0],
            [width, 0],
            [width, y(52)],
            [x(942), y(120)],
            [x(910), y(120)],
          ],
          second,
        ),
      ],
    };
  },
};
