import { type TabStop, tabStop } from "@unitext/core/model";
import { type XmlNode, child, attribute, childrenOf } from "../../../shared/xml";
import { points, clamp } from "../package/names";

export type Values = Record<string, string>;

/** The attributes of a style by local name, including those that it inherits. */
export interface Properties {
  graphic: Values;
  paragraph: Values;
  text: Values;
  cell: Values;
  /** The list style in it, or that it refers to. */
  list: XmlNode | string | undefined;
  columns: Values;
  tabs: TabStop[];
}

/** Types of tab stops (style:type, OpenDocument 1.3, part 3, 19.517; the number from memory). */
const TAB_TYPES: Record<string, "end" | "centre" | "decimal"> = { right: "end", center: "centre", char: "decimal" };
export const none = (): Properties => ({
  graphic: {},
  paragraph: {},
  text: {},
  cell: {},
  list: undefined,
  columns: {},
  tabs: [],
});
const local = (name: string) => name.slice(name.indexOf(":") + 1);
const valuesOf = (element: XmlNode | undefined): Values =>
  Object.fromEntries(Object.entries(element?.attributes ?? {}).map(([name, value]) => [local(name), value]));
export const round = (value: number) => Math.round(value * 100) / 100;

/** Reads a percentage as a share. */
export function share(value: string | undefined): number | undefined {
  const [, number] = /^\s*(-?[\d.]+)\s*%\s*$/.exec(value ?? "") ?? [];
  return number === undefined || !Number.isFinite(Number(number)) ? undefined : Number(number) / 100;
}

/** Returns a colour as `#rrggbb`; undefined when it is not one. */
export function colour(value: string | undefined): string | undefined {
  return value !== undefined && /^#[0-9a-f]{6}$/i.test(value) ? value.toLowerCase() : undefined;
}

/** Returns a size relative to another: percent of it, or points. */
const sizeOver = (value: string, under: string | undefined): string => {
  const part = share(value);
  const whole = points(under);
  return part === undefined || whole === undefined ? value : `${whole * part}pt`;
};

/** Returns properties with those of a more specific style over them. */
export function over(base: Properties, own: Properties): Properties {
  const text = { ...base.text, ...own.text };
  if (own.text["font-size"] !== undefined) text["font-size"] = sizeOver(own.text["font-size"], base.text["font-size"]);
  if (own.text["font-name"] !== undefined && own.text["font-family"] === undefined) delete text["font-family"];
  // A colour replaces the automatic one (20.393), which would hide it; a style with both means the automatic one.
  if (own.text.color !== undefined && own.text["use-window-font-color"] === undefined)
    delete text["use-window-font-color"];
  return {
    graphic: { ...base.graphic, ...own.graphic },
    paragraph: { ...base.paragraph, ...own.paragraph },
    text,
    cell: { ...base.cell, ...own.cell },
    list: own.list ?? base.list,
    columns: { ...base.columns, ...own.columns },
    tabs: own.tabs.length ? own.tabs : base.tabs,
  };
}

/** Returns the properties that a style sets itself. */
export function ownProperties(element: XmlNode): Properties {
  const graphic = child(element, "graphic-properties");
  const paragraph = child(element, "paragraph-properties");
  const page = child(element, "drawing-page-properties");
  const list = child(graphic, "list-style") ?? (attribute(element, "list-style-name") || undefined);
  const tabs = childrenOf(child(paragraph, "tab-stops"), "tab-stop").flatMap((tab): TabStop[] => {
    const at = points(attribute(tab, "position"));
    const align = TAB_TYPES[attribute(tab, "type") ?? ""] ?? "start";
    return at === undefined ? [] : [tabStop(round(clamp(at, 0, 4032)), align)];
  });
  return {
    graphic: { ...valuesOf(page), ...valuesOf(graphic) },
    paragraph: valuesOf(paragraph),
    text: valuesOf(child(element, "text-properties")),
    cell: {
      ...valuesOf(child(element, "table-cell-properties")),
      ...valuesOf(child(element, "table-column-properties")),
      ...valuesOf(child(element, "table-row-properties")),
      ...valuesOf(child(element, "table-properties")),
    },
    list,
    columns: valuesOf(child(graphic, "columns")),
    tabs: tabs.slice(0, 32),
  };
}
