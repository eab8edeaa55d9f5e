import {
  type Cell,
  type ChartElement,
  type ChartType,
  type Deck,
  DASHES,
  type Fill,
  type Frame,
  type LevelStyle,
  PATTERNS,
  type Paragraph,
  type ParagraphProperties,
  type Run,
  type PictureElement,
  type RunProperties,
  SCHEMES,
  type Series,
  type Shadow,
  type Stroke,
  type TabStop,
  type TextBox,
  must,
} from "@unitext/core/model";
import fc from "fast-check";

/** Numbers that both standards can express: quarters of a point. */
const quarter = (least: number, most: number) =>
  fc.integer({ min: least * 4, max: most * 4 }).map((value) => value / 4);
/** Whole hundredths, as shares. */
const hundredth = (least: number, most: number) =>
  fc.integer({ min: Math.round(least * 100), max: Math.round(most * 100) }).map((value) => value / 100);
const some = <T>(arbitrary: fc.Arbitrary<T>): fc.Arbitrary<T | undefined> => fc.option(arbitrary, { nil: undefined });
/** Returns a record without undefined fields. */
const said = <T extends object>(value: T): T =>
  Object.fromEntries(Object.entries(value).filter(([, one]) => one !== undefined)) as T;

export const colour: fc.Arbitrary<string> = fc
  .integer({ min: 0, max: 0xffffff })
  .map((value) => `#${value.toString(16).padStart(6, "0")}`);
export const frame: fc.Arbitrary<Frame> = fc.record({
  x: quarter(0, 400),
  y: quarter(0, 300),
  width: quarter(40, 500),
  height: quarter(20, 200),
});

export const runLook: fc.Arbitrary<RunProperties> = fc
  .record({
    size: some(quarter(4, 96).map((size) => Math.round(size * 2) / 2)),
    colour: some(colour),
    font: some(fc.constantFrom("Arimo", "Tinos", "Georgia", "Marram Sans")),
    underline: some(
      fc.constantFrom(
        "single" as const,
        "double" as const,
        "heavy" as const,
        "dotted" as const,
        "dashed" as const,
        "wavy" as const,
      ),
    ),
    caps: some(fc.constantFrom("all" as const, "small" as const)),
    highlight: some(colour),
    spacing: some(quarter(-4, 20).filter((value) => value !== 0)),
    rise: some(fc.constantFrom(0.3, -0.25, 0.5)),
  })
  .map(said) as fc.Arbitrary<RunProperties>;

export const tabStops: fc.Arbitrary<TabStop[]> = fc
  .uniqueArray(
    fc.record({
      at: quarter(10, 400),
      align: fc.constantFrom("start" as const, "end" as const, "centre" as const, "decimal" as const),
    }),
    { selector: ({ at }) => at, minLength: 1, maxLength: 4 },
  )
  .map((stops) => stops.sort((a, b) => a.at - b.at).map(({ at, align }) => (align === "start" ? at : { at, align })));

const bullet = (kind: Paragraph["kind"]) =>
  kind === "number"
    ? fc.record({ scheme: fc.constantFrom(...SCHEMES) })
    : fc
        .record({
          character: fc.constantFrom("•", "–", "▪", "→"),
          colour: some(colour),
          size: some(hundredth(0.4, 2).filter((size) => size !== 1)),
        })
        .map(said);

/** A paragraph of a kind, with paragraph properties. */
export const paragraphWithProperties: fc.Arbitrary<Paragraph> = fc
  .constantFrom("plain" as const, "bullet" as const, "number" as const)
  .chain((kind) =>
    fc
      .record({
        properties: fc
          .record({
            before: some(quarter(0, 60).map((points) => ({ points }))),
            after: some(quarter(0, 60).map((points) => ({ points }))),
            line: some(
              fc.oneof(
                hundredth(0.5, 3).map((times) => ({ times })),
                quarter(6, 80).map((points) => ({ points })),
              ),
            ),
            // A bullet needs room beside the text.
            left: kind === "plain" ? some(quarter(0, 120)) : quarter(40, 120),
            right: some(quarter(0, 60)),
            first: kind === "plain" ? some(quarter(-30, 60)) : quarter(-30, 0),
            tabs: some(tabStops),
            bullet: kind === "plain" ? fc.constant(undefined) : bullet(kind),
          })
          .map(said) as fc.Arbitrary<ParagraphProperties>,
        align: some(fc.constantFrom("start" as const, "centre" as const, "end" as const)),
        runs: fc.array(
          fc.record({
            text: fc.stringMatching(/^[a-z]{1,8}$/),
            properties: runLook,
            strong: fc.boolean(),
            emphasis: fc.boolean(),
            strike: fc.boolean(),
          }),
          { minLength: 1, maxLength: 3 },
        ),
      })
      .map(
        ({ properties: look, align, runs }): Paragraph => ({
          kind,
          level: 0,
          ...(align ? { align } : {}),
          ...(Object.keys(look).length ? { properties: look } : {}),
          runs: runs.map(
            ({ text, properties: own, strong, emphasis, strike }): Run => ({
              text,
              ...(strong || emphasis || strike
                ? {
                    marks: [
                      ...(strong ? ["strong" as const] : []),
                      ...(emphasis ? ["emphasis" as const] : []),
                      ...(strike ? ["strike" as const] : []),
                    ],
                  }
                : {}),
              ...(Object.keys(own).length ? { properties: own } : {}),
            }),
          ),
        }),
      ),
  );

/** An empty paragraph with run properties. */
export const wordless: fc.Arbitrary<Paragraph> = runLook.map((words) => ({
  kind: "plain",
  level: 0,
  runs: [],
  ...(Object.keys(words).length ? { properties: { words } } : {}),
}));

export const textBox: fc.Arbitrary<TextBox> = fc
  .record({
    insets: fc.tuple(quarter(0, 40), quarter(0, 20), quarter(0, 40), quarter(0, 20)),
    anchor: some(fc.constantFrom("top" as const, "middle" as const, "bottom" as const)),
    columns: some(fc.integer({ min: 2, max: 5 })),
    fit: fc.constantFrom("shrink" as const, "grow" as const, "none" as const),
    wrap: some(fc.constant(false)),
  })
  .chain((box) => (box.columns ? quarter(0, 40).map((gap) => ({ ...box, gap })) : fc.constant(box)))
  .map(said) as fc.Arbitrary<TextBox>;

/** The two ends of a gradient: colours, opacities, and where it starts (linear) or ends (radial). */
const twoStops = fc.record({
  from: colour,
  to: colour,
  first: some(hundredth(0, 0.95)),
  second: some(hundredth(0, 0.95)),
  begins: hundredth(0, 0.9),
});
/** Fills that both standards can express: gradients of two colours, or from the middle to both sides. */
export const plainFill: fc.Arbitrary<Fill> = fc.oneof(
  fc.record({ colour, opacity: some(hundredth(0.05, 0.95)) }).map((fill) => said({ kind: "solid" as const, ...fill })),
  fc
    .record({ of: twoStops, angle: fc.integer({ min: 0, max: 71 }).map((value) => value * 5) })
    .map(({ of: { from, to, first, second, begins }, angle }) => ({
      kind: "gradient" as const,
      form: "linear" as const,
      angle,
      stops: [said({ at: begins, colour: from, opacity: first }), said({ at: 1, colour: to, opacity: second })],
    })),
  fc
    .record({ of: twoStops, angle: fc.integer({ min: 0, max: 71 }).map((value) => value * 5) })
    .map(({ of: { from, to, first, second }, angle }) => ({
      kind: "gradient" as const,
      form: "linear" as const,
      angle,
      stops: [
        said({ at: 0, colour: from, opacity: first }),
        said({ at: 0.5, colour: to, opacity: second }),
        said({ at: 1, colour: from, opacity: first }),
      ],
    })),
  twoStops.map(({ from, to, first, second, begins }) => ({
    kind: "gradient" as const,
    form: "radial" as const,
    angle: 0,
    stops: [said({ at: 0, colour: from, opacity: first }), said({ at: 1 - begins, colour: to, opacity: second })],
  })),
  fc
    .record({
      pattern: fc.constantFrom(...PATTERNS.filter((pattern) => pattern !== "dots")),
      fore: colour,
      back: colour,
    })
    .map((fill) => ({ kind: "pattern" as const, ...fill })),
) as fc.Arbitrary<Fill>;

const lineEnd = fc.record({
  form: fc.constantFrom("triangle" as const, "open" as const, "barbed" as const, "oval" as const, "diamond" as const),
  size: fc.constantFrom(2, 3, 5),
});
export const stroke = (ends: boolean): fc.Arbitrary<Stroke> =>
  fc
    .record({
      colour,
      width: quarter(0.25, 20),
      opacity: some(hundredth(0.05, 0.95)),
      dash: some(fc.constantFrom(...DASHES)),
      head: ends ? some(lineEnd) : fc.constant(undefined),
      tail: ends ? some(lineEnd) : fc.constant(undefined),
    })
    .map(said) as fc.Arbitrary<Stroke>;
export const hardShadow: fc.Arbitrary<Shadow> = fc.record({
  colour,
  opacity: hundredth(0.1, 1),
  blur: fc.constant(0),
  distance: quarter(1, 30),
  direction: fc.integer({ min: 0, max: 71 }).map((value) => value * 5),
});

/** Paragraphs of nested lists: an item is at most one level deeper than the one before. */
export const nestedList: fc.Arbitrary<Paragraph[]> = fc
  .array(
    fc.record({
      step: fc.integer({ min: -3, max: 1 }),
      kind: fc.constantFrom("bullet" as const, "number" as const),
      text: fc.stringMatching(/^[a-z]{1,8}$/),
    }),
    { minLength: 1, maxLength: 9 },
  )
  .map((items) => {
    let level = 0;
    return items.map(({ step, kind, text }, nth): Paragraph => {
      level = nth ? Math.max(0, Math.min(5, level + step)) : 0;
      return { kind, level, runs: [{ text }] };
    });
  });

const border = fc.option(
  fc
    .record({ colour, width: quarter(0.25, 8), dash: some(fc.constantFrom("dot" as const, "dash" as const)) })
    .map(said) as fc.Arbitrary<Stroke>,
  { nil: null },
);
const cellFill: fc.Arbitrary<Fill> = fc.record({ colour }).map((fill) => ({ kind: "solid" as const, ...fill }));
const cell: fc.Arbitrary<Cell> = fc
  .record({
    text: fc.stringMatching(/^[a-z]{0,8}$/),
    fill: some(cellFill),
    anchor: some(fc.constantFrom("middle" as const, "bottom" as const)),
    insets: fc.tuple(quarter(0, 20), quarter(0, 20), quarter(0, 20), quarter(0, 20)),
    borders: fc.record({ left: border, top: border, right: border, bottom: border }),
  })
  .map(({ text, ...rest }) =>
    said({ ...rest, text: text ? [{ kind: "plain" as const, level: 0, runs: [{ text }] }] : [] }),
  ) as fc.Arbitrary<Cell>;
/** A table with widths and heights of its own; `merge` says which cell spans its neighbours to the right and below. */
export const lookedTable = fc
  .tuple(fc.integer({ min: 1, max: 4 }), fc.integer({ min: 1, max: 4 }))
  .chain(([wide, high]) =>
    fc.record({
      rows: fc.array(fc.array(cell, { minLength: wide, maxLength: wide }), { minLength: high, maxLength: high }),
      widths: fc.array(quarter(20, 120), { minLength: wide, maxLength: wide }),
      heights: fc.array(quarter(12, 60), { minLength: high, maxLength: high }),
      merge: some(
        fc.record({
          x: fc.integer({ min: 0, max: wide - 1 }),
          y: fc.integer({ min: 0, max: high - 1 }),
          columns: fc.integer({ min: 1, max: wide }),
          rows: fc.integer({ min: 1, max: high }),
        }),
      ),
      header: fc.integer({ min: 0, max: 1 }),
    }),
  )
  .map(({ rows, widths, heights, merge, header }) => {
    const [across, down] = merge
      ? [Math.min(merge.columns, widths.length - merge.x), Math.min(merge.rows, heights.length - merge.y)]
      : [1, 1];
    const covered = (x: number, y: number) =>
      merge !== undefined &&
      x >= merge.x &&
      x < merge.x + across &&
      y >= merge.y &&
      y < merge.y + down &&
      !(x === merge.x && y === merge.y);
    const made = rows.map((row, y) =>
      row.map((one, x): Cell | null =>
        covered(x, y)
          ? null
          : merge?.x === x && merge.y === y
            ? { ...one, ...(across > 1 ? { columns: across } : {}), ...(down > 1 ? { rows: down } : {}) }
            : one,
      ),
    );
    return { rows: made, widths, heights, header: Math.min(header, heights.length) };
  });

/** What can be done to a picture in its frame. */
export const lookedPicture: fc.Arbitrary<Partial<PictureElement>> = fc
  .record({
    crop: some(
      fc
        .record({
          left: hundredth(-0.2, 0.4),
          top: hundredth(-0.2, 0.4),
          right: hundredth(0, 0.4),
          bottom: hundredth(0, 0.4),
        })
        .filter((crop) => Object.values(crop).some((side) => side !== 0)),
    ),
    opacity: some(hundredth(0.05, 0.95)),
    recolour: some(fc.constantFrom("grey" as const, "mono" as const, "washout" as const)),
    flip: some(fc.constantFrom("x" as const, "y" as const, "xy" as const)),
    rotation: some(fc.integer({ min: 1, max: 71 }).map((value) => value * 5)),
    stroke: some(stroke(false)),
  })
  .map(said) as fc.Arbitrary<Partial<PictureElement>>;

const word = fc.stringMatching(/^[A-Z][a-z]{1,7}$/);
/** Values with two decimals, as in spreadsheets; some are missing, the last is there. */
const valuesOf = (count: number, missing: boolean) =>
  fc
    .tuple(
      fc.array(missing ? fc.option(quarter(-50, 200), { nil: null, freq: 6 }) : quarter(1, 200), {
        minLength: count - 1,
        maxLength: count - 1,
      }),
      quarter(1, 200),
    )
    .map(([values, last]) => [...values, last]);
const axis = fc.record({ title: some(word), min: some(quarter(-100, -60)), max: some(quarter(250, 400)) }).map(said);

/** A chart of a type with data and options. */
export const chartWithOptions = (type: ChartType): fc.Arbitrary<Omit<ChartElement, "id" | "slot" | "frame">> => {
  const round = type === "pie" || type === "doughnut";
  const lined = type === "line";
  return fc
    .record({
      count: fc.integer({ min: 1, max: 6 }),
      rows: fc.integer({ min: round ? 1 : type === "combined" ? 2 : 1, max: round ? 1 : 4 }),
    })
    .chain(({ count, rows }) =>
      fc.record({
        categories: fc.uniqueArray(word, { minLength: count, maxLength: count }),
        series: fc.uniqueArray(word, { minLength: rows, maxLength: rows }).chain((names) =>
          fc.tuple(
            ...names.map((name, nth) =>
              fc
                .record({
                  values: valuesOf(count, !round),
                  x: type === "scatter" ? valuesOf(count, false) : fc.constant(undefined),
                  type:
                    type === "combined"
                      ? fc.constant(nth % 2 ? ("line" as const) : ("column" as const))
                      : fc.constant(undefined),
                  // What has a default (colours, the place of the legend) a file must set.
                  colour: round ? fc.constant(undefined) : colour,
                  joined: lined
                    ? some(fc.constant(false))
                    : type === "scatter"
                      ? some(fc.constant(true))
                      : fc.constant(undefined),
                  smooth: lined || type === "scatter" ? some(fc.constant(true)) : fc.constant(undefined),
                })
                .map(({ joined, smooth, ...one }) => ({
                  ...one,
                  joined,
                  ...(joined === false || (type === "scatter" && !joined) ? {} : { smooth }),
                }))
                .map((one): Series => said({ name, ...one }) as Series),
            ),
          ),
        ),
        stack:
          type === "column" || type === "bar" || type === "area"
            ? some(fc.constantFrom("sum" as const, "share" as const))
            : fc.constant(undefined),
        title: some(word),
        legend: fc.constantFrom("top" as const, "right" as const, "bottom" as const, "left" as const, "none" as const),
        labels: some(fc.constantFrom("value" as const, ...(round ? ["share" as const] : []))),
        format: some(fc.constantFrom("0.0", "0.00", "#,##0", "0.0%")),
        xAxis: round
          ? fc.constant(undefined)
          : some(
              fc
                .record({
                  title: some(word),
                  reversed: type === "scatter" ? fc.constant(undefined) : some(fc.constant(true)),
                })
                .map(said),
            ),
        yAxis: round ? fc.constant(undefined) : some(axis),
      }),
    )
    .map((chart) => said({ kind: "chart" as const, type, ...chart })) as unknown as fc.Arbitrary<
    Omit<ChartElement, "id" | "slot" | "frame">
  >;
};

/**
 * Returns the first element of a deck with the properties of its style's levels under those of its paragraphs and runs.
 */
export function propertiesOf(deck: Deck): Record<string, unknown> {
  const element = must(deck.slides[0]?.elements[0]);
  const levels = deck.styles?.[element.style ?? ""] ?? [];
  const text =
    element.kind === "text" || element.kind === "shape"
      ? element.text.map(({ properties, runs, ...paragraph }) => {
          const level: LevelStyle = levels[Math.min(paragraph.level, levels.length - 1)] ?? {};
          return {
            ...paragraph,
            align: paragraph.align ?? level.align ?? "start",
            properties: {
              ...level.paragraph,
              ...properties,
              bullet: properties?.bullet ?? level.paragraph?.bullet ?? {},
              ...(runs.length ? {} : { words: { ...level.run, ...properties?.words } }),
            },
            runs: runs.map((run) => ({
              ...run,
              marks: [
                ...(run.marks ?? []),
                ...(level.strong ? ["strong"] : []),
                ...(level.emphasis ? ["emphasis"] : []),
              ],
              properties: { ...level.run, ...run.properties },
            })),
          };
        })
      : undefined;
  const { id: _, sourceShape: __, style: ___, ...rest } = element;
  return { ...rest, ...(text ? { text } : {}) };
}
