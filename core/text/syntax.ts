import type { Root, RootContent } from "mdast";
import { fromMarkdown } from "mdast-util-from-markdown";
import { directiveFromMarkdown } from "mdast-util-directive";
import { gfmFromMarkdown } from "mdast-util-gfm";
import { mathFromMarkdown } from "mdast-util-math";
import { directive } from "micromark-extension-directive";
import { gfm } from "micromark-extension-gfm";
import { math } from "micromark-extension-math";
import type { Segment } from "./segments";

/** Directives as blocks only: a colon inside a line (10:am) is a colon. */
const { flow } = directive();
const SYNTAX = {
  extensions: [gfm(), math(), { flow }],
  mdastExtensions: [gfmFromMarkdown(), mathFromMarkdown(), directiveFromMarkdown()],
};

/** Parses CommonMark with GFM, math and block directives. */
export function parseMarkdown(text: string): Root {
  return fromMarkdown(text, SYNTAX);
}

/** What may reach over an empty line: fences, containers, math between dollars, HTML. */
const REACHES = /^[ \t>*+\-\d.)]*(?:`{3}|~{3}|:{3}|\$\$|<)/m;
/** A line that is nothing but words, or a heading of such words: no character in it can mean anything else. */
const WORDS = /^(#{1,6} )?(?=[\p{L}“‘(])((?:[^\\*_`[\]<>&|~^$@{}=\t\0:]|:(?!\/))*)$/u;
const wordsOf = (line: string) => (line.endsWith(" ") || /www\./i.test(line) ? undefined : WORDS.exec(line));

/** A piece of a text that reads the same by itself: a paragraph or heading of plain words, or what stands between such; `from` is the number of its first line. */
export interface Stretch {
  text: string;
  from: number;
  plain: boolean;
}

/** A line at the margin that begins a paragraph whatever it holds: no mark of a list, quotation, fence or heading. */
const PARAGRAPH = /^(?:[\p{L}“‘([]|[*_`]{1,2}[^\s*_`])/u;
/** The line under a heading of the other form (CommonMark 0.31, 4.3). */
const UNDERLINE = /^(?:=+|-+)[ \t]*$/;

/** A list or quotation of more lines than this is read in pieces: the parser takes time with the square of its length. */
const LONG = 400;
/** Lines before which a long list or quotation can be parted: an item of its first level, a line of a quotation. */
const PARTS = /^(?:[-*+][ \t]|\d{1,9}[.)][ \t]| {0,3}>)/;

/**
 * Cuts a segment into the smallest pieces that can be read by themselves: before each paragraph at the margin,
 * after a heading that is underlined, and inside long lists and quotations (CommonMark 0.31, 4.8 and 4.9: an empty line ends a paragraph, and a line at the left margin that
 * begins with a letter ends every list and indented block).
 */
export function* stretches({ text, from: first }: Segment): Generator<Stretch> {
  const lines = text.split("\n");
  const whole = REACHES.test(text);
  let from = 0;
  const between = (to: number): Stretch[] => {
    while (from < to && lines[from]?.trim() === "") from++;
    return from < to ? [{ text: lines.slice(from, to).join("\n"), from: first + from, plain: false }] : [];
  };
  /** Whether the lines since the last empty one are of one paragraph at the margin. */
  let paragraph = false;
  for (let at = 0; !whole && at < lines.length; at++) {
    const line = lines[at] as string;
    const begins = at === from || (lines[at - 1] as string).trim() === "";
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
      // What begins with a bracket may be a definition, which no line under it makes a heading.
      paragraph = margin && !line.startsWith("[");
    } else if (paragraph && UNDERLINE.test(line)) {
      yield* between(at + 1);
      from = at + 1;
      paragraph = false;
    } else paragraph &&= margin;
  }
  yield* between(lines.length);
}

/** What stands between definitions of elsewhere and a stretch, so that neither goes on into the other. */
const APART = "\n\n<!-- -->\n\n";

/**
 * The nodes of a stretch, before which definitions of elsewhere are read, and a root that holds these too; `lead` is how
 * many lines stand before the stretch's own first, from which its nodes count. Plain words are taken as they are, at a
 * tenth of the time.
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
  // What is open at the end of a stretch (a fence, a comment) would take in what came after it.
  const before = shared ? `${shared}${APART}` : "";
  const lead = before.split("\n").length - 1;
  const root = parseMarkdown(before + text);
  return { root, own: root.children.filter(({ position }) => (position?.start.line ?? 1) > lead), lead };
}
