import { apply, copies } from "@unitext/core/edit";
import { type Deck, orderProblems, plainText, run, slideLinks, slideTexts, textOf, must } from "@unitext/core/model";
import { balance, balanceSentence, tally } from "@unitext/core/tally";
import { idSource } from "@unitext/core/testing";
import fc from "fast-check";
import { brokenLinks, contentsNote, mendLink, resolvePlan, split } from "./index";
import { ids, linkTo, slide, deckOf, linksIn, titles, sources, linkedDeck } from "@unitext/core/testing/coursedecks";

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
          // When it is removed without an account of it, the balance does not close.
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
