import { generateDeck } from "@unitext/core/generate";
import { levels, type Slide } from "@unitext/core/model";
import { deckArbitrary, idSource, richText } from "@unitext/core/testing";
import fc from "fast-check";
import { blocksOf, deckText, markdownOf, normalText, readText } from "./index";

/** What the text form keeps of a slide, without the ids of its elements. */
function facts(slide: Slide, level: number | undefined) {
  const texts = slide.elements.flatMap((element) => (element.kind === "text" ? [[element.slot, normalText(element.text)]] : []));
  const pictures = slide.elements.flatMap((element) => (element.kind === "picture" ? [[element.source, element.alt]] : []));
  return { id: slide.id, level, arrangement: slide.arrangement, hidden: slide.hidden, texts, pictures, notes: normalText(slide.notes) };
}

describe("the text form", () => {
  it("keeps rich text: levels, lists, marks and links", () => {
    fc.assert(
      fc.property(richText, (text) => {
        const written = markdownOf(blocksOf(text));
        const read = [...readText(`${written}\n`).blocks].flatMap((block) => (block.kind === "text" ? block.text : []));
        expect(read).toEqual(text);
      }),
      { numRuns: 250 },
    );
  });

  it("keeps a deck: title slide, headings, lists, links, emphasis, notes, pictures, details, hidden slides", () => {
    fc.assert(
      fc.property(deckArbitrary(), (deck) => {
        const { deck: read } = generateDeck(readText(deckText(deck, { ids: true })), { kind: "heading", level: 2 }, idSource("r"));
        const before = levels(deck.slides);
        const after = levels(read.slides);
        expect(read.slides.map((slide) => facts(slide, after.get(slide.id)))).toEqual(deck.slides.map((slide) => facts(slide, before.get(slide.id))));
        expect({ ...read.properties }).toEqual(deck.properties);
        expect([read.language, read.page, read.theme.name, read.regions]).toEqual([deck.language, deck.page, deck.theme.name, deck.regions]);
      }),
      { numRuns: 150 },
    );
  });

  it("never throws, whatever is typed, and reads the same text to the same slides", () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom("# A", "---", "- b", "  - c", ":::notes", ":::", "::slide{hidden}", "```", "text", "", "> q", "| a | b |", "|---|---|", "[^1]", "[^1]: note", "<!-- x", "-->", ":::slot{name=right}", "::bad{"), { maxLength: 30 }), (lines) => {
        const once = [...readText(lines.join("\n")).blocks];
        expect([...readText(lines.join("\n")).blocks]).toEqual(once);
      }),
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

  it("keeps what it does not model as words, and says so at its line", () => {
    const manuscript = readText("## Levels\n\n| Gauge | m |\n|---|---|\n| North | 2.4 |\n\nSee[^1] 10:am.\n\n[^1]: Tide tables.\n\n:::box\nkept\n:::\n");
    const blocks = [...manuscript.blocks];
    expect(blocks.flatMap((block) => ("text" in block ? block.text.map(({ runs }) => runs.map(({ text }) => text).join("")) : []))).toEqual(["Levels", "Gauge | m", "North | 2.4", "See[1] 10:am.", "[1] Tide tables.", "kept"]);
    expect(manuscript.problems.map(({ line }) => line)).toEqual([3, 11]);
  });
});
