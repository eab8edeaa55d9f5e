import {
  type Deck,
  type Element,
  emptyDeck,
  filesOf,
  type MediaElement,
  newSlide,
  plainText,
  must,
} from "@unitext/core/model";

import { filesBench, sha256 } from "@unitext/core/testing/files";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { PNG } from "pngjs";
import { type WritableFormat, WRITERS } from "./index";

/** A picture of its own for each use, so that none is there for the sake of another. */
const USES = ["background", "fill", "gradient", "cell", "picture", "poster", "sign", "master", "behind"] as const;
const picture = (nth: number) => new Uint8Array(PNG.sync.write(new PNG({ width: 20 + nth, height: 20 })));
const pictures = Object.fromEntries(USES.map((use, nth) => [use, picture(nth)])) as Record<
  (typeof USES)[number],
  Uint8Array
>;
const film = strToU8("\0\0\0\x18ftypmp42 made up");
const bench = filesBench(...Object.values(pictures), film);
const signName = `sign-${sha256(pictures.sign).slice(0, 24)}.png`;
const nameOf = (use: (typeof USES)[number]) => (use === "sign" ? signName : `${use}.png`);
const assets: Deck["assets"] = {
  ...Object.fromEntries(
    USES.map((use, nth) => [
      nameOf(use),
      { sha256: sha256(pictures[use]), mediaType: "image/png" as const, width: 20 + nth, height: 20 },
    ]),
  ),
  "film.mp4": { sha256: sha256(film), mediaType: "video/mp4", width: 1, height: 1 },
};
const place = (x: number) => ({ x, y: 100, width: 80, height: 60 });
const fillOf = (use: (typeof USES)[number]) => ({ kind: "picture" as const, source: nameOf(use) });
const deck: Deck = {
  ...emptyDeck("d", "Pictures"),
  assets,
  masters: {
    drawn: {
      name: "Drawn",
      background: { picture: nameOf("behind") },
      elements: [{ kind: "picture", id: "m1", slot: null, frame: place(800), source: nameOf("master"), alt: "" }],
    },
  },
  slides: [
    {
      ...newSlide("one", "blank"),
      background: { picture: nameOf("background") },
      elements: [
        {
          kind: "shape",
          id: "s",
          slot: null,
          frame: place(20),
          geometry: { preset: "ellipse" },
          fill: fillOf("fill"),
          text: [],
        },
        {
          kind: "text",
          id: "t",
          slot: null,
          frame: place(120),
          fill: fillOf("gradient"),
          box: {},
          text: plainText("filled"),
        },
        {
          kind: "table",
          id: "c",
          slot: null,
          frame: place(220),
          rows: [[{ text: plainText("a"), fill: fillOf("cell") }]],
          header: 0,
          align: ["start"],
          widths: [80],
          heights: [20],
        },
        { kind: "picture", id: "p", slot: null, frame: place(320), source: nameOf("picture"), alt: "A picture" },
        {
          kind: "media",
          id: "f",
          slot: null,
          frame: place(420),
          source: "film.mp4",
          type: "video",
          poster: nameOf("poster"),
          alt: "A film",
        },
        {
          kind: "text",
          id: "l",
          slot: null,
          frame: place(520),
          box: {},
          text: [
            { kind: "bullet", level: 0, properties: { bullet: { picture: signName } }, runs: [{ text: "signed" }] },
          ],
        },
      ] as Element[],
    },
    { ...newSlide("two", "blank"), master: "drawn" },
  ],
};

describe("a picture that is used once", () => {
  it.each(["pptx", "odp", "json"] as const)(
    "is there when a .%s is read again, wherever it stands",
    (format: WritableFormat) => {
      const bytes = WRITERS[format].write(deck, bench.context) as Uint8Array;
      const read = bench.read(bytes, `deck.${format}`).deck;
      const shown = read.slides.flatMap((slide) => filesOf(slide, read));
      // Every name leads to a file, and every file is shown.
      expect(shown.filter((name) => !read.assets[name])).toEqual([]);
      const sums = new Set(shown.map((name) => read.assets[name]?.sha256));
      expect(USES.filter((use) => !sums.has(sha256(pictures[use])))).toEqual([]);
      expect(JSON.stringify(read.slides[0]?.elements)).toContain('"kind":"picture","source"');
    },
  );
});

describe("a film without a picture", () => {
  const { poster: _, ...bare } = must(deck.slides[0]).elements.find(({ kind }) => kind === "media") as MediaElement;
  const given: Deck = { ...deck, slides: [{ ...newSlide("one", "blank"), elements: [bare] }] };
  const films = ({ slides }: Deck) =>
    slides.flatMap(({ elements }) => elements.flatMap((element) => (element.kind === "media" ? [element] : [])));
  it.each(["pptx", "odp"] as const)("is a film in a .%s, for another program too", (format) => {
    const bytes = WRITERS[format].write(given, bench.context) as Uint8Array;
    expect(films(bench.read(bytes, `deck.${format}`).deck)).toEqual([
      expect.objectContaining({ source: "film.mp4", alt: "A film" }),
    ]);
    expect(films(bench.read(bytes, `deck.${format}`).deck)[0]).not.toHaveProperty("poster");
    const parts = unzipSync(bytes);
    const unsaid = zipSync(
      Object.fromEntries(
        Object.entries(parts).map(([path, part]) => [
          path,
          /tags\/|^meta\.xml$/.test(path) ? strToU8(strFromU8(part).replace(/UNITEXT_|unitext:/g, "other")) : part,
        ]),
      ),
    );
    const { deck: other, blobs } = bench.read(unsaid, `deck.${format}`);
    expect(films(other).map(({ source }) => blobs.get(other.assets[source]?.sha256 ?? ""))).toEqual([film]);
    // Where a picture must stand, it is one that can be drawn (PNG 3rd edition, 5.2: its signature).
    const shown = films(other).flatMap(({ poster }) =>
      poster === undefined ? [] : [blobs.get(other.assets[poster]?.sha256 ?? "")],
    );
    expect(shown.map((picture) => PNG.sync.read(Buffer.from(must(picture))).width)).toEqual(
      format === "pptx" ? [16] : [],
    );
  });
});

describe("what another program does to a slide that Unitext wrote", () => {
  const edited = (format: "pptx" | "odp", path: RegExp, edit: (text: string) => string, given: Deck = deck): Deck => {
    const parts = unzipSync(WRITERS[format].write(given, bench.context) as Uint8Array);
    const at = must(Object.keys(parts).find((name) => path.test(name)));
    const before = strFromU8(must(parts[at]));
    const after = edit(before);
    expect(after).not.toBe(before);
    return bench.read(zipSync({ ...parts, [at]: strToU8(after) }), `deck.${format}`).deck;
  };
  const worn: Deck = {
    ...deck,
    slides: [
      {
        ...must(deck.slides[0]),
        background: { colour: "#0f5c63" },
        transition: { kind: "fade", seconds: 0.8 },
        delay: 7.5,
      },
    ],
  };
  const wears = ({ slides: [slide] }: Deck) => ({
    background: slide?.background,
    transition: slide?.transition,
    delay: slide?.delay,
  });

  it.each(["pptx", "odp"] as const)("nothing: in a .%s all that the format says only nearly is as it was", (format) => {
    expect(wears(bench.read(WRITERS[format].write(worn, bench.context) as Uint8Array, `deck.${format}`).deck)).toEqual(
      wears(worn),
    );
  });
  it("another background of a .pptx holds, and the transition that it left stays as it was", () => {
    const read = edited("pptx", /slides\/slide1\.xml$/, (text) => text.replace('val="0F5C63"', 'val="FFEE88"'), worn);
    expect(wears(read)).toEqual({
      background: { colour: "#ffee88" },
      transition: { kind: "fade", seconds: 0.8 },
      delay: 7.5,
    });
    expect(read.slides[0]?.elements).toHaveLength(6);
  });
  it("another background of an .odp holds", () => {
    const read = edited(
      "odp",
      /^content\.xml$/,
      (text) => text.replace('draw:fill-color="#0f5c63"', 'draw:fill-color="#ffee88"'),
      worn,
    );
    expect(wears(read)).toEqual({
      background: { colour: "#ffee88" },
      transition: { kind: "fade", seconds: 0.8 },
      delay: 7.5,
    });
  });
  it("a transition that was taken off or put on holds", () => {
    expect(
      wears(
        edited("pptx", /slides\/slide1\.xml$/, (text) => text.replace(/<p:transition.*?<\/p:transition>/, ""), worn),
      ),
    ).toEqual({ background: { colour: "#0f5c63" }, transition: undefined, delay: undefined });
    expect(
      wears(
        edited("pptx", /slides\/slide1\.xml$/, (text) =>
          text.replace("</p:clrMapOvr>", '</p:clrMapOvr><p:transition spd="slow"><p:push/></p:transition>'),
        ),
      ),
    ).toMatchObject({ background: { picture: "background.png" }, transition: { kind: "push", seconds: 1.5 } });
  });
  it("a background that was taken off is gone", () => {
    const read = edited(
      "odp",
      /^content\.xml$/,
      (text) => text.replace(/draw:fill="solid" draw:fill-color="#0f5c63"/, 'draw:fill="none"'),
      worn,
    );
    expect(read.slides[0]?.background).toBeUndefined();
  });
});
