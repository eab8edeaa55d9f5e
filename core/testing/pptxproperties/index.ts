import { type Deck, type Slide, must } from "@unitext/core/model";
import { filesBench, sha256, deckWith } from "@unitext/core/testing/files";
import { propertiesOf } from "@unitext/core/testing/formatting";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { PNG } from "pngjs";
import { WRITERS } from "@unitext/core/formats";

export const photo = new Uint8Array(PNG.sync.write(new PNG({ width: 40, height: 30 })));
const bench = filesBench(photo);
export const { context } = bench;
export function read(bytes: Uint8Array): Deck {
  const found = bench.read(bytes, "other.pptx");
  return found.deck;
}
const bare = (parts: Record<string, Uint8Array>) => {
  for (const name of Object.keys(parts)) if (name.includes("/tags/")) delete parts[name];
  return parts;
};
export const base = bare(
  unzipSync(
    WRITERS.pptx.write(
      deckWith(
        {
          kind: "picture",
          id: "p",
          slot: null,
          source: "a.png",
          alt: "",
          frame: { x: 0, y: 0, width: 40, height: 30 },
        },
        { "a.png": { sha256: sha256(photo), mediaType: "image/png", width: 40, height: 30 } },
      ),
      context,
    ) as Uint8Array,
  ),
);
export const pictureId = must(/r:embed="([^"]*)"/.exec(strFromU8(must(base["ppt/slides/slide1.xml"])))?.[1]);
export const HEAD =
  '<p:sld xmlns:a="http://schemas.openxmlformats.org/drawingml/2006/main" xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships" xmlns:p="http://schemas.openxmlformats.org/presentationml/2006/main"><p:cSld><p:spTree><p:nvGrpSpPr><p:cNvPr id="1" name=""/><p:cNvGrpSpPr/><p:nvPr/></p:nvGrpSpPr><p:grpSpPr/>';
export const slideOf = (shape: string) =>
  read(zipSync({ ...base, "ppt/slides/slide1.xml": strToU8(`${HEAD}${shape}</p:spTree></p:cSld></p:sld>`) }));
/** Writes a deck without anything kept from its source file, and reads it again as a file of another program. */
export function rewritten(deck: Deck): Deck {
  const slides = deck.slides.map(({ sourcePart: _, ...slide }) => ({
    ...slide,
    elements: slide.elements.map(({ sourceShape: __, ...element }) => element),
  })) as Slide[];
  const assets = Object.fromEntries(Object.entries(deck.assets).filter(([name]) => !name.startsWith("kept/")));
  return read(zipSync(bare(unzipSync(WRITERS.pptx.write({ ...deck, assets, slides }, context) as Uint8Array))));
}
export const XFRM = '<a:xfrm><a:off x="914400" y="914400"/><a:ext cx="1828800" cy="914400"/></a:xfrm>';
export const sp = ({
  spPr = '<a:prstGeom prst="rect"><a:avLst/></a:prstGeom>',
  xfrm = XFRM,
  body = "<a:bodyPr/>",
  text = "<a:p><a:r><a:t>word</a:t></a:r></a:p>",
}: {
  spPr?: string;
  xfrm?: string;
  body?: string;
  text?: string;
}) =>
  `<p:sp><p:nvSpPr><p:cNvPr id="2" name="One"/><p:cNvSpPr/><p:nvPr/></p:nvSpPr><p:spPr>${xfrm}${spPr}</p:spPr><p:txBody>${body}${text}</p:txBody></p:sp>`;

export const first = (deck: Deck) =>
  propertiesOf(deck) as {
    text: {
      runs: { text: string; marks?: string[]; properties: object }[];
      properties: object;
      kind: string;
      level: number;
      align?: string;
      start?: number;
    }[];
    frame: object;
    [key: string]: unknown;
  };

/** A hand-written piece of DrawingML (ECMA-376-1, chapters 20 and 21), with what must be read from it. */
export type Row = [name: string, xml: string, wanted: object];
/** Returns what `part` finds in a deck with a shape: when it is first read, and again after Unitext has written it. */
export const readTwice = (shape: string, part: (deck: Deck) => unknown): unknown[] => {
  const deck = slideOf(shape);
  return [part(deck), part(rewritten(deck))];
};
