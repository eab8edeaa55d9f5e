import { columnName, type ChartElement, escapeXml, type Series, must } from "@unitext/core/model";
import { scanXml, type XmlElement } from "../../../shared/xml";
import { inOrder } from "../read/chart";

/**
 * A range of cells in one column or row, as a chart refers to it (`c:f`; ECMA-376-1, 21.2.2.65): columns from 0, rows
 * from 1.
 */
export interface CellRange {
  sheet: string;
  column: number;
  row: number;
  /** Whether the cells are in a row. */
  across: boolean;
}

const columnOf = (letters: string) => [...letters].reduce((sum, letter) => sum * 26 + letter.charCodeAt(0) - 64, 0) - 1;

/** Parses a reference; undefined unless it is a row or column of one sheet of the chart's own workbook. */
export function rangeOf(formula: string): CellRange | undefined {
  const [, quoted, bare, first = "", from = "", last = first, to = from] =
    /^(?:'((?:[^'[]|'')+)'|([^!'[\s]+))!\$?([A-Z]{1,3})\$?(\d+)(?::\$?([A-Z]{1,3})\$?(\d+))?$/.exec(formula.trim()) ??
    [];
  const sheet = quoted?.replace(/''/g, "'") ?? bare;
  if (sheet === undefined || (first !== last && from !== to)) return undefined;
  return { sheet, column: columnOf(first), row: Number(from), across: first !== last };
}

const formulaOf = ({ sheet, column, row, across }: CellRange, count: number) => {
  const name = /^[A-Za-z_]\w*$/.test(sheet) ? sheet : `'${sheet.replace(/'/g, "''")}'`;
  const end = Math.max(1, count) - 1;
  const last = end === 0 ? "" : `:$${columnName(column + (across ? end : 0))}$${row + (across ? 0 : end)}`;
  return `${name}!$${columnName(column)}$${row}${last}`;
};

/** The sources of a series in the text of its chart, and their values. */
interface Source {
  /** `tx`, `cat`, `val`, `xVal` or `yVal`. */
  kind: string;
  from: number;
  to: number;
  prefix: string;
  /** The element that holds the values: `strRef`, `numLit`, … */
  holder: string;
  formula: string;
  format: string;
  count: number;
}

const KINDS = new Set(["tx", "cat", "val", "xVal", "yVal"]);
const local = (name: string) => name.slice(name.indexOf(":") + 1);

/** Returns the sources of each series of a chart, in the order in which they are read. */
function sourcesIn(text: string, where: string): Source[][] {
  const series: { sources: Source[]; order: number }[] = [];
  const stack: string[] = [];
  let source: Source | undefined;
  let words = "";
  scanXml(text, where, {
    open(tag, attributes, from) {
      const name = local(tag);
      const above = stack.at(-1);
      words = "";
      if (name === "ser" && above?.endsWith("Chart")) series.push({ sources: [], order: Number.NaN });
      else if (above === "ser" && name === "order") must(series.at(-1)).order = Number(attributes.val ?? Number.NaN);
      else if (above === "ser" && KINDS.has(name))
        source = {
          kind: name,
          from,
          to: from,
          prefix: tag.slice(0, tag.length - name.length),
          holder: "",
          formula: "",
          format: "",
          count: 0,
        };
      else if (source && !source.holder) source.holder = name;
      else if (source && name === "ptCount") source.count = Number(attributes.val) || 0;
      stack.push(name);
    },
    close(_, to) {
      const name = must(stack.pop());
      if (!source) return;
      if (name === "f") source.formula = words;
      if (name === "formatCode") source.format = words;
      if (KINDS.has(name) && stack.at(-1) === "ser") {
        series.at(-1)?.sources.push({ ...source, to });
        source = undefined;
      }
    },
    text(characters) {
      words += characters;
    },
  });
  return inOrder(series, ({ order }) => order).map(({ sources }) => sources);
}

/**
 * Whether the data of a chart can be updated in its part: every source is a row or column of its workbook, or literal.
 */
export function takesData(space: XmlElement): boolean {
  let fits = true;
  const look = (element: XmlElement, inside: string): void => {
    const { local: name } = element;
    if (name === "f" && KINDS.has(inside) && rangeOf(element.text) === undefined) fits = false;
    if (name === "extLst" || name === "AlternateContent") return;
    for (const inner of element.children)
      look(
        inner,
        KINDS.has(name) && inside === "ser" ? name : name === "ser" ? "ser" : KINDS.has(inside) ? inside : name,
      );
  };
  look(space, "");
  return fits;
}

type Values = readonly (string | number | null)[];

/** Cells with new values, and cells that become empty. */
export interface CellChange {
  sheet: string;
  column: number;
  row: number;
  value: string | number | null;
}

function valuesFor(kind: string, chart: ChartElement, series: Series): Values {
  if (kind === "tx") return [series.name];
  const count =
    chart.type === "scatter" ? series.values.length : Math.max(chart.categories.length, series.values.length);
  if (kind === "cat") return Array.from({ length: count }, (_, at) => chart.categories[at] ?? "");
  if (kind === "xVal") return series.values.map((_, at) => series.x?.[at] ?? at + 1);
  return Array.from({ length: count }, (_, at) => series.values[at] ?? null);
}

/**
 * Updates the data in the text of a chart part, and returns it with the changed cells of its workbook; `before` are the
 * data that the part has. Returns undefined when the new data do not fit: the part has other series.
 */
export function updateChart(
  text: string,
  where: string,
  chart: ChartElement,
  before: Pick<ChartElement, "categories" | "series">,
): { text: string; cells: CellChange[] } | undefined {
  const all = sourcesIn(text, where);
  if (all.length !== chart.series.length || all.length !== before.series.length) return undefined;
  const cells: CellChange[] = [];
  const edits: { from: number; to: number; words: string }[] = [];
  for (const [nth, sources] of all.entries()) {
    const [now, was] = [must(chart.series[nth]), must(before.series[nth])];
    for (const source of sources) {
      const values = valuesFor(source.kind, chart, now);
      if (JSON.stringify(values) === JSON.stringify(valuesFor(source.kind, { ...chart, ...before }, was))) continue;
      const range = source.formula ? rangeOf(source.formula) : undefined;
      if (source.formula && !range) return undefined;
      const numbers = source.kind === "val" || source.kind === "yVal" || source.kind === "xVal";
      const c = source.prefix;
      const points = values
        .map((value, idx) =>
          value === null ? "" : `<${c}pt idx="${idx}"><${c}v>${escapeXml(String(value))}</${c}v></${c}pt>`,
        )
        .join("");
      const cache = `${numbers ? `<${c}formatCode>${escapeXml(source.format || "General")}</${c}formatCode>` : ""}<${c}ptCount val="${values.length}"/>${points}`;
      const kind = numbers ? "num" : "str";
      const plain = source.kind === "tx" && source.holder === "v";
      const inside = plain
        ? `<${c}v>${escapeXml(String(values[0] ?? ""))}</${c}v>`
        : range
          ? `<${c}${kind}Ref><${c}f>${escapeXml(formulaOf(range, values.length))}</${c}f><${c}${kind}Cache>${cache}</${c}${kind}Cache></${c}${kind}Ref>`
          : `<${c}${kind}Lit>${cache}</${c}${kind}Lit>`;
      edits.push({ from: source.from, to: source.to, words: `<${c}${source.kind}>${inside}</${c}${source.kind}>` });
      if (range)
        for (let at = 0; at < Math.max(values.length, source.count); at++)
          cells.push({
            sheet: range.sheet,
            column: range.column + (range.across ? at : 0),
            row: range.row + (range.across ? 0 : at),
            value: values[at] ?? null,
          });
    }
  }
  let out = text;
  for (const { from, to, words } of edits.reverse()) out = out.slice(0, from) + words + out.slice(to);
  return { text: out, cells };
}
