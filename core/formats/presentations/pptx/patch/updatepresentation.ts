import { type Deck, must } from "@unitext/core/model";
import { strToU8 } from "fflate";
import { readXml } from "../../../shared/xml";
import type { SourceParts } from "./sourceparts";
import { EMU, emu, REL, TYPE } from "../package/names";
import { transitional } from "../package/package";
import { type Package, Relationships, relationshipsPath, relativeTo } from "../package/parts";
import { sectioned } from "../package/sections";

/** What updating a presentation part needs. */
export interface PresentationUpdate {
  pack: Package;
  deck: Deck;
  /** The path of the presentation part. */
  main: string;
  /** All source packages of slides. */
  files: readonly SourceParts[];
  /** The slides written from source packages, and where each slide's part is. */
  sources: ReadonlyMap<string, { kept: SourceParts; part: string }>;
  paths: ReadonlyMap<string, string>;
  notesMaster: string | undefined;
  /** The deck's own master with its id, where slides use it. */
  master: { path: string; id: number } | undefined;
  /** The part with the deck's tags. */
  tags: string;
}

/** Updates the presentation part of a source package to the present slides and masters. */
export function updatePresentation(given: PresentationUpdate, kept: SourceParts): void {
  const { pack, deck, main, notesMaster } = given;
  const text = must(kept.text(main));
  const root = /<((?:\w+:)?)presentation\b[^>]*>/.exec(text);
  const p = root?.[1] ?? "p:";
  const r =
    /xmlns:(\w+)="http:\/\/(?:schemas\.openxmlformats\.org\/officeDocument\/2006|purl\.oclc\.org\/ooxml\/officeDocument)\/relationships"/.exec(
      root?.[0] ?? "",
    )?.[1] ?? "r";
  const before = kept.relationships(main);
  const rows = before.flatMap((row) => {
    if (row.external) return [row];
    if (transitional(row.type) === REL.tags && kept.text(row.target)?.includes("UNITEXT_")) return [];
    const target = kept.take(row.target);
    return target === undefined ? [] : [{ ...row, target: relativeTo(main, target) }];
  });
  const relationships = new Relationships(rows);
  const tagPath = pack.free("ppt/tags/tag1.xml");
  pack.add(tagPath, TYPE.tags, given.tags);
  relationships.add(REL.tags, relativeTo(main, tagPath));
  // Slides keep their numbers of the file; others get numbers after them.
  const list = new RegExp(`<${p}sldIdLst\\b[^>]*?(?:/>|>[\\s\\S]*?</${p}sldIdLst>)`).exec(text);
  const ids = new Map(
    [...(list?.[0] ?? "").matchAll(new RegExp(`<${p}sldId\\b([^>]*?)/?>`, "g"))].map(([, attributes = ""]) => [
      new RegExp(`${r}:id="([^"]*)"`).exec(attributes)?.[1] ?? "",
      /\sid="(\d+)"/.exec(attributes)?.[1] ?? "",
    ]),
  );
  const numbers = new Map(
    before.flatMap(({ id, target }) =>
      ids.has(id) ? [[target, { id: must(ids.get(id)), relation: id }] as const] : [],
    ),
  );
  let next = Math.max(255, ...[...ids.values()].map(Number)) + 1;
  const used = new Set<string>();
  const entries = deck.slides.map((slide) => {
    const source = given.sources.get(slide.id);
    const own = source?.kept === kept ? numbers.get(source.part) : undefined;
    const path = must(given.paths.get(slide.id));
    const first = own !== undefined && !used.has(own.id) && kept.instead.get(source?.part ?? "") === path;
    if (first) used.add(own.id);
    return first
      ? { id: own.id, relation: own.relation }
      : { id: String(next++), relation: relationships.add(REL.slide, relativeTo(main, path)) };
  });
  const sameList =
    entries.length === ids.size && entries.every(({ relation }, nth) => [...ids.keys()][nth] === relation);
  let out = text;
  if (!sameList) {
    const written = `<${p}sldIdLst>${entries.map(({ id, relation }) => `<${p}sldId id="${id}" ${r}:id="${relation}"/>`).join("")}</${p}sldIdLst>`;
    out = list
      ? out.replace(list[0], () => written)
      : out.replace(new RegExp(`<${p}sldSz\\b`), () => `${written}<${p}sldSz`);
  }
  out = sectioned(
    out,
    readXml(text, main),
    deck,
    entries.map(({ id }) => id),
  );
  out = withMasters(given, out, kept, p, r, relationships);
  if (notesMaster !== undefined && !out.includes(`<${p}notesMasterIdLst`))
    out = out.replace(
      new RegExp(`</${p}sldMasterIdLst>`),
      (end) =>
        `${end}<${p}notesMasterIdLst><${p}notesMasterId ${r}:id="${relationships.add(REL.notesMaster, relativeTo(main, notesMaster))}"/></${p}notesMasterIdLst>`,
    );
  const { width, height } = deck.page;
  const size = new RegExp(`<${p}sldSz\\b[^>]*?/?>`).exec(out)?.[0];
  if (
    size &&
    (Math.abs(Number(/cx="(\d+)"/.exec(size)?.[1]) - width * EMU) > 1 ||
      Math.abs(Number(/cy="(\d+)"/.exec(size)?.[1]) - height * EMU) > 1)
  )
    out = out.replace(size, () => `<${p}sldSz cx="${emu(width)}" cy="${emu(height)}"/>`);
  pack.put(main, TYPE.presentation, out === text ? must(kept.file.part(main)) : strToU8(out));
  pack.parts.set(relationshipsPath(main), strToU8(relationships.part()));
}

/** Adds the masters of other files and the deck's own to a presentation part, with free ids. */
function withMasters(
  given: PresentationUpdate,
  text: string,
  base: SourceParts,
  p: string,
  r: string,
  relationships: Relationships,
): string {
  const { pack, main, master, files } = given;
  const added: { path: string; id: number }[] = master === undefined ? [] : [{ path: master.path, id: master.id }];
  let next = (master?.id ?? freeMasterId(files)) + 1000;
  const there = new Set(added.map(({ path }) => path));
  for (const kept of files) {
    if (kept === base) continue;
    for (const old of kept.file.paths.filter((path) => /slideMasters\/[^/]*\.xml$/.test(path))) {
      const path = kept.takenAt(old);
      if (path === undefined || there.has(path)) continue;
      there.add(path);
      const own = must(kept.text(old));
      const id = next++;
      pack.put(
        path,
        TYPE.master,
        strToU8(
          own.replace(
            /(<(?:\w+:)?sldLayoutId\b[^>]*?\sid=")(\d+)(")/g,
            (_, open: string, __: string, close: string) => `${open}${next++}${close}`,
          ),
        ),
      );
      added.push({ path, id });
    }
  }
  if (!added.length) return text;
  const rows = added
    .map(
      ({ path, id }) =>
        `<${p}sldMasterId id="${id}" ${r}:id="${relationships.add(REL.master, relativeTo(main, path))}"/>`,
    )
    .join("");
  return text.replace(`</${p}sldMasterIdLst>`, () => `${rows}</${p}sldMasterIdLst>`);
}

/** Returns an id after those of all masters and layouts (they share one space: ECMA-376-1, 19.2.1.34). */
export function freeMasterId(files: Iterable<SourceParts>): number {
  let most = 2147483648;
  for (const kept of files) {
    for (const path of kept.file.paths) {
      if (!/^ppt\/(presentation|slideMasters\/[^/]*)\.xml$/.test(path)) continue;
      for (const [, id] of (kept.text(path) ?? "").matchAll(/<(?:\w+:)?sld(?:Master|Layout)Id\b[^>]*?\sid="(\d+)"/g))
        most = Math.max(most, Number(id));
    }
  }
  return most + 1000;
}
