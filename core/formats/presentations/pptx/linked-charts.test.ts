import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { bindCells, checkBindings, openWorkbook, slideWithBound } from "@unitext/core/data";
import { bindingsOn, type Deck, emptyDeck, must } from "@unitext/core/model";
import { shippedFonts } from "@unitext/core/testing/fonts";
import { unzipSync } from "fflate";
import { readDeck, WRITERS } from "../../index";

const text = "Station,Level,Range\nQuay,4.6,0.8\nBar,3.1,0.5\nFerry steps,3.3,0.75\n";
const source = { workbook: openWorkbook(new TextEncoder().encode(text), "gauges.csv"), version: "one" };
let serial = 0;
const newId = () => `n${++serial}`;
const bound = bindCells(
  source,
  { source: "gauges.csv", range: "gauges!A1:C4", use: "chart", mode: "latest" },
  { language: "en", newId },
);
const deck: Deck = { ...emptyDeck("d", "Levels"), slides: [slideWithBound(bound, newId)] };
const context = { fonts: shippedFonts(), at: new Date("2026-03-01T09:00:00Z"), picture: () => undefined };

/** Returns the cells of a workbook as python3-openpyxl reads them. */
function cellsOf(bytes: Uint8Array): unknown {
  const folder = mkdtempSync(join(tmpdir(), "unitext-linked-"));
  try {
    writeFileSync(join(folder, "inside.xlsx"), bytes);
    const script =
      "import json,sys,openpyxl; print(json.dumps([[c.value for c in row] for row in openpyxl.load_workbook(sys.argv[1]).active.iter_rows()]))";
    return JSON.parse(
      execFileSync("/usr/bin/python3", ["-c", script, join(folder, "inside.xlsx")], { encoding: "utf8" }),
    );
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

describe("a linked chart in a .pptx", () => {
  const bytes = WRITERS.pptx.write(deck, context) as Uint8Array;

  it("is a real chart, whose workbook holds the values that it shows, and nothing else of the source", () => {
    const parts = unzipSync(bytes);
    const [path, ...more] = Object.keys(parts).filter((name) => name.endsWith(".xlsx"));
    expect(more).toEqual([]);
    expect(cellsOf(must(parts[path ?? ""]))).toEqual([
      [null, "Level", "Range"],
      ["Quay", 4.6, 0.8],
      ["Bar", 3.1, 0.5],
      ["Ferry steps", 3.3, 0.75],
    ]);
  });

  it.each(["pptx", "odp"] as const)("comes back from a .%s with its link, and follows its source", (format) => {
    const file = WRITERS[format].write(deck, context) as Uint8Array;
    const read = readDeck(file, `levels.${format}`, { newId, sha256: () => "0".repeat(64) }).deck;
    expect(read.slides.flatMap((slide) => bindingsOn(slide).map(({ binding }) => binding))).toEqual(
      deck.slides.flatMap((slide) => bindingsOn(slide).map(({ binding }) => binding)),
    );
    const next = {
      workbook: openWorkbook(new TextEncoder().encode(text.replace("4.6", "5.2")), "gauges.csv"),
      version: "two",
    };
    expect(checkBindings(read, { source: () => next, language: "en" })).toMatchObject([{ state: "stale" }]);
  });
});
