import { readFileSync } from "node:fs";
import { join } from "node:path";
import { sceneSvg, scenesPdf } from "@unitext/core/draw";
import { apply, step } from "@unitext/core/edit";
import { readDeck, WRITERS } from "@unitext/core/formats";
import { generate } from "@unitext/core/generate";
import { facesNeeded, FontSet, layoutSlide, type Scene } from "@unitext/core/layout";
import { checked, Deck, emptyDeck, metadataOf, ruleOf, must } from "@unitext/core/model";
import { readText } from "@unitext/core/text";
import { strFromU8, unzipSync, zipSync } from "fflate";
import { Blob, Buffer as HbBuffer, Face, Font, shape } from "harfbuzzjs";
import PDFDocument from "pdfkit";
import { SaxesParser } from "saxes";
import { deckOf, paragraphs } from "./material";

export interface Row {
  name: string;
  ratio: number;
  target: number;
  holds: boolean;
  unit?: string;
}

export const folder = join(process.cwd(), "dist/fonts");
export const bytes = (id: string) => readFileSync(join(folder, `${id}.ttf`));
export const freshFonts = () => new FontSet(bytes);

async function time(act: () => unknown): Promise<number> {
  const start = performance.now();
  await act();
  return performance.now() - start;
}

/** Returns the best of several runs, each after a warm-up of both sides, in milliseconds. */
export async function best(act: () => unknown, runs = 5): Promise<number> {
  let least = Number.POSITIVE_INFINITY;
  for (let nth = 0; nth < runs; nth++) least = Math.min(least, await time(act));
  return least;
}

/**
 * Returns the least milliseconds of each of several functions that are run in turn, so that a slow moment of the
 * machine affects all of them.
 */
export async function inTurn(acts: readonly (() => unknown)[], runs = 10): Promise<number[]> {
  const least = acts.map(() => Number.POSITIVE_INFINITY);
  for (let nth = 0; nth < runs; nth++)
    for (const [at, act] of acts.entries()) least[at] = Math.min(must(least[at]), await time(act));
  return least;
}

export const row = (name: string, ratio: number, target: number, unit?: string): Row => ({
  name,
  ratio: Math.round(ratio * 10000) / 10000,
  target,
  holds: ratio <= target,
  ...(unit ? { unit } : {}),
});

/** Shapes texts and does nothing else with them: the minimum of everything that lays out text. */
export function shapeBare(texts: readonly string[], font: Font): void {
  for (const text of texts) {
    const buffer = new HbBuffer();
    buffer.addText(text);
    buffer.guessSegmentProperties();
    shape(font, buffer);
    buffer.getGlyphInfosAndPositions();
  }
}

/**
 * Generates and lays out 1,600 paragraph slides, against bare shaping of the same words; from the text, including
 * reading it.
 */
export async function longText(): Promise<Row[]> {
  const texts = paragraphs(1600);
  const source = texts.join("\n\n---\n\n");
  const face = new Face(new Blob(bytes("atkinson-hyperlegible-next-latin-400-normal")));
  const font = new Font(face);
  const bare = () => shapeBare(texts, font);
  const metadata = metadataOf(emptyDeck("d", "Bench"));
  /** From a text not read before, with faces open (as that of the bare shaping is) and no word shaped yet. */
  const whole = (text: string) => {
    const fonts = freshFonts();
    for (const id of facesNeeded([], metadata)) fonts.face(id);
    let next = 0;
    let first = 0;
    const scenes: Scene[] = [];
    const begin = performance.now();
    for (const { slide } of generate(readText(text), ruleOf({ kind: "mark" }), { newId: () => `i${next++}` })) {
      scenes.push(layoutSlide(slide, { metadata, number: scenes.length + 1, fonts }));
      if (scenes.length === 20) first = performance.now() - begin;
    }
    return { first, all: performance.now() - begin };
  };
  const manuscript = { front: {}, blocks: [...readText(source).blocks], problems: [] };
  const made = () => {
    const fonts = freshFonts();
    let next = 0;
    let nth = 0;
    for (const { slide } of generate(manuscript, ruleOf({ kind: "mark" }), { newId: () => `i${next++}` }))
      layoutSlide(slide, { metadata, number: ++nth, fonts });
  };
  made();
  const shaping = await best(bare, 3);
  const laid = await best(made, 3);
  let first = Number.POSITIVE_INFINITY;
  let all = Number.POSITIVE_INFINITY;
  for (let seed = 13; seed < 18; seed++) {
    const times = whole(paragraphs(1600, seed).join("\n\n---\n\n"));
    first = Math.min(first, times.first);
    all = Math.min(all, times.all);
  }
  return [
    row("generate and lay out 1,600 paragraph slides / bare shaping", laid / shaping, 3),
    row("the first 20 of 1,600 slides from the text / the whole", first / all, 0.02),
    row("the same from the text, reading it included / bare shaping", all / shaping, 3),
  ];
}

export async function pptx(): Promise<Row[]> {
  const deck = deckOf(200);
  const fonts = freshFonts();
  const context = { fonts, at: new Date(0), picture: () => undefined };
  const file = WRITERS.pptx.write(deck, context) as Uint8Array;
  const parse = () => {
    for (const [name, part] of Object.entries(unzipSync(file)))
      if (/\.(xml|rels)$/.test(name)) new SaxesParser({ xmlns: false, position: false }).write(strFromU8(part)).close();
  };
  let next = 0;
  const read = () => readDeck(file, "bench.pptx", { newId: () => `r${next++}`, sha256: () => "" });
  const parts = unzipSync(file);
  const packed = () =>
    zipSync(Object.fromEntries(Object.entries(parts).map(([name, part]) => [name, [part, { level: 6 as const }]])));
  read();
  packed();
  return [
    row("read a .pptx of 200 slides / bare unzip and SAX parse", (await best(read)) / (await best(parse)), 3),
    row(
      "write a .pptx of 200 slides / bare zip of the same parts",
      (await best(() => WRITERS.pptx.write(deck, context))) / (await best(packed)),
      3,
    ),
  ];
}

export async function pdf(): Promise<Row[]> {
  const deck = deckOf(200);
  const fonts = freshFonts();
  const metadata = metadataOf(deck);
  const scenes = deck.slides.map((slide, nth) => layoutSlide(slide, { metadata, number: nth + 1, fonts }));
  const options = { fonts, picture: () => undefined, title: "Bench", author: "", language: "en", at: new Date(0) };
  const ours = () =>
    scenesPdf(
      deck.slides.map((slide, nth) => ({
        scene: layoutSlide(slide, { metadata, number: nth + 1, fonts }),
        slides: [{ id: slide.id, name: slide.id, level: 0 }],
      })),
      options,
    );
  const bare = () =>
    new Promise<void>((resolve) => {
      const doc = new PDFDocument({ autoFirstPage: false, margin: 0 });
      doc.on("data", () => undefined);
      doc.on("end", () => resolve());
      for (const id of new Set(
        scenes.flatMap(({ nodes }) =>
          nodes.flatMap((node) =>
            node.kind === "text" ? node.lines.flatMap(({ runs }) => runs.map(({ face }) => face)) : [],
          ),
        ),
      ))
        doc.registerFont(id, bytes(id));
      for (const scene of scenes) {
        doc.addPage({ size: [scene.page.width, scene.page.height], margin: 0 });
        for (const node of scene.nodes)
          if (node.kind === "text")
            for (const line of node.lines)
              for (const item of line.runs)
                doc
                  .font(item.face, item.size)
                  .fillColor(item.fill)
                  .text(item.text, item.x, line.y - item.size, { lineBreak: false });
      }
      doc.end();
    });
  await ours();
  await bare();
  return [
    row(
      "PDF of 200 slides, layout included / pdfkit drawing the same lines",
      (await best(ours, 3)) / (await best(bare, 3)),
      2,
    ),
    row(
      "SVG of 200 slides / their layout",
      (await best(() => scenes.map((scene) => sceneSvg(scene, { picture: () => undefined })))) /
        (await best(() => deck.slides.map((slide, nth) => layoutSlide(slide, { metadata, number: nth + 1, fonts })))),
      1,
    ),
  ];
}

export async function edit(): Promise<Row[]> {
  const deck = deckOf(2000);
  const json = JSON.stringify(deck);
  const change = step(deck, ["s1500"], -1);
  if (!change) throw new Error("no move");
  const read = () => checked(Deck, JSON.parse(json), "The deck");
  read();
  const many = () => {
    for (let nth = 0; nth < 100; nth++) apply(deck, change);
  };
  many();
  return [
    row("move one slide of 2,000 / reading the deck from JSON", (await best(many)) / 100 / (await best(read)), 0.01),
  ];
}
