import { runsFromRight } from "../../shared/chartdirection";
import { palette } from "@unitext/core/figures";
import { sizeOf, type TableGrid, tableAppearance, isMirrored, withCell } from "@unitext/core/layout";
import type { Element, LevelStyle, Paragraph, RichText, TableElement } from "@unitext/core/model";
import { xml } from "../../../shared/xml";
import { chartTable, flattenRuns } from "../../../shared/sourcepackage";
import { transform } from "../package/layouts";
import { REL, TYPE } from "../package/names";
import { Relationships, relativeTo } from "../package/parts";
import { type TableMetrics, tableXml } from "./table";
import { paragraphsXml, type PartTextContext } from "./text";
import { chartPart } from "./chart";
import { workbook } from "./workbook";
import { fillXml } from "./drawing";
import { type ShapeWork, embedded, textContext, styleOf } from "./slidework";

function graphicFrame(
  { id, name, frame }: Pick<ShapeWork, "id" | "name" | "frame">,
  element: Pick<Element, "name">,
  uri: string,
  content: string,
): string {
  return xml(
    "p:graphicFrame",
    {},
    xml(
      "p:nvGraphicFramePr",
      {},
      xml("p:cNvPr", { id, name: element.name ?? name }),
      '<p:cNvGraphicFramePr><a:graphicFrameLocks noGrp="1"/></p:cNvGraphicFramePr>',
      "<p:nvPr/>",
    ),
    transform(frame).replace(/a:xfrm/g, "p:xfrm"),
    xml(
      "a:graphic",
      {},
      xml("a:graphicData", { uri: `http://schemas.openxmlformats.org/drawingml/2006/${uri}` }, content),
    ),
  );
}

/** Returns a paragraph with the properties of its level, because table cells have no levels. */
function inLevel({ align, properties, ...paragraph }: Paragraph, level: LevelStyle): Paragraph {
  const side = align ?? level.align;
  const direct = {
    ...level.paragraph,
    ...properties,
    ...(paragraph.runs.length || !level.run ? {} : { words: { ...level.run, ...properties?.words } }),
  };
  const marks = [...(level.strong ? ["strong" as const] : []), ...(level.emphasis ? ["emphasis" as const] : [])];
  return {
    ...paragraph,
    ...(side ? { align: side } : {}),
    ...(Object.keys(direct).length ? { properties: direct } : {}),
    runs: paragraph.runs.map((run) => ({
      ...run,
      ...(marks.length ? { marks: [...new Set([...marks, ...(run.marks ?? [])])] } : {}),
      properties: { ...level.run, ...run.properties },
    })),
  };
}

/** Writes a table with its own appearance, or with that of the theme where it has none. */
function tableFrame(
  element: Pick<
    TableElement,
    "rows" | "header" | "align" | "direction" | "widths" | "heights" | "shares" | "style" | "name"
  >,
  work: ShapeWork,
  laid?: TableGrid,
): string {
  const { frame, box, metadata, notes, options } = work;
  const { rows, widths, heights } = element;
  const style = styleOf(element, work);
  const size = widths ? (style?.[0]?.run?.size ?? 18) : box?.size || sizeOf("figure", metadata.theme, metadata.page);
  const { codeColour, ...plain } = textContext(work, size, false);
  const context: PartTextContext = {
    ...plain,
    sized: !widths,
    ...(widths || codeColour === undefined ? {} : { codeColour }),
  };
  const level = widths ? style?.[0] : undefined;
  const dressed = (text: RichText): RichText => (level ? text.map((paragraph) => inLevel(paragraph, level)) : text);
  const columns = Math.max(...rows.map((row) => row.length));
  const standing = (): TableMetrics => {
    if (widths)
      return {
        widths: Array.from({ length: columns }, (_, x) => widths[x] || frame.width / columns),
        heights: rows.map((_, y) => heights?.[y] || frame.height / rows.length),
        appearanceOf: (cell) => cell,
        bold: false,
      };
    const look = tableAppearance(
      element,
      frame.width,
      size,
      { fonts: options.fonts, theme: metadata.theme, language: metadata.language },
      laid,
    );
    return {
      ...look,
      appearanceOf: (cell, row) =>
        withCell(look.appearanceOf(row, Math.min(row + (cell.rows ?? 1), rows.length) - 1), cell),
      bold: true,
    };
  };
  return graphicFrame(
    work,
    element,
    "table",
    tableXml(
      element,
      isMirrored(element, work.metadata.language),
      standing(),
      (text) => paragraphsXml(flattenRuns(dressed(text), notes), context),
      (fill) => fillXml(fill, (source) => embedded(work, source)),
    ),
  );
}

/** Writes a chart with its workbook; one without values as its table. */
export function chartShape(element: Extract<Element, { kind: "chart" }>, work: ShapeWork): string {
  const { pack, relationships, path } = work;
  if (!element.series.some(({ values }) => values.length)) return tableFrame(chartTable(element), work);
  const { theme, language } = work.metadata;
  const own = new Relationships();
  const chart = pack.free("ppt/charts/chart1.xml");
  pack.put(chart, TYPE.chart, new Uint8Array());
  const book = pack.free("ppt/embeddings/workbook1.xlsx");
  pack.put(book, undefined, workbook(element));
  const id = own.add(REL.workbook, relativeTo(chart, book));
  pack.add(
    chart,
    TYPE.chart,
    chartPart(element, palette(theme.colours), id, { fromRight: runsFromRight(element, language) }),
    own,
  );
  return graphicFrame(
    work,
    element,
    "chart",
    xml("c:chart", {
      "xmlns:c": "http://schemas.openxmlformats.org/drawingml/2006/chart",
      "r:id": relationships.add(REL.chart, relativeTo(path, chart)),
    }),
  );
}

/** Writes a table with its caption. */
export function tableShape(element: Extract<Element, { kind: "table" }>, work: ShapeWork): string {
  const { frame } = work;
  const caption = { ...frame, y: frame.y + frame.height + 4, height: 24 };
  return tableFrame(element, work, work.box?.grid) + (element.caption ? work.line(element.caption, caption) : "");
}
