import { type Deck, must } from "@unitext/core/model";
import { filesBench, sha256, withoutTags, deckWith } from "@unitext/core/testing/files";
import { Resvg } from "@resvg/resvg-js";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { PNG } from "pngjs";
import { duotone } from "../../shared/pictures";
import { WRITERS } from "../../index";

/** A picture of one colour. */
function plain(...colour: number[]): Uint8Array {
  const picture = new PNG({ width: 4, height: 4 });
  for (let at = 0; at < picture.data.length; at += 4) picture.data.set([...colour, 255], at);
  return new Uint8Array(PNG.sync.write(picture));
}
const drawn = (svg: string) =>
  PNG.sync.read(Buffer.from(new Resvg(svg, { fitTo: { mode: "width", value: 960 } }).render().asPng()));
const asset = (bytes: Uint8Array) => ({ sha256: sha256(bytes), mediaType: "image/png" as const, width: 4, height: 4 });

describe("a picture in two colours", () => {
  // ECMA-376-1, 20.1.8.23: between the colours, linearly; lightness by ITU-R BT.709 (0.2126, 0.7152, 0.0722). Worked by hand.
  it.each([
    ["black is the first", [0, 0, 0], [16, 32, 48]],
    ["white is the second", [255, 255, 255], [240, 232, 216]],
    ["a grey lies between them", [128, 128, 128], [128, 132, 132]],
    ["green is light", [0, 255, 0], [176, 175, 168]],
    ["red is dark", [255, 0, 0], [64, 75, 84]],
    ["blue is nearly black", [0, 0, 255], [32, 46, 60]],
  ])("%s", (_, colour, wanted) => {
    const bytes = plain(...colour);
    const { data, width } = drawn(strFromU8(must(duotone(bytes, asset(bytes), ["#102030", "#f0e8d8"]))));
    const middle = (width / 2) * (width + 1) * 4;
    for (const [channel, value] of wanted.entries())
      expect(Math.abs(must(data[middle + channel]) - value)).toBeLessThanOrEqual(1);
  });

  it("is drawn of dots that are not too many alone", () => {
    const bytes = plain(0, 0, 0);
    expect(duotone(bytes, { ...asset(bytes), mediaType: "image/svg+xml" }, ["#000000", "#ffffff"])).toBeUndefined();
    expect(duotone(new Uint8Array(13_000_000), asset(bytes), ["#000000", "#ffffff"])).toBeUndefined();
  });
});

describe("a .pptx with a picture in two colours", () => {
  const [dark, other] = [plain(0, 0, 0), plain(255, 255, 255)];
  const bench = filesBench(dark, other);
  const shown: Deck = deckWith(
    {
      kind: "picture",
      id: "p",
      slot: null,
      source: "a.png",
      alt: "",
      frame: { x: 100, y: 60, width: 300, height: 100 },
    },
    { "a.png": asset(dark) },
  );
  const TWO = '<a:duotone><a:srgbClr val="0F5C63"/><a:schemeClr val="phClr"/></a:duotone>';
  const parts = unzipSync(withoutTags(WRITERS.pptx.write(shown, bench.context) as Uint8Array));
  const text = (path: string) => strFromU8(must(parts[path]));
  const read = (changed: Record<string, Uint8Array>) => bench.read(zipSync({ ...parts, ...changed }), "tides.pptx");
  /** The colour of a place on the page, as another program draws the slide's drawing. */
  const seen = ({ deck }: { deck: Deck }, x: number, y: number) => {
    const { data, width } = drawn(
      strFromU8(must(Object.values(unzipSync(WRITERS.svg.write(deck, bench.context) as Uint8Array))[0])),
    );
    return `#${Buffer.from(data.subarray((y * width + x) * 4, (y * width + x) * 4 + 3)).toString("hex")}`;
  };
  const withPicture = (inside: string) =>
    read({
      "ppt/slides/slide1.xml": strToU8(
        text("ppt/slides/slide1.xml").replace(/<a:blip ([^>]*)\/>/, `<a:blip $1>${inside}</a:blip>`),
      ),
    });
  const first = ({ deck }: { deck: Deck }) => must(deck.slides[0]).elements[0];

  it("has it so on the page, and writes it back as it was", () => {
    const found = withPicture('<a:duotone><a:srgbClr val="0F5C63"/><a:srgbClr val="FFFFFF"/></a:duotone>');
    expect(first(found)).toMatchObject({ kind: "picture", source: expect.stringMatching(/-0f5c63-ffffff\.svg$/) });
    expect(found.adapted).toEqual([]);
    // The deck's drawings embed the picture: what draws a picture in a picture is not asked here.
    const [name] = Object.keys(found.deck.assets).filter((one) => one.endsWith(".svg"));
    const svg = strFromU8(must(found.blobs.get(found.deck.assets[must(name)]?.sha256 ?? "")));
    const { data } = drawn(svg);
    expect([...data.subarray(0, 3)]).toEqual([15, 92, 99]);
    const again = unzipSync(WRITERS.pptx.write(found.deck, bench.context) as Uint8Array);
    expect(strFromU8(must(again["ppt/slides/slide1.xml"]))).toContain("<a:duotone>");
    expect(
      Object.keys(again)
        .filter((path) => path.startsWith("ppt/media/"))
        .sort(),
    ).toEqual(
      Object.keys(parts)
        .filter((path) => path.startsWith("ppt/media/"))
        .sort(),
    );
  });

  it.each([
    ["one colour", '<a:duotone><a:srgbClr val="0F5C63"/></a:duotone>'],
    ["colours that nobody knows", "<a:duotone><a:odd/><a:odd/></a:duotone>"],
  ])("that says %s shows it in its own, and says so", (_, inside) => {
    const found = withPicture(inside);
    expect(first(found)).toMatchObject({ source: expect.stringMatching(/\.png$/) });
    expect(found.adapted).toEqual([
      {
        slide: 1,
        what: expect.stringMatching(/^the two colours of the picture “/),
        how: expect.stringMatching(/^not drawn/),
      },
    ]);
  });

  it("takes the pictures of its theme from the theme's own part, in the colour that refers to them (20.1.4.1.7, 19.3.1.3; numbers from memory)", () => {
    const theme = must(Object.keys(parts).find((path) => /ppt\/theme\/theme1\.xml$/.test(path)));
    const master = "ppt/slideMasters/slideMaster1.xml";
    const rows = `<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="rId1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/image" Target="../media/paper.png"/></Relationships>`;
    const fills = `<a:bgFillStyleLst><a:solidFill><a:schemeClr val="phClr"/></a:solidFill><a:blipFill><a:blip xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships" r:embed="rId1">${TWO}</a:blip><a:stretch/></a:blipFill><a:blipFill><a:blip xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships" r:embed="rId1"/><a:stretch/></a:blipFill></a:bgFillStyleLst>`;
    const referring = (index: number) =>
      read({
        "[Content_Types].xml": strToU8(text("[Content_Types].xml")),
        [theme]: strToU8(text(theme).replace(/<a:bgFillStyleLst>[\s\S]*<\/a:bgFillStyleLst>/, fills)),
        "ppt/theme/_rels/theme1.xml.rels": strToU8(rows),
        "ppt/media/paper.png": other,
        [master]: strToU8(
          text(master).replace(
            /<p:bg>[\s\S]*?<\/p:bg>/,
            `<p:bg><p:bgRef idx="${index}"><a:srgbClr val="7A2E57"/></p:bgRef></p:bg>`,
          ),
        ),
        "ppt/slideLayouts/slideLayout1.xml": strToU8(
          text("ppt/slideLayouts/slideLayout1.xml").replace(/<p:bg>[\s\S]*?<\/p:bg>/, ""),
        ),
        "ppt/slides/slide1.xml": strToU8(text("ppt/slides/slide1.xml").replace(/<p:bg>[\s\S]*?<\/p:bg>/, "")),
      });
    // White paper: the second colour is the one that refers.
    const source = (found: { deck: Deck }) =>
      JSON.stringify([
        found.deck.slides[0]?.background,
        Object.values(found.deck.masters ?? {}).map(({ background }) => background),
      ]);
    expect(source(referring(1002))).toContain("paper.png-0f5c63-7a2e57.svg");
    const bare = referring(1003);
    expect(source(bare)).toContain('"paper.png"');
    expect(bare.deck.assets["paper.png"]?.sha256).toBe(sha256(other));
    expect(seen(bare, 900, 500)).toBe("#ffffff");
    expect(source(referring(1001))).toContain("#7a2e57");
  });
});
