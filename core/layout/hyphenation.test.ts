import { type Element, emptyDeck, metadataOf, newSlide, run, type Slide } from "@unitext/core/model";
import { shippedFonts } from "@unitext/core/testing/fonts";
import { hyphenations } from "./hyphenation";
import { layoutSlide, loadHyphenation } from "./index";

const metadata = { ...metadataOf(emptyDeck("d", "Deck")), language: "de" };
const context = { metadata, number: 1, fonts: shippedFonts() };
const LONG = "Küstenüberwachungsprogramm";
const divided = (text: string, language: string) => {
  const at = hyphenations(text, language);
  return [0, ...at].map((from, nth) => text.slice(from, at[nth])).join("-");
};

function lines(slot: "title" | "body", width: number): string[] {
  const element: Element = {
    kind: "text",
    id: "a",
    slot,
    frame: { x: 40, y: 40, width, height: 400 },
    text: [{ kind: "plain", level: 0, runs: [run(LONG)] }],
  };
  const slide: Slide = { ...newSlide("s", "points"), elements: [element] };
  return layoutSlide(slide, context).nodes.flatMap((node) =>
    node.kind === "text" && node.element === "a"
      ? node.lines.map((line) => line.runs.map(({ text }) => text).join(""))
      : [],
  );
}

describe("dividing words", () => {
  it("is not done before the patterns of the language are loaded", () => {
    expect(hyphenations(LONG, "de")).toEqual([]);
    expect(lines("body", 120).join("")).toBe(LONG);
  });

  it("follows Liang's patterns, for each language its own", async () => {
    await Promise.all(["de", "en-GB", "es", "xx"].map(loadHyphenation));
    // The word in the title of Liang's thesis by the British patterns, and rules of spelling in the others.
    expect(divided("hyphenation", "en-GB")).toBe("hy-phen-a-tion");
    expect(divided("Donaudampfschifffahrt", "de")).toBe("Do-nau-dampf-schiff-fahrt");
    expect(divided("sobreelevación", "es")).toMatch(/^so-bre-e?-?le-va-ción$/);
    expect(hyphenations("anything", "xx")).toEqual([]);
  });

  it("leaves short words, numbers and addresses alone", () => {
    expect(hyphenations("Dünen", "de")).toEqual([]);
    expect(hyphenations("https://beispiel.example/Küstenüberwachung", "de")).toEqual([]);
    expect(hyphenations("Messstelle4711", "de")).toEqual([]);
  });

  it("happens where a column is narrower than a word, with a hyphen at the end of the line, and never in titles", () => {
    const narrow = lines("body", 150);
    expect(narrow.length).toBeGreaterThan(1);
    for (const line of narrow.slice(0, -1)) expect(line).toMatch(/-$/);
    expect(narrow.map((line) => line.replace(/-$/, "")).join("")).toBe(LONG);
    expect(lines("body", 800)).toEqual([LONG]);
    expect(lines("title", 150).join("")).toBe(LONG);
  });
});
