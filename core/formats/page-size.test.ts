import { readFileSync } from "node:fs";
import { join } from "node:path";
import { merge } from "@unitext/core/divide";
import { resizeDeck } from "@unitext/core/edit";
import { type Deck, type Element, withoutOwnAppearance, type Slide, must } from "@unitext/core/model";
import { tally } from "@unitext/core/tally";
import { idSource, unresolved } from "@unitext/core/testing";
import { filesBench } from "@unitext/core/testing/files";
import { strFromU8, unzipSync } from "fflate";
import { WRITERS, writeReport } from "./index";

const bench = filesBench();
const { context } = bench;
const content = join(import.meta.dirname, "../../demo/content");

function read(bytes: Uint8Array, name: string, prefix = "r"): Deck {
  const found = bench.read(bytes, name, prefix);
  return found.deck;
}

const FILES = { pptx: "quay-in-autumn.pptx", odp: "open-day.odp" } as const;
type Format = keyof typeof FILES;
const given = (format: Format) => read(readFileSync(join(content, FILES[format])), FILES[format]);
const write = (deck: Deck, format: Format) => WRITERS[format].write(deck, context) as Uint8Array;
const standing = (slides: readonly Slide[]) =>
  slides.map(({ elements }) =>
    elements.map(({ kind, frame }: Element) => [kind, frame && Object.values(frame).map((value) => Math.round(value))]),
  );
const drawn = ({ masters }: Deck, { master }: Slide) =>
  (masters?.[master ?? ""]?.elements ?? []).map(({ kind, frame }) => [
    kind,
    frame && Object.values(frame).map((value) => Math.round(value)),
  ]);
const OLD = { width: 720, height: 540 };

describe.each(["pptx", "odp"] as const)("a deck from a .%s", (format) => {
  const deck = given(format);

  it("on a page of another shape is written on pages of that shape, with what stands on and behind them where it stands", () => {
    const next = resizeDeck(deck, OLD);
    const bytes = write(next, format);
    const again = read(bytes, `again.${format}`, "s");
    expect(again.page).toEqual(OLD);
    expect(standing(again.slides)).toEqual(standing(next.slides));
    expect(again.slides.map((slide) => drawn(again, slide))).toEqual(next.slides.map((slide) => drawn(next, slide)));
    expect(tally(again)).toEqual(writeReport(next, format).to);
    if (format === "odp") expect(unresolved(unzipSync(bytes))).toEqual([]);
  });

  it("keeps the look of the deck on slides that were given it", () => {
    const next: Deck = {
      ...deck,
      slides: deck.slides.map((slide, nth) => (nth === 1 ? withoutOwnAppearance(slide, deck.theme) : slide)),
    };
    const again = read(write(next, format), `look.${format}`, "t");
    expect(again.slides.map(({ master }) => master !== undefined)).toEqual(
      next.slides.map(({ master }) => master !== undefined),
    );
    expect(again.slides[1]?.arrangement).toBe(next.slides[1]?.arrangement);
    expect(tally(again)).toEqual(writeReport(next, format).to);
  });

  it("comes into a deck on another page as large as fits, and that is accounted for slide by slide", () => {
    const place: Deck = { ...given(format === "pptx" ? "odp" : "pptx"), id: "place", page: OLD };
    const { deck: joined, accounts } = merge(
      [
        { deck: { ...place, slides: place.slides.slice(0, 1) }, version: 1 },
        { deck: { ...deck, id: "wide" }, version: 1 },
      ],
      { appearance: "keep" },
      { newId: idSource("m"), deckId: () => "joined" },
    );
    expect(joined.page).toEqual(OLD);
    for (const { elements } of joined.slides.slice(1))
      for (const { frame } of elements) if (frame) expect(frame.x + frame.width).toBeLessThanOrEqual(OLD.width + 60);
    const fitted = joined.slides.slice(1).filter(({ elements }) => elements.some(({ frame }) => frame)).length;
    expect(
      accounts.filter(
        ({ kind, left, why }) =>
          kind === "slide" && !left && why === "its page was 16:9; positioned elements were scaled to 4:3",
      ).length,
    ).toBeGreaterThanOrEqual(fitted);
  });
});

it("a .odp on another page has no page layout of the old size", () => {
  const text = strFromU8(must(unzipSync(write(resizeDeck(given("odp"), OLD), "odp"))["styles.xml"]));
  expect([...text.matchAll(/fo:page-width="([^"]*)"/g)].map(([, width]) => width)).not.toContain("960pt");
});
