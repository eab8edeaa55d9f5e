import { execFileSync } from "node:child_process";
import { createHash } from "node:crypto";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";

import {
  type Deck,
  emptyDeck,
  Failure,
  linksOf,
  nameOf,
  newSlide,
  paragraphText,
  plainText,
  run,
  type Slide,
  slideTexts,
  textOf,
  THEMES,
  must,
} from "@unitext/core/model";
import { deckArbitrary, idSource, unresolved } from "@unitext/core/testing";
import { shippedFonts } from "@unitext/core/testing/fonts";
import fc from "fast-check";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { PNG } from "pngjs";
import { readXml } from "../../shared/xml";
import { readDeck, WRITERS } from "../../index";

const fonts = shippedFonts();
const sha256 = (bytes: Uint8Array) => createHash("sha256").update(bytes).digest("hex");
const image = new Uint8Array(PNG.sync.write(new PNG({ width: 40, height: 30 })));
const context = {
  fonts,
  at: new Date("2026-03-01T09:00:00Z"),
  picture: (sum: string) => (sum === sha256(image) ? image : undefined),
};
const reading = () => ({ newId: idSource("r"), sha256 });
const write = async (deck: Deck) => WRITERS.odp.write(deck, context);
const folder = mkdtempSync(join(tmpdir(), "unitext-odp-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const python = (script: string, ...args: string[]) =>
  execFileSync("/usr/bin/python3", [join(import.meta.dirname, script), ...args], { encoding: "utf8" });

const text = (id: string, slot: string | null, value: ReturnType<typeof plainText>) => ({
  kind: "text" as const,
  id,
  slot,
  text: value,
});
const course: Deck = {
  ...emptyDeck("course", "Tides"),
  theme: THEMES.nightwatch,
  regions: { footer: "Station", number: true },
  assets: { "pictures/dune.png": { sha256: sha256(image), mediaType: "image/png", width: 40, height: 30 } },
  slides: [
    { ...newSlide("one", "opening"), elements: [text("a", "title", plainText("Tides"))] },
    {
      ...newSlide("two", "points"),
      elements: [
        text("b", "title", plainText("Menu & more")),
        text("c", "body", [
          { kind: "bullet", level: 0, runs: [run("to "), run("the table", ["strong"], "slide:three")] },
          { kind: "number", level: 1, runs: [run("first")] },
          { kind: "number", level: 1, runs: [run("second, on https", [], "https://example.org/a?b=1&c=2")] },
        ]),
      ],
      notes: [...plainText("Slow  down"), { kind: "plain", level: 0, runs: [run("npm test", ["code"])] }],
      transition: { kind: "fade", seconds: 1 },
    },
    {
      ...newSlide("three", "points"),
      parent: "two",
      hidden: true,
      background: { picture: "pictures/dune.png" },
      elements: [
        text("d", "title", plainText("Levels")),
        {
          kind: "table",
          id: "e",
          slot: "body",
          header: 1,
          align: ["start", "end"],
          rows: [
            [{ text: plainText("Gauge") }, { text: plainText("m") }],
            [{ text: plainText("both"), columns: 2 }, null],
          ],
        },
        { kind: "picture", id: "f", slot: null, source: "pictures/dune.png", alt: "A dune" },
      ],
    },
  ],
};

describe("the package", () => {
  it("begins with its media type, unpacked, and lists every file (OpenDocument 1.3, part 2, 3.2 and 3.3)", async () => {
    const bytes = await write(course);
    // A local file header of 30 bytes, the name, then the stored bytes (APPNOTE, 4.3.7).
    expect(strFromU8(bytes.subarray(30, 38))).toBe("mimetype");
    expect([bytes[8], bytes[9]]).toEqual([0, 0]);
    expect(strFromU8(bytes.subarray(38, 38 + 47))).toBe("application/vnd.oasis.opendocument.presentation");
    const parts = unzipSync(bytes);
    const listed = readXml(strFromU8(must(parts["META-INF/manifest.xml"])), "manifest").children.map(
      ({ attributes }) => attributes["manifest:full-path"],
    );
    expect(listed.sort()).toEqual(
      ["/", ...Object.keys(parts).filter((path) => path !== "mimetype" && !path.startsWith("META-INF/"))].sort(),
    );
  });

  it("defines every style that it names in its family, gives pages different names, and leads links to them", async () => {
    await fc.assert(
      fc.asyncProperty(deckArbitrary({ minLength: 1, maxLength: 4 }), async (deck) => {
        expect(unresolved(unzipSync(await write(deck)))).toEqual([]);
      }),
      { numRuns: 40 },
    );
  });

  it("is read by python3-odf: pages, texts, lists, links, tables, pictures and notes", async () => {
    writeFileSync(join(folder, "course.odp"), await write(course));
    const { mimetype, pages } = JSON.parse(python("check.py", join(folder, "course.odp")));
    // python3-odf writes the blanks of names as _20_, as style names have them.
    expect(mimetype).toBe("application/vnd.oasis.opendocument.presentation");
    expect(pages.map(({ name, classes }: { name: string; classes: string[] }) => [name, ...classes])).toEqual([
      ["1_20_Tides", "title"],
      ["2_20_Menu_20_&_20_more", "title", "outline"],
      ["3_20_Levels", "title", null, null],
    ]);
    expect(pages[1]).toMatchObject({
      texts: ["Menu & more", "to the tablefirstsecond, on https"],
      lists: 2,
      links: ["#3 Levels", "https://example.org/a?b=1&c=2"],
    });
    expect(pages[1].notes).toContain("Slow  down");
    expect(pages[2]).toMatchObject({ rows: [2], pictures: [expect.stringMatching(/^Pictures\/.+\.png$/)] });
  });
});

describe("reading back", () => {
  it("gives the deck as it was, every part of it the same when it is written again", async () => {
    const bytes = await write(course);
    const read = readDeck(bytes, "course.odp", reading());
    expect(read.deck).toEqual(course);
    expect([read.adapted, read.left]).toEqual([[], []]);
    const [before, after] = [unzipSync(bytes), unzipSync(await write(read.deck))];
    // What is kept may stand in another order.
    expect(
      Object.keys(before).filter(
        (path) => path !== "meta.xml" && !Buffer.from(must(before[path])).equals(Buffer.from(after[path] ?? [])),
      ),
    ).toEqual([]);
    expect(readDeck(await write(read.deck), "again.odp", reading()).deck).toEqual(course);
  });

  it("follows what another program changed: order, words, a title", async () => {
    const parts = unzipSync(await write(course));
    const content = strFromU8(must(parts["content.xml"]));
    const pages = content.match(/<draw:page [\s\S]*?<\/draw:page>/g) as string[];
    const moved = content
      .replace(must(pages[0]), "")
      .replace(must(pages[1]), `${pages[1]}${pages[0]}`)
      .replace(">Tides<", ">Tides, again<");
    const { deck } = readDeck(zipSync({ ...parts, "content.xml": strToU8(moved) }), "course.odp", reading());
    expect(deck.slides.map(({ id }) => id)).toEqual(["two", "one", "three"]);
    expect(nameOf(must(deck.slides[1]))).toBe("Tides, again");
    expect(deck.slides[0]?.elements[1]?.id).toBe("c");
    // A detail that no longer follows its main slide stands on the main line.
    expect(deck.slides[2]?.parent).toBeNull();
  });

  it("reads a flat file as a packed one, its pictures inside", async () => {
    const parts = unzipSync(await write(course));
    const inner = (path: string, tag: string) =>
      new RegExp(`<office:${tag}[\\s\\S]*</office:${tag}>`).exec(strFromU8(must(parts[path])))?.[0] ?? "";
    const open = must(
      /<office:document-content[^>]*>/
        .exec(strFromU8(must(parts["content.xml"])))?.[0]
        .replace("document-content", "document"),
    );
    const body = inner("content.xml", "body").replace(
      /<draw:image [^>]*\/>/,
      `<draw:image><office:binary-data>${Buffer.from(image).toString("base64")}</office:binary-data></draw:image>`,
    );
    const automatic = `<office:automatic-styles>${inner("styles.xml", "automatic-styles").replace(/<\/?office:automatic-styles>/g, "")}${inner("content.xml", "automatic-styles").replace(/<\/?office:automatic-styles>/g, "")}</office:automatic-styles>`;
    const flat = `<?xml version="1.0"?>${open}${inner("meta.xml", "meta")}${inner("styles.xml", "styles")}${automatic}${inner("styles.xml", "master-styles")}${body}</office:document>`;
    const { deck, blobs } = readDeck(strToU8(flat), "course.fodp", reading());
    expect(deck.slides.map(({ id, elements }) => [id, elements.length])).toEqual(
      course.slides.map(({ id, elements }) => [id, elements.length]),
    );
    expect(blobs.size).toBe(1);
  });
});

describe("an .odp of another hand", () => {
  const read = (() => {
    writeFileSync(join(folder, "quay.png"), image);
    python("sample.py", join(folder, "sample.odp"), join(folder, "quay.png"));
    return readDeck(readFileSync(join(folder, "sample.odp")), "sample.odp", reading());
  })();

  it("gives titles, levels, marks, links, notes, tables with merged cells, pictures, page and language", () => {
    const { deck } = read;
    expect([deck.properties.title, deck.language, deck.page]).toEqual([
      "Gauges of the bay",
      "en-GB",
      { width: 720, height: 540 },
    ]);
    expect(deck.slides.map(({ arrangement, hidden }) => [arrangement, hidden])).toEqual([
      ["opening", false],
      ["points", false],
      ["blank", true],
    ]);
    const [, points, figures] = deck.slides as [Slide, Slide, Slide];
    const body = points.elements[1];
    expect(
      body?.kind === "text" &&
        body.text.map((paragraph) => [paragraph.kind, paragraph.level, paragraphText(paragraph)]),
    ).toEqual([
      ["bullet", 0, "Every ten minutes,\nsee the figures"],
      ["bullet", 1, "on the staff"],
      ["bullet", 0, "the page"],
    ]);
    expect(body?.kind === "text" && body.text[0]?.runs[1]).toEqual({ text: "ten", marks: ["strong"] });
    expect(
      slideTexts(points)
        .flatMap(linksOf)
        .map(({ to }) => to),
    ).toEqual([`slide:${figures.id}`, "https://example.org/gauges"]);
    expect(textOf(points.notes)).toBe("Say it slowly.\nTwice.");
    expect(figures.background).toEqual({ colour: "#102030" });
    expect(figures.elements.map(({ kind }) => kind)).toEqual(["table", "picture", "shape", "foreign"]);
    const [table, picture, shape] = figures.elements;
    expect(
      table?.kind === "table" &&
        table.rows.map((row) => row.map((cell) => cell && [textOf(cell.text), cell.columns ?? 1])),
    ).toEqual([
      [
        ["Gauge", 1],
        ["Level", 1],
      ],
      [
        ["North", 1],
        ["2.4", 1],
      ],
      [["both wide", 2], null],
    ]);
    expect(picture).toMatchObject({ alt: "The quay", frame: { x: 72, y: 72, width: 576, height: 144 } });
    expect(shape).toMatchObject({ frame: { x: 72, y: 360, width: 144, height: 72 } });
  });

  it("keeps what it does not model as it is, and says what a chart without its data is", () => {
    expect(read.deck.slides[2]?.elements[3]).toMatchObject({
      kind: "foreign",
      what: "an embedded object",
      name: "Chart",
    });
    expect([read.left, read.adapted]).toEqual([[], []]);
  });
});

describe("bad files", () => {
  it("are refused with a sentence that says what they are", async () => {
    const parts = unzipSync(await write(course));
    const refused = (given: Record<string, Uint8Array>) => () => readDeck(zipSync(given), "x.odp", reading());
    const { "content.xml": _, ...without } = parts;
    expect(refused(without)).toThrow(/content\.xml is missing/);
    expect(refused({ ...parts, "content.xml": strToU8("<a>") })).toThrow(Failure);
    expect(
      refused({
        ...parts,
        "content.xml": strToU8(
          "<office:document-content><office:body><office:text/></office:body></office:document-content>",
        ),
      }),
    ).toThrow(/rename it to \.odt/);
    expect(refused({ ...parts, "META-INF/manifest.xml": strToU8("<m><manifest:encryption-data/></m>") })).toThrow(
      /password/,
    );
    expect(readDeck(zipSync({ ...parts, "styles.xml": strToU8("<broken") }), "x.odp", reading()).left[0]).toMatchObject(
      { what: "the part styles.xml" },
    );
  });

  it("let nothing but a Failure out, whatever bytes are flipped", async () => {
    const good = await write(course);
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat(good.length - 1), fc.nat(255)), { minLength: 1, maxLength: 8 }), (flips) => {
        const bytes = good.slice();
        for (const [place, value] of flips) bytes[place] = value;
        try {
          readDeck(bytes, "x.odp", reading());
        } catch (error) {
          expect(error).toBeInstanceOf(Failure);
        }
      }),
      { numRuns: 300 },
    );
  });
});
