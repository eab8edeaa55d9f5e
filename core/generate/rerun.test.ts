import type { Choice } from "@unitext/core/diff";
import { apply, moveTo, type SingleChange } from "@unitext/core/edit";
import {
  type BreakRule,
  type Deck,
  DOCUMENT_RULE,
  elementWords,
  metadataOf,
  nameOf,
  plainText,
  quoteOf,
  rangeOfQuote,
  ruleOf,
  type Slide,
  textOf,
  titleOf,
  must,
} from "@unitext/core/model";
import { readText } from "@unitext/core/text";
import { idSource } from "@unitext/core/testing";
import { shippedFonts } from "@unitext/core/testing/fonts";
import fc from "fast-check";
import { generate, generateDeck, type GeneratedSlide, review, takeReview } from "./index";

const fonts = shippedFonts();
const RULE: BreakRule = { ...DOCUMENT_RULE, placement: "slide", cuts: [{ kind: "heading", section: 1, slide: 2 }] };
const deckOf = (text: string, rule = RULE): Deck => ({
  ...generateDeck(readText(text), rule, { newId: idSource("d"), fonts, document: "doc" }).deck,
  manuscript: { document: "doc", rule },
});
const madeOf = (text: string, prefix: string, deck: Deck, rule = RULE): GeneratedSlide[] => [
  ...generate(readText(text), rule, { newId: idSource(prefix), fonts, metadata: metadataOf(deck), document: "doc" }),
];
const run = (deck: Deck, before: string, after: string, choices = new Map<string, Choice>(), rule = RULE) => {
  const [base, next] = [madeOf(before, "b", deck, rule), madeOf(after, "n", deck, rule)];
  const found = review(deck, base, next, choices);
  const { change, ids } = takeReview(deck, base, next, choices);
  return { review: found, ids, deck: change ? apply(deck, change).deck : deck, next };
};
const edit = (deck: Deck, ...changes: SingleChange[]) => apply(deck, { kind: "batch", changes }).deck;
const slideNamed = (deck: Deck, name: string) => must(deck.slides.find((slide) => nameOf(slide) === name));
const bodyOf = (slide: Slide) =>
  slide.elements.find(({ slot }) => slot === "body") as Extract<Slide["elements"][number], { kind: "text" }>;
const states = (found: ReturnType<typeof review>) =>
  found.items.map(({ state, mine, theirs }) => `${state}: ${nameOf((mine ?? theirs) as Slide)}`);
const words = (deck: Deck) =>
  deck.slides.map((slide) => [
    titleOf(slide),
    ...slide.elements.filter(({ slot }) => slot !== "title").map(elementWords),
    textOf(slide.notes),
  ]);

const TEXT =
  "# Handbook\n\n## Gauges\n\n- North gauge at the quay\n- South gauge at the bar\n\n## Dunes\n\n- The dune moves inland\n- Marram grass holds it\n\n## Storms\n\n- Two storms in a winter\n\n## Slacks\n\n- Fresh water all year\n";

describe("running a text again", () => {
  it("has nothing to take when the text says the same, whatever was done by hand", () => {
    const deck = edit(deckOf(TEXT), {
      kind: "setNotes",
      slide: slideNamed(deckOf(TEXT), "Dunes").id,
      notes: plainText("Slow down."),
    });
    const again = run(deck, TEXT, TEXT);
    expect(again.review.counts).toMatchObject({ same: 5, new: 0, changed: 0, gone: 0, conflict: 0 });
    expect(
      again.review.items
        .filter(({ hand }) => hand)
        .map(({ key }) => nameOf(must(deck.slides.find(({ id }) => id === key)))),
    ).toEqual(["Dunes"]);
    expect(again.deck).toEqual(deck);
  });

  it("finds what is new, changed, moved and gone, also when it was moved and retitled", () => {
    const deck = deckOf(TEXT);
    const after =
      "# Handbook\n\n## Slacks\n\n- Fresh water all year\n\n## Tide gauges\n\n- North gauge at the quay\n- South gauge at the bar\n\n## Dunes\n\n- The dune moves inland\n- Marram grass holds it\n- So do fences\n\n## Birds\n\n- Terns nest here\n";
    const found = run(deck, TEXT, after);
    expect(states(found.review).sort()).toEqual([
      "changed: Dunes",
      "changed: Gauges",
      "gone: Storms",
      "moved: Slacks",
      "new: Birds",
      "same: Handbook",
    ]);
    expect(found.deck.slides.map(nameOf)).toEqual(["Handbook", "Slacks", "Tide gauges", "Dunes", "Birds"]);
    for (const [now, then] of [
      ["Slacks", "Slacks"],
      ["Tide gauges", "Gauges"],
      ["Dunes", "Dunes"],
    ] as const)
      expect(slideNamed(found.deck, now).id).toBe(slideNamed(deck, then).id);
  });

  it("keeps what was done by hand on slides that the text changes elsewhere", () => {
    const plain = deckOf(TEXT);
    const dunes = slideNamed(plain, "Dunes");
    const deck = edit(
      plain,
      { kind: "setNotes", slide: dunes.id, notes: plainText("Ask who has seen it.") },
      {
        kind: "setText",
        slide: dunes.id,
        element: bodyOf(dunes).id,
        text: [...bodyOf(dunes).text, { kind: "bullet", level: 0, runs: [{ text: "Added by hand" }] }],
      },
      { kind: "setSlideProperties", slide: dunes.id, properties: { background: { colour: "#20302e" } } },
      {
        kind: "insertElement",
        slide: dunes.id,
        element: {
          kind: "text",
          id: "free",
          slot: null,
          frame: { x: 1, y: 2, width: 30, height: 40 },
          text: plainText("A label"),
        },
        index: 9,
      },
    );
    const after = TEXT.replace("The dune moves inland", "The dune moves twelve metres inland");
    const result = slideNamed(run(deck, TEXT, after).deck, "Dunes");
    expect(textOf(bodyOf(result).text)).toBe(
      "The dune moves twelve metres inland\nMarram grass holds it\nAdded by hand",
    );
    expect(textOf(result.notes)).toBe("Ask who has seen it.");
    expect(result.background).toEqual({ colour: "#20302e" });
    expect(result.elements.find(({ id }) => id === "free")).toMatchObject({ frame: { x: 1 } });
  });

  it("shows both texts where hand and text changed the same words, and takes the one that is chosen", () => {
    const plain = deckOf(TEXT);
    const dunes = slideNamed(plain, "Dunes");
    const deck = edit(plain, {
      kind: "setText",
      slide: dunes.id,
      element: bodyOf(dunes).id,
      text: [{ kind: "bullet", level: 0, runs: [{ text: "The dune walks" }] }, ...bodyOf(dunes).text.slice(1)],
    });
    const after = TEXT.replace("The dune moves inland", "The dune moves twelve metres inland");
    const found = run(deck, TEXT, after);
    expect(found.review.counts.conflict).toBe(1);
    expect(found.review.items.find(({ state }) => state === "conflict")?.conflicts).toEqual([
      {
        aspect: "body",
        label: "Text",
        before: "The dune moves inland\nMarram grass holds it",
        hand: "The dune walks\nMarram grass holds it",
        text: "The dune moves twelve metres inland\nMarram grass holds it",
      },
    ]);
    expect(textOf(bodyOf(slideNamed(found.deck, "Dunes")).text)).toContain("The dune walks");
    const taken = run(deck, TEXT, after, new Map([[dunes.id, { conflicts: { body: "text" } }]]));
    expect(textOf(bodyOf(slideNamed(taken.deck, "Dunes")).text)).toContain("twelve metres");
  });

  it("keeps slides that were put in, moved or deleted by hand as the hand left them", () => {
    const plain = deckOf(TEXT);
    const id = (name: string) => slideNamed(plain, name).id;
    const added: Slide = {
      ...slideNamed(plain, "Storms"),
      id: "mine",
      source: undefined as never,
      elements: [{ kind: "text", id: "t", slot: "title", text: plainText("Mine") }],
    };
    delete (added as { source?: unknown }).source;
    let deck = edit(
      plain,
      { kind: "insertSlide", slide: added, place: { parent: null, after: id("Gauges") } },
      { kind: "deleteSlide", slide: id("Storms") },
    );
    deck = apply(deck, moveTo(deck, [id("Slacks")], { parent: null, after: id("Handbook") })).deck;
    const after = `${TEXT}\n## Birds\n\n- Terns nest here\n`;
    expect(run(deck, TEXT, after).deck.slides.map(nameOf)).toEqual([
      "Handbook",
      "Slacks",
      "Gauges",
      "Mine",
      "Dunes",
      "Birds",
    ]);
  });

  it("asks before it takes out a slide that was worked on, and before it brings back one that was deleted", () => {
    const plain = deckOf(TEXT);
    const storms = slideNamed(plain, "Storms");
    const worked = edit(plain, { kind: "setNotes", slide: storms.id, notes: plainText("Mine.") });
    const without = TEXT.replace("## Storms\n\n- Two storms in a winter\n\n", "");
    expect(run(worked, TEXT, without).review.counts).toMatchObject({ conflict: 1, gone: 0 });
    expect(run(worked, TEXT, without).deck.slides.map(nameOf)).toContain("Storms");
    expect(
      run(worked, TEXT, without, new Map([[storms.id, { conflicts: { slide: "text" } }]])).deck.slides.map(nameOf),
    ).not.toContain("Storms");
    const deleted = edit(plain, { kind: "deleteSlide", slide: storms.id });
    const changed = TEXT.replace("Two storms", "Three storms");
    const back = run(deleted, TEXT, changed);
    expect(back.review.counts.conflict).toBe(1);
    expect(back.deck.slides.map(nameOf)).not.toContain("Storms");
  });

  it("keeps the comments of a slide that goes, on the slide before it, with the words that they were on", () => {
    const plain = deckOf(TEXT);
    const storms = slideNamed(plain, "Storms");
    const comment = {
      ...{ id: "c1", author: "Observer", text: "Three, I think.", element: bodyOf(storms).id },
      ...{ quote: quoteOf("Two storms in a winter", 0, 3), replies: [{ id: "r1", author: "Team", text: "Yes." }] },
    };
    const commented = edit(plain, { kind: "putComment", slide: storms.id, comment });
    const without = TEXT.replace("## Storms\n\n- Two storms in a winter\n\n", "");
    const choices = new Map<string, Choice>([[storms.id, { conflicts: { slide: "text" } }]]);
    const { deck } = run(commented, TEXT, without, choices);
    expect(deck.slides.map(nameOf)).not.toContain("Storms");
    const { element: _, ...kept } = comment;
    expect(slideNamed(deck, "Dunes").comments).toEqual([kept]);
    // Of a deck whose first slide goes, they are on what is first then.
    const first = edit(plain, { kind: "putComment", slide: must(plain.slides[0]).id, comment: kept });
    const other = run(first, TEXT, "## Dunes\n\n- The dune moves inland\n- Marram grass holds it\n");
    expect(other.deck.slides.flatMap(({ comments = [] }) => comments)).toEqual([kept]);
  });

  it("takes nothing that is left, and shows it as changed by hand from then on", () => {
    const deck = deckOf(TEXT);
    const after = TEXT.replace("Two storms", "Three storms");
    const left = run(deck, TEXT, after, new Map([[slideNamed(deck, "Storms").id, { take: false }]]));
    expect(words(left.deck)).toEqual(words(deck));
    expect(run(left.deck, after, after).review.items.filter(({ hand }) => hand)).toHaveLength(1);
  });

  it("cuts by another rule and keeps what was done by hand on slides that still exist", () => {
    const plain = deckOf(TEXT);
    const deck = edit(plain, { kind: "setNotes", slide: slideNamed(plain, "Slacks").id, notes: plainText("By hand.") });
    const other = ruleOf({ kind: "heading", section: 0, slide: 1 }, { overflow: "continue" });
    const [base, next] = [madeOf(TEXT, "b", deck), madeOf(TEXT, "n", deck, other)];
    const { change } = takeReview(deck, base, next, new Map());
    const after = apply(deck, must(change)).deck;
    expect(after.slides.map(nameOf)).toEqual(["Handbook", "Handbook: Gauges, Dunes", "Handbook: Storms, Slacks"]);
    expect(textOf(slideNamed(after, "Handbook: Storms, Slacks").notes)).toBe("By hand.");
  });

  it("leads to what a fresh deck of the new text says, where no hand was on it", () => {
    const section = fc.record({
      title: fc.constantFrom("Gauges", "Dunes", "Storms", "Slacks", "Birds", "Tides"),
      items: fc.array(fc.constantFrom("sand", "water level", "marram grass", "the quay", "a long winter storm"), {
        minLength: 0,
        maxLength: 4,
      }),
      notes: fc.boolean(),
    });
    const text = fc
      .uniqueArray(section, { selector: ({ title }) => title, maxLength: 6 })
      .map(
        (list) =>
          `# Handbook\n\n${list.map(({ title, items, notes }) => `## ${title}\n\n${items.map((item) => `- ${title} ${item}`).join("\n")}\n\n${notes ? `:::notes\nSay ${title}.\n:::\n\n` : ""}`).join("")}`,
      );
    fc.assert(
      fc.property(text, text, (before, after) => {
        const result = run(deckOf(before), before, after);
        expect(words(result.deck)).toEqual(words(deckOf(after)));
        expect(result.deck.slides.map(({ source }) => source)).toEqual(result.next.map(({ slide }) => slide.source));
        expect(run(result.deck, after, after).review.items.every(({ state, hand }) => state === "same" && !hand)).toBe(
          true,
        );
      }),
      { numRuns: 80 },
    );
  });

  it("never loses a word that was written by hand, however the text changes", () => {
    const pick = fc.array(fc.nat(4), { minLength: 1, maxLength: 3 });
    const sections = TEXT.split(/(?=^## )/m).slice(1);
    fc.assert(
      fc.property(pick, fc.array(fc.tuple(fc.nat(3), fc.boolean()), { maxLength: 6 }), (hands, order) => {
        let deck = deckOf(TEXT);
        for (const at of hands)
          deck = edit(deck, {
            kind: "setNotes",
            slide: must(deck.slides[at]).id,
            notes: plainText(`by hand ${at}`),
          });
        const used = [...new Map(order.map(([at, changed]) => [at, changed]))];
        const after = `# Handbook\n\n${used.map(([at, changed]) => (changed ? must(sections[at]).replace("- ", "- now ") : sections[at])).join("")}`;
        const left = run(deck, TEXT, after).deck.slides.map(({ notes }) => textOf(notes));
        for (const at of hands) expect(left).toContain(`by hand ${at}`);
      }),
      { numRuns: 80 },
    );
  });
});

it("comments stay on their slides and find their words, whatever the new text changes around them", () => {
  const deck = deckOf(TEXT);
  const slide = slideNamed(deck, "Dunes");
  const body = bodyOf(slide);
  const words = elementWords(body);
  const start = words.indexOf("moves inland");
  const comment = {
    id: "c1",
    author: "Reader",
    text: "How fast?",
    element: body.id,
    quote: quoteOf(words, start, start + "moves inland".length),
  };
  const commented = edit(deck, { kind: "putComment", slide: slide.id, comment });
  const next = TEXT.replace("## Dunes", "## Tides\n\n- Twice a day\n\n## Dunes").replace(
    "- The dune moves inland",
    "- Wind comes first\n- Every winter the dune moves inland",
  );
  const now = slideNamed(run(commented, TEXT, next).deck, "Dunes");
  expect(now.comments).toEqual([comment]);
  const text = elementWords(must(now.elements.find(({ id }) => id === body.id)));
  const range = must(rangeOfQuote(text, comment.quote));
  expect([text.includes("Wind comes first"), text.slice(range.start, range.end)]).toEqual([true, "moves inland"]);
});
