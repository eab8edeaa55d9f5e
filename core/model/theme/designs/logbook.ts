import { colourSet, mixed } from "../colours";
import type { DesignDescriptor } from "../design";
import { box, disc, lines, polygon } from "../shapes";

export const logbook: DesignDescriptor = {
  label: "Log book",
  description: "A notebook: ruled paper, a red margin, handwritten titles",
  fonts: "handwritten",
  colours: {
    light: colourSet("#24537f", "#b3392f", "light", { paper: "#fffdf6", field: "#2a4a63" }),
    dark: colourSet("#82b2de", "#ef8f80", "dark"),
  },
  mood: "light",
  scale: { title: 40, opening: 58, statement: 48 },
  title: [128, 34, 768, 84],
  body: [128, 136, 768, 346],
  wide: { title: [128, 34, 768, 84], body: [128, 134, 768, 350] },
  area: [128, 36, 768, 448],
  slots: {
    opening: { title: { at: [128, 110, 760, 190], anchor: "bottom" }, subtitle: { at: [128, 320, 720, 120] } },
    section: { title: { at: [128, 130, 760, 170], anchor: "bottom" }, subtitle: { at: [128, 320, 720, 120] } },
  },
  roles: {
    title: { colour: "accent" },
    opening: { strong: true, colour: "accent" },
    statement: { colour: "accent" },
  },
  bullets: ["–", "·"],
  table: "rules",
  regions: { footer: { at: [128, 500, 620, 20], align: "start", colour: "muted" } },
  decorate: ({ arrangement, colours: { paper, accent, second, muted }, width, height, x, y }) => {
    const fine = mixed(accent, paper, 0.84);
    const rows = Array.from({ length: 12 }, (_, at) => y(128) + at * 34).filter((at) => at < height - 20);
    const ruled = lines(
      rows.map(
        (at) =>
          [
            [0, at],
            [width, at],
          ] as const,
      ),
      0.6,
      fine,
    );
    const margin = [box(x(98), 0, 1.25, height, mixed(second, paper, 0.4))];
    const holes = [y(90), height / 2, height - y(90)].map((at) => disc(x(40), at, 11, mixed(muted, paper, 0.72)));
    const fold = [
      polygon(
        [
          [width - 46, 0],
          [width, 0],
          [width, 46],
        ],
        mixed(muted, paper, 0.6),
      ),
      polygon(
        [
          [width - 46, 0],
          [width, 46],
          [width - 46, 46],
        ],
        mixed(muted, paper, 0.84),
      ),
    ];
    if (arrangement === "blank") return { shapes: [ruled] };
    const opens = arrangement === "opening" || arrangement === "section";
    const underline = lines(
      [
        [
          [x(128), y(308)],
          [x(128) + 240, y(305)],
        ],
        [
          [x(140), y(314)],
          [x(128) + 200, y(313)],
        ],
      ],
      2,
      second,
    );
    return { shapes: [ruled, ...margin, ...holes, ...fold, ...(opens ? [underline] : [])] };
  },
};
