import { strFromU8, strToU8, zipSync } from "fflate";
import { child, readXml } from "../../../shared/xml";
import { appProperties, coreProperties } from "../write/documentproperties";
import { OpenedPackage, resolveTarget, transitional } from "./package";
import { Relationships, relationshipsPath, relativeTo } from "./parts";

describe("where a relationship leads", () => {
  // RFC 3986, 5.4.1 and 5.4.2, by which ECMA-376-2, 6.5.3, resolves targets: the base is b/c/d there.
  it.each([
    ["g", "b/c/g"],
    ["./g", "b/c/g"],
    ["/g", "g"],
    ["../g", "b/g"],
    ["../../g", "g"],
    ["../../../g", "g"],
    ["g/./h", "b/c/g/h"],
    ["g/../h", "b/c/h"],
    ["../c/g", "b/c/g"],
  ])("%s is %s", (target, path) => {
    expect(resolveTarget("b/c/d", target)).toBe(path);
  });

  it("is written so that it leads there again, from any part to any other", () => {
    const paths = [
      "ppt/presentation.xml",
      "ppt/slides/slide1.xml",
      "ppt/media/image1.png",
      "docProps/core.xml",
      "top.xml",
    ];
    for (const from of paths) for (const to of paths) expect(resolveTarget(from, relativeTo(from, to))).toBe(to);
  });

  it("stands in a list beside its part (ECMA-376-2, 6.5.2)", () => {
    expect([relationshipsPath("ppt/slides/slide1.xml"), relationshipsPath("")]).toEqual([
      "ppt/slides/_rels/slide1.xml.rels",
      "_rels/.rels",
    ]);
  });

  it("has the same type in strict files as in transitional ones (ECMA-376-4, A.1)", () => {
    expect(transitional("http://purl.oclc.org/ooxml/officeDocument/relationships/slide")).toBe(
      "http://schemas.openxmlformats.org/officeDocument/2006/relationships/slide",
    );
    expect(transitional("urn:other")).toBe("urn:other");
  });

  it("is noted once for each thing, under ids that stand once, and goes where it is settled so", () => {
    const list = new Relationships([{ id: "rId1", type: "urn:image", target: "../media/a.png", external: false }]);
    expect(list.add("urn:image", "../media/a.png")).toBe("rId1");
    const second = list.add("urn:link", "https://example.org/?a=1&b=2", true);
    expect(second).not.toBe("rId1");
    const rows = () =>
      readXml(list.part(), "list").children.map(({ attributes: { Id, Target, TargetMode } }) => [
        Id,
        Target,
        TargetMode,
      ]);
    expect(rows()).toEqual([
      ["rId1", "../media/a.png", undefined],
      [second, "https://example.org/?a=1&b=2", "External"],
    ]);
    list.settle(({ external, target }) => (external ? target : undefined));
    expect(rows()).toEqual([[second, "https://example.org/?a=1&b=2", "External"]]);
  });
});

describe("a package", () => {
  const parts = {
    "[Content_Types].xml": strToU8("<Types/>"),
    "ppt/a.xml": strToU8("<a/>"),
    "ppt/_rels/a.xml.rels": strToU8(
      '<Relationships><Relationship Id="r1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/image" Target="../media/b.png"/><Relationship Id="r2" Type="urn:x" Target="https://example.org" TargetMode="External"/></Relationships>',
    ),
  };

  it("gives its parts as trees, read once, and says which are missing", () => {
    const pack = new OpenedPackage(zipSync(parts), "a.pptx");
    expect(pack.tree("ppt/a.xml")).toBe(pack.tree("ppt/a.xml"));
    expect(() => pack.tree("ppt/z.xml")).toThrow("ppt/z.xml");
    expect([...pack.relationships("ppt/a.xml")].map(([id, { target, external }]) => [id, target, external])).toEqual([
      ["r1", "media/b.png", false],
      ["r2", "https://example.org", true],
    ]);
    expect(pack.relationships("ppt/none.xml").size).toBe(0);
  });

  it("without a list of content types is none (ECMA-376-2, 6.2.3)", () => {
    expect(() => new OpenedPackage(zipSync({ "a.xml": strToU8("<a/>") }), "a.pptx")).toThrow(
      "no list of content types",
    );
  });
});

describe("the properties of a document", () => {
  const deck = { properties: { title: "Tides & dunes", author: "", event: "Week 3", date: "" }, language: "en-GB" };
  const said = (name: string) =>
    child(readXml(coreProperties(deck, new Date("2026-03-01T09:00:00.500Z")), "core"), name)?.text;

  it("say title, subject and language as they are, nothing of what is empty, and the moment as W3C's note on dates has it (ECMA-376-2, 8.3)", () => {
    expect(["title", "subject", "language", "creator"].map(said)).toEqual([
      "Tides & dunes",
      "Week 3",
      "en-GB",
      undefined,
    ]);
    expect(said("modified")).toBe("2026-03-01T09:00:00Z");
    expect(said("created")).toMatch(/^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\dZ$/);
  });

  it("count slides, those with notes, and those that are hidden", () => {
    const slide = (id: string, hidden: boolean, words: string) => ({
      id,
      parent: null,
      arrangement: "blank" as const,
      hidden,
      elements: [],
      notes: words ? [{ kind: "plain" as const, level: 0, runs: [{ text: words }] }] : [],
    });
    const tree = readXml(
      strFromU8(
        strToU8(appProperties({ slides: [slide("a", false, "said"), slide("b", true, ""), slide("c", false, "")] })),
      ),
      "app",
    );
    expect(["Slides", "Notes", "HiddenSlides"].map((name) => child(tree, name)?.text)).toEqual(["3", "1", "1"]);
  });
});
