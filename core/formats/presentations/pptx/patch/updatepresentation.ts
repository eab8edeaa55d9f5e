import { type Deck, must } from "@unitext/core/model";
import { strToU8 } from "fflate";
import { readXml } from "../../../shared/xml";
import type { CommentWriter } from "../write/comments";
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
  comments: CommentWriter;
  /** The part with the deck's tags. */
  tags: string;
}

/** The presentation part of a source package as text, with the prefixes of its namespaces. */
interface PresentationText {
  text: string;
  /** The prefix of its elements with a colon, and that of relationship ids. */
  p: string;
  r: string;
}

function presentationText(text: string): PresentationText {
  const root = /<((?:\w+:)?)presentation\b[^>]*>/.exec(text);
  const relationships =
    /xmlns:(\w+)="http:\/\/(?:schemas\.openxmlformats\.org\/officeDocument\/2006|purl\.oclc\.org\/ooxml\/officeDocument)\/relationships"/;
  return { text, p: root?.[1] ?? "p:", r: relationships.exec(root?.[0] ?? "")?.[1] ?? "r" };
}

/** An entry of the list of slides. */
interface SlideEntry {
  id: string;
  relation: string;
}

/** Returns the entries of the file's list of slides. */
function listedSlides({ text, p, r }: PresentationText): { list: string | undefined; entries: SlideEntry[] } {
  const list = new RegExp(`<${p}sldIdLst\\b[^>]*?(?:/>|>[\\s\\S]*?</${p}sldIdLst>)`).exec(text)?.[0];
  const entries = [...(list ?? "").matchAll(new RegExp(`<${p}sldId\\b([^>]*?)/?>`, "g"))].map(
    ([, attributes = ""]) => ({
      relation: new RegExp(`${r}:id="([^"]*)"`).exec(attributes)?.[1] ?? "",
      id: /\sid="(\d+)"/.exec(attributes)?.[1] ?? "",
    }),
  );
  return { list, entries: [...new Map(entries.map((entry) => [entry.relation, entry])).values()] };
}

/** Returns the entries of the deck's slides: those of the file keep theirs, others get ids after them. */
function slideEntries(
  { deck, main, sources, paths }: PresentationUpdate,
  kept: SourceParts,
  listed: readonly SlideEntry[],
  relationships: Relationships,
): SlideEntry[] {
  const byRelation = new Map(listed.map((entry) => [entry.relation, entry]));
  const byTarget = new Map(
    kept.relationships(main).flatMap(({ id, target }) => {
      const entry = byRelation.get(id);
      return entry ? [[target, entry] as const] : [];
    }),
  );
  let next = Math.max(255, ...listed.map(({ id }) => Number(id))) + 1;
  const used = new Set<string>();
  return deck.slides.map((slide) => {
    const source = sources.get(slide.id);
    const own = source?.kept === kept ? byTarget.get(source.part) : undefined;
    const path = must(paths.get(slide.id));
    if (own && !used.has(own.id) && kept.instead.get(source?.part ?? "") === path) {
      used.add(own.id);
      return own;
    }
    return { id: String(next++), relation: relationships.add(REL.slide, relativeTo(main, path)) };
  });
}

function withSlides(presentation: PresentationText, list: string | undefined, entries: readonly SlideEntry[]): string {
  const { text, p, r } = presentation;
  const rows = entries.map(({ id, relation }) => `<${p}sldId id="${id}" ${r}:id="${relation}"/>`);
  const written = `<${p}sldIdLst>${rows.join("")}</${p}sldIdLst>`;
  return list
    ? text.replace(list, () => written)
    : text.replace(new RegExp(`<${p}sldSz\\b`), () => `${written}<${p}sldSz`);
}

function withPageSize(text: string, p: string, { width, height }: Deck["page"]): string {
  const size = new RegExp(`<${p}sldSz\\b[^>]*?/?>`).exec(text)?.[0];
  const differs = (name: string, points: number) =>
    Math.abs(Number(new RegExp(`${name}="(\\d+)"`).exec(size ?? "")?.[1]) - points * EMU) > 1;
  return size && (differs("cx", width) || differs("cy", height))
    ? text.replace(size, () => `<${p}sldSz cx="${emu(width)}" cy="${emu(height)}"/>`)
    : text;
}

/** Updates the presentation part of a source package to the present slides and masters. */
export function updatePresentation(given: PresentationUpdate, kept: SourceParts): void {
  const { pack, deck, main, notesMaster } = given;
  const presentation = presentationText(must(kept.text(main)));
  const { text, p, r } = presentation;
  const rows = kept.relationships(main).flatMap((row) => {
    if (row.external) return [row];
    // The list of authors is written again where comments were added.
    if (transitional(row.type) === REL.commentAuthors && given.comments.hasWritten) return [];
    if (transitional(row.type) === REL.tags && kept.text(row.target)?.includes("UNITEXT_")) return [];
    const target = kept.take(row.target);
    return target === undefined ? [] : [{ ...row, target: relativeTo(main, target) }];
  });
  const relationships = new Relationships(rows);
  const tagPath = pack.free("ppt/tags/tag1.xml");
  pack.add(tagPath, TYPE.tags, given.tags);
  relationships.add(REL.tags, relativeTo(main, tagPath));
  given.comments.writeAuthors(relationships, main);
  const { list, entries: listed } = listedSlides(presentation);
  const entries = slideEntries(given, kept, listed, relationships);
  const isSame =
    entries.length === listed.length && entries.every(({ relation }, nth) => listed[nth]?.relation === relation);
  const ids = entries.map(({ id }) => id);
  let out = isSame ? text : withSlides(presentation, list, entries);
  out = sectioned(out, readXml(text, main), deck, ids);
  out = withMasters(given, out, kept, p, r, relationships);
  if (notesMaster !== undefined && !out.includes(`<${p}notesMasterIdLst`)) {
    const relation = relationships.add(REL.notesMaster, relativeTo(main, notesMaster));
    const masters = `<${p}notesMasterIdLst><${p}notesMasterId ${r}:id="${relation}"/></${p}notesMasterIdLst>`;
    out = out.replace(new RegExp(`</${p}sldMasterIdLst>`), (end) => end + masters);
  }
  out = withPageSize(out, p, deck.page);
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
