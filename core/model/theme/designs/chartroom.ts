import { colourSet, mixed } from "../colours";
import type { DesignDescriptor } from "../design";
import { border, lines, ring } from "../shapes";

export const chartroom: DesignDescriptor = {
  label: "Chart room",
  description: "A drawing board: a fine grid, drawn corners, technical labels",
  fonts: "narrow",
  colours: {
    light: colourSet("#23527c", "#a3472f", "light", { paper: "#f7f9fb" }),
    dark: colourSet("#7db4e6", "#f2b274", "dark", { paper: "#12304f", field: "#0d243c" }),
  },
  mood: "light",
  scale: { title: 38, opening: 56, body: 27 },
  title: [64, 46, 832, 78],
  body: [64, 146, 832, 326],
  slots: {
    opening: { title: { at: [64, 120, 560, 190] }, subtitle: { at: [64, 330, 540, 110] } },
    section: { title: { at: [64, 120, 560, 190] }, subtitle: { at: [64, 330, 540, 110] } },
    statement: { body: { at: [110, 90, 740, 340] } },
  },
  roles: {
    title: { strong: true },
    opening: { strong: true, capitals: true, spacing: 0.02 },
    caption: { colour: "muted" },
  },
  bullets: ["+", "–"],
  table: "rules",
  regions: {
    header: { at: [62, 24, 560, 16], align: "start" },
    footer: { at: [64, 494, 640, 20], align: "start", colour: "muted" },
    number: { at: [796, 494, 100, 20], align: "end", strong: true, colour: "accent" },
  },
  decorate: ({ arrangement, colours: { paper, accent, second, muted }, width, height, x, y }) => {
    const fine = mixed(muted, paper, 0.86);
    const step = 30;
    const grid = lines(
      [
        ...Array.from(
          { length: Math.floor(width / step) },
          (_, at) =>
            [
              [(at + 1) * step, 0],
              [(at + 1) * step, height],
            ] as const,
        ),
        ...Array.from(
          { length: Math.floor(height / step) },
          (_, at) =>
            [
              [0, (at + 1) * step],
              [width, (at + 1) * step],
            ] as const,
        ),
      ],
      0.5,
      fine,
    );
    const [left, top, right, bottom] = [x(26), y(24), width - x(26), height - y(20)];
    const arm = 22;
    const corners = lines(
      [
        [
          [left, top],
          [left + arm, top],
        ],
        [
          [left, top],
          [left, top + arm],
        ],
        [
          [right, top],
          [right - arm, top],
        ],
        [
          [right, top],
          [right, top + arm],
        ],
        [
          [left, bottom],
          [left + arm, bottom],
        ],
        [
          [left, bottom],
          [left, bottom - arm],
        ],
        [
          [right, bottom],
          [right - arm, bottom],
        ],
        [
          [right, bottom],
          [right, bottom - arm],
        ],
      ],
      2,
      accent,
    );
    if (arrangement === "blank") return { shapes: [grid] };
    if (arrangement !== "opening" && arrangement !== "section") return { shapes: [grid, corners] };
    const [cx, cy, r] = [x(772), y(262), y(140)];
    const ticks = Array.from({ length: 36 }, (_, at) => {
      const angle = (at * Math.PI) / 18;
      const inner = at % 9 === 0 ? 0.8 : at % 3 === 0 ? 0.88 : 0.94;
      const [c, s] = [Math.cos(angle), Math.sin(angle)];
      return [
        [cx + r * inner * c, cy + r * inner * s],
        [cx + r * c, cy + r * s],
      ] as const;
    });
    return {
      shapes: [
        grid,
        corners,
        border(x(26), y(24), width - 2 * x(26), height - y(44), 0.75, mixed(accent, paper, 0.5)),
        ring(cx, cy, r, 1.5, accent),
        ring(cx, cy, r * 0.66, 0.75, accent),
        ring(cx, cy, r * 0.3, 0.75, accent),
        lines(ticks, 1.25, accent),
        lines(
          [
            [
              [cx - r * 1.12, cy],
              [cx + r * 1.12, cy],
            ],
            [
              [cx, cy - r * 1.12],
              [cx, cy + r * 1.12],
            ],
          ],
          0.75,
          accent,
        ),
        lines(
          [
            [
              [cx, cy],
              [cx + r * 0.46, cy - r * 0.48],
            ],
          ],
          3,
          second,
        ),
      ],
    };
  },
};
