import type { Deck } from "@unitext/core/model";
import { pictureId, XFRM, sp, first, type Row, readTwice } from "@unitext/core/testing/pptxproperties";

const check = (rows: Row[], shape: (xml: string) => string, part: (deck: Deck) => unknown) =>
  it.each(rows)("%s", (_, xml, wanted) => {
    for (const found of readTwice(shape(xml), part)) expect(found).toMatchObject(wanted);
  });

describe("shapes (20.1)", () => {
  const star = '<a:prstGeom prst="star5"><a:avLst/></a:prstGeom>';
  check(
    [
      [
        "a preset with its adjust values",
        '<a:prstGeom prst="roundRect"><a:avLst><a:gd name="adj" fmla="val 30000"/></a:avLst></a:prstGeom><a:solidFill><a:srgbClr val="0F5C63"/></a:solidFill>',
        { kind: "shape", geometry: { preset: "roundRect", adjust: { adj: 30000 } } },
      ],
      [
        "a plain fill that lets through",
        `${star}<a:solidFill><a:srgbClr val="0F5C63"><a:alpha val="40000"/></a:srgbClr></a:solidFill>`,
        { fill: { kind: "solid", colour: "#0f5c63", opacity: 0.4 } },
      ],
      [
        "a gradient along an angle",
        `${star}<a:gradFill><a:gsLst><a:gs pos="0"><a:srgbClr val="FFFFFF"/></a:gs><a:gs pos="40000"><a:srgbClr val="D7E4E2"/></a:gs><a:gs pos="100000"><a:srgbClr val="0F5C63"/></a:gs></a:gsLst><a:lin ang="5400000" scaled="0"/></a:gradFill>`,
        {
          fill: {
            kind: "gradient",
            form: "linear",
            angle: 90,
            stops: [
              { at: 0, colour: "#ffffff" },
              { at: 0.4, colour: "#d7e4e2" },
              { at: 1, colour: "#0f5c63" },
            ],
          },
        },
      ],
      [
        "a gradient from its middle",
        `${star}<a:gradFill><a:gsLst><a:gs pos="0"><a:srgbClr val="FFFFFF"/></a:gs><a:gs pos="100000"><a:srgbClr val="0F5C63"/></a:gs></a:gsLst><a:path path="circle"><a:fillToRect l="50000" t="50000" r="50000" b="50000"/></a:path></a:gradFill>`,
        { fill: { kind: "gradient", form: "radial" } },
      ],
      [
        "a pattern",
        `${star}<a:pattFill prst="dkUpDiag"><a:fgClr><a:srgbClr val="0F5C63"/></a:fgClr><a:bgClr><a:srgbClr val="FFFFFF"/></a:bgClr></a:pattFill>`,
        { fill: { kind: "pattern", pattern: "rising", fore: "#0f5c63", back: "#ffffff" } },
      ],
      [
        "a picture",
        `${star}<a:blipFill><a:blip r:embed="${pictureId}"/><a:stretch><a:fillRect/></a:stretch></a:blipFill>`,
        { fill: { kind: "picture" } },
      ],
      [
        "a picture in tiles",
        `${star}<a:blipFill><a:blip r:embed="${pictureId}"/><a:tile/></a:blipFill>`,
        { fill: { kind: "picture", tile: true } },
      ],
      [
        "an outline in dashes",
        `${star}<a:ln w="38100"><a:solidFill><a:srgbClr val="20302E"/></a:solidFill><a:prstDash val="dash"/></a:ln>`,
        { stroke: { colour: "#20302e", width: 3, dash: "dash" } },
      ],
      [
        "a shadow",
        `${star}<a:solidFill><a:srgbClr val="0F5C63"/></a:solidFill><a:effectLst><a:outerShdw blurRad="50800" dist="38100" dir="2700000"><a:srgbClr val="000000"><a:alpha val="40000"/></a:srgbClr></a:outerShdw></a:effectLst>`,
        { shadow: { colour: "#000000", opacity: 0.4, blur: 4, distance: 3, direction: 45 } },
      ],
      [
        "outlines of its own",
        '<a:custGeom><a:avLst/><a:gdLst/><a:pathLst><a:path w="100" h="50"><a:moveTo><a:pt x="0" y="50"/></a:moveTo><a:cubicBezTo><a:pt x="25" y="0"/><a:pt x="75" y="0"/><a:pt x="100" y="50"/></a:cubicBezTo><a:close/></a:path></a:pathLst></a:custGeom><a:solidFill><a:srgbClr val="0F5C63"/></a:solidFill>',
        { kind: "shape", geometry: { paths: [{ fill: true, stroke: true }] } },
      ],
    ],
    (spPr) => sp({ spPr, text: "<a:p/>" }),
    (deck) => first(deck),
  );

  check(
    [
      [
        "turned",
        '<a:xfrm rot="2700000"><a:off x="914400" y="914400"/><a:ext cx="1828800" cy="914400"/></a:xfrm>',
        { rotation: 45, frame: { x: 72, y: 72, width: 144, height: 72 } },
      ],
      [
        "mirrored both ways",
        '<a:xfrm flipH="1" flipV="1"><a:off x="914400" y="914400"/><a:ext cx="1828800" cy="914400"/></a:xfrm>',
        { flip: "xy" },
      ],
    ],
    (xfrm) => sp({ xfrm, spPr: `${star}<a:solidFill><a:srgbClr val="0F5C63"/></a:solidFill>`, text: "<a:p/>" }),
    (deck) => first(deck),
  );

  const line = (ln: string) =>
    `<p:cxnSp><p:nvCxnSpPr><p:cNvPr id="2" name="One"/><p:cNvCxnSpPr/><p:nvPr/></p:nvCxnSpPr><p:spPr>${XFRM}<a:prstGeom prst="straightConnector1"><a:avLst/></a:prstGeom>${ln}</p:spPr></p:cxnSp>`;
  check(
    (["triangle", "stealth", "arrow", "oval", "diamond"] as const).map(
      (type, nth): Row => [
        `a line that ends in ${type}`,
        `<a:ln w="25400"><a:solidFill><a:srgbClr val="20302E"/></a:solidFill><a:headEnd type="${type}" w="lg" len="lg"/><a:tailEnd type="${type}"/></a:ln>`,
        {
          stroke: {
            width: 2,
            head: { form: ["triangle", "barbed", "open", "oval", "diamond"][nth] },
            tail: { form: ["triangle", "barbed", "open", "oval", "diamond"][nth] },
          },
        },
      ],
    ),
    line,
    (deck) => first(deck),
  );
});

describe("pictures (19.3.1.37)", () => {
  const pic = ({
    blip = "",
    src = "",
    spPr = '<a:prstGeom prst="rect"><a:avLst/></a:prstGeom>',
  }: {
    blip?: string;
    src?: string;
    spPr?: string;
  }) =>
    `<p:pic><p:nvPicPr><p:cNvPr id="2" name="One" descr="A dune"/><p:cNvPicPr/><p:nvPr/></p:nvPicPr><p:blipFill><a:blip r:embed="${pictureId}">${blip}</a:blip>${src}<a:stretch><a:fillRect/></a:stretch></p:blipFill><p:spPr>${XFRM}${spPr}</p:spPr></p:pic>`;
  check(
    [
      [
        "cut by shares of a hundred thousandth",
        '<a:srcRect l="10000" t="20000" r="5000" b="0"/>',
        { crop: { left: 0.1, top: 0.2, right: 0.05, bottom: 0 }, alt: "A dune" },
      ],
      ["smaller than its frame", '<a:srcRect l="-10000" r="-10000"/>', { crop: { left: -0.1, right: -0.1 } }],
    ],
    (src) => pic({ src }),
    (deck) => first(deck),
  );
  check(
    [
      ["lets through", '<a:alphaModFix amt="35000"/>', { opacity: 0.35 }],
      ["in greys", "<a:grayscl/>", { recolour: "grey" }],
      ["in black and white", '<a:biLevel thresh="50000"/>', { recolour: "mono" }],
    ],
    (blip) => pic({ blip }),
    (deck) => first(deck),
  );
  check(
    [["in a round frame", '<a:prstGeom prst="ellipse"><a:avLst/></a:prstGeom>', { shape: { preset: "ellipse" } }]],
    (spPr) => pic({ spPr }),
    (deck) => first(deck),
  );
});

describe("tables (21.1.3)", () => {
  const cell = (text: string, attributes = "", tcPr = "<a:tcPr/>") =>
    `<a:tc${attributes}><a:txBody><a:bodyPr/><a:p>${text ? `<a:r><a:t>${text}</a:t></a:r>` : ""}</a:p></a:txBody>${tcPr}</a:tc>`;
  const table = (rows: string, grid = 2) =>
    `<p:graphicFrame><p:nvGraphicFramePr><p:cNvPr id="2" name="One"/><p:cNvGraphicFramePr/><p:nvPr/></p:nvGraphicFramePr><p:xfrm><a:off x="914400" y="914400"/><a:ext cx="3657600" cy="914400"/></p:xfrm><a:graphic><a:graphicData uri="http://schemas.openxmlformats.org/drawingml/2006/table"><a:tbl><a:tblPr firstRow="1"/><a:tblGrid>${'<a:gridCol w="1828800"/>'.repeat(grid)}</a:tblGrid>${rows}</a:tbl></a:graphicData></a:graphic></p:graphicFrame>`;
  const row = (...cells: string[]) => `<a:tr h="457200">${cells.join("")}</a:tr>`;
  check(
    [
      [
        "widths, heights and a heading",
        row(cell("a"), cell("b")) + row(cell("c"), cell("d")),
        { widths: [144, 144], heights: [36, 36], header: 1 },
      ],
      [
        "a cell over two columns",
        row(cell("a", ' gridSpan="2"'), cell("", ' hMerge="1"')) + row(cell("c"), cell("d")),
        {
          rows: [
            [{ columns: 2 }, null],
            [{}, {}],
          ],
        },
      ],
      [
        "a cell over two rows",
        row(cell("a", ' rowSpan="2"'), cell("b")) + row(cell("", ' vMerge="1"'), cell("d")),
        {
          rows: [
            [{ rows: 2 }, {}],
            [null, {}],
          ],
        },
      ],
      [
        "fill, margins and anchor",
        row(
          cell(
            "a",
            "",
            '<a:tcPr marL="0" marT="0" marR="0" marB="0" anchor="ctr"><a:solidFill><a:srgbClr val="0F5C63"/></a:solidFill></a:tcPr>',
          ),
          cell("b"),
        ),
        { rows: [[{ fill: { kind: "solid", colour: "#0f5c63" }, insets: [0, 0, 0, 0], anchor: "middle" }, {}]] },
      ],
      [
        "a cell without words in small letters",
        row(
          '<a:tc><a:txBody><a:bodyPr/><a:p><a:endParaRPr lang="en" sz="1000"/></a:p></a:txBody><a:tcPr/></a:tc>',
          cell(""),
        ),
        { rows: [[{ text: [{ properties: { words: { size: 10 } }, runs: [] }] }, { text: [] }]] },
      ],
      [
        "borders",
        row(
          cell(
            "a",
            "",
            '<a:tcPr><a:lnB w="25400"><a:solidFill><a:srgbClr val="7A2E57"/></a:solidFill></a:lnB></a:tcPr>',
          ),
          cell("b"),
        ),
        { rows: [[{ borders: { bottom: { colour: "#7a2e57", width: 2 } } }, {}]] },
      ],
    ],
    (rows) => table(rows),
    (deck) => first(deck),
  );
});
