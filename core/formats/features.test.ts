import { createHash } from "node:crypto";
import { loadFormulas } from "@unitext/core/figures";
import { type Deck, type Slide, textOf, must } from "@unitext/core/model";
import { tally } from "@unitext/core/tally";
import { everything, FILES, idSource } from "@unitext/core/testing";
import { shippedFonts } from "@unitext/core/testing/fonts";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { PNG } from "pngjs";
import { FEATURES, type FeatureName, readDeck, TABLE, WRITERS, writeReport } from "./index";

const sha256 = (bytes: Uint8Array) => createHash("sha256").update(bytes).digest("hex");
const photo = new Uint8Array(PNG.sync.write(new PNG({ width: 400, height: 300 })));
// The smallest picture of the kind (GIF89a, appendix A; the bytes from memory).
const moving = Uint8Array.from(Buffer.from("R0lGODlhAQABAIAAAAAAAP///yH5BAEAAAAALAAAAAABAAEAAAIBRAA7", "base64"));
const lines = strToU8(
  '<svg xmlns="http://www.w3.org/2000/svg" width="40" height="30"><path d="M0 30L20 0L40 30Z" fill="#0f5c63"/></svg>',
);
const film = strToU8("\0\0\0\x18ftypmp42 made up");
const blobs = new Map([photo, moving, lines, film].map((bytes) => [sha256(bytes), bytes]));
const deck = everything({
  [FILES.photo]: { sha256: sha256(photo), mediaType: "image/png", width: 400, height: 300 },
  [FILES.moving]: { sha256: sha256(moving), mediaType: "image/gif", width: 1, height: 1 },
  [FILES.lines]: { sha256: sha256(lines), mediaType: "image/svg+xml", width: 40, height: 30 },
  [FILES.film]: { sha256: sha256(film), mediaType: "video/mp4", width: 1, height: 1 },
});
const context = {
  fonts: shippedFonts(),
  at: new Date("2026-03-01T09:00:00Z"),
  picture: (sum: string) => blobs.get(sum),
  png: () => photo,
};
const reading = () => ({
  newId: idSource("r"),
  sha256,
  picture: (name: string) => blobs.get(deck.assets[name]?.sha256 ?? ""),
});

/** The file as a program reads it that does not know what Unitext keeps in it. */
function asAnother(bytes: Uint8Array): Uint8Array {
  const parts = unzipSync(bytes);
  return zipSync(
    Object.fromEntries(
      Object.entries(parts).map(([path, part]) => [
        path,
        /tags\/|^meta\.xml$/.test(path)
          ? strToU8(
              strFromU8(part)
                .replace(/UNITEXT_/g, "OTHER_")
                .replace(/unitext:/g, "other:"),
            )
          : part,
      ]),
    ),
  );
}

/** How often each feature is found, slide by slide. */
function found(of: Deck): Record<FeatureName, number[]> {
  return Object.fromEntries(
    (Object.keys(FEATURES) as FeatureName[]).map((name) => [
      name,
      of.slides.map((slide: Slide) => FEATURES[name](slide, of).length),
    ]),
  ) as Record<FeatureName, number[]>;
}
const sum = (counts: readonly number[]) => counts.reduce((total, count) => total + count, 0);

beforeAll(loadFormulas);

describe("the table of features", () => {
  const before = found(deck);

  it("is tried with a deck that has every feature", () => {
    expect((Object.keys(FEATURES) as FeatureName[]).filter((name) => sum(before[name]) === 0)).toEqual([]);
  });

  it.each(["pptx", "odp", "md", "json"] as const)(
    "says of .%s what is found there when it is read again, by Unitext and by another program",
    async (format) => {
      const bytes = await WRITERS[format].write(deck, context);
      const again = found(readDeck(bytes, `deck.${format}`, reading()).deck);
      const other =
        format === "md" || format === "json"
          ? again
          : found(readDeck(asAnother(bytes), `deck.${format}`, reading()).deck);
      const wrong = (Object.keys(FEATURES) as FeatureName[]).flatMap((name) => {
        const judge = TABLE[format][name];
        const on = deck.slides.flatMap((slide, nth) =>
          before[name][nth] ? [{ nth, verdict: typeof judge === "function" ? judge(slide, deck) : judge }] : [],
        );
        const count = (counts: number[]) => sum(on.map(({ nth }) => counts[nth] ?? 0));
        const all = sum(before[name]);
        const seen = { unitext: count(again[name]), others: count(other[name]), all };
        return on.slice(0, 1).flatMap(({ verdict }): object[] => {
          if (verdict === "kept") return seen.unitext === all && seen.others >= all ? [] : [{ name, verdict, seen }];
          if ("why" in verdict) return seen.unitext === 0 ? [] : [{ name, verdict, seen }];
          const givenBack = /Unitext/.test(verdict.how);
          return (givenBack ? seen.unitext === all : true) && Math.min(seen.others, seen.unitext) < all
            ? []
            : [{ name, verdict, seen }];
        });
      });
      expect(wrong).toEqual([]);
    },
  );

  it.each(["pptx", "odp"] as const)(
    "keeps footer and number of a slide what they are in .%s, for another program too, and a number counts on",
    async (format) => {
      const regions = [
        { region: "footer" as const, text: "Marram Bay", frame: { x: 56, y: 504, width: 500, height: 26 } },
        { region: "number" as const, text: "‹#›", frame: { x: 850, y: 504, width: 54, height: 26 } },
      ];
      const given: Deck = { ...deck, slides: deck.slides.map((slide) => ({ ...slide, regions })) };
      const bytes = await WRITERS[format].write(given, context);
      for (const file of [bytes, asAnother(bytes)]) {
        const read = readDeck(file, `deck.${format}`, reading()).deck;
        for (const slide of read.slides) {
          expect((slide.regions ?? []).filter(({ region }) => region === "number")).toMatchObject([
            { text: "‹#›", frame: regions[1]?.frame },
          ]);
          // An .odp draws the words of a footer on the slide itself, as the table says.
          if (format === "pptx")
            expect(
              slide.elements.filter(
                (element) => element.kind === "text" && textOf(element.text).includes("Marram Bay"),
              ),
            ).toEqual([]);
        }
      }
      if (format === "pptx") {
        // ECMA-376-1, 19.7.10 (placeholder types) and 21.1.2.2.4 (fields of text).
        const first = strFromU8(must(unzipSync(bytes)["ppt/slides/slide1.xml"]));
        expect(first.match(/<p:ph type="(ftr|sldNum)"/g)).toEqual(['<p:ph type="ftr"', '<p:ph type="sldNum"']);
        expect(first).toMatch(/<a:fld id="[^"]*" type="slidenum">(?:<a:rPr[^>]*\/>|<a:rPr.*?<\/a:rPr>)<a:t>1<\/a:t>/);
      }
    },
  );

  // OpenDocument 1.3, 9.10 and 9.11: footers are placed on the master, and each page has their words.
  it("keeps on the master of an .odp the footers that its slides have in the same place, each with its own words", async () => {
    const regions = (words: string) => [
      { region: "footer" as const, text: words, frame: { x: 56, y: 504, width: 500, height: 26 } },
      { region: "number" as const, text: "‹#›", frame: { x: 850, y: 504, width: 54, height: 26 } },
      { region: "date" as const, text: "October", frame: { x: 600, y: 504, width: 100, height: 26 } },
    ];
    const [opening, ...others] = deck.slides as [Slide, ...Slide[]];
    const on = (id: string, words: string, more: Partial<Slide> = {}): Slide => ({
      ...opening,
      id,
      master: "strip",
      regions: regions(words),
      ...more,
    });
    const elsewhere = regions("Elsewhere").map((region) => ({ ...region, frame: { ...region.frame, y: 20 } }));
    const given: Deck = {
      ...deck,
      slides: [
        on("first", "Quay"),
        on("second", "Dune"),
        on("third", "", { regions: elsewhere }),
        on("fourth", "", { regions: regions("").slice(1, 2) }),
        ...others.filter(({ id }) => id === "code"),
      ],
    };
    const bytes = await WRITERS.odp.write(given, context);
    const content = strFromU8(must(unzipSync(bytes)["content.xml"]));
    const pages = content.split("<draw:page ").slice(1);
    expect(
      [...content.matchAll(/<presentation:footer-decl presentation:name="[^"]*">([^<]*)</g)].map(([, words]) => words),
    ).toEqual(expect.arrayContaining(["Quay", "Dune"]));
    expect(pages[0]).not.toContain(">Quay<");
    expect(
      writeReport(given, "odp")
        .adapted.filter(({ what }) => what.endsWith("where its file puts it"))
        .map(({ slide }) => slide),
    ).toEqual([3, 3, 3]);
    const said = (of: Deck) =>
      of.slides
        .slice(0, 4)
        .map(({ regions: found = [] }) =>
          found.map(({ region, text, frame }) => `${region} ${text} ${frame.y}`).sort(),
        );
    const wanted = [
      ["date October 504", "footer Quay 504", "number ‹#› 504"],
      ["date October 504", "footer Dune 504", "number ‹#› 504"],
      ["date October 20", "footer Elsewhere 20", "number ‹#› 20"],
      ["number ‹#› 504"],
    ];
    expect(said(readDeck(bytes, "deck.odp", reading()).deck)).toEqual(wanted);
    expect(said(readDeck(asAnother(bytes), "deck.odp", reading()).deck)).toEqual([
      wanted[0],
      wanted[1],
      ["number ‹#› 20"],
      wanted[3],
    ]);
  });

  it("writes a footer of an .odp that counts its slide on the slide, with a field, and says so", async () => {
    const regions = [
      { region: "footer" as const, text: "Quay, sheet ‹#›", frame: { x: 56, y: 504, width: 500, height: 26 } },
    ];
    const [opening] = deck.slides as [Slide];
    const given: Deck = {
      ...deck,
      slides: ["first", "second"].map((id) => ({ ...opening, id, master: "strip", regions })),
    };
    const bytes = await WRITERS.odp.write(given, context);
    const content = strFromU8(must(unzipSync(bytes)["content.xml"]));
    expect(content.match(/Quay, sheet <text:page-number>/g)).toHaveLength(2);
    expect(content).not.toContain("sheet ‹#›");
    expect(
      writeReport(given, "odp")
        .adapted.filter(({ what }) => what.endsWith("where its file puts it"))
        .map(({ slide }) => slide),
    ).toEqual([1, 2]);
    expect(
      readDeck(bytes, "deck.odp", reading()).deck.slides.map((slide) => slide.regions?.map(({ text }) => text)),
    ).toEqual([["Quay, sheet ‹#›"], ["Quay, sheet ‹#›"]]);
  });

  it.each(["pptx", "odp"] as const)("counts in a report for .%s what the file carries", async (format) => {
    const bytes = await WRITERS[format].write(deck, context);
    expect(tally(readDeck(bytes, `deck.${format}`, reading()).deck)).toEqual(writeReport(deck, format).to);
  });
});
