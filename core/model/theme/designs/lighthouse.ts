import { colourSet, mixed } from "../colours";
import type { DesignDescriptor } from "../design";
import { box, disc, polygon } from "../shapes";

export const lighthouse: DesignDescriptor = {
  label: "Lighthouse",
  description: "A poster: huge type, fields of colour, one thing on a slide",
  fonts: "firm",
  colours: {
    light: colourSet("#c23b22", "#1d4e89", "light", { paper: "#fffaf5", field: "#b5341c", onField: "#fff8ef" }),
    dark: colourSet("#e8694f", "#7fb0e8", "dark", { field: "#8f2a18" }),
  },
  mood: "light",
  scale: { opening: 64, title: 40, statement: 56, number: 170, body: 28 },
  title: [56, 18, 848, 104],
  body: [56, 156, 848, 326],
  titles: { anchor: "middle", surface: "field" },
  slots: {
    opening: {
      title: { at: [56, 60, 640, 310], anchor: "bottom" },
      subtitle: { at: [56, 392, 560, 100] },
    },
    section: { title: { at: [56, 80, 640, 290], anchor: "bottom" }, subtitle: { at: [56, 392, 600, 100] } },
    statement: { body: { at: [56, 56, 848, 420], align: "start" } },
    number: {
      number: { at: [56, 60, 848, 240], align: "start" },
      caption: { at: [56, 316, 720, 140], align: "start" },
    },
  },
  onField: ["opening", "section", "statement", "number"],
  roles: {
    title: { strong: true },
    opening: { strong: true },
    statement: { strong: true },
    number: { colour: "ink" },
    caption: { colour: "ink" },
  },
  bullets: ["▪", "–"],
  table: "filled",
  regions: {
    footer: { at: [62, 504, 460, 20], align: "start" },
    header: { at: [530, 504, 220, 20], align: "end" },
  },
  decorate: ({ arrangement, colours: { field, onField }, width, height, x, y }) => {
    const beam = (share: number) => mixed(field, onField, share);
    if (arrangement === "opening" || arrangement === "section")
      return {
        shapes: [
          polygon(
            [
              [x(792), y(150)],
              [x(400), 0],
              [0, 0],
              [0, y(40)],
            ],
            beam(0.07),
          ),
          polygon(
            [
              [x(792), y(150)],
              [width, y(40)],
              [width, y(230)],
            ],
            beam(0.13),
          ),
          polygon(
            [
              [x(752), height],
              [x(772), y(176)],
              [x(812), y(176)],
              [x(832), height],
            ],
            beam(0.9),
          ),
          polygon(
            [
              [x(764.6), y(270)],
              [x(819.4), y(270)],
              [x(822.9), y(316)],
              [x(761.1), y(316)],
            ],
            beam(0.25),
          ),
          polygon(
            [
              [x(758), y(362)],
              [x(826), y(362)],
              [x(829.4), y(408)],
              [x(754.6), y(408)],
            ],
            beam(0.25),
          ),
          box(x(762), y(166), x(60), 10, beam(0.9)),
          disc(x(792), y(146), 20, beam(0.9)),
        ],
      };
    if (arrangement === "statement" || arrangement === "number")
      return {
        shapes: [
          polygon(
            [
              [width, 0],
              [width, height],
              [x(560), height],
            ],
            beam(0.07),
          ),
        ],
      };
    if (arrangement === "card" || arrangement === "corner" || arrangement === "blank" || arrangement === "quotation")
      return { shapes: [box(0, 0, width, y(14), field)] };
    return {
      shapes: [
        box(0, 0, width, y(134), field),
        polygon(
          [
            [width, 0],
            [width, y(134)],
            [x(780), y(134)],
          ],
          beam(0.08),
        ),
      ],
    };
  },
};
