import { apply, moveTo } from "@unitext/core/edit";
import { type Deck, type Element, plainText, type Slide, textOf, must } from "@unitext/core/model";
import { resolveGeometry } from "@unitext/core/figures";
import { tally } from "@unitext/core/tally";
import { everything, FILES, idSource } from "@unitext/core/testing";
import { filesBench, sha256 } from "@unitext/core/testing/files";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { PNG } from "pngjs";
import { readXml } from "../../shared/xml";
import { WRITERS, writeReport } from "../../index";
import { formula, readEnhancedGeometry } from "./read/enhancedgeometry";

const photo = new Uint8Array(PNG.sync.write(new PNG({ width: 400, height: 300 })));
const moving = Uint8Array.from(Buffer.from("R0lGODlhAQABAIAAAAAAAP///yH5BAEAAAAALAAAAAABAAEAAAIBRAA7", "base64"));
const film = strToU8("\0\0\0\x18ftypmp42 made up");
const whole = everything({
  [FILES.photo]: { sha256: sha256(photo), mediaType: "image/png", width: 400, height: 300 },
  [FILES.moving]: { sha256: sha256(moving), mediaType: "image/gif", width: 1, height: 1 },
  [FILES.film]: { sha256: sha256(film), mediaType: "video/mp4", width: 1, height: 1 },
});
const bench = filesBench(photo, moving, film);
const { context } = bench;
const _reading = (prefix = "r") => ({ newId: idSource(prefix), sha256 });
const write = (deck: Deck) => WRITERS.odp.write(deck, context) as Uint8Array;
function read(bytes: Uint8Array, name = "deck.odp", prefix = "r") {
  const found = bench.read(bytes, name, prefix);
  return found;
}

/** A presentation that says nothing of Unitext: all that is read of it is what the standard says. */
const foreign = (() => {
  const parts = unzipSync(write(whole));
  const extra = {
    "Configurations2/accelerator.xml": strToU8("<other/>"),
    "settings.xml": strToU8(
      '<office:document-settings xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0"/>',
    ),
  };
  return zipSync({
    ...parts,
    "meta.xml": strToU8(
      strFromU8(must(parts["meta.xml"])).replace(/<meta:user-defined[\s\S]*<\/meta:user-defined>/, ""),
    ),
    ...extra,
  });
})();
const { deck, left } = read(foreign);
const on = (id: string, of = deck) => must(of.slides[whole.slides.findIndex((slide) => slide.id === id)]);
const like = (id: string, of = deck): Element[] => on(id, of).elements;

describe("an .odp that says nothing of Unitext", () => {
  it("gives shapes with their places, turns, fills, lines, shadows and groups", () => {
    const [star, arrow, wave] = like("shapes") as [Element, Element, Element];
    expect(star).toMatchObject({
      kind: "shape",
      name: "Star",
      frame: { x: 40, y: 40, width: 120, height: 120 },
      rotation: 15,
      fill: {
        kind: "gradient",
        form: "linear",
        angle: 45,
        stops: [
          { at: 0, colour: "#ffcc00" },
          { at: 1, colour: "#cc2200" },
        ],
      },
      stroke: { colour: "#20302e", width: 2, dash: "dash" },
      shadow: { colour: "#000000", opacity: 0.4, distance: 4, direction: 45 },
      box: { anchor: "middle" },
    });
    expect(star.groups).toEqual(arrow.groups);
    expect(star.groups).toHaveLength(1);
    expect(arrow).toMatchObject({
      kind: "shape",
      geometry: { preset: "line" },
      flip: "y",
      frame: { x: 200, y: 40, width: 120, height: 80 },
      stroke: { width: 3, tail: { form: "triangle", size: 3 } },
    });
    expect(wave).toMatchObject({
      kind: "shape",
      fill: { kind: "pattern", pattern: "cross", fore: "#0f5c63", back: "#ffffff" },
      link: `slide:${on("words").id}`,
    });
  });

  it("draws a form where the form that was written is, point by point", () => {
    const numbers = (element: Element | undefined) =>
      element?.kind === "shape" && element.frame
        ? resolveGeometry(element.geometry, element.frame.width, element.frame.height).outlines.map(({ d }) =>
            (d.match(/-?[\d.]+/g) ?? []).map(Number),
          )
        : [];
    for (const at of [0, 2]) {
      const [drawn, wanted] = [
        numbers(like("shapes")[at]),
        numbers(whole.slides.find(({ id }) => id === "shapes")?.elements[at]),
      ];
      expect(drawn.map(({ length }) => length)).toEqual(wanted.map(({ length }) => length));
      for (const [nth, list] of drawn.entries())
        for (const [place, value] of list.entries())
          expect(Math.abs(value - must(wanted[nth]?.[place]))).toBeLessThan(0.02);
    }
  });

  it("gives text with the looks of its levels, paragraphs and runs", () => {
    const box = like("shapes")[3];
    expect(box).toMatchObject({
      kind: "text",
      name: "Box",
      box: { columns: 2, gap: 12, anchor: "bottom", insets: [7.2, 3.6, 7.2, 3.6] },
      fill: { kind: "solid", colour: "#ffffff", opacity: 0.8 },
    });
    if (box?.kind !== "text") throw new Error("no text");
    const levels = deck.styles?.[box.style ?? ""];
    // What all its paragraphs and runs have may stand in their own looks; together they say what was written.
    const run = (paragraph: number, at: number) => ({
      ...levels?.[Math.min(paragraph, (levels?.length ?? 1) - 1)]?.run,
      ...box.text[paragraph]?.runs[at]?.properties,
    });
    const look = (paragraph: number) => ({
      ...levels?.[Math.min(paragraph, (levels?.length ?? 1) - 1)]?.paragraph,
      ...box.text[paragraph]?.properties,
    });
    expect(run(0, 0)).toMatchObject({ size: 20, colour: "#12343b", font: "Carlito" });
    expect(run(0, 1)).toMatchObject({ size: 30, colour: "#b23a30", underline: "double", spacing: 2 });
    expect(box.text[0]?.runs[1]?.marks).toEqual(["strong"]);
    expect(run(1, 0)).toMatchObject({ size: 16, caps: "small", highlight: "#fff2a8" });
    expect(look(0)).toMatchObject({ left: 18, first: -18, bullet: { character: "▪" }, before: { points: 4 } });
    expect(look(1)).toMatchObject({ left: 36, first: -18, bullet: { character: "–" }, line: { times: 1.5 } });
    expect(box.text[1]).toMatchObject({ kind: "bullet", level: 1, align: "end" });
  });

  it("gives tables in their measures and fills, and charts with their values and looks", () => {
    const [table, column, scatter, paired, ring] = like("figures") as [Element, Element, Element, Element, Element];
    expect(table).toMatchObject({
      kind: "table",
      widths: [240, 160],
      heights: [40, 40, 40],
      header: 1,
      frame: { x: 40, y: 40, width: 400, height: 120 },
    });
    expect(
      table.kind === "table" &&
        table.rows.map((row) => row.map((cell) => cell && [textOf(cell.text), cell.columns ?? 1])),
    ).toEqual([
      [
        ["Gauge", 1],
        ["Metres", 1],
      ],
      [
        ["North", 1],
        ["2.4", 1],
      ],
      [["both", 2], null],
    ]);
    expect(table.kind === "table" && table.rows[0]?.[0]?.fill).toEqual({ kind: "solid", colour: "#0f5c63" });
    const [, first, second, fourth, third] = must(whole.slides.find(({ id }) => id === "figures")).elements;
    const bare = ({ id: _, sourceShape: __, name: ___, ...rest }: Element) => rest;
    expect(bare(column)).toEqual(bare(must(first)));
    // The line goes along with its axis, its curve, its format and the way that the categories run.
    const {
      series: [columns, line],
      ...looks
    } = fourth as Extract<Element, { kind: "chart" }>;
    expect(bare(paired)).toMatchObject({ ...bare(looks as Element), series: [columns, line] });
    expect(scatter).toMatchObject({
      kind: "chart",
      type: "scatter",
      series: [{ name: "Wind", values: [3, 5, 4], x: [1, 2, 3.5] }],
      legend: "none",
    });
    expect(second).toMatchObject({ type: "scatter" });
    expect(ring).toMatchObject({
      kind: "chart",
      type: "doughnut",
      categories: ["Sand", "Mud"],
      series: [{ values: [3, 1] }],
      legend: "right",
      labels: "share",
    });
    expect(third).toMatchObject({ type: "doughnut" });
  });

  it("gives pictures cut, turned, mirrored and recoloured, films, masters, backgrounds and how slides come in", () => {
    const [cut, mirrored] = like("pictures");
    expect(cut).toMatchObject({
      kind: "picture",
      crop: { left: 0.1, top: 0.2, right: 0, bottom: 0 },
      opacity: 0.5,
      recolour: "grey",
      rotation: 20,
      frame: { x: 40, y: 40, width: 200, height: 150 },
      link: "https://example.org/dune",
      alt: "A dune",
    });
    expect(mirrored).toMatchObject({ flip: "x" });
    expect(like("pictures").find(({ kind }) => kind === "media")).toMatchObject({
      kind: "media",
      type: "video",
      alt: "The tide",
    });
    expect(on("pictures").background).toEqual({
      fill: {
        kind: "gradient",
        form: "linear",
        angle: 90,
        stops: [
          { at: 0, colour: "#ffffff" },
          { at: 1, colour: "#d7e4e2" },
        ],
      },
    });
    expect(on("opening")).toMatchObject({ background: { colour: "#fdf6e3" }, transition: { kind: "fade" }, delay: 12 });
    const master = deck.masters?.[on("shapes").master ?? ""];
    expect(master).toMatchObject({
      name: "Strip",
      background: { colour: "#eef3f2" },
      elements: [
        { kind: "shape", fill: { kind: "solid", colour: "#0f5c63" }, frame: { x: 0, y: 500, width: 960, height: 40 } },
      ],
    });
    expect(left).toEqual([]);
  });
});

describe("an .odp written back", () => {
  const same = (a: Uint8Array, b: Uint8Array) => {
    const [before, after] = [unzipSync(a), unzipSync(b)];
    return [...new Set([...Object.keys(before), ...Object.keys(after)])].filter(
      (path) => !Buffer.from(before[path] ?? []).equals(Buffer.from(after[path] ?? [])),
    );
  };

  it("is every part of it the same where nothing was changed, and carries the same", () => {
    const again = write(deck);
    expect(same(foreign, again)).toEqual([]);
    const { deck: second } = read(again, "again.odp");
    expect(tally(second)).toEqual(tally(deck));
    expect(tally(deck)).toEqual(writeReport(deck, "odp").to);
  });

  const pagesOf = (bytes: Uint8Array) =>
    strFromU8(must(unzipSync(bytes)["content.xml"])).match(/<draw:page [\s\S]*?<\/draw:page>/g) as string[];

  it("is another page only where one was changed, and there only in the shape that was", () => {
    const at = deck.slides.indexOf(on("shapes"));
    const slides = deck.slides.map((slide, nth) =>
      nth === at
        ? {
            ...slide,
            elements: slide.elements.map((element) =>
              element.kind === "text" ? { ...element, text: plainText("Another word") } : element,
            ),
          }
        : slide,
    );
    const written = write({ ...deck, slides });
    expect(
      same(foreign, written).filter((path) => !["content.xml", "meta.xml", "META-INF/manifest.xml"].includes(path)),
    ).toEqual([]);
    const [before, after] = [pagesOf(foreign), pagesOf(written)];
    expect(after.map((page, nth) => page === before[nth])).toEqual(after.map((_, nth) => nth !== at));
    const star = must(/<draw:g>[\s\S]*?<\/draw:g>/.exec(must(before[at]))?.[0]);
    expect(after[at]).toContain(star);
    const { deck: second } = read(written, "second.odp", "s");
    expect(second.slides.map(({ id }) => id)).toEqual(deck.slides.map(({ id }) => id));
    const changed = must(second.slides[at]).elements.find(({ kind }) => kind === "text");
    expect(changed?.kind === "text" && textOf(changed.text)).toBe("Another word");
    expect(second.slides[at]?.elements.map(({ kind, name }) => [kind, name])).toEqual(
      must(slides[at]).elements.map(({ kind, name }) => [kind, name]),
    );
  });

  // The names that the namespaces of others' standards (XSL 1.0, SVG 1.1, SMIL 2.0) have there; drafts of OpenDocument and programs of those years used them (common practice, no source).
  it("is kept as well where namespaces have the names of drafts", () => {
    const old = {
      "urn:oasis:names:tc:opendocument:xmlns:xsl-fo-compatible:1.0": "http://www.w3.org/1999/XSL/Format",
      "urn:oasis:names:tc:opendocument:xmlns:svg-compatible:1.0": "http://www.w3.org/2000/svg",
      "urn:oasis:names:tc:opendocument:xmlns:smil-compatible:1.0": "http://www.w3.org/2001/SMIL20/",
    };
    const drafted = zipSync(
      Object.fromEntries(
        Object.entries(unzipSync(foreign)).map(([path, part]) => [
          path,
          /^(content|styles)\.xml$/.test(path)
            ? strToU8(
                Object.entries(old).reduce(
                  (text, [name, draft]) => text.replaceAll(`"${name}"`, `"${draft}"`),
                  strFromU8(part),
                ),
              )
            : part,
        ]),
      ),
    );
    const { deck: given } = read(drafted, "draft.odp");
    expect(same(drafted, write(given))).toEqual([]);
    const changed = {
      ...given,
      slides: given.slides.map((slide, nth) => (nth ? slide : { ...slide, notes: plainText("Another word") })),
    };
    const written = write(changed);
    expect(pagesOf(written).slice(1)).toEqual(pagesOf(drafted).slice(1));
    const { deck: again } = read(written, "again.odp");
    expect(again.slides.map(({ notes }) => textOf(notes))).toEqual(changed.slides.map(({ notes }) => textOf(notes)));
    expect(again.slides.map(({ elements }) => elements.map(({ kind, frame }) => [kind, frame]))).toEqual(
      changed.slides.map(({ elements }) => elements.map(({ kind, frame }) => [kind, frame])),
    );
  });

  it("follows another order, slides taken out, hidden, doubled and added", () => {
    const [first, second, third] = deck.slides as [Slide, Slide, Slide];
    const moved = apply(deck, moveTo(deck, [third.id], { parent: null, after: null })).deck;
    expect(pagesOf(write(moved)).sort()).toEqual(pagesOf(foreign).sort());
    const twice: Slide = { ...second, id: "copy" };
    const made: Deck = {
      ...deck,
      slides: [
        first,
        { ...second, hidden: !second.hidden },
        twice,
        {
          id: "fresh",
          parent: null,
          arrangement: "title",
          elements: [{ kind: "text", id: "t", slot: "title", text: plainText("Fresh") }],
          notes: [],
          hidden: false,
        },
      ],
    };
    const { deck: again } = read(write(made), "made.odp", "m");
    expect(again.slides.map(({ id, hidden }) => [id, hidden])).toEqual([
      [first.id, first.hidden],
      [second.id, !second.hidden],
      ["copy", second.hidden],
      ["fresh", false],
    ]);
    // A link whose slide is gone is a word in the file.
    expect(tally(again)).toEqual({ ...tally(made), links: { ...tally(made).links, broken: 0 } });
    // What only slides that are gone have shown is gone from the file too.
    const left = unzipSync(write(made));
    const named = strFromU8(must(left["content.xml"]));
    expect(Object.keys(left).filter((path) => /^(Pictures|Object|Media)/.test(path) && !named.includes(path))).toEqual(
      [],
    );
  });

  it("turns into a .pptx and back with what it shows", () => {
    const there = WRITERS.pptx.write(deck, context) as Uint8Array;
    const { deck: middle } = read(there, "deck.pptx", "p");
    const { deck: back } = read(write(middle), "back.odp", "b");
    const { foreign: _, ...wanted } = tally(deck);
    expect(tally(back)).toMatchObject(wanted);
    expect(back.slides.map(({ elements }) => elements.length)).toEqual(
      deck.slides.map(({ elements }) => elements.length),
    );
  });
});

it("actions that lead to the next page, the one before, the first and the last lead there", () => {
  const parts = unzipSync(foreign);
  const content = strFromU8(must(parts["content.xml"]));
  const led = (action: string) =>
    read(
      zipSync({
        ...parts,
        "content.xml": strToU8(content.replace('presentation:action="show"', `presentation:action="${action}"`)),
      }),
      "led.odp",
      "l",
    ).deck;
  const at = whole.slides.findIndex(({ id }) => id === "shapes");
  const to = (of: Deck) =>
    of.slides[at]?.elements.flatMap((element) => (element.kind === "shape" && element.link ? [element.link] : []));
  for (const [action, wanted] of [
    ["next-page", at + 1],
    ["previous-page", at - 1],
    ["first-page", 0],
    ["last-page", whole.slides.length - 1],
  ] as const) {
    const made = led(action);
    expect([action, to(made)]).toEqual([action, [`slide:${made.slides[wanted]?.id}`]]);
  }
});

// OpenDocument 1.3, part 3: 19.145 draw:enhanced-path and 19.171 draw:formula; the values worked by hand.
describe("enhanced geometry", () => {
  it("reads formulas", () => {
    const names: Record<string, number> = { $0: 5400, "?f1": 100, width: 21600 };
    const value = (text: string) => formula(text, (name) => names[name] ?? 0);
    expect(value("$0 *2+ ?f1/4 -1")).toBe(10824);
    expect(value("if(?f1 - 100, 1, 2)")).toBe(2);
    expect(value("max(3, min(width, 7)) * -(1 + 1)")).toBe(-14);
    expect(value("sqrt(16)+abs(-3)+sin(0)")).toBe(7);
    expect(value("1/0")).toBe(0);
    expect(value("((((")).toBe(0);
  });

  it("draws lines, curves and arcs", () => {
    const form = (path: string, extra = "") =>
      readEnhancedGeometry(
        readXml(
          `<draw:enhanced-geometry svg:viewBox="0 0 100 100" draw:enhanced-path="${path}" ${extra}/>`,
          "x",
        ) as never,
        50,
        50,
      );
    expect(form("M 0 0 L 100 0 100 100 Z N")).toEqual({
      width: 100,
      height: 100,
      paths: [{ d: "M0 0L100 0L100 100Z", fill: true, stroke: true }],
    });
    expect(form("M 0 0 L 100 0 F N M 5 5 L 9 9 S N")).toMatchObject({
      paths: [
        { fill: false, stroke: true },
        { fill: true, stroke: false },
      ],
    });
    // A quarter of an ellipse begins along the x axis and ends along the y axis, so that its middle is at 0 0.
    expect(form("M 0 50 X 50 0 N")).toMatchObject({ paths: [{ d: "M0 50A50 50 0 0 0 50 0" }] });
    const drawn = form("U 50 50 50 50 0 360 Z N");
    expect(drawn && "paths" in drawn && /^M100 50A50 50 0 0 1 /.test(drawn.paths[0]?.d ?? "")).toBe(true);
    expect(form("M $0 ?f0 L 100 100 N", 'draw:modifiers="25"')).toMatchObject({ paths: [{ d: "M25 0L100 100" }] });
    expect(form("nonsense 1 2")).toBeUndefined();
  });
});
