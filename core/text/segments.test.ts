import fc from "fast-check";
import { fromMarkdown } from "mdast-util-from-markdown";
import { readText } from "./read";
import { definitions, definitionsFor, segments } from "./segments";
import { parseMarkdown, parseStretch, stretches } from "./syntax";

const LINES = [
  "# A",
  "## B",
  "text",
  "more text",
  "",
  "",
  "---",
  "***",
  "- item",
  "  - deeper",
  "1. one",
  "> quote",
  "```",
  "~~~",
  "    code",
  "[a]: https://example.org",
  "[^n]: note",
  "Title",
  "===",
  "| a | b |",
  "| - | - |",
  "<!-- comment",
  "-->",
];

/** The headings and breaks of a text as CommonMark reads it whole, with their lines. */
function landmarks(text: string): string[] {
  return fromMarkdown(text).children.flatMap((node) =>
    node.type === "heading" || node.type === "thematicBreak" ? [`${node.type} ${node.position?.start.line}`] : [],
  );
}

describe("segments of a text", () => {
  it("put together are the text, and begin at the lines that they say", () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...LINES), { maxLength: 40 }), (lines) => {
        const cut = [...segments(lines)];
        expect(cut.map(({ text }) => text).join("\n")).toBe(lines.join("\n"));
        for (const { text, from } of cut)
          expect(lines.slice(from - 1, from - 1 + text.split("\n").length).join("\n")).toBe(text);
      }),
    );
  });

  it("read one by one have the headings and breaks that CommonMark finds in the whole", () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...LINES), { maxLength: 30 }), (lines) => {
        // An unclosed comment or fence runs to the end of the text; it is one segment there and one block here.
        const apart = [...segments(lines)].flatMap(({ text, from }) =>
          landmarks(text).map((mark) => mark.replace(/\d+$/, (line) => String(Number(line) + from - 1))),
        );
        expect(apart).toEqual(landmarks(lines.join("\n")));
      }),
      { numRuns: 400 },
    );
  });

  it("gather definitions that any of them may use, the first of two with one label", () => {
    const found = definitions([
      "text",
      "[not]: in a paragraph",
      "",
      "[a]: https://example.org",
      "  [^n]: note",
      "that goes on",
      "",
      "[not] a definition",
      "",
      "[A]: https://example.com",
      "```",
      "[b]: in code",
      "```",
      "[^m]: more",
      "",
      "    in two",
      "",
      "end",
    ]);
    expect([...found]).toEqual([
      ["A", "[a]: https://example.org"],
      ["^N", "  [^n]: note\nthat goes on"],
      ["^M", "[^m]: more\n\n    in two"],
    ]);
  });

  it("ask for the definitions that they refer to, and for those that these refer to", () => {
    const all = definitions([
      "[a  b]: https://example.org",
      "",
      "[^1]: See [A B] and [^2].",
      "",
      "[^2]: Two.",
      "",
      "[^3]: Three.",
    ]);
    expect(definitionsFor("Words[^1]", all).split("\n\n").sort()).toEqual([
      "[^1]: See [A B] and [^2].",
      "[^2]: Two.",
      "[a  b]: https://example.org",
    ]);
    expect(definitionsFor("nothing [c] here", all)).toBe("");
  });
});

describe("a stretch of text", () => {
  const PIECES = [
    ...LINES,
    "Words, and more: of them (at noon) – “quoted”.",
    "## A heading: of words",
    "See www.example.org for it",
    "A line with *marks* in it",
    "a@b.example is an address",
    "at http://example.org today",
    "$$",
    ":::column",
    ":::",
    "::slide",
    "<div>",
    "[^n] refers",
    "trailing  ",
    "12. is a number",
    "    Indented words",
    "* * *",
    "Ends with a colon:",
  ];
  const bare = (nodes: readonly unknown[], by = 0) =>
    JSON.parse(
      JSON.stringify(nodes, (key, value) =>
        key === "position" ? `${value?.start.line + by}–${value?.end.line + by}` : value,
      ),
    );

  it("reads the same whether its plain words are parsed or taken as they are", () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...PIECES, "", ""), { maxLength: 14 }), (lines) => {
        const text = lines.join("\n");
        const all = definitions(lines);
        const whole = parseMarkdown(text);
        // Definitions are found line by line; inside what reaches over lines and is not closed there may be more than the parser sees.
        const seen = whole.children.flatMap((node) =>
          node.type === "definition"
            ? [node.identifier]
            : node.type === "footnoteDefinition"
              ? [`^${node.identifier}`]
              : [],
        );
        fc.pre(
          JSON.stringify([...new Set(seen)].sort()) ===
            JSON.stringify([...all.keys()].map((label) => label.toLowerCase()).sort()),
        );
        const apart = [...stretches({ text, from: 1 })].flatMap((stretch) => {
          const { own, lead } = parseStretch(stretch, stretch.plain ? "" : definitionsFor(stretch.text, all));
          return bare(own, stretch.from - 1 - lead);
        });
        expect(apart).toEqual(bare(whole.children));
      }),
      { numRuns: 1500, examples: [[["trailing  ", "[^n]: note", "===", "[^n] refers"]]] },
    );
  });
});

it("definitions that go on over lines are found wherever they are referred to (CommonMark 0.31, examples 193 to 196 and 541)", () => {
  const links = (text: string) =>
    [...readText(text).blocks].flatMap((block) =>
      "text" in block ? block.text.flatMap(({ runs }) => runs.flatMap(({ link }) => link ?? [])) : [],
    );
  for (const text of [
    "[foo]: \n   https://a.example/url  \n           'the title'  \n\n[foo]",
    "[Foo\n  bar]: https://a.example/url\n\n[Baz][Foo bar]",
    "[foo]: https://a.example/url '\ntitle\nline1\n'\n\n[foo]",
    "[foo]:\nhttps://a.example/url\n\n[foo]",
    '[foo]: https://a.example/url\n"title"\n\n[foo]',
  ]) {
    expect(links(text)).toEqual(["https://a.example/url"]);
    expect(links(`${text.split("\n\n").reverse().join("\n\n")}`)).toEqual(["https://a.example/url"]);
  }
});
