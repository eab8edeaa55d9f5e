import { createHash } from "node:crypto";
import { type Deck, emptyDeck, newSlide, plainText, must } from "@unitext/core/model";
import { layoutSlide } from "@unitext/core/layout";

import { everything, FILES, idSource, unresolved } from "@unitext/core/testing";
import { shippedFonts } from "@unitext/core/testing/fonts";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { PNG } from "pngjs";
import { readDeck, WRITERS } from "./index";

const fonts = shippedFonts();
const sha256 = (bytes: Uint8Array) => createHash("sha256").update(bytes).digest("hex");
const photo = new Uint8Array(PNG.sync.write(new PNG({ width: 40, height: 30 })));
const blobs = new Map([[sha256(photo), photo]]);
const context = { fonts, at: new Date(0), picture: (sum: string) => blobs.get(sum) };
const assets = { [FILES.photo]: { sha256: sha256(photo), mediaType: "image/png" as const, width: 40, height: 30 } };
const reading = () => ({ newId: idSource("r"), sha256 });
const SLIDES = everything(assets).slides.length;
/** A file as another program would have it: nothing of what Unitext keeps. */
function foreign(format: "pptx" | "odp"): Record<string, Uint8Array> {
  const parts = unzipSync(WRITERS[format].write(everything(assets), context) as Uint8Array);
  return Object.fromEntries(
    Object.entries(parts).map(([path, part]) => [
      path,
      /tags\/|^meta\.xml$/.test(path)
        ? strToU8(
            strFromU8(part)
              .replace(/UNITEXT_/g, "OTHER_")
              .replace(/unitext:/g, "other:"),
          )
        : part,
    ]),
  );
}
const pptx = foreign("pptx");
const odp = foreign("odp");
const read = (parts: Record<string, Uint8Array>, name = "x.pptx") => readDeck(zipSync(parts), name, reading());
const edited = (parts: Record<string, Uint8Array>, path: string, change: (text: string) => string) => ({
  ...parts,
  [path]: strToU8(change(strFromU8(must(parts[path])))),
});
/** Every slide can be drawn and the deck written again. */
function sound({ deck, blobs: found }: { deck: Deck; blobs: Map<string, Uint8Array> }): void {
  for (const [nth, slide] of deck.slides.entries()) layoutSlide(slide, { metadata: deck, number: nth + 1, fonts });
  for (const format of ["pptx", "odp"] as const)
    expect(
      (WRITERS[format].write(deck, { ...context, picture: (sum) => found.get(sum) }) as Uint8Array).length,
    ).toBeGreaterThan(0);
}
const without = (parts: Record<string, Uint8Array>, test: RegExp) =>
  Object.fromEntries(Object.entries(parts).filter(([path]) => !test.test(path)));
const shapesSlide = must(
  Object.keys(pptx).find(
    (path) => /slides\/slide\d+\.xml$/.test(path) && strFromU8(must(pptx[path])).includes("star5"),
  ),
);
const chartSlide = must(
  Object.keys(pptx).find(
    (path) => /slides\/slide\d+\.xml$/.test(path) && strFromU8(must(pptx[path])).includes("<a:tbl>"),
  ),
);

describe("damaged and odd presentations are taken with what is in them", () => {
  it.each<[string, () => Record<string, Uint8Array>, string]>([
    ["a layout that is missing", () => without(pptx, /slideLayouts\//), "x.pptx"],
    ["masters that are missing", () => without(pptx, /slideMasters\//), "x.pptx"],
    ["a theme that is missing", () => without(pptx, /theme\//), "x.pptx"],
    [
      "relationships of a slide that are missing",
      () => without(pptx, new RegExp(`${shapesSlide.split("/").at(-1)}\\.rels$`)),
      "x.pptx",
    ],
    ["charts without their workbooks", () => without(pptx, /embeddings\//), "x.pptx"],
    ["charts that are missing", () => without(pptx, /charts\//), "x.pptx"],
    [
      "pictures that are broken",
      () =>
        Object.fromEntries(
          Object.entries(pptx).map(([path, part]) => [path, /media\//.test(path) ? new Uint8Array([1, 2, 3]) : part]),
        ),
      "x.pptx",
    ],
    [
      "elements of namespaces that nobody knows",
      () =>
        edited(pptx, shapesSlide, (text) =>
          text.replace("</p:spTree>", '<x:odd xmlns:x="urn:odd"><x:inner/></x:odd></p:spTree>'),
        ),
      "x.pptx",
    ],
    [
      "content that is offered in two ways",
      () =>
        edited(pptx, shapesSlide, (text) =>
          text.replace(
            "</p:spTree>",
            '<mc:AlternateContent xmlns:mc="http://schemas.openxmlformats.org/markup-compatibility/2006"><mc:Choice Requires="odd"><p:odd/></mc:Choice><mc:Fallback><p:sp><p:nvSpPr><p:cNvPr id="999" name="Other"/><p:cNvSpPr/><p:nvPr/></p:nvSpPr><p:spPr><a:xfrm><a:off x="0" y="0"/><a:ext cx="1270000" cy="1270000"/></a:xfrm><a:prstGeom prst="rect"><a:avLst/></a:prstGeom></p:spPr><p:txBody><a:bodyPr/><a:p><a:r><a:t>the other way</a:t></a:r></a:p></p:txBody></p:sp></mc:Fallback></mc:AlternateContent></p:spTree>',
          ),
        ),
      "x.pptx",
    ],
    [
      "sizes of nothing, and below",
      () =>
        edited(pptx, shapesSlide, (text) => text.replace(/<a:ext cx="\d+" cy="\d+"\/>/g, '<a:ext cx="0" cy="-5"/>')),
      "x.pptx",
    ],
    [
      "places far outside",
      () =>
        edited(pptx, shapesSlide, (text) =>
          text.replace(/<a:off x="\d+" y="\d+"\/>/g, '<a:off x="99999999999" y="-99999999999"/>'),
        ),
      "x.pptx",
    ],
    [
      "a table without cells",
      () => edited(pptx, chartSlide, (text) => text.replace(/<a:tr [\s\S]*<\/a:tr>/, "")),
      "x.pptx",
    ],
    ["styles of an .odp that are missing", () => without(odp, /^styles\.xml$/), "x.odp"],
    ["charts of an .odp that are missing", () => without(odp, /^Object /), "x.odp"],
    ["pictures of an .odp that are missing", () => without(odp, /^Pictures\//), "x.odp"],
    ["an .odp without its list of parts", () => without(odp, /manifest/), "x.odp"],
    [
      "shapes of an .odp of no size",
      () => edited(odp, "content.xml", (text) => text.replace(/svg:(width|height)="[^"]*"/g, 'svg:$1="0pt"')),
      "x.odp",
    ],
    [
      "lengths of an .odp that are none",
      () => edited(odp, "content.xml", (text) => text.replace(/svg:(x|y)="[^"]*"/g, 'svg:$1="wide"')),
      "x.odp",
    ],
    [
      "formulas of an .odp that go round",
      () =>
        edited(odp, "content.xml", (text) =>
          text.replace(
            /(<draw:enhanced-geometry [^>]*)draw:enhanced-path="[^"]*"\/>/g,
            '$1draw:enhanced-path="M ?a ?b L 10 10 N"><draw:equation draw:name="a" draw:formula="?b +1"/><draw:equation draw:name="b" draw:formula="?a *2"/></draw:enhanced-geometry>',
          ),
        ),
      "x.odp",
    ],
  ])("%s", (_, make, name) => {
    const found = read(make(), name);
    expect(found.deck.slides).toHaveLength(SLIDES);
    sound(found);
  });

  it("says what could not be taken", () => {
    const broken = read(
      Object.fromEntries(
        Object.entries(pptx).map(([path, part]) => [path, /media\//.test(path) ? new Uint8Array([1, 2, 3]) : part]),
      ),
    );
    expect([...broken.left, ...broken.adapted].some(({ what }) => /picture/i.test(what))).toBe(true);
    const twice = read(edited(pptx, "ppt/presentation.xml", (text) => text.replace(/(<p:sldId [^>]*\/>)/, "$1$1")));
    expect(twice.deck.slides).toHaveLength(SLIDES);
    expect(twice.left.map(({ what }) => what)).toEqual(
      expect.arrayContaining([expect.stringContaining("second entry")]),
    );
  });

  it("keeps pages within what can be drawn", () => {
    // 56 inches are the most that the standard allows (ECMA-376-1, 19.2.1.39: 51,206,400 EMU).
    const sized = (cx: number, cy: number) =>
      read(
        edited(pptx, "ppt/presentation.xml", (text) =>
          text.replace(/<p:sldSz [^>]*\/>/, `<p:sldSz cx="${cx}" cy="${cy}"/>`),
        ),
      ).deck.page;
    expect(sized(51206400, 51206400)).toEqual({ width: 4032, height: 4032 });
    for (const page of [sized(0, 0), sized(-1, 5), sized(1, 1)])
      expect([page.width > 0, page.height > 0]).toEqual([true, true]);
  });

  it("takes five thousand shapes on a slide", () => {
    const shape = (id: number) =>
      `<p:sp><p:nvSpPr><p:cNvPr id="${id + 2000}" name="s${id}"/><p:cNvSpPr/><p:nvPr/></p:nvSpPr><p:spPr><a:xfrm><a:off x="${(id % 100) * 120000}" y="${Math.floor(id / 100) * 130000}"/><a:ext cx="100000" cy="100000"/></a:xfrm><a:prstGeom prst="ellipse"><a:avLst/></a:prstGeom><a:solidFill><a:srgbClr val="336699"/></a:solidFill></p:spPr></p:sp>`;
    const found = read(
      edited(pptx, shapesSlide, (text) =>
        text.replace("</p:spTree>", `${Array.from({ length: 5000 }, (_, id) => shape(id)).join("")}</p:spTree>`),
      ),
    );
    expect(Math.max(...found.deck.slides.map(({ elements }) => elements.length))).toBeGreaterThanOrEqual(5000);
    sound(found);
  });

  it("never fetches what lies outside, and says so", () => {
    const rels = shapesSlide.replace("slides/", "slides/_rels/").concat(".rels");
    const found = read(
      edited(pptx, rels, (text) =>
        text.replace(
          /(<Relationship [^>]*Type="[^"]*\/image" Target=)"[^"]*"/,
          '$1"https://example.org/track.png" TargetMode="External"',
        ),
      ),
    );
    expect(JSON.stringify(Object.keys(found.deck.assets))).not.toContain("example.org");
    sound(found);
  });
});

describe("what cannot be opened is refused with a sentence that says why", () => {
  it("a file behind a password", () => {
    // MS-CFB, 2.2: the signature of a compound file, in which encrypted documents are wrapped.
    const wrapped = new Uint8Array(2048);
    wrapped.set([0xd0, 0xcf, 0x11, 0xe0, 0xa1, 0xb1, 0x1a, 0xe1]);
    expect(() => readDeck(wrapped, "x.pptx", reading())).toThrow(/protected by a password, or of an older kind/);
  });

  it("a deck that nobody could write is written all the same", () => {
    const odd: Deck = {
      ...emptyDeck("d", "Odd"),
      slides: [
        {
          ...newSlide("s", "points"),
          master: "gone",
          theme: "gone too",
          elements: [
            { kind: "text", id: "t", slot: "no such place", text: plainText("x"), style: "gone" },
            { kind: "picture", id: "p", slot: null, source: "gone.png", alt: "" },
          ],
        },
      ],
    };
    for (const format of ["pptx", "odp"] as const)
      expect(
        readDeck(WRITERS[format].write(odd, context) as Uint8Array, `x.${format}`, reading()).deck.slides,
      ).toHaveLength(1);
  });
});

describe("files of the same standards under other names", () => {
  const deck: Deck = {
    ...emptyDeck("d", "D"),
    slides: [
      { ...newSlide("a", "title"), elements: [{ kind: "text", id: "t", slot: "title", text: plainText("Tides") }] },
      newSlide("b", "blank"),
    ],
  };
  it.each(["ppsx", "potx", "pptm", "ppsm", "potm"])(
    "a .%s is read as a presentation, and written as a plain one",
    (extension) => {
      const parts = unzipSync(WRITERS.pptx.write(deck, context) as Uint8Array);
      for (const name of Object.keys(parts)) if (name.includes("/tags/")) delete parts[name];
      const types = strFromU8(must(parts["[Content_Types].xml"]));
      const [, main = ""] = /PartName="\/ppt\/presentation\.xml" ContentType="([^"]*)"/.exec(types) ?? [];
      const macros = extension.endsWith("m");
      parts["[Content_Types].xml"] = strToU8(
        types
          .replace(
            main,
            main.replace(
              "presentation.main",
              macros ? "macroEnabled.main" : extension === "ppsx" ? "slideshow.main" : "template.main",
            ),
          )
          .replace(
            "</Types>",
            macros
              ? '<Override PartName="/ppt/vbaProject.bin" ContentType="application/octet-stream"/></Types>'
              : "</Types>",
          ),
      );
      if (macros) {
        parts["ppt/vbaProject.bin"] = strToU8("a program");
        const rels = strFromU8(must(parts["ppt/_rels/presentation.xml.rels"]));
        parts["ppt/_rels/presentation.xml.rels"] = strToU8(
          rels.replace(
            "</Relationships>",
            '<Relationship Id="rIdM" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/vbaProject" Target="vbaProject.bin"/></Relationships>',
          ),
        );
      }
      const found = readDeck(zipSync(parts), `other.${extension}`, reading());
      expect(found.deck.slides).toHaveLength(deck.slides.length);
      expect(found.left.map(({ what }) => what)).toEqual(macros ? ["its macros"] : []);
      const again = unzipSync(
        WRITERS.pptx.write(found.deck, { ...context, picture: (sum: string) => found.blobs.get(sum) }) as Uint8Array,
      );
      expect(Object.keys(again).filter((path) => /vba/i.test(path))).toEqual([]);
      expect(strFromU8(must(again["ppt/_rels/presentation.xml.rels"]))).not.toContain("vbaProject");
      expect(strFromU8(must(again["[Content_Types].xml"]))).toContain(
        `PartName="/ppt/presentation.xml" ContentType="${main}"`,
      );
    },
  );

  it("a template of OpenDocument with macros is written as a presentation without them", () => {
    const parts = unzipSync(WRITERS.odp.write(deck, context) as Uint8Array);
    const text = (path: string) => strFromU8(must(parts[path]));
    const given = {
      ...parts,
      mimetype: strToU8("application/vnd.oasis.opendocument.presentation-template"),
      "meta.xml": strToU8(text("meta.xml").replace(/<meta:user-defined[\s\S]*<\/meta:user-defined>/, "")),
      "content.xml": strToU8(
        text("content.xml").replace(
          /(<office:document-content[^>]*>)/,
          '$1<office:scripts><office:script script:language="basic"/></office:scripts>',
        ),
      ),
      "META-INF/manifest.xml": strToU8(
        text("META-INF/manifest.xml")
          .replaceAll('opendocument.presentation"', 'opendocument.presentation-template"')
          .replace(
            "</manifest:manifest>",
            '<manifest:file-entry manifest:full-path="Basic/Standard/script-lb.xml" manifest:media-type="text/xml"/></manifest:manifest>',
          ),
      ),
      "Basic/Standard/script-lb.xml": strToU8("<a/>"),
    };
    const found = readDeck(zipSync(given), "other.otp", reading());
    expect(found.left.map(({ what }) => what)).toEqual(["its macros"]);
    const again = unzipSync(
      WRITERS.odp.write(found.deck, { ...context, picture: (sum: string) => found.blobs.get(sum) }) as Uint8Array,
    );
    expect(strFromU8(must(again.mimetype))).toBe("application/vnd.oasis.opendocument.presentation");
    expect(Object.keys(again).filter((path) => path.startsWith("Basic"))).toEqual([]);
    expect(strFromU8(must(again["content.xml"]))).not.toContain("office:script");
    expect(unresolved(again)).toEqual([]);
  });
});
