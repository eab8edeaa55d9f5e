import { loadGrammar } from "./grammar";
import { extractPoints, pointFaults } from "./index";

beforeAll(loadGrammar);

describe("a point that a service wrote", () => {
  const sentence = "After the storm of 2024 the gauge at North Quay did not recover for about 12 days.";

  it("is taken where it says what its sentence says", () => {
    expect(pointFaults(sentence, "In 2024 the gauge at North Quay did not recover for about 12 days", "en")).toEqual(
      [],
    );
  });

  it.each([
    ["number", "In 2024 the gauge at North Quay did not recover for about 13 days"],
    ["lost-number", "The gauge at North Quay did not recover for about 12 days"],
    ["name", "In 2024 the gauge at North Bridge did not recover for about 12 days"],
    ["negation", "In 2024 the gauge at North Quay did recover for about 12 days"],
    ["hedge", "In 2024 the gauge at North Quay did not recover for 12 days"],
    ["clause", "In 2024 no gauge at North Quay for about 12 days"],
  ])("is refused for its %s", (fault, point) => {
    expect(pointFaults(sentence, point, "en")).toContain(fault);
  });

  it("is refused where it is as long as a paragraph", () => {
    expect(pointFaults("Sand moves.", "Sand moves along the shore with every tide ".repeat(5), "en")).toContain("long");
  });

  it.each([
    ["de", "Der Pegel fällt nicht.", "Der Pegel fällt"],
    ["fr", "Le niveau ne baisse pas.", "Le niveau baisse"],
    ["es", "El nivel no baja.", "El nivel baja"],
  ])("keeps the negation of a sentence in %s", (language, from, point) => {
    expect(pointFaults(from, point, language)).toContain("negation");
  });
});

describe("the engine without a service", () => {
  it("gives for every sentence its point, or none, and every one passes the checks", async () => {
    const sentences = [
      "However, the gate of the quay closes at 22:00.",
      "It does so every day.",
      "The staff of the quay is read by eye to the centimetre, which takes more time than the younger assistants expect.",
    ];
    const [points = []] = await extractPoints([sentences], "en");
    expect(points).toEqual([
      "The gate of the quay closes at 22:00",
      null,
      "The staff of the quay is read by eye to the centimetre",
    ]);
    points.forEach((point, at) => {
      if (point !== null) expect(pointFaults(sentences[at] ?? "", point, "en")).toEqual([]);
    });
  });
});
