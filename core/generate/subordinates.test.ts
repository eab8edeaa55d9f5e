import { compressed } from "./compression";

/** Returns what stays of a sentence as a point. */
const left = (sentence: string, language: string): string | undefined =>
  compressed(sentence, language)
    ?.map(({ from, to }) => sentence.slice(from, to))
    .join("");

// Sentences of our own; the order of clauses is that of school grammars (common practice, no source).
describe("a sentence of a language without a tagger", () => {
  it.each([
    [
      "de",
      "Nach dem Sturm wird das Profil der Düne von oben gemessen, weil die Kante überhängt und leicht abbricht.",
      "Nach dem Sturm wird das Profil der Düne von oben gemessen.",
    ],
    [
      "de",
      "Der Pegel am alten Kai, der neben der Treppe steht, wird jeden Morgen von den Studierenden des Kurses abgelesen.",
      "Der Pegel am alten Kai wird jeden Morgen von den Studierenden des Kurses abgelesen.",
    ],
    [
      "fr",
      "La marégraphe du vieux quai est lue chaque matin par les étudiants du cours, parce que la mer est alors calme.",
      "La marégraphe du vieux quai est lue chaque matin par les étudiants du cours.",
    ],
    [
      "es",
      "El mareógrafo del muelle viejo se lee cada mañana por los estudiantes del curso, ya que el mar está tranquilo.",
      "El mareógrafo del muelle viejo se lee cada mañana por los estudiantes del curso.",
    ],
  ])("loses the clause after its main clause: %s", (language, sentence, point) => {
    expect(left(sentence, language)).toBe(point);
  });

  it.each([
    ["de", "Die Station schließt bei Sturm und alle Geräte werden am Tag vorher geborgen, weil es kein Boot gibt."],
    [
      "de",
      "Die Gruppe geht mit dem Boot zur Bank hinaus und kehrt bei Niedrigwasser um, wenn die Stange im Wasser steht.",
    ],
    [
      "fr",
      "La station ferme pendant les tempêtes et les appareils sont rentrés la veille, parce que rien ne les protège.",
    ],
    ["es", "La estación cierra durante las tormentas y los aparatos se recogen la víspera, porque no hay barco."],
  ])("keeps a negation or a condition: %s", (language, sentence) => {
    expect(left(sentence, language)).toBe(sentence);
  });

  it("gives no point where it is too long and cannot be shortened", () => {
    const long = `${"Die Assistenten der Station messen die Höhe der Düne und ".repeat(3)}schreiben alles auf.`;
    expect(left(long, "de")).toBeUndefined();
  });

  it("stays whole where it is short", () => {
    const short = "Der Strand, der nach Westen liegt, wächst.";
    expect(left(short, "de")).toBe(short);
  });
});
