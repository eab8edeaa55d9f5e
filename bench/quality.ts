// npm run quality -- FILES…: makes decks of documents, as dropping them does, and measures what a reader would see.
import { readSource, type SourceKind } from "@unitext/core/formats";
import { generateDeck, isWholeClause, loadGrammar } from "@unitext/core/generate";
import { type FontSet, layoutSlide, leavesOf } from "@unitext/core/layout";
import {
  countWords,
  type Deck,
  type Element,
  metadataOf,
  paragraphText,
  type Slide,
  slotsOf,
  textOf,
} from "@unitext/core/model";
import { basename, extname } from "node:path";
import { readFileSync } from "node:fs";
import { freshFonts } from "./core";

/** Arrangements that hold content, not openers. */
const isContent = ({ arrangement }: Slide) =>
  !["opening", "section", "title", "blank", "references"].includes(arrangement);
type Text = Extract<Element, { kind: "text" }>;
const bodies = (slide: Slide) =>
  slide.elements.filter((element): element is Text => element.kind === "text" && element.slot !== "title");
const isFigure = ({ kind }: Element) => kind !== "text";
const bullets = (slide: Slide) =>
  bodies(slide).flatMap(({ text }) =>
    text.filter(({ kind, level }) => kind !== "plain" && level === 0).map(paragraphText),
  );

/** Whether a slot has running text, not a statement, a caption or a key figure. */
const isBody = ({ arrangement }: Slide, slot: string | null) =>
  slotsOf(arrangement).some(([name, role]) => name === slot && role === "body");

/** How a slide is laid out: the sizes of its body text, how far down the page its content reaches, and its overflow. */
function laidOut(slide: Slide, deck: Deck, fonts: FontSet): { sizes: number[]; used: number; overflow: number } {
  const scene = layoutSlide(slide, { metadata: metadataOf(deck), number: 1, fonts });
  const texts = new Set(bodies(slide).map(({ id }) => id));
  const lines = leavesOf(scene.nodes).flatMap((node) =>
    node.kind === "text" && node.element !== null ? node.lines.map(({ y }) => y) : [],
  );
  // Code and tables reach down to their last line, which may be above the end of their place.
  const drawn = new Set(
    slide.elements.filter(({ kind }) => !["text", "code", "table"].includes(kind)).map(({ id }) => id),
  );
  const figures = scene.boxes.flatMap(({ element, y, height }) =>
    element !== null && drawn.has(element) ? [y + height] : [],
  );
  return {
    sizes: scene.boxes.flatMap(({ element, slot, size }) =>
      element !== null && texts.has(element) && isBody(slide, slot) ? [Math.round(size)] : [],
    ),
    used: Math.max(0, ...lines, ...figures) / deck.page.height,
    overflow: scene.overflow,
  };
}

const share = (part: number, whole: number) => (whole ? `${Math.round((100 * part) / whole)} %` : "–");
const median = (values: readonly number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0;

/** Measures the deck that a document gives. */
function measured(file: string, fonts: FontSet): Record<string, string | number> {
  const name = basename(file);
  const read = readSource(new Uint8Array(readFileSync(file)), name, extname(file).slice(1) as SourceKind);
  let id = 0;
  const { deck, made } = generateDeck(
    read.manuscript,
    read.rule,
    { newId: () => `q${id++}`, fonts, document: "q" },
    name,
  );
  const source = read.text();
  const content = deck.slides.filter(isContent);
  const points = made.flatMap((one) => one.points).filter(({ chosen }) => chosen);
  const sections: Slide[][] = [[]];
  for (const slide of deck.slides) {
    if (slide.arrangement === "section") sections.push([]);
    else if (bullets(slide).length && !slide.elements.some(isFigure)) sections.at(-1)?.push(slide);
  }
  const sized = sections.filter((list) => list.length > 1);
  const sizesOf = (list: readonly Slide[]) => new Set(list.flatMap((slide) => laidOut(slide, deck, fonts).sizes));
  const words = content.map((slide) => bodies(slide).reduce((sum, { text }) => sum + countWords(textOf(text)), 0));
  const used = content.map((slide) => laidOut(slide, deck, fonts));
  const figures = deck.slides.filter((slide) => slide.elements.some(isFigure));
  const all = deck.slides
    .map((slide) => [...slide.elements.map((one) => JSON.stringify(one)), JSON.stringify(slide.notes)].join(" "))
    .join(" ");
  const numbers = [...new Set(source.match(/\b\d[\d.,]*\d\b/g) ?? [])];
  const lone = content.filter(
    (slide) =>
      !slide.elements.some(isFigure) &&
      bullets(slide).length === 1 &&
      bodies(slide).every(({ text }) => countWords(textOf(text)) < 12),
  );
  return {
    slides: deck.slides.length,
    points: points.length,
    "whole clauses": share(points.filter(({ point }) => isWholeClause(point, deck.language)).length, points.length),
    "cut short (…)": points.filter(({ point, sentence }) => point.includes("…") && !sentence.includes("…")).length,
    "words on a content slide (median)": median(words),
    "lone short points": share(lone.length, content.length),
    "page used 45–85 %": share(used.filter(({ used: part }) => part >= 0.45 && part <= 0.88).length, content.length),
    "one body size in a section": share(sized.filter((list) => sizesOf(list).size === 1).length, sized.length),
    arrangements: new Set(deck.slides.map(({ arrangement }) => arrangement)).size,
    "figures with text": share(
      figures.filter((slide) => bodies(slide).length || slide.elements.length > 1).length,
      figures.length,
    ),
    "slides that overflow": used.filter(({ overflow }) => overflow > 0).length,
    "numbered titles": share(
      deck.slides.filter((slide) => /\(\d+ \p{L}+ \d+\)$/u.test(titleOf(slide))).length,
      deck.slides.length,
    ),
    "numbers kept": share(numbers.filter((number) => all.includes(number)).length, numbers.length),
  };
}

const titleOf = (slide: Slide) => {
  const title = slide.elements.find((element): element is Text => element.kind === "text" && element.slot === "title");
  return title ? textOf(title.text) : "";
};

const files = process.argv.slice(2).filter((one) => !one.startsWith("--"));
if (!files.length) {
  process.stderr.write("Say one document or more: npm run quality -- FILES…\n");
  process.exitCode = 2;
} else {
  await loadGrammar();
  const fonts = freshFonts();
  const rows = files.map((file) => [basename(file), measured(file, fonts)] as const);
  if (process.argv.includes("--json")) process.stdout.write(`${JSON.stringify(Object.fromEntries(rows))}\n`);
  else
    for (const [name, values] of rows) {
      process.stdout.write(`${name}\n`);
      for (const [what, value] of Object.entries(values)) process.stdout.write(`  ${what.padEnd(36)}${value}\n`);
    }
}
