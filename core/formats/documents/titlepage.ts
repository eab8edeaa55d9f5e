import { countWords, cutText, paragraphText, plainText, type Run, textOf } from "@unitext/core/model";
import type { Block, FrontMatter } from "@unitext/core/text";
import { CONTENTS, type DocumentRead } from "../shared/document/document";

/** What a heading of a title page says that is not the name of a chapter: an author, a version, a date. */
const IMPRINT =
  /^(?:by|von|par|por|version|vers\.|v\.?\s?\d|rev(?:ision)?\b|draft|release|edition|©|copyright)\b|^\P{L}*\d{1,2}[.\s/-].*\d{4}$|^\p{L}+ (?:\d{1,2}, )?\d{4}$/iu;
/** A title page has at most so many headings, lines, words on a line, and words and characters in all (common practice, no source). */
const MOST = { headings: 5, lines: 10, line: 16, words: 60, characters: 400 } as const;

/** The word before the name of an author. */
const BY = /^(?:by|von|par|por)\s+(?=\p{Lu})/iu;

const keyOf = (text: string): string => text.toLowerCase().replace(/[^\p{L}\d]+/gu, "");

/** Whether runs are nothing but words, which front matter can hold. */
const isPlain = (runs: readonly Run[]): boolean => runs.every(({ footnote, link }) => !footnote && !link);

/** Whether a block consists of short lines, as on a title page, and not of sentences. */
const isLines = (block: Block): block is Block & { kind: "text" } =>
  block.kind === "text" &&
  block.text.every(
    (paragraph) =>
      paragraph.kind === "plain" && isPlain(paragraph.runs) && countWords(paragraphText(paragraph)) <= MOST.line,
  ) &&
  !/[.:]\s*$/.test(textOf(block.text));

/** Returns the front matter of a document with a title and the lines of its title page, which the opening slide shows. */
function withLines(front: FrontMatter, title: string, lines: readonly string[]): FrontMatter {
  const author = lines.find((line) => BY.test(line));
  // The opening slide shows author and date of the document anyway.
  const isShown = (line: string) => line === front.date || (author === undefined && line === front.author);
  const others = lines
    .filter((line) => line !== author && !isShown(line))
    // “Field guide, version 2” under “Field guide” says the version.
    .map((line) => line.replace(title, "").replace(/^[\s,.:–—-]+/, ""))
    .filter(
      (line, nth, all) => keyOf(line) !== "" && !all.slice(0, nth).some((other) => keyOf(other).endsWith(keyOf(line))),
    );
  if (!others.length)
    return { ...front, title: cutText(title, 500), ...(lines.length ? { subtitle: lines.join(" · ") } : {}) };
  return {
    ...front,
    title: cutText(title, 500),
    subtitle: cutText(others.join(" · "), 500),
    ...(author ? { author: cutText(author.replace(BY, ""), 500) } : {}),
  };
}

const isStrong = ({ marks }: Run): boolean => marks?.includes("strong") ?? false;

/** Returns the blocks before the first heading: the lines and pictures of a title page, and the text that follows them. */
function leadOf(blocks: readonly Block[]): { page: Block[]; text: Block[]; end: number } {
  const end = blocks.findIndex(({ kind }) => kind === "heading");
  const lead = blocks.slice(0, Math.max(0, end));
  const first = lead.findIndex((block) => block.kind !== "picture" && !isLines(block));
  const count = first < 0 ? lead.length : first;
  return { page: lead.slice(0, count), text: lead.slice(count), end };
}

const isLong = (text: string): boolean => countWords(text) > MOST.words || text.length > MOST.characters;

/**
 * Takes the short lines before the first heading as a title page; undefined where there are none. Text that follows them is
 * below the title.
 */
function linesAsTitlePage(document: DocumentRead): DocumentRead | undefined {
  const { blocks, front } = document;
  const { page, text, end } = leadOf(blocks);
  const pictures = page.filter(({ kind }) => kind === "picture");
  const lines = page.flatMap((block) => (isLines(block) ? block.text : []));
  if (!page.length || lines.length > MOST.lines || isLong(textOf(lines))) return undefined;
  const named = keyOf(front.title ?? "");
  const heading = blocks[end];
  const ofHeading = heading?.kind === "heading" && heading.depth === 1 ? textOf(heading.text) : "";
  const words = lines.map(paragraphText);
  const isNamed = (line: string) => named !== "" && keyOf(line) === named;
  const known = words.find(isNamed) ?? (isNamed(ofHeading) ? front.title : undefined);
  // One plain line before a heading may be anything.
  const isTitle = lines.length > 1 || lines.some(({ align, runs }) => align === "centre" || runs.every(isStrong));
  const title = known ?? (isTitle ? words[0] : undefined);
  if (!title) return undefined;
  const isRepeated = heading !== undefined && keyOf(ofHeading) === keyOf(title);
  const { from, to } = page[0] ?? { from: 1, to: 1 };
  const asHeading: Block = { kind: "heading", depth: 1, text: plainText(title), from, to };
  const below = [...pictures, ...text];
  return {
    ...document,
    front: withLines(
      front,
      title,
      words.filter((line) => keyOf(line) !== keyOf(title)),
    ),
    blocks: [
      ...(isRepeated ? [heading] : text.length ? [asHeading] : []),
      ...below,
      ...blocks.slice(isRepeated ? end + 1 : end),
    ],
  };
}

/** Takes consecutive headings at the start of a document, without text between them, as a title page. */
function headingsAsTitlePage(document: DocumentRead): DocumentRead {
  const { blocks, front } = document;
  const headings = blocks.findIndex((block) => block.kind !== "heading" || block.depth > 1);
  const words = blocks
    .slice(0, Math.max(0, headings))
    .map((block) => ("text" in block ? textOf(block.text).trim() : ""));
  // The last one is a chapter, unless it names an author, a version or a date.
  const count = IMPRINT.test(words.at(-1) ?? "") ? headings : headings - 1;
  const [title, ...lines] = words.slice(0, Math.max(0, count));
  const [heading] = blocks;
  const isPage = blocks
    .slice(0, Math.max(0, count))
    .every((block) => "text" in block && block.text.every(({ runs }) => isPlain(runs)));
  if (!title || !lines.length || headings > MOST.headings || !heading || !isPage || isLong(words.join(" ")))
    return document;
  return {
    ...document,
    front: withLines(front, title, lines),
    blocks: [heading, ...blocks.slice(count)],
  };
}

/** The share of the lines of a table of contents that end in the number of a page, at least. */
const NUMBERED = 0.8;

/** Leaves out a table of contents that was typed: lines with page numbers under their heading. Reports it. */
function withoutTypedContents(document: DocumentRead): DocumentRead {
  const { blocks } = document;
  const at = blocks.findIndex((block) => block.kind === "heading" && CONTENTS.test(textOf(block.text).trim()));
  if (at < 0) return document;
  const next = blocks.findIndex((block, nth) => nth > at && block.kind !== "text");
  const linesOf = (block: Block) => ("text" in block ? block.text.map(paragraphText) : []);
  const isNumbered = (line: string) => /(?:\s|\.)(?:\d{1,4}|[ivxlc]{1,6})\s*$/i.test(line);
  // Text may follow the table without a heading of its own.
  const last = blocks
    .slice(0, next < 0 ? blocks.length : next)
    .findLastIndex((block) => linesOf(block).some(isNumbered));
  const end = Math.max(at, last) + 1;
  const lines = blocks.slice(at + 1, end).flatMap(linesOf);
  const numbered = lines.filter(isNumbered).length;
  if (lines.length < 3 || numbered < lines.length * NUMBERED) return document;
  const message = "The document's table of contents is left out; the slides have their own order.";
  return {
    ...document,
    blocks: [...blocks.slice(0, at), ...blocks.slice(end)],
    problems: [...document.problems, { line: blocks[at]?.from ?? 1, message }],
  };
}

/**
 * Takes the title page of a document, whether its lines are styled as headings or not, as its title, subtitle and author,
 * and leaves out a table of contents that was typed.
 */
export function withTitlePage(document: DocumentRead): DocumentRead {
  const typed = withoutTypedContents(document);
  // Readers leave out the table itself; its heading, which may be plain text, has nothing below it then.
  const isBareContents = (block: Block, next: Block | undefined) =>
    (block.kind === "text" || block.kind === "heading") &&
    CONTENTS.test(textOf(block.text).trim()) &&
    (next === undefined || next.kind === "heading");
  const plain = {
    ...typed,
    blocks: typed.blocks.filter((block, nth) => !isBareContents(block, typed.blocks[nth + 1])),
  };
  return linesAsTitlePage(plain) ?? headingsAsTitlePage(plain);
}
