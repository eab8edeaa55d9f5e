import { type Deck, emptyDeck, type Slide, must, type RunProperties } from "@unitext/core/model";
import { filesBench, sha256 } from "@unitext/core/testing/files";
import { propertiesOf } from "@unitext/core/testing/formatting";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { PNG } from "pngjs";
import { WRITERS } from "../../index";

// Each row is a piece of DrawingML as ECMA-376-1 describes it (chapters 20 and 21), written by hand, and what is to be looksOf of it.
const photo = new Uint8Array(PNG.sync.write(new PNG({ width: 40, height: 30 })));
const bench = filesBench(photo);
const { context } = bench;
function read(bytes: Uint8Array): Deck {
  const found = bench.read(bytes, "other.pptx");
  return found.deck;
}
const bare = (parts: Record<string, Uint8Array>) => {
  for (const name of Object.keys(parts)) if (name.includes("/tags/")) delete parts[name];
  return parts;
};
const base = bare(
  unzipSync(
    WRITERS.pptx.write(
      {
        ...emptyDeck("d", "D"),
        assets: { "a.png": { sha256: sha256(photo), mediaType: "image/png", width: 40, height: 30 } },
        slides: [
          {
            id: "s",
            parent: null,
            arrangement: "blank",
            notes: [],
            hidden: false,
            elements: [
              {
                kind: "picture",
                id: "p",
                slot: null,
                source: "a.png",
                alt: "",
                frame: { x: 0, y: 0, width: 40, height: 30 },
              },
            ],
          },
        ],
      },
      context,
    ) as Uint8Array,
  ),
);
const pictureId = must(/r:embed="([^"]*)"/.exec(strFromU8(must(base["ppt/slides/slide1.xml"])))?.[1]);
const HEAD =
  '<p:sld xmlns:a="http://schemas.openxmlformats.org/drawingml/2006/main" xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships" xmlns:p="http://schemas.openxmlformats.org/presentationml/2006/main"><p:cSld><p:spTree><p:nvGrpSpPr><p:cNvPr id="1" name=""/><p:cNvGrpSpPr/><p:nvPr/></p:nvGrpSpPr><p:grpSpPr/>';
const slideOf = (shape: string) =>
  read(zipSync({ ...base, "ppt/slides/slide1.xml": strToU8(`${HEAD}${shape}</p:spTree></p:cSld></p:sld>`) }));
/** What another program reads of what Unitext writes, with nothing of the file that it came from. */
function rewritten(deck: Deck): Deck {
  const slides = deck.slides.map(({ sourcePart: _, ...slide }) => ({
    ...slide,
    elements: slide.elements.map(({ sourceShape: __, ...element }) => element),
  })) as Slide[];
  const assets = Object.fromEntries(Object.entries(deck.assets).filter(([name]) => !name.startsWith("kept/")));
  return read(zipSync(bare(unzipSync(WRITERS.pptx.write({ ...deck, assets, slides }, context) as Uint8Array))));
}
const XFRM = '<a:xfrm><a:off x="914400" y="914400"/><a:ext cx="1828800" cy="914400"/></a:xfrm>';
const sp = ({
  spPr = '<a:prstGeom prst="rect"><a:avLst/></a:prstGeom>',
  xfrm = XFRM,
  body = "<a:bodyPr/>",
  text = "<a:p><a:r><a:t>word</a:t></a:r></a:p>",
}: {
  spPr?: string;
  xfrm?: string;
  body?: string;
  text?: string;
}) =>
  `<p:sp><p:nvSpPr><p:cNvPr id="2" name="One"/><p:cNvSpPr/><p:nvPr/></p:nvSpPr><p:spPr>${xfrm}${spPr}</p:spPr><p:txBody>${body}${text}</p:txBody></p:sp>`;

const first = (deck: Deck) =>
  propertiesOf(deck) as {
    text: {
      runs: { text: string; marks?: string[]; properties: object }[];
      properties: object;
      kind: string;
      level: number;
      align?: string;
      start?: number;
    }[];
    frame: object;
    [key: string]: unknown;
  };

type Row = [name: string, xml: string, wanted: object];
const check = (rows: Row[], shape: (xml: string) => string, part: (deck: Deck) => unknown) => {
  it.each(rows)("%s", (_, xml, wanted) => {
    const deck = slideOf(shape(xml));
    expect(part(deck)).toMatchObject(wanted);
    expect(part(rewritten(deck))).toMatchObject(wanted);
  });
};

describe("characters (21.1.2.3)", () => {
  const run = (rPr: string) => sp({ text: `<a:p><a:r>${rPr}<a:t>word</a:t></a:r></a:p>` });
  check(
    [
      ["size in hundredths of points", '<a:rPr sz="2450"/>', { properties: { size: 24.5 } }],
      ["bold", '<a:rPr b="1"/>', { marks: ["strong"] }],
      ["italic", '<a:rPr i="true"/>', { marks: ["emphasis"] }],
      ["struck", '<a:rPr strike="sngStrike"/>', { marks: ["strike"] }],
      ["underlined", '<a:rPr u="sng"/>', { properties: { underline: "single" } }],
      ["underlined twice", '<a:rPr u="dbl"/>', { properties: { underline: "double" } }],
      ["underlined heavily", '<a:rPr u="heavy"/>', { properties: { underline: "heavy" } }],
      ["underlined in dots", '<a:rPr u="dotted"/>', { properties: { underline: "dotted" } }],
      ["underlined in dashes", '<a:rPr u="dash"/>', { properties: { underline: "dashed" } }],
      ["underlined in a wave", '<a:rPr u="wavy"/>', { properties: { underline: "wavy" } }],
      ["capitals", '<a:rPr cap="all"/>', { properties: { caps: "all" } }],
      ["small capitals", '<a:rPr cap="small"/>', { properties: { caps: "small" } }],
      ["raised by a share of the size", '<a:rPr baseline="30000"/>', { properties: { rise: 0.3 } }],
      ["lowered", '<a:rPr baseline="-25000"/>', { properties: { rise: -0.25 } }],
      ["spaced in hundredths of points", '<a:rPr spc="300"/>', { properties: { spacing: 3 } }],
      ["set tight", '<a:rPr spc="-50"/>', { properties: { spacing: -0.5 } }],
      [
        "highlighted",
        '<a:rPr><a:highlight><a:srgbClr val="FFF2A8"/></a:highlight></a:rPr>',
        { properties: { highlight: "#fff2a8" } },
      ],
      ["in a language", '<a:rPr lang="es-MX"/>', { properties: { language: "es-MX" } }],
      [
        "in a colour",
        '<a:rPr><a:solidFill><a:srgbClr val="7A2E57"/></a:solidFill></a:rPr>',
        { properties: { colour: "#7a2e57" } },
      ],
      // 20.1.2.3.23: lumMod of 50 % halves the luminance: (0.32, 0.16 …) worked by hand for pure red: #ff0000 to #800000.
      [
        "in a colour with a transform",
        '<a:rPr><a:solidFill><a:srgbClr val="FF0000"><a:lumMod val="50000"/></a:srgbClr></a:solidFill></a:rPr>',
        { properties: { colour: "#800000" } },
      ],
      [
        "in a preset colour",
        '<a:rPr><a:solidFill><a:prstClr val="navy"/></a:solidFill></a:rPr>',
        { properties: { colour: "#000080" } },
      ],
      [
        "in a system colour by what it was last",
        '<a:rPr><a:solidFill><a:sysClr val="windowText" lastClr="102030"/></a:solidFill></a:rPr>',
        { properties: { colour: "#102030" } },
      ],
      ["in a font", '<a:rPr><a:latin typeface="Caladea"/></a:rPr>', { properties: { font: "Caladea" } }],
    ],
    run,
    (deck) => first(deck).text[0]?.runs[0],
  );
});

describe("paragraphs (21.1.2.2)", () => {
  const paragraph = (pPr: string) => sp({ text: `<a:p>${pPr}<a:r><a:t>word</a:t></a:r></a:p>` });
  check(
    [
      ["in the middle", '<a:pPr algn="ctr"/>', { align: "centre" }],
      ["to the right", '<a:pPr algn="r"/>', { align: "end" }],
      ["indents in EMU", '<a:pPr marL="457200" indent="-228600"/>', { properties: { left: 36, first: -18 } }],
      ["the right indent", '<a:pPr marR="127000"/>', { properties: { right: 10 } }],
      [
        "space before in points",
        '<a:pPr><a:spcBef><a:spcPts val="600"/></a:spcBef></a:pPr>',
        { properties: { before: { points: 6 } } },
      ],
      [
        "space after in a share",
        '<a:pPr><a:spcAft><a:spcPct val="50000"/></a:spcAft></a:pPr>',
        { properties: { after: { times: 0.5 } } },
      ],
      [
        "lines in a share",
        '<a:pPr><a:lnSpc><a:spcPct val="150000"/></a:lnSpc></a:pPr>',
        { properties: { line: { times: 1.5 } } },
      ],
      [
        "lines in points",
        '<a:pPr><a:lnSpc><a:spcPts val="2400"/></a:lnSpc></a:pPr>',
        { properties: { line: { points: 24 } } },
      ],
      [
        "tab stops",
        '<a:pPr><a:tabLst><a:tab pos="914400" algn="l"/><a:tab pos="1828800" algn="l"/></a:tabLst></a:pPr>',
        { properties: { tabs: [72, 144] } },
      ],
      [
        "tab stops of other kinds",
        '<a:pPr><a:tabLst><a:tab pos="914400" algn="r"/><a:tab pos="1828800" algn="ctr"/><a:tab pos="2540000" algn="dec"/></a:tabLst></a:pPr>',
        {
          properties: {
            tabs: [
              { at: 72, align: "end" },
              { at: 144, align: "centre" },
              { at: 200, align: "decimal" },
            ],
          },
        },
      ],
      [
        "a level",
        '<a:pPr lvl="2"><a:buChar char="–"/></a:pPr>',
        { level: 2, kind: "bullet", properties: { bullet: { character: "–" } } },
      ],
      [
        "a bullet in its colour, size and font",
        '<a:pPr><a:buClr><a:srgbClr val="B23A30"/></a:buClr><a:buSzPct val="80000"/><a:buFont typeface="Arimo"/><a:buChar char="▪"/></a:pPr>',
        { kind: "bullet", properties: { bullet: { character: "▪", colour: "#b23a30", size: 0.8, font: "Arimo" } } },
      ],
      [
        "a picture before an item",
        `<a:pPr><a:buBlip><a:blip r:embed="${pictureId}"/></a:buBlip></a:pPr>`,
        { kind: "bullet", properties: { bullet: { picture: `sign-${sha256(photo).slice(0, 24)}.png` } } },
      ],
      ["numbers", '<a:pPr><a:buAutoNum type="arabicPeriod"/></a:pPr>', { kind: "number" }],
      [
        "numbers that go on",
        '<a:pPr><a:buAutoNum type="arabicPeriod" startAt="5"/></a:pPr>',
        { kind: "number", start: 5 },
      ],
      ...(
        ["alphaLcParenR", "alphaUcPeriod", "romanLcPeriod", "romanUcPeriod", "arabicParenBoth", "arabicPlain"] as const
      ).map(
        (type, nth): Row => [
          `the number scheme ${type}`,
          `<a:pPr><a:buAutoNum type="${type}"/></a:pPr>`,
          { kind: "number", properties: { bullet: { scheme: ["a)", "A.", "i.", "I.", "(1)", "1"][nth] } } },
        ],
      ),
      ["from right to left", '<a:pPr rtl="1" algn="r"/>', { properties: { direction: "rtl" } }],
    ],
    paragraph,
    (deck) => first(deck).text[0],
  );
});

describe("the colour of a link (21.1.2.3.5)", () => {
  const led = (more: string) =>
    sp({
      text: `<a:p><a:r><a:rPr><a:solidFill><a:srgbClr val="B23A30"/></a:solidFill><a:hlinkClick r:id="" action="ppaction://hlinkshowjump?jump=firstslide">${more}</a:hlinkClick></a:rPr><a:t>back to the beginning</a:t></a:r></a:p>`,
    });
  const colourOf = (deck: Deck): RunProperties | undefined => first(deck).text[0]?.runs[0]?.properties;

  it("is that of the theme's links, whatever its words say (common practice, no source), here and in what is written", () => {
    const deck = slideOf(led(""));
    const wanted = { colour: emptyDeck("d", "D").theme.colours.link };
    expect(colourOf(deck)).toMatchObject(wanted);
    expect(colourOf(rewritten(deck))).toMatchObject(wanted);
    expect(first(deck).text[0]?.runs[0]).toMatchObject({ link: `slide:${deck.slides[0]?.id}` });
  });

  it("is that of its words where the file says so in an extension", () => {
    expect(
      colourOf(
        slideOf(
          led('<a:extLst><a:ext uri="{made-up}"><x:hlinkClr xmlns:x="urn:made-up" val="tx"/></a:ext></a:extLst>'),
        ),
      ),
    ).toMatchObject({ colour: "#b23a30" });
  });

  it("is written so where its words have a colour of their own, by themselves or by their level, and only there", () => {
    const own = '<a:extLst><a:ext uri="{made-up}"><x:hlinkClr xmlns:x="urn:made-up" val="tx"/></a:ext></a:extLst>';
    expect(colourOf(rewritten(slideOf(led(own))))).toMatchObject({ colour: "#b23a30" });
    const click = `<a:hlinkClick r:id="" action="ppaction://hlinkshowjump?jump=firstslide">${own}</a:hlinkClick>`;
    const levelled = slideOf(
      sp({
        body: '<a:bodyPr/><a:lstStyle><a:lvl1pPr><a:defRPr><a:solidFill><a:srgbClr val="5E7B35"/></a:solidFill></a:defRPr></a:lvl1pPr></a:lstStyle>',
        text: `<a:p><a:r><a:rPr>${click}</a:rPr><a:t>back</a:t></a:r></a:p>`,
      }),
    );
    const inked = (deck: Deck) => colourOf(deck)?.colour ?? deck.styles?.[String(first(deck).style)]?.[0]?.run?.colour;
    expect([inked(levelled), inked(rewritten(levelled))]).toEqual(["#5e7b35", "#5e7b35"]);
  });

  it("does not touch words without a link", () => {
    expect(
      colourOf(
        slideOf(
          sp({
            text: '<a:p><a:r><a:rPr><a:solidFill><a:srgbClr val="B23A30"/></a:solidFill></a:rPr><a:t>plain</a:t></a:r></a:p>',
          }),
        ),
      ),
    ).toMatchObject({ colour: "#b23a30" });
  });
});

describe("lines without words (endParaRPr, 21.1.2.2.3)", () => {
  const line = (size: number) => `<a:p><a:endParaRPr lang="en" sz="${size}"/></a:p>`;
  check(
    [
      [
        "are as high as they say, between words and after them",
        `<a:p><a:r><a:t>one</a:t></a:r></a:p>${line(900)}<a:p><a:r><a:t>two</a:t></a:r></a:p>${line(4000)}`,
        [
          { properties: {} },
          { properties: { words: { size: 9 } }, runs: [] },
          {},
          { properties: { words: { size: 40 } }, runs: [] },
        ],
      ],
      ["say nothing where a text has no words at all", line(900), []],
    ],
    (text) =>
      sp({
        spPr: '<a:prstGeom prst="rect"><a:avLst/></a:prstGeom><a:solidFill><a:srgbClr val="0F5C63"/></a:solidFill>',
        text,
      }),
    (deck) => first(deck).text,
  );
});

describe("how text stands in its shape (21.1.2.1.1)", () => {
  check(
    [
      [
        "insets",
        '<a:bodyPr lIns="0" tIns="45720" rIns="182880" bIns="91440"/>',
        { box: { insets: [0, 3.6, 14.4, 7.2] } },
      ],
      ["in the middle of its height", '<a:bodyPr anchor="ctr"/>', { box: { anchor: "middle" } }],
      ["at the bottom", '<a:bodyPr anchor="b"/>', { box: { anchor: "bottom" } }],
      ["in columns", '<a:bodyPr numCol="3" spcCol="182880"/>', { box: { columns: 3, gap: 14.4 } }],
      ["without breaks", '<a:bodyPr wrap="none"/>', { box: { wrap: false } }],
      ["made smaller to fit", "<a:bodyPr><a:normAutofit/></a:bodyPr>", { box: { fit: "shrink" } }],
      ["in a shape that grows", "<a:bodyPr><a:spAutoFit/></a:bodyPr>", { box: { fit: "grow" } }],
      ["not fitted", "<a:bodyPr><a:noAutofit/></a:bodyPr>", { box: { fit: "none" } }],
      ["running down", '<a:bodyPr vert="vert"/>', { box: { turn: 90 } }],
      ["running up", '<a:bodyPr vert="vert270"/>', { box: { turn: 270 } }],
    ],
    (body) => sp({ body }),
    (deck) => first(deck),
  );
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

describe("what is no element, among shapes that are changed", () => {
  // Empty places (19.7.10) say nothing on a slide and stay in the file.
  const place = (id: number) =>
    `<p:sp><p:nvSpPr><p:cNvPr id="${id}" name="Place ${id}"/><p:cNvSpPr/><p:nvPr><p:ph type="body" idx="${id}"/></p:nvPr></p:nvSpPr><p:spPr/><p:txBody><a:bodyPr/><a:p><a:endParaRPr/></a:p></p:txBody></p:sp>`;
  const shape = (id: number) =>
    sp({}).replace('id="2" name="One"', `id="${id}" name="Shape ${id}"`).replace("word", `word ${id}`);
  const file = zipSync({
    ...base,
    "ppt/slides/slide1.xml": strToU8(
      `${HEAD}${place(10)}${shape(11)}${place(12)}${place(13)}${shape(14)}${shape(15)}${place(16)}</p:spTree></p:cSld></p:sld>`,
    ),
  });
  const names = (elements: (given: Slide["elements"]) => Slide["elements"]): string[] => {
    const deck = read(file);
    const [slide] = deck.slides as [Slide];
    const text = strFromU8(
      must(
        unzipSync(
          WRITERS.pptx.write(
            { ...deck, slides: [{ ...slide, elements: elements(slide.elements) }] },
            context,
          ) as Uint8Array,
        )["ppt/slides/slide1.xml"],
      ),
    );
    return [...text.matchAll(/<p:cNvPr id="\d+" name="([^"]+)"/g)].map(([, name = ""]) => name);
  };
  const moved = <E extends Slide["elements"][number]>(element: E): E => ({
    ...element,
    frame: { x: 0, y: 0, width: 50, height: 50 },
  });
  it("stays behind what it stood behind when shapes are moved", () => {
    expect(names((given) => given.map(moved))).toEqual([
      "Place 10",
      "Shape 11",
      "Place 12",
      "Place 13",
      "Shape 14",
      "Shape 15",
      "Place 16",
    ]);
  });
  it("goes along when shapes change their order, and stays when they go", () => {
    expect(names(([one, two, three]) => [three, one, two].flatMap((element) => element ?? []))).toEqual([
      "Place 10",
      "Shape 15",
      "Shape 11",
      "Place 12",
      "Place 13",
      "Shape 14",
      "Place 16",
    ]);
    expect(names(([one]) => [one].flatMap((element) => element ?? []))).toEqual([
      "Place 10",
      "Shape 11",
      "Place 12",
      "Place 13",
      "Place 16",
    ]);
    expect(names(() => [])).toEqual(["Place 10", "Place 12", "Place 13", "Place 16"]);
  });
});

describe("list styles of a master", () => {
  // ECMA-376-1, 21.1.2.4.2 (buBlip): the relationship is one of the part in which it stands.
  it("put the picture of their own part before items of every slide", () => {
    const master = must(Object.keys(base).find((path) => /slideMasters\/[^/]*\.xml$/.test(path)));
    const links = master.replace(/([^/]*)$/, "_rels/$1.rels");
    const media = must(Object.keys(base).find((path) => /ppt\/media\//.test(path)));
    const parts = {
      ...base,
      [master]: strToU8(
        strFromU8(must(base[master])).replace(
          /(<p:otherStyle>[\s\S]*?<a:lvl1pPr\b[^>]*>)[\s\S]*?(<a:defRPr)|<p:otherStyle\/>/,
          (whole, open?: string, rest?: string) =>
            open ? `${open}<a:buBlip><a:blip r:embed="rIdSign"/></a:buBlip>${rest}` : whole,
        ),
      ),
      [links]: strToU8(
        strFromU8(must(base[links])).replace(
          "</Relationships>",
          `<Relationship Id="rIdSign" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/image" Target="../media/${media.split("/").at(-1)}"/></Relationships>`,
        ),
      ),
      "ppt/slides/slide1.xml": strToU8(
        `${HEAD}${sp({ text: "<a:p><a:r><a:t>item</a:t></a:r></a:p>" })}</p:spTree></p:cSld></p:sld>`,
      ),
    };
    expect(strFromU8(must(parts[master]))).toContain("rIdSign");
    const found = propertiesOf(read(zipSync(parts)));
    expect(found.text).toMatchObject([
      { kind: "bullet", properties: { bullet: { picture: `sign-${sha256(photo).slice(0, 24)}.png` } } },
    ]);
  });
});
