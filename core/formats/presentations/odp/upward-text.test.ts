import { layoutSlide, leavesOf } from "@unitext/core/layout";
import { type Deck, emptyDeck, metadataOf, must, newSlide, plainText } from "@unitext/core/model";
import { filesBench, withoutTags } from "@unitext/core/testing/files";
import { shippedFonts } from "@unitext/core/testing/fonts";
import { PNG } from "pngjs";
import { WRITERS } from "../../index";

const bench = filesBench(new Uint8Array(PNG.sync.write(new PNG({ width: 4, height: 3 }))));
const fonts = shippedFonts();
const deck: Deck = {
  ...emptyDeck("d", "Axis"),
  slides: [
    {
      ...newSlide("s", "blank"),
      elements: [
        {
          kind: "text",
          id: "t",
          slot: null,
          frame: { x: 100, y: 120, width: 40, height: 260 },
          text: plainText("Height above datum"),
          box: { turn: 270 },
        },
      ],
    },
  ],
};

/** Returns the angle of a turned text and the place of its middle on the page. */
function middleOf(of: Deck): { x: number; y: number; upwards: boolean } {
  const scene = layoutSlide(must(of.slides[0]), { metadata: metadataOf(of), number: 1, fonts });
  const box = must(scene.boxes[0]);
  const [element] = must(of.slides[0]).elements;
  const words = leavesOf(scene.nodes).some((node) => node.kind === "text" && node.lines.length > 0);
  return {
    x: Math.round(box.x + box.width / 2),
    y: Math.round(box.y + box.height / 2),
    upwards: words && (element?.box?.turn ?? 0) + (element?.rotation ?? 0) === 270,
  };
}

describe("text that runs upwards", () => {
  it("is a frame turned about its middle, as OpenDocument has no upward text", () => {
    const file = WRITERS.odp.write(deck, bench.context) as Uint8Array;
    const other = bench.read(withoutTags(file), "deck.odp").deck;
    expect(middleOf(other)).toEqual(middleOf(deck));
    const [element] = must(other.slides[0]).elements;
    expect([element?.frame?.width, element?.frame?.height].map((value) => Math.round(value ?? 0))).toEqual([260, 40]);
  });

  it("is what it was when the deck is read again", () => {
    const file = WRITERS.odp.write(deck, bench.context) as Uint8Array;
    const [element] = must(bench.read(file, "deck.odp").deck.slides[0]).elements;
    expect([element?.box?.turn ?? 0, element?.rotation ?? 0].reduce((sum, angle) => sum + angle)).toBe(270);
  });
});
