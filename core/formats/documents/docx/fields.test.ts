import { fieldLink } from "./fields";

// ECMA-376-1, 17.16.5.25 (HYPERLINK): the address in quotes, \l for a place in the document, \o for a tip, \t for a frame.
describe("where a field leads", () => {
  it.each([
    [' HYPERLINK "https://example.org/gauge" ', "https://example.org/gauge"],
    ['HYPERLINK "https://example.org/gauge" \\o "The gauge"', "https://example.org/gauge"],
    ['HYPERLINK \\t "https://example.org/gauge"', "https://example.org/gauge"],
    ['hyperlink "mailto:station@example.org"', "mailto:station@example.org"],
  ])("%j to %s", (instruction, link) => {
    expect(fieldLink(instruction)).toBe(link);
  });

  it.each(['HYPERLINK \\l "chapter_2"', "PAGEREF _Toc123 \\h", 'HYPERLINK "javascript:alert(1)"', "HYPERLINK", ""])(
    "%j nowhere",
    (instruction) => {
      expect(fieldLink(instruction)).toBeUndefined();
    },
  );
});
