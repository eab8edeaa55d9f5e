import { apply } from "@unitext/core/edit";
import { boxesOf, layoutSlide } from "@unitext/core/layout";
import {
  contrast,
  type Deck,
  type Element,
  elementTexts,
  emptyDeck,
  metadataOf,
  must,
  newSlide,
  plainText,
  run,
  type Slide,
  textOf,
} from "@unitext/core/model";
import { idSource } from "@unitext/core/testing";
import { shippedFonts } from "@unitext/core/testing/fonts";
import { type Advice, adviceOn, CHECKS } from "./index";

const fonts = shippedFonts();
const title = (text: string): Element => ({ kind: "text", id: "t", slot: "title", text: plainText(text) });
const list = (points: readonly string[], more: Partial<Element> = {}): Element =>
  ({
    kind: "text",
    id: "b",
    slot: "body",
    text: points.map((point) => ({ kind: "bullet", level: 0, runs: [run(point)] })),
    ...more,
  }) as Element;
const deckOf = (...slides: Partial<Slide>[]): Deck => ({
  ...emptyDeck("d", "D"),
  assets: {
    "wide.png": { sha256: "a".repeat(64), mediaType: "image/png", width: 1600, height: 800 },
    "small.png": { sha256: "b".repeat(64), mediaType: "image/png", width: 60, height: 40 },
  },
  slides: slides.map((slide, nth) => ({ ...newSlide(`s${nth + 1}`, "points"), ...slide })),
});
const advice = (deck: Deck): Advice[] =>
  adviceOn(
    deck,
    deck.slides.map(({ id }) => id),
    { fonts, newId: idSource() },
  );
const found = (deck: Deck) => advice(deck).map(({ check, slide }) => `${slide} ${check}`);
/** Returns the deck after the remedy of its first finding. */
const mended = (deck: Deck): Deck => apply(deck, must(advice(deck)[0]?.remedy).change).deck;
const words = (count: number) => Array.from({ length: count }, (_, nth) => `word${nth}`).join(" ");
const textIn = (deck: Deck) =>
  deck.slides.flatMap(({ elements }) =>
    elements.filter(({ slot }) => slot !== "title").flatMap((element) => elementTexts(element).map(textOf)),
  );

describe("advice", () => {
  it("says nothing of a slide as it should be", () => {
    expect(advice(deckOf({ elements: [title("Gauges"), list(["High water at ten", "Low water at four"])] }))).toEqual(
      [],
    );
  });

  it("has a label for every check", () => {
    expect(Object.values(CHECKS).every(({ label }) => label.length > 0)).toBe(true);
  });

  it("finds text that overflows, and divides it so that all of it is there and fits", () => {
    const deck = deckOf({
      elements: [title("Gauges"), list(Array.from({ length: 20 }, (_, at) => `${at} ${words(9)}`))],
    });
    expect(found(deck)).toEqual(["s1 overflow"]);
    const after = mended(deck);
    expect(after.slides.length).toBeGreaterThan(1);
    expect(textIn(after).join("\n")).toBe(textIn(deck).join("\n"));
    const metadata = metadataOf(after);
    expect(after.slides.map((slide) => layoutSlide(slide, { metadata, number: 1, fonts }).overflow)).toEqual(
      after.slides.map(() => 0),
    );
  });

  it("finds many points, and parts none from what is below it", () => {
    const deep = list(Array.from({ length: 10 }, (_, at) => `p${at}`));
    const text = deep.kind === "text" ? deep.text.map((one, at) => ({ ...one, level: at === 5 ? 1 : 0 })) : [];
    const deck = deckOf({ elements: [title("Gauges"), { ...deep, text } as Element], textSize: 0.7 });
    expect(found(deck)).toContain("s1 points");
    const after = apply(deck, must(advice(deck).find(({ check }) => check === "points")?.remedy).change).deck;
    expect(textIn(after)).toEqual(["p0\np1\np2\np3\np4\np5", "p6\np7\np8\np9"]);
  });

  it("finds text too small for the last row", () => {
    const deck = deckOf({ elements: [title("Gauges"), list(["one", "two"])], textSize: 0.6 });
    expect(found(deck)).toEqual(["s1 size"]);
  });

  it("finds faint text by the contrast of WCAG 2.2, and makes its colour readable", () => {
    const faint: Element = {
      ...list(["x"]),
      text: [{ kind: "bullet", level: 0, runs: [{ text: "pale", properties: { colour: "#e8e8d0" } }] }],
    } as Element;
    const deck = deckOf({ elements: [title("Gauges"), faint] });
    expect(found(deck)).toEqual(["s1 contrast"]);
    const after = mended(deck);
    const element = after.slides[0]?.elements[1];
    const colour = element?.kind === "text" ? element.text[0]?.runs[0]?.properties?.colour : undefined;
    expect(contrast(must(colour), deck.theme.colours.paper)).toBeGreaterThanOrEqual(4.5);
    expect(found(after)).toEqual([]);
  });

  it("finds pictures that are stretched, coarse or without a description, and restores proportions", () => {
    const picture = (id: string, source: string, frame: { width: number; height: number }, alt: string): Element => ({
      kind: "picture",
      id,
      slot: null,
      source,
      alt,
      frame: { x: 100, y: 160, ...frame },
    });
    const deck = deckOf({
      elements: [
        title("Gauges"),
        picture("a", "wide.png", { width: 300, height: 300 }, "The quay"),
        picture("b", "small.png", { width: 300, height: 200 }, ""),
      ],
    });
    expect(found(deck)).toEqual(["s1 stretched", "s1 coarse", "s1 description"]);
    const after = mended(deck);
    const box = boxesOf(must(after.slides[0]), { metadata: metadataOf(after), number: 1, fonts }).get("a");
    expect(must(box).width / must(box).height).toBeCloseTo(2, 2);
  });

  it("does not take the name of a file for a description", () => {
    const named = { kind: "picture" as const, id: "a", slot: "picture", source: "pictures/IMG-2041.jpg" };
    const of = (alt: string) =>
      found(deckOf({ arrangement: "picture", elements: [title("The quay"), { ...named, alt }] })).filter((one) =>
        one.endsWith("description"),
      );
    expect(of("IMG 2041")).toEqual(["s1 description"]);
    expect(of("IMG-2041")).toEqual(["s1 description"]);
    expect(of("The quay at low water")).toEqual([]);
  });

  it("finds titles alike and slides without one", () => {
    const deck = deckOf(
      { elements: [title("Gauges")] },
      { elements: [title("gauges ")] },
      { elements: [list(["one"])] },
    );
    expect(found(deck)).toEqual(["s2 same-title", "s3 no-title"]);
    expect(advice(deck)[0]?.message).toContain("slide 1");
  });

  it("finds many kinds of motion, and calms them", () => {
    const moving = (["fade", "wipe", "slide", "grow"] as const).map(
      (effect, order): Element => ({
        kind: "text",
        id: `m${order}`,
        slot: null,
        frame: { x: 60, y: 150 + order * 60, width: 400, height: 50 },
        text: plainText("moves"),
        entrance: { order, trigger: "press", effect, seconds: 0.5 },
      }),
    );
    const deck = deckOf({ elements: [title("Gauges"), ...moving] });
    expect(found(deck)).toEqual(["s1 motion"]);
    expect(found(mended(deck))).toEqual([]);
  });

  it("leaves hidden slides alone", () => {
    expect(found(deckOf({ hidden: true, elements: [list(["one"])] }))).toEqual([]);
  });
});
