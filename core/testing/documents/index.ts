import { type Paragraph, paragraphText, textOf } from "@unitext/core/model";
import type { Block } from "@unitext/core/text";
import { readSource, type SourceKind } from "../../formats";

/** Reads a document of a kind: its blocks and problems. */
export function readDocument(bytes: Uint8Array, kind: SourceKind) {
  const source = readSource(bytes, `a.${kind}`, kind);
  return { source, blocks: [...source.manuscript.blocks], problems: source.manuscript.problems };
}

export const wordsOf = (text: readonly Paragraph[]) => text.map(paragraphText);

/** Returns a block in short: “h2 Title”, the paragraphs of a text with their kind and level, the rows of a table. */
export const shape = (block: Block): unknown => {
  if (block.kind === "heading") return `h${block.depth} ${textOf(block.text)}`;
  if (block.kind === "text")
    return block.text.map(
      ({ kind, level, align, ...paragraph }) =>
        `${kind[0]}${level}${align ? align[0] : ""} ${paragraphText({ kind, level, ...paragraph })}`,
    );
  if (block.kind === "figure")
    return block.figure.kind === "table"
      ? {
          header: block.figure.header,
          rows: block.figure.rows.map((row) =>
            row.map((cell) => cell && [textOf(cell.text), cell.columns ?? 1, cell.rows ?? 1]),
          ),
          caption: block.figure.caption,
        }
      : block.figure;
  if (block.kind === "picture") return { alt: block.picture.alt, caption: block.picture.caption };
  return "text" in block ? { [block.kind]: wordsOf(block.text) } : block.kind;
};
