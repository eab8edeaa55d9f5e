import type { Block } from "@unitext/core/text";
import { normalisedBlock } from "@unitext/core/text";
import { listNumbers } from "@unitext/core/layout";
import { paragraphText } from "@unitext/core/model";
import { readDocument } from "@unitext/core/testing/documents";
import { Document, LevelFormat, Packer, Paragraph } from "docx";
import { strToU8, zipSync } from "fflate";

/** Returns the items of a document with the numbers that they show. */
function numbered(blocks: readonly Block[]): string[] {
  return blocks
    .map(normalisedBlock)
    .flatMap((block) =>
      block.kind === "text"
        ? listNumbers(block.text).map((number, at) =>
            [number || "", paragraphText(block.text[at] ?? { kind: "plain", level: 0, runs: [] })].join(" ").trim(),
          )
        : [],
    );
}

const ODF = (name: string) => `urn:oasis:names:tc:opendocument:xmlns:${name}:1.0`;
function odt(body: string): Uint8Array {
  const content = `<office:document-content xmlns:office="${ODF("office")}" xmlns:text="${ODF("text")}" xmlns:style="${ODF("style")}" office:version="1.3"><office:automatic-styles><text:list-style style:name="L"><text:list-level-style-number text:level="1"/><text:list-level-style-number text:level="2" text:start-value="3"/></text:list-style></office:automatic-styles><office:body><office:text>${body}</office:text></office:body></office:document-content>`;
  return zipSync({
    mimetype: strToU8("application/vnd.oasis.opendocument.text"),
    "content.xml": strToU8(content),
  });
}
const item = (text: string, inner = "", more = "") =>
  `<text:list-item${more}><text:p>${text}</text:p>${inner}</text:list-item>`;

describe("the numbers of a list", () => {
  it("are those of a page (HTML, 4.4.5 and 4.4.8: start, value)", () => {
    const page =
      '<ol start="4"><li>four</li><li>five</li></ol><p>Between</p><ol start="6"><li>six</li><li value="9">nine</li><li>ten</li></ol>';
    expect(numbered(readDocument(strToU8(page), "html").blocks)).toEqual([
      "4 four",
      "5 five",
      "Between",
      "6 six",
      "9 nine",
      "10 ten",
    ]);
  });

  it("are those of a plain text", () => {
    const text = "Some words first.\n\n4. four\n5. five\n\nThen wait for the tide to turn.\n\n6. six\n";
    expect(numbered(readDocument(strToU8(text), "txt").blocks)).toEqual([
      "Some words first.",
      "4 four",
      "5 five",
      "Then wait for the tide to turn.",
      "6 six",
    ]);
  });

  it("go on in a .odt after a paragraph, and begin where it says (OpenDocument 1.2, text:continue-numbering, text:continue-list, text:start-value)", () => {
    const body = [
      `<text:list text:style-name="L" xml:id="first">${item("one")}${item("two", `<text:list>${item("two three")}</text:list>`)}</text:list>`,
      "<text:p>Between</text:p>",
      `<text:list text:style-name="L" text:continue-numbering="true">${item("three")}</text:list>`,
      `<text:list text:style-name="L">${item("one again")}${item("seven", "", ' text:start-value="7"')}</text:list>`,
      `<text:list text:style-name="L" text:continue-list="first">${item("eight")}</text:list>`,
    ].join("");
    expect(numbered(readDocument(odt(body), "odt").blocks)).toEqual([
      "1 one",
      "2 two",
      "3 two three",
      "Between",
      "3 three",
      "1 one again",
      "7 seven",
      "8 eight",
    ]);
  });

  it("go on in a .docx after a paragraph, and begin where it says (ECMA-376-1, 17.9.25 start, 17.9.26 startOverride)", async () => {
    const levels = [0, 1].map((level) => ({ level, format: LevelFormat.DECIMAL, text: `%${level + 1}.`, start: 4 }));
    const listed = (text: string, instance = 0, level = 0) =>
      new Paragraph({ text, numbering: { reference: "steps", level, instance } });
    const document = new Document({
      numbering: { config: [{ reference: "steps", levels }] },
      sections: [
        {
          children: [
            listed("four"),
            listed("deeper", 0, 1),
            listed("five"),
            new Paragraph("Between"),
            listed("six"),
            new Paragraph("Another list"),
            listed("four again", 1),
          ],
        },
      ],
    });
    const { blocks } = readDocument(new Uint8Array(await Packer.toBuffer(document)), "docx");
    expect(numbered(blocks)).toEqual([
      "4 four",
      "4 deeper",
      "5 five",
      "Between",
      "6 six",
      "Another list",
      "4 four again",
    ]);
  });
});
