import { createRequire } from "node:module";
import { elementWords, readingOrder, ruleOf, textOf } from "@unitext/core/model";
import { generate } from "@unitext/core/generate";
import { idSource } from "@unitext/core/testing";
import { fromHtml } from "hast-util-from-html";
import { readText } from "./index";

/** The examples of the CommonMark specification (npm `commonmark-spec`, version 0.31.2), each a text and its HTML. */
const { tests } = createRequire(import.meta.url)("commonmark-spec") as {
  tests: { markdown: string; html: string; section: string; number: number }[];
};

interface HastNode {
  type: string;
  value?: string;
  tagName?: string;
  properties?: { alt?: string };
  children?: HastNode[];
}
/** The words that a reader sees in a page. Pictures are seen, not read. */
function visible(node: HastNode): string {
  if (node.type === "text") return node.value ?? "";
  if (node.tagName === "img" || node.tagName === "script" || node.tagName === "style") return " ";
  const inner = (node.children ?? []).map(visible).join("");
  return node.tagName &&
    !["em", "strong", "code", "a", "del", "span", "b", "i", "bab", "c2c", "m", "responsive-image", "b2"].includes(
      node.tagName,
    )
    ? ` ${inner} `
    : inner;
}
const words = (text: string) => text.match(/[\p{L}\p{N}]+/gu) ?? [];

/** The words that the generated deck carries, in reading order. */
function carried(markdown: string): string[] {
  const manuscript = readText(markdown.replace(/→/g, "\t"));
  const slides = [...generate(manuscript, ruleOf({ kind: "mark" }), { newId: idSource() })].map(({ slide }) => slide);
  return words(
    slides
      .flatMap((slide) => [
        ...readingOrder(slide).map((element) => (element.kind === "picture" ? "" : elementWords(element))),
        textOf(slide.notes),
      ])
      .join("\n"),
  );
}

/** Examples whose words are otherwise, each with its reason. */
const EXCEPTIONS: Record<string, readonly number[]> = {
  "a form field is no content: what is typed into it belongs to the page's reader": [171],
};
const excepted = new Set(Object.values(EXCEPTIONS).flat());

describe("the examples of the CommonMark specification", () => {
  const list = tests.filter(({ number }) => !excepted.has(number));
  it("are all there", () => expect(tests.length).toBeGreaterThan(640));
  it.each(list.map((test) => [test.number, test.section, test] as const))(
    "%i, %s: the words that a page shows are on the slides, in order",
    (_, __, { markdown, html }) => {
      expect(carried(markdown)).toEqual(
        words(visible(fromHtml(html.replace(/→/g, "\t"), { fragment: true }) as HastNode)),
      );
    },
  );
});
