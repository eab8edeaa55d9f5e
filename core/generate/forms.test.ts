import { boxesOf, type FontSet } from "@unitext/core/layout";
import {
  type BreakRule,
  DEFAULT_RULE,
  DOCUMENT_RULE,
  elementTexts,
  emptyDeck,
  metadataOf,
  type Slide,
  textOf,
} from "@unitext/core/model";
import { readText } from "@unitext/core/text";
import { idSource } from "@unitext/core/testing";
import { shippedFonts } from "@unitext/core/testing/fonts";
import { loadGrammar } from "./grammar";
import { generate } from "./index";

beforeAll(loadGrammar);

const fonts: FontSet = shippedFonts();
const metadata = metadataOf(emptyDeck("d", ""));
const slidesOf = (text: string, rule: BreakRule = DOCUMENT_RULE): Slide[] =>
  [...generate(readText(text), rule, { newId: idSource(), metadata, fonts, document: "doc" })].map(
    ({ slide }) => slide,
  );
const slotted = (slide: Slide | undefined) =>
  (slide?.elements ?? []).filter(({ slot }) => slot !== "title").map(({ kind, slot }) => `${kind} ${slot}`);
/** Size of the body text of a slide, in points. */
const sizeOn = (slide: Slide) =>
  Math.round(
    [...boxesOf(slide, { metadata, number: 1, fonts }).values()].find(({ slot }) => slot === "body")?.size ?? 0,
  );
const wordsOf = (slide: Slide | undefined) =>
  (slide?.elements ?? []).flatMap((element) => elementTexts(element).map(textOf)).join("\n");

describe("a list on its slide", () => {
  it("is a row of steps where it is numbered, short and complete", () => {
    const [slide] = slidesOf("## Reading\n\n1. Open the lid\n2. Let the float rest\n3. Read the scale\n");
    expect([slide?.arrangement, ...slotted(slide)]).toEqual(["diagram", "diagram diagram"]);
    expect(wordsOf(slide)).toContain("Open the lid\nLet the float rest\nRead the scale");
  });

  it("stays a list where it goes on with another number, or an item is long", () => {
    const later = slidesOf("## Reading\n\n4. Open the lid\n5. Let the float rest\n6. Read the scale\n");
    expect(later[0]?.arrangement).toBe("points");
    const long = slidesOf(
      "## Reading\n\n1. Open the lid of the well and look for weed on the float and on its wire\n2. Wait\n3. Read\n",
    );
    expect(long[0]?.arrangement).toBe("points");
  });

  it("has terms beside their explanations", () => {
    const [slide] = slidesOf(
      "## Words\n\n- Datum: the level that heights count from\n- Neap: a tide of small range\n- Surge: water that the wind brings\n",
    );
    expect([slide?.arrangement, ...slotted(slide)]).toEqual(["table", "table table"]);
    const table = slide?.elements.find((element) => element.kind === "table");
    const cells = table?.kind === "table" ? table.rows.map((row) => row.map((cell) => textOf(cell?.text ?? []))) : [];
    expect(cells).toEqual([
      ["Datum", "the level that heights count from"],
      ["Neap", "a tide of small range"],
      ["Surge", "water that the wind brings"],
    ]);
  });

  it("is set in two columns where its items are many and short", () => {
    const birds = ["Avocet", "Dunlin", "Knot", "Lapwing", "Plover", "Redshank", "Ruff", "Snipe"];
    const [slide] = slidesOf(`## Birds\n\n${birds.map((bird) => `- ${bird}`).join("\n")}\n`);
    expect([slide?.arrangement, ...slotted(slide)]).toEqual(["comparison", "text left", "text right"]);
    expect(wordsOf(slide)).toBe(`Birds\n${birds.join("\n")}`);
  });

  it("is a sentence where it has one point, without a bullet", () => {
    const [slide] = slidesOf("## Rule\n\n- Nobody goes out alone\n");
    const text = slide?.elements.find(({ slot }) => slot === "body");
    expect(text?.kind === "text" ? text.text.map(({ kind }) => kind) : []).toEqual(["plain"]);
  });

  it("stays as it was typed in a deck that says what its text says", () => {
    const [slide] = slidesOf("## Reading\n\n1. Open the lid\n2. Let it rest\n3. Read\n", DEFAULT_RULE);
    expect(slide?.arrangement).toBe("points");
  });
});

describe("the size of text", () => {
  const section = (title: string, points: readonly string[]) =>
    `# ${title}\n\n${points.map((point, at) => `## ${title} ${at + 1}\n\n- ${point}\n- ${point}, too\n`).join("\n")}\n`;
  const short = "Water stands at the mark";
  const long = Array.from(
    { length: 5 },
    () => "The water at the outer bar stood at the mark of the old staff for an hour",
  ).join("\n- ");

  it("is larger where little stands on the slides of a section, and the same on all of them", () => {
    const slides = slidesOf(section("Gauges", [short, short, short]), { ...DOCUMENT_RULE, placement: "slide" });
    const sizes = slides.filter(({ arrangement }) => arrangement === "points").map(sizeOn);
    expect(sizes.length).toBe(3);
    expect(new Set(sizes).size).toBe(1);
    expect(sizes[0]).toBeGreaterThan(metadata.theme.scale.body);
  });

  it("is that of the theme where one slide of the section needs it", () => {
    const rule: BreakRule = { ...DOCUMENT_RULE, placement: "slide" };
    const slides = slidesOf(section("Gauges", [short, long, short]), rule);
    const sizes = slides.filter(({ arrangement }) => arrangement === "points").map(sizeOn);
    expect(new Set(sizes)).toEqual(new Set([metadata.theme.scale.body]));
  });
});
