import { type FontSet, layoutSlide, listNumbers } from "@unitext/core/layout";
import {
  type BreakRule,
  DOCUMENT_RULE,
  type Element,
  emptyDeck,
  metadataOf,
  nameOf,
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
const names = (slides: readonly Slide[]) => slides.map((slide) => `${slide.arrangement}: ${nameOf(slide)}`);
const wordsOf = (slide: Slide | undefined) =>
  (slide?.elements ?? []).flatMap((element) =>
    element.kind === "text" && element.slot !== "title" ? [textOf(element.text)] : [],
  );
const kinds = (slide: Slide | undefined) => (slide?.elements ?? []).map(({ kind, slot }: Element) => `${kind} ${slot}`);

/** A paragraph of sentences that can be points. */
const prose = (about: string) =>
  `The ${about} of the station is read by the students every morning of the week. The keeper compares the ${about} with the mark on the post. A report of the ${about} goes to the archive at the end of the month. The staff of the hut looks after the ${about} in summer.`;

describe("a long section", () => {
  const list = (about: string) =>
    ["is read by the students", "is compared by the keeper", "is looked after in summer", "is taken in before a storm"]
      .map((what) => `- The ${about} ${what} every morning of the long week`)
      .join("\n");
  const text = `## Gauges\n\n${prose("gauge")}\n\n### Quay\n\n${list("float")}\n\n### Bar\n\n${list("sensor")}\n`;

  it("is cut at its subheadings, which become titles after the heading", () => {
    expect(names(slidesOf(text))).toEqual(["points: Gauges", "points: Gauges: Quay", "points: Gauges: Bar"]);
  });

  it("keeps short subsections together, with their headings", () => {
    const short = "## Gauges\n\n### Quay\n\n- wet\n\n### Bar\n\n- dry\n";
    expect(names(slidesOf(short))).toEqual(["points: Gauges"]);
    expect(wordsOf(slidesOf(short)[0])[0]).toBe("Quay\nwet\nBar\ndry");
  });

  it("keeps its background on every slide that it becomes", () => {
    const slides = slidesOf(`::slide{background=#20302e}\n\n${text}`);
    expect(slides.length).toBeGreaterThan(2);
    expect(new Set(slides.map(({ background }) => JSON.stringify(background))).size).toBe(1);
    expect(slides[0]?.background).toBeDefined();
  });

  it("has all of its text on its slides or in their notes", () => {
    const all = slidesOf(text)
      .map((slide) => textOf(slide.notes))
      .join("\n");
    expect(all).toContain(prose("gauge"));
    const shown = slidesOf(text).flatMap(wordsOf).join("\n");
    for (const about of ["float", "sensor"]) expect(shown).toContain(list(about).replace(/^- /gm, ""));
  });
});

describe("slides that continue one", () => {
  const items = (count: number) =>
    Array.from(
      { length: count },
      (_, nth) => `- **Post ${nth + 1}** stands at the foot of the dune where the path to the beach begins`,
    ).join("\n");

  it("name their topic, and keep the size of the text", () => {
    const slides = slidesOf(`## Posts\n\n${items(9)}\n`);
    expect(names(slides)[0]).toBe("points: Posts");
    expect(names(slides)[1]).toMatch(/^points: Posts: Post \d$/);
    const sizes = slides.map(
      (slide) => layoutSlide(slide, { metadata, number: 1, fonts }).boxes.find(({ slot }) => slot === "body")?.size,
    );
    expect(new Set(sizes)).toEqual(new Set([metadata.theme.scale.body]));
  });

  it("share out what would be left for the last one", () => {
    const counts = slidesOf(`## Posts\n\n${items(6)}\n`).map(
      (slide) =>
        slide.elements.flatMap((element) => (element.kind === "text" && element.slot === "body" ? element.text : []))
          .length,
    );
    expect(counts.reduce((sum, count) => sum + count, 0)).toBe(6);
    expect(Math.min(...counts)).toBeGreaterThan(1);
  });

  it("go on with the numbers of a list", () => {
    const steps = Array.from(
      { length: 12 },
      (_, nth) => `${nth + 1}. Walk to the next post at the foot of the dune where the path to the beach begins`,
    ).join("\n");
    const slides = slidesOf(`## Steps\n\n${steps}\n`);
    const shown = slides.flatMap((slide) =>
      slide.elements.flatMap((element) =>
        element.kind === "text" && element.slot === "body" ? listNumbers(element.text) : [],
      ),
    );
    expect(slides.length).toBeGreaterThan(1);
    expect(shown).toEqual(Array.from({ length: 12 }, (_, nth) => nth + 1));
  });

  it("are numbered where nothing tells them apart", () => {
    const same = Array.from(
      { length: 12 },
      () => "- and so on, at the foot of the dune where the path to the beach of the bay begins",
    ).join("\n");
    expect(names(slidesOf(`## Posts\n\n${same}\n`))[1]).toMatch(/^points: Posts \(2 of \d\)$/);
  });
});

describe("what belongs together", () => {
  const rows = Array.from({ length: 4 }, (_, nth) => `| Line ${nth + 1} | ${nth}.4 |`).join("\n");

  const table = `| Line | Sand |\n| --- | --: |\n${rows}`;
  const picture = "![The quay](quay.png)";

  it("stands side by side: points and their table", () => {
    const [slide] = slidesOf(`## Quay\n\n${prose("float")}\n\n${table}\n`);
    expect(slide).toMatchObject({ arrangement: "comparison", widths: [42, 58] });
    expect(kinds(slide)).toEqual(["text title", "text left", "table right"]);
    expect(textOf(slide?.notes ?? [])).toBe(prose("float"));
  });

  it("stands side by side: points and their picture, also where a table comes before", () => {
    const slides = slidesOf(`## Quay\n\n${prose("float")}\n\n${table}\n\n${prose("sensor")}\n\n${picture}\n`);
    expect(slides.map(kinds)).toEqual([
      ["text title", "text left", "table right"],
      ["text title", "text body", "picture null"],
    ]);
    const [text, shown] = layoutSlide(slides[1] as Slide, { metadata, number: 1, fonts }).boxes.slice(1);
    expect((text?.x ?? 0) + (text?.width ?? 0)).toBeLessThanOrEqual(shown?.x ?? 0);
  });

  it("stands one below the other: a sentence that leads into code, and the code", () => {
    const code = Array.from({ length: 9 }, (_, nth) => `read gauge ${nth + 1}`).join("\n");
    const slides = slidesOf(
      `## Reading\n\n${prose("float")}\n\nThe gauges are read so:\n\n\`\`\`sh\n${code}\n\`\`\`\n`,
    );
    const withCode = slides.find((slide) => slide.elements.some((element) => element.kind === "code"));
    expect(wordsOf(withCode)[0]).toMatch(/^The gauges are read so:/);
  });

  it("stands one below the other: a subheading, a line, and the code or table below them", () => {
    const code = Array.from({ length: 9 }, (_, nth) => `read gauge ${nth + 1}`).join("\n");
    const [slide] = slidesOf(`## Reading\n\n### At the quay\n\n\`\`\`sh\n${code}\n\`\`\`\n`);
    expect(kinds(slide)).toEqual(["text title", "text body", "code body"]);
    const rows = Array.from({ length: 6 }, (_, nth) => `| Line ${nth + 1} | ${nth}.4 |`).join("\n");
    const [lines] = slidesOf(`## Reading\n\nAll of them:\n\n| Line | Sand |\n| --- | --: |\n${rows}\n`);
    expect(kinds(lines)).toEqual(["text title", "text body", "table body"]);
  });

  it("is not repeated: a section with one line keeps it on its opener", () => {
    expect(names(slidesOf("# Course\n\n# Tides\n\nThe tide rises twice a day.\n\n## Quay\n\n- wet\n- cold\n"))).toEqual(
      ["opening: Course", "section: Tides", "points: Quay"],
    );
  });

  it("leaves sources as they are", () => {
    const sources =
      "Tern, A. and Knot, B. The sand of the outer bar and its way along the coast of the bay in winter. 2021.";
    expect(wordsOf(slidesOf(`## References\n\n${sources}\n\n${sources}\n`)[0])[0]).toBe(`${sources}\n${sources}`);
  });
});

it("a text that goes to the notes still shows what it is about", () => {
  const paragraph: BreakRule = { ...DOCUMENT_RULE, cuts: [{ kind: "paragraph" }], placement: "notes" };
  const [slide] = slidesOf(`${prose("float")}\n`, paragraph);
  expect(slide?.arrangement).toBe("statement");
  expect(wordsOf(slide)[0]).toMatch(/the float/i);
  expect(textOf(slide?.notes ?? [])).toBe(prose("float"));
});

it("a long item of a list becomes its first sentence or its term, with all of it in the notes", () => {
  const item =
    "Still reachable. The start of the block is found by the program at its end, so the programmer could have freed it.";
  const [slide] = slidesOf(`## Leaks\n\n- ${item}\n- short\n`);
  expect(wordsOf(slide)[0]).toBe("Still reachable\nshort");
  expect(textOf(slide?.notes ?? [])).toBe(item);
});

it("a bold term and its explanation are one item", () => {
  const page =
    "## Words\n\n- **slack**\n  - a wet hollow between dunes\n- **swash**\n  - water that runs up the beach\n\n" +
    prose("float");
  expect(wordsOf(slidesOf(page)[0])[0]).toMatch(
    /^slack: a wet hollow between dunes\nswash: water that runs up the beach\n/,
  );
});

describe("the topic of a slide that continues another one", () => {
  /** Returns the titles of the slides of a section with a long list of points, and then a part. */
  const titlesOf = (part: string) => {
    const points = Array.from({ length: 8 }, (_, at) => `- The gauge number ${at + 1} is read by two of the students`);
    return slidesOf(`## Reading the gauges\n\n${points.join("\n")}\n\n${part}\n`, {
      ...DOCUMENT_RULE,
      placement: "slide",
    }).map(nameOf);
  };
  const code = Array.from({ length: 7 }, (_, at) => `  step ${at + 1} of the sequence`).join("\n");

  it.each([
    ["what leads into its list", "Allowable next actions:\n\n```\nread\nclose\n```", "Allowable next actions"],
    [
      "the option that it explains",
      "- --level=<n> [default: 1] sets how much is said of each of the readings",
      "--level",
    ],
    ["the label of its code", `\`\`\`\nIDLE/any\n${code}\n\`\`\``, "IDLE/any"],
  ])("is %s", (_, part, topic) => {
    expect(titlesOf(part).at(-1)).toContain(topic);
  });

  it.each([
    ["code by the option it describes", "```\n  -f, --fast\n      Reads only the marks.\n```", "Posts: --fast"],
    ["code by what it defines", "```\ndef read_posts(bay):\n    return bay.posts\n```", "Posts: read_posts"],
    [
      "a table by its first and last row",
      "| post | m |\n|---|---|\n| harbour | 2 |\n| spit | 3 |",
      "Posts: harbour – spit",
    ],
  ])("name %s", (_, figure, title) => {
    const code = Array.from({ length: 14 }, (__, nth) => `line ${nth};`).join("\n");
    const made = names(slidesOf(`## Posts\n\n\`\`\`\n${code}\n\`\`\`\n\n${figure}\n`));
    expect(made.at(-1)).toContain(title);
  });
});

describe("pictures", () => {
  const pictures = (count: number) =>
    Array.from({ length: count }, (_, nth) => `![](pictures/${nth}.png)`).join("\n\n");
  const counts = (text: string) =>
    slidesOf(text).map(({ elements }) => elements.filter(({ kind }) => kind === "picture").length);

  it("are six on a slide at most, evenly, and two beside text", () => {
    expect(counts(`## Posts\n\n${pictures(6)}\n`)).toEqual([6]);
    expect(counts(`## Posts\n\n${pictures(14)}\n`)).toEqual([5, 5, 4]);
    const beside = counts(`## Posts\n\n${pictures(3)}\n\n${prose("gauge")}\n`);
    expect(Math.max(...beside)).toBeLessThanOrEqual(2);
    expect(beside.reduce((sum, count) => sum + count, 0)).toBe(3);
  });
});

describe("a section of more slides than are kept waiting", () => {
  it("has one size of text", () => {
    const topics = Array.from(
      { length: 60 },
      (_, nth) => `## Post ${nth}\n\n- It stands at the dune\n- It is read daily`,
    );
    const slides = slidesOf(`# Posts\n\n${topics.join("\n\n")}\n\n# Spit\n\n## End\n\n- Sand\n- Shells\n`);
    expect(new Set(slides.slice(1, 61).map(({ textSize }) => textSize))).toEqual(new Set([undefined]));
    expect(slides.at(-1)?.textSize).toBeGreaterThan(1);
  });
});

describe("an opening slide", () => {
  const front = (author: string) =>
    `---\ntitle: The dunes\nsubtitle: A field guide to the sand of the bay\nauthor: ${author}\n---\n\n## Sand\n\n- It moves\n`;

  it("has title, subtitle and author, also where text goes to the notes", () => {
    const [opening] = slidesOf(front("Head of station"), { ...DOCUMENT_RULE, placement: "notes" });
    expect(wordsOf(opening)).toEqual(["A field guide to the sand of the bay\nHead of station"]);
  });

  it("is one slide: lines that do not fit are in its notes", () => {
    const many = Array.from({ length: 40 }, (_, nth) => `Member ${nth} of the team`).join(", ");
    const [opening, next] = slidesOf(front(many));
    expect([opening?.arrangement, next && nameOf(next)]).toEqual(["opening", "Sand"]);
    expect(textOf(opening?.notes ?? [])).toContain("Member 39");
  });
});

describe("a text without headings", () => {
  it("has words on every slide, also where its sentences are no points", () => {
    const terms =
      "Available in the shed of the station, under the shelf with the posts and the flags of the last year and beside the boxes of the survey of the year before (see the plan), which nobody has opened since the storm of the winter and the flood that followed it in spring.";
    const slides = slidesOf(Array.from({ length: 12 }, () => terms).join("\n\n"));
    for (const slide of slides) expect(wordsOf(slide).join("").length + nameOf(slide).length).toBeGreaterThan(3);
  });
});
