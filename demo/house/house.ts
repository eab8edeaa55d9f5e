import { wavOf } from "@unitext/core/film";
import { type Deck, type Element, emptyDeck, plainText, run, type Slide, THEMES, must } from "@unitext/core/model";
import {
  words,
  at,
  COVER,
  page,
  BODY,
  bullets,
  RUST,
  shape,
  ON_DARK,
  solid,
  SEA,
  PLAIN,
  FOAM,
  head,
  cell,
  chart,
  SAND,
  comes,
  NAVY,
  CLOTH,
  SMALL,
  staff,
  STYLES,
  MASTERS,
} from "./housestyle";

/**
 * A deck in the station's house style with every kind of element that files of other programs bring; its files have the
 * given names.
 */
export function houseDeck(
  files: { assets: Deck["assets"]; picture: string; profile: string; gauge: string; sound: string },
  what: "report" | "open day",
): Deck {
  const report = what === "report";
  const slides: Slide[] = [
    {
      id: "cover",
      parent: null,
      arrangement: "opening",
      master: "cover",
      notes: plainText("Wait until the door is shut."),
      hidden: false,
      transition: { kind: "fade", seconds: 1 },
      elements: [
        words("title", at(72, 170, 760, 130), COVER, plainText(report ? "The quay in autumn" : "Open day at the bay"), {
          slot: "title",
          box: { anchor: "bottom" },
        }),
        words(
          "sub",
          at(72, 310, 760, 40),
          COVER,
          [
            {
              kind: "plain",
              level: 1,
              runs: [run(report ? "What the gauges and the dunes have told" : "What there is to see, and when")],
            },
          ],
          { slot: "subtitle" },
        ),
      ],
    },
    page(
      "points",
      report ? "In a few words" : "Where to go first",
      [
        words(
          "body",
          at(56, 112, 520, 360),
          BODY,
          bullets(
            [
              0,
              run("The highest water came on "),
              run("12 October", ["strong"], undefined, { colour: RUST }),
              run(", at 4.31 m"),
            ],
            [1, run("two hours after the wind had turned")],
            [0, run("Line 4 lost its foot again, see "), run("the profile", [], "slide:pictures")],
            [1, run("the fence of 2024 is buried")],
            [0, run("All readings are in "), run("the open book", [], "https://example.org/marram-bay/book")],
            [
              0,
              run("CO"),
              run("2", [], undefined, { rise: -0.25 }),
              run(" is read "),
              run("hourly", [], undefined, { underline: "wavy" }),
              run(" since "),
              run("may", [], undefined, { caps: "small" }),
            ],
          ),
        ),
        shape("call", at(620, 130, 284, 190), "wedgeRoundRectCallout", {
          style: ON_DARK,
          box: { anchor: "middle", insets: [14, 10, 14, 10], fit: "none" },
          fill: solid(SEA),
          shadow: { colour: "#000000", opacity: 0.3, blur: 6, distance: 4, direction: 45 },
          text: [
            { kind: "plain", level: 0, runs: [run("4.31 m", [], undefined, { size: 44 })] },
            {
              kind: "plain",
              level: 0,
              runs: [run("the highest since the staff was set", [], undefined, { size: 16 })],
            },
          ],
        }),
        words(
          "aside",
          at(620, 370, 284, 100),
          PLAIN,
          plainText("Two columns of small text stand here, as they do in many files that come from elsewhere."),
          {
            box: { columns: 2, gap: 14, insets: [10, 8, 10, 8] },
            fill: solid(FOAM),
            stroke: { colour: SEA, width: 1, dash: "dash" },
          },
        ),
      ],
      "Say the number first.\nThen wait for questions.",
      {
        comments: [
          { id: "c1", author: "Head of station", text: "Shorter, if it can be.", date: "2026-10-20T09:00:00Z" },
        ],
      },
    ),
    page(
      "table",
      "Read at the staff",
      [
        {
          kind: "table",
          id: "table",
          slot: null,
          frame: at(56, 112, 440, 260),
          style: PLAIN,
          header: 1,
          align: ["start", "end", "end"],
          widths: [200, 120, 120],
          heights: [44, 36, 36, 36, 36, 36],
          rows: [
            [head("Month"), head("Mean, m"), head("Highest, m")],
            ...(
              [
                ["August", "2.58", "3.90"],
                ["September", "2.64", "4.12"],
                ["October", "2.71", "4.31"],
              ] as const
            ).map((row, nth) => row.map((text, x) => cell(text, nth % 2 === 1, x > 0))),
            [{ ...cell("All months together", true), columns: 2 }, null, cell("4.31", true, true)],
          ],
        },
        chart("levels", at(520, 112, 384, 360), {
          type: "combined",
          categories: ["Aug", "Sep", "Oct"],
          series: [
            { name: "Mean", values: [2.58, 2.64, 2.71], type: "column", colour: SEA },
            { name: "Highest", values: [3.9, 4.12, 4.31], type: "line", colour: RUST },
          ],
          title: "Levels at the quay",
          legend: "bottom",
          format: "0.0",
          yAxis: { title: "metres", min: 0, max: 5 },
        }),
      ],
      "The mean moves slowly. The highest is what the harbour asks for.",
    ),
    page(
      "charts",
      "In charts",
      [
        chart("stack", at(56, 108, 420, 190), {
          type: "column",
          categories: ["Line 1", "Line 2", "Line 3", "Line 4"],
          series: [
            { name: "Foredune", values: [12, 14, 9, 4], colour: SEA },
            { name: "Back dune", values: [20, 18, 22, 19], colour: SAND },
          ],
          stack: "sum",
          legend: "right",
          title: "Sand, m³ per metre",
        }),
        chart("share", at(500, 108, 404, 190), {
          type: "doughnut",
          categories: ["Marram", "Bare sand", "Fence"],
          series: [{ name: "Cover", values: [62, 30, 8] }],
          labels: "share",
          legend: "right",
          title: "What covers line 3",
          entrance: comes(0, "press", "fade"),
        }),
        chart("area", at(56, 308, 420, 190), {
          type: "area",
          categories: ["Mon", "Tue", "Wed", "Thu", "Fri"],
          series: [{ name: "Visitors", values: [40, 55, 52, 71, 96], colour: NAVY }],
          legend: "none",
          title: "Visitors on the path",
          entrance: comes(1, "press", "fade"),
        }),
        chart("points", at(500, 308, 404, 190), {
          type: "scatter",
          series: [{ name: "Days", values: [2.4, 2.9, 3.1, 3.6, 4.3], x: [3, 8, 11, 15, 21], colour: RUST }],
          legend: "none",
          title: "Wind and water",
          xAxis: { title: "wind, m/s" },
          yAxis: { title: "level, m" },
          entrance: comes(2, "press", "grow"),
        }),
      ],
      "One at a time; leave the last for questions.",
    ),
    page(
      "pictures",
      "Pictures",
      [
        {
          kind: "picture",
          id: "crop",
          slot: null,
          frame: at(56, 112, 420, 200),
          source: files.profile,
          alt: "The profile of line 4, its foot enlarged",
          crop: { left: 0.1, top: 0.1, right: 0.35, bottom: 0.12 },
          stroke: { colour: NAVY, width: 1.5 },
        },
        {
          kind: "picture",
          id: "round",
          slot: null,
          frame: at(520, 112, 200, 200),
          source: files.picture,
          alt: "Fourteen days of tides in a round frame",
          shape: { preset: "ellipse" },
          crop: { left: 0.25, top: 0, right: 0.25, bottom: 0 },
        },
        {
          kind: "picture",
          id: "turned",
          slot: null,
          frame: at(744, 128, 160, 90),
          source: files.picture,
          alt: "The same, turned",
          rotation: -8,
          stroke: { colour: "#ffffff", width: 6 },
          shadow: { colour: "#000000", opacity: 0.35, blur: 8, distance: 3, direction: 90 },
        },
        {
          kind: "picture",
          id: "grey",
          slot: null,
          frame: at(56, 334, 200, 110),
          source: files.picture,
          alt: "The same in grey",
          recolour: "grey",
        },
        {
          kind: "media",
          id: "sound",
          slot: null,
          frame: at(284, 334, 192, 110),
          source: files.sound,
          type: "audio",
          poster: files.picture,
          alt: "The bell of the quay",
        },
        {
          kind: "picture",
          id: "lines",
          slot: null,
          frame: at(804, 330, 90, 145),
          source: files.gauge,
          alt: "The gauge on the quay, drawn in lines",
        },
        words(
          "caption",
          at(520, 334, 270, 60),
          PLAIN,
          plainText("Cut, round, turned, grey, in lines, and with a sound behind it."),
          {},
        ),
      ],
      "Play the bell once.",
    ),
    page(
      "shapes",
      report ? "How a reading travels" : "How the day goes",
      [
        ...["Staff", "Book", "Office", "Report"].flatMap((name, nth): Element[] => [
          shape(
            `step${nth}`,
            at(56 + nth * 220, 150, 170, 80),
            must(["ellipse", "foldedCorner", "hexagon", "roundRect"][nth]),
            {
              style: ON_DARK,
              box: { anchor: "middle", insets: [6, 4, 6, 4], fit: "none" },
              fill: nth % 2 ? solid(SEA) : CLOTH,
              text: plainText(name),
              ...(nth ? { entrance: comes(nth * 2 - 1, "after", "fade") } : {}),
              ...(nth === 3 ? { link: "slide:table" } : {}),
            },
          ),
          ...(nth < 3
            ? [
                shape(`way${nth}`, at(226 + nth * 220, 190, 50, 0.1), "line", {
                  stroke: { colour: RUST, width: 3, tail: { form: "triangle", size: 3 } },
                  entrance: comes(nth * 2, "press", "wipe"),
                }),
              ]
            : []),
        ]),
        shape("star", at(96, 290, 130, 130), "star5", {
          rotation: 12,
          fill: {
            kind: "gradient",
            form: "radial",
            angle: 0,
            stops: [
              { at: 0, colour: "#fff3c4" },
              { at: 1, colour: "#e0a830" },
            ],
          },
          stroke: { colour: RUST, width: 2 },
        }),
        shape("wave", at(280, 300, 180, 100), "wave", {
          fill: { kind: "pattern", pattern: "horizontal", fore: SEA, back: FOAM },
          stroke: { colour: SEA, width: 1.5 },
        }),
        shape("ring", at(510, 290, 120, 120), "donut", {
          fill: solid(SAND),
          stroke: { colour: NAVY, width: 1, dash: "dot" },
        }),
        shape("arrow", at(680, 300, 200, 100), "rightArrow", {
          flip: "x",
          fill: solid(RUST),
          style: ON_DARK,
          text: plainText("back"),
          box: { anchor: "middle", insets: [4, 4, 4, 4], fit: "none" },
        }),
        words("up", at(30, 300, 120, 24), SMALL, plainText("turned on its side"), { rotation: -90 }),
      ],
      "Follow one reading from the staff to the page.",
      { transition: { kind: "push", seconds: 0.5 } },
    ),
    page(
      "hidden",
      "Kept back",
      [
        words(
          "body",
          at(56, 112, 700, 200),
          BODY,
          bullets([0, run("What the insurance asked")], [0, run("Answers for the council")]),
        ),
      ],
      "Only if somebody asks.",
      { hidden: true },
    ),
    page(
      "reckoned",
      report ? "How the mean is reckoned" : "Reckon it yourself",
      [
        {
          kind: "formula",
          id: "mean",
          slot: null,
          frame: at(56, 108, 400, 96),
          tex: "\\bar{h} = \\frac{1}{n}\\sum_{i=1}^{n} h_i",
        },
        {
          kind: "code",
          id: "script",
          slot: null,
          frame: at(56, 220, 400, 130),
          language: "python",
          text: 'levels = [2.41, 2.58, 2.96]\nmean = sum(levels) / len(levels)\nprint(f"{mean:.2f} m")',
        },
        {
          kind: "diagram",
          id: "ways",
          slot: null,
          frame: at(56, 366, 400, 120),
          type: "steps",
          text: bullets([0, run("Read")], [0, run("Add up")], [0, run("Divide")]),
        },
        {
          kind: "table",
          id: "worked",
          slot: null,
          frame: at(500, 112, 404, 144),
          style: PLAIN,
          header: 1,
          align: ["start", "end", "end"],
          widths: [144, 130, 130],
          heights: [36, 36, 36, 36],
          rows: [
            [{ ...head("Three readings of one morning"), columns: 3 }, null, null],
            [{ ...cell("Staff", true), rows: 3 }, cell("6:00", false, true), cell("2.41", false, true)],
            [null, cell("7:00", true, true), cell("2.58", true, true)],
            [null, cell("8:00", false, true), cell("2.96", false, true)],
          ],
        },
        ...staff(640, 290),
      ],
      "Let them divide by themselves.",
    ),
  ];
  return {
    ...emptyDeck(report ? "quay-in-autumn" : "open-day", report ? "The quay in autumn" : "Open day at the bay"),
    language: "en-GB",
    theme: { ...THEMES.foreshore, fonts: { heading: "Carlito", body: "Carlito", code: "JetBrains Mono" } },
    regions: { footer: "", number: false },
    properties: {
      title: report ? "The quay in autumn" : "Open day at the bay",
      author: "Marram Bay Field Station",
      event: report ? "Autumn meeting" : "Open day",
      date: "",
    },
    assets: files.assets,
    styles: STYLES,
    masters: MASTERS,
    slides,
  };
}

/** A bell: a second of a falling tone as a sound file (RIFF, 16 bits, 8,000 a second). */
export function bell(): Uint8Array {
  const rate = 8000;
  const tone = (at: number) => Math.sin((2 * Math.PI * 660 * at) / rate) * Math.exp((-4 * at) / rate) * 12000;
  return wavOf(
    Int16Array.from({ length: rate }, (_, at) => Math.round(tone(at))),
    rate,
  );
}
