import { checkTranslation } from "./index";

const faults = (source: string, target: string, to: string, from = "en") =>
  checkTranslation({ source: [source], target: [target], from, to }).map(({ fault }) => fault);

describe("what a language asks of its marks, spaces and letters", () => {
  // CLDR, delimiters: « » in French, „ “ in German, “ ” in English.
  it.each([
    ["fr", "Il dit « marée haute » ce soir.", []],
    ["fr", "Il dit “marée haute” ce soir.", []],
    ["fr", "Il dit „marée haute“ ce soir.", ["quotation"]],
    ["de", "Er sagt „Hochwasser“ heute Abend.", []],
    ["de", 'Er sagt "Hochwasser" heute Abend.', ["quotation"]],
    ["ja", "彼は今夜「満潮」と言う。", []],
  ])("has its own quotation marks in %s: %s", (to, target, expected) => {
    expect(faults("He says “high water” tonight.", target, to)).toEqual(expected);
  });

  // Common practice, no source: French sets these marks apart, other languages do not.
  it.each([
    ["fr", "Où est la mer ?", []],
    ["fr", "Où est la mer?", ["spacing"]],
    ["de", "Wo ist das Meer ?", ["spacing"]],
    ["es", "¿Dónde está el mar?", []],
    ["es", "Dónde está el mar?", ["spacing"]],
    ["zh", "大海在哪里？", []],
    ["zh", "大海在哪里?", ["spacing"]],
  ])("sets its marks as %s does: %s", (to, target, expected) => {
    expect(faults("Where is the sea?", target, to)).toEqual(expected);
  });

  it("begins as the source does, where letters have capitals", () => {
    expect(faults("High water", "marea alta", "es")).toEqual(["capitals"]);
    expect(faults("high water", "Hochwasser", "de")).toEqual([]);
    expect(faults("High water", "ماء عالٍ", "ar")).toEqual([]);
    expect(faults("High water", "HOCHWASSER", "de")).toEqual(["capitals"]);
  });

  it("is about as long as the source, in letters of a kind", () => {
    expect(faults("The foot of the dune", "Der Fuß der Düne, an dem der Sand fällt und die Welle beißt", "de")).toEqual(
      ["length"],
    );
    expect(faults("The foot of the dune moves", "Der Fuß", "de")).toEqual(["length"]);
    expect(faults("The foot of the dune moves inland", "沙丘脚内移", "zh")).toEqual([]);
  });

  // SI Brochure, section 5: symbols of units are the same in every language.
  it("keeps the units of its numbers", () => {
    expect(faults("Water at 4.6 m", "Wasser bei 4,6 m", "de")).toEqual([]);
    expect(faults("Water at 4.6 m", "Wasser bei 4,6 km", "de")).toEqual(["unit"]);
    expect(faults("Up by 11 % in May", "Um 11 Prozent im Mai", "de")).toEqual(["unit"]);
  });
});
