import { colourSet, mixed } from "../colours";
import type { DesignDescriptor } from "../design";
import { box } from "../shapes";

export const foreshore: DesignDescriptor = {
  label: "Foreshore",
  description: "A sober report: the headline over a rule, sources at the foot",
  fonts: "firm",
  colours: {
    light: colourSet("#1f4f7a", "#a8501e", "light", { paper: "#ffffff" }),
    dark: colourSet("#4f86b8", "#e0955f", "dark"),
  },
  mood: "light",
  scale: { title: 32, opening: 56, body: 26 },
  title: [56, 30, 848, 78],
  body: [56, 134, 848, 350],
  titles: { anchor: "middle" },
  slots: {
    opening: {
      title: { at: [56, 120, 780, 170], anchor: "top" },
      subtitle: { at: [56, 330, 700, 110], anchor: "bottom" },
    },
    section: { title: { at: [56, 150, 780, 150], anchor: "top" }, subtitle: { at: [56, 320, 780, 120] } },
    statement: { body: { at: [104, 90, 780, 340], align: "start" } },
    number: {
      number: { at: [56, 70, 848, 220], align: "start" },
      caption: { at: [56, 316, 760, 130], align: "start" },
    },
  },
  roles: { title: { strong: true }, opening: { strong: true }, statement: { strong: true } },
  bullets: ["▪", "–"],
  table: "rules",
  decorate: ({ arrangement, colours: { accent, muted, paper, second }, width, x, y }) => {
    const hair = mixed(muted, paper, 0.55);
    const foot = box(x(56), y(496), width - 2 * x(56), 0.75, hair);
    if (arrangement === "opening")
      return { shapes: [box(x(56), y(84), x(120), 8, second), box(0, y(496), width, y(44), accent)] };
    if (arrangement === "section")
      return { shapes: [box(0, 0, width, y(18), accent), box(x(56), y(114), x(120), 8, second), foot] };
    if (arrangement === "statement" || arrangement === "quotation")
      return { shapes: [box(x(56), y(100), 10, y(320), accent), foot] };
    if (arrangement === "number" || arrangement === "card" || arrangement === "corner" || arrangement === "blank")
      return { shapes: [foot] };
    return { shapes: [box(x(56), y(112), width - 2 * x(56), 2, accent), foot] };
  },
};
