import { execFileSync } from "node:child_process";
import { createHash } from "node:crypto";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { readDeck } from "@unitext/core/formats";
import { bindingsOn, type Deck, footnotesOf, linksOf, slideTexts, textOf } from "@unitext/core/model";
import {
  matchTargets,
  type MemoryUnit,
  pseudoTranslation,
  readTmx,
  readTermsTbx,
  readXliff,
  type Segment,
  segmentsOf,
  type Target,
  type Term,
  translateDeck,
  wordsOf,
  writeTermsTbx,
  writeTmx,
  writeXliff,
  XLIFF_VERSIONS,
} from "./index";

const TEXT = `---
title: Tides
language: en
footer: Marram Bay
---

# Tides

## The quay {#quay}

- The water rises **twice** a day[^1]. It stood at [4.6](cell:gauges.xlsx?range=Levels!D2&mode=latest) m.
- See [the dunes](#dunes) and \`plot levels\`

:::notes
Dr. Tern measured it. Ask the class.
:::

## The dunes {#dunes}

| Line | Height |
| --- | --: |
| foredune | 4.6 |

[^1]: At this coast.
`;
let serial = 0;
const read = (text: string): Deck =>
  readDeck(new TextEncoder().encode(text), "tides.md", {
    newId: () => `n${++serial}`,
    sha256: (bytes) => createHash("sha256").update(bytes).digest("hex"),
  }).deck;
const deck = read(TEXT);
const upper = ({ source }: Segment): Target => ({
  pieces: source.map((piece) => (typeof piece === "string" ? piece.toUpperCase() : piece)),
  state: "draft",
});
const carried = ({ slides }: Deck) => ({
  links: slides.flatMap((slide) => slideTexts(slide).flatMap((text) => linksOf(text).map(({ to }) => to))),
  footnotes: slides.flatMap((slide) => slideTexts(slide).flatMap(footnotesOf)).length,
  bindings: slides.flatMap((slide) => bindingsOn(slide).map(({ binding }) => binding)),
  ids: slides.map(({ id, elements }) => [id, elements.map((element) => element.id)]),
});

describe("a deck in another language", () => {
  it("has the words of the translation, and everything else of the original", () => {
    const { deck: made, segments, translated, adapted } = translateDeck(deck, "de", upper);
    expect([segments, adapted]).toEqual([translated, []]);
    expect([made.language, made.properties.title, made.regions.footer]).toEqual(["de", "TIDES", "MARRAM BAY"]);
    expect(carried(made)).toEqual(carried(deck));
    const words = made.slides.map((slide) => slideTexts(slide).map(textOf).join(" ")).join(" ");
    // The linked value and the cell with a number alone are in the form of the language; code stays.
    expect(words).toContain("IT STOOD AT 4,6 M.");
    expect(words).toContain("plot levels");
    expect(words).toMatch(/FOREDUNE 4,6/);
  });

  it("keeps the original where there is no translation, and every footnote, value and link where one was lost", () => {
    const lost = translateDeck(deck, "de", ({ source }) => ({ pieces: [wordsOf(source)], state: "draft" }));
    expect(carried(lost.deck)).toMatchObject({ footnotes: 1, bindings: carried(deck).bindings });
    expect(new Set(carried(lost.deck).links)).toEqual(new Set(carried(deck).links));
    expect(lost.adapted.map(({ how }) => how)).toContain("missing in the translation; put at its end");
    const same = translateDeck(deck, "en", () => undefined);
    expect([same.translated, same.deck.slides]).toEqual([0, deck.slides]);
  });

  it("is longer and accented in the pseudo language, and in other letters from right to left", () => {
    expect(pseudoTranslation(["The tide rises"], "de")[1]).toMatch(/^Thé tíídéé ríš/);
    expect(pseudoTranslation(["tide 4"], "ar").join("")).toMatch(/^[\u0600-\u06ff]+ 4$/);
  });
});

describe.each(XLIFF_VERSIONS)("XLIFF %s", (version) => {
  const segments = segmentsOf(deck);
  const written = (targetOf?: (segment: Segment) => Target | undefined) =>
    writeXliff({ deck, to: "de", segments, ...(targetOf ? { targetOf } : {}) }, version);

  it("is read as it was written, with placeholders and states", () => {
    const file = readXliff(
      written((segment) => ({ ...upper(segment), state: "reviewed" })),
      "a.xlf",
    );
    expect([file.from, file.to, file.problems]).toEqual(["en", "de", []]);
    const { targets, remarks } = matchTargets(segments, file);
    expect(remarks).toEqual([]);
    for (const segment of segments) expect(targets.get(segment.id)).toEqual({ ...upper(segment), state: "reviewed" });
  });

  it("has no target where nothing is translated", () => {
    expect(matchTargets(segments, readXliff(written(), "a.xlf")).targets.size).toBe(0);
  });

  it("is matched with a later deck by its texts, and says what is not in it any more", () => {
    const later = segmentsOf(read(TEXT.replace("Ask the class.", "Ask them all.")));
    const { targets, remarks } = matchTargets(later, readXliff(written(upper), "a.xlf"));
    expect(later.filter(({ id }) => !targets.has(id)).map(({ source }) => wordsOf(source))).toEqual(["Ask them all."]);
    expect(remarks).toEqual([
      "“Ask the class.” is not in the deck any more, or reads otherwise; its translation was not taken.",
    ]);
  });

  it.each([
    ["other XML", "<a/>"],
    ["damaged XML", "<xliff version='1.2'><file>"],
    ["a document type with entities", '<!DOCTYPE x [<!ENTITY a "aaaa">]><xliff version="1.2"/>'],
  ])("refuses %s", (_, text) => {
    expect(() => readXliff(text, "a.xlf")).toThrow();
  });
});

it("a unit that another tool has cut differently is taken whole (XLIFF 2.1, 4.7.2.1)", () => {
  const segments = segmentsOf(deck);
  const text = writeXliff({ deck, to: "de", segments, targetOf: upper }, "2.1").replace(
    /(<source>Dr\. Tern measured it\.)<\/source><target>([^<]*)<\/target><\/segment><segment id="s2" state="translated"><source>([^<]*)<\/source><target>([^<]*)<\/target>/,
    "$1 $3</source><target>$2 $4</target>",
  );
  expect(text).toContain("<source>Dr. Tern measured it. Ask the class.</source>");
  const { targets, remarks } = matchTargets(segments, readXliff(text, "a.xlf"));
  expect(remarks).toEqual([]);
  const { deck: made, segments: all, translated } = translateDeck(deck, "de", ({ id }) => targets.get(id));
  expect(all).toBe(translated);
  expect(textOf(made.slides[1]?.notes ?? [])).toBe("DR. TERN MEASURED IT. ASK THE CLASS.");
});

describe("python3-translate", () => {
  const folder = mkdtempSync(join(tmpdir(), "unitext-exchange-"));
  const python = (script: string, ...args: string[]) =>
    JSON.parse(execFileSync("/usr/bin/python3", ["-c", script, ...args], { encoding: "utf8" }));
  const file = (name: string) => join(folder, name);
  afterAll(() => rmSync(folder, { recursive: true, force: true }));

  it("reads the units of our XLIFF 1.2, and its translations come back", () => {
    const segments = segmentsOf(deck);
    writeFileSync(file("a.xlf"), writeXliff({ deck, to: "de", segments }, "1.2"));
    const found = python(
      `
import json, sys
from translate.storage import xliff
store = xliff.xlifffile.parsefile(sys.argv[1])
print(json.dumps([[unit.getid().split("\\x04")[-1], unit.source] for unit in store.units]))
for unit in store.units:
    if "<" not in str(unit.rich_source[0]):
        unit.target = unit.source.upper()
store.savefile(sys.argv[2])
`,
      file("a.xlf"),
      file("b.xlf"),
    );
    expect(found).toHaveLength(segments.length);
    expect(found.map(([id]: string[]) => id)).toEqual(segments.map(({ id }) => id));
    const { targets } = matchTargets(segments, readXliff(readFileSync(file("b.xlf"), "utf8"), "b.xlf"));
    expect(wordsOf(targets.get("deck:title")?.pieces ?? [])).toBe("TIDES");
  });

  it("finds the proposals of a memory in our XLIFF 1.2 as alternatives, and we never take one for a translation", () => {
    const segments = segmentsOf(deck);
    const proposalsOf = ({ source }: Segment) => [
      {
        source: ["Tide, once"],
        pieces: ["Gezeit ", ...source.slice(0, 1)],
        likeness: 0.854,
        sameContext: false,
        numbersAdapted: false,
      },
    ];
    const request = { deck, to: "de", segments, proposalsOf };
    writeFileSync(file("alternatives.xlf"), writeXliff(request, "1.2"));
    const found = python(
      `
import json, sys
from translate.storage import xliff
store = xliff.xlifffile.parsefile(sys.argv[1])
print(json.dumps([[alternative.target, alternative.xmlelement.get("match-quality")] for unit in store.units for alternative in unit.getalttrans()]))
`,
      file("alternatives.xlf"),
    );
    expect(found).toHaveLength(segments.length);
    expect(found[0]).toEqual([expect.stringMatching(/^Gezeit /), "85%"]);
    // XLIFF 2.1, section 5.1: candidates are in a module of their own.
    expect(writeXliff(request, "2.1")).toMatch(/<mtc:match ref="#s1" matchQuality="85" type="tm"><source>Tide, once</);
    for (const version of ["1.2", "2.1"] as const)
      expect(readXliff(writeXliff(request, version), "a.xlf").segments.filter(({ target }) => target)).toEqual([]);
  });

  it("reads our TMX 1.4b, and we read what it writes", () => {
    const units: MemoryUnit[] = segmentsOf(deck).map((segment) => ({
      from: "en",
      to: "de",
      source: segment.source,
      target: upper(segment).pieces,
    }));
    writeFileSync(file("a.tmx"), writeTmx(units, { from: "en" }));
    const found = python(
      `
import json, sys
from translate.storage import tmx
store = tmx.tmxfile.parsefile(sys.argv[1])
print(json.dumps([unit.source for unit in store.units]))
made = tmx.tmxfile()
made.addtranslation("The tide", "en", "Die Flut", "de")
made.savefile(sys.argv[2])
`,
      file("a.tmx"),
      file("b.tmx"),
    );
    expect(found).toHaveLength(units.length);
    const back = (name: string) => {
      const read: MemoryUnit[] = [];
      readTmx([readFileSync(file(name), "utf8")], name, { from: "en", to: "de" }, (unit) => read.push(unit));
      return read;
    };
    expect(back("a.tmx")).toEqual(units);
    expect(back("b.tmx")).toEqual([{ from: "en", to: "de", source: ["The tide"], target: ["Die Flut"] }]);
    const typed = `<?xml version="1.0"?><!DOCTYPE tmx SYSTEM "tmx14.dtd">${readFileSync(file("a.tmx"), "utf8").replace(/<\?xml[^>]*>/, "")}`;
    const count = readTmx([typed.slice(0, 60), typed.slice(60)], "c.tmx", { from: "en", to: "de" }, () => undefined);
    expect(count.units).toBe(units.length);
  });

  it("reads the terms that we write, and we read its own (TBX, ISO 30042:2008)", () => {
    const terms: Term[] = [
      { source: "foredune", target: "Vordüne", note: "not the white dune", forbidden: ["Weißdüne", "Dünenfuß"] },
      { source: "wind & tide", target: "Wind und Gezeit" },
    ];
    writeFileSync(file("a.tbx"), writeTermsTbx(terms, { from: "en", to: "de" }));
    const found = python(
      `
import json, sys
from translate.storage import tbx
store = tbx.tbxfile.parsefile(sys.argv[1])
print(json.dumps([[unit.source, unit.target, unit.getnotes()] for unit in store.units]))
made = tbx.tbxfile(sourcelanguage="en", targetlanguage="de")
made.addsourceunit("tide").settarget("Gezeit", "de")
made.savefile(sys.argv[2])
`,
      file("a.tbx"),
      file("b.tbx"),
    );
    expect(found).toEqual([
      ["foredune", "Vordüne", "not the white dune"],
      ["wind & tide", "Wind und Gezeit", ""],
    ]);
    const back = (name: string) => readTermsTbx(readFileSync(file(name)), name, { from: "en-GB", to: "de" });
    expect(back("a.tbx")).toEqual({ terms, problems: [] });
    expect(back("b.tbx")).toEqual({ terms: [{ source: "tide", target: "Gezeit" }], problems: [] });
  });
});

describe("TBX", () => {
  const read = (text: string) => readTermsTbx(new TextEncoder().encode(text), "a.tbx", { from: "en", to: "de" });

  // The names of elements and of states are those of ISO 30042:2019, from memory.
  it("is read in the form of 2019, with synonyms, words that are not used, and entries in other languages", () => {
    const section = (language: string, ...terms: string[]) =>
      `<langSec xml:lang="${language}">${terms.map((term) => `<termSec>${term}</termSec>`).join("")}</langSec>`;
    const old = '<termNote type="administrativeStatus">deprecatedTerm-admn-sts</termNote>';
    const text = `<?xml version="1.0"?><tbx style="dca" type="TBX-Basic" xml:lang="en" xmlns="urn:iso:std:iso:30042:ed-2"><tbxHeader/><text><body>
      <conceptEntry id="c1">${section("en-US", "<term>foredune</term>", "<term>front dune</term>")}${section("de", `<term>Weißdüne</term>${old}`, "<term>Vordüne</term>", "<term>Primärdüne</term>")}</conceptEntry>
      <conceptEntry id="c2">${section("en", "<term>tide</term>")}${section("es", "<term>marea</term>")}</conceptEntry>
    </body></text></tbx>`;
    expect(read(text)).toEqual({
      terms: [
        { source: "foredune", target: "Vordüne", forbidden: ["Weißdüne"] },
        { source: "front dune", target: "Vordüne", forbidden: ["Weißdüne"] },
      ],
      problems: [
        "“foredune” has 2 translations; the first, “Vordüne”, counts.",
        "1 entry does not have both languages.",
      ],
    });
  });

  it("is refused where it is something else, or defines entities", () => {
    expect(() => read("<tmx><body/></tmx>")).toThrow(/no TBX/);
    expect(() => read('<!DOCTYPE tbx [<!ENTITY a "b">]><tbx><text><body/></text></tbx>')).toThrow();
    expect(() => read("<tbx><text>")).toThrow();
  });
});
