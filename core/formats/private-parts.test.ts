import { deckFor, emptyDeck, newSlide, plainText, type Deck, type Kept, type Slide } from "@unitext/core/model";
import { shippedFonts } from "@unitext/core/testing/fonts";
import { strFromU8, unzipSync } from "fflate";
import { type WRITABLE, WRITERS } from ".";

const slide = (id: string, title: string, more: Partial<Slide> = {}): Slide => ({
  ...newSlide(id, "points"),
  elements: [{ kind: "text", id: `${id}t`, slot: "title", text: plainText(title) }],
  ...more,
});

const deck: Deck = {
  ...emptyDeck("d", "Tides"),
  properties: { title: "Tides", author: "Secretauthor", event: "", date: "" },
  slides: [
    slide("a", "Shown first", {
      notes: plainText("Secretnote"),
      comments: [{ id: "c", author: "Head of station", text: "Secretcomment", date: "2026-11-02T09:00:00.000Z" }],
    }),
    slide("b", "Secrethidden", { hidden: true, parent: "a" }),
    slide("c", "Shown below", { parent: "b" }),
  ],
};
const SECRETS = { notes: "Secretnote", comments: "Secretcomment", hidden: "Secrethidden", author: "Secretauthor" };

/** Returns all texts of a file, with those of the archives in it. */
function textsIn(bytes: Uint8Array): string {
  if (strFromU8(bytes.subarray(0, 2), true) !== "PK") return strFromU8(bytes, true);
  return Object.entries(unzipSync(bytes))
    .map(([name, part]) => `${name}\n${textsIn(part)}`)
    .join("\n");
}

const written = async (format: (typeof WRITABLE)[number], kept: Kept): Promise<string> =>
  textsIn(
    await WRITERS[format].write(deckFor(deck, kept), {
      fonts: shippedFonts(),
      at: new Date(0),
      picture: () => undefined,
    }),
  );

// Formats whose words stand in the file as they are.
const READABLE = ["pptx", "odp", "json", "html"] as const;

it.each(READABLE)(
  "a .%s holds what it keeps, and nothing of what was taken out",
  async (format) => {
    const whole = await written(format, { notes: true, comments: true });
    const bare = await written(format, { notes: false, comments: false, hidden: false, author: false });
    for (const secret of Object.values(SECRETS)) expect(bare).not.toContain(secret);
    expect(bare).toContain("Shown below");
    for (const part of ["notes", "comments", "hidden", "author"] as const) {
      // Web pages have notes alone.
      if (format === "html" && part !== "notes") continue;
      expect(whole).toContain(SECRETS[part]);
      const one = await written(format, { notes: true, comments: true, [part]: false });
      expect(one).not.toContain(SECRETS[part]);
    }
  },
  60_000,
);

it("a detail of a hidden slide belongs to the slide above it", () => {
  const { slides } = deckFor(deck, { notes: true, comments: true, hidden: false });
  expect(slides.map(({ id, parent }) => [id, parent])).toEqual([
    ["a", null],
    ["c", "a"],
  ]);
});

it("the source files of slides are left out with any part, and stay with none", () => {
  const given: Deck = {
    ...deck,
    assets: {
      "course.pptx": {
        sha256: "0".repeat(64),
        mediaType: "application/zip",
        width: 0,
        height: 0,
      },
    },
  };
  const all: Kept = { notes: true, comments: true };
  expect(deckFor(given, all)).toBe(given);
  for (const part of ["notes", "comments", "hidden", "author"])
    expect(deckFor(given, { ...all, [part]: false }).assets).toEqual({});
});
