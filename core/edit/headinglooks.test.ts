import { drawnPlaces, layoutSlide } from "@unitext/core/layout";
import {
  type Deck,
  contrast,
  emptyDeck,
  metadataOf,
  must,
  newSlide,
  run,
  TEXT_CONTRAST,
  type TextElement,
  THEMES,
} from "@unitext/core/model";
import { shippedFonts } from "@unitext/core/testing/fonts";
import { HEADING_LOOKS, type HeadingLookName, withHeadingLook } from "./index";

const FRAME = { x: 60, y: 40, width: 840, height: 90 };
const NAMES = Object.keys(HEADING_LOOKS) as HeadingLookName[];
const title: TextElement = {
  kind: "text",
  id: "t",
  slot: "title",
  text: [
    { kind: "plain", level: 0, runs: [run("Storms of "), run("the bay", ["emphasis"], "https://bay.example/storms")] },
  ],
};

describe("the style of a heading", () => {
  it.each(NAMES)("keeps words, marks and links: %s", (name) => {
    const { text } = withHeadingLook(title, name, must(THEMES.saltmarsh), FRAME);
    expect(text.map(({ runs }) => runs.map(({ properties: _, ...own }) => own))).toEqual(
      title.text.map(({ runs }) => runs),
    );
  });

  it("is taken away by the plain one", () => {
    for (const name of NAMES) {
      const styled = withHeadingLook(title, name, must(THEMES.saltmarsh), FRAME);
      const { frame: _, ...plain } = withHeadingLook(styled, "plain", must(THEMES.saltmarsh), FRAME);
      expect(plain).toEqual(title);
    }
  });

  // WCAG 2.2, 1.4.3: the contrast of text with its background is at least 4.5:1.
  it.each(Object.entries(THEMES))("can be read in the design %s", (_, theme) => {
    for (const name of NAMES) {
      const { fill, text } = withHeadingLook(title, name, theme, FRAME);
      const { colour = theme.colours.ink, highlight } = text[0]?.runs[0]?.properties ?? {};
      const behind =
        highlight ??
        (fill?.kind === "solid"
          ? [fill.colour]
          : fill?.kind === "gradient"
            ? fill.stops.map((stop) => stop.colour)
            : [theme.colours.paper]);
      for (const background of [behind].flat())
        expect({ name, ratio: contrast(colour, background) >= TEXT_CONTRAST }).toEqual({ name, ratio: true });
    }
  });

  it("is drawn inside its box", () => {
    const fonts = shippedFonts();
    for (const name of NAMES) {
      const heading = withHeadingLook(title, name, must(THEMES.saltmarsh), FRAME);
      const deck: Deck = {
        ...emptyDeck("d", "Bay"),
        slides: [{ ...newSlide("s", "title"), elements: [heading] }],
      };
      const [place] = drawnPlaces(layoutSlide(must(deck.slides[0]), { metadata: metadataOf(deck), number: 1, fonts }));
      if (heading.frame) {
        expect(must(place).x).toBeGreaterThanOrEqual(FRAME.x);
        expect(must(place).y + must(place).height).toBeLessThanOrEqual(FRAME.y + FRAME.height + 1);
      }
    }
  });
});
