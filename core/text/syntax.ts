import type { Root, RootContent } from "mdast";
import { fromMarkdown } from "mdast-util-from-markdown";
import { directiveFromMarkdown } from "mdast-util-directive";
import { gfmFromMarkdown } from "mdast-util-gfm";
import { mathFromMarkdown } from "mdast-util-math";
import { directive } from "micromark-extension-directive";
import { gfm } from "micromark-extension-gfm";
import { math } from "micromark-extension-math";

/** Directives as blocks only: a colon inside a line (10:am) is a colon. */
const { flow } = directive();
const SYNTAX = { extensions: [gfm(), math(), { flow }], mdastExtensions: [gfmFromMarkdown(), mathFromMarkdown(), directiveFromMarkdown()] };

/** Parses CommonMark with GFM, math and block directives. */
export function parseMarkdown(text: string): Root {
  return fromMarkdown(text, SYNTAX);
}

/** What may reach over an empty line: fences, containers, math between dollars, HTML. */
const REACHES = /^[ \t>*+\-\d.)]*(?:`{3}|~{3}|:{3}|\$\$|<)/m;
/** A line that is nothing but words, or a heading of such words: no character in it can mean anything else. */
const WORDS = /^(#{1,6} )?(?=[\p{L}“‘(])((?:[^\\*_`[\]<>&|~^$@{}=\t\0:]|:(?!\/))*)$/u;
const wordsOf = (line: string) => (line.endsWith(" ") || /www\./i.test(line) ? undefined : WORDS.exec(line));

/**
 * The nodes of a text, to which link and footnote definitions of elsewhere are added, and a root that holds the
 * definitions too. Paragraphs and headings of plain words are taken as they are, at a tenth of the time; everything else
 * is parsed in stretches between them, which read the same by themselves (CommonMark 0.31, 4.8 and 4.9: an empty line
 * ends a paragraph, and a line at the left margin that begins with a letter ends every list and indented block).
 */
export function parseStretch(text: string, shared: string): { root: Root; own: RootContent[] } {
  const own: RootContent[] = [];
  const others: RootContent[] = [];
  const lines = text.split("\n");
  const whole = REACHES.test(text);
  let from = 0;
  const parsed = (to: number) => {
    if (lines.slice(from, to).every((line) => line.trim() === "")) return;
    const stretch = `${"\n".repeat(from)}${lines.slice(from, to).join("\n")}`;
    for (const node of parseMarkdown(shared && stretch.includes("[") ? `${stretch}\n\n${shared}` : stretch).children) ((node.position?.start.line ?? 1) <= to ? own : others).push(node);
  };
  for (let at = 0; !whole && at < lines.length; at++) {
    const line = lines[at] as string;
    const alone = (lines[at - 1] ?? "").trim() === "" && (lines[at + 1] ?? "").trim() === "";
    const found = alone ? wordsOf(line) : undefined;
    if (!found) continue;
    parsed(at);
    from = at + 1;
    const place = (column: number) => ({ line: at + 1, column, offset: column - 1 });
    const position = { start: place(1), end: place(line.length + 1) };
    const marks = found[1] ?? "";
    const children = [{ type: "text" as const, value: (found[2] as string).trim(), position: { start: place(marks.length + 1), end: position.end } }];
    own.push(marks ? { type: "heading", depth: (marks.length - 1) as 1 | 2 | 3 | 4 | 5 | 6, children, position } : { type: "paragraph", children, position });
  }
  parsed(lines.length);
  return { root: { type: "root", children: [...own, ...others] }, own };
}
