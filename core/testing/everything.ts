import {
  type Deck,
  type Element,
  emptyDeck,
  newSlide,
  plainText,
  run,
  type TextStyle,
  THEMES,
  valueHash,
} from "@unitext/core/model";

/** Names of the files that the deck shows. */
export const FILES = { photo: "dune.png", moving: "wave.gif", lines: "gauge.svg", film: "tide.mp4" } as const;

const style: TextStyle = [
  {
    run: { size: 20, colour: "#12343b", font: "Carlito" },
    paragraph: { left: 18, first: -18, bullet: { character: "▪" }, before: { points: 4 } },
  },
  {
    run: { size: 16, colour: "#12343b", font: "Carlito" },
    paragraph: { left: 36, first: -18, bullet: { character: "–" } },
  },
];
const STYLE = valueHash(style);
const box = { insets: [7.2, 3.6, 7.2, 3.6] as [number, number, number, number], fit: "none" as const };

/**
 * A made-up deck with every kind of element and every property of a slide; `assets` resolves the names of its files.
 */
export function everything(assets: Deck["assets"]): Deck {
  const title = (words: string): Element => ({ kind: "text", id: "title", slot: "title", text: plainText(words) });
  const place = (x: number, y: number, width: number, height: number) => ({ x, y, width, height });
  const cell = (words: string) => ({ text: plainText(words) });
  const deck: Deck = {
    ...emptyDeck("everything", "Gauges"),
    theme: THEMES.saltmarsh,
    language: "en-GB",
    regions: { footer: "Quay station", number: true },
    properties: { title: "Gauges", author: "The station", event: "Autumn meeting", date: "" },
    assets,
    themes: { Chalk: THEMES.chalk },
    styles: { [STYLE]: style },
    masters: {
      strip: {
        name: "Strip",
        background: { colour: "#eef3f2" },
        elements: [
          {
            kind: "shape",
            id: "m1",
            slot: null,
            frame: place(0, 500, 960, 40),
            geometry: { preset: "rect" },
            text: [],
            fill: { kind: "solid", colour: "#0f5c63" },
          },
        ],
      },
    },
    slides: [
      {
        ...newSlide("opening", "opening"),
        elements: [
          { kind: "text", id: "title", slot: "title", text: plainText("Gauges") },
          { kind: "text", id: "sub", slot: "subtitle", text: plainText("What they tell") },
        ],
        transition: { kind: "fade", seconds: 1 },
        delay: 12,
        background: { colour: "#fdf6e3" },
      },
      {
        ...newSlide("words", "points"),
        elements: [
          title("Words"),
          {
            kind: "text",
            id: "body",
            slot: "body",
            steps: true,
            binding: { source: "gauges.xlsx", range: "Levels!A1:B3", mode: "latest" },
            text: [
              {
                kind: "bullet",
                level: 0,
                runs: [
                  run("See "),
                  run("the page", [], "https://example.org/gauges"),
                  run(" and "),
                  run("the shapes", ["strong"], "slide:shapes"),
                ],
              },
              {
                kind: "bullet",
                level: 1,
                runs: [run("gone", [], "slide:nowhere"), run(", elsewhere", [], "deck:other/one")],
              },
              {
                kind: "number",
                level: 0,
                runs: [
                  run("with a note"),
                  { text: "", footnote: [run("Read at noon.")] },
                  run(" and "),
                  run("x^2", ["formula"]),
                ],
              },
            ],
          },
        ],
        notes: plainText("Speak slowly here.\nThen wait."),
        voice: { source: FILES.film, seconds: 4.2, notesHash: "notes" },
      },
      { ...newSlide("detail", "title"), parent: "words", hidden: true, elements: [title("A detail")] },
      {
        ...newSlide("groups", "points"),
        elements: [
          title("In groups"),
          {
            kind: "text",
            id: "grouped",
            slot: "body",
            steps: true,
            text: (["shown", undefined, "with", undefined] as const).map((step, nth) => ({
              kind: "bullet",
              level: 0,
              ...(step ? { step } : {}),
              runs: [run(`point ${nth}`)],
            })),
          },
        ],
      },
      {
        ...newSlide("figures", "blank"),
        section: "Figures",
        elements: [
          {
            kind: "table",
            id: "t",
            slot: null,
            frame: place(40, 40, 400, 120),
            header: 1,
            align: ["start", "start"],
            widths: [240, 160],
            heights: [40, 40, 40],
            rows: [
              [{ ...cell("Gauge"), fill: { kind: "solid", colour: "#0f5c63" } }, cell("Metres")],
              [cell("North"), cell("2.4")],
              [{ ...cell("both"), columns: 2 }, null],
            ],
          },
          {
            kind: "chart",
            id: "c",
            slot: null,
            frame: place(480, 40, 420, 240),
            type: "column",
            categories: ["Jan", "Feb", "Mar"],
            series: [
              { name: "North", values: [1.5, 2.25, null], colour: "#0f5c63" },
              { name: "South", values: [2, 1, 3], colour: "#7a2e57", points: [null, "#b9771f", null] },
            ],
            stack: "sum",
            title: "Levels",
            legend: "bottom",
            labels: "value",
            format: "0.00",
            yAxis: { title: "metres", min: 0, max: 6 },
          },
          {
            kind: "chart",
            id: "s",
            slot: null,
            frame: place(480, 300, 420, 200),
            type: "scatter",
            categories: [],
            series: [{ name: "Wind", values: [3, 5, 4], x: [1, 2, 3.5] }],
            legend: "none",
          },
          {
            kind: "chart",
            id: "w",
            slot: null,
            frame: place(480, 500, 420, 36),
            type: "combined",
            categories: ["Jan", "Feb"],
            series: [
              { name: "North", values: [1, 2], type: "column" },
              { name: "Visitors", values: [900, 1200], type: "line", smooth: true, axis: "secondary" },
            ],
            secondaryAxis: { title: "people", max: 1500, format: "#,##0" },
            xAxis: { reversed: true },
          },
          {
            kind: "chart",
            id: "p",
            slot: null,
            frame: place(40, 300, 400, 200),
            type: "doughnut",
            categories: ["Sand", "Mud"],
            series: [{ name: "Share", values: [3, 1] }],
            legend: "right",
            labels: "share",
          },
        ],
      },
      {
        ...newSlide("pictures", "blank"),
        theme: "Chalk",
        background: {
          fill: {
            kind: "gradient",
            form: "linear",
            angle: 90,
            stops: [
              { at: 0, colour: "#ffffff" },
              { at: 1, colour: "#d7e4e2" },
            ],
          },
        },
        elements: [
          {
            kind: "picture",
            id: "a",
            slot: null,
            frame: place(40, 40, 200, 150),
            source: FILES.photo,
            alt: "A dune",
            crop: { left: 0.1, top: 0.2, right: 0, bottom: 0 },
            opacity: 0.5,
            recolour: "grey",
            rotation: 20,
            link: "https://example.org/dune",
          },
          {
            kind: "picture",
            id: "b",
            slot: null,
            frame: place(300, 40, 200, 150),
            source: FILES.moving,
            alt: "A wave",
            flip: "x",
            entrance: { order: 0, trigger: "press", effect: "fade", seconds: 0.5 },
          },
          {
            kind: "picture",
            id: "r",
            slot: null,
            frame: place(560, 220, 200, 150),
            source: FILES.photo,
            alt: "A dune in a round frame",
            shape: { preset: "ellipse" },
            entrance: { order: 1, trigger: "after", effect: "wipe", seconds: 1, delay: 0.25 },
          },
          { kind: "picture", id: "m", slot: null, frame: place(560, 40, 200, 150), source: "lost.png", alt: "Lost" },
          {
            kind: "picture",
            id: "l",
            slot: null,
            frame: place(800, 220, 120, 120),
            source: FILES.lines,
            alt: "A gauge in lines",
          },
          {
            kind: "media",
            id: "f",
            slot: null,
            frame: place(40, 240, 320, 180),
            source: FILES.film,
            type: "video",
            poster: FILES.photo,
            alt: "The tide",
          },
        ],
        unsupportedMotion: ["the exit of “A dune”"],
      },
      {
        ...newSlide("shapes", "blank"),
        elements: [
          {
            kind: "shape",
            id: "star",
            slot: null,
            name: "Star",
            frame: place(40, 40, 120, 120),
            rotation: 15,
            geometry: { preset: "star5" },
            text: plainText("here"),
            style: STYLE,
            box: { ...box, anchor: "middle" },
            fill: {
              kind: "gradient",
              form: "linear",
              angle: 45,
              stops: [
                { at: 0, colour: "#ffcc00" },
                { at: 0.4, colour: "#ff8800" },
                { at: 1, colour: "#cc2200" },
              ],
            },
            stroke: { colour: "#20302e", width: 2, dash: "dash" },
            shadow: { colour: "#000000", opacity: 0.4, blur: 6, distance: 4, direction: 45 },
            groups: ["g"],
          },
          {
            kind: "shape",
            id: "line",
            slot: null,
            name: "Arrow",
            frame: place(200, 40, 120, 80),
            flip: "y",
            geometry: { preset: "line" },
            text: [],
            stroke: { colour: "#b23a30", width: 3, tail: { form: "triangle", size: 3 } },
            groups: ["g"],
          },
          {
            kind: "shape",
            id: "path",
            slot: null,
            name: "Wave",
            frame: place(360, 40, 200, 100),
            geometry: {
              width: 100,
              height: 50,
              paths: [{ d: "M0 25C25 0 75 50 100 25L100 50L0 50Z", fill: true, stroke: true }],
            },
            text: [],
            fill: { kind: "pattern", pattern: "cross", fore: "#0f5c63", back: "#ffffff" },
            stroke: { colour: "#0f5c63", width: 1 },
            link: "slide:words",
          },
          {
            kind: "text",
            id: "box",
            slot: null,
            name: "Box",
            frame: place(40, 220, 300, 160),
            style: STYLE,
            box: { ...box, columns: 2, gap: 12, anchor: "bottom" },
            fill: { kind: "solid", colour: "#ffffff", opacity: 0.8 },
            text: [
              {
                kind: "bullet",
                level: 0,
                runs: [
                  run("plain "),
                  run("loud", ["strong"], undefined, { size: 30, colour: "#b23a30", underline: "double", spacing: 2 }),
                ],
              },
              {
                kind: "bullet",
                level: 1,
                align: "end",
                properties: { line: { times: 1.5 } },
                runs: [run("caps", [], undefined, { caps: "small", highlight: "#fff2a8" })],
              },
            ],
          },
          {
            kind: "text",
            id: "signs",
            slot: null,
            name: "Signs",
            style: STYLE,
            box,
            frame: place(360, 220, 200, 40),
            text: [
              { kind: "bullet", level: 0, properties: { bullet: { picture: FILES.photo } }, runs: [run("signed")] },
            ],
          },
          {
            kind: "foreign",
            id: "x",
            slot: null,
            sourceShape: { shape: "9", hash: "", unsupported: ["the glow"] },
            frame: place(600, 220, 200, 120),
            what: "an embedded object",
            text: plainText("Table of tides"),
            alt: "Table of tides",
            picture: FILES.photo,
          },
          {
            kind: "shape",
            id: "arrow",
            slot: null,
            name: "Tip",
            frame: place(40, 380, 120, 0),
            geometry: { preset: "line" },
            text: [],
            stroke: { colour: "#20302e", width: 0.5, tail: { form: "triangle", size: 9 } },
          },
        ],
        master: "strip",
        regions: [
          { region: "footer", text: "Quay", frame: place(40, 505, 300, 24), style: STYLE },
          { region: "number", text: "‹#›", frame: place(860, 505, 60, 24) },
        ],
        comments: [{ id: "c1", author: "Ines", text: "Larger?", date: "2026-03-01T10:00:00Z" }],
      },
      {
        ...newSlide("code", "points"),
        elements: [
          title("Code"),
          { kind: "code", id: "code", slot: "body", language: "python", text: "def tide(hour):\n    return 2" },
        ],
      },
      {
        ...newSlide("formula", "points"),
        elements: [title("Formula"), { kind: "formula", id: "formula", slot: "body", tex: "a^2+b^2=c^2" }],
      },
      {
        ...newSlide("diagram", "points"),
        elements: [
          title("Diagram"),
          {
            kind: "diagram",
            id: "diagram",
            slot: "body",
            type: "steps",
            text: [
              { kind: "bullet", level: 0, runs: [run("read")] },
              { kind: "bullet", level: 0, runs: [run("note")] },
            ],
          },
        ],
      },
    ],
  };
  return deck;
}
