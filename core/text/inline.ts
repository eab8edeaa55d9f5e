import { cutText, footnote, joinRuns, type Mark, type Run, run, withoutEnd, must } from "@unitext/core/model";
import type { PhrasingContent } from "mdast";
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

/** Returns the runs of inline Markdown. Line ends inside a paragraph become spaces; hard breaks become `\n`. */
export function inlineRuns(nodes: readonly PhrasingContent[], into: Gathered): Run[] {
  const runs: Run[] = [];
  const tags: string[] = [];
  const tagged = (marks: readonly Mark[]): Mark[] => [...marks, ...tags.flatMap((tag) => TAGS[tag] ?? [])];
  const walk = (children: readonly PhrasingContent[], marks: readonly Mark[], link: string | undefined): void => {
    children.forEach((given, at) => {
      const node = resolved(given, into);
      const line = node.position?.start.line ?? 1;
      switch (node.type as string) {
        case "text": {
          if (tags.includes("script") || tags.includes("style")) break;
          let { value } = node as { value: string };
          const before = children[at - 1];
          const shown = before?.type === "link" && before.children.length === 1 ? before.children[0] : before;
          const width = shown?.type === "image" ? WIDTH.exec(value) : null;
          const last = into.pictures.at(-1);
          if (width && last) {
            const { link: to, ...rest } = last.picture;
            last.picture = {
              ...rest,
              width: Math.min(100, Math.max(1, Number(width[1]))),
              ...(to ? { link: to } : {}),
            };
            value = value.slice(width[0].length);
          }
          runs.push(run(withoutMargins(value, into.lines ? "\n" : " "), tagged(marks), link));
          break;
        }
        case "inlineMath": {
          const { value } = node as unknown as { value: string };
          const next = children[at + 1];
          const length = (node.position?.end.offset ?? 0) - (node.position?.start.offset ?? 0);
          const dollars = Math.max(1, Math.round((length - value.length) / 2));
          if (dollars > 1 || isFormula(value, next?.type === "text" ? next.value : ""))
            runs.push(run(value.replace(/\s+/g, " ").trim(), ["formula"], link));
          else runs.push(run(`$${value}$`.replace(/\s+/g, " "), tagged(marks), link));
          break;
        }
        case "strong":
        case "emphasis":
          walk((node as { children: PhrasingContent[] }).children, [...marks, node.type as Mark], link);
          break;
        case "delete":
          walk((node as { children: PhrasingContent[] }).children, [...marks, "strike"], link);
          break;
        case "inlineCode":
          runs.push(run((node as { value: string }).value, [...marks, "code"], link));
          break;
        case "break":
          runs.push(run("\n", marks, link));
          break;
        case "link": {
          const { url, children: inner } = node as { url: string; children: PhrasingContent[] };
          const target = linkTarget(url);
          if (!target)
            into.problems.push({
              line,
              message: `The link to “${url}” is not one that a slide can open; its words are kept. Use a full address, or #ID for a slide.`,
            });
          walk(inner, marks, target ?? link);
          break;
        }
        case "image": {
          const { url, alt, title } = node as { url: string; alt?: string | null; title?: string | null };
          if (url)
            into.pictures.push({
              picture: {
                kind: "picture",
                source: cutText(url, 1000),
                alt: alt ?? "",
                ...(title ? { caption: cutText(title.replace(/\s+/g, " "), 2000) } : {}),
                ...(link ? { link } : {}),
              },
              line,
            });
          else if (alt) runs.push(run(alt, tagged(marks), link));
          break;
        }
        case "html": {
          const tag = /^<(\/?)([a-z][a-z0-9-]*)[\s/>]/i.exec((node as { value: string }).value);
          const name = tag?.[2]?.toLowerCase() ?? "";
          if (name === "br") runs.push(run("\n", marks, link));
          else if (tag?.[1]) tags.splice(tags.lastIndexOf(name), tags.includes(name) ? 1 : 0);
          else if (tag && !/\/>$/.test((node as { value: string }).value)) tags.push(name);
          break;
        }
        case "footnoteReference": {
          const noted = into.footnote((node as { identifier: string }).identifier);
          if (noted) runs.push(footnote(noted));
          break;
        }
        default:
          if ("children" in node) walk(node.children, marks, link);
      }
    });
  };
  walk(nodes, [], undefined);
  return trimmed(joinRuns(runs));
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
