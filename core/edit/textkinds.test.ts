import { type Deck, emptyDeck, newSlide, plainText, type TextElement } from "@unitext/core/model";
import { apply, batch, makeTextsSo } from "./index";

const title: TextElement = {
  kind: "text",
  id: "t",
  slot: "title",
  text: [
    {
      kind: "plain",
      level: 0,
      runs: [{ text: "Springs", marks: ["strong"], properties: { size: 48, colour: "#0f5c63", underline: "single" } }],
    },
  ],
};
const slide = { ...newSlide("s", "points" as const), elements: [title] };
const deck: Deck = { ...emptyDeck("d", ""), slides: [slide] };

describe("the look of one text as the look of its kind", () => {
  it("moves font, size and colour of its words to the theme, and leaves what only words can have", () => {
    const { deck: next } = apply(deck, batch(makeTextsSo(deck, slide, title)));
    expect(next.theme.roles).toEqual({ title: { size: 48, colour: "#0f5c63", strong: true } });
    const [element] = next.slides[0]?.elements ?? [];
    expect(element).toMatchObject({ text: [{ runs: [{ text: "Springs", properties: { underline: "single" } }] }] });
  });

  it("takes the size on a page that is drawn larger back to that of the theme", () => {
    const [change] = makeTextsSo(deck, slide, title, 1.5);
    expect(change).toMatchObject({ theme: { roles: { title: { size: 32 } } } });
  });

  it("changes nothing for words without a look of their own, or for a text outside the arrangement", () => {
    expect(makeTextsSo(deck, slide, { ...title, text: plainText("Plain") })).toEqual([]);
    expect(makeTextsSo(deck, slide, { ...title, slot: null })).toEqual([]);
  });

  it("is undone as one change", () => {
    const { deck: next, inverse } = apply(deck, batch(makeTextsSo(deck, slide, title)));
    expect(apply(next, inverse).deck).toEqual(deck);
  });
});
