import { WRITERS } from "@unitext/core/formats";
import type { FontSet } from "@unitext/core/layout";
import { emptyDeck, plainText, type Slide } from "@unitext/core/model";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";

const PROSE =
  "The gauge at the quay is read every ten minutes, and its clock is set once a week by the keeper. Whatever the weather is, the float must move freely in its pipe. When it does not, the reading is marked and left out.";
const paragraph = (text: string, style = "") =>
  `<w:p>${style ? `<w:pPr><w:pStyle w:val="${style}"/></w:pPr>` : ""}<w:r><w:t>${text}</w:t></w:r></w:p>`;
const cell = (text: string) => `<w:tc>${paragraph(text)}</w:tc>`;

/** Returns a small .docx with headings, prose and tables, to warm up a reader. */
export function sampleDocument(sections = 60): Uint8Array {
  const parts = Array.from(
    { length: sections },
    (_, nth) =>
      `${paragraph(`Section ${nth + 1}`, nth % 10 ? "Heading2" : "Heading1")}${paragraph(PROSE).repeat(4)}${nth % 6 ? "" : `<w:tbl>${`<w:tr>${cell("Gauge")}${cell(String(nth))}</w:tr>`.repeat(4)}</w:tbl>`}`,
  );
  return zipSync(
    {
      "word/document.xml": strToU8(
        `<w:document xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"><w:body>${parts.join("")}</w:body></w:document>`,
      ),
    },
    { level: 0 },
  );
}

/** Returns a .pptx with text, shapes and tables as other programs write it, to warm up a reader. */
export function samplePresentation(fonts: FontSet, count = 12): Uint8Array {
  const slide = (nth: number): Slide => ({
    id: `s${nth}`,
    parent: null,
    arrangement: "points",
    hidden: false,
    notes: plainText(PROSE),
    elements: [
      { kind: "text", id: "t", slot: "title", text: plainText(`Section ${nth}`) },
      {
        kind: "text",
        id: "b",
        slot: "body",
        text: plainText(`${PROSE}\n${PROSE}`).map((paragraph) => ({ ...paragraph, kind: "bullet" as const })),
      },
      {
        kind: "shape",
        id: "s",
        slot: null,
        frame: { x: 600, y: 300, width: 200, height: 100 },
        geometry: { preset: "roundRect" },
        text: plainText("Gauge"),
        fill: { kind: "solid", colour: "#0f5c63" },
      },
      {
        kind: "table",
        id: "g",
        slot: null,
        frame: { x: 60, y: 300, width: 400, height: 120 },
        header: 1,
        align: ["start", "end"],
        rows: [
          ["Gauge", "Metres"],
          ["Quay", String(nth)],
        ].map((row) => row.map((words) => ({ text: plainText(words) }))),
      },
    ],
  });
  const deck = { ...emptyDeck("sample", "Sample"), slides: Array.from({ length: count }, (_, nth) => slide(nth + 1)) };
  const parts = unzipSync(WRITERS.pptx.write(deck, { fonts, picture: () => undefined, at: new Date(0) }) as Uint8Array);
  return zipSync(
    Object.fromEntries(
      Object.entries(parts).map(([path, part]) => [
        path,
        /tags\//.test(path) ? strToU8(strFromU8(part).replaceAll("UNITEXT_", "OTHER_")) : part,
      ]),
    ),
    { level: 0 },
  );
}
