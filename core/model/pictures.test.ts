import {
  type Deck,
  type Element,
  filesOf,
  picturesOn,
  plainText,
  renamePictures,
  sharedItemsOf,
  type Slide,
  tabParts,
  TabStop,
  tabStop,
  withDrawing,
} from "./index";

const at = { x: 10, y: 10, width: 100, height: 50 };
const base = { slot: null, frame: at } as const;
const drawing = {
  width: 200,
  height: 100,
  elements: [
    { kind: "picture", id: "d1", ...base, source: "inside.png", alt: "" },
    {
      kind: "shape",
      id: "d2",
      ...base,
      style: "inside",
      geometry: { preset: "rect" },
      fill: { kind: "picture", source: "painted.png" },
      text: [{ kind: "bullet", level: 0, properties: { bullet: { picture: "sign-in.png" } }, runs: [{ text: "x" }] }],
    },
  ],
};
const elements = [
  { kind: "picture", id: "a", ...base, source: "photo.png", alt: "" },
  {
    kind: "picture",
    id: "b",
    ...base,
    source: "photo.png",
    alt: "again",
    fill: { kind: "picture", source: "behind.png" },
  },
  {
    kind: "shape",
    id: "c",
    ...base,
    geometry: { preset: "ellipse" },
    fill: { kind: "picture", source: "fill.png", tile: true },
    text: [],
  },
  {
    kind: "table",
    id: "t",
    ...base,
    rows: [
      [{ text: [], fill: { kind: "picture", source: "cell.png" } }, null],
      [{ text: [], fill: { kind: "solid", colour: "#ffffff" } }, { text: [] }],
    ],
    header: 0,
    align: ["start", "start"],
  },
  { kind: "media", id: "m", ...base, source: "film.mp4", type: "video", poster: "poster.png", alt: "" },
  { kind: "foreign", id: "f", ...base, what: "a thing", text: [], picture: "shown.png", alt: "" },
  { kind: "foreign", id: "g", ...base, what: "diagram", text: plainText("x"), alt: "", drawing },
  {
    kind: "text",
    id: "x",
    ...base,
    style: "outside",
    text: [{ kind: "bullet", level: 0, properties: { bullet: { picture: "sign.png" } }, runs: [{ text: "y" }] }],
  },
] as unknown as Element[];
const slide: Slide = {
  id: "s",
  parent: null,
  arrangement: "blank",
  notes: [],
  hidden: false,
  background: { fill: { kind: "picture", source: "ground.png" } },
  master: "m",
  elements,
  sourcePart: {
    file: "kept/a",
    part: "p",
    hash: "",
    notesHash: "",
    backgroundHash: "",
    transitionHash: "",
    shapes: [],
  },
};
const head: Pick<Deck, "masters" | "styles"> = {
  masters: {
    m: {
      name: "M",
      background: { picture: "master.png" },
      elements: [{ kind: "picture", id: "m1", ...base, source: "logo.png", alt: "" } as Element],
    },
  },
  styles: {
    inside: [{ run: { size: 12 } }],
    outside: [{ run: { size: 14 }, paragraph: { bullet: { picture: "sign-style.png" } } }],
    unused: [{ run: { size: 16 } }],
  },
};
const SHOWN = [
  "ground.png",
  "photo.png",
  "behind.png",
  "fill.png",
  "cell.png",
  "poster.png",
  "shown.png",
  "inside.png",
  "painted.png",
];

describe("the pictures of a slide", () => {
  it("are all that it shows, wherever they stand: fills, cells, posters and drawings of other files too", () => {
    expect(new Set(picturesOn(slide))).toEqual(new Set(SHOWN));
  });

  it("and its files are those of its master, signs before items, films and the file that it came from besides", () => {
    expect(new Set(filesOf(slide, head))).toEqual(
      new Set([...SHOWN, "master.png", "logo.png", "sign.png", "sign-style.png", "sign-in.png", "film.mp4", "kept/a"]),
    );
  });

  it("are renamed everywhere at once, and nothing else is", () => {
    const renamed = renamePictures(slide, (name) => `new/${name}`);
    expect(new Set(picturesOn(renamed))).toEqual(new Set(SHOWN.map((name) => `new/${name}`)));
    // A film is renamed with them; signs are named by what they are, and stay.
    expect(renamed.elements.find(({ id }) => id === "m")).toMatchObject({ source: "new/film.mp4" });
    expect(JSON.stringify(renamed)).toContain('"picture":"sign.png"');
    const back = renamePictures(renamed, (name) => name.replace("new/", ""));
    expect(back).toEqual(slide);
  });

  it("stay as they are where their names do", () => {
    expect(renamePictures(slide, (name) => name)).toEqual(slide);
  });
});

describe("what slides share", () => {
  it("are the masters and styles that they name, those of drawings too, and no others", () => {
    const { masters, styles } = sharedItemsOf([slide], head);
    expect(Object.keys(masters ?? {})).toEqual(["m"]);
    expect(Object.keys(styles ?? {}).sort()).toEqual(["inside", "outside"]);
  });
  it("is nothing for slides that name nothing", () => {
    const { master: _, ...plain } = slide;
    expect(sharedItemsOf([{ ...plain, elements: [] }], head)).toEqual({});
  });
});

describe("elements with those that drawings are made of", () => {
  it("are in the order in which they are drawn", () => {
    expect(withDrawing(elements).map(({ id }) => id)).toEqual(["a", "b", "c", "t", "m", "f", "g", "d1", "d2", "x"]);
  });
});

describe("a tab stop", () => {
  it.each([
    [72, "start", 72],
    [72, "end", { at: 72, align: "end" }],
    [10.5, "centre", { at: 10.5, align: "centre" }],
    [0, "decimal", { at: 0, align: "decimal" }],
  ] as const)("at %d, %s, is said in the fewest words and taken apart again", (place, align, wanted) => {
    const stop = tabStop(place, align);
    expect(stop).toEqual(wanted);
    expect(tabParts(stop)).toEqual({ at: place, align });
    expect(TabStop.parse(stop)).toEqual(stop);
  });
  it("is refused beyond the page, before it, and of a kind that is none", () => {
    for (const wrong of [-1, 5000, { at: 10, align: "start" }, { at: -3, align: "end" }, { align: "end" }])
      expect(TabStop.safeParse(wrong).success).toBe(false);
  });
});
