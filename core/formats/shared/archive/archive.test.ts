import { must } from "@unitext/core/model";
import { strToU8 } from "fflate";
import fc from "fast-check";
import { toBase64 } from "./base64";
import { pictureInfo } from "../pictures";
import { at, childrenOf, localName, readXml, xml } from "../xml";
import { crc32, partText, unzip, zip } from ".";

describe("zip", () => {
  it("packs and unpacks any parts, the same bytes each time", () => {
    fc.assert(
      fc.property(
        fc.dictionary(fc.stringMatching(/^[a-z]{1,8}(\/[a-z]{1,8})?\.(xml|png)$/), fc.uint8Array({ maxLength: 200 }), {
          minKeys: 1,
          maxKeys: 6,
        }),
        (parts) => {
          const packed = zip(new Map(Object.entries(parts)));
          expect(zip(new Map(Object.entries(parts)))).toEqual(packed);
          const opened = unzip(packed, "a.zip");
          expect(Object.fromEntries([...opened.keys()].map((name) => [name, [...must(opened.get(name))]]))).toEqual(
            Object.fromEntries(Object.entries(parts).map(([name, bytes]) => [name, [...bytes]])),
          );
        },
      ),
      { numRuns: 50 },
    );
  });

  // ISO/IEC 3309 and RFC 1952, 8: the remainder by the polynomial, bit by bit; 0xcbf43926 for the digits 1 to 9 is the check value in the catalogues of such sums.
  it("sums parts as the standard says, whatever their length", () => {
    const plain = (bytes: Uint8Array) => {
      let crc = 0xffffffff;
      for (const byte of bytes) {
        crc ^= byte;
        for (let bit = 0; bit < 8; bit++) crc = crc & 1 ? (crc >>> 1) ^ 0xedb88320 : crc >>> 1;
      }
      return (crc ^ 0xffffffff) >>> 0;
    };
    expect(crc32(strToU8("123456789"))).toBe(0xcbf43926);
    expect(crc32(new Uint8Array())).toBe(0);
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 40 }), (bytes) => void expect(crc32(bytes)).toBe(plain(bytes))),
      { numRuns: 200 },
    );
  });

  it("never lets anything but a Failure out, whatever the bytes", () => {
    const good = zip(new Map([["[Content_Types].xml", strToU8("<Types/>")]]));
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.nat(good.length - 1), fc.nat(255)), { minLength: 1, maxLength: 12 }),
        (edits) => {
          const broken = good.slice();
          for (const [place, value] of edits) broken[place] = value;
          try {
            const parts = unzip(broken, "a.zip");
            for (const path of parts.keys()) parts.get(path);
          } catch (error) {
            expect((error as Error).name).toBe("Failure");
          }
        },
      ),
    );
  });

  it("reads parts in UTF-8 and UTF-16, with or without a mark", () => {
    expect(partText(new Uint8Array([0xef, 0xbb, 0xbf, 0x61]))).toBe("a");
    expect(partText(new Uint8Array([0xff, 0xfe, 0x61, 0x00]))).toBe("a");
    expect(partText(new Uint8Array([0xfe, 0xff, 0x00, 0x61]))).toBe("a");
  });
});

describe("XML", () => {
  it("writes what it reads: attributes and text of any characters that XML allows", () => {
    fc.assert(
      fc.property(fc.string({ unit: "grapheme", maxLength: 20 }), (text) => {
        const clean = text.replace(/[\u0000-\u0008\u000B\u000C\u000E-\u001F\uFFFE\uFFFF]/g, "");
        const tree = readXml(
          xml(
            "a",
            { b: clean.replace(/[\t\n\r]/g, " ") },
            xml("c", {}, clean.replace(/[&<>]/g, "").replace(/\r/g, "")),
          ),
          "part",
        );
        expect(tree.attributes.b).toBe(clean.replace(/[\t\n\r]/g, " "));
        expect(tree.children[0]?.text ?? "").toBe(clean.replace(/[&<>]/g, "").replace(/\r/g, ""));
      }),
    );
  });

  it("finds elements by their names without prefixes", () => {
    const tree = readXml('<p:a xmlns:p="x"><p:b><q:c xmlns:q="y" n="1"/><q:c xmlns:q="y" n="2"/></p:b></p:a>', "part");
    expect(localName(tree)).toBe("a");
    expect(childrenOf(at(tree, "b"), "c").map(({ attributes }) => attributes.n)).toEqual(["1", "2"]);
    expect(at(tree, "z", "c")).toBeUndefined();
  });

  it("refuses entities, endless nesting and broken markup", () => {
    expect(() => readXml('<!DOCTYPE a [<!ENTITY x "y">]><a>&x;</a>', "part")).toThrow("document type");
    expect(() => readXml("<a>".repeat(400) + "</a>".repeat(400), "part")).toThrow("nests deeper");
    expect(() => readXml("<a><b></a>", "part")).toThrow("not well-formed");
  });
});

describe("pictures and base64", () => {
  it("reads the size of PNG and JPEG from their headers, and knows what is neither", () => {
    // PNG: ISO/IEC 15948, 11.2.2 (IHDR); JPEG: ISO/IEC 10918-1, B.2.2 (frame header): height before width.
    const png = new Uint8Array([
      0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 0, 0, 0, 13, 0x49, 0x48, 0x44, 0x52, 0, 0, 1, 0x40, 0, 0, 0, 0xf0,
      8, 6, 0, 0, 0,
    ]);
    const jpeg = new Uint8Array([
      0xff, 0xd8, 0xff, 0xe0, 0, 4, 0, 0, 0xff, 0xc0, 0, 17, 8, 0, 0xf0, 1, 0x40, 3, 1, 0x22, 0,
    ]);
    expect(pictureInfo(png)).toEqual({ mediaType: "image/png", width: 320, height: 240 });
    expect(pictureInfo(jpeg)).toEqual({ mediaType: "image/jpeg", width: 320, height: 240 });
    for (const other of [
      new Uint8Array(),
      strToU8("GIF89a, but not really a picture"),
      png.slice(0, 20),
      new Uint8Array([0xff, 0xd8, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0]),
    ])
      expect(pictureInfo(other)).toBeUndefined();
  });

  // RFC 4648, section 10, test vectors.
  it.each([
    ["", ""],
    ["f", "Zg=="],
    ["fo", "Zm8="],
    ["foo", "Zm9v"],
    ["foob", "Zm9vYg=="],
    ["fooba", "Zm9vYmE="],
    ["foobar", "Zm9vYmFy"],
  ])("writes %j as %j", (text, expected) => {
    expect(toBase64(strToU8(text))).toBe(expected);
  });
});

it("parts that lie unpacked are stretches of the archive, and one whose name is no UTF-8 is found all the same", () => {
  const picture = new Uint8Array(5000).map((_, at) => at % 251);
  const bytes = zip(
    new Map([
      ["a.png", picture],
      ["b.xml", strToU8("<b/>")],
    ]),
  );
  const parts = unzip(bytes, "a.zip");
  expect(parts.get("a.png")).toEqual(picture);
  expect(parts.get("a.png")?.buffer).toBe(bytes.buffer);
  expect(partText(must(parts.get("b.xml")))).toBe("<b/>");
  // Without the mark of UTF-8 (APPNOTE 6.3, 4.4.4, bit 11) names are read by another table.
  const other = zip(new Map([["ä.png", picture]]));
  const view = new DataView(other.buffer);
  for (let at = 0; at + 4 < other.length; at++) {
    const sign = view.getUint32(at, true);
    if (sign === 0x04034b50) view.setUint16(at + 6, 0, true);
    if (sign === 0x02014b50) view.setUint16(at + 8, 0, true);
  }
  const opened = unzip(other, "b.zip");
  expect([...opened.keys()].map((path) => opened.get(path))).toEqual([picture]);
});

it("parts are unpacked when they are asked for: one that is damaged harms only what needs it", () => {
  const words = strToU8("<a>".padEnd(4000, "word "));
  const bytes = zip(
    new Map([
      ["a.xml", words],
      ["b.xml", strToU8("<b/>")],
      ["c.xml", words],
    ]),
  );
  const view = new DataView(bytes.buffer);
  // The last part's data begin after its local header of 30 bytes and its name (APPNOTE 6.3, 4.3.7): a block of a type that there is not (RFC 1951, 3.2.3).
  let at = bytes.length - 1;
  while (view.getUint32(at - 3, true) !== 0x04034b50) at--;
  bytes[at - 3 + 30 + "c.xml".length] = 0xff;
  const parts = unzip(bytes, "a.zip");
  expect(partText(must(parts.get("a.xml")))).toBe(partText(words));
  expect(parts.damaged()).toEqual(["c.xml"]);
  expect(parts.has("c.xml")).toBe(true);
  expect(() => parts.get("c.xml")).toThrow("damaged or cut off");
});
