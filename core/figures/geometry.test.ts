import { must } from "@unitext/core/model";
import { resolveGeometry, guideValues, knowsPreset } from "./index";

const numbers = (preset: string, adjust?: Record<string, number>) =>
  resolveGeometry({ preset, ...(adjust ? { adjust } : {}) }, 100, 60)
    .outlines[0]?.d.match(/[MLZ]|-?[\d.]+/g)
    ?.map((part) => (/[MLZ]/.test(part) ? part : Math.round(Number(part) * 100) / 100))
    .join(" ");

// The guide formulas of presetShapeDefinitions.xml (ECMA-376-1, annex D), worked by hand for a shape of 100 by 60: ss is 60.
describe("preset forms", () => {
  it.each([
    ["triangle", undefined, "M 0 60 L 50 0 L 100 60 Z"],
    ["triangle", { adj: 20000 }, "M 0 60 L 20 0 L 100 60 Z"],
    ["rtTriangle", undefined, "M 0 60 L 0 0 L 100 60 Z"],
    ["diamond", undefined, "M 0 30 L 50 0 L 100 30 L 50 60 Z"],
    // x2 = ss·25000/100000 = 15, x5 = 100 − 15.
    ["parallelogram", undefined, "M 0 60 L 15 0 L 100 0 L 85 60 Z"],
    // x1 = ss·25000/100000 = 15; dy1 = sin 60° of 30·1.1547 = 30, so that the corners are at top and bottom.
    ["hexagon", undefined, "M 0 30 L 15 0 L 85 0 L 100 30 L 85 60 L 15 60 Z"],
    // x1 = ss·29289/100000 = 17.57.
    ["octagon", undefined, "M 0 17.57 L 17.57 0 L 82.43 0 L 100 17.57 L 100 42.43 L 82.43 60 L 17.57 60 L 0 42.43 Z"],
    // x1 = ss·25000/100000 = 15.
    [
      "plus",
      undefined,
      "M 0 15 L 15 15 L 15 0 L 85 0 L 85 15 L 100 15 L 100 45 L 85 45 L 85 60 L 15 60 L 15 45 L 0 45 Z",
    ],
    // The head is ss·50000/100000 = 30 long, the shaft 60·50000/100000 = 30 high.
    ["rightArrow", undefined, "M 0 15 L 70 15 L 70 0 L 100 30 L 70 60 L 70 45 L 0 45 Z"],
    // x1 = ss·50000/100000 = 30, x2 = 100 − 30.
    ["chevron", undefined, "M 0 0 L 70 0 L 100 30 L 70 60 L 0 60 L 30 30 Z"],
    // x1 = 60·33333/100000 = 20, g1 = 60·20/100 = 12; x2 = 100 − 20·100/60, y2 = 60 − 20·60/100.
    ["halfFrame", undefined, "M 0 0 L 100 0 L 66.67 20 L 20 20 L 20 48 L 0 60 Z"],
    // The shaft is 60·25000/100000 = 15 wide, the head twice as wide and 15 high.
    ["bentUpArrow", undefined, "M 0 45 L 77.5 45 L 77.5 15 L 70 15 L 85 0 L 100 15 L 92.5 15 L 92.5 60 L 0 60 Z"],
    [
      "dodecagon",
      undefined,
      "M 0 21.96 L 13.4 8.04 L 36.6 0 L 63.4 0 L 86.6 8.04 L 100 21.96 L 100 38.04 L 86.6 51.96 L 63.4 60 L 36.6 60 L 13.4 51.96 L 0 38.04 Z",
    ],
    // The shaft is 60·25000/100000 = 15 wide, the head twice as wide and 15 long; the outer bend has a radius of 60·43750/100000 = 26.25, the inner one 15 less.
    [
      "bentArrow",
      undefined,
      "M 0 60 L 0 33.75 26.25 26.25 0 0 1 26.25 7.5 L 85 7.5 L 85 0 L 100 15 L 85 30 L 85 22.5 L 26.25 22.5 11.25 11.25 0 0 0 15 33.75 L 15 60 Z",
    ],
    // x1 = ss·25000/100000 = 15; the head is 30 wide, its shaft 15; the box has 64977/100000 of the width.
    [
      "leftArrowCallout",
      undefined,
      "M 0 30 L 15 15 L 15 22.5 L 35.02 22.5 L 35.02 0 L 100 0 L 100 60 L 35.02 60 L 35.02 37.5 L 15 37.5 L 15 45 Z",
    ],
    // The corners lie a twentieth of the diagonal, 5.83, apart from the sides.
    [
      "cornerTabs",
      undefined,
      "M 0 0 L 5.83 0 L 0 5.83 Z M 0 54.17 L 5.83 60 L 0 60 Z M 94.17 0 L 100 0 L 100 5.83 Z M 100 54.17 L 100 60 L 94.17 60 Z",
    ],
    ["lineInv", undefined, "M 0 60 L 100 0"],
    ["nonIsoscelesTrapezoid", { adj1: 25000, adj2: 50000 }, "M 0 60 L 15 0 L 70 0 L 100 60 Z"],
    ["homePlate", undefined, "M 0 0 L 70 0 L 100 30 L 70 60 L 0 60 Z"],
  ] as [string, Record<string, number> | undefined, string][])("%s with %j", (preset, adjust, wanted) => {
    expect(numbers(preset, adjust)).toBe(wanted);
  });

  it("round corners by ss·16667/100000, and their text stands off by 29289 of 100000 of that", () => {
    const { outlines, text } = resolveGeometry({ preset: "roundRect" }, 100, 60);
    expect(outlines[0]?.d.startsWith("M0 10A10 10 0 0 1 10 0L90 0A10 10 0 0 1 100 10")).toBe(true);
    expect(text.x).toBeCloseTo(2.929, 2);
    expect(text.width).toBeCloseTo(100 - 2 * 2.929, 2);
  });

  it("an ellipse is one, and its text area is the rectangle at 45°", () => {
    const { outlines, text } = resolveGeometry({ preset: "ellipse" }, 100, 60);
    expect(outlines[0]?.d).toMatch(/^M0 30A50 30 0 0 1 /);
    expect(text.x).toBeCloseTo(50 * (1 - Math.SQRT1_2), 3);
    expect(text.height).toBeCloseTo(60 * Math.SQRT1_2, 3);
  });

  it("callouts lead from their side to what they speak of", () => {
    // y1 = 60·18750/100000 = 11.25, x1 = −8.33; y2 = 60·112500/100000 = 67.5, x2 = −38.33.
    const { outlines } = resolveGeometry({ preset: "borderCallout1" }, 100, 60);
    expect(outlines.map(({ d, fill }) => [fill, d])).toEqual([
      [true, "M0 0L100 0L100 60L0 60Z"],
      [false, "M-8.333 11.25L-38.333 67.5"],
    ]);
  });

  it("what the standard gives in a mirror or with its axes exchanged is so", () => {
    const points = (preset: string, width: number, height: number) =>
      [...(resolveGeometry({ preset }, width, height).outlines[0]?.d ?? "").matchAll(/[ML](-?[\d.]+) (-?[\d.]+)/g)].map(
        ([, x, y]) => [Number(x), Number(y)],
      );
    const right = points("curvedRightArrow", 100, 60);
    expect(right.length).toBeGreaterThan(4);
    const near = (found: number[][], wanted: number[][]) =>
      expect(found.flat().map((value) => Math.round(value * 50))).toEqual(
        wanted.flat().map((value) => Math.round(value * 50)),
      );
    near(
      points("curvedLeftArrow", 100, 60),
      right.map(([x = 0, y = 0]) => [100 - x, y]),
    );
    near(
      points("curvedDownArrow", 60, 100),
      right.map(([x = 0, y = 0]) => [y, x]),
    );
    near(
      points("curvedUpArrow", 60, 100),
      right.map(([x = 0, y = 0]) => [y, 100 - x]),
    );
    // A callout with its text: the box below turns to the box above.
    expect(resolveGeometry({ preset: "ribbon2" }, 100, 60).text).toMatchObject({ y: 0 });
    expect(resolveGeometry({ preset: "upDownArrowCallout" }, 60, 100).text).toMatchObject({ x: 0, width: 60 });
  });

  // Worked by hand: a cubic leaves an end towards the control point beside it, an arc along its circle (SVG 2, 9.3).
  it.each([
    ["a line", "M0 0L40 30", [40, 30], [0, 0]],
    ["a curve", "M0 0C38 0 77 19 77 39", [38, 0], [77, 19]],
    ["a curve of one control point", "M0 0Q50 0 50 50", [50, 0], [50, 0]],
    ["a curve whose control points lie on its ends", "M0 0C0 0 40 30 40 30", [40, 30], [0, 0]],
    ["the last of several outlines", "M0 0L9 9M10 10C20 10 30 20 30 30", [20, 10], [30, 20]],
  ])("knows where %s leaves and reaches its ends", (_, d, next, before) => {
    const [{ ends } = { ends: undefined }] = resolveGeometry(
      { width: 100, height: 100, paths: [{ d, fill: false, stroke: true }] },
      200,
      100,
    ).outlines;
    const twice = ([x = 0, y = 0]: number[]) => [x * 2, y];
    const sloped = (a: number[] = [], b: number[] = []) =>
      Math.atan2((b[1] ?? 0) - (a[1] ?? 0), (b[0] ?? 0) - (a[0] ?? 0));
    const [from, to] = [ends?.from ?? [], ends?.to ?? []];
    expect(sloped(from, ends?.next)).toBeCloseTo(sloped(from, twice(next)), 6);
    expect(sloped(ends?.before, to)).toBeCloseTo(sloped(twice(before), to), 6);
  });
  it("knows that an arc leaves its ends along its circle, and that a closed outline has none", () => {
    const endsOf = (d: string) =>
      resolveGeometry({ width: 100, height: 100, paths: [{ d, fill: false, stroke: true }] }, 100, 100).outlines[0]
        ?.ends;
    const arc = endsOf("M10 20A10 10 0 0 1 20 30");
    expect([arc?.next[1], arc?.before[0]]).toEqual([20, 20]);
    expect(arc?.next[0]).toBeGreaterThan(10);
    expect(arc?.before[1]).toBeLessThan(30);
    expect(endsOf("M0 0L9 0L9 9Z")).toBeUndefined();
    // The same curve as one of the forms of the standard.
    const [known] = resolveGeometry({ preset: "curvedConnector2" }, 100, 60).outlines;
    expect(
      resolveGeometry({ width: 100, height: 60, paths: [{ d: must(known?.d), fill: false, stroke: true }] }, 100, 60)
        .outlines[0]?.ends,
    ).toEqual(known?.ends);
  });

  // ST_ShapeType, ECMA-376-1, 20.1.10.56; the list from memory.
  const ALL =
    "line lineInv triangle rtTriangle rect diamond parallelogram trapezoid nonIsoscelesTrapezoid pentagon hexagon heptagon octagon decagon dodecagon star4 star5 star6 star7 star8 star10 star12 star16 star24 star32 roundRect round1Rect round2SameRect round2DiagRect snipRoundRect snip1Rect snip2SameRect snip2DiagRect plaque ellipse teardrop homePlate chevron pieWedge pie blockArc donut noSmoking rightArrow leftArrow upArrow downArrow stripedRightArrow notchedRightArrow bentUpArrow leftRightArrow upDownArrow leftUpArrow leftRightUpArrow quadArrow leftArrowCallout rightArrowCallout upArrowCallout downArrowCallout leftRightArrowCallout upDownArrowCallout quadArrowCallout bentArrow uturnArrow circularArrow leftCircularArrow leftRightCircularArrow curvedRightArrow curvedLeftArrow curvedUpArrow curvedDownArrow swooshArrow cube can lightningBolt heart sun moon smileyFace irregularSeal1 irregularSeal2 foldedCorner bevel frame halfFrame corner diagStripe chord arc leftBracket rightBracket leftBrace rightBrace bracketPair bracePair straightConnector1 bentConnector2 bentConnector3 bentConnector4 bentConnector5 curvedConnector2 curvedConnector3 curvedConnector4 curvedConnector5 callout1 callout2 callout3 accentCallout1 accentCallout2 accentCallout3 borderCallout1 borderCallout2 borderCallout3 accentBorderCallout1 accentBorderCallout2 accentBorderCallout3 wedgeRectCallout wedgeRoundRectCallout wedgeEllipseCallout cloudCallout cloud ribbon ribbon2 ellipseRibbon ellipseRibbon2 leftRightRibbon verticalScroll horizontalScroll wave doubleWave plus flowChartProcess flowChartDecision flowChartInputOutput flowChartPredefinedProcess flowChartInternalStorage flowChartDocument flowChartMultidocument flowChartTerminator flowChartPreparation flowChartManualInput flowChartManualOperation flowChartConnector flowChartPunchedCard flowChartPunchedTape flowChartSummingJunction flowChartOr flowChartCollate flowChartSort flowChartExtract flowChartMerge flowChartOfflineStorage flowChartOnlineStorage flowChartMagneticTape flowChartMagneticDisk flowChartMagneticDrum flowChartDisplay flowChartDelay flowChartAlternateProcess flowChartOffpageConnector actionButtonBlank actionButtonHome actionButtonHelp actionButtonInformation actionButtonForwardNext actionButtonBackPrevious actionButtonEnd actionButtonBeginning actionButtonReturn actionButtonDocument actionButtonSound actionButtonMovie gear6 gear9 funnel mathPlus mathMinus mathMultiply mathDivide mathEqual mathNotEqual cornerTabs squareTabs plaqueTabs chartX chartStar chartPlus".split(
      " ",
    );
  it("all forms of the standard are drawn, with numbers alone, at any size", () => {
    expect(ALL).toHaveLength(187);
    expect(ALL.filter((name) => !knowsPreset(name))).toEqual([]);
    for (const preset of ALL) {
      for (const [width, height] of [
        [100, 60],
        [30, 200],
        [0.1, 50],
        [7, 7],
      ] as const) {
        const { outlines, text } = resolveGeometry({ preset }, width, height);
        expect(outlines.map(({ d }) => d).join("")).not.toMatch(/NaN|Infinity|undefined/);
        expect([text.x, text.y, text.width, text.height].every(Number.isFinite)).toBe(true);
      }
    }
  });

  // Worked by hand from the guides, at 100 by 100.
  it("wheels stand their teeth on a rim: th = 15, lFD = 3.526, rim 35, half a foot atan(9.263 / 35) = 14.824°", () => {
    const points = [
      ...(resolveGeometry({ preset: "gear6" }, 100, 100).outlines[0]?.d ?? "").matchAll(/[ML](-?[\d.]+) (-?[\d.]+)/g),
    ].map(([, x, y]) => [Number(x), Number(y)]);
    expect(points).toHaveLength(1 + 3 * 6);
    // The third tooth points down: A, B, C and D; A ends the arc before it.
    const lowest = points.filter(([, y = 0]) => y > 98).map(([x = 0, y = 0]) => [x.toFixed(1), y.toFixed(1)]);
    expect(lowest).toEqual([
      ["55.4", "98.8"],
      ["44.6", "98.8"],
    ]);
    const foot = points[points.findIndex(([x = 0, y = 0]) => x < 45 && y > 98) + 1] as [number, number];
    expect([foot[0].toFixed(1), foot[1].toFixed(1)]).toEqual(["41.0", "83.8"]);
    expect([...(resolveGeometry({ preset: "gear9" }, 100, 100).outlines[0]?.d ?? "").matchAll(/A/g)]).toHaveLength(9);
  });

  it("a ribbon hangs along a parabola: f1 = 4 · 12.5 / 100, y1 = f1 (37.5 − 37.5² / 100), y3 = f1 (25 − 25² / 100) + 12.5", () => {
    const d = resolveGeometry({ preset: "ellipseRibbon" }, 100, 100).outlines[0]?.d ?? "";
    const numbered = [...d.matchAll(/[MLQ][-\d. ]+/g)]
      .slice(0, 4)
      .map(
        ([part]) =>
          part[0] + (part.match(/-?[\d.]+/g) ?? []).map((value) => Number(Number(value).toFixed(2))).join(" "),
      );
    expect(numbered).toEqual(["M0 0", "Q18.75 9.38 37.5 11.72", "L25 21.88", "Q50 28.13 75 21.88"]);
  });

  it("an arrow with two points is its own likeness in a mirror where its ends stand alike", () => {
    const points = [
      ...(
        resolveGeometry({ preset: "leftRightCircularArrow", adjust: { adj3: 20457681, adj4: 11942319 } }, 100, 100)
          .outlines[0]?.d ?? ""
      ).matchAll(/L(-?[\d.]+) (-?[\d.]+)/g),
    ].map(([, x, y]) => [Number(x), Number(y)] as const);
    const [right, left] = [points.slice(0, 4), points.slice(-3)];
    // The tips: 341.0° and 199.0° are as far from straight up.
    const tip = must(right[1]);
    const other = must(left[1]);
    expect(other[0]).toBeCloseTo(100 - tip[0], 1);
    expect(other[1]).toBeCloseTo(tip[1], 1);
  });

  it("what is not known is drawn as its rectangle, and said not to be known", () => {
    expect(knowsPreset("gear7")).toBe(false);
    expect(numbers("gear7")).toBe("M 0 0 L 100 0 L 100 60 L 0 60 Z");
  });
});

// ECMA-376-1, 20.1.9.11: the operations of guides.
describe("guide formulas", () => {
  const value = (formula: string) => guideValues([{ name: "x", formula }], { a: 25000 }, 200, 100).get("x");
  it.each([
    ["*/ 10 6 4", 15],
    ["+- 7 3 2", 8],
    ["+/ 7 3 2", 5],
    ["?: -1 2 3", 3],
    ["?: 1 2 3", 2],
    ["abs -4", 4],
    ["max 3 9", 9],
    ["min 3 9", 3],
    ["mod 2 3 6", 7],
    ["pin 0 a 20000", 20000],
    ["pin 30000 a 50000", 30000],
    ["sqrt 81", 9],
    ["val a", 25000],
    ["sin 10 5400000", 10],
    ["cos 10 10800000", -10],
    ["tan 10 2700000", 10],
    ["at2 10 10", 2700000],
    ["cat2 10 3 4", 6],
    ["sat2 10 3 4", 8],
    ["*/ w 1 2", 100],
    ["*/ 1 1 0", 0],
  ] as [string, number][])("%s is %d", (formula, wanted) => {
    expect(value(formula)).toBeCloseTo(wanted, 6);
  });
});

it("outlines of one's own are stretched to the frame", () => {
  expect(
    resolveGeometry(
      { width: 10, height: 10, paths: [{ d: "M0 0L10 0A5 5 0 0 1 10 10Z", fill: true, stroke: false }] },
      100,
      20,
    ).outlines,
  ).toEqual([{ d: "M0 0L100 0A50 10 0 0 1 100 20Z", fill: true, stroke: false, shade: 0 }]);
});
