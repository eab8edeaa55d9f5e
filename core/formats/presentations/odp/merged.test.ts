import { type MergeSource, mergeParts, merge } from "@unitext/core/divide";
import { apply, duplicate } from "@unitext/core/edit";
import { type Deck, type Element, mapElementLinks, plainText, type Slide, must } from "@unitext/core/model";
import { tally } from "@unitext/core/tally";
import { everything, FILES, idSource, unresolved } from "@unitext/core/testing";
import { filesBench, sha256 } from "@unitext/core/testing/files";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { PNG } from "pngjs";
import { WRITERS, writeReport } from "../../index";

const photo = new Uint8Array(PNG.sync.write(new PNG({ width: 400, height: 300 })));
const film = strToU8("\0\0\0\x18ftypmp42 made up");
const whole = everything({
  [FILES.photo]: { sha256: sha256(photo), mediaType: "image/png", width: 400, height: 300 },
  [FILES.film]: { sha256: sha256(film), mediaType: "video/mp4", width: 1, height: 1 },
});
const bench = filesBench(photo, film);
const { context } = bench;
const write = (deck: Deck) => WRITERS.odp.write(deck, context) as Uint8Array;
function read(bytes: Uint8Array, name: string, prefix: string) {
  const found = bench.read(bytes, name, prefix);
  return found.deck;
}
const text = (parts: Record<string, Uint8Array>, path: string) => strFromU8(must(parts[path]));
const pagesOf = (bytes: Uint8Array) =>
  text(unzipSync(bytes), "content.xml").match(/<draw:page [\s\S]*?<\/draw:page>/g) as string[];

/** A presentation of another program: nothing in it says anything of Unitext. */
function foreign(
  change: (part: string, path: string) => string = (part) => part,
  extra: Record<string, Uint8Array> = {},
): Uint8Array {
  const parts = unzipSync(write(whole));
  const bare: Record<string, Uint8Array> = {
    ...parts,
    "meta.xml": strToU8(text(parts, "meta.xml").replace(/<meta:user-defined[\s\S]*<\/meta:user-defined>/, "")),
  };
  for (const path of ["content.xml", "styles.xml", "META-INF/manifest.xml"])
    bare[path] = strToU8(change(text(bare, path), path));
  return zipSync({ ...bare, ...extra });
}
/** Another, whose styles have the same names and other looks, with things that Unitext does not model and a namespace of its own. */
const CONTROL =
  '<draw:control draw:control="field1" other:mode="quiet" svg:x="40pt" svg:y="300pt" svg:width="90pt" svg:height="24pt" draw:layer="layout"/>';
const OBJECT =
  '<draw:frame draw:name="Board" draw:layer="layout" svg:x="500pt" svg:y="300pt" svg:width="200pt" svg:height="120pt"><draw:object xlink:href="./Object 1" xlink:type="simple"/></draw:frame>';
const other = foreign(
  (part, path) =>
    path === "META-INF/manifest.xml"
      ? part.replace(
          "</manifest:manifest>",
          '<manifest:file-entry manifest:full-path="Object 1/other.bin" manifest:media-type="application/octet-stream"/></manifest:manifest>',
        )
      : part
          .replaceAll("#0f5c63", "#7a2e57")
          .replaceAll("#fdf6e3", "#dfe9d8")
          .replace(/<office:document-content /, '<office:document-content xmlns:other="urn:example:other" ')
          .replace(
            /(<draw:page draw:name="[^"]*"[^>]*>)/,
            `$1<office:forms><form:form xmlns:form="urn:oasis:names:tc:opendocument:xmlns:form:1.0"><form:text form:id="field1" xml:id="field1"/></form:form></office:forms>${CONTROL}`,
          )
          .replace(/<presentation:notes>/, `${OBJECT}<presentation:notes>`)
          .replace(
            'style:family="graphic"><style:text-properties',
            'style:family="graphic"><style:graphic-properties draw:opacity="90%"/><style:text-properties',
          ),
  { "Object 1/other.bin": strToU8("not of ours") },
);
const [first, second] = [read(foreign(), "first.odp", "a"), read(other, "second.odp", "b")];
const gathered = (...decks: Deck[]): MergeSource[] => decks.map((deck) => ({ deck, version: 1 }));
const joined = merge(
  gathered({ ...first, id: "one" }, { ...second, id: "two" }),
  { appearance: "keep" },
  { newId: idSource("j"), deckId: () => "joined" },
).deck;
const written = write(joined);

/** An element without its ids and those of slides, which are others in every file. */
const shown = (given: Element) => {
  const {
    id: _,
    sourceShape: __,
    slot: ___,
    groups,
    ...element
  } = mapElementLinks(given, (to) => (to.startsWith("slide:") ? "slide:there" : to));
  return { ...element, groups: groups?.length ?? 0 };
};
const looks = (slides: readonly Slide[], { masters, styles }: Deck) =>
  slides.map(({ elements, background, transition, delay, hidden, regions, master }) => ({
    background,
    transition,
    delay,
    hidden,
    behind: { ...(masters?.[master ?? ""] ?? { name: "", elements: [] }) },
    regions: regions?.map(({ style, ...region }) => ({ ...region, style: styles?.[style ?? ""] })),
    elements: elements.map((element) => ({ ...shown(element), style: element.style && styles?.[element.style] })),
  }));

describe("several .odp files in one deck", () => {
  it("are one file in which every name leads somewhere and no id stands twice", () => {
    expect(unresolved(unzipSync(foreign()))).toEqual([]);
    expect(unresolved(unzipSync(other))).toEqual([]);
    expect(unresolved(unzipSync(written))).toEqual([]);
  });

  it("each keep their looks, although their styles have the same names", () => {
    const again = read(written, "joined.odp", "c");
    expect(looks(again.slides, again)).toEqual([...looks(first.slides, first), ...looks(second.slides, second)]);
    expect(JSON.stringify(first.masters)).not.toEqual(JSON.stringify(second.masters));
    expect(tally(again)).toEqual(tally(joined));
    expect(tally(joined)).toEqual(writeReport(joined, "odp").to);
  });

  it("keep what is not modelled, with the parts that it needs", () => {
    const parts = unzipSync(written);
    const page = must(pagesOf(written)[first.slides.length]);
    const id = must(/draw:control="([^"]*)"/.exec(page)?.[1]);
    expect(page).toContain(`form:id="${id}"`);
    expect(page).toContain('other:mode="quiet"');
    expect(text(parts, "content.xml")).toContain('xmlns:other="urn:example:other"');
    const board = must(/draw:name="Board"[\s\S]*?xlink:href="\.\/([^"]*)"/.exec(page)?.[1]);
    // Both files have an “Object 1”.
    expect(strFromU8(must(parts[`${board}/other.bin`]))).toBe("not of ours");
    expect(parts["Object 1/other.bin"]).toBeUndefined();
    expect(text(parts, `${board}/content.xml`)).toBe(text(unzipSync(other), "Object 1/content.xml"));
  });

  it("write the pages of the file that is continued as they stand, and those of the others but for their names", () => {
    expect(pagesOf(written).slice(0, first.slides.length)).toEqual(pagesOf(foreign()));
    const plain = (page: string) =>
      page
        .replace(/<draw:page [^>]*>/, "")
        .replace(/(\s(?:[\w-]+:)?(?:[\w-]*style-name|master-page-name|id|targetElement|control|href)=)"[^"]*"/g, "$1");
    expect(pagesOf(written).slice(first.slides.length).map(plain)).toEqual(pagesOf(other).map(plain));
  });

  it("can be changed on a page of either, and only there", () => {
    const at =
      first.slides.length +
      second.slides.findIndex(({ elements }) => elements.some(({ kind, name }) => kind === "text" && name === "Box"));
    const slides = joined.slides.map((slide, nth) =>
      nth === at
        ? {
            ...slide,
            elements: slide.elements.map((element) =>
              element.kind === "text" && element.name === "Box"
                ? { ...element, text: plainText("Another word") }
                : element,
            ),
          }
        : slide,
    );
    const changed = write({ ...joined, slides });
    expect(unresolved(unzipSync(changed))).toEqual([]);
    const [before, after] = [pagesOf(written), pagesOf(changed)];
    expect(after.map((page, nth) => page === before[nth])).toEqual(after.map((_, nth) => nth !== at));
    expect(
      read(changed, "changed.odp", "d")
        .slides[at]?.elements.filter(({ kind }) => kind === "shape")
        .map(shown),
    ).toEqual(second.slides[at - first.slides.length]?.elements.filter(({ kind }) => kind === "shape").map(shown));
  });

  it("follow links from one to the other", () => {
    const target = must(joined.slides[0]?.id);
    const from = must(joined.slides.at(-1));
    const linked: Deck = {
      ...joined,
      slides: joined.slides.map((slide) =>
        slide === from
          ? {
              ...slide,
              elements: [
                {
                  kind: "text",
                  id: "way",
                  slot: null,
                  frame: { x: 10, y: 10, width: 200, height: 40 },
                  text: [
                    { kind: "plain", level: 0, runs: [{ text: "to the first", marks: [], link: `slide:${target}` }] },
                  ],
                },
                ...slide.elements,
              ],
            }
          : slide,
      ),
    };
    const again = read(write(linked), "linked.odp", "e");
    const way = again.slides
      .at(-1)
      ?.elements.find((element) => element.kind === "text" && element.text[0]?.runs[0]?.text === "to the first");
    expect(way?.kind === "text" && way.text[0]?.runs[0]?.link).toBe(`slide:${again.slides[0]?.id}`);
  });
});

describe("a slide of an .odp that stands twice", () => {
  it("keeps what is not modelled in both, under names and ids of their own", () => {
    const made = duplicate(second, [must(second.slides[0]?.id)], idSource("k"), 1);
    const { deck } = apply(second, made);
    const bytes = write(deck);
    expect(unresolved(unzipSync(bytes))).toEqual([]);
    const pages = pagesOf(bytes);
    expect(pages).toHaveLength(second.slides.length + 1);
    expect(pages.filter((page) => page.includes('other:mode="quiet"'))).toHaveLength(2);
    const again = read(bytes, "twice.odp", "f");
    expect(looks([must(again.slides[1])], again)).toEqual(looks([must(again.slides[0])], again));
    expect(tally(again)).toEqual(tally(deck));
  });

  it("comes a second time when its file is brought in again", () => {
    const more = mergeParts(second, gathered({ ...second, id: "again" }), { appearance: "keep" }, idSource("g"));
    const deck = { ...second, slides: [...second.slides, ...more.slides] };
    const bytes = write(deck);
    expect(unresolved(unzipSync(bytes))).toEqual([]);
    expect(tally(read(bytes, "both.odp", "h"))).toEqual(tally(deck));
    expect(pagesOf(bytes).slice(0, second.slides.length)).toEqual(pagesOf(other));
  });
});
