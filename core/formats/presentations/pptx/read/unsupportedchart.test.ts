import { readMixed, readXml } from "../../../shared/xml";
import { unsupportedChartFeatures as openDocument } from "../../odp/read/unsupportedchart";
import { unsupportedChartFeatures } from "./unsupportedchart";

// What of a chart is not drawn is told: one row for each element of DrawingML charts (ECMA-376-1, 21.2.2) and each element or property of OpenDocument charts (1.3, part 3, 11 and 20; numbers from memory).
const chart = (plot: string, more = "", space = "") =>
  readXml(
    `<c:chartSpace xmlns:c="urn:c" xmlns:a="urn:a" xmlns:r="urn:r"><c:chart><c:plotArea>${plot}</c:plotArea>${more}</c:chart>${space}</c:chartSpace>`,
    "chart",
  );
const series = (inside: string, after = "") =>
  chart(`<c:barChart><c:ser><c:idx val="0"/>${inside}</c:ser>${after}</c:barChart>`);
const axis = (inside: string) => chart(`<c:barChart/><c:valAx><c:axPos val="l"/>${inside}</c:valAx>`);
const scaling = (value: string) => `<c:scaling><c:orientation val="${value}"/></c:scaling>`;

describe("what a chart of a .pptx says and Unitext does not draw", () => {
  it.each([
    ["the trend lines", series("<c:trendline><c:trendlineType val='linear'/></c:trendline>")],
    ["the bars of error", series("<c:errBars/>")],
    ["the labels of single points", series("<c:dLbls><c:dLbl><c:idx val='1'/></c:dLbl></c:dLbls>")],
    ["the exploded slices", chart("<c:pieChart><c:ser><c:explosion val='10'/></c:ser></c:pieChart>")],
    ["the signs of its points", series("<c:marker><c:symbol val='diamond'/></c:marker>")],
    ["the forms of its columns", series("<c:pictureOptions/>")],
    ["the fills of its series", series("<c:spPr><a:gradFill/></c:spPr>")],
    ["the lines between values", chart("<c:lineChart><c:dropLines/></c:lineChart>")],
    ["the lines between values", chart("<c:lineChart><c:hiLowLines/></c:lineChart>")],
    ["the bars between lines", chart("<c:lineChart><c:upDownBars/></c:lineChart>")],
    ["the gaps between its columns", series("", "<c:gapWidth val='33'/>")],
    ["the gaps between its columns", series("", "<c:overlap val='-20'/>")],
    ["where its first slice begins", chart("<c:pieChart><c:firstSliceAng val='90'/></c:pieChart>")],
    ["the size of its hole", chart("<c:doughnutChart><c:holeSize val='70'/></c:doughnutChart>")],
    ["the fine grid", axis("<c:minorGridlines/>")],
    ["the logarithmic scale", axis("<c:scaling><c:logBase val='10'/></c:scaling>")],
    ["the units of an axis", axis("<c:dispUnits/>")],
    ["the steps of an axis", axis("<c:majorUnit val='5'/>")],
    ["the direction of its values", axis(scaling("maxMin"))],
    [
      "the direction of its values",
      chart(`<c:scatterChart/><c:valAx>${scaling("maxMin")}<c:axPos val="l"/></c:valAx>`),
    ],
    ["the table under it", chart("<c:dTable/>")],
    ["the places of its parts", chart("<c:layout><c:manualLayout/></c:layout>")],
    ["the names left out of its key", chart("", "<c:legend><c:legendEntry/></c:legend>")],
    ["the depth", chart("", "<c:view3D/>")],
    ["the looks of its areas and lines", chart("<c:spPr><a:solidFill/></c:spPr>")],
    ["the looks of its letters", chart("", "", '<c:txPr><a:p><a:pPr><a:defRPr b="1"/></a:pPr></a:p></c:txPr>')],
    ["what is drawn on it", chart("", "", "<c:userShapes r:id='r1'/>")],
    ["other settings", chart("<c:unheardOf/>")],
  ])("has a name: %s", (name, given) => {
    expect(unsupportedChartFeatures(given)).toEqual([name]);
  });

  it.each([
    [
      "a plain series",
      series("<c:spPr><a:solidFill/><a:ln/></c:spPr>", "<c:gapWidth val='60'/><c:overlap val='100'/>"),
    ],
    [
      "an axis with its limits, its numbers and its grid",
      axis(
        `<c:scaling><c:orientation val="minMax"/><c:max val="5"/><c:min val="0"/></c:scaling><c:majorGridlines><c:spPr><a:ln><a:solidFill/></a:ln></c:spPr></c:majorGridlines><c:numFmt formatCode="0.0"/>`,
      ),
    ],
    ["categories that run the other way", chart(`<c:barChart/><c:catAx>${scaling("maxMin")}</c:catAx>`)],
    [
      "the lower axis of a scatter chart that runs the other way",
      chart(`<c:scatterChart/><c:valAx>${scaling("maxMin")}<c:axPos val="b"/></c:valAx>`),
    ],
    ["letters of a size", chart("", "", '<c:txPr><a:p><a:pPr><a:defRPr sz="1200"/></a:pPr></a:p></c:txPr>')],
    ["plots that are drawn as others, which are told elsewhere", chart("<c:radarChart/>")],
  ])("has none for %s", (_, given) => {
    expect(unsupportedChartFeatures(given)).toEqual([]);
  });

  it("says each thing once", () => {
    expect(unsupportedChartFeatures(series("<c:trendline/><c:trendline/><c:errBars/>"))).toEqual([
      "the trend lines",
      "the bars of error",
    ]);
  });
});

describe("what a chart of an .odp says and Unitext does not draw", () => {
  const document = (plot: string, properties = "") =>
    readMixed(
      `<office:document-content xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" xmlns:chart="urn:oasis:names:tc:opendocument:xmlns:chart:1.0" xmlns:style="urn:oasis:names:tc:opendocument:xmlns:style:1.0"><office:automatic-styles><style:style style:name="a"><style:chart-properties ${properties}/></style:style></office:automatic-styles><office:body><office:chart><chart:chart><chart:plot-area>${plot}</chart:plot-area></chart:chart></office:chart></office:body></office:document-content>`,
      "chart",
    );
  const along = (dimension: string) => `<chart:axis chart:dimension="${dimension}" chart:style-name="a"/>`;

  it.each([
    ["the trend lines", document("<chart:series><chart:regression-curve/></chart:series>")],
    ["the bars of error", document("<chart:series><chart:error-indicator/></chart:series>")],
    ["the labels of single points", document("<chart:series><chart:data-label/></chart:series>")],
    ["the fine grid", document('<chart:axis><chart:grid chart:class="minor"/></chart:axis>')],
    ["the logarithmic scale", document(along("y"), 'chart:logarithmic="true"')],
    ["the exploded slices", document("", 'chart:pie-offset="10"')],
    ["the steps of an axis", document(along("y"), 'chart:interval-major="5"')],
    ["the direction of its values", document(along("y"), 'chart:reverse-direction="true"')],
  ])("has a name: %s", (name, given) => {
    expect(openDocument(given)).toEqual([name]);
  });

  it.each([
    ["a great grid", document('<chart:axis><chart:grid chart:class="major"/></chart:axis>')],
    ["categories that run the other way", document(along("x"), 'chart:reverse-direction="true"')],
    [
      "what is said to be none",
      document(along("y"), 'chart:logarithmic="false" chart:pie-offset="0" chart:error-category="none"'),
    ],
  ])("has none for %s", (_, given) => {
    expect(openDocument(given)).toEqual([]);
  });
});
