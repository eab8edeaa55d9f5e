import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { gzipSync } from "node:zlib";
import { must } from "@unitext/core/model";
import type { Row } from "../core";
import { atMost } from "./page";

const ASSETS = join(process.cwd(), "dist/web/assets");
const IMPORT = /(?:from|import)\s*"\.\/([\w.-]+\.js)"/g;

/**
 * Packed kilobytes of the initial script, of what all places of a deck share, and of what each place loads beside both
 * when it is opened.
 */
export async function scripts(): Promise<Row[]> {
  const files = new Map(
    readdirSync(ASSETS)
      .filter((name) => name.endsWith(".js"))
      .map((name) => {
        const text = readFileSync(join(ASSETS, name), "utf8");
        const imports = [...text.matchAll(IMPORT)].map(([, imported]) => must(imported));
        return [name, { size: gzipSync(text).length / 1000, imports }];
      }),
  );
  const reach = (name: string, seen = new Set<string>()): Set<string> => {
    if (seen.has(name) || !files.has(name)) return seen;
    seen.add(name);
    for (const next of must(files.get(name)).imports) reach(next, seen);
    return seen;
  };
  const sizeOf = (names: Iterable<string>) => [...names].reduce((sum, name) => sum + must(files.get(name)).size, 0);
  const page = readFileSync(join(ASSETS, "../index.html"), "utf8");
  const initial = reach(must(/src="\/assets\/([\w.-]+\.js)"/.exec(page)?.[1]));
  const named = (place: string) => must([...files.keys()].find((name) => name.startsWith(`${place}-`)));
  const shared = reach(named("DeckContext"), reach(named("DeckFrame")));
  const own = (place: string) =>
    sizeOf([...reach(named(place))].filter((name) => !initial.has(name) && !shared.has(name)));
  return [
    atMost("the initial script, packed", sizeOf(initial), 250, "kB"),
    atMost(
      "the deck and the frame of its places, packed",
      sizeOf([...shared].filter((name) => !initial.has(name))),
      300,
      "kB",
    ),
    ...["Desk", "Write", "Arrange", "Refine", "Data", "Translate", "Speak", "Deliver"].map((place) =>
      atMost(`the script of ${place}, packed`, own(place), 200, "kB"),
    ),
  ];
}
