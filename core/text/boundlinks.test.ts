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
