import { strToU8, zipSync } from "fflate";
import { readXml, type XmlElement } from "../../../shared/xml";
import { alternativeOf, Inheritance, placeholderRef, shapesOf } from "./inherit";
import { OpenedPackage } from "../package/package";

const NAMES = 'xmlns:p="urn:p" xmlns:a="urn:a" xmlns:r="urn:r" xmlns:m="urn:m" xmlns:mc="urn:mc"';
const POINT = 12700;
const ph = (attributes: string) =>
  `<p:nvSpPr><p:cNvPr id="1" name=""/><p:cNvSpPr/><p:nvPr><p:ph ${attributes}/></p:nvPr></p:nvSpPr>`;
const place = (x: number, y: number, width: number, height: number) =>
  `<a:xfrm><a:off x="${x * POINT}" y="${y * POINT}"/><a:ext cx="${width * POINT}" cy="${height * POINT}"/></a:xfrm>`;
const sp = (attributes: string, properties = "", body = "") =>
  `<p:sp>${ph(attributes)}<p:spPr>${properties}</p:spPr>${body && `<p:txBody><a:bodyPr/><a:lstStyle>${body}</a:lstStyle><a:p/></p:txBody>`}</p:sp>`;
const tree = (root: string, shapes: string, more = "") =>
  `<p:${root} ${NAMES}><p:cSld name="Two things"><p:spTree>${shapes}</p:spTree></p:cSld>${more}</p:${root}>`;
const relation = (id: string, type: string, target: string) =>
  `<Relationship Id="${id}" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/${type}" Target="${target}"/>`;
const rels = (...rows: string[]) => strToU8(`<Relationships>${rows.join("")}</Relationships>`);

const layout = tree(
  "sldLayout",
  sp('type="ctrTitle"', "", '<a:lvl1pPr algn="ctr"/>') +
    sp('type="body" idx="13"', place(400, 100, 300, 200)) +
    sp('idx="14"', place(50, 100, 300, 200)),
  "",
).replace("<p:sldLayout ", '<p:sldLayout type="twoObj" ');
const master = tree(
  "sldMaster",
  sp('type="title"', place(60, 20, 600, 60)) +
    sp('type="body" idx="1"', place(60, 100, 600, 380), '<a:lvl1pPr marL="1"/>') +
    sp('type="ftr" idx="3"', place(60, 500, 200, 20)),
  '<p:txStyles><p:titleStyle><a:lvl1pPr b="t"/></p:titleStyle><p:bodyStyle><a:lvl1pPr b="b"/></p:bodyStyle><p:otherStyle><a:lvl1pPr b="o"/></p:otherStyle></p:txStyles>',
);
const pack = new OpenedPackage(
  zipSync({
    "[Content_Types].xml": strToU8("<Types/>"),
    "ppt/slides/slide1.xml": strToU8(tree("sld", "")),
    "ppt/slides/_rels/slide1.xml.rels": rels(relation("r1", "slideLayout", "../slideLayouts/l.xml")),
    "ppt/slideLayouts/l.xml": strToU8(layout),
    "ppt/slideLayouts/_rels/l.xml.rels": rels(relation("r1", "slideMaster", "../slideMasters/m.xml")),
    "ppt/slideMasters/m.xml": strToU8(master),
    "ppt/slideMasters/_rels/m.xml.rels": rels(relation("r1", "theme", "../theme/missing.xml")),
    "ppt/slides/slide2.xml": strToU8(tree("sld", "")),
  }),
  "a.pptx",
);
const behind = Inheritance.of(pack, "ppt/slides/slide1.xml");
const shape = (attributes: string, properties = ""): XmlElement =>
  readXml(sp(attributes, properties).replace("<p:sp>", `<p:sp ${NAMES}>`), "shape");
const frameOf = (attributes: string, properties = "", of = behind) => {
  const one = shape(attributes, properties);
  return of.frame(one, placeholderRef(one));
};

// ECMA-376-1, 19.3.1.36: a placeholder follows that of its layout by its index, and that of the master by its kind.
describe("a placeholder of a slide", () => {
  it("without a type is an object's, without an index the first (19.3.1.36, attributes)", () => {
    expect(placeholderRef(shape(""))).toEqual({ type: "obj", idx: "0" });
    expect(placeholderRef(shape('type="title"'))).toEqual({ type: "title", idx: "0" });
    expect(
      placeholderRef(readXml(`<p:sp ${NAMES}><p:nvSpPr><p:cNvPr id="1"/><p:nvPr/></p:nvSpPr></p:sp>`, "shape")),
    ).toBeUndefined();
  });

  it("stands where it says itself", () => {
    expect(frameOf('idx="14"', place(1, 2, 3, 4))).toEqual({ x: 1, y: 2, width: 3, height: 4 });
  });

  it("else where the one of its layout with its index stands, whatever type it says", () => {
    expect(frameOf('idx="13"')).toEqual({ x: 400, y: 100, width: 300, height: 200 });
    expect(frameOf('type="body" idx="14"')).toEqual({ x: 50, y: 100, width: 300, height: 200 });
  });

  it("else where the master's of its kind stands: a centred title is a title", () => {
    expect(frameOf('type="ctrTitle"')).toEqual({ x: 60, y: 20, width: 600, height: 60 });
    expect(frameOf('type="title"')).toEqual({ x: 60, y: 20, width: 600, height: 60 });
    expect(frameOf('type="ftr" idx="3"')).toEqual({ x: 60, y: 500, width: 200, height: 20 });
  });

  it("else nowhere", () => {
    expect(frameOf('type="dt" idx="9"')).toBeUndefined();
    expect(frameOf('type="title"', "", Inheritance.of(pack, "ppt/slides/slide2.xml"))).toBeUndefined();
  });

  it("takes its levels from the layout, then the master's place, then the master's style for its kind (21.1.2.4.12, 19.3.1.52)", () => {
    const said = (attributes: string) =>
      behind
        .styles(placeholderRef(shape(attributes)))
        .map((style) => style?.children.map(({ attributes: { algn, marL, b } }) => algn ?? marL ?? b).join());
    expect(said('type="title"')).toEqual(["ctr", undefined, "t"]);
    expect(said('type="body" idx="1"')).toEqual([undefined, "1", "b"]);
    expect(said('idx="14"').at(-1)).toBe("b");
    expect(said('type="ftr" idx="3"').at(-1)).toBe("o");
    expect(behind.styles(undefined)).toHaveLength(1);
  });
});

describe("what stands behind a slide", () => {
  it("is known by its layout's name and type, and may lack a theme, or everything", () => {
    expect([behind.layoutName, behind.layoutType, behind.theme]).toEqual(["Two things", "twoObj", undefined]);
    const none = Inheritance.of(pack, "ppt/slides/slide2.xml");
    expect([none.layout, none.master, none.layoutName, none.layoutType]).toEqual([undefined, undefined, "", "cust"]);
  });
});

describe("alternate content (ECMA-376-3, 10)", () => {
  const content = (choice: string, fallback?: string) =>
    readXml(
      `<mc:AlternateContent ${NAMES}><mc:Choice Requires="x">${choice}</mc:Choice>${fallback === undefined ? "" : `<mc:Fallback>${fallback}</mc:Fallback>`}</mc:AlternateContent>`,
      "content",
    );
  const names = (element: XmlElement) => alternativeOf(element).map(({ local }) => local);

  it("is read as what every program can show", () => {
    expect(names(content("<p:new/>", "<p:pic/>"))).toEqual(["pic"]);
  });

  it("is read as its choice where that is a formula, or where there is nothing else", () => {
    expect(names(content("<p:sp><m:oMath/></p:sp>", "<p:pic/>"))).toEqual(["sp"]);
    expect(names(content("<p:sp/>"))).toEqual(["sp"]);
    expect(names(content("<p:sp/>", ""))).toEqual(["sp"]);
  });

  it("is one of the shapes of a tree, as groups and lines are; what is none is passed over", () => {
    const part = readXml(
      tree("sld", "<p:nvGrpSpPr/><p:grpSpPr/><p:sp/><p:cxnSp/><mc:AlternateContent/><p:extLst/>"),
      "part",
    );
    expect(shapesOf(part).map(({ local }) => local)).toEqual(["sp", "cxnSp", "AlternateContent"]);
    expect(shapesOf(undefined)).toEqual([]);
  });
});
