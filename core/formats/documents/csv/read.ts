import { type Cell, numberIn, run, within, must } from "@unitext/core/model";
import Papa from "papaparse";
import { type DocumentRead, emptyDocument } from "../../shared/document/document";

const cell = (text: string): Cell => ({
  text: text.trim() ? [{ kind: "plain", level: 0, runs: [run(text.trim().replace(/\r\n?/g, "\n"))] }] : [],
});

/**
 * Reads comma, semicolon or tab separated values. One column is a list, an item a line; several columns are a table
 * with numbers to the right.
 */
export function readCsv(text: string, name: string): DocumentRead {
  const document = emptyDocument();
  const { data, errors } = Papa.parse<string[]>(text, {
    skipEmptyLines: "greedy",
    delimitersToGuess: [",", ";", "\t", "|"],
  });
  for (const { row, message } of errors)
    if (message && row !== undefined && !/delimiter/i.test(message))
      document.problems.push({
        line: row + 1,
        message: `The row is not written as a table expects it (${message}); it was taken as far as it could be read.`,
      });
  const width = data.reduce((most, row) => Math.max(most, row.length), 0);
  if (!data.length) return document;
  if (width <= 1) within("blocks", data.length, name);
  else within("cells", width * data.length, name);
  const title = name.replace(/\.[^.]*$/, "");
  if (width <= 1) {
    document.front.title = title;
    for (const [at, [value = ""]] of data.entries())
      if (value.trim()) document.blocks.push({ kind: "text", text: cell(value).text, from: at + 1, to: at + 1 });
    return document;
  }
  const ragged = data.filter((row) => row.length !== width).length;
  if (ragged)
    document.problems.push({
      line: 1,
      message: `${ragged} of ${data.length} rows have fewer cells than the longest; empty cells fill them.`,
    });
  const numeric = (row: readonly string[], at: number) => numberIn(row[at] ?? "") !== undefined;
  const header =
    data.length > 1 && must(data[0]).every((value) => value.trim() !== "" && numberIn(value) === undefined)
      ? 1
      : data.length > 1 &&
          must(data[0])
            .slice(1)
            .every((value) => !numberIn(value))
        ? 1
        : 0;
  const body = data.slice(header);
  document.blocks.push({ kind: "heading", depth: 2, text: cell(title).text, from: 1, to: 1 });
  document.blocks.push({
    kind: "figure",
    figure: {
      kind: "table",
      rows: data.map((row) => Array.from({ length: width }, (_, at) => cell(row[at] ?? ""))),
      header,
      align: Array.from({ length: width }, (_, at) =>
        body.filter((row) => numeric(row, at)).length > body.length * 0.6 ? "end" : "start",
      ),
    },
    from: 1,
    to: data.length,
  });
  return document;
}
