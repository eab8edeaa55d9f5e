import {
  type BreakRule,
  DOCUMENT_RULE,
  emptyDeck,
  type Extra,
  metadataOf,
  nameOf,
  type Slide,
} from "@unitext/core/model";
import { elementTexts, textOf } from "@unitext/core/model";
import { readText } from "@unitext/core/text";
import { idSource } from "@unitext/core/testing";
import { shippedFonts } from "@unitext/core/testing/fonts";
import { loadGrammar } from "./grammar";
import { generate } from "./index";

beforeAll(loadGrammar);

const fonts = shippedFonts();
const TEXT = `---
title: Field handbook
author: Course team
---

# Gauges

## At the quay

- The float is read at ten, see [the tables](https://tables.example/quay)

## At the bar

- The sensor sinks in mud[^1]

# Dunes

## Transects

- Four times a year

## Plants

- Marram holds the sand

[^1]: Report of the station, 2024.
`;
const slidesOf = (extras: Extra[], language = "en", text = TEXT): Slide[] => {
  const rule: BreakRule = { ...DOCUMENT_RULE, extras };
  const metadata = metadataOf(emptyDeck("d", "", language));
  return [...generate(readText(text), rule, { newId: idSource(), metadata, fonts, document: "doc" })].map(
    ({ slide }) => slide,
  );
};
const names = (slides: readonly Slide[]) => slides.map((slide) => `${slide.arrangement}: ${nameOf(slide)}`);
const wordsIn = (slide: Slide | undefined) =>
  (slide?.elements ?? [])
    .filter(({ slot }) => slot !== "title")
    .flatMap((element) => elementTexts(element).map(textOf));

describe("slides added on request", () => {
  const own = names(slidesOf([]));

  it("are none without a request", () => {
    expect(own[0]).toBe("opening: Field handbook");
    expect(own.some((name) => name.endsWith("Agenda"))).toBe(false);
  });

  it("are an agenda after the opening, with the topics of the text", () => {
    const slides = slidesOf(["agenda"]);
    expect(names(slides)).toEqual([own[0], "points: Agenda", ...own.slice(1)]);
    expect(wordsIn(slides[1])).toEqual(["Gauges\nDunes"]);
  });

  it("are a line on section openers that names what the section holds", () => {
    const slides = slidesOf(["contents"]);
    expect(names(slides)).toEqual(own);
    const openers = slides.filter(({ arrangement }) => arrangement === "section");
    expect(openers.map(wordsIn)).toEqual([["At the quay · At the bar"], ["Transects · Plants"]]);
  });

  it("are the sources of all slides at the end, each once, and a closing slide with the author", () => {
    const slides = slidesOf(["sources", "closing"]);
    expect(names(slides)).toEqual([...own, "references: Sources", "section: Thank you"]);
    expect(wordsIn(slides.at(-2))).toEqual(["Report of the station, 2024.\nthe tables: tables.example/quay"]);
    expect(wordsIn(slides.at(-1))).toEqual(["Course team"]);
  });

  it("are named in the language of the deck, and made again the same", () => {
    const german = slidesOf(["agenda", "sources", "closing"], "de");
    expect(names(german).filter((name) => /Agenda|Quellen|Dank/.test(name))).toEqual([
      "points: Agenda",
      "references: Quellen",
      "section: Vielen Dank",
    ]);
    expect(slidesOf(["agenda"]).map(({ source }) => source?.hash)).toEqual(
      slidesOf(["agenda"]).map(({ source }) => source?.hash),
    );
  });

  it("leave out an agenda of one topic and sources of a text without any", () => {
    const one = "# Gauges\n\n- The float is read at ten\n";
    expect(names(slidesOf(["agenda", "sources"], "en", one)).some((name) => /Agenda|Sources/.test(name))).toBe(false);
  });
});
