import { apply } from "@unitext/core/edit";
import { type Deck, type Element, metadataOf, paragraphText, textOf, must, DEFAULT_RULE } from "@unitext/core/model";
import { deckText, readText } from "@unitext/core/text";
import { everything, FILES, idSource } from "@unitext/core/testing";
import { generateDeck, reconcile } from "./index";

const asset = { sha256: "0".repeat(64), mediaType: "image/png" as const, width: 40, height: 30 };
const deck = everything({
  [FILES.photo]: asset,
  [FILES.moving]: asset,
  [FILES.lines]: { ...asset, mediaType: "image/svg+xml" },
  [FILES.film]: { ...asset, mediaType: "video/mp4" },
});

/** The deck after its text was changed in Write. */
function typed(of: Deck, change: (text: string) => string): { deck: Deck; changed: boolean } {
  const text = change(deckText(of, { ids: false }));
  const made = generateDeck(readText(text), DEFAULT_RULE, { newId: idSource("n"), metadata: metadataOf(of) });
  const { change: found } = reconcile(of, { ...metadataOf(made.deck), assets: of.assets, id: of.id }, made.made, {
    typed: true,
  });
  return { deck: found ? apply(of, found).deck : of, changed: found !== undefined };
}
const slide = (of: Deck, id: string) => must(of.slides.find((one) => one.id === id));
const others = (before: Deck, after: Deck, ids: readonly string[]) =>
  before.slides
    .filter(({ id }) => !ids.includes(id))
    .every((one) => JSON.stringify(one) === JSON.stringify(slide(after, one.id)));

describe("slides that hold more than text can say, in Write", () => {
  it("are not touched while nothing is typed on them", () => {
    const { deck: after, changed } = typed(deck, (text) => text);
    expect(after.slides).toEqual(deck.slides);
    expect(changed).toBe(false);
  });

  it("take other words in the looks and places that they have, and lose nothing", () => {
    const { deck: after } = typed(deck, (text) => text.replace("loud", "quiet").replace(/^here$/m, "there"));
    expect(others(deck, after, ["shapes"])).toBe(true);
    const [before, now] = [slide(deck, "shapes"), slide(after, "shapes")];
    expect(
      now.elements.map(({ id, kind, frame, rotation, fill, groups }) => [id, kind, frame, rotation, fill, groups]),
    ).toEqual(
      before.elements.map(({ id, kind, frame, rotation, fill, groups }) => [id, kind, frame, rotation, fill, groups]),
    );
    const box = now.elements.find(({ id }) => id === "box") as Extract<Element, { kind: "text" }>;
    expect(textOf(box.text)).toBe("plain quiet\ncaps");
    expect(box.text[0]?.runs.at(-1)?.properties).toMatchObject({ size: 30, colour: "#b23a30" });
    expect(box.text[1]).toEqual((before.elements.find(({ id }) => id === "box") as typeof box).text[1]);
    expect(textOf((now.elements.find(({ id }) => id === "star") as Extract<Element, { kind: "shape" }>).text)).toBe(
      "there",
    );
  });

  it("keep the groups in which their points come when a word of one is changed, and when others are typed elsewhere", () => {
    const { deck: after } = typed(deck, (text) => text.replace("point 2", "another second point"));
    const steps = (of: Deck) =>
      (slide(of, "groups").elements.find(({ id }) => id === "grouped") as Extract<Element, { kind: "text" }>).text.map(
        ({ step }) => step,
      );
    expect(
      textOf(
        (slide(after, "groups").elements.find(({ id }) => id === "grouped") as Extract<Element, { kind: "text" }>).text,
      ),
    ).toBe("point 0\npoint 1\nanother second point\npoint 3");
    expect(steps(after)).toEqual(steps(deck));
    expect(others(deck, after, ["groups"])).toBe(true);
  });

  it("take a line more and a line less", () => {
    const { deck: more } = typed(deck, (text) => text.replace(/^(.*plain .*)$/m, "$1\n- one more"));
    const box = (of: Deck) =>
      (slide(of, "shapes").elements.find(({ id }) => id === "box") as Extract<Element, { kind: "text" }>).text.map(
        paragraphText,
      );
    expect(box(more)).toEqual(["plain loud", "one more", "caps"]);
    expect(slide(more, "shapes").elements).toHaveLength(slide(deck, "shapes").elements.length);
    const { deck: less } = typed(deck, (text) => text.replace(/^.*caps.*\n/m, ""));
    expect(box(less)).toEqual(["plain loud"]);
  });

  it("take numbers of tables and charts in the looks that these have, new ones, and those gone", () => {
    const { deck: after } = typed(deck, (text) =>
      text.replace("| North | 2.4", "| North | 9.9").replace("2.25", "7.5"),
    );
    const [table, chart] = slide(after, "figures").elements as [
      Extract<Element, { kind: "table" }>,
      Extract<Element, { kind: "chart" }>,
    ];
    expect(textOf(table.rows[1]?.[1]?.text ?? [])).toBe("9.9");
    expect(table).toMatchObject({ id: "t", widths: [240, 160], frame: { x: 40, y: 40, width: 400, height: 120 } });
    expect(table.rows[0]?.[0]?.fill).toEqual({ kind: "solid", colour: "#0f5c63" });
    expect(chart).toMatchObject({ id: "c", title: "Levels", legend: "bottom", stack: "sum" });
    expect(chart.series[0]).toMatchObject({ colour: "#0f5c63", values: [1.5, 7.5, null] });
    expect(others(deck, after, ["figures"])).toBe(true);
    const { deck: less } = typed(deck, (text) => text.replace(/^!\[A wave\].*\n/m, ""));
    expect(slide(less, "pictures").elements.map(({ id }) => id)).toEqual(["a", "r", "m", "l", "f"]);
  });

  it("keep what is said of them beside: notes, hidden, order", () => {
    const { deck: after } = typed(deck, (text) => text.replace("## Words", "## Other words"));
    expect(slide(after, "words").notes).toEqual(slide(deck, "words").notes);
    expect(others(deck, after, ["words"])).toBe(true);
  });
});
