import { readFileSync } from "node:fs";
import { join } from "node:path";
import { DEFAULT_RULE, generateDeck } from "@unitext/core/generate";
import { ARRANGEMENTS, paragraphText, THEMES, textOf } from "@unitext/core/model";
import { idSource } from "@unitext/core/testing";
import { deckText, readText } from "./index";

const page = readFileSync(join(import.meta.dirname, "../../docs/text-format.md"), "utf8");
const made = (text: string) => {
  const manuscript = readText(text);
  return { ...generateDeck(manuscript, DEFAULT_RULE, idSource()), problems: manuscript.problems };
};

describe("the page on the text form", () => {
  it("shows properties that are all taken", () => {
    const block = /```yaml\n([\s\S]*?)```/.exec(page)?.[1] ?? "";
    const { deck, problems } = made(`${block.replace("titleSlide: false", "titleSlide: true")}\n`);
    expect(problems).toEqual([]);
    expect(deck).toMatchObject({ properties: { title: "Tides, dunes and storms", author: "Course team", event: "Coastal processes, week 3", date: "2026-03-02" }, language: "en", page: { width: 960, height: 540 }, theme: { name: "Salt marsh" }, regions: { footer: "Marram Bay Field Station", number: false }, rate: 130 });
    expect(deck.slides.map(({ arrangement }) => arrangement)).toEqual(["opening"]);
  });

  it("names every theme and every arrangement that there is", () => {
    for (const name of [...Object.keys(THEMES), ...Object.keys(ARRANGEMENTS)]) expect(page).toContain(name);
  });

  it("shows directives that do what it says", () => {
    const [, slide = "", containers = ""] = /```markdown\n(::slide[^\n]*)\n```[\s\S]*?```markdown\n([\s\S]*?)```/.exec(page) ?? [];
    const { deck, problems } = made(`## Above\n\n---\n\n${slide}\n\n## Menu\n\n${containers}`);
    expect(problems).toEqual([]);
    expect(deck.slides[1]).toMatchObject({ id: "menu", arrangement: "points", hidden: true, parent: deck.slides[0]?.id });
    expect(textOf(deck.slides[1]?.notes ?? [])).toBe("What the speaker says or needs.");
    expect(deck.slides[1]?.elements.map(({ slot }) => slot)).toContain("right");
  });
});

describe("what Markdown holds and slides do not", () => {
  const words = (text: string) => made(text).deck.slides.flatMap(({ elements }) => elements.flatMap((element) => (element.kind === "text" ? element.text.map(paragraphText) : [])));

  it.each<[string, string, string[]]>([
    ["a table", "## T\n\n| a | b |\n|--|--|\n| c | d |\n", ["T", "a | b", "c | d"]],
    ["a code block", "## T\n\n```js\nlet a = 1;\nlet b;\n```\n", ["T", "let a = 1;\nlet b;"]],
    ["a quotation", "## T\n\n> said\n> twice\n\n- x\n", ["T", "said twice", "x"]],
    ["a deeper heading", "## T\n\n### Part\n\ntext\n", ["T", "Part", "text"]],
    ["markup of the web", "## T\n\n<em>kept</em> as typed\n", ["T", "<em>kept</em> as typed"]],
    ["a task list", "## T\n\n- [ ] open\n- [x] done\n", ["T", "open", "done"]],
    ["a reference to a link below", "## T\n\n[words][a]\n\n## U\n\n[a]: https://example.org\n", ["T", "words", "U"]],
  ])("%s is kept as words", (_, text, expected) => {
    expect(words(text)).toEqual(expected);
  });

  it("footnotes go to the notes of their slide, numbered, wherever they are defined", () => {
    const { deck } = made("## T\n\nSaid[^s].\n\n:::notes\nFirst.\n:::\n\n## U\n\n[^s]: The source.\n");
    expect(textOf(deck.slides[0]?.notes ?? [])).toContain("[1] The source.");
    expect(words("## T\n\nSaid[^s].\n\n[^s]: The source.\n")).toEqual(["T", "Said[1]."]);
  });

  it("is written in a form that reads the same again", () => {
    for (const text of ["## T\n\n```js\nlet a;\nlet b;\n```\n", "## T\n\n- a\n\n  more of a\n- b\n", "## T\n\n1. a\n   - b\n2. c\n", "# T\n\nline one  \nline two\n"]) {
      const { deck } = made(text);
      const again = made(deckText(deck, { ids: true })).deck;
      expect(again.slides.map(({ id, elements }) => [id, elements.map((element) => (element.kind === "text" ? element.text : null))])).toEqual(deck.slides.map(({ id, elements }) => [id, elements.map((element) => (element.kind === "text" ? element.text : null))]));
    }
  });
});
