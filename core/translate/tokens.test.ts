import { missingTokens, piecesOf, typedText } from "./index";

const source = [
  "See ",
  { code: 1, at: "open" as const },
  "the dunes",
  { code: 1, at: "close" as const },
  { code: 2, at: "single" as const },
];
const codes = { 1: { single: false, label: "strong" }, 2: { single: true, label: "footnote" } };

it("placeholders are typed as numbers and read again", () => {
  expect(typedText(source)).toBe("See ⟨1⟩the dunes⟨/1⟩⟨2⟩");
  expect(piecesOf("See ⟨1⟩the dunes⟨/1⟩⟨2⟩", codes)).toEqual(source);
  expect(piecesOf("Nr. ⟨7⟩", codes)).toEqual(["Nr. ⟨7⟩"]);
});

it("those that are missing are put in as they are: a pair with both of its ends", () => {
  expect(missingTokens(source, "Siehe ")).toEqual(["⟨1⟩⟨/1⟩", "⟨2⟩"]);
  expect(missingTokens(source, "Siehe ⟨1⟩die Dünen⟨/1⟩")).toEqual(["⟨2⟩"]);
});
