import { emptyDeck, type Element, metadataOf, type Slide } from "@unitext/core/model";
import { shippedFonts } from "@unitext/core/testing/fonts";
import { layoutSlide, mediaPlaces } from "./index";

const sums = { film: "f".repeat(64), still: "5".repeat(64) };
const assets = {
  "tide.mp4": { sha256: sums.film, mediaType: "video/mp4" as const, width: 1, height: 1 },
  "tide.png": { sha256: sums.still, mediaType: "image/png" as const, width: 16, height: 9 },
};
const frame = { x: 40, y: 60, width: 320, height: 180 };
const film = {
  kind: "media",
  id: "film",
  slot: null,
  frame,
  source: "tide.mp4",
  type: "video",
  poster: "tide.png",
  alt: "The tide",
} as const;
const places = (...elements: Element[]) => {
  const slide: Slide = { id: "one", parent: null, arrangement: "blank", notes: [], hidden: false, elements };
  const metadata = { ...metadataOf(emptyDeck("d", "D")), assets };
  return mediaPlaces(layoutSlide(slide, { metadata, number: 1, fonts: shippedFonts() }), slide, assets);
};

describe("films and sounds on a slide", () => {
  it("stand where they are drawn, with their file and the picture that is shown before", () => {
    expect(places(film)).toEqual([
      {
        element: "film",
        type: "video",
        alt: "The tide",
        sha256: sums.film,
        mediaType: "video/mp4",
        poster: sums.still,
        press: 0,
        ...frame,
      },
    ]);
  });
  it("are none where their file is not in the deck, as one that lies on the web is not", () => {
    expect(places({ ...film, source: "https://example.org/tide.mp4" })).toEqual([]);
  });
  it("have no picture before where it is not in the deck", () => {
    expect(places({ ...film, poster: "lost.png" })[0]).not.toHaveProperty("poster");
  });
  it("are turned as they are drawn, and there after the press that brings them in", () => {
    const shown: Element = {
      kind: "shape",
      id: "arrow",
      slot: null,
      frame,
      geometry: { preset: "rect" },
      text: [],
      entrance: { order: 0, trigger: "press", effect: "appear", seconds: 0 },
    } as Element;
    const [place] = places(shown, {
      ...film,
      rotation: 30,
      entrance: { order: 1, trigger: "press", effect: "fade", seconds: 0.5 },
    } as Element);
    expect(place).toMatchObject({ rotation: 30, press: 2 });
  });
});
