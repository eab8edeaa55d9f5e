import { layoutSlide, leavesOf } from "@unitext/core/layout";
import { type Deck, metadataOf, type Slide, must } from "@unitext/core/model";
import { filesBench, withoutTags, deckWith } from "@unitext/core/testing/files";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { WRITERS } from "./index";

// ECMA-376-1, 21.1.2.2.7: `rtl` says the direction of a paragraph, `algn` its side (20.1.10.59: l is the left one, r the right, whatever the direction; numbers from memory). `fo:text-align`, OpenDocument 1.3, part 3: start and end go with the writing mode, left and right do not.
const bench = filesBench();
const shown: Deck = deckWith({
  kind: "text",
  id: "t",
  slot: null,
  text: [{ kind: "plain", level: 0, runs: [{ text: "tide." }] }],
  frame: { x: 100, y: 100, width: 400, height: 60 },
});
const parts = unzipSync(withoutTags(WRITERS.pptx.write(shown, bench.context) as Uint8Array));
const HEAD =
  '<p:sld xmlns:a="http://schemas.openxmlformats.org/drawingml/2006/main" xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships" xmlns:p="http://schemas.openxmlformats.org/presentationml/2006/main"><p:cSld><p:spTree><p:nvGrpSpPr><p:cNvPr id="1" name=""/><p:cNvGrpSpPr/><p:nvPr/></p:nvGrpSpPr><p:grpSpPr/>';
const said = (all: Record<string, string | undefined>) =>
  Object.entries(all)
    .map(([name, value]) => (value === undefined ? "" : ` ${name}="${value}"`))
    .join("");
const slideWith = (level: string, paragraph: string, words: string) =>
  bench.read(
    zipSync({
      ...parts,
      "ppt/slides/slide1.xml": strToU8(
        `${HEAD}<p:sp><p:nvSpPr><p:cNvPr id="2" name="One"/><p:cNvSpPr txBox="1"/><p:nvPr/></p:nvSpPr><p:spPr><a:xfrm><a:off x="1270000" y="1270000"/><a:ext cx="5080000" cy="762000"/></a:xfrm><a:prstGeom prst="rect"><a:avLst/></a:prstGeom></p:spPr><p:txBody><a:bodyPr lIns="0" rIns="0"/><a:lstStyle><a:lvl1pPr marL="342900" indent="-342900"${level}><a:buChar char="•"/></a:lvl1pPr></a:lstStyle><a:p><a:pPr${paragraph}/><a:r><a:rPr lang="en"/><a:t>${words}</a:t></a:r></a:p></p:txBody></p:sp></p:spTree></p:cSld></p:sld>`,
      ),
    }),
    "other.pptx",
  ).deck;
/** The same in another program's file, with nothing kept of where it came from. */
function through(deck: Deck, format: "pptx" | "odp"): Deck {
  const bare = {
    ...deck,
    assets: {},
    slides: deck.slides.map(({ sourcePart: _, ...slide }) => ({
      ...slide,
      elements: slide.elements.map(({ sourceShape: __, ...element }) => element),
    })) as Slide[],
  };
  return bench.read(withoutTags(WRITERS[format].write(bare, bench.context) as Uint8Array), `other.${format}`).deck;
}
/** At which side of the box the words end up, on which side of them their sign stands, and where their full stop. */
function standing(deck: Deck): { side: string; character: string; stop: string } {
  const scene = layoutSlide(must(deck.slides[0]), {
    metadata: metadataOf(deck),
    number: 1,
    fonts: bench.context.fonts,
  });
  const runs = leavesOf(scene.nodes)
    .flatMap((node) => (node.kind === "text" ? node.lines.flatMap((line) => line.runs) : []))
    .filter(({ text }) => text.trim());
  const at = (pattern: RegExp) => runs.find(({ text }) => pattern.test(text));
  const [words, sign, stop] = [at(/tide/), at(/•/), at(/\./)];
  if (!words || !stop) throw new Error("The words are gone.");
  const middle = words.x + words.width / 2;
  return {
    side: middle < 220 ? "left" : middle > 380 ? "right" : "centre",
    character: !sign ? "none" : sign.x < words.x ? "left" : "right",
    stop: words.text.includes(".") || stop.x > words.x ? "right" : "left",
  };
}

describe("the direction and the side of a paragraph", () => {
  const rows: [
    string,
    Record<string, string | undefined>,
    Record<string, string | undefined>,
    ReturnType<typeof standing>,
  ][] = [
    ["left to right, at the left", {}, {}, { side: "left", character: "left", stop: "right" }],
    ["left to right, at the right", {}, { algn: "r" }, { side: "right", character: "left", stop: "right" }],
    [
      "right to left by itself, at the right",
      {},
      { rtl: "1", algn: "r" },
      { side: "right", character: "right", stop: "left" },
    ],
    [
      "right to left by itself, at the left",
      {},
      { rtl: "1", algn: "l" },
      { side: "left", character: "right", stop: "left" },
    ],
    [
      "right to left by its level, at the right",
      { rtl: "1", algn: "r" },
      {},
      { side: "right", character: "right", stop: "left" },
    ],
    [
      "right to left by its level, at the left",
      { rtl: "1", algn: "l" },
      {},
      { side: "left", character: "right", stop: "left" },
    ],
    [
      "right to left by its level, in the middle",
      { rtl: "1", algn: "r" },
      { algn: "ctr" },
      { side: "centre", character: "right", stop: "left" },
    ],
    [
      "right to left by its level, at the left by itself",
      { rtl: "1", algn: "r" },
      { algn: "l" },
      { side: "left", character: "right", stop: "left" },
    ],
    [
      "left to right by itself, whatever its level says",
      { rtl: "1", algn: "r" },
      { rtl: "0", algn: "l" },
      { side: "left", character: "left", stop: "right" },
    ],
    [
      "left to right by itself, at the right as its level says",
      { rtl: "1", algn: "r" },
      { rtl: "0", algn: "r" },
      { side: "right", character: "left", stop: "right" },
    ],
  ];
  it.each(rows)("%s", (_, level, paragraph, wanted) => {
    const deck = slideWith(said(level), said(paragraph), "tide.");
    expect(standing(deck)).toEqual(wanted);
    expect(standing(through(deck, "pptx"))).toEqual(wanted);
    expect(standing(through(deck, "odp"))).toEqual(wanted);
    expect(standing(through(through(deck, "odp"), "pptx"))).toEqual(wanted);
  });

  it("follows from the words where a level says left to right (UAX #9, P2 and P3)", () => {
    const deck = slideWith(' rtl="0" algn="l"', "", "גאות tide.");
    expect(standing(deck)).toMatchObject({ character: "right", stop: "left" });
    expect(standing(through(deck, "odp"))).toMatchObject({ character: "right", stop: "left" });
  });

  it.each([
    ["start", "right"],
    ["end", "left"],
    ["left", "left"],
    ["right", "right"],
  ])("in an .odp from right to left at the %s is at the %s", (align, side) => {
    const made = unzipSync(
      withoutTags(
        WRITERS.odp.write(through(slideWith(' rtl="1" algn="r"', "", "tide."), "odp"), bench.context) as Uint8Array,
      ),
    );
    const content = strFromU8(must(made["content.xml"]));
    expect(content).toContain('style:writing-mode="rl-tb"');
    const aligned = content.replace(/<style:paragraph-properties([^>]*)>/g, (whole, attributes: string) =>
      attributes.includes("rl-tb")
        ? `<style:paragraph-properties${attributes.replace(/ fo:text-align="[^"]*"/, "").replace(/(\/?)$/, ` fo:text-align="${align}"$1`)}>`
        : whole,
    );
    expect(standing(bench.read(zipSync({ ...made, "content.xml": strToU8(aligned) }), "other.odp").deck)).toMatchObject(
      { side, stop: "left" },
    );
  });
});
