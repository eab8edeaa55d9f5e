import { apply, insertAt } from "@unitext/core/edit";
import { plainText, must } from "@unitext/core/model";
import { balance, balanceSentence, type Account, tally } from "@unitext/core/tally";
import { idSource } from "@unitext/core/testing";
import { contentsSlideFor } from "./index";
import { linkTo, slide, deckOf, linksIn, titles } from "@unitext/core/testing/coursedecks";

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
