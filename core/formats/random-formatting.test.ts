import {
  CHART_TYPES,
  type ChartElement,
  type Deck,
  type Element,
  emptyDeck,
  newSlide,
  type Paragraph,
  type PictureElement,
  type RunProperties,
  type Shadow,
  type ShapeElement,
  type TableElement,
  must,
} from "@unitext/core/model";
import { resolveGeometry } from "@unitext/core/figures";

import { filesBench, sha256, withoutTags } from "@unitext/core/testing/files";
import {
  frame,
  hardShadow,
  chartWithOptions,
  paragraphWithProperties,
  lookedPicture,
  lookedTable,
  propertiesOf,
  nestedList,
  plainFill,
  stroke,
  textBox,
  wordless,
} from "@unitext/core/testing/formatting";
import fc from "fast-check";
import { PNG } from "pngjs";
import SvgPath from "svgpath";
import { WRITERS } from "./index";

/** Forms of either standard; a box with words in it is a text. */
const FORMS = [
  "roundRect",
  "ellipse",
  "triangle",
  "diamond",
  "hexagon",
  "star5",
  "rightArrow",
  "leftRightArrow",
  "chevron",
  "cloud",
  "heart",
  "donut",
  "wedgeRoundRectCallout",
  "can",
  "flowChartDecision",
  "pie",
  "moon",
];
/** The box around a path, by its ends: arcs of a form end where it is widest. */
function boundsOf(d: string): { left: number; top: number; right: number; bottom: number } {
  const [xs, ys]: [number[], number[]] = [[], []];
  new SvgPath(d)
    .abs()
    .unarc()
    .iterate(([, ...values]) => {
      for (const [nth, value] of (values as number[]).entries()) (nth % 2 ? ys : xs).push(value);
    });
  return { left: Math.min(...xs), top: Math.min(...ys), right: Math.max(...xs), bottom: Math.max(...ys) };
}

// What one says of looks at random, written in a format, is what another program finds there: the tags and metadata in which Unitext keeps its own are taken out.
const photo = new Uint8Array(PNG.sync.write(new PNG({ width: 40, height: 30 })));
const bench = filesBench(photo);
type Format = "pptx" | "odp";
/** A package has a master and layouts that are written each time. */
const RUNS: Record<Format, number> = { pptx: 50, odp: 150 };
const FORMATS = ["pptx", "odp"] as const;
const base: RunProperties = { size: 18, font: "Arimo", colour: "#000000" };
const deckOf = (element: Element): Deck => ({
  ...emptyDeck("d", "Looks"),
  styles: { s: [{ run: base }] },
  assets: { "dune.png": { sha256: sha256(photo), mediaType: "image/png", width: 40, height: 30 } },
  slides: [{ ...newSlide("s", "blank"), elements: [element] }],
});
const throughDeck = (deck: Deck, format: Format): Deck =>
  bench.read(withoutTags(WRITERS[format].write(deck, bench.context) as Uint8Array), `deck.${format}`).deck;

/** How many slides a file has, each with an element of its own: a package is written and read once for all of them. */
const TOGETHER = 10;

/** Tries elements at random, each on a slide: `check` gets the deck of each as a file gives it back, and as it was. */
function throughFiles(
  format: Format,
  elements: fc.Arbitrary<Element>,
  check: (found: Deck, given: Deck) => void,
  runs = RUNS[format],
): void {
  fc.assert(
    fc.property(fc.array(elements, { minLength: TOGETHER, maxLength: TOGETHER }), (several) => {
      const decks = several.map(deckOf);
      const slides = decks.map(({ slides: [slide] }, nth) => ({ ...must(slide), id: `s${nth}` }));
      const found = throughDeck({ ...must(decks[0]), slides }, format);
      decks.forEach((given, nth) => {
        check({ ...found, slides: [must(found.slides[nth])] }, given);
      });
    }),
    { numRuns: Math.ceil(runs / TOGETHER) },
  );
}

/** What holds where nothing is said (ECMA-376-1, 21.1.2.2.7 and 21.1.2.3.9; OpenDocument 1.3, part 3, 20). */
const STANDS = {
  before: { points: 0 },
  after: { points: 0 },
  line: { times: 1 },
  left: 0,
  right: 0,
  first: 0,
  tabs: [],
};
function paragraphsOf(deck: Deck) {
  return (propertiesOf(deck).text as unknown as Paragraph[]).map(({ kind, align, properties, runs }) => {
    const { direction: _, bullet, ...rest } = properties ?? {};
    return {
      kind,
      align,
      properties: { ...STANDS, ...rest, ...(kind === "plain" ? {} : { bullet: shownBullet(bullet) }) },
      runs: joined(
        runs.map(({ text, marks = [], properties: own }) => ({
          text,
          marks: [...new Set(marks)].sort(),
          properties: { ...own },
        })),
      ),
    };
  });
}
const shownBullet = (bullet: object | undefined) =>
  Object.fromEntries(Object.entries(bullet ?? {}).filter(([name]) => name !== "font"));
/** Runs that look alike are one. */
function joined<T extends { text: string }>(runs: readonly T[]): T[] {
  const made: T[] = [];
  for (const run of runs) {
    const last = made.at(-1);
    const { text: _, ...look } = run;
    const { text: __, ...before } = last ?? run;
    if (last && JSON.stringify(sorted(look)) === JSON.stringify(sorted(before)))
      made[made.length - 1] = { ...last, text: last.text + run.text };
    else made.push(run);
  }
  return made;
}
const sorted = (value: unknown): unknown =>
  Array.isArray(value)
    ? value.map(sorted)
    : value && typeof value === "object"
      ? Object.fromEntries(
          Object.entries(value)
            .sort(([a], [b]) => (a < b ? -1 : 1))
            .map(([name, inner]) => [name, sorted(inner)]),
        )
      : value;
/** Lengths are written in whole EMU or hundredths of a point: numbers that differ by a hundredth or two are the same. */
const near = (found: unknown, wanted: unknown): unknown => {
  if (typeof found === "number" && typeof wanted === "number") return Math.abs(found - wanted) < 0.03 ? wanted : found;
  if (Array.isArray(found) && Array.isArray(wanted)) return found.map((one, nth) => near(one, wanted[nth]));
  if (found && wanted && typeof found === "object" && typeof wanted === "object")
    return Object.fromEntries(
      Object.entries(found).map(([name, one]) => [name, near(one, (wanted as Record<string, unknown>)[name])]),
    );
  return found;
};
const offsets = ({ distance, direction }: Shadow) => ({
  right: distance * Math.cos((direction * Math.PI) / 180),
  down: distance * Math.sin((direction * Math.PI) / 180),
});
const alike = (found: unknown, wanted: unknown) => expect(near(sorted(found), sorted(wanted))).toEqual(sorted(wanted));

describe.each(FORMATS)("looks at random in a .%s", (format) => {
  it("of paragraphs and their runs", () => {
    throughFiles(
      format,
      fc.tuple(fc.array(paragraphWithProperties, { minLength: 1, maxLength: 3 }), frame).map(
        ([text, at]): Element => ({
          kind: "text",
          id: "t",
          slot: null,
          frame: at,
          style: "s",
          box: { insets: [0, 0, 0, 0], fit: "none" },
          text,
        }),
      ),
      (found, given) => alike(paragraphsOf(found), paragraphsOf(given)),
    );
  });

  it("of lines without words between others and after them", () => {
    throughFiles(
      format,
      fc
        .tuple(
          paragraphWithProperties,
          fc.array(fc.oneof(paragraphWithProperties, wordless), { minLength: 1, maxLength: 4 }),
          frame,
        )
        .map(
          ([first, rest, at]): Element => ({
            kind: "text",
            id: "t",
            slot: null,
            frame: at,
            style: "s",
            box: { insets: [0, 0, 0, 0], fit: "none" },
            text: [first, ...rest],
          }),
        ),
      (found, given) => alike(paragraphsOf(found), paragraphsOf(given)),
    );
  });

  it("of boxes, what fills and lines them, and their shadows", () => {
    const shown = (deck: Deck) => {
      const {
        frame: at,
        box,
        fill,
        stroke: line,
        shadow,
        rotation,
      } = propertiesOf(deck) as Record<string, object> & { box?: { anchor?: string } };
      // An .odp says how far a shadow falls to the right and down.
      const falls = shadow && { ...shadow, distance: undefined, direction: undefined, ...offsets(shadow as Shadow) };
      return {
        frame: at,
        fill,
        stroke: line,
        shadow: falls,
        rotation: rotation ?? 0,
        box: { ...box, anchor: box?.anchor ?? "top" },
      };
    };
    throughFiles(
      format,
      fc
        .tuple(
          frame,
          textBox,
          fc.option(plainFill, { nil: undefined }),
          fc.option(stroke(false), { nil: undefined }),
          fc.option(hardShadow, { nil: undefined }),
          fc.constantFrom(0, 15, 90, 200, 345),
        )
        .map(
          ([at, box, fill, line, shadow, rotation]): Element =>
            ({
              kind: "text",
              id: "t",
              slot: null,
              frame: at,
              style: "s",
              box,
              ...(fill ? { fill } : {}),
              ...(line ? { stroke: line } : {}),
              ...(fill && shadow ? { shadow } : {}),
              ...(rotation ? { rotation } : {}),
              text: [{ kind: "plain", level: 0, runs: [{ text: "word" }] }],
            }) as Element,
        ),
      (found, given) => alike(shown(found), shown(given)),
    );
  });

  it("of lines and their ends", () => {
    const shown = (deck: Deck) => {
      const { frame: at, stroke: line, flip } = propertiesOf(deck) as Record<string, object>;
      return { frame: at, stroke: line, flip };
    };
    throughFiles(
      format,
      fc.tuple(frame, stroke(true), fc.constantFrom(undefined, "x" as const, "y" as const, "xy" as const)).map(
        ([at, line, flip]): Element =>
          ({
            kind: "shape",
            id: "l",
            slot: null,
            frame: at,
            geometry: { preset: "line" },
            stroke: line,
            ...(flip ? { flip } : {}),
            text: [],
          }) as Element,
      ),
      (found, given) => alike(shown(found), shown(given)),
    );
  });

  it("of nested lists: kinds, levels and words", () => {
    const shown = (deck: Deck) =>
      (propertiesOf(deck).text as Paragraph[]).map(({ kind, level, runs }) => ({
        kind,
        level,
        words: runs.map(({ text }) => text).join(""),
      }));
    throughFiles(
      format,
      nestedList.map(
        (text): Element => ({
          kind: "text",
          id: "t",
          slot: null,
          frame: { x: 40, y: 40, width: 400, height: 300 },
          style: "s",
          box: { insets: [0, 0, 0, 0], fit: "none" },
          text,
        }),
      ),
      (found, given) => expect(shown(found)).toEqual(shown(given)),
    );
  });

  it("of tables: cells that reach over others, what fills and lines them, widths and heights", () => {
    const shown = (deck: Deck) => {
      const { rows, widths, heights, header } = propertiesOf(deck) as unknown as TableElement;
      return {
        widths,
        heights,
        header,
        rows: rows.map((row) =>
          row.map(
            (cell) =>
              cell && {
                columns: cell.columns ?? 1,
                rows: cell.rows ?? 1,
                fill: cell.fill,
                anchor: cell.anchor ?? "top",
                insets: cell.insets,
                borders: {
                  left: cell.borders?.left ?? null,
                  top: cell.borders?.top ?? null,
                  right: cell.borders?.right ?? null,
                  bottom: cell.borders?.bottom ?? null,
                },
                words: cell.text.map(({ runs }) => runs.map(({ text }) => text).join("")).join("\n"),
              },
          ),
        ),
      };
    };
    throughFiles(
      format,
      lookedTable.map(
        (table): Element =>
          ({
            kind: "table",
            id: "t",
            slot: null,
            style: "s",
            frame: {
              x: 40,
              y: 40,
              width: table.widths.reduce((sum, width) => sum + width, 0),
              height: table.heights.reduce((sum, height) => sum + height, 0),
            },
            align: table.widths.map(() => "start"),
            ...table,
          }) as Element,
      ),
      (found, given) => alike(shown(found), shown(given)),
    );
  });

  it("of pictures: what is cut off, seen through, recoloured, mirrored, turned and lined", () => {
    const shown = (deck: Deck) => {
      const {
        crop,
        opacity,
        recolour,
        flip,
        rotation,
        stroke: line,
        frame: at,
        alt,
      } = propertiesOf(deck) as unknown as PictureElement;
      return { crop, opacity, recolour, flip, rotation, line, at, alt };
    };
    throughFiles(
      format,
      fc.tuple(frame, lookedPicture).map(
        ([at, looks]): Element =>
          ({
            kind: "picture",
            id: "p",
            slot: null,
            frame: at,
            source: "dune.png",
            alt: "A dune",
            ...looks,
          }) as Element,
      ),
      (found, given) => alike(shown(found), shown(given)),
    );
  });

  it("of forms: what they are, how they stand, and their words", () => {
    const shown = (deck: Deck) => {
      const {
        frame: at,
        fill,
        stroke: line,
        rotation,
        flip,
        geometry,
        text,
      } = propertiesOf(deck) as unknown as ShapeElement;
      const outlines = at
        ? resolveGeometry(geometry, at.width, at.height).outlines.map(({ d, fill: filled }) => ({
            filled,
            bounds: boundsOf(d),
          }))
        : [];
      return {
        at,
        fill,
        line,
        rotation: rotation ?? 0,
        flip,
        outlines,
        words: text.map(({ runs }) => runs.map(({ text: words }) => words).join("")),
      };
    };
    throughFiles(
      format,
      fc
        .tuple(
          frame,
          fc.constantFrom(...FORMS),
          plainFill,
          fc.option(stroke(false), { nil: undefined }),
          fc.constantFrom(undefined, "x" as const, "y" as const, "xy" as const),
          fc.constantFrom(0, 30, 275),
          fc.stringMatching(/^[a-z]{0,5}$/),
        )
        .map(
          ([at, preset, fill, line, flip, rotation, words]): Element =>
            ({
              kind: "shape",
              id: "s",
              slot: null,
              frame: at,
              style: "s",
              geometry: { preset },
              fill,
              ...(line ? { stroke: line } : {}),
              ...(flip ? { flip } : {}),
              ...(rotation ? { rotation } : {}),
              text: words ? [{ kind: "plain", level: 0, runs: [{ text: words }] }] : [],
            }) as Element,
        ),
      (found, given) => alike(shown(found), shown(given)),
    );
  });

  it.each(CHART_TYPES)("of charts: %s", (form) => {
    const shown = (deck: Deck) => {
      const {
        kind,
        type: drawn,
        categories,
        series,
        stack,
        title,
        legend,
        labels,
        format: numbers,
        xAxis,
        yAxis,
      } = propertiesOf(deck) as unknown as ChartElement;
      const said = (one: object | undefined) => (one && Object.keys(one).length ? one : undefined);
      return {
        kind,
        drawn,
        categories: form === "scatter" ? [] : categories,
        series: series.map(({ name, values, x, type: own, colour, joined, smooth }) => ({
          name,
          values,
          x,
          own,
          colour,
          joined,
          smooth: smooth ?? false,
        })),
        stack,
        title,
        legend,
        labels,
        numbers: labels || form !== "pie" ? numbers : undefined,
        xAxis: said(xAxis),
        yAxis: said(yAxis),
      };
    };
    throughFiles(
      format,
      chartWithOptions(form).map(
        (chart): Element =>
          ({ id: "c", slot: null, frame: { x: 40, y: 40, width: 400, height: 300 }, ...chart }) as Element,
      ),
      (found, given) => alike(shown(found), shown(given)),
      RUNS[format] / 2,
    );
  });

  it("of groups in groups: who stands with whom, and where", () => {
    // Groups have no names of their own in a deck: what counts is which elements share one, level by level.
    const shown = (deck: Deck) => {
      const elements = deck.slides[0]?.elements ?? [];
      const batch = elements.map(({ groups = [] }) =>
        groups.map((group) => elements.findIndex((other) => other.groups?.includes(group))),
      );
      return {
        batch,
        places: elements.map(({ frame: at, rotation, fill }) => ({ at, rotation: rotation ?? 0, fill })),
      };
    };
    const member = fc.record({
      at: frame,
      fill: plainFill,
      rotation: fc.constantFrom(0, 0, 45, 300),
      deep: fc.integer({ min: 0, max: 2 }),
    });
    fc.assert(
      fc.property(
        fc.array(fc.array(member, { minLength: 1, maxLength: 4 }), { minLength: 1, maxLength: 3 }),
        (sets) => {
          const outer = sets.flatMap((set, nth) =>
            set.map(({ at, fill, rotation, deep }, index) => ({
              id: `s${nth}-${index}`,
              at,
              fill,
              rotation,
              groups: [`g${nth}`, ...(deep ? [`g${nth}-in`, `g${nth}-in-in`].slice(0, deep) : [])],
            })),
          );
          // What lies in a group lies beside what else is in it; a group that holds one thing only is none.
          const ordered = outer.sort((a, b) =>
            a.groups.join() < b.groups.join() ? -1 : a.groups.join() > b.groups.join() ? 1 : 0,
          );
          const count = (group: string) => ordered.filter(({ groups }) => groups.includes(group)).length;
          const whole = ordered
            .map(({ id, at, fill, rotation, groups }) => ({
              kind: "shape",
              id,
              slot: null,
              frame: at,
              geometry: { preset: "ellipse" },
              fill,
              ...(rotation ? { rotation } : {}),
              groups: groups.filter((group) => count(group) > 1),
              text: [],
            }))
            .map(({ groups, ...element }) => (groups.length ? { ...element, groups } : element)) as Element[];
          const deck: Deck = {
            ...deckOf(must(whole[0])),
            slides: [{ ...newSlide("s", "blank"), elements: whole }],
          };
          const found = throughDeck(deck, format);
          alike(shown(found), shown(deck));
        },
      ),
      { numRuns: RUNS[format] },
    );
  });
});
