import { createHash } from "node:crypto";
import { openWorkbook } from "@unitext/core/data";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import PptxGenJS from "pptxgenjs";
import { embeddedWorkbooks, readDeck } from "../../index";

const sha256 = (bytes: Uint8Array) => createHash("sha256").update(bytes).digest("hex");

it("the workbooks of charts in a file of npm pptxgenjs are listed with their slides, and hold the charts' values", async () => {
  const made = new PptxGenJS();
  made.addSlide().addText("No chart", { x: 1, y: 1, w: 4, h: 1 });
  for (const values of [
    [4.1, 4.6],
    [3.2, 3.1],
  ])
    made
      .addSlide()
      .addChart("bar", [{ name: "Level", labels: ["January", "March"], values }], { x: 1, y: 1, w: 6, h: 4 });
  const bytes = new Uint8Array((await made.write({ outputType: "uint8array" })) as Uint8Array);
  const { deck, blobs } = readDeck(bytes, "charts.pptx", { newId: () => Math.random().toString(36).slice(2), sha256 });
  const found = embeddedWorkbooks(deck, (sum) => blobs.get(sum));
  expect(found.map(({ slide, name }) => [slide, /\.xlsx$/.test(name)])).toEqual([
    [2, true],
    [3, true],
  ]);
  const workbook = openWorkbook(found[0]?.bytes ?? new Uint8Array(), "x.xlsx");
  const sheet = workbook.sheet(workbook.sheets[0]?.name ?? "");
  expect([sheet.content(1, 1), sheet.content(2, 1)]).toEqual([4.1, 4.6]);
});

it("a chart whose workbook is outside names it, and nothing is opened", async () => {
  const made = new PptxGenJS();
  made.addSlide().addChart("bar", [{ name: "Level", labels: ["January"], values: [4.1] }], { x: 1, y: 1, w: 6, h: 4 });
  const parts = unzipSync(new Uint8Array((await made.write({ outputType: "uint8array" })) as Uint8Array));
  for (const [path, bytes] of Object.entries(parts))
    if (/charts\/_rels\/.*\.rels$/.test(path))
      parts[path] = strToU8(
        strFromU8(bytes)
          .replace(/Target="[^"]*\.xlsx"/, 'Target="file:///C:\\reports\\June%20levels.xlsx" TargetMode="External"')
          .replace("/package", "/oleObject"),
      );
  const { deck, blobs } = readDeck(zipSync(parts), "linked.pptx", {
    newId: () => Math.random().toString(36).slice(2),
    sha256,
  });
  expect(embeddedWorkbooks(deck, (sum) => blobs.get(sum))).toMatchObject([
    { slide: 1, name: "June levels.xlsx", bytes: undefined },
  ]);
});
