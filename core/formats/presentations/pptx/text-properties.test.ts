import { type Deck, emptyDeck, type RunProperties } from "@unitext/core/model";
import { sha256 } from "@unitext/core/testing/files";
import {
  photo,
  pictureId,
  slideOf,
  rewritten,
  sp,
  first,
  type Row,
  readTwice,
} from "@unitext/core/testing/pptxproperties";

const check = (rows: Row[], shape: (xml: string) => string, part: (deck: Deck) => unknown) =>
  it.each(rows)("%s", (_, xml, wanted) => {
    for (const found of readTwice(shape(xml), part)) expect(found).toMatchObject(wanted);
  });

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
      // ECMA-376-1, 20.1.2.3.23: a lumMod of 50 % halves the luminance. Worked by hand: #ff0000 becomes #800000.
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
