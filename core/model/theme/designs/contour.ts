import { colourSet, mixed } from "../colours";
import type { DesignDescriptor } from "../design";
import { curved } from "../shapes";

/** Returns the closed contour at a level about a centre: an uneven ring. */
function contourLine(cx: number, cy: number, radius: number): (readonly [number, number])[] {
  return Array.from({ length: 14 }, (_, at) => {
    const angle = (at * Math.PI * 2) / 14;
    const uneven = 1 + 0.16 * Math.sin(angle * 2 + 0.6) + 0.09 * Math.sin(angle * 3 + radius / 90);
    return [cx + radius * 1.25 * uneven * Math.cos(angle), cy + radius * uneven * Math.sin(angle)] as const;
  });
}

export const contour: DesignDescriptor = {
  label: "Contour",
  description: "A survey map: contour lines in the corner, green on pale paper",
  fonts: "sturdy",
  colours: {
    light: colourSet("#3d6b35", "#9a5a17", "light", { paper: "#f8f9f2" }),
    dark: colourSet("#86bd78", "#e0a860", "dark"),
  },
  mood: "light",
  scale: { title: 34, opening: 50 },
  title: [64, 42, 690, 84],
  body: [64, 148, 832, 334],
  wide: { title: [64, 42, 690, 84], body: [64, 148, 832, 334] },
  slots: {
    opening: { title: { at: [64, 110, 500, 200] }, subtitle: { at: [64, 330, 480, 120] } },
    section: { title: { at: [64, 110, 540, 200] }, subtitle: { at: [64, 330, 520, 120] } },
  },
  roles: { title: { strong: true }, opening: { strong: true } },
  bullets: ["•", "–"],
  table: "bands",
  decorate: ({ arrangement, colours: { paper, accent }, x, y }) => {
    const rings = (cx: number, cy: number, radii: readonly number[], share: number) =>
      radii.map((radius, at) =>
        curved(contourLine(x(cx), y(cy), y(radius)), true, at % 3 === 0 ? 1.75 : 0.9, mixed(accent, paper, 1 - share)),
      );
    if (arrangement === "blank") return { shapes: [] };
    if (arrangement === "opening") return { shapes: rings(806, 250, [24, 46, 68, 90, 112, 134, 156], 0.6) };
    if (arrangement === "section") return { shapes: rings(830, 270, [36, 68, 100, 132, 164], 0.5) };
    return { shapes: rings(900, 14, [20, 42, 64, 86], 0.38) };
  },
};
