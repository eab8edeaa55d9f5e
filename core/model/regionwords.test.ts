import { layoutSlide, leavesOf } from "@unitext/core/layout";
import { deckText } from "@unitext/core/text";
import { shippedFonts } from "@unitext/core/testing/fonts";
import { type Deck, emptyDeck, metadataOf, newSlide } from "./index";
import { regionWords } from "./regionwords";

const deck: Deck = {
  ...emptyDeck("d", "Dunes"),
  properties: { title: "Dunes", author: "Course team", event: "Week 3", date: "2 March" },
  regions: { footer: "{event} · {date}", header: "{title} by {author} for {class}", number: true },
  slides: [newSlide("s", "points")],
};

describe("a line on every slide", () => {
  it("has the title, author, event and date of its deck, and other braces as they are", () => {
    expect(regionWords(deck, "footer")).toBe("Week 3 · 2 March");
    expect(regionWords(deck, "header")).toBe("Dunes by Course team for {class}");
    expect(regionWords({ ...deck, regions: { footer: "{date}", number: true } }, "header")).toBe("");
  });

  it("shows them on slides, and keeps the names in the text form", () => {
    const [slide] = deck.slides;
    const scene = slide && layoutSlide(slide, { metadata: metadataOf(deck), number: 1, fonts: shippedFonts() });
    const words = leavesOf(scene?.nodes ?? []).flatMap((node) =>
      node.kind === "text" ? node.lines.map(({ runs }) => runs.map(({ text }) => text).join("")) : [],
    );
    expect(words).toEqual(expect.arrayContaining(["Week 3 · 2 March", "Dunes by Course team for {class}"]));
    expect(deckText(deck, { ids: false })).toContain("{event} · {date}");
  });
});
