import { type Deck, type Element, emptyDeck, type ForeignElement, plainText, type Slide } from "@unitext/core/model";
import { standIns, withStandIns, mergeAppearance } from "./index";

const WORN = { background: "b1", transition: "t1" };
const looks = {
  background: { colour: "#0f5c63" },
  transition: { kind: "fade", seconds: 0.8 },
  delay: 7.5,
  widths: [40, 60],
  section: "Quay",
};

describe("what a slide wears when it is read again", () => {
  const said = (more: object) => () => more as Pick<Slide, "background" | "transition" | "delay">;
  const never = () => {
    throw new Error("asked for nothing");
  };

  it("is what is kept, where the file says what it said, and the file is not asked", () => {
    expect(mergeAppearance({ ...looks, wears: WORN }, WORN, never)).toEqual(looks);
  });
  it("is what is kept, where a file of before says no sums", () => {
    expect(mergeAppearance(looks, { background: "?", transition: "?" }, never)).toEqual(looks);
    expect(mergeAppearance({ ...looks, wears: "torn" }, { background: "?", transition: "?" }, never)).toEqual(looks);
  });
  it("is the file's background where that is another, and what is kept of all else", () => {
    expect(
      mergeAppearance(
        { ...looks, wears: WORN },
        { ...WORN, background: "b2" },
        said({ background: { colour: "#ffee88" }, transition: { kind: "push", seconds: 1 } }),
      ),
    ).toEqual({ ...looks, background: { colour: "#ffee88" } });
    const { background: _, ...bare } = looks;
    expect(mergeAppearance({ ...looks, wears: WORN }, { ...WORN, background: "b2" }, said({}))).toEqual(bare);
  });
  it("is the file's transition and time where these are others", () => {
    const { transition: _, delay: __, ...rest } = looks;
    expect(
      mergeAppearance(
        { ...looks, wears: WORN },
        { ...WORN, transition: "t2" },
        said({ background: { colour: "#000000" }, delay: 3 }),
      ),
    ).toEqual({ ...rest, delay: 3 });
  });
  it("is nothing where what is kept is torn", () => {
    expect(mergeAppearance({ background: 7, wears: WORN }, WORN, never)).toEqual({});
  });
});

describe("what stands for a thing that only its own file can hold", () => {
  const thing = (more: Partial<ForeignElement>): ForeignElement => ({
    kind: "foreign",
    id: "f",
    slot: null,
    frame: { x: 100, y: 50, width: 400, height: 100 },
    what: "diagram",
    text: plainText("Ebb\nFlood"),
    alt: "",
    ...more,
  });
  const one = (id: string, more: object = {}) => ({
    kind: "shape" as const,
    id,
    slot: null,
    frame: { x: 10, y: 20, width: 50, height: 40 },
    geometry: { preset: "rect" },
    text: plainText(id),
    ...more,
  });
  const drawing = {
    width: 200,
    height: 200,
    elements: [
      one("a"),
      one("b", { frame: { x: 100, y: 100, width: 100, height: 100 }, groups: ["in"] }),
      { ...one("c"), frame: undefined },
    ],
  } as unknown as NonNullable<ForeignElement["drawing"]>;

  it("is its picture, with a description", () => {
    expect(standIns(thing({ picture: "shown.png", drawing }))).toEqual([
      {
        kind: "picture",
        id: "f",
        slot: null,
        frame: { x: 100, y: 50, width: 400, height: 100 },
        source: "shown.png",
        alt: "diagram",
      },
    ]);
  });
  it("is its drawing, stretched to its frame, as one group inside those that it is in", () => {
    expect(standIns(thing({ drawing, groups: ["whole"] }))).toMatchObject([
      { kind: "shape", id: "f-1", frame: { x: 120, y: 60, width: 100, height: 20 }, groups: ["whole", "f-drawing"] },
      {
        kind: "shape",
        id: "f-2",
        frame: { x: 300, y: 100, width: 200, height: 50 },
        groups: ["whole", "f-drawing", "in"],
      },
    ]);
  });
  it("is its name and its words, where there is nothing to see", () => {
    const [text] = standIns(thing({}));
    expect(text).toMatchObject({ kind: "text", id: "f" });
    expect(text?.kind === "text" && text.text.map(({ runs }) => runs.map(({ text: words }) => words).join(""))).toEqual(
      ["diagram", "Ebb", "Flood"],
    );
  });
  it("is nothing else for what is no such thing", () => {
    const plain = one("p") as Element;
    expect(standIns(plain)).toEqual([plain]);
  });

  it("takes its place on the slides whose file cannot hold it, and the deck is the same where none has to", () => {
    const slide = (id: string, element: Element): Slide => ({
      id,
      parent: null,
      arrangement: "blank",
      notes: [],
      hidden: false,
      elements: [element],
    });
    const deck: Deck = {
      ...emptyDeck("d", "D"),
      slides: [slide("held", thing({ drawing })), slide("not", thing({ drawing })), slide("bare", thing({}))],
    };
    const made = withStandIns(deck, ({ id }) => id === "held");
    expect(made.slides.map(({ elements }) => elements.map(({ kind }) => kind))).toEqual([
      ["foreign"],
      ["shape", "shape"],
      ["foreign"],
    ]);
    expect(withStandIns(deck, () => true)).toBe(deck);
  });
});
