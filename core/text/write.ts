import { type Paragraph, type RichText, type Run, joinRuns } from "@unitext/core/model";
import type { BlockContent, List, ListItem, PhrasingContent, Root, RootContent } from "mdast";
import { directiveToMarkdown } from "mdast-util-directive";
import { gfmToMarkdown } from "mdast-util-gfm";
import { type Options, toMarkdown } from "mdast-util-to-markdown";
import { trimmed } from "./inline";

/** Colons inside a line are only colons, so only those that would begin a directive block are escaped. */
const directives = { ...directiveToMarkdown(), unsafe: [{ atBreak: true, character: ":", after: ":" }] };
const OPTIONS: Options = { bullet: "-", emphasis: "*", fences: true, listItemIndent: "one", rule: "-", extensions: [gfmToMarkdown(), directives as Options] };

/** Blocks of Markdown as text. */
export function markdownOf(children: RootContent[]): string {
  const root: Root = { type: "root", children };
  return toMarkdown(root, OPTIONS).trimEnd();
}

const WRAP = { strong: "strong", emphasis: "emphasis", strike: "delete" } as const;

/** Inline Markdown for runs: neighbours that share a link or a mark are wrapped once. */
export function inlineNodes(runs: readonly Run[]): PhrasingContent[] {
  const nodes: PhrasingContent[] = [];
  let at = 0;
  while (at < runs.length) {
    const first = runs[at] as Run;
    let end = at + 1;
    if (first.link) {
      while (end < runs.length && runs[end]?.link === first.link) end++;
      const url = first.link.startsWith("slide:") ? `#${first.link.slice(6)}` : first.link;
      nodes.push({ type: "link", url, children: inlineNodes(runs.slice(at, end).map(({ link: _, ...rest }) => rest)) as never });
    } else {
      const mark = (Object.keys(WRAP) as (keyof typeof WRAP)[]).find((name) => first.marks?.includes(name));
      if (mark) {
        while (end < runs.length && !runs[end]?.link && runs[end]?.marks?.includes(mark)) end++;
        const inner = runs.slice(at, end).map((item) => ({ ...item, marks: item.marks?.filter((name) => name !== mark) }));
        nodes.push({ type: WRAP[mark], children: inlineNodes(inner) } as PhrasingContent);
      } else if (first.marks?.includes("code")) nodes.push({ type: "inlineCode", value: first.text.replace(/\n/g, " ") });
      else nodes.push(...textNodes(first.text));
    }
    at = end;
  }
  return nodes;
}

function textNodes(text: string): PhrasingContent[] {
  return text.split("\n").flatMap((line, index): PhrasingContent[] => [...(index ? [{ type: "break" as const }] : []), ...(line ? [{ type: "text" as const, value: line }] : [])]);
}

/** A paragraph of code alone is a code block when it has lines, a code span when it has none. */
function paragraphNode(paragraph: Paragraph): BlockContent {
  const only = paragraph.runs.length === 1 ? paragraph.runs[0] : undefined;
  if (only?.marks?.join() === "code" && !only.link && only.text.includes("\n")) return { type: "code", value: only.text };
  return { type: "paragraph", children: inlineNodes(paragraph.runs) };
}

/** The same text as Markdown can hold it: levels without gaps, no empty paragraphs, no white space at the ends. */
export function normalText(text: RichText): RichText {
  const result: Paragraph[] = [];
  let open = -1;
  for (const paragraph of text) {
    const runs = trimmed(joinRuns(paragraph.runs));
    if (!runs.length && paragraph.kind === "plain") continue;
    const { align: _, ...rest } = paragraph;
    const level = Math.min(paragraph.level, open + 1);
    result.push({ ...rest, level, runs });
    open = paragraph.kind === "plain" ? level - 1 : level;
  }
  return result;
}

/** The blocks of a rich text: flat paragraphs with levels become nested lists. */
export function blocksOf(text: RichText): BlockContent[] {
  const blocks: BlockContent[] = [];
  const items: ListItem[] = [];
  for (const paragraph of normalText(text)) {
    items.length = Math.min(items.length, paragraph.kind === "plain" ? paragraph.level : paragraph.level + 1);
    const holder = paragraph.level === 0 ? blocks : (items[paragraph.level - 1] as ListItem).children;
    if (paragraph.kind === "plain") {
      holder.push(paragraphNode(paragraph) as never);
      items.length = paragraph.level;
      continue;
    }
    const ordered = paragraph.kind === "number";
    const last = holder.at(-1) as List | undefined;
    const item: ListItem = { type: "listItem", spread: false, children: paragraph.runs.length ? [{ type: "paragraph", children: inlineNodes(paragraph.runs) }] : [] };
    if (last?.type === "list" && last.ordered === ordered && items.length > paragraph.level) last.children.push(item);
    else holder.push({ type: "list", ordered, spread: false, children: [item], ...(ordered ? { start: 1 } : {}) } as never);
    items[paragraph.level] = item;
    items.length = paragraph.level + 1;
  }
  return blocks;
}
