import {
  bindingsOn,
  type Deck,
  emptyDeck,
  mapSlideTexts,
  newSlide,
  plainText,
  type Slide,
  textOf,
  must,
} from "@unitext/core/model";
import { tally } from "@unitext/core/tally";
import {
  type BindRequest,
  bindCells,
  checkBindings,
  fittingUse,
  openWorkbook,
  putOnSlide,
  refreshDeck,
  resolveRange,
  slideWithBound,
  type SourceAtHand,
  takeRange,
  withBindingAt,
} from "./index";

const FIRST = "Station,January,February,March\nQuay,4.1,4.2,4.6\nBar,3.2,3.4,3.1\n";
let serial = 0;
const newId = () => `id${++serial}`;
const at = (text: string, name = "gauges.csv"): SourceAtHand => ({
  workbook: openWorkbook(new TextEncoder().encode(text), name),
  version: `sha-${text.length}-${text.charCodeAt(text.length - 2)}`,
});
const bound = (source: SourceAtHand, range: string, more: Partial<BindRequest> = {}) =>
  bindCells(
    source,
    { source: "gauges.csv", range, mode: "latest", ...more },
    { language: "en", newId, takenAt: "2026-03-01T09:00:00Z" },
  );
const deckOf = (...slides: Slide[]): Deck => ({ ...emptyDeck("d", "Report"), slides });
const against = (deck: Deck, text: string) => refreshDeck(deck, { source: () => at(text), language: deck.language });
const states = (deck: Deck, text: string) =>
  checkBindings(deck, { source: () => at(text), language: "en" }).map(({ state, from, to, reason }) => ({
    state,
    from,
    to,
    ...(reason ? { reason } : {}),
  }));
const figures = (deck: Deck) => deck.slides.flatMap(({ elements }) => elements);

describe("a value", () => {
  const deck = deckOf(slideWithBound(bound(at(FIRST), "gauges!D2"), newId));

  it("is a key figure above the words that name it", () => {
    expect(figures(deck).map((one) => (one.kind === "text" ? [one.slot, textOf(one.text)] : []))).toEqual([
      ["number", "4.6"],
      ["caption", "Quay, March"],
    ]);
    expect(tally(deck).bindings).toBe(1);
  });

  it("is current until its cell changes, then stale, and is taken", () => {
    expect(states(deck, FIRST)).toEqual([{ state: "current", from: "4.6", to: "4.6" }]);
    const next = FIRST.replace("4.6", "5.1");
    expect(states(deck, next)).toEqual([{ state: "stale", from: "4.6", to: "5.1" }]);
    const { slides } = against(deck, next);
    expect(bindingsOn(must(slides[0]))).toMatchObject([{ shown: "5.1", binding: { values: [[5.1]] } }]);
    expect(states({ ...deck, slides }, next)).toMatchObject([{ state: "current" }]);
  });

  it("is followed to where its row and column have gone, with the reason", () => {
    const moved = "Station,January,April,February,March\nFerry,1,1,1,1\nBar,3.2,0,3.4,3.1\nQuay,4.1,0,4.2,4.7\n";
    expect(states(deck, moved)).toEqual([
      {
        state: "moved",
        from: "4.6",
        to: "4.7",
        reason: "The row “Quay” is now row 4, the column “March” is now column E: gauges!E4.",
      },
    ]);
    const { slides } = against(deck, moved);
    expect(bindingsOn(must(slides[0]))[0]?.binding.range).toBe("gauges!E4");
  });

  it("is followed to a sheet of another name", () => {
    const renamed = () => ({ ...at(FIRST.replace("4.6", "4.8"), "levels.csv") });
    expect(checkBindings(deck, { source: renamed, language: "en" })).toMatchObject([
      { state: "moved", to: "4.8", reason: "The sheet “gauges” is now “levels”." },
    ]);
  });

  it("keeps its last value and says why when it cannot be found or holds an error", () => {
    const gone = FIRST.replace("Quay", "Harbour");
    const { slides, checks } = against(deck, gone);
    expect(checks).toMatchObject([
      { state: "missing", reason: "The row “Quay” is not on the sheet “gauges” any more." },
    ]);
    expect(bindingsOn(must(slides[0]))).toMatchObject([{ shown: "4.6", binding: { problem: { state: "missing" } } }]);
    // Back again, it is current and says nothing any more.
    const again = against({ ...deck, slides }, FIRST);
    expect(bindingsOn(must(again.slides[0]))[0]?.binding.problem).toBeUndefined();
  });

  it("is an error where a text is now, or an error of the spreadsheet, and a table shows the text and says so", () => {
    const table = bound(at(FIRST), "A1:D3", { use: "table" });
    const chart = bound(at(FIRST), "A1:D3", { use: "chart" });
    const all = deckOf(...[bound(at(FIRST), "D2"), table, chart].map((one) => slideWithBound(one, newId)));
    const reason = (range: string) => `A cell of ${range} held a number and holds the text “soon” now.`;
    expect(states(all, FIRST.replace("4.6", "soon"))).toMatchObject([
      { state: "error", to: "4.6", reason: reason("gauges!D2") },
      { state: "stale", reason: reason("gauges!A1:D3") },
      { state: "error", reason: reason("gauges!A1:D3") },
    ]);
    expect(states(all, FIRST.replace("4.6", "#N/A"))).toMatchObject([
      { state: "error", reason: "A cell of gauges!D2 shows #N/A." },
      { state: "stale" },
      { state: "error", reason: "A cell of gauges!A1:D3 shows #N/A." },
    ]);
  });

  it("never changes when it is fixed, and stays when its source is not at hand", () => {
    const fixed = deckOf(slideWithBound(bound(at(FIRST), "gauges!D2", { mode: "fixed" }), newId));
    expect(states(fixed, FIRST.replace("4.6", "9"))).toEqual([{ state: "fixed", from: "4.6", to: "4.6" }]);
    expect(checkBindings(deck, { source: () => undefined, language: "en" })).toMatchObject([{ state: "unknown" }]);
  });
});

describe("one of several bindings of a slide", () => {
  const [figure, value] = [bound(at(FIRST), "gauges!A1:D3", { use: "table" }), bound(at(FIRST), "gauges!D2")];
  const slide = putOnSlide(putOnSlide(newSlide("s", "points"), value, deckOf(), newId), figure, deckOf(), newId);
  it("is changed or unlinked by its number among the checks, and its values stay", () => {
    const [first, second] = checkBindings(deckOf(slide), { source: () => at(FIRST), language: "en" });
    expect([first?.binding.use, second?.binding.use]).toEqual(["table", undefined]);
    const changed = withBindingAt(slide, 1, (binding) => ({ ...binding, mode: "fixed" }));
    expect(
      checkBindings(deckOf(changed), { source: () => at(FIRST), language: "en" }).map(({ state }) => state),
    ).toEqual(["current", "fixed"]);
    const unlinked = withBindingAt(slide, 0, () => undefined);
    expect(bindingsOn(unlinked).map(({ shown }) => shown)).toEqual(["4.6"]);
    expect(unlinked.elements.some(({ kind }) => kind === "table")).toBe(true);
  });
});

describe("a number computed from cells", () => {
  // 4.1 + 4.2 + 4.6 = 12.9, a third of it 4.3; 4.6 − 4.1 and its share of 4.1 by hand.
  it.each([
    ["sum", "12.9"],
    ["mean", "4.3"],
    ["min", "4.1"],
    ["max", "4.6"],
    ["count", "3"],
  ] as const)("is their %s: %s", (use, wanted) => {
    const made = bound(at(FIRST), "gauges!B2:D2", { use });
    expect(made.kind === "value" && made.run.text).toBe(wanted);
  });

  it("is the change against the version before, in the unit and in percent", () => {
    const slide = (use: "change" | "percent") => slideWithBound(bound(at(FIRST), "gauges!B2", { use }), newId);
    const deck = deckOf(slide("change"), slide("percent"));
    const next = FIRST.replace("4.1", "4.6");
    const { slides, checks } = against(deck, next);
    expect(checks.map(({ from, to }) => [from, to])).toEqual([
      ["–", "+0.5"],
      ["–", "+12.2%"],
    ]);
    // Asked again about the same version, it stays.
    expect(against({ ...deck, slides }, next).slides).toEqual(slides);
  });
});

describe("a table", () => {
  it("takes new values in the form of the old, and the rows that were added below", () => {
    const made = deckOf(slideWithBound(bound(at(FIRST), "gauges!A1:D3", { use: "table" }), newId));
    const styled: Deck = {
      ...made,
      slides: made.slides.map((slide) =>
        mapSlideTexts(slide, (text) =>
          text.map((paragraph) => ({
            ...paragraph,
            runs: paragraph.runs.map((item) => ({ ...item, marks: ["strong" as const] })),
          })),
        ),
      ),
    };
    const { slides, checks } = against(styled, `${FIRST.replace("4.6", "5.0")}Ferry,1,2,3\n`);
    expect(checks).toMatchObject([{ state: "stale", reason: "1 row was added below." }]);
    const [table] = slides[0]?.elements.filter(({ kind }) => kind === "table") ?? [];
    expect(table?.kind === "table" && table.rows.map((row) => row.map((cell) => textOf(cell?.text ?? [])))).toEqual([
      ["Station", "January", "February", "March"],
      ["Quay", "4.1", "4.2", "5"],
      ["Bar", "3.2", "3.4", "3.1"],
      ["Ferry", "1", "2", "3"],
    ]);
    expect(table?.kind === "table" && table.rows[1]?.[3]?.text[0]?.runs[0]?.marks).toEqual(["strong"]);
    expect(table?.kind === "table" && table.align).toEqual(["start", "end", "end", "end"]);
  });
});

describe("a chart", () => {
  it("takes new values and keeps the colours of its series", () => {
    const made = deckOf(slideWithBound(bound(at(FIRST), "gauges!A1:D3", { use: "chart" }), newId));
    const coloured: Deck = {
      ...made,
      slides: made.slides.map((slide) => ({
        ...slide,
        elements: slide.elements.map((one) =>
          one.kind === "chart"
            ? { ...one, series: one.series.map((series) => ({ ...series, colour: "#123456" })) }
            : one,
        ),
      })),
    };
    const { slides } = against(coloured, FIRST.replace("4.6", "5.5"));
    const chart = slides[0]?.elements.find(({ kind }) => kind === "chart");
    // Time goes along the rows of the sheet, so a station is a line.
    expect(chart).toMatchObject({
      type: "line",
      categories: ["January", "February", "March"],
      series: [
        { name: "Quay", values: [4.1, 4.2, 5.5], colour: "#123456" },
        { name: "Bar", values: [3.2, 3.4, 3.1] },
      ],
    });
  });

  it.each([
    ["months", "Month,Level\nJanuary,1\nFebruary,2\nMarch,3\n", "line"],
    ["dates", "Day,Level\n2026-01-01,1\n2026-02-01,2\n2026-03-01,3\n", "line"],
    ["years", "Year,Level\n2024,1\n2025,2\n2026,3\n", "line"],
    ["names", "Station,Level\nQuay,1\nBar,2\nFerry,3\n", "column"],
    ["shares of the whole", "Use,Share\nSand,0.5\nGrass,0.3\nRock,0.2\n", "pie"],
  ])("is proposed for %s as fits them", (_, text, type) => {
    const source = at(text, "x.csv");
    const resolved = resolveRange(source.workbook, "x");
    if ("missing" in resolved) throw new Error(resolved.missing);
    expect(fittingUse(takeRange(source.workbook, resolved, { language: "en" }), resolved)).toBe("chart");
    const made = bindCells(source, { source: "x.csv", range: "x", mode: "latest" }, { language: "en", newId });
    expect(made.kind === "element" && made.element).toMatchObject({ kind: "chart", type });
  });
});

it("a chart of amounts leaves out a column of shares", () => {
  const made = bound(at("Line,October,Change\nOne,412,-3%\nTwo,388,-2%\n"), "gauges", { use: "chart" });
  expect(made.kind === "element" && made.element).toMatchObject({
    kind: "chart",
    series: [{ name: "October", values: [412, 388] }],
  });
});

describe("cells put on a slide", () => {
  const points: Slide = {
    ...newSlide("s", "points"),
    elements: [
      { kind: "text", id: "t", slot: "title", text: plainText("Levels") },
      { kind: "text", id: "b", slot: "body", text: plainText("The bay was calm") },
    ],
  };
  it("go beside its text, in a column of their own", () => {
    const slide = putOnSlide(points, bound(at(FIRST), "gauges!A1:D3", { use: "table" }), deckOf(), newId);
    expect([slide.arrangement, slide.elements.map(({ kind, slot }) => [kind, slot])]).toEqual([
      "comparison",
      [
        ["text", "title"],
        ["text", "left"],
        ["table", "right"],
      ],
    ]);
  });
  it("are a sentence below its text when they are one value", () => {
    const slide = putOnSlide(points, bound(at(FIRST), "gauges!D2"), deckOf(), newId);
    expect(slide.elements.map((one) => (one.kind === "text" ? textOf(one.text) : ""))).toEqual([
      "Levels",
      "The bay was calm\nQuay, March: 4.6",
    ]);
  });
  it("are refused with a sentence when the range leads nowhere or has no numbers for a chart", () => {
    expect(() => bound(at(FIRST), "Heights")).toThrow("The workbook has no name, table or sheet “Heights”.");
    expect(() => bound(at(FIRST), "gauges!A1:A3", { use: "chart" })).toThrow("There is no number among the cells");
  });
});
