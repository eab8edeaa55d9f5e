import { readSource } from "@unitext/core/formats";
import { textOf } from "@unitext/core/model";
import type { Block } from "@unitext/core/text";
import { strToU8, zipSync } from "fflate";
import { PNG } from "pngjs";
import { emptyDocument } from "../shared/document/document";
import { withTitlePage } from "./titlepage";

const text = (words: string, align?: "centre"): Block => ({
  kind: "text",
  text: [{ kind: "plain", level: 0, ...(align ? { align } : {}), runs: [{ text: words }] }],
  from: 1,
  to: 1,
});
const heading = (words: string, depth = 1): Block => ({
  kind: "heading",
  depth,
  text: [{ kind: "plain", level: 0, runs: [{ text: words }] }],
  from: 1,
  to: 1,
});
const picture = (source: string): Block => ({
  kind: "picture",
  picture: { kind: "picture", source, alt: "" },
  from: 1,
  to: 1,
});
const wordsOf = (block: Block) => ("text" in block ? textOf(block.text) : block.kind);
const page = (...blocks: Block[]) => {
  const { front, blocks: left, problems } = withTitlePage({ ...emptyDocument(), blocks });
  return { front, left: left.map(wordsOf), problems: problems.map(({ message }) => message) };
};

describe("the title page of a document", () => {
  it("is its short lines before the first heading", () => {
    const lines = [
      text("Dunes of the bay", "centre"),
      text("A field guide"),
      text("By Head of Station"),
      picture("a.png"),
    ];
    expect(page(...lines, heading("Sand"), text("It moves."))).toEqual({
      front: { title: "Dunes of the bay", subtitle: "A field guide", author: "Head of Station" },
      left: ["picture", "Sand", "It moves."],
      problems: [],
    });
  });

  it("is its first headings, when no text is between them", () => {
    const guide = [heading("Dunes of the bay"), heading("A field guide"), heading("Version 2.1"), text("Sand moves.")];
    expect(page(...guide)).toMatchObject({
      front: { title: "Dunes of the bay", subtitle: "A field guide · Version 2.1" },
      left: ["Dunes of the bay", "Sand moves."],
    });
  });

  it("is not the first chapter, a paragraph, or an outline", () => {
    const chapters = [heading("Dunes"), heading("Sand"), text("It moves.")];
    expect(page(...chapters)).toMatchObject({ front: {}, left: ["Dunes", "Sand", "It moves."] });
    expect(page(text("Sand moves with the wind."), heading("Sand")).front).toEqual({});
    const outline = Array.from({ length: 42 }, (_, nth) => heading(`Topic ${nth + 1}`));
    expect(page(...outline).left).toHaveLength(42);
  });

  it("ends where the text begins, which stands below its title", () => {
    const guide = [
      text("Dunes of the bay", "centre"),
      text("Field guide, version 2"),
      text("Sand moves. Grass holds it."),
    ];
    expect(page(...guide, heading("Sand"))).toMatchObject({
      front: { title: "Dunes of the bay", subtitle: "Field guide, version 2" },
      left: ["Dunes of the bay", "Sand moves. Grass holds it.", "Sand"],
    });
  });

  it("loses no line, link or footnote", () => {
    const short = [text("Dunes of the bay", "centre"), text("v2"), text("for")];
    expect(page(...short, heading("Sand")).front.subtitle).toBe("v2 · for");
    const linked = text("The station");
    if (linked.kind === "text")
      linked.text[0]?.runs.splice(0, 1, { text: "The station", link: "https://example.org/" });
    expect(page(text("Dunes", "centre"), text("A guide"), linked, heading("Sand")).left).toContain("The station");
  });

  it("keeps text that follows a typed table of contents", () => {
    const contents = [heading("Contents"), text("Sand 3"), text("Wind 5"), text("Grass 7"), text("Water 12")];
    expect(page(heading("Dunes"), text("On sand."), ...contents, text("Read it twice.")).left).toEqual([
      "Dunes",
      "On sand.",
      "Read it twice.",
    ]);
  });

  it("leaves out a table of contents that was typed, and says so", () => {
    const contents = [heading("Contents"), text("Sand 3"), text("Wind ... 7"), text("Water 12")];
    expect(page(heading("Dunes"), text("On sand."), ...contents, heading("Sand"), text("It moves."))).toEqual({
      front: {},
      left: ["Dunes", "On sand.", "Sand", "It moves."],
      problems: [expect.stringContaining("table of contents")],
    });
  });
});

const NAMES =
  'xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0" xmlns:draw="urn:oasis:names:tc:opendocument:xmlns:drawing:1.0" xmlns:style="urn:oasis:names:tc:opendocument:xmlns:style:1.0" xmlns:fo="urn:oasis:names:tc:opendocument:xmlns:xsl-fo-compatible:1.0" xmlns:xlink="http://www.w3.org/1999/xlink"';
const png = (size: number) => new Uint8Array(PNG.sync.write(new PNG({ width: size, height: size })));

/** Returns a document in OpenDocument 1.3 with this text. */
const odt = (body: string, styles = "") =>
  zipSync({
    mimetype: strToU8("application/vnd.oasis.opendocument.text"),
    "content.xml": strToU8(
      `<office:document-content ${NAMES}><office:automatic-styles><style:style style:name="Break" style:family="paragraph"><style:paragraph-properties fo:break-before="page"/></style:style><style:style style:name="Bold" style:family="text"><style:text-properties fo:font-weight="bold"/></style:style></office:automatic-styles><office:body><office:text>${body}</office:text></office:body></office:document-content>`,
    ),
    "styles.xml": strToU8(
      `<office:document-styles ${NAMES}><office:styles>${styles}</office:styles></office:document-styles>`,
    ),
    "Pictures/a.png": png(200),
    "Pictures/b.png": png(200),
    "Pictures/icon.png": png(32),
  });
const frame = (name: string, of: string) =>
  `<draw:frame ${of}><draw:image xlink:href="Pictures/${name}.png"/></draw:frame>`;
const onPage = (number: number) => `text:anchor-type="page" text:anchor-page-number="${number}"`;
const p = (words: string, style = "") => `<text:p${style ? ` text:style-name="${style}"` : ""}>${words}</text:p>`;

function read(body: string, styles?: string) {
  const source = readSource(odt(body, styles), "guide.odt", "odt");
  const blocks = [...source.manuscript.blocks];
  return {
    language: source.manuscript.front.language,
    problems: source.manuscript.problems.map(({ message }) => message),
    shown: blocks.map((block) => (block.kind === "picture" ? block.picture.source : wordsOf(block))),
    kinds: blocks.map(({ kind }) => kind),
  };
}

describe("a web page", () => {
  const front = (title: string) => {
    const html = `<html><head><title>${title}</title></head><body><h1>Files</h1><p>They are kept.</p></body></html>`;
    return readSource(strToU8(html), "a.html", "html").manuscript.front.title;
  };

  it("has the title of its first heading, without the name of its site", () => {
    expect(front("Files &#8212; Field guide")).toBe("Files");
    expect(front("Field guide &#8212; Marram &amp; Bay")).toBe("Field guide — Marram & Bay");
  });
});

describe("an .odt of another program", () => {
  it("has pictures on pages at the end of their page (OpenDocument 1.3, text:anchor-page-number)", () => {
    const body = [
      frame("b", onPage(2)),
      frame("a", onPage(1)),
      p("Sand moves.<text:soft-page-break/>"),
      p("Wind drives it."),
      p("Water stops it.", "Break"),
    ].join("");
    expect(read(body).shown).toEqual([
      "Sand moves.",
      "Pictures/a.png",
      "Wind drives it.",
      "Pictures/b.png",
      "Water stops it.",
    ]);
  });

  it("has pictures of an unknown page after the text, unless the text shows them", () => {
    const body = [frame("a", onPage(0)), frame("b", onPage(0)), p("Sand moves."), p(frame("a", "")), p("Wind.")].join(
      "",
    );
    const { shown, problems } = read(body);
    expect(shown).toEqual(["Sand moves.", "Pictures/a.png", "Wind.", "Pictures/b.png"]);
    expect(problems).toEqual([expect.stringContaining("follow the text")]);
  });

  it("loses the icons of its notes, and says so", () => {
    const note = p(frame("icon", "")) + p("Mind the tide.");
    const { shown, problems } = read(note.repeat(3));
    expect(shown).toEqual(["Mind the tide.", "Mind the tide.", "Mind the tide."]);
    expect(problems).toEqual([expect.stringContaining("icons")]);
  });

  it("has long paragraphs that are styled as headings as text below their bold words", () => {
    const long = "The sand of the upper beach is dry for most of the day and the wind takes it to the dunes. ".repeat(
      3,
    );
    const { kinds, shown } = read(
      `<text:h text:outline-level="2"><text:span text:style-name="Bold">Sand moves.</text:span> ${long}</text:h>`,
    );
    expect(kinds).toEqual(["heading", "text"]);
    expect(shown[0]).toBe("Sand moves.");
  });

  it("is in the language of its words, where its template is in another one", () => {
    const french =
      '<style:default-style style:family="paragraph"><style:text-properties fo:language="fr" fo:country="FR"/></style:default-style>';
    const english = "The wind takes the dry sand of the upper beach to the dunes, where the grass holds it. ";
    expect(read(p(english.repeat(25)), french).language).toBe("en");
    expect(read(p("Sand"), french).language).toBe("fr-FR");
  });
});
