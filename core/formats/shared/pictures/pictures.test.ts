import { strToU8 } from "fflate";
import { pictureInfo, stillPictures } from "./index";

const svg = (attributes: string, inside = "<path d='M0 0L9 9'/>", before = "") =>
  strToU8(`${before}<svg xmlns="http://www.w3.org/2000/svg" ${attributes}>${inside}</svg>`);

describe("the size of a drawing in SVG", () => {
  it.each([
    // CSS Values and Units 3, 5.2: 1in = 96px = 2.54cm = 72pt = 6pc, 1Q = 1/4 mm.
    ["pixels, said or not", 'width="40" height="30px"', 40, 30],
    ["inches", 'width="2in" height="1in"', 192, 96],
    ["centimetres and millimetres", 'width="2.54cm" height="50.8mm"', 96, 192],
    ["points and picas", 'width="72pt" height="12pc"', 96, 192],
    ["quarters of a millimetre", 'width="101.6Q" height="203.2q"', 96, 192],
    ["numbers with an exponent", 'width="1e2" height="+5E1"', 100, 50],
    // SVG 2, 7.7 and 7.12: without lengths the view box gives the size and the shape.
    ["the view box alone", 'viewBox="0 0 120 60"', 120, 60],
    ["a view box with commas", 'viewBox="-10,-10, 80,40"', 80, 40],
    ["a width and the shape of the view box", 'width="300" viewBox="0 0 120 60"', 300, 150],
    ["a height and the shape of the view box", 'height="30" viewBox="0 0 120 60"', 60, 30],
    ["shares of what it stands in", 'width="100%" height="100%" viewBox="0 0 120 60"', 120, 60],
    // CSS 2.2, 10.3.2: a replaced element without a size of its own.
    ["nothing", "", 300, 150],
    ["a width alone", 'width="600"', 600, 300],
    ["what is no size", 'width="-4" height="0"', 300, 150],
    ["more than can be drawn", 'width="163840" height="16384"', 16384, 1638],
    ["a hair", 'width="0.2" height="0.2"', 1, 1],
  ])("is read from %s", (_, attributes, width, height) => {
    expect(pictureInfo(svg(attributes))).toEqual({ mediaType: "image/svg+xml", width, height });
  });

  it("is read after what may stand before it: a mark of its encoding, a declaration, comments, a document type", () => {
    const wanted = { mediaType: "image/svg+xml", width: 40, height: 30 };
    const size = 'width="40" height="30"';
    const declared = '<?xml version="1.0" encoding="UTF-8" standalone="no"?>\n<!-- Made up -->\n';
    expect(pictureInfo(svg(size, "", "\uFEFF"))).toEqual(wanted);
    expect(pictureInfo(svg(size, "", declared))).toEqual(wanted);
    expect(
      pictureInfo(
        svg(
          size,
          "",
          `${declared}<!DOCTYPE svg PUBLIC "-//W3C//DTD SVG 1.1//EN" "http://www.w3.org/Graphics/SVG/1.1/DTD/svg11.dtd">\n`,
        ),
      ),
    ).toEqual(wanted);
    expect(pictureInfo(strToU8('<s:svg xmlns:s="http://www.w3.org/2000/svg" width="40" height="30"/>'))).toEqual(
      wanted,
    );
    const wide = new Uint8Array([
      0xff,
      0xfe,
      ...Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" ${size}/>`, "utf16le"),
    ]);
    expect(pictureInfo(wide)).toEqual(wanted);
  });

  it.each([
    ["another root", strToU8("<html><svg/></html>")],
    ["a tag that is not closed", svg("", "<g>")],
    ["a tag cut short", strToU8("<svg width=")],
    ["entities of its own", svg("", "&dune;", '<!DOCTYPE svg [<!ENTITY dune "dune">]>')],
    ["nothing after its beginning", strToU8("  <")],
    ["text", strToU8("not a drawing < at all")],
  ])("is of none where there is %s", (_, bytes) => {
    expect(pictureInfo(bytes)).toBeUndefined();
  });
});

describe("the size of pictures of dots", () => {
  // GIF89a, 17 to 27, block by block.
  const header = (version: string, colours: number[]) => [
    ...Buffer.from(`GIF${version}`),
    0x2c,
    0x01,
    0xc8,
    0x00,
    ...colours,
  ];
  const [screen, palette] = [
    [0, 0, 0],
    [0x80, 0, 0, 0, 0, 0, 255, 255, 255],
  ];
  const control = [0x21, 0xf9, 4, 1, 0, 0, 0, 0];
  const comment = [0x21, 0xfe, 3, 0x2c, 0x3b, 0x00, 2, 1, 1, 0];
  const image = [0x2c, 0, 0, 0, 0, 1, 0, 1, 0, 0, 2, 2, 0x44, 0x01, 0];
  const coloured = [0x2c, 0, 0, 0, 0, 1, 0, 1, 0, 0x80, 0, 0, 0, 9, 9, 9, 2, 2, 0x44, 0x01, 0];
  const wanted = { mediaType: "image/gif", width: 300, height: 200 };
  it.each([
    ["an image and an end", [...header("89a", palette), ...image, 0x3b], wanted],
    ["of 1987", [...header("87a", palette), ...image, 0x3b], wanted],
    ["a comment and a control before it", [...header("89a", palette), ...comment, ...control, ...image, 0x3b], wanted],
    ["an image with colours of its own", [...header("89a", screen), ...coloured, 0x3b], wanted],
    ["no end", [...header("89a", palette), ...image], wanted],
    ["other bytes after its end", [...header("89a", palette), ...image, 0x3b, 10, 10], wanted],
    ["other bytes instead of its end", [...header("87a", palette), ...image, 0x36, 0x30, 10], wanted],
    [
      "an image that is whole before one that is cut off",
      [...header("89a", palette), ...image, ...image.slice(0, 8)],
      wanted,
    ],
    ["an image that is cut off", [...header("89a", palette), ...image.slice(0, -2)], undefined],
    ["only its colours", header("89a", palette), undefined],
    ["no image before its end", [...header("89a", palette), ...comment, 0x3b], undefined],
    ["no size", [...Buffer.from("GIF89a"), 0, 0, 0, 0, ...screen, ...coloured, 0x3b], undefined],
  ])("of a GIF with %s", (_, bytes, found) => {
    expect(pictureInfo(Uint8Array.from(bytes))).toEqual(found);
  });
});

describe("pictures for formats of still dots", () => {
  const lines = svg('width="40" height="30"');
  const moving = strToU8("GIF");
  const photo = strToU8("PNG");
  const assets = {
    "a.svg": { sha256: "lines", mediaType: "image/svg+xml" as const, width: 40, height: 30 },
    "b.gif": { sha256: "moving", mediaType: "image/gif" as const, width: 320, height: 200 },
    "c.png": { sha256: "photo", mediaType: "image/png" as const, width: 40, height: 30 },
  };
  const blobs: Record<string, Uint8Array> = { lines, moving, photo };

  it("are drawn once, large enough for a page, and the others are as they are", () => {
    const asked: [string, number][] = [];
    const picture = stillPictures(
      assets,
      (sum) => blobs[sum],
      (drawing, width) => {
        asked.push([drawing, width]);
        return strToU8(`dots ${width}`);
      },
    );
    expect(picture("photo")).toBe(photo);
    expect(picture("gone")).toBeUndefined();
    for (let nth = 0; nth < 3; nth++) expect(picture("lines")).toEqual(strToU8("dots 1200"));
    expect(picture("moving")).toEqual(strToU8("dots 320"));
    expect(asked.map(([, width]) => width)).toEqual([1200, 320]);
  });

  it("stand in a drawing as pictures, in which nothing is run or fetched (SVG Integration, 3)", () => {
    const evil = svg('width="40" height="30"', '<script>alert(1)</script><image href="http://example.org/a.png"/>');
    let drawn = "";
    stillPictures(
      { "e.svg": { ...assets["a.svg"], sha256: "evil" } },
      () => evil,
      (drawing) => {
        drawn = drawing;
        return photo;
      },
    )("evil");
    expect(drawn).not.toMatch(/script|example\.org/);
    expect(drawn).toMatch(/<image width="40" height="30" href="data:image\/svg\+xml;base64,[\w+/=]+"\/>/);
  });

  it("are given as they are where nothing can draw", () => {
    expect(stillPictures(assets, (sum) => blobs[sum], undefined)("lines")).toBe(lines);
  });
});
