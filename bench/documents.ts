import { readSource } from "@unitext/core/formats";
import { generate, type GeneratedSlide, loadGrammar, review, takeReview } from "@unitext/core/generate";
import { facesNeeded, type FontSet, layoutSlide } from "@unitext/core/layout";
import { type Deck, emptyDeck, metadataOf, paragraphText, must } from "@unitext/core/model";
import { type Block, readText } from "@unitext/core/text";
import { Document, HeadingLevel, ImageRun, Packer, Paragraph, Table, TableCell, TableRow } from "docx";
import { strFromU8, unzipSync } from "fflate";
import { Blob, Face, Font } from "harfbuzzjs";
import { PNG } from "pngjs";
import { SaxesParser } from "saxes";
import { bytes, freshFonts, type Row, row, shapeBare } from "./core";
import { seeded, words } from "./material";

/**
 * A handbook of about 160 pages: 1,600 paragraphs, 40 tables, 60 pictures. With `edited`, every twentieth paragraph
 * differs.
 */
export async function longDocument(seed = 31, edited = false): Promise<Uint8Array> {
  const random = seeded(seed);
  const all = words(1600 * 42 + 4000, random);
  let at = 0;
  const take = (count: number) => all.slice(at, (at += count)).join(" ");
  const sentence = (text: string) => `${text.charAt(0).toUpperCase()}${text.slice(1)}.`;
  const children: (Paragraph | Table)[] = [];
  for (let nth = 0; nth < 1600; nth++) {
    if (nth % 100 === 0) children.push(new Paragraph({ text: sentence(take(4)), heading: HeadingLevel.HEADING_1 }));
    if (nth % 8 === 0) children.push(new Paragraph({ text: sentence(take(4)), heading: HeadingLevel.HEADING_2 }));
    children.push(
      new Paragraph(
        `${sentence(take(14))} ${sentence(take(14))} ${sentence(take(13))}${edited && nth % 20 === 3 ? ` This was put in as number ${nth} of the new edition.` : ""}`,
      ),
    );
    if (nth % 40 === 20)
      children.push(
        new Table({
          rows: Array.from(
            { length: 5 },
            (_, y) =>
              new TableRow({
                tableHeader: y === 0,
                children: Array.from(
                  { length: 4 },
                  (_, x) =>
                    new TableCell({
                      children: [new Paragraph(y && x ? String(Math.round(random() * 100) / 10) : take(1))],
                    }),
                ),
              }),
          ),
        }),
      );
    if (nth % 27 === 13) {
      const data = PNG.sync.write(new PNG({ width: 400 + (nth % 60), height: 300 }));
      children.push(
        new Paragraph({
          children: [
            new ImageRun({
              type: "png",
              data,
              transformation: { width: 400, height: 300 },
              altText: { name: "p", title: "p", description: `Picture ${nth}` },
            }),
          ],
        }),
      );
    }
  }
  return new Uint8Array(
    await Packer.toBuffer(new Document({ title: "Long handbook", creator: "Station", sections: [{ children }] })),
  );
}

/** The minimum that any program needs: unzip, a SAX parse of every part, and shaping of the words. */
function floor(document: Uint8Array, texts: readonly string[], font: Font): void {
  for (const [name, part] of Object.entries(unzipSync(document)))
    if (/\.(xml|rels)$/.test(name)) new SaxesParser({ xmlns: false, position: false }).write(strFromU8(part)).close();
  shapeBare(texts, font);
}

const textsOf = (blocks: readonly Block[]) =>
  blocks.flatMap((block) =>
    "text" in block
      ? block.text.map(paragraphText)
      : block.kind === "figure" && block.figure.kind === "table"
        ? block.figure.rows.flatMap((cells) => cells.flatMap((cell) => cell?.text.map(paragraphText) ?? []))
        : [],
  );

/** Reads a document, generates its slides and lays all of them out. */
export function wholeDocument(
  document: Uint8Array,
  fonts: FontSet,
): { made: GeneratedSlide[]; text: string; deck: Deck } {
  const source = readSource(document, "bench.docx", "docx");
  const empty = {
    ...metadataOf(emptyDeck("d", "Bench")),
    language: "en",
    manuscript: { document: "doc", rule: source.rule },
  };
  let next = 0;
  const made = [
    ...generate(source.manuscript, source.rule, { newId: () => `i${next++}`, metadata: empty, fonts, document: "doc" }),
  ];
  made.forEach(({ slide }, nth) => {
    layoutSlide(slide, { metadata: empty, number: nth + 1, fonts });
  });
  return { made, text: source.text(), deck: { ...empty, slides: made.map(({ slide }) => slide) } };
}

const timed = (act: () => unknown): number => {
  const start = performance.now();
  act();
  return performance.now() - start;
};
const median = (list: number[]) => must(list.sort((a, b) => a - b)[Math.floor(list.length / 2)]);

/** Reads a .docx of 160 pages to laid-out slides, against the minimum, and again with 5 % of its paragraphs changed. */
export async function documents(): Promise<Row[]> {
  await loadGrammar();
  const face = new Face(new Blob(bytes("atkinson-hyperlegible-next-latin-400-normal")));
  const font = new Font(face);
  const floors: number[] = [];
  const firsts: number[] = [];
  const agains: number[] = [];
  for (let seed = 31; seed < 36; seed++) {
    // A new document each time: nothing of it was read or shaped before. The two sides take turns.
    const document = await longDocument(seed);
    const edited = await longDocument(seed, true);
    const fonts = freshFonts();
    for (const id of facesNeeded([], metadataOf(emptyDeck("d", "")))) fonts.face(id);
    const texts = textsOf([...readSource(document, "bench.docx", "docx").manuscript.blocks]);
    floors.push(timed(() => floor(document, texts, font)));
    let first: ReturnType<typeof wholeDocument> | undefined;
    firsts.push(timed(() => (first = wholeDocument(document, fonts))));
    const { text, deck } = must(first);
    const rule = deck.manuscript?.rule;
    if (!rule) throw new Error("no rule");
    const make = (of: string, prefix: string) => {
      let next = 0;
      return [
        ...generate(readText(of), rule, {
          newId: () => `${prefix}${next++}`,
          metadata: metadataOf(deck),
          fonts,
          document: "doc",
        }),
      ];
    };
    // The page has read the text that it shows before a newer document arrives.
    const base = make(text, "b");
    agains.push(
      timed(() => {
        const source = readSource(edited, "bench.docx", "docx");
        for (const _ of source.manuscript.blocks) {
          // Read to its end: then the text is complete.
        }
        const now = make(source.text(), "n");
        const found = review(deck, base, now);
        if (found.counts.changed < 40) throw new Error("too little was found");
        takeReview(deck, base, now, new Map());
        now.forEach(({ slide }, nth) => {
          if (found.items.some(({ theirs, state }) => theirs === slide && state !== "same"))
            layoutSlide(slide, { metadata: metadataOf(deck), number: nth + 1, fonts });
        });
      }),
    );
  }
  return [
    row(
      "a .docx of 160 pages read, generated, fitted, laid out / bare unzip, SAX parse and shaping",
      median(firsts.map((time, at) => time / must(floors[at]))),
      4,
    ),
    row(
      "the same again with 5 % changed: read, generated, compared, taken / the first run",
      median(agains.map((time, at) => time / must(firsts[at]))),
      0.25,
    ),
  ];
}
