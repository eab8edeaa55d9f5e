import { must } from "@unitext/core/model";
import { FACE_IDS, faceFor, familyNamed, isShipped } from "@unitext/core/layout";
import { shippedFonts } from "@unitext/core/testing/fonts";
import { create } from "fontkit";

const fonts = shippedFonts();

describe("shaping", () => {
  // The reference is fontkit, another implementation of OpenType layout, on the same files.
  it.each([
    ["atkinson-hyperlegible-next-latin-400-normal", ["Tide", "AVATAR", "Wave", "ffi", "50", "north-west", "To"]],
    ["literata-latin-400-normal", ["Saltmarsh", "AVATAR", "fluid", "office", "Ty"]],
    ["literata-latin-700-italic", ["Springs", "Neaps", "VA"]],
    ["noto-sans-greek-400-normal", ["παλίρροια", "Αύριο"]],
    ["noto-sans-cyrillic-700-normal", ["прилив", "Дюна"]],
    ["noto-sans-hebrew-hebrew-400-normal", ["שלום", "גאות"]],
    ["noto-sans-arabic-arabic-400-normal", ["ساحل", "بحر", "ماء"]],
  ])("%s gives the advances that fontkit gives", (id, words) => {
    const face = fonts.face(id);
    const reference = create(Buffer.from(face.bytes));
    const rtl = /hebrew|arabic/.test(id);
    for (const word of words) {
      const { advanceWidth } = reference.layout(word);
      expect(face.word(word, rtl, "en").width).toBeCloseTo(advanceWidth / reference.unitsPerEm, 3);
    }
  });

  it("takes ascent and descent from the font's own tables", () => {
    for (const id of ["literata-latin-400-normal", "noto-sans-latin-400-normal"]) {
      const face = fonts.face(id);
      const reference = create(Buffer.from(face.bytes));
      expect(face.metrics.ascent).toBeCloseTo(reference.ascent / reference.unitsPerEm, 3);
      expect(face.metrics.descent).toBeCloseTo(-reference.descent / reference.unitsPerEm, 3);
    }
  });

  it("adds up: the width up to the end of a word is its width, and never falls", () => {
    for (const word of ["Strandhafer", "مدّ", "e\u0301te\u0301", "ffi"]) {
      const { upTo, width, advances } = fonts
        .face(faceFor(familyNamed("Noto Sans"), must(word.codePointAt(0)), false, false, "").id)
        .word(word, /\u0645/.test(word), "en");
      expect(upTo.at(-1)).toBeCloseTo(width, 5);
      expect(advances.reduce((sum, next) => sum + next, 0)).toBeCloseTo(width, 5);
      for (let at = 1; at < upTo.length; at++) expect(upTo[at] ?? 0).toBeGreaterThanOrEqual(upTo[at - 1] ?? 0);
    }
  });

  it("draws no ligature in a monospaced face: every character is as wide as any", () => {
    const face = fonts.face("jetbrains-mono-latin-400-normal");
    const { advances, glyphs } = face.word("!==>->", false, "en");
    expect(glyphs).toHaveLength(6);
    expect(new Set([...advances].map((value) => value.toFixed(4))).size).toBe(1);
  });
});

describe("the shipped faces", () => {
  it("are all there, open, and have the characters that the catalogue says", () => {
    expect(FACE_IDS.length).toBeGreaterThan(80);
    for (const id of FACE_IDS.filter((face) => face.includes("400-normal")))
      expect(fonts.face(id).metrics.ascent).toBeGreaterThan(0);
  });

  it.each([..."aÄőŁαЖمشבא→≤≥√×½…✓"])("have %s somewhere", (character) => {
    const face = fonts.face(faceFor(familyNamed("Literata"), must(character.codePointAt(0)), false, false, "").id);
    expect([...face.word(character, false, "en").glyphs]).not.toContain(0);
  });

  it("stand in for families that do not ship", () => {
    expect(isShipped("Literata")).toBe(true);
    expect(isShipped("Some Office Font")).toBe(false);
    expect(familyNamed("Some Office Font").family).toBe("Arimo");
  });
});
