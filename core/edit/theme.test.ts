import { chosenTheme, emptyDeck, type Logo } from "@unitext/core/model";
import { apply, batch, putTheme } from "./index";

const logo: Logo = {
  source: "theme/logo-1.png",
  asset: { sha256: "a".repeat(64), mediaType: "image/png", width: 80, height: 40 },
  at: "top-right",
  height: 30,
  alt: "Field station",
};
const house = { ...chosenTheme({ design: "harbour", mood: "light", logo }), name: "House" };

describe("putting a theme on a deck", () => {
  it("brings the picture of its logo along, once", () => {
    const { deck } = apply(emptyDeck("d", ""), batch(putTheme(emptyDeck("d", ""), house)));
    expect(deck.assets[logo.source]).toEqual(logo.asset);
    expect(putTheme(deck, house).map(({ kind }) => kind)).toEqual(["setTheme"]);
  });

  it("gives the lines that were saved with it, and leaves those of the deck otherwise", () => {
    const deck = { ...emptyDeck("d", ""), regions: { footer: "Own", header: "Course", number: true } };
    expect(apply(deck, batch(putTheme(deck, house))).deck.regions).toEqual(deck.regions);
    const withLines = { ...house, lines: { footer: "Marram Bay Field Station", header: "" } };
    const { deck: taken, inverse } = apply(deck, batch(putTheme(deck, withLines)));
    expect(taken.regions).toEqual({ footer: "Marram Bay Field Station", number: true });
    expect(apply(taken, inverse).deck).toEqual(deck);
  });
});
