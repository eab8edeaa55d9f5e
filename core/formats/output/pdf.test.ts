import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { inflateSync } from "node:zlib";
import { layoutSlide } from "@unitext/core/layout";
import { type Deck, emptyDeck, type Slide, must } from "@unitext/core/model";
import { deckArbitrary, linked } from "@unitext/core/testing";
import { filesBench, sha256 } from "@unitext/core/testing/files";
import fc from "fast-check";
import { PNG } from "pngjs";
import { shownSlides, WRITERS, writeReport } from "../index";

const image = new Uint8Array(PNG.sync.write(new PNG({ width: 40, height: 30 })));
const { context } = filesBench(image);
const { fonts } = context;
const assets = {
  "pictures/dune.png": { sha256: sha256(image), mediaType: "image/png" as const, width: 40, height: 30 },
};

/** What the Debian package qpdf says of a file. */
function checked(bytes: Uint8Array): string {
  const folder = mkdtempSync(join(tmpdir(), "unitext-pdf-"));
  try {
    writeFileSync(join(folder, "deck.pdf"), bytes);
    return execFileSync("/usr/bin/qpdf", ["--check", join(folder, "deck.pdf")], { encoding: "utf8" });
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

describe("pdf", () => {
  it("has the scene's lines, links, outline, title and language", async () => {
    const deck = linked();
    const { getDocument } = await import("pdfjs-dist/legacy/build/pdf.mjs");
    const bytes = await WRITERS.pdf.write(
      { ...deck, slides: deck.slides.map((slide) => ({ ...slide, hidden: false })) },
      context,
    );
    const pdf = await getDocument({ data: bytes.slice(), useSystemFonts: false, verbosity: 0 }).promise;
    expect(pdf.numPages).toBe(3);
    expect((await pdf.getMetadata()).info).toMatchObject({ Title: "Tides", Author: "Course team", Language: "en-GB" });
    const outline = await pdf.getOutline();
    expect(outline.map(({ title, items }) => [title, items.map((item) => item.title)])).toEqual([
      ["Tides", []],
      ["Menu", ["مقياس المدّ"]],
    ]);
    const annotations = await (await pdf.getPage(2)).getAnnotations();
    expect(annotations.map(({ url, dest }) => url ?? dest)).toEqual(["three", "https://example.org/a?b=1&c=2"]);
  });

  it("shows pictures that are stretches of a file that was read", async () => {
    const given = linked();
    const slides = given.slides.slice(0, 1).map((slide) => ({
      ...slide,
      elements: [
        {
          kind: "picture" as const,
          id: "p",
          slot: null,
          frame: { x: 400, y: 300, width: 200, height: 150 },
          source: "pictures/dune.png",
          alt: "A dune",
        },
      ],
    }));
    const within = Buffer.concat([Buffer.from("before it"), image, Buffer.from("behind it")]).subarray(
      9,
      9 + image.length,
    );
    const bytes = await WRITERS.pdf.write({ ...given, assets, slides }, { ...context, picture: () => within });
    expect(checked(bytes)).toContain("No syntax or stream encoding errors found");
    expect(Buffer.from(bytes).toString("latin1")).toMatch(
      /\/Subtype \/Image\s[^>]*\/Width 40\s|\/Width 40\s[^>]*\/Subtype \/Image/,
    );
  });

  it("is written whole where a picture breaks off: drawn again as far as it goes, or as a frame", async () => {
    const given = linked();
    const slides = given.slides.slice(0, 1).map((slide) => ({
      ...slide,
      elements: [
        {
          kind: "picture" as const,
          id: "p",
          slot: null,
          frame: { x: 400, y: 300, width: 200, height: 150 },
          source: "pictures/dune.png",
          alt: "A dune",
        },
      ],
    }));
    for (const redrawn of [undefined, image, image.slice(0, 30)]) {
      const cut = image.slice(0, image.length - 20);
      const bytes = await WRITERS.pdf.write(
        { ...given, assets, slides },
        { ...context, picture: () => cut, ...(redrawn ? { png: () => redrawn } : {}) },
      );
      expect(checked(bytes)).toContain("No syntax or stream encoding errors found");
      expect(Buffer.from(bytes).toString("latin1").includes("/Subtype /Image")).toBe(redrawn === image);
    }
  });

  // ISO 32000-1, 14.7 and 14.8: what a reader that speaks finds; and the file itself as the Debian package qpdf checks it.
  it("has a structure of headings, paragraphs and figures with their descriptions, and is clean", async () => {
    const { getDocument } = await import("pdfjs-dist/legacy/build/pdf.mjs");
    const given = linked();
    const slides = given.slides.map((slide, nth) => ({
      ...slide,
      hidden: false,
      elements:
        nth === 1
          ? [
              ...slide.elements,
              {
                kind: "picture" as const,
                id: "p",
                slot: null,
                frame: { x: 400, y: 300, width: 200, height: 150 },
                source: "pictures/dune.png",
                alt: "A dune",
              },
            ]
          : slide.elements,
    }));
    const bytes = await WRITERS.pdf.write({ ...given, assets, slides }, context);
    const page = await (
      await getDocument({ data: bytes.slice(), useSystemFonts: false, verbosity: 0 }).promise
    ).getPage(2);
    const roles: string[] = [];
    const walk = (node: { role?: string; alt?: string; children?: unknown[] } | null) => {
      if (node?.role) roles.push(node.alt ? `${node.role} ${node.alt}` : node.role);
      for (const inner of node?.children ?? []) walk(inner as never);
    };
    walk(await page.getStructTree());
    expect(roles.filter((role) => !["Root", "Document", "Sect"].includes(role))).toEqual(["H1", "P", "Figure A dune"]);
    expect(checked(bytes)).toContain("No syntax or stream encoding errors found");
  });

  it("breaks lines where the scene does, in every script", async () => {
    const { getDocument } = await import("pdfjs-dist/legacy/build/pdf.mjs");
    await fc.assert(
      fc.asyncProperty(deckArbitrary({ minLength: 1, maxLength: 3 }), async (given) => {
        // No Chinese face ships: characters without a glyph have no text in the PDF either.
        const slides: Slide[] = JSON.parse(JSON.stringify(given.slides).replaceAll("潮汐", "ebb"));
        const deck = {
          ...given,
          slides: slides.map((slide) => ({ ...slide, hidden: false })),
          regions: { footer: "Marram Bay", number: false },
        };
        const pdf = await getDocument({
          data: (await WRITERS.pdf.write(deck, context)).slice(),
          useSystemFonts: false,
          verbosity: 0,
        }).promise;
        for (const [nth, slide] of deck.slides.entries()) {
          const scene = layoutSlide(slide, { metadata: deck, number: nth + 1, fonts });
          // What stands out below the page is not on it; two texts that run into each other cannot be told apart.
          if (scene.overflow > 0) continue;
          const { items } = await (await pdf.getPage(nth + 1)).getTextContent({ disableNormalization: true });
          const letters = (text: string) =>
            [...text.normalize("NFKD").replace(/[\s\u200B\p{M}]/gu, "")].sort().join("");
          const lines = scene.nodes.flatMap((node) => (node.kind === "text" ? node.lines : []));
          // The reader gives a combining mark to the item before it, so marks are not compared; every item belongs to the nearest line at its place.
          const found = new Map(lines.map((line) => [line, ""]));
          for (const item of items) {
            if (!("str" in item) || item.str.trim() === "") continue;
            const [x, y] = item.transform.slice(4) as [number, number];
            // What is raised, as the number of a footnote, stands on a line of its own, so much higher.
            const apart = (line: (typeof lines)[number]) =>
              Math.min(...line.runs.map(({ rise = 0 }) => Math.abs(deck.page.height - (line.y - rise) - y))) +
              Math.max(
                0,
                Math.min(...line.runs.map((run) => run.x)) - 5 - x,
                x - Math.max(...line.runs.map((run) => run.x + run.width)) - 5,
              );
            const nearest = lines.reduce((best, line) => (apart(line) < apart(best) ? line : best));
            found.set(nearest, found.get(nearest) + item.str);
          }
          for (const [line, text] of found)
            expect(letters(text)).toBe(letters(line.runs.map((run) => run.text).join("")));
        }
      }),
      { numRuns: 15 },
    );
  });

  it("leaves hidden slides and notes out and says so", () => {
    const report = writeReport(linked(), "pdf");
    expect(report.to).toMatchObject({ slides: shownSlides(linked()).length, notes: { slides: 0 } });
    expect(report.left.map(({ slide, what }) => [slide, what])).toEqual([
      [2, "its notes"],
      [3, "a hidden slide"],
    ]);
  });

  // ISO 32000-1, 8.7.3 (tiling patterns) and 11.6.4.4 (constant opacity).
  it("paints patterns as tiles of their marks over their ground, and soft edges in layers", async () => {
    const shape = (id: string, more: object) => ({
      kind: "shape" as const,
      id,
      slot: null,
      frame: { x: 100, y: 100, width: 200, height: 100 },
      geometry: { preset: "rect" },
      text: [],
      ...more,
    });
    const deckOf = (more: object): Deck => ({
      ...emptyDeck("d", "D"),
      slides: [{ id: "s", parent: null, arrangement: "blank", notes: [], hidden: false, elements: [shape("a", more)] }],
    });
    const patterned = await WRITERS.pdf.write(
      deckOf({ fill: { kind: "pattern", pattern: "grid", fore: "#0f5c63", back: "#ffffff" } }),
      context,
    );
    const text = Buffer.from(patterned).toString("latin1");
    expect(text).toMatch(/\/PatternType 1\b[\s\S]*?\/BBox \[0 0 8 8\][\s\S]*?\/XStep 8[\s\S]*?\/YStep 8/);
    const streams = [...text.matchAll(/stream\r?\n([\s\S]*?)\r?\nendstream/g)].map(([, data = ""]) => {
      try {
        return inflateSync(Buffer.from(data, "latin1")).toString("latin1");
      } catch {
        return data;
      }
    });
    // The marks of a grid: a line of 8 by 1 and one of 1 by 8, filled.
    expect(
      streams.some((stream) => /^0 0 m\n8 0 l\n8 1 l\n0 1 l\nh\n0 0 m\n1 0 l\n1 8 l\n0 8 l\nh\nf/.test(stream)),
    ).toBe(true);
    expect(checked(patterned)).toContain("No syntax or stream encoding errors found");
    const shaded = (blur: number) =>
      WRITERS.pdf.write(
        deckOf({
          fill: { kind: "solid", colour: "#ffffff" },
          shadow: { colour: "#000000", opacity: 0.5, blur, distance: 6, direction: 45 },
        }),
        context,
      );
    const [hard, soft] = [await shaded(0), await shaded(12)];
    const opacities = (bytes: Uint8Array) =>
      [
        ...Buffer.from(bytes)
          .toString("latin1")
          .matchAll(/\/CA (0?\.\d+)/g),
      ].map(([, value]) => Number(value));
    expect(opacities(hard)).toEqual([]);
    expect(opacities(soft).length).toBeGreaterThan(0);
    // Twenty layers of that opacity on each other are seven tenths of a half.
    expect(1 - (1 - must(opacities(soft)[0])) ** 20).toBeCloseTo(0.35, 2);
    expect(checked(soft)).toContain("No syntax or stream encoding errors found");
  });
});
