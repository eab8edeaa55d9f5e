import {
  type Deck,
  EFFECTS,
  type Element,
  emptyDeck,
  type Entrance,
  newSlide,
  orderedEntrances,
  plainText,
  revealsOf,
  type Slide,
  TRIGGERS,
  must,
} from "@unitext/core/model";
import { filesBench } from "@unitext/core/testing/files";
import fc from "fast-check";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { WRITERS, writeReport } from "./index";

const bench = filesBench();
const { context } = bench;
type Format = "pptx" | "odp";
const FORMATS = ["pptx", "odp"] as const;
const write = (deck: Deck, format: Format) => WRITERS[format].write(deck, context) as Uint8Array;
function read(bytes: Uint8Array, format: Format) {
  const found = bench.read(bytes, `deck.${format}`);
  return found;
}
/** The file as another program reads and leaves it: without what Unitext keeps in it, its content changed by hand. */
function asAnother(bytes: Uint8Array, change: (text: string) => string = (text) => text): Uint8Array {
  const parts = unzipSync(bytes);
  return zipSync(
    Object.fromEntries(
      Object.entries(parts).flatMap(([path, part]) => {
        if (/tags\//.test(path) || path === "meta.xml")
          return [
            [
              path,
              strToU8(
                strFromU8(part)
                  .replace(/UNITEXT_/g, "OTHER_")
                  .replace(/unitext:/g, "other:"),
              ),
            ],
          ];
        return [
          [path, path === "content.xml" || path === "ppt/slides/slide1.xml" ? strToU8(change(strFromU8(part))) : part],
        ];
      }),
    ),
  );
}
const content = (bytes: Uint8Array, format: Format) =>
  strFromU8(must(unzipSync(bytes)[format === "pptx" ? "ppt/slides/slide1.xml" : "content.xml"]));

const frame = { x: 100, y: 100, width: 200, height: 80 };
const shape = (id: string, more: Partial<Element> = {}): Element =>
  ({
    kind: "shape",
    id,
    name: `Shape ${id}`,
    slot: null,
    frame,
    geometry: { preset: "rect" },
    text: plainText(id),
    ...more,
  }) as Element;
const text = (id: string, words: string, more: object = {}): Element =>
  ({ kind: "text", id, name: `Text ${id}`, slot: null, frame, text: plainText(words), ...more }) as Element;
const deckOf = (elements: Element[]): Deck => ({
  ...emptyDeck("moving", "Moving"),
  slides: [{ ...newSlide("one", "blank"), elements }],
});
const first = (deck: Deck) => must(deck.slides[0]);
/** How things come in, by name. */
const seen = (slide: Slide) =>
  revealsOf(slide).map(({ element, ...reveal }) => ({
    ...reveal,
    name: slide.elements.find(({ id }) => id === element)?.name,
  }));

const entrance = fc
  .record({
    order: fc.nat(9),
    trigger: fc.constantFrom(...TRIGGERS),
    effect: fc.constantFrom(...EFFECTS),
    seconds: fc.integer({ min: 1, max: 40 }).map((tenths) => tenths / 10),
    delay: fc.option(
      fc.integer({ min: 1, max: 30 }).map((tenths) => tenths / 10),
      { nil: undefined },
    ),
  })
  .map(
    ({ delay, ...one }): Entrance => ({
      ...one,
      ...(one.effect === "appear" ? { seconds: 0 } : {}),
      ...(delay === undefined ? {} : { delay }),
    }),
  );
/** A text of six paragraphs, one of them empty, whose points come in groups: which begin one, and which are there from the beginning. */
const pointed = fc
  .tuple(
    fc.array(fc.constantFrom("alone", "with", "shown"), { minLength: 6, maxLength: 6 }),
    fc.option(entrance, { nil: undefined }),
  )
  .map(([how, own]): Element => {
    const leads = how.findIndex((one, at) => at !== 2 && one !== "shown");
    const step = (at: number) => (at === 2 || at === leads || how[at] === "alone" ? undefined : must(how[at]));
    const words = Array.from({ length: 6 }, (_, at) => ({
      kind: "bullet" as const,
      level: at % 2,
      runs: at === 2 ? [] : [{ text: `point ${at}` }],
      ...(step(at) ? { step: step(at) } : {}),
    }));
    return text("p", "", { text: words, ...(leads >= 0 ? { steps: true, ...(own ? { entrance: own } : {}) } : {}) });
  });
const moving = fc
  .array(fc.tuple(fc.boolean(), fc.boolean(), fc.option(entrance, { nil: undefined })), { minLength: 1, maxLength: 6 })
  .map((list) =>
    list.map(
      ([worded, steps, own], nth): Element =>
        worded
          ? text(`e${nth}`, "one\ntwo\nthree", { ...(steps ? { steps } : {}), ...(own ? { entrance: own } : {}) })
          : shape(`e${nth}`, own ? { entrance: own } : {}),
    ),
  );

describe.each(FORMATS)("entrances in .%s", (format) => {
  it("come back as they were, for Unitext and for another program", () => {
    fc.assert(
      fc.property(moving, (elements) => {
        const deck = deckOf(elements);
        const slide = { ...first(deck), elements: orderedEntrances(first(deck)) };
        const bytes = write(deck, format);
        expect(
          first(read(bytes, format).deck).elements.map(({ id, entrance: own, ...element }) => [
            id,
            own,
            "steps" in element && element.steps,
          ]),
        ).toEqual(
          slide.elements.map(({ id, entrance: own, ...element }) => [id, own, "steps" in element && element.steps]),
        );
        expect(seen(first(read(asAnother(bytes), format).deck))).toEqual(seen(slide));
      }),
      { numRuns: 40 },
    );
  }, 60_000);

  it("of points in groups come back as they were, for Unitext and for another program", () => {
    fc.assert(
      fc.property(pointed, fc.boolean(), (element, more) => {
        const deck = deckOf([
          element,
          ...(more ? [shape("b", { entrance: { order: 3, trigger: "press", effect: "fade", seconds: 1 } })] : []),
        ]);
        const bytes = write(deck, format);
        const wanted = seen({ ...first(deck), elements: orderedEntrances(first(deck)) });
        expect(seen(first(read(bytes, format).deck))).toEqual(wanted);
        const elsewhere = read(asAnother(bytes), format);
        expect(seen(first(elsewhere.deck))).toEqual(wanted);
        expect(elsewhere.adapted.filter(({ what }) => what.startsWith("the entrance"))).toEqual([]);
      }),
      { numRuns: 60 },
    );
  }, 60_000);

  it("are kept, moved and rewritten in a file of another program", () => {
    const bytes = asAnother(
      write(
        deckOf([
          text("a", "one\ntwo", { steps: true }),
          shape("b", { entrance: { order: 0, trigger: "press", effect: "wipe", seconds: 1 } }),
          shape("c"),
        ]),
        format,
      ),
    );
    const { deck } = read(bytes, format);
    const [a, b, c] = first(deck).elements as [Element, Element, Element];
    const timing = must(
      /<p:timing>.*<\/p:timing>|<anim:par presentation:node-type="timing-root">.*<\/anim:par>(?=<presentation:notes>)/.exec(
        content(bytes, format),
      )?.[0],
    );
    expect(timing).toBeDefined();
    expect(unzipSync(write(deck, format))).toEqual(
      expect.objectContaining({
        [format === "pptx" ? "ppt/slides/slide1.xml" : "content.xml"]:
          unzipSync(bytes)[format === "pptx" ? "ppt/slides/slide1.xml" : "content.xml"],
      }),
    );
    const change = (elements: Element[]) => write({ ...deck, slides: [{ ...first(deck), elements }] }, format);
    // Something that does not come in is moved: the others come in as the file says.
    const shifted = change([a, b, { ...c, frame: { ...frame, x: 300 } }]);
    expect(seen(first(read(shifted, format).deck))).toEqual(seen(first(deck)));
    if (format === "pptx") expect(content(shifted, format)).toContain(timing);
    // Another effect: the shapes stay as they are, the entrances are new.
    const changed = change([
      a,
      { ...b, entrance: { order: 0, trigger: "press", effect: "grow", seconds: 2 } },
      { ...c, entrance: { order: 1, trigger: "with", effect: "fade", seconds: 0.5 } },
    ]);
    expect(
      seen(first(read(changed, format).deck)).map(({ name, press, effect, seconds }) => [name, press, effect, seconds]),
    ).toEqual([
      ["Shape b", 1, "grow", 2],
      ["Shape c", 1, "fade", 0.5],
      ["Text a", 2, "appear", 0],
      ["Text a", 3, "appear", 0],
    ]);
    // What is deleted comes in no more, and nothing names it.
    const fewer = change([a, c]);
    expect(seen(first(read(fewer, format).deck)).map(({ name }) => name)).toEqual(["Text a", "Text a"]);
    // Nothing comes in any more.
    const { entrance: _, ...quiet } = b;
    expect(content(change([{ ...a, steps: false } as Element, quiet as Element, c]), format)).not.toMatch(
      /<p:timing|<anim:par/,
    );
  });

  it("let the members of a group enter as one", () => {
    const bytes = write(deckOf([shape("a", { groups: ["g"] }), shape("b", { groups: ["g"] }), shape("c")]), format);
    // ECMA-376-1, 19.5.72 (`p:spTgt` names any drawing by its id, a group too) and OpenDocument 1.3, 19.914 (`xml:id` of `draw:g`).
    const group =
      format === "pptx" ? /<p:grpSp><p:nvGrpSpPr><p:cNvPr id="(\d+)"/.exec(content(bytes, format))?.[1] : "together";
    const effect = (target: string) =>
      format === "pptx"
        ? `<p:timing><p:tnLst><p:par><p:cTn id="1" dur="indefinite" restart="never" nodeType="tmRoot"><p:childTnLst><p:seq concurrent="1" nextAc="seek"><p:cTn id="2" dur="indefinite" nodeType="mainSeq"><p:childTnLst><p:par><p:cTn id="3" fill="hold"><p:stCondLst><p:cond delay="indefinite"/></p:stCondLst><p:childTnLst><p:par><p:cTn id="4" fill="hold"><p:stCondLst><p:cond delay="0"/></p:stCondLst><p:childTnLst><p:par><p:cTn id="5" presetID="9" presetClass="entr" presetSubtype="0" fill="hold" nodeType="clickEffect"><p:stCondLst><p:cond delay="0"/></p:stCondLst><p:childTnLst><p:set><p:cBhvr><p:cTn id="6" dur="1" fill="hold"/><p:tgtEl><p:spTgt spid="${target}"/></p:tgtEl><p:attrNameLst><p:attrName>style.visibility</p:attrName></p:attrNameLst></p:cBhvr><p:to><p:strVal val="visible"/></p:to></p:set><p:animEffect transition="in" filter="dissolve"><p:cBhvr><p:cTn id="7" dur="750"/><p:tgtEl><p:spTgt spid="${target}"/></p:tgtEl></p:cBhvr></p:animEffect></p:childTnLst></p:cTn></p:par><p:par><p:cTn id="8" presetID="1" presetClass="exit" presetSubtype="0" fill="hold" nodeType="withEffect"><p:stCondLst><p:cond delay="0"/></p:stCondLst><p:childTnLst><p:set><p:cBhvr><p:cTn id="9" dur="1" fill="hold"/><p:tgtEl><p:spTgt spid="${target}"/></p:tgtEl><p:attrNameLst><p:attrName>style.visibility</p:attrName></p:attrNameLst></p:cBhvr><p:to><p:strVal val="hidden"/></p:to></p:set></p:childTnLst></p:cTn></p:par></p:childTnLst></p:cTn></p:par></p:childTnLst></p:cTn></p:par></p:childTnLst></p:cTn></p:seq></p:childTnLst></p:cTn></p:par></p:tnLst></p:timing>`
        : `<anim:par presentation:node-type="timing-root"><anim:seq presentation:node-type="main-sequence"><anim:par smil:begin="next"><anim:par smil:begin="0s"><anim:par smil:begin="0s" smil:fill="hold" presentation:node-type="on-click" presentation:preset-class="entrance"><anim:set smil:targetElement="${target}" smil:attributeName="visibility" smil:to="visible"/><anim:transitionFilter smil:dur="750ms" smil:targetElement="${target}" smil:type="checkerBoardWipe" smil:subtype="across" smil:mode="in"/></anim:par><anim:par smil:begin="0s" presentation:node-type="with-previous" presentation:preset-class="exit"><anim:set smil:targetElement="${target}" smil:attributeName="visibility" smil:to="hidden"/></anim:par></anim:par></anim:par></anim:seq></anim:par>`;
    const foreign = asAnother(bytes, (words) =>
      format === "pptx"
        ? words.replace("</p:sld>", `${effect(must(group))}</p:sld>`)
        : words
            .replace("<draw:g>", '<draw:g xml:id="together">')
            .replace("<presentation:notes>", `${effect("together")}<presentation:notes>`),
    );
    const { deck, adapted } = read(foreign, format);
    expect(
      seen(first(deck)).map(({ name, press, start, effect: how, seconds }) => [name, press, start, how, seconds]),
    ).toEqual([
      ["Shape a", 1, 0, "fade", 0.75],
      ["Shape b", 1, 0, "fade", 0.75],
    ]);
    expect(adapted.map(({ slide, what }) => [slide, what])).toEqual([
      [1, format === "pptx" ? "the entrance of “Shape a” (dissolve)" : "the entrance of “Shape a” (checkerBoardWipe)"],
      [1, "the exit of “Shape a”"],
    ]);
    expect(first(deck).unsupportedMotion).toEqual(["the exit of “Shape a”"]);
    // In its own format the exit stays as long as nothing else comes in otherwise; in another it is said to be left out.
    expect(writeReport(deck, format).left).toEqual([]);
    expect(writeReport(deck, format === "pptx" ? "odp" : "pptx").left).toEqual([
      { slide: 1, what: "the exit of “Shape a”", why: "only the file that it came from can hold it" },
    ]);
    expect(content(write(deck, format), format)).toContain(
      format === "pptx" ? 'presetClass="exit"' : 'preset-class="exit"',
    );
  });

  it("of a group that comes in as one are those of the group", () => {
    const comes = (order: number, trigger: Entrance["trigger"], more: Partial<Entrance> = {}) => ({
      entrance: { order, trigger, effect: "fade" as const, seconds: 0.5, ...more },
    });
    const batch = [
      shape("a", { groups: ["g"], ...comes(0, "press") }),
      shape("b", { groups: ["g"], ...comes(1, "with") }),
      shape("c", comes(2, "press")),
    ];
    const bytes = write(deckOf(batch), format);
    expect(seen(first(read(asAnother(bytes), format).deck))).toEqual(seen(first(deckOf(batch))));
    if (format === "pptx") {
      const group = /<p:grpSp><p:nvGrpSpPr><p:cNvPr id="(\d+)"/.exec(content(bytes, format))?.[1];
      const last = /<p:cNvPr id="(\d+)" name="Shape c"/.exec(content(bytes, format))?.[1];
      expect([...new Set([...content(bytes, format).matchAll(/<p:spTgt spid="(\d+)"/g)].map(([, id]) => id))]).toEqual([
        group,
        last,
      ]);
    }
    // Taken in and changed elsewhere, the group is still the one that comes in.
    const { deck } = read(asAnother(bytes), format);
    const [a, b, c] = first(deck).elements as [Element, Element, Element];
    const changed = write(
      {
        ...deck,
        slides: [
          {
            ...first(deck),
            elements: [a, b, { ...c, entrance: { order: 2, trigger: "after", effect: "wipe", seconds: 1 } }],
          },
        ],
      },
      format,
    );
    expect(
      seen(first(read(changed, format).deck)).map(({ name, press, trigger, effect }) => [name, press, trigger, effect]),
    ).toEqual([
      ["Shape a", 1, "press", "fade"],
      ["Shape b", 1, "with", "fade"],
      ["Shape c", 1, "after", "wipe"],
    ]);
    // What comes in one after the other is named one by one.
    const apart = [
      shape("a", { groups: ["g"], ...comes(0, "press") }),
      shape("b", { groups: ["g"], ...comes(1, "after") }),
    ];
    expect(seen(first(read(asAnother(write(deckOf(apart), format)), format).deck))).toEqual(seen(first(deckOf(apart))));
  });

  it("of points that come several at once are shown so, and stay so when a word is changed", () => {
    const bytes = asAnother(write(deckOf([text("a", "one\ntwo\nthree", { steps: true })]), format), (words) => {
      let nth = 0;
      return format === "pptx"
        ? words.replace(/nodeType="clickEffect"/g, (node) => (nth++ === 1 ? 'nodeType="withEffect"' : node))
        : words.replace(/"on-click"/g, (node) => (nth++ === 1 ? '"with-previous"' : node));
    });
    const { deck, adapted } = read(bytes, format);
    expect(seen(first(deck)).map(({ paragraph, press, trigger }) => [paragraph, press, trigger])).toEqual([
      [0, 1, "press"],
      [1, 1, "with"],
      [2, 2, "press"],
    ]);
    expect(adapted).toEqual([]);
    const [a] = first(deck).elements as [Extract<Element, { kind: "text" }>];
    const reworded = {
      ...a,
      text: a.text.map((paragraph, at) => (at === 1 ? { ...paragraph, runs: [{ text: "zwei" }] } : paragraph)),
    };
    const again = first(
      read(write({ ...deck, slides: [{ ...first(deck), elements: [reworded] }] }, format), format).deck,
    );
    expect(seen(again)).toEqual(seen(first(deck)));
  });

  it("of points that no entrance can say are told", () => {
    const comes = (order: number): Partial<Element> => ({
      entrance: { order, trigger: "press", effect: "fade", seconds: 0.5 },
    });
    const bytes = asAnother(
      write(
        deckOf([
          text("a", "one\ntwo\nthree", { steps: true, ...comes(0) }),
          shape("b", comes(1)),
          text("c", "four\nfive", { steps: true, ...comes(2) }),
        ]),
        format,
      ),
      (words) => {
        // The last point of the first text comes after the shape; the last of the second text takes longer than its first.
        const [open, one, two, three, shaped, four, five] = words.split(
          format === "pptx"
            ? /(?=<p:par><p:cTn id="\d+" fill="hold"><p:stCondLst><p:cond delay="indefinite"\/>)/
            : /(?=<anim:par smil:begin="next")/,
        );
        return [
          open,
          one,
          two,
          shaped,
          three,
          four,
          five?.replace(/dur="500"/g, 'dur="1500"').replace(/smil:dur="0.5s"/g, 'smil:dur="1.5s"'),
        ].join("");
      },
    );
    const { adapted } = read(bytes, format);
    expect(adapted.map(({ what }) => what)).toEqual([
      "the entrance of “Text a” (its points in turn with other things)",
      "the entrance of “Text c” (its points otherwise than the first)",
    ]);
  });
});

// OpenDocument 1.3, 9.7: the older form, a list of what is shown at each press.
it("the older form of entrances in .odp is read", () => {
  const bytes = asAnother(write(deckOf([shape("a"), shape("b")]), "odp"), (words) => {
    const named = words.replace(/<draw:custom-shape /g, () => `<draw:custom-shape draw:id="s${count++}" `);
    return named.replace(
      "<presentation:notes>",
      '<presentation:animations><presentation:show-shape draw:shape-id="s1" presentation:effect="fade" presentation:speed="slow"/><presentation:show-shape draw:shape-id="s0" presentation:effect="none"/><presentation:hide-shape draw:shape-id="s0"/></presentation:animations><presentation:notes>',
    );
  });
  const { deck } = read(bytes, "odp");
  expect(seen(first(deck)).map(({ name, press, effect, seconds }) => [name, press, effect, seconds])).toEqual([
    ["Shape b", 1, "fade", 1.5],
    ["Shape a", 2, "appear", 0],
  ]);
  expect(first(deck).unsupportedMotion).toEqual(["the exit of “Shape a”"]);
});
let count = 0;

describe.each(FORMATS)("how slides of a .%s come in", (format) => {
  // ECMA-376-1, 19.3.1 (kinds of transitions); OpenDocument 1.3, 19.402 with SMIL 3.0, 12.4.5 (kinds of transition effects).
  it.each(
    format === "pptx"
      ? ([
          ["cover", "push"],
          ["checker", "wipe"],
          ["dissolve", "fade"],
        ] as const)
      : ([
          ["slideWipe", "push"],
          ["checkerBoardWipe", "wipe"],
          ["dissolve", "fade"],
        ] as const),
  )("%s is shown as the nearest that there is, is told, and kept in the file", (kind, shown) => {
    const given = {
      ...deckOf([shape("a")]),
      slides: [{ ...first(deckOf([shape("a")])), transition: { kind: "wipe" as const, seconds: 0.5 } }],
    };
    const bytes = asAnother(write(given, format), (words) =>
      format === "pptx"
        ? words.replace("<p:wipe/>", `<p:${kind}/>`)
        : words.replace('smil:type="barWipe" smil:subtype="leftToRight"', `smil:type="${kind}"`),
    );
    const { deck, adapted } = read(bytes, format);
    expect(first(deck).transition?.kind).toBe(shown);
    expect(adapted).toEqual([
      {
        slide: 1,
        what: `the transition “${kind}”`,
        how: expect.stringMatching(/^shown as .*; its own format keeps it as it was$/),
      },
    ]);
    expect(content(write(deck, format), format)).toContain(format === "pptx" ? `<p:${kind}/>` : `smil:type="${kind}"`);
  });
});
