import { type Frame, mixed, must } from "@unitext/core/model";
import { type Figure, type FigureStyle, palette, rectangle } from "../figure";
import { below, type Drawer, inset, type Item } from "./item";

/** Draws a field with its heading on a band of colour, and what is below the item under it. */
function field(item: Item, box: Frame, band: number, colour: string, { colours, size }: FigureStyle): Figure {
  const list = below(item);
  const head = list.length ? { ...box, height: band } : box;
  return {
    paths: [
      { d: rectangle(box, 4), fill: mixed(colour, colours.paper, 0.92) },
      { d: rectangle(head, 4), fill: mixed(colour, colours.paper, 0.76) },
    ],
    labels: [
      {
        text: item.text.map((paragraph) => ({
          ...paragraph,
          runs: paragraph.runs.map((run) => ({ ...run, marks: ["strong" as const] })),
        })),
        frame: inset(head, size * 0.3),
        align: list.length ? "start" : "centre",
        anchor: "middle",
        fill: colours.ink,
        size,
      },
      ...(list.length
        ? [
            {
              text: list,
              frame: inset({ ...box, y: box.y + band, height: box.height - band }, size * 0.35),
              align: "start" as const,
              anchor: "top" as const,
              fill: colours.ink,
              size: size * 0.88,
            },
          ]
        : []),
    ],
  };
}

/** Draws fields in a grid of so many columns, row by row. */
function grid(items: readonly Item[], frame: Frame, style: FigureStyle, columns: number): Figure {
  const { size, colours } = style;
  const rows = Math.ceil(items.length / columns);
  const gap = size * 0.5;
  const [width, height] = [(frame.width - gap * (columns - 1)) / columns, (frame.height - gap * (rows - 1)) / rows];
  const band = Math.min(height * 0.4, size * 2.4);
  const colourOf = palette(colours);
  const figures = items.map((item, at) => {
    const [row, column] = [Math.floor(at / columns), at % columns];
    const box = { x: frame.x + column * (width + gap), y: frame.y + row * (height + gap), width, height };
    return field(item, box, band, must(colourOf[at % 2]), style);
  });
  return { paths: figures.flatMap(({ paths }) => paths), labels: figures.flatMap(({ labels }) => labels) };
}

/** Draws fields in as many rows as columns: four of them are a two-by-two matrix. */
export const matrix: Drawer = (items, frame, style) => grid(items, frame, style, Math.ceil(Math.sqrt(items.length)));

/** Draws columns side by side, each with its heading and its points. */
export const comparison: Drawer = (items, frame, style) => grid(items, frame, style, items.length);
