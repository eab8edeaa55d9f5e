import { designTheme, emptyDeck, metadataOf, readStored, SCHEMA_VERSION, Theme, upgradeTags } from "../index";

/** A theme as version 4 of the stored data had it. */
const former = (name: string, ornament: string, fonts = { heading: "Literata", body: "Literata", code: "Cousine" }) => {
  const { design: _, ...theme } = designTheme("plain");
  const { field: __, onField: ___, ...colours } = theme.colours;
  return { ...theme, name, colours, fonts, ornament };
};

describe("themes of version 4", () => {
  it("that came with the program become the present ones of their names", () => {
    const fonts = { heading: "Noto Sans", body: "Noto Sans", code: "JetBrains Mono" };
    expect(readStored(Theme, former("Night watch", "rule", fonts), 4, "a theme")).toEqual(designTheme("nightwatch"));
    expect(readStored(Theme, former("Chalk", "none"), 4, "a theme")).toEqual(designTheme("chalk"));
  });

  it("that came with a file keep fonts, colours and sizes, and have no drawings", () => {
    const own = former("House", "none", { heading: "Carlito", body: "Carlito", code: "Cousine" });
    const { ornament: _, ...rest } = own;
    const read = readStored(Theme, own, 4, "a theme");
    expect(read).toMatchObject({ ...rest, design: "plain" });
    expect(read.colours.field).toBe(own.colours.accent);
  });

  it("are found wherever they are: in decks, in changes, in the tags of files", () => {
    const metadata = { ...metadataOf(emptyDeck("d", "D")), theme: former("House", "band") };
    expect(upgradeTags({ kind: "setTheme", theme: former("House", "rule") })).toMatchObject({
      theme: { design: "foreshore" },
    });
    expect(upgradeTags(metadata)).toMatchObject({ theme: { design: "saltmarsh" } });
  });

  it("of the present version stay the same object", () => {
    const metadata = metadataOf(emptyDeck("d", "D"));
    expect(upgradeTags(metadata)).toBe(metadata);
    expect(SCHEMA_VERSION).toBeGreaterThanOrEqual(5);
  });
});
