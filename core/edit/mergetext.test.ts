import { plainText, type RichText, run, textOf } from "@unitext/core/model";
import fc from "fast-check";
import { richText } from "@unitext/core/testing";
import { mergeTexts, mergeTextsWithBoth } from ".";

const merged = (base: string, mine: string, theirs: string) => {
  const text = mergeTexts(plainText(base), plainText(mine), plainText(theirs));
  return text && textOf(text);
};
const BASE = "The moon pulls the sea.\nThe sun pulls too.";

it.each([
  [
    "different paragraphs",
    "The moon pulls the water.\nThe sun pulls too.",
    "The moon pulls the sea.\nThe sun pulls less.",
  ],
  [
    "different words of a paragraph",
    "A moon pulls the sea.\nThe sun pulls too.",
    "The moon lifts the sea.\nThe sun pulls too.",
  ],
  [
    "a new paragraph and a word",
    "Today:\nThe moon pulls the sea.\nThe sun pulls too.",
    "The moon pulls the sea.\nThe sun helps too.",
  ],
  ["an end and a beginning", `${BASE} Always.`, `Now: ${BASE}`],
  [
    "a paragraph taken away and a word elsewhere",
    "The sun pulls too.",
    "The moon pulls the sea.\nThe sun pulls as well.",
  ],
])("%s: both changes are kept", (_, mine, theirs) => {
  const result = merged(BASE, mine, theirs);
  expect(result).toBeDefined();
  expect(merged(BASE, theirs, mine)).toBe(result);
});

it("two who write at the same place both have their words, those that came first first", () => {
  expect(merged("Tides", "Tides now", "Tides here")).toBe("Tides here now");
  expect(merged("", "mine", "theirs")).toBe("theirs\nmine");
});

it("two who change a word in different letters both have their letters", () => {
  expect(merged("tide table", "tides table", "Tide table")).toBe("Tides table");
});

it("two who replace the same words by different ones are told, and no text is made up", () => {
  expect(merged(BASE, BASE.replace("the sea", "an ocean"), BASE.replace("the sea", "all water"))).toBeUndefined();
  expect(merged(BASE, BASE.replace("too", ""), BASE.replace("too", "as well"))).toBeUndefined();
});

it("or both words are kept, where whoever writes sees them at once", () => {
  const text = (words: string) => plainText(words);
  expect(textOf(mergeTextsWithBoth(text("the sea"), text("the lake"), text("the pond")))).toBe("the pondlake");
});

it("a form and a word are both kept", () => {
  const base: RichText = [{ kind: "bullet", level: 0, runs: [run("high water at six")] }];
  const bold: RichText = [{ kind: "bullet", level: 0, runs: [run("high", ["strong"]), run(" water at six")] }];
  const later: RichText = [{ kind: "bullet", level: 1, runs: [run("high water at seven")] }];
  expect(mergeTexts(base, bold, later)).toEqual([
    { kind: "bullet", level: 1, runs: [run("high", ["strong"]), run(" water at seven")] },
  ]);
});

it("a sentence that one makes bold has the word that another writes in it", () => {
  const text = (...runs: RichText[number]["runs"]): RichText => [{ kind: "plain", level: 0, runs }];
  const [base, theirs] = [text(run("high water at six")), text(run("high water at seven"))];
  const bold = (words: string) => text(run(words, ["strong"]));
  expect(mergeTexts(base, bold("high water at six"), theirs)).toEqual(
    text(run("high water at ", ["strong"]), run("seven")),
  );
  // Two looks of the same words are one look.
  const italic = text(run("high water", ["emphasis"]), run(" at six"));
  expect(mergeTexts(base, bold("high water at six"), italic)).toEqual(
    text(run("high water", ["strong", "emphasis"]), run(" at six", ["strong"])),
  );
});

it("what only one side changed is that side's, for any texts", () => {
  fc.assert(
    fc.property(richText, richText, (base, other) => {
      expect(mergeTexts(base, other, base)).toEqual(other);
      expect(mergeTexts(base, base, other)).toEqual(other);
      expect(mergeTexts(base, other, other)).toEqual(other);
    }),
  );
});

it("a text that is taken apart into pieces is the same when it is put together", () => {
  fc.assert(
    fc.property(richText, (base) => {
      const mine: RichText = [{ kind: "plain", level: 0, runs: [run("first of all")] }, ...base];
      const theirs: RichText = [...base, { kind: "plain", level: 0, runs: [run("last of all")] }];
      if (!base.length) return;
      const words = textOf(mergeTexts(base, mine, theirs) ?? []);
      expect(words).toBe(textOf([...mine, ...theirs.slice(-1)]));
    }),
  );
});
