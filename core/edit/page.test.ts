import {
  canonical,
  type Deck,
  type Element,
  emptyDeck,
  newSlide,
  plainText,
  type Slide,
  textHash,
  must,
} from "@unitext/core/model";
import { idSource } from "@unitext/core/testing";
import { apply, changePage, PageResizer, resizeDeck } from "./index";

const WIDE = { width: 960, height: 540 };
const OLD = { width: 720, height: 540 };
const frame = (x: number, y: number, width: number, height: number) => ({ x, y, width, height });
const shape = (id: string, more: Partial<Element> = {}): Element =>
  ({ kind: "shape", id, slot: null, geometry: { preset: "rect" }, text: [], ...more }) as Element;
const slide = (elements: Element[], more: Partial<Slide> = {}): Slide => ({
  ...newSlide("s", "blank"),
  elements,
  ...more,
});
const fitted = (from: { width: number; height: number }, to: { width: number; height: number }, given: Element) =>
  must(new PageResizer(from, to, { slides: [slide([given])] }).slide(slide([given])).elements[0]);

describe("a page of another shape", () => {
  // 16:9 is 960 by 540 points, 4:3 is 720 by 540: everything becomes three quarters as large, 405 points high in the middle of 540.
  it("shows what stands freely as large as fits, in the middle", () => {
    expect(fitted(WIDE, OLD, shape("a", { frame: frame(60, 80, 840, 400) })).frame).toEqual(frame(45, 127.5, 630, 300));
    expect(fitted(OLD, WIDE, shape("a", { frame: frame(60, 40, 600, 440) })).frame).toEqual(frame(180, 40, 600, 440));
    expect(fitted(WIDE, { width: 960, height: 600 }, shape("a", { frame: frame(60, 80, 840, 380) })).frame).toEqual(
      frame(60, 110, 840, 380),
    );
  });

  it("comes back to nearly what it was, and nothing leaves the page", () => {
    const wide = slide([
      shape("a", { frame: frame(60, 40, 500, 460) }),
      shape("b", { frame: frame(600, 60, 300, 200) }),
    ]);
    const there = new PageResizer(WIDE, OLD, { slides: [wide] }).slide(wide);
    const back = new PageResizer(OLD, WIDE, { slides: [there] }).slide(there);
    for (const [nth, { frame: now }] of back.elements.entries()) {
      const was = wide.elements[nth]?.frame;
      for (const side of ["x", "y", "width", "height"] as const)
        expect(Math.abs((now?.[side] ?? 0) - (was?.[side] ?? 0))).toBeLessThan(25);
    }
    const low = slide([shape("a", { frame: frame(40, 420, 500, 100) })]);
    expect(new PageResizer(OLD, WIDE, { slides: [low] }).slide(low).elements[0]?.frame).toMatchObject({
      width: expect.any(Number),
    });
    const [made] = new PageResizer(OLD, WIDE, { slides: [low] }).slide(low).elements;
    expect((made?.frame?.y ?? 0) + (made?.frame?.height ?? 0)).toBeLessThanOrEqual(540);
    expect((made?.frame?.x ?? 0) + (made?.frame?.width ?? 0)).toBeLessThanOrEqual(960);
  });

  it("keeps at an edge what stood there, and lets reach over it what did", () => {
    expect(fitted(WIDE, OLD, shape("all", { frame: frame(0, 0, 960, 540) })).frame).toEqual(frame(0, 0, 720, 540));
    expect(fitted(WIDE, OLD, shape("strip", { frame: frame(0, 500, 960, 40) })).frame).toEqual(frame(0, 510, 720, 30));
    expect(fitted(WIDE, OLD, shape("bleeding", { frame: frame(-20, -10, 1000, 560) })).frame).toEqual(
      frame(-15, -7.5, 750, 555),
    );
    expect(fitted(WIDE, OLD, shape("corner", { frame: frame(900, 0, 60, 60) })).frame).toEqual(frame(675, 0, 45, 45));
  });

  it("does not draw pictures out of shape: more is cut off them", () => {
    const picture = fitted(WIDE, OLD, {
      kind: "picture",
      id: "p",
      slot: null,
      source: "a.png",
      alt: "",
      frame: frame(0, 0, 960, 540),
    });
    // 16:9 in 4:3: the visible share of the width is (4/3) / (16/9) = 3/4.
    expect(picture).toMatchObject({
      frame: frame(0, 0, 720, 540),
      crop: { left: 0.125, right: 0.125, top: 0, bottom: 0 },
    });
    expect(
      fitted(WIDE, OLD, {
        kind: "picture",
        id: "p",
        slot: null,
        source: "a.png",
        alt: "",
        frame: frame(60, 100, 840, 100),
      }),
    ).not.toHaveProperty("crop");
  });

  it("has type, indents, insets, lines, shadows and tables in the same measure", () => {
    const deck: Deck = {
      ...emptyDeck("d", "D"),
      page: WIDE,
      styles: {
        big: [
          {
            run: { size: 40, spacing: 2 },
            paragraph: {
              left: 20,
              first: -20,
              before: { points: 8 },
              after: { times: 0.5 },
              line: { points: 48 },
              tabs: [100, 200],
            },
          },
        ],
      },
      masters: { strip: { name: "Strip", elements: [shape("m", { frame: frame(0, 520, 960, 20) })] } },
      slides: [
        slide(
          [
            {
              kind: "text",
              id: "t",
              slot: null,
              frame: frame(60, 54, 840, 100),
              style: "big",
              box: { insets: [8, 4, 8, 4], columns: 2, gap: 16 },
              stroke: { colour: "#000000", width: 4 },
              shadow: { colour: "#000000", opacity: 0.5, blur: 8, distance: 4, direction: 45 },
              text: [
                { kind: "plain", level: 0, runs: [{ text: "Ebb", marks: [], properties: { size: 60 } }] },
                { kind: "plain", level: 0, properties: { words: { size: 20 } }, runs: [] },
              ],
            } as Element,
            {
              kind: "table",
              id: "u",
              slot: null,
              frame: frame(100, 300, 400, 80),
              widths: [100, 300],
              heights: [40, 40],
              header: 1,
              align: [],
              rows: [
                [
                  { text: plainText("a"), insets: [4, 4, 4, 4] },
                  { text: plainText("b"), borders: { top: { colour: "#000000", width: 2 } } },
                ],
              ],
            },
            { kind: "text", id: "v", slot: "title", text: plainText("In its slot") },
          ],
          {
            master: "strip",
            regions: [{ region: "footer", text: "Station", frame: frame(100, 500, 400, 20), style: "big" }],
          },
        ),
      ],
    };
    const next = resizeDeck(deck, OLD);
    const [one] = next.slides as [Slide];
    const [text, table, title] = one.elements as [Element, Element, Element];
    expect(text).toMatchObject({
      box: { insets: [6, 3, 6, 3], gap: 12 },
      stroke: { width: 3 },
      shadow: { blur: 6, distance: 3 },
      text: [{ runs: [{ properties: { size: 45 } }] }, { properties: { words: { size: 15 } } }],
    });
    expect(next.styles?.[text.style ?? ""]).toEqual([
      {
        run: { size: 30, spacing: 1.5 },
        paragraph: {
          left: 15,
          first: -15,
          before: { points: 6 },
          after: { times: 0.5 },
          line: { points: 36 },
          tabs: [75, 150],
        },
      },
    ]);
    expect(table).toMatchObject({
      widths: [75, 225],
      heights: [30, 30],
      rows: [[{ insets: [3, 3, 3, 3] }, { borders: { top: { width: 1.5 } } }]],
    });
    expect(title).toBe(deck.slides[0]?.elements[2]);
    expect(one.regions).toMatchObject([{ frame: frame(75, 442.5, 300, 15), style: text.style }]);
    // What is drawn behind slides is named by its content.
    expect(one.master).toBe(textHash(canonical(next.masters?.[one.master ?? ""])));
    expect(next.masters?.[one.master ?? ""]?.elements[0]?.frame).toEqual(frame(0, 525, 720, 15));
    expect([next.page, Object.keys(next.masters ?? {}).length, Object.keys(next.styles ?? {}).length]).toEqual([
      OLD,
      1,
      1,
    ]);
  });

  it("is one act that can be taken back whole", () => {
    const deck: Deck = {
      ...emptyDeck("d", "D"),
      page: WIDE,
      masters: { m: { name: "M", elements: [shape("m", { frame: frame(0, 0, 960, 20) })] } },
      slides: [slide([shape("a", { frame: frame(1, 2, 3, 4) })], { master: "m" }), newSlide("plain", "points")],
    };
    const there = apply(deck, changePage(deck, OLD));
    expect(there.deck).toEqual(resizeDeck(deck, OLD));
    expect(apply(there.deck, there.inverse).deck).toEqual(deck);
    expect(changePage(deck, WIDE)).toEqual({ kind: "batch", changes: [] });
    expect(changePage({ ...emptyDeck("e", "E"), slides: [newSlide(idSource()(), "points")] }, OLD)).toEqual({
      kind: "setPage",
      page: OLD,
    });
  });
});
