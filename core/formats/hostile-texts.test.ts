import { createHash } from "node:crypto";
import { type Asset, Deck, metadataOf } from "@unitext/core/model";
import { sceneSvg } from "@unitext/core/draw";
import { loadFormulas } from "@unitext/core/figures";
import { layoutSlide } from "@unitext/core/layout";
import { everything, FILES } from "@unitext/core/testing";
import { shippedFonts } from "@unitext/core/testing/fonts";
import { strFromU8, strToU8, unzipSync } from "fflate";
import type { Nodes } from "hast";
import { fromHtml } from "hast-util-from-html";
import { PNG } from "pngjs";
import { SaxesParser } from "saxes";
import { isSafeTarget, safePart } from "./shared/sourcepackage";
import { type WritableFormat, WRITERS } from "./index";

const fonts = shippedFonts();
const bytesOf = new Map<string, Uint8Array>();
const asset = (bytes: Uint8Array, mediaType: Asset["mediaType"]): Asset => {
  const sha256 = createHash("sha256").update(bytes).digest("hex");
  bytesOf.set(sha256, bytes);
  return { sha256, mediaType, width: 40, height: 30 };
};
const photo = new Uint8Array(PNG.sync.write(new PNG({ width: 40, height: 30 })));
const lines = strToU8('<svg xmlns="http://www.w3.org/2000/svg" width="40" height="30"/>');
const ASSETS = {
  [FILES.photo]: asset(photo, "image/png"),
  [FILES.moving]: asset(strToU8("GIF89a"), "image/gif"),
  [FILES.lines]: asset(lines, "image/svg+xml"),
  [FILES.film]: asset(strToU8("film"), "video/mp4"),
};
const picture = (sha256: string) => bytesOf.get(sha256);
const HOSTILE = [
  '"><script>alert(1)</script><x y="',
  "]]><script>alert(1)</script>",
  "</style></title></textarea><img src=x onerror=alert(1)>",
  "' onload='alert(1)",
  "\u0000\u0001\ud800\udfff x",
  "\u202e\u2066 right to left",
  "javascript:alert(1)",
  "{{x}} <%= z %> &lt;b&gt; &#0;",
];

/** Every place in a value that holds a string, as a path. */
function places(value: unknown, path: (string | number)[] = []): (string | number)[][] {
  if (typeof value === "string") return [path];
  if (Array.isArray(value)) return value.flatMap((one, at) => places(one, [...path, at]));
  return typeof value === "object" && value !== null
    ? Object.entries(value).flatMap(([key, one]) => places(one, [...path, key]))
    : [];
}

function withAt(value: unknown, [first, ...rest]: readonly (string | number)[], text: string): unknown {
  if (first === undefined) return text;
  if (Array.isArray(value)) return value.map((one, at) => (at === first ? withAt(one, rest, text) : one));
  return { ...(value as object), [first]: withAt((value as Record<string, unknown>)[first], rest, text) };
}

/** A deck that has every feature, with a hostile text in every string that its schema lets have it. */
function poisoned(hostile: string): { deck: Deck; places: number } {
  let deck: unknown = everything(ASSETS);
  let count = 0;
  for (const path of places(deck)) {
    const next = withAt(deck, path, hostile);
    if (!Deck.safeParse(next).success) continue;
    deck = next;
    count += 1;
  }
  return { deck: deck as Deck, places: count };
}

type Seen = Set<string>;
function elementsOfXml(text: string, seen: Seen): void {
  const parser = new SaxesParser({ xmlns: false });
  parser.on("error", (error) => {
    throw error;
  });
  parser.on("opentag", ({ name, attributes }) => {
    seen.add(name);
    for (const key of Object.keys(attributes)) seen.add(`${name} ${key}`);
  });
  parser.write(text).close();
}
function elementsOfHtml(text: string, seen: Seen): void {
  const walk = (node: Nodes) => {
    if (node.type === "element") {
      seen.add(node.tagName);
      for (const key of Object.keys(node.properties)) seen.add(`${node.tagName} ${key}`);
      if (node.tagName === "template" && "content" in node && node.content) walk(node.content);
    }
    if ("children" in node) for (const child of node.children) walk(child as Nodes);
  };
  walk(fromHtml(text) as Nodes);
}

/** The names of all elements and attributes in all that is written of a deck. */
async function written(deck: Deck): Promise<Record<string, Seen>> {
  const context = { fonts, picture, at: new Date(0), png: () => photo };
  const seen: Record<string, Seen> = {};
  for (const format of ["pptx", "odp", "docx", "html"] satisfies WritableFormat[]) {
    const names: Seen = new Set();
    const bytes = await WRITERS[format].write(deck, context);
    if (format === "html") elementsOfHtml(strFromU8(bytes), names);
    else
      for (const [path, part] of Object.entries(unzipSync(bytes)))
        if (/\.(xml|rels|vml)$/.test(path)) elementsOfXml(strFromU8(part), names);
    seen[format] = names;
  }
  const drawn: Seen = new Set();
  for (const [nth, slide] of deck.slides.entries()) {
    const scene = layoutSlide(slide, { metadata: metadataOf(deck), number: nth + 1, fonts });
    for (const svg of [
      sceneSvg(scene, { picture: () => undefined, title: "x" }),
      sceneSvg(scene, { picture: () => undefined, outlines: fonts }),
    ])
      elementsOfXml(svg, drawn);
  }
  seen.svg = drawn;
  return seen;
}

describe("hostile texts in every string of a deck", () => {
  let plain: Record<string, Seen>;
  beforeAll(async () => {
    await loadFormulas();
    plain = await written(everything(ASSETS));
  });

  it.each(HOSTILE)(
    "%j: makes no element and no attribute that was not meant, in any drawing or format",
    async (hostile) => {
      const { deck, places: count } = poisoned(hostile);
      expect(count).toBeGreaterThan(30);
      for (const [format, names] of Object.entries(await written(deck))) {
        const added = [...names].filter((name) => !plain[format]?.has(name));
        // A text may be set in other faces, wrap otherwise, or stand where none stood; elements of those kinds are meant.
        expect([format, added.filter((name) => /script|onerror|onload|^x\b|\bx$|\by$|textarea/i.test(name))]).toEqual([
          format,
          [],
        ]);
        expect([format, added.filter((name) => / on[a-z]+$/i.test(name))]).toEqual([format, []]);
      }
    },
  );

  it("the web page runs its own script alone, by its policy", async () => {
    const page = strFromU8(await WRITERS.html.write(everything(ASSETS), { fonts, picture, at: new Date(0) }));
    expect(page).toMatch(
      /<meta http-equiv="content-security-policy" content="default-src 'none'; script-src 'sha256-[A-Za-z0-9+/=]{44}'; style-src-elem 'sha256-[A-Za-z0-9+/=]{44}';/,
    );
    expect(page.match(/<script/g)).toHaveLength(1);
  });
});

describe("where links of files lead", () => {
  it.each([
    ["https://example.org", true],
    ["mailto:a@example.org", true],
    ["slide2.xml", true],
    ["#page2", true],
    ["javascript:alert(1)", false],
    ["java\nscript:alert(1)", false],
    [" vbscript:x", false],
    ["file:///etc/passwd", false],
    ["\\\\server\\share", false],
    ["//server/share", false],
    ["vnd.sun.star.script:x", false],
    ["ms-word:ofe|u|https://example.org", false],
  ])("%j: %s", (target, safe) => expect(isSafeTarget(target)).toBe(safe));

  it("is nowhere, in what is written again, where it is a program or a file of the machine", () => {
    const text = (path: string, inside: string) => strFromU8(safePart(path, new TextEncoder().encode(inside)));
    expect(
      text(
        "ppt/slides/_rels/slide1.xml.rels",
        '<Relationship Id="a" Target="java&#x9;script:alert(1)" TargetMode="External"/><Relationship Id="b" Target="../media/a.png"/>',
      ),
    ).toBe(
      '<Relationship Id="a" Target="https://left-out.invalid/" TargetMode="External"/><Relationship Id="b" Target="../media/a.png"/>',
    );
    expect(text("content.xml", `<text:a xlink:href='file:///etc/passwd'>x</text:a>`)).toContain("left-out.invalid");
    expect(safePart("ppt/activeX/activeX1.bin", new Uint8Array([1, 2])).length).toBe(0);
    expect(
      safePart("ppt/embeddings/oleObject1.bin", new TextEncoder().encode(`${[..."Ole10Native"].join("\0")}\0`)).length,
    ).toBe(0);
    expect(safePart("ppt/embeddings/oleObject2.bin", new Uint8Array([1, 2])).length).toBe(2);
  });
});
