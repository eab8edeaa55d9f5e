import type { Paragraph, Run } from "@unitext/core/model";
import { type Block, normalisedBlock } from "./index";

const item = (level: number, ...runs: Run[]): Paragraph => ({ kind: "bullet", level, runs });
const block = (...text: Paragraph[]): Block => ({ kind: "text", text, from: 1, to: 1 });
const textOf = (given: Block) => ("text" in given ? given.text : []);

describe("a block of a document", () => {
  // GitHub Flavored Markdown 0.29, 6.9: examples 621, 622 and 629 in our own words.
  it("has its addresses as links, as the text form reads them", () => {
    const [paragraph] = textOf(
      normalisedBlock(block(item(0, { text: "See www.example.org/a, https://example.org/b. and tern@example.org" }))),
    );
    expect(paragraph?.runs).toEqual([
      { text: "See " },
      { text: "www.example.org/a", link: "http://www.example.org/a" },
      { text: ", " },
      { text: "https://example.org/b", link: "https://example.org/b" },
      { text: ". and " },
      { text: "tern@example.org", link: "mailto:tern@example.org" },
    ]);
  });

  it("leaves addresses in code and in links alone", () => {
    const runs: Run[] = [
      { text: "curl https://example.org", marks: ["code"] },
      { text: "www.example.org", link: "https://example.org/other" },
    ];
    expect(textOf(normalisedBlock(block(item(0, ...runs))))[0]?.runs).toEqual(runs);
  });

  it("has equal runs as one, and list levels that begin at the outermost", () => {
    const given = block(
      item(1, { text: "quay ", marks: ["strong"] }, { text: "wet", marks: ["strong"] }),
      item(3, { text: "deep" }),
    );
    expect(textOf(normalisedBlock(given))).toEqual([
      item(0, { text: "quay wet", marks: ["strong"] }),
      item(1, { text: "deep" }),
    ]);
  });
});
