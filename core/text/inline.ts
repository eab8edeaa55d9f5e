import { joinRuns, type Mark, type Run, run } from "@unitext/core/model";
import type { PhrasingContent } from "mdast";
import { linkTarget, type Problem } from "./manuscript";

/** What reading inline content gathers beside the runs: pictures to be placed, footnotes to be kept, problems to be told. */
export interface Gathered {
  pictures: { source: string; alt: string; line: number }[];
  footnotes: string[];
  problems: Problem[];
  line: (line: number) => number;
}

/** The runs of inline Markdown. Line ends inside a paragraph are spaces; hard breaks are `\n`. */
export function inlineRuns(nodes: readonly PhrasingContent[], into: Gathered): Run[] {
  const runs: Run[] = [];
  const walk = (children: readonly PhrasingContent[], marks: readonly Mark[], link: string | undefined): void => {
    for (const node of children) {
      const line = into.line(node.position?.start.line ?? 1);
      switch (node.type) {
        case "text":
          runs.push(run(node.value.replace(/[ \t]*\r?\n[ \t]*/g, " "), marks, link));
          break;
        case "strong":
          walk(node.children, [...marks, "strong"], link);
          break;
        case "emphasis":
          walk(node.children, [...marks, "emphasis"], link);
          break;
        case "delete":
          walk(node.children, [...marks, "strike"], link);
          break;
        case "inlineCode":
          runs.push(run(node.value, [...marks, "code"], link));
          break;
        case "break":
          runs.push(run("\n", marks, link));
          break;
        case "link": {
          const target = linkTarget(node.url);
          if (!target) into.problems.push({ line, message: `The link to “${node.url}” leads nowhere that a slide can open; its words are kept. Use a full address, or #ID for a slide.` });
          walk(node.children, marks, target ?? link);
          break;
        }
        case "image":
          into.pictures.push({ source: node.url, alt: node.alt ?? "", line });
          break;
        case "html":
          runs.push(run(node.value, marks, link));
          break;
        case "footnoteReference": {
          let nth = into.footnotes.indexOf(node.identifier);
          if (nth < 0) nth = into.footnotes.push(node.identifier) - 1;
          runs.push(run(`[${nth + 1}]`, marks, link));
          break;
        }
        default:
          if ("children" in node) walk(node.children as PhrasingContent[], marks, link);
      }
    }
  };
  walk(nodes, [], undefined);
  return trimmed(joinRuns(runs));
}

/** Runs without white space at either end and around line breaks, as Markdown keeps none there. */
export function trimmed(runs: Run[]): Run[] {
  const result = runs.map((item) => ({ ...item }));
  const isCode = (item: Run) => item.marks?.includes("code");
  result.forEach((item, index) => {
    if (isCode(item)) return;
    item.text = item.text.replace(/[ \t]*\n[ \t]*/g, "\n");
    if (index > 0 && result[index - 1]?.text.endsWith("\n")) item.text = item.text.replace(/^[ \t]+/, "");
  });
  while (result[0] && !isCode(result[0])) {
    result[0].text = result[0].text.replace(/^\s+/, "");
    if (result[0].text !== "") break;
    result.shift();
  }
  while (result.length) {
    const last = result[result.length - 1] as Run;
    if (isCode(last)) break;
    last.text = last.text.replace(/\s+$/, "");
    if (last.text !== "") break;
    result.pop();
  }
  return joinRuns(result);
}
