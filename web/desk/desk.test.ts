import { matches } from "./matches";

describe("finding a deck by its name", () => {
  it.each([
    ["Tides, dunes and storms", "dunes", true],
    ["Tides, dunes and storms", "DUNE", true],
    ["TB2-07-Alder", "TB2-*-*", true],
    ["TB2-07-Alder", "TB2-*", true],
    ["TB2-07-Alder", "*-alder", true],
    ["TB2-07-Alder", "TB3-*", false],
    ["a.b", "a?b", false],
    ["Tides 2", "*s 2", true],
    ["anything", "  ", true],
  ])("%s is found by %s: %s", (title, pattern, found) => {
    expect(matches(title, pattern)).toBe(found);
  });
});
