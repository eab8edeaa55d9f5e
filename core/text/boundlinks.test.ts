import { apply } from "@unitext/core/edit";
import { generateDeck, reconcile } from "@unitext/core/generate";
import { bindingsOn, type Deck, DEFAULT_RULE, metadataOf } from "@unitext/core/model";
import { bindingAddress, bindingOfAddress } from "./boundlinks";
import { deckText, readText } from "./index";

const TEXT = `# Levels

The quay stood at [**4.6 m**](cell:gauges.xlsx?range=Levels!D2&mode=latest), more than the bar.

:::notes
In March [4.6](cell:tide%20levels.xlsx?range='Tide%20levels'!D2&mode=fixed&use=max), once.
:::
`;
const FIGURES = `## Levels

:::chart{kind=line source=gauges.xlsx range="Levels!A1:B3" mode=latest}
|  | Quay |
| --- | --: |
| January | 4.1 |
| February | 4.6 |
:::

## Surveys

:::table{caption="By line" source="dune surveys.ods" range=Dunes mode=asked}
| Line | Height |
| --- | --: |
| a | 1 |
:::
`;
let serial = 0;
const newId = () => `n${++serial}`;
const read = (text: string): Deck => generateDeck(readText(text), DEFAULT_RULE, { newId }, "Levels").deck;

describe("a value of a workbook in the text form", () => {
  it("is a link to its cells, whose words it is", () => {
    const found = read(TEXT).slides.flatMap((slide) => bindingsOn(slide));
    expect(
      found.map(({ binding, shown, element }) => [
        binding.source,
        binding.range,
        binding.mode,
        binding.use,
        shown,
        element === null,
      ]),
    ).toEqual([
      ["gauges.xlsx", "Levels!D2", "latest", undefined, "4.6 m", false],
      ["tide levels.xlsx", "'Tide levels'!D2", "fixed", "max", "4.6", true],
    ]);
  });

  it("comes back from the text of its deck", () => {
    const deck = read(TEXT);
    const again = read(deckText(deck, { ids: false }));
    expect(again.slides.flatMap((slide) => bindingsOn(slide).map(({ binding, shown }) => [binding, shown]))).toEqual(
      deck.slides.flatMap((slide) => bindingsOn(slide).map(({ binding, shown }) => [binding, shown])),
    );
  });

  it.each([
    { source: "a b.xlsx", range: "'Tide (new)'!A1:B2", mode: "asked" },
    { source: "ü&?.csv", range: "Dunes[Height, m]", mode: "latest", use: "sum", format: '0.0 "m"' },
  ] as const)("has an address that is read as it was written: %p", (binding) => {
    expect(bindingOfAddress(bindingAddress(binding))).toEqual(binding);
  });

  it("keeps what was taken of its cells while the words around it are typed", () => {
    const deck = read(TEXT);
    const taken = { version: "abc", values: [[4.6]], takenAt: "2026-03-01T09:00:00Z" };
    const known: Deck = JSON.parse(JSON.stringify(deck), (_, value) =>
      value?.range === "Levels!D2" ? { ...value, ...taken } : value,
    );
    const text = TEXT.replace("more than the bar", "far more than the bar");
    const made = generateDeck(readText(text), DEFAULT_RULE, { newId }, "Levels").deck;
    const { change } = reconcile(known, metadataOf(known), made.slides.map((slide) => ({ slide })) as never, {
      typed: true,
    });
    expect(JSON.stringify(change)).toContain('"version":"abc"');
  });
});

describe("a table or chart of a workbook in the text form", () => {
  const bound = (deck: Deck) =>
    deck.slides.flatMap((slide) =>
      bindingsOn(slide).map(({ binding: { source, range, mode, use } }) => [source, range, mode, use]),
    );
  const typed = (known: Deck, text: string): Deck => {
    const made = generateDeck(readText(text), DEFAULT_RULE, { newId }, "Levels").deck;
    const { change } = reconcile(known, metadataOf(known), made.slides.map((slide) => ({ slide })) as never, {
      typed: true,
    });
    return change ? apply(known, change).deck : known;
  };

  it("names its cells beside what it shows, and comes back from the text of its deck", () => {
    const deck = read(FIGURES);
    expect(bound(deck)).toEqual([
      ["gauges.xlsx", "Levels!A1:B3", "latest", "chart"],
      ["dune surveys.ods", "Dunes", "asked", "table"],
    ]);
    const text = deckText(deck, { ids: false });
    expect(text).toContain('source="dune surveys.ods" range=Dunes mode=asked');
    expect(bound(read(text))).toEqual(bound(deck));
  });

  it("keeps what was taken while its text is typed, is linked elsewhere where other cells are typed, and unlinked without", () => {
    const deck = read(FIGURES);
    const taken = { version: "abc", takenAt: "2026-03-01T09:00:00Z" };
    const known: Deck = JSON.parse(JSON.stringify(deck), (_, value) =>
      value?.range === "Dunes" ? { ...value, ...taken } : value,
    );
    const version = (made: Deck) =>
      made.slides.flatMap((slide) => bindingsOn(slide).map(({ binding }) => binding.version));
    expect(version(typed(known, FIGURES.replace("By line", "By survey line")))).toEqual([undefined, "abc"]);
    expect(bound(typed(known, FIGURES.replace("range=Dunes", "range=Lines")))[1]).toEqual([
      "dune surveys.ods",
      "Lines",
      "asked",
      "table",
    ]);
    expect(bound(typed(known, FIGURES.replace(/ source="dune.*asked/, "")))).toEqual([
      ["gauges.xlsx", "Levels!A1:B3", "latest", "chart"],
    ]);
  });
});
