import { joinRuns, type RichText, type Run } from "@unitext/core/model";
import type { Link, Paragraph, PhrasingContent, Root } from "mdast";
import { gfmFromMarkdown } from "mdast-util-gfm";
import { type Block, linkTarget } from "./manuscript";

/** What turns addresses in a text into links (GitHub Flavored Markdown 0.29, section 6.9), as the text form does. */
const TRANSFORMS = gfmFromMarkdown().flatMap(({ transforms }) => transforms ?? []);
const MAY_HAVE = /:\/\/|www\.|@/;

const wordsOf = (node: PhrasingContent): string => ("value" in node ? node.value : "");

/** Returns a run divided at the addresses in it, which become links. */
function linked(item: Run): Run[] {
  if (item.link || item.footnote || item.binding || !MAY_HAVE.test(item.text)) return [item];
  if (item.marks?.some((mark) => mark === "code" || mark === "formula")) return [item];
  const paragraph: Paragraph = { type: "paragraph", children: [{ type: "text", value: item.text }] };
  const root: Root = { type: "root", children: [paragraph] };
  for (const transform of TRANSFORMS) transform(root);
  return paragraph.children.map((node): Run => {
    const { type } = node;
    if (type !== "link") return { ...item, text: wordsOf(node) };
    const { url, children } = node as Link;
    const target = linkTarget(url);
    return { ...item, text: children.map(wordsOf).join(""), ...(target ? { link: target } : {}) };
  });
}

/** Returns items of a list whose levels begin at the outermost and deepen by one, as an outline can say them. */
function withLevels(text: RichText): RichText {
  const listed = text.filter(({ kind }) => kind !== "plain");
  const outer = Math.min(...listed.map(({ level }) => level));
  if (!listed.length || (outer === 0 && text[0]?.level === 0)) return text;
  let before = -1;
  return text.map((paragraph) => {
    const level = Math.max(0, Math.min(paragraph.level - outer, before + 1));
    if (paragraph.kind !== "plain") before = level;
    return { ...paragraph, level };
  });
}

/** Returns a text with its addresses as links, and equal runs as one. */
const normalisedText = (text: RichText): RichText =>
  withLevels(text).map((paragraph) => ({
    ...paragraph,
    runs: joinRuns(
      paragraph.runs.flatMap((item) =>
        item.footnote ? [{ ...item, footnote: joinRuns(item.footnote.flatMap(linked)) } as Run] : linked(item),
      ),
    ),
  }));

/** Returns a text in which items have a start only where it does not follow from the item before. */
function withoutImpliedStarts(text: RichText): RichText {
  const counts: number[] = [];
  return text.map((paragraph) => {
    counts.length = Math.min(counts.length, paragraph.kind === "plain" ? paragraph.level : paragraph.level + 1);
    if (paragraph.kind === "plain") return paragraph;
    const implied = (counts[paragraph.level] ?? 0) + 1;
    counts[paragraph.level] = paragraph.kind === "number" ? (paragraph.start ?? implied) : 0;
    if (paragraph.start !== implied) return paragraph;
    const { start: _, ...rest } = paragraph;
    return rest;
  });
}

/**
 * Returns a block of a document as its text form gives it back: addresses are links, equal runs are one, and the levels of a
 * list follow each other. Slides made from the document and from its text are then the same.
 */
export function normalisedBlock(block: Block): Block {
  if (block.kind === "figure" && block.figure.kind === "table") {
    const rows = block.figure.rows.map((row) =>
      row.map((cell) => cell && { ...cell, text: normalisedText(cell.text) }),
    );
    return { ...block, figure: { ...block.figure, rows } };
  }
  return "text" in block ? { ...block, text: normalisedText(withoutImpliedStarts(block.text)) } : block;
}
