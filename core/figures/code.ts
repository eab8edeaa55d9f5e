import { type Run, withoutEnd, must } from "@unitext/core/model";
import highlighter from "highlight.js/lib/core";
import bash from "highlight.js/lib/languages/bash";
import c from "highlight.js/lib/languages/c";
import cpp from "highlight.js/lib/languages/cpp";
import css from "highlight.js/lib/languages/css";
import java from "highlight.js/lib/languages/java";
import javascript from "highlight.js/lib/languages/javascript";
import json from "highlight.js/lib/languages/json";
import matlab from "highlight.js/lib/languages/matlab";
import python from "highlight.js/lib/languages/python";
import r from "highlight.js/lib/languages/r";
import sql from "highlight.js/lib/languages/sql";
import typescript from "highlight.js/lib/languages/typescript";
import xml from "highlight.js/lib/languages/xml";
import yaml from "highlight.js/lib/languages/yaml";

const LANGUAGES = { bash, c, cpp, css, java, javascript, json, matlab, python, r, sql, typescript, xml, yaml };
for (const [name, language] of Object.entries(LANGUAGES)) highlighter.registerLanguage(name, language);

/** The kind of a piece of code, which sets its colour. */
export type CodeTone = "plain" | "keyword" | "string" | "number" | "comment" | "name";
const TONES: Record<string, CodeTone> = {
  keyword: "keyword",
  built_in: "keyword",
  literal: "number",
  type: "keyword",
  number: "number",
  string: "string",
  regexp: "string",
  comment: "comment",
  quote: "comment",
  title: "name",
  section: "name",
  attr: "name",
  attribute: "name",
  property: "name",
  tag: "keyword",
  name: "keyword",
  "selector-tag": "keyword",
  meta: "comment",
};

interface Node {
  scope?: string;
  children?: (string | Node)[];
}

/** Returns the lines of a code, each as pieces with their tone. An unknown language has a single tone. */
export function codeLines(text: string, language: string): { text: string; tone: CodeTone }[][] {
  const lines: { text: string; tone: CodeTone }[][] = [[]];
  const add = (value: string, tone: CodeTone) => {
    value.split("\n").forEach((part, at) => {
      if (at) lines.push([]);
      if (part) lines.at(-1)?.push({ text: part.replace(/\t/g, "    "), tone });
    });
  };
  const clean = withoutEnd(text.replace(/\r\n?/g, "\n"), "\n");
  if (!highlighter.getLanguage(language) || clean.length > 50000) {
    add(clean, "plain");
    return lines;
  }
  const walk = (node: Node, tone: CodeTone): void => {
    const own = node.scope ? (TONES[node.scope] ?? TONES[must(node.scope.split(".")[0])] ?? tone) : tone;
    for (const child of node.children ?? []) {
      if (typeof child === "string") add(child, own);
      else walk(child, own);
    }
  };
  walk(
    (highlighter.highlight(clean, { language, ignoreIllegals: true }) as unknown as { _emitter: { rootNode: Node } })
      ._emitter.rootNode,
    "plain",
  );
  return lines;
}

/** Returns a line of code as runs. */
export function codeRuns(line: readonly { text: string }[]): Run[] {
  return line.map(({ text }) => ({ text, marks: ["code" as const] }));
}
