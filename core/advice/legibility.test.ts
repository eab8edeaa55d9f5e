import { layoutSlide } from "@unitext/core/layout";
import { emptyDeck, metadataOf, newSlide, plainText, type Slide } from "@unitext/core/model";
import { shippedFonts } from "@unitext/core/testing/fonts";
import { legibleVeil, type PagePixels } from "./index";

const fonts = shippedFonts();
const deck = {
  ...metadataOf(emptyDeck("d", "")),
  assets: { sea: { sha256: "0".repeat(64), mediaType: "image/png" as const, width: 960, height: 540 } },
};
const slide: Slide = {
  ...newSlide("s", "points"),
  background: { picture: "sea", veil: 0 },
  elements: [
    { kind: "text", id: "t", slot: "title", text: plainText("High water at the quay") },
    { kind: "text", id: "b", slot: "body", text: plainText("The bar falls dry twice a day") },
  ],
};
const scene = layoutSlide(slide, { metadata: deck, number: 1, fonts });

/** Returns a picture of 96 by 54 pixels whose grey at a place is given. */
function picture(grey: (x: number, y: number) => number): PagePixels {
  const [width, height] = [96, 54];
  const data = new Uint8ClampedArray(width * height * 4).fill(255);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) data.fill(grey(x, y), (y * width + x) * 4, (y * width + x) * 4 + 3);
  return { width, height, data };
}
const veil = (grey: (x: number, y: number) => number) => legibleVeil(scene, picture(grey), deck.theme.colours.paper);

describe("the veil over a background picture", () => {
  it("is none where the picture is light behind the text", () => {
    expect(veil(() => 250)).toBe(0);
  });

  it("is none where only the rest of the picture is dark", () => {
    // The text is in the upper half of the page.
    expect(veil((_, y) => (y > 40 ? 10 : 250))).toBe(0);
  });

  it("grows with the dark behind the text", () => {
    const [light, dark] = [veil(() => 100), veil(() => 40)];
    expect(light).toBeGreaterThan(0);
    expect(dark).toBeGreaterThan(light ?? 1);
  });

  it("does not count single dark pixels", () => {
    expect(veil((x, y) => (x % 10 === 0 && y % 10 === 0 ? 0 : 250))).toBe(0);
  });
});
