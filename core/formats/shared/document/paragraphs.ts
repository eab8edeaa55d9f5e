import { cutText, type Run } from "@unitext/core/model";
import type { Block } from "@unitext/core/text";

/** Adds a line of code on a line of the document: to code that ends on the line before, or as a figure of its own. */
export function addCode(into: Block[], text: string, line: number): void {
  const last = into.at(-1);
  if (last?.kind === "figure" && last.figure.kind === "code" && last.to === line - 1) {
    last.figure.text += `\n${text}`;
    last.to = line;
  } else into.push({ kind: "figure", figure: { kind: "code", language: "", text }, from: line, to: line });
}

/** The longest heading in characters; a longer paragraph in a heading style is text (common practice, no source). */
const LONGEST_HEADING = 200;

/**
 * Divides a paragraph in a heading style into heading and text: one that is too long for a heading is text, except for the
 * bold or italic words with which it begins.
 */
export function runInHeading(runs: readonly Run[]): { heading: Run[]; text: Run[] } {
  const length = runs.reduce((sum, { text }) => sum + text.length, 0);
  if (length <= LONGEST_HEADING) return { heading: [...runs], text: [] };
  const isLead = ({ marks }: Run) => marks?.some((mark) => mark === "strong" || mark === "emphasis") ?? false;
  const end = runs.findIndex((item) => !isLead(item));
  const heading = end > 0 ? runs.slice(0, end) : [];
  const isShort = heading.reduce((sum, { text }) => sum + text.length, 0) <= LONGEST_HEADING;
  if (!isShort) return { heading: [], text: [...runs] };
  const [first, ...rest] = runs.slice(heading.length);
  return { heading, text: first ? [{ ...first, text: first.text.trimStart() }, ...rest] : [] };
}

/** Adds a paragraph of a quotation on a line of the document: to a quotation that ends on the line before, or a new one. */
export function addQuote(into: Block[], runs: Run[], line: number): void {
  const last = into.at(-1);
  if (last?.kind === "quote" && last.to === line - 1) {
    last.text.push({ kind: "plain", level: 0, runs });
    last.to = line;
  } else into.push({ kind: "quote", text: [{ kind: "plain", level: 0, runs }], from: line, to: line });
}

/** Gives a picture or table its caption. Returns false when the block is neither. */
export function setCaption(block: Block | undefined, text: string): boolean {
  const words = cutText(text.replace(/\s+/g, " ").trim(), 2000);
  if (block?.kind === "picture") block.picture.caption = words;
  else if (block?.kind === "figure" && block.figure.kind === "table") block.figure.caption = words;
  else return false;
  return true;
}

/** Whether a block has a caption. */
export const hasCaption = (block: Block | undefined): boolean =>
  (block?.kind === "picture" && Boolean(block.picture.caption)) ||
  (block?.kind === "figure" && block.figure.kind === "table" && Boolean(block.figure.caption));
