import { emptyDeck, metadataOf, newSlide, type RegionBox } from "@unitext/core/model";
import { shippedFonts } from "@unitext/core/testing/fonts";
import { layoutSlide, leavesOf } from "./index";

const fonts = shippedFonts();

/** Returns the lines of a footer in a frame of a file. */
function footerIn(height: number, text: string): string[] {
  const region: RegionBox = { region: "footer", text, frame: { x: 60, y: 500, width: 120, height } };
  const slide = { ...newSlide("s", "points"), master: "m", regions: [region] };
  const { nodes } = layoutSlide(slide, { metadata: metadataOf(emptyDeck("d", "")), number: 1, fonts });
  return leavesOf(nodes).flatMap((node) =>
    node.kind === "text" && node.role === "footer" ? node.lines.map((line) => line.text.trim()) : [],
  );
}

describe("a footer of a file", () => {
  const words = "Marram Bay Field Station, coastal processes";

  it("keeps its line where its box was made for one", () => {
    expect(footerIn(22, words)).toEqual([words]);
  });

  it("takes several lines where its box has room for them", () => {
    expect(footerIn(60, words).length).toBeGreaterThan(1);
  });
});
