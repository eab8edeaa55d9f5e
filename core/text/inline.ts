import { cutText, footnote, joinRuns, type Mark, type Run, run, withoutEnd, must } from "@unitext/core/model";
import type { Image, Link, PhrasingContent } from "mdast";
import type { InlineMath } from "mdast-util-math";
import { bindingOfAddress } from "./boundlinks";
import { type Content, linkTarget, type Problem } from "./manuscript";

/** What is collected beside the runs of inline content: pictures to place, and problems. */
export interface Gathered {
  pictures: { picture: Extract<Content, { kind: "picture" }>; line: number }[];
  problems: Problem[];
  /** Whether a line end inside a paragraph also ends its line. */
  lines: boolean;
  /** Returns the runs of a footnote; undefined where it is not defined. */
  footnote: (identifier: string) => Run[] | undefined;
  /** Returns the address and title that a reference stands for; undefined where it is not defined. */
  definition: (identifier: string) => { url: string; title?: string | null | undefined } | undefined;
}

const WIDTH = /^\{width=(\d{1,3})%?\}/;

/** Tags with a text style; all others are ignored. */
const TAGS: Record<string, Mark> = {
  b: "strong",
  strong: "strong",
  i: "emphasis",
  em: "emphasis",
  cite: "emphasis",
  s: "strike",
  del: "strike",
  strike: "strike",
  code: "code",
  kbd: "code",
  tt: "code",
  samp: "code",
};

/** An amount of money is not a formula: a formula neither starts nor ends with a space, and no digit follows it. */
function isFormula(value: string, after: string): boolean {
  return value !== "" && !/^\s|\s$/.test(value) && !/^\d/.test(after);
}

const isBlank = (code: number) => code === 32 || code === 9;

/**
 * Replaces line ends and the spaces around them with `between`. In one pass: a regular expression would try every space
 * of a long run again.
 */
function withoutMargins(text: string, between: string): string {
  if (!text.includes("\n")) return text;
  const lines = text.split(/\r?\n/);
  return lines
    .map((line, nth) => {
      let [from, to] = [0, line.length];
      if (nth > 0) while (from < to && isBlank(line.charCodeAt(from))) from++;
      if (nth < lines.length - 1) while (to > from && isBlank(line.charCodeAt(to - 1))) to--;
      return line.slice(from, to);
    })
    .join(between);
}

/** Resolves a link or picture by reference to one with its address (CommonMark 0.31, 6.3). */
function resolved(node: PhrasingContent, into: Gathered): PhrasingContent {
  if (node.type !== "linkReference" && node.type !== "imageReference") return node;
  const defined = into.definition(node.identifier);
  if (!defined) return node;
  return (
    node.type === "linkReference" ? { ...node, type: "link", url: defined.url } : { ...node, type: "image", ...defined }
  ) as PhrasingContent;
}

/** Where inline content is: its marks and the link around it. */
interface Around {
  marks: readonly Mark[];
  link: string | undefined;
}

/** Turns inline Markdown into runs. */
class InlineReader {
  readonly runs: Run[] = [];
  /** The HTML tags that are open. */
  private readonly tags: string[] = [];

  constructor(private readonly into: Gathered) {}

  walk(children: readonly PhrasingContent[], around: Around): void {
    children.forEach((given, at) => {
      this.node(resolved(given, this.into), children[at - 1], children[at + 1], around);
    });
  }

  private node(
    node: PhrasingContent,
    before: PhrasingContent | undefined,
    after: PhrasingContent | undefined,
    around: Around,
  ): void {
    const { marks, link } = around;
    switch (node.type) {
      case "text":
        this.text(node.value, before, around);
        break;
      case "inlineMath":
        this.formula(node, after, around);
        break;
      case "strong":
      case "emphasis":
        this.walk(node.children, { marks: [...marks, node.type], link });
        break;
      case "delete":
        this.walk(node.children, { marks: [...marks, "strike"], link });
        break;
      case "inlineCode":
        this.runs.push(run(node.value, [...marks, "code"], link));
        break;
      case "break":
        this.runs.push(run("\n", marks, link));
        break;
      case "link":
        this.link(node, around);
        break;
      case "image":
        this.image(node, around);
        break;
      case "html":
        this.html(node.value, around);
        break;
      case "footnoteReference": {
        const text = this.into.footnote(node.identifier);
        if (text) this.runs.push(footnote(text));
        break;
      }
      default:
        if ("children" in node) this.walk(node.children, around);
    }
  }

  private withTags(marks: readonly Mark[]): Mark[] {
    return [...marks, ...this.tags.flatMap((tag) => TAGS[tag] ?? [])];
  }

  private text(value: string, before: PhrasingContent | undefined, { marks, link }: Around): void {
    if (this.tags.includes("script") || this.tags.includes("style")) return;
    const shown = before?.type === "link" && before.children.length === 1 ? before.children[0] : before;
    const width = shown?.type === "image" ? WIDTH.exec(value) : null;
    const last = this.into.pictures.at(-1);
    const isWidth = width !== null && last !== undefined;
    if (isWidth) {
      const { link: to, ...rest } = last.picture;
      const share = Math.min(100, Math.max(1, Number(width[1])));
      last.picture = { ...rest, width: share, ...(to ? { link: to } : {}) };
    }
    const text = isWidth ? value.slice(width[0].length) : value;
    this.runs.push(run(withoutMargins(text, this.into.lines ? "\n" : " "), this.withTags(marks), link));
  }

  private formula({ value, position }: InlineMath, after: PhrasingContent | undefined, around: Around): void {
    const length = (position?.end.offset ?? 0) - (position?.start.offset ?? 0);
    const dollars = Math.max(1, Math.round((length - value.length) / 2));
    const text = value.replace(/\s+/g, " ");
    if (dollars > 1 || isFormula(value, after?.type === "text" ? after.value : ""))
      this.runs.push(run(text.trim(), ["formula"], around.link));
    else this.runs.push(run(`$${text}$`, this.withTags(around.marks), around.link));
  }

  private link({ url, children, position }: Link, { marks, link }: Around): void {
    const binding = bindingOfAddress(url);
    if (binding) {
      const inner = new InlineReader(this.into);
      inner.walk(children, { marks, link });
      const [first] = inner.runs;
      const text = inner.runs.map((item) => item.text).join("");
      if (first) this.runs.push(run(text, first.marks, link, undefined, binding));
      return;
    }
    const target = linkTarget(url);
    if (!target)
      this.into.problems.push({
        line: position?.start.line ?? 1,
        message: `The link to “${url}” is not one that a slide can open; its words are kept. Use a full address, or #ID for a slide.`,
      });
    this.walk(children, { marks, link: target ?? link });
  }

  private image({ url, alt, title, position }: Image, { marks, link }: Around): void {
    if (url)
      this.into.pictures.push({
        picture: {
          kind: "picture",
          source: cutText(url, 1000),
          alt: alt ?? "",
          ...(title ? { caption: cutText(title.replace(/\s+/g, " "), 2000) } : {}),
          ...(link ? { link } : {}),
        },
        line: position?.start.line ?? 1,
      });
    else if (alt) this.runs.push(run(alt, this.withTags(marks), link));
  }

  private html(value: string, { marks, link }: Around): void {
    const tag = /^<(\/?)([a-z][a-z0-9-]*)[\s/>]/i.exec(value);
    const name = tag?.[2]?.toLowerCase() ?? "";
    const { tags } = this;
    if (name === "br") this.runs.push(run("\n", marks, link));
    else if (tag?.[1]) tags.splice(tags.lastIndexOf(name), tags.includes(name) ? 1 : 0);
    else if (tag && !/\/>$/.test(value)) tags.push(name);
  }
}

/** Returns the runs of inline Markdown. Line ends inside a paragraph become spaces; hard breaks become `\n`. */
export function inlineRuns(nodes: readonly PhrasingContent[], into: Gathered): Run[] {
  const reader = new InlineReader(into);
  reader.walk(nodes, { marks: [], link: undefined });
  return trimmed(joinRuns(reader.runs));
}

/** Returns runs without white space at the ends and around line breaks, as Markdown keeps none there. */
export function trimmed(runs: Run[]): Run[] {
  const result = runs.map((item) => ({ ...item }));
  const isCode = (item: Run) => item.marks?.includes("code") || item.footnote || item.marks?.includes("formula");
  // No-break spaces and spaces as wide as a letter are kept; a text of nothing else is empty.
  if (!result.some((item) => isCode(item) || /\S/.test(item.text))) return [];
  result.forEach((item, index) => {
    if (isCode(item)) return;
    item.text = withoutMargins(item.text, "\n");
    if (index > 0 && result[index - 1]?.text.endsWith("\n")) item.text = item.text.replace(/^[ \t]+/, "");
  });
  while (result[0] && !isCode(result[0])) {
    result[0].text = result[0].text.replace(/^[ \t\n\r\f]+/, "");
    if (result[0].text !== "") break;
    result.shift();
  }
  while (result.length) {
    const last = must(result[result.length - 1]);
    if (isCode(last)) break;
    last.text = withoutEnd(last.text, " \t\n\r\f");
    if (last.text !== "") break;
    result.pop();
  }
  return joinRuns(result);
}
