import { spawnSync } from "node:child_process";
import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { everything } from "@unitext/core/testing";
import {
  joinPieces,
  matchTargets,
  pseudoTranslation,
  type Segment,
  segmentsOf,
  wordsOf,
} from "@unitext/core/translate";
import { Document, Packer, Paragraph, Table, TableCell, TableRow, TextRun } from "docx";
import { readSegments, SEGMENT_FILES, writeSegments } from "./index";

const deck = everything({});
const segments = segmentsOf(deck);
const targetOf = ({ source }: Segment) => ({
  pieces: joinPieces(pseudoTranslation(source, "de")),
  state: "reviewed" as const,
});
const table = { deck, to: "de", segments, targetOf };

describe("files of exchange", () => {
  it.each(SEGMENT_FILES)("bring every translation back from .%s, with placeholders", (as) => {
    const read = readSegments(writeSegments(table, as), `deck.${as}`);
    expect([read.from, read.to]).toEqual([deck.language, "de"]);
    const { targets, remarks } = matchTargets(segments, read);
    expect(remarks).toEqual([]);
    expect([...targets.keys()]).toEqual(segments.map(({ id }) => id));
    for (const segment of segments) expect(targets.get(segment.id)?.pieces).toEqual(targetOf(segment).pieces);
  });

  it("are read by openpyxl as one sheet with a row for each segment", () => {
    const folder = mkdtempSync(join(tmpdir(), "segments-"));
    writeFileSync(join(folder, "deck.xlsx"), writeSegments(table, "xlsx"));
    const script =
      "import json,sys,openpyxl\nsheet=openpyxl.load_workbook(sys.argv[1]).active\nprint(json.dumps([[c.value for c in r] for r in sheet.iter_rows()]))";
    const { stdout } = spawnSync("/usr/bin/python3", ["-c", script, join(folder, "deck.xlsx")], { encoding: "utf8" });
    const rows = JSON.parse(stdout) as string[][];
    expect(rows).toHaveLength(segments.length + 1);
    expect(rows[0]?.slice(1, 3)).toEqual([`Source (${deck.language})`, "Translation (de)"]);
    expect(rows.slice(1).map((row) => row[4])).toEqual(segments.map(({ id }) => id));
  });

  it("are read from documents of another program, without what a reviewer has deleted", async () => {
    const cell = (...runs: TextRun[]) => new TableCell({ children: [new Paragraph({ children: runs })] });
    const row = (source: string, target: string) =>
      new TableRow({ children: [cell(new TextRun(source)), cell(new TextRun(target))] });
    const [first] = segments;
    const bytes = await Packer.toBuffer(
      new Document({
        sections: [
          {
            children: [
              new Table({ rows: [row("Source (en)", "Translation (de)"), row(wordsOf(first?.source ?? []), "Pegel")] }),
            ],
          },
        ],
      }),
    );
    const { targets } = matchTargets(segments, readSegments(new Uint8Array(bytes), "back.docx"));
    expect(targets.get(first?.id ?? "")?.pieces).toEqual(["Pegel"]);
  });

  it("are refused when they have no such table, or are of another kind", () => {
    const csv = new TextEncoder().encode("a,b\n1,2\n");
    expect(() => readSegments(csv, "table.csv")).toThrow(/no table with the columns/);
    expect(() => readSegments(csv, "table.rtf")).toThrow(/read from/);
    expect(() => readSegments(csv, "table.docx")).toThrow();
  });

  it("say which translations are of texts that the deck does not have", () => {
    const csv = new TextEncoder().encode(
      "Place,Source (en),Translation (de),State,Id\r\nx,Nobody wrote this,Niemand,reviewed,x:y:t0.0.0\r\n",
    );
    const { targets, remarks } = matchTargets(segments, readSegments(csv, "old.csv"));
    expect(targets.size).toBe(0);
    expect(remarks.join()).toContain("Nobody wrote this");
  });
});
