import {
  canonical,
  type Cell,
  type Element,
  type RichText,
  run,
  type Stroke,
  type TextStyle,
  must,
} from "@unitext/core/model";
import { points } from "../package/names";
import { colour, type Properties } from "./properties";
import { hasOwnProperties } from "./text";

const round = (value: number) => Math.round(value * 100) / 100;

/**
 * Returns a cell's text under the style of its table: properties that its own style adds go to its paragraphs and runs.
 */
export function withTableStyle(
  text: RichText,
  style: string,
  table: string,
  work: { styled(name: string): TextStyle | undefined },
): RichText {
  if (style === table) return text;
  const [levels = [], under = []] = [work.styled(style), work.styled(table)];
  const [own] = levels;
  if (!own) return text;
  const at = (all: TextStyle, level: number) => all[Math.min(level, all.length - 1)]?.paragraph;
  const given = [...(own.strong ? ["strong" as const] : []), ...(own.emphasis ? ["emphasis" as const] : [])];
  const look = canonical(own.run) === canonical(under[0]?.run) ? undefined : own.run;
  return text.map((paragraph) => {
    const direct = {
      ...hasOwnProperties(at(levels, paragraph.level), at(under, paragraph.level), paragraph.kind),
      ...paragraph.properties,
      ...(look && !paragraph.runs.length ? { words: { ...look, ...paragraph.properties?.words } } : {}),
    };
    return {
      ...paragraph,
      ...(paragraph.align || !own.align ? {} : { align: own.align }),
      ...(Object.keys(direct).length ? { properties: direct } : {}),
      runs: paragraph.runs.map((item) =>
        run(
          item.text,
          [...new Set([...given, ...(item.marks ?? [])])],
          item.link,
          look || item.properties ? { ...look, ...item.properties } : undefined,
        ),
      ),
    };
  });
}

/** Reads the fill, alignment, insets and borders of a cell. */
export function cellProperties(
  { graphic, paragraph, cell }: Properties,
  { fill }: Pick<Element, "fill">,
): Pick<Cell, "fill" | "anchor" | "insets" | "borders"> {
  const said = { ...cell, ...paragraph, ...graphic };
  const inset = (side: string) =>
    round(points(said[`padding-${side}`] ?? said.padding) ?? (side === "left" || side === "right" ? 7.09 : 3.69));
  const border = (side: string): Stroke | null => {
    const [width, form, shown] = (
      paragraph[`border-${side}`] ??
      paragraph.border ??
      cell[`border-${side}`] ??
      cell.border ??
      "none"
    ).split(/\s+/);
    const own = colour(shown);
    const wide = points(width);
    return own && wide !== undefined && form !== "none"
      ? {
          colour: own,
          width: round(wide),
          ...(form === "dotted" ? { dash: "dot" as const } : form === "dashed" ? { dash: "dash" as const } : {}),
        }
      : null;
  };
  const anchor = ({ middle: "middle", bottom: "bottom" } as const)[
    (said["textarea-vertical-align"] ?? said["vertical-align"] ?? "") as "middle"
  ];
  const plain =
    fill ??
    (colour(said["background-color"])
      ? { kind: "solid" as const, colour: must(colour(said["background-color"])) }
      : undefined);
  return {
    ...(plain ? { fill: plain } : {}),
    ...(anchor ? { anchor } : {}),
    insets: [inset("left"), inset("top"), inset("right"), inset("bottom")],
    borders: { left: border("left"), top: border("top"), right: border("right"), bottom: border("bottom") },
  };
}
