import type { DiagramType, Frame, RichText } from "@unitext/core/model";
import type { Figure, FigureStyle } from "../figure";
import { cycle } from "./cycle";
import { comparison, matrix } from "./fields";
import { hierarchy } from "./hierarchy";
import { type Drawer, treeOf } from "./item";
import { pyramid } from "./pyramid";
import { relation } from "./relation";
import { steps } from "./steps";
import { timeline } from "./timeline";

const DRAWERS: Record<DiagramType, Drawer> = {
  steps,
  cycle,
  hierarchy,
  pyramid,
  relation,
  timeline,
  matrix,
  comparison,
};

/** Draws a diagram from its list into a frame in points. An empty list draws nothing. */
export function diagram(type: DiagramType, text: RichText, frame: Frame, style: FigureStyle): Figure {
  const items = treeOf(text);
  return items.length ? DRAWERS[type](items, frame, style) : { paths: [], labels: [] };
}
