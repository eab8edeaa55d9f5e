import { colourSet, mixed } from "../colours";
import type { DesignDescriptor } from "../design";
import { card, disc, ring } from "../shapes";

export const tidepool: DesignDescriptor = {
  label: "Tide pool",
  description: "For a school: large rounded type on cards, cheerful bubbles",
  fonts: "cheerful",
  colours: {
    light: colourSet("#0b7a75", "#c2410c", "light", { field: "#0b6e7a", onField: "#ffffff" }),
    dark: colourSet("#3fc1b8", "#ffa45c", "dark"),
  },
  mood: "light",
  scale: { title: 40, opening: 60, body: 28, number: 150 },
  title: [48, 24, 800, 84],
  body: [84, 142, 792, 322],
  titles: { anchor: "middle" },
  slots: {
    opening: { title: { at: [80, 100, 640, 220], anchor: "bottom" }, subtitle: { at: [80, 336, 600, 110] } },
    section: { title: { at: [80, 110, 640, 210], anchor: "bottom" }, subtitle: { at: [80, 336, 600, 110] } },
    statement: { body: { at: [120, 80, 720, 360] } },
    number: { number: { at: [84, 70, 792, 220] }, caption: { at: [160, 306, 640, 130] } },
    quotation: { body: { at: [110, 70, 740, 280] }, caption: { at: [110, 366, 740, 76] } },
  },
  onField: ["opening", "section"],
  roles: {
    title: { strong: true, colour: "accent" },
    opening: { strong: true },
    statement: { strong: true, colour: "accent" },
  },
  bullets: ["•", "–"],
  table: "filled",
  regions: {
    header: { at: [48, 8, 560, 16], align: "start", colour: "ink" },
    footer: { at: [62, 500, 700, 20], align: "start", colour: "ink" },
    number: { at: [798, 500, 100, 20], align: "end", colour: "ink" },
  },
  decorate: ({ arrangement, colours: { paper, accent, second, field, onField }, width, x, y, height }) => {
    const on = (share: number) => mixed(field, onField, share);
    if (arrangement === "opening" || arrangement === "section")
      return {
        shapes: [
          disc(x(850), y(120), y(130), mixed(field, second, 0.75)),
          disc(x(740), y(420), y(90), on(0.2)),
          disc(x(900), y(400), y(54), on(0.34)),
          ring(x(700), y(70), y(34), 6, on(0.4)),
          disc(x(820), y(296), y(20), on(0.55)),
          ...(arrangement === "opening" ? [disc(x(40), y(510), y(60), on(0.12))] : []),
        ],
      };
    const tint = mixed(accent, paper, 0.86);
    const bubbles = [
      disc(x(900), y(52), y(26), mixed(second, paper, 0.25)),
      ring(x(858), y(30), y(11), 4, mixed(accent, paper, 0.25)),
      disc(x(940), y(96), y(10), mixed(accent, paper, 0.35)),
    ];
    if (arrangement === "blank") return { fill: { kind: "solid", colour: tint }, shapes: [] };
    const isWhole = ["statement", "number", "quotation", "card", "corner"].includes(arrangement);
    const top = isWhole ? 40 : 120;
    return {
      fill: { kind: "solid", colour: tint },
      shapes: [...(isWhole ? [] : bubbles), card(x(48), y(top), width - 2 * x(48), height - y(top + 56), 24, paper)],
    };
  },
};
