import { type Deck, emptyDeck, newSlide, plainText, type RichText, run, slideTexts, must } from "@unitext/core/model";
import { tally } from "@unitext/core/tally";
import { deckArbitrary } from "@unitext/core/testing";
import { shippedFonts } from "@unitext/core/testing/fonts";
import fc from "fast-check";
import { strFromU8 } from "fflate";
import type { Element, Nodes } from "hast";
import { fromHtml } from "hast-util-from-html";
import { shownSlides, WRITERS, writeReport } from "../../index";

const fonts = shippedFonts();
const image = new Uint8Array([1, 2, 3]);
const write = async (deck: Deck) =>
  strFromU8(await WRITERS.html.write(deck, { fonts, at: new Date(0), picture: () => image }));
const all = (node: Nodes, test: (element: Element) => boolean): Element[] => [
  ...(node.type === "element" && test(node) ? [node] : []),
  ...("children" in node ? node.children.flatMap((child) => all(child as Nodes, test)) : []),
];
const text = (node: Nodes): string =>
  node.type === "text"
    ? node.value
    : "children" in node
      ? node.children.map((child) => text(child as Nodes)).join(" ")
      : "";
const content = (element: Element) =>
  "content" in element && element.content ? text(element.content as Nodes) : text(element);
const squeezed = (words: string) => words.replace(/\s+/g, "");
const has = (name: string) => (element: Element) =>
  (Array.isArray(element.properties.className) ? element.properties.className : []).includes(name);

const deck: Deck = {
  ...emptyDeck("d", "Tides & dunes"),
  language: "en-GB",
  assets: { "pictures/a.png": { sha256: "a".repeat(64), mediaType: "image/png", width: 4, height: 3 } },
  slides: [
    {
      ...newSlide("one", "points"),
      transition: { kind: "fade", seconds: 1.5 },
      elements: [
        { kind: "text", id: "t", slot: "title", text: plainText("Tides") },
        {
          kind: "text",
          id: "b",
          slot: "body",
          steps: true,
          text: [
            { kind: "bullet", level: 0, runs: [run("to "), run("details", ["strong"], "slide:two")] },
            { kind: "bullet", level: 1, runs: [run("<b>", ["code"])] },
            { kind: "number", level: 0, runs: [run("web", [], "https://example.org/?a=1&b=2")] },
          ],
        },
      ],
      notes: [...plainText("Say it slowly"), { kind: "plain", level: 0, runs: [run("npm test", ["code"])] }],
    },
    {
      ...newSlide("two", "points"),
      parent: "one",
      delay: 5,
      elements: [
        { kind: "text", id: "t", slot: "title", text: plainText("Detail") },
        { kind: "picture", id: "p", slot: null, source: "pictures/a.png", alt: "The quay" },
      ],
    },
    {
      ...newSlide("three", "points"),
      hidden: true,
      elements: [{ kind: "text", id: "t", slot: "title", text: plainText("Secret") }],
      notes: plainText("not for you"),
    },
  ],
};

describe("the web page", () => {
  it("asks nothing of the network and shows no hidden slide", async () => {
    const page = await write(deck);
    expect(page.match(/(?:src|href)="(?!#|data:|https:\/\/example\.org|mailto:)[^"]*"/g)).toBeNull();
    expect(page).not.toMatch(/@import|url\(|fetch\(|XMLHttpRequest|<link|<img/);
    expect(page).not.toMatch(/Secret|not for you/);
    expect(page).toContain('href="data:image/png;base64,AQID"');
  });

  it("plays films with the controls of the browser and sounds with a button, where they stand and when they have come in", async () => {
    const frame = { x: 96, y: 54, width: 480, height: 270 };
    const given: Deck = {
      ...deck,
      assets: {
        ...deck.assets,
        "a.mp4": { sha256: "b".repeat(64), mediaType: "video/mp4", width: 1, height: 1 },
        "a.wav": { sha256: "c".repeat(64), mediaType: "audio/wav", width: 1, height: 1 },
      },
      slides: [
        {
          ...newSlide("one", "blank"),
          elements: [
            {
              kind: "media",
              id: "f",
              slot: null,
              frame,
              source: "a.mp4",
              type: "video",
              poster: "pictures/a.png",
              alt: 'The "tide"',
              entrance: { order: 1, trigger: "press", effect: "fade", seconds: 0.5 },
            },
            { kind: "media", id: "s", slot: null, frame, source: "a.wav", type: "audio", alt: "" },
            {
              kind: "media",
              id: "w",
              slot: null,
              frame,
              source: "https://example.org/far.mp4",
              type: "video",
              alt: "Far",
            },
          ],
        },
      ],
    };
    const tree = fromHtml(await write(given));
    const [film, ...more] = all(tree, ({ tagName }) => tagName === "video");
    expect(more).toEqual([]);
    expect(film?.properties).toMatchObject({
      controls: true,
      ariaLabel: 'The "tide"',
      src: "data:video/mp4;base64,AQID",
      poster: "data:image/png;base64,AQID",
      dataStep: "1",
      style: "left:10%;top:10%;width:50%;height:50%",
    });
    const sounds = all(tree, has("sound"));
    expect(
      sounds.map((sound) => [
        all(sound, ({ tagName }) => tagName === "audio")[0]?.properties.src,
        all(sound, ({ tagName }) => tagName === "button")[0]?.properties.ariaLabel,
      ]),
    ).toEqual([["data:audio/wav;base64,AQID", "Play: Sound"]]);
    const said = (from: number, to: number) =>
      writeReport(
        { ...given, slides: given.slides.map((slide) => ({ ...slide, elements: slide.elements.slice(from, to) })) },
        "html",
      );
    expect([said(0, 2).adapted, said(0, 2).to.media]).toEqual([[], 2]);
    expect([said(2, 3).adapted, said(2, 3).to.media]).toEqual([
      [{ slide: 1, what: "a film", how: "shown by its picture" }],
      0,
    ]);
  });

  it("has a section a slide with its name, its place, its words, its links, its steps and its notes", async () => {
    const tree = fromHtml(await write(deck));
    const sections = all(tree, ({ tagName }) => tagName === "section") as [Element, Element];
    expect(
      sections.map(({ properties: { id, ariaLabel, dataParent, dataDelay, dataTransition } }) => [
        id,
        ariaLabel,
        dataParent,
        dataDelay,
        dataTransition,
      ]),
    ).toEqual([
      ["one", "1 of 2: Tides", undefined, undefined, "fade"],
      ["two", "2 of 2: Detail", "one", "5", undefined],
    ]);
    expect(
      all(sections[0], ({ tagName, properties }) => tagName === "a" && properties.tabIndex !== -1).map(
        ({ properties: { href, ariaLabel } }) => [href, ariaLabel],
      ),
    ).toEqual([
      ["#two", "details"],
      ["https://example.org/?a=1&b=2", "web"],
    ]);
    expect([
      ...new Set(
        all(sections[0], ({ properties }) => properties.dataStep !== undefined).map(
          ({ properties }) => properties.dataStep,
        ),
      ),
    ]).toEqual(["1", "2", "3"]);
    const [words] = all(sections[0], has("words")) as [Element];
    expect(
      all(words, ({ tagName }) => ["ul", "ol", "li", "h2"].includes(tagName)).map(({ tagName }) => tagName),
    ).toEqual(["h2", "ul", "li", "ul", "li", "ol", "li"]);
    expect(text(words)).toContain("<b>");
    expect(squeezed(content(must(all(sections[0], ({ tagName }) => tagName === "template")[0])))).toBe(
      "Sayitslowlynpmtest",
    );
    expect(text(must(all(sections[1], has("words"))[0]))).toContain("Picture: The quay");
    expect(must(all(tree, ({ tagName }) => tagName === "html")[0]).properties.lang).toBe("en-GB");
  });

  it("carries every word of any deck, in order, and the report says what it carries", async () => {
    await fc.assert(
      fc.asyncProperty(deckArbitrary({ minLength: 1, maxLength: 3 }), async (given) => {
        const tree = fromHtml(await write(given));
        const sections = all(tree, ({ tagName }) => tagName === "section");
        const shown = shownSlides(given);
        expect(sections.map(({ properties }) => properties.id)).toEqual(shown.map(({ id }) => id));
        sections.forEach((section, nth) => {
          const said = squeezed(
            text(must(all(section, has("words"))[0])) +
              all(section, ({ tagName }) => tagName === "template")
                .map(content)
                .join(""),
          );
          // A footnote stands in brackets where it is referred to.
          const without = (value: RichText) =>
            squeezed(
              value
                .flatMap(({ runs }) =>
                  runs.map(({ text: words, footnote }) =>
                    footnote ? `(${footnote.map((one) => one.text).join("")})` : words,
                  ),
                )
                .join(""),
            );
          for (const value of slideTexts(must(shown[nth]))) {
            for (const paragraph of value) if (without([paragraph])) expect(said).toContain(without([paragraph]));
          }
        });
        const { to } = writeReport(given, "html");
        expect(to).toMatchObject({
          slides: sections.length,
          hidden: 0,
          bindings: 0,
          tables: tally({ slides: shown }).tables,
        });
      }),
      { numRuns: 25 },
    );
  });
});
