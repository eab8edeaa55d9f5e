import { drawnPlaces, layoutSlide } from "@unitext/core/layout";
import { shippedFonts } from "@unitext/core/testing/fonts";
import {
  type ArrangementName,
  type Deck,
  emptyDeck,
  type Frame,
  metadataOf,
  must,
  newSlide,
  type PictureElement,
  plainText,
  type Slide,
  THEMES,
} from "@unitext/core/model";
import { apply, batch, fittedFrame, freeFrame, putElement, putPicture, swapPicture } from "./index";

const apart = (a: Frame, b: Frame) =>
  a.x >= b.x + b.width || b.x >= a.x + a.width || a.y >= b.y + b.height || b.y >= a.y + a.height;

const text = (id: string, slot: string, words: string) => ({ id, kind: "text" as const, slot, text: plainText(words) });
const deckOf = (arrangement: ArrangementName, elements: Slide["elements"]): Deck => ({
  ...emptyDeck("d", "Dunes"),
  assets: { "pictures/dune.png": { sha256: "0".repeat(64), mediaType: "image/png", width: 4000, height: 3000 } },
  slides: [{ ...newSlide("s", arrangement), elements }],
});
const picture = { id: "p", kind: "picture" as const, source: "pictures/dune.png", alt: "The dune" };
const put = (deck: Deck) => apply(deck, batch(putPicture(deck, must(deck.slides[0]), picture))).deck;
const titled = text("t", "title", "The dune");

describe("a picture that is put on a slide", () => {
  it("goes into the free slot for pictures, and into a set of pictures until that is full", () => {
    expect(put(deckOf("picture", [titled])).slides[0]?.elements.at(-1)).toMatchObject({ slot: "picture" });
    const set = Array.from({ length: 6 }, (_, nth) => ({ ...picture, id: `p${nth}`, slot: "pictures" }));
    expect(put(deckOf("pictures", [titled, ...set.slice(1)])).slides[0]?.elements.at(-1)?.slot).toBe("pictures");
    expect(put(deckOf("pictures", [titled, ...set])).slides[0]?.elements.at(-1)?.slot).toBeNull();
  });

  it("makes a set of the one that stands in its place", () => {
    const one = { ...picture, id: "q", slot: "picture" };
    const slide = must(put(deckOf("picture", [titled, one])).slides[0]);
    expect([slide.arrangement, slide.elements.map(({ slot }) => slot)]).toEqual([
      "pictures",
      ["title", "pictures", "pictures"],
    ]);
  });

  it("stands beside text, not over it", () => {
    const deck = put(deckOf("points", [titled, text("b", "body", "Sand moves\nGrass holds it")]));
    const slide = must(deck.slides[0]);
    expect([slide.arrangement, slide.elements.map(({ slot }) => slot)]).toEqual([
      "comparison",
      ["title", "left", "right"],
    ]);
    const { boxes } = layoutSlide(slide, { metadata: metadataOf(deck), number: 1, fonts: shippedFonts() });
    const [words, shown] = ["b", "p"].map((id) => must(boxes.find(({ element }) => element === id)));
    expect(must(words).x + must(words).width).toBeLessThanOrEqual(must(shown).x);
  });

  it("goes below a title that stands alone, and else to the middle at a size that leaves room", () => {
    expect(put(deckOf("title", [titled])).slides[0]).toMatchObject({ arrangement: "picture" });
    const crowded = put(
      deckOf("points", [titled, { ...picture, id: "q", slot: null, frame: { x: 0, y: 0, width: 9, height: 9 } }]),
    );
    expect(crowded.slides[0]?.elements.at(-1)?.frame).toEqual({ x: 264, y: 108, width: 432, height: 324 });
  });
});

describe("a picture that is swapped", () => {
  const assets = deckOf("points", []).assets;
  const old: PictureElement = {
    ...picture,
    source: "pictures/old.png",
    slot: null,
    frame: { x: 10, y: 20, width: 300, height: 100 },
    shape: { preset: "ellipse" },
    opacity: 0.5,
    recolour: "grey",
    crop: { left: 0.4, top: 0, right: 0, bottom: 0 },
    entrance: { order: 1, trigger: "press", effect: "fade", seconds: 1 },
  };
  const swapped = swapPicture({ assets }, old, { source: "pictures/dune.png", alt: "The dune" });

  it("keeps its frame, its effects and its entrance", () => {
    const { frame, shape, opacity, recolour, entrance } = old;
    expect(swapped).toMatchObject({ id: "p", source: "pictures/dune.png", alt: "The dune" });
    expect(swapped).toMatchObject({ frame, shape, opacity, recolour, entrance });
  });

  it("is cut to fill its own frame, and never stretched", () => {
    const { left, top, right, bottom } = must(swapped.crop);
    const [width, height] = [4000 * (1 - left - right), 3000 * (1 - top - bottom)];
    expect(width / height).toBeCloseTo(3, 6);
    expect([left, top === bottom]).toEqual([0, true]);
    // In a slot the layout shows it whole.
    const { frame: _, ...inSlot } = old;
    expect(
      swapPicture({ assets }, { ...inSlot, slot: "picture" }, { source: "pictures/dune.png", alt: "" }).crop,
    ).toBeUndefined();
  });
});

describe("a new element", () => {
  const table = {
    kind: "table" as const,
    id: "n",
    slot: null,
    header: 1,
    align: ["start" as const, "end" as const],
    rows: [
      [{ text: plainText("Gauge") }, { text: plainText("Metres") }],
      [{ text: plainText("Quay") }, { text: plainText("3.4") }],
    ],
  };
  const added = (deck: Deck, element: Slide["elements"][number]) =>
    must(apply(deck, batch(putElement(deck, must(deck.slides[0]), element, []))).deck.slides[0]);

  it("is a table beside the text, below a title, or in the place that the arrangement has for it", () => {
    const points = deckOf("points", [titled, text("b", "body", "Sand moves")]);
    expect(added(points, table)).toMatchObject({ arrangement: "comparison", widths: [42, 58] });
    expect(added(points, table).elements.at(-1)).toMatchObject({ id: "n", slot: "right" });
    expect(added(deckOf("title", [titled]), table)).toMatchObject({ arrangement: "table" });
    // An empty text is no words: the table takes its place.
    const bare = added(deckOf("points", [titled, text("b", "body", "")]), table);
    expect([bare.arrangement, bare.elements.map(({ id }) => id)]).toEqual(["table", ["t", "n"]]);
    expect(added(deckOf("table", [titled]), table).elements.at(-1)?.slot).toBe("table");
  });

  it("is text in the empty place for text", () => {
    const { elements } = added(deckOf("points", [titled]), { ...text("n", "body", "New"), slot: null });
    expect(elements.at(-1)).toMatchObject({ slot: "body", text: plainText("New") });
  });

  it("covers no words of an opening, a section, a statement or a key figure, in any design", () => {
    const fonts = shippedFonts();
    const pages = { opening: "opening", section: "section", statement: "statement", number: "number" } as const;
    for (const theme of Object.values(THEMES))
      for (const [arrangement, slot] of Object.entries(pages)) {
        const given = deckOf(arrangement as ArrangementName, [text("w", slot, "Storms on the coast")]);
        const deck: Deck = { ...given, theme };
        const context = { metadata: metadataOf(deck), number: 1, fonts };
        const occupied = drawnPlaces(layoutSlide(must(deck.slides[0]), context));
        const changes = putElement(
          deck,
          must(deck.slides[0]),
          { ...table, frame: { x: 0, y: 0, width: 560, height: 200 } },
          occupied,
        );
        const frame = must(must(apply(deck, batch(changes)).deck.slides[0]).elements.at(-1)).frame;
        for (const { x, y, width, height } of frame ? occupied : [])
          expect({ theme: theme.name, arrangement, apart: apart(must(frame), { x, y, width, height }) }).toEqual({
            theme: theme.name,
            arrangement,
            apart: true,
          });
      }
  });

  it("is drawn smaller where there is no room for its size, and never changes its proportions", () => {
    const page = { width: 960, height: 540 };
    const occupied = [{ x: 0, y: 0, width: 960, height: 380 }];
    const { y, width, height } = fittedFrame(page, { width: 400, height: 200 }, occupied);
    expect(y).toBeGreaterThanOrEqual(380);
    expect(width / height).toBeCloseTo(2, 1);
  });

  it("lies where the page is free, and in the middle of an empty one", () => {
    const page = { width: 960, height: 540 };
    const size = { width: 200, height: 100 };
    expect(freeFrame(page, size, [])).toEqual({ x: 380, y: 220, ...size });
    const full = { x: 0, y: 0, width: 960, height: 380 };
    expect(freeFrame(page, size, [full]).y).toBeGreaterThanOrEqual(380);
  });
});
