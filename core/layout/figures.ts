import { chart, codeLines, diagram, type Figure, formulaShape } from "@unitext/core/figures";
import {
  type ChartElement,
  type CodeElement,
  type DiagramElement,
  type DeckMetadata,
  type Direction,
  type Element,
  type ForeignElement,
  type FormulaElement,
  type Frame,
  languageDirection,
  type MediaElement,
  type PictureElement,
  type RichText,
  type ShapeElement,
  type TableElement,
  type TextElement,
  type Theme,
  must,
} from "@unitext/core/model";
import { familyNamed, faceFor } from "./fonts";
import { boxAt, type Matrix, type SceneBox, type SceneNode, type TableGrid } from "./scene";
import type { SlotPlace } from "./slots";
import { grownSizes, setTable } from "./table";
import { setText, shapeText } from "./text";
import { type TextContext, toneMark } from "./textstyle";

/** An element laid out: its nodes, its place, how it fits, and the height that it uses. */
export interface Laid {
  nodes: SceneNode[];
  box: SceneBox;
  used: number;
}

export type FigureElement = Exclude<
  Element,
  TextElement | PictureElement | ShapeElement | MediaElement | ForeignElement
>;
type Layer<E> = (
  element: E,
  place: SlotPlace,
  sizes: readonly number[],
  theme: Theme,
  setting: TextContext,
  assets: DeckMetadata["assets"],
) => Omit<Laid, "box"> & { size: number; overflow: number; grid?: TableGrid };

/**
 * Whether a table, chart or diagram is read from right to left: as it says itself; else as the language of the deck is,
 * unless its file gives it an appearance of its own.
 */
export function isMirrored(
  element: Partial<Pick<TableElement, "direction" | "style" | "widths">>,
  language: string,
): boolean {
  if (element.direction) return element.direction === "rtl";
  if (element.style !== undefined || element.widths) return false;
  return languageDirection(language) === "rtl";
}

/** Returns a figure in the direction in which an element is read: as it is, or mirrored in the middle of its frame. */
function directed(figure: Figure, frame: Frame, element: ChartElement | DiagramElement, setting: TextContext): Figure {
  if (isMirrored(element, setting.language)) return mirroredFigure(figure, frame);
  if (languageDirection(setting.language) === "ltr") return figure;
  return { ...figure, labels: figure.labels.map((label) => ({ ...label, text: inDirection(label.text, "ltr") })) };
}

const inDirection = (text: RichText, direction: Direction): RichText =>
  text.map((paragraph) => ({ ...paragraph, properties: { ...paragraph.properties, direction } }));

/** Returns a figure as in a mirror in the middle of a frame; its labels stay readable. */
function mirroredFigure({ paths, labels }: Figure, { x, width }: Frame): Figure {
  const sum = 2 * x + width;
  return {
    paths: paths.map((path) => {
      const [a, b, c, d, e, f] = path.matrix ?? [1, 0, 0, 1, 0, 0];
      return { ...path, matrix: [-a, b, -c, d, sum - e, f] };
    }),
    labels: labels.map(({ turn, ...label }) => ({
      ...label,
      frame: { ...label.frame, x: sum - label.frame.x - label.frame.width },
      text: inDirection(label.text, "rtl"),
      ...(turn ? { turn: { by: -turn.by, about: [sum - turn.about[0], turn.about[1]] as const } } : {}),
    })),
  };
}

function measure(text: string, size: number, { fonts, theme, language }: TextContext): number {
  const family = familyNamed(theme.fonts.body);
  let width = 0;
  for (const word of text.split(/( )/))
    if (word)
      width += fonts
        .face(faceFor(family, must(word.codePointAt(0)), false, false, language).id)
        .word(word, false, language).width;
  return width * size;
}

/** Returns a rotation about a point as a matrix. */
function turnedAbout({ by, about: [x, y] }: NonNullable<Figure["labels"][number]["turn"]>): Matrix {
  const [cos, sin] = [Math.cos((by * Math.PI) / 180), Math.sin((by * Math.PI) / 180)];
  return [cos, sin, -sin, cos, x - x * cos + y * sin, y - x * sin - y * cos];
}

/**
 * Sets the text of a drawing, each label at the largest size that fits; text that does not fit at the smallest size is
 * reported.
 */
function drawn(
  { paths, labels }: Figure,
  element: string,
  least: number,
  setting: TextContext,
): { nodes: SceneNode[]; overflow: number } {
  let overflow = 0;
  const texts = labels.map((label): SceneNode => {
    const sizes = [1, 0.92, 0.84, 0.76, 0.68, 0.6].map((step) => label.size * step).filter((size) => size > least);
    const set = setText(
      label.text,
      { frame: label.frame, role: "figure", anchor: label.anchor, align: label.align },
      [...sizes, Math.min(least, label.size)],
      { ...setting, fill: label.fill },
    );
    overflow = Math.max(overflow, set.overflow);
    const words: SceneNode = { kind: "text", element, role: "label", lines: set.lines };
    return label.turn ? { kind: "group", element, matrix: turnedAbout(label.turn), nodes: [words] } : words;
  });
  return { nodes: [{ kind: "paths", element, paths }, ...texts], overflow };
}

const codeTexts = new WeakMap<CodeElement, RichText>();
function codeText(element: CodeElement): RichText {
  const known = codeTexts.get(element);
  if (known) return known;
  const text = codeLines(element.text, element.language).map((line) => ({
    kind: "plain" as const,
    level: 0,
    properties: { direction: "ltr" as const },
    runs: line.map(({ text: words, tone }) => ({
      text: words.replace(/ /g, "\u00A0").replace(/\u00A0(?=\S)/g, " "),
      marks: ["code", toneMark(tone)] as never,
    })),
  }));
  codeTexts.set(element, text);
  return text;
}

/** Sets code larger where it fits without breaking a line; undefined where it does not. */
function grownText(
  text: RichText,
  sizes: readonly number[],
  setting: TextContext,
  width: number,
  at: (sizes: readonly number[]) => ReturnType<typeof setText>,
): ReturnType<typeof setText> | undefined {
  const blocks = shapeText(text, "figure", "start", setting);
  const widest = Math.max(0, ...blocks.map(({ shaped }) => shaped.upTo.at(-1) ?? 0));
  for (const size of grownSizes(sizes, "code")) {
    const set = widest * size <= width ? at([size]) : undefined;
    if (set?.overflow === 0) return set;
  }
  return undefined;
}

const layCode: Layer<CodeElement> = (element, place, sizes, theme, setting) => {
  const size = must(sizes[0]);
  const pad = size * 0.7;
  const { frame } = place;
  const inner = { x: frame.x + pad, y: frame.y + pad, width: frame.width - 2 * pad, height: frame.height - 2 * pad };
  const text = codeText(element);
  const at = (tried: readonly number[]) =>
    setText(text, { frame: inner, role: "figure", anchor: "top", align: "start" }, tried, setting);
  const set = grownText(text, sizes, setting, inner.width, at) ?? at(sizes);
  const used = Math.min(frame.height, set.used + 2 * pad);
  const plate: SceneNode = {
    kind: "rect",
    x: frame.x,
    y: frame.y,
    width: frame.width,
    height: used,
    fill: plateColour(theme),
  };
  return {
    nodes: [plate, { kind: "text", element: element.id, role: "code", lines: set.lines }],
    used,
    size: set.size,
    overflow: set.overflow,
  };
};

function plateColour({ colours }: Theme): string {
  const [paper, ink] = [colours.paper, colours.ink];
  const channel = (at: number) =>
    Math.round(Number.parseInt(paper.slice(at, at + 2), 16) * 0.95 + Number.parseInt(ink.slice(at, at + 2), 16) * 0.05);
  return `#${[1, 3, 5].map((at) => channel(at).toString(16).padStart(2, "0")).join("")}`;
}

const layFormula: Layer<FormulaElement> = (element, place, sizes, theme, setting) => {
  const { frame } = place;
  const shape = formulaShape(element.tex, true);
  if (!shape || "problem" in shape) {
    const text: RichText = [
      { kind: "plain", level: 0, align: "centre", runs: [{ text: element.tex, marks: ["code"] }] },
    ];
    const set = setText(text, { ...place, role: "figure" }, sizes, setting);
    return {
      nodes: [{ kind: "text", element: element.id, role: "formula", lines: set.lines }],
      used: set.used,
      size: set.size,
      overflow: set.overflow,
    };
  }
  const tall = shape.height + shape.depth;
  const size = Math.min(must(sizes[0]) * 1.5, frame.width / shape.width, frame.height / tall);
  const [width, height] = [shape.width * size, tall * size];
  const x = frame.x + (frame.width - width) / 2;
  const top = frame.y + (place.anchor === "top" ? 0 : (frame.height - height) / 2);
  const baseline = top + shape.height * size;
  const paths = shape.paths.map(({ d, matrix: [a, b, c, e, f, g] }) => ({
    d,
    fill: theme.colours.ink,
    matrix: [a * size, b * size, c * size, e * size, x + f * size, baseline + g * size] as const,
  }));
  return {
    nodes: [{ kind: "paths", element: element.id, paths }],
    used: height,
    size,
    overflow: size < must(sizes.at(-1)) * 0.75 ? 1 : 0,
  };
};

const padded = ({ x, y, width, height }: SlotPlace["frame"], by: number) => ({
  x: x + by,
  y: y + by * 0.6,
  width: Math.max(1, width - 2 * by),
  height: Math.max(1, height - 1.2 * by),
});

const LAYERS: { [K in FigureElement["kind"]]: Layer<Extract<FigureElement, { kind: K }>> } = {
  table: (element, place, sizes, _theme, setting, assets) => {
    const { frame } = place;
    const caption = element.caption
      ? setText(
          [{ kind: "plain", level: 0, runs: [{ text: element.caption }] }],
          { frame, role: "caption", anchor: "top", align: "start" },
          [must(sizes.at(-1))],
          setting,
        )
      : undefined;
    const room = caption ? caption.used + 6 : 0;
    const set = setTable(
      element,
      { ...frame, height: frame.height - room },
      sizes,
      { ...setting, mirrored: isMirrored(element, setting.language) },
      assets,
    );
    const drop = set.used + 6;
    const below: SceneNode[] = caption
      ? [
          {
            kind: "text",
            element: element.id,
            role: "caption",
            lines: caption.lines.map((line) => ({ ...line, y: line.y + drop })),
          },
        ]
      : [];
    return { ...set, nodes: [...set.nodes, ...below], used: set.used + room };
  },
  code: layCode,
  formula: layFormula,
  diagram: (element, place, sizes, theme, setting) => {
    const size = must(sizes[0]) * 1.05;
    if (setting.places) return { nodes: [], used: place.frame.height, size, overflow: 0 };
    const figure = diagram(element.type, element.text, place.frame, {
      colours: theme.colours,
      size,
      measure: (text, at) => measure(text, at, setting),
    });
    const shown = directed(figure, place.frame, element, setting);
    return { ...drawn(shown, element.id, must(sizes.at(-1)), setting), used: place.frame.height, size };
  },
  chart: (element, place, sizes, theme, setting) => {
    const free = element.frame !== undefined;
    const size = setting.style
      ? must(sizes[0])
      : free
        ? Math.max(7, Math.min(16, place.frame.height / 22))
        : Math.max(must(sizes.at(-1)) * (4 / 3), must(sizes[0]) * 0.7);
    if (setting.places) return { nodes: [], used: place.frame.height, size, overflow: 0 };
    const figure = chart(element.type, element, free ? padded(place.frame, size) : place.frame, {
      colours: theme.colours,
      size,
      measure: (text, at) => measure(text, at, setting),
    });
    const shown = directed(figure, place.frame, element, setting);
    return { ...drawn(shown, element.id, size * 0.75, setting), used: place.frame.height, size };
  },
};

/**
 * Lays out an element that is drawn from data: table, code, formula, diagram or chart. `sizes` are those of its text,
 * largest first.
 */
export function layFigure(
  element: FigureElement,
  place: SlotPlace,
  slot: string | null,
  sizes: readonly number[],
  theme: Theme,
  setting: TextContext,
  assets: DeckMetadata["assets"] = {},
): Laid {
  const { nodes, used, size, overflow, grid } = (LAYERS[element.kind] as Layer<FigureElement>)(
    element,
    place,
    sizes,
    theme,
    setting,
    assets,
  );
  const box = boxAt(place.frame, element.id, slot, size, overflow < 0.01 ? 0 : overflow);
  return { nodes, used, box: grid ? { ...box, grid } : box };
}
