import { loadGrammar } from "./grammar";
import { type FontSet, layoutSlide } from "@unitext/core/layout";
import {
  type BreakRule,
  type Cut,
  DOCUMENT_RULE,
  elementWords,
  emptyDeck,
  metadataOf,
  nameOf,
  PAGES,
  ruleOf,
  textOf,
  THEMES,
  titleOf,
} from "@unitext/core/model";
import { manuscriptText, REASONS, readText } from "@unitext/core/text";
import { idSource } from "@unitext/core/testing";
import { shippedFonts } from "@unitext/core/testing/fonts";
import fc from "fast-check";
import { generate, generateDeck } from "./index";

const fonts: FontSet = shippedFonts();
const metadata = metadataOf(emptyDeck("d", ""));
const made = (text: string, rule: BreakRule, own = metadata) => {
  const manuscript = readText(text, { lines: rule.cuts.some(({ kind }) => kind === "line") });
  const list = [...generate(manuscript, rule, { newId: idSource(), metadata: own, fonts, document: "doc" })];
  return { list, slides: list.map(({ slide }) => slide), problems: manuscript.problems };
};
const seen = (text: string, rule: BreakRule) =>
  made(text, rule).slides.map((slide) => `${slide.arrangement}: ${nameOf(slide)}`);
const overflows = (text: string, rule: BreakRule, own = metadata) =>
  made(text, rule, own).slides.filter(
    (slide, nth) => layoutSlide(slide, { metadata: own, number: nth + 1, fonts }).overflow > 0,
  );
const continued = (cut: Cut, rest: Partial<BreakRule> = {}) => ruleOf(cut, { overflow: "continue", ...rest });
const heading: Cut = { kind: "heading", section: 1, slide: 2 };
const LONG = Array.from(
  { length: 30 },
  (_, nth) =>
    `The gauge at post ${nth + 1} was read every ten minutes through the whole of the winter, and the mean of the readings was entered in the book.`,
);

beforeAll(loadGrammar);

describe("rules", () => {
  it("make every paragraph a slide under the heading that stands over it", () => {
    expect(
      seen(
        "# Tides\n\nOne paragraph.\n\nAnother one.\n\n## Dunes\n\nA third:\n\n- with\n- a list\n",
        continued({ kind: "paragraph" }),
      ),
    ).toEqual(["opening: Tides", "points: Tides", "points: Dunes"]);
  });

  it("make every line a card: a name large in the middle, or small in the corner", () => {
    const names = "Alder, M.\nBirch, T.\nCedar, O.\n";
    expect(seen(names, continued({ kind: "line" }))).toEqual(["card: Alder, M.", "card: Birch, T.", "card: Cedar, O."]);
    const corner = made(names, continued({ kind: "line" }, { names: "corner" }));
    expect(corner.slides.map((slide) => [slide.arrangement, titleOf(slide)])).toEqual([
      ["corner", "Alder, M."],
      ["corner", "Birch, T."],
      ["corner", "Cedar, O."],
    ]);
    expect(corner.list.map(({ lines }) => lines.from)).toEqual([1, 2, 3]);
  });

  it("work together: headings open sections while paragraphs make slides", () => {
    expect(
      seen("# Part\n\n## A\n\nFirst.\n\nSecond.\n", { ...continued(heading), cuts: [heading, { kind: "paragraph" }] }),
    ).toEqual(["opening: Part", "points: A", "points: A"]);
  });

  it("cut a text of paragraphs that a heading rule finds no heading in, and say so", () => {
    const { slides, problems } = made(LONG.slice(0, 12).join("\n\n"), continued(heading));
    expect(slides).toHaveLength(12);
    expect(problems.map(({ message }) => message)).toEqual([expect.stringContaining("does not begin with a heading")]);
  });

  it("send text to the slide, to the notes, or points to the slide and the whole to the notes", () => {
    const text = `## Gauges\n\n${LONG.slice(0, 2).join(" ")}\n\n![The quay](quay.png)\n`;
    const notes = made(text, continued(heading, { placement: "notes" })).slides[0];
    expect([notes?.arrangement, textOf(notes?.notes ?? [])]).toEqual(["picture", LONG.slice(0, 2).join(" ")]);
    const both = made(text, continued(heading, { placement: "both" })).slides[0];
    expect(textOf(both?.notes ?? [])).toBe(LONG.slice(0, 2).join(" "));
    const body = both?.elements.find(({ slot }) => slot === "body");
    expect(body?.kind === "text" ? body.text.every(({ kind }) => kind === "bullet") : false).toBe(true);
  });

  it("share many points out over slides, each with the text that its points come from in its notes", () => {
    const { slides } = made(
      `## Gauges\n\n${LONG.slice(0, 9).join("\n\n")}\n`,
      continued(heading, { placement: "both" }),
    );
    expect(slides.map(titleOf)).toEqual(["Gauges", "Gauges (2 of 3)", "Gauges (3 of 3)"]);
    const notes = slides.flatMap((slide) => (slide.notes.length ? [textOf(slide.notes)] : []));
    expect(notes.join("\n")).toBe(LONG.slice(0, 9).join("\n"));
  });

  it("join what `join` joins, and cut at marks whatever the rule", () => {
    expect(seen("## A\n\na\n\n::join\n\n## B\n\nb\n\n---\n\nc\n", continued(heading))).toEqual([
      "points: A",
      "statement: c",
    ]);
  });

  it("make charts of numeric tables only when they say so", () => {
    const text =
      "## Levels\n\n| | North | South |\n|---|--:|--:|\n| 2021 | 2.4 | 2.1 |\n| 2022 | 2.5 | 2.2 |\n| 2023 | 2.7 | 2.2 |\n| 2024 | 2.6 | 2.3 |\n";
    expect(made(text, continued(heading)).slides[0]?.arrangement).toBe("table");
    expect(made(text, continued(heading, { charts: true })).slides[0]).toMatchObject({
      arrangement: "chart",
      elements: [
        {},
        { kind: "chart", type: "line", series: [{ name: "North", values: [2.4, 2.5, 2.7, 2.6] }, { name: "South" }] },
      ],
    });
  });
});

describe("arrangements by content", () => {
  it.each<[string, string]>([
    ["quotation", "> The sea gives and takes.\n\nA keeper\n"],
    ["number", "## Highest surge\n\n4.6 m\n\nabove chart datum, in the storm of the second week\n"],
    ["picture", "## Quay\n\n![The quay](quay.png)\n\nSeen from the north\n"],
    ["pictures", "## Quay\n\n![a](a.png)\n\n![b](b.png)\n\n![c](c.png)\n"],
    ["table", "## T\n\n| a | b |\n|---|---|\n| c | d |\n"],
    ["code", "## C\n\n```python\nprint(1)\n```\n"],
    ["formula", "## F\n\n$$\nh = h_0 + a\n$$\n"],
    ["diagram", "## D\n\n:::diagram{kind=cycle}\n- a\n- b\n- c\n:::\n"],
    ["comparison", "## C\n\n:::column\nleft\n:::\n\n:::column\nright\n:::\n"],
    ["references", "## References\n\n- A book\n"],
    ["statement", "One sentence stands alone.\n"],
  ])("%s, with a reason", (arrangement, text) => {
    const { list } = made(`## Before\n\n- x\n\n---\n\n${text}`, continued(heading));
    expect(list[1]?.slide.arrangement).toBe(arrangement);
    expect(REASONS[list[1]?.reason ?? "empty"]).toMatch(/^(it|its|a) /);
  });

  it("give a large figure that stands among text a slide of its own", () => {
    const rows = Array.from({ length: 6 }, (_, nth) => `| ${nth} | ${nth * 2} |`).join("\n");
    expect(
      seen(`## Levels\n\n${LONG.slice(0, 3).join("\n\n")}\n\n| a | b |\n|---|---|\n${rows}\n`, continued(heading)),
    ).toEqual(["points: Levels", "points: Levels (2 of 3)", "table: Levels (3 of 3)"]);
  });
});

describe("fitting", () => {
  it("never lets anything overflow: long lists, tables, code, words, on every page shape and theme", () => {
    const piece = fc.oneof(
      fc.integer({ min: 1, max: 30 }).map((n) => LONG.slice(0, n).join("\n\n")),
      fc.integer({ min: 1, max: 30 }).map((n) =>
        LONG.slice(0, n)
          .map((line, nth) => `${"  ".repeat(nth % 3)}- ${line.slice(0, 20 + nth * 3)}`)
          .join("\n"),
      ),
      fc
        .tuple(fc.integer({ min: 1, max: 40 }), fc.integer({ min: 1, max: 9 }))
        .map(([rows, columns]) =>
          [
            `|${" h |".repeat(columns)}`,
            `|${"---|".repeat(columns)}`,
            ...Array.from(
              { length: rows },
              (_, y) =>
                `|${Array.from({ length: columns }, (_, x) => ` ${LONG[(x + y) % 30]?.slice(0, 6 + ((x * 7 + y * 3) % 40))} |`).join("")}`,
            ),
          ].join("\n"),
        ),
      fc
        .integer({ min: 1, max: 60 })
        .map(
          (n) =>
            `\`\`\`python\n${Array.from({ length: n }, (_, nth) => `${"    ".repeat(nth % 3)}value_${nth} = read(gauge[${nth}], every=10)`).join("\n")}\n\`\`\``,
        ),
      fc.constant("![A dune](dune.png)"),
      fc.constant("$$\nh(t) = h_0 + \\sum_{i=1}^{n} a_i \\cos(\\omega_i t + \\varphi_i)\n$$"),
      fc.constant("Word".repeat(80)),
    );
    const title = fc.constantFrom(
      "Short",
      LONG.slice(0, 2).join(" "),
      "A title of middling length that needs two lines at least",
    );
    fc.assert(
      fc.property(
        fc.array(piece, { minLength: 1, maxLength: 3 }),
        title,
        fc.constantFrom(...Object.values(PAGES)),
        fc.constantFrom(...Object.values(THEMES)),
        fc.constantFrom("slide" as const, "both" as const),
        fc.constantFrom("continue" as const, "notes" as const),
        (pieces, name, page, theme, body, rest) => {
          const own = { ...metadata, page, theme };
          expect(
            overflows(
              `## ${name}\n\n${pieces.join("\n\n")}\n`,
              continued(heading, { placement: body, overflow: rest }),
              own,
            ).map(({ arrangement }) => arrangement),
          ).toEqual([]);
        },
      ),
      { numRuns: 60 },
    );
  }, 240_000);

  it("cuts between items of a list, never between an item and what lies under it, and never under a heading", () => {
    const items = LONG.slice(0, 14).flatMap((line, nth) => [`- ${nth} ${line}`, `  - under ${nth}`]);
    const { slides } = made(`## List\n\n${items.join("\n")}\n`, continued(heading));
    expect(slides.length).toBeGreaterThan(1);
    for (const slide of slides) {
      const body = slide.elements.find(({ slot }) => slot === "body");
      if (body?.kind === "text") expect([body.text[0]?.level, body.text.at(-1)?.level]).toEqual([0, 1]);
    }
    const parts = LONG.slice(0, 12).flatMap((line, nth) => [`### Part ${nth}`, line]);
    for (const slide of made(`## Parts\n\n${parts.join("\n\n")}\n`, continued(heading)).slides) {
      const body = slide.elements.find(({ slot }) => slot === "body");
      if (body?.kind === "text") expect(body.text.at(-1)?.runs[0]?.marks).toBeUndefined();
    }
  });

  it("repeats the header row of a table that continues, and loses no row", () => {
    const rows = Array.from({ length: 60 }, (_, nth) => `| row ${nth} | ${nth} |`);
    const { slides } = made(`## T\n\n| Name | Value |\n|---|--:|\n${rows.join("\n")}\n`, continued(heading));
    expect(slides.length).toBeGreaterThan(1);
    const tables = slides.flatMap(({ elements }) =>
      elements.flatMap((element) => (element.kind === "table" ? [element] : [])),
    );
    for (const table of tables) expect(elementWords({ ...table, rows: table.rows.slice(0, 1) })).toBe("Name\nValue");
    expect(tables.flatMap((table) => table.rows.slice(1).map((row) => textOf(row[0]?.text ?? [])))).toEqual(
      rows.map((_, nth) => `row ${nth}`),
    );
  });

  it("cuts code between lines and keeps every one", () => {
    const lines = Array.from({ length: 70 }, (_, nth) => `line_${nth} = ${nth}`);
    const { slides } = made(`## C\n\n\`\`\`js\n${lines.join("\n")}\n\`\`\`\n`, continued(heading));
    expect(
      slides.flatMap(({ elements }) =>
        elements.flatMap((element) => (element.kind === "code" ? element.text.split("\n") : [])),
      ),
    ).toEqual(lines);
  });

  it("numbers slides that continue in the deck's language", () => {
    const titles = (language: string) =>
      made(`## T\n\n${LONG.join("\n\n")}\n`, continued(heading), { ...metadata, language })
        .slides.map(titleOf)
        .slice(0, 2);
    expect(titles("en")[1]).toMatch(/^T \(2 of \d+\)$/);
    expect(titles("de")[1]).toMatch(/^T \(2 von \d+\)$/);
    expect(titles("ar")[1]).toMatch(/^T \([\u0660-\u06692] من .+\)$/);
  });

  it("puts what does not fit into the notes where the rule says so, and nothing is lost", () => {
    const { slides } = made(`## T\n\n${LONG.join("\n\n")}\n`, continued(heading, { overflow: "notes" }));
    expect(slides).toHaveLength(1);
    expect([...(slides[0]?.elements.slice(1).map(elementWords) ?? []), textOf(slides[0]?.notes ?? [])].join("\n")).toBe(
      LONG.join("\n"),
    );
  });

  it("shortens a heading of 500 words, keeps all of it in the notes, and says so", () => {
    const words = Array.from({ length: 500 }, (_, nth) => `word${nth}`).join(" ");
    const { slides, problems } = made(`## ${words}\n\n- a\n`, continued(heading));
    expect(titleOf(slides[0] as never).split(" ").length).toBeLessThan(20);
    expect(textOf(slides[0]?.notes ?? [])).toContain(words);
    expect(problems.map(({ message }) => message)).toEqual([expect.stringContaining("longer than a title")]);
  });
});

describe("bad input", () => {
  it.each<[string, string]>([
    ["10,000 one-word lines", Array.from({ length: 10000 }, (_, nth) => `word${nth}`).join("\n")],
    [
      "right-to-left and mixed text",
      "## مقياس المدّ and the gauge\n\n- ارتفاع الماء 2.4 m عند المقياس\n- גובה המים near the quay\n",
    ],
    [
      "emoji and zero-width characters",
      "## 🌊 Tides\u200B\n\n- 👩‍🔬 at the gauge\n- zero\u200Bwidth\uFEFF joined\u200D\n",
    ],
    [
      "lists 12 deep",
      `## Deep\n\n${Array.from({ length: 12 }, (_, nth) => `${"  ".repeat(nth)}- level ${nth}`).join("\n")}\n`,
    ],
    ["a table with ragged rows", "## T\n\n| a | b | c |\n|---|---|---|\n| 1 |\n| 1 | 2 | 3 | 4 |\n"],
    ["nothing", ""],
  ])(
    "%s makes slides and loses no word",
    (_, text) => {
      const { slides } = made(text, text.startsWith("word0") ? continued({ kind: "line" }) : continued(heading));
      const shown = slides.flatMap(({ elements, notes }) => [...elements.map(elementWords), textOf(notes)]).join(" ");
      // A row that is longer than the header loses its last cells: GFM says so (section 4.10).
      for (const word of text.match(/[\p{L}\p{N}]{2,}/gu) ?? []) expect(shown).toContain(word);
    },
    120_000,
  );

  it("keeps the same slides when a text goes through the manuscript's own text", () => {
    const text = `# Tides\n\n## Gauges\n\n${LONG.slice(0, 8).join("\n\n")}\n\n- one\n- two\n\n| a | b |\n|---|---|\n| c | d |\n`;
    const { text: written } = manuscriptText({}, readText(text).blocks);
    const words = (value: string) =>
      made(value, DOCUMENT_RULE).slides.map(({ arrangement, elements, notes }) => [
        arrangement,
        elements.map(elementWords),
        textOf(notes),
      ]);
    expect(words(written)).toEqual(words(text));
  });

  it("makes a deck of a text with a title of its own and one without", () => {
    const { deck } = generateDeck(
      readText("---\ntitle: Handbook\nauthor: Station\n---\n\n# Part\n\n## A\n\n- x\n"),
      DOCUMENT_RULE,
      { newId: idSource(), fonts },
    );
    expect(deck.slides.map(({ arrangement }) => arrangement)).toEqual(["opening", "section", "points"]);
  });
});
