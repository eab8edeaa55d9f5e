import { readFileSync } from "node:fs";
import { FAMILIES, isShipped, shownFamily } from "./index";

/**
 * The published list of families that are as wide as each other: fontconfig's 30-metric-aliases.conf, as Debian's package
 * fontconfig-config ships it. Each of its entries says that one family may stand for another.
 */
function aliases(): Map<string, string> {
  const text = readFileSync("/usr/share/fontconfig/conf.avail/30-metric-aliases.conf", "utf8").replace(/<!--[\s\S]*?-->/g, "");
  const names = [...text.matchAll(/<alias(?: binding="same")?>\s*<family>([^<]*)<\/family>\s*(?:<(?:default|accept)>\s*)?((?:<family>[^<]*<\/family>\s*)+)/g)];
  const root = new Map<string, string>();
  const of = (name: string): string => {
    const up = root.get(name) ?? name;
    return up === name ? name : of(up);
  };
  for (const [, one = "", others = ""] of names) for (const [, other = ""] of others.matchAll(/<family>([^<]*)</g)) root.set(of(other), of(one));
  return new Map([...new Set([...names.flatMap(([, one = "", others = ""]) => [one, ...[...others.matchAll(/<family>([^<]*)</g)].map(([, other = ""]) => other)])])].map((name) => [name, of(name)]));
}

const shipped = ["Arimo", "Tinos", "Cousine", "Carlito", "Caladea"] as const;
// Narrow cuts and fonts of signs are widths of their own.
const same = (list: Map<string, string>, name: string) => shipped.find((family) => list.get(family) !== undefined && list.get(family) === list.get(name));

describe("the family that is shown for one that does not ship", () => {
  const list = aliases();
  const wanted = [...list.keys()].flatMap((name): [string, string][] => (same(list, name) && !isShipped(name) ? [[name, same(list, name) as string]] : []));

  it("is tried with what the published list names", () => {
    for (const name of ["Arial", "Helvetica", "Liberation Sans", "Nimbus Sans", "Times New Roman", "Liberation Serif", "Courier New", "Cambria", "Calibri"]) expect(wanted.map(([found]) => found)).toContain(name);
  });
  it.each(wanted)("is as wide for %s: %s", (name, family) => {
    expect(shownFamily(name)).toEqual({ family, fit: "metric" });
    expect(shownFamily(` ${name.toUpperCase()} `)).toEqual({ family, fit: "metric" });
  });
  it("is called as wide only where it is, by the published list", () => {
    for (const [name] of list) if (!isShipped(name) && shownFamily(name).fit === "metric") expect([name, shownFamily(name).family]).toEqual([name, same(list, name)]);
  });

  // Common practice, no source: what kind of letters a family has.
  it.each([
    ["Century Gothic", "Noto Sans"],
    ["Franklin Gothic Book", "Noto Sans"],
    ["News Gothic MT", "Noto Sans"],
    ["Source Sans Pro", "Noto Sans"],
    ["Segoe UI", "Noto Sans"],
    ["Open Sans", "Noto Sans"],
    ["Century Schoolbook", "Tinos"],
    ["Book Antiqua", "Tinos"],
    ["Georgia", "Tinos"],
    ["Palatino Linotype", "Tinos"],
    ["Source Serif Pro", "Tinos"],
    ["MS Sans Serif", "Noto Sans"],
    ["Consolas", "Cousine"],
    ["Source Code Pro", "Cousine"],
    ["DejaVu Sans Mono", "Cousine"],
    ["Verdana", "DejaVu Sans"],
    ["Tahoma", "DejaVu Sans"],
    ["Lucida Sans Unicode", "Noto Sans"],
    ["Arial Unicode MS", "Arimo"],
    ["Code New", "Cousine"],
    ["Candara", "Carlito"],
    ["A family nobody knows", "Noto Sans"],
  ])("is near in kind for %s: %s", (name, family) => {
    expect(shownFamily(name)).toEqual({ family, fit: "near" });
  });

  it("is itself for every family that ships, however it is written", () => {
    for (const { family } of FAMILIES) expect(shownFamily(family.toLowerCase())).toEqual({ family, fit: "same" });
  });
});
