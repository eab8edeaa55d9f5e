// Writes the field handbook of the demo: node demo/handbook/make.mjs [--next] writes demo/content/field-handbook.docx, or the edition after it to the file named second.
import { readFileSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import {
  AlignmentType,
  Document,
  FootnoteReferenceRun,
  HeadingLevel,
  ImageRun,
  LevelFormat,
  Math as Formula,
  MathFraction,
  MathRun,
  Packer,
  Paragraph,
  Table,
  TableCell,
  TableRow,
  TextRun,
  WidthType,
} from "docx";
import { CHAPTERS, sheet, STATIONS, TABLES } from "./text.mjs";

const folder = dirname(fileURLToPath(import.meta.url));
const content = join(folder, "../content");

/** The next edition: one chapter is changed, a section is new, one is gone, one has moved. */
export function nextEdition(chapters) {
  const copy = structuredClone(chapters);
  const dunes = copy.find(({ title }) => title === "Dunes");
  dunes.sections[3][1][0] = dunes.sections[3][1][0]
    .replace("about four cubic metres", "about five cubic metres")
    .replace("up to fifteen", "up to eighteen");
  const safety = copy.find(({ title }) => title === "Safety");
  safety.sections.splice(2, 0, [
    "Fog",
    [
      "Fog comes in from the west within a quarter of an hour. The group stops, counts itself, and goes back along the withies, one after the other, with the compass on 85 degrees. The horn of the quay is sounded every two minutes until everybody is in.",
    ],
  ]);
  const records = copy.find(({ title }) => title === "Keeping the records");
  records.sections = [records.sections[2], records.sections[0], records.sections[3]];
  return copy;
}

const cells = (row, header) =>
  new TableRow({
    tableHeader: header,
    children: row.map(
      (text, at) =>
        new TableCell({
          children: [
            new Paragraph({
              alignment: at && /^[−\d.]+$/.test(text) ? AlignmentType.RIGHT : AlignmentType.LEFT,
              children: [new TextRun({ text, bold: header })],
            }),
          ],
        }),
    ),
  });
const table = (rows) =>
  new Table({ width: { size: 100, type: WidthType.PERCENTAGE }, rows: rows.map((row, at) => cells(row, at === 0)) });
const heading = (text, level) =>
  new Paragraph({ text, heading: [HeadingLevel.HEADING_1, HeadingLevel.HEADING_2, HeadingLevel.HEADING_3][level - 1] });

function picture(name, description) {
  const data = readFileSync(join(content, "pictures", `${name}.png`));
  return new Paragraph({
    children: [
      new ImageRun({
        type: "png",
        data,
        transformation: { width: 560, height: 266 },
        altText: { name, title: name, description },
      }),
    ],
  });
}

export function handbook(chapters = CHAPTERS) {
  const children = [new Paragraph({ text: "Field handbook of the station", heading: HeadingLevel.TITLE })];
  let noted = false;
  for (const { title, sections } of chapters) {
    children.push(heading(title, 1));
    for (const [name, paragraphs, items, extra] of sections) {
      children.push(heading(name, 2));
      paragraphs.forEach((text, at) => {
        const note = !noted && at === 0 && name === "Surges" ? [new FootnoteReferenceRun(1)] : [];
        children.push(new Paragraph({ spacing: { after: 160 }, children: [new TextRun(text), ...note] }));
        noted ||= note.length > 0;
      });
      for (const text of items ?? [])
        children.push(new Paragraph({ text, numbering: { reference: "items", level: 0 } }));
      if (extra?.formula)
        children.push(
          new Paragraph({
            children: [
              new Formula({
                children: [
                  new MathRun("h = "),
                  new MathFraction({
                    numerator: [new MathRun(extra.formula[0])],
                    denominator: [new MathRun(extra.formula[1])],
                  }),
                ],
              }),
            ],
          }),
        );
      if (extra?.table)
        children.push(new Paragraph({ text: TABLES[extra.table].caption }), table(TABLES[extra.table].rows));
      if (extra?.picture)
        children.push(
          picture(extra.picture, "A dune in profile, from the sea to the slack behind it"),
          new Paragraph({ text: "The foot of the dune is where the waves bite", style: "Caption" }),
        );
    }
  }
  children.push(heading("The stations, one by one", 1));
  for (const station of STATIONS) {
    const { name, facts, parts } = sheet(station);
    children.push(heading(name, 2), table(facts));
    for (const [part, text] of parts) children.push(heading(part, 3), new Paragraph({ spacing: { after: 160 }, text }));
  }
  children.push(
    heading("References", 1),
    ...[
      "Log books of the station, shelf 2, by year",
      "Chart of the bay, sheet 7",
      "Manual of levelling for the course, third edition",
    ].map((text) => new Paragraph({ text, numbering: { reference: "items", level: 0 } })),
  );
  return new Document({
    title: "Field handbook of the station",
    creator: "Marram Bay Field Station",
    styles: { default: { document: { run: { language: { value: "en-GB" } } } } },
    numbering: { config: [{ reference: "items", levels: [{ level: 0, format: LevelFormat.BULLET, text: "•" }] }] },
    footnotes: {
      1: { children: [new Paragraph("Reckoned from the tide table of the harbour, which is made anew every year.")] },
    },
    sections: [{ children }],
  });
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  const next = process.argv.indexOf("--next");
  const target = next > 0 ? process.argv[next + 1] : join(content, "field-handbook.docx");
  writeFileSync(target, await Packer.toBuffer(handbook(next > 0 ? nextEdition(CHAPTERS) : CHAPTERS)));
}
