// Hostile files for every reader: each is small, and made to become large, deep or slow, or to be something else than
// it says.
import { deflateSync } from "node:zlib";
import { strToU8, zipSync } from "fflate";

const W = 'xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"';
const docx = (body) =>
  zipSync({
    "[Content_Types].xml": strToU8("<Types/>"),
    "word/document.xml": [strToU8(`<w:document ${W}><w:body>${body}</w:body></w:document>`), { level: 9 }],
  });
const OFFICE =
  'xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0" xmlns:table="urn:oasis:names:tc:opendocument:xmlns:table:1.0" xmlns:draw="urn:oasis:names:tc:opendocument:xmlns:drawing:1.0" xmlns:xlink="http://www.w3.org/1999/xlink"';
const odf = (type, inside) =>
  zipSync({
    mimetype: [strToU8(`application/vnd.oasis.opendocument.${type}`), { level: 0 }],
    "content.xml": [
      strToU8(
        `<office:document-content ${OFFICE} office:version="1.3"><office:body><office:${type}>${inside}</office:${type}></office:body></office:document-content>`,
      ),
      { level: 9 },
    ],
    "META-INF/manifest.xml": strToU8("<manifest/>"),
  });
const P =
  'xmlns:p="http://schemas.openxmlformats.org/presentationml/2006/main" xmlns:a="http://schemas.openxmlformats.org/drawingml/2006/main" xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships"';
const REL = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";
const rels = (rows) =>
  strToU8(
    `<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">${rows}</Relationships>`,
  );
function pptx(shapes, relationships = "", slides = 1) {
  const numbers = Array.from({ length: slides }, (_, nth) => nth + 1);
  return zipSync({
    "[Content_Types].xml": strToU8("<Types/>"),
    "_rels/.rels": rels(`<Relationship Id="r1" Type="${REL}/officeDocument" Target="ppt/presentation.xml"/>`),
    "ppt/presentation.xml": strToU8(
      `<p:presentation ${P}><p:sldIdLst>${numbers.map((n) => `<p:sldId id="${255 + n}" r:id="s${n}"/>`).join("")}</p:sldIdLst><p:sldSz cx="12192000" cy="6858000"/></p:presentation>`,
    ),
    "ppt/_rels/presentation.xml.rels": rels(
      numbers
        .map((n) => `<Relationship Id="s${n}" Type="${REL}/slide" Target="slides/slide${slides > 1 ? 1 : n}.xml"/>`)
        .join(""),
    ),
    "ppt/slides/slide1.xml": [
      strToU8(`<p:sld ${P}><p:cSld><p:spTree>${shapes}</p:spTree></p:cSld></p:sld>`),
      { level: 9 },
    ],
    "ppt/slides/_rels/slide1.xml.rels": rels(relationships),
  });
}
const shape = (inside) =>
  `<p:sp><p:nvSpPr><p:cNvPr id="2" name="x"/><p:nvPr/></p:nvSpPr><p:spPr/><p:txBody><a:bodyPr/>${inside}</p:txBody></p:sp>`;
const SVG = (inside, size = "100") =>
  strToU8(`<svg xmlns="http://www.w3.org/2000/svg" width="${size}" height="${size}">${inside}</svg>`);
const chunk = (type, data) => {
  const out = Buffer.alloc(12 + data.length);
  out.writeUInt32BE(data.length, 0);
  out.write(type, 4, "latin1");
  out.set(data, 8);
  return out;
};
/** A PNG that claims to be huge (ISO/IEC 15948, 11.2.2). */
const png = (width, height) => {
  const header = Buffer.alloc(13);
  header.writeUInt32BE(width, 0);
  header.writeUInt32BE(height, 4);
  header.set([8, 6, 0, 0, 0], 8);
  return Buffer.concat([
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
    chunk("IHDR", header),
    chunk("IDAT", deflateSync(Buffer.alloc(1000))),
    chunk("IEND", Buffer.alloc(0)),
  ]);
};

const TEXTS = {
  "items in items": `${"- ".repeat(12_000)}x`,
  "quotations in quotations": `${"> ".repeat(20_000)}x`,
  "numbers in numbers": `${"1. ".repeat(8_000)}x`,
  "quotations and items": `${"> - ".repeat(8_000)}x`,
  containers: ":::align{to=centre}\n".repeat(2_000),
  "a table of a thousand columns": `|${"a|".repeat(1000)}\n|${"-|".repeat(1000)}\n${"|\n".repeat(1000)}`,
  emphasis: "*a **b ".repeat(20_000),
  "emphasis in emphasis": `${"*a ".repeat(10_000)}x${" a*".repeat(10_000)}`,
  brackets: "[".repeat(60_000),
  links: "[a](".repeat(20_000),
  pictures: "![".repeat(30_000),
  spaces: `a${" ".repeat(300_000)}b *x*\nc`,
  "back quotes": "`a``b```c".repeat(10_000),
  footnotes: Array.from({ length: 3000 }, (_, n) => `w[^${n}]\n\n[^${n}]: x\n\n`).join(""),
  "a footnote in itself": "x[^a]\n\n[^a]: y[^a] [^b]\n\n[^b]: z[^a]\n",
  definitions: "[a]: b\n".repeat(20_000),
  headings: "# a\n".repeat(19_000),
  "underlined headings": "a\n=\n".repeat(4_000),
  "elements of HTML": `${"<div>".repeat(20_000)}x`,
  "formatting of HTML": `<div>${"<b><i><p>".repeat(2_000)}x</div>`,
  "a table of HTML": `<table>${"<tr><td colspan=1000 rowspan=1000>x</td></tr>".repeat(200)}</table>`,
  comments: "<!--".repeat(20_000),
  dollars: "$a ".repeat(20_000),
  "back slashes": "\\".repeat(60_000),
  "front matter that names itself": `---\na: &a [1,2,3]\n${Array.from({ length: 20 }, (_, n) => `b${n}: &b${n} [*${n ? `b${n - 1}` : "a"},*${n ? `b${n - 1}` : "a"},*${n ? `b${n - 1}` : "a"}]`).join("\n")}\n---\n\nx`,
  "front matter with NUL": '---\ntitle: "a\\0b\\uD800"\n---\n\n# x\n',
  "a language of code that is long": `\`\`\`${"x".repeat(50_000)}\ncode\n\`\`\`\n`,
  formulas: `$$\n${"\\frac{".repeat(3_000)}x\n$$\n`,
  "a formula that grows": `$$\n\\def\\a{xx}${"\\def\\a{\\a\\a}".repeat(30)}\\a\n$$\n`,
  emoji: "👩‍🔬".repeat(20_000),
  "marks on marks": `a${"\u0301".repeat(50_000)}`,
  "right to left": "\u202e\u2066".repeat(20_000),
  lines: `${"\n".repeat(90_000)}x`,
  paragraphs: "a\n\n".repeat(30_000),
  tabs: `${"\t".repeat(60_000)}- x`,
  script: "<script>alert(1)</script>\n\n[x](javascript:alert(1))\n\n![x](data:text/html,<script>)\n",
  pipes: "|".repeat(60_000),
  autolinks: "www.a.b ".repeat(10_000),
  "a diagram": `:::diagram\n${"- x\n".repeat(5_000)}:::\n`,
  "a chart": `:::chart\n|a|b|\n|-|-|\n${"|x|1e308|\n".repeat(4_000)}:::\n`,
};

/** The files, each with its name and what it tries. */
export function hostileFiles() {
  const files = [];
  const add = (name, what, bytes) =>
    files.push({ name, what, bytes: typeof bytes === "string" ? strToU8(bytes) : bytes });
  for (const [what, text] of Object.entries(TEXTS)) {
    add("hostile.md", what, text);
    add("hostile.txt", what, text);
  }
  add("hostile.docx", "160 MB of empty paragraphs", docx("<w:p/>".repeat(27_000_000)));
  add("hostile.docx", "paragraphs", docx("<w:p><w:r><w:t>x</w:t></w:r></w:p>".repeat(300_000)));
  add("hostile.docx", "deep elements", docx("<w:sdt><w:sdtContent>".repeat(5_000)));
  add(
    "hostile.docx",
    "a table that begins far to the right",
    docx(
      `<w:tbl>${`<w:tr><w:trPr><w:gridBefore w:val="100000000"/></w:trPr><w:tc><w:p/></w:tc></w:tr>`.repeat(3)}</w:tbl>`,
    ),
  );
  add(
    "hostile.docx",
    "a table of merged cells",
    docx(
      `<w:tbl>${`<w:tr>${'<w:tc><w:tcPr><w:gridSpan w:val="1000"/></w:tcPr><w:p/></w:tc>'.repeat(50)}</w:tr>`.repeat(500)}</w:tbl>`,
    ),
  );
  add(
    "hostile.docx",
    "a document type",
    zipSync({
      "[Content_Types].xml": strToU8("<Types/>"),
      "word/document.xml": strToU8('<!DOCTYPE a [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;">]><w:document/>'),
    }),
  );
  add(
    "hostile.odt",
    "rows and columns that repeat",
    odf(
      "text",
      `<table:table>${'<table:table-row table:number-rows-repeated="1000000"><table:table-cell table:number-columns-repeated="1000000"><text:p>x</text:p></table:table-cell></table:table-row>'.repeat(50)}</table:table>`,
    ),
  );
  add(
    "hostile.odt",
    "lists in lists",
    odf(
      "text",
      `${"<text:list><text:list-item>".repeat(100)}<text:p>x</text:p>${"</text:list-item></text:list>".repeat(100)}`,
    ),
  );
  add(
    "hostile.odt",
    "spaces that repeat",
    odf("text", `<text:p>${'<text:s text:c="2000000000"/>'.repeat(100)}x</text:p>`),
  );
  add("hostile.odp", "pages", odf("presentation", '<draw:page draw:name="p"/>'.repeat(30_000)));
  add(
    "hostile.odp",
    "a table that repeats",
    odf(
      "presentation",
      `<draw:page draw:name="p"><draw:frame><table:table>${'<table:table-column table:number-columns-repeated="1000000"/>'}${'<table:table-row table:number-rows-repeated="1000000"><table:table-cell table:number-columns-repeated="1000000"/></table:table-row>'.repeat(20)}</table:table></draw:frame></draw:page>`,
    ),
  );
  add(
    "hostile.odp",
    "links that run",
    odf(
      "presentation",
      '<draw:page draw:name="p"><draw:frame><draw:text-box><text:p><text:a xlink:href="javascript:alert(1)">x</text:a></text:p></draw:text-box></draw:frame></draw:page>',
    ),
  );
  add(
    "hostile.odp",
    "groups in groups",
    odf("presentation", `<draw:page draw:name="p">${"<draw:g>".repeat(240)}${"</draw:g>".repeat(240)}</draw:page>`),
  );
  add("hostile.pptx", "shapes", pptx(shape("<a:p><a:r><a:t>x</a:t></a:r></a:p>").repeat(40_000)));
  add("hostile.pptx", "paragraphs", pptx(shape("<a:p><a:r><a:t>x</a:t></a:r></a:p>".repeat(200_000))));
  add(
    "hostile.pptx",
    "groups in groups",
    pptx(`${"<p:grpSp><p:nvGrpSpPr/><p:grpSpPr/>".repeat(240)}${"</p:grpSp>".repeat(240)}`),
  );
  add("hostile.pptx", "slides that are one", pptx(shape("<a:p/>"), "", 5_000));
  add(
    "hostile.pptx",
    "links that run",
    pptx(
      shape('<a:p><a:r><a:rPr><a:hlinkClick r:id="r9"/></a:rPr><a:t>x</a:t></a:r></a:p>'),
      `<Relationship Id="r9" Type="${REL}/hyperlink" Target="javascript:alert(1)" TargetMode="External"/>`,
    ),
  );
  add(
    "hostile.pptx",
    "a layout of itself",
    pptx(shape("<a:p/>"), `<Relationship Id="r9" Type="${REL}/slideLayout" Target="../slides/slide1.xml"/>`),
  );
  add(
    "hostile.pptx",
    "outlines",
    pptx(
      `<p:sp><p:nvSpPr><p:cNvPr id="2" name="x"/><p:nvPr/></p:nvSpPr><p:spPr><a:custGeom><a:pathLst>${'<a:path w="1e308" h="-1"><a:moveTo><a:pt x="NaN" y="1e999"/></a:moveTo></a:path>'.repeat(2000)}</a:pathLst></a:custGeom></p:spPr></p:sp>`,
    ),
  );
  add(
    "hostile.pptx",
    "a path that climbs out",
    zipSync({ "[Content_Types].xml": strToU8("<Types/>"), "../../etc/passwd": strToU8("x") }),
  );
  add("hostile.html", "elements", `<html><body>${"<div>".repeat(50_000)}x`);
  add("hostile.html", "formatting", `<html><body>${"<b><i><u><p>".repeat(3_000)}x`);
  add(
    "hostile.html",
    "cells that reach far",
    `<table>${`<tr>${"<td colspan=1000 rowspan=65534>x</td>".repeat(100)}</tr>`.repeat(100)}</table>`,
  );
  add("hostile.html", "a formula", `<p>x</p><math>${"<mrow>".repeat(5_000)}x</math>`);
  add("hostile.html", "attributes", `<p ${Array.from({ length: 20_000 }, (_, n) => `a${n}=b`).join(" ")}>x</p>`);
  add("hostile.csv", "columns", `${"a,".repeat(200_000)}\n1\n`);
  add("hostile.csv", "cells", `${"a,b,c,d,e,f,g,h,i,j\n".repeat(50_000)}`);
  add("hostile.csv", "quotes", '"'.repeat(99_999));
  add(
    "hostile.opml",
    "outlines in outlines",
    `<opml><body>${'<outline text="x">'.repeat(240)}${"</outline>".repeat(240)}</body></opml>`,
  );
  add("hostile.opml", "outlines", `<opml><body>${'<outline text="x"/>'.repeat(300_000)}</body></opml>`);
  const deck = (change) =>
    JSON.stringify({
      format: "unitext-deck",
      version: 1,
      deck: change({
        id: "d",
        properties: { title: "x", author: "", event: "", date: "" },
        language: "en",
        slides: [],
      }),
      blobs: {},
    });
  add("hostile.json", "arrays in arrays", "[".repeat(100_000));
  add(
    "hostile.json",
    "a deck that is none",
    deck((held) => held),
  );
  add("hostile.json", "a prototype", '{"format":"unitext-deck","version":1,"__proto__":{"x":1},"deck":{},"blobs":{}}');
  add("hostile.json", "a version to come", '{"format":"unitext-deck","version":999,"deck":{},"blobs":{}}');
  for (const [what, bytes] of [
    ["a picture of 900 million pixels", png(30_000, 30_000)],
    ["a picture of no size", png(0, 0)],
    [
      "blurs",
      SVG(
        `<defs>${Array.from({ length: 300 }, (_, n) => `<filter id="f${n}"><feGaussianBlur stdDeviation="500"/></filter>`).join("")}</defs>${Array.from({ length: 300 }, (_, n) => `<rect width="5000" height="5000" filter="url(#f${n})"/>`).join("")}`,
        "5000",
      ),
    ],
    ["script in a picture", SVG("<script>alert(1)</script><image href='http://127.0.0.1:1/x'/>")],
    [
      "uses of uses",
      SVG(
        `<defs><g id="a0"><rect width="1" height="1"/></g>${Array.from({ length: 25 }, (_, n) => `<g id="a${n + 1}">${`<use href="#a${n}"/>`.repeat(10)}</g>`).join("")}</defs><use href="#a25"/>`,
      ),
    ],
  ]) {
    add(
      "hostile.docx",
      what,
      zipSync({
        "[Content_Types].xml": strToU8("<Types/>"),
        "word/document.xml": strToU8(
          `<w:document ${W} xmlns:r="${REL}" xmlns:a="http://schemas.openxmlformats.org/drawingml/2006/main"><w:body><w:p><w:r><w:drawing><a:blip r:embed="p"/></w:drawing></w:r></w:p><w:p><w:r><w:t>x</w:t></w:r></w:p></w:body></w:document>`,
        ),
        "word/_rels/document.xml.rels": rels(`<Relationship Id="p" Type="${REL}/image" Target="media/p.png"/>`),
        "word/media/p.png": bytes,
      }),
    );
  }
  // What is damaged: each of these, cut off and with bytes turned over, at places that do not depend on chance.
  const whole = files
    .filter(({ bytes }) => bytes.length < 200_000 && bytes.length > 50)
    .filter((_, nth) => nth % 3 === 0);
  for (const [nth, { name, what, bytes }] of whole.entries()) {
    add(name, `${what}, cut off`, bytes.slice(0, Math.floor(bytes.length * 0.6)));
    const turned = bytes.slice();
    for (let at = (nth * 7) % 50; at < turned.length; at += 97) turned[at] ^= 1 << (at % 8);
    add(name, `${what}, turned over`, turned);
  }
  for (const ending of ["pdf", "pptx", "odp", "docx", "odt", "json", "csv", "opml", "html", "fodp", "potx"]) {
    add(
      `hostile.${ending}`,
      "noise",
      Uint8Array.from({ length: 5000 }, (_, at) => (at * 7919 + (at >> 3) * 104729) & 255),
    );
    add(`hostile.${ending}`, "one byte", new Uint8Array([0x50]));
  }
  return files;
}
