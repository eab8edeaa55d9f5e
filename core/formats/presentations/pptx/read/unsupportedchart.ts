import { at, child, childrenOf, localName, type XmlElement } from "../../../shared/xml";

/** Elements of a chart part that are read and drawn (ECMA-376-1, 21.2.2), or have no visible effect. */
const READ = new Set(
  "chartSpace date1904 lang roundedCorners style clrMapOvr protection externalData autoUpdate printSettings chart title tx rich overlay autoTitleDeleted plotArea layout barChart lineChart areaChart pieChart doughnutChart scatterChart barDir grouping varyColors scatterStyle ser idx order cat val xVal yVal strRef numRef multiLvlStrRef strLit numLit f strCache numCache multiLvlStrCache lvl ptCount pt v formatCode dLbls showLegendKey showVal showCatName showSerName showPercent showBubbleSize showLeaderLines dLblPos separator numFmt dPt bubble3D invertIfNegative marker symbol size smooth axId catAx valAx dateAx scaling orientation max min delete axPos majorGridlines majorTickMark minorTickMark tickLblPos crossAx crosses crossesAt crossBetween auto lblAlgn lblOffset noMultiLvlLbl baseTimeUnit legend legendPos plotVisOnly dispBlanksAs gapWidth overlap firstSliceAng holeSize spPr txPr extLst AlternateContent".split(
    " ",
  ),
);

/** Names of features that are not drawn. */
const NAMED: Record<string, string> = {
  trendline: "the trend lines",
  errBars: "the bars of error",
  dropLines: "the lines between values",
  hiLowLines: "the lines between values",
  serLines: "the lines between values",
  leaderLines: "the lines between values",
  upDownBars: "the bars between lines",
  dTable: "the table under it",
  dLbl: "the labels of single points",
  explosion: "the exploded slices",
  minorGridlines: "the fine grid",
  logBase: "the logarithmic scale",
  dispUnits: "the units of an axis",
  majorUnit: "the steps of an axis",
  minorUnit: "the steps of an axis",
  majorTimeUnit: "the steps of an axis",
  minorTimeUnit: "the steps of an axis",
  manualLayout: "the places of its parts",
  userShapes: "what is drawn on it",
  legendEntry: "the names left out of its key",
  view3D: "the depth",
  floor: "the depth",
  sideWall: "the depth",
  backWall: "the depth",
  pictureOptions: "the forms of its columns",
  shape: "the forms of its columns",
};

/** Plots that are drawn as others, which is reported when the chart is read. */
const AS_OTHERS = /^(bar3D|line3D|pie3D|area3D|stock|radar|ofPie|bubble|surface|surface3D)Chart$/;

/** Elements that charts written by Unitext have too. */
const USUAL: Record<string, string[]> = {
  gapWidth: ["60"],
  overlap: ["0", "100"],
  firstSliceAng: ["0"],
  holeSize: ["55"],
};
const UNUSUAL: Record<string, string> = {
  gapWidth: "the gaps between its columns",
  overlap: "the gaps between its columns",
  firstSliceAng: "where its first slice begins",
  holeSize: "the size of its hole",
};

const isPlain = (properties: XmlElement, inside: string) => {
  const fills = [...properties.children, ...(child(properties, "ln")?.children ?? [])].map(localName);
  if (inside === "ser" || inside === "dPt" || inside === "marker")
    return fills.every((name) => ["solidFill", "ln", "noFill", "round", "prstDash"].includes(name));
  return inside === "majorGridlines" && fills.every((name) => ["ln", "solidFill"].includes(name));
};

/** Whether a value axis runs from the top down, or from the right. The lower axis of a scatter chart is drawn so. */
const turnsValues = (axis: XmlElement): boolean =>
  child(child(axis, "scaling"), "orientation")?.attributes.val === "maxMin";

/** Names the features of a chart part that are not drawn, each once, for the report. */
export function unsupportedChartFeatures(space: XmlElement): string[] {
  const found = new Set<string>();
  const scattered = at(space, "chart", "plotArea", "scatterChart") !== undefined;
  // The axis and its labels share one format.
  const formatOf = (holder: XmlElement | undefined) => {
    const said = child(holder, "numFmt")?.attributes;
    return said && !["1", "true"].includes(said.sourceLinked ?? "0") && said.formatCode !== "General"
      ? said.formatCode
      : undefined;
  };
  const plots = at(space, "chart", "plotArea")?.children ?? [];
  const onAxis = plots.filter((part) => localName(part) === "valAx").map(formatOf)[0];
  const labels = plots.flatMap((plot) => [
    child(plot, "dLbls"),
    ...childrenOf(plot, "ser").map((series) => child(series, "dLbls")),
  ]);
  if (
    onAxis &&
    labels.some(
      (one) =>
        ["1", "true"].includes(child(one, "showVal")?.attributes.val ?? "0") &&
        formatOf(one) &&
        formatOf(one) !== onAxis,
    )
  )
    found.add("the numbers of its labels");
  const look = (element: XmlElement, inside: string): void => {
    const name = localName(element);
    const { val } = element.attributes;
    if (NAMED[name]) found.add(NAMED[name]);
    else if (UNUSUAL[name] && !USUAL[name]?.includes(val ?? "")) found.add(UNUSUAL[name]);
    else if (name === "symbol" && val !== "none" && val !== "circle") found.add("the signs of its points");
    else if (name === "spPr")
      isPlain(element, inside) ||
        found.add(
          inside === "ser" || inside === "dPt" ? "the fills of its series" : "the looks of its areas and lines",
        );
    else if (name === "txPr")
      [...Object.keys(child(child(child(element, "p"), "pPr"), "defRPr")?.attributes ?? {})].every(
        (key) => key === "sz",
      ) || found.add("the looks of its letters");
    else if (
      name === "valAx" &&
      turnsValues(element) &&
      !(scattered && /^[bt]$/.test(child(element, "axPos")?.attributes.val ?? ""))
    )
      found.add("the direction of its values");
    else if (!READ.has(name) && !AS_OTHERS.test(name)) found.add("other settings");
    if (
      ["spPr", "txPr", "rich", "extLst", "AlternateContent", "printSettings", "protection", "clrMapOvr"].includes(
        name,
      ) ||
      NAMED[name]
    )
      return;
    for (const inner of element.children) look(inner, name);
  };
  look(space, "");
  return [...found];
}
