import { generateDeck } from "@unitext/core/generate";
import {
  DEFAULT_RULE,
  type Element,
  levels,
  mapElementTexts,
  must,
  paragraphText,
  type Slide,
} from "@unitext/core/model";
import { deckArbitrary, idSource, richText } from "@unitext/core/testing";
import fc from "fast-check";
import {
  type Block,
  blocksOf,
  deckText,
  FootnoteList,
  manuscriptText,
  markdownOf,
  normalText,
  readText,
  writeDeck,
} from "./index";

/** What the text form keeps of a slide, without the ids of its elements. */
function facts(slide: Slide, level: number | undefined) {
  const { parent: _, elements, notes, ...rest } = slide;
  return {
    ...rest,
    level,
    elements: elements.map(({ id: __, ...element }) => mapElementTexts({ ...element, id: "" } as Element, normalText)),
    notes: normalText(notes),
  };
}

describe("the text form", () => {
  it("keeps rich text: levels, lists, marks and links", () => {
    fc.assert(
      fc.property(richText, (text) => {
        const notes = new FootnoteList();
        const written = markdownOf([...blocksOf(text, notes), ...notes.take()]);
        const read = [...readText(`${written}\n`).blocks].flatMap((block) => (block.kind === "text" ? block.text : []));
        expect(read).toEqual(text);
      }),
      { numRuns: 150 },
    );
  });

  it("says which lines of the text each slide is on, as reading the text finds them", () => {
    fc.assert(
      fc.property(deckArbitrary(), (deck) => {
        const { text, lines } = writeDeck(deck, { ids: true });
        const { made } = generateDeck(readText(text), DEFAULT_RULE, { newId: idSource("r") });
        expect(lines).toHaveLength(made.length);
        for (const [nth, { lines: found }] of made.entries()) {
          expect(found.from).toBeGreaterThanOrEqual(must(lines[nth]).from);
          expect(found.to).toBeLessThanOrEqual(must(lines[nth]).to);
        }
      }),
      { numRuns: 60 },
    );
  });

  it("escapes what Markdown would read otherwise, next to plain words and marks alike", () => {
    const pieces = [
      "word",
      "www.shore.org",
      "W",
      ".",
      ":",
      "1",
      ")",
      "-",
      "http:",
      "//",
      "a@b.c",
      "*",
      "_",
      "[",
      "(",
      " ",
      "é",
    ];
    const runOf = fc.record(
      { text: fc.array(fc.constantFrom(...pieces), { minLength: 1, maxLength: 5 }).map((parts) => parts.join("")) },
      { requiredKeys: ["text"] },
    );
    fc.assert(
      fc.property(fc.array(fc.tuple(runOf, fc.boolean()), { minLength: 1, maxLength: 4 }), (parts) => {
        const runs = parts.map(([{ text }, strong]) => ({ text, ...(strong ? { marks: ["strong" as const] } : {}) }));
        const given = normalText([{ kind: "plain", level: 0, runs }]);
        fc.pre(given.length > 0);
        const read = [...readText(`${markdownOf(blocksOf(given, new FootnoteList()))}\n`).blocks];
        expect(read.flatMap((block) => (block.kind === "text" ? block.text : [])).map(paragraphText)).toEqual(
          given.map(paragraphText),
        );
      }),
      { numRuns: 400 },
    );
  });

  it("keeps a deck: title slide, headings, lists, links, marks, notes, footnotes, formulas, pictures, tables, charts, diagrams, code, columns, alignment, steps, look, details, hidden slides", () => {
    fc.assert(
      fc.property(deckArbitrary(), (deck) => {
        const { deck: read } = generateDeck(readText(deckText(deck, { ids: true })), DEFAULT_RULE, {
          newId: idSource("r"),
        });
        const before = levels(deck.slides);
        const after = levels(read.slides);
        expect(read.slides.map((slide) => facts(slide, after.get(slide.id)))).toEqual(
          deck.slides.map((slide) => facts(slide, before.get(slide.id))),
        );
        expect({ ...read.properties }).toEqual(deck.properties);
        expect([read.language, read.page, read.theme.name, read.regions]).toEqual([
          deck.language,
          deck.page,
          deck.theme.name,
          deck.regions,
        ]);
      }),
      { numRuns: 120 },
    );
  });

  it("never throws, whatever is typed, and reads the same text to the same slides", () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.constantFrom(
            "# A",
            "---",
            "- b",
            "  - c",
            ":::notes",
            ":::",
            "::slide{hidden}",
            "```",
            "text",
            "",
            "> q",
            "| a | b |",
            "|---|---|",
            "[^1]",
            "[^1]: note",
            "<!-- x",
            "-->",
            ":::slot{name=right}",
            "::bad{",
          ),
          { maxLength: 30 },
        ),
        (lines) => {
          const once = [...readText(lines.join("\n")).blocks];
          expect([...readText(lines.join("\n")).blocks]).toEqual(once);
        },
      ),
    );
  });

  it("gives blocks their lines", () => {
    const blocks = [...readText("---\ntitle: T\n---\n\n# One\n\ntext\n\n---\n\n## Two\n\n- a\n- b\n").blocks];
    expect(blocks.map(({ kind, from, to }) => [kind, from, to])).toEqual([
      ["heading", 5, 5],
      ["text", 7, 7],
      ["break", 9, 9],
      ["heading", 11, 11],
      ["text", 13, 14],
    ]);
  });

  it("writes blocks as a text that reads as the same blocks at the lines that it gives them", () => {
    fc.assert(
      fc.property(deckArbitrary({ maxLength: 4 }), (deck) => {
        const blocks = [...readText(deckText(deck, { ids: true })).blocks];
        const { text, blocks: placed } = manuscriptText({}, blocks);
        const outer = (block: Block) =>
          block.kind === "slot"
            ? {
                ...block,
                blocks: block.blocks.map(({ from: _, to: __, ...inner }) =>
                  "items" in inner ? { ...inner, items: [] } : inner,
                ),
              }
            : block;
        expect([...readText(text).blocks].map(outer)).toEqual(placed.map(outer));
      }),
      { numRuns: 100 },
    );
  });

  it("takes tables, footnotes and formulas for what they are, and says at its line what it does not know", () => {
    const manuscript = readText(
      "## Levels\n\n| Gauge | m |\n|---|--:|\n| North | 2.4 |\n\nSee[^1] 10:am, $h_0$ or $5.\n\n[^1]: Tide tables.\n\n:::box\nkept\n:::\n",
    );
    const blocks = [...manuscript.blocks];
    expect(blocks.map(({ kind }) => kind)).toEqual(["heading", "figure", "text", "text"]);
    expect(blocks[1]).toMatchObject({ figure: { kind: "table", header: 1, align: ["start", "end"] } });
    expect(blocks[2]?.kind === "text" ? blocks[2].text[0]?.runs : []).toEqual([
      { text: "See" },
      { text: "", footnote: [{ text: "Tide tables." }] },
      { text: " 10:am, " },
      { text: "h_0", marks: ["formula"] },
      { text: " or $5." },
    ]);
    expect(blocks[3]?.kind === "text" ? blocks[3].text.map(paragraphText) : []).toEqual(["kept"]);
    expect(manuscript.problems.map(({ line }) => line)).toEqual([11]);
  });
});
