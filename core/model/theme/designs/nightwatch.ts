import { colourSet, mixed } from "../colours";
import type { DesignDescriptor } from "../design";
import { box, glow, ring } from "../shapes";

export const nightwatch: DesignDescriptor = {
  label: "Night watch",
  description: "For a dark hall: deep ground, light type, a glow on the horizon",
  fonts: "clear",
  colours: {
    light: colourSet("#1f6f78", "#b5493f", "light"),
    dark: colourSet("#5cc5c0", "#f0a35e", "dark", {
      paper: "#0d1b24",
      ink: "#f1ede2",
      field: "#0a1219",
      onField: "#f5f1e8",
    }),
  },
  mood: "dark",
  scale: { title: 38, body: 28 },
  title: [64, 44, 832, 82],
  body: [64, 148, 832, 334],
  slots: {
    opening: { title: { at: [64, 96, 800, 190] }, subtitle: { at: [64, 306, 760, 90] } },
    section: { title: { at: [64, 130, 800, 170] }, subtitle: { at: [64, 320, 760, 100] } },
  },
  onField: ["opening", "section", "statement", "number", "quotation"],
  roles: { opening: { strong: true }, number: { colour: "accent" } },
  bullets: ["•", "–"],
  decorate: ({ arrangement, colours: { paper, field, accent, second }, width, height, x, y }) => {
    if (arrangement === "opening")
      return {
        shapes: [
          glow(x(760), y(452), y(330), second, field, 0.5),
          box(0, y(452), width, height - y(452), mixed(field, second, 0.09)),
          box(0, y(452), width, 1.5, mixed(field, second, 0.6)),
          box(x(690), y(474), x(140), 2, mixed(field, second, 0.45)),
          box(x(716), y(494), x(88), 2, mixed(field, second, 0.32)),
        ],
      };
    if (arrangement === "section")
      return { shapes: [glow(x(860), y(120), y(300), accent, field, 0.42), box(x(64), y(310), x(90), 3, accent)] };
    if (arrangement === "statement" || arrangement === "number" || arrangement === "quotation")
      return { shapes: [glow(width / 2, height * 1.05, y(420), accent, field, 0.3)] };
    if (arrangement === "blank") return { shapes: [] };
    return {
      shapes: [
        glow(width, 0, y(260), accent, paper, 0.16),
        ring(x(905), y(34), 7, 2, mixed(accent, paper, 0.35)),
        box(x(64), y(134), x(56), 3, accent),
      ],
    };
  },
};
