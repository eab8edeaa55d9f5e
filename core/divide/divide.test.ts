import { compareDecks } from "@unitext/core/diff";
import { apply, copies, insertAt } from "@unitext/core/edit";
import {
  type Element,
  type Deck,
  emptyDeck,
  newSlide,
  orderProblems,
  plainText,
  run,
  type Slide,
  slideLinks,
  slideTexts,
  textOf,
  THEMES,
  titleOf,
  must,
} from "@unitext/core/model";
import { balance, balanceSentence, type Account, tally } from "@unitext/core/tally";
import { deckArbitrary, idSource } from "@unitext/core/testing";
import fc from "fast-check";
import {
  brokenLinks,
  contentsNote,
  duplicates,
  type MergeSource,
  contentsSlideFor,
  mendLink,
  merge,
  mergeInto,
  resolvePlan,
  split,
} from "./index";

const ids = () => ({ newId: idSource("n"), deckId: idSource("deck") });
const linkTo = (id: string, words = "see there") => [
  { kind: "bullet" as const, level: 0, runs: [run(words, [], `slide:${id}`)] },
];
function slide(id: string, title: string, options: Partial<Slide> = {}): Slide {
  return {
    ...newSlide(id, "points"),
    elements: [{ kind: "text", id: "t", slot: "title", text: plainText(title) }],
    ...options,
  };
}
const deckOf = (id: string, slides: Slide[]): Deck => ({ ...emptyDeck(id, `Deck ${id}`), slides });
const linksIn = (deck: Deck) => deck.slides.flatMap((one) => slideLinks(one)).map(({ to }) => to);
const titles = (deck: Deck) => deck.slides.map(titleOf);
const sources = (deck: Deck) => deck.slides.map(({ origin }) => origin?.slide);

/** Random decks whose slides lead to each other, some with bindings. */
const linkedDeck = (id: string): fc.Arbitrary<Deck> =>
  fc
    .tuple(
      deckArbitrary({ minLength: 1, maxLength: 9 }),
      fc.array(fc.tuple(fc.nat(), fc.nat(), fc.boolean()), { maxLength: 6 }),
    )
    .map(([deck, links]) => {
      const slides = deck.slides.map((one) => ({
        ...one,
        id: `${id}${one.id}`,
        parent: one.parent === null ? null : `${id}${one.parent}`,
      }));
      for (const [from, to, lost] of links) {
        const at = from % slides.length;
        const home = must(slides[at]);
        const target = lost ? "nowhere" : must(slides[to % slides.length]).id;
        const drawn = {
          kind: "shape" as const,
          id: `drawn${home.elements.length}`,
          slot: null,
          geometry: { preset: "rect" },
          text: [],
          link: `slide:${target}`,
        };
        slides[at] = {
          ...home,
          elements: [
            ...home.elements,
            ...(to % 3 ? [] : [drawn]),
            {
              kind: "text",
              id: `l${home.elements.length}`,
              slot: null,
              text: linkTo(target),
              ...(lost ? { binding: { source: "gauges.xlsx", range: `A${to % 9}`, mode: "latest" as const } } : {}),
            },
          ],
        };
      }
      return { ...deck, id, slides };
    });

describe("split", () => {
  const course = deckOf("c", [
    slide("a", "Opening", { arrangement: "opening" }),
    slide("b", "Tides", { notes: plainText("Say it slowly.") }),
    slide("b1", "Detail", { parent: "b" }),
    slide("c", "Dunes", {
      elements: [
        { kind: "text", id: "t", slot: "title", text: plainText("Dunes") },
        {
          kind: "text",
          id: "b",
          slot: "body",
          text: [...linkTo("b1"), ...linkTo("d", "storms"), ...linkTo("z", "lost")],
        },
      ],
    }),
    slide("d", "Storms"),
    slide("z", "Spare"),
    slide("e", "Thanks"),
  ]);
  const plan = {
    opening: "1",
    closing: "7",
    parts: [
      { name: "Day one", slides: "2-3" },
      { name: "Day two", slides: "4, 5" },
    ],
  };
  const done = split({ deck: course, version: 4 }, resolvePlan(course, plan, "").parts, ids());

  it("makes a deck of each part, opening and closing in each, with new ids and their origin", () => {
    expect(done.parts.map(titles)).toEqual([
      ["Opening", "Tides", "Detail", "Thanks"],
      ["Opening", "Dunes", "Storms", "Thanks"],
    ]);
    expect(done.parts.map(({ properties }) => properties.title)).toEqual(["Day one", "Day two"]);
    expect(done.parts[0]?.slides[1]?.origin).toEqual({ deck: "c", slide: "b", version: 4 });
    expect(new Set(done.parts.flatMap(({ slides }) => slides.map(({ id }) => id))).size).toBe(8);
    expect(done.parts[0]?.slides[2]?.parent).toBe(done.parts[0]?.slides[1]?.id);
    expect(textOf(done.parts[0]?.slides[1]?.notes ?? [])).toBe("Say it slowly.");
  });

  it("sends links after their slides, into the part that has them, and lists those that lead nowhere", () => {
    const [one, two] = done.parts as [Deck, Deck];
    expect(linksIn(two)).toEqual([`deck:${one.id}/${one.slides[2]?.id}`, `slide:${two.slides[2]?.id}`, "slide:z"]);
    expect(done.accounts).toEqual([
      expect.objectContaining({ kind: "link", slide: "c", left: false, what: "the link “lost”" }),
      expect.objectContaining({ kind: "slide", slide: "z", left: true }),
    ]);
    const closing = balance([course], done.parts, done.accounts);
    expect(closing.closed).toBe(true);
    expect(closing.rows.link).toEqual({ before: 3, carried: 2, adapted: 1, left: 0, open: 0, again: 0 });
    expect(balanceSentence(closing)).toBe(
      "7 slides, notes on 1 and 3 links: each is accounted for (1 adapted, 1 left out with a reason, 2 slides more than once).",
    );
  });

  it("leaves the original as it was, and details without their main slide on the main line", () => {
    const before = structuredClone(course);
    const { parts } = split(
      { deck: course, version: 1 },
      resolvePlan(course, { parts: [{ name: "A", slides: "3, 2, 3" }] }, "").parts,
      ids(),
    );
    expect(course).toEqual(before);
    const [part] = parts as [Deck];
    expect(sources(part)).toEqual(["b1", "b", "b1"]);
    expect(part.slides.map(({ parent }) => parent)).toEqual([null, null, part.slides[1]?.id]);
    expect(orderProblems(part.slides)).toEqual([]);
  });

  it("leads whole pictures and shapes after their slides too, in copies as in parts", () => {
    const shape = (link: string) => ({
      kind: "shape" as const,
      id: "s",
      slot: null,
      geometry: { preset: "rightArrow" },
      text: [],
      link,
    });
    const deck = deckOf("x", [
      slide("a", "Tides"),
      slide("b", "Ebb", { elements: [shape("slide:a")] }),
      slide("c", "Dunes", { elements: [shape("slide:a"), { ...shape("https://example.org/dunes"), id: "u" }] }),
    ]);
    const [one, two] = split(
      { deck, version: 1 },
      resolvePlan(
        deck,
        {
          parts: [
            { name: "one", slides: "1-2" },
            { name: "two", slides: "3" },
          ],
        },
        "",
      ).parts,
      ids(),
    ).parts as [Deck, Deck];
    expect(linksIn(one)).toEqual([`slide:${one.slides[0]?.id}`]);
    expect(linksIn(two)).toEqual([`deck:${one.id}/${one.slides[0]?.id}`, "https://example.org/dunes"]);
    expect(
      copies(deck.slides.slice(0, 2), idSource("k"))
        .flatMap(slideLinks)
        .map(({ to }) => to),
    ).toEqual(["slide:k1"]);
    const alone: Deck = { ...deck, slides: deck.slides.slice(1) };
    expect(brokenLinks(alone).map(({ slide: at, to }) => [at, to])).toEqual([
      ["b", "slide:a"],
      ["c", "slide:a"],
    ]);
    expect(linksIn(apply(alone, must(mendLink(alone, "b", "slide:a", "c"))).deck)).toEqual([
      "slide:c",
      "slide:a",
      "https://example.org/dunes",
    ]);
  });

  it("takes the pictures before items along with the slides that show them", () => {
    const sign = { sha256: "c".repeat(64), mediaType: "image/png" as const, width: 4, height: 4 };
    const deck: Deck = {
      ...deckOf("x", [
        slide("a", "Tides", {
          elements: [
            {
              kind: "text",
              id: "t",
              slot: "body",
              text: [{ kind: "bullet", level: 0, properties: { bullet: { picture: "sign.png" } }, runs: [run("ebb")] }],
            },
          ],
        }),
        slide("b", "Dunes"),
      ]),
      assets: { "sign.png": sign },
    };
    const [one, two] = split(
      { deck, version: 1 },
      resolvePlan(
        deck,
        {
          parts: [
            { name: "one", slides: "1" },
            { name: "two", slides: "2" },
          ],
        },
        "",
      ).parts,
      ids(),
    ).parts as [Deck, Deck];
    expect([Object.keys(one.assets), Object.keys(two.assets)]).toEqual([["sign.png"], []]);
  });

  it("offers where a broken link may lead, and mends it", () => {
    const two = must(done.parts[1]);
    const [broken] = brokenLinks(two, [course]);
    expect(broken).toMatchObject({ number: 2, words: "lost", to: "slide:z", target: { name: "Spare", number: 6 } });
    expect(broken?.nearest).toMatchObject({ name: expect.stringMatching(/Storms|Thanks/) });
    const mended = apply(
      two,
      mendLink(two, must(broken?.slide), "slide:z", must(broken?.nearest?.slide)) as never,
    ).deck;
    expect(tally(mended).links.broken).toBe(0);
    const bare = apply(two, mendLink(two, must(broken?.slide), "slide:z", null) as never).deck;
    expect(tally(bare).links).toEqual({ external: 1, internal: 1, broken: 0 });
    expect(textOf(slideTexts(must(bare.slides[1]))[1] ?? [])).toContain("lost");
    expect(brokenLinks(two)[0]).toMatchObject({ target: null, nearest: null });
  });

  it("accounts for every slide, note, link and binding of any deck and any plan", () => {
    fc.assert(
      fc.property(
        linkedDeck("x"),
        fc.array(fc.array(fc.nat(), { minLength: 1, maxLength: 8 }), { minLength: 1, maxLength: 4 }),
        fc.nat(),
        fc.nat(),
        (deck, picks, first, last) => {
          const n = deck.slides.length;
          const list = (numbers: readonly number[]) => numbers.map((number) => (number % n) + 1).join(", ");
          let parts: ReturnType<typeof resolvePlan>["parts"];
          try {
            ({ parts } = resolvePlan(
              deck,
              {
                ...(first % 2 ? { opening: list([first]) } : {}),
                ...(last % 2 ? { closing: list([last]) } : {}),
                parts: picks.map((numbers, nth) => ({ name: `P${nth}`, slides: list(numbers) })),
              },
              "",
            ));
          } catch {
            return;
          }
          const result = split({ deck, version: 3 }, parts, ids());
          for (const part of result.parts) expect(orderProblems(part.slides)).toEqual([]);
          const closing = balance([deck], result.parts, result.accounts);
          expect(closing.open).toEqual([]);
          expect(closing.rows.slide.before).toBe(n);
          expect(closing.rows.slide.carried + closing.rows.slide.left).toBe(n);
          // Taken away in silence, it does not close.
          const [some] = result.parts.filter(({ slides }) => slides.length > 0);
          const alone = some?.slides.filter(
            ({ origin }) =>
              result.parts.flatMap(({ slides }) => slides).filter((other) => other.origin?.slide === origin?.slide)
                .length === 1,
          )[0];
          if (some && alone)
            expect(
              balance(
                [deck],
                result.parts.map((part) =>
                  part === some ? { ...part, slides: part.slides.filter((one) => one !== alone) } : part,
                ),
                result.accounts,
              ).closed,
            ).toBe(false);
        },
      ),
      { numRuns: 150 },
    );
  });

  it("gives a contents note with times and links", () => {
    expect(
      contentsNote("Course", [
        { name: "Day one", slides: 12, seconds: 1234, address: "/decks/a" },
        { name: "Day two", slides: 1, seconds: 60 },
      ]),
    ).toBe("Course\n\n1. Day one – 12 slides, 20:34 – /decks/a\n2. Day two – 1 slide, 1:00");
  });
});

describe("merge", () => {
  const picture = (sum: string) => ({ sha256: sum.repeat(64), mediaType: "image/png" as const, width: 4, height: 3 });
  const shown = (id: string, title: string): Slide =>
    slide(id, title, {
      elements: [
        { kind: "text", id: "t", slot: "title", text: plainText(title) },
        { kind: "picture", id: "p", slot: null, source: "pictures/a.png", alt: "" },
      ],
    });
  const one: MergeSource = {
    version: 2,
    deck: {
      ...deckOf("one", [slide("o", "Welcome"), shown("p", "Shore"), slide("q", "To p", { notes: linkTo("p") })]),
      assets: { "pictures/a.png": picture("a") },
    },
  };
  const two: MergeSource = {
    version: 5,
    deck: {
      ...deckOf("two", [slide("o", "Welcome"), shown("p", "Dunes")]),
      theme: THEMES.chalk,
      assets: { "pictures/a.png": picture("b") },
    },
  };

  it("brings decks together with their pictures under names that do not meet, links and notes following", () => {
    const { deck, accounts } = merge(
      [one, two],
      { appearance: "match", sections: true, contents: true, title: "All" },
      ids(),
    );
    expect(titles(deck)).toEqual(["Contents", "Deck one", "Welcome", "Shore", "To p", "Deck two", "Welcome", "Dunes"]);
    expect(deck.assets).toEqual({ "pictures/a.png": picture("a"), "pictures/a-2.png": picture("b") });
    expect(deck.slides[7]?.elements.find(({ kind }) => kind === "picture")).toMatchObject({
      source: "pictures/a-2.png",
    });
    expect(linksIn(deck)).toEqual([
      `slide:${deck.slides[1]?.id}`,
      `slide:${deck.slides[5]?.id}`,
      `slide:${deck.slides[3]?.id}`,
    ]);
    expect(deck.slides[7]?.origin).toEqual({ deck: "two", slide: "p", version: 5 });
    expect(deck.themes).toBeUndefined();
    const closing = balance([one.deck, two.deck], [deck], accounts);
    expect([closing.closed, closing.added]).toEqual([true, 3]);
  });

  it("keeps a deck's own look as a second theme", () => {
    const { deck } = merge([one, two], { appearance: "keep" }, ids());
    expect(deck.themes).toEqual({ Chalk: THEMES.chalk });
    expect(deck.slides.map(({ theme }) => theme)).toEqual([undefined, undefined, undefined, "Chalk", "Chalk"]);
  });

  it("takes chosen slides, equal openings once, and drops copies, with a reason for each", () => {
    const third: MergeSource = {
      version: 1,
      deck: deckOf("three", [slide("o", "Welcome"), slide("x", "To p", { notes: plainText("other notes") })]),
      slides: ["o", "x"],
    };
    expect(duplicates([one, third]).map((group) => group.map(({ deck, number }) => `${deck} ${number}`))).toEqual([
      ["one 1", "three 1"],
      ["one 3", "three 2"],
    ]);
    const { deck, accounts } = merge(
      [{ ...one, slides: ["o", "q"] }, third],
      { appearance: "match", openingsOnce: true, drop: new Set(["three/x"]) },
      ids(),
    );
    expect(titles(deck)).toEqual(["Welcome", "To p"]);
    expect(accounts.map(({ deck: of, slide: id, why }) => [of, id, why])).toEqual([
      ["one", "p", "it was not chosen"],
      ["three", "o", "another deck has the same opening"],
      ["three", "x", expect.stringContaining("says the same")],
    ]);
    // The link to the slide that was not chosen goes on leading to it.
    expect(linksIn(deck)).toEqual(["deck:one/p"]);
    expect(balance([one.deck, third.deck], [deck], accounts).closed).toBe(true);
  });

  it("refuses a deck that is listed twice and a slide that is gone, and says which", () => {
    expect(() => merge([one, one], { appearance: "match" }, ids())).toThrow(
      expect.objectContaining({ where: "Deck one", message: expect.stringContaining("twice") }),
    );
    expect(() => merge([{ ...one, slides: ["gone"] }], { appearance: "match" }, ids())).toThrow(
      expect.objectContaining({ code: "conflict", message: expect.stringContaining("no longer in “Deck one”") }),
    );
    expect(() => merge([], { appearance: "match" }, ids())).toThrow("no deck to merge");
  });

  it("goes into a deck at a place as one change that can be taken back", () => {
    const place = deckOf("place", [slide("m", "Main"), slide("n", "Next")]);
    const { change, accounts } = mergeInto(
      place,
      { parent: null, after: "m" },
      [two],
      { appearance: "keep" },
      idSource("i"),
    );
    const { deck, inverse } = apply(place, change);
    expect(titles(deck)).toEqual(["Main", "Welcome", "Dunes", "Next"]);
    expect(apply(deck, inverse).deck).toEqual(place);
    expect(balance([place, two.deck], [deck], accounts).closed).toBe(true);
  });

  it("accounts for everything of any decks, whatever is chosen and dropped", () => {
    const gathered = fc.tuple(linkedDeck("x"), linkedDeck("y"), linkedDeck("z"));
    fc.assert(
      fc.property(
        gathered,
        fc.array(fc.nat(), { maxLength: 6 }),
        fc.boolean(),
        fc.constantFrom<"match" | "keep">("match", "keep"),
        (decks, chosen, once, look) => {
          const list: MergeSource[] = decks.map((deck, nth) => ({
            deck,
            version: nth,
            ...(nth === 1 && chosen.length
              ? { slides: [...new Set(chosen.map((at) => must(deck.slides[at % deck.slides.length]?.id)))] }
              : {}),
          }));
          const drop = new Set(
            duplicates(list).flatMap((group) => group.slice(1).map(({ deck, slide: id }) => `${deck}/${id}`)),
          );
          const { deck, accounts } = merge(list, { appearance: look, openingsOnce: once, sections: once, drop }, ids());
          expect(orderProblems(deck.slides)).toEqual([]);
          expect(balance(decks, [deck], accounts).open).toEqual([]);
        },
      ),
      { numRuns: 100 },
    );
  });

  it("a split deck merged again has all its slides, notes and links", () => {
    fc.assert(
      fc.property(linkedDeck("x"), fc.integer({ min: 1, max: 4 }), (deck, count) => {
        const cut = split({ deck, version: 0 }, resolvePlan(deck, { by: { count } }, "").parts, ids());
        const { deck: whole } = merge(
          cut.parts.map((part) => ({ deck: part, version: 0 })),
          { appearance: "match" },
          ids(),
        );
        const [before, after] = [tally(deck), tally(whole)];
        expect(after).toEqual(before);
        expect(
          compareDecks(deck, {
            ...whole,
            slides: whole.slides.map((one, nth) => ({
              ...one,
              origin: { deck: "x", slide: must(deck.slides[nth]?.id), version: 0 },
            })),
          }).counts,
        ).toMatchObject({ here: 0, there: 0, moved: 0 });
      }),
      { numRuns: 80 },
    );
  });
});

describe("a merge that restyles", () => {
  const house = {
    name: "House",
    background: { colour: "#123456" },
    elements: [
      {
        kind: "shape" as const,
        id: "m",
        slot: null,
        frame: { x: 0, y: 0, width: 9, height: 9 },
        geometry: { preset: "rect" },
        text: [],
      },
    ],
  };
  const housed = (id: string): Deck => ({
    ...emptyDeck(id, id),
    masters: { h: house },
    slides: [
      {
        ...newSlide(`${id}s`, "points"),
        master: "h",
        elements: [
          {
            kind: "text",
            id: "t",
            slot: "title",
            frame: { x: 5, y: 5, width: 50, height: 20 },
            text: plainText("Quay"),
          },
        ],
      },
    ],
  });
  const merged = (look: "match" | "keep") =>
    merge(
      [
        { deck: housed("a"), version: 0 },
        { deck: housed("b"), version: 0 },
      ],
      { appearance: look },
      { newId: idSource("n"), deckId: () => "m" },
    );

  it("keeps the first deck's own look, and says for each other slide what it drops", () => {
    const { deck, accounts } = merged("match");
    expect(deck.slides.map(({ master: name }) => name)).toEqual(["h", undefined]);
    expect(accounts.map(({ deck: from, why }) => [from, why])).toEqual([
      [
        "b",
        "it takes the theme of the target, without the background of its layout, one drawing of its layout and the places and letters of one text of its own",
      ],
    ]);
  });

  it("leaves everything where it is on a slide with drawings, on plain paper, with text that shrinks to its room", () => {
    const drawn = housed("b");
    const picture: Element = {
      kind: "picture",
      id: "p",
      slot: null,
      source: "p.png",
      alt: "Quay",
      frame: { x: 10, y: 30, width: 60, height: 40 },
    };
    const [only] = drawn.slides;
    const slides = [{ ...must(only), elements: [...must(only).elements, picture] }];
    const { deck, accounts } = merge(
      [
        { deck: housed("a"), version: 0 },
        { deck: { ...drawn, slides }, version: 0 },
      ],
      { appearance: "match" },
      { newId: idSource("n"), deckId: () => "m" },
    );
    const [, restyled] = deck.slides;
    expect(restyled?.background).toEqual({ colour: deck.theme.colours.paper });
    expect(restyled?.elements.map(({ frame }) => frame)).toEqual([
      { x: 5, y: 5, width: 50, height: 20 },
      { x: 10, y: 30, width: 60, height: 40 },
    ]);
    expect(restyled?.elements[0]?.box?.fit).toBe("shrink");
    expect(accounts.map(({ why }) => why)).toEqual([
      "it takes the theme of the target, without the background of its layout, one drawing of its layout and the letters of one text of its own",
    ]);
  });

  it("drops nothing where each keeps its look", () => {
    const { deck, accounts } = merged("keep");
    expect([deck.slides.map(({ master: name }) => name), accounts]).toEqual([["h", "h"], []]);
  });
});

describe("a balance", () => {
  it("finds what is missing without a reason, and takes a reason once", () => {
    const before = deckOf("a", [
      slide("s", "One", { notes: [...plainText("note"), ...linkTo("s")] }),
      slide("r", "Two"),
    ]);
    const after = { ...before, slides: [{ ...must(before.slides[0]), notes: [] }] };
    const open = balance([before], [after], []);
    expect(open.closed).toBe(false);
    expect(open.open.map(({ kind, slide: id }) => [kind, id])).toEqual([
      ["notes", "s"],
      ["link", "s"],
      ["slide", "r"],
    ]);
    expect(balanceSentence(open)).toContain("3 of them cannot be found");
    const account = (kind: Account["kind"], id: string): Account => ({
      kind,
      deck: "a",
      slide: id,
      what: "",
      why: "asked for",
      left: true,
    });
    expect(
      balance([before], [after], [account("notes", "s"), account("link", "s"), account("slide", "r")]).closed,
    ).toBe(true);
    expect(
      balance([before], [after], [account("notes", "r"), account("link", "s"), account("slide", "r")]).closed,
    ).toBe(false);
  });
});

describe("a menu", () => {
  it("links to each topic and back, is made once, and stays right when slides move", () => {
    const deck = deckOf("m", [slide("a", "Opening"), slide("b", "Tides"), slide("c", "Dunes")]);
    const words = { title: "Topics", back: "Topics", newId: idSource("k") };
    const made = contentsSlideFor(deck, ["b", "c"], words);
    const { deck: next } = apply(deck, made?.change as never);
    expect(titles(next)).toEqual(["Opening", "Topics", "Tides", "Dunes"]);
    expect(linksIn(next)).toEqual(["slide:b", "slide:c", `slide:${made?.menu}`, `slide:${made?.menu}`]);
    const again = contentsSlideFor(next, [must(made?.menu), "b", "c"], words);
    expect(tally(apply(next, again?.change as never).deck).links.internal).toBe(4);
    const more = apply(next, insertAt([slide("x", "More")], { parent: null, after: "c" })).deck;
    expect(
      linksIn(
        apply(more, contentsSlideFor(more, [must(made?.menu), "b", "c", "x"], words)?.change as never).deck,
      ).filter((to) => to === "slide:x"),
    ).toHaveLength(1);
  });
});
