import { layoutSlide, leavesOf } from "@unitext/core/layout";
import { type Background, type Deck, emptyDeck, metadataOf, newSlide, must } from "@unitext/core/model";
import { filesBench, sha256, withoutTags } from "@unitext/core/testing/files";
import { PNG } from "pngjs";
import { strFromU8, unzipSync } from "fflate";
import { WRITERS, writeReport } from "./index";
import { coverOf } from "./shared/sourcepackage";

const png = (width: number, height: number) => new Uint8Array(PNG.sync.write(new PNG({ width, height })));
const [tall, wide] = [png(400, 300), png(160, 90)];
const bench = filesBench(tall, wide);
const assets: Deck["assets"] = {
  "tall.png": { sha256: sha256(tall), mediaType: "image/png", width: 400, height: 300 },
  "wide.png": { sha256: sha256(wide), mediaType: "image/png", width: 160, height: 90 },
};
const deckOf = (background: Background): Deck => ({
  ...emptyDeck("d", "D"),
  assets,
  slides: [{ ...newSlide("one", "blank"), background }],
});
const through = (deck: Deck, format: "pptx" | "odp") =>
  bench.read(withoutTags(WRITERS[format].write(deck, bench.context) as Uint8Array), `other.${format}`).deck;
/** Where pictures are drawn behind a slide. */
const drawn = (deck: Deck) =>
  leavesOf(
    layoutSlide(must(deck.slides[0]), { metadata: metadataOf(deck), number: 1, fonts: bench.context.fonts }).nodes,
  ).flatMap((node) => (node.kind === "picture" ? [[node.x, node.y, node.width, node.height].map(Math.round)] : []));

describe("a picture that covers a page", () => {
  // Worked by hand: 400 by 300 on 960 by 540 is 960 by 720, of which 90 points extend above and below: a sixth of the page each.
  it("extends over the page on one axis, as its ratio asks", () => {
    expect(coverOf({ width: 400, height: 300 }, { width: 960, height: 540 }).down).toBeCloseTo(1 / 6, 6);
    expect(coverOf({ width: 400, height: 300 }, { width: 960, height: 540 }).across).toBe(0);
    expect(coverOf({ width: 1600, height: 300 }, { width: 960, height: 540 })).toEqual({
      across: expect.closeTo((2880 / 960 - 1) / 2, 6),
      down: 0,
    });
    expect(coverOf({ width: 160, height: 90 }, { width: 960, height: 540 })).toEqual({ across: 0, down: 0 });
    expect(coverOf(undefined, { width: 960, height: 540 })).toEqual({ across: 0, down: 0 });
  });

  it.each(["pptx", "odp"] as const)("covers it in a .%s too, for another program", (format) => {
    const deck = deckOf({ picture: "tall.png" });
    expect(drawn(deck)).toEqual([[0, -90, 960, 720]]);
    const other = through(deck, format);
    expect(other.slides[0]?.background).toHaveProperty("picture");
    expect(drawn(other)).toEqual([[0, -90, 960, 720]]);
    const parts = unzipSync(WRITERS[format].write(deck, bench.context) as Uint8Array);
    // ECMA-376-1, 20.1.8.30: negative sides extend over the frame; OpenDocument 1.3, part 3, 20.155 to 20.158 (the numbers from memory).
    if (format === "pptx")
      expect(strFromU8(must(parts["ppt/slides/slide1.xml"]))).toContain('<a:fillRect t="-16667" b="-16667"/>');
    else
      expect(strFromU8(must(parts["content.xml"]))).toMatch(
        /style:repeat="no-repeat" draw:fill-image-width="960pt" draw:fill-image-height="720pt" draw:fill-image-ref-point="center"/,
      );
  });

  it.each(["pptx", "odp"] as const)("is one that fills it where its ratio is the page's, in a .%s", (format) => {
    expect(drawn(through(deckOf({ picture: "wide.png" }), format))).toEqual([[0, 0, 960, 540]]);
  });

  it.each(["pptx", "odp"] as const)("is not one that is stretched over it, in a .%s", (format) => {
    const other = through(deckOf({ fill: { kind: "picture", source: "tall.png" } }), format);
    expect(other.slides[0]?.background).toMatchObject({ fill: { kind: "picture" } });
    expect(drawn(other)).toEqual([[0, 0, 960, 540]]);
  });
});

describe("a background that no .odp can say", () => {
  const dusk: Background = {
    fill: {
      kind: "gradient",
      form: "linear",
      angle: 90,
      stops: [
        { at: 0, colour: "#0b1f4b" },
        { at: 0.5, colour: "#b9771f" },
        { at: 1, colour: "#f4f1e8" },
      ],
    },
  };
  const said = (deck: Deck, format: "pptx" | "odp") =>
    writeReport(deck, format).adapted.filter(({ what }) => what === "the fill of its background");
  it("is told, on the slide or behind it", () => {
    expect(said(deckOf(dusk), "odp")).toEqual([
      { slide: 1, what: "the fill of its background", how: expect.stringContaining("first colour to its last") },
    ]);
    const behind: Deck = {
      ...deckOf({ colour: "#ffffff" }),
      masters: { dusk: { name: "Dusk", background: dusk, elements: [] } },
      slides: [
        { ...newSlide("one", "blank"), master: "dusk" },
        { ...newSlide("two", "blank"), master: "dusk", background: { colour: "#ffffff" } },
      ],
    };
    expect(said(behind, "odp").map(({ slide }) => slide)).toEqual([1]);
    expect(said(behind, "pptx")).toEqual([]);
  });
});
