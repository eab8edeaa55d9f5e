import { readFileSync } from "node:fs";
import { apply, batch, changePage, putLook, rearrangeIn } from "@unitext/core/edit";
import { generateDeck, slideChanges } from "@unitext/core/generate";
import { layoutSlide } from "@unitext/core/layout";
import {
  type Deck,
  DEFAULT_RULE,
  DOCUMENT_RULE,
  emptyDeck,
  layoutsOf,
  metadataOf,
  must,
  PAGES,
  textOf,
} from "@unitext/core/model";
import { readText } from "@unitext/core/text";
import { idSource } from "@unitext/core/testing";
import { filesBench, withoutTags } from "@unitext/core/testing/files";
import { shippedFonts } from "@unitext/core/testing/fonts";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { PNG } from "pngjs";
import { WRITERS } from "./index";

const bench = filesBench(new Uint8Array(PNG.sync.write(new PNG({ width: 4, height: 3 }))));
const fonts = shippedFonts();
const files = ["demo/content/quay-in-autumn.pptx", "demo/content/open-day.odp"];
const template = (file: string): Deck => bench.read(new Uint8Array(readFileSync(file)), file).deck;

const TEXT = `# The year at the quay

## What was measured

${Array.from({ length: 9 }, (_, at) => `- Point ${at + 1} of what the gauges of the quay have shown in the whole of this year`).join("\n")}

## Storm against calm

:::column
- Wind from the west
:::

:::column
- No wind at all
:::
`;

describe.each(files)("the layouts of %s", (file) => {
  const from = template(file);
  const empty = emptyDeck("n", "New");
  const { deck: looks } = apply(empty, batch(putLook(empty, from, false)));
  const metadata = metadataOf(looks);
  const made = generateDeck(
    readText(TEXT),
    { ...DOCUMENT_RULE, placement: "slide" },
    { newId: idSource(), metadata, fonts, document: "doc" },
  ).deck;

  it("are found on its slides, with the master and the places of each", () => {
    const { layouts } = must(layoutsOf(from));
    expect(layouts.points?.slots.title).toBeDefined();
    expect(layouts.points?.slots.body).toBeDefined();
    for (const { master } of Object.values(layouts)) expect(from.masters?.[master]).toBeDefined();
  });

  it("are taken by slides made from text: master, places and text styles, and nothing overflows", () => {
    const { points } = must(looks.layouts);
    const slides = made.slides.filter(({ arrangement }) => arrangement === "points");
    expect(slides.length).toBeGreaterThan(1);
    for (const slide of slides) {
      const scene = layoutSlide(slide, { metadata: metadataOf(made), number: 1, fonts });
      expect(slide.master).toBe(points?.master);
      expect(scene.overflow).toBe(0);
      const boxes = new Map(scene.boxes.map(({ slot, x, y, width, height }) => [slot, { x, y, width, height }]));
      expect(boxes.get("title")).toEqual(points?.slots.title?.frame);
      expect(boxes.get("body")).toEqual(points?.slots.body?.frame);
    }
  });

  it("divide the place of the text where the file has no columns of its own", () => {
    const slide = must(made.slides.find(({ arrangement }) => arrangement === "comparison"));
    const { boxes } = layoutSlide(slide, { metadata: metadataOf(made), number: 1, fonts });
    const body = must(must(looks.layouts).comparison?.slots.left ?? looks.layouts?.points?.slots.body).frame;
    const [left, right] = ["left", "right"].map((slot) => must(boxes.find((box) => box.slot === slot)));
    expect(must(left).x).toBeGreaterThanOrEqual(body.x - 0.01);
    expect(must(left).x + must(left).width).toBeLessThanOrEqual(must(right).x);
  });

  it.each(["pptx", "odp"] as const)("are where another program sees the text in a .%s", (format) => {
    const other = bench.read(withoutTags(WRITERS[format].write(made, bench.context) as Uint8Array), `a.${format}`).deck;
    const at = must(made.slides.findIndex(({ arrangement }) => arrangement === "points"));
    const placed = (deck: Deck) => {
      const scene = layoutSlide(must(deck.slides[at]), { metadata: metadataOf(deck), number: 1, fonts });
      return scene.boxes.slice(0, 2).map(({ x, y }) => [Math.round(x / 4), Math.round(y / 4)]);
    };
    expect(placed(other)).toEqual(placed(made));
    expect(other.slides[at]?.master).toBeDefined();
  });

  it("change with the arrangement, when text makes a slide another one and when a person does", () => {
    const layouts = must(looks.layouts);
    const slide = must(made.slides.find(({ arrangement }) => arrangement === "points"));
    const { deck: opened } = apply(made, batch(rearrangeIn(made, slide, "opening")));
    const opening = must(opened.slides.find(({ id }) => id === slide.id));
    expect([opening.arrangement, opening.master]).toEqual(["opening", (layouts.opening ?? layouts.points)?.master]);
    const { deck: again } = apply(opened, batch(slideChanges(opening, slide)));
    const back = must(again.slides.find(({ id }) => id === slide.id));
    expect([back.arrangement, back.master]).toEqual(["points", layouts.points?.master]);
    expect(back.elements.map(({ slot, style }) => [slot, style])).toEqual(
      slide.elements.map(({ slot, style }) => [slot, style]),
    );
  });

  it("follow the page, and give way to a design again", () => {
    const { deck: square, inverse } = apply(made, changePage(made, PAGES["4:3"]));
    expect(square.layouts?.points?.slots.body?.frame.width).toBeLessThan(720);
    for (const { master } of Object.values(must(square.layouts))) expect(square.masters?.[master]).toBeDefined();
    expect(apply(square, inverse).deck).toEqual(made);
    const plain = generateDeck(readText("# A\n\n## B\n\n- c\n"), DEFAULT_RULE, { newId: idSource(), fonts }).deck;
    const { deck: back } = apply(made, batch(putLook(made, plain, true)));
    expect(back.layouts).toBeUndefined();
    expect(back.slides.every(({ master }) => master === undefined)).toBe(true);
  });
});

describe("a template without slides", () => {
  /** Returns a presentation without its slides, as a template has it (ECMA-376-1, 13.3.6: a slide list is optional). */
  const withoutSlides = (file: string): Uint8Array => {
    const parts = Object.entries(unzipSync(new Uint8Array(readFileSync(file))));
    const change = (name: string, bytes: Uint8Array) => {
      if (name === "ppt/presentation.xml")
        return strToU8(strFromU8(bytes).replace(/<p:sldIdLst>.*?<\/p:sldIdLst>/s, ""));
      if (name === "ppt/_rels/presentation.xml.rels")
        return strToU8(strFromU8(bytes).replace(/<Relationship [^>]*slides\/slide[^>]*\/>/g, ""));
      if (name === "[Content_Types].xml")
        return strToU8(strFromU8(bytes).replace(/<Override [^>]*(?:slides\/slide|notesSlides)[^>]*\/>/g, ""));
      return bytes;
    };
    const kept = parts.filter(([name]) => !/^ppt\/(?:slides|notesSlides)\//.test(name));
    return zipSync(Object.fromEntries(kept.map(([name, bytes]) => [name, change(name, bytes)])));
  };
  const read = bench.read(withoutSlides("demo/content/quay-in-autumn.pptx"), "template.potx");

  it("shows each of its layouts as a slide that has the layout's name, and says so", () => {
    const titles = read.deck.slides.map(
      ({ elements }) =>
        elements.flatMap((one) => (one.slot === "title" && one.kind === "text" ? textOf(one.text) : []))[0],
    );
    expect(titles.slice(0, 4)).toEqual(["Opening", "Section opener", "Title and points", "Two columns"]);
    expect(read.adapted).toContainEqual(expect.objectContaining({ what: "a template without slides" }));
    expect(layoutSlide(must(read.deck.slides[2]), { metadata: metadataOf(read.deck), number: 3, fonts }).overflow).toBe(
      0,
    );
  });

  it("gives a deck its layouts", () => {
    const { layouts } = must(layoutsOf(read.deck));
    expect(Object.keys(layouts)).toEqual(
      expect.arrayContaining(["opening", "section", "points", "comparison", "title"]),
    );
    const empty = emptyDeck("n", "New");
    const { deck: looks } = apply(empty, batch(putLook(empty, read.deck, false)));
    const { deck } = generateDeck(readText(TEXT), DOCUMENT_RULE, {
      newId: idSource(),
      metadata: metadataOf(looks),
      fonts,
      document: "doc",
    });
    expect(deck.slides.map(({ arrangement, master }) => [arrangement, master !== undefined])).toContainEqual([
      "opening",
      true,
    ]);
    const again = bench.read(withoutTags(WRITERS.pptx.write(deck, bench.context) as Uint8Array), "made.pptx");
    expect(again.deck.slides).toHaveLength(deck.slides.length);
  });
});
