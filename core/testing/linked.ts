import { type Deck, emptyDeck, newSlide, plainText, run, THEMES } from "@unitext/core/model";

/** Three slides with links between them and to the web, notes, bindings, a hidden detail, and words in two scripts. */
export function linked(): Deck {
  const deck = {
    ...emptyDeck("course", "Tides"),
    theme: THEMES.nightwatch,
    page: { width: 720, height: 540 },
    language: "en-GB",
  };
  const text = (id: string, slot: string, value: ReturnType<typeof plainText>) => ({
    kind: "text" as const,
    id,
    slot,
    text: value,
  });
  return {
    ...deck,
    properties: { title: "Tides", author: "Course team", event: "Week 3", date: "2026-03-01" },
    slides: [
      {
        ...newSlide("one", "opening"),
        elements: [text("a", "title", plainText("Tides")), text("b", "subtitle", plainText("Course team"))],
      },
      {
        ...newSlide("two", "points"),
        elements: [
          text("c", "title", plainText("Menu")),
          {
            ...text("d", "body", [
              {
                kind: "bullet",
                level: 0,
                runs: [
                  run("To the gauge", [], "slide:three"),
                  run(" or "),
                  run("the web", ["strong"], "https://example.org/a?b=1&c=2"),
                ],
              },
            ]),
            binding: { source: "gauges.xlsx", range: "Levels!A1:C13", mode: "latest" },
          },
        ],
        notes: [{ kind: "plain", level: 0, runs: [run("Slow down\n"), run("npm test", ["code"])] }],
      },
      {
        ...newSlide("three", "points"),
        parent: "two",
        hidden: true,
        elements: [text("e", "title", plainText("مقياس المدّ")), text("f", "body", plainText("Back"))],
      },
    ],
  };
}
