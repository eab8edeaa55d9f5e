import { strToU8, zipSync } from "fflate";

const PROSE = "The gauge at the quay is read every ten minutes, and its clock is set once a week by the keeper. Whatever the weather is, the float must move freely in its pipe. When it does not, the reading is marked and left out.";
const paragraph = (text: string, style = "") => `<w:p>${style ? `<w:pPr><w:pStyle w:val="${style}"/></w:pPr>` : ""}<w:r><w:t>${text}</w:t></w:r></w:p>`;
const cell = (text: string) => `<w:tc>${paragraph(text)}</w:tc>`;

/** A small .docx with headings, prose and tables: what a reader is warmed with. */
export function sampleDocument(sections = 60): Uint8Array {
  const parts = Array.from({ length: sections }, (_, nth) => `${paragraph(`Section ${nth + 1}`, nth % 10 ? "Heading2" : "Heading1")}${paragraph(PROSE).repeat(4)}${nth % 6 ? "" : `<w:tbl>${`<w:tr>${cell("Gauge")}${cell(String(nth))}</w:tr>`.repeat(4)}</w:tbl>`}`);
  return zipSync({ "word/document.xml": strToU8(`<w:document xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"><w:body>${parts.join("")}</w:body></w:document>`) }, { level: 0 });
}
