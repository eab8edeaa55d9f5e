import { generateDeck } from "@unitext/core/generate";
import { type Deck, DEFAULT_RULE } from "@unitext/core/model";
import { readText } from "@unitext/core/text";
import { openWorkbook, outdatedNumbers, typedNumbers } from "./index";

const sheet = (text: string) => openWorkbook(new TextEncoder().encode(text), "gauges.csv");
const GAUGES = "Station,January,March\nQuay,4.1,4.6\nBar,3.2,4.6\nFerry steps,2.9,1234.5\n";
let serial = 0;
const deckOf = (text: string, language = "en"): Deck => ({
  ...generateDeck(readText(text), DEFAULT_RULE, { newId: () => `n${++serial}` }, "x").deck,
  language,
});
const found = (text: string, language?: string) =>
  typedNumbers(deckOf(text, language), sheet(GAUGES)).map(({ shown, range, element }) => [
    shown,
    range,
    element === null,
  ]);

describe("a number that was typed", () => {
  it("is proposed where the sentence names its row, and its column there or in the title", () => {
    expect(
      found(
        "## March\n\nThe quay stood at 4.6 m, and the ferry steps at 1,234.5.\n\n:::notes\nBar in January: 3.2\n:::\n",
      ),
    ).toEqual([
      ["4.6", "gauges!C2", false],
      ["1,234.5", "gauges!C4", false],
      ["3.2", "gauges!B3", true],
    ]);
  });

  it("is equal as it is written: rounded, and with the decimal sign of the deck's language", () => {
    expect(found("## March\n\nThe quay stood at 5 m.\n")).toEqual([["5", "gauges!C2", false]]);
    expect(found("## March\n\nThe quay stood at 4,6 m.\n", "de")).toEqual([["4,6", "gauges!C2", false]]);
  });

  it.each([
    ["no row is named", "## March\n\nThe level was 4.6 m.\n"],
    ["no column is named", "## Levels\n\nThe quay stood at 4.6 m.\n"],
    ["it is another number", "## March\n\nThe quay stood at 4.7 m.\n"],
    ["it is part of a date, a time or a name", "## March\n\nThe quay at 4.6.2026, 4:6 and T4.6.\n"],
    ["it is code", "## March\n\nThe quay prints `4.6`.\n"],
    ["a longer word only begins with the name", "## March\n\nThe quayside stood at 4.6 m.\n"],
  ])("is not proposed when %s", (_, text) => {
    expect(found(text)).toEqual([]);
  });

  it("is probably out of date when its cell has another value in the newest version", () => {
    const deck = deckOf("## March\n\nThe quay stood at 4.6 m, the bar at 4.6 m.\n");
    const rows = outdatedNumbers(
      deckOf("## March\n\n- The quay stood at 4.6 m\n- Ferry steps: 1234.5\n"),
      sheet(GAUGES),
      sheet(GAUGES.replace("Quay,4.1,4.6", "Quay,4.1,5.2")),
    );
    expect(rows.map(({ shown, newest }) => [shown, newest])).toEqual([["4.6", 5.2]]);
    // Two cells could be meant: nothing is said.
    expect(typedNumbers(deck, sheet(GAUGES))).toEqual([]);
  });
});
