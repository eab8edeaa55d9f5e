import { textOf } from "@unitext/core/model";
import { readPasted } from "./read";

describe("what is pasted", () => {
  // Spreadsheets put cells on the clipboard as tab-separated text (text/tab-separated-values, IANA registration of 1993).
  it("is a table where it is cells of a spreadsheet, as text or as HTML", () => {
    const cells = readPasted("", "Gauge\tMetres\r\nQuay\t3.4\r\nMole\t2.9\r\n");
    expect(cells.table?.rows.map((row) => row.map((cell) => textOf(cell?.text ?? [])))).toEqual([
      ["Gauge", "Metres"],
      ["Quay", "3.4"],
      ["Mole", "2.9"],
    ]);
    const html = "<table><tr><th>Gauge</th><th>Metres</th></tr><tr><td>Quay</td><td>3.4</td></tr></table>";
    expect(readPasted(html, "Gauge\tMetres\nQuay\t3.4").table).toMatchObject({ kind: "table", header: 1 });
  });

  it("is words where it is a paragraph or a list, and keeps levels and marks", () => {
    const html = "<ul><li>Sand <b>moves</b><ul><li>grass holds it</li></ul></li></ul>";
    const { table, words } = readPasted(html, "");
    expect(table).toBeUndefined();
    expect(words.map(({ kind, level }) => [kind, level])).toEqual([
      ["bullet", 0],
      ["bullet", 1],
    ]);
    expect(words[0]?.runs[1]).toMatchObject({ text: "moves", marks: ["strong"] });
    expect(textOf(readPasted("", "One line of words").words)).toBe("One line of words");
  });

  it("is slides where it has headings, with the rule that its text asks for", () => {
    const found = readPasted("<h2>Dunes</h2><p>Sand moves.</p><h2>Tides</h2><p>Water moves.</p>", "");
    expect([found.structured, found.rule.cuts[0]?.kind]).toEqual([true, "heading"]);
    expect(found.text).toContain("## Dunes");
    expect(readPasted("", "# Deck\n\n## One\n\n- a\n\n## Two").structured).toBe(true);
  });

  it("is a slide for each number where numbered titles have points below them", () => {
    const found = readPasted("", "Storm\n1. What happened\n- Wind rose\n- Quay flooded\n2. What comes next\n- A gauge");
    expect(found.text).toContain("## What happened");
    expect(found.text).toContain("## What comes next");
    expect(readPasted("", "- Wind **rose**\n- Quay flooded").words[0]?.runs[1]).toMatchObject({ marks: ["strong"] });
  });

  it("is nothing where nothing is on the clipboard", () => {
    expect(readPasted("", "")).toMatchObject({ table: undefined, words: [], structured: false });
  });
});
