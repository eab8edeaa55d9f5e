import {
  apply,
  type Change,
  copies,
  duplicate,
  hide,
  moveTo,
  makeDetail,
  rearrange,
  remove,
  step,
  moveOut,
} from "@unitext/core/edit";
import {
  type ArrangementName,
  ARRANGEMENTS,
  type Cell,
  type Deck,
  type Element,
  emptyDeck,
  footnote,
  type Mark,
  MARKS,
  newSlide,
  type Paragraph,
  readingOrder,
  type RichText,
  run,
  type Run,
  type Slide,
  type SlideProperties,
  slotsOf,
  THEMES,
  withSteps,
  must,
} from "@unitext/core/model";
import { normalCell, normalText } from "@unitext/core/text";
import fc from "fast-check";

/** Returns ids in sequence, so that a failing example can be read. */
export function idSource(prefix = "n"): () => string {
  let next = 0;
  return () => `${prefix}${++next}`;
}

const WORDS = [
  "tide",
  "dune",
  "storm",
  "marram",
  "gauge",
  "Level 2.4 m",
  "north-west",
  "a*b",
  "1. not a list",
  "# no heading",
  "x_y_z",
  "[brackets]",
  "<tag>",
  "50 %",
  "«quay»",
  "παλίρροια",
  "прилив",
  "مدّ",
  "ים",
  "潮汐",
  "e\u0301",
  "`tick`",
  "a|b",
  "~~",
  ":colon:",
  "&amp;",
  "- dash",
  "+",
  "!",
  "10:am",
  "::",
];

const words = fc.array(fc.constantFrom(...WORDS), { minLength: 1, maxLength: 5 }).map((list) => list.join(" "));
const marks = fc
  .subarray(
    MARKS.filter((mark) => mark !== "formula"),
    { maxLength: 2 },
  )
  .filter((list) => !(list.includes("code") && list.length > 1)) as fc.Arbitrary<Mark[]>;
const link = fc.option(fc.constantFrom("https://example.org/tides", "mailto:station@example.org"), {
  nil: undefined,
  freq: 6,
});
const TEX = ["x^2", "\\frac{a}{b}", "h = h_0 + \\sum_i a_i \\cos(\\omega_i t)", "\\alpha \\le 1"];

const plainRun: fc.Arbitrary<Run> = fc
  .tuple(words, marks, link)
  .map(([text, list, to]) => run(list.includes("code") ? text.replace(/`/g, "'") : text, list, to));
const anyRun: fc.Arbitrary<Run> = fc.oneof(
  { weight: 12, arbitrary: plainRun },
  { weight: 1, arbitrary: fc.constantFrom(...TEX).map((tex) => run(tex, ["formula"])) },
  {
    weight: 1,
    arbitrary: fc
      .array(plainRun, { minLength: 1, maxLength: 2 })
      .map((list) => footnote(list.flatMap((item, index) => (index ? [run(" "), item] : [item])))),
  },
);
const runs = fc
  .array(anyRun, { minLength: 1, maxLength: 3 })
  .map((list) => list.flatMap((item, index) => (index ? [run(" "), item] : [item])));

/** Text as the text form can hold it. */
export const richText: fc.Arbitrary<RichText> = fc
  .array(
    fc.record({
      kind: fc.constantFrom<Paragraph["kind"]>("plain", "bullet", "number"),
      level: fc.integer({ min: 0, max: 3 }),
      align: fc.option(fc.constantFrom<Paragraph["align"]>("start", "centre", "end"), { nil: undefined, freq: 5 }),
      runs,
    }),
    { maxLength: 5 },
  )
  .map((list) =>
    normalText(list.map(({ align, ...paragraph }) => ({ ...paragraph, ...(align ? { align } : {}) })) as RichText),
  );

const oneLine: fc.Arbitrary<RichText> = runs.map((list) => normalText([{ kind: "plain", level: 0, runs: list }]));
const cell = fc.option(oneLine, { nil: [] as RichText, freq: 4 }).map((text) => ({ text: normalCell(text) }));
const line = words.map((text) => text.replace(/`/g, "'"));

type Bare = Record<string, unknown> & { kind: Element["kind"] };
/** Elements that are not text. */
const figure: fc.Arbitrary<Bare> = fc.oneof(
  fc
    .record({
      rows: fc.integer({ min: 1, max: 3 }),
      columns: fc.integer({ min: 1, max: 3 }),
      header: fc.integer({ min: 0, max: 2 }),
      caption: fc.option(words, { nil: undefined }),
      cells: fc.array(cell, { minLength: 9, maxLength: 9 }),
      align: fc.array(fc.constantFrom("start", "centre", "end"), { minLength: 3, maxLength: 3 }),
      wide: fc.boolean(),
    })
    .map(({ rows, columns, header, caption, cells, align, wide }) => {
      const grid: (Cell | null)[][] = Array.from({ length: rows }, (_, y) =>
        Array.from({ length: columns }, (_, x) => must(cells[y * columns + x])),
      );
      if (wide && columns > 1) {
        grid[0] = [{ ...must(grid[0]?.[0]), columns: 2 }, null, ...(grid[0] as Cell[]).slice(2)];
      }
      // Without a header the first row must not be empty, or it would be read as the empty header that Markdown needs.
      if (grid[0]?.every((one) => !one?.text.length))
        (grid[0] as Cell[])[0] = { ...must(grid[0][0]), text: [{ kind: "plain", level: 0, runs: [run("first")] }] };
      return {
        kind: "table" as const,
        rows: grid,
        header: Math.min(header, rows),
        align: align.slice(0, columns),
        ...(caption ? { caption } : {}),
      };
    }),
  fc
    .record({ language: fc.constantFrom("", "js", "python"), lines: fc.array(line, { minLength: 1, maxLength: 3 }) })
    .map(({ language, lines }) => ({ kind: "code" as const, language, text: lines.join("\n") })),
  fc.constantFrom(...TEX).map((tex) => ({ kind: "formula" as const, tex })),
  fc
    .record({
      type: fc.constantFrom("steps", "cycle", "hierarchy", "pyramid", "relation"),
      items: fc.array(
        oneLine.filter((text) => text.length > 0),
        { minLength: 1, maxLength: 3 },
      ),
    })
    .map(({ type, items }) => ({
      kind: "diagram" as const,
      type,
      text: normalText(items.flatMap((text) => text.map((paragraph) => ({ ...paragraph, kind: "bullet" as const })))),
    })),
  fc
    .record({
      type: fc.constantFrom("column", "bar", "line", "pie"),
      names: fc.array(fc.constantFrom("Jan", "Feb", "North gauge"), { minLength: 1, maxLength: 3 }),
      values: fc.array(fc.option(fc.integer({ min: -50, max: 900 }).map((value) => value / 10)), {
        minLength: 6,
        maxLength: 6,
      }),
    })
    .map(({ type, names, values }) => ({
      kind: "chart" as const,
      type,
      categories: names,
      series: [
        { name: "Level", values: names.map((_, at) => (at === 0 ? 1.5 : (values[at] ?? null))) },
        { name: "Surge", values: names.map((_, at) => (at === 0 ? 2 : (values[at + 3] ?? null))) },
      ],
    })),
);
const picture: fc.Arbitrary<Bare> = fc
  .record({
    alt: fc.constantFrom("A dune", "Tide [gauge]", ""),
    caption: fc.option(
      words.map((text) => text.replace(/["\\]/g, "")),
      { nil: undefined },
    ),
    width: fc.option(fc.integer({ min: 10, max: 100 }), { nil: undefined }),
    link,
  })
  .map(({ alt, caption, width, link: to }) => ({
    kind: "picture" as const,
    source: "pictures/dune.png",
    alt,
    ...(caption ? { caption } : {}),
    ...(width ? { width } : {}),
    ...(to ? { link: to } : {}),
  }));
const look: fc.Arbitrary<SlideProperties> = fc
  .record({
    background: fc.option(fc.oneof(fc.constant({ colour: "#20302e" }), fc.constant({ picture: "pictures/dune.png" })), {
      nil: undefined,
      freq: 3,
    }),
    transition: fc.option(
      fc.record({
        kind: fc.constantFrom("fade" as const, "push" as const, "wipe" as const),
        seconds: fc.constantFrom(0.5, 1, 2.5),
      }),
      { nil: undefined, freq: 3 },
    ),
    delay: fc.option(fc.constantFrom(5, 12.5), { nil: undefined, freq: 3 }),
  })
  .map((given) => Object.fromEntries(Object.entries(given).filter(([, value]) => value !== undefined)));

const isFigureSlot = (slot: string) => ["table", "chart", "diagram", "code", "formula"].includes(slot);

/** A slide with text in its slots, figures, notes, and sometimes pictures, steps and own properties. */
export function slideArbitrary(newId: () => string): fc.Arbitrary<Slide> {
  return fc.constantFrom(...(Object.keys(ARRANGEMENTS) as ArrangementName[])).chain((arrangement) =>
    fc
      .record({
        title: oneLine,
        texts: fc.array(richText, { minLength: 4, maxLength: 4 }),
        notes: richText,
        hidden: fc.boolean(),
        pictures: fc.array(picture, { maxLength: 2 }),
        figures: fc.array(figure, { minLength: 1, maxLength: 2 }),
        steps: fc.option(fc.constantFrom("each" as const, "main" as const), { nil: undefined, freq: 2 }),
        own: look,
      })
      .map(({ title, texts, notes, hidden, pictures, figures, steps, own }) => {
        const widths = arrangement === "comparison" && hidden ? { widths: [40, 60] } : {};
        const slide: Slide = { ...newSlide(newId(), arrangement), notes, hidden, ...own, ...widths };
        const add = (element: Bare, slot: string | null) =>
          slide.elements.push({ ...element, id: newId(), slot } as Element);
        slotsOf(arrangement).forEach(([slot, role], index) => {
          if (role === "picture") {
            for (const element of slot === "pictures" ? pictures : pictures.slice(0, 1)) add(element, slot);
            return;
          }
          if (isFigureSlot(slot)) {
            const [own] = figures.filter(({ kind }) => kind === slot);
            if (own) add(own, slot);
            return;
          }
          const text = slot === "title" ? title : (texts[index] ?? []);
          if (text.length)
            add(
              {
                kind: "text",
                text: steps && slot !== "title" ? withSteps(normalText(text), steps) : text,
                ...(steps && slot !== "title" ? { steps: true } : {}),
              },
              slot,
            );
          if (slot === "body" && arrangement === "points" && figures[1]) {
            add(figures[1], "body");
            if (texts[3]?.length)
              add(
                {
                  kind: "text",
                  text: steps ? withSteps(normalText(texts[3]), steps) : texts[3],
                  ...(steps ? { steps: true } : {}),
                },
                "body",
              );
          }
        });
        // In reading order, like everything that is read.
        return { ...slide, elements: readingOrder(slide) };
      }),
  );
}

/** A deck with details under some of its slides. */
export function deckArbitrary(options: { minLength?: number; maxLength?: number } = {}): fc.Arbitrary<Deck> {
  const newId = idSource("s");
  return fc
    .tuple(
      fc.array(fc.tuple(slideArbitrary(newId), fc.integer({ min: 0, max: 2 })), {
        minLength: options.minLength ?? 0,
        maxLength: options.maxLength ?? 7,
      }),
      fc.constantFrom(...Object.values(THEMES)),
    )
    .map(([list, theme]) => {
      const open: string[] = [];
      const slides = list.map(([slide, depth]) => {
        open.length = Math.min(open.length, depth);
        const parent = open.at(-1) ?? null;
        open.push(slide.id);
        return { ...slide, parent };
      });
      return { ...emptyDeck("deck", "Tides & dunes"), theme, slides };
    });
}

/** A change that a user could make to the deck; undefined when there is nothing to do. */
export function actOn(deck: Deck, kind: number, pick: readonly number[], newId: () => string): Change | undefined {
  const { slides } = deck;
  const ids = [...new Set(pick.slice(0, 3).map((at) => slides[at % Math.max(1, slides.length)]?.id))].filter(
    (id): id is string => !!id,
  );
  const first = slides.find(({ id }) => id === ids[0]);
  if (!first) return { kind: "insertSlide", slide: newSlide(newId(), "points"), place: { parent: null, after: null } };
  const text = first.elements.find((element) => element.kind === "text");
  const other = must(slides[(pick[3] ?? 0) % slides.length]);
  const acts: (() => Change | undefined)[] = [
    () => step(deck, ids, -1),
    () => step(deck, ids, 1),
    () => makeDetail(deck, ids),
    () => moveOut(deck, ids),
    () => duplicate(deck, ids, newId, 1),
    () => hide(ids, (pick[0] ?? 0) % 2 === 0),
    () => remove(ids),
    () => rearrange(first, must((Object.keys(ARRANGEMENTS) as ArrangementName[])[(pick[3] ?? 0) % 10])),
    () =>
      text
        ? {
            kind: "setText",
            slide: first.id,
            element: text.id,
            text: [{ kind: "plain", level: 0, runs: [run("new")] }],
          }
        : undefined,
    () => ({ kind: "setNotes", slide: first.id, notes: [{ kind: "plain", level: 0, runs: [run("note")] }] }),
    () => (ids.includes(other.id) ? undefined : moveTo(deck, ids, { parent: other.parent, after: other.id })),
    () => ({ kind: "setProperties", properties: { ...deck.properties, title: `T${pick[0]}` } }),
    () => ({ kind: "setTheme", theme: THEMES.chalk }),
    () => ({ kind: "setPage", page: { width: 720, height: 540 } }),
    () => ({ kind: "insertSlide", slide: newSlide(newId(), "points"), place: { parent: other.id, after: null } }),
    () => {
      const [comment] = first.comments ?? [];
      const said = { id: newId(), author: "Reader", text: "Why?" };
      if (!comment || (pick[0] ?? 0) % 4 === 0) return { kind: "putComment", slide: first.id, comment: said };
      const on = { slide: first.id, comment: comment.id };
      const changes: Change[] = [
        { kind: "putReply", ...on, reply: said },
        { kind: "setDone", ...on, done: comment.done !== true },
        { kind: "removeComment", ...on },
      ];
      return changes[(pick[0] ?? 0) % 3];
    },
  ];
  return acts[kind % acts.length]?.();
}

export { apply, copies };
export { everything, FILES } from "./everything";
export { linked } from "./linked";
export { unresolved } from "./opendocument";
