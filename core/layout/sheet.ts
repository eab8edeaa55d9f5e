import type { FigurePath } from "@unitext/core/figures";
import { type DeckMetadata, isEmptyText, plainText, type RichText, must } from "@unitext/core/model";
import type { FontSet } from "./fonts";
import type { Scene, SceneLine, SceneNode, SceneRun } from "./scene";
import { setText } from "./text";
import type { TextContext } from "./textstyle";

/**
 * What a sheet of paper shows: slides alone, a slide with its notes, or several slides to look at and to write beside.
 */
export const SHEETS = ["slides", "notes", "handout-2", "handout-3", "handout-6", "handout-9"] as const;
export type Sheets = (typeof SHEETS)[number];

/** A slide laid out, with its notes. */
export interface SheetItem {
  scene: Scene;
  number: number;
  notes: RichText;
}
/** A sheet as a scene, and the slides on it. */
export interface Sheet {
  scene: Scene;
  slides: string[];
}
export interface SheetContext {
  metadata: Pick<DeckMetadata, "theme" | "language" | "properties">;
  fonts: FontSet;
}

/** A4 portrait (ISO 216: 210 × 297 mm), in points. */
const PAPER = { width: (210 / 25.4) * 72, height: (297 / 25.4) * 72 };
const MARGIN = 54;
const HEAD = 28;
const INK = "#1a1a1a";
const LINE = "#9a9a94";
const SIZE = { notes: 11, small: 9 };

function scaledRun(run: SceneRun, x: number, scale: number): SceneRun {
  return {
    ...run,
    x: x + run.x * scale,
    width: run.width * scale,
    size: run.size * scale,
    ...(run.rise === undefined ? {} : { rise: run.rise * scale }),
    ...(run.words ? { words: run.words.map((word) => ({ ...word, x: word.x * scale })) } : {}),
    ...(run.formula ? { formula: { ...run.formula, em: run.formula.em * scale } } : {}),
  };
}

function scaledPath(path: FigurePath, x: number, y: number, scale: number): FigurePath {
  const [a, b, c, d, e, f] = path.matrix ?? [1, 0, 0, 1, 0, 0];
  return { ...path, matrix: [a * scale, b * scale, c * scale, d * scale, x + e * scale, y + f * scale] };
}

/** Returns the nodes of a scene, scaled down and moved. */
export function scaledNodes(scene: Scene, x: number, y: number, scale: number): SceneNode[] {
  const frame = <F extends { x: number; y: number; width: number; height: number }>(node: F): F => ({
    ...node,
    x: x + node.x * scale,
    y: y + node.y * scale,
    width: node.width * scale,
    height: node.height * scale,
  });
  return scene.nodes.map((node): SceneNode => {
    if (node.kind === "group")
      return { kind: "group", element: node.element, matrix: [scale, 0, 0, scale, x, y], nodes: [node] };
    if (node.kind === "rect" || node.kind === "picture") return frame(node);
    if (node.kind === "paths") return { ...node, paths: node.paths.map((path) => scaledPath(path, x, y, scale)) };
    return {
      ...node,
      lines: node.lines.map((line) => ({ ...frame(line), runs: line.runs.map((run) => scaledRun(run, x, scale)) })),
    };
  });
}

/** Draws a small slide with a hairline around it, as wide as allowed. */
function smallSlide({ scene }: SheetItem, x: number, y: number, width: number): SceneNode[] {
  const scale = width / scene.page.width;
  const height = scene.page.height * scale;
  return [
    { kind: "rect", x: x - 0.5, y: y - 0.5, width: width + 1, height: height + 1, fill: LINE },
    { kind: "rect", x, y, width, height, fill: scene.background },
    // A design draws beyond the page.
    {
      kind: "group",
      element: null,
      clip: `M${x} ${y}h${width}v${height}h${-width}Z`,
      nodes: scaledNodes(scene, x, y, scale),
    },
  ];
}

const setting = ({ metadata, fonts }: SheetContext): TextContext => ({
  fonts,
  theme: { ...metadata.theme, colours: { ...metadata.theme.colours, ink: INK, muted: INK, paper: "#ffffff" } },
  language: metadata.language,
});

function lines(text: RichText, context: SheetContext, x: number, y: number, width: number, size: number): SceneLine[] {
  return setText(
    text,
    { frame: { x, y, width, height: 1_000_000 }, role: "body", anchor: "top", align: "start" },
    [size],
    setting(context),
  ).lines;
}

function sheet(nodes: SceneNode[], slides: string[], page: number, context: SheetContext): Sheet {
  const small = (text: string, align: "start" | "end", y: number): SceneNode => ({
    kind: "text",
    element: null,
    role: "sheet",
    lines: lines(
      plainText(text).map((paragraph) => ({ ...paragraph, align })),
      context,
      MARGIN,
      y,
      PAPER.width - MARGIN * 2,
      SIZE.small,
    ).slice(0, 1),
  });
  const title = context.metadata.properties.title;
  return {
    slides,
    scene: {
      slide: `sheet-${page}`,
      page: PAPER,
      background: "#ffffff",
      nodes: [
        ...nodes,
        ...(title ? [small(title, "start", MARGIN - HEAD)] : []),
        small(String(page), "end", PAPER.height - MARGIN + 10),
      ],
      boxes: [],
      overflow: 0,
      fullness: 0,
      language: context.metadata.language,
    },
  };
}

/** Makes sheets with one slide each above its notes, which continue on as many sheets as they need. */
function withNotes(items: readonly SheetItem[], context: SheetContext): Sheet[] {
  const sheets: Sheet[] = [];
  const width = PAPER.width - MARGIN * 2;
  const bottom = PAPER.height - MARGIN;
  for (const item of items) {
    const shown = width * 0.86;
    const height = (shown * item.scene.page.height) / item.scene.page.width;
    let nodes = smallSlide(item, MARGIN + (width - shown) / 2, MARGIN, shown);
    let own = [item.scene.slide];
    const top = MARGIN + height + 24;
    let rest = isEmptyText(item.notes) ? [] : lines(item.notes, context, MARGIN, top, width, SIZE.notes);
    let from = top;
    do {
      // Lines below the foot go to the top of the next sheet.
      const at = rest.findIndex((line) => line.y + line.height * 0.3 > bottom);
      const here = at < 0 ? rest : rest.slice(0, Math.max(at, from === MARGIN ? 1 : 0));
      rest = rest.slice(here.length);
      if (here.length) nodes.push({ kind: "text", element: null, role: "notes", lines: here });
      sheets.push(sheet(nodes, own, sheets.length + 1, context));
      const next = rest[0];
      if (!next) break;
      const up = next.y - next.height * 0.8 - MARGIN;
      rest = rest.map((line) => ({ ...line, y: line.y - up }));
      from = MARGIN;
      nodes = [];
      own = [];
    } while (rest.length);
  }
  return sheets;
}

const GRIDS: Record<number, { columns: number; rows: number; ruled: boolean }> = {
  2: { columns: 1, rows: 2, ruled: false },
  3: { columns: 1, rows: 3, ruled: true },
  6: { columns: 2, rows: 3, ruled: false },
  9: { columns: 3, rows: 3, ruled: false },
};

/** Makes sheets with several slides each; those with three have lines beside them to write on. */
function handout(items: readonly SheetItem[], count: number, context: SheetContext): Sheet[] {
  const { columns, rows, ruled } = must(GRIDS[count]);
  const gap = 18;
  const width = PAPER.width - MARGIN * 2;
  const cell = { width: (width - gap * (columns - 1)) / columns, height: (PAPER.height - MARGIN * 2) / rows };
  const sheets: Sheet[] = [];
  for (let at = 0; at < items.length; at += count) {
    const here = items.slice(at, at + count);
    const nodes = here.flatMap((item, nth): SceneNode[] => {
      const { page } = item.scene;
      const x = MARGIN + (nth % columns) * (cell.width + gap);
      const y = MARGIN + Math.floor(nth / columns) * cell.height;
      const room = { width: ruled ? cell.width * 0.52 : cell.width, height: cell.height - 30 };
      const scale = Math.min(room.width / page.width, room.height / page.height);
      const shown = { width: page.width * scale, height: page.height * scale };
      const left = ruled ? x : x + (cell.width - shown.width) / 2;
      const label: SceneNode = {
        kind: "text",
        element: null,
        role: "sheet",
        lines: lines(plainText(String(item.number)), context, left, y + shown.height + 3, shown.width, SIZE.small),
      };
      const from = x + shown.width + gap;
      const rules = ruled
        ? Array.from(
            { length: Math.max(1, Math.floor(shown.height / 24)) },
            (_, row): SceneNode => ({
              kind: "rect",
              x: from,
              y: y + 24 * (row + 1),
              width: x + cell.width - from,
              height: 0.5,
              fill: LINE,
            }),
          )
        : [];
      return [...smallSlide(item, left, y, shown.width), label, ...rules];
    });
    sheets.push(
      sheet(
        nodes,
        here.map(({ scene }) => scene.slide),
        sheets.length + 1,
        context,
      ),
    );
  }
  return sheets;
}

/** Lays out slides on sheets of paper. For `slides` each is a page of its own shape, as it is shown. */
export function sheetsOf(kind: Sheets, items: readonly SheetItem[], context: SheetContext): Sheet[] {
  if (kind === "slides") return items.map(({ scene }) => ({ scene, slides: [scene.slide] }));
  return kind === "notes" ? withNotes(items, context) : handout(items, Number(kind.slice(8)), context);
}
