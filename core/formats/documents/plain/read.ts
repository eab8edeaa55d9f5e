import { countWords, MAX_LEVEL, type Paragraph, run, must } from "@unitext/core/model";
import { type Block, linkTarget } from "@unitext/core/text";
import { type DocumentRead, emptyDocument } from "../../shared/document/document";

interface Line {
  number: number;
  indent: number;
  /** A bullet, a number such as 6.4.1, or none. */
  marker: "bullet" | "number" | "letter" | null;
  path: number;
  /** The first part of its number. */
  first: string;
  text: string;
}

const BULLET = /^([-*+•‣◦·–—▪●○■]|o(?=\s{1,3}\S))\s+/;
const NUMBER = /^(\d{1,3}(?:\.\d{1,3}){0,5})[.):]?\s+(?=\S)/;
const LETTER = /^(?:\(?[a-z]\)|[a-z]\.|\(?[ivx]{1,4}\)|[IVX]{1,5}\.)\s+/;
const UNDERLINE = /^\s*([=-])\1{2,}\s*$/;
const URL = /\bhttps?:\/\/[^\s<>"]+[^\s<>".,;:!?)\]]/g;

function lineOf(raw: string, number: number): Line | null {
  if (raw.trim() === "") return null;
  const lead = /^[\s\u200B\uFEFF]*/.exec(raw)?.[0] ?? "";
  const indent = [...lead].reduce(
    (width, character) => (character === "\t" ? (Math.floor(width / 4) + 1) * 4 : width + 1),
    0,
  );
  const text = raw.slice(lead.length).trimEnd();
  const bullet = BULLET.exec(text);
  if (bullet) return { number, indent, marker: "bullet", path: 0, first: "", text: text.slice(bullet[0].length) };
  const numbered = NUMBER.exec(text);
  // A year or an amount at the start of a sentence is not an outline number.
  if (numbered && (/[.):]\s+$/.test(numbered[0]) || must(numbered[1]).includes(".")))
    return {
      number,
      indent,
      marker: "number",
      path: must(numbered[1]).split(".").length,
      first: must(must(numbered[1]).split(".")[0]),
      text: text.slice(numbered[0].length),
    };
  const letter = LETTER.exec(text);
  if (letter) return { number, indent, marker: "letter", path: 0, first: "", text: text.slice(letter[0].length) };
  return { number, indent, marker: null, path: 0, first: "", text };
}

function runsOf(text: string): Paragraph["runs"] {
  const runs: Paragraph["runs"] = [];
  let at = 0;
  for (const found of text.matchAll(URL)) {
    const target = linkTarget(found[0]);
    if (!target) continue;
    if (found.index > at) runs.push(run(text.slice(at, found.index)));
    runs.push(run(found[0], [], target));
    at = found.index + found[0].length;
  }
  if (at < text.length) runs.push(run(text.slice(at)));
  return runs;
}

const isTitle = (text: string) => countWords(text) <= 12 && !/[.,;!?]$/.test(text);
const heading = (depth: number, text: string, line: number): Block => ({
  kind: "heading",
  depth: Math.min(6, Math.max(1, depth)),
  text: [{ kind: "plain", level: 0, runs: runsOf(text) }],
  from: line,
  to: line,
});

/** Collects lines into blocks: items of one list together, each with its line. */
class Gatherer {
  readonly blocks: Block[] = [];
  private text: Paragraph[] = [];
  private items: number[] = [];
  private last = 0;

  flush(): void {
    if (this.text.length)
      this.blocks.push({
        kind: "text",
        text: this.text,
        items: this.items,
        from: must(this.items[0]),
        to: this.last,
      });
    this.text = [];
    this.items = [];
  }

  heading(depth: number, text: string, line: number): void {
    this.flush();
    this.blocks.push(heading(depth, text, line));
  }

  item(kind: "bullet" | "number", level: number, { text, number: line, ...item }: Line): void {
    if (this.text.at(-1)?.kind === "plain" && this.text.at(-1)?.level === 0) this.flush();
    const start = kind === "number" && item.marker === "number" && item.path === 1 ? { start: Number(item.first) } : {};
    this.text.push({ kind, level: Math.min(MAX_LEVEL, level), ...start, runs: runsOf(text) });
    this.items.push(line);
    this.last = line;
  }

  paragraph(text: string, from: number, to: number): void {
    this.flush();
    this.blocks.push({ kind: "text", text: [{ kind: "plain", level: 0, runs: runsOf(text) }], from, to });
  }

  /** Adds a line that continues the item above. */
  more(text: string): boolean {
    const last = this.text.at(-1);
    if (!last) return false;
    last.runs = [...last.runs, run(" "), ...runsOf(text)];
    return true;
  }
}

/** Returns levels of indentation: deeper indents open a level, shallower ones close some. */
function indentLevels(): (indent: number) => number {
  const open: number[] = [];
  return (indent) => {
    while (open.length && must(open.at(-1)) > indent) open.pop();
    if (!open.length || must(open.at(-1)) < indent) open.push(indent);
    return open.length - 1;
  };
}

/**
 * Reads an outline by numbers: the path of a number is the depth of its heading; lines without one belong to the
 * heading above. Where all lines are numbered, those of the first level are slides and the others their points.
 */
function numbered(lines: readonly (Line | null)[]): Block[] {
  const gather = new Gatherer();
  let level = indentLevels();
  let waiting: Line[] = [];
  // “6 Water” is a heading where 6.1 follows; otherwise it is a sentence that starts with a number.
  const chapters = new Set(lines.flatMap((line) => (line && line.path > 1 ? [line.first] : [])));
  const numberOf = (line: Line): Line => {
    const bare = line.marker === null ? /^(\d{1,3})\s+(?=\S)/.exec(line.text) : null;
    return bare && chapters.has(must(bare[1]))
      ? { ...line, marker: "number", path: 1, text: line.text.slice(bare[0].length) }
      : line;
  };
  const isOutline = lines.every((line) => !line || line.marker !== null || numberOf(line).marker !== null);
  const flush = () => {
    if (waiting[0])
      gather.paragraph(waiting.map(({ text }) => text).join(" "), waiting[0].number, must(waiting.at(-1)).number);
    waiting = [];
  };
  for (const read of lines) {
    const line = read && numberOf(read);
    if (!line) flush();
    else if (line.marker === "number" && isOutline && line.path > 1) {
      gather.item("bullet", line.path - 2, line);
    } else if (line.marker === "number" && isTitle(line.text)) {
      flush();
      gather.heading(isOutline ? 2 : line.path, line.text, line.number);
      level = indentLevels();
    } else if (line.marker) {
      flush();
      gather.item(line.marker === "bullet" ? "bullet" : "number", level(line.indent), line);
    } else waiting.push(line);
  }
  flush();
  gather.flush();
  return gather.blocks;
}

/** Whether a line has a number of one level: “3.”, not “3.1”. */
const isNumbered = ({ marker, path }: Line) => marker === "number" && path === 1;

/**
 * Returns the outermost lines that are the titles of slides: those with something below them. Numbered lines and
 * bullets are titles only where most of their kind have something below them; otherwise they are one list, in which
 * an item has a list of its own.
 */
function slideTitles(known: readonly Line[], outer: number): ReadonlySet<Line> {
  const outermost = known.filter(({ indent, marker }) => indent === outer && marker !== "letter");
  const numbers = outermost.filter(isNumbered);
  const below = new Map(known.map((line, at) => [line, known[at + 1]]));
  const hasMore = (line: Line) => {
    const next = below.get(line);
    return next !== undefined && (next.indent > outer || (next.marker !== null && line.marker === null));
  };
  // “1. What happened” above bullets or lines that are not indented.
  const isFollowed = (line: Line) => {
    const next = below.get(line);
    return next !== undefined && !(isNumbered(next) && next.indent === outer);
  };
  const mostOf = (lines: readonly Line[], is: (line: Line) => boolean) =>
    lines.length > 1 && lines.filter(is).length > lines.length / 2;
  if (numbers.every(({ text }) => isTitle(text)) && mostOf(numbers, isFollowed)) return new Set(numbers);
  const bullets = outermost.filter(({ marker }) => marker === "bullet");
  const roots = outermost.filter(
    (line) => hasMore(line) && (line.marker === null || mostOf(line.marker === "bullet" ? bullets : numbers, hasMore)),
  );
  return new Set(roots.length > 1 || known[0]?.marker === null ? roots : []);
}

/**
 * Reads an outline by indents, bullets and numbers: an outermost line with something below it is a slide, the rest are
 * its points.
 */
function indented(lines: readonly (Line | null)[]): Block[] {
  const gather = new Gatherer();
  const known = lines.filter((line): line is Line => line !== null);
  const outer = known.reduce((least, { indent }) => Math.min(least, indent), Number.POSITIVE_INFINITY);
  const titles = slideTitles(known, outer);
  const byNumber = [...titles].some(isNumbered);
  let level = indentLevels();
  let first = true;
  known.forEach((line, at) => {
    const blankBefore = at > 0 && line.number - must(known[at - 1]).number > 1;
    const opens = known[at + 1];
    if (titles.has(line) && isTitle(line.text) && !(first && opens && titles.has(opens))) {
      gather.heading(2, line.text, line.number);
      level = indentLevels();
    } else if (byNumber && !first && line.marker === null && line.indent === outer && isTitle(line.text))
      gather.item("bullet", level(line.indent), line);
    else if (first && line.marker === null && line.indent === outer && isTitle(line.text) && known.length > 1)
      gather.heading(1, line.text, line.number);
    else if (line.marker === null && line.indent === outer) {
      const next = known[at + 1];
      if (
        isTitle(line.text) &&
        (blankBefore || at === 0) &&
        next &&
        next.number - line.number > 1 &&
        next.marker === null
      )
        gather.heading(2, line.text, line.number);
      else gather.paragraph(line.text, line.number, line.number);
      level = indentLevels();
    } else if (
      line.marker === null &&
      !blankBefore &&
      known[at - 1]?.marker &&
      line.indent > must(known[at - 1]).indent &&
      gather.more(line.text)
    ) {
      // The second line of an item with a hard break.
    } else
      gather.item(line.marker === "number" || line.marker === "letter" ? "number" : "bullet", level(line.indent), line);
    first = false;
  });
  gather.flush();
  return gather.blocks;
}

const isCapitals = ({ marker, text }: Line) =>
  marker === null && isTitle(text) && /\p{Lu}{2}/u.test(text) && text === text.toUpperCase();

/** Reads an outline with titles in capital letters. The short lines below a title are its points. */
function capitals(lines: readonly (Line | null)[]): Block[] {
  const gather = new Gatherer();
  let level = indentLevels();
  for (const line of lines) {
    if (!line) continue;
    if (isCapitals(line)) {
      gather.heading(2, line.text, line.number);
      level = indentLevels();
    } else if (line.marker || isTitle(line.text))
      gather.item(line.marker === "number" ? "number" : "bullet", level(line.indent), line);
    else gather.paragraph(line.text, line.number, line.number);
  }
  gather.flush();
  return gather.blocks;
}

const wordsIn = (group: readonly Line[]) => group.reduce((sum, { text }) => sum + countWords(text), 0);

/** Whether a group of lines is one short line that can be a title. */
const isTitleLine = (group: readonly Line[]) =>
  group.length === 1 && group.every(({ text }) => isTitle(text) && countWords(text) <= 8);

/**
 * Reads prose: paragraphs between empty lines; a short line above a longer paragraph is its heading, and one above the first
 * of these the title of the text; other short lines stay lines.
 */
function paragraphs(lines: readonly (Line | null)[]): Block[] {
  const gather = new Gatherer();
  const groups: Line[][] = [[]];
  for (const line of lines) {
    if (line) must(groups.at(-1)).push(line);
    else if (must(groups.at(-1)).length) groups.push([]);
  }
  const full = groups.filter((group) => group.length);
  full.forEach((group, at) => {
    const [only] = group;
    const next = full[at + 1];
    const words = wordsIn(group);
    if (at === 0 && isTitleLine(group) && next && isTitleLine(next) && wordsIn(full[at + 2] ?? []) >= 12 && only)
      gather.heading(1, only.text, only.number);
    else if (group.length === 1 && only && isTitle(only.text) && words <= 8 && next && wordsIn(next) >= 12)
      gather.heading(
        at === 0 &&
          full.length > 4 &&
          full
            .slice(1)
            .some((other, nth) => other.length === 1 && nth + 2 < full.length && countWords(other[0]?.text ?? "") <= 8)
          ? 1
          : 2,
        only.text,
        only.number,
      );
    else if (group.length > 1 && words / group.length <= 7)
      for (const { text, number } of group) gather.paragraph(text, number, number);
    else gather.paragraph(group.map(({ text }) => text).join(" "), must(group[0]).number, must(group.at(-1)).number);
  });
  return gather.blocks;
}

/** Returns headings that are underlined with characters. */
function underlined(raw: readonly string[]): { depth: number; at: number }[] {
  return raw.flatMap((line, at) => {
    const sign = UNDERLINE.exec(line)?.[1];
    return sign &&
      at > 0 &&
      raw[at - 1]?.trim() &&
      isTitle(must(raw[at - 1]).trim()) &&
      (at < 2 || raw[at - 2]?.trim() === "")
      ? [{ depth: sign === "=" ? 1 : 2, at: at - 1 }]
      : [];
  });
}

/**
 * Reads plain text: outlines by numbers such as 6.4.1, by indents of tabs or spaces, or by bullets; else paragraphs
 * between empty lines, or one item a line.
 */
export function readPlain(text: string): DocumentRead {
  const raw = text.split(/\r\n|\r|\n|\u2028|\u2029/);
  const heads = underlined(raw);
  const document = emptyDocument();
  if (heads.length) {
    // The text between underlined headings is read by itself.
    let from = 0;
    for (const { depth, at } of [...heads, { depth: 0, at: raw.length }]) {
      const part = raw.slice(from, at).map((line, nth) => lineOf(line, from + nth + 1));
      if (part.some((line) => line)) document.blocks.push(...blocksOf(part));
      if (depth) document.blocks.push(heading(depth, must(raw[at]).trim(), at + 1));
      from = at + 2;
    }
    return document;
  }
  document.blocks.push(...blocksOf(raw.map((line, at) => lineOf(line, at + 1))));
  return document;
}

function blocksOf(lines: readonly (Line | null)[]): Block[] {
  const known = lines.filter((line): line is Line => line !== null);
  const deep = known.filter(({ marker, path }) => marker === "number" && path > 1).length;
  if (deep > 0 && known.filter(({ marker }) => marker === "number").length >= 2) return numbered(lines);
  const titles = known.filter(isCapitals).length;
  const pointed = known.filter((line) => !isCapitals(line) && isTitle(line.text)).length;
  if (titles > 1 && known.length > titles && pointed > (known.length - titles) / 2) return capitals(lines);
  const outer = known.reduce((least, { indent }) => Math.min(least, indent), Number.POSITIVE_INFINITY);
  const outline = known.filter(({ marker, indent }) => marker !== null || indent > outer).length;
  return outline > known.length * 0.2 ? indented(lines) : paragraphs(lines);
}
