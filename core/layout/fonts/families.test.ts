import { must } from "@unitext/core/model";
import { readFileSync } from "node:fs";
import { shippedFonts } from "@unitext/core/testing/fonts";
import { FAMILIES, familyNamed, isShipped, shownFamily } from "./index";

/**
 * The published list of families that are as wide as each other: fontconfig's 30-metric-aliases.conf, as Debian's package
 * fontconfig-config ships it. Each of its entries says that one family may stand for another.
 */
function aliases(): Map<string, string> {
  const text = readFileSync("/usr/share/fontconfig/conf.avail/30-metric-aliases.conf", "utf8").replace(
    /<!--[\s\S]*?-->/g,
    "",
  );
  const names = [
    ...text.matchAll(
      /<alias(?: binding="same")?>\s*<family>([^<]*)<\/family>\s*(?:<(?:default|accept)>\s*)?((?:<family>[^<]*<\/family>\s*)+)/g,
    ),
  ];
  const root = new Map<string, string>();
  const of = (name: string): string => {
    const up = root.get(name) ?? name;
    return up === name ? name : of(up);
  };
  for (const [, one = "", others = ""] of names)
    for (const [, other = ""] of others.matchAll(/<family>([^<]*)</g)) root.set(of(other), of(one));
  return new Map(
    [
      ...new Set([
        ...names.flatMap(([, one = "", others = ""]) => [
          one,
          ...[...others.matchAll(/<family>([^<]*)</g)].map(([, other = ""]) => other),
        ]),
      ]),
    ].map((name) => [name, of(name)]),
  );
}

const shipped = ["Arimo", "Tinos", "Cousine", "Carlito", "Caladea", "Gelasio"] as const;
// Narrow cuts and fonts of signs are widths of their own.
const same = (list: Map<string, string>, name: string) =>
  shipped.find((family) => list.get(family) !== undefined && list.get(family) === list.get(name));

describe("the family that is shown for one that does not ship", () => {
  const list = aliases();
  const wanted = [...list.keys()].flatMap((name): [string, string][] =>
    same(list, name) && !isShipped(name) ? [[name, same(list, name) as string]] : [],
  );

  it("is tried with what the published list names", () => {
    for (const name of [
      "Arial",
      "Helvetica",
      "Liberation Sans",
      "Nimbus Sans",
      "Times New Roman",
      "Liberation Serif",
      "Courier New",
      "Cambria",
      "Calibri",
    ])
      expect(wanted.map(([found]) => found)).toContain(name);
  });
  it.each(wanted)("is as wide for %s: %s", (name, family) => {
    expect(shownFamily(name)).toEqual({ family, fit: "metric" });
    expect(shownFamily(` ${name.toUpperCase()} `)).toEqual({ family, fit: "metric" });
  });
  it("is called as wide only where it is, by the published list", () => {
    for (const [name] of list)
      if (!isShipped(name) && shownFamily(name).fit === "metric")
        expect([name, shownFamily(name).family]).toEqual([name, same(list, name)]);
  });

  // Common practice, no source: what kind of letters a family has.
  it.each([
    ["Century Gothic", "Noto Sans"],
    ["Franklin Gothic Book", "Arimo"],
    ["News Gothic MT", "Arimo"],
    ["Segoe UI", "Arimo"],
    ["Tahoma", "Arimo"],
    ["Arial Unicode MS", "Arimo"],
    ["Arial Narrow", "Archivo Narrow"],
    ["Verdana", "DejaVu Sans"],
    ["Lucida Sans Unicode", "Noto Sans"],
    ["Gill Sans MT", "Carlito"],
    ["Candara", "Carlito"],
    ["Comic Sans MS", "Comic Relief"],
    ["MS Sans Serif", "Arimo"],
    ["Century Schoolbook", "Literata"],
    ["Book Antiqua", "Gelasio"],
    ["Palatino Linotype", "Gelasio"],
    ["Source Serif Pro", "Gelasio"],
    ["Garamond", "Tinos"],
    ["Consolas", "Cousine"],
    ["Source Code Pro", "Cousine"],
    ["DejaVu Sans Mono", "Cousine"],
    ["Code New", "Cousine"],
    ["A family nobody knows", "Arimo"],
  ])("is near in kind for %s: %s", (name, family) => {
    expect(shownFamily(name)).toEqual({ family, fit: "near" });
  });

  /*
   * Widths of the text below beside Arimo's, measured with HarfBuzz: of the families of the registry (@fontsource, 5.3.0), and
   * of the fonts of Debian's package fonts-urw-base35, which are as wide as those that they are named beside (Palatino,
   * Century Schoolbook, Bookman, Avant Garde: the published list above); Gillius, of Debian's fonts-adf-gillius, for Gill Sans,
   * after which it was drawn. The last three come from memory of the advances of their commonest letters.
   */
  const TEXT =
    "The quick measurements of tides, dunes and storms were taken at the station during the autumn; lecturers and analysts turn outlines, documents and existing decks into presentations by generating slides from text, then reorder, split and merge them. Results and Discussion, Introduction, Chapter 12: Water levels in 2024.";
  it.each([
    ["Arial Narrow", 0.818],
    ["Oswald", 0.816],
    ["EB Garamond", 0.856],
    ["Source Sans 3", 0.936],
    ["Cabin", 0.942],
    ["Gill Sans", 0.946],
    ["Jost", 0.951],
    ["Lato", 0.976],
    ["Palatino", 0.994],
    ["Roboto", 0.998],
    ["Nunito", 1.012],
    ["Ubuntu", 1.022],
    ["Raleway", 1.034],
    ["Libre Franklin", 1.04],
    ["New Century Schoolbook", 1.05],
    ["Open Sans", 1.055],
    ["Inter", 1.066],
    ["ITC Avant Garde Gothic", 1.076],
    ["ITC Bookman", 1.118],
    ["Poppins", 1.122],
    ["Montserrat", 1.13],
    ["Segoe UI", 0.995],
    ["Tahoma", 1],
    ["Trebuchet MS", 1.02],
  ])("is at most six in a hundred wider or narrower than %s (%f)", (name, width) => {
    const shown = (family: string) =>
      must(familyNamed(family).faces.find(({ weight, slant }) => weight === 400 && slant === "normal")?.id);
    const wide = (family: string) => {
      const face = shippedFonts().face(shown(family));
      return TEXT.split(/(?= )|(?<= )/).reduce((sum, word) => sum + face.word(word, false, "en").width, 0);
    };
    const ratio = wide(name) / wide("Arimo");
    expect(Math.abs(ratio / width - 1)).toBeLessThan(0.06);
  });

  it("is itself for every family that ships, however it is written", () => {
    for (const { family } of FAMILIES) expect(shownFamily(family.toLowerCase())).toEqual({ family, fit: "same" });
  });
});
