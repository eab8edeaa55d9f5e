import { createHash } from "node:crypto";
import { createRequire } from "node:module";
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { sceneSvg } from "@unitext/core/draw";
import { readDeck, WRITERS } from "@unitext/core/formats";
import { layoutSlide } from "@unitext/core/layout";
import {
  type ChartElement,
  type Deck,
  emptyDeck,
  metadataOf,
  plainText,
  type Slide,
  type TableElement,
  textOf,
  must,
} from "@unitext/core/model";
import { Resvg } from "@resvg/resvg-js";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { SaxesParser } from "saxes";
import { svgPng } from "@unitext/node";
import { best, folder, freshFonts, inTurn, type Row, row } from "./core";
import { paragraphs } from "./material";

const sha256 = (bytes: Uint8Array) => createHash("sha256").update(bytes).digest("hex");
export const picture = new Uint8Array(readFileSync(join(process.cwd(), "demo/content/pictures/dune-profile.png")));

/** Two hundred slides: text on all, and a picture, a table and a chart on every fourth. */
export function mixedDeck(count = 200): Deck {
  const texts = paragraphs(count);
  const words = (nth: number) => must(texts[nth]).slice(0, 160);
  const slides = Array.from({ length: count }, (_, nth): Slide => {
    const place = { x: 520, y: 130, width: 380, height: 300 };
    const cell = (text: string) => ({ text: plainText(text) });
    const table: TableElement = {
      kind: "table",
      id: "t",
      slot: null,
      frame: place,
      header: 1,
      align: ["start", "end", "end"],
      rows: Array.from({ length: 6 }, (__, y) => [
        cell(y ? `Gauge ${y}` : "Name"),
        cell(y ? String(y * 1.5) : "First"),
        cell(y ? String(y * 2.25) : "Second"),
      ]),
    };
    const chart: ChartElement = {
      kind: "chart",
      id: "c",
      slot: null,
      frame: place,
      type: "column",
      categories: ["Jan", "Feb", "Mar", "Apr"],
      series: [
        { name: "North", values: [1, 3, 2, nth] },
        { name: "South", values: [2, 2, 4, 1] },
      ],
    };
    const more =
      nth % 4 === 1
        ? [{ kind: "picture" as const, id: "p", slot: null, frame: place, source: "dune.png", alt: "A dune" }]
        : nth % 4 === 2
          ? [table]
          : nth % 4 === 3
            ? [chart]
            : [];
    return {
      id: `s${nth}`,
      parent: null,
      arrangement: "points",
      hidden: false,
      notes: plainText(words(nth)),
      elements: [
        { kind: "text", id: "a", slot: "title", text: plainText(`Slide ${nth + 1}`) },
        {
          kind: "text",
          id: "b",
          slot: "body",
          ...(more.length ? { frame: { x: 62, y: 130, width: 430, height: 300 } } : {}),
          text: words(nth)
            .split(". ")
            .map((line) => ({ kind: "bullet", level: 0, runs: [{ text: line }] })),
        },
        ...more,
      ],
    };
  });
  return {
    ...emptyDeck("bench", "Bench"),
    assets: { "dune.png": { sha256: sha256(picture), mediaType: "image/png", width: 1600, height: 760 } },
    slides,
  };
}

/** The same slides as the npm package pptxgenjs writes them. */
export async function generated(deck: Deck): Promise<Uint8Array> {
  // biome-ignore lint/suspicious/noExplicitAny: the types of the package are those of a browser script.
  const Generator = createRequire(import.meta.url)("pptxgenjs") as new () => any;
  const file = new Generator();
  file.layout = "LAYOUT_WIDE";
  const data = `image/png;base64,${Buffer.from(picture).toString("base64")}`;
  for (const { elements, notes } of deck.slides) {
    const slide = file.addSlide();
    slide.addNotes(textOf(notes));
    for (const element of elements) {
      const place = { x: 7.2, y: 1.8, w: 5.3, h: 4.2 };
      if (element.kind === "text" && element.slot === "title")
        slide.addText(textOf(element.text), { x: 0.8, y: 0.4, w: 11, h: 0.8, fontSize: 36 });
      else if (element.kind === "text")
        slide.addText(
          element.text.map((paragraph) => ({
            text: paragraph.runs[0]?.text ?? "",
            options: { bullet: true, breakLine: true },
          })),
          { x: 0.8, y: 1.8, w: 6, h: 4.2, fontSize: 20 },
        );
      else if (element.kind === "picture") slide.addImage({ data, ...place });
      else if (element.kind === "table")
        slide.addTable(
          element.rows.map((one) => one.map((cell) => ({ text: cell ? textOf(cell.text) : "" }))),
          place,
        );
      else if (element.kind === "chart")
        slide.addChart(
          "bar",
          element.series.map(({ name, values }) => ({ name, labels: element.categories, values })),
          place,
        );
    }
  }
  // It stores its outputs unpacked unless asked; presentations that people have are always packed.
  return new Uint8Array(await file.write({ outputType: "STREAM", compression: true }));
}

/** A presentation with 300 MB of pictures that do not compress. */
export function largeFile(): Uint8Array {
  const blobs = new Map(
    Array.from({ length: 60 }, (_, nth) => {
      const bytes = new Uint8Array(5_000_000);
      bytes.set(picture.subarray(0, 64));
      let state = nth + 1;
      for (let at = 64; at < bytes.length; at++)
        bytes[at] = (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) >>> 24;
      return [sha256(bytes), bytes] as const;
    }),
  );
  const names = [...blobs.keys()];
  const slides = names.map(
    (sum): Slide => ({
      id: `s${sum.slice(0, 8)}`,
      parent: null,
      arrangement: "blank",
      hidden: false,
      notes: [],
      elements: [
        {
          kind: "picture",
          id: "p",
          slot: null,
          frame: { x: 80, y: 60, width: 800, height: 380 },
          source: `${sum}.png`,
          alt: "Noise",
        },
      ],
    }),
  );
  const deck: Deck = {
    ...emptyDeck("large", "Large"),
    assets: Object.fromEntries(
      names.map((sum) => [`${sum}.png`, { sha256: sum, mediaType: "image/png" as const, width: 1600, height: 760 }]),
    ),
    slides,
  };
  const file = WRITERS.pptx.write(deck, {
    fonts: freshFonts(),
    at: new Date(0),
    picture: (sum) => blobs.get(sum),
  }) as Uint8Array;
  // Without Unitext's tags, so that it is read as another program's, and stored.
  return zipSync(
    Object.fromEntries(
      Object.entries(unzipSync(file)).map(([path, part]) => [
        path,
        [/tags\//.test(path) ? strToU8(strFromU8(part).replace(/UNITEXT_/g, "OTHER_")) : part, { level: 0 as const }],
      ]),
    ),
  );
}

/**
 * Reads and writes files of 200 slides with pictures, tables and charts, against the minimum that any program needs,
 * and against other libraries.
 */
export async function convert(): Promise<Row[]> {
  const deck = mixedDeck();
  const fonts = freshFonts();
  const context = { fonts, at: new Date(0), picture: () => picture };
  let next = 0;
  const reading = () => ({ newId: () => `r${next++}`, sha256 });
  const rows: Row[] = [];
  const parse = (file: Uint8Array) => {
    for (const [name, part] of Object.entries(unzipSync(file)))
      if (/\.(xml|rels)$/.test(name)) new SaxesParser({ xmlns: false, position: false }).write(strFromU8(part)).close();
  };
  const zipped = (file: Uint8Array) => {
    const parts = unzipSync(file);
    return () =>
      zipSync(
        Object.fromEntries(
          Object.entries(parts).map(([name, part]) => [
            name,
            [part, { level: /\.(png|jpe?g)$/.test(name) ? (0 as const) : (6 as const) }],
          ]),
        ),
      );
  };
  const others = await generated(deck);
  for (const format of ["pptx", "odp"] as const) {
    const file = WRITERS[format].write(deck, context) as Uint8Array;
    // The processes that read files in the product are warm; so are both sides here.
    const both = [() => readDeck(file, `bench.${format}`, reading()), () => parse(file)];
    await inTurn(both, 12);
    const [read = 0, parsed = 1] = await inTurn(both, 20);
    rows.push(
      row(
        `read a .${format} of 200 slides with pictures, tables and charts / bare unzip and SAX parse`,
        read / parsed,
        3,
      ),
    );
    const writing = [() => WRITERS[format].write(deck, context), zipped(file)];
    await inTurn(writing, 12);
    const [write = 0, packed = 1] = await inTurn(writing, 20);
    rows.push(row(`write it / bare zip of the same parts`, write / packed, 3));
    if (format === "odp") continue;
    const { parseOffice } = createRequire(import.meta.url)("officeparser") as {
      parseOffice(file: Buffer): Promise<unknown>;
    };
    await parseOffice(Buffer.from(file));
    rows.push(
      row(
        "read it whole / officeparser taking out its text",
        read / (await best(() => parseOffice(Buffer.from(file)), 3)),
        1,
      ),
    );
    await generated(deck);
    rows.push(row("write it / pptxgenjs writing an equal one", write / (await best(() => generated(deck), 3)), 1));
  }
  const foreign = [() => readDeck(others, "others.pptx", reading()), () => parse(others)];
  await inTurn(foreign, 12);
  const [taken = 0, bare = 1] = await inTurn(foreign, 20);
  rows.push(row("read a .pptx of 200 slides of another program / bare unzip and SAX parse", taken / bare, 3));
  const brought = readDeck(others, "others.pptx", reading());
  const kept = { ...context, picture: (sum: string) => brought.blobs.get(sum) };
  const [back = 0, again = 1] = await inTurn([() => WRITERS.pptx.write(brought.deck, kept), zipped(others)]);
  rows.push(row("write it back untouched / bare zip of the same parts", back / again, 3));
  const scene = layoutSlide(must(deck.slides[2]), { metadata: metadataOf(deck), number: 3, fonts });
  const svg = sceneSvg(scene, { outlines: fonts, picture: () => undefined });
  const drawn = () =>
    new Resvg(svg, { fitTo: { mode: "width", value: 1280 }, font: { loadSystemFonts: false } }).render().asPng();
  const paint = svgPng(folder);
  const png = () =>
    paint(
      sceneSvg(layoutSlide(must(deck.slides[2]), { metadata: metadataOf(deck), number: 3, fonts }), {
        outlines: fonts,
        picture: () => undefined,
      }),
      1280,
    );
  drawn();
  png();
  const [own = 0, alone = 1] = await inTurn([png, drawn]);
  rows.push(row("PNG of a slide, layout included / bare resvg of its SVG", own / alone, 3));
  return rows;
}
