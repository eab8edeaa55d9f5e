import { colourSet, mixed } from "../colours";
import type { DesignDescriptor } from "../design";
import { blob, box, disc, ground } from "../shapes";

export const driftwood: DesignDescriptor = {
  label: "Driftwood",
  description: "A picture book: large pictures to the edges, soft shapes, warm type",
  fonts: "warm",
  colours: {
    light: colourSet("#9c4f2e", "#3f6f5f", "light", { paper: "#fdf6ec" }),
    dark: colourSet("#d08a5f", "#8fc3ad", "dark"),
  },
  mood: "light",
  scale: { title: 38, opening: 54 },
  title: [72, 40, 816, 84],
  body: [72, 146, 816, 336],
  slots: {
    opening: { title: { at: [72, 214, 816, 150], anchor: "bottom" }, subtitle: { at: [72, 384, 760, 100] } },
    section: { title: { at: [300, 130, 600, 170], anchor: "bottom" }, subtitle: { at: [300, 320, 600, 110] } },
    picture: {
      picture: { at: [0, 0, 960, 380] },
      title: { at: [72, 390, 816, 52], anchor: "middle" },
      caption: { at: [72, 444, 816, 46], align: "start", anchor: "top" },
    },
    statement: { body: { at: [130, 80, 700, 350] } },
  },
  roles: { title: { strong: true }, opening: { strong: true } },
  bullets: ["•", "◦"],
  table: "bands",
  regions: {
    footer: { at: [62, 504, 440, 20], align: "start" },
    header: { at: [520, 504, 260, 20], align: "end", colour: "ink" },
  },
  decorate: ({ arrangement, colours: { paper, accent, second, field }, width, height, x, y }) => {
    const tint = (colour: string, share: number) => mixed(colour, paper, 1 - share);
    const hill = (points: [number, number][], bottom: number, colour: string) =>
      ground(
        points.map(([px, py]) => [x(px), y(py)] as const),
        y(bottom),
        colour,
      );
    if (arrangement === "opening")
      return {
        shapes: [
          box(0, 0, width, y(200), tint(second, 0.2)),
          disc(x(748), y(74), y(40), tint(accent, 0.55)),
          hill(
            [
              [0, 120],
              [180, 84],
              [420, 140],
              [700, 96],
              [960, 130],
            ],
            200,
            tint(second, 0.42),
          ),
          hill(
            [
              [0, 168],
              [260, 132],
              [520, 176],
              [760, 146],
              [960, 172],
            ],
            200,
            tint(second, 0.75),
          ),
          hill(
            [
              [0, 190],
              [300, 182],
              [640, 194],
              [960, 186],
            ],
            200,
            field,
          ),
        ],
      };
    if (arrangement === "section")
      return {
        shapes: [
          blob(
            [
              [x(-60), y(80)],
              [x(180), y(60)],
              [x(240), y(270)],
              [x(150), y(470)],
              [x(-60), y(480)],
            ],
            tint(accent, 0.75),
          ),
          blob(
            [
              [x(-40), y(220)],
              [x(120), y(210)],
              [x(170), y(350)],
              [x(60), y(500)],
              [x(-60), y(470)],
            ],
            tint(second, 0.8),
          ),
        ],
      };
    if (arrangement === "picture") return { shapes: [box(0, 0, width, y(380), tint(accent, 0.12))] };
    if (arrangement === "blank") return { shapes: [] };
    return {
      shapes: [
        blob(
          [
            [x(850), y(-40)],
            [x(990), y(-30)],
            [x(1000), y(110)],
            [x(930), y(84)],
          ],
          tint(accent, 0.3),
        ),
        blob(
          [
            [x(905), y(-30)],
            [x(990), y(0)],
            [x(985), y(70)],
            [x(950), y(40)],
          ],
          tint(second, 0.5),
        ),
        hill(
          [
            [0, 524],
            [300, 514],
            [640, 530],
            [960, 516],
          ],
          height / y(1),
          tint(accent, 0.16),
        ),
      ],
    };
  },
};
