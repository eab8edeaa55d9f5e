import { cutText, NUMBER_SIGN, type RegionBox, must } from "@unitext/core/model";
import { child, localName, type XmlNode, attribute } from "../../../shared/xml";
import { isNumber } from "./elements";
import { ShapeStyles, type ShapeWork } from "./shapestyles";
import { transformOf } from "./shapegeometry";
import type { TextReader } from "./text";
import { readStyledText } from "./styledtext";

const REGIONS: Record<string, RegionBox["region"]> = { footer: "footer", "page-number": "number", "date-time": "date" };

/** What reading the footers, numbers and dates of a page needs. */
export interface RegionSource {
  master: XmlNode | undefined;
  /** The texts of footers and dates by the kind and name of their declaration (OpenDocument 1.3, 9.11). */
  declared: ReadonlyMap<string, string>;
  /** The contexts for the shapes of the page and of its master. */
  onPage: { text: TextReader; work: ShapeWork };
  onMaster: { text: TextReader; work: ShapeWork };
  report(what: string, how: string): void;
}

/** Reads footer, number and date where the master has them and the page shows them. */
export function readRegions(
  page: XmlNode,
  graphic: Record<string, string>,
  { master, declared, onPage, onMaster, report }: RegionSource,
): RegionBox[] {
  // A page number on the page itself counts too.
  const own = page.children.filter(isNumber).map((shape) => ({ shape, ...onPage }));
  const behind = (master?.children ?? [])
    .filter((shape) => REGIONS[attribute(shape, "class") ?? ""])
    .map((shape) => ({ shape, ...onMaster }));
  return [...own, ...behind]
    .flatMap(({ shape, text: reader, work }): RegionBox[] => {
      const name = attribute(shape, "class") ?? "page-number";
      const region = must(REGIONS[name]);
      const transform = transformOf(shape);
      const box = child(shape, "text-box");
      if ((attribute(shape, "class") && graphic[`display-${name}`] === "false") || !transform || !box) return [];
      const kind = region === "footer" ? "footer" : "date-time";
      const used = region === "number" ? undefined : attribute(page, `use-${kind}-name`);
      const { properties } = new ShapeStyles(work).properties(shape);
      const { text, style } = readStyledText(box.children.map(spoken), reader, properties);
      const written = text
        .map(({ runs }) => runs.map((item) => item.text).join(""))
        .join("\n")
        .replace(/<[^>]*>/g, "");
      const words =
        region === "number" && !written.includes(NUMBER_SIGN)
          ? NUMBER_SIGN
          : (used !== undefined && declared.get(`${kind}-decl ${used}`)) || written;
      if (!words.trim()) {
        if (region === "date" && used !== undefined)
          report("the date of the day", "not shown, because it would change from day to day; an .odp keeps it");
        return [];
      }
      const align = text[0]?.align;
      const look = text[0]?.runs[0]?.properties;
      const sided = style.map((level) => ({ ...level, ...(align ? { align } : {}), run: { ...level.run, ...look } }));
      return [
        {
          region: words.trim() === NUMBER_SIGN ? "number" : region,
          text: cutText(words, 500),
          frame: transform.frame,
          style: work.style(sided),
        },
      ];
    })
    .slice(0, 10);
}

/** Returns a text whose empty fields have content, so that their formatting is read with them. */
function spoken(node: XmlNode): XmlNode {
  if (/^(footer|date-time)$/.test(localName(node)))
    return { ...node, name: "presentation:field", local: "field", text: "<field>", content: ["<field>"], children: [] };
  const changed = new Map(node.children.map((inner) => [inner, spoken(inner)]));
  return {
    ...node,
    children: node.children.map((inner) => must(changed.get(inner))),
    content: node.content.map((part) => (typeof part === "string" ? part : (changed.get(part) ?? part))),
  };
}
