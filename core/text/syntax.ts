import { must } from "@unitext/core/model";
import type { Root, RootContent } from "mdast";
import { fromMarkdown } from "mdast-util-from-markdown";
import { directiveFromMarkdown } from "mdast-util-directive";
import { gfmFromMarkdown } from "mdast-util-gfm";
import { mathFromMarkdown } from "mdast-util-math";
import { directive } from "micromark-extension-directive";
import { gfm } from "micromark-extension-gfm";
import { math } from "micromark-extension-math";
import type { Segment } from "./segments";

/** Directives are blocks only: a colon inside a line (10:am) is a colon. */
const { flow } = directive();
const SYNTAX = {
  extensions: [gfm(), math(), { flow }],
  mdastExtensions: [gfmFromMarkdown(), mathFromMarkdown(), directiveFromMarkdown()],
};

/** Parses CommonMark with GFM, math and block directives. */
export function parseMarkdown(text: string): Root {
  return fromMarkdown(text, SYNTAX);
}

/** What may span an empty line: fences, containers, math between dollars, HTML. */
const REACHES = /^[ \t>*+\-\d.)]*(?:`{3}|~{3}|:{3}|\$\$|<)/m;
/** A line of plain words, or a heading of plain words: no character in it can have another meaning. */
const WORDS = /^(#{1,6} )?(?=[\p{L}“‘(])((?:[^\\*_`[\]<>&|~^$@{}=\t\0:]|:(?!\/))*)$/u;
const wordsOf = (line: string) => (line.endsWith(" ") || /www\./i.test(line) ? undefined : WORDS.exec(line));

/**
 * A piece of a text that parses the same by itself: a paragraph or heading of plain words, or what is between such
 * pieces; `from` is the number of its first line.
 */
export interface Stretch {
  text: string;
  from: number;
  plain: boolean;
}

/**
 * A line at the margin that starts a paragraph whatever it contains: no mark of a list, quotation, fence or heading.
 */
const PARAGRAPH = /^(?:[\p{L}“‘([]|[*_`]{1,2}[^\s*_`])/u;
/** The line under a setext heading (CommonMark 0.31, 4.3). */
const UNDERLINE = /^(?:=+|-+)[ \t]*$/;

/** A list or quotation with more lines than this is parsed in pieces: the parser takes quadratic time. */
const LONG = 400;
/** Lines before which a long list or quotation can be cut: an item of its first level, a line of a quotation. */
const PARTS = /^(?:[-*+][ \t]|\d{1,9}[.)][ \t]| {0,3}>)/;

/**
 * Cuts a segment into the smallest pieces that can be parsed by themselves: before each paragraph at the margin, after
 * a setext heading, and inside long lists and quotations (CommonMark 0.31, 4.8 and 4.9: an empty line ends a paragraph,
 * and a line at the left margin that starts with a letter ends every list and indented block).
 */
export function* stretches({ text, from: first }: Segment): Generator<Stretch> {
  const lines = text.split("\n");
  const whole = REACHES.test(text);
  let from = 0;
  const between = (to: number): Stretch[] => {
    while (from < to && lines[from]?.trim() === "") from++;
    return from < to ? [{ text: lines.slice(from, to).join("\n"), from: first + from, plain: false }] : [];
  };
  /** Whether the lines since the last empty one belong to one paragraph at the margin. */
  let paragraph = false;
  for (let at = 0; !whole && at < lines.length; at++) {
    const line = must(lines[at]);
    const begins = at === from || must(lines[at - 1]).trim() === "";
    const margin = PARAGRAPH.test(line);
    if (at - from > LONG && PARTS.test(line)) {
      yield* between(at);
      from = at;
      paragraph = false;
    } else if (begins && (lines[at + 1] ?? "").trim() === "" && wordsOf(line)) {
      yield* between(at);
      yield { text: line, from: first + at, plain: true };
      from = at + 1;
      paragraph = false;
    } else if (begins) {
      if (margin) {
        yield* between(at);
        from = at;
      }
      // A line that starts with a bracket may be a definition, which no line under it makes a heading.
      paragraph = margin && !line.startsWith("[");
    } else if (paragraph && UNDERLINE.test(line)) {
      yield* between(at + 1);
      from = at + 1;
      paragraph = false;
      // A footnote may interrupt the paragraph; a line under it makes no heading of it.
    } else paragraph &&= margin && !line.startsWith("[^");
  }
  yield* between(lines.length);
}

/** Separates definitions from a stretch, so that neither continues into the other. */
const APART = "\n\n<!-- -->\n\n";

/**
 * Parses a stretch after the definitions that it needs. Returns its nodes, and a root that also holds the definitions;
 * `lead` is the number of lines before the stretch's first, from which the nodes count. Plain words skip the parser, at
 * a tenth of the time.
 */
export function parseStretch(
  { text, plain }: Pick<Stretch, "text" | "plain">,
  shared = "",
): { root: Root; own: RootContent[]; lead: number } {
  if (plain) {
    const [, marks = "", words = ""] = WORDS.exec(text) ?? [];
    const place = (column: number) => ({ line: 1, column, offset: column - 1 });
    const position = { start: place(1), end: place(text.length + 1) };
    const children = [
      { type: "text" as const, value: words.trim(), position: { start: place(marks.length + 1), end: position.end } },
    ];
    const own: RootContent[] = [
      marks
        ? { type: "heading", depth: (marks.length - 1) as 1 | 2 | 3 | 4 | 5 | 6, children, position }
        : { type: "paragraph", children, position },
    ];
    return { root: { type: "root", children: own }, own, lead: 0 };
  }
  // Whatever is open at the end of a stretch (a fence, a comment) would swallow what comes after it.
  const before = shared ? `${shared}${APART}` : "";
  const lead = before.split("\n").length - 1;
  const root = parseMarkdown(before + text);
  return { root, own: root.children.filter(({ position }) => (position?.start.line ?? 1) > lead), lead };
}
