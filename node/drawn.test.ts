import { createHash } from "node:crypto";
import { readdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { loadFormulas } from "@unitext/core/figures";
import { readDeck, WRITERS } from "@unitext/core/formats";
import { type Deck, must } from "@unitext/core/model";
import { everything, FILES, idSource } from "@unitext/core/testing";
import { shippedFonts } from "@unitext/core/testing/fonts";
import { strToU8 } from "fflate";
import { PNG } from "pngjs";
import { readPdf, slidePng, svgPng } from "./index";

// Two drawings of one scene by programs that know nothing of each other: the PDF as pdf.js paints it, and the SVG as resvg does.
const sha256 = (bytes: Uint8Array) => createHash("sha256").update(bytes).digest("hex");
const fonts = shippedFonts();
const png = svgPng(join(process.cwd(), "dist/fonts"));
const WIDTH = 1600;
const CELL = 16;

/** A picture as greys and colours in coarse cells: letters and edges are smoothed otherwise by every program, what is drawn where is not. */
function cells(bytes: Uint8Array): { columns: number; values: number[] } {
  const { width, height, data } = PNG.sync.read(Buffer.from(bytes));
  const columns = Math.floor(width / CELL);
  const values: number[] = [];
  for (let y = 0; y + CELL <= height; y += CELL) {
    for (let x = 0; x + CELL <= columns * CELL; x += CELL) {
      const sum = [0, 0, 0];
      for (let dy = 0; dy < CELL; dy++)
        for (let dx = 0; dx < CELL; dx++)
          for (let channel = 0; channel < 3; channel++)
            sum[channel] = must(sum[channel]) + must(data[((y + dy) * width + x + dx) * 4 + channel]);
      values.push(...sum.map((value) => value / (CELL * CELL)));
    }
  }
  return { columns, values };
}

/** The share of cells that differ by more than a tenth of the whole, and where the first of them is. */
function differing(one: Uint8Array, other: Uint8Array): { share: number; first: string } {
  const [a, b] = [cells(one), cells(other)];
  const count = Math.min(a.values.length, b.values.length) / 3;
  const wrong: number[] = [];
  for (let cell = 0; cell < count; cell++)
    if (
      [0, 1, 2].some(
        (channel) => Math.abs(must(a.values[cell * 3 + channel]) - must(b.values[cell * 3 + channel])) > 25,
      )
    )
      wrong.push(cell);
  const [first = 0] = wrong;
  return {
    share: wrong.length / count,
    first: wrong.length ? `${(first % a.columns) * CELL}, ${Math.floor(first / a.columns) * CELL}` : "",
  };
}

async function compare(
  deck: Deck,
  blobs: ReadonlyMap<string, Uint8Array>,
): Promise<{ slide: number; share: number; first: string }[]> {
  const shown: Deck = { ...deck, slides: deck.slides.map((slide) => ({ ...slide, hidden: false })) };
  const picture = (sum: string) => blobs.get(sum);
  const bytes = await WRITERS.pdf.write(shown, { fonts, picture, at: new Date("2026-03-01T09:00:00Z"), png });
  const read = await readPdf({ bytes, name: "deck.pdf" });
  expect(read.deck.slides).toHaveLength(shown.slides.length);
  return shown.slides.map((_, nth) => {
    const [element] = read.deck.slides[nth]?.elements ?? [];
    const page =
      element?.kind === "picture" ? read.blobs.get(read.deck.assets[element.source]?.sha256 ?? "") : undefined;
    const drawn = slidePng(shown, nth + 1, WIDTH, fonts, png, picture);
    if (process.env.UNITEXT_DRAWN)
      for (const [name, one] of [
        ["pdf", page],
        ["png", drawn],
      ] as const)
        if (one) writeFileSync(join(process.env.UNITEXT_DRAWN, `${deck.id}-${nth + 1}-${name}.png`), one);
    return { slide: nth + 1, ...differing(must(page), drawn) };
  });
}

beforeAll(loadFormulas);

describe("a page of a PDF and a picture of its slide show the same", () => {
  const photo = (() => {
    const image = new PNG({ width: 160, height: 120 });
    for (let at = 0; at < image.data.length; at += 4)
      image.data.set([(at / 4) % 160, 92, Math.floor(at / 640) * 2, 255], at);
    return new Uint8Array(PNG.sync.write(image));
  })();
  const lines = strToU8(
    '<svg xmlns="http://www.w3.org/2000/svg" width="80" height="80"><rect width="80" height="80" fill="#b7791f"/><circle cx="40" cy="40" r="30" fill="#0f5c63"/></svg>',
  );

  it("of a deck that has every feature", async () => {
    const files = {
      [FILES.photo]: { sha256: sha256(photo), mediaType: "image/png" as const, width: 160, height: 120 },
      [FILES.lines]: { sha256: sha256(lines), mediaType: "image/svg+xml" as const, width: 80, height: 80 },
    };
    const found = await compare(everything(files), new Map([photo, lines].map((bytes) => [sha256(bytes), bytes])));
    expect(found.filter(({ share }) => share > 0.01)).toEqual([]);
  });

  const content = join(process.cwd(), "demo/content");
  it.each(readdirSync(content).filter((name) => name.endsWith(".pptx")))("of the demo's %s", async (name) => {
    const { deck, blobs } = readDeck(readFileSync(join(content, name)), name, { newId: idSource(name), sha256 });
    const found = await compare(deck, blobs);
    expect(found.filter(({ share }) => share > 0.01)).toEqual([]);
  });
});

describe("a picture in SVG that has pictures in it", () => {
  const red = new PNG({ width: 10, height: 10 });
  for (let at = 0; at < red.data.length; at += 4) red.data.set([183, 121, 31, 255], at);
  const dots = `data:image/png;base64,${Buffer.from(PNG.sync.write(red)).toString("base64")}`;
  const within = (image: string) =>
    `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="100" height="100"><rect width="100" height="50" fill="#0f5c63"/>${image}</svg>`;
  /** The colours in the middle of its upper and its lower half, where it is shown on a page. */
  const shown = (svg: string) => {
    const page = png(
      `<svg xmlns="http://www.w3.org/2000/svg" width="200" height="200"><image width="200" height="200" href="data:image/svg+xml;base64,${Buffer.from(svg).toString("base64")}"/></svg>`,
      200,
    );
    const { data, width } = PNG.sync.read(Buffer.from(page));
    return [50, 150].map((y) => [...data.subarray((y * width + 100) * 4, (y * width + 100) * 4 + 4)].join());
  };
  const [petrol, ochre, nothing] = ["15,92,99,255", "183,121,31,255", "0,0,0,0"];
  // SVG Integration, 3 (secure animated and static mode): what is inside of it is shown, nothing is fetched.
  it.each([
    [
      "inside of it",
      `<image y="50" width="100" height="50" preserveAspectRatio="none" href="${dots}"/>`,
      [petrol, ochre],
    ],
    [
      "by the older attribute",
      `<image y="50" width="100" height="50" preserveAspectRatio="none" xlink:href="${dots}"/>`,
      [petrol, ochre],
    ],
    [
      "used twice",
      `<defs><image id="i" width="100" height="25" preserveAspectRatio="none" href="${dots}"/></defs><use href="#i" y="50"/><use href="#i" y="75"/>`,
      [petrol, ochre],
    ],
    [
      "beside it on the disk",
      `<image y="50" width="100" height="50" href="${join(process.cwd(), "docs/screenshots/desk.png")}"/>`,
      [petrol, nothing],
    ],
    [
      "beside it, by an address",
      `<image y="50" width="100" height="50" href="file://${join(process.cwd(), "docs/screenshots/desk.png")}"/>`,
      [petrol, nothing],
    ],
    [
      "elsewhere",
      '<image y="50" width="100" height="50" xlink:href = \'https://example.org/a.png\'/>',
      [petrol, nothing],
    ],
  ])("is drawn with what is %s", (_, image, colours) => {
    expect(shown(within(image))).toEqual(colours);
    expect(shown(within(image))).toEqual(colours);
  });
});

it("words in an SVG picture are drawn, in a shipped face where the named one is not there", () => {
  const words =
    '<svg xmlns="http://www.w3.org/2000/svg" width="200" height="100"><text x="10" y="70" font-size="60" font-family="No Such Face">Dune</text></svg>';
  const page = `<svg xmlns="http://www.w3.org/2000/svg" width="200" height="100"><image width="200" height="100" href="data:image/svg+xml;base64,${Buffer.from(words).toString("base64")}"/></svg>`;
  const { data } = PNG.sync.read(Buffer.from(png(page, 200)));
  const dark = Array.from({ length: data.length / 4 }, (_, at) => data[at * 4 + 3] ?? 0).filter((alpha) => alpha > 200);
  expect(dark.length).toBeGreaterThan(500);
});
