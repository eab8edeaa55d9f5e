import { readMixed, readXml } from "../../../shared/xml";
import { unsupportedFeatures as openDocument } from "../../odp/read/unsupported";
import { unsupportedFeatures } from "./unsupported";

// What is not drawn is told: one row for each element or attribute of the standards (ECMA-376-1, 20.1 and 21.1; OpenDocument 1.3, part 3, 20; numbers from memory) and of extensions in use.
const NAMES = 'xmlns:p="urn:p" xmlns:a="urn:a" xmlns:r="urn:r" xmlns:x="urn:x"';
const shape = (properties: string, text = "") =>
  readXml(
    `<p:sp ${NAMES}><p:nvSpPr><p:cNvPr id="1" name="One"/></p:nvSpPr><p:spPr>${properties}</p:spPr><p:txBody>${text}</p:txBody></p:sp>`,
    "shape",
  );
const words = (looks: string, more = "", paragraph = "") =>
  shape("", `<a:bodyPr/><a:p>${paragraph}<a:r><a:rPr ${more}>${looks}</a:rPr><a:t>word</a:t></a:r></a:p>`);
const picture = (blip: string) =>
  readXml(
    `<p:pic ${NAMES}><p:nvPicPr><p:cNvPr id="1" name="One"/></p:nvPicPr><p:blipFill><a:blip r:embed="r1">${blip}</a:blip></p:blipFill><p:spPr/></p:pic>`,
    "picture",
  );

describe("what a shape of a .pptx says and Unitext does not draw", () => {
  it.each([
    ["the glow", shape('<a:effectLst><a:glow rad="1"/></a:effectLst>')],
    ["the inner shadow", shape("<a:effectLst><a:innerShdw/></a:effectLst>")],
    ["the reflection", shape("<a:effectLst><a:reflection/></a:effectLst>")],
    ["the soft edge", shape('<a:effectLst><a:softEdge rad="1"/></a:effectLst>')],
    ["the blur", shape("<a:effectLst><a:blur/></a:effectLst>")],
    ["its effects", shape("<a:effectDag/>")],
    ["the depth", shape("<a:scene3d/>")],
    ["the depth", shape("<a:sp3d/>")],
    ["the bent letters", shape("", '<a:bodyPr><a:prstTxWarp prst="textWave1"/></a:bodyPr>')],
    ["the depth of the letters", shape("", "<a:bodyPr><a:sp3d/></a:bodyPr>")],
    ["the effects of letters", words("<a:effectLst><a:outerShdw/></a:effectLst>")],
    ["the outline of letters", words("<a:ln><a:solidFill/></a:ln>")],
    ["the fill of letters", words("<a:gradFill/>")],
    ["the second line through letters", words("", 'strike="dblStrike"')],
    ["the kind of its numbers", words("", "", '<a:pPr><a:buAutoNum type="circleNumDbPlain"/></a:pPr>')],
    ["the colour that is made clear", picture("<a:clrChange/>")],
    ["the tint", picture("<a:tint/>")],
    ["the changed hues", picture("<a:hsl/>")],
    ["the artistic effect", picture("<a:extLst><a:ext><x:imgProps/></a:ext></a:extLst>")],
    [
      "the diagonal lines",
      readXml(
        `<p:graphicFrame ${NAMES}><a:graphic><a:graphicData><a:tbl><a:tr><a:tc><a:tcPr><a:lnTlToBr/></a:tcPr></a:tc></a:tr></a:tbl></a:graphicData></a:graphic></p:graphicFrame>`,
        "table",
      ),
    ],
    [
      "the link that opens by pointing",
      readXml(
        `<p:sp ${NAMES}><p:nvSpPr><p:cNvPr id="1"><a:hlinkHover r:id="r1"/></p:cNvPr></p:nvSpPr><p:spPr/></p:sp>`,
        "shape",
      ),
    ],
  ])("has a name: %s", (name, given) => {
    expect(unsupportedFeatures(given, undefined)).toEqual([name]);
  });

  it.each([
    ["a plain one", shape('<a:solidFill/><a:effectLst><a:outerShdw blurRad="1"/></a:effectLst>')],
    ["one whose effects are none", shape("<a:effectLst/>")],
    [
      "letters without an outline, struck once, with numbers that are drawn",
      words("<a:ln><a:noFill/></a:ln>", 'strike="sngStrike"', '<a:pPr><a:buAutoNum type="romanUcPeriod"/></a:pPr>'),
    ],
    ["straight letters", shape("", '<a:bodyPr><a:prstTxWarp prst="textNoShape"/></a:bodyPr>')],
    ["a picture in greys that is seen through", picture('<a:alphaModFix amt="50000"/><a:grayscl/>')],
    ["a picture in two colours", picture('<a:duotone><a:srgbClr val="000000"/><a:srgbClr val="ffffff"/></a:duotone>')],
  ])("has none in %s", (_, given) => {
    expect(unsupportedFeatures(given, undefined)).toEqual([]);
  });

  it("is told once, however often it is said", () => {
    const twice = shape(
      "",
      "<a:bodyPr/><a:p><a:r><a:rPr><a:gradFill/></a:rPr><a:t>a</a:t></a:r><a:r><a:rPr><a:gradFill/></a:rPr><a:t>b</a:t></a:r></a:p>",
    );
    expect(unsupportedFeatures(twice, undefined)).toEqual(["the fill of letters"]);
  });
});

describe("what a shape of an .odp says and Unitext does not draw", () => {
  const box = (inside: string) =>
    readMixed(`<draw:custom-shape xmlns:draw="urn:d" xmlns:text="urn:t">${inside}</draw:custom-shape>`, "shape");
  const letters = box('<text:p><text:span text:style-name="T1">word</text:span></text:p>');
  const none = () => ({});
  it.each([
    ["the glow", box(""), { "glow-radius": "3pt" }, {}],
    ["the soft edge", box(""), { "softedge-radius": "0.1cm" }, {}],
    ["the softness of the shadow", box(""), { "shadow-blur": "2mm" }, {}],
    ["the depth", box('<draw:enhanced-geometry draw:extrusion="true"/>'), {}, {}],
    ["the bent letters", box('<draw:enhanced-geometry draw:text-path="true"/>'), {}, {}],
    ["the outline of letters", letters, {}, { "text-outline": "true" }],
    ["the shadow of letters", letters, {}, { "text-shadow": "1pt 1pt" }],
    ["the relief of letters", letters, {}, { "font-relief": "embossed" }],
    ["the second line through letters", letters, {}, { "text-line-through-type": "double" }],
  ])("has a name: %s", (name, given, graphic, text) => {
    expect(openDocument(given, graphic as Record<string, string>, () => text as Record<string, string>)).toEqual([
      name,
    ]);
  });

  it("has none where it is said to be none", () => {
    expect(
      openDocument(letters, { "glow-radius": "0cm", "shadow-blur": "none" }, () => ({
        "text-outline": "false",
        "font-relief": "none",
        "text-line-through-type": "single",
      })),
    ).toEqual([]);
    expect(openDocument(box('<draw:enhanced-geometry draw:extrusion="false"/>'), {}, none)).toEqual([]);
  });
});
