import {
  type TextStyle,
  textHash,
  canonical,
  type Frame,
  type Fill,
  type ShapeElement,
  type RichText,
  type Element,
  run,
  plainText,
  type Deck,
  type Slide,
  type ChartElement,
  type Entrance,
} from "@unitext/core/model";

/** The made-up house style of the station: colours, text styles, masters. */
export const NAVY = "#16324a";
export const SEA = "#2f7f86";
export const SAND = "#e8d9b5";
export const FOAM = "#f4f8f7";
export const RUST = "#b4532a";
const INK = "#22313a";
const styleOf = (levels: TextStyle): [string, TextStyle] => [textHash(canonical(levels)), levels];
const [TITLE, title] = styleOf([{ run: { size: 32, colour: NAVY, font: "Carlito" }, strong: true }]);
export const [COVER, cover] = styleOf([
  { run: { size: 54, colour: "#ffffff", font: "Carlito" }, strong: true },
  { run: { size: 24, colour: SAND, font: "Carlito" } },
]);
export const [BODY, body] = styleOf([
  {
    run: { size: 22, colour: INK, font: "Carlito" },
    paragraph: { left: 20, first: -20, before: { points: 8 }, bullet: { character: "■", colour: SEA, size: 0.7 } },
  },
  {
    run: { size: 18, colour: INK, font: "Carlito" },
    paragraph: { left: 42, first: -18, before: { points: 4 }, bullet: { character: "–", colour: SEA } },
  },
]);
export const [PLAIN, plain] = styleOf([{ run: { size: 18, colour: INK, font: "Carlito" } }]);
export const [ON_DARK, onDark] = styleOf([
  { run: { size: 18, colour: "#ffffff", font: "Carlito" }, align: "centre", strong: true },
]);
export const [SMALL, small] = styleOf([{ run: { size: 12, colour: "#5b6b70", font: "Carlito" } }]);
export const STYLES = {
  [TITLE]: title,
  [COVER]: cover,
  [BODY]: body,
  [PLAIN]: plain,
  [ON_DARK]: onDark,
  [SMALL]: small,
};
export const at = (x: number, y: number, width: number, height: number): Frame => ({ x, y, width, height });
export const solid = (colour: string): Fill => ({ kind: "solid", colour });
export const shape = (id: string, frame: Frame, preset: string, more: Partial<ShapeElement> = {}): ShapeElement => ({
  kind: "shape",
  id,
  slot: null,
  frame,
  geometry: { preset },
  text: [],
  ...more,
});
export const words = (id: string, frame: Frame, style: string, text: RichText, more: object = {}): Element =>
  ({
    kind: "text",
    id,
    slot: null,
    frame,
    style,
    text,
    box: { insets: [0, 0, 0, 0], fit: "none", ...("box" in more ? (more.box as object) : {}) },
    ...Object.fromEntries(Object.entries(more).filter(([name]) => name !== "box")),
  }) as Element;
export const bullets = (...lines: [number, ...ReturnType<typeof run>[]][]): RichText =>
  lines.map(([level, ...runs]) => ({ kind: "bullet", level, runs }));
const heading = (text: string): Element =>
  words("title", at(56, 36, 790, 48), TITLE, plainText(text), { slot: "title", box: { anchor: "bottom" } });

/** The dune of the station's logo, as an outline. */
const DUNE = {
  width: 100,
  height: 40,
  paths: [{ d: "M0 40C18 38 30 6 46 4C60 2 66 30 100 40Z", fill: true, stroke: false }],
};
export const CLOTH: Fill = {
  kind: "gradient",
  form: "linear",
  angle: 60,
  stops: [
    { at: 0, colour: NAVY },
    { at: 1, colour: SEA },
  ],
};
const sign = (prefix: string, x: number, y: number, colour: string): Element[] => [
  {
    ...shape(`${prefix}1`, at(x, y + 10, 60, 24), "rect"),
    geometry: DUNE,
    fill: solid(colour),
    groups: [`${prefix}g`],
  },
  shape(`${prefix}2`, at(x + 44, y, 12, 12), "ellipse", { fill: solid(SAND), groups: [`${prefix}g`] }),
];

/** The staff at the quay: a board with its marks as a group in a group, and its reading beside it. */
export const staff = (x: number, y: number): Element[] => [
  shape("board", at(x, y, 40, 190), "rect", {
    fill: solid("#ffffff"),
    stroke: { colour: NAVY, width: 1.5 },
    groups: ["staff", "marks"],
  }),
  ...Array.from({ length: 5 }, (_, nth) =>
    shape(`mark${nth}`, at(x, y + 18 + nth * 36, nth % 2 ? 14 : 24, 6), "rect", {
      fill: solid(NAVY),
      groups: ["staff", "marks"],
    }),
  ),
  shape("water", at(x - 60, y + 96, 160, 94), "wave", {
    fill: { kind: "solid", colour: SEA, opacity: 0.55 },
    groups: ["staff"],
  }),
  words("reading", at(x + 112, y + 84, 130, 30), PLAIN, plainText("2.58 m at 7:00"), { groups: ["staff"] }),
];
export const MASTERS: Deck["masters"] = {
  cover: {
    name: "Cover",
    background: { fill: CLOTH },
    elements: [shape("band", at(0, 430, 960, 110), "rect", { fill: solid(NAVY) }), ...sign("s", 840, 460, SAND)],
  },
  page: {
    name: "Page",
    background: { colour: "#ffffff" },
    elements: [
      shape("edge", at(0, 0, 18, 540), "rect", { fill: CLOTH }),
      shape("rule", at(56, 92, 848, 0.1), "line", { stroke: { colour: SAND, width: 2 } }),
      ...sign("s", 846, 40, SEA),
    ],
  },
};
const FOOT: NonNullable<Slide["regions"]> = [
  { region: "footer", text: "Marram Bay Field Station · house style", frame: at(56, 504, 500, 26), style: SMALL },
  { region: "number", text: "‹#›", frame: at(850, 504, 54, 26), style: SMALL },
];
export const page = (
  id: string,
  name: string,
  elements: Element[],
  notes: string,
  more: Partial<Slide> = {},
): Slide => ({
  id,
  parent: null,
  arrangement: "title",
  elements: [heading(name), ...elements],
  notes: plainText(notes),
  hidden: false,
  master: "page",
  regions: FOOT,
  ...more,
});
export const chart = (
  id: string,
  frame: Frame,
  more: Pick<ChartElement, "type" | "series"> & Partial<ChartElement>,
): Element => ({ kind: "chart", id, slot: null, frame, categories: [], ...more });

/** An entrance of half a second. */
export const comes = (order: number, trigger: Entrance["trigger"], effect: Entrance["effect"]): Entrance => ({
  order,
  trigger,
  effect,
  seconds: 0.5,
});
export const head = (text: string) => ({
  text: [{ kind: "plain" as const, level: 0, runs: [run(text, ["strong"], undefined, { colour: "#ffffff" })] }],
  fill: solid(NAVY),
  insets: [8, 5, 8, 5] as [number, number, number, number],
  anchor: "middle" as const,
});
export const cell = (text: string, shade = false, end = false) => ({
  text: plainText(text).map((paragraph) => ({ ...paragraph, ...(end ? { align: "end" as const } : {}) })),
  ...(shade ? { fill: solid(FOAM) } : {}),
  insets: [8, 5, 8, 5] as [number, number, number, number],
  anchor: "middle" as const,
  borders: { left: null, right: null, top: null, bottom: { colour: "#cfd8d6", width: 0.75 } },
});
