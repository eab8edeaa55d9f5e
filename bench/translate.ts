import { layoutSlide } from "@unitext/core/layout";
import { type Deck, metadataOf, must } from "@unitext/core/model";
import {
  matchTargets,
  type MemoryUnit,
  pseudoTranslation,
  readTmx,
  readXliff,
  type Segment,
  segmentsOf,
  translateDeck,
  writeTmx,
  writeXliff,
} from "@unitext/core/translate";
import { fontsIn } from "@unitext/node";
import { join } from "node:path";
import { SaxesParser } from "saxes";
import { inTurn, type Row, row } from "./core";
import { deckOf, seeded, words } from "./material";

/** Runs functions in turn and returns the least time of each. */
const pair = async (acts: readonly (() => unknown)[]): Promise<[number, number, number]> => {
  const [first, second, third = 0] = await inTurn(acts, 6);
  return [must(first), must(second), third];
};

const fonts = fontsIn(join(process.cwd(), "dist/fonts"));
const SLIDES = 200;
const UNITS = 100_000;

/** Sentences of made-up words, each different. */
export function* sentences(count: number): Generator<string> {
  const all = words(count * 9, seeded(20));
  for (let nth = 0; nth < count; nth++) yield `${all.slice(nth * 9, nth * 9 + 9).join(" ")} ${nth}.`;
}

/** A bare parser of XML that counts the characters between tags. */
function parsed(text: string): number {
  const parser = new SaxesParser({ xmlns: true });
  let characters = 0;
  parser.on("text", (words) => {
    characters += words.length;
  });
  parser.write(text).close();
  return characters;
}

const escaped = (text: string) => text.replace(/&/g, "&amp;").replace(/</g, "&lt;");

const plain = (text: string) => text.replace(/&lt;/g, "<").replace(/&amp;/g, "&");

/** Returns a function that writes the elements and texts of a file of XML again, and nothing else. */
function bareWriter(text: string): () => string {
  const parts = text.split(/(<[^>]*>)/).map((part) => (part.startsWith("<") ? part : { words: plain(part) }));
  return () => {
    let out = "";
    for (const part of parts) out += typeof part === "string" ? part : escaped(part.words);
    return out;
  };
}

async function exchange(deck: Deck): Promise<Row[]> {
  const segments = segmentsOf(deck);
  const targetOf = ({ source }: Segment) => ({ pieces: source, state: "reviewed" as const });
  const text = writeXliff({ deck, to: "de", segments, targetOf }, "1.2");
  const [bareWrite, write] = await pair([
    bareWriter(text),
    () => writeXliff({ deck, to: "de", segments, targetOf }, "1.2"),
  ]);
  const [bareRead, read] = await pair([() => parsed(text), () => matchTargets(segments, readXliff(text, "deck.xlf"))]);
  const count = segments.length;
  return [
    row(
      `${count} segments of ${SLIDES} slides written as XLIFF / writing its elements and texts`,
      write / bareWrite,
      3,
    ),
    row(`the XLIFF of ${count} segments read and matched / SAX parse`, read / bareRead, 3),
  ];
}

async function memories(): Promise<Row[]> {
  const units = [...sentences(UNITS)].map(
    (words): MemoryUnit => ({
      from: "en",
      to: "de",
      source: [words],
      target: [words.toUpperCase()],
    }),
  );
  const text = writeTmx(units, { from: "en" });
  const [bare, read] = await pair([
    () => parsed(text),
    () => readTmx([text], "memory.tmx", { from: "en", to: "de" }, () => undefined),
  ]);
  return [row(`TMX of ${UNITS} units read / SAX parse, without the database`, read / bare, 5)];
}

/** Laying a deck out again in another language, each word once: nothing is kept between the runs. */
export async function layouts(deck: Deck): Promise<Row[]> {
  const inLanguage = (language: string, words: (segment: Segment) => string | undefined) =>
    translateDeck(deck, language, (segment) => {
      const said = words(segment);
      return { pieces: said === undefined ? pseudoTranslation(segment.source, language) : [said], state: "reviewed" };
    }).deck;
  const chinese = inLanguage("zh", ({ source }) => "潮汐沙丘与风暴站测水位".repeat(Math.ceil(lengthOf(source) / 24)));
  const lay = (one: Deck) => () => {
    // A deck that is new each time finds none of its texts laid out.
    const fresh = JSON.parse(JSON.stringify(one)) as Deck;
    const metadata = metadataOf(fresh);
    return fresh.slides.map((slide, nth) => layoutSlide(slide, { metadata, number: nth + 1, fonts }));
  };
  const [original, arabic, han] = await pair([lay(deck), lay(inLanguage("ar", () => undefined)), lay(chinese)]);
  return [
    row(`${SLIDES} slides laid out in Arabic letters / in English`, arabic / original, 1.5),
    row(`${SLIDES} slides laid out in Chinese / in English`, han / original, 1.5),
  ];
}

const lengthOf = (pieces: Segment["source"]) =>
  pieces.reduce((sum, piece) => sum + (typeof piece === "string" ? piece.length : 0), 0);

export const benchDeck = () => deckOf(SLIDES);
export async function translation(): Promise<Row[]> {
  const deck = deckOf(SLIDES);
  return [...(await exchange(deck)), ...(await memories()), ...(await layouts(deck))];
}
