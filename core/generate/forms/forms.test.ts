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
import { loadGrammar } from "../grammar";
import { generate } from "../index";

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

  it("is a statement where it has one short point", () => {
    const [slide] = slidesOf("## Rule\n\n- Nobody goes out alone\n");
    expect([slide?.arrangement, ...slotted(slide)]).toEqual(["message", "text body"]);
    expect(wordsOf(slide)).toBe("Rule\nNobody goes out alone");
  });

  it("is a ring where its items are shares that make a whole", () => {
    const [slide] = slidesOf("## Bottom of the bay\n\n- Sand: 60 %\n- Silt: 30 %\n- Clay: 10 %\n");
    const chart = slide?.elements.find((element) => element.kind === "chart");
    expect(chart?.kind === "chart" ? [chart.type, chart.categories, chart.series[0]?.values] : []).toEqual([
      "doughnut",
      ["Sand", "Silt", "Clay"],
      [60, 30, 10],
    ]);
    const [partial] = slidesOf("## Bottom of the bay\n\n- Sand: 60 %\n- Silt: 30 %\n- Shells\n");
    expect(partial?.arrangement).toBe("points");
  });

  it("stays as it was typed in a deck that says what its text says", () => {
    const [slide] = slidesOf("## Reading\n\n1. Open the lid\n2. Let it rest\n3. Read\n", DEFAULT_RULE);
    expect(slide?.arrangement).toBe("points");
  });
});

describe("a key figure", () => {
  it("is large with its whole sentence below it, alone or beside other points", () => {
    const [alone] = slidesOf("## Surge\n\n- The highest surge in the record is 1.9 m\n");
    expect([alone?.arrangement, ...slotted(alone)]).toEqual(["fact", "text number", "text caption"]);
    expect(wordsOf(alone)).toBe("Surge\n1.9 m\nThe highest surge in the record is 1.9 m");
    const [beside] = slidesOf(
      "## Surge\n\n- Wind pushes water into the bay\n- The highest surge in the record is 1.9 m\n",
    );
    expect([beside?.arrangement, ...slotted(beside)]).toEqual([
      "highlight",
      "text body",
      "text number",
      "text caption",
    ]);
  });

  it.each([
    ["a limit", "The bar stays dry for at most 40 minutes"],
    ["a negation", "The level of the bar is not 40 cm"],
    ["two numbers", "The surge of 2024 was 1.9 m"],
    ["a number without a unit", "The number of gauges is 12"],
    ["a number that is no statement", "Compare the mark of the sheet with the plate, 6.18 m"],
  ])("is not made of %s", (_, point) => {
    const [slide] = slidesOf(`## Surge\n\n- ${point}\n`);
    expect(slide?.arrangement).not.toBe("fact");
  });

  it("does not come on every slide", () => {
    const text = [1, 2, 3, 4]
      .map((n) => `## Gauge ${n}\n\n- Wind pushes water into the bay\n- The highest surge here is ${n}.9 m\n`)
      .join("\n");
    const arrangements = slidesOf(text).map(({ arrangement }) => arrangement);
    expect(arrangements).toEqual(["highlight", "points", "points", "highlight"]);
  });
});

describe("subheadings", () => {
  const way = "- The path leads along the foot of the dune to the second post\n- The gate is open from May to June\n";
  const reading = "- The lid of the well opens to the left and is heavy\n- Two people read the scale in turn\n";

  it("are the heads of columns where each has as much below it", () => {
    const [slide] = slidesOf(`## Quay\n\n### Way\n\n${way}\n### Reading\n\n${reading}`);
    expect([slide?.arrangement, ...slotted(slide)]).toEqual(["comparison", "text left", "text right"]);
    expect(wordsOf(slide).split("\n")).toEqual([
      "Quay",
      "Way",
      ...way
        .trim()
        .split("\n")
        .map((line) => line.slice(2)),
      "Reading",
      ...reading
        .trim()
        .split("\n")
        .map((line) => line.slice(2)),
    ]);
  });
});

describe("a quotation below a title", () => {
  it("is large, with its source below", () => {
    const [slide] = slidesOf("## The keeper says\n\n> Watch the Swash, not the sea.\n\nLog book, page 3\n");
    expect([slide?.arrangement, ...slotted(slide)]).toEqual(["message", "text body", "text caption"]);
  });
});

describe("space between paragraphs", () => {
  it("grows where few points leave room, and fills no slide", () => {
    const rule: BreakRule = { ...DOCUMENT_RULE, placement: "slide" };
    const few = slidesOf(
      "## Tides\n\n- Springs follow the full moon by two days\n- Neaps follow the half moon\n",
      rule,
    );
    expect(few[0]?.spacing).toBeGreaterThan(1);
    const many = slidesOf(
      `## Tides\n\n${Array.from({ length: 9 }, (_, at) => `- Spring tide number ${at} of the year came two days late`).join("\n")}\n`,
      rule,
    );
    expect(many[0]?.spacing).toBeUndefined();
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
