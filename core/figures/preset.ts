/**
 * A preset geometry of ECMA-376-1 (20.1.10.56) by its guide formulas as the standard publishes them (written down from
 * memory): adjust values, guides, paths, and the rectangle of the text.
 *
 * A path is a list of commands over guide names: `M x y`, `L x y`, `C x1 y1 x2 y2 x y`, `Q x1 y1 x y`,
 * `A wR hR stAng swAng`, `Z`. Paths are separated by `|`; `[f0]` has no fill, `[s0]` no outline, `[dk]` a darker and
 * `[lt]` a lighter fill, `[w=.. h=..]` a coordinate space of its own.
 */
export interface Preset {
  adjust?: string;
  guides?: string;
  path: string;
  text?: string;
  /** Drawn with its axes exchanged, and then mirrored along one of them. */
  transpose?: boolean;
  mirror?: "x" | "y";
}

export const RECT = "M l t L r t L r b L l b Z";
export const ELLIPSE = "M l vc A wd2 hd2 cd2 cd4 A wd2 hd2 3cd4 cd4 A wd2 hd2 0 cd4 A wd2 hd2 cd4 cd4 Z";
