import { execFileSync } from "node:child_process";
import { createHash } from "node:crypto";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { openWorkbook } from "@unitext/core/data";
import { embeddedWorkbooks, readDeck } from "../../index";

/** A presentation of python3-odf with a spreadsheet as an object, and one that is outside. */
const SCRIPT = `
import sys
from odf import draw, presentation, style, table, text
from odf.opendocument import OpenDocumentPresentation, OpenDocumentSpreadsheet
show = OpenDocumentPresentation()
layout = style.PageLayout(name="p")
show.automaticstyles.addElement(layout)
master = style.MasterPage(name="m", pagelayoutname=layout)
show.masterstyles.addElement(master)
book = OpenDocumentSpreadsheet()
sheet = table.Table(name="Levels")
for values in (["Quay", "4.1"], ["Bar", "3.2"]):
    row = table.TableRow()
    cell = table.TableCell(valuetype="string")
    cell.addElement(text.P(text=values[0]))
    row.addElement(cell)
    row.addElement(table.TableCell(valuetype="float", value=values[1]))
    sheet.addElement(row)
book.spreadsheet.addElement(sheet)
page = draw.Page(name="one", masterpagename=master)
frame = draw.Frame(name="Gauges", x="2cm", y="2cm", width="8cm", height="4cm")
frame.addElement(draw.Object(href=show.addObject(book)))
page.addElement(frame)
frame = draw.Frame(name="Far", x="2cm", y="8cm", width="8cm", height="4cm")
frame.addElement(draw.Object(href="../reports/June%20levels.ods"))
page.addElement(frame)
show.presentation.addElement(page)
show.save(sys.argv[1])
`;
const sha256 = (bytes: Uint8Array) => createHash("sha256").update(bytes).digest("hex");

it("a spreadsheet inside a presentation of python3-odf can be taken out, and one outside is named", () => {
  const folder = mkdtempSync(join(tmpdir(), "unitext-objects-"));
  const file = join(folder, "objects.odp");
  execFileSync("/usr/bin/python3", ["-c", SCRIPT, file]);
  const { deck, blobs } = readDeck(readFileSync(file), "objects.odp", {
    newId: () => Math.random().toString(36).slice(2),
    sha256,
  });
  rmSync(folder, { recursive: true });
  const found = embeddedWorkbooks(deck, (sum) => blobs.get(sum));
  expect(found.map(({ slide, name, bytes }) => [slide, name, bytes !== undefined])).toEqual([
    [1, "Gauges.ods", true],
    [1, "June levels.ods", false],
  ]);
  const workbook = openWorkbook(found[0]?.bytes ?? new Uint8Array(), "Gauges.ods");
  expect(workbook.sheet("Levels").content(1, 1)).toBe(3.2);
});
