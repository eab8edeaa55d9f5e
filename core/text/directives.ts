import {
  type Align,
  CHART_TYPES,
  type ChartType,
  DIAGRAM_TYPES,
  numberIn,
  type RichText,
  run,
  textOf,
  TRANSITIONS,
  type Transition,
  must,
} from "@unitext/core/model";
import type { RootContent } from "mdast";
import { bindingOfAttributes } from "./boundlinks";
import type { Block, Figure, SlideMark } from "./manuscript";

type Attributes = Record<string, string | null | undefined>;

/** A directive of the text form: a line or a block whose first line begins with colons and a name. */
export interface DirectiveNode {
  type: "leafDirective" | "containerDirective";
  name: string;
  attributes?: Attributes | null;
  children: RootContent[];
  position?: RootContent["position"];
}

/** The place and content of a directive, and how to report a problem with it. */
interface Place {
  at: { from: number; to: number };
  attributes: Attributes;
  /** Reads its content as blocks. */
  inner(): Block[];
  say(message: string): void;
}

type Directive = (place: Place) => Block[];

export const ALIGN: Record<string, Align> = {
  left: "start",
  right: "end",
  center: "centre",
  start: "start",
  end: "end",
  centre: "centre",
};

/** The directives of docs/text-format.md. */
const DIRECTIVES: Record<string, Directive> = {
  slide: ({ at, attributes, say }) => [{ kind: "mark", mark: slideMark(attributes, say), ...at }],
  join: ({ at }) => [{ kind: "join", ...at }],
  notes: ({ at, inner, say }) => {
    const blocks = inner();
    const text = blocks.flatMap((block): RichText => {
      if (block.kind === "text" || block.kind === "heading" || block.kind === "quote") return block.text;
      if (block.kind === "figure" && block.figure.kind === "code")
        return block.figure.text
          .split("\n")
          .map((line) => ({ kind: "plain", level: 0, runs: line ? [run(line, ["code"])] : [] }));
      return [];
    });
    if (blocks.some(({ kind }) => kind === "picture")) say("A picture in the notes is left out; notes hold text.");
    if (blocks.some((block) => block.kind === "figure" && block.figure.kind !== "code"))
      say("A table or formula in the notes is left out; notes hold text.");
    return [{ kind: "notes", text, ...at }];
  },
  slot: (place) => slot(place),
  column: (place) => slot(place, "column"),
  align: ({ at, attributes, inner, say }) => {
    const to = ALIGN[attributes.to ?? ""];
    if (!to) say("An alignment is start, centre or end, as in :::align{to=centre}.");
    const blocks = inner();
    return blocks.map((block, nth) => {
      const lines = { from: nth ? block.from : at.from, to: nth < blocks.length - 1 ? block.to : at.to };
      return to && (block.kind === "text" || block.kind === "quote" || block.kind === "heading")
        ? { ...block, ...lines, text: block.text.map((paragraph) => ({ ...paragraph, align: to })) }
        : { ...block, ...lines };
    });
  },
  table: ({ at, attributes, inner }) => {
    const header = Number(attributes.header ?? 1);
    const binding = bindingOfAttributes(attributes, "table");
    return inner().map((block) => {
      if (block.kind !== "figure" || block.figure.kind !== "table") return block;
      const { figure } = block;
      return {
        ...block,
        ...at,
        figure: {
          ...figure,
          header:
            Number.isInteger(header) && header >= 0 && figure.header
              ? Math.min(header, figure.rows.length)
              : figure.header,
          ...(attributes.caption ? { caption: attributes.caption } : {}),
          ...(attributes.lists === "sources" ? { lists: attributes.lists } : {}),
          ...(binding ? { binding } : {}),
        },
      };
    });
  },
  diagram: ({ at, attributes, inner, say }) => {
    const type = DIAGRAM_TYPES.find((name) => name === (attributes.kind ?? "steps"));
    const blocks = inner();
    const text = blocks.flatMap((block) => (block.kind === "text" ? block.text : []));
    if (!type || !text.length || blocks.some(({ kind }) => kind !== "text")) {
      say(
        `A diagram is drawn from a list and its kind is one of ${DIAGRAM_TYPES.join(", ")}; what it holds is kept as text.`,
      );
      return blocks;
    }
    return [{ kind: "figure", figure: { kind: "diagram", type: type, text }, ...at }];
  },
  chart: ({ at, attributes, inner, say }) => {
    const type = CHART_TYPES.find((name) => name === (attributes.kind ?? "column"));
    const blocks = inner();
    const table = blocks.find((block) => block.kind === "figure" && block.figure.kind === "table");
    const figure =
      type && table?.kind === "figure" && table.figure.kind === "table" ? chartOf(table.figure, type) : undefined;
    if (!figure)
      say(
        `A chart is drawn from a table with a row of names and columns of numbers, and its kind is one of ${CHART_TYPES.join(", ")}; what it holds is kept.`,
      );
    const binding = bindingOfAttributes(attributes, "chart");
    const linked = figure && binding ? { ...figure, binding } : figure;
    return linked ? [{ kind: "figure", figure: linked, ...at }, ...blocks.filter((block) => block !== table)] : blocks;
  },
};

/** Returns the blocks of a directive. An unknown one keeps its content and is reported. */
export function readDirective(node: DirectiveNode, place: Omit<Place, "attributes">): Block[] {
  const known = Object.hasOwn(DIRECTIVES, node.name) ? DIRECTIVES[node.name] : undefined;
  if (known) return known({ ...place, attributes: node.attributes ?? {} });
  place.say(
    `“${node.name}” is not a directive of this text form. Known are ${Object.keys(DIRECTIVES).join(", ")}; what it holds is kept.`,
  );
  return place.inner();
}

function slot({ at, attributes, inner, say }: Place, otherwise?: string): Block[] {
  const width = Number(attributes.width?.replace(/%$/, "") ?? Number.NaN);
  const name = attributes.name ?? otherwise;
  if (name)
    return [
      {
        kind: "slot",
        slot: name,
        ...("steps" in attributes ? { steps: attributes.steps === "main" ? ("main" as const) : true } : {}),
        ...(width >= 5 && width <= 95 ? { width } : {}),
        blocks: inner(),
        ...at,
      },
    ];
  say("A slot needs a name, as in :::slot{name=right}; its text is kept in the body.");
  return inner();
}

const isPercentage = (words: string, least: number, most: number): boolean =>
  /^\d+(\.\d+)?%?$/.test(words) && Number.parseFloat(words) >= least && Number.parseFloat(words) <= most;

function slideMark(attributes: Attributes, say: (message: string) => void): SlideMark {
  const mark: SlideMark = {};
  let seconds = 0.5;
  let veil: number | undefined;
  let kind: Transition["kind"] | undefined;
  for (const [key, value] of Object.entries(attributes)) {
    const said = value ?? "";
    const transition = TRANSITIONS.find((name) => name === said);
    const numbers = said.split(/[\s,]+/).map(Number);
    if (key === "id" && said) mark.id = said;
    else if (key === "arrangement" && said) mark.arrangement = said;
    else if (key === "hidden") mark.hidden = said !== "false";
    else if (key === "steps") mark.steps = said === "main" ? said : said !== "false";
    else if (key === "level" && /^[0-8]$/.test(said)) mark.level = Number(said);
    else if (key === "background" && /^#[0-9a-f]{6}$/i.test(said)) mark.background = { colour: said.toLowerCase() };
    else if (key === "background" && said && !said.startsWith("#")) mark.background = { picture: said };
    else if (key === "veil" && isPercentage(said, 0, 95)) veil = Number.parseFloat(said) / 100;
    else if (key === "transition" && transition) kind = transition;
    else if (key === "seconds" && Number(said) >= 0.1 && Number(said) <= 10) seconds = Number(said);
    else if (key === "delay" && Number(said) >= 0.5 && Number(said) <= 3600) mark.delay = Number(said);
    else if (
      key === "widths" &&
      (numbers.length === 2 || numbers.length === 3) &&
      numbers.every((width) => width >= 5 && width <= 95)
    )
      mark.widths = numbers;
    else if (key === "size" && isPercentage(said, 50, 200)) mark.textSize = Number.parseFloat(said) / 100;
    else if (key === "spacing" && isPercentage(said, 0, 500)) mark.spacing = Number.parseFloat(said) / 100;
    else if (key === "section" && said.trim() && said.length <= 300) mark.section = said;
    else
      say(
        `A slide has no “${key}${said ? `=${said}` : ""}”. Known are #id, arrangement, hidden, level from 0 to 8, steps, steps=main, background, veil from 0% to 95%, transition (${TRANSITIONS.join(", ")}), seconds, delay, widths, size from 50% to 200%, spacing from 0% to 500%, and section.`,
      );
  }
  if (veil !== undefined && mark.background && "picture" in mark.background)
    mark.background = { ...mark.background, veil };
  return kind ? { ...mark, transition: { kind, seconds } } : mark;
}

/**
 * Makes a chart of a table whose first row names the series and whose first column names the categories. Returns
 * undefined when other cells are not numbers.
 */
export function chartOf(
  table: Extract<Figure, { kind: "table" }>,
  type: ChartType,
): Extract<Figure, { kind: "chart" }> | undefined {
  const words = table.rows.map((row) => row.map((cell) => (cell ? textOf(cell.text).replace(/\s+/g, " ").trim() : "")));
  const [head, ...body] = table.header ? words : [[], ...words];
  if (!body.length || table.header > 1) return undefined;
  const columns = Math.max(...words.map(({ length }) => length));
  const series = Array.from({ length: columns - 1 }, (_, at) => ({
    name: head?.[at + 1] ?? "",
    values: body.map((row) => (row[at + 1] ? (numberIn(must(row[at + 1])) ?? Number.NaN) : null)),
  }));
  const valid =
    series.length > 0 &&
    series.every(
      ({ values }) =>
        values.every((value) => value === null || !Number.isNaN(value)) && values.some((value) => value !== null),
    );
  const categories = body.map(([name]) => name ?? "");
  const places = type === "scatter" ? categories.map((name) => numberIn(name) ?? Number.NaN) : [];
  if (type === "scatter" && valid && !places.some(Number.isNaN))
    return { kind: "chart", type: type, categories: [], series: series.map((one) => ({ ...one, x: places })) };
  return valid ? { kind: "chart", type: type, categories, series } : undefined;
}
