import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { createRequire } from "node:module";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { apply } from "@unitext/core/edit";
import {
  type Comment,
  type Deck,
  elementWords,
  emptyDeck,
  must,
  newSlide,
  plainText,
  quoteOf,
} from "@unitext/core/model";
import { filesBench, withoutTags } from "@unitext/core/testing/files";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { SaxesParser } from "saxes";
import { WRITERS } from "./index";

const WORDS = "The moon pulls the near side more";
const comments: Comment[] = [
  {
    id: "k1",
    author: "Tide observer",
    user: "u1",
    text: "More than what?\nSay it <here> & now.",
    date: "2026-11-03T10:15:00.000Z",
    element: "t",
    quote: quoteOf(WORDS, 4, 8),
    proposal: "sun and moon",
    at: { x: 40, y: 60 },
    done: true,
    replies: [
      { id: "q1", author: "Course team", user: "u2", text: "Than the far side.", date: "2026-11-03T11:00:00.000Z" },
      { id: "q2", author: "Tide observer", text: "Good. 🌊" },
    ],
  },
  { id: "k2", author: "Dune survey", text: "A picture would help." },
];
const deck: Deck = {
  ...emptyDeck("d", "Tides"),
  slides: [
    {
      ...newSlide("a", "points"),
      elements: [{ kind: "text", id: "t", slot: "body", text: plainText(WORDS) }],
      comments,
    },
    newSlide("b", "points"),
  ],
};
const bench = filesBench();
const written = (format: "pptx" | "odp", given: Deck = deck) => WRITERS[format].write(given, bench.context);
const read = (bytes: Uint8Array, format: string) => bench.read(bytes, `tides.${format}`).deck;
const part = (bytes: Uint8Array, path: string) => strFromU8(must(unzipSync(bytes)[path]));

describe.each(["pptx", "odp"] as const)("comments in .%s", (format) => {
  it("come back with everything that they are", async () => {
    expect(read(await written(format), format).slides.map((slide) => slide.comments)).toEqual([comments, undefined]);
  });

  it("are those of another program where that has changed them", async () => {
    const bytes = await written(format);
    const path = format === "pptx" ? "ppt/comments/comment1.xml" : "content.xml";
    const changed = part(bytes, path).replace("A picture would help.", "Two pictures would help.");
    const [slide] = read(zipSync({ ...unzipSync(bytes), [path]: strToU8(changed) }), format).slides;
    expect(slide?.comments?.[0]).toEqual(comments[0]);
    expect(slide?.comments?.[1]).toMatchObject({ author: "Dune survey", text: "Two pictures would help." });
    expect(new Set(slide?.comments?.map(({ id }) => id)).size).toBe(2);
  });

  it("of a file of another program are changed in it, and all others stay as they are", async () => {
    const other = withoutTags(await written(format));
    const taken = read(other, format);
    const [first] = taken.slides;
    const id = must(first?.comments?.at(-1)).id;
    const reply = { id: "n1", author: "Course team", text: "Here is one." };
    const replied = apply(taken, { kind: "putReply", slide: must(first).id, comment: id, reply }).deck;
    const added = apply(replied, {
      kind: "putComment",
      slide: must(first).id,
      comment: { id: "n2", author: "Newcomer", text: "And here?" },
    }).deck;
    const again = withoutTags(await written(format, added));
    const said = read(again, format).slides[0]?.comments ?? [];
    const all = said.flatMap(({ author, text, replies = [] }) => [
      [author, text],
      ...replies.map((one) => [one.author, one.text]),
    ]);
    expect(all).toEqual([
      ["Tide observer", "More than what?\nSay it <here> & now."],
      ["Course team", "Than the far side."],
      ["Tide observer", "Good. 🌊"],
      ["Dune survey", "A picture would help."],
      ["Course team", "Here is one."],
      ["Newcomer", "And here?"],
    ]);
  });

  it("unchanged leave the file as it is", async () => {
    const other = withoutTags(await written(format));
    const again = unzipSync(await written(format, read(other, format)));
    const path = format === "pptx" ? "ppt/comments/comment1.xml" : "content.xml";
    const annotations = (text: string) => text.match(/<(p:cm|office:annotation)[ >][\s\S]*?<\/\1>/g);
    expect(annotations(strFromU8(must(again[path])))).toEqual(annotations(part(other, path)));
  });
});

describe("as others read them", () => {
  it("a .pptx has author, date, place and text, and replies refer to their comment (ECMA-376-1, 19.4)", async () => {
    const bytes = await written("pptx");
    const found: Record<string, string>[] = [];
    let text = "";
    const parser = new SaxesParser();
    parser.on("opentag", ({ name, attributes }) => {
      if (name === "p:cm") found.push({ ...(attributes as Record<string, string>) });
      if (name === "p:pos") Object.assign(must(found.at(-1)), attributes);
      if (name === "p15:parentCm")
        Object.assign(must(found.at(-1)), { to: `${attributes.authorId}/${attributes.idx}` });
      text = "";
    });
    parser.on("text", (words) => {
      text += words;
    });
    parser.on("closetag", ({ name }) => {
      if (name === "p:text") Object.assign(must(found.at(-1)), { text });
    });
    parser.write(part(bytes, "ppt/comments/comment1.xml")).close();
    expect(found).toEqual([
      { authorId: "0", idx: "1", dt: "2026-11-03T10:15:00.000Z", x: "320", y: "480", text: comments[0]?.text },
      {
        authorId: "1",
        idx: "1",
        dt: "2026-11-03T11:00:00.000Z",
        x: "320",
        y: "480",
        text: "Than the far side.",
        to: "0/1",
      },
      { authorId: "0", idx: "2", x: "320", y: "480", text: "Good. 🌊", to: "0/1" },
      { authorId: "2", idx: "1", x: "8", y: "8", text: "A picture would help." },
    ]);
    const authors = [...part(bytes, "ppt/commentAuthors.xml").matchAll(/ name="([^"]*)"/g)].map(([, name]) => name);
    expect(authors).toEqual(["Tide observer", "Course team", "Dune survey"]);
  });

  it("python3-odf reads author, date and text of every annotation of an .odp", async () => {
    const folder = mkdtempSync(join(tmpdir(), "unitext-comments-"));
    try {
      writeFileSync(join(folder, "tides.odp"), await written("odp"));
      const script = `
import json, sys
from odf import teletype
from odf.opendocument import load
from odf.office import Annotation
from odf.dc import Creator, Date
from odf.text import P
def words(parent, kind): return "\\n".join(teletype.extractText(one) for one in parent.getElementsByType(kind))
document = load(sys.argv[1])
print(json.dumps([[words(one, Creator), words(one, Date), words(one, P)] for one in document.getElementsByType(Annotation)]))
`;
      const out = execFileSync("/usr/bin/python3", ["-c", script, join(folder, "tides.odp")], { encoding: "utf8" });
      expect(JSON.parse(out)).toEqual([
        ["Tide observer", "2026-11-03T10:15:00.000Z", comments[0]?.text],
        ["Course team", "2026-11-03T11:00:00.000Z", "Than the far side."],
        ["Tide observer", "", "Good. 🌊"],
        ["Dune survey", "", "A picture would help."],
      ]);
    } finally {
      rmSync(folder, { recursive: true });
    }
  });
});

describe("threaded comments of other writers", () => {
  // biome-ignore lint/suspicious/noExplicitAny: the types of the package are those of a browser script.
  const Generator = createRequire(import.meta.url)("pptxgenjs") as new () => any;
  // The form of [MS-PPTX] for threaded comments, from memory: an anchor with a shape and a range of its text, a status,
  // and replies below the comment.
  const COMMENTS = `<?xml version="1.0" encoding="UTF-8" standalone="yes"?>
<p188:cmLst xmlns:a="http://schemas.openxmlformats.org/drawingml/2006/main" xmlns:p188="http://schemas.microsoft.com/office/powerpoint/2018/8/main" xmlns:ac="http://schemas.microsoft.com/office/drawing/2013/main/command" xmlns:pc="http://schemas.microsoft.com/office/powerpoint/2013/main/command">
<p188:cm id="{11111111-0000-0000-0000-000000000001}" authorId="{A}" status="resolved" created="2026-10-05T08:00:00.000">
<ac:txMkLst><pc:docMk/><pc:sldMk cId="1" sldId="256"/><ac:spMk id="SHAPE" creationId="{B}"/><ac:txMk cp="4" len="6"><ac:context len="30" hash="1"/></ac:txMk></ac:txMkLst>
<p188:pos x="100" y="200"/>
<p188:replyLst><p188:reply id="{11111111-0000-0000-0000-000000000002}" authorId="{C}" created="2026-10-05T09:00:00.000"><p188:txBody><a:bodyPr/><a:lstStyle/><a:p><a:r><a:t>Spring ones.</a:t></a:r></a:p></p188:txBody></p188:reply></p188:replyLst>
<p188:txBody><a:bodyPr/><a:lstStyle/><a:p><a:r><a:t>Which levels?</a:t></a:r></a:p><a:p><a:r><a:t>Spring or neap?</a:t></a:r></a:p></p188:txBody>
</p188:cm></p188:cmLst>`;
  const AUTHORS = `<?xml version="1.0" encoding="UTF-8" standalone="yes"?>
<p188:authorLst xmlns:p188="http://schemas.microsoft.com/office/powerpoint/2018/8/main"><p188:author id="{A}" name="Harbour pilot" initials="HP" userId="x" providerId="None"/><p188:author id="{C}" name="Course team" initials="CT" userId="y" providerId="None"/></p188:authorLst>`;

  /** A presentation of the npm package pptxgenjs, with the comments added to its first slide. */
  async function commented(): Promise<Uint8Array> {
    const made = new Generator();
    made.addSlide().addText("The levels in spring", { x: 1, y: 1, w: 8, h: 1 });
    const parts = unzipSync(new Uint8Array((await made.write({ outputType: "arraybuffer" })) as ArrayBuffer));
    const slide = "ppt/slides/slide1.xml";
    const shape = must(/<p:cNvPr id="(\d+)" name="Text/.exec(strFromU8(must(parts[slide])))?.[1]);
    const related = (path: string, type: string, target: string) => {
      parts[path] = strToU8(
        strFromU8(must(parts[path])).replace(
          "</Relationships>",
          `<Relationship Id="rIdC" Type="http://schemas.microsoft.com/office/2018/10/relationships/${type}" Target="${target}"/></Relationships>`,
        ),
      );
    };
    related("ppt/slides/_rels/slide1.xml.rels", "comments", "../comments/modernComment_100_0.xml");
    related("ppt/_rels/presentation.xml.rels", "authors", "authors.xml");
    parts["ppt/comments/modernComment_100_0.xml"] = strToU8(COMMENTS.replace("SHAPE", shape));
    parts["ppt/authors.xml"] = strToU8(AUTHORS);
    return zipSync(parts);
  }

  it("are read with their words, their place, their replies, and that they are done", async () => {
    const [slide] = read(await commented(), "pptx").slides;
    const [comment] = slide?.comments ?? [];
    expect(comment).toMatchObject({
      author: "Harbour pilot",
      text: "Which levels?\nSpring or neap?",
      date: "2026-10-05T08:00:00.000",
      done: true,
      quote: { exact: "levels" },
      replies: [{ author: "Course team", text: "Spring ones." }],
    });
    const element = slide?.elements.find(({ id }) => id === comment?.element);
    expect(element && elementWords(element)).toBe("The levels in spring");
  });

  it("stay as they are in the file until somebody answers", async () => {
    const bytes = await commented();
    const taken = read(bytes, "pptx");
    const path = "ppt/comments/modernComment_100_0.xml";
    expect(part(await written("pptx", taken), path)).toBe(part(bytes, path));
    const slide = must(taken.slides[0]);
    const reply = { id: "n", author: "Newcomer", text: "Neap." };
    const answered = apply(taken, { kind: "putReply", slide: slide.id, comment: "c1", reply }).deck;
    const [again] = read(withoutTags(await written("pptx", answered)), "pptx").slides;
    expect(again?.comments?.[0]?.replies?.map(({ author, text }) => [author, text])).toEqual([
      ["Course team", "Spring ones."],
      ["Newcomer", "Neap."],
    ]);
  });
});
