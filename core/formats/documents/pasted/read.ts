import {
  type BreakRule,
  cutText,
  isEmptyText,
  type Paragraph,
  type RichText,
  type TableElement,
} from "@unitext/core/model";
import { type Block, manuscriptText, readText } from "@unitext/core/text";
import { suggestRule } from "../../shared/document/document";
import { readCsv } from "../csv/read";
import { readHtml } from "../html";
import { readPlain } from "../plain/read";

/** What came from the clipboard as text or HTML, in the forms in which it can be used. */
export interface Pasted {
  /** The table, where it is nothing but one: cells of a spreadsheet, or a table of a document. */
  table: Omit<TableElement, "id" | "slot"> | undefined;
  /** Its words as one text: paragraphs, lists and headings. */
  words: RichText;
  /** Whether it has headings or a structure of its own, so that it may be slides. */
  structured: boolean;
  /** In the text form, and the break rule that suits it. */
  text: string;
  rule: BreakRule;
}

/** HTML with headings, lists, tables or pictures; other HTML says no more than its plain text. */
const STRUCTURED = /<(h[1-6]|ul|ol|table|blockquote|img|sup|math)\b|mso-list/i;
const MARKED = /^#{1,6} \S|^(?:[-*+]|\d+[.)]) \S|^\|.*\|\s*$/m;

/** Whether a text is cells, as spreadsheets copy them: each line has the same number of tabs. */
function isTabbed(text: string): boolean {
  const counts = text
    .replace(/\r?\n$/, "")
    .split(/\r?\n/)
    .map((line) => line.split("\t").length);
  return (counts[0] ?? 0) > 1 && counts.every((count) => count === counts[0]);
}

const hasHeadings = (blocks: readonly Block[]) => blocks.some(({ kind }) => kind === "heading");

function blocksOf(html: string, text: string): Block[] {
  if (STRUCTURED.test(html)) {
    const { blocks } = readHtml(html);
    if (blocks.length) return blocks;
  }
  // The heading of a sheet would be its name, and pasted cells have none.
  if (isTabbed(text)) return readCsv(text, "").blocks.filter(({ kind }) => kind === "figure");
  const plain = readPlain(text).blocks;
  if (!MARKED.test(text)) return plain;
  const marked = [...readText(text).blocks];
  // An outline by numbers or bullets becomes slides; Markdown would read it as one list.
  return hasHeadings(plain) && !hasHeadings(marked) ? plain : marked;
}

function wordsOf(block: Block): RichText {
  if (block.kind === "heading")
    return block.text.map(
      (paragraph): Paragraph => ({
        ...paragraph,
        runs: paragraph.runs.map((run) => ({ ...run, marks: [...new Set([...(run.marks ?? []), "strong" as const])] })),
      }),
    );
  if (block.kind === "text" || block.kind === "quote") return block.text;
  if (block.kind === "figure" && block.figure.kind === "table")
    return block.figure.rows.flatMap((row) =>
      row.flatMap((cell) => (cell && !isEmptyText(cell.text) ? cell.text : [])),
    );
  return [];
}

/** Reads what the clipboard has, as HTML and as text; either may be empty. */
export function readPasted(html: string, text: string): Pasted {
  const blocks = blocksOf(html, text);
  const said = blocks.filter((block) => block.kind !== "text" || !isEmptyText(block.text));
  const [only] = said;
  const figure = said.length === 1 && only?.kind === "figure" ? only.figure : undefined;
  const found = blocks.flatMap(wordsOf);
  return {
    table: figure?.kind === "table" ? figure : undefined,
    words:
      found.length || !text.trim() ? found : [{ kind: "plain", level: 0, runs: [{ text: cutText(text, 20_000) }] }],
    structured: hasHeadings(said) || said.length > 1,
    text: manuscriptText({}, blocks).text,
    rule: suggestRule(blocks),
  };
}
