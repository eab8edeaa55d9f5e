import { type ChartElement, escapeXml, must, columnName } from "@unitext/core/model";
import { at, child, childrenOf, scanXml, type XmlNode, attribute } from "../../../shared/xml";

const RANGE = /^[^.$]*\.?\$?([A-Z]{1,3})\$?(\d+)(?::[^.$]*\.?\$?([A-Z]{1,3})\$?(\d+))?$/;

/** Reads the column, first and last row of a cell range address (OpenDocument 1.3, part 3, 18.3.6). */
function rangeOf(address: string | undefined): { column: string; first: number; last: number } | undefined {
  const [, column, first, to = column, last = first] = RANGE.exec((address ?? "").trim()) ?? [];
  return column !== undefined && column === to ? { column, first: Number(first), last: Number(last) } : undefined;
}

/**
 * Whether the data of a chart document have the usual form: categories in the first column of its own table, a series
 * in each further column, names in the first row.
 */
export function takesData(content: XmlNode): boolean {
  const chart = at(content, "body", "chart", "chart");
  const area = child(chart, "plot-area");
  const series = childrenOf(area, "series");
  const categories = childrenOf(area, "axis")
    .map((axis) => child(axis, "categories"))
    .find(Boolean);
  const named = rangeOf(attribute(categories, "cell-range-address"));
  if (!child(chart, "table") || !series.length || named?.column !== "A" || named.first !== 2) return false;
  return series.every((one, nth) => {
    const [values, label] = [
      rangeOf(attribute(one, "values-cell-range-address")),
      rangeOf(attribute(one, "label-cell-address")),
    ];
    return (
      !child(one, "domain") &&
      values?.column === columnName(nth + 1) &&
      values.first === 2 &&
      label?.column === columnName(nth + 1) &&
      label.first === 1
    );
  });
}

const URIS = {
  office: "urn:oasis:names:tc:opendocument:xmlns:office:1.0",
  text: "urn:oasis:names:tc:opendocument:xmlns:text:1.0",
};
const ROWS = new Set(["table-header-rows", "table-rows", "table-row"]);

/**
 * Returns the text of a chart document with new data in its table and ranges of their length; everything else stays.
 * Undefined when its table is not as `takesData` requires.
 */
export function updateChart(text: string, where: string, { categories, series }: ChartElement): string | undefined {
  const names: Record<string, string> = {};
  const stack: string[] = [];
  let [table, from, to, shown, last] = ["", -1, -1, -1, 0];
  let count = 0;
  scanXml(text, where, {
    open(tag, attributes, at) {
      const name = tag.slice(tag.indexOf(":") + 1);
      if (!stack.length)
        for (const [key, uri] of Object.entries(attributes))
          for (const [known, wanted] of Object.entries(URIS))
            if (uri === wanted) names[known] = key.replace(/^xmlns:?/, "");
      if (name === "plot-area") shown = at;
      if (name === "series") {
        count += 1;
        last =
          rangeOf(Object.entries(attributes).find(([key]) => key.endsWith(":values-cell-range-address"))?.[1])?.last ??
          last;
      }
      if (ROWS.has(name) && stack.at(-1) === "table" && stack.at(-2) === "chart") {
        table = tag.slice(0, tag.length - name.length);
        if (from < 0) from = at;
      }
      stack.push(name);
    },
    close(_, end) {
      const name = must(stack.pop());
      if (ROWS.has(name) && stack.at(-1) === "table" && stack.at(-2) === "chart") to = end;
    },
  });
  const [office, words] = [names.office, names.text];
  if (from < 0 || shown < 0 || !last || count !== series.length || !office || !words) return undefined;
  const word = (value: string) =>
    `<${table}table-cell ${office}:value-type="string"><${words}:p>${escapeXml(value)}</${words}:p></${table}table-cell>`;
  const number = (value: number | null | undefined) =>
    value === null || value === undefined
      ? `<${table}table-cell/>`
      : `<${table}table-cell ${office}:value-type="float" ${office}:value="${value}"><${words}:p>${value}</${words}:p></${table}table-cell>`;
  const row = (...cells: string[]) => `<${table}table-row>${cells.join("")}</${table}table-row>`;
  const rows = Math.max(1, categories.length, ...series.map(({ values }) => values.length));
  const body = Array.from({ length: rows }, (_, at) =>
    row(word(categories[at] ?? ""), ...series.map(({ values }) => number(values[at]))),
  );
  const made = `<${table}table-header-rows>${row(word(""), ...series.map(({ name }) => word(name)))}</${table}table-header-rows><${table}table-rows>${body.join("")}</${table}table-rows>`;
  // Ranges that ended with the last row end with it again.
  const ranged = (words: string) =>
    words.replace(
      /(-range-address\s*=\s*["'][^"']*?\$?[A-Z]+\$?\d+:[^"']*?\$?[A-Z]+\$?)(\d+)(["'])/g,
      (whole, open: string, end: string, quote: string) =>
        Number(end) === last ? `${open}${rows + 1}${quote}` : whole,
    );
  return shown < from
    ? text.slice(0, shown) + ranged(text.slice(shown, from)) + made + text.slice(to)
    : text.slice(0, from) + made + text.slice(to, shown) + ranged(text.slice(shown));
}
