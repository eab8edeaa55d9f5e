import { type Deck, emptyDeck, newSlide, plainText, sections, must } from "@unitext/core/model";
import { filesBench } from "@unitext/core/testing/files";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { WRITERS } from "../../index";

const bench = filesBench();
const { context } = bench;
const write = (deck: Deck) => WRITERS.pptx.write(deck, context) as Uint8Array;
function read(bytes: Uint8Array): Deck {
  const found = bench.read(bytes, "deck.pptx");
  return found.deck;
}
/** The presentation as another program leaves it, its main part changed. */
function asAnother(bytes: Uint8Array, change: (text: string) => string = (text) => text): Uint8Array {
  return zipSync(
    Object.fromEntries(
      Object.entries(unzipSync(bytes)).map(([path, part]) => [
        path,
        /tags\//.test(path)
          ? strToU8(strFromU8(part).replace(/UNITEXT_/g, "OTHER_"))
          : path === "ppt/presentation.xml"
            ? strToU8(change(strFromU8(part)))
            : part,
      ]),
    ),
  );
}
const main = (bytes: Uint8Array) => strFromU8(must(unzipSync(bytes)["ppt/presentation.xml"]));
/** The presentation as a program leaves it that lists sections in an extension of its own. */
function sectionedBy(bytes: Uint8Array, list: readonly [string, readonly number[]][]): Uint8Array {
  const sections = list.map(
    ([name, slides], nth) =>
      `<s:section name="${name}" id="{0000000${nth}-0000-0000-0000-000000000000}"><s:sldIdLst>${slides.map((id) => `<s:sldId id="${id}"/>`).join("")}</s:sldIdLst></s:section>`,
  );
  return asAnother(bytes, (text) =>
    text.replace(
      "</p:presentation>",
      `<p:extLst><p:ext uri="{made-up}"><s:sectionLst xmlns:s="urn:example:sections">${sections.join("")}</s:sectionLst></p:ext></p:extLst></p:presentation>`,
    ),
  );
}
const said = (bytes: Uint8Array) =>
  [
    ...main(bytes).matchAll(
      /<s:section name="([^"]*)" id="\{[0-9A-F]{8}(?:-[0-9A-F]{4}){3}-[0-9A-F]{12}\}">(.*?)<\/s:section>/g,
    ),
  ].map(([, name, slides]) => [name, [...must(slides).matchAll(/id="(\d+)"/g)].map(([, id]) => Number(id))]);
const titled = (id: string, more: object = {}) => ({
  ...newSlide(id, "points" as const),
  elements: [{ kind: "text" as const, id: `${id}t`, slot: "title", text: plainText(id.toUpperCase()) }],
  ...more,
});
const deck: Deck = {
  ...emptyDeck("tides", "Tides"),
  slides: [
    titled("a"),
    titled("b", { section: "Ebb" }),
    titled("c", { parent: "b" }),
    titled("d", { arrangement: "section" }),
    titled("e", { section: "Slack" }),
  ],
};
const runs = ({ slides }: Deck) => slides.map(({ id }) => sections(slides).get(id));

describe("sections of a .pptx", () => {
  it("are kept by Unitext, which adds no extension to a file", () => {
    const bytes = write(deck);
    expect(runs(read(bytes))).toEqual([undefined, "Ebb", "Ebb", "D", "Slack"]);
    expect(read(bytes).slides.map(({ section }) => section)).toEqual([undefined, "Ebb", undefined, undefined, "Slack"]);
    expect(main(bytes)).not.toContain("sectionLst");
  });

  it("that are named on slides of a file without any come back, its slides as they were", () => {
    const given = read(asAnother(write({ ...deck, slides: [titled("a"), titled("b")] })));
    const slides = given.slides.map((slide, nth) => (nth === 1 ? { ...slide, section: "Ebb" } : slide));
    const bytes = write({ ...given, slides });
    expect(read(bytes).slides.map(({ section }) => section)).toEqual([undefined, "Ebb"]);
    expect(main(bytes)).not.toContain("sectionLst");
  });

  const LISTED: [string, number[]][] = [
    ["Before it all", [256]],
    ["Ebb", [257, 258]],
    ["D", [259]],
    ["Slack", [260]],
  ];

  it("of another program are read, kept as they are, and follow what is changed", () => {
    const bytes = sectionedBy(write(deck), LISTED);
    const before = read(bytes);
    expect(runs(before)).toEqual(["Before it all", "Ebb", "Ebb", "D", "Slack"]);
    expect(main(write(before))).toContain(must(/<p:extLst>.*<\/p:extLst>/.exec(main(bytes))?.[0]));
    const [a, b, c, d, e] = before.slides as [
      Deck["slides"][0],
      Deck["slides"][0],
      Deck["slides"][0],
      Deck["slides"][0],
      Deck["slides"][0],
    ];
    const moved = write({ ...before, slides: [a, d, b, c, { ...e, section: "Still water" }] });
    expect(said(moved).map(([name, slides]) => [name, (slides as number[]).length])).toEqual([
      ["Before it all", 1],
      ["D", 1],
      ["Ebb", 2],
      ["Still water", 1],
    ]);
    expect(runs(read(moved))).toEqual(["Before it all", "D", "Ebb", "Ebb", "Still water"]);
    const { section: _, ...bare } = e;
    expect(said(write({ ...before, slides: [a, bare] })).map(([name]) => name)).toEqual(["Before it all"]);
  });

  it("that list no slide, or one that is gone, begin nowhere", () => {
    const bytes = sectionedBy(write(deck), [
      ["Tides", [256]],
      ["Ebb", [999, 258]],
      ["D", [259]],
      ["Slack", []],
    ]);
    expect(runs(read(bytes))).toEqual(["Tides", "Tides", "Tides", "D", "D"]);
  });
});
