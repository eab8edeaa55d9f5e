import { readFileSync } from "node:fs";
import { join } from "node:path";
import { generateDeck } from "@unitext/core/generate";
import { ARRANGEMENTS, DEFAULT_RULE, elementWords, THEMES, textOf } from "@unitext/core/model";
import { idSource } from "@unitext/core/testing";
import { deckText, readText } from "./index";

const page = readFileSync(join(import.meta.dirname, "../../docs/text-format.md"), "utf8");
const made = (text: string) => {
  const manuscript = readText(text);
  return { ...generateDeck(manuscript, DEFAULT_RULE, { newId: idSource() }), problems: manuscript.problems };
};

describe("the page on the text form", () => {
  it("shows properties that are all taken", () => {
    const block = /```yaml\n([\s\S]*?)```/.exec(page)?.[1] ?? "";
    const { deck, problems } = made(`${block.replace("titleSlide: false", "titleSlide: true")}\n`);
    expect(problems).toEqual([]);
    expect(deck).toMatchObject({
      properties: {
        title: "Tides, dunes and storms",
        author: "Course team",
        event: "Coastal processes, week 3",
        date: "2026-03-02",
      },
      language: "en",
      page: { width: 960, height: 540 },
      theme: { name: "Salt marsh" },
      regions: { footer: "Marram Bay Field Station", number: false },
      rate: 130,
    });
    expect(deck.slides.map(({ arrangement }) => arrangement)).toEqual(["opening"]);
  });

  it("names every theme and every arrangement that there is", () => {
    for (const name of [...Object.keys(THEMES), ...Object.keys(ARRANGEMENTS)]) expect(page).toContain(name);
  });

  it("lets points come one at a time, alone or with what is below them, on a slide and in a slot", () => {
    const points = (text: string) =>
      made(text).deck.slides[0]?.elements.flatMap((element) =>
        element.kind === "text" && element.steps ? [element.text.map(({ step }) => step)] : [],
      );
    const list = "- a\n  - b\n- c\n  - d\n";
    expect(points(`::slide{steps}\n\n## Points\n\n${list}`)).toEqual([[undefined, undefined, undefined, undefined]]);
    expect(points(`::slide{steps=main}\n\n## Points\n\n${list}`)).toEqual([[undefined, "with", undefined, "with"]]);
    expect(points(`::slide{steps=false}\n\n## Points\n\n${list}`)).toEqual([]);
    expect(points(`## Points\n\n${list}\n:::slot{name=right steps=main}\n${list}:::\n`)).toEqual([
      [undefined, "with", undefined, "with"],
    ]);
    // What is written is what was read, also where only one of two slots says it.
    for (const text of [
      `::slide{steps=main}\n\n## Points\n\n${list}`,
      `## Points\n\n${list}\n:::slot{name=right steps=main}\n${list}:::\n`,
    ]) {
      const { deck } = made(text);
      const again = made(deckText(deck, { ids: true })).deck;
      expect(
        again.slides.map(({ elements }) =>
          elements.map((element) => (element.kind === "text" ? [element.steps, element.text] : element.kind)),
        ),
      ).toEqual(
        deck.slides.map(({ elements }) =>
          elements.map((element) => (element.kind === "text" ? [element.steps, element.text] : element.kind)),
        ),
      );
    }
  });

  it("shows directives that do what it says", () => {
    const [slide = "", notes = "", figures = ""] = [...page.matchAll(/```markdown\n([\s\S]*?)\n```/g)].map(
      ([, block = ""]) => block,
    );
    const { deck, problems } = made(
      `## Above\n\n---\n\n${slide}\n\n## Menu\n\n- a\n\n${notes}\n\n---\n\n## Rest\n\n${figures}`,
    );
    expect(problems).toEqual([]);
    expect(deck.slides[1]).toMatchObject({
      id: "menu",
      arrangement: "points",
      hidden: true,
      parent: deck.slides[0]?.id,
      background: { colour: "#20302e" },
      transition: { kind: "fade", seconds: 1 },
      delay: 20,
    });
    expect(textOf(deck.slides[1]?.notes ?? [])).toBe("What the speaker says or needs. Code keeps its form here.");
    expect(deck.slides[1]?.elements.map(({ slot }) => slot)).toContain("right");
    expect(deck.slides[1]?.elements.find(({ slot }) => slot === "body")).toMatchObject({ steps: true });
    const [rest] = deck.slides.slice(2);
    expect(rest).toMatchObject({ arrangement: "comparison", widths: [40, 60] });
    expect(rest?.elements.map(({ kind }) => kind).sort()).toEqual([
      "chart",
      "diagram",
      "table",
      "text",
      "text",
      "text",
      "text",
    ]);
    const table = rest?.elements.find(({ kind }) => kind === "table");
    expect(
      table?.kind === "table" ? [table.caption, table.rows[1]?.[1]?.columns, table.rows[1]?.[0]?.rows] : [],
    ).toEqual(["Levels above datum", 2, 2]);
  });
});

describe("what Markdown holds", () => {
  const shown = (text: string) =>
    made(text).deck.slides.flatMap(({ arrangement, elements }) => [
      arrangement,
      ...elements.map((element) => `${element.kind}: ${elementWords(element)}`),
    ]);

  it.each<[string, string, string[]]>([
    ["a table", "## T\n\n| a | b |\n|--|--|\n| c | d |\n", ["table", "text: T", "table: a\nb\nc\nd"]],
    ["a code block", "## T\n\n```js\nlet a = 1;\nlet b;\n```\n", ["code", "text: T", "code: let a = 1;\nlet b;"]],
    ["a formula", "## T\n\n$$\nx^2\n$$\n", ["formula", "text: T", "formula: x^2"]],
    ["a quotation", "> said\n> twice\n\nThe keeper\n", ["quotation", "text: said twice", "text: The keeper"]],
    ["a quotation among points", "## T\n\n> said\n\n- x\n", ["points", "text: T", "text: said\nx"]],
    ["a deeper heading", "## T\n\n### Part\n\ntext\n", ["points", "text: T", "text: Part\ntext"]],
    ["markup of the web in a line", "## T\n\n<em>kept</em> as typed\n", ["points", "text: T", "text: kept as typed"]],
    ["a task list", "## T\n\n- [ ] open\n- [x] done\n", ["points", "text: T", "text: open\ndone"]],
    [
      "a reference to a link below",
      "## T\n\n[words][a]\n\n## U\n\n[a]: https://example.org\n",
      ["points", "text: T", "text: words", "title", "text: U"],
    ],
    ["pictures", "## T\n\n![a](a.png)\n\n![b](b.png)\n", ["pictures", "text: T", "picture: a", "picture: b"]],
  ])("%s stands on its slide", (_, text, expected) => {
    expect(shown(text)).toEqual(expected);
  });

  it("footnotes stay with their words, wherever they are defined; one that nothing refers to goes to the notes", () => {
    const { deck, problems } = made("## T\n\nSaid[^s].\n\n## U\n\n[^s]: The source.\n\n[^t]: Unused.\n");
    expect(deck.slides[0]?.elements[1]).toMatchObject({
      text: [{ runs: [{ text: "Said" }, { footnote: [{ text: "The source." }] }, { text: "." }] }],
    });
    expect(textOf(deck.slides[1]?.notes ?? [])).toBe("Unused.");
    expect(problems).toHaveLength(1);
  });

  it("is written in a form that reads the same again", () => {
    for (const text of [
      "## T\n\n```js\nlet a;\nlet b;\n```\n",
      "## T\n\n- a\n\n  more of a\n- b\n",
      "## T\n\n1. a\n   - b\n2. c\n",
      "# T\n\nline one  \nline two\n",
    ]) {
      const { deck } = made(text);
      const again = made(deckText(deck, { ids: true })).deck;
      expect(again.slides.map(({ id, elements }) => [id, elements.map(elementWords)])).toEqual(
        deck.slides.map(({ id, elements }) => [id, elements.map(elementWords)]),
      );
    }
  });
});
